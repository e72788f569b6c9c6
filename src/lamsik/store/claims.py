"""What pieces still take: by steps that are still to be done, of the items that are taken for it."""

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray
from sqlalchemy import ColumnElement
from sqlmodel import Session, case, col, func, select
from sqlmodel.sql.expression import Select

from lamsik.core.route.steps import SHIPPED
from lamsik.core.stock.kinds import GRAMS, MILLILITRES
from lamsik.core.stock.needs import PACK
from lamsik.store import mixes, needs, paint_mixes
from lamsik.store.tables import Piece, PieceNeed, PieceStep, StockItem

BETWEEN = "\x1f"
"""What stands between steps that come as one text; no step is called so."""
ALL = "\x1e"
"""What stands in the place of the steps where all are done."""
COMPOUND_LOSS = 0.1
"""What stays in cup and mould of what is mixed, until a product's own batches taught it (a guess)."""


@dataclass(frozen=True, slots=True)
class PiecesAlike:
    """Pieces of a line that stand alike: of which revision, how many, which of their steps are done or left
    out (all of them where that is None).
    """

    revision: int
    many: int
    ended: frozenset[str] | None


def ended_steps() -> ColumnElement[str]:
    """The steps of a piece that are done or left out, as one text: a row for each of them would be
    most of what a page costs. Of what is shipped all are done.
    """
    done = (
        select(func.group_concat(PieceStep.step, BETWEEN))
        .where(col(PieceStep.piece_id) == Piece.id, col(PieceStep.done_at).is_not(None))
        .correlate(Piece)
        .scalar_subquery()
    )
    return case((col(Piece.stand) == SHIPPED, ALL), else_=func.coalesce(done, ""))


Of = TypeVar("Of")


def pieces_alike(session: Session, query: Select[Of, int, str]) -> Iterator[tuple[Of, PiecesAlike]]:
    """Pieces that stand alike, of what is asked: by what, of which revision, their `ended_steps`."""
    for (of, revision, text), many in Counter(session.exec(query).all()).items():
        yield of, PiecesAlike(revision, many, None if text == ALL else frozenset(text.split(BETWEEN)))


class Left:
    """On how many pieces each step is still to be done: by revision, of each step that takes something, by
    line; and how many are still to be packed.
    """

    def __init__(self, known: Mapping[int, Sequence[PieceNeed]], lines: int) -> None:
        self.steps = {key: list(dict.fromkeys(need.step for need in of)) for key, of in known.items()}
        self.pieces = {key: np.zeros((len(of), lines)) for key, of in self.steps.items()}
        self.unpacked = np.zeros(lines)
        self._open: dict[tuple[int, frozenset[str]], NDArray[np.bool_]] = {}

    def line(self, line: int, wanted: int, drawn: int, begun: Sequence[PiecesAlike]) -> bool:
        """A line that wants so many pieces of this revision, with those that are begun for it. False where
        more of it are to be begun and nothing is known of what they take.
        """
        more = max(wanted - sum(one.many for one in begun), 0)
        self.add(line, PiecesAlike(drawn, more, frozenset()), *begun)
        return drawn in self.pieces or not more

    def add(self, line: int, *pieces: PiecesAlike) -> None:
        """So many more pieces of a line."""
        for one in pieces:
            if one.many and one.ended is not None:
                self.unpacked[line] += 0 if PACK in one.ended else one.many
                if one.revision in self.pieces:
                    self.pieces[one.revision][self._still(one.revision, one.ended), line] += one.many

    def _still(self, revision: int, ended: frozenset[str]) -> NDArray[np.bool_]:
        key = revision, ended
        if key not in self._open:
            self._open[key] = np.array([step not in ended for step in self.steps[revision]], bool)
        return self._open[key]

    def of(self, revision: int, step: str) -> NDArray[np.float64]:
        """Of a step, by line."""
        of: NDArray[np.float64] = self.pieces[revision][self.steps[revision].index(step)]
        return of


class Claimed:
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

    def needed(
        self, known: Mapping[int, Sequence[PieceNeed]], left: Left, lines: NDArray[np.bool_] | float = 1.0
    ) -> None:
        """Lines, these or all, claim what their revisions need: a need for all of them at once."""
        for revision, of in known.items():
            for need in of:
                self.add(need, {}, left.of(revision, need.step) * lines)

    def beside(self, left: Left) -> None:
        """Lines claim what goes with each piece when it is packed."""
        for key, item in self.items.by_id.items():
            if item.each_piece > 0:
                self.put(key, left.unpacked * item.each_piece)

    def put(self, item: int, amounts: NDArray[np.float64]) -> None:
        """Lines claim so much more of an item."""
        self.by_item[item] = self.by_item.get(item, 0.0) + amounts


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
