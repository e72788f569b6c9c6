"""Looks that are read, by the colour reader or off a photo, into a paint's swatch or a wanted colour."""

from collections.abc import Mapping

from lamsik.core.errors import named, require
from lamsik.core.paints.lab import Lab
from lamsik.documents.engine import apply
from lamsik.documents.registry import KINDS
from lamsik.store import documents
from lamsik.store.tables import Document
from lamsik.web.shared.db import db

PARTS: Mapping[str, Mapping[str, str]] = {
    "paint": {
        "swatch.white": "over white",
        "swatch.black": "over black",
        "swatch.card_white": "the bare card's white",
        "swatch.card_black": "its black",
    },
    "match": {"wanted": "wanted", "ground": "what it is laid on", "seen": "how it came out"},
}
"""What can be read into a document, by its kind, and what each is called."""
PAGES = {"paint": "paints_shelf.show", "match": "paints_match.show"}
OF_SOURCE = ("swatch.white", "swatch.black", "wanted")
"""What a document says the source of."""


def read_into(row: Document, part: str, look: Lab, source: str, note: str) -> None:
    """Keep a look in a part of a document, and where it is from. Raises `Refused` for no such part, or a look
    that it cannot have.
    """
    require(part in PARTS[row.kind], "part", part, named(PARTS[row.kind]))
    content = documents.content(db(), row)
    edits = [
        {"do": "set", "path": f"{part}.{name}", "value": getattr(look, name)}
        for name in ("lightness", "red", "yellow")
    ]
    if part in OF_SOURCE:
        edits.append({"do": "set", "path": "source", "text": source})
    if part == "seen":
        edits.append({"do": "flag", "path": "is_seen", "on": True})
    for edit in edits:
        content = apply(KINDS[row.kind], content, edit, None)
    documents.save(db(), row, content, row.current, note)
