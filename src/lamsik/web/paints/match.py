"""A colour that is wanted: recipes from the shelf, the one that was mixed, how it came out."""

from flask import Blueprint, flash, redirect, render_template, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.formats import match_file
from lamsik.store import documents, shelf
from lamsik.web.paints.match_state import view
from lamsik.web.shared import keeping
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.files import as_file, named
from lamsik.web.shared.live_document import exchanged
from lamsik.words import colours, refusals

blueprint = Blueprint("paints_match", __name__, url_prefix="/paints/match")
keeping.keep_documents(blueprint, "match", "paints_shelf.index", "paints_match.show")
current = exchanged(blueprint, "match", "paints", view)
"""The whole state of a saved match."""


@blueprint.post("/new")
def new() -> ResponseReturnValue:
    """A colour more that is wanted."""
    row = documents.new(db(), "match")
    return redirect(url_for("paints_match.show", key=row.id))


@blueprint.post("/bring-in")
def bring_in() -> ResponseReturnValue:
    """A match file brought in."""
    try:
        row = keeping.brought_in("match", current)
    except Refused as refused:
        flash(f"It cannot be brought in. {refusals.says(refused)}", "refused")
        return redirect(url_for("paints_shelf.index"))
    return redirect(url_for("paints_match.show", key=row.id))


@blueprint.get("/<int:key>/asked.json")
def asked(key: int) -> ResponseReturnValue:
    """The colour with the shelf it is asked of, as `lamsik calc match` reads it."""
    row = load_document("match", key)
    paints, mixed = shelf.paints(db()), [one for one, match in shelf.matches(db()) if match.is_seen]
    contents = documents.contents(db(), [one for one, _ in paints] + mixed)
    text = match_file.write(
        documents.content(db(), row),
        {one.code: contents[one.id or 0] for one, _ in paints},
        [contents[one.id or 0] for one in mixed],
    )
    return as_file(text, f"{named(row, 'asked')}.json", "application/json")


@blueprint.get("/<int:key>")
def show(key: int) -> str:
    """The wanted colour beside what is foretold, recipes, what was mixed and how it came out."""
    row = load_document("match", key)
    return render_template("paints/match.html", row=row, state=current(row), moves=colours.MOVES)
