"""Scales, weighings, and things weighed in water."""

from datetime import date, datetime
from typing import Any

from sqlalchemy import JSON, Index, text
from sqlmodel import Field, SQLModel

from lamsik.store.tables.shared import Typed, now


class Instrument(Typed, table=True):
    """A scale: its step and span [g], how its readings spread [g], when and with what mass [g] it was last
    checked.
    """

    id: int | None = Field(default=None, primary_key=True)
    name: str = Field(unique=True)
    step_g: float
    span_g: float
    checked_on: date | None = None
    spread_g: float = 0.0
    checked_g: float | None = None


class Weighing(SQLModel, table=True):
    """A reading: of the whole piece after a stage, of one part, or of the piece held under in a water. The
    newest of a target counts.
    """

    __table_args__ = (Index("weighing_in_water", "piece_id", sqlite_where=text("target LIKE 'water:%'")),)
    id: int | None = Field(default=None, primary_key=True)
    piece_id: int = Field(foreign_key="piece.id", index=True)
    target: str
    mass_g: float
    text: str
    instrument_id: int = Field(foreign_key="instrument.id")
    at: datetime = Field(default_factory=now)
    undone_at: datetime | None = None
    water: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)


class Weighed(Typed, table=True):
    """Anything weighed in air, and in water if it was: what the scale read, on which scale, in which water,
    when.

    A floater is held under by a sinker: `sinker_g` is the sinker alone in water, `both_g` with the floater on
    it. `marks` are the readings with a float pulled down to each, lowest first. `stage` says in which state a
    float was weighed.
    """

    id: int | None = Field(default=None, primary_key=True)
    name: str
    search: str = Field(index=True)
    kind: str = Field(default="other", index=True)
    air_g: float | None = None
    water_g: float | None = None
    sinker_g: float | None = None
    both_g: float | None = None
    marks: list[Any] = Field(default_factory=list, sa_type=JSON)
    water: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    line_mm: float = 0.0
    line_under_mm: float = 0.0
    stage: str = ""
    float_id: int | None = Field(default=None, foreign_key="document.id", index=True)
    instrument_id: int | None = Field(default=None, foreign_key="instrument.id")
    at: datetime = Field(default_factory=now)
    note: str = ""
    source: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    deleted_at: datetime | None = None
