"""What is reserved, told from what is agreed and not made yet; and what is short of it."""

from collections import Counter
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

from sqlmodel import Session, col, func, select

from lamsik.core.orders.lines import FLOATS, LINE_KINDS, MADE
from lamsik.core.stock.kinds import GRAMS, MILLILITRES
from lamsik.core.stock.needs import PACK
from lamsik.core.stock.short import Claim, StockStand
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

    claims: Mapping[int, tuple[Claim, ...]]
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


def _begun(session: Session, ids: Collection[int]) -> dict[int, dict[int, int]]:
    """By line: how many pieces are begun for it, by the revision they are made from."""
    query = (
        select(Piece.line_id, Piece.revision_id, func.count())
        .where(col(Piece.line_id).in_(ids), col(Piece.deleted_at).is_(None))
        .group_by(col(Piece.line_id), col(Piece.revision_id))
    )
    of: dict[int, dict[int, int]] = {key: {} for key in ids}
    for line, revision, many in session.exec(query).all():
        of[line or 0][revision] = many
    return of


def _ended(session: Session, ids: Collection[int], steps: Collection[str]) -> dict[tuple[int, int, str], int]:
    """By line, revision and step, of these: on how many pieces it is done, or left out. The steps of a piece
    come as one text: a row for each of them would be most of what this costs.
    """
    done = (
        select(func.group_concat(PieceStep.step, BETWEEN))
        .where(col(PieceStep.piece_id) == Piece.id, col(PieceStep.done_at).is_not(None))
        .correlate(Piece)
        .scalar_subquery()
    )
    query = select(Piece.line_id, Piece.revision_id, done).where(
        col(Piece.line_id).in_(ids), col(Piece.deleted_at).is_(None)
    )
    ended: dict[tuple[int, int, str], int] = {}
    for (line, revision, joined), many in Counter(session.exec(query).all()).items():
        for step in (joined or "").split(BETWEEN):
            if step in steps:
                key = line or 0, revision, step
                ended[key] = ended.get(key, 0) + many
    return ended


@dataclass(frozen=True)
class _NeedOf:
    """A need with its item looked up once for all lines: where there is none, by name and unit."""

    need: PieceNeed
    step: str
    item: int
    unknown: tuple[str, str]
    amount: float


class _Claimed:
    """What is claimed so far: by item, and by name and unit of what is no item."""

    def __init__(self, session: Session, items: needs.Resolved) -> None:
        self.items = items
        self.by_item: dict[int, list[Claim]] = {}
        self.unknown: dict[tuple[str, str], list[Claim]] = {}
        self.beside = [(key, one.each_piece) for key, one in self.items.by_id.items() if one.each_piece > 0]
        self._loss = Losses(session)

    def told(self, of: Sequence[PieceNeed], swaps: Mapping[str, int]) -> list[_NeedOf]:
        """Needs with the items that are taken for them."""
        rows = []
        for need in of:
            item = self.items.taken(swaps, need)
            amount = need.amount if item is None or item.unit == need.unit else 1.0
            amount *= 1.0 + self._loss.of(item, need.unit)
            key = item.id or 0 if item is not None else 0
            rows.append(_NeedOf(need, need.step, key, (need.name, need.unit), amount))
        return rows

    def add(self, line: int, one: _NeedOf, many: int) -> None:
        """A line claims so many times a need."""
        of = self.by_item.setdefault(one.item, []) if one.item else self.unknown.setdefault(one.unknown, [])
        _add(of, line, one.amount * many)


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
    claimed, undrawn = _Claimed(session, items or needs.resolved(session)), []
    ids = [row.key for row in rows]
    revisions, begun = _revisions(session, rows), _begun(session, ids)
    wanted = {one for one in revisions.values() if one} | {one for of in begun.values() for one in of}
    known = needs.known(session, wanted)
    ended = _ended(session, ids, {PACK} | {need.step for of in known.values() for need in of})
    told = {key: claimed.told(of, {}) for key, of in known.items()}
    for row in rows:
        key = row.key
        mine, drawn = begun[key], revisions[key]
        already = sum(mine.values())
        more = max(row.wanted - already, 0)
        if drawn not in known and more:
            undrawn.append(key)
        for revision in {drawn, *mine}:
            for one in _of_line(session, claimed, row, known, told, revision):
                left = mine.get(revision, 0) - ended.get((key, revision, one.step), 0)
                claimed.add(key, one, left + (more if revision == drawn else 0))
        packed = sum(ended.get((key, revision, PACK), 0) for revision in mine)
        for item, each in claimed.beside:
            _add(claimed.by_item.setdefault(item, []), key, (more + already - packed) * each)
    return Reserved(
        {item: tuple(of_item) for item, of_item in claimed.by_item.items()},
        tuple(
            Lacking(name, sum(one.amount for one in of_name), unit, tuple(one.line for one in of_name))
            for (name, unit), of_name in claimed.unknown.items()
            if of_name
        ),
        {row.key: row for row in rows},
        tuple(undrawn),
        frozenset(wanted - known.keys()),
    )


def _of_line(
    session: Session,
    claimed: _Claimed,
    row: OpenLine,
    known: Mapping[int, Sequence[PieceNeed]],
    told: Mapping[int, Sequence[_NeedOf]],
    revision: int,
) -> Sequence[_NeedOf]:
    """What a line takes of a revision: with its stand-ins, and of work on what is made already its own steps
    alone.
    """
    if row.kind in (MADE, FLOATS) and not row.swaps:
        return told.get(revision, ())
    return claimed.told(_of_work(session, row, known.get(revision, ())), row.swaps)


def _of_work(session: Session, row: OpenLine, of_line: Sequence[PieceNeed]) -> Sequence[PieceNeed]:
    """What a line's own steps take: of what is made already and only worked on, of those alone."""
    if row.kind in (MADE, FLOATS):
        return of_line
    steps = {step.key for step in promises.route_of(session, session.get_one(OrderLine, row.key))}
    return [need for need in of_line if need.step in steps]


def _add(of: list[Claim], line: int, amount: float) -> None:
    """A line claims once: what more it takes is put to that."""
    if amount <= 0:
        return
    if of and of[-1].line == line:
        amount += of.pop().amount
    of.append(Claim(line, amount))


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


def stood(
    session: Session, claims: Mapping[int, tuple[Claim, ...]], ids: Collection[int]
) -> dict[int, StockStand]:
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
        key: StockStand(sums.get(key, (0.0, 0))[0], key in sums, claims.get(key, ()), minimum.get(key) or 0.0)
        for key in ids
    }
