"""A year of the shop: what went out, what it earned, what lies unfinished, what was never paid."""

from collections.abc import Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass
from datetime import date
from fractions import Fraction

from sqlalchemy import ColumnElement, Subquery
from sqlmodel import Session, col, func, select

from lamsik.core.errors import Refused
from lamsik.core.orders.lines import LineTerms
from lamsik.core.orders.status import CLOSED
from lamsik.core.orders.terms import less
from lamsik.core.stock.costs import whole
from lamsik.core.stock.year import Sale
from lamsik.store import costs, pieces, stands
from lamsik.store.paging import MOST
from lamsik.store.tables import Customer, Document, Order, OrderLine, Parcel, Payment, Piece, PieceStep

MOST_LINES, MOST_NAMED = 2000, 6
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


Sent = Sequence[tuple[OrderLine, Order, date]]
"""Lines that went out, each with its order and the day."""


def sales(session: Session, sent: Sent) -> list[Sale]:
    """What was sold, line by line; what one costs is reckoned once for all that is made alike."""
    named = {key for line, _, _ in sent for key in (line.design_id, line.scheme_id)}
    names = dict(
        session.exec(select(Document.id, Document.name).where(col(Document.id).in_(named - {None}))).all()
    )
    shop = costs.priced_stores(session)
    ways: dict[tuple[object, ...], costs.MadeSo] = {}
    known: dict[tuple[object, ...], costs.Costed | None] = {}
    told = []
    terms = {line.id or 0: stands.as_line(line) for line, _, _ in sent}
    paid = _less_discount(sent, {key: line.price_minor or 0 for key, line in terms.items()})
    for line, order, on in sent:
        key = line.id or 0
        alike = costs.alike(line)
        costed = *alike, line.quantity, line.per_set
        if costed not in known:
            known[costed] = None
            with suppress(Refused):
                ways[alike] = ways.get(alike) or costs.made_so(session, line)
                known[costed] = costs.of_line(session, line, shop, ways[alike])
        told.append(_sale(line, terms[key], order, on, names, known[costed], paid[key]))
    return told


def _less_discount(sent: Sent, prices: Mapping[int, int]) -> dict[int, int]:
    """What each line brought: its price, with its share of what was taken off its order's sum."""
    of_order: dict[int, list[OrderLine]] = {}
    orders = {order.id or 0: order for _, order, _ in sent}
    for line, _, _ in sent:
        of_order.setdefault(line.order_id, []).append(line)
    brought: dict[int, int] = {}
    for key, rows in of_order.items():
        if not stands.discount(orders[key]).is_any:
            brought |= {row.id or 0: prices[row.id or 0] for row in rows}
            continue
        agreed = [prices[row.id or 0] for row in rows]
        total = sum(agreed)
        left = less(total, stands.discount(orders[key])) or 0
        parts = whole([Fraction(price * left, total) if total else Fraction(0) for price in agreed])
        brought |= {row.id or 0: part for row, part in zip(rows, parts, strict=True)}
    return brought


def _sale(
    line: OrderLine,
    terms: LineTerms,
    order: Order,
    on: date,
    names: dict[int | None, str],
    costed: costs.Costed | None,
    minor: int,
) -> Sale:
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
    """What a customer still owes: how much in minor units, for how many orders, the first of them."""

    customer: Customer
    minor: int
    many: int
    orders: Sequence[Order]


def unpaid(session: Session) -> tuple[int, list[Unpaid]]:
    """What is agreed and not paid in full: the sum [minor units], and who owes most of it."""
    owed = _owed()
    of_customer = func.sum(owed.c.open)
    query = select(owed.c.customer_id, of_customer, func.count(), func.sum(of_customer).over())
    query = query.group_by(owed.c.customer_id).order_by(of_customer.desc(), owed.c.customer_id)
    rows = session.exec(query.limit(MOST)).all()
    owing = select(Customer).where(col(Customer.id).in_([key for key, *_ in rows]))
    customers = {row.id: row for row in session.exec(owing).all()}
    first = func.row_number().over(partition_by=owed.c.customer_id, order_by=owed.c.id)
    counted = select(owed.c.id, owed.c.customer_id, first.label("nth")).where(
        owed.c.customer_id.in_(customers)
    )
    named = counted.subquery()
    listed = select(Order).join(named, col(Order.id) == named.c.id).where(named.c.nth <= MOST_NAMED)
    orders: dict[int, list[Order]] = {}
    for order in session.exec(listed.order_by(col(Order.id))).all():
        orders.setdefault(order.customer_id or 0, []).append(order)
    told = [Unpaid(customers[key], minor, many, orders[key]) for key, minor, many, _ in rows]
    return rows[0][3] if rows else 0, sorted(told, key=lambda one: (-one.minor, one.customer.search))


def _owed() -> Subquery:
    """The orders that are open, each with how much of it: one that is closed is paid."""
    paid = (
        select(func.coalesce(func.sum(Payment.minor), 0))
        .where(Payment.order_id == Order.id)
        .correlate(Order)
        .scalar_subquery()
    )
    left = (col(Order.price_minor) + func.coalesce(Order.shipping_minor, 0) - paid).label("open")
    return (
        select(Order.id, Order.customer_id, left)
        .where(
            col(Order.accepted_at).is_not(None),
            col(Order.cancelled_at).is_(None),
            col(Order.declined_at).is_(None),
            col(Order.deleted_at).is_(None),
            col(Order.stand) != CLOSED,
            left > 0,
        )
        .subquery()
    )


def unfinished(session: Session) -> tuple[int, Sequence[Piece]]:
    """Bodies that are made and wait for paint, no coat of colour begun on them: how many, and the first."""
    is_coat = col(PieceStep.step).startswith(COAT, autoescape=True)
    waits = (*pieces.GOING, _ended(col(PieceStep.step) == BODY), ~_ended(is_coat))
    many = session.exec(select(func.count()).select_from(Piece).where(*waits)).one()
    return many, session.exec(select(Piece).where(*waits).order_by(col(Piece.id)).limit(MOST)).all()


def _ended(is_step: ColumnElement[bool]) -> ColumnElement[bool]:
    """Whether such a step of a piece is done or left out."""
    ended = col(PieceStep.piece_id) == Piece.id, col(PieceStep.done_at).is_not(None), is_step
    return select(PieceStep.id).where(*ended).correlate(Piece).exists()
