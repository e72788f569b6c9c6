"""Pots of paint as what a mix draws from: by the gram, as a scale shows it; a pot is counted in ml."""

from dataclasses import dataclass, replace

from sqlmodel import Session

from lamsik.core.errors import finite_between
from lamsik.core.mixes.tubs import drawn
from lamsik.core.paints.shelf import MOST_ML, Pot, ShelfPaint
from lamsik.documents.paints.document import to_paint
from lamsik.documents.values import row_of
from lamsik.store import documents, paint_stock
from lamsik.store.ledger import Cause
from lamsik.store.tables import Document, StockItem, StockLot

PAINT = "paint"


@dataclass(frozen=True)
class PotOfPart:
    """A pot that a part of a mix may come from: code of its paint and its key, its lot, what is left [g]."""

    code: str
    key: str
    part: str
    lot: str
    left: float

    @property
    def mark(self) -> str:
        """What a line of a batch keeps of it."""
        return f"{self.code}:{self.key}"


def of_part(session: Session, code: str, part: str) -> list[PotOfPart] | None:
    """The pots of a paint, the fullest first; None where none is counted, or there is no such paint."""
    row = documents.coded(session, PAINT, code)
    paint = to_paint(documents.content(session, row)) if row is not None else None
    if paint is None or not paint.pots:
        return None
    pots = sorted(paint.pots, key=lambda pot: -pot.left_ml)
    return [PotOfPart(code, pot.key, part, pot.lot, pot.left_ml * paint.wet_g_cm3) for pot in pots]


def draw(session: Session, pot: PotOfPart, grams: float, cause: Cause) -> None:
    """Take grams out of a pot. Raises `Refused` instead of going below nothing."""
    _leave(session, pot.mark, drawn(pot.left, grams, f"{pot.part}, lot {pot.lot}") - pot.left, cause)


def give_back(session: Session, mark: str, grams: float, cause: Cause) -> None:
    """Put grams back in a pot; of a pot that is gone nothing is put back."""
    _leave(session, mark, grams, cause)


def _leave(session: Session, mark: str, more_g: float, cause: Cause) -> None:
    code, _, key = mark.rpartition(":")
    row: Document | None = documents.coded(session, PAINT, code)
    if row is None:
        return
    paint: ShelfPaint = to_paint(documents.content(session, row))
    there = next((pot.left_ml for pot in paint.pots if pot.key == key), 0.0)
    says = "drawn for a mix" if more_g < 0 else "put back from a mix"
    with paint_stock.because(session, cause):
        _hold(session, row, key, there + more_g / paint.wet_g_cm3, says)


def count(session: Session, item: StockItem, lot: StockLot, left_ml: float) -> None:
    """A pot was counted: so much is in it, in its paint and in the ledger. Raises `Refused` for more than a
    pot holds.
    """
    finite_between("how much is there", left_ml, 0.0, MOST_ML, "ml")
    _hold(session, session.get_one(Document, item.of_id), lot.part, left_ml, "counted")


def _hold(session: Session, row: Document, key: str, left_ml: float, says: str) -> None:
    """Keep what a pot holds now; what was typed of it stands no longer."""
    content = documents.content(session, row)
    pots: tuple[Pot, ...] = tuple(
        replace(pot, left_ml=max(round(left_ml, 4), 0.0)) if pot.key == key else pot
        for pot in to_paint(content).pots
    )
    typed = {path: text for path, text in content["typed"].items() if path != f"pots.{key}.left_ml"}
    documents.save(session, row, {**content, "pots": row_of(pots), "typed": typed}, row.current, says)
