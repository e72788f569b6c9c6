"""Documents of every kind with their revisions, and what is kept beside them."""

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, Column, Index, UniqueConstraint, text
from sqlmodel import Field, SQLModel

from lamsik.store.tables.shared import now


class Document(SQLModel, table=True):
    """A design (`kind` body) or a paint scheme (`kind` scheme): a name and its current revision."""

    __table_args__ = (Index("document_here", "kind", "search", sqlite_where=text("deleted_at IS NULL")),)
    id: int | None = Field(default=None, primary_key=True)
    kind: str = Field(index=True)
    code: str = Field(index=True)
    name: str
    search: str = Field(index=True)
    current: int = 1
    deleted_at: datetime | None = None


class Revision(SQLModel, table=True):
    """One saved state of a document; never changed once written.

    `parent` is what it was made from; one made `beside` is for a single piece and no step of redo. An old one
    is kept
    `packed`, as what differs from revision `packed_on`, and its `content` stands empty: `documents.ready`
    makes it whole.
    """

    __table_args__ = (UniqueConstraint("document_id", "number"), Index("revision_saved", "saved_at", "id"))
    id: int | None = Field(default=None, primary_key=True)
    document_id: int = Field(foreign_key="document.id", index=True)
    number: int
    parent: int | None = None
    saved_at: datetime = Field(default_factory=now)
    note: str = ""
    name: str = ""
    beside: bool = False
    content: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))
    packed: bytes | None = None
    packed_on: int | None = Field(default=None, foreign_key="revision.id")


class Card(SQLModel, table=True):
    """The small picture of a revision, and the look it was drawn in."""

    revision_id: int = Field(foreign_key="revision.id", primary_key=True)
    look: str
    svg: str


class SkinMesh(SQLModel, table=True):
    """A mesh a body was brought in as, in shares of its size, packed; named by the digest of its data."""

    digest: str = Field(primary_key=True)
    name: str
    faces: int
    data: bytes


class Tracing(SQLModel, table=True):
    """A photo being traced: the digest of the picture as shown, and how far the maker has got with it."""

    id: int | None = Field(default=None, primary_key=True)
    name: str
    digest: str
    width_px: int
    height_px: int
    state: dict[str, Any] = Field(default_factory=dict, sa_type=JSON)
    at: datetime = Field(default_factory=now)


class Family(SQLModel, table=True):
    """A design in several lengths and materials, less the combinations left out."""

    design_id: int = Field(foreign_key="document.id", primary_key=True)
    lengths_mm: list[float] = Field(default_factory=list, sa_type=JSON)
    materials: list[str] = Field(default_factory=list, sa_type=JSON)
    excluded: list[str] = Field(default_factory=list, sa_type=JSON)
