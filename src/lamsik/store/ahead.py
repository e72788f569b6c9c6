"""What orders that are due before one still take of what it needs: asked of the database in sums, for a page
that shows one order alone.
"""

from collections.abc import Collection
from dataclasses import replace

from sqlalchemy import ColumnElement, tuple_
from sqlmodel import Session, case, col, func, select

from lamsik.core.orders.lines import FLOATS, MADE
from lamsik.core.route.steps import SHIPPED
from lamsik.core.stock.needs import CALLED, PACK
from lamsik.store import ledger, needs, stands
from lamsik.store.needs import Resolved
from lamsik.store.reserved import Losses, Reserved, open_lines, reserved, stood
from lamsik.store.stands import DONE
from lamsik.store.tables import Document, Order, OrderLine, Piece, PieceNeed, PieceStep, Revision

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
    loss = Losses(session)
    wanted = OrderLine.quantity * case((col(OrderLine.kind) == FLOATS, OrderLine.per_set), else_=1)
    left = func.max(wanted - _ended(PieceNeed.step), 0)
    sums = PieceNeed.of, PieceNeed.key, PieceNeed.unit, func.sum(PieceNeed.amount * left), func.sum(left)
    query = (
        select(*sums)  # type: ignore[call-overload]
        .join(OrderLine, col(PieceNeed.revision_id) == _revision())
        .join(Order, col(Order.id) == OrderLine.order_id)
        .where(*_before(order), tuple_(col(PieceNeed.of), col(PieceNeed.key)).in_(list(keys)))
        .group_by(col(PieceNeed.of), col(PieceNeed.key), col(PieceNeed.unit))
    )
    told: dict[int, float] = {}
    for of, key, unit, much, many in session.exec(query).all():
        item = items.of(PieceNeed(revision_id=0, of=of, key=key, unit=unit))
        if item is not None:
            amount = float(much if item.unit == unit else many) * (1.0 + loss.of(item, unit))
            told[item.id or 0] = told.get(item.id or 0, 0.0) + amount
    packed = select(func.sum(func.max(wanted - _ended(PACK), 0))).join(Order).where(*_before(order))
    pieces = float(session.exec(packed).one() or 0)
    for item in items.by_id.values():
        if item.each_piece > 0:
            told[item.id or 0] = told.get(item.id or 0, 0.0) + item.each_piece * pieces
    return told


def _before(order: Order) -> tuple[ColumnElement[bool], ...]:
    return (
        col(Order.accepted_at).is_not(None),
        col(Order.queue) < order.queue,
        col(Order.deleted_at).is_(None),
        col(OrderLine.deleted_at).is_(None),
        col(OrderLine.kind).in_((MADE, FLOATS)),
    )


def _revision() -> ColumnElement[int]:
    """What a line is made from: as it was agreed, else as it is drawn now."""
    is_current = (col(Revision.document_id) == Document.id) & (col(Revision.number) == Document.current)
    drawn = (
        select(Revision.id)
        .join(Document, is_current)
        .where(col(Document.id) == func.coalesce(OrderLine.design_id, OrderLine.like_id))
        .correlate(OrderLine)
        .scalar_subquery()
    )
    return func.coalesce(OrderLine.revision_id, drawn)


def _ended(step: ColumnElement[str] | str) -> ColumnElement[int]:
    """On how many pieces of a line a step is done or left out; of what is shipped on all."""
    done = (
        (col(PieceStep.piece_id) == Piece.id)
        & col(PieceStep.done_at).is_not(None)
        & (col(PieceStep.step) == step)
    )
    return (
        select(func.count())
        .select_from(Piece)
        .join(PieceStep, done, isouter=True)
        .where(
            col(Piece.line_id) == OrderLine.id,
            col(Piece.deleted_at).is_(None),
            (col(Piece.stand) == SHIPPED) | col(PieceStep.id).is_not(None),
        )
        .correlate(OrderLine, PieceNeed)
        .scalar_subquery()
    )


def missing_for(session: Session, order: Order) -> list[tuple[str, str]]:
    """What there is not enough of for an agreed order, after what those that are due before it take: its
    lines, each with the item it waits for.
    """
    if order.accepted_at is None or not str(order.queue) < DONE:
        return []
    ids = [row.id or 0 for row in stands.lines_of(session, order)]
    items = needs.resolved(session)
    told = reserved(session, open_lines(session, ids), items)
    before = taken(session, order, _named(told, items), items)
    short = [
        (key, line)
        for key, stand in stood(session, told.claims, list(told.claims)).items()
        if stand.is_known
        for line in replace(stand, held=stand.held - before.get(key, 0.0)).stops
    ]
    names = {row.id: row.name for row in ledger.items(session, [key for key, _ in short])}
    titles = {row.id: row.title for row in stands.lines_of(session, order)}
    return [(titles[line], names[key]) for key, line in short]


def _named(told: Reserved, items: Resolved) -> list[tuple[str, str]]:
    """What designs call the items that are claimed."""
    by_name = [(CALLED, name) for (name, _), row in items.by_name.items() if (row.id or 0) in told.claims]
    return [key for key, row in items.by_key.items() if (row.id or 0) in told.claims] + by_name
