"""Everything weighed by itself: a thing and what was read of it, as the core's values and back."""

from collections.abc import Sequence
from dataclasses import asdict, dataclass, field
from datetime import datetime
from typing import Any

from sqlalchemy import ColumnElement, or_
from sqlmodel import Session, col, select
from sqlmodel.sql.expression import SelectOfScalar

from lamsik.core.water import Water
from lamsik.core.weighing.instrument import Scale
from lamsik.core.weighing.inwater import InWater, line_ml, with_sinker, without_line
from lamsik.store import observed
from lamsik.store.search import fold, pattern
from lamsik.store.tables import Instrument, Observation, WeighedThing, now

KINDS = ("bait", "float", "hardware", "sinker", "blank", "other")
STAGES = ("bare", "painted", "varnished")
MASSES, MARK = ("air", "water", "sinker", "both"), "mark:"
"""What is read of a thing, and of a float pulled down to one of its marks."""


@dataclass(frozen=True)
class Weighed:
    """A thing with what was read of it, on which scale, in which water, when.

    A floater is held under by a sinker: `sinker_g` is the sinker alone in water, `both_g` with the floater on
    it. `marks` are the readings with a float pulled down to each, lowest first. `line_mm` and `line_under_mm`
    are the line it hung on and how much of it was under. `sd_g` is how far one reading may be off [g].
    """

    name: str
    kind: str = "other"
    air_g: float | None = None
    water_g: float | None = None
    sinker_g: float | None = None
    both_g: float | None = None
    marks: tuple[tuple[str, float], ...] = ()
    water: Water = field(default_factory=Water)
    line_mm: float = 0.0
    line_under_mm: float = 0.0
    stage: str = ""
    float_id: int | None = None
    instrument_id: int | None = None
    sd_g: float | None = None
    at: datetime = field(default_factory=now)
    note: str = ""
    source: dict[str, Any] = field(default_factory=dict)
    typed: dict[str, str] = field(default_factory=dict)
    id: int = 0

    @property
    def in_water_g(self) -> float | None:
        """What it weighs in water [g], by itself or with a sinker, the line's lift added back; None if it was
        not weighed in water.
        """
        plain = (
            with_sinker(self.both_g, self.sinker_g)
            if self.both_g is not None and self.sinker_g is not None
            else self.water_g
        )
        if plain is None or not (self.line_mm and self.line_under_mm):
            return plain
        return without_line(plain, line_ml(self.line_mm, self.line_under_mm), self.water)

    @property
    def may_be_off_g(self) -> float:
        """One-sigma uncertainty of one reading [g]; that of a scale nobody named where it is not known."""
        return self.sd_g if self.sd_g is not None else scale_of(None).sd_g

    @property
    def in_water(self) -> InWater | None:
        """As the core computes with it; None until it was weighed in air and in water."""
        wet, sd = self.in_water_g, self.may_be_off_g
        if self.air_g is None or wet is None:
            return None
        return InWater(self.air_g, wet, self.water, sd, sd * 2**0.5 if self.both_g is not None else sd)


def listed(text: str = "", kind: str = "") -> SelectOfScalar[WeighedThing]:
    """The question for things, the newest first."""
    query = select(WeighedThing).where(col(WeighedThing.deleted_at).is_(None))
    if text:
        query = query.where(col(WeighedThing.search).like(pattern(text), escape="\\"))
    if kind:
        query = query.where(WeighedThing.kind == kind)
    return query.order_by(col(WeighedThing.id).desc())


def of(session: Session, row: WeighedThing) -> Weighed:
    """A thing with what was read of it."""
    return of_many(session, [row])[0]


def of_many(session: Session, rows: Sequence[WeighedThing]) -> list[Weighed]:
    """Some things with what was read of them, in one query."""
    readings = observed.of_many(session, observed.THING, [row.id or 0 for row in rows])
    return [_put_together(session, row, readings.get(row.id or 0, ())) for row in rows]


def _put_together(session: Session, row: WeighedThing, seen: Sequence[Observation]) -> Weighed:
    first = seen[0] if seen else None
    conditions = first.conditions if first else {}
    spread = first.spread if first else None
    if first and spread is None and first.instrument_id:  # kept before readings knew how far they may be off
        spread = scale_of(session.get(Instrument, first.instrument_id)).sd_g
    return Weighed(
        name=row.name,
        kind=row.kind,
        **{f"{one.what}_g": one.value for one in seen if one.what in MASSES},
        marks=tuple((one.what.removeprefix(MARK), one.value) for one in seen if one.what.startswith(MARK)),
        water=Water(**conditions["water"]) if conditions.get("water") else Water(),
        line_mm=conditions.get("line_mm", 0.0),
        line_under_mm=conditions.get("line_under_mm", 0.0),
        stage=row.stage,
        float_id=row.float_id,
        instrument_id=first.instrument_id if first else None,
        sd_g=spread,
        at=row.at,
        note=row.note,
        source=row.source,
        typed={**(first.typed if first else {}), **{one.what: one.text for one in seen if one.text}},
        id=row.id or 0,
    )


def read(*whats: str) -> ColumnElement[bool]:
    """Whether any of that was read of a thing."""
    told = [col(Observation.what).startswith(what, autoescape=True) for what in whats]
    known = select(Observation.id).where(
        Observation.of == observed.THING,
        Observation.of_id == WeighedThing.id,
        or_(*told),
        col(Observation.undone_at).is_(None),
    )
    return known.correlate(WeighedThing).exists()


def sized(session: Session, most: int) -> list[Weighed]:
    """The newest things whose size was weighed in water."""
    query = listed().where(read("water", "both"))
    return [one for one in of_many(session, session.exec(query.limit(most)).all()) if one.in_water]


def partners(session: Session, one: Weighed, most: int) -> Sequence[WeighedThing]:
    """The newest things that go with this one: what a float with marks bears, or the floats that would
    bear it.
    """
    marked = read(MARK)
    fits = ~marked if one.marks else or_(marked, col(WeighedThing.kind) == "float")
    return session.exec(listed().where(fits, WeighedThing.id != one.id).limit(most)).all()


def keep(session: Session, one: Weighed) -> WeighedThing:
    """Keep a thing and what was read of it, findable by its name and note."""
    row = WeighedThing(
        name=one.name,
        search=fold(f"{one.name} {one.kind} {one.note}"),
        kind=one.kind,
        stage=one.stage,
        float_id=one.float_id,
        at=one.at,
        note=one.note,
        source=one.source,
    )
    session.add(row)
    session.flush()
    beside = {name: text for name, text in one.typed.items() if name not in MASSES}
    line = {"line_mm": one.line_mm, "line_under_mm": one.line_under_mm} if one.line_mm else {}
    masses = [(name, getattr(one, f"{name}_g")) for name in MASSES]
    for what, value in (*masses, *((MARK + mark, value) for mark, value in one.marks)):
        if value is not None:
            observed.keep(
                session,
                observed.THING,
                row.id or 0,
                what,
                value,
                text=one.typed.get(what, ""),
                typed=beside,
                instrument_id=one.instrument_id,
                conditions={"water": asdict(one.water), **line},
                at=one.at,
            )
    return row


def scale_of(instrument: Instrument | None) -> Scale:
    """The instrument as the core knows it; an unknown one reads to a tenth of a gram."""
    return observed.scale_of(instrument) if instrument is not None else Scale("a scale", 0.1, 1e5)
