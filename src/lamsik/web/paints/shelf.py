"""The shelf: paints with their swatches, colours that are wanted; what the shop's own mixes taught."""

from collections.abc import Sequence
from dataclasses import dataclass

from flask import Blueprint, abort, flash, redirect, render_template, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.cautions import CAUTIONS
from lamsik.core.errors import Refused
from lamsik.core.paints.colour import difference, hex_of_lab
from lamsik.core.paints.mixing import Tint
from lamsik.core.paints.paint import CHEMISTRIES, PAINT_KINDS
from lamsik.core.paints.shelf import SOURCES
from lamsik.core.paints.taught import foretold, taught, tints
from lamsik.core.paints.wanted import WantedColour
from lamsik.drawings.swatches import chip
from lamsik.store import documents, shelf, stores
from lamsik.store.tables import Document
from lamsik.web.paints.shelf_state import view
from lamsik.web.shared import keeping
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.live_document import exchanged
from lamsik.words import colours, refusals

blueprint = Blueprint("paints_shelf", __name__, url_prefix="/paints/shelf")
keeping.keep_documents(blueprint, "paint", "paints_shelf.index", "paints_shelf.show")
current = exchanged(blueprint, "paint", "paints", lambda content, _: view(content))
"""The whole state of a saved paint."""
PAGES = {"paint": "paints_shelf.show", "match": "paints_match.show"}
"""What may be in a cup, by kind, and its page."""


@dataclass(frozen=True)
class Wanted:
    """A colour to be matched in a list: its row, its looks as a screen shows them, how far they lie apart."""

    row: Document
    wanted: str
    other: str
    says: str


@blueprint.get("")
def index() -> str:
    """All paints as swatches, and the colours that are wanted."""
    rows, matches = shelf.paints(db()), shelf.matches(db())
    on_shelf = tuple((row.code, paint) for row, paint in rows)
    mixed = tuple(match for _, match in matches if match.is_seen and match.parts)
    known = tints(on_shelf, mixed)
    return render_template(
        "paints/shelf.html",
        paints=[(row, paint, chip(paint)) for row, paint in rows],
        broken=shelf.unread(db(), {row.id for row, _ in (*rows, *matches)}),
        wanted=[_wanted(row, match, known) for row, match in matches],
        model=colours.model(taught(on_shelf, mixed)),
        reader=stores.setting(db(), "reader"),
    )


def _wanted(row: Document, match: WantedColour, known: Sequence[Tint]) -> Wanted:
    look = match.seen.row if match.is_seen else None
    if look is None:
        try:
            look = foretold(match, known, match.on)
        except Refused:
            look = None
    if look is None:
        return Wanted(row, hex_of_lab(match.wanted.row), "", "no recipe yet")
    off = float(difference(match.wanted.row, look))
    what = "came out" if match.is_seen else "foretold"
    return Wanted(row, hex_of_lab(match.wanted.row), hex_of_lab(look), f"{what}: {colours.apart(off)}")


@blueprint.post("/new")
def new() -> ResponseReturnValue:
    """A paint more."""
    row = documents.new(db(), "paint")
    return redirect(url_for("paints_shelf.show", key=row.id))


@blueprint.post("/bring-in")
def bring_in() -> ResponseReturnValue:
    """A paint file brought in."""
    try:
        row = keeping.brought_in("paint", current)
    except Refused as refused:
        flash(f"It cannot be brought in. {refusals.says(refused)}", "refused")
        return redirect(url_for("paints_shelf.index"))
    return redirect(url_for("paints_shelf.show", key=row.id))


@blueprint.get("/coded/<code>")
def coded(code: str) -> ResponseReturnValue:
    """The paint, or the colour as it is mixed, of a code."""
    rows = {page: documents.coded(db(), kind, code) for kind, page in PAGES.items()}
    page, row = next(((page, row) for page, row in rows.items() if row is not None), ("", None))
    if row is None:
        abort(404)
    return redirect(url_for(page, key=row.id))


@blueprint.get("/<int:key>")
def show(key: int) -> str:
    """One paint: its swatch in thin and thick films, what stands on its pot, its pots."""
    row = load_document("paint", key)
    return render_template(
        "paints/paint.html",
        row=row,
        state=current(row),
        kinds=list(PAINT_KINDS),
        chemistries=CHEMISTRIES,
        sources=SOURCES,
        cautions=list(CAUTIONS),
    )
