"""The custody register: what customers lent, weighed, bagged, refitted, given back."""

from dataclasses import replace
from datetime import date

from flask import Blueprint, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.orders.custody import GENUINE, KINDS, BagRow, short
from lamsik.core.quantities import plainly, read_measure
from lamsik.store import custody, customers
from lamsik.store.paging import Page
from lamsik.store.tables import CustodyItem, Customer, Order
from lamsik.web.shared.db import db, load, sent_id
from lamsik.web.shared.lists import asked_page, asked_text
from lamsik.web.shared.photos import photos_of
from lamsik.web.shared.scale import as_weighed, board, typed_weight

blueprint = Blueprint("orders_custody", __name__, url_prefix="/orders/custody")
FIELDS = ("kind", "what", "condition", "genuine", "genuine_by", "eyes", "electronics", "place")
DAYS = ("received_on", "due_back_on")


@blueprint.get("")
def index() -> str:
    """What of customers' is here, what is due back first; and what went back."""
    gone = bool(request.args.get("gone"))
    page: Page[tuple[CustodyItem, Customer]] = asked_page(custody.listed(asked_text(), gone))
    return render_template("orders/custody.html", page=page, q=asked_text(), gone=gone)


@blueprint.route("/new", methods=["GET", "POST"])
def new() -> ResponseReturnValue:
    """Receive something."""
    customer = load(Customer, _id("customer"))
    item = CustodyItem(
        number="",
        customer_id=customer.id or 0,
        order_id=_id("order") or None,
        kind=KINDS[0],
        what="",
        received_on=date.today(),
    )
    if request.method == "GET":
        return _page(item)
    try:
        _read(item)
        custody.receive(db(), item)
    except Refused as refused:
        db().rollback()
        item.number = ""
        return _page(item, refused)
    return redirect(url_for("orders_custody.show", key=item.id))


def _id(name: str) -> int:
    text = request.values.get(name, "")
    return int(text) if text.isascii() and text.isdigit() and len(text) < 10 else 0


@blueprint.get("/<int:key>")
def show(key: int) -> ResponseReturnValue:
    """One item: how it came, its weight, its bag, its way back."""
    return _page(load(CustodyItem, key))


def _page(item: CustodyItem, problem: Refused | None = None) -> ResponseReturnValue:
    customer = load(Customer, item.customer_id)
    return render_template(
        "orders/custody_item.html",
        item=item,
        customer=customer,
        orders=db().exec(customers.ordered(customer.id or 0).limit(50)).all(),
        order=db().get(Order, item.order_id) if item.order_id else None,
        kinds=KINDS,
        genuine=GENUINE,
        bag=custody.bag(item),
        short=short(custody.bag(item)),
        weight=item.typed.get("weight_g") or (plainly(item.weight_g, "mass") if item.weight_g else ""),
        problem=problem,
        **photos_of("custody", item.id or 0),
        **board(f"custody {item.id or 'new'}"),
    ), (422 if problem else 200)


def _read(item: CustodyItem) -> None:
    """What a form says of an item. Raises `Refused` naming the field."""
    for name in FIELDS:
        setattr(item, name, request.form.get(name, "").strip())
    item.order_id = sent_id("order") or None
    for name in DAYS:
        text = request.form.get(name, "").strip()
        if text or name == "due_back_on":
            setattr(item, name, _day(name, text) if text else None)
    text = request.form.get("weight", "").strip()
    item.weight_g = typed_weight(text, "weight") if text else None
    item.typed = {"weight_g": as_weighed(text)} if text else {}


def _as_typed(item: CustodyItem) -> CustodyItem:
    """An item with what was typed of it, to be put right; it is not kept so."""
    db().expunge(item)
    for name in FIELDS:
        setattr(item, name, request.form.get(name, ""))
    item.typed = {"weight_g": request.form.get("weight", "")}
    return item


def _day(name: str, text: str) -> date:
    try:
        return date.fromisoformat(text)
    except ValueError as error:
        raise Refused(name, text, "a day, as 2026-05-31") from error


@blueprint.post("/<int:key>")
def keep(key: int) -> ResponseReturnValue:
    """Keep what is known of it."""
    item = load(CustodyItem, key)
    try:
        _read(item)
        custody.keep(db(), item)
    except Refused as refused:
        db().rollback()
        return _page(_as_typed(load(CustodyItem, key)), refused)
    return redirect(url_for("orders_custody.show", key=key))


@blueprint.post("/<int:key>/bag")
def bag(key: int) -> ResponseReturnValue:
    """Something more in its bag, or what of it is on again."""
    item = load(CustodyItem, key)
    try:
        rows = [_refitted(n, row) for n, row in enumerate(custody.bag(item))]
        what = request.form.get("what", "").strip()
        if what:
            rows.append(BagRow(what, _count("count", request.form.get("count", ""))))
        custody.put_in_bag(db(), item, rows)
    except Refused as refused:
        db().rollback()
        return _page(load(CustodyItem, key), refused)
    return redirect(url_for("orders_custody.show", key=key, _anchor="bag"))


def _refitted(n: int, row: BagRow) -> BagRow:
    back, instead = request.form.get(f"back_{n}"), request.form.get(f"instead_{n}")
    return replace(
        row,
        back=row.back if back is None else _count(f"back_{n}", back or "0"),
        instead=row.instead if instead is None else instead.strip(),
    )


def _count(name: str, text: str) -> int:
    counted = read_measure(text, "number", name)
    if counted != int(counted):
        raise Refused(name, text, "a whole number")
    return int(counted)


@blueprint.post("/<int:key>/<any(give_back, write_off, take_back):way>")
def goes(key: int, way: str) -> ResponseReturnValue:
    """It goes back, is written off with its owner's word, or is here after all."""
    item = load(CustodyItem, key)
    try:
        if way == "give_back":
            custody.give_back(db(), item, _day("on", request.form.get("on", "") or date.today().isoformat()))
        elif way == "write_off":
            custody.write_off(db(), item, request.form.get("word", ""))
        else:
            custody.take_back(db(), item)
    except Refused as refused:
        db().rollback()
        return _page(load(CustodyItem, key), refused)
    return redirect(url_for("orders_custody.show", key=key))
