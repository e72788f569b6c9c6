"""Moulds as made, and what was poured in them."""

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, Index, text
from sqlmodel import Field

from lamsik.store.tables.shared import Typed, now


class MouldMade(Typed, table=True):
    """A mould that was really made: the version of its design, its cavities with their state, what it is
    of; what it cost and how many shots are expected of it.
    """

    __tablename__ = "mould_made"
    id: int | None = Field(default=None, primary_key=True)
    mould_id: int = Field(foreign_key="document.id", index=True)
    revision: int
    version: int
    material: str = ""
    lot: str = ""
    release: str = ""
    cost_minor: int | None = None
    currency: str = ""
    expected_shots: int | None = None
    cavities: list[Any] = Field(default_factory=list, sa_type=JSON)
    made_at: datetime = Field(default_factory=now)
    retired_at: datetime | None = None
    note: str = ""


class Pour(Typed, table=True):
    """A guided pour, which is a shot of a mould: the step it is at, what is ticked, and what came out of
    each cavity.
    """

    __table_args__ = (Index("pour_open", "id", sqlite_where=text("finished_at IS NULL")),)
    id: int | None = Field(default=None, primary_key=True)
    made_id: int = Field(foreign_key="mould_made.id", index=True)
    product_id: int = Field(foreign_key="document.id")
    shot: int
    purge: bool = False
    step: str = "prepare"
    ticks: list[Any] = Field(default_factory=list, sa_type=JSON)
    plan: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    castings: list[Any] = Field(default_factory=list, sa_type=JSON)
    at_c: float = 20.0
    order_id: int | None = Field(default=None, foreign_key="shop_order.id")
    at: datetime = Field(default_factory=now)
    poured_at: datetime | None = None
    finished_at: datetime | None = None
    failed: bool = False
    note: str = ""
