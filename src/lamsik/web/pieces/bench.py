"""One piece as its bench page and its card show it."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import Any

from lamsik.core.castings.gates import when
from lamsik.core.errors import Refused
from lamsik.core.route.steps import Step, steps, warnings
from lamsik.core.shapes.design import Design
from lamsik.core.tank import evaluate
from lamsik.core.tank.advice import Advice, advise
from lamsik.core.tank.certainty import certainty
from lamsik.core.tank.evaluate import Outcome, Rules
from lamsik.core.tank.mass import NOTHING, SIZED_AT, Measured, unweighed
from lamsik.documents.body.document import to_design
from lamsik.store import pieces, stores
from lamsik.store.pieces import Reading
from lamsik.store.tables import Document, Order, Piece, StepDone, now
from lamsik.web.bodies.tank_depth import sure_words
from lamsik.web.shared.cards import design_of
from lamsik.web.shared.db import db


@dataclass(frozen=True)
class StepRow:
    """A step with whether it is done, the reading at its end and what was expected there."""

    step: Step
    done: bool
    here: bool
    reading: Reading | None
    expected_g: float | None
    under: Reading | None
    cautions: tuple[str, ...]
    done_at: datetime | None = None
    reason: str = ""
    not_before: str = ""


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
        rows=_rows(design, outcome, readings, pieces.ticks(db(), piece)),
        readings=readings,
        measured=measured,
        sure=_sure(design, measured, rules),
    )


def _sure(design: Design, measured: Measured, rules: Rules) -> str:
    """How likely this piece does what is wanted, as far as the scale has seen it; empty where the want
    itself cannot be.
    """
    fitted = any(name not in SIZED_AT for name, _, _ in measured.stages)
    try:
        chances = certainty(
            design, measured, rules.drag, rules.bands, face_mm=rules.face_mm(design.host.construction)
        )
        return sure_words(
            replace(chances, better=()) if fitted else chances, "pieces weighed like this one"
        )  # the ballast is in: nothing is fitted to it any more
    except Refused:
        return ""


def steps_of(piece: Piece) -> tuple[StepRow, ...]:
    """The steps of a piece with what is ticked, nothing computed: for ticking, which holds the shop's one
    write lock.
    """
    return _rows(design_of(pieces.document_of(db(), piece)), None, {}, pieces.ticks(db(), piece))


def _rows(
    design: Design, outcome: Outcome | None, readings: dict[str, Reading], ticks: dict[str, StepDone]
) -> tuple[StepRow, ...]:
    step_rows: list[StepRow] = []
    current = True
    for step in steps(design):
        tick = ticks.get(step.key)
        reading = readings.get(f"stage:{step.weigh}") if step.weigh else None
        expected = outcome.budget.up_to(step.weigh) if step.weigh and outcome else None
        row = StepRow(
            step,
            tick is not None,
            current and tick is None,
            reading,
            expected,
            readings.get(f"water:{step.weigh}"),
            warnings(step),
        )
        if tick is not None:
            row = replace(row, done_at=tick.done_at, reason=tick.reason)
        elif row.here:
            row = replace(row, not_before=_wait_of(step_rows))
        step_rows.append(row)
        current = current and tick is not None
    return tuple(step_rows)


def _wait_of(rows: Sequence[StepRow]) -> str:
    """Until when what was done last has to be let be, in words; empty once that is over."""
    ends = [
        (row.done_at + timedelta(hours=row.step.wait_h), row.step.name)
        for row in rows
        if row.done_at and not row.reason and row.step.wait_h
    ]
    at, name = max(ends, default=(None, ""))
    if at is None or at <= now():
        return ""
    return f"not before {when(at.astimezone(), now().astimezone())}: {name} is not through"


def waiting(rows: Sequence[StepRow], step: str) -> str:
    """What a step has to wait for, in words; empty where it may be done."""
    return _wait_of(rows[: [row.step.key for row in rows].index(step)])


def waits_at(piece: Piece, step: str) -> str:
    """Where the clock of a step's wait leads: it is known by that."""
    return f"/pieces/{piece.id}#step-{step.replace(':', '-')}"
