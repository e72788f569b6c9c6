"""A sheet-metal blade as a document; as a file, format `lamsik-blade`, also carried by its DXF."""

from dataclasses import dataclass, field, replace
from typing import Annotated, Any, TypeGuard

from lamsik.core.errors import require, rule
from lamsik.core.shapes.blades import SNAPS, STARTING_BLADE, Blade
from lamsik.documents.document_schema import DocumentSchema, with_frame
from lamsik.documents.engine import Kind
from lamsik.documents.rows import Document
from lamsik.documents.schemas import TYPED, Const, Raw
from lamsik.documents.values import core_of, with_core

FORMAT, VERSION = "lamsik-blade", 1


@dataclass(frozen=True)
class BladeDocument(Blade):
    """A blade document of this version: a blade, and the texts typed."""

    format: Annotated[str, Const(FORMAT)] = FORMAT
    version: Annotated[int, Const(VERSION)] = VERSION
    typed: Annotated[dict[str, str], Raw(TYPED)] = field(default_factory=dict)


BLADE_SCHEMA = DocumentSchema(
    "lamsik.documents.blades",
    BladeDocument,
    FORMAT,
    VERSION,
    ("BladeDocument.source", "BladeDocument.source_note", "BladeDocument.typed"),
    raised=with_frame(FORMAT, VERSION),
)


def content_of(blade: Blade) -> Document:
    """The blade as it is kept."""
    return with_core({"format": FORMAT, "version": VERSION, "typed": {}}, blade)


def blade_of(content: Document) -> Blade:
    """The blade as kept. Raises `Refused` naming the field, what was given, what is allowed."""
    blade: Blade = core_of(Blade, content)
    keys = [hole.key for hole in blade.holes]
    require(keys == list(SNAPS), "holes", keys, rule("two-holes", holes=" and ".join(SNAPS)))
    return blade


def blank(name: str = STARTING_BLADE.name) -> Document:
    """A blade to begin from."""
    return content_of(replace(STARTING_BLADE, name=name))


def is_blade(content: Any) -> TypeGuard[dict[str, Any]]:
    """Whether a parsed file says that it is a blade."""
    return isinstance(content, dict) and content.get("format") == FORMAT


BLADE: Kind[None, Blade] = Kind(
    name="blade",
    stem="K",
    schema=BLADE_SCHEMA,
    most_bytes=100_000,
    begins=blank,
    value=lambda document, _edit, _shop: blade_of(document),
    texts=("name", "metal", "source", "source_note"),
    empties=("source_note",),
)
