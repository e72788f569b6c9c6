"""The steps of one piece: begun, done, left out for a reason, noted, taken back; clocks of the waits."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import timedelta

from flask import Blueprint, flash, redirect, request, url_for
from flask.typing import ResponseReturnValue

from lamsik.core.errors import Refused
from lamsik.core.quantities import read_measure
from lamsik.core.route.steps import FINAL, open_before
from lamsik.core.shapes.needs import Need, missing
from lamsik.store import mixes, order_lines, pieces, rights, routes
from lamsik.store.tables import Document, Order, OrderLine, Piece, now
from lamsik.web.pieces.bench import StepRow, closed, steps_of, waiting
from lamsik.web.shared.cards import design_of
from lamsik.web.shared.db import db, load
from lamsik.web.shared.progress import waits_at

blueprint = Blueprint("pieces_steps", __name__, url_prefix="/pieces/<int:key>/steps")

LONGEST = 200
"""Letters of a reason or a note."""


@dataclass(frozen=True)
class Asks:
    """What stands against a step: what the body lacks before its first, open steps before it, a wait that
    is not over, a recoat window that is; `begins` where it was to be begun, `again` where it was asked
    already.
    """

    step: str
    needs: tuple[Need, ...]
    lacking: tuple[str, ...]
    waits: str
    closed: str = ""
    begins: bool = False
    again: bool = False


@blueprint.post("/begin")
def begin(key: int) -> ResponseReturnValue:
    """Hands are on a step from now on."""
    piece, rows, row = _sent(key)
    asked = _asked_back(piece, rows, row, begins=True)
    if asked is not None:
        return asked
    pieces.begin_step(db(), piece, row.step.key)
    _note(piece, row)
    return _to(key)


@blueprint.post("/tick")
def tick(key: int) -> ResponseReturnValue:
    """Tick a step off, or take back what was done of it.

    Steps have an order: those before it that are open are left out for a reason, or done first. One whose
    wait is not over asks. What has points, the final check or a dip, counts when each of them is ticked.
    """
    piece, rows, row = _sent(key)
    if request.form.get("done") != "1":
        pieces.take_back_step(db(), piece, row.step.key)
        mixes.stop_linked(db(), waits_at(piece, row.step.key))
        return _to(key)
    unfinished = [text for one in rows[: rows.index(row) + 1] if not one.done for text in one.open_points]
    if unfinished:
        flash(f"{piece.number} is not finished yet: {'; '.join(unfinished)}.", "refused")
        return _to(key)
    asked = _asked_back(piece, rows, row)
    if asked is not None:
        return asked
    order = db().get(Order, piece.order_id) if piece.order_id else None
    line = db().get(OrderLine, piece.line_id) if piece.line_id and row.step.of.hands_over else None
    why = order_lines.why_not(db(), line, piece.design_id) if line else ""
    painted = str(pieces.document_of(db(), piece).get("scheme") or "") if line else ""
    why_paint = rights.of_scheme(db(), painted)
    if order and (why or why_paint):
        what = f"the shape is {why}" if why else f"its scheme is {why_paint}"
        flash(f"{piece.number} does not go to {order.number}: {what}.", "refused")
        return _to(key)
    for step in open_before(routes.of(db(), piece), _ended(rows), row.step.key):
        pieces.end_step(db(), piece, step.key, reason=_typed("reason"))
    scuffed = "scuffed, its window was over" if request.form.get("scuffed") else ""
    pieces.end_step(db(), piece, row.step.key, note=_typed("without") or scuffed)
    _clocks(piece, rows, row)
    return _to(key)


@blueprint.post("/leave-out")
def leave_out(key: int) -> ResponseReturnValue:
    """A step is left out; it is said why."""
    piece, _, row = _sent(key)
    if not _typed("reason"):
        raise Refused("reason", "", "say why it is left out: it stands with the step")
    if row.step.points and row.step.kind == FINAL:
        raise Refused("step", row.step.name, "each point is ticked, or the piece is not finished")
    if row.step.of.hands_over:
        raise Refused("step", row.step.name, "what is not sent is not left out: the piece stays ready")
    pieces.end_step(db(), piece, row.step.key, reason=_typed("reason"))
    mixes.stop_linked(db(), waits_at(piece, row.step.key))
    return _to(key)


@blueprint.post("/point")
def point(key: int) -> ResponseReturnValue:
    """A point of the final checklist is seen to, on this very piece; or not after all."""
    piece, _, row = _sent(key)
    sent = request.form.get("point", "")
    if sent not in row.step.points:
        raise Refused("point", sent, "a point of this step")
    pieces.tick_point(db(), piece, row.step.key, sent, request.form.get("ticked") == "1")
    return redirect(url_for("pieces.show", key=key, _anchor=f"step-{row.step.key}"))


@blueprint.post("/note")
def note(key: int) -> ResponseReturnValue:
    """What is to be known of a step, and how long hands were on it."""
    piece, _, row = _sent(key)
    hands = read_measure(_typed("hands"), "minutes", "hands on it") if _typed("hands") else None
    pieces.note_step(db(), piece, row.step.key, _typed("note"), hands)
    return _to(key)


def _typed(name: str) -> str:
    return request.form.get(name, "").strip()[:LONGEST]


def _to(key: int) -> ResponseReturnValue:
    return redirect(url_for("pieces.show", key=key, _anchor="bench"))


def _sent(key: int) -> tuple[Piece, tuple[StepRow, ...], StepRow]:
    """The piece, its steps, and the one that the form names."""
    piece = load(Piece, key)
    rows, sent = steps_of(piece), request.form.get("step", "")
    row = next((row for row in rows if row.step.key == sent), None)
    if row is None:
        raise Refused("step", sent, "a step of this piece")
    return piece, rows, row


def _ended(rows: Sequence[StepRow]) -> set[str]:
    return {row.step.key for row in rows if row.done}


def _note(piece: Piece, row: StepRow) -> None:
    if _typed("without"):
        pieces.note_step(db(), piece, row.step.key, _typed("without"))


def _asked_back(
    piece: Piece, rows: Sequence[StepRow], row: StepRow, begins: bool = False
) -> ResponseReturnValue | None:
    """The page with what is to be answered first; None where nothing is, or all was."""
    stands = _against(piece, rows, row.step.key)
    if (
        (stands.needs and not _typed("without"))
        or (stands.lacking and not begins and not _typed("reason"))
        or (stands.waits and not request.form.get("early"))
        or (stands.closed and not request.form.get("scuffed"))
    ):
        again = "1" if request.form.get("asked") else None
        how = "1" if begins else None
        return redirect(url_for("pieces.show", key=piece.id, ask=row.step.key, begins=how, again=again))
    return None


def _against(piece: Piece, rows: Sequence[StepRow], step: str) -> Asks:
    begun = any(row.kept for row in rows if not (row.step.of.makes_body and piece.pour_id))
    is_body = db().get_one(Document, piece.design_id).kind == "body"
    needs = missing(design_of(pieces.document_of(db(), piece))) if is_body and not begun else ()
    lacking = open_before([row.step for row in rows], _ended(rows), step)
    missed = closed(rows, step)
    return Asks(step, needs, tuple(str(one.name) for one in lacking), waiting(rows, step), missed)


def asked_of(piece: Piece, rows: Sequence[StepRow], step: str) -> Asks | None:
    """What is to be answered before a step is begun or ticked; None where nothing is."""
    if step not in {row.step.key for row in rows} - _ended(rows):
        return None
    stands = _against(piece, rows, step)
    begins, again = bool(request.args.get("begins")), bool(request.args.get("again"))
    lacking = () if begins else stands.lacking
    return (
        Asks(step, stands.needs, lacking, stands.waits, stands.closed, begins, again)
        if stands.needs or lacking or stands.waits or stands.closed
        else None
    )


def _clocks(piece: Piece, rows: Sequence[StepRow], row: StepRow) -> None:
    """What waited for this step is seen to; a step with a wait of its own starts its clock."""
    for one in rows:
        mixes.stop_linked(db(), waits_at(piece, one.step.key))
    if row.step.wait_h and row is not rows[-1]:
        after = next(
            str(later.step.name) for later, before in zip(rows[1:], rows, strict=False) if before is row
        )
        mixes.start_clock(
            db(),
            f"{row.step.name}, {piece.number}: then {after.lower()}",
            "wait",
            now() + timedelta(hours=row.step.wait_h),
            waits_at(piece, row.step.key),
        )
