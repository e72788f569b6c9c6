"""Counting: a label is read or typed, and one number."""

from urllib.parse import unquote, urlsplit

from flask import Blueprint, abort, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, require
from lamsik.core.quantities import read_measure
from lamsik.core.stock.kinds import QUANTITIES
from lamsik.core.stock.ledger import COUNTED
from lamsik.store import ledger, pots
from lamsik.store.ledger import OnShelf
from lamsik.store.pots import PAINT
from lamsik.store.tables import MouldMade, StockItem, StockLot
from lamsik.web.shared.db import db, load
from lamsik.words.stock import amount

blueprint = Blueprint("stores_count", __name__, url_prefix="/stores/count")
NO_LABEL = "a label of this shop: S0012 of an item, L-7 of a lot, M-3 of a mould, or the name of a shelf"
SHELF, LOT, MOULD = "P", "L", "M"
"""What the label of a shelf, a lot and a mould begins with; that of an item is its number."""


@blueprint.get("")
def index() -> ResponseReturnValue:
    """A label to be read or typed; where it leads."""
    label = request.args.get("label", "").strip()
    if not label:
        return _index()
    try:
        return redirect(_leads_to(label))
    except Refused as refused:
        return _index(refused, label), 404


def _index(problem: Refused | None = None, label: str = "") -> str:
    return render_template("stores/count.html", places=ledger.places(db()), problem=problem, label=label)


def _leads_to(label: str) -> str:
    """The page of a label: an address of this shop as it was read, or typed. Raises `Refused` for none."""
    text = unquote(urlsplit(label).path.rstrip("/").rpartition("/")[2]) if "/" in label else label
    kind, _, rest = text.partition("-")
    if kind.upper() == SHELF and rest:
        return url_for("stores_count.shelf", place=rest)
    number = int(rest) if rest.isascii() and rest.isdigit() and len(rest) < 10 else 0
    lot = db().get(StockLot, number) if kind.upper() == LOT and number else None
    if lot is not None:
        return url_for("stores_count.one", key=lot.item_id, lot=lot.id)
    mould = db().get(MouldMade, number) if kind.upper() == MOULD and number else None
    if mould is not None:
        return url_for("moulds.edit", key=mould.mould_id)
    item = ledger.numbered(db(), text)
    if item is not None:
        return url_for("stores_count.one", key=item.id)
    if text in ledger.places(db()):
        return url_for("stores_count.shelf", place=text)
    raise Refused("label", label, NO_LABEL)


@blueprint.get("/<text>")
def label(text: str) -> ResponseReturnValue:
    """Where the address on a label leads."""
    return redirect(url_for("stores_count.index", label=text))


@blueprint.route("/item/<int:key>", methods=["GET", "POST"])
def one(key: int) -> ResponseReturnValue:
    """One item, or a lot of it: one number."""
    item = load(StockItem, key)
    lot_key = request.args.get("lot", "")
    lot = (
        db().get(StockLot, int(lot_key))
        if lot_key.isascii() and lot_key.isdigit() and len(lot_key) < 10
        else None
    )
    if lot is not None and lot.item_id != key:
        abort(404)
    if request.method == "GET":
        return _one(item, lot)
    try:
        _count(item, lot, request.form.get("amount", ""))
    except Refused as refused:
        db().rollback()
        return _one(load(StockItem, key), lot, refused), 422
    return redirect(url_for("stores_count.index"))


def _one(item: StockItem, lot: StockLot | None, problem: Refused | None = None) -> str:
    held = ledger.held(db(), item.id, lot.id if lot is not None else None)
    lots = ledger.lots(db(), item.id) if lot is None else ()
    return render_template(
        "stores/count_one.html",
        item=item,
        lot=lot,
        lots=[one for one in lots if one.left > 0 or item.of == PAINT],
        held=held if ledger.is_counted(db(), item.id) else None,
        quantity=QUANTITIES[item.unit],
        problem=problem,
    )


def _count(item: StockItem, lot: StockLot | None, text: str) -> None:
    there = read_measure(text, QUANTITIES[item.unit], "how much is there")
    if item.of == PAINT and lot is not None:
        was = amount(lot.left, item.unit)
        pots.count(db(), item, lot, there)
        there_is = amount(there, item.unit)
        flash(f"{item.name}: {there_is} there; the books had {was}. The paint’s own page undoes it.")
        return
    change = ledger.by_hand(db(), item, COUNTED, there, lot)
    undo = url_for("stores_items.undo", key=change.id, way="undo")
    was = amount(there - change.amount, item.unit)
    flash(f"{item.name}: {amount(there, item.unit)} there; the books had {was}.", f"undo:{undo}")


@blueprint.route("/shelf", methods=["GET", "POST"])
def shelf() -> ResponseReturnValue:
    """All that lies in one place: a number for each; what is left empty stays."""
    place = request.args.get("place", "")
    if request.method == "GET":
        return _shelf(place)
    sent = [(one, request.form.get(_field(one), "").strip()) for one in ledger.on_shelf(db(), place)]
    try:
        require(any(text for _, text in sent), "amount", "", "a number for one of them at least")
        for one, text in sent:
            if text:
                _count(one.item, one.lot, text)
    except Refused as refused:
        db().rollback()
        return _shelf(place, refused), 422
    return redirect(url_for("stores_count.index"))


def _field(one: OnShelf) -> str:
    return f"lot_{one.lot.id}" if one.lot is not None else f"item_{one.item.id}"


def _shelf(place: str, problem: Refused | None = None) -> str:
    return render_template(
        "stores/shelf.html",
        place=place,
        rows=[(_field(one), one) for one in ledger.on_shelf(db(), place)],
        quantities=QUANTITIES,
        problem=problem,
        asked=request.form,
    )
