"""Where pieces and orders stand, kept beside them whenever what it is told from changes: lists ask for it
and read no ticks.
"""

import json
from collections.abc import Mapping
from functools import lru_cache
from typing import Any

from sqlalchemy import Engine
from sqlmodel import Session, col, func, select

from lamsik.core.orders.status import status
from lamsik.core.route.steps import MAKING, ROUTES, SHIPPED, stand, steps
from lamsik.documents.body.document import to_design
from lamsik.store import documents
from lamsik.store.tables import Order, Piece, Setting, StepDone

OPEN, DONE = "1", "2"
"""What the place of an order in the queue begins with."""


def route(content: Mapping[str, Any]) -> tuple[tuple[str, str], ...]:
    """Key and name of every step of a piece made so. Raises `Refused` for a document that cannot be read."""
    return _route(json.dumps(content, sort_keys=True))


@lru_cache(maxsize=256)
def _route(text: str) -> tuple[tuple[str, str], ...]:
    return tuple((step.key, step.name) for step in steps(to_design(json.loads(text))))


def anew(session: Session, piece: Piece) -> None:
    """A step, the design or the order of a piece changed: where it stands, and its order with it."""
    done = set(session.exec(select(StepDone.step).where(StepDone.piece_id == piece.id)).all())
    piece.stand = _stand(documents.content_at(session, piece.revision_id), done)
    session.add(piece)
    session.flush()
    if piece.order_id is not None:
        order_anew(session, session.get_one(Order, piece.order_id))


def _stand(content: Mapping[str, Any], done: set[str]) -> str:
    try:
        return stand([key for key, _ in route(content)], done)
    except Exception:
        return MAKING


def order_anew(session: Session, order: Order) -> None:
    """What is agreed or made for an order changed: where it stands."""
    session.add(order)
    session.flush()  # a new one has its id only now
    of_order = Piece.order_id == order.id, col(Piece.deleted_at).is_(None)
    _tell(
        order,
        dict(session.exec(select(Piece.stand, func.count()).where(*of_order).group_by(Piece.stand)).all()),
    )
    session.flush()


def _tell(order: Order, pieces: Mapping[str, int]) -> None:
    order.stand = status(
        order.accepted_at is not None,
        order.quantity,
        [at for at, many in pieces.items() for _ in range(many)],
    )
    order.queue = f"{DONE if order.stand == SHIPPED else OPEN} {order.due_on or 'undated'} {order.number:>12}"


def keep_true(engine: Engine) -> None:
    """Tell everything anew where it was told by an earlier version's routes."""
    with Session(engine) as session:
        row = session.get(Setting, "routes") or Setting(key="routes", value={})
        if row.value.get("version") != ROUTES:
            all_anew(session)
            row.value = {"version": ROUTES}
            session.add(row)
            session.commit()


def all_anew(session: Session) -> None:
    """Where every piece and order stands, told from its facts."""
    for revision in session.exec(select(Piece.revision_id).distinct()).all():
        _pieces_of(session, revision)
    session.flush()
    by_order: dict[int | None, dict[str, int]] = {}
    of_orders = col(Piece.order_id).is_not(None), col(Piece.deleted_at).is_(None)
    for key, at, many in session.exec(
        select(Piece.order_id, Piece.stand, func.count())
        .where(*of_orders)
        .group_by(col(Piece.order_id), Piece.stand)
    ).all():
        by_order.setdefault(key, {})[at] = many
    for order in session.exec(select(Order)).all():
        _tell(order, by_order.get(order.id, {}))
    session.flush()


def _pieces_of(session: Session, revision: int) -> None:
    content = documents.content_at(session, revision)
    ticked = (
        select(Piece, func.group_concat(StepDone.step))
        .join(StepDone, isouter=True)
        .where(Piece.revision_id == revision)
        .group_by(col(Piece.id))
    )
    for piece, done in session.exec(ticked).all():
        piece.stand = _stand(content, set((done or "").split(",")))
