"""The Orders bench: enquiries, what was agreed, the pieces made for them."""

from dataclasses import replace
from datetime import date

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.materials import BODY_MATERIALS, USUAL_WOOD
from lamsik.core.money import read
from lamsik.core.orders.customer_facts import CUSTOMER_FACTS
from lamsik.core.orders.customer_facts import INCHES as SPEAKS_INCHES
from lamsik.core.orders.status import ENDED, STATUSES, ways
from lamsik.core.quantities import INCHES, METRIC, plainly, said, saying
from lamsik.core.shapes.design import Want
from lamsik.core.shapes.forms import FORMS, form
from lamsik.core.trade.behaviours import BEHAVIOURS, USUAL
from lamsik.documents.body.document import to_design
from lamsik.documents.body.edits import BODY
from lamsik.documents.engine import apply
from lamsik.documents.schemes.document import layers_of
from lamsik.drawings.body import thumbnail
from lamsik.store import custody, documents, moulds, orders, pieces, stores
from lamsik.store import stands as stands_of
from lamsik.store.paging import Page
from lamsik.store.tables import Customer, Document, Order, Payment, ShopWater
from lamsik.web.bodies.begin import begin
from lamsik.web.orders.forms import ASKED_FIRST, EnquiryForm
from lamsik.web.shared import keeping, picks
from lamsik.web.shared.db import db, load, load_document, sent_id
from lamsik.web.shared.forms import choices, typed_texts
from lamsik.web.shared.lists import asked_page, asked_text
from lamsik.web.shared.photos import photos_of
from lamsik.web.shared.picks import Picks
from lamsik.web.shared.progress import stands
from lamsik.words import refusals

blueprint = Blueprint("orders", __name__, url_prefix="/orders")


@blueprint.get("")
def index() -> str:
    """All orders, what is due first, shipped ones last."""
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
        title=f"{start.name}, {asked.length.data}",
        search="",
        quantity=asked.quantity.data or 1,
        length_mm=asked.length.amount,
        typed=typed_texts(asked),
        form=start.key,
        material=asked.material.data,
        scheme_id=asked.scheme.data or None,
        behaviour=asked.behaviour.data,
        pitch_deg=asked.pitch.amount or 0.0,
        water_id=asked.water.data,
        due_on=asked.due.data,
        price_minor=read(typed, currency).minor if typed else None,
        currency=currency,
        note=asked.note.data or "",
    )
    orders.place(db(), order, customer)
    flash(f"{order.number} is noted for {customer.name}.")
    return redirect(url_for("orders.show", key=order.id))


@blueprint.get("/<int:key>")
def show(key: int) -> ResponseReturnValue:
    """One order: the wish, the design made for it, its pieces, what comes next."""
    return _page(load(Order, key))


def _page(order: Order, problem: Refused | None = None) -> ResponseReturnValue:
    key, agreed = order.id or 0, stands_of.agreed(order, stands_of.paid_minor(db(), order))
    customer = load(Customer, order.customer_id)
    page = asked_page(pieces.listed(order_id=key))
    design = db().get(Document, order.design_id) if order.design_id else None
    drawn = to_design(documents.content(db(), design)) if design else None
    picture = thumbnail(drawn, "order") if drawn else None
    return render_template(
        "orders/show.html",
        order=order,
        customer=customer,
        facts=CUSTOMER_FACTS,
        theirs=_in_their_units(order, customer),
        pieces=list(zip(page.rows, stands(page.rows), strict=True)),
        page=page,
        count=pieces.count_of(db(), key),
        source=drawn.source if drawn else None,
        statuses=STATUSES,
        ways=ways(agreed, order.stand),
        agreed=agreed,
        last=orders.last_said(order).removesuffix("_at"),
        payments=orders.payments(db(), order),
        lent=custody.of_order(db(), key),
        how=orders.HOW,
        problem=problem,
        **photos_of("order", key),
        design=design,
        picture=picture,
        designs=picks.of("body"),
        form=FORMS.get(order.form),
        scheme=db().get(Document, order.scheme_id) if order.scheme_id else None,
        water=db().get(ShopWater, order.water_id) if order.water_id else None,
    ), (422 if problem else 200)


def _in_their_units(order: Order, customer: Customer) -> str:
    """How long it is in the units the customer speaks in; empty where the shop speaks in them too."""
    speaks = customer.facts.get("speaks", "")
    if not speaks or order.length_mm is None:
        return ""
    with saying(INCHES if speaks == SPEAKS_INCHES else METRIC):
        theirs = said(order.length_mm, "length")
    return theirs if theirs != said(order.length_mm, "length") else ""


@blueprint.post("/<int:key>/<any(quote, accept, decline, cancel, reopen):way>")
def agree(key: int, way: str) -> ResponseReturnValue:
    """A quote went out, it was accepted, declined or cancelled, or the last of these is taken back."""
    order = load(Order, key)
    why = moulds.not_for_sale(db(), {"body_id": order.design_id}) if way == "accept" else ""
    if why:
        flash(
            f"{order.number} stays as it stands: its shape is {why}. Ask whoever it is from, or take another"
            " shape."
        )
        return redirect(url_for("orders.show", key=key))
    orders.say(db(), order, way)
    return redirect(url_for("orders.show", key=key))


@blueprint.post("/<int:key>/price")
def price(key: int) -> ResponseReturnValue:
    """What is agreed for it, and for its way."""
    order = load(Order, key)
    try:
        for name in ("price", "shipping"):
            text = request.form.get(name, "").strip()
            setattr(order, f"{name}_minor", _sum(text, order, name) if text else None)
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


def _day(text: str) -> date:
    try:
        return date.fromisoformat(text)
    except ValueError as error:
        raise Refused("on", text, "a day, as 2026-05-31") from error


@blueprint.post("/<int:key>/design")
def design(key: int) -> ResponseReturnValue:
    """Begin the design that was asked for, or take one there is."""
    order = load(Order, key)
    chosen = sent_id("design")
    if chosen:
        why = moulds.not_for_sale(db(), {"body_id": load_document("body", chosen).id})
        if why:
            flash(
                f"That shape does not go on {order.number}: it is {why}. Take another, or ask whoever it is"
                " from."
            )
            return redirect(url_for("orders.show", key=key))
        order.design_id = load_document("body", chosen).id
        db().add(order)
        return redirect(url_for("orders.show", key=key))
    water = db().get(ShopWater, order.water_id) if order.water_id else None
    want = Want(order.behaviour, BEHAVIOURS[order.behaviour].speed_cm_s, order.pitch_deg)
    customer = load(Customer, order.customer_id)
    row = begin(
        f"{form(order.form).name} for {customer.name}"[:120],
        order.form,
        order.material,
        want,
        order.length_mm,
        stores.water_of(water) if water else None,
    )
    _dress(row, order)
    order.design_id = row.id
    db().add(order)
    return redirect(url_for("shapes.edit", key=row.id))


def _dress(row: Document, order: Order) -> None:
    """Put the ordered scheme on the new design, in the version that was ordered."""
    scheme = db().get(Document, order.scheme_id) if order.scheme_id else None
    if scheme is not None:
        number = order.scheme_version or scheme.current
        layers = layers_of(documents.revision(db(), scheme, number).content)
        shop = replace(stores.catalogue(db()), schemes={scheme.code: layers}, versions={scheme.code: number})
        content = apply(BODY, documents.content(db(), row), {"do": "scheme", "code": scheme.code}, shop)
        documents.save(db(), row, content, row.current, "the ordered scheme")


@blueprint.post("/<int:key>/version")
def take_version(key: int) -> ResponseReturnValue:
    """The order takes its scheme as it is now; History takes that back."""
    order = load(Order, key)
    scheme = db().get(Document, order.scheme_id) if order.scheme_id else None
    if scheme is None:
        raise Refused("scheme", "", "choose a scheme for the order first")
    order.scheme_version = scheme.current
    db().add(order)
    flash(
        f"{order.number} takes {scheme.name} in version {scheme.current}. Lay it on the body anew in Paint."
    )
    return redirect(url_for("orders.show", key=key))


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
