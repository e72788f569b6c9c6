"""Paper: drawings in true millimetres laid on sheets, those longer than a sheet over several with register
marks.
"""

from dataclasses import dataclass, replace
from math import ceil

from lamsik.drawings.ink import INK, MUTED, Pen
from lamsik.drawings.svg import Node, group, label, node

SHEETS = {"A4": (210.0, 297.0), "Letter": (215.9, 279.4), "A3": (297.0, 420.0)}
MARGIN, FOOT, GAP, OVERLAP = 10.0, 24.0, 7.0, 14.0
THIN = Pen(0.2)


@dataclass(frozen=True)
class Listed:
    """A row of a list that belongs to a place of a drawing: how far along it [mm], what it says, and what
    more.
    """

    x_mm: float
    says: str
    more: str


@dataclass(frozen=True)
class Drawing:
    """Something to print at true size: its title, content in millimetres, the box it takes (x, y, width,
    height, SVG downward).

    What is `listed` stands under it; of a drawing over several sheets each part has the rows of its own
    places.
    """

    key: str
    title: str
    content: tuple[Node, ...]
    box: tuple[float, float, float, float]
    note: str = ""
    listed: tuple[Listed, ...] = ()


@dataclass(frozen=True)
class Sheet:
    """One sheet of paper: width and height [mm], its nodes."""

    width_mm: float
    height_mm: float
    content: tuple[Node, ...]

    def svg(self) -> Node:
        """The sheet as an SVG of its true size."""
        return node(
            "svg",
            *self.content,
            viewBox=f"0 0 {self.width_mm:g} {self.height_mm:g}",
            width=f"{self.width_mm:g}mm",
            height=f"{self.height_mm:g}mm",
            xmlns="http://www.w3.org/2000/svg",
        )


@dataclass(frozen=True)
class _Piece:
    """A drawing, or a part of one: the window of it that is shown, its register marks, its heading; what
    has to stand below it on its sheet [mm].
    """

    drawing: Drawing
    window: tuple[float, float, float, float]
    heading: str
    marks: tuple[tuple[float, float, str], ...] = ()
    below: float = 0.0

    @property
    def height(self) -> float:
        return self.window[3] + HEAD + (NOTE if self.drawing.note else 0.0)


HEAD, NOTE = 6.0, 4.5
ROW, LIST_WIDE = 8.5, 172.0
"""Of a list: the height of a row, and how wide it is [mm]."""


def sheets(drawings: list[Drawing], paper: str, title: str) -> tuple[Sheet, ...]:
    """The drawings on sheets of a paper, upright unless one needs the width; a check bar and the page on
    each.
    """
    wide, high = SHEETS[paper]
    longest = max(drawing.box[2] for drawing in drawings)
    if longest > wide - 2 * MARGIN:
        wide, high = high, wide
    area = (wide - 2 * MARGIN, high - 2 * MARGIN - FOOT)
    pages = _packed(
        [
            piece
            for drawing in drawings
            for part in _pieces(drawing, area)
            for piece in _with_lists(part, area)
        ],
        area,
    )
    return tuple(
        Sheet(
            wide,
            high,
            (
                *_foot(wide, high, f"{title}: sheet {number} of {len(pages)}"),
                *(_placed(piece, x, y, f"{number}-{at}") for at, (piece, x, y) in enumerate(page)),
            ),
        )
        for number, page in enumerate(pages, start=1)
    )


def _pieces(drawing: Drawing, area: tuple[float, float]) -> list[_Piece]:
    """The drawing whole, or in windows that overlap, each pair sharing its register marks."""
    x, y, wide, high = drawing.box
    room = area[1] - HEAD - (NOTE if drawing.note else 0.0)
    columns = 1 if wide <= area[0] else ceil((wide - OVERLAP) / (area[0] - OVERLAP))
    rows = 1 if high <= room else ceil((high - OVERLAP) / (room - OVERLAP))
    if columns == rows == 1:
        return [_Piece(drawing, drawing.box, drawing.title)]
    step_x, step_y = (wide - OVERLAP) / columns, (high - OVERLAP) / rows
    marks = _register(drawing.box, columns, rows, step_x, step_y)
    pieces = []
    for row in range(rows):
        for column in range(columns):
            window = (
                x + column * step_x,
                y + row * step_y,
                (step_x + OVERLAP) if columns > 1 else wide,
                (step_y + OVERLAP) if rows > 1 else high,
            )
            part = (
                f"{drawing.title}, part {row * columns + column + 1} of {rows * columns}: lay the crosses"
                " over each other"
            )
            pieces.append(_Piece(drawing, window, part, tuple(m for m in marks if _inside(m, window))))
    return pieces


def _with_lists(piece: _Piece, area: tuple[float, float]) -> list[_Piece]:
    """A piece and its lists, on one sheet where one takes them all."""
    lists = _lists(piece, area)
    below = sum(one.height + GAP for one in lists)
    return [replace(piece, below=below if piece.height + below <= area[1] else 0.0), *lists]


def _lists(piece: _Piece, area: tuple[float, float]) -> list[_Piece]:
    """The rows that belong to what a piece shows, as many to a list as a sheet takes."""
    left, _, wide, _ = piece.window
    rows = [row for row in piece.drawing.listed if left <= row.x_mm <= left + wide]
    most = max(int((area[1] - HEAD) // ROW), 1)
    lists = []
    for first in range(0, len(rows), most):
        part = rows[first : first + most]
        said = [label(row.says, 0, n * ROW + 3.0, 2.7) for n, row in enumerate(part)] + [
            label(row.more, 4, n * ROW + 6.5, 2.4, fill=MUTED) for n, row in enumerate(part)
        ]
        box = (0.0, 0.0, min(LIST_WIDE, area[0]), len(part) * ROW)
        lists.append(
            _Piece(
                Drawing(f"{piece.drawing.key}-list", "", tuple(said), box),
                box,
                f"{piece.heading.split(':')[0]}: list",
            )
        )
    return lists


def _register(
    box: tuple[float, float, float, float], columns: int, rows: int, step_x: float, step_y: float
) -> list[tuple[float, float, str]]:
    """Crosses in the middle of every overlap: place and name, the same on both parts."""
    x, y, wide, high = box
    marks = []
    for column in range(1, columns):
        at = x + column * step_x + OVERLAP / 2
        marks += [(at, y + 3.5, f"{column}a"), (at, y + high - 3.5, f"{column}b")]
    for row in range(1, rows):
        at = y + row * step_y + OVERLAP / 2
        marks += [(x + 3.5, at, f"{row}c"), (x + wide - 3.5, at, f"{row}d")]
    return marks


def _inside(mark: tuple[float, float, str], window: tuple[float, float, float, float]) -> bool:
    return (
        window[0] - 0.1 <= mark[0] <= window[0] + window[2] + 0.1
        and window[1] - 0.1 <= mark[1] <= window[1] + window[3] + 0.1
    )


def _packed(pieces: list[_Piece], area: tuple[float, float]) -> list[list[tuple[_Piece, float, float]]]:
    """Pieces in rows from the top, a new sheet where one does not fit."""
    pages: list[list[tuple[_Piece, float, float]]] = [[]]
    x = y = row = 0.0
    for piece in pieces:
        wide, high = max(piece.window[2], 30.0), piece.height
        if x > 0 and x + wide > area[0] + 0.01:
            x, y, row = 0.0, y + row + GAP, 0.0
        if pages[-1] and y + high + piece.below > area[1] + 0.01:
            pages.append([])
            x = y = row = 0.0
        pages[-1].append((piece, MARGIN + x, MARGIN + y))
        x, row = x + wide + GAP, max(row, high)
    return pages


def _placed(piece: _Piece, x: float, y: float, name: str) -> Node:
    left, top, wide, high = piece.window
    clip = f"clip-{name}"
    rows = [
        label(piece.heading, 0, 3.6, 3.2, font_weight=600),
        *([label(piece.drawing.note, 0, 8.0, 2.5, fill=MUTED)] if piece.drawing.note else []),
    ]
    shift = HEAD + (NOTE if piece.drawing.note else 0.0)
    window = node("clipPath", node("rect", x=left, y=top, width=wide, height=high), id=clip)
    drawn = group(
        [
            window,
            group(piece.drawing.content, clip_path=f"url(#{clip})"),
            *(_cross(*mark) for mark in piece.marks),
        ],
        transform=f"translate({-left:.3f} {shift - top:.3f})",
    )
    return group([*rows, drawn], transform=f"translate({x:.3f} {y:.3f})")


def _cross(x: float, y: float, name: str) -> Node:
    d = f"M{x - 3:.3f} {y:.3f}h6M{x:.3f} {y - 3:.3f}v6"
    return group(
        [
            node("path", d=d, stroke=INK, stroke_width=0.2, fill="none"),
            node("circle", cx=x, cy=y, r=1.6, stroke=INK, stroke_width=0.2, fill="none"),
            label(name, x + 3.4, y + 1, 2.4),
        ],
        class_="register",
    )


def check_bar(x: float, y: float) -> list[Node]:
    """Bars of 50 mm and 2 in to lay a ruler against."""
    rows = []
    for length, says, down in ((50.0, "50 mm", 0.0), (50.8, "2 in", 7.0)):
        rows.append(node("rect", x=x, y=y + down, width=length, height=2.0, fill=INK, class_="check"))
        rows.append(label(says, x + length + 2, y + down + 2.0, 3.0))
    return rows


def _foot(wide: float, high: float, title: str) -> list[Node]:
    y = high - MARGIN - 13
    return [
        node("line", x1=MARGIN, x2=wide - MARGIN, y1=y - 4, y2=y - 4, stroke=MUTED, stroke_width=0.2),
        *check_bar(MARGIN, y),
        label(
            "Lay a ruler on both bars; if off, print again at 100 %, actual size.",
            MARGIN + 72,
            y + 2.0,
            2.6,
            fill=MUTED,
        ),
        label(title, MARGIN + 72, y + 8.6, 3.2, font_weight=600),
    ]
