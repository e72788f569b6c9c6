"""A design's revisions with what changed on each, and the way back to one."""

from flask import Blueprint, flash, redirect, render_template, url_for
from flask.typing import ResponseReturnValue

from lamsik.store import documents, orders
from lamsik.web.shared.db import db, load_document, sent_base
from lamsik.web.shared.lists import asked_page

MOST_REVISIONS = 24
"""Revisions on one page."""

blueprint = Blueprint("tank_history", __name__, url_prefix="/tank")


@blueprint.get("/<int:key>/history")
def show(key: int) -> str:
    """The design's revisions with what changed, the newest first."""
    row = load_document("body", key)
    return render_template(
        "tank/history.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        page=asked_page(documents.revisions(row), MOST_REVISIONS),
    )


@blueprint.post("/<int:key>/history/<int:number>")
def go_back(key: int, number: int) -> ResponseReturnValue:
    """Make an earlier revision the newest again; nothing between is lost."""
    row = load_document("body", key)
    revision = documents.revision(db(), row, number)
    documents.save(db(), row, revision.content, sent_base(row), f"back to revision {number}")
    flash(f"Revision {number} is current again. Undo brings back what was.")
    return redirect(url_for("tank.show", key=key))
