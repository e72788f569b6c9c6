"""Stencils cut for one body: seen laid flat, printed at true size, for a cutter, into the register."""

from flask import Blueprint, flash, redirect, render_template, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.paints.dressed import anchors_on
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.stencils import LEAST, MOST, Stencil, stencil
from lamsik.core.quantities import said
from lamsik.documents.body.document import to_design
from lamsik.drawings.paper import Sheet, sheets
from lamsik.drawings.stencil import STEPS, stretched, to_cut, to_print
from lamsik.drawings.svg import markup
from lamsik.formats import dxf
from lamsik.store import documents, orders, skins, stores, tried
from lamsik.store.tables import Document, PaintTool
from lamsik.web.shared import paper
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.files import as_file, named

blueprint = Blueprint("paints_stencil", __name__, url_prefix="/paints/on/<int:key>/stencil/<layer_key>")


def _cut(key: int, layer_key: str) -> tuple[Document, Layer, tuple[Stencil, ...]]:
    """The body, the layer, and its stencils: both twins, or the one of its side. Raises `Refused`."""
    row = load_document("body", key)
    content = documents.content(db(), row)
    skins.ready(db(), [content])
    design = to_design(content)
    layer = next((one for one in design.layers if one.key == layer_key), None)
    if layer is None:
        raise Refused("layer", layer_key, "a layer of this body's paint")
    one = stencil(layer, design.body, anchors_on(design))
    return row, layer, (one, one.twin) if layer.place.side == "both" else (one,)


@blueprint.get("")
def show(key: int, layer_key: str) -> ResponseReturnValue:
    """The stencil laid flat in colour, and what it is."""
    row, layer, pair = _cut(key, layer_key)
    return render_template(
        "paints/stencil.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        layer=layer,
        pair=[(one, stretched(one, layer.name)) for one in pair],
        says=_says(pair[0]),
        steps=[least for least, _ in STEPS],
    )


def _says(one: Stencil) -> str:
    """Whether it lies, and what was done so that it does."""
    reach = f"stretched {said(100 * one.least, 'percent', 0)} to {said(100 * one.most, 'percent', 0)}"
    allowed = f"{said(100 * LEAST, 'percent', 0)} to {said(100 * MOST, 'percent', 0)}"
    slits = f" with {one.slits} slit{'' if one.slits == 1 else 's'}" if one.slits else ""
    bridges = f"; {one.bridges} bridges hold what would fall out" if one.bridges else ""
    will = "It lies on the body" if one.lies else "It will not lie all over"
    helps = "" if one.lies else ": take a softer card, or a smaller piece"
    return f"{will}{slits}{helps}: {reach} (card allows {allowed}){bridges}."


def _note(one: Stencil) -> str:
    return (
        "Lay the arrow to the nose, the upper edge on the back line."
        if one.is_back
        else "Lay the arrow to the nose."
    )


def _sheets(row: Document, layer: Layer, pair: tuple[Stencil, ...]) -> tuple[str, tuple[Sheet, ...]]:
    """The paper, and the twins on it at true size, with a check bar."""
    on = stores.setting(db(), "saw")["paper"]
    title = f"{row.name}: {layer.name}"
    return on, sheets([to_print(one, layer.name, _note(one)) for one in pair], on, title)


@blueprint.get("/sheet.pdf")
def pdf(key: int, layer_key: str) -> ResponseReturnValue:
    """Both twins at true size, with a check bar."""
    row, layer, pair = _cut(key, layer_key)
    on, pages = _sheets(row, layer, pair)
    instead = url_for("paints_stencil.svg", key=key, layer_key=layer_key, number=1)
    shown = {"pack": {"paper": on, "sheets": pages}, "row": row}
    return paper.as_printed("shapes/pack_print.html", shown, f"{row.name} {layer.name}", instead)


@blueprint.get("/sheet-<int:number>.svg")
def svg(key: int, layer_key: str, number: int) -> ResponseReturnValue:
    """One sheet as SVG, at true size."""
    row, layer, pair = _cut(key, layer_key)
    _, pages = _sheets(row, layer, pair)
    if not 1 <= number <= len(pages):
        raise Refused("sheet", number, f"1 to {len(pages)}")
    name = f"{named(row, f'{layer.name} {number}')}.svg"
    return as_file(str(markup(pages[number - 1].svg())), name, "image/svg+xml")


@blueprint.get("/cut.dxf")
def cutter(key: int, layer_key: str) -> ResponseReturnValue:
    """Both twins for a cutter: what is cut on one layer, what is drawn on another."""
    row, layer, pair = _cut(key, layer_key)
    return as_file(dxf.write(to_cut(pair, layer.name)), f"{named(row, layer.name)}.dxf", "image/vnd.dxf")


@blueprint.post("/register")
def register(key: int, layer_key: str) -> ResponseReturnValue:
    """It is cut: the twins go into the register."""
    row, layer, pair = _cut(key, layer_key)
    for one in pair:
        name = f"{layer.name}, {row.name}, {one.side}"[:80]
        if all(tool.name != name for tool in tried.tools(db())):
            db().add(PaintTool(name=name, kind="stencil", source="cut here", side=one.side, body_id=row.id))
    flash(f"{layer.name} for {row.name} is in the register.")
    return redirect(url_for("paints_known.index", _anchor="tool"))
