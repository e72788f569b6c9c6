"""One design in several sizes and materials as a table; some may be left out."""

from dataclasses import replace
from typing import Any

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.materials import BODY_MATERIALS, FLOAT_WOOD, USUAL_WOOD
from lamsik.core.quantities import plainly, read_measure, said
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.family import FIRST_SIZES, Member, mark, members
from lamsik.core.shapes.scaling import Offered, nearest_size
from lamsik.core.tank import evaluate
from lamsik.core.tank.wanted import target
from lamsik.documents.body.document import to_design, with_design
from lamsik.drawings.body import thumbnail
from lamsik.store import documents, orders, stores
from lamsik.store.tables import Family, Hardware
from lamsik.web.shared.db import db, load_document
from lamsik.words import refusals

blueprint = Blueprint("shapes_family", __name__, url_prefix="/shapes")


def _kept(key: int, design: Design) -> Family:
    """The family as kept, or a first suggestion: three lengths in the design's own material and one other."""
    family = db().get(Family, key)
    if family is not None:
        return family
    length = design.body.length_mm
    other = FLOAT_WOOD if design.host.name != FLOAT_WOOD else USUAL_WOOD
    own = [design.host.name] if design.host.name in BODY_MATERIALS else []
    return Family(
        design_id=key,
        lengths_mm=[round(length * f) * 1.0 for f in FIRST_SIZES],
        materials=[*own, other],
        excluded=[],
    )


@blueprint.get("/<int:key>/family")
def show(key: int) -> str:
    """The family's table."""
    return _page(key, "")


def _page(key: int, problem: str) -> str:
    row = load_document("body", key)
    design = to_design(documents.content(db(), row))
    kept = _kept(key, design)
    stock = stores.hardware(db())
    rows = [
        _row(member, design, stock, member.key in kept.excluded)
        for member in members(design, kept.lengths_mm, kept.materials)
    ]
    return render_template(
        "shapes/family.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        rows=rows,
        kept=kept,
        materials=BODY_MATERIALS,
        problem=problem,
        asked=request.form,
        lengths=", ".join(plainly(v, "length") for v in kept.lengths_mm),
        picture=thumbnail(design, "family"),
        wanted=design.want.behaviour,
    )


def _row(member: Member, design: Design, stock: list[Hardware], out: bool) -> dict[str, Any]:
    """What a member would be: hooks the nearest in stock, no ballast yet, and the ballast it then needs."""
    rules, factor = stores.rules(db()), member.length_mm / design.body.length_mm
    grown = _with_hooks(replace(member.design, ballast=(), pours=(), cavities=()), stock, factor)
    outcome = evaluate.drag(grown, rules=rules)
    try:
        spare = outcome.hanging.net_g - target(grown, outcome.budget, rules.drag, rules.bands).net_g
        needs = said(spare, "mass") if spare >= 0 else f"{said(-spare, 'mass')} too heavy"
    except Refused:
        needs = "cannot be"
    hooks = dict.fromkeys(placed.item.name for placed in grown.hardware if placed.item.kind == "hook")
    return {
        "key": member.key,
        "length": member.length_mm,
        "material": member.material,
        "out": out,
        "volume": said(outcome.solid.volume_ml, "volume"),
        "blank": said(next(p.mass_g for p in outcome.budget.parts if p.key == "host"), "mass", 1),
        "mass": said(outcome.budget.mass_g, "mass", 1),
        "net": said(outcome.hanging.net_g, "mass", sign=True).replace("-", "−"),
        "needs": needs,
        "hooks": ", ".join(hooks) or "none",
    }


def _with_hooks(design: Design, stock: list[Hardware], factor: float) -> Design:
    """The design with the hooks that stock has nearest in proportion."""
    offered = [Offered(row.code, row.name, row.mass_g) for row in stock if row.kind == "hook"]
    items = {row.code: stores.item_of(row) for row in stock if row.kind == "hook"}
    rows = []
    for placed in design.hardware:
        near = nearest_size(offered, placed.item.mass_g * factor**3) if placed.item.kind == "hook" else None
        rows.append(replace(placed, item=items[near.code]) if near else placed)
    return replace(design, hardware=tuple(rows))


@blueprint.post("/<int:key>/family")
def keep(key: int) -> ResponseReturnValue:
    """Keep lengths and materials; those that cannot be are said beside their field."""
    design = to_design(documents.content(db(), load_document("body", key)))
    row, fresh = _kept(key, design), db().get(Family, key) is None
    try:
        texts = [
            text.strip()
            for text in request.form.get("lengths", "").replace(";", ",").split(",")
            if text.strip()
        ]
        lengths = [round(read_measure(text, "length", "lengths"), 2) for text in texts]
        names = request.form.getlist("materials")
        known = {member.key for member in members(design, lengths, names)}
    except Refused as refused:
        return _page(key, refusals.says(refused)), 422
    row.lengths_mm, row.materials, row.excluded = (
        lengths,
        names,
        [one for one in row.excluded if one in known],
    )
    db().add(row if fresh else db().merge(row))
    return redirect(url_for("shapes_family.show", key=key))


@blueprint.post("/<int:key>/family/leave")
def leave(key: int) -> ResponseReturnValue:
    """Leave one of the family out, or take it in again."""
    design = to_design(documents.content(db(), load_document("body", key)))
    row, one = _kept(key, design), request.form.get("member", "")
    row.excluded = [m for m in row.excluded if m != one] if one in row.excluded else [*row.excluded, one][:64]
    db().add(row)
    return redirect(url_for("shapes_family.show", key=key))


@blueprint.post("/<int:key>/family/make")
def make(key: int) -> ResponseReturnValue:
    """A design of its own from one of the family."""
    row = load_document("body", key)
    content = documents.content(db(), row)
    design = to_design(content)
    kept, one = _kept(key, design), request.form.get("member", "")
    member = next(
        (m for m in members(design, kept.lengths_mm, kept.materials) if mark(m.length_mm, m.material) == one),
        None,
    )
    if member is None:
        raise Refused("member", one, "one of the family's table")
    content_grown = with_design(content, member.design)
    content_grown = {
        **content_grown,
        "name": f"{design.name} {member.length_mm:g} {member.material}"[:120],
        "typed": {},
    }
    new = documents.begin(db(), "body", content_grown, note=f"from the family of {row.code}")
    flash(f"{new.name} is a design of its own now: choose its hardware anew.")
    return redirect(url_for("shapes.edit", key=new.id, _anchor="parts"))
