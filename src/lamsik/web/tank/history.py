"""A design's revisions with what changed on each, and the way back to one."""

from flask import Blueprint, render_template, url_for
from flask.typing import ResponseReturnValue

from lamsik.store import orders
from lamsik.web.shared import keeping
from lamsik.web.shared.db import db, load_document

blueprint = Blueprint("tank_history", __name__, url_prefix="/tank")


@blueprint.get("/<int:key>/history")
def show(key: int) -> str:
    """The design's revisions with what changed, the newest first."""
    row = load_document("body", key)
    return render_template(
        "tank/history.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        page=keeping.revisions_page(row),
    )


@blueprint.post("/<int:key>/history/<int:number>")
def go_back(key: int, number: int) -> ResponseReturnValue:
    """Make an earlier revision the newest again; nothing between is lost."""
    return keeping.gone_back(load_document("body", key), number, url_for("tank.show", key=key))
