"""Batches and clocks."""

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, Index, text
from sqlmodel import Field, SQLModel

from lamsik.store.tables.shared import Typed, now


class Batch(Typed, table=True):
    """A mix: what it is for, what was planned, and the grams actually weighed with the tub each came from."""

    __table_args__ = (Index("batch_by_product", "product_id", "state", "id"),)
    id: int | None = Field(default=None, primary_key=True)
    product_id: int = Field(foreign_key="document.id", index=True)
    purpose: str
    mould_id: int | None = Field(default=None, foreign_key="document.id", index=True)
    made_id: int | None = Field(default=None, foreign_key="mould_made.id")
    pour_id: int | None = Field(default=None, foreign_key="pour.id", index=True)
    plan: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    weighed: list[Any] = Field(default_factory=list, sa_type=JSON)
    at_c: float = 20.0
    state: str = Field(default="", index=True)
    at: datetime = Field(default_factory=now)
    mixed_at: datetime | None = None
    note: str = ""


class Clock(SQLModel, table=True):
    """A clock that runs: pot life, gel, demould, cure; where it leads; stopped once someone saw to it."""

    __table_args__ = (Index("clock_running", "ends_at", sqlite_where=text("stopped_at IS NULL")),)
    id: int | None = Field(default=None, primary_key=True)
    name: str
    kind: str
    started_at: datetime = Field(default_factory=now)
    ends_at: datetime
    link: str = ""
    batch_id: int | None = Field(default=None, foreign_key="batch.id", index=True)
    stopped_at: datetime | None = None
