"""The lines of an order: put on, changed, taken off; the design of each; changes once it is agreed."""

from typing import Any

from flask import Blueprint, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused, require
from lamsik.core.materials import BODY_MATERIALS
from lamsik.core.money import Money, read
from lamsik.core.orders.lines import LINE_KINDS, PARTS, STOCK
from lamsik.core.quantities import plainly, said
from lamsik.core.shapes.design import Want
from lamsik.core.shapes.forms import FORMS, form
from lamsik.core.shapes.sources import DESCRIBED, OWN
from lamsik.core.trade.behaviours import BEHAVIOURS
from lamsik.documents.body.document import to_design
from lamsik.store import as_ordered, custody, documents, order_lines, ready_stock, stores
from lamsik.store import stands as stands_of
from lamsik.store.tables import (
    Customer,
    Document,
    Order,
    OrderChange,
    OrderLine,
    Piece,
    Revision,
    ShopWater,
    now,
)
from lamsik.web.bodies.begin import begin
from lamsik.web.orders.forms import ALL, EACH, LineForm, offer
from lamsik.web.orders.lists import shown_lines
from lamsik.web.shared import picks
from lamsik.web.shared.db import db, load, load_document, sent_id
from lamsik.web.shared.forms import typed_texts
from lamsik.web.shared.picks import Picks
from lamsik.words import refusals
from lamsik.words.orders import LINES

blueprint = Blueprint("orders_lines", __name__, url_prefix="/orders/<int:order_id>/line")


def _line(order_id: int, key: int) -> tuple[Order, OrderLine]:
    order, row = load(Order, order_id), load(OrderLine, key)
    if row.order_id != order.id:
        raise Refused("line", key, "a line of this order")
    return order, row


def offers(kind: str, order: Order, schemes: Picks, chosen: OrderLine | None = None) -> dict[str, Any]:
    """What the selects of a line offer."""
    rows: dict[str, Any] = {
        "form": [(f.key, f"{f.name} ({f.purpose})") for f in FORMS.values()],
        "material": [
            (name, f"{name}, about {said(m.density_g_cm3, 'density', 2)}")
            for name, m in BODY_MATERIALS.items()
        ],
        "scheme": [(0, "not chosen yet"), *schemes.rows],
        "behaviour": [(one.key, one.should) for one in BEHAVIOURS.values()],
        "water": [
            (0, "not said"),
            *(
                (row.id, f"{row.name}, {plainly(row.temperature_c, 'temperature')}")
                for row in stores.waters(db())
            ),
        ],
    }
    own = chosen.material if chosen is not None else ""
    if own and own not in BODY_MATERIALS:
        rows["material"].insert(0, (own, own))
    if LINE_KINDS[kind].is_theirs:
        theirs = db().exec(custody.of_customer(order.customer_id).limit(100)).all()
        rows["custody"] = [
            (0, "nothing of theirs came yet"),
            *((one.id, f"{one.number} {one.what}") for one in theirs),
        ]
    if LINE_KINDS[kind].of == "float":
        rows["design"] = [(0, "not chosen yet"), *picks.of("float", picks.sent("float", "design")).rows]
    if kind == STOCK:
        free = [(piece.id, f"{piece.number}, {design.name}") for piece, design in ready_stock.offered(db())]
        its = db().get(Piece, chosen.piece_id) if chosen is not None and chosen.piece_id else None
        rows["piece"] = [*([(its.id, its.number)] if its else []), *free]
    return rows


@blueprint.route("/new", methods=["GET", "POST"])
def new(order_id: int) -> ResponseReturnValue:
    """Put another line on an order."""
    order = load(Order, order_id)
    row = order_lines.begun(db(), order, request.args.get("kind", "made"))
    return _ask(order, row)


@blueprint.route("/<int:key>", methods=["GET", "POST"])
def show(order_id: int, key: int) -> ResponseReturnValue:
    """One line: what it says, to be put right; the design it is made from and its pieces."""
    return _ask(*_line(order_id, key))


def _ask(order: Order, row: OrderLine) -> ResponseReturnValue:
    kind, schemes = row.kind, picks.of("scheme", picks.sent("scheme", "scheme") or _chosen(row.scheme_id))
    asked = LineForm(data=_known(row, order))
    asked.of_kind(kind)
    offer(asked, offers(kind, order, schemes, row))
    if asked.validate_on_submit():
        try:
            with db().begin_nested():
                return _kept(order, row, _typed(asked, row, order))
        except Refused as refused:
            _beside(asked, refused)
    return render_template(
        "orders/line.html",
        order=order,
        customer=load(Customer, order.customer_id),
        line=row,
        asked=asked,
        called=LINES[kind],
        schemes=schemes,
        shown=shown_lines(order, [row], load(Customer, order.customer_id))[0] if row.id else None,
        designs=picks.of("body"),
        is_agreed=order.accepted_at is not None,
    ), (422 if asked.is_submitted() else 200)


def _chosen(scheme_id: int | None) -> tuple[str, str] | None:
    row = db().get(Document, scheme_id) if scheme_id else None
    return (str(row.id), f"{row.name} ({row.code})") if row is not None else None


def _known(row: OrderLine, order: Order) -> dict[str, Any]:
    """What a form begins with."""
    minor = row.lump_minor if row.rate_minor is None else row.rate_minor
    return {
        **{
            name: getattr(row, name)
            for name in ("quantity", "per_set", "form", "material", "clears", "behaviour")
        },
        "length": row.typed.get("length") or (plainly(row.length_mm, "length") if row.length_mm else "90 mm"),
        "pitch": row.typed.get("pitch") or plainly(row.pitch_deg, "angle"),
        "scheme": row.scheme_id or 0,
        "water": row.water_id or 0,
        "custody": row.custody_id or 0,
        "piece": row.piece_id,
        "design": row.design_id or 0,
        "old_paint": row.old_paint or None,
        "price": "" if minor is None else Money(minor, order.currency).said.split()[0],
        "per": ALL if row.lump_minor is not None else EACH,
        "note": row.note,
    }


def _typed(asked: LineForm, row: OrderLine, order: Order) -> dict[str, Any]:
    """The columns of a line as they were typed. Raises `Refused` for a price that cannot be read."""
    text, is_all = (asked.said("price", "") or "").strip(), asked.said("per", EACH) == ALL
    minor = read(text, order.currency).minor if text else None
    values: dict[str, Any] = {
        name: asked.said(name, getattr(row, name)) for name in ("form", "material", "behaviour", "old_paint")
    }
    return values | {
        "quantity": asked.said("quantity", row.quantity) or 1,
        "per_set": asked.said("per_set", row.per_set) or 1,
        "clears": asked.said("clears", row.clears),
        "length_mm": asked["length"].amount if "length" in asked else row.length_mm,
        "pitch_deg": (asked["pitch"].amount or 0.0) if "pitch" in asked else row.pitch_deg,
        "typed": typed_texts(asked),
        "scheme_id": asked.said("scheme", row.scheme_id) or None,
        "water_id": asked.said("water", row.water_id) or None,
        "custody_id": asked.said("custody", row.custody_id) or None,
        "piece_id": asked.said("piece", row.piece_id) or None,
        "design_id": asked.said("design", row.design_id) or None,
        "rate_minor": None if is_all else minor,
        "lump_minor": minor if is_all else None,
        "note": (asked.said("note", row.note) or "").strip(),
    }


def _kept(order: Order, row: OrderLine, values: dict[str, Any]) -> ResponseReturnValue:
    """Keep a line; of an order that is agreed, as a change that waits for the customer's yes."""
    back = url_for("orders.show", key=order.id, _anchor="lines")
    if order.accepted_at is not None and row.id is not None:
        _proposed(row, values)
        return redirect(url_for("orders.show", key=order.id, _anchor="changes"))
    was_piece = row.piece_id
    if values["scheme_id"] != row.scheme_id:
        row.scheme_version = 0
    for name, value in values.items():
        setattr(row, name, value)
    if order.accepted_at is not None:
        row.deleted_at = now()  # it comes on with the customer's yes
    order_lines.keep(db(), row)
    if row.deleted_at is not None:
        order_lines.change(db(), row, {"deleted_at": None})
    elif row.kind == STOCK:
        place = ready_stock.ask(db(), row)
        if was_piece != row.piece_id:
            ready_stock.settle_of(db(), was_piece)
        if place:
            flash(f"It is kept for someone else; {order.number} is number {place} after them.")
            return redirect(back)
    flash(
        f"{row.title} is on {order.number}."
        if row.deleted_at is None
        else f"{row.title} waits for their yes."
    )
    return redirect(back)


def _proposed(row: OrderLine, values: dict[str, Any]) -> None:
    columns = {name: value for name, value in values.items() if name != "typed"}
    if order_lines.change(db(), row, columns) is None:
        flash("Nothing is other than it was agreed.")


def _beside(asked: LineForm, refused: Refused) -> None:
    """What is wrong stands at its field, or at the first."""
    text = refusals.says(refused)
    name = {"scheme_id": "scheme", "lump_minor": "price"}.get(refused.field, refused.field)
    field = asked[name] if name in asked else next(iter(asked))
    field.errors = [*field.errors, text]


@blueprint.post("/<int:key>/off")
def off(order_id: int, key: int) -> ResponseReturnValue:
    """Take a line off an order; of one that is agreed with the customer's yes."""
    order, row = _line(order_id, key)
    if order.accepted_at is not None:
        require(
            row.kind == STOCK or not order_lines.made_of(db(), row),
            "line",
            row.title,
            "put its pieces away first",
        )
        order_lines.change(db(), row, {"deleted_at": now().isoformat()})
        return redirect(url_for("orders.show", key=order.id, _anchor="changes"))
    order_lines.take_off(db(), row)
    flash(f"{row.title} is off {order.number}.")
    return redirect(url_for("orders.show", key=order.id, _anchor="lines"))


@blueprint.post("/<int:key>/picked")
def picked(order_id: int, key: int) -> ResponseReturnValue:
    """Parts were taken from the shelf for an order, or put back."""
    order, row = _line(order_id, key)
    require(row.kind == PARTS, "line", row.title, "parts: a piece is ready by its route")
    row.picked_at = None if row.picked_at else now()
    db().add(row)
    stands_of.order_anew(db(), order)
    return redirect(url_for("orders.show", key=order.id, _anchor="lines"))


@blueprint.post("/<int:key>/design")
def design(order_id: int, key: int) -> ResponseReturnValue:
    """Begin the design that was asked for, or take one there is."""
    order, row = _line(order_id, key)
    back = redirect(url_for("orders.show", key=order.id))
    chosen = sent_id("design")
    if chosen:
        why = order_lines.why_not(db(), row, load_document("body", chosen).id)
        if why:
            flash(f"That shape does not go on {order.number}: it is {why}. Take another, or ask whose it is.")
            return back
        row.design_id = chosen
        taken = to_design(documents.content(db(), db().get_one(Document, chosen)))
        row.form, row.material = taken.form or row.form, taken.host.name
        order_lines.keep(db(), row)
        return back
    drawn = _drawn(row, load(Customer, order.customer_id))
    before = documents.content(db(), drawn)
    content = as_ordered.dressed(db(), before, row)
    if content["source"] == {"kind": OWN, "note": ""}:
        content = {**content, "source": {"kind": DESCRIBED, "note": order.number}}
    if content != before:
        documents.save(db(), drawn, content, drawn.current, "as it was ordered")
    row.design_id = drawn.id
    db().add(row)
    return redirect(url_for("shapes.edit", key=drawn.id))


def _drawn(row: OrderLine, customer: Customer) -> Document:
    """A new design from the wish: the form that was asked for, or the body it is like at another length."""
    name = f"{form(row.form).name} for {customer.name}"[:120]
    like = db().get(Document, row.like_id) if row.like_id else None
    if like is not None and row.length_mm is not None:
        content = as_ordered.at_length(db(), documents.content(db(), like), row.length_mm)
        return documents.begin(db(), "body", {**content, "name": f"{like.name}, {row.title}"[:120]})
    water = db().get(ShopWater, row.water_id) if row.water_id else None
    return begin(
        name,
        row.form,
        row.material,
        Want(row.behaviour, BEHAVIOURS[row.behaviour].speed_cm_s, row.pitch_deg),
        row.length_mm,
        stores.water_of(water) if water else None,
    )


@blueprint.post("/<int:key>/version")
def take_version(order_id: int, key: int) -> ResponseReturnValue:
    """The line takes its scheme as it is now; of an order that is agreed with the customer's yes."""
    order, row = _line(order_id, key)
    scheme = db().get(Document, row.scheme_id) if row.scheme_id else None
    if scheme is None:
        raise Refused("scheme", "", "choose a scheme for the line first")
    if order.accepted_at is not None:
        order_lines.change(db(), row, {"scheme_version": scheme.current})
        return redirect(url_for("orders.show", key=order.id, _anchor="changes"))
    row.scheme_version = scheme.current
    db().add(row)
    flash(
        f"{order.number} takes {scheme.name} in version {scheme.current}. Lay it on the body anew in Paint."
    )
    return redirect(url_for("orders.show", key=order.id))


@blueprint.post("/<int:key>/body")
def take_body(order_id: int, key: int) -> ResponseReturnValue:
    """The line takes its body as it is now; of an order that is agreed with the customer's yes."""
    order, row = _line(order_id, key)
    newer: Revision | None = order_lines.out_since(db(), row)
    if newer is None:
        raise Refused("revision", row.title, "a body that changed since it was agreed")
    order_lines.change(db(), row, {"revision_id": newer.id})
    return redirect(url_for("orders.show", key=order.id, _anchor="changes"))


@blueprint.post("/change/<int:key>/<any(yes, no):says>")
def answer(order_id: int, key: int, says: str) -> ResponseReturnValue:
    """The customer said yes or no to a change."""
    order, asked = load(Order, order_id), load(OrderChange, key)
    if asked.order_id != order.id:
        raise Refused("change", key, "a change of this order")
    try:
        with db().begin_nested():
            order_lines.answer(db(), asked, says, request.form.get("word", ""))
    except Refused as refused:
        flash(f"It stays as agreed: {refusals.says(refused)}")
    return redirect(url_for("orders.show", key=order.id, _anchor="changes"))


@blueprint.post("/<int:key>/fix")
def fix(order_id: int, key: int) -> ResponseReturnValue:
    """A design that was begun after the order was agreed stays from now on as it is."""
    order, row = _line(order_id, key)
    require(
        order.accepted_at is not None and row.revision_id is None,
        "line",
        row.title,
        "one that is agreed and not fixed",
    )
    order_lines.fix(db(), row)
    return redirect(url_for("orders.show", key=order.id, _anchor="lines"))
