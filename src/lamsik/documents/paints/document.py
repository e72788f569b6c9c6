"""The paint document: a paint on the shelf as JSON (format `lamsik-paint`)."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Annotated, Any

from lamsik.core.paints.shelf import GUESSED, TYPED, Pot, ShelfPaint
from lamsik.documents.adding import adding
from lamsik.documents.document_schema import DocumentSchema, with_default
from lamsik.documents.engine import Kind
from lamsik.documents.rows import Document
from lamsik.documents.schemas import TYPED as TYPED_TEXTS
from lamsik.documents.schemas import Const, Raw
from lamsik.documents.typed import Edit
from lamsik.documents.values import core_of, with_core

FORMAT, VERSION = "lamsik-paint", 1
LOOKS = ("swatch.white.", "swatch.black.")
"""What a swatch says of its paint."""


@dataclass(frozen=True)
class PaintDocument(ShelfPaint):
    """A paint document of this version: a paint on the shelf."""

    format: Annotated[str, Const(FORMAT)] = FORMAT
    version: Annotated[int, Const(VERSION)] = VERSION
    typed: Annotated[dict[str, str], Raw(TYPED_TEXTS)] = field(default_factory=dict)


PAINT_SCHEMA = DocumentSchema(
    "lamsik.documents.paints",
    PaintDocument,
    FORMAT,
    VERSION,
    with_default(PaintDocument) - {"PaintDocument.format", "PaintDocument.version"},
)


def to_paint(document: Mapping[str, Any]) -> ShelfPaint:
    """The paint a document describes. Raises `Refused` naming the field."""
    paint: ShelfPaint = core_of(ShelfPaint, document)
    return paint


def begun(paint: ShelfPaint | None = None) -> Document:
    """A paint as it is kept first."""
    document: Document = PAINT_SCHEMA.brought_up(
        with_core({"format": FORMAT, "version": VERSION}, paint or ShelfPaint("New paint"))
    )
    return document


def _pot(document: Document, edit: Edit, _shop: None, key: str) -> Pot:
    return Pot(key)


def _measured(document: Document, path: str, before: Document, _shop: None) -> Document:
    """A look that is typed is known, where it was guessed before."""
    if path.startswith(LOOKS) and document["source"] == GUESSED:
        document["source"] = TYPED
    return document


PAINT: Kind[None, ShelfPaint] = Kind(
    name="paint",
    stem="C",
    schema=PAINT_SCHEMA,
    most_bytes=50_000,
    begins=begun,
    value=lambda document, _edit, _shop: to_paint(document),
    filed=lambda document: {name: value for name, value in document.items() if name != "typed"},
    acts={"add": adding("pots", "p", _pot)},
    groups=("pots",),
    texts=("name", "kind", "chemistry", "source", "thinner", "caution", "on", "instead", "note", "lot"),
    flags=("glossy",),
    measured=_measured,
)
