"""The tables of a shop in docs/formats.md, told from the tables themselves: `python scripts/table_docs.py`
writes them, with `--check` it says whether they are as they should be.
"""

import re
import sys
from pathlib import Path
from typing import Any

from sqlalchemy import Column
from sqlmodel import SQLModel

from lamsik.store import tables
from lamsik.store.folder import LEFT_OUT

PAGE = Path(__file__).parent.parent / "docs/formats.md"
BEGINS, ENDS = "<!-- tables begin -->", "<!-- tables end -->"
UNITS = {
    "_g_cm3": "g/cm³",
    "_mm": "mm",
    "_um": "µm",
    "_g": "g",
    "_ml": "ml",
    "_c": "°C",
    "_deg": "°",
    "_psu": "practical salinity",
    "_px": "pixels",
    "_h": "h",
    "_days": "days",
    "_percent": "%",
    "_minor": "minor units of the currency",
    "_at": "moment, UTC",
    "_on": "day",
    "_until": "moment, UTC",
}
"""What a column is in, by how its name ends."""
WORDS = {
    "AutoString": "text",
    "JSON": "JSON",
    "DateTime": "text",
    "UTCDateTime": "text",
    "Date": "text",
    "LargeBinary": "base64",
}
"""Types of columns as a table in a file has them."""
CALLED = {
    "id": "its own number",
    "at": "moment, UTC",
    "typed": "measures as they were typed, by column",
    "search": "folded for searching, told from the others",
    "stand": "where it stands, told from the others",
    "queue": "sorts what is open, told from the others",
    "name": "what it is called",
    "number": "what it is numbered by",
    "code": "what it is named by",
    "kind": "of which kind it is",
    "note": "a note",
    "of": "what it belongs to, by word",
    "of_id": "and by its number there",
    "part": "which part of that",
    "why": "why it changed",
    "currency": "currency, three letters (ISO 4217)",
    "state": "how it stands",
    "place": "where it lies",
    "digest": "SHA-256 of its content",
    "text": "what is said, as typed",
}
"""Columns that are alike wherever they stand."""


def told() -> str:
    """Every table with every column, as Markdown."""
    parts = []
    kinds = [kind for name in tables.__all__ if (kind := getattr(tables, name)) and is_table(kind)]
    for kind in sorted(kinds, key=lambda kind: str(kind.__tablename__)):
        if kind.__tablename__ in LEFT_OUT:
            continue
        says = re.sub(r"\s+", " ", kind.__doc__ or "").strip()
        parts += [f"### `{kind.__tablename__}`", says, "", "| column | type | holds |", "|---|---|---|"]
        parts += [
            f"| `{column.name}` | {_type(column)} | {_holds(column)} |" for column in kind.__table__.columns
        ]
        parts.append("")
    return "\n".join(parts)


def is_table(kind: object) -> bool:
    """Whether it is a table."""
    return isinstance(kind, type) and issubclass(kind, SQLModel) and hasattr(kind, "__table__")


def _type(column: Column[Any]) -> str:
    name = type(column.type).__name__
    return WORDS.get(name, name.lower()) + (", may lack" if column.nullable else "")


def _holds(column: Column[Any]) -> str:
    links = [key.target_fullname.partition(".")[0] for key in column.foreign_keys]
    if links:
        return f"a row of `{links[0]}`"
    unit = next((unit for end, unit in UNITS.items() if column.name.endswith(end)), "")
    if column.name in CALLED:
        return CALLED[column.name]
    words = column.name.replace("_", " ")
    end = next((end for end in UNITS if column.name.endswith(end)), "")
    return f"{words.removesuffix(end.replace('_', ' ')).strip()} [{unit}]" if unit else words


def main() -> int:
    """Write them, or say whether they are as they should be."""
    page = PAGE.read_text(encoding="utf-8")
    before, _, rest = page.partition(BEGINS)
    new = f"{before}{BEGINS}\n{told()}\n{ENDS}{rest.partition(ENDS)[2]}"
    if "--check" in sys.argv:
        print("tables in docs/formats.md:", "as they are" if new == page else "run scripts/table_docs.py")
        return int(new != page)
    PAGE.write_text(new, encoding="utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
