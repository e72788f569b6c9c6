"""Labels for shelves, tubs, pots, moulds, sticks: a code to be read, and its words."""

from dataclasses import dataclass

from flask import Blueprint, render_template, request, url_for
from markupsafe import Markup

from lamsik.store import ledger
from lamsik.store.tables import Document, MouldMade, StockItem, StockLot
from lamsik.web.shared.db import db
from lamsik.web.shared.qr import qr
from lamsik.web.stores.count import LOT, MOULD, SHELF
from lamsik.words.stock import KINDS

blueprint = Blueprint("stores_labels", __name__, url_prefix="/stores/labels")
MOST = 120
"""Labels on a sheet at once."""


@dataclass(frozen=True)
class StockLabel:
    """A label: its code as a drawing, what is read by eye, and what stands under that."""

    drawing: Markup
    text: str
    name: str
    beside: str


@blueprint.get("")
def sheet() -> str:
    """The labels that are asked for, or a choice of them."""
    labels = [
        *(_of_item(row) for row in ledger.items(db(), _ids("item"))),
        *(_of_lot(key) for key in _ids("lot")),
        *(_of_mould(key) for key in _ids("mould")),
        *(_label(f"{SHELF}-{place}", place, "shelf") for place in request.args.getlist("place")[:MOST]),
    ]
    return render_template(
        "stores/labels.html",
        labels=[one for one in labels if one is not None][:MOST],
        places=[(place, place) for place in ledger.places(db())],
        items=[(row.id, row.name) for row in ledger.numbered_first(db(), MOST)],
        lots=[(lot.id, f"{item.name}, {lot.lot or lot.part}") for lot, item in ledger.lots_open(db(), MOST)],
        moulds=[
            (mould.id, f"{row.name}, version {mould.version}") for mould, row in ledger.moulds(db(), MOST)
        ],
        asked={name: request.args.getlist(name) for name in ("item", "lot", "mould", "place")},
    )


def _ids(name: str) -> list[int]:
    texts = request.args.getlist(name)[:MOST]
    return [int(text) for text in texts if text.isascii() and text.isdigit() and len(text) < 10]


def _label(text: str, name: str, beside: str) -> StockLabel:
    address = url_for("stores_count.label", text=text, _external=True)
    return StockLabel(qr(address), text, name, beside)


def _of_item(row: StockItem) -> StockLabel:
    return _label(row.number, row.name, " · ".join(filter(None, (KINDS[row.kind], row.place))))


def _of_lot(key: int) -> StockLabel | None:
    row = db().get(StockLot, key)
    if row is None:
        return None
    item = db().get_one(StockItem, row.item_id)
    return _label(f"{LOT}-{row.id}", item.name, f"lot {row.lot}" if row.lot else row.part)


def _of_mould(key: int) -> StockLabel | None:
    row = db().get(MouldMade, key)
    if row is None:
        return None
    return _label(
        f"{MOULD}-{row.id}", db().get_one(Document, row.mould_id).name, f"mould, version {row.version}"
    )
