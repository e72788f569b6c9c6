"""One item: what there is of it, what moved it, its lots, what will do in its place."""

from datetime import UTC, date, datetime, time

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, require
from lamsik.core.quantities import read_measure
from lamsik.core.stock.kinds import QUANTITIES
from lamsik.core.stock.ledger import BOUGHT, SIGNS
from lamsik.store import ledger, moved, people, reserved
from lamsik.store.tables import Movement, StockItem, StockLot, Supplier, now
from lamsik.web.shared import keeping
from lamsik.web.shared.db import db, load, sent_row
from lamsik.web.shared.lists import asked_page
from lamsik.web.stores import item_form, standing
from lamsik.words.stock import ASKED, KINDS, WHYS, amount

blueprint = Blueprint("stores_items", __name__, url_prefix="/stores/stock")
FIRST_CLAIMS = 24
"""So many of the lines that take an item are named, those that are due first."""


@blueprint.get("/<int:key>")
def show(key: int) -> str:
    """One item, with what moved it, the newest first."""
    return _page(_item(key))


def _item(key: int) -> StockItem:
    return load(StockItem, key)


def _page(row: StockItem, problem: Refused | None = None) -> str:
    page = asked_page(ledger.movements(row.id), 24)
    now_stands = standing.standing()
    stand = standing.stood([row.id or 0], now_stands)[row.id or 0]
    lots, first = ledger.lots(db(), row.id), stand.claims.first(FIRST_CLAIMS)
    return render_template(
        "stores/item.html",
        item=row,
        stand=stand,
        claims=list(zip(reserved.orders_of(db(), [one.line for one in first]), first, strict=True)),
        more_claims=len(stand.claims) - len(first),
        page=page,
        lots=lots,
        lot_names={lot.id: lot.lot for lot in ledger.lots_named(db(), page.rows)},
        causes=moved.causes(db(), page.rows),
        went=[(lot, moved.into(db(), lot), moved.into_pieces(db(), lot)) for lot in lots],
        names=people.names(db()),
        stand_ins=ledger.stand_ins(db(), row.id),
        others=ledger.alike(db(), row),
        suppliers=ledger.suppliers(db()),
        kinds=KINDS,
        whys=WHYS,
        asks=ASKED,
        why=request.form.get("why") or (BOUGHT if not stand.is_known else "counted"),
        quantity=QUANTITIES[row.unit],
        problem=problem,
        asked=request.form,
    )


@blueprint.post("/<int:key>/move")
def move(key: int) -> ResponseReturnValue:
    """It was bought, counted, wasted …"""
    row = _item(key)
    try:
        change = _moved(row)
    except Refused as refused:
        db().rollback()
        return _page(_item(key), refused), 422
    undo = url_for("stores_items.undo", key=change.id, way="undo")
    flash(
        f"{row.name}: {WHYS[change.why].lower()}, {amount(ledger.held(db(), row.id), row.unit)} now.",
        f"undo:{undo}",
    )
    return redirect(url_for("stores_items.show", key=key))


def _moved(row: StockItem) -> Movement:
    form = request.form
    why = form.get("why", "")
    require(why in SIGNS, "why", why, f"one of {', '.join(WHYS.values()).lower()}")
    text = form.get("amount", "").strip()
    of_packs = text.lower().removesuffix("s").removesuffix("pack").strip()
    if of_packs != text.lower() and row.pack > 0:
        value = read_measure(of_packs or "1", "number", "packs") * row.pack
    else:
        value = read_measure(text, QUANTITIES[row.unit], ASKED[why])
    lot = sent_row(StockLot, "lot", "that lot is gone: open the page anew")
    if why == BOUGHT:
        return _bought(row, value, lot)
    return ledger.by_hand(db(), row, why, value, lot, at=_day("on"), note=form.get("note", "").strip()[:300])


def _bought(row: StockItem, value: float, lot: StockLot | None) -> Movement:
    form = request.form
    supplier = sent_row(Supplier, "supplier", "that supplier is not there any more: open the page anew")
    paid, currency = item_form.price(form.get("price", ""))
    called = form.get("new_lot", "").strip()[:40]
    if called and lot is None:
        lot = StockLot(item_id=row.id or 0, lot=called, expires_on=_date("expires"), place=row.place)
        db().add(lot)
        db().flush()
    return ledger.by_hand(
        db(),
        row,
        BOUGHT,
        value,
        lot,
        at=_day("on"),
        price_minor=paid,
        currency=currency,
        supplier_id=supplier.id if supplier is not None else None,
        ordered_on=_date("ordered"),
        note=form.get("note", "").strip()[:300],
    )


def _date(name: str) -> date | None:
    text = request.form.get(name, "").strip()
    try:
        return date.fromisoformat(text) if text else None
    except ValueError as error:
        raise Refused(name, text, "a date such as 2027-03-31") from error


def _day(name: str) -> datetime:
    """That day at noon, or this very moment for today."""
    on, moment = _date(name), now()
    if on is None or on == datetime.now().date():
        return moment
    at = datetime.combine(on, time(12), datetime.now().astimezone().tzinfo).astimezone(UTC)
    require(at <= moment, name, on.isoformat(), "a day that is not to come")
    return at


@blueprint.post("/moves/<int:key>/<any(undo, redo):way>")
def undo(key: int, way: str) -> ResponseReturnValue:
    """A movement does not count after all, or counts again."""
    row = load(Movement, key)
    try:
        if way == "undo":
            ledger.undo(db(), row)
            again = url_for("stores_items.undo", key=key, way="redo")
            flash("It is taken back: it stays in the list and does not count.", f"undo:{again}")
        else:
            ledger.redo(db(), row)
            flash("It counts again.")
    except Refused as refused:
        db().rollback()
        return _page(_item(row.item_id), refused), 422
    return redirect(url_for("stores_items.show", key=row.item_id))


@blueprint.post("/<int:key>/keep")
def keep(key: int) -> ResponseReturnValue:
    """What an item is, its pack, its price, where it lies."""
    row = _item(key)
    try:
        item_form.read(row)
    except Refused as refused:
        db().rollback()
        return _page(_item(key), refused), 422
    flash("Kept.")
    return redirect(url_for("stores_items.show", key=key))


@blueprint.post("/<int:key>/<any(put_away, bring_back):way>")
def put_away(key: int, way: str) -> ResponseReturnValue:
    """An item is off the list, or on it again; what moved it stays."""
    row = _item(key)
    return keeping.off_the_list(
        row,
        way,
        url_for("stores_stock.index"),
        url_for("stores_items.show", key=key),
        url_for("stores_items.put_away", key=key, way="bring_back"),
        "; what moved it stays",
    )


@blueprint.post("/<int:key>/pair")
def pair(key: int) -> ResponseReturnValue:
    """Another item will do in its place, and it in the other's."""
    row = _item(key)
    try:
        other = sent_row(StockItem, "other", "that item is not there any more: open the page anew")
        require(other is not None, "stand_in", "", "choose an item")
        if other is not None:
            ledger.pair(db(), row, other)
    except Refused as refused:
        db().rollback()
        return _page(_item(key), refused), 422
    return redirect(url_for("stores_items.show", key=key, _anchor="stand-ins"))


@blueprint.post("/<int:key>/unpair/<int:other>")
def unpair(key: int, other: int) -> ResponseReturnValue:
    """Two items do not stand in for each other after all."""
    for row in ledger.pairs(db(), key, other):
        db().delete(row)
    return redirect(url_for("stores_items.show", key=key, _anchor="stand-ins"))
