"""Lists of the stores as CSV, and items brought in: what would change is seen before anything does."""

from collections.abc import Sequence

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.money import Money
from lamsik.core.quantities import OFFERED, unit_of
from lamsik.core.stock import bringing
from lamsik.core.stock.bringing import BroughtRow
from lamsik.core.stock.kinds import QUANTITIES
from lamsik.core.stock.ledger import COUNTED
from lamsik.formats import table_csv
from lamsik.store import ledger, stock_tables, suppliers
from lamsik.store.tables import StockItem, Supplier
from lamsik.web.shared.db import db
from lamsik.web.shared.files import as_file
from lamsik.web.stores import brought
from lamsik.web.stores.brought import RowTaken
from lamsik.web.stores.item_form import price
from lamsik.words.stock import amount

blueprint = Blueprint("stores_tables", __name__, url_prefix="/stores")
CALLED = {"left": "there is", "pack": "pack", "minimum": "least", "price": "price", "supplier": "from"}


@blueprint.get("/<any(stock, movements, suppliers, machines):what>.csv")
def export(what: str) -> ResponseReturnValue:
    """A list as CSV, each amount with its unit beside it."""
    names, rows = stock_tables.TABLES[what](db())
    return as_file(table_csv.write(names, rows), f"{what}.csv", "text/csv")


CALLED_LISTS = {"stock": "Items", "movements": "Movements", "suppliers": "Suppliers", "machines": "Machines"}
"""The lists that can be brought in."""
ITEMS_HAVE = (
    "number (empty for a new item), name, kind, there is, unit, pack, least, place, material, price,"
    " currency, supplier, note"
)


@blueprint.route("/bring/<any(suppliers, machines, movements):what>", methods=["GET", "POST"])
def bring_list(what: str) -> ResponseReturnValue:
    """Another list is brought in. What would change is what did, and is taken back again; then it is done."""
    if request.method == "GET":
        return _page("", what=what)
    text = _sent()
    try:
        rows = table_csv.read(text.encode(), ())
        names = bringing.heads([name for name in rows[0] if name != "line"])
        asks = [one for one in brought.unasked(what, rows, names) if not request.form.get(f"unit_{one}")]
        if asks:
            return _page(text, asks=asks, what=what)
        answered = {one: request.form.get(f"unit_{one}", "") for one in bringing.ASKED}
        taken = brought.taken(what, rows, names, answered)
    except Refused as refused:
        db().rollback()
        return _page(text, problem=refused, what=what), 422
    if request.form.get("way") != "take":
        db().rollback()
        return _page(text, taken, what=what)
    flash(f"{sum(bool(row.changes) for row in taken)} of {len(taken)} rows changed something.")
    return redirect(url_for(brought.LISTS[what].page))


@blueprint.route("/bring", methods=["GET", "POST"])
def bring() -> ResponseReturnValue:
    """A file is read, units are asked for where it does not say them, what would change is shown; then it is
    done.
    """
    if request.method == "GET":
        return _page("")
    text = _sent()
    try:
        rows = table_csv.read(text.encode(), ())
        names = bringing.heads([name for name in rows[0] if name != "line"])
        known = {row.number: row for row in stock_tables.all_items(db())}
        units = {number: row.unit for number, row in known.items()}
        asks = [one for one in bringing.unasked(rows, names, units) if not request.form.get(f"unit_{one}")]
        if asks:
            return _page(text, asks=asks)
        answered = {one: request.form.get(f"unit_{one}", "") for one in bringing.ASKED}
        brought = [bringing.read(row, names, units, answered) for row in rows]
        if request.form.get("way") != "take":
            return _page(text, [_would_be(row, known.get(row.number)) for row in brought])
        count = sum(_taken(row, known.get(row.number)) for row in brought)
    except Refused as refused:
        db().rollback()
        return _page(text, problem=refused), 422
    flash(f"{count} of {len(brought)} rows changed something. Each change can be taken back on its item.")
    return redirect(url_for("stores_stock.index"))


def _sent() -> str:
    sent = request.files.get("file")
    if sent is not None and sent.filename:
        data: bytes = sent.read(table_csv.MOST_BYTES + 1)
        return data.decode("utf-8-sig", "replace")
    return request.form.get("text", "")


def _page(
    text: str,
    would: Sequence[RowTaken] | None = None,
    asks: Sequence[str] = (),
    problem: Refused | None = None,
    what: str = "stock",
) -> str:
    return render_template(
        "stores/bring.html",
        text=text,
        would=would,
        what=what,
        lists=CALLED_LISTS,
        columns=brought.LISTS[what].columns if what in brought.LISTS else ITEMS_HAVE,
        asks=[(one, OFFERED[QUANTITIES[one]], unit_of(QUANTITIES[one])) for one in asks],
        answered={one: request.form.get(f"unit_{one}", "") for one in bringing.ASKED},
        problem=problem,
        most=table_csv.MOST_ROWS,
    )


def _would_be(row: BroughtRow, item: StockItem | None) -> RowTaken:
    name = item.name if item else row.texts.get("name", "")
    return RowTaken(row.line, name, item is None, tuple(_changes(row, item)))


def _changes(row: BroughtRow, item: StockItem | None) -> list[tuple[str, str, str]]:
    """What would be otherwise: called, before, after."""
    rows = [
        (name, getattr(item, name) if item else "", text)
        for name, text in row.texts.items()
        if text and text != (getattr(item, name) if item else "")
    ]
    for name, value in row.amounts.items():
        counted = item is not None and ledger.is_counted(db(), item.id)
        was = None if item is None else _held(item, name) if name != "left" or counted else None
        if was is None or abs(was - value) > 1e-6:
            rows.append((CALLED[name], "" if was is None else amount(was, row.unit), amount(value, row.unit)))
    if row.price:
        minor, currency = price(row.price)
        had = (item.price_minor, item.currency) if item is not None else (None, "")
        if minor is not None and had != (minor, currency):
            before = Money(had[0], had[1]).said if had[0] is not None else ""
            rows.append((CALLED["price"], before, Money(minor, currency).said))
    has = db().get(Supplier, item.supplier_id) if item is not None and item.supplier_id else None
    if row.supplier and row.supplier != (has.name if has else ""):
        rows.append((CALLED["supplier"], has.name if has else "", row.supplier))
    return rows


def _held(item: StockItem, name: str) -> float:
    return ledger.held(db(), item.id) if name == "left" else float(getattr(item, name))


def _taken(row: BroughtRow, item: StockItem | None) -> bool:
    """A row is taken as it would be; whether anything changed."""
    if not _changes(row, item):
        return False
    item = item or StockItem(kind=row.kind, name="", unit=row.unit)
    for name, text in row.texts.items():
        if text:
            setattr(item, name, text)
    for name in ("pack", "minimum"):
        if name in row.amounts:
            setattr(item, name, row.amounts[name])
            item.typed = {key: text for key, text in item.typed.items() if key != name}
    if row.price:
        item.price_minor, item.currency = price(row.price)
    if row.supplier:
        item.supplier_id = suppliers.of_name(db(), row.supplier).id
    ledger.named(db(), item)
    if "left" in row.amounts:
        ledger.by_hand(db(), item, COUNTED, row.amounts["left"], note="by a table")
    return True
