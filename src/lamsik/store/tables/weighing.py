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


class Observation(Typed, table=True):
    """Something that was read or timed: of what, which figure, how far it may be off, on which instrument,
    under which conditions, when and by whom. One that is taken back stays in the record and no longer
    counts.

    Of a piece (`of_id` is its row): `stage:…`, `part:…` and `water:…` [g], the newest of each counts. Of a
    document: `rise` and `sink` [s], `tow` [m deep]. Of a thing [g]: `air`, `water`, `sinker` alone in water,
    `both` with the floater held under, `mark:…` with a float pulled down to each, lowest first.
    """

    __table_args__ = (
        Index("observation_of", "of", "of_id", "what", "id"),
        Index("observation_in_water", "of_id", sqlite_where=text("what LIKE 'water:%'")),
    )
    id: int | None = Field(default=None, primary_key=True)
    of: str
    of_id: int
    what: str
    value: float
    spread: float | None = None
    text: str = ""
    instrument_id: int | None = Field(default=None, foreign_key="instrument.id")
    conditions: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    at: datetime = Field(default_factory=now)
    person_id: int | None = Field(default=None, foreign_key="person.id")
    undone_at: datetime | None = None


class WeighedThing(SQLModel, table=True):
    """Anything weighed by itself; what was read of it is in `Observation`. `stage` says in which state a
    float was weighed.
    """

    __tablename__ = "thing"
    id: int | None = Field(default=None, primary_key=True)
    name: str
    search: str = Field(index=True)
    kind: str = Field(default="other", index=True)
    stage: str = ""
    float_id: int | None = Field(default=None, foreign_key="document.id", index=True)
    at: datetime = Field(default_factory=now)
    note: str = ""
    source: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    deleted_at: datetime | None = None
