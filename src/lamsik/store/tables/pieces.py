"""Pieces and their steps."""

from datetime import datetime

from sqlalchemy import Index, UniqueConstraint, text
from sqlmodel import Field, SQLModel

from lamsik.store.tables.shared import now


class Piece(SQLModel, table=True):
    """One bait made, with its own number; remembers the revision it is made from. `stand` is told from its
    steps (`stands`).
    """

    __table_args__ = (
        Index(
            "piece_going", "order_id", "id", sqlite_where=text("stand != 'shipped' AND deleted_at IS NULL")
        ),
    )
    id: int | None = Field(default=None, primary_key=True)
    number: str = Field(unique=True)
    design_id: int = Field(foreign_key="document.id", index=True)
    revision_id: int = Field(foreign_key="revision.id")
    order_id: int | None = Field(default=None, foreign_key="shop_order.id", index=True)
    started_at: datetime = Field(default_factory=now)
    note: str = ""
    search: str = Field(default="", index=True)
    pour_id: int | None = Field(default=None, foreign_key="pour.id", index=True)
    cavity: str = ""
    stand: str = "making"
    deleted_at: datetime | None = None


class StepDone(SQLModel, table=True):
    """A step of a piece that is ticked off, or left out for a reason."""

    __table_args__ = (UniqueConstraint("piece_id", "step"),)
    id: int | None = Field(default=None, primary_key=True)
    piece_id: int = Field(foreign_key="piece.id", index=True)
    step: str
    done_at: datetime = Field(default_factory=now)
    reason: str = ""
