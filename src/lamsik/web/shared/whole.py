"""What is kept can be shown: files are kept once all that their page shows was computed, and one bad row
takes no list down.
"""

import logging
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import TypeVar

from flask import g, request

from lamsik.core.errors import Refused
from lamsik.store.tables import Document
from lamsik.web.shared.db import db
from lamsik.words import refusals

log = logging.getLogger("lamsik")

NO_FIGURE = "something in it cannot be computed: a figure in it is 0, too large or missing."

Shown = TypeVar("Shown")


@dataclass(frozen=True)
class Broken:
    """A row of a list that cannot be shown, and why."""

    row: Document
    why: str


def kept_if_shown(create: Callable[[], Document], show: Callable[[Document], object]) -> Document:
    """A document from outside, kept once everything that its page shows could be computed.

    Raises:
        Refused: it cannot be shown; nothing is kept then.
    """
    with db().begin_nested():
        row = create()
        try:
            show(row)
        except Refused:
            raise
        except Exception as error:
            log.info("a file that cannot be shown", exc_info=True)
            raise Refused(
                "file", "", "what it describes cannot be computed: a figure in it is 0, too large or missing"
            ) from error
    return row


def shown_of(rows: Iterable[Document], show: Callable[[Document], Shown]) -> tuple[list[Shown], list[Broken]]:
    """What a list shows of its rows, and the rows of which nothing can be shown."""
    good: list[Shown] = []
    bad: list[Broken] = []
    for row in rows:
        try:
            good.append(show(row))
        except Exception as error:
            log.warning("%s %s cannot be shown", row.kind, row.code, exc_info=True)
            bad.append(Broken(row, refusals.says(error) if isinstance(error, Refused) else NO_FIGURE))
    return good, bad


WAYS = {
    "body": ("shapes.edit", "shapes.export", "shapes.put_away"),
    "float": ("floats.edit", "floats.export", "floats.put_away"),
    "mould": ("moulds.edit", "moulds.export", "moulds.put_away"),
    "blade": ("shapes_blades.edit", "shapes_blades.export", "shapes_blades.put_away"),
    "product": ("mixes_products.show", "mixes_products.export", "mixes_products.put_away"),
    "match": ("paints_match.show", "paints_match.export", "paints_match.put_away"),
    "paint": ("paints_shelf.show", "paints_shelf.export", "paints_shelf.put_away"),
    "scheme": ("paints.edit", "paints.export", "paints.put_away"),
    "shots": ("floats_shots.show", "floats_shots.export", "floats_shots.put_away"),
}
"""By kind of document: its own page, its file, how it is deleted."""


def way_out(error: Exception) -> Broken | None:
    """The document whose own page cannot be shown, where that is what failed: it can still be taken out,
    or deleted.
    """
    row = g.get("document")
    ways = WAYS.get(row.kind) if isinstance(row, Document) else None
    if ways is None or request.method != "GET" or request.endpoint == ways[1]:
        return None
    if isinstance(error, Refused) and request.endpoint != ways[0]:
        return None  # what was asked about it is wrong, not what it is
    return Broken(row, refusals.says(error) if isinstance(error, Refused) else NO_FIGURE)
