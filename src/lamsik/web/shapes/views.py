"""The Shapes bench: bodies, starting forms, the three-view drawing, files in and out."""

from flask import Blueprint, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.materials import BODY_MATERIALS, FILLINGS, FLOAT_WOOD, USUAL_WOOD, body_material
from lamsik.core.quantities import kept_as_said
from lamsik.core.shapes.ballast_holes import BALLS
from lamsik.core.shapes.design import Want, host_of
from lamsik.core.shapes.forms import FORMS, form
from lamsik.core.shapes.hardware import SEATS
from lamsik.core.trade.behaviours import BEHAVIOURS, FLOATS
from lamsik.core.trade.part_kinds import PART_KINDS
from lamsik.core.water import Water
from lamsik.documents.body.document import new_document, to_design
from lamsik.drawings.body import silhouette
from lamsik.drawings.svg import Node
from lamsik.formats import body_file
from lamsik.store import documents, orders, skins, stores
from lamsik.store.tables import Document
from lamsik.web.bodies.begin import begin
from lamsik.web.bodies.live import current
from lamsik.web.shared import keeping, whole
from lamsik.web.shared.cards import design_of
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.lists import asked_page, asked_text
from lamsik.words.cautions import caution
from lamsik.words.shapes import FORMS as FORMS_SAID
from lamsik.words.shapes import OUTLINES, POINTER

blueprint = Blueprint("shapes", __name__, url_prefix="/shapes")


def _file(row: Document) -> str:
    """The body's file, with the mesh of one that was brought in."""
    content = documents.content(db(), row)
    return body_file.write(content, skins.packed(db(), content))


keeping.keep_documents(blueprint, "body", "shapes.index", "shapes.edit", _file)


@blueprint.get("")
def index() -> str:
    """All bodies, drawn, and the starting forms."""
    page = asked_page(documents.matching("body", asked_text()))
    bodies = documents.currents(db(), page.rows)
    cards, broken = whole.shown_of(
        page.rows, lambda row: (row, design_of(bodies[row.id or 0].content), bodies[row.id or 0].id)
    )
    return render_template(
        "shapes/index.html", cards=cards, broken=broken, forms=form_pictures(), page=page, q=asked_text()
    )


@kept_as_said(1)
def form_pictures() -> list[tuple[str, str, str, str, Node]]:
    """The starting forms: key, name, purpose, what it is, its outline."""
    water, want = Water(), Want()
    pictures = []
    for start in FORMS.values():
        design = to_design(new_document(start.name, start, host_of(body_material(USUAL_WOOD)), water, want))
        pictures.append((start.key, start.name, start.purpose, FORMS_SAID[start.key], silhouette(design)))
    return pictures


@blueprint.post("/new")
def new() -> ResponseReturnValue:
    """A new body from a starting form."""
    start = form(request.form.get("form", "slim"))
    row = begin(
        start.name,
        start.key,
        FLOAT_WOOD if start.purpose == "float" else USUAL_WOOD,
        Want(FLOATS, BEHAVIOURS[FLOATS].speed_cm_s) if start.purpose == "float" else Want(),
    )
    return redirect(url_for("shapes.edit", key=row.id))


@blueprint.get("/<int:key>")
def edit(key: int) -> str:
    """One body: drawing, sizes, wood, hardware, what is missing."""
    row = load_document("body", key)
    parts = stores.hardware(db())
    return render_template(
        "shapes/edit.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        state=current(row, "shapes"),
        materials=BODY_MATERIALS,
        fillings=FILLINGS,
        forms=form_pictures(),
        seats=SEATS,
        outlines=OUTLINES,
        source_pointer=POINTER,
        cautions={"saw": caution("blades")},
        items=[
            (part, kind)
            for kind in PART_KINDS.values()
            for part in parts
            if part.kind == kind.key and kind.is_put_on
        ],
        lips=[p for p in parts if p.kind == "lip"],
        balls=[slug for slug in stores.bench(db()).slugs if slug.form == BALLS],
    )
