"""Ready stock of one: a piece that is made and nobody's, kept for the first who asks, then for the next."""

from collections.abc import Sequence
from datetime import timedelta

from sqlmodel import Session, col, select
from sqlmodel.sql.expression import Select, SelectOfScalar

from lamsik.core.errors import Refused, require
from lamsik.core.orders.lines import STOCK
from lamsik.core.route.steps import READY
from lamsik.store import rights, stands, stores
from lamsik.store.paging import MOST
from lamsik.store.tables import Document, Order, OrderLine, Piece, now

Asked = tuple[OrderLine, Order]


def listed() -> SelectOfScalar[Piece]:
    """The question for pieces that are ready and were made for no one, the newest first."""
    asked = select(OrderLine.id).where(OrderLine.piece_id == Piece.id, OrderLine.kind == STOCK)
    return (
        select(Piece)
        .where(
            col(Piece.order_id).is_(None) | asked.correlate(Piece).exists(),
            Piece.stand == READY,
            Piece.repaint == "",
            col(Piece.deleted_at).is_(None),
        )
        .order_by(col(Piece.id).desc())
    )


def offered(session: Session, most: int = MOST) -> Sequence[tuple[Piece, Document]]:
    """The first of them that may be sold, with what they are made from."""
    rows = [
        (one, session.get_one(Document, one.design_id)) for one in session.exec(listed().limit(most)).all()
    ]
    return [(piece, design) for piece, design in rows if not rights.why_not(session, design.id)]


def asking(session: Session, piece_id: int) -> Sequence[Asked]:
    """Who asked for a piece and still may have it, the first first: an order that is agreed before all
    others, one whose time is over not at all.
    """
    query: Select[OrderLine, Order] = select(OrderLine, Order).join(Order)
    rows = session.exec(
        query.where(
            OrderLine.piece_id == piece_id,
            OrderLine.kind == STOCK,
            col(OrderLine.deleted_at).is_(None),
            col(Order.deleted_at).is_(None),
            col(Order.declined_at).is_(None),
            col(Order.cancelled_at).is_(None),
        ).order_by(col(OrderLine.id))
    ).all()
    live = [
        (line, order)
        for line, order in rows
        if order.accepted_at or line.kept_until is None or line.kept_until > now()
    ]
    return sorted(live, key=lambda one: (one[1].accepted_at is None, one[0].id))


def hours(session: Session) -> float:
    """How long a piece is kept for who asked first [h]."""
    return float(stores.setting(session, "ready")["hours"])


def settle(session: Session, piece: Piece) -> None:
    """The piece is the first one's who may have it, from now until its end; of no order where nobody asks.
    One that was made for an order stays that order's.
    """
    if _made_for(session, piece):
        return
    rows = asking(session, piece.id or 0)
    line, order = rows[0] if rows else (None, None)
    before, after = piece.line_id, line.id if line else None
    if line is not None and order is not None and line.kept_until is None and order.accepted_at is None:
        line.kept_until = now() + timedelta(hours=hours(session))
        session.add(line)
    if before == after:
        return
    orders = {piece.order_id, order.id if order else None} - {None}
    piece.line_id, piece.order_id = after, order.id if order else None
    session.add(piece)
    session.flush()
    for key in orders:
        stands.order_anew(session, session.get_one(Order, key))


def _made_for(session: Session, piece: Piece) -> bool:
    line = session.get(OrderLine, piece.line_id) if piece.line_id else None
    return piece.order_id is not None and (line is None or line.kind != STOCK)


def ask(session: Session, row: OrderLine) -> int:
    """A line asks for its piece: the place in line it has, 0 where it is theirs. Raises `Refused` for a piece
    that is not there to be sold.
    """
    piece = session.get(Piece, row.piece_id) if row.piece_id else None
    if piece is None or piece.deleted_at is not None or piece.stand != READY:
        raise Refused("piece", row.piece_id or "", "one that is ready and here")
    settle(session, piece)
    is_stock = not _made_for(session, piece)
    require(is_stock, "piece", piece.number, "one of stock: that was made for an order")
    return [line.id for line, _ in asking(session, piece.id or 0)].index(row.id)


def settle_of(session: Session, piece_id: int | None) -> None:
    """As `settle`, by its id; nothing where there is none."""
    piece = session.get(Piece, piece_id) if piece_id else None
    if piece is not None:
        settle(session, piece)


def may_be_sold(session: Session, order: Order) -> None:
    """Raises `Refused` where a piece on the order is another's: two cannot have it."""
    for row in stands.lines_of(session, order):
        if row.kind != STOCK:
            continue
        piece = session.get_one(Piece, row.piece_id)
        settle(session, piece)
        rows = asking(session, piece.id or 0)
        is_theirs = not rows or rows[0][0].id == row.id
        require(is_theirs and piece.deleted_at is None, "piece", piece.number, "a piece that nobody else has")


def over(session: Session) -> Sequence[int]:
    """The pieces that were kept for someone whose time is over, or whose order was put away."""
    holds = select(Piece.line_id).where(Piece.id == OrderLine.piece_id).correlate(OrderLine).scalar_subquery()
    query = (
        select(OrderLine.piece_id)
        .join(Order)
        .where(
            OrderLine.kind == STOCK,
            (col(OrderLine.kept_until) <= now()) & col(Order.accepted_at).is_(None)
            | col(Order.deleted_at).is_not(None),
            OrderLine.id == holds,
        )
    )
    return [key for key in session.exec(query).all() if key is not None]


def settle_all(session: Session) -> None:
    """What was kept and is over goes to the next by itself."""
    for key in over(session):
        settle_of(session, key)
