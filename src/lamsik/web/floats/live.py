"""The float page's live exchange: edits in, recomputed state out; saving, undo, redo. The same talk as for
bodies.
"""

from typing import Any

from flask import Blueprint
from flask.typing import ResponseReturnValue

from lamsik.documents.engine import apply
from lamsik.documents.floats.document import checked
from lamsik.documents.floats.edits import FLOAT, Shop
from lamsik.documents.rows import Document as Content
from lamsik.store import documents, stores
from lamsik.store.tables import Document
from lamsik.web.floats.shop import shop_of
from lamsik.web.floats.state import view
from lamsik.web.shared import exchange
from lamsik.web.shared.db import db, load_document

blueprint = Blueprint("floats_live", __name__, url_prefix="/floats")


@blueprint.post("/<int:key>/live")
def live(key: int) -> ResponseReturnValue:
    """Apply edits to the sent document and answer with what the page shows; see shapes/live.py for the
    fields.
    """
    row, asked = load_document("float", key), exchange.asked_for()
    document, settled = checked(asked.get("document")), exchange.is_settled(asked)
    shop = shop_of(str(document["family"]) if settled else "")
    waters = {water.name: water for water in shop.waters}
    stock = Shop(waters, shop.tables, stores.schemes(db()), stores.scheme_versions(db()))
    looks = str(asked.get("looks") or "")
    answer = exchange.shown(
        document,
        exchange.edits_of(asked),
        lambda content, edit: apply(FLOAT, content, edit, stock),
        lambda content: view(content, shop, settled, looks),
    )
    return exchange.answer(asked, row, *answer)


@blueprint.post("/<int:key>/<any(undo, redo):way>")
def step_back(key: int, way: str) -> ResponseReturnValue:
    """Undo or redo one revision and answer with the state it brings."""
    return exchange.step(load_document("float", key), way, current)


def current(row: Document) -> dict[str, Any]:
    """The whole state of a saved float, as the page starts with it."""
    document: Content = checked(documents.content(db(), row))
    shop = shop_of(str(document["family"]))
    pulled = next((part["key"] for part in document["parts"] if part["kind"] == "body"), "")
    return {
        "id": row.id,
        "code": row.code,
        "bench": "floats",
        "root": "/floats",
        "base": row.current,
        "saved": True,
        "document": document,
        "view": view(document, shop, True, pulled),
        "errors": [],
    }
