"""Pieces and their steps."""

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, Index, UniqueConstraint, text
from sqlmodel import Field, SQLModel

from lamsik.store.tables.shared import now


class Piece(SQLModel, table=True):
    """One bait made, with its own number; remembers the revision it is made from and the route it follows.
    `repaint` says what is done with the old paint of one that is painted anew, or that it gets clear or a
    detail alone. `price_minor` is what one of stock costs. `stand` is told from its steps (`stands`).
    """

    __table_args__ = (
        Index(
            "piece_going", "order_id", "id", sqlite_where=text("stand != 'shipped' AND deleted_at IS NULL")
        ),
        Index("piece_of_line", "line_id", "deleted_at", "revision_id"),
    )
    id: int | None = Field(default=None, primary_key=True)
    number: str = Field(unique=True)
    design_id: int = Field(foreign_key="document.id", index=True)
    revision_id: int = Field(foreign_key="revision.id")
    order_id: int | None = Field(default=None, foreign_key="shop_order.id", index=True)
    route_id: int | None = Field(default=None, foreign_key="route.id", index=True)
    started_at: datetime = Field(default_factory=now)
    note: str = ""
    search: str = Field(default="", index=True)
    pour_id: int | None = Field(default=None, foreign_key="pour.id", index=True)
    cavity: str = ""
    repaint: str = ""
    line_id: int | None = Field(default=None, foreign_key="order_line.id")
    price_minor: int | None = None
    stand: str = "making"
    deleted_at: datetime | None = None


IS_TIMED = "begun_at IS NOT NULL OR hands_min IS NOT NULL"
"""Of a step: whether anything says how long hands were on it."""


class PieceStep(SQLModel, table=True):
    """What was done of a step of a piece: when it was begun and ended, by whom; one that was left out ended
    with a reason; which points of its checklist are ticked. A step with no row was not touched.
    `hands_min` is how long hands were on it, where that was typed.
    """

    __tablename__ = "piece_step"
    __table_args__ = (
        UniqueConstraint("piece_id", "step"),
        Index("step_running", "piece_id", sqlite_where=text("done_at IS NULL")),
        Index("step_timed", "piece_id", sqlite_where=text(IS_TIMED)),
    )
    id: int | None = Field(default=None, primary_key=True)
    piece_id: int = Field(foreign_key="piece.id", index=True)
    step: str
    begun_at: datetime | None = None
    done_at: datetime | None = None
    hands_min: float | None = None
    person_id: int | None = Field(default=None, foreign_key="person.id")
    note: str = ""
    reason: str = ""
    points: list[str] = Field(default_factory=list, sa_type=JSON)


class Route(SQLModel, table=True):
    """The steps that pieces follow, in their order: kept once for all pieces that follow the same."""

    id: int | None = Field(default=None, primary_key=True)
    digest: str = Field(unique=True)
    steps: list[Any] = Field(default_factory=list, sa_type=JSON)
