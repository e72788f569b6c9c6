"""A year of the shop: what went out, what it earned, what lies unfinished, what was never paid."""

from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass
from datetime import date
from fractions import Fraction

from sqlmodel import Session, col, func, select

from lamsik.core.errors import Refused
from lamsik.core.orders.terms import less
from lamsik.core.stock.costs import whole
from lamsik.core.stock.year import Sale
from lamsik.store import costs, pieces, routes, stands
from lamsik.store.tables import Customer, Document, Order, OrderLine, Parcel, Payment, Piece, PieceStep

MOST_LINES, MOST_PIECES = 2000, 2000
BODY, COAT, SHIP = "carve", "coat:", "ship"


def sent_in(session: Session, year: int) -> list[tuple[OrderLine, Order, date]]:
    """The lines of orders that went out whole in a year, with the day of the last parcel or step."""
    last = (
        select(func.max(Parcel.sent_on)).where(Parcel.order_id == Order.id).correlate(Order).scalar_subquery()
    )
    shipped = (
        select(func.max(PieceStep.done_at))
        .join(Piece)
        .where(Piece.order_id == Order.id, PieceStep.step == SHIP)
        .correlate(Order)
        .scalar_subquery()
    )
    day = func.coalesce(last, func.date(shipped), Order.due_on, func.date(Order.placed_at))
    query = (
        select(OrderLine, Order, day)
        .join(Order)
        .where(
            col(Order.stand).in_(("shipped", "closed")),
            col(Order.deleted_at).is_(None),
            col(OrderLine.deleted_at).is_(None),
            func.substr(day, 1, 4) == str(year),
        )
        .order_by(col(Order.id).desc())
        .limit(MOST_LINES)
    )
    return list(session.exec(query).all())


def sales(session: Session, year: int) -> list[Sale]:
    """What was sold in a year, line by line; what one costs is reckoned once for all that is made alike."""
    sent = sent_in(session, year)
    named = {key for line, _, _ in sent for key in (line.design_id, line.scheme_id)}
    names = dict(
        session.exec(select(Document.id, Document.name).where(col(Document.id).in_(named - {None}))).all()
    )
    shop = costs.priced_stores(session)
    known: dict[tuple[object, ...], costs.Costed | None] = {}
    told = []
    paid = _less_discount(sent)
    for line, order, on in sent:
        key = (line.revision_id or line.design_id, line.scheme_id, line.kind, line.quantity)
        if key not in known:
            known[key] = None
            with suppress(Refused):
                known[key] = costs.of_line(session, line, shop)
        told.append(_sale(line, order, on, names, known[key], paid[line.id or 0]))
    return told


def _less_discount(sent: Sequence[tuple[OrderLine, Order, date]]) -> dict[int, int]:
    """What each line brought: its price, with its share of what was taken off its order's sum."""
    of_order: dict[int, list[OrderLine]] = {}
    orders = {order.id or 0: order for _, order, _ in sent}
    for line, _, _ in sent:
        of_order.setdefault(line.order_id, []).append(line)
    brought: dict[int, int] = {}
    for key, rows in of_order.items():
        prices = [stands.as_line(row).price_minor or 0 for row in rows]
        total = sum(prices)
        left = less(total, stands.discount(orders[key])) or 0
        parts = whole([Fraction(price * left, total) if total else Fraction(0) for price in prices])
        brought |= {row.id or 0: part for row, part in zip(rows, parts, strict=True)}
    return brought


def _sale(
    line: OrderLine,
    order: Order,
    on: date,
    names: dict[int | None, str],
    costed: costs.Costed | None,
    minor: int,
) -> Sale:
    terms = stands.as_line(line)
    costing = costed.costing if costed is not None else None
    left, hours = Fraction(minor), 0.0
    if costing is not None:
        each = costing.beside + costing.terms.fee_minor + costing.terms.duty_minor
        left = costing.terms.kept * minor - each * terms.wanted
        hours = costing.hours * terms.wanted
    body = names.get(line.design_id, "") or line.title
    return Sale(
        on, order.number, body, names.get(line.scheme_id, ""), line.kind, terms.wanted, minor, left, hours
    )


@dataclass(frozen=True)
class Unpaid:
    """What an order still owes: the order, its customer, how much in minor units."""

    order: Order
    customer: Customer
    minor: int


def unpaid(session: Session) -> list[Unpaid]:
    """Orders that are agreed and not paid in full, by customer."""
    paid = (
        select(func.coalesce(func.sum(Payment.minor), 0))
        .where(Payment.order_id == Order.id)
        .correlate(Order)
        .scalar_subquery()
    )
    total = col(Order.price_minor) + func.coalesce(Order.shipping_minor, 0)
    query = (
        select(Order, Customer, (total - paid).label("open"))
        .join(Customer)
        .where(
            col(Order.accepted_at).is_not(None),
            col(Order.cancelled_at).is_(None),
            col(Order.declined_at).is_(None),
            col(Order.deleted_at).is_(None),
            total - paid > 0,
        )
        .order_by(Customer.search, col(Order.id))
        .limit(MOST_LINES)
    )
    return [Unpaid(order, customer, left or 0) for order, customer, left in session.exec(query).all()]


def unfinished(session: Session) -> Sequence[Piece]:
    """Bodies that are made and wait for paint: no coat of colour is begun on them."""
    going = session.exec(select(Piece).where(*pieces.GOING).order_by(col(Piece.id)).limit(MOST_PIECES)).all()
    ended = routes.ended(session, going)
    return [
        piece
        for piece in going
        if BODY in ended[piece.id or 0] and not any(step.startswith(COAT) for step in ended[piece.id or 0])
    ]
