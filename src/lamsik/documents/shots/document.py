"""A table of shot sizes as a document; as a file, format `lamsik-shots`."""

from collections.abc import Mapping
from typing import Any

from lamsik.core.errors import Refused
from lamsik.core.floats.shotting import Shot, ShotTable
from lamsik.core.rows import checked_row
from lamsik.documents.engine import Kind
from lamsik.documents.rows import Document

FORMAT, VERSION = "lamsik-shots", 1


def table_of(content: Mapping[str, Any]) -> ShotTable:
    """A shot table as kept. Raises `Refused` naming the field."""
    rows = content.get("shots", [])
    if not isinstance(rows, list) or len(rows) > 60:
        raise Refused("shots", rows, "a list of at most 60 sizes")
    shots = tuple(Shot(**checked_row(row, Shot, f"size {n}")) for n, row in enumerate(rows, start=1))
    return ShotTable(
        **checked_row({k: v for k, v in content.items() if k != "shots"}, ShotTable, besides=("shots",)),
        shots=shots,
    )


def table_content(table: ShotTable) -> dict[str, Any]:
    """The table as it is kept."""
    return {
        "name": table.name,
        "country": table.country,
        "series": table.series,
        "shots": [
            {"name": s.name, "mass_g": s.mass_g, "density_g_cm3": s.density_g_cm3} for s in table.shots
        ],
    }


def brought_in(found: Any) -> Document:
    """A document of what a file holds. Raises `Refused` naming what is wrong."""
    if not isinstance(found, dict) or found.get("format") != FORMAT or found.get("version") != VERSION:
        raise Refused("format", found, f"a {FORMAT} document of version {VERSION} is needed")
    return table_content(table_of({k: v for k, v in found.items() if k not in ("format", "version")}))


SHOTS: Kind[None, ShotTable] = Kind(
    name="shots",
    stem="T",
    format=FORMAT,
    version=VERSION,
    most_bytes=50_000,
    brought_in=brought_in,
    filed=lambda document: {"format": FORMAT, "version": VERSION, **document},
    value=lambda document, _edit, _shop: table_of(document),
)
