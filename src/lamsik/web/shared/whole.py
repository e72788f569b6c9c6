"""What is kept can be shown: files are kept once all that their page shows was computed, and one bad row takes no list down."""

import logging
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import TypeVar

from lamsik.core.errors import Refused
from lamsik.store.tables import Document
from lamsik.web.shared.db import db

log = logging.getLogger("lamsik")

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
            raise Refused("file", "", "what it describes cannot be computed: a figure in it is 0, too large or missing") from error
    return row


def shown_of(rows: Iterable[Document], show: Callable[[Document], Shown]) -> tuple[list[Shown], list[Broken]]:
    """What a list shows of its rows, and the rows of which nothing can be shown."""
    good: list[Shown] = []
    bad: list[Broken] = []
    for row in rows:
        try:
            good.append(show(row))
        except Exception as error:  # noqa: BLE001 - whatever is wrong with one row, the others are shown
            log.warning("%s %s cannot be shown", row.kind, row.code, exc_info=True)
            bad.append(Broken(row, error.says if isinstance(error, Refused) else "something in it cannot be computed: a figure in it is 0, too large or missing."))
    return good, bad
