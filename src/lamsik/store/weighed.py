"""Everything weighed by itself: rows to the core's values and back."""

from collections.abc import Sequence
from dataclasses import asdict

from sqlalchemy import String, cast, or_
from sqlmodel import Session, col, select
from sqlmodel.sql.expression import SelectOfScalar

from lamsik.core.water import Water
from lamsik.core.weighing.instrument import Scale
from lamsik.core.weighing.inwater import InWater, line_ml, with_sinker, without_line
from lamsik.store.search import fold, pattern
from lamsik.store.tables import Instrument, Weighed

KINDS = ("bait", "float", "hardware", "sinker", "blank", "other")
STAGES = ("bare", "painted", "varnished")


def listed(text: str = "", kind: str = "") -> SelectOfScalar[Weighed]:
    """Weighed things, the newest first."""
    query = select(Weighed).where(col(Weighed.deleted_at).is_(None))
    if text:
        query = query.where(col(Weighed.search).like(pattern(text), escape="\\"))
    if kind:
        query = query.where(Weighed.kind == kind)
    return query.order_by(col(Weighed.id).desc())


def sized(session: Session, most: int) -> list[Weighed]:
    """The newest things whose size was weighed in water."""
    told = or_(col(Weighed.water_g).is_not(None), col(Weighed.both_g).is_not(None))
    return [row for row in session.exec(listed().where(told).limit(most)).all() if thing_of(session, row)]


def partners(session: Session, row: Weighed, most: int) -> Sequence[Weighed]:
    """The newest things that go with this one: what a float with marks bears, or the floats that would
    bear it.
    """
    marked = cast(col(Weighed.marks), String) != "[]"
    fits = ~marked if row.marks else or_(marked, col(Weighed.kind) == "float")
    return session.exec(listed().where(fits, Weighed.id != row.id).limit(most)).all()


def keep(session: Session, row: Weighed) -> Weighed:
    """Keep a weighed thing, findable by its name and note."""
    row.search = fold(f"{row.name} {row.kind} {row.note}")
    session.add(row)
    session.flush()
    return row


def water_of(row: Weighed) -> Water:
    """The water it was weighed in."""
    return Water(**row.water) if row.water else Water()


def water_row(water: Water) -> dict[str, object]:
    """A water as a row keeps it."""
    return asdict(water)


def scale_of(instrument: Instrument | None) -> Scale:
    """The instrument as the core knows it; an unknown one reads to a tenth of a gram."""
    if instrument is None:
        return Scale("a scale", 0.1, 1e5)
    return Scale(
        instrument.name,
        instrument.step_g,
        instrument.span_g,
        instrument.spread_g,
        instrument.checked_on,
        instrument.checked_g,
    )


def in_water_g(row: Weighed) -> float | None:
    """What it weighs in water [g], by itself or with a sinker, the line's lift added back; None if it was
    not weighed in water.
    """
    plain = (
        with_sinker(row.both_g, row.sinker_g)
        if row.both_g is not None and row.sinker_g is not None
        else row.water_g
    )
    if plain is None:
        return None
    return (
        without_line(plain, line_ml(row.line_mm, row.line_under_mm), water_of(row))
        if row.line_mm and row.line_under_mm
        else plain
    )


def thing_of(session: Session, row: Weighed) -> InWater | None:
    """The thing as the core computes with it; None until it was weighed in air and in water."""
    wet = in_water_g(row)
    if row.air_g is None or wet is None:
        return None
    sd = scale_of(session.get(Instrument, row.instrument_id) if row.instrument_id else None).sd_g
    both = sd * 2**0.5 if row.both_g is not None else sd
    return InWater(row.air_g, wet, water_of(row), sd, both)
