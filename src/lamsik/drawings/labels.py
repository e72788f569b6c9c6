"""A sheet of rating labels: rows of small cells with cutting lines, the check bars below."""

from collections.abc import Sequence

from lamsik.core.errors import Refused
from lamsik.core.floats.labels import Label
from lamsik.drawings.ink import INK, MUTED
from lamsik.drawings.paper import MARGIN, SHEETS, Sheet, check_bar
from lamsik.drawings.svg import Node, label, node

CELL = (62.0, 15.0)


def label_sheet(rows: Sequence[Label], paper: str) -> Sheet:
    """The labels on one sheet. Raises `Refused` where they do not fit on it."""
    wide, high = SHEETS[paper]
    across = int((wide - 2 * MARGIN) // CELL[0])
    down = int((high - 2 * MARGIN - 24) // CELL[1])
    if len(rows) > across * down:
        raise Refused("count", len(rows), f"at most {across * down} labels on a sheet of {paper}")
    content = [
        part
        for at, row in enumerate(rows)
        for part in _cell(row, MARGIN + (at % across) * CELL[0], MARGIN + (at // across) * CELL[1])
    ]
    return Sheet(wide, high, (*content, *check_bar(MARGIN, high - MARGIN - 13)))


def _cell(row: Label, x: float, y: float) -> list[Node]:
    first, second = row.lines
    return [
        node(
            "rect",
            x=x,
            y=y,
            width=CELL[0],
            height=CELL[1],
            fill="none",
            stroke=MUTED,
            stroke_width=0.1,
            stroke_dasharray="1 1",
        ),
        label(row.name[:34], x + 2, y + 3.6, 2.2, fill=MUTED),
        label(first, x + 2, y + 8.2, 4.0, font_weight=700, fill=INK),
        label(second[:48], x + 2, y + 12.4, 2.1),
    ]
