"""The papers of an order: issued, read again as they went out, cancelled by a counter-document."""

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, require
from lamsik.core.money import Money
from lamsik.core.orders.papers import CARE, COUNTER, OF_PARCEL, PAPER_KINDS, address_lines, may_be_issued
from lamsik.store import orders, papers, parcels, stores
from lamsik.store import stands as stands_of
from lamsik.store.tables import Customer, Order, Paper, Parcel
from lamsik.web.orders.lists import shown_lines
from lamsik.web.orders.terms import terms_of
from lamsik.web.orders.weights import weight_of
from lamsik.web.shared import paper, printing
from lamsik.web.shared.db import db, load
from lamsik.web.shared.qr import qr
from lamsik.words import refusals
from lamsik.words.cautions import DEFER, caution
from lamsik.words.orders import PAPERS

blueprint = Blueprint("orders_papers", __name__, url_prefix="/orders")


@blueprint.post("/<int:order_id>/paper/<kind>")
def issue(order_id: int, kind: str) -> ResponseReturnValue:
    """Issue a paper as the order stands now."""
    order = load(Order, order_id)
    customer = load(Customer, order.customer_id)
    parcel = load(Parcel, int(request.form["parcel"])) if request.form.get("parcel", "").isdigit() else None
    try:
        require(
            parcel is None or parcel.order_id == order.id, "parcel", order.number, "a parcel of this order"
        )
        may_be_issued(kind, _has(order, customer, parcel))
        facts = _facts(order, customer, kind, parcel)
        row = papers.issue(
            db(), order, kind, lambda number: render_template("orders/sheet.html", **facts, number=number)
        )
    except Refused as refused:
        flash(refusals.says(refused), "refused")
        return redirect(url_for("orders.show", key=order.id, _anchor="papers"))
    return redirect(url_for("orders_papers.show", key=row.id))


def _has(order: Order, customer: Customer, parcel: Parcel | None) -> dict[str, bool]:
    """Which of the facts that papers need are there."""
    try:
        address_lines(customer.facts.get("address", ""))
        is_found = True
    except Refused:
        is_found = False
    return {
        "price": order.price_minor is not None,
        "accepted": order.accepted_at is not None,
        "paid": bool(orders.payments(db(), order)),
        "parcel": parcel is not None,
        "address": is_found,
    }


def _facts(order: Order, customer: Customer, kind: str, parcel: Parcel | None) -> dict[str, object]:
    agreed = stands_of.agreed(order, stands_of.paid_minor(db(), order))
    inside = parcels.packed(db(), parcel) if parcel else None
    return {
        "kind": kind,
        "called": PAPERS[kind],
        "order": order,
        "customer": customer,
        "from_": stores.setting(db(), "shop")["name"],
        "lines": shown_lines(order, stands_of.lines_of(db(), order), customer)
        if kind not in OF_PARCEL
        else (),
        "agreed": agreed,
        "terms": terms_of(order),
        "money": lambda minor: Money(minor, order.currency).said,
        "payments": orders.payments(db(), order),
        "parcel": parcel,
        "inside": inside,
        "weight": weight_of(parcel, inside) if parcel and inside else None,
        "qr": qr(url_for("orders.show", key=order.id, _external=True)),
        "pieces": [
            (one.number, qr(url_for("pieces.show", key=one.id, _external=True))) for one in inside.pieces
        ]
        if inside and kind != "label"
        else [],
        "cautions": [caution("hooks"), DEFER] if kind == CARE else [],
    }


@blueprint.get("/paper/<int:key>")
def show(key: int) -> str:
    """A paper as it was issued."""
    return render_template("orders/paper.html", **_paper(load(Paper, key)), screen=True)


@blueprint.get("/paper/<int:key>.pdf")
def pdf(key: int) -> ResponseReturnValue:
    """The same as PDF."""
    row = load(Paper, key)
    return paper.as_printed(
        "orders/paper.html",
        _paper(row),
        f"{row.number} {PAPERS[row.kind]}",
        url_for("orders_papers.show", key=key),
    )


def pdf_of(row: Paper) -> bytes:
    """A paper as PDF. Raises `CannotPrint` where the system's libraries for it are missing."""
    return printing.pdf(render_template("orders/paper.html", **_paper(row), screen=False))


blueprint.record_once(lambda state: state.app.extensions.update({"paper pdf": pdf_of}))


def _paper(row: Paper) -> dict[str, object]:
    require(
        papers.is_whole(row),
        "paper",
        row.number,
        "a paper that is as it was issued: this one was changed outside",
    )
    return {
        "row": row,
        "called": PAPERS[row.kind],
        "paper": paper.sheet(),
        "wide": paper.needs_japanese(row.html),
    }


@blueprint.post("/paper/<int:key>/cancel")
def cancel(key: int) -> ResponseReturnValue:
    """Take a paper back by a counter-document."""
    row = load(Paper, key)
    order = load(Order, row.order_id)
    customer = load(Customer, order.customer_id)
    facts = _facts(order, customer, COUNTER, None) | {"cancels": row, "cancels_called": PAPERS[row.kind]}
    try:
        counter = papers.cancel(
            db(), order, row, lambda number: render_template("orders/sheet.html", **facts, number=number)
        )
    except Refused as refused:
        flash(refusals.says(refused), "refused")
        return redirect(url_for("orders.show", key=order.id, _anchor="papers"))
    return redirect(url_for("orders_papers.show", key=counter.id))


def offered() -> list[tuple[str, str]]:
    """The papers that an order itself can have, by name."""
    return [(key, PAPERS[key]) for key in PAPER_KINDS if key not in (*OF_PARCEL, COUNTER)]
