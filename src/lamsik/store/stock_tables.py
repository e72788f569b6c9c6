"""Lists of the stores as plain rows: what a table in a file holds."""

from collections.abc import Callable, Mapping, Sequence
from typing import Any

from sqlmodel import Session, col, select

from lamsik.core.money import Money
from lamsik.store import ledger, machines
from lamsik.store.suppliers import lead_time
from lamsik.store.tables import Movement, StockItem, StockLot, Supplier

MOST = 200_000
Table = tuple[Sequence[str], list[Mapping[str, Any]]]
"""The names of the columns and the rows."""


def all_items(session: Session) -> Sequence[StockItem]:
    """Every item that is on the list."""
    here = select(StockItem).where(col(StockItem.deleted_at).is_(None))
    return session.exec(here.order_by(StockItem.search, col(StockItem.id))).all()


def _names(session: Session) -> dict[int | None, str]:
    return {row.id: row.name for row in session.exec(select(Supplier)).all()}


def _price(minor: int | None, currency: str) -> str:
    return str(Money(minor, currency).amount) if minor is not None else ""


def stock(session: Session) -> Table:
    """Items with what there is of each, in the unit beside it; one nobody counted has none."""
    rows, names = all_items(session), _names(session)
    held = ledger.held_of(session, [row.id for row in rows])
    return (
        (
            "number",
            "name",
            "kind",
            "unit",
            "there is",
            "pack",
            "least",
            "place",
            "material",
            "price",
            "currency",
        )
        + ("supplier", "note"),
        [
            {
                "number": row.number,
                "name": row.name,
                "kind": row.kind,
                "unit": row.unit,
                "there is": round(held[row.id or 0], 6) if (row.id or 0) in held else None,
                "pack": row.pack or None,
                "least": row.minimum or None,
                "place": row.place,
                "material": row.material,
                "price": _price(row.price_minor, row.currency),
                "currency": row.currency,
                "supplier": names.get(row.supplier_id, ""),
                "note": row.note,
            }
            for row in rows
        ],
    )


def movements(session: Session) -> Table:
    """Every movement, the oldest first; one that is undone says when."""
    names = _names(session)
    query = select(Movement, StockItem).join(StockItem, col(StockItem.id) == Movement.item_id)
    lots = {row.id: row.lot for row in session.exec(select(StockLot)).all()}
    return (
        (
            "at",
            "number",
            "item",
            "why",
            "amount",
            "unit",
            "counted",
            "lot",
            "of",
            "price",
            "currency",
            "supplier",
        )
        + ("note", "undone at"),
        [
            {
                "at": row.at.isoformat(),
                "number": item.number,
                "item": item.name,
                "why": row.why,
                "amount": round(row.amount, 6),
                "unit": item.unit,
                "counted": row.counted,
                "lot": lots.get(row.lot_id, ""),
                "of": f"{row.of} {row.of_id}" if row.of else "",
                "price": _price(row.price_minor, row.currency),
                "currency": row.currency,
                "supplier": names.get(row.supplier_id, ""),
                "note": row.note,
                "undone at": row.undone_at.isoformat() if row.undone_at else "",
            }
            for row, item in session.exec(query.order_by(col(Movement.id)).limit(MOST)).all()
        ],
    )


def suppliers(session: Session) -> Table:
    """Suppliers with how long each takes [d]."""
    here = select(Supplier).where(col(Supplier.deleted_at).is_(None)).order_by(Supplier.search)
    rows: list[Mapping[str, Any]] = [
        {
            "name": row.name,
            "reach": row.reach,
            "days said": row.lead_days,
            "days seen": round(lead.value, 1) if (lead := lead_time(session, row)).n else None,
            "note": row.note,
        }
        for row in session.exec(here).all()
    ]
    return ("name", "reach", "days said", "days seen", "note"), rows


def machinery(session: Session) -> Table:
    """Machines and how they stand."""
    return (
        ("name", "state", "since", "steps", "fallback", "note"),
        [
            {
                "name": row.name,
                "state": row.state,
                "since": row.since.isoformat(),
                "steps": " ".join(row.steps),
                "fallback": row.fallback,
                "note": row.note,
            }
            for row in machines.listed(session)
        ],
    )


TABLES: Mapping[str, Callable[[Session], Table]] = {
    "stock": stock,
    "movements": movements,
    "suppliers": suppliers,
    "machines": machinery,
}
"""By name."""
