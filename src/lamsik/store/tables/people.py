"""Who works in the shop, and what they did."""

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, Column, Index
from sqlmodel import Field, SQLModel

from lamsik.store.tables.shared import now


class Person(SQLModel, table=True):
    """Someone who works in the shop. There are no passwords: a browser says who stands at it."""

    id: int | None = Field(default=None, primary_key=True)
    name: str
    gone_at: datetime | None = None


class LogEntry(SQLModel, table=True):
    """Something that was done: by whom, when, to what, with the values before and after.

    `of` and `of_id` say what it belongs to (a piece, a pour), `part` and `row_id` which row of that was
    touched (its step, its weighing). What was made has nothing before, what was taken away nothing after;
    of what was changed only the changed values are kept. What was done
    in one go has one `act`. Written by `store.events` and nothing else.
    """

    __tablename__ = "event"
    __table_args__ = (
        Index("event_of", "of", "of_id", "at", "id"),
        Index("event_kind", "of", "at", "id"),
        Index("event_by", "person_id", "at", "id"),
        Index("event_when", "at", "id"),
    )
    id: int | None = Field(default=None, primary_key=True)
    at: datetime = Field(default_factory=now)
    person_id: int | None = Field(default=None, foreign_key="person.id")
    act: str = ""
    of: str
    of_id: int
    part: str = ""
    row_id: int
    before: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON(none_as_null=True)))
    after: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON(none_as_null=True)))
