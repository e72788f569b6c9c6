"""Customers and orders."""

from collections.abc import Mapping, Sequence

from sqlmodel import Session, col, func, select
from sqlmodel.sql.expression import Select, SelectOfScalar

from lamsik.core.errors import require
from lamsik.core.orders.customer_facts import checked
from lamsik.core.orders.status import ENQUIRY, QUOTE, REOPENS, may_be_said
from lamsik.store import stands
from lamsik.store.paging import MOST
from lamsik.store.search import fold, pattern
from lamsik.store.stands import DONE
from lamsik.store.tables import Customer, Document, Order, Payment, Piece, now
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


def place(session: Session, order: Order, customer: Customer) -> Order:
    """Keep a new order for a customer, with its number and what search finds it by; its scheme stays in the
    version of now.
    """
    order.customer_id = customer.id or 0
    scheme = session.get(Document, order.scheme_id) if order.scheme_id else None
    order.scheme_version = order.scheme_version or (scheme.current if scheme is not None else 0)
    order.search = fold(f"{order.number} {order.title} {customer.name}")
    session.add(order)
    stands.order_anew(session, order)
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
        setattr(order, last_said(order), None)
    else:
        setattr(order, SAID[way], now())
    stands.order_anew(session, order)


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


def for_design(session: Session, design_id: int | None, most: int = MOST) -> Sequence[tuple[Order, Customer]]:
    """The open orders a design is made for, with their customers, the nearest due first."""
    query = listed().where(Order.design_id == design_id, col(Order.queue) < DONE).limit(most)
    return session.exec(query).all() if design_id is not None else []


def in_scheme(session: Session, scheme_id: int, most: int = MOST) -> Sequence[Order]:
    """The orders in a scheme, open ones first."""
    query = select(Order).where(Order.scheme_id == scheme_id, col(Order.deleted_at).is_(None))
    return session.exec(query.order_by(col(Order.queue)).limit(most)).all()


def customers(text: str = "") -> SelectOfScalar[Customer]:
    """The question for customers by name; only those matching `text` if given."""
    query = select(Customer).where(col(Customer.deleted_at).is_(None))
    if text:
        query = query.where(col(Customer.search).like(pattern(text), escape="\\"))
    return query.order_by(Customer.search)


def waiting_for(session: Session, design_id: int) -> Order | None:
    """The order this design is made for that still lacks pieces, the nearest due first."""
    has_pieces = (
        select(func.count())
        .where(Piece.order_id == Order.id, col(Piece.deleted_at).is_(None))
        .correlate(Order)
        .scalar_subquery()
    )
    query = select(Order).where(
        Order.design_id == design_id,
        col(Order.queue) < DONE,
        col(Order.deleted_at).is_(None),
        Order.quantity > has_pieces,
    )
    return session.exec(query.order_by(col(Order.queue)).limit(1)).first()
