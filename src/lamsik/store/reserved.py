"""What is reserved, told from what is agreed and not made yet; and what is short of it."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field

from sqlmodel import Session, col, func, select

from lamsik.core.orders.lines import FLOATS, MADE
from lamsik.core.stock.kinds import GRAMS, MILLILITRES
from lamsik.core.stock.needs import PACK
from lamsik.core.stock.short import Claim, StockStand
from lamsik.store import ledger, needs, paint_mixes, promises, routes, stands
from lamsik.store.needs import Resolved
from lamsik.store.stands import DONE
from lamsik.store.tables import (
    Document,
    Movement,
    Order,
    OrderLine,
    Piece,
    PieceNeed,
    Revision,
    StockItem,
)

MOST_LINES = 2000
COMPOUND_LOSS = 0.1
"""What stays in cup and mould of what is mixed, until a product's own is known (a guess)."""


@dataclass(frozen=True)
class Lacking:
    """Something that is taken and no item of the stores: its name, how much of it, for which lines."""

    name: str
    amount: float
    unit: str
    lines: tuple[int, ...]


@dataclass(frozen=True)
class Reserved:
    """What open lines take: claims by item, what the stores do not know, the lines and their orders, the
    lines of which nothing is known yet, the revisions whose needs are not kept yet.
    """

    claims: Mapping[int, tuple[Claim, ...]]
    unknown: tuple[Lacking, ...]
    lines: Mapping[int, tuple[Order, OrderLine]]
    undrawn: tuple[int, ...]
    untold: frozenset[int] = frozenset()


def open_lines(session: Session, ids: Collection[int] | None = None) -> list[tuple[Order, OrderLine]]:
    """The lines that are agreed and not shipped, the first due in front."""
    query = (
        select(Order, OrderLine)
        .join(OrderLine)
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
    return [(order, row) for order, row in rows if stands.as_line(row).of.of]


def untold(session: Session, rows: Sequence[tuple[Order, OrderLine]]) -> frozenset[int]:
    """The revisions of these lines and their pieces whose needs are not kept yet."""
    return reserved(session, rows).untold


def _revisions(session: Session, rows: Sequence[tuple[Order, OrderLine]]) -> dict[int, int]:
    """The revision that each line is made from: as agreed, or as drawn now; 0 where nothing is drawn."""
    drawn = {row.design_id or row.like_id for _, row in rows if not row.revision_id} - {None}
    current = dict(
        session.exec(
            select(Revision.document_id, Revision.id)
            .join(
                Document,
                (col(Revision.document_id) == Document.id) & (col(Revision.number) == Document.current),
            )
            .where(col(Document.id).in_(drawn))
        ).all()
    )
    return {
        row.id or 0: row.revision_id or current.get(row.design_id or row.like_id or 0) or 0 for _, row in rows
    }


def _pieces(session: Session, rows: Sequence[tuple[Order, OrderLine]]) -> dict[int, list[Piece]]:
    of: dict[int, list[Piece]] = {row.id or 0: [] for _, row in rows}
    query = select(Piece).where(col(Piece.line_id).in_(of), col(Piece.deleted_at).is_(None))
    for piece in session.exec(query).all():
        of[piece.line_id or 0].append(piece)
    return of


@dataclass
class _Claimed:
    """What is claimed so far: by item, and by name and unit of what is no item."""

    items: Resolved
    loss: "Losses"
    by_item: dict[int, list[Claim]] = field(default_factory=dict)
    unknown: dict[tuple[str, str], list[Claim]] = field(default_factory=dict)


def reserved(session: Session, rows: Sequence[tuple[Order, OrderLine]] | None = None) -> Reserved:
    """What open lines still take: of pieces that are begun what their steps have not taken, of the others
    all. Needs that were never told are not there: see `untold`.
    """
    rows = open_lines(session) if rows is None else rows
    claimed = _Claimed(needs.resolved(session), Losses(session))
    revisions, pieces = _revisions(session, rows), _pieces(session, rows)
    begun = [piece for of_line in pieces.values() for piece in of_line]
    ended = routes.ended(session, begun)
    wanted = {one for one in revisions.values() if one} | {piece.revision_id for piece in begun}
    known = needs.known(session, wanted)
    undrawn = []
    for _, row in rows:
        key = row.id or 0
        more = max(stands.as_line(row).wanted - len(pieces[key]), 0)
        if revisions[key] not in known and more:
            undrawn.append(key)
        of_line = _of_work(session, row, known.get(revisions[key], []))
        _claim(claimed, row, [(need, more) for need in of_line])
        for piece in pieces[key]:
            its = _of_work(session, row, known.get(piece.revision_id, of_line))
            _claim(claimed, row, [(need, 1) for need in its if need.step not in ended[piece.id or 0]])
        packed = sum(PACK in ended[piece.id or 0] for piece in pieces[key])
        _claim_beside(claimed, row, more + len(pieces[key]) - packed)
    return Reserved(
        {item: tuple(of_item) for item, of_item in claimed.by_item.items()},
        tuple(
            Lacking(name, sum(one.amount for one in of_name), unit, tuple(one.line for one in of_name))
            for (name, unit), of_name in claimed.unknown.items()
            if of_name
        ),
        {row.id or 0: (order, row) for order, row in rows},
        tuple(undrawn),
        frozenset(wanted - known.keys()),
    )


def _claim_beside(claimed: _Claimed, row: OrderLine, pieces: int) -> None:
    """What goes with every piece, whatever it is: its box, its card."""
    for key, item in claimed.items.by_id.items():
        _add(claimed.by_item.setdefault(key, []), row.id or 0, pieces * item.each_piece)


def _of_work(session: Session, row: OrderLine, of_line: Sequence[PieceNeed]) -> Sequence[PieceNeed]:
    """What a line's own steps take: of what is made already and only worked on, of those alone."""
    if row.kind in (MADE, FLOATS):
        return of_line
    steps = {step.key for step in promises.route_of(session, row)}
    return [need for need in of_line if need.step in steps]


def _claim(claimed: _Claimed, row: OrderLine, counts: Sequence[tuple[PieceNeed, int]]) -> None:
    for need, many in counts:
        item = claimed.items.for_line(row, need)
        amount = need.amount * many * (1.0 + claimed.loss.of(item, need.unit))
        if item is None:
            _add(claimed.unknown.setdefault((need.name, need.unit), []), row.id or 0, amount)
        else:
            of_item = claimed.by_item.setdefault(item.id or 0, [])
            _add(of_item, row.id or 0, amount if item.unit == need.unit else many)


def _add(of: list[Claim], line: int, amount: float) -> None:
    """A line claims once: what more it takes is put to that."""
    if amount <= 0:
        return
    if of and of[-1].line == line:
        amount += of.pop().amount
    of.append(Claim(line, amount))


class Losses:
    """What is lost of what is mixed: paint in cup and brush as the shop's mixes taught."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._paint: float | None = None

    def of(self, item: StockItem | None, unit: str) -> float:
        """The share that comes on top."""
        if unit == MILLILITRES:
            if self._paint is None:
                self._paint = paint_mixes.loss(self._session).value
            return self._paint
        return COMPOUND_LOSS if unit == GRAMS and (item is None or item.kind == "compound") else 0.0


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
