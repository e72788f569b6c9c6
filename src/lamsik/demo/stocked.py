"""Puts in what the invented shop has in its stores."""

from datetime import UTC, date, datetime, time, timedelta

from sqlmodel import Session, col, select

from lamsik.core.stock.ledger import BOUGHT, COUNTED
from lamsik.demo import scenario_stores as scenario
from lamsik.store import costs, ledger, moulds, needs, reserved, stores, suppliers
from lamsik.store.tables import Document, Incident, Machine, StockItem, Supplier


def build(session: Session) -> None:
    """Suppliers, what came, what was counted where, stand-ins, machines; and what open orders take."""
    known = [
        suppliers.named(session, Supplier(name=name, reach=reach, lead_days=days))
        for name, reach, days in scenario.SUPPLIERS
    ]
    which, text, outcome = scenario.INCIDENT
    session.add(Incident(supplier_id=known[which].id or 0, text=text, outcome=outcome))
    for kept in scenario.KEPT:
        _laid(session, kept, known[kept.supplier])
    for name, amount, minor, ordered, came in scenario.DELIVERIES:
        _came(session, _item(session, name), amount, minor, ordered, came)
    for kept in scenario.KEPT:
        ledger.move(session, _item(session, kept.name), COUNTED, float(kept.lies))
    for one, other in scenario.STAND_INS:
        ledger.pair(session, _item(session, one), _item(session, other))
    for name, state, steps, fallback in scenario.MACHINES:
        session.add(Machine(name=name, state=state, steps=list(steps), fallback=fallback))
    rates = [{"zone": to, "up_to_g": g, "minor": minor, "as_of": ""} for to, g, minor in scenario.RATES]
    costs.keep_rates(session, rates)
    name, minor, shots = scenario.MOULD_COST
    mould = session.exec(select(Document.id).where(Document.kind == "mould", Document.name == name)).one()
    moulds.price(session, moulds.versions(session, mould or 0)[0], minor, shots)
    session.flush()
    needs.told(session, reserved.untold(session, reserved.open_lines(session)))


def _item(session: Session, name: str) -> StockItem:
    return session.exec(select(StockItem).where(col(StockItem.name) == name)).one()


def _laid(session: Session, kept: scenario.Kept, supplier: Supplier) -> None:
    item = (
        StockItem(kind=kept.kind, name=kept.name, unit=kept.unit, material=kept.called, each_piece=kept.each)
        if kept.kind
        else _item(session, kept.name)
    )
    item.place, item.pack, item.minimum = kept.place, float(kept.pack), float(kept.least)
    item.price_minor, item.currency = kept.minor, str(stores.setting(session, "shop")["currency"])
    item.supplier_id = supplier.id
    ledger.named(session, item)


def _came(session: Session, item: StockItem, amount: float, minor: int, ordered: int, came: int) -> None:
    at = datetime.combine(date.today() - timedelta(days=came), time(10), UTC)
    ledger.move(
        session,
        item,
        BOUGHT,
        float(amount),
        at=at,
        price_minor=minor,
        currency=item.currency,
        supplier_id=item.supplier_id,
        ordered_on=date.today() - timedelta(days=ordered),
    )
