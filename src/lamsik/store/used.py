"""What a step of a piece takes out of the stores when it is done, and gives back when it is not after all.

What is weighed (paint, resin) is drawn as it is weighed, and what nobody counts is not drawn at all.
"""

from sqlmodel import Session

from lamsik.core.stock.needs import PACK
from lamsik.store import ledger, needs, routes
from lamsik.store.ledger import Cause
from lamsik.store.tables import OrderLine, Piece, StockItem

WEIGHED = frozenset({"paint", "compound"})
"""Kinds of item that flow in by the scale."""


def cause_of(piece: Piece, step: str) -> Cause:
    """A step of a piece, as what caused a movement."""
    return Cause(f"piece:{step}", piece.id)


def by_step(session: Session, piece: Piece, step: str) -> None:
    """A step is done: what it takes is out of the stores."""
    unused(session, piece, step)
    known = needs.told(session, {piece.revision_id}).get(piece.revision_id, ())
    wanted = [need for need in known if need.step == step]
    if not wanted and step != PACK:
        return
    line = session.get(OrderLine, piece.line_id) if piece.line_id else None
    items = needs.resolved(session)
    taken: dict[int, float] = {}
    for need in wanted:
        item = items.for_line(line, need)
        if item is not None and item.kind not in WEIGHED:
            key = item.id or 0
            taken[key] = taken.get(key, 0.0) + (need.amount if item.unit == need.unit else 1.0)
    if step == PACK:
        for key, item in items.by_id.items():
            taken[key] = taken.get(key, 0.0) + item.each_piece
    for key, amount in taken.items():
        _take(session, items.by_id[key], amount, cause_of(piece, step))


def _take(session: Session, item: StockItem, amount: float, cause: Cause) -> None:
    if amount > 0 and ledger.is_counted(session, item.id):
        ledger.use(session, item, amount, cause)


def unused(session: Session, piece: Piece, step: str) -> None:
    """A step was not done after all: what it took is back."""
    ledger.unused(session, cause_of(piece, step))


def anew(session: Session, piece: Piece, step: str) -> None:
    """What a step took, told from whether it is done now."""
    row = routes.touched(session, piece).get(step)
    if row is not None and row.done_at is not None and not row.reason:
        by_step(session, piece, step)
    else:
        unused(session, piece, step)
