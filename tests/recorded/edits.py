"""What is said when a figure is set too low, to nothing, too high; and what a change is called."""

import json
import re
from collections.abc import Iterator
from functools import cache
from typing import Any

from lamsik.core.errors import Refused
from lamsik.core.shapes.catalogue import Catalogue
from lamsik.core.water import Water
from lamsik.documents.body.document import to_design
from lamsik.documents.moulds.document import master_of
from lamsik.documents.registry import KINDS
from lamsik.words import refusals
from lamsik.words.revisions import note
from tests.kinds import body_edit, float_edit, mould_edit
from tests.recorded import DOCUMENTS, FOLDER

SAID = FOLDER / "said.jsonl"
TRIED = (-1000.0, 0.0, 1e6)


def leaves(value: Any, path: str = "") -> Iterator[str]:
    """The path of every figure of a document that an edit can name."""
    if isinstance(value, dict):
        for name, one in value.items():
            yield from leaves(one, f"{path}.{name}" if path else name)
    elif isinstance(value, list):
        for row in value:
            if isinstance(row, dict) and "key" in row:
                yield from leaves(row, f"{path}.{row['key']}")
    elif isinstance(value, float | int) and not isinstance(value, bool):
        yield path


@cache
def _master(text: str) -> Any:
    return master_of(json.loads(text))


def _apply(document: dict[str, Any], edit: dict[str, Any]) -> None:
    if document["format"] == "lamsik-body":
        body_edit(document, edit, Catalogue())
    elif document["format"] == "lamsik-float":
        float_edit(document, edit, {"sea water": Water()})
    else:
        mould_edit(document, edit, lambda block: _master(json.dumps(block)))


def brought_up(document: dict[str, Any]) -> dict[str, Any]:
    """A document of the record as one of this version."""
    kind = document["format"].removeprefix("lamsik-")
    found: dict[str, Any] = KINDS[kind].schema.brought_up(document)
    return found


def said(document: dict[str, Any]) -> dict[str, list[str]]:
    """Of every figure: what is said of each value that is tried."""
    found: dict[str, list[str]] = {}
    for path in leaves({name: one for name, one in document.items() if name != "typed"}):
        found[path] = []
        for value in TRIED:
            try:
                _apply(document, {"do": "set", "path": path, "value": value})
                found[path].append("")
            except Refused as refused:
                found[path].append(refusals.says(refused))
    return found


def all_said() -> list[dict[str, Any]]:
    """Of some documents of each kind: what is said, and of bodies what the change to the next is called."""
    return [said_of(at) for at in telling(documents())]


@cache
def documents() -> list[dict[str, Any]]:
    """The documents of the record as they are in this version."""
    return [brought_up(json.loads(line)) for line in DOCUMENTS.read_text(encoding="utf-8").splitlines()]


def said_of(at: int) -> dict[str, Any]:
    """What is said of the document at this place of the record."""
    pair = documents()[at : at + 2]
    bodies = all(one["format"] == "lamsik-body" for one in pair)
    called = note(*(to_design(one) for one in pair)) if bodies else ""
    return {"document": at, "said": said(pair[0]), "note": called}


def telling(documents: list[dict[str, Any]]) -> list[int]:
    """Documents that have a figure of which none before them has the like, and every ninth."""
    seen: set[tuple[str, str]] = set()
    found = []
    for at, document in enumerate(documents):
        kinds = {(document["format"], re.sub(r"\.[^.]+\.", ".*.", path)) for path in leaves(document)}
        if kinds - seen or at % 9 == 0:
            found.append(at)
        seen |= kinds
    return found
