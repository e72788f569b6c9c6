"""The Tank: one design in its water."""

from flask import Blueprint, flash, redirect, render_template, url_for
from flask.typing import ResponseReturnValue
from sqlmodel import col, select

from lamsik.core.materials import BODY_MATERIALS
from lamsik.core.shapes.allowances import KINDS
from lamsik.core.trade.behaviours import BEHAVIOURS
from lamsik.documents.body.document import to_design
from lamsik.store import documents, observed, orders, stores, tub
from lamsik.store.tables import Document, Observation, Revision
from lamsik.web.bodies.live import current
from lamsik.web.bodies.tank_depth import place_words
from lamsik.web.shared import picks
from lamsik.web.shared.db import db, load, load_document
from lamsik.web.shared.forms import typed_texts
from lamsik.web.tank.forms import TimedForm

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
    return _show(load_document("body", key), TimedForm())


def _show(row: Document, timed_form: TimedForm) -> str:
    key = row.id or 0
    design = to_design(documents.content(db(), row))
    hooks = sorted(
        (part for part in stores.hardware(db()) if part.kind == "hook"), key=lambda part: part.mass_g
    )
    return render_template(
        "tank/show.html",
        row=row,
        for_order=orders.waiting_for(db(), key),
        state=current(row, "tank"),
        designs=picks.of("body", (str(key), f"{row.name} ({row.code})")),
        waters=stores.waters(db()),
        behaviours=BEHAVIOURS.values(),
        slugs=stores.bench(db()).slugs,
        hooks=hooks,
        materials=BODY_MATERIALS,
        allowance_kinds=KINDS,
        places=[(p.key, place_words(design, p.key)) for p in design.hardware if p.item.of.is_screwed],
        timed_form=timed_form,
    )


@blueprint.post("/<int:key>/timed")
def time_run(key: int) -> ResponseReturnValue:
    """Keep a timed rise or sink; the page comes back to the tub."""
    row, form = load_document("body", key), TimedForm()
    if not form.validate_on_submit():
        return _show(row, form), 422
    net = (
        None
        if form.net.amount is None
        else (abs(form.net.amount) if form.way.data == "rise" else -abs(form.net.amount))
    )
    tub.keep_timed(
        db(),
        key,
        form.way.data,
        form.seconds.amount or 0.0,
        distance_m=form.distance.amount or 0.0,
        net_g=net,
        typed=typed_texts(form),
    )
    return redirect(url_for("tank.show", key=key, _anchor="tub"))


@blueprint.post("/timed/<int:run>/<any(take_back, put_back):way>")
def take_back(run: int, way: str) -> ResponseReturnValue:
    """Take a timed run back, or put it back."""
    row = load(Observation, run)
    observed.take_back(db(), row, way == "take_back")
    if way == "take_back":
        flash("The run is taken back.", f"undo:{url_for('tank.take_back', run=run, way='put_back')}")
    return redirect(url_for("tank.show", key=row.of_id, _anchor="tub"))
