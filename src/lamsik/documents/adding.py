"""What kinds of document do alike: a row more, something taken from the shop, points of a line moved, put in
and taken off.
"""

from collections.abc import Callable
from typing import Any

from lamsik.core.errors import Refused, finite_between, rule
from lamsik.documents.rows import Document, free_key, take
from lamsik.documents.typed import Edit
from lamsik.documents.values import row_of

Act = Callable[[Document, Edit, Any], Document]
Points = list[list[float]]


def adding(group: str, stem: str, make: Callable[[Document, Edit, Any, str], Any], in_order: str = "") -> Act:
    """An edit that puts a row on a list.

    Args:
        group: the list.
        stem: what its keys begin with.
        make: the core's value of the new row, under the key it gets; or the row itself.
        in_order: a field the rows are kept in the order of; else it comes last.
    """

    def act(document: Document, edit: Edit, shop: Any) -> Document:
        rows = document[group]
        rows.append(row_of(make(document, edit, shop, free_key(rows, stem))))
        if in_order:
            rows.sort(key=lambda row: float(row[in_order]))
        return document

    return act


def taking(part: str, table: str, named: str, called: str) -> Act:
    """An edit that puts what the shop has under a name in the place of a part.

    Args:
        part: the part of the document.
        table: where the shop has it.
        named: the field of the edit that names it.
        called: what it is called where the shop has none.
    """

    def act(document: Document, edit: Edit, shop: Any) -> Document:
        document[part] = row_of(take(getattr(shop, table), edit.get(named), called))
        return document

    return act


def index_of(points: Points, edit: Edit) -> int:
    """Which point an edit names. Raises `Refused`."""
    return int(finite_between("index", edit.get("index"), 0, len(points) - 1))


def between_neighbours(points: Points, at: int, share: float, gap: float) -> float:
    """Where a point can go along its line: the ends stay, no point passes its neighbours."""
    if at in (0, len(points) - 1):
        return points[at][0]
    return min(max(share, points[at - 1][0] + gap), points[at + 1][0] - gap)


def without_point(points: Points, edit: Edit) -> Points:
    """The points without one; the ends stay. Raises `Refused`."""
    at = index_of(points, edit)
    if at in (0, len(points) - 1):
        raise Refused("index", at, rule("ends-stay"))
    return [*points[:at], *points[at + 1 :]]
