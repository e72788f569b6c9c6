"""The people of the shop: their names in Stores, and who stands at this browser."""

from flask import Blueprint, flash, redirect, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.store import people
from lamsik.store.tables import Person
from lamsik.web.shared import person
from lamsik.web.shared.db import db, load, sent_id
from lamsik.words import refusals

blueprint = Blueprint("stores_people", __name__, url_prefix="/people")


@blueprint.post("/here")
def here() -> ResponseReturnValue:
    """Someone says that they stand at this browser."""
    row = db().get(Person, sent_id("person"))
    person.choose(row if row is not None and row.gone_at is None else None)
    back = request.form.get("back", "")
    return redirect(back if back.startswith("/") and not back.startswith(("//", "/\\")) else "/")


@blueprint.post("/add")
def add() -> ResponseReturnValue:
    """Someone works in the shop from now on."""
    try:
        row = people.named(db(), request.form.get("name", ""))
        flash(f"{row.name} works here. Each browser asks once who stands at it.")
    except Refused as refused:
        flash(f"Nobody was added: {refusals.says(refused)}", "refused")
    return _to()


@blueprint.post("/<int:key>/rename")
def rename(key: int) -> ResponseReturnValue:
    """Someone is called otherwise."""
    try:
        people.named(db(), request.form.get("name", ""), load(Person, key))
    except Refused as refused:
        flash(f"The name stays: {refusals.says(refused)}", "refused")
    return _to()


@blueprint.post("/<int:key>/<any(leave, bring_back):way>")
def leave(key: int, way: str) -> ResponseReturnValue:
    """Someone does not work here any more, or does again; what they did keeps their name."""
    row = load(Person, key)
    if way == "bring_back":
        row.gone_at = None
        db().add(row)
    else:
        people.leaves(db(), row)
        again = url_for("stores_people.leave", key=key, way="bring_back")
        flash(f"{row.name} is off the list; what they did keeps their name.", f"undo:{again}")
    return _to()


def _to() -> ResponseReturnValue:
    return redirect(url_for("stores.index", _anchor="people"))
