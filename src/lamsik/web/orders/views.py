"""The Orders bench: enquiries, what was agreed, the pieces made for them."""

from datetime import date, datetime
from typing import Any

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.materials import BODY_MATERIALS, USUAL_WOOD
from lamsik.core.money import Money, read
from lamsik.core.orders.customer_facts import CUSTOMER_FACTS
from lamsik.core.orders.promise import Ready
from lamsik.core.orders.status import ENDED, STATUSES, ways
from lamsik.core.orders.terms import Share, read_share
from lamsik.core.quantities import plainly, said
from lamsik.core.shapes.forms import FORMS, form
from lamsik.core.stock.shipping import zones
from lamsik.core.trade.behaviours import BEHAVIOURS, USUAL
from lamsik.store import (
    ahead,
    costs,
    custody,
    letters,
    order_lines,
    orders,
    papers,
    parcels,
    pieces,
    promises,
    stores,
)
from lamsik.store import stands as stands_of
from lamsik.store.paging import Page
from lamsik.store.tables import (
    CustodyItem,
    Customer,
    Document,
    Order,
    OrderChange,
    OrderLine,
    Payment,
    Piece,
    Revision,
    ShopWater,
)
from lamsik.web.orders.forms import ASKED_FIRST, EnquiryForm
from lamsik.web.orders.lists import settle_what_is_over, shown_lines
from lamsik.web.orders.papers import offered
from lamsik.web.orders.parcels import shown_parcels
from lamsik.web.orders.post import look_for_answers
from lamsik.web.orders.terms import terms_of
from lamsik.web.orders.weights import shipped_minor
from lamsik.web.shared import keeping, picks
from lamsik.web.shared.db import db, load, sent_id
from lamsik.web.shared.forms import choices, typed_texts
from lamsik.web.shared.lists import asked_page, asked_text
from lamsik.web.shared.photos import photos_of
from lamsik.web.shared.picks import Picks
from lamsik.web.shared.progress import stands
from lamsik.words import refusals
from lamsik.words.letters import CALLED
from lamsik.words.orders import COLUMNS, LINES, PAPERS, WAITS

blueprint = Blueprint("orders", __name__, url_prefix="/orders")
MOST_SHOWN = 60
"""Lines on the page of an order."""


@blueprint.get("")
def index() -> str:
    """All orders, what is due first, shipped ones last."""
    settle_what_is_over()
    page: Page[tuple[Order, Customer]] = asked_page(orders.listed(asked_text()))
    return render_template("orders/index.html", page=page, q=asked_text(), ended=ENDED)


def _form(schemes: Picks) -> EnquiryForm:
    asked = EnquiryForm()
    asked.form.choices = choices((f.key, f"{f.name} ({f.purpose})") for f in FORMS.values())
    asked.material.choices = choices(
        (name, f"{name}, about {said(m.density_g_cm3, 'density', 2)}") for name, m in BODY_MATERIALS.items()
    )
    asked.scheme.choices = choices([(0, "not chosen yet"), *schemes.rows])
    asked.behaviour.choices = choices((one.key, one.should) for one in BEHAVIOURS.values())
    asked.water.choices = choices(
        (row.id, f"{row.name}, {plainly(row.temperature_c, 'temperature')}") for row in stores.waters(db())
    )
    return asked


@blueprint.route("/new", methods=["GET", "POST"])
def new() -> ResponseReturnValue:
    """Take an enquiry."""
    schemes = picks.of("scheme", picks.sent("scheme", "scheme"))
    asked = _form(schemes)
    if request.method == "GET":
        asked.behaviour.data, asked.material.data = USUAL, USUAL_WOOD
        asked.customer.data = request.args.get("customer", "")[:120]
    if asked.validate_on_submit():
        try:
            return _place(asked)
        except Refused as refused:
            says = f"{refused.given!r} cannot be read: {refusals.allowed(refused)}."
            asked.price.errors = [*asked.price.errors, says]
    return render_template(
        "orders/new.html", asked=asked, facts=ASKED_FIRST, known=picks.of("customer"), schemes=schemes
    ), (422 if asked.is_submitted() else 200)


def _place(asked: EnquiryForm) -> ResponseReturnValue:
    customer = orders.customer_named(db(), asked.customer.data or "", asked.facts())
    start = form(asked.form.data)
    currency, typed = stores.setting(db(), "shop")["currency"], (asked.price.data or "").strip()
    order = Order(
        number=orders.next_number(db()),
        customer_id=0,
        due_on=asked.due.data,
        currency=currency,
        note=asked.note.data or "",
    )
    line = OrderLine(
        order_id=0,
        quantity=asked.quantity.data or 1,
        length_mm=asked.length.amount,
        typed=typed_texts(asked),
        form=start.key,
        material=asked.material.data,
        scheme_id=asked.scheme.data or None,
        behaviour=asked.behaviour.data,
        pitch_deg=asked.pitch.amount or 0.0,
        water_id=asked.water.data,
        lump_minor=read(typed, currency).minor if typed else None,
    )
    orders.place(db(), order, customer, *([] if request.form.get("later") else [line]))
    flash(f"{order.number} is noted for {customer.name}.")
    return redirect(url_for("orders.show", key=order.id))


@blueprint.get("/<int:key>")
def show(key: int) -> ResponseReturnValue:
    """One order: the wish, the design made for it, its pieces, what comes next."""
    return _page(load(Order, key))


def _page(order: Order, problem: Refused | None = None) -> ResponseReturnValue:
    settle_what_is_over()
    look_for_answers()
    key, agreed = order.id or 0, stands_of.agreed(order, stands_of.paid_minor(db(), order))
    customer = load(Customer, order.customer_id)
    page = asked_page(pieces.listed(order_id=key))
    rows = stands_of.lines_of(db(), order)
    return render_template(
        "orders/show.html",
        order=order,
        customer=customer,
        facts=CUSTOMER_FACTS,
        lines=shown_lines(order, rows if request.args.get("all") else rows[:MOST_SHOWN], customer),
        more_lines=0 if request.args.get("all") else max(len(rows) - MOST_SHOWN, 0),
        kinds=LINES,
        changes=[(one, _told(one)) for one in order_lines.changes(db(), order)],
        pieces=list(zip(page.rows, stands(page.rows), strict=True)),
        page=page,
        statuses=STATUSES,
        ways=ways(agreed, order.stand),
        agreed=agreed,
        last=orders.last_said(order).removesuffix("_at"),
        payments=orders.payments(db(), order),
        terms=terms_of(order),
        zones=zones(costs.rates(db())),
        lent=custody.of_order(db(), key),
        how=orders.HOW,
        problem=problem,
        **photos_of("order", key),
        promises=promises.of_order(db(), order),
        bench_says=_bench_says(order),
        waits_for=[
            *((title, WAITS[what]) for title, what in promises.waits_for(db(), order)),
            *ahead.missing_for(db(), order),
        ],
        letters=letters.of_order(db(), order),
        letters_called=CALLED,
        papers=papers.of_order(db(), order),
        papers_called=PAPERS,
        papers_offered=offered(),
        parcels=shown_parcels(order),
        to_pack=parcels.to_pack(db(), order),
    ), (422 if problem else 200)


def _told(change: OrderChange) -> list[tuple[str, str, str]]:
    """What a change is of, in words: what it is called, before and after."""
    row, order = load(OrderLine, change.line_id), load(Order, change.order_id)
    told = [(row.title, "", "")]
    for name, value in change.after.items():
        was = change.before.get(name)
        told.append((COLUMNS[name], _value(name, was, order), _value(name, value, order)))
    return told


def _value(name: str, value: Any, order: Order) -> str:
    """A value of a column as it is read."""
    if name == "deleted_at":
        return "off the order" if value else "on the order"
    if value is None or value == "":
        return "none"
    if name in ("rate_minor", "lump_minor"):
        return Money(int(value), order.currency).said
    if name in ("length_mm", "pitch_deg"):
        return said(float(value), "length" if name == "length_mm" else "angle")
    table = {
        "scheme_id": Document,
        "design_id": Document,
        "water_id": ShopWater,
        "custody_id": CustodyItem,
        "piece_id": Piece,
        "revision_id": Revision,
    }.get(name)
    row: Any = db().get(table, value) if table else None
    return str(getattr(row, "name", getattr(row, "number", value))) if row is not None else str(value)


@blueprint.post("/<int:key>/<any(quote, accept, decline, cancel, reopen):way>")
def agree(key: int, way: str) -> ResponseReturnValue:
    """A quote went out, it was accepted, declined or cancelled, or the last of these is taken back."""
    order = load(Order, key)
    try:
        with db().begin_nested():
            orders.say(db(), order, way)
    except Refused as refused:
        if refused.field == "order":
            raise
        flash(f"{order.number} stays as it stands. {refusals.says(refused)}", "refused")
    return redirect(url_for("orders.show", key=key))


@blueprint.post("/<int:key>/price")
def price(key: int) -> ResponseReturnValue:
    """By when it is wanted, what its way costs, what is taken off it and what is asked first."""
    order = load(Order, key)
    try:
        text = request.form.get("shipping", "").strip()
        zone = request.form.get("to", "")
        order.shipping_minor = _sum(text, order, "shipping") if text else None
        if zone and not text:
            order.shipping_minor = shipped_minor(order, zone)
        off, first = (_share(order, name) for name in ("discount", "deposit"))
        order.discount_percent, order.discount_minor = off.percent, off.minor
        order.discount_why = request.form.get("why", "").strip()[:200]
        order.deposit_percent, order.deposit_minor = first.percent, first.minor
        order.due_on = _day(request.form["due"]) if request.form.get("due") else None
    except Refused as refused:
        db().rollback()
        return _page(load(Order, key), refused)
    stands_of.order_anew(db(), order)
    return redirect(url_for("orders.show", key=key, _anchor="money"))


@blueprint.post("/<int:key>/paid")
def paid(key: int) -> ResponseReturnValue:
    """Money came, or went back."""
    order, text = load(Order, key), request.form.get("sum", "").strip()
    try:
        back = text.startswith(("-", "−"))
        minor = _sum(text.lstrip("-− "), order, "sum")
        on = _day(request.form.get("on", ""))
        how, note = request.form.get("how", ""), request.form.get("note", "").strip()[:200]
        one = Payment(order_id=key, paid_on=on, minor=-minor if back else minor, how=how, note=note)
        orders.pay(db(), order, one)
    except Refused as refused:
        db().rollback()
        return _page(load(Order, key), refused)
    return redirect(url_for("orders.show", key=key, _anchor="money"))


@blueprint.post("/<int:key>/unpaid")
def unpaid(key: int) -> ResponseReturnValue:
    """A payment was noted by mistake; History brings it back."""
    order, one = load(Order, key), load(Payment, sent_id("payment"))
    if one.order_id != key:
        raise Refused("payment", one.id, "a payment of this order")
    db().delete(one)
    db().flush()
    stands_of.order_anew(db(), order)
    return redirect(url_for("orders.show", key=key, _anchor="money"))


def _sum(text: str, order: Order, name: str) -> int:
    try:
        return read(text, order.currency).minor
    except Refused as refused:
        raise Refused(name, refused.given, refused.allowed) from refused


def _share(order: Order, name: str) -> Share:
    text = request.form.get(name, "")
    try:
        return read_share(text, order.currency)
    except Refused as refused:
        raise Refused(name, text, "a share as 10 %, or a sum as 12.50") from refused


def _day(text: str) -> date:
    try:
        return date.fromisoformat(text)
    except ValueError as error:
        raise Refused("on", text, "a day, as 2026-05-31") from error


@blueprint.post("/<int:key>/promise")
def promise(key: int) -> ResponseReturnValue:
    """A day is promised, or another than before."""
    order = load(Order, key)
    try:
        promises.promise(db(), order, _day(request.form.get("on", "")), request.form.get("why", ""))
    except Refused as refused:
        db().rollback()
        return _page(load(Order, key), refused)
    return redirect(url_for("orders.show", key=key, _anchor="promise"))


def _bench_says(order: Order) -> tuple[Ready | None, str]:
    """When the bench has it ready, and why, in words; or why that cannot be said. Of one that is asked."""
    if request.args.get("when") is None:
        return None, ""
    try:
        told = promises.told(db(), order, stores.workdays(db()), datetime.now())
    except Refused as refused:
        return None, refusals.says(refused)
    return told, (
        f"{said(told.before_min / 60, 'time', 0)} of hands promised before it,"
        f" {said(told.hands_min / 60, 'time', 0)} for it, {said(told.waits_h, 'time', 0)} of coats and cures"
    )


@blueprint.post("/<int:key>/<any(delete, bring_back):way>")
def put_away(key: int, way: str) -> ResponseReturnValue:
    """Delete an order, or bring it back."""
    order = load(Order, key)
    return keeping.put_away(
        order,
        way,
        url_for("orders.index"),
        url_for("orders.show", key=key),
        url_for("orders.put_away", key=key, way="bring_back"),
    )
