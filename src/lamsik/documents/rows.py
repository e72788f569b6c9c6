"""What every edit of a document needs: finding the holder of a field, a row, taking from the shop, a free
key.
"""

from collections.abc import Mapping
from typing import Any

from lamsik.core.errors import Refused, named, rule

Document = dict[str, Any]


def copied(document: Document) -> Document:
    """A document of its own with the same values, plain JSON: twice as quick as by way of its text, and many
    times as a copy of any object.
    """
    copy: Document = _copied(document)
    return copy


def _copied(value: Any) -> Any:
    if isinstance(value, dict):
        return {name: _copied(one) for name, one in value.items()}
    return [_copied(one) for one in value] if isinstance(value, list | tuple) else value


def holder_of(document: Document, path: str) -> tuple[Document, str]:
    """The object that holds a field; list rows are named by their key (`ballast.b1.x_mm`).

    Raises:
        Refused: there is no such part or field on this design.
    """
    here: Any = document
    *steps, leaf = path.split(".")
    for step in steps:
        held = (
            here.get(step)
            if isinstance(here, dict)
            else next((row for row in here if row["key"] == step), None)
        )
        if held is None:
            raise Refused(path, step, rule("no-part"))
        here = held
    if not isinstance(here, dict) or leaf not in here or isinstance(here[leaf], dict | list):
        raise Refused(path, leaf, rule("no-field"))
    return here, leaf


def row_of(document: Document, group: str, key: object) -> Document:
    """The row of a list by its key. Raises `Refused`, naming those there are."""
    held: Document | None = next((row for row in document[group] if row["key"] == key), None)
    if held is None:
        there = [row["key"] for row in document[group]]
        raise Refused(group, key, named(there) if there else rule("none-there"))
    return held


def take(table: Mapping[str, Any], code: object, field_name: str) -> Any:
    """What the shop has under a code. Raises `Refused` if it has not."""
    if str(code) not in table:
        raise Refused(field_name, code, rule("not-in-stores"))
    return table[str(code)]


def keyed(document: Document, group: str, stem: str) -> Document:
    """The document with a key on every row of a list: files of before had none there; else as it is."""
    rows = document.get(group)
    if not isinstance(rows, list) or not all(isinstance(row, dict) for row in rows):
        return document
    taken = [row for row in rows if row.get("key")]
    with_keys: list[Document] = []
    for row in rows:
        named = row if row.get("key") else {**row, "key": free_key([*taken, *with_keys], stem)}
        with_keys.append(named)
    return {**document, group: with_keys}


def free_key(rows: list[Document], stem: str) -> str:
    """The first key of this stem that no row has: `b1`, `b2` …"""
    taken = {row["key"] for row in rows}
    return next(f"{stem}{n}" for n in range(1, 200) if f"{stem}{n}" not in taken)
