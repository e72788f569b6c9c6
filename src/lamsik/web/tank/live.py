"""The Tank's questions to the core: ballast for the want, and the inside twin of trial weights."""

from typing import Any

from flask import Blueprint, jsonify
from flask.typing import ResponseReturnValue

from lamsik.core.quantities import said
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.tank import ballast
from lamsik.core.tank.ballast import Answer
from lamsik.core.tank.ballast_why import what_binds
from lamsik.core.tank.trial import replacement
from lamsik.documents.body.edits import BODY
from lamsik.documents.body.shape import BODY_SCHEMA
from lamsik.documents.engine import applied
from lamsik.drawings.body import thumbnail
from lamsik.store import stores
from lamsik.web.bodies.live import asked_for, edited
from lamsik.web.bodies.tank_depth import ballast_of
from lamsik.web.shared import exchange
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.view import change
from lamsik.web.tank import answers as words
from lamsik.words.tell import tell

blueprint = Blueprint("tank_live", __name__, url_prefix="/designs")


@blueprint.post("/<int:key>/ballast")
def answers(key: int) -> ResponseReturnValue:
    """Buildable ballast for the document's want, best first; or why there is none."""
    load_document("body", key)
    edited_design = edited(asked_for())
    design, rules, shop = edited_design.design, stores.rules(db()), stores.bench(db())
    found_answers = ballast.search(
        design, shop, drag=rules.drag, bands=rules.bands, steady_hz=rules.steady_hz
    )
    why = (
        ""
        if any(ballast.within(answer) for answer in found_answers)
        else tell(what_binds(design, shop, drag=rules.drag, bands=rules.bands).says)
    )
    return jsonify(answers=[_answer(a, i) for i, a in enumerate(found_answers)], why=why)


@blueprint.post("/<int:key>/trials")
def trials(key: int) -> ResponseReturnValue:
    """Inside ballast that does what the document's trial weights do, with the difference explained; or why
    there is none.
    """
    load_document("body", key)
    edited_design = edited(asked_for())
    trial = replacement(edited_design.design, stores.bench(db()))
    rows = [_answer(a, i, beside=True) for i, a in enumerate(trial.answers)]
    return jsonify(
        answers=rows,
        why=tell(trial.why),
        differences=[{"key": str(i), "says": tell(text)} for i, text in enumerate(trial.differences)],
    )


@blueprint.post("/<int:key>/pictures")
def pictures(key: int) -> ResponseReturnValue:
    """The document drawn small after each of the sent edits by itself: of answers that are on the page
    already.
    """
    load_document("body", key)
    asked = asked_for()
    document = BODY_SCHEMA.checked(asked.get("document"))
    drawn = [
        thumbnail(applied(BODY, document, edit, Catalogue())[1], f"answer{index}", holes=True)
        for index, edit in enumerate(exchange.edits_of(asked))
    ]
    return jsonify(pictures=drawn)


def _answer(answer: Answer, index: int, beside: bool = False) -> dict[str, Any]:
    return {
        "key": str(index),
        "says": tell(answer.says),
        "tags": (text := ", ".join(answer.tags))[:1].upper() + text[1:],
        "off": words.off(answer),
        "close": answer.miss < 2.0,
        "wall": words.built(answer),
        "waters": words.waters(answer),
        "holds": all(row.held for row in answer.waters),
        "roll": f"{said(answer.frequency_hz, 'frequency')} roll",
        "edit": change("ballast", beside=beside, **ballast_of(answer)),
    }
