"""The float page's live exchange: edits in, recomputed state out; saving, undo, redo. The same talk as for bodies."""

from typing import Any

from flask import Blueprint, jsonify, request
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, finite_between
from lamsik.formats.edits_float import apply
from lamsik.formats.float_document import Document as Content
from lamsik.formats.float_document import checked
from lamsik.store import documents
from lamsik.store.tables import Document
from lamsik.web.floats.shop import shop_of
from lamsik.web.floats.state import view
from lamsik.web.shapes.live import MOST_EDITS
from lamsik.web.shapes.state import errors_of
from lamsik.web.shared.db import db, load_document

blueprint = Blueprint("floats_live", __name__, url_prefix="/floats")


@blueprint.post("/<int:key>/live")
def live(key: int) -> ResponseReturnValue:
    """Apply edits to the sent document and answer with what the page shows; see shapes/live.py for the fields."""
    row, asked = load_document("float", key), request.get_json()
    if not isinstance(asked, dict):
        raise Refused("request", type(asked).__name__, "an object is needed")
    document, refused = checked(asked.get("document")), []
    edits = asked.get("edits") or []
    if not isinstance(edits, list) or not all(isinstance(edit, dict) for edit in edits) or len(edits) > MOST_EDITS:
        raise Refused("edits", type(edits).__name__, f"a list of at most {MOST_EDITS} objects is needed")
    settled = asked.get("mode") != "drag"
    shop = shop_of(str(document["family"]) if settled else "")
    waters = {water.name: water for water in shop.waters}
    for edit in edits:
        try:
            document = apply(document, edit, waters)
        except Refused as error:
            refused.append(errors_of(error, str(edit.get("path", ""))))
    base = int(finite_between("base", asked.get("base", 0), 0, 1e9))
    if asked.get("save"):
        base = documents.save(db(), row, document, base).number
    pulled = str(asked.get("looks") or "")
    answer: dict[str, Any] = {"base": base, "saved": bool(asked.get("save")), "errors": refused, "view": view(document, shop, settled, pulled)}
    if settled:
        answer["document"] = document
    return jsonify(answer)


@blueprint.post("/<int:key>/<any(undo, redo):way>")
def step_back(key: int, way: str) -> ResponseReturnValue:
    """Undo or redo one revision and answer with the state it brings."""
    row = load_document("float", key)
    moved = documents.undo(db(), row) if way == "undo" else documents.redo(db(), row)
    problems = [] if moved else [{"field": "", "message": f"Nothing to {way}."}]
    return jsonify({**current(row), "moved": moved, "errors": problems})


def current(row: Document) -> dict[str, Any]:
    """The whole state of a saved float, as the page starts with it."""
    document: Content = checked(documents.content(db(), row))
    shop = shop_of(str(document["family"]))
    pulled = next((part["key"] for part in document["parts"] if part["kind"] == "body"), "")
    return {
        "id": row.id, "code": row.code, "bench": "floats", "root": "/floats", "unit": shop.unit, "base": row.current, "saved": True, "document": document,
        "view": view(document, shop, True, pulled), "errors": [],
    }  # fmt: skip
