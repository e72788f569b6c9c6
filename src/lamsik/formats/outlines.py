"""Outlines out of drawing files: what is a side, what a top, in millimetres; nothing in a file is ever run
or fetched.
"""

from dataclasses import dataclass

import numpy as np

from lamsik.core.errors import Refused
from lamsik.core.quantities import said
from lamsik.core.shapes.curves import Array
from lamsik.documents.rows import Document

SIDE, TOP = "side", "top"
MOST_BYTES, MOST_POINTS, MOST_SHAPES = 10_000_000, 40_000, 2_000
FARTHEST_MM = 1e5


@dataclass(frozen=True, eq=False)
class FoundOutline:
    """A closed outline (n, 2) [mm], z up, and what it is called in the file."""

    name: str
    points: Array

    @property
    def area_mm2(self) -> float:
        """Area it encloses [mm²]."""
        x, y = self.points.T
        return abs(float(x @ np.roll(y, -1) - y @ np.roll(x, -1))) / 2


@dataclass(frozen=True, eq=False)
class Outlines:
    """The side outline, the top one where the file has it, and our own document where the file still
    carries it unchanged.
    """

    side: Array
    top: Array | None = None
    document: Document | None = None


def chosen(outlines: list[FoundOutline], document: Document | None = None) -> Outlines:
    """Side and top out of a file's closed outlines: by their names, else the largest, and the next largest of
    like length below it.

    Raises `Refused` where there is none.
    """
    if not outlines:
        raise Refused(
            "file", "no closed outline", "draw the side as one closed path, and the top, if any, as another"
        )
    for row in outlines:
        if not np.all(np.abs(row.points) <= FARTHEST_MM):  # nor is what is no number
            raise Refused(
                "file",
                row.name or None,
                f"an outline reaches further than {said(FARTHEST_MM / 1000, 'distance', 0)}: see what"
                " else is in the"
                " drawing",
            )
    by_size = sorted(outlines, key=lambda row: -row.area_mm2)
    side = next((row for row in by_size if SIDE in row.name.lower()), None)
    top = next((row for row in by_size if TOP in row.name.lower() and row is not side), None)
    if side is None:
        rest = [row for row in by_size if row is not top]
        side = (
            max(rest, key=lambda row: float(row.points[:, 1].max()))
            if top is None and _alike(rest)
            else rest[0]
        )
    if top is None:
        others = [
            row
            for row in by_size
            if row is not side and _length(row) > 0.8 * _length(side) and _length(row) < 1.25 * _length(side)
        ]
        top = others[0] if others else None
    return Outlines(_closed(side.points), _closed(top.points) if top else None, document)


def _alike(rows: list[FoundOutline]) -> bool:
    """Whether the two largest are as long as each other: side above, top below."""
    return (
        len(rows) > 1
        and 0.8 < _length(rows[1]) / max(_length(rows[0]), 1e-9) < 1.25
        and rows[1].area_mm2 > 0.1 * rows[0].area_mm2
    )


def _length(row: FoundOutline) -> float:
    return float(np.ptp(row.points[:, 0]))


def _closed(points: Array) -> Array:
    """The points without the repeated last one, moved so that the nose is at 0 and z = 0 in the middle of
    its height.
    """
    kept = points[:-1] if len(points) > 3 and np.allclose(points[0], points[-1]) else points
    return np.asarray(kept - np.array([kept[:, 0].min(), (kept[:, 1].min() + kept[:, 1].max()) / 2]))
