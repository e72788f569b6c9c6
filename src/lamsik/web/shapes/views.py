"""The Shapes bench: bodies, starting forms, the three-view drawing, files in and out."""

from functools import lru_cache

from flask import Blueprint, Response, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.materials import BODY_MATERIALS, body_material
from lamsik.core.shapes.design import Host, Want
from lamsik.core.shapes.forms import FORMS, form
from lamsik.core.shapes.hardware import SEATS
from lamsik.core.water import Water
from lamsik.formats.body_document import dumps, loads, new_document, to_design
from lamsik.store import documents, orders, stores
from lamsik.store.tables import Document
from lamsik.web.pictures.body import silhouette, thumbnail
from lamsik.web.pictures.svg import Node
from lamsik.web.shapes.live import current
from lamsik.web.shared import keeping
from lamsik.web.shared.db import db, load_document

FITTED = ("line_tie", "hanger", "ring", "hook", "wire", "joint", "rattle", "tube", "eyes", "skirt")
"""Kinds of hardware in the order they go on."""

blueprint = Blueprint("shapes", __name__, url_prefix="/shapes")


@blueprint.get("")
def index() -> str:
    """All bodies, drawn, and the starting forms."""
    return _gallery("")


def _gallery(problem: str) -> str:
    rows = documents.listed(db(), "body", request.args.get("q", ""))
    contents = documents.contents(db(), rows)
    cards = [(row, to_design(contents[row.id or 0])) for row in rows]
    pictures = {row.id: thumbnail(design, f"t{row.id}") for row, design in cards}
    return render_template("shapes/index.html", cards=cards, pictures=pictures, forms=form_pictures(), q=request.args.get("q", ""), problem=problem)


@lru_cache(maxsize=1)
def form_pictures() -> list[tuple[str, str, str, str, Node]]:
    """The starting forms: key, name, purpose, what it is, its outline."""
    water, want = Water(), Want()
    found = []
    for start in FORMS.values():
        design = to_design(new_document(start.name, start, Host("basswood", 0.42, 0.04), water, want))
        found.append((start.key, start.name, start.purpose, start.says, silhouette(design)))
    return found


@blueprint.post("/new")
def new() -> ResponseReturnValue:
    """A new body from a starting form."""
    start = form(request.form.get("form", "slim"))
    row = begin(start.name, start.key, "balsa" if start.purpose == "float" else "basswood", Want("floats", 20.0) if start.purpose == "float" else Want())
    return redirect(url_for("shapes.edit", key=row.id))


def begin(name: str, form_key: str, wood: str, want: Want, length_mm: float | None = None, water: Water | None = None) -> Document:
    """Keep a new design: the form at its own proportions, at another length if given."""
    start, found = form(form_key), body_material(wood)
    scale = (length_mm or start.length_mm) / start.length_mm
    sizes = (start.length_mm * scale, round(start.depth_mm * scale, 1), round(start.width_mm * scale, 1))
    host = Host(found.name, found.density_g_cm3, found.spread_g_cm3, found.kind)
    content = new_document(name, start, host, water or Water(), want, sizes)
    return documents.create(db(), "body", documents.next_code(db(), "body", "B"), content)


@blueprint.get("/<int:key>")
def edit(key: int) -> str:
    """One body: drawing, sizes, wood, hardware, what is missing."""
    row = load_document("body", key)
    parts = stores.hardware(db())
    return render_template(
        "shapes/edit.html", row=row, for_order=orders.waiting_for(db(), key), state=current(row, "shapes"), materials=BODY_MATERIALS, forms=form_pictures(), seats=SEATS,
        items=sorted((p for p in parts if p.kind != "lip"), key=lambda p: FITTED.index(p.kind)), lips=[p for p in parts if p.kind == "lip"],
    )  # fmt: skip


@blueprint.get("/<int:key>/body.json")
def export(key: int) -> Response:
    """The design as a body document."""
    row = load_document("body", key)
    text = dumps(documents.content(db(), row))
    return Response(text, mimetype="application/json", headers={"Content-Disposition": f'attachment; filename="{row.code}.json"'})


@blueprint.post("/bring-in")
def bring_in() -> ResponseReturnValue:
    """A design from a body document; what is wrong with the file is said beside it."""
    sent = request.files.get("file")
    name = (sent.filename or "a file") if sent else "no file"
    try:
        content = loads(sent.read() if sent else b"")
        to_design(content)
    except Refused as refused:
        return _gallery(f"{name} cannot be brought in. {refused}"), 422
    row = documents.create(db(), "body", documents.next_code(db(), "body", "B"), content, note=f"brought in from {name}")
    flash(f"{row.name} is brought in as {row.code}.")
    return redirect(url_for("shapes.edit", key=row.id))


@blueprint.post("/<int:key>/copy")
def copy(key: int) -> ResponseReturnValue:
    """A copy to try something on."""
    content = documents.content(db(), load_document("body", key))
    made = documents.create(db(), "body", documents.next_code(db(), "body", "B"), {**content, "name": f"{content['name']} copy"[:120]})
    return redirect(url_for("shapes.edit", key=made.id))


@blueprint.post("/<int:key>/<any(delete, bring_back):way>")
def put_away(key: int, way: str) -> ResponseReturnValue:
    """Delete a design, or bring it back."""
    row = load_document("body", key, deleted=True)
    return keeping.put_away(row, way, url_for("shapes.index"), url_for("shapes.edit", key=key), url_for("shapes.put_away", key=key, way="bring_back"))
