"""A table of shot sizes as a document; as a file, format `lamsik-shots`."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Annotated, Any

from lamsik.core.floats.shotting import NOMINAL_TABLE, Shot, ShotTable
from lamsik.documents.adding import adding
from lamsik.documents.document_schema import DocumentSchema, with_frame
from lamsik.documents.engine import Kind
from lamsik.documents.rows import Document, keyed
from lamsik.documents.schemas import Const
from lamsik.documents.typed import Edit
from lamsik.documents.values import core_of, with_core

FORMAT, VERSION = "lamsik-shots", 1


@dataclass(frozen=True)
class ShotsDocument(ShotTable):
    """A shot table document of this version: a table."""

    format: Annotated[str, Const(FORMAT)] = FORMAT
    version: Annotated[int, Const(VERSION)] = VERSION


_framed = with_frame(FORMAT, VERSION)
SHOTS_SCHEMA = DocumentSchema(
    "lamsik.documents.shots",
    ShotsDocument,
    FORMAT,
    VERSION,
    ("Shot.density_g_cm3", "Shot.key"),
    raised=lambda document: keyed(_framed(document), "shots", "s"),
)


def table_of(content: Mapping[str, Any]) -> ShotTable:
    """A shot table as kept. Raises `Refused` naming the field."""
    table: ShotTable = core_of(ShotTable, content)
    return table


def table_content(table: ShotTable) -> Document:
    """The table as it is kept."""
    return keyed(with_core({"format": FORMAT, "version": VERSION}, table), "shots", "s")


def blank(name: str = NOMINAL_TABLE.name) -> Document:
    """A table to fill in: the nominal sizes."""
    return table_content(replace(NOMINAL_TABLE, name=name))


def _size(document: Document, edit: Edit, _shop: None, key: str) -> Shot:
    """As heavy as the lightest, under a name that no other has."""
    last, named = document["shots"][-1], {row["name"] for row in document["shots"]}
    name = next(name for n in range(1, 99) if (name := f"size {n}") not in named)
    return Shot(name, last["mass_g"], last["density_g_cm3"], key)


def _heaviest_first(document: Document, _path: str, _before: Document, _shop: None) -> Document:
    document["shots"].sort(key=lambda row: -float(row["mass_g"]))
    return document


SHOTS: Kind[None, ShotTable] = Kind(
    name="shots",
    stem="T",
    schema=SHOTS_SCHEMA,
    most_bytes=50_000,
    begins=blank,
    value=lambda document, _edit, _shop: table_of(document),
    acts={"add": adding("shots", "s", _size)},
    groups=("shots",),
    texts=("name", "country", "series"),
    empties=("country", "series"),
    measured=_heaviest_first,
)
