"""The mould page's live exchange: edits in, recomputed state out; saving, undo, redo. The same talk as for
bodies.
"""

from typing import Any

from flask import Blueprint
from flask.typing import ResponseReturnValue

from lamsik.core.errors import one_of
from lamsik.documents.engine import apply
from lamsik.documents.moulds.document import MOULD_SCHEMA, to_mould
from lamsik.documents.moulds.edits import MOULD
from lamsik.documents.rows import Document as Content
from lamsik.store import documents
from lamsik.store.tables import Document
from lamsik.web.moulds.shop import master_of, shop_of
from lamsik.web.moulds.state import MouldShop, view
from lamsik.web.shared import exchange
from lamsik.web.shared.db import db, load_document

blueprint = Blueprint("moulds_live", __name__, url_prefix="/moulds")


@blueprint.post("/<int:key>/live")
def live(key: int) -> ResponseReturnValue:
    """Apply edits to the sent document and answer with what the page shows; see shapes/live.py for the
    fields.
    """
    row, asked = load_document("mould", key), exchange.asked_for()
    document = MOULD_SCHEMA.checked(asked.get("document"))
    to_mould(
        document, master_of(document["master"])
    )  # what is no mould is refused before anything is done to it
    shop = shop_of(key, document["master"])
    answer = exchange.shown(
        document,
        exchange.edits_of(asked),
        lambda content, edit: _known(apply(MOULD, content, edit, master_of), content, shop),
        lambda content: view(content, master_of(content["master"]), shop, exchange.is_settled(asked)),
    )
    return exchange.answer(asked, row, *answer)


def _known(document: Content, before: Content, shop: MouldShop) -> Content:
    """A product that is chosen is one the shop has; one that came with a file stays until another is
    chosen.
    """
    for name in ("mould_product", "casting_product"):
        if document[name] and document[name] != before[name]:
            one_of(name, document[name], shop.products)
    return document


@blueprint.post("/<int:key>/<any(undo, redo):way>")
def step_back(key: int, way: str) -> ResponseReturnValue:
    """Undo or redo one revision and answer with the state it brings."""
    return exchange.step(load_document("mould", key), way, current)


def current(row: Document, at_hand: MouldShop | None = None) -> dict[str, Any]:
    """The whole state of a saved mould, as the page starts with it; the shop as it is at hand."""
    document = documents.content(db(), row)
    shop = at_hand or shop_of(row.id or 0, document["master"])
    return {
        "id": row.id,
        "code": row.code,
        "bench": "moulds",
        "root": "/moulds",
        "base": row.current,
        "saved": True,
        "document": document,
        "view": view(document, master_of(document["master"]), shop, True),
        "errors": [],
    }
