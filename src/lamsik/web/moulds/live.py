"""The mould page's live exchange: edits in, recomputed state out; saving, undo, redo. The same talk as for bodies."""

from typing import Any

from flask import Blueprint, jsonify, request
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, finite_between
from lamsik.formats.edits_mould import apply
from lamsik.formats.mould_document import framed, to_mould
from lamsik.store import documents
from lamsik.store.tables import Document
from lamsik.web.moulds.shop import master_of, shop_of
from lamsik.web.moulds.state import MouldShop, view
from lamsik.web.shapes.live import MOST_EDITS
from lamsik.web.shapes.state import errors_of
from lamsik.web.shared.db import db, load_document

blueprint = Blueprint("moulds_live", __name__, url_prefix="/moulds")


@blueprint.post("/<int:key>/live")
def live(key: int) -> ResponseReturnValue:
    """Apply edits to the sent document and answer with what the page shows; see shapes/live.py for the fields."""
    row, asked = load_document("mould", key), request.get_json()
    if not isinstance(asked, dict):
        raise Refused("request", type(asked).__name__, "an object is needed")
    document, refused = framed(asked.get("document")), []
    to_mould(document, master_of(document["master"]))  # what is no mould is refused before anything is done to it
    edits = asked.get("edits") or []
    if not isinstance(edits, list) or not all(isinstance(edit, dict) for edit in edits) or len(edits) > MOST_EDITS:
        raise Refused("edits", type(edits).__name__, f"a list of at most {MOST_EDITS} objects is needed")
    for edit in edits:
        try:
            document = apply(document, edit, master_of)
        except Refused as error:
            refused.append(errors_of(error, str(edit.get("path", ""))))
    base = int(finite_between("base", asked.get("base", 0), 0, 1e9))
    settled = asked.get("mode") != "drag"
    shown = view(document, master_of(document["master"]), shop_of(key, document["master"].get("demouldings")), settled)
    if asked.get("save"):
        base = documents.save(db(), row, document, base).number
    answer: dict[str, Any] = {"base": base, "saved": bool(asked.get("save")), "errors": refused, "view": shown}
    if settled:
        answer["document"] = document
    return jsonify(answer)


@blueprint.post("/<int:key>/<any(undo, redo):way>")
def step_back(key: int, way: str) -> ResponseReturnValue:
    """Undo or redo one revision and answer with the state it brings."""
    row = load_document("mould", key)
    moved = documents.undo(db(), row) if way == "undo" else documents.redo(db(), row)
    problems = [] if moved else [{"field": "", "message": f"Nothing to {way}."}]
    return jsonify({**current(row), "moved": moved, "errors": problems})


def current(row: Document, at_hand: MouldShop | None = None) -> dict[str, Any]:
    """The whole state of a saved mould, as the page starts with it; the shop as it is at hand."""
    document = framed(documents.content(db(), row))
    shop = at_hand or shop_of(row.id or 0, document["master"].get("demouldings"))
    return {
        "id": row.id, "code": row.code, "bench": "moulds", "root": "/moulds", "unit": shop.unit, "base": row.current, "saved": True, "document": document,
        "view": view(document, master_of(document["master"]), shop, True), "errors": [],
    }  # fmt: skip
