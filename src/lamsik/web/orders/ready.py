"""Ready stock of one: each piece with its price to every destination, who has it first, who is next."""

from collections.abc import Sequence
from dataclasses import dataclass

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, require
from lamsik.core.money import Money, read
from lamsik.core.orders.lines import STOCK
from lamsik.store import orders, ready_stock, rights, stores
from lamsik.store.paging import Page
from lamsik.store.tables import Document, Order, OrderLine, Piece
from lamsik.web.orders.lists import settle_what_is_over
from lamsik.web.shared import picks
from lamsik.web.shared.db import db, load, sent_id
from lamsik.web.shared.lists import asked_page

blueprint = Blueprint("orders_ready", __name__, url_prefix="/orders/ready")
MOST_DESTINATIONS, MOST_HOURS = 12, 24 * 60


@dataclass(frozen=True)
class ReadyPiece:
    """A piece that is ready: what it is made from, why it may not be sold, its price with the way to each
    destination, who asked for it.
    """

    piece: Piece
    design: Document
    why_not: str
    prices: tuple[tuple[str, str], ...]
    asking: Sequence[tuple[OrderLine, Order]]


@blueprint.get("")
def index() -> str:
    """All pieces that are ready and were made for no one."""
    return _page()


def _page(problem: Refused | None = None) -> str:
    settle_what_is_over()
    page: Page[Piece] = asked_page(ready_stock.listed())
    return render_template(
        "orders/ready.html",
        page=page,
        offered=[_offered(piece) for piece in page.rows],
        hours=ready_stock.hours(db()),
        shipping="\n".join(f"{to} {_money(minor).split()[0]}" for to, minor in _destinations()),
        known=picks.of("customer"),
        problem=problem,
    )


def _money(minor: int) -> str:
    return Money(minor, stores.setting(db(), "shop")["currency"]).said


def _destinations() -> list[tuple[str, int]]:
    return [(str(to), int(minor)) for to, minor in stores.setting(db(), "ready")["shipping"]]


def _offered(piece: Piece) -> ReadyPiece:
    minor = piece.price_minor
    prices = [(to, _money(minor + way)) for to, way in _destinations()] if minor is not None else []
    return ReadyPiece(
        piece,
        db().get_one(Document, piece.design_id),
        rights.why_not(db(), piece.design_id),
        tuple(prices),
        ready_stock.asking(db(), piece.id or 0),
    )


@blueprint.post("/<int:key>/price")
def price(key: int) -> ResponseReturnValue:
    """What a piece costs, without its way."""
    piece, text = load(Piece, key), request.form.get("price", "").strip()
    try:
        currency = stores.setting(db(), "shop")["currency"]
        piece.price_minor = read(text, currency).minor if text else None
    except Refused as refused:
        return _page(refused), 422
    db().add(piece)
    return redirect(url_for("orders_ready.index", _anchor=f"piece-{key}"))


@blueprint.post("/shipping")
def shipping() -> ResponseReturnValue:
    """What the way costs to each destination, a line each; how long a piece is kept."""
    rows: list[list[object]] = []
    currency = stores.setting(db(), "shop")["currency"]
    try:
        for line in request.form.get("shipping", "").splitlines():
            if line.strip():
                to, _, text = line.strip().rpartition(" ")
                require(
                    bool(to.strip()),
                    "shipping",
                    line.strip(),
                    "a destination and its price, as Overseas 14.50",
                )
                rows.append([to.strip()[:60], read(text, currency).minor])
        require(
            len(rows) <= MOST_DESTINATIONS, "shipping", len(rows), f"at most {MOST_DESTINATIONS} destinations"
        )
        hours = request.form.get("hours", "")
        is_time = hours.isascii() and hours.isdigit() and 1 <= int(hours[:6]) <= MOST_HOURS
        require(is_time, "hours", hours, f"whole hours, 1 to {MOST_HOURS}")
    except Refused as refused:
        return _page(refused), 422
    stores.put_setting(db(), "ready", {"hours": int(hours), "shipping": rows})
    return redirect(url_for("orders_ready.index"))


@blueprint.post("/<int:key>/keep")
def keep(key: int) -> ResponseReturnValue:
    """Someone asks for a piece: an order with it, kept for them or next in line."""
    piece = load(Piece, key)
    name = request.form.get("customer", "").strip()[:120]
    require(bool(name), "customer", name, "who asks for it")
    customer = orders.customer_named(db(), name)
    order = Order(
        number=orders.next_number(db()), customer_id=0, currency=stores.setting(db(), "shop")["currency"]
    )
    destinations, to = _destinations(), sent_id("to") if request.form.get("to") else 0
    if 0 < to <= len(destinations):
        order.shipping_minor = destinations[to - 1][1]
    line = OrderLine(order_id=0, kind=STOCK, piece_id=piece.id, rate_minor=piece.price_minor)
    orders.place(db(), order, customer, line)
    place = ready_stock.ask(db(), line)
    flash(
        f"{piece.number} is kept for {customer.name}."
        if not place
        else f"{piece.number} is kept for someone else: {customer.name} is number {place} after them."
    )
    return redirect(url_for("orders.show", key=order.id))
