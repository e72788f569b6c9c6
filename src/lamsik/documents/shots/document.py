"""A table of shot sizes as a document; as a file, format `lamsik-shots`."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any

from lamsik.core.floats.shotting import ShotTable
from lamsik.documents.document_schema import DocumentSchema, with_frame
from lamsik.documents.engine import Kind
from lamsik.documents.rows import Document
from lamsik.documents.schemas import Const
from lamsik.documents.values import core_of, with_core

FORMAT, VERSION = "lamsik-shots", 1


@dataclass(frozen=True)
class ShotsDocument(ShotTable):
    """A shot table document of this version: a table."""

    format: Annotated[str, Const(FORMAT)] = FORMAT
    version: Annotated[int, Const(VERSION)] = VERSION


SHOTS_SCHEMA = DocumentSchema(
    "lamsik.documents.shots",
    ShotsDocument,
    FORMAT,
    VERSION,
    ("Shot.density_g_cm3",),
    raised=with_frame(FORMAT, VERSION),
)


def table_of(content: Mapping[str, Any]) -> ShotTable:
    """A shot table as kept. Raises `Refused` naming the field."""
    table: ShotTable = core_of(ShotTable, content)
    return table


def table_content(table: ShotTable) -> Document:
    """The table as it is kept."""
    return with_core({"format": FORMAT, "version": VERSION}, table)


SHOTS: Kind[None, ShotTable] = Kind(
    name="shots",
    stem="T",
    schema=SHOTS_SCHEMA,
    most_bytes=50_000,
    value=lambda document, _edit, _shop: table_of(document),
)
