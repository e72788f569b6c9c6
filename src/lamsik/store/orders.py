"""Customers and orders."""

from collections.abc import Sequence
from datetime import date

from sqlmodel import Session, col, func, select

from lamsik.core.orders.status import status
from lamsik.store.search import fold, pattern
from lamsik.store.tables import Customer, Order, Piece


def customer_named(session: Session, name: str, contact: str = "") -> Customer:
    """The customer of that name (compared folded), made if new."""
    folded = fold(name)
    row = session.exec(select(Customer).where(Customer.search == folded)).first()
    if row is None:
        row = Customer(name=name.strip(), search=folded, contact=contact.strip())
    elif contact.strip():
        row.contact = contact.strip()
    session.add(row)
    session.flush()
    return row


def next_number(session: Session) -> str:
    """The next order number."""
    return f"A{session.exec(select(func.count()).select_from(Order)).one() + 1:04d}"


def place(session: Session, order: Order, customer: Customer) -> Order:
    """Keep a new order for a customer, with its number and what search finds it by."""
    order.customer_id = customer.id or 0
    order.search = fold(f"{order.number} {order.title} {customer.name}")
    session.add(order)
    session.flush()
    return order


def listed(session: Session, text: str = "") -> Sequence[tuple[Order, Customer]]:
    """Orders with their customers, the nearest due date first, undated last."""
    query = select(Order, Customer).join(Customer).where(col(Order.deleted_at).is_(None))
    if text:
        query = query.where(col(Order.search).like(pattern(text), escape="\\"))
    rows = session.exec(query).all()
    return sorted(rows, key=lambda row: (row[0].due_on or date.max, row[0].number))


def for_design(session: Session, design_id: int | None) -> Sequence[tuple[Order, Customer]]:
    """Orders a design is made for, with their customers."""
    query = select(Order, Customer).join(Customer).where(col(Order.deleted_at).is_(None), Order.design_id == design_id)
    return session.exec(query.order_by(Order.number)).all() if design_id is not None else []


def customers(session: Session, text: str = "") -> Sequence[Customer]:
    """Customers by name; only those matching `text` if given."""
    query = select(Customer)
    if text:
        query = query.where(col(Customer.search).like(pattern(text), escape="\\"))
    return session.exec(query.order_by(Customer.search)).all()


def waiting_for(session: Session, design_id: int) -> Order | None:
    """The order this design is made for that still lacks pieces, the nearest due first."""
    query = select(Order).where(Order.design_id == design_id, col(Order.deleted_at).is_(None))
    made = dict(
        session.exec(select(Piece.order_id, func.count()).where(col(Piece.order_id).is_not(None), col(Piece.deleted_at).is_(None)).group_by(col(Piece.order_id))).all()
    )
    lacking = [order for order in session.exec(query).all() if made.get(order.id, 0) < order.quantity]
    return min(lacking, key=lambda order: (order.due_on or date.max, order.number), default=None)


def status_of(order: Order, pieces: Sequence[str]) -> str:
    """Where the order stands, from how its pieces do."""
    return status(order.accepted_at is not None, order.quantity, pieces)
