"""The Tank: one design in its water."""

from flask import Blueprint, redirect, render_template, url_for
from flask.typing import ResponseReturnValue
from sqlmodel import col, select

from lamsik.core.tank.motion import BEHAVIOURS
from lamsik.store import documents, orders, stores
from lamsik.store.tables import Document, Revision
from lamsik.web.shapes.live import current
from lamsik.web.shared.db import db, load_document

blueprint = Blueprint("tank", __name__, url_prefix="/tank")


@blueprint.get("")
def index() -> ResponseReturnValue:
    """The design worked on last, in its water; the way to Shapes where there is none yet."""
    row = last_touched()
    if row is None:
        return render_template("tank/empty.html")
    return redirect(url_for("tank.show", key=row.id))


def last_touched() -> Document | None:
    """The design whose newest revision is the newest of all."""
    query = select(Document).join(Revision).where(Document.kind == "body", col(Document.deleted_at).is_(None))
    return db().exec(query.order_by(col(Revision.saved_at).desc(), col(Revision.id).desc())).first()


@blueprint.get("/<int:key>")
def show(key: int) -> str:
    """The Tank with this design in it."""
    row = load_document("body", key)
    designs = documents.listed(db(), "body")
    shop = stores.bench(db())
    return render_template(
        "tank/show.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        state=current(row, "tank"),
        designs=designs,
        waters=stores.waters(db()),
        behaviours=BEHAVIOURS,
        slugs=shop.slugs,
    )
