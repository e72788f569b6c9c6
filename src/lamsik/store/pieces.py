"""Pieces: making one from a design's revision, ticking steps, keeping weighings."""

from collections.abc import Collection, Sequence
from dataclasses import asdict, dataclass

from sqlalchemy import ColumnElement, literal_column
from sqlmodel import Session, col, func, select
from sqlmodel.sql.expression import SelectOfScalar

from lamsik.core.errors import Refused, finite_between, require
from lamsik.core.quantities import plainly
from lamsik.core.route.repaint import WEIGHED
from lamsik.core.route.steps import SHIPPED
from lamsik.core.tank.mass import SIZED_AT, Measured
from lamsik.core.tank.parts import STAGES
from lamsik.core.water import Water
from lamsik.core.weighing.inwater import InWater
from lamsik.store import documents, history, observed, order_lines, routes, stands, used
from lamsik.store.events import WHO
from lamsik.store.search import fold
from lamsik.store.stands import DONE
from lamsik.store.tables import (
    Customer,
    Document,
    Instrument,
    Observation,
    Order,
    OrderLine,
    Piece,
    PieceStep,
    Revision,
    now,
)
from lamsik.store.words import holds

STAGE, PART, WATER = "stage", "part", "water"


@dataclass(frozen=True)
class Reading:
    """A weighing with the instrument it was read on."""

    weighing: Observation
    instrument: Instrument

    @property
    def sd_g(self) -> float:
        """One-sigma uncertainty [g], as the scale was then; as it is now where that was not kept."""
        spread = self.weighing.spread
        return spread if spread is not None else observed.scale_of(self.instrument).sd_g


def start(session: Session, design: Document, line: OrderLine | None = None, repaint: str = "") -> Piece:
    """A new piece of the design's current revision, or of the one that its line froze and with the clear
    coats of the line; a `repaint` is made already, its old paint kept or stripped.
    """
    count = session.exec(select(func.count()).select_from(Piece)).one()
    revision = order_lines.made_as(session, design, line)
    number = f"P{count + 1:04d}"
    row = Piece(
        number=number,
        design_id=design.id or 0,
        revision_id=revision.id or 0,
        order_id=line.order_id if line else None,
        line_id=line.id if line else None,
        repaint=repaint,
        search=fold(f"{number} {design.name}"),
    )
    session.add(row)
    session.flush()
    routes.follow(session, row)
    stands.anew(session, row)
    return row


def listed(text: str = "", order_id: int | None = None, kind: str = "") -> SelectOfScalar[Piece]:
    """The question for pieces, the newest first; only those matching `text`, of an order or made of a kind of
    document if given.
    """
    query = select(Piece).where(col(Piece.deleted_at).is_(None))
    if kind:
        query = query.where(_made_of(kind))
    if text:
        query = query.where(holds(Piece, text))
    if order_id is not None:
        query = query.where(Piece.order_id == order_id)
    return query.order_by(col(Piece.id).desc())


MOST_HANDS_MIN = 6000.0
"""More than a week of hands on one step is a slip."""
GOING = col(Piece.stand) != literal_column(f"'{SHIPPED}'"), col(Piece.deleted_at).is_(None)
"""What is at work; said as the index of it says it."""


def going(kind: str) -> SelectOfScalar[Piece]:
    """The question for pieces made of a kind of document that are not shipped yet, the newest first."""
    return select(Piece).where(*GOING, _made_of(kind)).order_by(col(Piece.id).desc())


def _made_of(kind: str) -> ColumnElement[bool]:
    of = select(Document.id).where(Document.id == Piece.design_id, Document.kind == kind)
    return of.correlate(Piece).exists()


def count_of(session: Session, order_id: int) -> int:
    """How many pieces are made for an order."""
    return session.exec(
        select(func.count())
        .select_from(Piece)
        .where(Piece.order_id == order_id, col(Piece.deleted_at).is_(None))
    ).one()


def none_yet(session: Session) -> bool:
    """Whether no piece was ever begun."""
    return session.exec(listed().limit(1)).first() is None


def count_going(session: Session) -> int:
    """How many pieces are at work."""
    return session.exec(select(func.count()).select_from(Piece).where(*GOING)).one()


PieceLine = tuple[Piece, Order | None, Customer | None]


def due_first(session: Session, most: int) -> list[PieceLine]:
    """The first pieces at work: those of orders by their due date, then those for stock."""
    at_work = select(Piece.id).where(Piece.order_id == Order.id, *GOING).correlate(Order).exists()
    of_orders = (
        select(Order, Customer)
        .join(Customer)
        .where(col(Order.deleted_at).is_(None), col(Order.queue) < DONE, at_work)
    )
    wanted = {
        order.id: (order, customer)
        for order, customer in session.exec(of_orders.order_by(col(Order.queue)).limit(most)).all()
    }
    ordered = session.exec(
        select(Piece).where(col(Piece.order_id).in_(wanted), *GOING).order_by(col(Piece.id))
    ).all()
    lines: list[PieceLine] = [
        (piece, *wanted[piece.order_id]) for piece in ordered if piece.order_id is not None
    ]
    lines.sort(key=lambda line: (line[1].queue if line[1] else "", line[0].id))
    if len(lines) < most:
        here = (
            select(Order.id)
            .where(Order.id == Piece.order_id, col(Order.deleted_at).is_(None))
            .correlate(Piece)
            .exists()
        )
        rest = select(Piece).where(*GOING, ~here).order_by(col(Piece.id)).limit(most - len(lines))
        lines += [(piece, None, None) for piece in session.exec(rest).all()]
    return lines[:most]


def document_of(session: Session, piece: Piece) -> dict[str, object]:
    """The document the piece is made from."""
    return documents.content_at(session, piece.revision_id)


def documents_of(session: Session, rows: Sequence[Piece]) -> dict[int, dict[str, object]]:
    """The documents some pieces are made from by revision, in one query."""
    wanted = {row.revision_id for row in rows}
    revisions = session.exec(select(Revision).where(col(Revision.id).in_(wanted))).all()
    history.ready(session, revisions)
    return {row.id or 0: row.content for row in revisions}


def begin_step(session: Session, piece: Piece, step: str) -> None:
    """Hands are on a step from now on. Raises `Refused` for one that is begun or done."""
    row = routes.touched(session, piece).get(step)
    require(row is None, "step", step, "it is begun already")
    _put(session, piece, PieceStep(piece_id=piece.id or 0, step=step, begun_at=now()))


def end_step(session: Session, piece: Piece, step: str, reason: str = "", note: str = "") -> None:
    """A step is done, or left out for a reason; one that is stays so."""
    row = routes.touched(session, piece).get(step) or PieceStep(piece_id=piece.id or 0, step=step)
    if row.done_at is None:
        row.done_at, row.reason, row.note = now(), reason, note or row.note
        _put(session, piece, row)
        if not reason:
            used.by_step(session, piece, step)


def take_back_step(session: Session, piece: Piece, step: str) -> None:
    """A step was not begun, done or left out after all."""
    row = routes.touched(session, piece).get(step)
    if row is not None:
        session.delete(row)
        session.flush()
        used.unused(session, piece, step)
        stands.stepped(session, piece)


def tick_point(session: Session, piece: Piece, step: str, point: str, is_ticked: bool) -> None:
    """A point of a step's checklist is seen to, or not after all. Raises `Refused` where the step is done."""
    row = routes.touched(session, piece).get(step) or PieceStep(
        piece_id=piece.id or 0, step=step, begun_at=now()
    )
    require(row.done_at is None, "step", step, "take the step back first: it is done")
    others = [one for one in row.points if one != point]
    row.points = [*others, point] if is_ticked else others
    _put(session, piece, row)


def note_step(session: Session, piece: Piece, step: str, note: str, hands_min: float | None = None) -> None:
    """What is to be known of a step, and how long hands were on it [min] where its clock does not tell.
    Raises `Refused` for one nobody has begun, for no time and for more than a week of hands.
    """
    row = routes.touched(session, piece).get(step)
    if row is None:
        raise Refused("step", step, "begin it or tick it first: the note is kept with that")
    if hands_min is not None:
        finite_between("hands on it", hands_min, 0.1, MOST_HANDS_MIN, "min")
    row.note, row.hands_min = note, hands_min
    session.add(row)
    session.flush()


def _put(session: Session, piece: Piece, row: PieceStep) -> None:
    row.person_id = session.info.get(WHO) or row.person_id
    session.add(row)
    session.flush()
    stands.stepped(session, piece)


def weigh(
    session: Session,
    piece: Piece,
    target: str,
    mass_g: float,
    text: str,
    instrument: Instrument,
    water: Water | None = None,
) -> Observation:
    """Keep a reading; one held under water (negative where it floats) with the water it was held in.

    Raises `Refused` for an unknown stage, a mass beyond the instrument's span, or a blank that would displace
    nothing.
    """
    kind, _, name = target.partition(":")
    if kind == WATER:
        return _hold_under(session, piece, name, mass_g, text, instrument, water)
    stages = (*STAGES, *WEIGHED) if piece.repaint else STAGES
    if kind not in (STAGE, PART) or (kind == STAGE and name not in stages):
        raise Refused("target", target, f"one of {', '.join(stages)} or a part of the piece")
    if not 0 < mass_g <= instrument.span_g:
        raise Refused(
            "mass", text, f"{instrument.name} reads above 0 up to {plainly(instrument.span_g, 'mass')}"
        )
    return observed.keep(
        session, observed.PIECE, piece.id or 0, target, mass_g, text=text, instrument_id=instrument.id
    )


def _hold_under(
    session: Session,
    piece: Piece,
    stage: str,
    held_g: float,
    text: str,
    instrument: Instrument,
    water: Water | None,
) -> Observation:
    require(stage in SIZED_AT, "target", stage, f"a blank is held under when {' or '.join(SIZED_AT)}")
    require(water is not None, "water", None, "say how warm the water is")
    body = session.get_one(Document, piece.design_id).kind == "body"
    require(body, "target", stage, "of a bait: a float or a blade is held under on the Scale")
    dry = readings(session, piece).get(f"{STAGE}:{stage}")
    if dry is None:
        raise Refused("mass", text, "weigh it in air first: the two together give its size")
    InWater(dry.weighing.value, held_g, water or Water())
    return observed.keep(
        session,
        observed.PIECE,
        piece.id or 0,
        f"{WATER}:{stage}",
        held_g,
        text=text,
        instrument_id=instrument.id,
        conditions={"water": asdict(water or Water())},
    )


def take_back(session: Session, piece: Piece, weighing_id: int) -> None:
    """Undo a reading: it stays in the record but no longer counts."""
    row = session.get(Observation, weighing_id)
    if row is not None and (row.of, row.of_id) == (observed.PIECE, piece.id):
        observed.take_back(session, row)


def readings(session: Session, piece: Piece) -> dict[str, Reading]:
    """The reading that counts for each target: the newest not taken back."""
    return readings_of(session, [piece.id or 0]).get(piece.id or 0, {})


def readings_of(session: Session, ids: Collection[int]) -> dict[int, dict[str, Reading]]:
    """Counting readings of some pieces, by piece and target."""
    query = (
        select(Observation, Instrument)
        .join(Instrument)
        .where(
            Observation.of == observed.PIECE,
            col(Observation.of_id).in_(ids),
            col(Observation.undone_at).is_(None),
        )
    )
    by_piece: dict[int, dict[str, Reading]] = {}
    for weighing, instrument in session.exec(query.order_by(col(Observation.id))).all():
        by_piece.setdefault(weighing.of_id, {})[weighing.what] = Reading(weighing, instrument)
    return by_piece


def held_under(session: Session, most: int) -> Sequence[Piece]:
    """The newest pieces whose blank was weighed under water too."""
    query = select(Piece).where(
        col(Piece.id).in_(
            select(Observation.of_id).where(
                literal_column("what LIKE 'water:%'"),
                Observation.of == observed.PIECE,
                col(Observation.undone_at).is_(None),
            )
        )
    )
    return session.exec(query.order_by(col(Piece.id).desc()).limit(most)).all()


def measured(weighed: dict[str, Reading]) -> Measured:
    """The readings as the core takes them, each with how far it may be off."""
    stages: list[tuple[str, float, float]] = []
    parts: list[tuple[str, float, float]] = []
    waters: list[tuple[str, float, float, float]] = []
    for target, reading in weighed.items():
        kind, _, name = target.partition(":")
        row = (name, reading.weighing.value, reading.sd_g)
        if kind == WATER:
            waters.append((*row, Water(**reading.weighing.conditions["water"]).density_g_cm3))
        elif name not in WEIGHED:
            (stages if kind == STAGE else parts).append(row)
    return Measured(tuple(stages), tuple(parts), tuple(waters))


def instruments(session: Session) -> Sequence[Instrument]:
    """The shop's scales."""
    return session.exec(select(Instrument).order_by(col(Instrument.id))).all()
