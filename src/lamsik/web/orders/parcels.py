"""Parcels of an order: packed from what is ready, weighed, sent, part by part."""

from dataclasses import dataclass
from datetime import date

from flask import Blueprint, flash, redirect, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.store import parcels
from lamsik.store.parcels import Packed
from lamsik.store.tables import Order, Parcel
from lamsik.web.orders.weights import Weight, weight_of
from lamsik.web.shared.db import db, load
from lamsik.web.shared.scale import as_weighed, typed_weight
from lamsik.words import refusals

blueprint = Blueprint("orders_parcels", __name__, url_prefix="/orders/<int:order_id>/parcels")


@dataclass(frozen=True)
class ShownParcel:
    """A parcel: the row, what lies in it, what it weighs."""

    row: Parcel
    inside: Packed
    weight: Weight


def shown_parcels(order: Order) -> list[ShownParcel]:
    """The parcels of an order."""
    shown = []
    for row in parcels.of_order(db(), order):
        inside = parcels.packed(db(), row)
        shown.append(ShownParcel(row, inside, weight_of(row, inside)))
    return shown


def _back(order_id: int) -> ResponseReturnValue:
    return redirect(url_for("orders.show", key=order_id, _anchor="parcels"))


def _ids(name: str) -> list[int]:
    return [
        int(text)
        for text in request.form.getlist(name)
        if text.isascii() and text.isdigit() and len(text) < 10
    ]


def _parcel(order_id: int, key: int) -> Parcel:
    row = load(Parcel, key)
    if row.order_id != order_id:
        raise Refused("parcel", key, "a parcel of this order")
    return row


@blueprint.post("")
def pack(order_id: int) -> ResponseReturnValue:
    """Pack some of what is ready."""
    order = load(Order, order_id)
    text = request.form.get("box_g", "").strip()
    try:
        box_g = typed_weight(text, "box") if text else None
        chosen = (_ids("piece"), _ids("custody"), _ids("line"))
        parcels.pack(db(), order, request.form.get("box", ""), box_g, *chosen)
    except Refused as refused:
        db().rollback()
        flash(f"Nothing is packed. {refusals.says(refused)}", "refused")
    return _back(order_id)


@blueprint.post("/<int:key>/keep")
def keep(order_id: int, key: int) -> ResponseReturnValue:
    """What it weighs with everything, and the number it is followed by."""
    row, text = _parcel(order_id, key), request.form.get("weight", "").strip()
    try:
        row.weight_g = typed_weight(text, "weight") if text else None
    except Refused as refused:
        flash(refusals.says(refused), "refused")
        return _back(order_id)
    row.typed = {"weight_g": as_weighed(text)} if text else {}
    row.tracking = request.form.get("tracking", "").strip()[:80]
    db().add(row)
    return _back(order_id)


@blueprint.post("/<int:key>/<any(send, back, unpack):way>")
def act(order_id: int, key: int, way: str) -> ResponseReturnValue:
    """It went out, it did not after all, or it is unpacked."""
    row = _parcel(order_id, key)
    try:
        with db().begin_nested():
            if way == "send":
                parcels.send(db(), row, date.today())
            elif way == "back":
                parcels.take_back(db(), row)
            else:
                parcels.unpack(db(), row)
    except Refused as refused:
        flash(f"{row.number} stays as it is. {refusals.says(refused)}", "refused")
    return _back(order_id)
