"""One customer: what they ordered, what of theirs is here, what they wrote; doubles merged, one erased."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import String, cast
from sqlmodel import Session, and_, col, or_, select
from sqlmodel.sql.expression import SelectOfScalar

from lamsik.core.errors import Refused, require
from lamsik.core.orders.customer_facts import checked
from lamsik.core.orders.customers import alike, mail_of, merged, phone_of
from lamsik.core.orders.lines import DETAIL, PARTS
from lamsik.core.route.steps import SHIPPED
from lamsik.store import custody, stands
from lamsik.store.search import fold, pattern
from lamsik.store.stands import DONE
from lamsik.store.tables import (
    CustodyItem,
    Customer,
    CustomerWord,
    Document,
    LogEntry,
    Message,
    Order,
    OrderChange,
    OrderLine,
    Payment,
    Piece,
    now,
)

FORMAT, VERSION = "lamsik-customer", 1
MOST_DOUBLES, MOST_LOOKED = 5, 100
ERASED = "Customer {}"
"""What one is called of whom nothing is kept."""


def keep(session: Session, row: Customer, name: str, facts: dict[str, str]) -> None:
    """Another name, or other facts. Raises `Refused` naming the field: no name, one that another has, a fact
    that cannot be.
    """
    folded = fold(name)
    require(bool(folded), "name", name, "a name")
    taken = select(Customer).where(Customer.search == folded, Customer.id != row.id)
    other = session.exec(taken.where(col(Customer.deleted_at).is_(None))).first()
    require(other is None, "name", name, "another customer is called that: merge the two")
    row.facts = checked(facts)
    if name.strip() != row.name:
        row.name, row.search = name.strip(), folded
        _told_anew(session, row)
    session.add(row)
    session.flush()


def _told_anew(session: Session, row: Customer) -> None:
    """Search finds their orders, and what they lent, by the name they have now."""
    for item in session.exec(select(CustodyItem).where(CustodyItem.customer_id == row.id)).all():
        custody.named_anew(session, item)
    for order in session.exec(select(Order).where(Order.customer_id == row.id)).all():
        order.search = fold(f"{order.number} {order.title} {row.name}")
        session.add(order)


def ordered(key: int) -> SelectOfScalar[Order]:
    """The question for what they ordered, the newest first."""
    query = select(Order).where(Order.customer_id == key, col(Order.deleted_at).is_(None))
    return query.order_by(col(Order.id).desc())


def theirs_here(session: Session, key: int, most: int = 50) -> Sequence[Piece]:
    """Baits of their own that came to be painted anew and have not gone back."""
    return session.exec(
        select(Piece)
        .join(Order)
        .where(
            Order.customer_id == key,
            Piece.repaint != "",
            Piece.stand != SHIPPED,
            col(Piece.deleted_at).is_(None),
        )
        .limit(most)
    ).all()


def words(session: Session, key: int, most: int = 100) -> Sequence[CustomerWord]:
    """What they wrote, the newest first."""
    query = select(CustomerWord).where(CustomerWord.customer_id == key)
    return session.exec(query.order_by(col(CustomerWord.id).desc()).limit(most)).all()


def note_word(session: Session, row: Customer, text: str, order_id: int | None) -> CustomerWord:
    """Keep what they wrote. Raises `Refused` for nothing, for too much, for an order of someone else."""
    require(bool(text.strip()), "text", "", "what they wrote")
    require(len(text) <= 4000, "text", f"{len(text)} letters", "at most 4000 letters")
    order = session.get(Order, order_id) if order_id else None
    theirs = not order_id or (order is not None and order.customer_id == row.id)
    require(theirs, "order", order_id, "an order of theirs")
    word = CustomerWord(customer_id=row.id or 0, order_id=order_id or None, text=text.strip())
    session.add(word)
    session.flush()
    return word


def doubles(session: Session, row: Customer) -> list[tuple[Customer, str]]:
    """Others who may be the same one, and why: those with the same mail, the same last digits of a telephone
    or a word of their name that begins alike are asked.
    """
    facts = cast(col(Customer.facts), String)
    marks = [one for one in (mail_of(row.facts), phone_of(row.facts)[-4:]) if one]
    near = [
        *(facts.contains(mark, autoescape=True) for mark in marks),
        *(
            col(Customer.search).contains(word[:4], autoescape=True)
            for word in row.search.split()
            if word[1:]
        ),
    ]
    if not near:
        return []
    here = select(Customer).where(col(Customer.deleted_at).is_(None), Customer.id != row.id)
    rows = session.exec(here.where(or_(*near)).order_by(col(Customer.id).desc()).limit(MOST_LOOKED)).all()
    twins = [(one, why) for one in rows if (why := alike(row.name, row.facts, one.name, one.facts))]
    return twins[:MOST_DOUBLES]


def _letters(session: Session, row: Customer) -> Sequence[Message]:
    return session.exec(select(Message).where(Message.customer_id == row.id)).all()


def merge(session: Session, kept: Customer, double: Customer) -> None:
    """Two that are one: the orders and words of the double are the kept one's, with what was known of it.
    Raises `Refused` for one that is put away, and for one and the same.
    """
    require(kept.id != double.id, "customer", double.name, "another customer")
    for one in (kept, double):
        require(one.deleted_at is None, "customer", one.name, "a customer who is here")
    orders = session.exec(select(Order).where(Order.customer_id == double.id)).all()
    said = session.exec(select(CustomerWord).where(CustomerWord.customer_id == double.id)).all()
    sent = _letters(session, double)
    double.merged = {
        "letters": [one.id for one in sent],
        "orders": [one.id for one in orders],
        "words": [one.id for one in said],
        "lent": [
            one.id
            for one in session.exec(select(CustodyItem).where(CustodyItem.customer_id == double.id)).all()
        ],
        "facts": dict(kept.facts),
    }
    for item in session.exec(select(CustodyItem).where(CustodyItem.customer_id == double.id)).all():
        item.customer_id = kept.id or 0
        custody.named_anew(session, item)
    for order in orders:
        order.customer_id, order.search = kept.id or 0, fold(f"{order.number} {order.title} {kept.name}")
        session.add(order)
    for word in (*said, *sent):
        word.customer_id = kept.id or 0
        session.add(word)
    kept.facts = merged(kept.facts, double.facts)
    double.merged_into_id, double.deleted_at = kept.id, now()
    session.add_all((kept, double))
    session.flush()


def unmerge(session: Session, double: Customer) -> Customer:
    """They are two after all: each has again what it had; the one it was merged into. Raises `Refused` for
    one that was not merged, or whose other was erased since.
    """
    kept = session.get(Customer, double.merged_into_id) if double.merged_into_id else None
    if kept is None or kept.erased_at is not None:
        raise Refused("customer", double.name, "one that was merged")
    for order in session.exec(select(Order).where(col(Order.id).in_(double.merged.get("orders", [])))).all():
        order.customer_id = double.id or 0
        order.search = fold(f"{order.number} {order.title} {double.name}")
        session.add(order)
    for item in session.exec(
        select(CustodyItem).where(col(CustodyItem.id).in_(double.merged.get("lent", [])))
    ).all():
        item.customer_id = double.id or 0
        custody.named_anew(session, item)
    ids = double.merged.get("words", [])
    for word in session.exec(select(CustomerWord).where(col(CustomerWord.id).in_(ids))).all():
        word.customer_id = double.id or 0
        session.add(word)
    sent = double.merged.get("letters", [])
    for letter in session.exec(select(Message).where(col(Message.id).in_(sent))).all():
        letter.customer_id = double.id or 0
        session.add(letter)
    if kept.facts == merged(double.merged.get("facts", {}), double.facts):
        kept.facts = double.merged.get("facts", {})
    double.merged_into_id, double.deleted_at, double.merged = None, None, {}
    session.add_all((kept, double))
    session.flush()
    return kept


@dataclass(frozen=True)
class Erasing:
    """What stands against erasing a customer, and what it leaves: orders that are open, designs whose name
    holds theirs.
    """

    open_orders: tuple[Order, ...]
    named: tuple[Document, ...]


def erasing(session: Session, row: Customer) -> Erasing:
    """What is to be known before a customer is erased."""
    going = ordered(row.id or 0).where(col(Order.queue) < DONE).limit(20)
    named = select(Document).where(
        col(Document.search).like(pattern(row.name), escape="\\"), col(Document.deleted_at).is_(None)
    )
    return Erasing(tuple(session.exec(going).all()), tuple(session.exec(named.limit(20)).all()))


def erase(session: Session, row: Customer) -> None:
    """Their name and all that is known of them leave, the log among it; the orders' figures stay. It is not
    undone. Raises `Refused` while an order is open.
    """
    open_orders = erasing(session, row).open_orders
    require(not open_orders, "customer", row.name, "ship or delete what they ordered first")
    lent = session.exec(custody.of_customer(row.id or 0)).first()
    require(lent is None, "customer", row.name, "give back what of theirs is here first")
    doubles_of = session.exec(select(Customer).where(Customer.merged_into_id == row.id)).all()
    for one in (row, *doubles_of):
        for word in (*words(session, one.id or 0, 10_000), *_letters(session, one)):
            session.delete(word)
        one.name = ERASED.format(one.id)
        one.search, one.facts, one.merged, one.erased_at = fold(one.name), {}, {}, now()
        session.add(one)
    _told_anew(session, row)
    for order in session.exec(select(Order).where(Order.customer_id == row.id)).all():
        order.note = order.discount_why = ""
        session.add(order)
        for line in session.exec(select(OrderLine).where(OrderLine.order_id == order.id)).all():
            line.note = line.note if line.kind in (DETAIL, PARTS) else ""
            session.add(line)
        for change in session.exec(select(OrderChange).where(OrderChange.order_id == order.id)).all():
            change.word = ""
            session.add(change)
        for payment in session.exec(select(Payment).where(Payment.order_id == order.id)).all():
            payment.note = ""
            session.add(payment)
    session.flush()
    _scrub(session, [one.id or 0 for one in (row, *doubles_of)], row)


PERSONAL = ("name", "facts", "text", "note", "merged", "written_off")
"""What the log keeps that says who someone is."""


def _scrub(session: Session, keys: list[int], row: Customer) -> None:
    """What the log says of them and of what they ordered is without their name from now on."""
    orders = session.exec(select(Order.id).where(Order.customer_id == row.id)).all()
    theirs = and_(col(LogEntry.of) == "customer", col(LogEntry.of_id).in_(keys))
    ordered_by = and_(col(LogEntry.of) == "order", col(LogEntry.of_id).in_(orders))
    about = session.exec(select(LogEntry).where(or_(theirs, ordered_by))).all()
    for entry in about:
        entry.before, entry.after = _plain(entry.of, entry.before), _plain(entry.of, entry.after)
        session.add(entry)
    session.flush()


def _plain(of: str, values: dict[str, Any] | None) -> dict[str, Any] | None:
    if values is None:
        return None
    personal = PERSONAL if of == "customer" else ("note", "word", "discount_why")
    empty: dict[str, Any] = {"facts": {}, "merged": {}}
    return {name: empty.get(name, "") if name in personal else value for name, value in values.items()}


def exported(session: Session, row: Customer) -> dict[str, Any]:
    """All that is kept of a customer, as it goes out."""
    orders = session.exec(ordered(row.id or 0)).all()
    numbers = {one.id: one.number for one in orders}
    pieces = session.exec(select(Piece).where(col(Piece.order_id).in_(numbers))).all()
    payments = session.exec(select(Payment).where(col(Payment.order_id).in_(numbers))).all()
    return {
        "format": FORMAT,
        "version": VERSION,
        "name": row.name,
        **checked(row.facts),
        "orders": [
            {
                "number": one.number,
                "what": one.title,
                "quantity": one.quantity,
                "placed_at": one.placed_at.isoformat(),
                "due_on": one.due_on.isoformat() if one.due_on else None,
                "price_minor": one.price_minor,
                "currency": one.currency,
                "stands_at": one.stand,
                "note": one.note,
                "discount_percent": one.discount_percent,
                "discount_minor": one.discount_minor,
                "discount_why": one.discount_why,
                "lines": [
                    {"what": line.title, "quantity": line.quantity, "kind": line.kind, "note": line.note}
                    for line in stands.lines_of(session, one)
                ],
                "pieces": [piece.number for piece in pieces if piece.order_id == one.id],
                "paid": [
                    {"on": paid.paid_on.isoformat(), "minor": paid.minor, "how": paid.how, "note": paid.note}
                    for paid in payments
                    if paid.order_id == one.id
                ],
            }
            for one in orders
        ],
        "lent": [
            {
                "number": one.number,
                "kind": one.kind,
                "what": one.what,
                "received_on": one.received_on.isoformat(),
                "returned_on": one.returned_on.isoformat() if one.returned_on else None,
            }
            for one in session.exec(select(CustodyItem).where(CustodyItem.customer_id == row.id)).all()
        ],
        "letters": [
            {
                "at": one.at.isoformat(),
                "order": numbers.get(one.order_id),
                "from_them": one.state == "came",
                "subject": one.subject,
                "text": one.text,
            }
            for one in _letters(session, row)
        ],
        "wrote": [
            {"at": one.at.isoformat(), "order": numbers.get(one.order_id), "text": one.text}
            for one in words(session, row.id or 0, 10_000)
        ],
    }
