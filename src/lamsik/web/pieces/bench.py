"""One piece as its bench page and its card show it."""

from dataclasses import dataclass
from typing import Any

from lamsik.core.errors import Refused
from lamsik.core.route.steps import Step, steps, warnings
from lamsik.core.shapes.design import Design
from lamsik.core.tank import evaluate
from lamsik.core.tank.advice import Advice, advise
from lamsik.core.tank.certainty import certainty
from lamsik.core.tank.evaluate import Outcome, Rules
from lamsik.core.tank.mass import NOTHING, Measured, unweighed
from lamsik.formats.body_document import to_design
from lamsik.store import pieces, stores
from lamsik.store.pieces import Reading
from lamsik.store.tables import Document, Order, Piece
from lamsik.web.shared.db import db
from lamsik.web.tank.depth import sure_words


@dataclass(frozen=True)
class StepRow:
    """A step with whether it is done, the reading at its end and what was expected there."""

    step: Step
    done: bool
    here: bool
    reading: Reading | None
    expected_g: float | None
    cautions: tuple[str, ...]


@dataclass(frozen=True)
class PieceView:
    """Everything the bench page and the card show of one piece."""

    piece: Piece
    row: Document
    order: Order | None
    design: Design
    planned: Outcome
    outcome: Outcome
    advice: Advice
    rows: tuple[StepRow, ...]
    readings: dict[str, Reading]
    measured: Measured
    sure: str

    @property
    def next_step(self) -> Step | None:
        """The first step that is not done."""
        return next((row.step for row in self.rows if not row.done), None)

    @property
    def unweighed(self) -> tuple[Any, ...]:
        """Parts no scale has seen."""
        return unweighed(self.outcome.budget.parts)


def view(piece: Piece) -> PieceView:
    """The piece with its weighings put in place of what was assumed."""
    row = db().get(Document, piece.design_id)
    assert row is not None
    design = to_design(dict(pieces.document_of(db(), piece)))
    readings = pieces.readings(db(), piece)
    measured = pieces.measured(readings)
    rules, shop = stores.rules(db()), stores.bench(db())
    planned, outcome = evaluate.drag(design, NOTHING, rules), evaluate.drag(design, measured, rules)
    return PieceView(
        piece=piece,
        row=row,
        order=db().get(Order, piece.order_id) if piece.order_id else None,
        design=design,
        planned=planned,
        outcome=outcome,
        advice=advise(design, measured, shop, rules.drag),
        rows=_rows(design, outcome, readings, pieces.done_steps(db(), piece)),
        readings=readings,
        measured=measured,
        sure=_sure(design, measured, rules),
    )


def _sure(design: Design, measured: Measured, rules: Rules) -> str:
    """How likely this piece does what is wanted, as far as the scale has seen it; empty where the want itself cannot be."""
    try:
        return sure_words(certainty(design, measured, rules.drag, rules.bands), "pieces weighed like this one")
    except Refused:
        return ""


def _rows(design: Design, outcome: Outcome, readings: dict[str, Reading], done: set[str]) -> tuple[StepRow, ...]:
    found, current = [], True
    for step in steps(design):
        is_done = step.key in done
        reading = readings.get(f"stage:{step.weigh}") if step.weigh else None
        expected = outcome.budget.up_to(step.weigh) if step.weigh else None
        found.append(StepRow(step, is_done, current and not is_done, reading, expected, warnings(step)))
        current = current and is_done
    return tuple(found)
