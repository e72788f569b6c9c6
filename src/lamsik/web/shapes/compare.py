"""Revisions of a shape: named, laid over each other, side by side with their numbers."""

from collections.abc import Callable
from dataclasses import dataclass

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.quantities import said
from lamsik.core.tank import evaluate
from lamsik.core.tank.evaluate import Outcome
from lamsik.documents.body.document import to_design
from lamsik.drawings.body import thumbnail
from lamsik.drawings.overlay import overlaid
from lamsik.store import documents, orders, stores
from lamsik.store.tables import Document, Revision
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.lists import asked_page
from lamsik.words.revisions import differences
from lamsik.words.verdict import posture

blueprint = Blueprint("shapes_compare", __name__, url_prefix="/shapes")

MOST_NAME = 80


@dataclass(frozen=True)
class ComparedFigure:
    """One number of both: what it is, first, second, difference."""

    label: str
    first: str
    second: str
    difference: str


MEASURES: tuple[tuple[str, str, Callable[[Outcome], float]], ...] = (
    ("Length", "length", lambda o: o.design.body.length_mm),
    ("Depth", "length", lambda o: o.design.body.depth_mm),
    ("Width", "length", lambda o: o.design.body.width_mm),
    ("Volume", "volume", lambda o: o.solid.volume_ml),
    ("Skin", "area", lambda o: o.solid.area_mm2 / 100),
    ("Mass in air", "mass", lambda o: o.budget.mass_g),
    ("Net lift", "mass", lambda o: o.hanging.net_g),
    ("Pitch under water", "angle", lambda o: o.hanging.free.pitch_deg),
    ("Speed", "speed", lambda o: o.verdict.speed_cm_s),
)


@blueprint.get("/<int:key>/compare")
def show(key: int) -> str:
    """Two revisions over each other; the newest and the one it was made from unless others are asked for."""
    row = load_document("body", key)
    second = _asked(row, "b") or documents.revision(db(), row)
    first = _asked(row, "a") or (documents.revision(db(), row, second.parent) if second.parent else second)
    page = asked_page(documents.revisions(row))
    offered = sorted({r.number: r for r in (*page.rows, first, second)}.values(), key=lambda r: -r.number)
    designs = to_design(first.content), to_design(second.content)
    rules = stores.rules(db())
    outcomes = evaluate.drag(designs[0], rules=rules), evaluate.drag(designs[1], rules=rules)
    return render_template(
        "shapes/compare.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        revisions=offered,
        page=page,
        first=first,
        second=second,
        over=overlaid(designs[0], designs[1]),
        pictures=(thumbnail(designs[0], "first"), thumbnail(designs[1], "second")),
        figures=figures(*outcomes),
        changes=differences(*designs),
        source_words=(designs[0].source.describe(), designs[1].source.describe()),
    )


def _asked(row: Document, name: str) -> Revision | None:
    text = request.args.get(name, "")
    try:
        return (
            documents.revision(db(), row, int(text))
            if text.isascii() and text.isdigit() and len(text) < 10
            else None
        )
    except documents.Missing:
        return None


def figures(one: Outcome, other: Outcome) -> list[ComparedFigure]:
    """What both measure, and the difference."""
    figures_compared = []
    for label, quantity, of in MEASURES:
        a, b = of(one), of(other)
        figures_compared.append(
            ComparedFigure(label, said(a, quantity), said(b, quantity), said(b - a, quantity, sign=True))
        )
    figures_compared.append(
        ComparedFigure("Rests", posture(one.hanging.free), posture(other.hanging.free), "")
    )
    return figures_compared


@blueprint.post("/<int:key>/revisions/<int:number>/name")
def name(key: int, number: int) -> ResponseReturnValue:
    """Give a revision a name, or take it away."""
    row: Document = load_document("body", key)
    revision = documents.revision(db(), row, number)
    revision.name = " ".join(request.form.get("name", "").split())[:MOST_NAME]
    db().add(revision)
    flash(
        f"Revision {number} is called “{revision.name}”."
        if revision.name
        else f"Revision {number} has no name now."
    )
    return redirect(
        url_for("shapes_compare.show", key=key, a=request.form.get("a", ""), b=request.form.get("b", ""))
    )
