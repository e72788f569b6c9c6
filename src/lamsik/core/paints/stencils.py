"""Stencils cut for one body: the skin round a layer's marks laid flat, with slits where it will not lie,
bridges that hold what would fall out, and marks to lay it by.
"""

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from scipy import ndimage
from skimage.measure import find_contours

from lamsik.core.errors import require, rule
from lamsik.core.paints.flatten import Flat, flattened
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.masks import SHAPES, mask
from lamsik.core.paints.paint import LEFT, RIGHT
from lamsik.core.paints.place import Anchors, Place
from lamsik.core.paints.skin import CLOSE, SkinSheet, skin_of
from lamsik.core.quantities import said
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array

HALF = 0.5
AROUND_MM = 7.0
"""How much card stands round what is cut out."""
BRIDGE_MM = 1.2
"""How wide a bridge is that holds an island."""
LEAST_GIRTH_MM = 3.0
"""Where half the girth is less, nothing is laid: the nose and the tail are bent round by hand."""
ALONG, ROUND = 33, 25
"""Places along and round the patch that are laid flat."""
LEAST, MOST = 0.95, 1.05
"""How far card may be stretched or pushed together and still lie."""
MOST_SLITS = 12
UPPER, LOWER = "upper", "lower"
"""Sides of a plate."""
OTHER = {LEFT: RIGHT, RIGHT: LEFT, UPPER: LOWER, LOWER: UPPER}
SOFT_PERCENT = 45.0
"""A rim so soft is sprayed by hand."""
Window = tuple[int, int, int, int]
"""First and last row, first and last column of corners."""


@dataclass(frozen=True, eq=False)
class Stencil:
    """A stencil or mask for one side, seen from outside: nose to the left on the left side, back up.

    Args:
        side: for which side it is.
        outline: of the card, slits and all, closed (n, 2) [mm].
        openings: what is cut out, closed (n, 2) each [mm]; of a mask nothing.
        flat: the patch laid flat, with how much each triangle is stretched.
        slits: how many slits it has; bridges: how many bridges.
        is_back: whether its upper edge is the back line.
        eye: where the eye is seen through it or beside it (2,) [mm], None where that is off the card.
    """

    side: str
    outline: Array
    openings: tuple[Array, ...]
    flat: Flat
    slits: int
    bridges: int
    is_back: bool
    eye: Array | None

    @property
    def least(self) -> float:
        """The least factor by which any of it is stretched."""
        return float(self.flat.stretch[:, 0].min())

    @property
    def most(self) -> float:
        """The largest factor by which any of it is stretched."""
        return float(self.flat.stretch[:, 1].max())

    @property
    def is_nose_left(self) -> bool:
        """Whether the nose is to its left."""
        return self.side in (LEFT, UPPER)

    @property
    def lies(self) -> bool:
        """Whether all of it lies on the body within what card allows."""
        return self.least >= LEAST and self.most <= MOST

    @property
    def twin(self) -> "Stencil":
        """Its mirror, for the other side."""

        def over(points: Array) -> Array:
            return np.asarray(points * np.array([-1.0, 1.0]))

        return replace(
            self,
            side=OTHER[self.side],
            outline=over(self.outline),
            openings=tuple(over(one) for one in self.openings),
            flat=Flat(over(self.flat.points), self.flat.faces, self.flat.stretch),
            eye=None if self.eye is None else over(self.eye),
        )


def can_be_cut(layer: Layer) -> bool:
    """Whether a layer's marks can be cut out of a card: they have edges, and do not share their area."""
    shape = SHAPES[layer.place.shape]
    whole = layer.place.shape == "region" and not _has_edges(layer)
    return not shape.shares and not whole and layer.mass_g is None


def _has_edges(layer: Layer) -> bool:
    """Whether a stretch ends on the body, with an edge that a card can make."""
    blank, place = Place(), layer.place
    ends = ("begins", "ends", "top", "bottom")
    return place.edge_percent < SOFT_PERCENT and any(
        getattr(place, one) != getattr(blank, one) for one in ends
    )


@lru_cache(maxsize=32)
def stencil(layer: Layer, body: Body, anchors: Anchors) -> Stencil:
    """The stencil of a layer for the side it is on, the left one of both.

    Raises:
        Refused: a layer that is all over or through a net, or marks that lie off the skin.
    """
    require(can_be_cut(layer), "layer", layer.name, rule("no-stencil"))
    skin = skin_of(body, CLOSE)
    sheet = skin.sides[1 if layer.place.side == RIGHT else 0]
    cover = mask(layer.place, skin, anchors)[sheet.name]
    opening, window = _window(cover, sheet)
    bridged, bridges = _bridged(opening, sheet, window)
    patch, flat = _pieced(sheet, window, opening)
    points = flat.points
    shown = np.where(opening & ~bridged, 0.0, cover) / max(float(cover.max()), 1e-9)
    shown[: window[0]] = shown[window[1] :] = 0.0
    contours = find_contours(np.pad(shown, 1), HALF)  # type: ignore[no-untyped-call]
    openings = tuple(patch.at(one - 0.5, points) for one in contours if len(one) > 3)
    as_left = _cut(patch, flat, openings, bridges, anchors)
    return as_left.twin if sheet.side == RIGHT else as_left


@lru_cache(maxsize=16)
def collar(body: Body, from_mm: float, to_mm: float, anchors: Anchors) -> Stencil:
    """A mask that covers the left side of a body over a stretch of it, from back to keel: nothing is cut out.

    Raises:
        Refused: a stretch where the body is too thin to be laid.
    """
    sheet = skin_of(body, CLOSE).sides[0]
    x, good = sheet.corners[..., 0].mean(axis=1), np.flatnonzero(sheet.girth_mm[:, 0] >= LEAST_GIRTH_MM)
    first = max(int(np.abs(x - from_mm).argmin()), int(good[0]))
    last = min(int(np.abs(x - to_mm).argmin()), int(good[-1]) + 1)
    require(last - first >= 3, "layer", said(from_mm, "length"), rule("marks-on-skin"))
    window = (first, last, 0, sheet.area_mm2.shape[1])
    patch, flat = _pieced(sheet, window, np.zeros(sheet.area_mm2.shape, dtype=bool))
    return _cut(patch, flat, (), 0, anchors)


def _pieced(sheet: SkinSheet, window: Window, opening: NDArray[np.bool_]) -> tuple["_Patch", Flat]:
    """A part of a side laid flat and upright, with as many slits as it takes to lie."""
    patch = _Patch(sheet, window, opening)
    flat = patch.laid()
    while not _lies(flat) and len(patch.slits) < MOST_SLITS and patch.slit(flat):
        flat = patch.laid()
    return patch, Flat(_upright(flat.points, patch), flat.faces, flat.stretch)


def _cut(patch: "_Patch", flat: Flat, openings: tuple[Array, ...], bridges: int, anchors: Anchors) -> Stencil:
    return Stencil(
        LEFT,
        flat.points[patch.rim(flat.faces)],
        openings,
        flat,
        len(patch.slits),
        bridges,
        int(patch.columns[0]) == 0,
        _eye(patch, flat.points, anchors),
    )


def _window(cover: Array, sheet: SkinSheet) -> tuple[NDArray[np.bool_], Window]:
    """What is cut out, and the part of the skin that the card takes round it."""
    broad = sheet.girth_mm[:, 0] >= LEAST_GIRTH_MM
    opening = (cover >= HALF * max(float(cover.max()), 1e-9)) & broad[:, None] & (cover.max() > 0)
    require(bool(opening.any()), "layer", 0, rule("marks-on-skin"))
    rows, columns = np.flatnonzero(opening.any(axis=1)), np.flatnonzero(opening.any(axis=0))
    m, n = cover.shape
    around = max(int(round(AROUND_MM / max(float(np.median(sheet.girth_mm)) / n, 1e-6))), 1)
    x, good = sheet.x_mm[:, 0], np.flatnonzero(broad)
    first = int(np.searchsorted(x, x[rows[0]] - AROUND_MM))
    last = int(np.searchsorted(x, x[rows[-1]] + AROUND_MM))
    window = (
        max(first, int(good[0])),
        min(last, int(good[-1])) + 1,
        max(int(columns[0]) - around, 0),
        min(int(columns[-1]) + around, n - 1) + 1,
    )
    whole = (window[0] <= good[0], window[1] > good[-1], window[2] == 0, window[3] == n)
    covered = opening[window[0] : window[1], window[2] : window[3]].all()
    require(not (all(whole) and covered), "layer", 1, rule("no-stencil"))
    return opening, window


def _bridged(opening: NDArray[np.bool_], sheet: SkinSheet, window: Window) -> tuple[NDArray[np.bool_], int]:
    """The openings with bridges to each island, above and below it, and how many there are."""
    part = np.zeros_like(opening)
    inside = (slice(window[0], window[1]), slice(window[2], window[3]))
    part[inside] = opening[inside]
    labels, count = ndimage.label(~np.pad(part[inside], 1, constant_values=False))
    outer, bridges, held = labels[0, 0], 0, part.copy()
    for n in range(1, count + 1):
        if n == outer:
            continue
        rows, columns = np.nonzero((labels == n)[1:-1, 1:-1])
        middle = float(sheet.x_mm[int(rows.mean()) + window[0], 0])
        strip = np.abs(sheet.x_mm[:, 0] - middle) <= BRIDGE_MM / 2
        strip[int(rows.mean()) + window[0]] = True
        held[np.ix_(strip, np.ones(held.shape[1], dtype=bool))] &= ~_ways(
            part, int(rows.mean()) + window[0], columns + window[2]
        )[None, :]
        bridges += 2
    return held, bridges


def _ways(part: NDArray[np.bool_], row: int, columns: NDArray[np.int64]) -> NDArray[np.bool_]:
    """The columns over which bridges go from an island: up and down to where card begins again."""
    way = np.zeros(part.shape[1], dtype=bool)
    for start, step in ((int(columns.min()) - 1, -1), (int(columns.max()) + 1, 1)):
        at = start
        while 0 <= at < part.shape[1] and part[row, at]:
            way[at] = True
            at += step
    return way


def _lies(flat: Flat) -> bool:
    return bool(flat.stretch[:, 0].min() >= LEAST and flat.stretch[:, 1].max() <= MOST)


class _Patch:
    """A part of a side in places along and round it, with its slits: from an edge inward, along a row."""

    def __init__(self, sheet: SkinSheet, window: Window, opening: NDArray[np.bool_]) -> None:
        self.sheet, self.opening = sheet, opening
        first, last, top, bottom = window
        self.rows = np.unique(np.round(np.linspace(first, last, min(ALONG, last - first + 1))).astype(int))
        self.columns = np.unique(np.round(np.linspace(top, bottom, min(ROUND, bottom - top + 1))).astype(int))
        self.shape = (len(self.rows), len(self.columns))
        self.slits: dict[tuple[int, bool], int] = {}
        """By the row they lie on and whether they come from above: how many places deep they are."""
        self._number()

    def _number(self) -> None:
        """Which point each corner of each field is: on a slit there are two."""
        m, n = self.shape
        number = np.arange(m * n).reshape(m, n)
        self.points = self.sheet.corners[np.ix_(self.rows, self.columns)].reshape(-1, 3)
        self.fields = np.stack([number[:-1, :-1], number[1:, :-1], number[1:, 1:], number[:-1, 1:]], axis=-1)
        more: list[int] = []
        for (row, from_above), deep in self.slits.items():
            places = range(deep) if from_above else range(n - deep, n)
            for column in places:
                new = m * n + len(more)
                more.append(number[row, column])
                for field in (column - 1, column):
                    if 0 <= field < n - 1:
                        corners = self.fields[row, field]
                        corners[corners == number[row, column]] = new
        if more:
            self.points = np.concatenate([self.points, self.points[more]])

    def laid(self) -> Flat:
        """The patch laid flat."""
        a, b, c, d = (self.fields[..., n] for n in range(4))
        even = (np.add.outer(*(np.arange(size - 1) for size in self.shape)) % 2 == 0)[..., None, None]
        one = np.stack([np.stack([a, b, c], -1), np.stack([a, c, d], -1)], axis=2)
        other = np.stack([np.stack([a, b, d], -1), np.stack([b, c, d], -1)], axis=2)
        return flattened(self.points, np.where(even, one, other).reshape(-1, 3))

    def slit(self, flat: Flat) -> bool:
        """One slit more, from the edge nearest to where it lies worst; False where there is no room."""
        m, n = self.shape
        off = np.maximum(flat.stretch[:, 1] - 1.0, 1.0 - flat.stretch[:, 0])
        worst = off.reshape(m - 1, n - 1, 2).max(axis=2)
        for at in np.argsort(worst, axis=None)[::-1]:
            row, column = divmod(int(at), n - 1)
            row, from_above = min(max(row, 1), m - 2), column < (n - 1) / 2
            is_near = any(abs(row - known) <= 1 and from_above == above for known, above in self.slits)
            if not is_near and not self._crosses(row, from_above):
                self.slits[row, from_above] = max(int(0.42 * n), 2)
                self._number()
                return True
        return False

    def _crosses(self, row: int, from_above: bool) -> bool:
        """Whether a slit there would run through what is cut out."""
        middle = self.columns[len(self.columns) // 2]
        columns = slice(self.columns[0], middle) if from_above else slice(middle, self.columns[-1])
        near = slice(max(self.rows[row] - 1, 0), self.rows[row] + 1)
        return bool(self.opening[near, columns].any())

    def at(self, places: Array, points: Array) -> Array:
        """Places among the corners of the sheet (k, 2) as they lie flat, (k, 2)."""
        i = np.clip(np.searchsorted(self.rows, places[:, 0], "right") - 1, 0, len(self.rows) - 2)
        j = np.clip(np.searchsorted(self.columns, places[:, 1], "right") - 1, 0, len(self.columns) - 2)
        along = (places[:, 0] - self.rows[i]) / (self.rows[i + 1] - self.rows[i])
        down = (places[:, 1] - self.columns[j]) / (self.columns[j + 1] - self.columns[j])
        along, down = (np.clip(one, 0.0, 1.0)[:, None] for one in (along, down))
        a, b, c, d = (points[self.fields[i, j, n]] for n in range(4))
        return np.asarray((a * (1 - along) + b * along) * (1 - down) + (d * (1 - along) + c * along) * down)

    def rim(self, faces: NDArray[np.int64]) -> NDArray[np.int64]:
        """The points round the patch in order, down and up its slits."""
        edges = np.concatenate([faces[:, [0, 1]], faces[:, [1, 2]], faces[:, [2, 0]]])
        there = {(int(a), int(b)) for a, b in edges}
        after = {a: b for a, b in there if (b, a) not in there}
        start = next(iter(after))
        order = [start]
        while (one := after[order[-1]]) != start and len(order) <= len(after):
            order.append(one)
        return np.array(order)


def _upright(points: Array, patch: _Patch) -> Array:
    """Laid with the nose to the left and the back up, its lower left corner at 0."""
    m, n = patch.shape
    mesh = points[: m * n].reshape(m, n, 2)
    along = (mesh[-1] - mesh[0]).mean(axis=0)
    cos, sin = along / max(float(np.linalg.norm(along)), 1e-12)
    turned = points @ np.array([[cos, -sin], [sin, cos]])
    mesh = turned[: m * n].reshape(m, n, 2)
    if mesh[:, 0, 1].mean() < mesh[:, -1, 1].mean():
        turned = turned * np.array([1.0, -1.0])
    return np.asarray(turned - turned.min(axis=0))


def _eye(patch: _Patch, points: Array, anchors: Anchors) -> Array | None:
    """Where the eye is, laid flat; None where it is off the card."""
    if anchors.eye_mm is None:
        return None
    x = patch.sheet.corners[..., 0].mean(axis=1)
    row = float(np.interp(anchors.eye_mm, x, np.arange(len(x))))
    column = anchors.eye_round * patch.sheet.round_share.size
    off = not (patch.rows[0] <= row <= patch.rows[-1] and patch.columns[0] <= column <= patch.columns[-1])
    return None if off else patch.at(np.array([[row, column]]), points)[0]
