"""What made an item's amount change, and where a lot went: every batch, pour and piece."""

from collections.abc import Sequence
from dataclasses import dataclass

from sqlmodel import Session, col, func, select

from lamsik.core.stock.kinds import FINEST
from lamsik.store.ledger import COUNTS
from lamsik.store.tables import (
    Batch,
    Movement,
    Order,
    OrderLine,
    Piece,
    PieceStep,
    Pour,
    StockItem,
    StockLot,
)

MOST = 200
"""So many of what a lot went into are shown, the newest."""


@dataclass(frozen=True)
class CausedBy:
    """What caused a movement: of which kind, its row, what it is called."""

    of: str
    of_id: int
    called: str


def causes(session: Session, rows: Sequence[Movement]) -> dict[int, CausedBy]:
    """By movement: what caused it; those that were made by hand are left out."""
    of_kind: dict[str, set[int]] = {}
    for row in rows:
        if row.of:
            of_kind.setdefault(row.of.partition(":")[0], set()).add(row.of_id or 0)
    called = {
        (of, key): name for of, ids in of_kind.items() for key, name in _named(session, of, ids).items()
    }
    return {
        row.id or 0: CausedBy(of, row.of_id or 0, called[of, row.of_id or 0])
        for row in rows
        if ((of := row.of.partition(":")[0]), row.of_id or 0) in called
    }


def _named(session: Session, of: str, ids: set[int]) -> dict[int, str]:
    queries = {
        "batch": select(Batch.id, Batch.purpose).where(col(Batch.id).in_(ids)),
        "piece": select(Piece.id, Piece.number).where(col(Piece.id).in_(ids)),
        "order": select(OrderLine.id, Order.number).join(Order).where(col(OrderLine.id).in_(ids)),
    }
    query = queries.get(of)
    return {key or 0: name for key, name in session.exec(query).all()} if query is not None else {}


@dataclass(frozen=True)
class WentInto:
    """A batch that took of a lot: how much, what it was for, the pieces that came of it."""

    batch: Batch
    amount: float
    pieces: tuple[Piece, ...]


def into_pieces(session: Session, lot: StockLot) -> list[tuple[Piece, float]]:
    """The pieces whose own steps took of a lot, the newest first, and how much."""
    taken = (
        select(Movement.of_id, func.sum(Movement.amount))
        .where(Movement.lot_id == lot.id, col(Movement.of).startswith("piece:"), COUNTS)
        .group_by(col(Movement.of_id))
        .order_by(col(Movement.of_id).desc())
        .limit(MOST)
    )
    amounts = {key or 0: -float(total) for key, total in session.exec(taken).all()}
    rows = session.exec(select(Piece).where(col(Piece.id).in_(amounts)).order_by(col(Piece.id).desc())).all()
    return [(row, amounts[row.id or 0]) for row in rows if amounts[row.id or 0] > FINEST]


def into(session: Session, lot: StockLot) -> list[WentInto]:
    """Every batch that a lot went into, the newest first, with the pieces its pour made."""
    taken = (
        select(Movement.of_id, func.sum(Movement.amount))
        .where(Movement.lot_id == lot.id, Movement.of == "batch", COUNTS)
        .group_by(col(Movement.of_id))
        .order_by(col(Movement.of_id).desc())
        .limit(MOST)
    )
    amounts = {key or 0: -float(total) for key, total in session.exec(taken).all()}
    batches = session.exec(select(Batch).where(col(Batch.id).in_(amounts))).all()
    of_pour: dict[int, list[Piece]] = {}
    pours = {row.pour_id for row in batches if row.pour_id}
    for piece in session.exec(
        select(Piece).join(Pour, col(Piece.pour_id) == Pour.id).where(col(Pour.id).in_(pours))
    ):
        of_pour.setdefault(piece.pour_id or 0, []).append(piece)
    return [
        WentInto(row, amounts[row.id or 0], tuple(of_pour.get(row.pour_id or 0, ())))
        for row in sorted(batches, key=lambda row: -(row.id or 0))
        if amounts[row.id or 0] > FINEST
    ]


@dataclass(frozen=True)
class TookOf:
    """What went into a piece: the item, its lot where it was of one, how much; whether that was for all that
    was poured together.
    """

    item: StockItem
    lot: StockLot | None
    amount: float
    together: bool


def took(session: Session, piece: Piece) -> list[TookOf]:
    """What a piece's own steps took out of the stores, and the batches it was poured of."""
    steps = session.exec(select(PieceStep.step).where(PieceStep.piece_id == piece.id)).all()
    batches = select(Batch.id).where(Batch.pour_id == piece.pour_id, col(Batch.pour_id).is_not(None))
    own = col(Movement.of).in_([f"piece:{step}" for step in steps]) & (col(Movement.of_id) == piece.id)
    poured = (col(Movement.of) == "batch") & col(Movement.of_id).in_(batches)
    told = []
    for which, together in ((own, False), (poured, True)):
        sums = select(Movement.item_id, Movement.lot_id, func.sum(Movement.amount)).where(which, COUNTS)
        for item_id, lot_id, total in session.exec(
            sums.group_by(col(Movement.item_id), col(Movement.lot_id))
        ):
            if -float(total) > FINEST:
                item, lot = session.get_one(StockItem, item_id), session.get(StockLot, lot_id or 0)
                told.append(TookOf(item, lot, -float(total), together))
    return sorted(told, key=lambda one: (one.together, one.item.search))
