"""What orders that are due before one still take of what it needs: asked of the database in sums, for a page
that shows one order alone.
"""

from collections.abc import Collection
from dataclasses import replace

from sqlalchemy import ColumnElement, literal
from sqlmodel import Session, case, col, func, select

from lamsik.core.orders.lines import FLOATS, MADE
from lamsik.core.route.steps import SHIPPED
from lamsik.core.stock.needs import CALLED
from lamsik.store import documents, ledger, needs, stands
from lamsik.store.claims import Claimed, Left, PiecesAlike, ended_steps, pieces_alike
from lamsik.store.needs import Resolved
from lamsik.store.reserved import Reserved, open_lines, reserved, stood
from lamsik.store.stands import DONE
from lamsik.store.tables import Order, OrderLine, Piece

Keys = Collection[tuple[str, str]]
"""What designs name: what it is of, and its key there."""


def taken(session: Session, order: Order, keys: Keys, items: Resolved) -> dict[int, float]:
    """By item: what the agreed lines that are due before an order still take.

    Args:
        session: of the shop.
        order: whose turn it is.
        keys: what its own lines name.
        items: which item each thing is.

    Notes: by the revision that was agreed, what stands in for something not looked at.
    """
    begun = (
        select(func.count())
        .where(Piece.line_id == OrderLine.id, col(Piece.deleted_at).is_(None))
        .correlate(OrderLine)
        .scalar_subquery()
    )
    wanted = OrderLine.quantity * case((col(OrderLine.kind) == FLOATS, OrderLine.per_set), else_=1)
    drawn = func.coalesce(OrderLine.design_id, OrderLine.like_id, 0)
    more = session.exec(
        select(col(OrderLine.revision_id), drawn, func.sum(func.max(wanted - begun, 0)))
        .join(Order)
        .where(*_before(order))
        .group_by(col(OrderLine.revision_id), drawn)
    ).all()
    current = documents.current_ids(session, {of for agreed, of, _ in more if not agreed})
    going = (
        select(literal(0), Piece.revision_id, ended_steps())
        .join(OrderLine, col(OrderLine.id) == Piece.line_id)
        .join(Order, col(Order.id) == OrderLine.order_id)
        .where(col(Piece.stand) != SHIPPED, col(Piece.deleted_at).is_(None), *_before(order))
    )
    pieces = [one for _, one in pieces_alike(session, going)]
    pieces += [PiecesAlike(agreed or current.get(of, 0), int(many), frozenset()) for agreed, of, many in more]
    known = needs.known(session, {one.revision for one in pieces}, keys)
    left, claimed = Left(known, 1), Claimed(session, items)
    left.add(0, *pieces)
    claimed.needed(known, left)
    claimed.beside(left)
    return {item: float(amounts[0]) for item, amounts in claimed.by_item.items()}


def _before(order: Order) -> tuple[ColumnElement[bool], ...]:
    return (
        col(Order.accepted_at).is_not(None),
        col(Order.queue) < order.queue,
        col(Order.deleted_at).is_(None),
        col(OrderLine.deleted_at).is_(None),
        col(OrderLine.kind).in_((MADE, FLOATS)),
    )


def missing_for(session: Session, order: Order) -> list[tuple[str, str]]:
    """What there is not enough of for an agreed order, after what those that are due before it take: its
    lines, each with the item it waits for.
    """
    if order.accepted_at is None or not str(order.queue) < DONE:
        return []
    titles = {row.id or 0: row.title for row in stands.lines_of(session, order)}
    items = needs.resolved(session)
    told = reserved(session, open_lines(session, titles), items)
    before = taken(session, order, _named(told, items), items)
    short = [
        (key, line)
        for key, stand in stood(session, told.claims, list(told.claims)).items()
        if stand.is_known
        for line in replace(stand, held=stand.held - before.get(key, 0.0)).stops
    ]
    names = {row.id: row.name for row in ledger.items(session, [key for key, _ in short])}
    return [(titles[line], names[key]) for key, line in short]


def _named(told: Reserved, items: Resolved) -> list[tuple[str, str]]:
    """What designs call the items that are claimed."""
    by_name = [(CALLED, name) for (name, _), row in items.by_name.items() if (row.id or 0) in told.claims]
    return [key for key, row in items.by_key.items() if (row.id or 0) in told.claims] + by_name
