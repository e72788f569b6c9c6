"""The custody register: what customers lent, received, bagged, refitted, given back."""

from collections.abc import Sequence
from dataclasses import asdict
from datetime import date

from sqlmodel import Session, col, func, select
from sqlmodel.sql.expression import Select, SelectOfScalar

from lamsik.core.errors import require
from lamsik.core.orders.custody import GENUINE, KINDS, BagRow, checked, may_go_back
from lamsik.store import stands
from lamsik.store.search import fold, pattern
from lamsik.store.stands import HERE
from lamsik.store.tables import CustodyItem, Customer, Order

TEXTS = {"what": 200, "condition": 1000, "genuine_by": 120, "eyes": 120, "electronics": 300, "place": 120}
"""What is written of an item, and its most letters."""


def listed(text: str = "", gone: bool = False) -> Select[CustodyItem, Customer]:
    """The question for what is here, what is due back first; or for what went back, the newest first."""
    query = select(CustodyItem, Customer).join(Customer)
    if text:
        query = query.where(col(CustodyItem.search).like(pattern(text), escape="\\"))
    if gone:
        return query.where(~(HERE[0] & HERE[1])).order_by(col(CustodyItem.id).desc())
    return query.where(*HERE).order_by(col(CustodyItem.due_back_on).is_(None), col(CustodyItem.due_back_on))


def of_customer(key: int) -> SelectOfScalar[CustodyItem]:
    """The question for what of a customer's is here."""
    return select(CustodyItem).where(CustodyItem.customer_id == key, *HERE).order_by(col(CustodyItem.id))


def of_order(session: Session, key: int) -> Sequence[CustodyItem]:
    """All that came for an order, what went back too."""
    query = select(CustodyItem).where(CustodyItem.order_id == key)
    return session.exec(query.order_by(col(CustodyItem.id)).limit(50)).all()


def receive(session: Session, item: CustodyItem) -> CustodyItem:
    """Something came: it gets its number. Raises `Refused` naming the field."""
    count = session.exec(select(func.count()).select_from(CustodyItem)).one()
    item.number = f"K{count + 1:04d}"
    return keep(session, item)


def keep(session: Session, item: CustodyItem) -> CustodyItem:
    """What is known of an item, if it can be; its order follows. Raises `Refused` naming the field."""
    require(item.kind in KINDS, "kind", item.kind, f"one of {', '.join(KINDS)}")
    require(item.genuine in GENUINE, "genuine", item.genuine, "genuine, in doubt, not genuine, or nothing")
    require(bool(item.what.strip()), "what", item.what, "what it is, as its owner calls it")
    for name, most in TEXTS.items():
        text = getattr(item, name)
        require(len(text) <= most, name, f"{len(text)} letters", f"at most {most} letters")
    require(
        not item.genuine or bool(item.genuine_by.strip()),
        "genuine_by",
        "",
        "name whoever said so",
    )
    weight = item.weight_g
    require(weight is None or weight > 0, "weight", weight, "more than nothing")
    order = session.get(Order, item.order_id) if item.order_id else None
    theirs = item.order_id is None or (order is not None and order.customer_id == item.customer_id)
    require(theirs, "order", item.order_id, "an order of whoever it belongs to")
    due = item.due_back_on
    require(
        due is None or due >= item.received_on,
        "due_back_on",
        f"{due:%d %b %Y}" if due else "",
        "after it came",
    )
    named_anew(session, item)
    session.flush()
    _order_anew(session, item)
    return item


def named_anew(session: Session, item: CustodyItem) -> None:
    """It is found by its number, what it is, where it lies, and whoever it belongs to as they are called."""
    customer = session.get_one(Customer, item.customer_id)
    item.search = fold(f"{item.number} {item.kind} {item.what} {customer.name} {item.place}")
    session.add(item)


def _order_anew(session: Session, item: CustodyItem) -> None:
    if item.order_id is not None:
        stands.order_anew(session, session.get_one(Order, item.order_id))


def bag(item: CustodyItem) -> tuple[BagRow, ...]:
    """What was taken off it."""
    return tuple(BagRow(**row) for row in item.bag)


def put_in_bag(session: Session, item: CustodyItem, rows: Sequence[BagRow]) -> None:
    """The bag as it is now. Raises `Refused` for what cannot be, and once it went back."""
    _is_here(item)
    item.bag = [asdict(row) for row in checked(rows)]
    session.add(item)
    session.flush()


def give_back(session: Session, item: CustodyItem, on: date) -> None:
    """It goes back. Raises `Refused` while its bag is not matched."""
    _is_here(item)
    may_go_back(bag(item))
    item.returned_on = on
    session.add(item)
    session.flush()
    _order_anew(session, item)


def write_off(session: Session, item: CustodyItem, word: str) -> None:
    """It does not go back, with its owner's word for that. Raises `Refused` without one."""
    _is_here(item)
    require(bool(word.strip()), "word", "", "what its owner said, and when")
    item.written_off = word.strip()[:500]
    session.add(item)
    session.flush()
    _order_anew(session, item)


def take_back(session: Session, item: CustodyItem) -> None:
    """It is here after all."""
    item.returned_on, item.written_off = None, ""
    session.add(item)
    session.flush()
    _order_anew(session, item)


def _is_here(item: CustodyItem) -> None:
    is_here = item.returned_on is None and not item.written_off
    require(is_here, "item", item.number, "it is not here any more: take that back first")
