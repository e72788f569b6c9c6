"""What the shop knows of painting: test patches of what holds on what, and what it masks and sprays
through.
"""

from datetime import datetime

from sqlmodel import Field

from lamsik.store.tables.shared import Typed, now


class PaintPatch(Typed, table=True):
    """A test patch: a chemistry laid on another after so long, and how that came out."""

    __tablename__ = "test_patch"
    id: int | None = Field(default=None, primary_key=True)
    under: str
    over: str
    after_h: float
    result: str
    note: str = ""
    at: datetime = Field(default_factory=now)


class PaintTool(Typed, table=True):
    """A stencil, comb or net: where it is from, which body it was cut for and for which side, where it
    hangs.
    """

    __tablename__ = "paint_tool"
    id: int | None = Field(default=None, primary_key=True)
    name: str = Field(unique=True)
    kind: str
    source: str = ""
    body_id: int | None = Field(default=None, foreign_key="document.id", index=True)
    side: str = "both"
    hangs: str = ""
    note: str = ""
