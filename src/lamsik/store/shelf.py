"""The shelf of paints, and the colours that are matched with them."""

from collections.abc import Callable, Collection, Mapping
from dataclasses import replace
from typing import Any, TypeVar

from sqlmodel import Session

from lamsik.core.errors import Refused
from lamsik.core.paints.paint import Paint
from lamsik.core.paints.shelf import ShelfPaint
from lamsik.core.paints.taught import Shelf, mixed_paint
from lamsik.core.paints.wanted import WantedColour
from lamsik.documents.matches.document import to_match
from lamsik.documents.paints.document import to_paint
from lamsik.store import documents
from lamsik.store.tables import Document

MOST_PAINTS, MOST_MATCHES = 150, 200
"""So many of each, the first by name, are looked at together."""


def paints(session: Session) -> list[tuple[Document, ShelfPaint]]:
    """Paints on the shelf with their rows; those that cannot be read are left out."""
    rows = documents.listed(session, "paint", most=MOST_PAINTS)
    contents = documents.contents(session, rows)
    return [(row, paint) for row in rows if (paint := _read(to_paint, contents[row.id or 0])) is not None]


def matches(session: Session) -> list[tuple[Document, WantedColour]]:
    """Colours to be matched with their rows."""
    rows = documents.listed(session, "match", most=MOST_MATCHES)
    contents = documents.contents(session, rows)
    return [(row, match) for row in rows if (match := _read(to_match, contents[row.id or 0])) is not None]


def unread(session: Session, known: Collection[int | None]) -> list[Document]:
    """Paints and colours that cannot be read as they are, beside those that are known: nothing is made of
    them, they are not lost.
    """
    rows = [
        *documents.listed(session, "paint", most=MOST_PAINTS),
        *documents.listed(session, "match", most=MOST_MATCHES),
    ]
    return [row for row in rows if row.id not in known]


def shelf(session: Session) -> Shelf:
    """Paints by their codes."""
    return tuple((row.code, paint) for row, paint in paints(session))


def mixed(session: Session) -> tuple[WantedColour, ...]:
    """What was mixed and looked at."""
    return tuple(match for _, match in matches(session) if match.is_seen and match.parts)


def as_paints(session: Session) -> dict[str, Paint]:
    """Paints on the shelf, and colours as they are mixed, by code, as a layer takes them."""
    on_shelf, colours = shelf(session), matches(session)
    taken = {
        code: replace(paint.as_paint, name=f"{paint.name} ({code})", code=code) for code, paint in on_shelf
    }
    known = tuple(match for _, match in colours if match.is_seen and match.parts)
    for row, match in colours:
        paint = mixed_paint(match, on_shelf, known)
        if paint is not None:
            taken[row.code] = replace(paint, name=f"{match.name} ({row.code})", code=row.code)
    return taken


Known = TypeVar("Known")


def _read(to: Callable[[Mapping[str, Any]], Known], content: Mapping[str, Any]) -> Known | None:
    try:
        return to(content)
    except Refused:
        return None
