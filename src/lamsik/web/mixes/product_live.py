"""The product page's live exchange: edits in, what stands on the tin out; saving, undo, redo. The same talk
as for bodies.
"""

from typing import Any

from flask import Blueprint
from flask.typing import ResponseReturnValue

from lamsik.documents.engine import apply
from lamsik.documents.products.document import PRODUCT, PRODUCT_SCHEMA
from lamsik.store import documents
from lamsik.store.tables import Document
from lamsik.web.mixes.product_state import view
from lamsik.web.shared import exchange
from lamsik.web.shared.db import db, load_document

blueprint = Blueprint("mixes_product_live", __name__, url_prefix="/mixes/products")


@blueprint.post("/<int:key>/live")
def live(key: int) -> ResponseReturnValue:
    """Apply edits to the sent document and answer with what the page shows; see bodies/live.py for the
    fields.
    """
    row, asked = load_document("product", key), exchange.asked_for()
    found = exchange.shown(
        PRODUCT_SCHEMA.checked(asked.get("document")),
        exchange.edits_of(asked),
        lambda content, edit: apply(PRODUCT, content, edit, None),
        view,
    )
    return exchange.answer(asked, row, *found)


@blueprint.post("/<int:key>/<any(undo, redo):way>")
def step_back(key: int, way: str) -> ResponseReturnValue:
    """Undo or redo one revision and answer with the state it brings."""
    return exchange.step(load_document("product", key), way, current)


def current(row: Document) -> dict[str, Any]:
    """The whole state of a saved product, as the page starts with it."""
    document = documents.content(db(), row)
    return {
        "id": row.id,
        "code": row.code,
        "bench": "mixes",
        "root": "/mixes/products",
        "unit": "mm",
        "base": row.current,
        "saved": True,
        "document": document,
        "view": view(document),
        "errors": [],
    }
