"""One piece as its bench page and its card show it."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from datetime import timedelta
from typing import Any

from lamsik.core.castings.gates import when
from lamsik.core.errors import Refused
from lamsik.core.paints.roles import CLEARS
from lamsik.core.route.repaint import BARED, CAME
from lamsik.core.route.steps import COAT, Step
from lamsik.core.shapes.design import Design
from lamsik.core.tank import evaluate
from lamsik.core.tank.advice import Advice, advise
from lamsik.core.tank.certainty import certainty
from lamsik.core.tank.evaluate import Outcome, Rules
from lamsik.core.tank.mass import NOTHING, SIZED_AT, Measured, unweighed
from lamsik.core.tank.parts import STAGES
from lamsik.documents.body.document import to_design
from lamsik.store import people, pieces, routes, stores
from lamsik.store.pieces import Reading
from lamsik.store.tables import Document, Order, Piece, PieceStep, now
from lamsik.web.bodies.tank_depth import sure_words
from lamsik.web.shared.db import db
from lamsik.web.shared.schemes import scheme_said
from lamsik.words import cautions as cautions_said
from lamsik.words.paints import CHECKS
from lamsik.words.route import repaint

OF_REPAINT = {CAME: "it came", BARED: "its old paint is seen to"}
"""When what comes to be repainted is weighed."""


@dataclass(frozen=True)
class StepRow:
    """A step with what was done of it and by whom, the reading at its end, what was expected there, and what
    it is called then; what it has to wait for, and which window is over, in words.
    """

    step: Step
    here: bool
    reading: Reading | None
    expected_g: float | None
    under: Reading | None
    cautions: tuple[str, ...]
    kept: PieceStep | None = None
    by: str = ""
    not_before: str = ""
    closed: str = ""
    stage: str = ""

    @property
    def done(self) -> bool:
        """Whether it is done or left out."""
        return self.kept is not None and self.kept.done_at is not None

    @property
    def running(self) -> bool:
        """Whether it is begun and not ended."""
        return self.kept is not None and self.kept.done_at is None

    @property
    def points(self) -> tuple[tuple[str, str, bool], ...]:
        """What is ticked one by one: its key, in words, whether it is ticked."""
        ticked = set(self.kept.points) if self.kept is not None else set()
        return tuple((one, CHECKS[one], one in ticked) for one in self.step.points)

    @property
    def open_points(self) -> tuple[str, ...]:
        """What is not ticked yet, in words."""
        return tuple(says for _, says, is_ticked in self.points if not is_ticked)

    @property
    def took_min(self) -> float | None:
        """How long hands were on it [min], as typed, else from its beginning to its end; None where nobody
        noted either.
        """
        kept = self.kept
        if kept is not None and kept.hands_min is not None:
            return kept.hands_min
        if kept is None or kept.begun_at is None or kept.done_at is None:
            return None
        return (kept.done_at - kept.begun_at).total_seconds() / 60.0


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
    def repainted(self) -> str:
        """What a repaint weighed before and after, and what that changes; empty of one that is made here."""
        if not self.piece.repaint:
            return ""
        seen = {
            stage: self.readings[f"stage:{stage}"].weighing.value
            for stage in (CAME, BARED, "cleared")
            if f"stage:{stage}" in self.readings
        }
        return repaint(self.piece.repaint, seen.get(CAME), seen.get(BARED), seen.get("cleared"))

    @property
    def scheme(self) -> str:
        """The scheme on it by name, code and version; empty where none is."""
        return scheme_said(self.design)

    @property
    def clears(self) -> int:
        """How many coats of clear this piece gets."""
        return sum(layer.does == CLEARS for layer in self.design.layers)

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
    outcome = evaluate.drag(design, measured, rules)
    planned = outcome if measured == NOTHING else evaluate.drag(design, NOTHING, rules)
    return PieceView(
        piece=piece,
        row=row,
        order=db().get(Order, piece.order_id) if piece.order_id else None,
        design=design,
        planned=planned,
        outcome=outcome,
        advice=advise(design, measured, shop, rules.drag),
        rows=rows_of(
            piece,
            readings,
            lambda stage: outcome.budget.up_to(stage) if stage in STAGES else None,
            design.host.made,
        ),
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
    """The steps of a piece with what is done, nothing computed: for ticking, which holds the shop's one
    write lock.
    """
    return rows_of(piece, {})


def rows_of(
    piece: Piece,
    readings: dict[str, Reading],
    expected: Callable[[str], float | None] = lambda stage: None,
    blank: str = "made",
) -> tuple[StepRow, ...]:
    """The steps of a piece with what was done and read.

    Args:
        piece: whose they are.
        readings: what was weighed of it.
        expected: what it should weigh when a stage is done [g].
        blank: what is said of its blank, once it is made.
    """
    touched, names = routes.touched(db(), piece), people.names(db())
    step_rows: list[StepRow] = []
    current = True
    for step in routes.of(db(), piece):
        kept = touched.get(step.key)
        row = StepRow(
            step,
            current and (kept is None or kept.done_at is None),
            readings.get(f"stage:{step.weigh}") if step.weigh else None,
            expected(step.weigh) if step.weigh else None,
            readings.get(f"water:{step.weigh}"),
            cautions_said.all_of(step.cautions),
            kept,
            names.get(kept.person_id or 0, "") if kept else "",
            stage=blank if step.weigh == "carved" else OF_REPAINT.get(step.weigh or "", step.weigh or ""),
        )
        if row.here:
            row = replace(row, not_before=_wait_of(step_rows), closed=_closed_of(step_rows, step))
        step_rows.append(row)
        current = current and row.done
    return tuple(step_rows)


def _wait_of(rows: Sequence[StepRow]) -> str:
    """Until when what was done last has to be let be, in words; empty once that is over."""
    ends = [
        (row.kept.done_at + timedelta(hours=row.step.wait_h), row.step.name)
        for row in rows
        if row.kept and row.kept.done_at and not row.kept.reason and row.step.wait_h
    ]
    at, name = max(ends, default=(None, ""))
    if at is None or at <= now():
        return ""
    return f"not before {when(at.astimezone(), now().astimezone())}: {name} is not through"


def _closed_of(rows: Sequence[StepRow], step: Step) -> str:
    """Which recoat window is over before this coat goes on, in words; empty where none is."""
    last = next((row for row in reversed(rows) if row.done and not (row.kept and row.kept.reason)), None)
    if last is None or last.kept is None or last.kept.done_at is None or last.step.window_h is None:
        return ""
    over = last.kept.done_at + timedelta(hours=last.step.window_h)
    if not step.key.startswith(COAT) or over >= now():
        return ""
    when_over = when(over.astimezone(), now().astimezone())
    return f"the window of {last.step.name} closed {when_over}: scuff it dull, or the next coat peels off it"


def closed(rows: Sequence[StepRow], step: str) -> str:
    """Which recoat window is over before a step, in words; empty where none is."""
    at = [row.step.key for row in rows].index(step)
    return _closed_of(rows[:at], rows[at].step)


def waiting(rows: Sequence[StepRow], step: str) -> str:
    """What a step has to wait for, in words; empty where it may be done."""
    return _wait_of(rows[: [row.step.key for row in rows].index(step)])
