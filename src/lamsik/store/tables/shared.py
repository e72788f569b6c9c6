"""What every table needs: this moment, measures as typed; settings, and forms sent once."""

from datetime import UTC, datetime
from typing import Any

from sqlalchemy import JSON, Column, Index, text
from sqlmodel import Field, SQLModel


def now() -> datetime:
    """This moment in UTC, to the second."""
    return datetime.now(UTC).replace(microsecond=0)


class Typed(SQLModel):
    """A row that keeps measures as they were typed, by field, beside their values."""

    typed: dict[str, str] = Field(default_factory=dict, sa_type=JSON)


class SentForm(SQLModel, table=True):
    """A form that was answered: its one-time key, and where the answer led; sent again it leads there and
    does nothing more.
    """

    key: str = Field(primary_key=True)
    sent_at: datetime = Field(default_factory=now, index=True)
    answer: str = ""


class Setting(SQLModel, table=True):
    """One of the shop's own settings."""

    key: str = Field(primary_key=True)
    value: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))


class Photo(SQLModel, table=True):
    """A photo of a thing: of what, the picture by its digest, its size."""

    __table_args__ = (Index("photo_of", "of", "of_id", sqlite_where=text("deleted_at IS NULL")),)
    id: int | None = Field(default=None, primary_key=True)
    of: str
    of_id: int
    digest: str = Field(index=True)
    width_px: int
    height_px: int
    bytes: int
    at: datetime = Field(default_factory=now)
    deleted_at: datetime | None = None
