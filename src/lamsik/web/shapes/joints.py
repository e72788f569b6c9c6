"""Two cuts of one shape beside each other: the design's own, and another to try."""

from dataclasses import replace

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.quantities import read_measure, said
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.joints import JOINT_KINDS, TRIED_ON_SHARE, first_joint
from lamsik.core.shapes.solid import kerf_ml
from lamsik.core.tank import evaluate
from lamsik.documents.body.document import to_design, with_design
from lamsik.drawings.body import thumbnail
from lamsik.store import documents, orders, stores
from lamsik.web.bodies.shape_facts import segment_rows
from lamsik.web.shared.db import db, load_document, sent_base
from lamsik.words import refusals
from lamsik.words.shapes import JOINTS
from lamsik.words.verdict import sentence

blueprint = Blueprint("shapes_joints", __name__, url_prefix="/shapes")


def _other(design: Design, asked: dict[str, str]) -> Design:
    """The design with its joints moved as asked: by so much along, at this slant, with this kerf and kind."""
    joints = design.body.joints or (first_joint(design.body.length_mm),)

    def typed(name: str, quantity: str, standard: float) -> float:
        text = asked.get(name, "").strip()
        return read_measure(text, quantity, name) if text else standard

    first = joints[0]
    shift = typed("x", "length", first.x_mm + TRIED_ON_SHARE * design.body.length_mm) - first.x_mm
    slant, kerf = typed("slant", "angle", first.slant_deg), typed("kerf", "length", first.kerf_mm)
    kind = asked.get("kind") or first.kind
    moved = tuple(
        replace(joint, x_mm=joint.x_mm + shift, slant_deg=slant, kerf_mm=kerf, kind=kind) for joint in joints
    )
    return replace(
        design,
        body=replace(design.body, joints=moved),
        segment_hosts=design.segment_hosts if design.body.joints else (),
    )


@blueprint.get("/<int:key>/joints")
def show(key: int) -> ResponseReturnValue:
    """The design's cut and another one, each with its segments' verdicts."""
    return _page(key, request.args.to_dict())


def _page(key: int, asked: dict[str, str], problem: str = "") -> ResponseReturnValue:
    row = load_document("body", key)
    design = to_design(documents.content(db(), row))
    try:
        other = _other(design, {} if problem else asked)
    except Refused as refused:
        problem, other = refusals.says(refused), _other(design, {})
    rules = stores.rules(db())
    cuts = [
        _cut(word, joined, evaluate.drag(joined, rules=rules))
        for word, joined in (("As it is", design), ("Another cut", other))
    ]
    return render_template(
        "shapes/joints_page.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        cuts=cuts,
        other=other.body.joints[0],
        kinds={kind: JOINTS[kind] for kind in JOINT_KINDS},
        asked=asked,
        problem=problem,
    ), (422 if problem else 200)


def _cut(word: str, design: Design, outcome: evaluate.Outcome) -> dict[str, object]:
    return {
        "word": word,
        "picture": thumbnail(design, word[:2].lower(), holes=True),
        "segments": segment_rows(outcome),
        "kerf": said(kerf_ml(design.body), "volume"),
        "whole": sentence(outcome.verdict),
        "mass": said(outcome.budget.mass_g, "mass"),
        "net": said(outcome.hanging.net_g, "mass", sign=True).replace("-", "−"),
    }


@blueprint.post("/<int:key>/joints")
def take(key: int) -> ResponseReturnValue:
    """Make the other cut the design's next revision."""
    row = load_document("body", key)
    content = documents.content(db(), row)
    try:
        other = _other(to_design(content), request.form.to_dict())
    except Refused as refused:
        return _page(key, request.form.to_dict(), refusals.says(refused))
    documents.save(db(), row, with_design(content, other), sent_base(row), "another cut")
    flash("The other cut is on the design now. Undo brings the first back.")
    return redirect(url_for("shapes.edit", key=key, _anchor="joints"))
