"""Suppliers, machines and movements brought in from a table: each row as it is taken, and what it changed."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import UTC, date, datetime, time
from typing import Any

from sqlmodel import func, select

from lamsik.core.errors import Refused, require
from lamsik.core.quantities import counted
from lamsik.core.stock import bringing
from lamsik.core.stock.bringing import Heads
from lamsik.core.stock.ledger import BOUGHT, COUNTED, SIGNS
from lamsik.core.trade.step_kinds import STEP_KINDS
from lamsik.store import ledger, machines, stock_tables, suppliers
from lamsik.store.tables import Machine, Movement, StockItem, StockLot, Supplier, now
from lamsik.web.shared.db import db
from lamsik.web.shared.forms import whole
from lamsik.web.stores.item_form import price
from lamsik.words.stock import STATES, WHYS, amount

Cells = Mapping[str, str]
"""What a row says, by what its columns hold."""


@dataclass(frozen=True)
class RowTaken:
    """A row of a file as it was taken: its line, what of, whether that is new, what is otherwise now: called,
    before, after.
    """

    line: int
    name: str
    is_new: bool
    changes: tuple[tuple[str, str, str], ...]


@dataclass(frozen=True)
class Bringing:
    """A list that can be brought in: its columns in words, where it stands, how a row is taken, and which of
    its columns hold an amount whose unit is asked for.
    """

    columns: str
    page: str
    take: Callable[[int, Cells, Heads, Cells], RowTaken]
    amounts: tuple[str, ...] = ()


def _supplier(line: int, cells: Cells, names: Heads, answered: Cells) -> RowTaken:
    name = " ".join(cells["name"].split())[:120]
    row = db().exec(select(Supplier).where(func.lower(Supplier.name) == name.lower())).first()
    is_new, row = row is None, row or Supplier(name=name)
    was = {"reach": row.reach, "days said": _days(row.lead_days), "note": row.note}
    if cells.get("reach"):
        row.reach = cells["reach"][:300]
    if cells.get("note"):
        row.note = cells["note"][:2000]
    if cells.get("days said"):
        row.lead_days = whole(cells["days said"], "days said", 0, 1000)
    suppliers.named(db(), row)
    then = {"reach": row.reach, "days said": _days(row.lead_days), "note": row.note}
    return RowTaken(line, row.name, is_new, _differ(was, then, is_new, row.name))


def _days(days: int | None) -> str:
    return counted(days, "day") if days is not None else ""


def _machine(line: int, cells: Cells, names: Heads, answered: Cells) -> RowTaken:
    name = " ".join(cells["name"].split())[:80]
    row = db().exec(select(Machine).where(func.lower(Machine.name) == name.lower())).first()
    is_new, row = row is None, row or Machine(name=name)
    was = _stands(row)
    state = cells.get("state", "").lower()
    if state:
        require(state in STATES, "state", state, f"one of {', '.join(STATES)}")
        if state != row.state:
            row.state, row.since = state, now()
    if cells.get("steps"):
        steps = cells["steps"].replace(",", " ").split()
        for one in steps:
            require(one in STEP_KINDS, "steps", one, f"one of {', '.join(STEP_KINDS)}")
        row.steps = steps
    row.fallback = cells.get("fallback", "")[:1000] or row.fallback
    row.note = cells.get("note", "")[:1000] or row.note
    machines.named(db(), row)
    return RowTaken(line, row.name, is_new, _differ(was, _stands(row), is_new, row.name))


def _stands(row: Machine) -> dict[str, str]:
    return {
        "state": STATES[row.state],
        "steps": " ".join(row.steps),
        "fallback": row.fallback,
        "note": row.note,
    }


def _differ(was: Cells, then: Cells, is_new: bool, name: str) -> tuple[tuple[str, str, str], ...]:
    rows = [("name", "", name)] if is_new else []
    return (*rows, *((key, was[key], value) for key, value in then.items() if value != was[key]))


def _movement(line: int, cells: Cells, names: Heads, answered: Cells) -> RowTaken:
    item = ledger.numbered(db(), cells["number"])
    if item is None:
        raise Refused("number", cells["number"], "the number of an item of this shop")
    why = cells.get("why", "").lower()
    require(why in SIGNS, "why", why, f"one of {', '.join(SIGNS)}")
    key = COUNTED if why == COUNTED and cells.get(COUNTED) else "amount"
    sign = -1.0 if cells[key].startswith("-") else 1.0
    text = cells[key].lstrip("-− ")
    value = bringing.read_amount(key, text, cells.get("unit", ""), item.unit, names, answered)
    at, lot = _at(cells.get("at", "")), _lot(item, cells.get("lot", ""))
    signed = value * (SIGNS[why] or sign)
    if cells.get("undone at") or _is_there(item, why, at, signed, value):
        return RowTaken(line, item.name, False, ())
    require(not cells.get("of"), "of", cells.get("of"), "nothing: what work used is noted at its bench")
    more: dict[str, Any] = {"at": at, "note": cells.get("note", "")[:300]}
    if why == BOUGHT:
        more |= _paid(cells, names)
    before = ledger.held(db(), item.id)
    ledger.by_hand(db(), item, why, value if SIGNS[why] or why == COUNTED else signed, lot, **more)
    then = ledger.held(db(), item.id)
    on = f", {at.date().isoformat()}" if at is not None else ""
    change = f"{WHYS[why].lower()}{on}", amount(before, item.unit), amount(then, item.unit)
    return RowTaken(line, item.name, False, (change,))


def _is_there(item: StockItem, why: str, at: datetime | None, signed: float, counted_as: float) -> bool:
    """Whether this very movement is in the ledger already: a table that went out comes in and changes
    nothing.
    """
    if at is None:
        return False
    same = select(Movement).where(Movement.item_id == item.id, Movement.why == why, Movement.at == at)
    wanted = counted_as if why == COUNTED else signed
    kept = [row.amount if row.counted is None else row.counted for row in db().exec(same).all()]
    return any(abs(one - wanted) < 1e-5 for one in kept)


def _at(text: str) -> datetime | None:
    if not text:
        return None
    try:
        if len(text) == 10:
            noon = datetime.combine(date.fromisoformat(text), time(12))
            at = noon.astimezone().astimezone(UTC).replace(tzinfo=None)
        else:
            at = datetime.fromisoformat(text)
    except ValueError as error:
        raise Refused("at", text, "a day such as 2027-03-31, or nothing for now") from error
    at = at.replace(tzinfo=UTC) if at.tzinfo is None else at
    require(at <= now(), "at", text, "a day that is not to come")
    return at


def _lot(item: StockItem, text: str) -> StockLot | None:
    if not text:
        return None
    lot = db().exec(select(StockLot).where(StockLot.item_id == item.id, StockLot.lot == text)).first()
    if lot is None:
        lot = StockLot(item_id=item.id or 0, lot=text[:40], place=item.place)
        db().add(lot)
        db().flush()
    return lot


def _paid(cells: Cells, names: Heads) -> dict[str, Any]:
    told: dict[str, Any] = {}
    if cells.get("price"):
        currency = cells.get("currency") or names.unit.get("price", "")
        is_said = bool(currency) or len(cells["price"].split()) == 2
        require(is_said, "price", cells["price"], bringing.CURRENCY)
        told["price_minor"], told["currency"] = price(f"{cells['price']} {currency}".strip())
    if cells.get("supplier"):
        told["supplier_id"] = suppliers.of_name(db(), cells["supplier"]).id
    return told


LISTS: Mapping[str, Bringing] = {
    "suppliers": Bringing("name, reach, days said, note", "stores_suppliers.index", _supplier),
    "machines": Bringing("name, state, steps, fallback, note", "stores_machines.index", _machine),
    "movements": Bringing(
        "number (of an item), why, amount, unit, at (empty for now), lot, price, currency, supplier, note",
        "stores_stock.index",
        _movement,
        ("amount", COUNTED),
    ),
}
"""By list; items have their own way, for what there is of them is counted."""


def taken(what: str, rows: list[dict[str, str]], names: Heads, answered: Cells) -> list[RowTaken]:
    """The rows of a file as they were taken, one by one. Raises `Refused` naming the line."""
    way, done = LISTS[what], []
    for row in rows:
        cells = {key: row.get(column, "").strip() for key, column in names.of.items()}
        line = int(row["line"])
        try:
            for key in ("name", "number", "amount"):
                cells.setdefault(key, "")
            done.append(way.take(line, cells, names, answered))
        except Refused as refused:
            raise Refused(f"line {line}, {refused.field}", refused.given, refused.allowed) from refused
    return done


def unasked(what: str, rows: list[dict[str, str]], names: Heads) -> list[str]:
    """The units that a file of amounts does not say."""
    keys = LISTS[what].amounts
    known = {row.number: row.unit for row in stock_tables.all_items(db())} if keys else {}
    return bringing.unasked(rows, names, known, keys)
