"""Pieces: making one from a design's revision, ticking steps, keeping weighings."""

from collections.abc import Sequence
from dataclasses import asdict, dataclass

from sqlmodel import Session, col, func, select

from lamsik.core.errors import Refused, require
from lamsik.core.tank.mass import SIZED_AT, Measured
from lamsik.core.tank.parts import STAGES
from lamsik.core.water import Water as CoreWater
from lamsik.core.weighing.inwater import InWater
from lamsik.store import documents, skins
from lamsik.store.search import fold, pattern
from lamsik.store.tables import Document, Instrument, Piece, Revision, StepDone, Weighing, now

STAGE, PART, WATER = "stage", "part", "water"


@dataclass(frozen=True)
class Reading:
    """A weighing with the instrument it was read on."""

    weighing: Weighing
    instrument: Instrument


def start(session: Session, design: Document, order_id: int | None = None) -> Piece:
    """A new piece of the design's current revision."""
    count = session.exec(select(func.count()).select_from(Piece)).one()
    revision = documents.revision(session, design)
    number = f"P{count + 1:04d}"
    row = Piece(number=number, design_id=design.id or 0, revision_id=revision.id or 0, order_id=order_id, search=fold(f"{number} {design.name}"))
    session.add(row)
    session.flush()
    return row


def listed(session: Session, text: str = "", order_id: int | None = None) -> Sequence[Piece]:
    """Pieces, the newest first; only those matching `text` or of an order if given."""
    query = select(Piece).where(col(Piece.deleted_at).is_(None))
    if text:
        query = query.where(col(Piece.search).like(pattern(text), escape="\\"))
    if order_id is not None:
        query = query.where(Piece.order_id == order_id)
    return session.exec(query.order_by(col(Piece.id).desc())).all()


def document_of(session: Session, piece: Piece) -> dict[str, object]:
    """The document the piece is made from."""
    row = session.get(Revision, piece.revision_id)
    assert row is not None
    skins.ready(session, [row.content])
    return row.content


def documents_of(session: Session, rows: Sequence[Piece]) -> dict[int, dict[str, object]]:
    """The documents some pieces are made from by revision, in one query."""
    wanted = {row.revision_id for row in rows}
    found = session.exec(select(Revision).where(col(Revision.id).in_(wanted))).all()
    skins.ready(session, (row.content for row in found))
    return {row.id or 0: row.content for row in found}


def done_steps(session: Session, piece: Piece) -> set[str]:
    """Keys of the steps that are ticked off."""
    return set(session.exec(select(StepDone.step).where(StepDone.piece_id == piece.id)).all())


def ticks(session: Session, piece: Piece) -> dict[str, StepDone]:
    """The steps that are ticked off or left out, with when and why."""
    return {row.step: row for row in session.exec(select(StepDone).where(StepDone.piece_id == piece.id)).all()}


def all_done_steps(session: Session) -> dict[int, set[str]]:
    """Ticked steps by piece, for lists."""
    found: dict[int, set[str]] = {}
    for piece_id, step in session.exec(select(StepDone.piece_id, StepDone.step)).all():
        found.setdefault(piece_id, set()).add(step)
    return found


def tick(session: Session, piece: Piece, step: str, done: bool, reason: str = "") -> None:
    """Tick a step off, leave it out for a reason, or take that back."""
    query = select(StepDone).where(StepDone.piece_id == piece.id, StepDone.step == step)
    row = session.exec(query).first()
    if done and row is None:
        session.add(StepDone(piece_id=piece.id or 0, step=step, reason=reason))
    if not done and row is not None:
        session.delete(row)
    session.flush()


def weigh(session: Session, piece: Piece, target: str, mass_g: float, text: str, instrument: Instrument, water: CoreWater | None = None) -> Weighing:
    """Keep a reading; one held under water (negative where it floats) with the water it was held in.

    Raises `Refused` for an unknown stage, a mass beyond the instrument's span, or a blank that would displace nothing.
    """
    kind, _, name = target.partition(":")
    if kind == WATER:
        return _hold_under(session, piece, name, mass_g, text, instrument, water)
    if kind not in (STAGE, PART) or (kind == STAGE and name not in STAGES):
        raise Refused("target", target, f"one of {', '.join(STAGES)} or a part of the piece")
    if not 0 < mass_g <= instrument.span_g:
        raise Refused("mass", text, f"{instrument.name} reads above 0 up to {instrument.span_g:g} g")
    row = Weighing(piece_id=piece.id or 0, target=target, mass_g=mass_g, text=text, instrument_id=instrument.id or 0)
    session.add(row)
    session.flush()
    return row


def _hold_under(session: Session, piece: Piece, stage: str, held_g: float, text: str, instrument: Instrument, water: CoreWater | None) -> Weighing:
    require(stage in SIZED_AT, "target", stage, f"a blank is held under when {' or '.join(SIZED_AT)}")
    require(water is not None, "water", None, "say how warm the water is")
    dry = readings(session, piece).get(f"{STAGE}:{stage}")
    if dry is None:
        raise Refused("mass", text, "weigh it in air first: the two together give its size")
    InWater(dry.weighing.mass_g, held_g, water or CoreWater())
    row = Weighing(piece_id=piece.id or 0, target=f"{WATER}:{stage}", mass_g=held_g, text=text, instrument_id=instrument.id or 0, water=asdict(water or CoreWater()))
    session.add(row)
    session.flush()
    return row


def take_back(session: Session, piece: Piece, weighing_id: int) -> None:
    """Undo a reading: it stays in the record but no longer counts."""
    row = session.get(Weighing, weighing_id)
    if row is not None and row.piece_id == piece.id:
        row.undone_at = now()
        session.add(row)


def readings(session: Session, piece: Piece) -> dict[str, Reading]:
    """The reading that counts for each target: the newest not taken back."""
    return readings_of_all(session, piece.id).get(piece.id or 0, {})


def readings_of_all(session: Session, piece_id: int | None = None) -> dict[int, dict[str, Reading]]:
    """Counting readings by piece and target."""
    query = select(Weighing, Instrument).join(Instrument).where(col(Weighing.undone_at).is_(None))
    if piece_id is not None:
        query = query.where(Weighing.piece_id == piece_id)
    found: dict[int, dict[str, Reading]] = {}
    for weighing, instrument in session.exec(query.order_by(col(Weighing.id))).all():
        found.setdefault(weighing.piece_id, {})[weighing.target] = Reading(weighing, instrument)
    return found


def measured(found: dict[str, Reading]) -> Measured:
    """The readings as the core takes them; a scale of step s errs by s/√12."""
    stages: list[tuple[str, float, float]] = []
    parts: list[tuple[str, float, float]] = []
    waters: list[tuple[str, float, float, float]] = []
    for target, reading in found.items():
        kind, _, name = target.partition(":")
        row = (name, reading.weighing.mass_g, reading.instrument.step_g / 12**0.5)
        if kind == WATER:
            waters.append((*row, CoreWater(**reading.weighing.water).density_g_cm3))
        else:
            (stages if kind == STAGE else parts).append(row)
    return Measured(tuple(stages), tuple(parts), tuple(waters))


def instruments(session: Session) -> Sequence[Instrument]:
    """The shop's scales."""
    return session.exec(select(Instrument).order_by(col(Instrument.id))).all()
