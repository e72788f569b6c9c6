"""Customers and orders."""

from collections.abc import Mapping, Sequence

from sqlmodel import Session, col, func, select
from sqlmodel.sql.expression import Select, SelectOfScalar

from lamsik.core.errors import require
from lamsik.core.orders.customer_facts import checked
from lamsik.core.orders.status import ACCEPTS, ENQUIRY, QUOTE, QUOTES, REOPENS, may_be_said
from lamsik.store import order_lines, ready_stock, stands
from lamsik.store.search import fold, pattern
from lamsik.store.stands import DONE
from lamsik.store.tables import Customer, Order, OrderLine, Payment, now
from lamsik.store.words import holds


def customer_named(session: Session, name: str, facts: Mapping[str, str] | None = None) -> Customer:
    """The customer of that name (compared folded), made if new; what is said of them takes the place of what
    was known.
    """
    folded = fold(name)
    row = session.exec(select(Customer).where(Customer.search == folded)).first()
    while row is not None and row.merged_into_id is not None:
        row = session.get(Customer, row.merged_into_id)
    if row is not None and (row.deleted_at is not None or row.erased_at is not None):
        row = None
    if row is None:
        row = Customer(name=name.strip(), search=folded)
    said = checked(dict(facts or {}))
    if said:
        row.facts = {**row.facts, **said}
    session.add(row)
    session.flush()
    return row


def next_number(session: Session) -> str:
    """The next order number."""
    return f"A{session.exec(select(func.count()).select_from(Order)).one() + 1:04d}"


def place(session: Session, order: Order, customer: Customer, *lines: OrderLine) -> Order:
    """Keep a new order for a customer, with its lines and what search finds it by. Raises `Refused` for a
    line that cannot be.
    """
    order.customer_id = customer.id or 0
    session.add(order)
    session.flush()
    for line in lines:
        line.order_id = order.id or 0
        order_lines.keep(session, line)
    stands.order_anew(session, order)
    order.search = fold(f"{order.number} {order.title} {customer.name}")
    return order


SAID = {"quote": "quoted_at", "accept": "accepted_at", "decline": "declined_at", "cancel": "cancelled_at"}
"""What is said of an order, and where it is kept when."""
HOW = ("transfer", "cash", "card", "by mail", "other")
"""Ways money comes."""


def say(session: Session, order: Order, way: str) -> None:
    """Something is said of an order, by the core's ways; or the last that was said is taken back. Raises
    `Refused` where it cannot be said as the order stands.
    """
    may_be_said(way, stands.agreed(order, 0), order.stand)
    if way == REOPENS:
        last = last_said(order)
        setattr(order, last, None)
        if last == SAID[ACCEPTS]:
            order_lines.thaw(session, order)
    else:
        _may_be_said(session, order, way)
        setattr(order, SAID[way], now())
        if way == ACCEPTS:
            order_lines.freeze(session, order)
    session.add(order)
    session.flush()
    for row in stands.lines_of(session, order):
        ready_stock.settle_of(session, row.piece_id)
    stands.order_anew(session, order)


def _may_be_said(session: Session, order: Order, way: str) -> None:
    """Raises `Refused` where a line stands against it: one that is not for sale, or none at all."""
    if way in (QUOTES, ACCEPTS):
        rows = stands.lines_of(session, order)
        require(bool(rows), "order", order.number, "put a line on it first")
        for row in rows:
            order_lines.keep(session, row)
    if way == ACCEPTS:
        ready_stock.may_be_sold(session, order)


def last_said(order: Order) -> str:
    """Where that is kept what was said of an order last; empty where nothing was."""
    known = [(getattr(order, name), n, name) for n, name in enumerate(SAID.values()) if getattr(order, name)]
    return max(known)[-1] if known else ""


def pay(session: Session, order: Order, payment: Payment) -> Payment:
    """Money came for an order, or went back. Raises `Refused` for none, and for a way that is none."""
    require(payment.minor != 0, "sum", 0, "more than nothing, or less where it went back")
    require(payment.how in HOW, "how", payment.how, f"one of {', '.join(HOW)}")
    payment.order_id = order.id or 0
    session.add(payment)
    session.flush()
    stands.order_anew(session, order)
    return payment


def payments(session: Session, order: Order) -> Sequence[Payment]:
    """What was paid for an order, by day."""
    query = select(Payment).where(Payment.order_id == order.id)
    return session.exec(query.order_by(col(Payment.paid_on), col(Payment.id))).all()


def listed(text: str = "") -> Select[Order, Customer]:
    """The question for orders with their customers: open before shipped, the nearest due date first,
    undated last.
    """
    query = select(Order, Customer).join(Customer).where(col(Order.deleted_at).is_(None))
    if text:
        query = query.where(holds(Order, text))
    return query.order_by(col(Order.queue))


def promised(session: Session, most: int) -> Sequence[tuple[Order, Customer]]:
    """The first orders that are agreed and not shipped, the nearest due first."""
    open_ = listed().where(col(Order.queue) < DONE, col(Order.stand).not_in((ENQUIRY, QUOTE)))
    return session.exec(open_.limit(most)).all()


def enquiries(session: Session, most: int) -> Sequence[tuple[Order, Customer]]:
    """The first enquiries that wait for an answer."""
    return session.exec(listed().where(Order.stand == ENQUIRY).limit(most)).all()


def count_enquiries(session: Session) -> int:
    """How many enquiries wait for an answer."""
    return session.exec(
        select(func.count()).select_from(Order).where(Order.stand == ENQUIRY, col(Order.deleted_at).is_(None))
    ).one()


def customers(text: str = "") -> SelectOfScalar[Customer]:
    """The question for customers by name; only those matching `text` if given."""
    query = select(Customer).where(col(Customer.deleted_at).is_(None))
    if text:
        query = query.where(col(Customer.search).like(pattern(text), escape="\\"))
    return query.order_by(Customer.search)


def waiting_for(session: Session, design_id: int) -> Order | None:
    """The order this design is made for that still lacks pieces, the nearest due first."""
    line = order_lines.waiting_for(session, design_id)
    return session.get_one(Order, line.order_id) if line is not None else None
