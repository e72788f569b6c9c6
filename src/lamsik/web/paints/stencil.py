"""Stencils cut for one body: seen laid flat, printed at true size, for a cutter, into the register."""

from flask import Blueprint, flash, redirect, render_template, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.paints.cuts import cut_of
from lamsik.core.paints.paint import BOTH, SIDES
from lamsik.core.paints.stencils import LEAST, LOWER, MOST, UPPER, Stencil
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
from lamsik.words import paints

blueprint = Blueprint("paints_stencil", __name__, url_prefix="/paints/on/<int:key>/stencil/<layer_key>")


def _cut(key: int, layer_key: str) -> tuple[Document, str, tuple[Stencil, ...]]:
    """The body, what is cut for it, and that for both sides, or for its layer's. Raises `Refused`."""
    row = load_document("body", key)
    content = documents.content(db(), row)
    skins.ready(db(), [content])
    cut, pieces = cut_of(to_design(content), layer_key)
    return row, paints.cut(cut), pieces


@blueprint.get("")
def show(key: int, layer_key: str) -> ResponseReturnValue:
    """The stencil laid flat in colour, and what it is."""
    row, name, pair = _cut(key, layer_key)
    return render_template(
        "paints/stencil.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        name=name,
        layer_key=layer_key,
        pair=[(one, stretched(one, name)) for one in pair],
        says=_says(pair[0]),
        steps=[least for least, _ in STEPS],
    )


def _says(one: Stencil) -> str:
    """Whether it lies, and what was done so that it does."""
    if one.side == UPPER:
        return "It is flat, and lies as it is."
    reach = f"stretched {said(100 * one.least, 'percent', 0)} to {said(100 * one.most, 'percent', 0)}"
    allowed = f"{said(100 * LEAST, 'percent', 0)} to {said(100 * MOST, 'percent', 0)}"
    slits = f" with {one.slits} slit{'' if one.slits == 1 else 's'}" if one.slits else ""
    bridges = f"; {one.bridges} bridges hold what would fall out" if one.bridges else ""
    will = "It lies on the body" if one.lies else "It will not lie all over"
    helps = "" if one.lies else ": take a softer card, or a smaller piece"
    return f"{will}{slits}{helps}: {reach} (card allows {allowed}){bridges}."


def _note(one: Stencil) -> str:
    if one.side in (UPPER, LOWER):
        return f"For the {one.side} side of the lip; the straight edge lies against the body."
    return (
        "Lay the arrow to the nose, the upper edge on the back line."
        if one.is_back
        else "Lay the arrow to the nose."
    )


def _sheets(row: Document, name: str, pair: tuple[Stencil, ...]) -> tuple[str, tuple[Sheet, ...]]:
    """The paper, and the twins on it at true size, with a check bar."""
    on = stores.setting(db(), "saw")["paper"]
    title = f"{row.name}: {name}"
    return on, sheets([to_print(one, name, _note(one)) for one in pair], on, title)


@blueprint.get("/sheet.pdf")
def pdf(key: int, layer_key: str) -> ResponseReturnValue:
    """Both twins at true size, with a check bar."""
    row, name, pair = _cut(key, layer_key)
    on, pages = _sheets(row, name, pair)
    instead = url_for("paints_stencil.svg", key=key, layer_key=layer_key, number=1)
    shown = {"pack": {"paper": on, "sheets": pages}, "row": row}
    return paper.as_printed("shapes/pack_print.html", shown, f"{row.name} {name}", instead)


@blueprint.get("/sheet-<int:number>.svg")
def svg(key: int, layer_key: str, number: int) -> ResponseReturnValue:
    """One sheet as SVG, at true size."""
    row, name, pair = _cut(key, layer_key)
    _, pages = _sheets(row, name, pair)
    if not 1 <= number <= len(pages):
        raise Refused("sheet", number, f"1 to {len(pages)}")
    called = f"{named(row, f'{name} {number}')}.svg"
    return as_file(str(markup(pages[number - 1].svg())), called, "image/svg+xml")


@blueprint.get("/cut.dxf")
def cutter(key: int, layer_key: str) -> ResponseReturnValue:
    """Both twins for a cutter: what is cut on one layer, what is drawn on another."""
    row, name, pair = _cut(key, layer_key)
    return as_file(dxf.write(to_cut(pair, name)), f"{named(row, name)}.dxf", "image/vnd.dxf")


@blueprint.post("/register")
def register(key: int, layer_key: str) -> ResponseReturnValue:
    """It is cut: the twins go into the register."""
    row, name, pair = _cut(key, layer_key)
    for one in pair:
        called = f"{name}, {row.name}, {one.side}"[:80]
        if all(tool.name != called for tool in tried.tools(db())):
            kind = "stencil" if one.openings else "tape mask"
            side = one.side if one.side in SIDES else BOTH
            db().add(PaintTool(name=called, kind=kind, source="cut here", side=side, body_id=row.id))
    flash(f"{name} for {row.name} is in the register.")
    return redirect(url_for("paints_known.index", _anchor="tool"))
