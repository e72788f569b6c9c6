"""The design screens' live exchange: edits in, recomputed state out; saving, undo and redo."""

from dataclasses import asdict
from typing import Any

from flask import Blueprint, jsonify, request
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, finite_between
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.tank import ballast
from lamsik.core.tank.attitude import Attitude
from lamsik.core.tank.ballast import Answer
from lamsik.core.tank.evaluate import Near
from lamsik.formats.body_document import Document as Body
from lamsik.formats.body_document import checked, to_design
from lamsik.formats.edits import apply
from lamsik.store import documents, stores
from lamsik.store.tables import Document
from lamsik.web.pictures.body import thumbnail
from lamsik.web.shapes import state
from lamsik.web.shared.db import db, load_document
from lamsik.web.tank import answers as answer_words

MOST_EDITS = 200

blueprint = Blueprint("live", __name__, url_prefix="/designs")


@blueprint.post("/<int:key>/live")
def live(key: int) -> ResponseReturnValue:
    """Apply edits to the sent document and answer with what the bench shows.

    Takes `document`, `edits`, `bench`, `mode` (drag or settled), `looks`, `near`, `save`
    with `base` (the revision the document was loaded from).
    """
    row, asked = load_document("body", key), _asked()
    document, refused = _edited(asked)
    base = int(finite_between("base", asked.get("base", 0), 0, 1e9))
    if asked.get("save"):
        base = documents.save(db(), row, document, base).number
    settled = asked.get("mode") != "drag"
    answer = {"base": base, "saved": bool(asked.get("save")), "errors": refused, "view": _view(document, asked, settled)}
    if settled:  # a drag is a preview: the document on the page stays as it was picked up
        answer["document"] = document
    return jsonify(answer)


def _asked() -> dict[str, Any]:
    asked = request.get_json()
    if not isinstance(asked, dict):
        raise Refused("request", type(asked).__name__, "an object is needed")
    if asked.get("bench") not in state.BENCHES:
        raise Refused("bench", asked.get("bench"), f"one of {', '.join(state.BENCHES)}")
    return asked


def _edited(asked: dict[str, Any]) -> tuple[Body, list[dict[str, str]]]:
    """The document with the edits that could be made, and the refusals of the others."""
    document, refused = checked(asked.get("document")), []
    edits = asked.get("edits") or []
    if not isinstance(edits, list) or not all(isinstance(edit, dict) for edit in edits) or len(edits) > MOST_EDITS:
        raise Refused("edits", type(edits).__name__, f"a list of at most {MOST_EDITS} objects is needed")
    shop = stores.catalogue(db()) if any(edit.get("do") != "set" for edit in edits) else Catalogue()
    for edit in edits:
        try:
            document = apply(document, edit, shop)
        except Refused as error:
            refused.append(state.errors_of(error, str(edit.get("path", ""))))
    return document, refused


def _view(document: Body, asked: dict[str, Any], settled: bool) -> dict[str, Any]:
    unit = stores.setting(db(), "units")["length"]
    return state.view(document, asked["bench"], stores.rules(db()), unit, settled, str(asked.get("looks") or ""), _near(asked.get("near")))


def _near(sent: object) -> Near | None:
    if not isinstance(sent, dict):
        return None
    pitch = finite_between("near.pitch_deg", sent.get("pitch_deg"), -90.0, 90.0)
    roll = finite_between("near.roll_deg", sent.get("roll_deg"), -180.0, 180.0)
    return Near(Attitude(pitch, roll), finite_between("near.draft_mm", sent.get("draft_mm"), -1e4, 1e4))


@blueprint.post("/<int:key>/<any(undo, redo):way>")
def step_back(key: int, way: str) -> ResponseReturnValue:
    """Undo or redo one revision and answer with the state it brings."""
    row, asked = load_document("body", key), _asked()
    moved = documents.undo(db(), row) if way == "undo" else documents.redo(db(), row)
    problems = [] if moved else [{"field": "", "message": f"Nothing to {way}."}]
    return jsonify({**current(row, asked["bench"]), "moved": moved, "errors": problems})


def current(row: Document, bench: str, settled: bool = False) -> dict[str, Any]:
    """The whole state of a saved design for one bench, as the page starts with it."""
    document = documents.content(db(), row)
    unit = stores.setting(db(), "units")["length"]
    shown = state.view(document, bench, stores.rules(db()), unit, settled)
    return {"id": row.id, "code": row.code, "bench": bench, "unit": unit, "base": row.current, "saved": True, "document": document, "view": shown, "errors": []}


@blueprint.post("/<int:key>/ballast")
def answers(key: int) -> ResponseReturnValue:
    """Buildable ballast for the document's want, best first; or why there is none."""
    load_document("body", key)
    document, _ = _edited(_asked())
    design, rules = to_design(document), stores.rules(db())
    shop = stores.bench(db())
    found = ballast.search(design, shop, drag=rules.drag, bands=rules.bands, steady_hz=rules.steady_hz)
    why = "" if found else ballast.why_none(design, shop, drag=rules.drag, bands=rules.bands)
    return jsonify(answers=[_answer(document, a, i) for i, a in enumerate(found)], why=why)


def _answer(document: Body, answer: Answer, index: int) -> dict[str, Any]:
    rows = _rows(answer)
    changed = apply(document, {"do": "ballast", **rows}, Catalogue())
    return {
        "key": str(index),
        "rank": str(index + 1),
        "says": answer.says,
        "off": answer_words.off(answer),
        "close": answer.miss < 2.0,
        "wall": answer_words.built(answer),
        "waters": answer_words.waters(answer),
        **rows,
        "picture": thumbnail(to_design(changed), f"answer{index}", holes=True),
    }


def _rows(answer: Answer) -> dict[str, list[dict[str, Any]]]:
    return {
        "holes": [asdict(hole) for hole in answer.holes],
        "pours": [asdict(pour) for pour in answer.pours],
        "cavities": [asdict(cavity) for cavity in answer.cavities],
    }
