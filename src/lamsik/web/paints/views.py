"""The Paints bench: schemes of ordered coats, on a reference silhouette and on a design's own."""

from flask import Blueprint, abort, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.paints.dressed import layers_on
from lamsik.core.paints.kinds import KINDS
from lamsik.core.paints.names import read_alike
from lamsik.core.paints.paint import CHEMISTRIES, PAINT_KINDS
from lamsik.core.paints.place import ALONG, OUTLINES, ROUND
from lamsik.documents.schemes.document import layers_of
from lamsik.documents.schemes.shape import SEASONS
from lamsik.drawings.scheme import Shown, scheme_view
from lamsik.store import documents, order_lines, orders, references, shelf
from lamsik.store import rights as rights_of
from lamsik.web.bodies.live import current
from lamsik.web.paints.live import current as state_of
from lamsik.web.shared import keeping, whole
from lamsik.web.shared.cards import reference
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.lists import asked_page, asked_text
from lamsik.words import paints, refusals

blueprint = Blueprint("paints", __name__, url_prefix="/paints")
MOST_COMPARED = 200
"""Schemes whose names are compared with one's own."""
keeping.keep_documents(blueprint, "scheme", "paints.index", "paints.edit", opens="paints.version")


@blueprint.get("")
def index() -> str:
    """All schemes, painted."""
    page = asked_page(documents.matching("scheme", asked_text()))
    schemes = documents.currents(db(), page.rows)
    cards, broken = whole.shown_of(
        page.rows, lambda row: (row, layers_of(schemes[row.id or 0].content), schemes[row.id or 0].id)
    )
    return render_template(
        "paints/index.html",
        cards=[(row, layers, revision, schemes[row.id or 0].content) for row, layers, revision in cards],
        broken=broken,
        page=page,
        q=asked_text(),
        seasons=SEASONS,
    )


@blueprint.post("/new")
def new() -> ResponseReturnValue:
    """A new scheme: seal, primer, base, fade, eyes and one clear to start from."""
    row = documents.new(db(), "scheme", name="New scheme")
    return redirect(url_for("paints.edit", key=row.id))


@blueprint.post("/bring-in")
def bring_in() -> ResponseReturnValue:
    """A scheme file brought in."""
    try:
        row = keeping.brought_in("scheme", state_of)
    except Refused as refused:
        flash(f"It cannot be brought in. {refusals.says(refused)}", "refused")
        return redirect(url_for("paints.index"))
    return redirect(url_for("paints.edit", key=row.id))


@blueprint.get("/<int:key>")
def edit(key: int) -> str:
    """One scheme: the painted bait from four sides, its layers in order, and all of the chosen one."""
    row = load_document("scheme", key)
    others = {one.name: one for one in documents.listed(db(), "scheme", most=MOST_COMPARED) if one.id != key}
    return render_template(
        "paints/edit.html",
        row=row,
        used=references.naming(db(), row),
        ordered=order_lines.in_scheme(db(), key),
        why_not_sold=rights_of.why_not(db(), key),
        alike=[others[name] for name in read_alike(row.name, others)],
        others=others.values(),
        seasons=SEASONS,
        state=state_of(row),
        kinds=KINDS,
        says=paints,
        along=ALONG,
        round=ROUND,
        outlines=OUTLINES,
        paint_kinds=[(name, name) for name in PAINT_KINDS],
        chemistries=[(name, name) for name in CHEMISTRIES],
        shelf=[(code, one.name) for code, one in shelf.as_paints(db()).items()],
    )


@blueprint.post("/<int:key>/rights")
def rights(key: int) -> ResponseReturnValue:
    """Whether a scheme may be sold, and if not whose it is."""
    row = load_document("scheme", key)
    note, may_sell = request.form.get("note", ""), bool(request.form.get("sold"))
    rights_of.keep(db(), rights_of.SCHEMES, row.code, may_sell, note)
    return redirect(url_for("paints.edit", key=key))


@blueprint.get("/<int:key>/version/<int:number>")
def version(key: int, number: int) -> str:
    """A scheme as it was in one of its versions: seen, not changed."""
    row = load_document("scheme", key)
    kept = documents.revision(db(), row, number)
    layers = layers_of(kept.content)
    design = reference(layers)
    return render_template(
        "paints/version.html",
        row=row,
        kept=kept,
        picture=scheme_view(design, Shown()),
        rows=layers_on(design),
        says=paints,
    )


@blueprint.get("/coded/<code>/<int:number>")
def coded(code: str, number: int) -> ResponseReturnValue:
    """The scheme of a code in one of its versions, or as it is now."""
    row = documents.coded(db(), "scheme", code)
    if row is None:
        abort(404)
    if number and number != row.current:
        return redirect(url_for("paints.version", key=row.id, number=number))
    return redirect(url_for("paints.edit", key=row.id))


@blueprint.get("/on/<int:key>")
def on_design(key: int) -> str:
    """A design in its scheme: pick one, change films, leave coats out."""
    row = load_document("body", key)
    page = asked_page(documents.matching("scheme", asked_text()))
    schemes, body = documents.currents(db(), page.rows), documents.revision(db(), row)
    swatches = [
        (scheme, url_for("cards.swatch", scheme=schemes[scheme.id or 0].id, body=body.id))
        for scheme in page.rows
    ]
    return render_template(
        "paints/on_design.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        state=current(row, "paints"),
        swatches=swatches,
        page=page,
    )
