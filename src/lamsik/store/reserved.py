"""What is reserved, told from what is agreed and not made yet; and what is short of it."""

from collections import Counter
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from sqlmodel import Session, case, col, func, select

from lamsik.core.orders.lines import FLOATS, LINE_KINDS, MADE
from lamsik.core.route.steps import SHIPPED
from lamsik.core.stock.kinds import GRAMS, MILLILITRES
from lamsik.core.stock.needs import PACK
from lamsik.core.stock.short import NO_CLAIMS, Claims, StockStand
from lamsik.store import documents, ledger, mixes, needs, paint_mixes, promises
from lamsik.store.stands import DONE
from lamsik.store.tables import (
    Movement,
    Order,
    OrderLine,
    Piece,
    PieceNeed,
    PieceStep,
    StockItem,
)

MOST_LINES = 400
"""So many lines, those that are due first, are looked at."""
BETWEEN = "\x1f"
"""What stands between steps that come as one text; no step is called so."""
ALL = "\x1e"
"""What stands in the place of the steps where all are done."""
COMPOUND_LOSS = 0.1
"""What stays in cup and mould of what is mixed, until a product's own batches taught it (a guess)."""


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


def open_lines(session: Session, ids: Collection[int] | None = None) -> list[OpenLine]:
    """The lines that are agreed and not shipped, the first due in front."""
    drawn = func.coalesce(OrderLine.design_id, OrderLine.like_id, 0)
    columns = OrderLine.id, OrderLine.order_id, OrderLine.kind, OrderLine.quantity, OrderLine.per_set
    query = (
        select(*columns, func.coalesce(OrderLine.revision_id, 0), drawn, OrderLine.swaps)  # type: ignore[call-overload]
        .join(Order)
        .where(
            col(Order.accepted_at).is_not(None),
            col(Order.queue) < DONE,
            col(Order.deleted_at).is_(None),
            col(OrderLine.deleted_at).is_(None),
        )
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


@dataclass(frozen=True, slots=True)
class _Made:
    """Pieces of a line that stand alike: of which revision, how many, which of their steps are done or left
    out (all of them where that is None).
    """

    revision: int
    many: int
    ended: frozenset[str] | None


def _made(session: Session, ids: Collection[int]) -> dict[int, list[_Made]]:
    """By line: the pieces that are begun for it. The steps of a piece come as one text: a row for each of
    them would be most of what this costs. Of what is shipped they are all done.
    """
    done = (
        select(func.group_concat(PieceStep.step, BETWEEN))
        .where(col(PieceStep.piece_id) == Piece.id, col(PieceStep.done_at).is_not(None))
        .correlate(Piece)
        .scalar_subquery()
    )
    steps = case((col(Piece.stand) == SHIPPED, ALL), else_=func.coalesce(done, ""))
    query = select(Piece.line_id, Piece.revision_id, steps).where(
        col(Piece.line_id).in_(ids), col(Piece.deleted_at).is_(None)
    )
    alike = Counter(session.exec(query).all())
    ended = {text: None if text == ALL else frozenset(text.split(BETWEEN)) for _, _, text in alike}
    of: dict[int, list[_Made]] = {key: [] for key in ids}
    for (line, revision, text), many in alike.items():
        of[line or 0].append(_Made(revision, many, ended[text]))
    return of


class _Left:
    """On how many pieces each step is still to be done: by revision, of each step that takes something, by
    line; how many are still to be packed; the lines of which nothing is known yet.
    """

    def __init__(self, known: Mapping[int, Sequence[PieceNeed]], lines: int) -> None:
        self.steps = {key: list(dict.fromkeys(need.step for need in of)) for key, of in known.items()}
        self.pieces = {key: np.zeros((len(of), lines)) for key, of in self.steps.items()}
        self.unpacked = np.zeros(lines)
        self.undrawn: list[int] = []
        self._open: dict[tuple[int, frozenset[str]], NDArray[np.bool_]] = {}

    def line(self, line: int, row: OpenLine, drawn: int, begun: Sequence[_Made]) -> None:
        """A line that is made from this revision, with the pieces that are begun for it."""
        more = max(row.wanted - sum(one.many for one in begun), 0)
        if drawn not in self.pieces and more:
            self.undrawn.append(row.key)
        for one in (_Made(drawn, more, frozenset()), *begun):
            if one.many and one.ended is not None:
                self._add(one.revision, line, one.many, one.ended)

    def _add(self, revision: int, line: int, many: int, ended: frozenset[str]) -> None:
        self.unpacked[line] += 0 if PACK in ended else many
        if revision in self.pieces:
            key = revision, ended
            if key not in self._open:
                self._open[key] = np.array([step not in ended for step in self.steps[revision]], bool)
            self.pieces[revision][self._open[key], line] += many

    def of(self, revision: int, step: str) -> NDArray[np.float64]:
        """Of a step, by line."""
        of: NDArray[np.float64] = self.pieces[revision][self.steps[revision].index(step)]
        return of


class _Claimed:
    """What is claimed so far, by line: of each item, and by name and unit of what is no item."""

    def __init__(self, session: Session, items: needs.Resolved) -> None:
        self.items = items
        self.by_item: dict[int, NDArray[np.float64]] = {}
        self.unknown: dict[tuple[str, str], NDArray[np.float64]] = {}
        self._loss = Losses(session)

    def add(self, need: PieceNeed, swaps: Mapping[str, int], many: NDArray[np.float64]) -> None:
        """Lines claim so many times a need, of the item that is taken for it."""
        item = self.items.taken(swaps, need)
        amount = need.amount if item is None or item.unit == need.unit else 1.0
        amount *= 1.0 + self._loss.of(item, need.unit)
        if item is None:
            self.unknown[need.name, need.unit] = self.unknown.get((need.name, need.unit), 0.0) + amount * many
        else:
            self.put(item.id or 0, amount * many)

    def put(self, item: int, amounts: NDArray[np.float64]) -> None:
        """Lines claim so much more of an item."""
        self.by_item[item] = self.by_item.get(item, 0.0) + amounts


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
    made, revisions = _made(session, [row.key for row in rows]), _revisions(session, rows)
    wanted = {one for one in revisions.values() if one} | {one.revision for of in made.values() for one in of}
    known = needs.known(session, wanted)
    left = _Left(known, len(rows))
    for line, row in enumerate(rows):
        left.line(line, row, revisions[row.key], made[row.key])
    claimed = _Claimed(session, items or needs.resolved(session))
    _claim_alike(claimed, rows, known, left)
    _claim_apart(session, claimed, rows, known, left)
    for key, item in claimed.items.by_id.items():
        if item.each_piece > 0:
            claimed.put(key, left.unpacked * item.each_piece)
    lines = np.array([row.key for row in rows], int)
    lacking = {key: Claims(lines, amounts) for key, amounts in claimed.unknown.items()}
    return Reserved(
        {key: Claims(lines, amounts) for key, amounts in claimed.by_item.items()},
        tuple(
            Lacking(name, of_name.total, unit, of_name.beyond(0.0))
            for (name, unit), of_name in lacking.items()
            if of_name
        ),
        {row.key: row for row in rows},
        tuple(left.undrawn),
        frozenset(wanted - known.keys()),
    )


def _is_alike(row: OpenLine) -> bool:
    """Whether a line takes what its design says, of the items that it names."""
    return row.kind in (MADE, FLOATS) and not row.swaps


def _claim_alike(
    claimed: _Claimed, rows: Sequence[OpenLine], known: Mapping[int, Sequence[PieceNeed]], left: _Left
) -> None:
    """What lines take that have all of their designs: a need for all of them at once."""
    alike = np.array([_is_alike(row) for row in rows], bool)
    for revision, of in known.items():
        for need in of:
            claimed.add(need, {}, left.of(revision, need.step) * alike)


def _claim_apart(
    session: Session,
    claimed: _Claimed,
    rows: Sequence[OpenLine],
    known: Mapping[int, Sequence[PieceNeed]],
    left: _Left,
) -> None:
    """What the other lines take: with their stand-ins, and of work on what is made already its own steps
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
    """What a line's own steps take: of what is made already and only worked on, of those alone."""
    if row.kind in (MADE, FLOATS):
        return of_line
    steps = {step.key for step in promises.route_of(session, session.get_one(OrderLine, row.key))}
    return [need for need in of_line if need.step in steps]


class Losses:
    """What is lost of what is mixed: paint in cup and brush as the shop's mixes taught, a compound as its own
    batches did.
    """

    def __init__(self, session: Session) -> None:
        self._session = session
        self._paint: float | None = None
        self._compound: dict[int, float] = {}

    def of(self, item: StockItem | None, unit: str) -> float:
        """The share that comes on top."""
        if unit == MILLILITRES:
            if self._paint is None:
                self._paint = paint_mixes.loss(self._session).value
            return self._paint
        if unit != GRAMS or (item is not None and item.kind != "compound"):
            return 0.0
        product = item.of_id if item is not None and item.of == "product" else None
        if product is None:
            return COMPOUND_LOSS
        if product not in self._compound:
            learned = mixes.loss_of(self._session, product)
            self._compound[product] = learned.value if learned.n else COMPOUND_LOSS
        return self._compound[product]


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
