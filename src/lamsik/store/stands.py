"""Where pieces and orders stand, kept beside them whenever what it is told from changes: lists ask for it
and read no ticks.
"""

from collections.abc import Iterable, Mapping, Sequence

from sqlalchemy import Engine, Update, case, update
from sqlmodel import Session, col, func, select

from lamsik.core.orders.lines import PARTS, LineTerms, total_minor
from lamsik.core.orders.status import CLOSED, ENDED, Agreed, status
from lamsik.core.orders.terms import Share, less
from lamsik.core.route.steps import READY, SHIPPED, from_content, stand
from lamsik.store import routes
from lamsik.store.tables import (
    CustodyItem,
    Order,
    OrderLine,
    Parcel,
    ParcelItem,
    Payment,
    Piece,
    PieceStep,
    Route,
)
from lamsik.words.orders import told_lines

SHIP = "ship"
OPEN, DONE = "1", "2"
"""What the place of an order in the queue begins with."""


def anew(session: Session, piece: Piece) -> None:
    """A piece is new or gone, or its route or its order changed: where it stands, and its order with it."""
    _stand(session, piece)
    if piece.order_id is not None:
        order_anew(session, session.get_one(Order, piece.order_id))


def stepped(session: Session, piece: Piece) -> None:
    """A step of a piece was begun, ended or taken back: where it stands, and its order if that moved."""
    before = piece.stand
    _stand(session, piece)
    if piece.order_id is not None and piece.stand != before:
        order_anew(session, session.get_one(Order, piece.order_id))


def _stand(session: Session, piece: Piece) -> None:
    piece.stand = stand(routes.of(session, piece), routes.ended(session, [piece])[piece.id or 0])
    session.add(piece)
    session.flush()


def order_anew(session: Session, order: Order) -> None:
    """What is agreed or made for an order changed: where it stands, and what it is called."""
    session.add(order)
    session.flush()  # a new one has its id only now
    standing: Made = {}
    of_order = Piece.order_id == order.id, col(Piece.deleted_at).is_(None)
    asked = select(Piece.line_id, Piece.stand, func.count()).where(*of_order)
    for line, at, many in session.exec(asked.group_by(col(Piece.line_id), Piece.stand)).all():
        standing.setdefault(line, {})[at] = many
    standing |= _parts_sent(session, order.id)
    _tell(order, lines_of(session, order), standing, paid_minor(session, order), lent(session, order))
    session.flush()
    session.execute(_gone().where(col(Order.id) == order.id))
    session.refresh(order, ["gone_on"])


def lines_of(session: Session, order: Order) -> Sequence[OrderLine]:
    """The lines of an order, in the order they were said."""
    query = select(OrderLine).where(OrderLine.order_id == order.id, col(OrderLine.deleted_at).is_(None))
    return session.exec(query.order_by(col(OrderLine.id))).all()


def as_line(row: OrderLine) -> LineTerms:
    """A line as the core knows it."""
    return LineTerms(row.kind, row.quantity, row.per_set, row.clears, row.rate_minor, row.lump_minor)


def paid_minor(session: Session, order: Order) -> int:
    """What was paid for an order so far, in minor units."""
    return session.exec(
        select(func.coalesce(func.sum(Payment.minor), 0)).where(Payment.order_id == order.id)
    ).one()


def discount(order: Order) -> Share:
    """What is taken off the sum of an order's lines."""
    return Share(order.discount_percent, order.discount_minor)


def deposit(order: Order) -> Share:
    """What is asked of an order before work begins."""
    return Share(order.deposit_percent, order.deposit_minor)


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
        order.quoted_at is not None,
        order.accepted_at is not None,
        order.declined_at is not None,
        order.cancelled_at is not None,
        None if price is None else price + (order.shipping_minor or 0),
        paid,
        lent,
    )


Made = dict[int | None, dict[str, int]]
"""By line: how many pieces stand where."""


def _tell(order: Order, rows: Iterable[OrderLine], standing: Made, paid: int, lent: int) -> None:
    lines = {row.id: as_line(row) for row in rows}
    order.price_minor = less(total_minor(list(lines.values())), discount(order))
    order.quantity = sum(line.wanted for line in lines.values())
    order.title = told_lines([row.title for row in rows])
    each = [
        (line.wanted, _stands_of(row, line, standing.get(row.id, {})))
        for row, line in zip(rows, lines.values(), strict=True)
    ]
    terms = agreed(order, paid, lent)
    order.stand, order.owed_minor = status(terms, each), terms.owed_minor
    order.queue = f"{DONE if order.stand in ENDED else OPEN} {order.due_on or 'undated'} {order.number:>12}"


def _stands_of(row: OrderLine, line: LineTerms, standing: Mapping[str, int]) -> list[str]:
    """How each of a line stands: parts are ready once off the shelf for it, and go out in parcels."""
    if line.kind == PARTS:
        sent = min(standing.get(SHIPPED, 0), line.wanted)
        return [SHIPPED] * sent + ([READY] * (line.wanted - sent) if row.picked_at else [])
    return [at for at, many in standing.items() for _ in range(many)]


def _parts_sent(session: Session, order_id: int | None = None) -> Made:
    """Of lines of parts: how many went out; of one order, or of all."""
    sent = select(ParcelItem.line_id, func.sum(ParcelItem.count)).join(Parcel)
    sent = sent.where(col(Parcel.sent_on).is_not(None), col(ParcelItem.line_id).is_not(None))
    if order_id is not None:
        sent = sent.where(Parcel.order_id == order_id)
    return {
        line: {SHIPPED: many} for line, many in session.exec(sent.group_by(col(ParcelItem.line_id))).all()
    }


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
    by_order: dict[int | None, Made] = {}
    of_orders = col(Piece.order_id).is_not(None), col(Piece.deleted_at).is_(None)
    for key, line, at, many in session.exec(
        select(Piece.order_id, Piece.line_id, Piece.stand, func.count())
        .where(*of_orders)
        .group_by(col(Piece.order_id), col(Piece.line_id), Piece.stand)
    ).all():
        by_order.setdefault(key, {}).setdefault(line, {})[at] = many
    lines: dict[int, list[OrderLine]] = {}
    for row in session.exec(
        select(OrderLine).where(col(OrderLine.deleted_at).is_(None)).order_by(col(OrderLine.id))
    ).all():
        lines.setdefault(row.order_id, []).append(row)
    paid = dict(
        session.exec(select(Payment.order_id, func.sum(Payment.minor)).group_by(col(Payment.order_id))).all()
    )
    here = dict(
        session.exec(
            select(CustodyItem.order_id, func.count()).where(*HERE).group_by(col(CustodyItem.order_id))
        ).all()
    )
    sent = _parts_sent(session)
    for order in session.exec(select(Order)).all():
        key = order.id or 0
        _tell(order, lines.get(key, []), by_order.get(key, {}) | sent, paid.get(key, 0), here.get(key, 0))
    session.flush()
    session.execute(_gone())
    session.expire_all()


def _gone() -> Update:
    """The day that orders went out whole: of the last parcel, or else of the last step that ships; where
    neither is known, when they were due.
    """
    last = (
        select(func.max(Parcel.sent_on)).where(Parcel.order_id == Order.id).correlate(Order).scalar_subquery()
    )
    shipped = (
        select(func.max(PieceStep.done_at))
        .join(Piece)
        .where(Piece.order_id == Order.id, PieceStep.step == SHIP)
        .correlate(Order)
        .scalar_subquery()
    )
    day = func.coalesce(last, func.date(shipped), Order.due_on, func.date(Order.placed_at))
    is_gone = col(Order.stand).in_((SHIPPED, CLOSED))
    return update(Order).values(gone_on=case((is_gone, day))).execution_options(synchronize_session=False)


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
