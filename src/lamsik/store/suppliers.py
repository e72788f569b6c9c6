"""Suppliers: how long they take by their deliveries, what only they have, what went wrong."""

from collections.abc import Sequence
from typing import Any

from sqlmodel import Session, col, func, select

from lamsik.core.errors import Refused, require
from lamsik.core.learning import Learned
from lamsik.core.stock.ledger import BOUGHT
from lamsik.core.stock.suppliers import lead_days
from lamsik.store.ledger import COUNTS
from lamsik.store.search import fold, pattern
from lamsik.store.tables import Incident, Movement, StandIn, StockItem, Supplier

MOST = 60
"""So many deliveries, the newest, say how long a supplier takes."""


def listed(text: str = "") -> Any:
    """The question for suppliers by name."""
    query = select(Supplier).where(col(Supplier.deleted_at).is_(None))
    if text:
        query = query.where(col(Supplier.search).like(pattern(text), escape="\\"))
    return query.order_by(Supplier.search, col(Supplier.id))


def named(session: Session, row: Supplier) -> Supplier:
    """A supplier as it is kept. Raises `Refused` for one without a name, or named like another."""
    require(bool(row.name), "name", "", "whom it is from, by name")
    same = select(Supplier).where(func.lower(Supplier.name) == row.name.lower(), Supplier.id != row.id)
    with session.no_autoflush:
        if session.exec(same).first() is not None:
            raise Refused("name", row.name, "a name that no other supplier has")
    if row.lead_days is not None:
        require(0 <= row.lead_days <= 1000, "lead", row.lead_days, "0 to 1000 days")
    row.search = fold(f"{row.name} {row.reach}")
    session.add(row)
    session.flush()
    return row


def deliveries(session: Session, row: Supplier) -> Sequence[tuple[Movement, StockItem]]:
    """What came from a supplier, the newest first."""
    query = (
        select(Movement, StockItem)
        .join(StockItem, col(StockItem.id) == Movement.item_id)
        .where(Movement.supplier_id == row.id, Movement.why == BOUGHT, COUNTS)
    )
    return session.exec(query.order_by(col(Movement.at).desc(), col(Movement.id).desc()).limit(MOST)).all()


def lead_time(session: Session, row: Supplier) -> Learned:
    """How long a supplier takes [d]: what deliveries taught, from what they say."""
    query = select(Movement).where(
        Movement.supplier_id == row.id,
        Movement.why == BOUGHT,
        col(Movement.ordered_on).is_not(None),
        COUNTS,
    )
    pairs = session.exec(query.order_by(col(Movement.at).desc()).limit(MOST)).all()
    return lead_days([(one.ordered_on, one.at.date()) for one in pairs if one.ordered_on], row.lead_days)


def only_theirs(session: Session, row: Supplier) -> Sequence[StockItem]:
    """What is from them alone: no other supplier ever sent it, and nothing stands in for it."""
    from_others = select(Movement.item_id).where(
        Movement.why == BOUGHT, COUNTS, col(Movement.supplier_id).is_not(None), Movement.supplier_id != row.id
    )
    query = select(StockItem).where(
        StockItem.supplier_id == row.id,
        col(StockItem.deleted_at).is_(None),
        col(StockItem.id).not_in(from_others),
        col(StockItem.id).not_in(select(StandIn.item_id)),
        col(StockItem.id).not_in(select(StandIn.other_id)),
    )
    return session.exec(query.order_by(StockItem.search).limit(MOST)).all()


def incidents(session: Session, row: Supplier) -> Sequence[Incident]:
    """What went wrong with what they sent, the newest first."""
    query = select(Incident).where(Incident.supplier_id == row.id)
    return session.exec(query.order_by(col(Incident.id).desc()).limit(MOST)).all()


def of_name(session: Session, name: str) -> Supplier:
    """The supplier of this name, a new one where there is none yet."""
    same = select(Supplier).where(func.lower(Supplier.name) == name.lower())
    return session.exec(same).first() or named(session, Supplier(name=" ".join(name.split())[:120]))
