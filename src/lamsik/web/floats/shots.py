"""A shop's tables of shot sizes: what each weighs, edited live, drawn as the balls that they are."""

from typing import Any

from flask import Blueprint, redirect, render_template, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.floats.shotting import ShotTable
from lamsik.core.quantities import said
from lamsik.documents.rows import Document as Content
from lamsik.documents.shots.document import table_of
from lamsik.drawings.shots import balls
from lamsik.store import documents
from lamsik.web.floats.shots_view import SizeRow, TablePanel, TableView
from lamsik.web.shared import keeping
from lamsik.web.shared.db import db, load_document
from lamsik.web.shared.fields import as_typed
from lamsik.web.shared.live_document import exchanged
from lamsik.web.shared.view import Head, RowField, edit, plain

blueprint = Blueprint("floats_shots", __name__, url_prefix="/floats/shots")
keeping.keep_documents(blueprint, "shots", "floats.index", "floats_shots.show")


@blueprint.post("/new")
def new() -> ResponseReturnValue:
    """A shot table to fill in."""
    row = documents.new(db(), "shots", name=f"Shot table {len(documents.listed(db(), 'shots')) + 1}")
    return redirect(url_for("floats_shots.show", key=row.id))


@blueprint.get("/<int:key>")
def show(key: int) -> str:
    """One shot table: its country, series, and sizes."""
    row = load_document("shots", key)
    return render_template("floats/table.html", row=row, state=current(row))


def view(document: Content) -> dict[str, Any]:
    """The computed part of the state."""
    table = table_of(document)
    count = len(table.shots)
    head = Head(
        fields=as_typed(document),
        settled=True,
        near=None,
        sentence=f"{count} {'size' if count == 1 else 'sizes'}. Makers differ: weigh yours, ten at once, and"
        " write what they are.",
        selected={},
    )
    return plain(TableView(head, TablePanel(balls(table), _sizes(table))))


def _sizes(table: ShotTable) -> list[SizeRow]:
    only = "a table has one size at least" if len(table.shots) == 1 else ""
    return [
        SizeRow(
            key=shot.key,
            name=RowField(f"shots.{shot.key}.name", f"Size {n}"),
            mass=RowField(f"shots.{shot.key}.mass_g", f"Mass of {shot.name}"),
            density=RowField(f"shots.{shot.key}.density_g_cm3", f"Density of {shot.name}"),
            across=said(shot.across_mm, "length"),
            only=only,
            remove=edit("remove", group="shots", key=shot.key),
            remove_says=f"Take {shot.name} off",
        )
        for n, shot in enumerate(table.shots, start=1)
    ]


current = exchanged(blueprint, "shots", "shots", lambda content, _: view(content))
"""The whole state of a saved table."""
