"""What a field offers to choose from where a shop may have any number: the first of them, and the rest by
typing.
"""

from collections.abc import Callable
from dataclasses import dataclass

from flask import request, url_for
from sqlmodel import col, select

from lamsik.store import documents, orders, paging, pieces
from lamsik.store.paging import MOST
from lamsik.store.tables import Document
from lamsik.web.shared.db import db

Row = tuple[str, str]
"""Key and words of one that can be chosen."""


@dataclass(frozen=True)
class Picks:
    """The first rows, what is chosen among them, and where typing finds the rest; empty where these are
    all.
    """

    rows: list[Row]
    rest: str = ""


def matching(kind: str, text: str) -> list[Row]:
    """The first that hold the text."""
    return FINDERS[kind](text)[:MOST]


def of(kind: str, chosen: Row | None = None, but: str = "") -> Picks:
    """What a field begins with: what is chosen always among it."""
    rows = FINDERS[kind]("")
    shown = [row for row in rows[:MOST] if row[0] != but]
    if chosen and chosen not in shown:
        shown.insert(0, chosen)
    return Picks(shown, url_for("today.find", kind=kind) if len(rows) > MOST else "")


def sent(kind: str, field: str) -> Row | None:
    """What a form names that comes back to be put right: it may have been found by typing."""
    text = request.values.get(field, "")
    row = db().get(Document, int(text)) if text.isascii() and text.isdigit() and len(text) < 10 else None
    return _named(row) if row is not None and row.kind == kind and row.deleted_at is None else None


def _named(row: Document) -> Row:
    return str(row.id), f"{row.name} ({row.code})"


def _documents(kind: str) -> Callable[[str], list[Row]]:
    return lambda text: [_named(row) for row in documents.listed(db(), kind, text, MOST + 1)]


def _customers(text: str) -> list[Row]:
    return [(row.name, row.name) for row in paging.page(db(), orders.customers(text), most=MOST + 1).rows]


def _baits(text: str) -> list[Row]:
    """Bodies, and the newest pieces with the name of their design."""
    bodies = [(f"d{row.id}", row.name) for row in documents.listed(db(), "body", text, MOST // 2 + 1)]
    baits = (
        db().exec(pieces.listed(text, kind="body").limit(MOST + 1 - min(len(bodies), MOST // 2 + 1))).all()
    )
    names = dict(
        db()
        .exec(
            select(Document.id, Document.name).where(col(Document.id).in_({row.design_id for row in baits}))
        )
        .all()
    )
    return bodies + [(f"p{row.id}", f"piece {row.number}, {names[row.design_id]}") for row in baits]


FINDERS: dict[str, Callable[[str], list[Row]]] = {
    "body": _documents("body"),
    "float": _documents("float"),
    "scheme": _documents("scheme"),
    "customer": _customers,
    "bait": _baits,
}
