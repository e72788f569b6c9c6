"""What every edit of a document needs: finding the holder of a field, taking from the shop, a free key."""

from collections.abc import Mapping
from typing import Any

from lamsik.core.errors import Refused
from lamsik.formats.body_document import Document


def holder_of(document: Document, path: str) -> tuple[Document, str]:
    """The object that holds a field; list rows are named by their key (`ballast.b1.x_mm`).

    Raises:
        Refused: there is no such part or field on this design.
    """
    here: Any = document
    *steps, leaf = path.split(".")
    for step in steps:
        found = (
            here.get(step)
            if isinstance(here, dict)
            else next((row for row in here if row["key"] == step), None)
        )
        if found is None:
            raise Refused(path, step, "no such part on this design")
        here = found
    if not isinstance(here, dict) or leaf not in here or isinstance(here[leaf], dict | list):
        raise Refused(path, leaf, "no such field on this design")
    return here, leaf


def take(table: Mapping[str, Any], code: object, field_name: str) -> Any:
    """What the shop has under a code. Raises `Refused` if it has not."""
    if str(code) not in table:
        raise Refused(field_name, code, "not in Stores; add it there first")
    return table[str(code)]


def free_key(rows: list[Document], stem: str) -> str:
    """The first key of this stem that no row has: `b1`, `b2` …"""
    taken = {row["key"] for row in rows}
    return next(f"{stem}{n}" for n in range(1, 200) if f"{stem}{n}" not in taken)
