"""The match document: a colour to be matched as JSON (format `lamsik-match`)."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Annotated, Any

from lamsik.core.errors import Refused, require, rule
from lamsik.core.paints.wanted import RecipePart, WantedColour
from lamsik.documents.adding import adding
from lamsik.documents.document_schema import DocumentSchema, with_default
from lamsik.documents.engine import Kind
from lamsik.documents.rows import Document
from lamsik.documents.schemas import TYPED, Const, Raw
from lamsik.documents.typed import Edit, word
from lamsik.documents.values import core_of, row_of, with_core

FORMAT, VERSION = "lamsik-match", 1
LEAST_WORD = re.compile(r"^[\w-]{1,40}:\d{1,3}(,[\w-]{1,40}:\d{1,3})*$")
"""A recipe in one word: code and drops of each paint."""


@dataclass(frozen=True)
class MatchDocument(WantedColour):
    """A match document of this version: a colour to be matched."""

    format: Annotated[str, Const(FORMAT)] = FORMAT
    version: Annotated[int, Const(VERSION)] = VERSION
    typed: Annotated[dict[str, str], Raw(TYPED)] = field(default_factory=dict)


MATCH_SCHEMA = DocumentSchema(
    "lamsik.documents.matches",
    MatchDocument,
    FORMAT,
    VERSION,
    with_default(MatchDocument) - {"MatchDocument.format", "MatchDocument.version"},
)


def to_match(document: Mapping[str, Any]) -> WantedColour:
    """The match a document describes. Raises `Refused` naming the field."""
    match: WantedColour = core_of(WantedColour, document)
    return match


def begun(match: WantedColour | None = None) -> Document:
    """A match as it is kept first."""
    document: Document = MATCH_SCHEMA.brought_up(
        with_core({"format": FORMAT, "version": VERSION}, match or WantedColour("New colour"))
    )
    return document


def recipe_of(text: str) -> tuple[RecipePart, ...]:
    """The parts of a recipe in one word, `C-001:3,C-004:1`. Raises `Refused`."""
    require(bool(LEAST_WORD.match(text)), "recipe", text, rule("recipe-word"))
    pairs = [part.rpartition(":") for part in text.split(",")]
    return tuple(RecipePart(f"r{n}", code, float(drops)) for n, (code, _, drops) in enumerate(pairs, 1))


def word_of(parts: Mapping[str, int] | tuple[tuple[str, int], ...]) -> str:
    """A recipe in one word."""
    rows = parts.items() if isinstance(parts, Mapping) else parts
    return ",".join(f"{code}:{drops}" for code, drops in rows)


def _take(document: Document, edit: Edit, _shop: None) -> Document:
    """A recipe is taken; how another looked is no look of it."""
    document["parts"], document["is_seen"] = row_of(recipe_of(word(edit, "recipe"))), False
    return document


def _move(document: Document, edit: Edit, _shop: None) -> Document:
    """The wanted colour lighter, redder, warmer by a step."""
    document["wanted"] = row_of(to_match(document).moved(word(edit, "how")).wanted)
    for name in ("lightness", "red", "yellow"):
        document["typed"].pop(f"wanted.{name}", None)
    return document


def _part(document: Document, edit: Edit, _shop: None, key: str) -> RecipePart:
    code = word(edit, "code")
    if any(row["code"] == code for row in document["parts"]):
        raise Refused("code", code, rule("once-in-a-recipe"))
    return RecipePart(key, code)


MATCH: Kind[None, WantedColour] = Kind(
    name="match",
    stem="W",
    schema=MATCH_SCHEMA,
    most_bytes=50_000,
    begins=begun,
    value=lambda document, _edit, _shop: to_match(document),
    filed=lambda document: {name: value for name, value in document.items() if name != "typed"},
    acts={"add": adding("parts", "r", _part), "take": _take, "move": _move},
    groups=("parts",),
    texts=("name", "source", "code", "note"),
    flags=("is_seen",),
)
