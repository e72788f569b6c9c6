"""Where pieces and orders stand, kept beside them whenever what it is told from changes: lists ask for it
and read no ticks.
"""

from collections.abc import Mapping

from sqlalchemy import Engine, case
from sqlmodel import Session, col, func, select

from lamsik.core.orders.status import ENDED, Agreed, status
from lamsik.core.route.steps import from_content, stand
from lamsik.store import routes
from lamsik.store.tables import CustodyItem, Order, Payment, Piece, PieceStep, Route

OPEN, DONE = "1", "2"
"""What the place of an order in the queue begins with."""


def anew(session: Session, piece: Piece) -> None:
    """A step, the route or the order of a piece changed: where it stands, and its order with it."""
    piece.stand = stand(routes.of(session, piece), routes.ended(session, [piece])[piece.id or 0])
    session.add(piece)
    session.flush()
    if piece.order_id is not None:
        order_anew(session, session.get_one(Order, piece.order_id))


def order_anew(session: Session, order: Order) -> None:
    """What is agreed or made for an order changed: where it stands."""
    session.add(order)
    session.flush()  # a new one has its id only now
    of_order = Piece.order_id == order.id, col(Piece.deleted_at).is_(None)
    _tell(
        order,
        dict(session.exec(select(Piece.stand, func.count()).where(*of_order).group_by(Piece.stand)).all()),
        paid_minor(session, order),
        lent(session, order),
    )
    session.flush()


def paid_minor(session: Session, order: Order) -> int:
    """What was paid for an order so far, in minor units."""
    return session.exec(
        select(func.coalesce(func.sum(Payment.minor), 0)).where(Payment.order_id == order.id)
    ).one()


HERE = col(CustodyItem.returned_on).is_(None), CustodyItem.written_off == ""
"""Whether something of a customer's is still here."""


def lent(session: Session, order: Order) -> int:
    """How many things of the customer's are still here for an order."""
    query = select(func.count()).select_from(CustodyItem)
    return session.exec(query.where(CustodyItem.order_id == order.id, *HERE)).one()


def agreed(order: Order, paid: int, lent: int = 0) -> Agreed:
    """What was agreed of an order, as the core knows it."""
    price = order.price_minor
    return Agreed(
        order.quantity,
        order.quoted_at is not None,
        order.accepted_at is not None,
        order.declined_at is not None,
        order.cancelled_at is not None,
        None if price is None else price + (order.shipping_minor or 0),
        paid,
        lent,
    )


def _tell(order: Order, pieces: Mapping[str, int], paid: int, lent: int) -> None:
    each = [at for at, many in pieces.items() for _ in range(many)]
    order.stand = status(agreed(order, paid, lent), each)
    order.queue = f"{DONE if order.stand in ENDED else OPEN} {order.due_on or 'undated'} {order.number:>12}"


def keep_true(engine: Engine) -> None:
    """Give a route to every piece that has none: those of an earlier version."""
    with Session(engine) as session:
        without = select(Piece.revision_id).where(col(Piece.route_id).is_(None)).distinct()
        for revision in session.exec(without).all():
            _routed(session, revision)
        if session.new or session.dirty:
            session.commit()
            all_anew(session)
            session.commit()


def _routed(session: Session, revision: int) -> None:
    """The route of a revision for all its pieces."""
    rows = session.exec(
        select(Piece).where(Piece.revision_id == revision, col(Piece.route_id).is_(None))
    ).all()
    routes.follow(session, rows[0])
    for row in rows[1:]:
        row.route_id = rows[0].route_id
        session.add(row)


def all_anew(session: Session) -> None:
    """Where every piece and order stands, told from its facts."""
    for route in session.exec(select(Route)).all():
        _pieces_on(session, route)
    session.flush()
    by_order: dict[int | None, dict[str, int]] = {}
    of_orders = col(Piece.order_id).is_not(None), col(Piece.deleted_at).is_(None)
    for key, at, many in session.exec(
        select(Piece.order_id, Piece.stand, func.count())
        .where(*of_orders)
        .group_by(col(Piece.order_id), Piece.stand)
    ).all():
        by_order.setdefault(key, {})[at] = many
    paid = dict(
        session.exec(select(Payment.order_id, func.sum(Payment.minor)).group_by(col(Payment.order_id))).all()
    )
    here = dict(
        session.exec(
            select(CustodyItem.order_id, func.count()).where(*HERE).group_by(col(CustodyItem.order_id))
        ).all()
    )
    for order in session.exec(select(Order)).all():
        _tell(order, by_order.get(order.id, {}), paid.get(order.id or 0, 0), here.get(order.id, 0))
    session.flush()


def _pieces_on(session: Session, route: Route) -> None:
    way = from_content(route.steps)
    done = func.group_concat(case((col(PieceStep.done_at).is_not(None), PieceStep.step)))
    ticked = (
        select(Piece, done)
        .join(PieceStep, isouter=True)
        .where(Piece.route_id == route.id)
        .group_by(col(Piece.id))
    )
    for piece, ended in session.exec(ticked).all():
        piece.stand = stand(way, set((ended or "").split(",")))
