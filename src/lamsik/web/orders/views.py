"""The Orders bench: enquiries, what was agreed, the pieces made for them."""

from dataclasses import replace

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.materials import BODY_MATERIALS, USUAL_WOOD
from lamsik.core.money import read
from lamsik.core.orders.customer_facts import CUSTOMER_FACTS
from lamsik.core.orders.status import STATUSES
from lamsik.core.quantities import plainly, said
from lamsik.core.shapes.design import Want
from lamsik.core.shapes.forms import FORMS, form
from lamsik.core.trade.behaviours import BEHAVIOURS, USUAL
from lamsik.documents.body.document import to_design
from lamsik.documents.body.edits import BODY
from lamsik.documents.engine import apply
from lamsik.documents.schemes.document import layers_of
from lamsik.drawings.body import thumbnail
from lamsik.store import documents, moulds, orders, pieces, stores
from lamsik.store import stands as stands_of
from lamsik.store.tables import Customer, Document, Order, ShopWater, now
from lamsik.web.bodies.begin import begin
from lamsik.web.orders.forms import EnquiryForm
from lamsik.web.shared import keeping, picks
from lamsik.web.shared.db import db, load, load_document, sent_id
from lamsik.web.shared.forms import choices, typed_texts
from lamsik.web.shared.lists import asked_page, asked_text
from lamsik.web.shared.picks import Picks
from lamsik.web.shared.progress import stands
from lamsik.words import refusals

blueprint = Blueprint("orders", __name__, url_prefix="/orders")


@blueprint.get("")
def index() -> str:
    """All orders, what is due first, shipped ones last."""
    return render_template("orders/index.html", page=asked_page(orders.listed(asked_text())), q=asked_text())


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
    if asked.validate_on_submit():
        try:
            return _place(asked)
        except Refused as refused:
            says = f"{refused.given!r} cannot be read: {refusals.allowed(refused)}."
            asked.price.errors = [*asked.price.errors, says]
    return render_template(
        "orders/new.html", asked=asked, facts=CUSTOMER_FACTS, known=picks.of("customer"), schemes=schemes
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
def show(key: int) -> str:
    """One order: the wish, the design made for it, its pieces, what comes next."""
    order = load(Order, key)
    page = asked_page(pieces.listed(order_id=key))
    design = db().get(Document, order.design_id) if order.design_id else None
    drawn = to_design(documents.content(db(), design)) if design else None
    picture = thumbnail(drawn, "order") if drawn else None
    return render_template(
        "orders/show.html",
        order=order,
        customer=load(Customer, order.customer_id),
        facts=CUSTOMER_FACTS,
        pieces=list(zip(page.rows, stands(page.rows), strict=True)),
        page=page,
        count=pieces.count_of(db(), key),
        source=drawn.source if drawn else None,
        statuses=STATUSES,
        design=design,
        picture=picture,
        designs=picks.of("body"),
        form=FORMS.get(order.form),
        scheme=db().get(Document, order.scheme_id) if order.scheme_id else None,
        water=db().get(ShopWater, order.water_id) if order.water_id else None,
    )


@blueprint.post("/<int:key>/<any(accept, reopen):way>")
def agree(key: int, way: str) -> ResponseReturnValue:
    """Accept an enquiry, or take that back."""
    order = load(Order, key)
    why = moulds.not_for_sale(db(), {"body_id": order.design_id}) if way == "accept" else ""
    if why:
        flash(
            f"{order.number} stays an enquiry: its shape is {why}. Ask whoever it is from, or take another"
            " shape."
        )
        return redirect(url_for("orders.show", key=key))
    order.accepted_at = now() if way == "accept" else None
    stands_of.order_anew(db(), order)
    return redirect(url_for("orders.show", key=key))


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
