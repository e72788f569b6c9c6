"""What is reserved, told from what is agreed and not made yet; and what is short of it."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray
from sqlmodel import Session, col, func, select
from sqlmodel.sql.expression import Select

from lamsik.core.orders.lines import FLOATS, LINE_KINDS, MADE
from lamsik.core.stock.short import NO_CLAIMS, Claims, StockStand
from lamsik.store import documents, ledger, needs, promises
from lamsik.store.claims import Claimed, Left, PiecesAlike, ended_steps, pieces_alike
from lamsik.store.stands import DONE
from lamsik.store.tables import (
    Movement,
    Order,
    OrderLine,
    Piece,
    PieceNeed,
    StockItem,
)

MOST_LINES = 400
"""So many lines, those that are due first, are looked at."""


@dataclass(frozen=True)
class Lacking:
    """Something that is taken and no item of the stores: its name, how much of it, for which lines."""

    name: str
    amount: float
    unit: str
    lines: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class OpenLine:
    """A line that is agreed and not shipped, as far as what it takes goes.

    Args:
        key: its id.
        order: the id of its order.
        kind: its key in `LINE_KINDS`.
        wanted: how many pieces it asks for.
        agreed: the revision that was agreed; 0 where none was.
        drawn: the document it is drawn in; 0 where it is not drawn.
        swaps: by what a design names, the item that stands in for it.
    """

    key: int
    order: int
    kind: str
    wanted: int
    agreed: int
    drawn: int
    swaps: Mapping[str, int]


@dataclass(frozen=True)
class Reserved:
    """What open lines take: claims by item, what the stores do not know, the lines by id, those of which
    nothing is known yet, the revisions whose needs are not kept yet.
    """

    claims: Mapping[int, Claims]
    unknown: tuple[Lacking, ...]
    lines: Mapping[int, OpenLine]
    undrawn: tuple[int, ...]
    untold: frozenset[int] = frozenset()


_OPEN = (
    col(Order.accepted_at).is_not(None),
    col(Order.queue) < DONE,
    col(Order.deleted_at).is_(None),
    col(OrderLine.deleted_at).is_(None),
)


def later_lines(session: Session) -> int:
    """How many open lines are due after those that are looked at."""
    query = select(func.count(col(OrderLine.id))).join(Order).where(*_OPEN)
    return max(session.exec(query).one() - MOST_LINES, 0)


def open_lines(session: Session, ids: Collection[int] | None = None) -> list[OpenLine]:
    """The lines that are agreed and not shipped, the first due in front."""
    drawn = func.coalesce(OrderLine.design_id, OrderLine.like_id, 0)
    columns = OrderLine.id, OrderLine.order_id, OrderLine.kind, OrderLine.quantity, OrderLine.per_set
    query = (
        select(*columns, func.coalesce(OrderLine.revision_id, 0), drawn, OrderLine.swaps)  # type: ignore[call-overload]
        .join(Order)
        .where(*_OPEN)
    )
    if ids is not None:
        query = query.where(col(OrderLine.id).in_(ids))
    rows = session.exec(query.order_by(col(Order.queue), col(OrderLine.id)).limit(MOST_LINES)).all()
    return [
        OpenLine(key, order, kind, many * (each if LINE_KINDS[kind].in_sets else 1), agreed, drawn, swaps)
        for key, order, kind, many, each, agreed, drawn, swaps in rows
        if LINE_KINDS[kind].of
    ]


def orders_of(session: Session, keys: Collection[int]) -> list[tuple[Order, OrderLine]]:
    """Lines with their orders, as they are asked for."""
    query = select(Order, OrderLine).join(OrderLine).where(col(OrderLine.id).in_(keys))
    rows = {row.id: (order, row) for order, row in session.exec(query).all()}
    return [rows[key] for key in keys]


def untold(session: Session, rows: Sequence[OpenLine]) -> frozenset[int]:
    """The revisions of these lines and their pieces whose needs are not kept yet."""
    return reserved(session, rows).untold


def _revisions(session: Session, rows: Sequence[OpenLine]) -> dict[int, int]:
    """The revision that each line is made from: as agreed, or as drawn now; 0 where nothing is drawn."""
    current = documents.current_ids(session, {row.drawn for row in rows if row.drawn and not row.agreed})
    return {row.key: row.agreed or current.get(row.drawn, 0) for row in rows}


def _begun(session: Session, ids: Collection[int]) -> dict[int, list[PiecesAlike]]:
    """By line: the pieces that are begun for it."""
    here = col(Piece.line_id).in_(ids), col(Piece.deleted_at).is_(None)
    query: Select[int | None, int, str] = select(Piece.line_id, Piece.revision_id, ended_steps()).where(*here)
    of: dict[int, list[PiecesAlike]] = {key: [] for key in ids}
    for line, one in pieces_alike(session, query):
        of[line or 0].append(one)
    return of


def reserved(
    session: Session,
    rows: Sequence[OpenLine] | None = None,
    items: needs.Resolved | None = None,
) -> Reserved:
    """What open lines still take: of pieces that are begun what their steps have not taken, of the others
    all. Needs that were never told are not there: see `untold`.

    Args:
        session: of the shop.
        rows: the lines; all that are open where none are given.
        items: which item each thing is, where that is known already.
    """
    rows = open_lines(session) if rows is None else rows
    begun, revisions = _begun(session, [row.key for row in rows]), _revisions(session, rows)
    wanted = {one for one in revisions.values() if one} | {
        one.revision for of in begun.values() for one in of
    }
    known = needs.known(session, wanted)
    left = Left(known, len(rows))
    undrawn = [
        row.key
        for line, row in enumerate(rows)
        if not left.line(line, row.wanted, revisions[row.key], begun[row.key])
    ]
    claimed = Claimed(session, items or needs.resolved(session))
    claimed.needed(known, left, np.array([_is_alike(row) for row in rows], bool))
    _claim_apart(session, claimed, rows, known, left)
    claimed.beside(left)
    lines = np.array([row.key for row in rows], int)
    lacking = _due_first(lines, claimed.unknown)
    return Reserved(
        _due_first(lines, claimed.by_item),
        tuple(
            Lacking(name, of_name.total, unit, of_name.beyond(0.0))
            for (name, unit), of_name in lacking.items()
            if of_name
        ),
        {row.key: row for row in rows},
        tuple(undrawn),
        frozenset(wanted - known.keys()),
    )


Key = TypeVar("Key")


def _due_first(lines: NDArray[np.int64], amounts: Mapping[Key, NDArray[np.float64]]) -> dict[Key, Claims]:
    """Claims by what is claimed: what a line that is due first takes in front."""
    if not lines.size:
        return {}
    first = {key: int(np.argmax(of > 0)) for key, of in amounts.items()}
    return {key: Claims(lines, amounts[key]) for key in sorted(amounts, key=first.__getitem__)}


def _is_alike(row: OpenLine) -> bool:
    """Whether a line takes what its design says, of the items that it names."""
    return row.kind in (MADE, FLOATS) and not row.swaps


def _claim_apart(
    session: Session,
    claimed: Claimed,
    rows: Sequence[OpenLine],
    known: Mapping[int, Sequence[PieceNeed]],
    left: Left,
) -> None:
    """What the other lines take: with their stand-ins, and of work on what is begun already its own steps
    alone.
    """
    for line, row in enumerate(rows):
        if _is_alike(row):
            continue
        alone = np.arange(len(rows)) == line
        for revision, of in known.items():
            if left.pieces[revision][:, line].any():
                for need in _of_work(session, row, of):
                    claimed.add(need, row.swaps, left.of(revision, need.step) * alone)


def _of_work(session: Session, row: OpenLine, of_line: Sequence[PieceNeed]) -> Sequence[PieceNeed]:
    """What a line's own steps take: of what is begun already and only worked on, of those alone."""
    if row.kind in (MADE, FLOATS):
        return of_line
    steps = {step.key for step in promises.route_of(session, session.get_one(OrderLine, row.key))}
    return [need for need in of_line if need.step in steps]


def stood(session: Session, claims: Mapping[int, Claims], ids: Collection[int]) -> dict[int, StockStand]:
    """How these items stand, with what is claimed of each."""
    sums = {
        key: (float(total or 0.0), many)
        for key, total, many in session.exec(
            select(Movement.item_id, func.sum(Movement.amount), func.count())
            .where(col(Movement.item_id).in_(ids), ledger.COUNTS)
            .group_by(col(Movement.item_id))
        ).all()
    }
    minimum = dict(
        session.exec(select(StockItem.id, StockItem.minimum).where(col(StockItem.id).in_(ids))).all()
    )
    return {
        key: StockStand(
            sums.get(key, (0.0, 0))[0], key in sums, claims.get(key, NO_CLAIMS), minimum.get(key) or 0.0
        )
        for key in ids
    }
