"""Masks: how much of each cell of the skin a layer covers, by the shape it has, registered by name.

A rim is a ramp as wide as a cell, so that a shape covers what its outline says whatever the cells are; a soft
one is as much wider as it is soft.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import lru_cache
from math import pi, radians, sqrt, tan

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from lamsik.core.paints import lettering, outlines
from lamsik.core.paints.paint import RIGHT
from lamsik.core.paints.place import Anchors, Place
from lamsik.core.paints.skin import PaintedSkin, SkinSheet
from lamsik.core.shapes.curves import Array

MOST_TRIED, TRUE_TO = 6, 0.001
"""How often the width of threads is tried, and how near what they let through has to come."""
TAPER = 0.25
"""How wide a bar is at its lower end, of its width at the back."""
RIM_OUT, RIM_THICK, RIM_FROM = 0.46, 0.15, 0.2
"""The rim of a scale, of how far they lie apart: how far out it is, how thick, and from where on it is drawn,
so that card is left between one and the next.
"""
ARC_THICK, ARC_REACH = 0.16, 0.5
"""A gill's stroke of its height; it reaches to where the cosine of its angle is this."""


@dataclass(frozen=True, eq=False)
class Spread:
    """A place on a sheet of the skin.

    Args:
        place, sheet: what is laid, and on what.
        first_mm, last_mm: the stretch along the body [mm].
        top, bottom: the stretch round it, shares from the back at each row, (m, 1).
        size_mm: of a mark.
    """

    place: Place
    sheet: SkinSheet
    first_mm: float
    last_mm: float
    top: Array
    bottom: Array
    size_mm: float
    length_mm: float

    @property
    def soft_mm(self) -> float:
        """How wide the rim of a mark is [mm]."""
        return self.place.edge_share * self.size_mm

    @property
    def cell_mm(self) -> Array:
        """How large cells are, row by row [mm], (m, 1)."""
        return (self.sheet.step_mm + self.sheet.girth_mm / self.sheet.round_share.size) / 2


Cover = Callable[[Spread], Array]
Off = Callable[[Array, Array], Array]
"""Signed distance to a mark [mm] of places so far from its middle, along and round the body [mm]."""


@dataclass(frozen=True)
class MaskShape:
    """A shape of masks.

    Args:
        name: what it is called.
        cover: how much of each cell it covers, of 1.
        uses: the fields of a place that say what it looks like.
        is_lone: whether it lies at one place, `begins` and `top`, and not over a stretch.
        is_marks: whether it is marks on the sides; else it lies on the ends as well.
        is_read: whether it is turned round on the other side, as words are.
        shares: whether `cover_share` is what it covers of its stretch, as paint through a net does.
    """

    name: str
    cover: Cover
    uses: tuple[str, ...]
    is_lone: bool = False
    is_marks: bool = True
    is_read: bool = False
    shares: bool = False


def mask(place: Place, skin: PaintedSkin, anchors: Anchors) -> dict[str, Array]:
    """How much of each cell of each sheet a place covers, by the sheet's name, (m, n) each; sheets it does
    not lie on are left out.
    """
    return {sheet.name: cover for sheet, cover in _covers(place, skin, anchors)}


def _covers(place: Place, skin: PaintedSkin, anchors: Anchors) -> Iterator[tuple[SkinSheet, Array]]:
    shape, known = SHAPES[place.shape], None
    for sheet in skin.sides:
        if place.is_on(sheet.side):
            if known is None or not skin.is_mirrored or shape.is_read:
                known = cover_on(place, sheet, skin, anchors)
            yield sheet, known
    if shape.is_marks:
        return
    half = 1.0 if place.is_on(skin.sides[0].side) and place.is_on(skin.sides[1].side) else 0.5
    for sheet in skin.patches:
        if sheet.is_end or _is_whole(place):
            yield sheet, half * cover_on(place, sheet, skin, anchors)


def _is_whole(place: Place) -> bool:
    """Whether it lies all over, into joints and hollows as well."""
    blank = Place()
    return (place.begins, place.ends, place.top, place.bottom) == (
        blank.begins,
        blank.ends,
        blank.top,
        blank.bottom,
    )


def cover_on(place: Place, sheet: SkinSheet, skin: PaintedSkin, anchors: Anchors) -> Array:
    """How much of each cell of a sheet a place covers, (m, n)."""
    shape = SHAPES[place.shape]
    first, last = sorted(anchors.x_mm(at, skin.length_mm) for at in (place.begins, place.ends))
    if shape.is_lone:
        first = anchors.x_mm(place.begins, skin.length_mm)
    girth = sheet.girth_mm[:, 0]
    rounds = [
        np.array([anchors.round_share(at, float(one)) for one in girth])[:, None]
        if at.more_mm
        else np.full((len(girth), 1), anchors.round_share(at, 1.0))
        for at in (place.top, place.bottom)
    ]
    top, bottom = (rounds[0], rounds[1]) if shape.is_lone else (np.minimum(*rounds), np.maximum(*rounds))
    size = place.size_share * skin.depth_mm + place.size_mm
    on = Spread(place, sheet, first, last, top, bottom, size, skin.length_mm)
    cover = shape.cover(on)
    cover = cover if shape.shares else place.cover_share * cover
    return np.asarray(np.broadcast_to(cover, sheet.area_mm2.shape))


def _ramp(distance: Array, wide: Array | float) -> Array:
    """1 where a signed distance is inside, 0 outside, straight in between."""
    return np.asarray(np.clip(0.5 - distance / wide, 0.0, 1.0))


def _edge(at: Array, edge: Array | float, soft: Array | float, cell: Array | float) -> Array:
    """What is covered beyond an edge: straight up over the soft rim inside it, or over a cell across it."""
    wide = np.maximum(soft, cell)
    begins = np.where(soft > cell, edge, edge - wide / 2)
    return np.asarray(np.clip((at - begins) / wide, 0.0, 1.0))


def _along(on: Spread, soft: float) -> Array:
    """The stretch along the body, (m, 1): an end of the body is no edge."""
    x, cell = on.sheet.x_mm, on.sheet.step_mm
    free = (on.first_mm > 1e-9, on.last_mm < on.length_mm - 1e-9)
    rim = soft * (on.last_mm - on.first_mm) / max(sum(free), 1)
    cover = np.ones(x.shape)
    if free[0]:
        cover = cover * _edge(x, on.first_mm, rim, cell)
    if free[1]:
        cover = cover * _edge(-x, -on.last_mm, rim, cell)
    return cover


def _round(on: Spread, soft: float) -> Array:
    """The stretch round the body, (m, n): back and keel are no edges."""
    at, cell = on.sheet.round_share, 1.0 / on.sheet.round_share.size
    free = (on.top > 1e-9, on.bottom < 1.0 - 1e-9)
    rim = soft * (on.bottom - on.top) / np.maximum(free[0].astype(float) + free[1], 1.0)
    upper = np.where(free[0], _edge(at, on.top, rim, cell), 1.0)
    return np.asarray(upper * np.where(free[1], _edge(-at, -on.bottom, rim, cell), 1.0))


def _region(on: Spread) -> Array:
    return _along(on, on.place.edge_share) * _round(on, on.place.edge_share)


def _bars(on: Spread) -> Array:
    place, sheet, count = on.place, on.sheet, on.place.count
    if not count:
        return np.zeros(sheet.area_mm2.shape)
    pitch = max((on.last_mm - on.first_mm) / count, 1e-6)
    middle = (on.top + on.bottom) / 2
    lean = tan(radians(place.slant_deg)) * (sheet.round_share - middle) * sheet.girth_mm
    at = (sheet.x_mm - lean - on.first_mm) / pitch
    number = np.clip(np.floor(at), 0, count - 1)
    deep = np.clip((sheet.round_share - on.top) / np.maximum(on.bottom - on.top, 1e-9), 0.0, 1.0)
    half = (place.size_share * pitch + place.size_mm) / 2 * (1.0 - (1.0 - TAPER) * deep)
    off = np.abs(at - number - 0.5) * pitch - half
    return _ramp(off, np.maximum(place.edge_share * 2.0 * half, 1.6 * sheet.step_mm)) * _round(on, 0.0)


def _centres(on: Spread, rows: int) -> Iterator[tuple[float, float]]:
    """Places of marks, spread over the stretch in rows that take turns: x [mm], share round."""
    count = on.place.count
    for n in range(count):
        x = on.first_mm + (on.last_mm - on.first_mm) * (n + 0.5) / count
        row = int(np.argmin(np.abs(on.sheet.x_mm[:, 0] - x)))
        low, high = float(on.top[row, 0]), float(on.bottom[row, 0])
        yield x, low + (high - low) * (n % rows + 1) / (rows + 1)


def _each(
    on: Spread, centres: Iterator[tuple[float, float]], reach: float, off: Off, area_mm2: float = 0.0
) -> Array:
    """Marks at places, each laid on flat where it is: only the rows they reach are asked how far they are.
    One that lies wholly on the sheet takes `area_mm2` of it, however coarse its cells are.
    """
    cover = np.zeros(on.sheet.area_mm2.shape)
    x = on.sheet.x_mm[:, 0]
    for at, share in centres:
        row, column = _cell(on.sheet, at, share)
        near = np.abs(x - at) <= reach + on.soft_mm + 2.0 * on.cell_mm[:, 0]
        if near.any():
            along, way = _laid_flat(on.sheet, row, column, at, share, near)
            rim = np.maximum(on.soft_mm, on.cell_mm[near])
            mark = _as_large(off(along, way), rim, on.sheet.area_mm2[near], area_mm2)
            cover[near] = np.maximum(cover[near], mark)
    return cover


NEWTON = 2
LIKELY = 0.25
"""A mark that is off by a larger share is cut by an edge of the skin, or folds over it: it stays as it is."""


def _as_large(off_mm: Array, rim: Array | float, cells_mm2: Array, area_mm2: float) -> Array:
    """A mark by how far cells are from its outline, that moved by what its area is off.

    Notes: Newton's rule; how its area grows with its outline is its circumference as sampled.
    """
    mark = _ramp(off_mm, rim)
    taken = float((mark * cells_mm2).sum())
    if mark[:, (0, -1)].any() or not area_mm2 or abs(taken - area_mm2) > LIKELY * area_mm2:
        return mark
    step = 0.02 * sqrt(area_mm2)
    for _ in range(NEWTON):
        grown = float((_ramp(off_mm - step, rim) * cells_mm2).sum())
        off_mm = off_mm - step * (area_mm2 - taken) / max(grown - taken, 1e-9)
        mark = _ramp(off_mm, rim)
        taken = float((mark * cells_mm2).sum())
    return mark


def _cell(sheet: SkinSheet, x_mm: float, share: float) -> tuple[int, int]:
    count = sheet.round_share.size
    return int(np.argmin(np.abs(sheet.x_mm[:, 0] - x_mm))), min(int(share * count), count - 1)


def _laid_flat(
    sheet: SkinSheet, row: int, column: int, x_mm: float, share: float, rows: NDArray[np.bool_]
) -> tuple[Array, Array]:
    """How far cells are from a place, along and round the body [mm], as a sticker sees them: in the plane
    that touches the skin there. Where the skin turns away they keep their distance.
    """
    normal, across = sheet.normal[row, column], sheet.corners[row, column + 1] - sheet.corners[row, column]
    along = np.array([1.0, 0.0, 0.0]) - normal[0] * normal
    along /= max(float(np.linalg.norm(along)), 1e-9)
    down = np.cross(normal, along)
    down *= np.sign(float(down @ across)) or 1.0
    middle = sheet.middle_mm[row, column]
    place = (
        middle
        + along * (x_mm - middle[0]) / max(float(along[0]), 0.2)
        + down * (share - float(sheet.round_share[0, column])) * float(sheet.girth_mm[row, 0])
    )
    away = sheet.middle_mm[rows] - place
    flat = np.stack([away @ along, away @ down])
    far, seen = np.linalg.norm(away, axis=-1), np.hypot(*flat)
    flat = flat * (far / np.maximum(seen, 1e-9))
    return flat[0], flat[1]


def _spots(on: Spread) -> Array:
    radius = on.size_mm / 2
    return _each(on, _centres(on, 2), radius, lambda x, way: np.hypot(x, way) - radius, pi * radius**2)


def _lone(on: Spread) -> Iterator[tuple[float, float]]:
    row = int(np.argmin(np.abs(on.sheet.x_mm[:, 0] - on.first_mm)))
    yield on.first_mm, float(on.top[row, 0])


def _disc(on: Spread) -> Array:
    radius = on.size_mm / 2
    return _each(on, _lone(on), radius, lambda x, way: np.hypot(x, way) - radius, pi * radius**2)


def _arc(on: Spread) -> Array:
    """A stroke round the place, open towards the nose."""
    radius, thick = on.size_mm / 2, ARC_THICK * on.size_mm / 2

    def off(x: Array, way: Array) -> Array:
        far = np.hypot(x, way)
        return np.maximum(np.abs(far - radius) - thick / 2, ARC_REACH * radius - x)

    return _each(on, _lone(on), radius + thick, off)


def _stencil(on: Spread) -> Array:
    points = outlines.SHAPES[on.place.outline] * on.size_mm
    turn = radians(on.place.slant_deg)

    def off(x: Array, way: Array) -> Array:
        return outlines.distance(
            points, x * np.cos(turn) + way * np.sin(turn), x * np.sin(turn) - way * np.cos(turn)
        )

    centres = _lone(on) if on.place.count <= 1 else _centres(on, 1)
    return _each(on, centres, on.size_mm * 0.75, off, outlines.area(points))


def _letters(on: Spread) -> Array:
    """The ink of the words, to be read from the side they are on."""
    words, size = on.place.words, max(on.size_mm, 1e-6)
    read = -1.0 if on.sheet.side == RIGHT else 1.0

    def off(x: Array, way: Array) -> Array:
        return size * lettering.distance(words, read * x / size, -way / size)

    inked = _each(on, _lone(on), size * lettering.width(words) / 2, off, size**2 * lettering.area(words))
    return lettering.ink_share(words) * inked


def _waves(at: Array, cell: Array, open_share: float) -> Array:
    """What a row of threads lets through in each cell: they lie one apart, open in the middle."""

    def until(place: Array) -> Array:
        whole = np.floor(place)
        return whole * open_share + np.clip(place - whole - (1.0 - open_share) / 2, 0.0, open_share)

    wide = np.maximum(cell, 1e-6)
    return np.asarray(np.maximum(until(at + wide / 2) - until(at - wide / 2), 0.0) / wide)


def _threads(on: Spread, ways: tuple[tuple[float, float], ...]) -> Array:
    """Two rows of threads across each other; together they let `cover_share` through: where few lie on the
    body, they are made as wide as that asks.
    """
    inside, wanted = _region(on), on.place.cover_share
    weight = inside * on.sheet.area_mm2
    whole, open_share = float(weight.sum()), sqrt(wanted)
    through = _between_threads(on, ways, open_share)
    for _ in range(MOST_TRIED):
        passed = float((through * weight).sum()) / max(whole, 1e-12)
        if passed <= 0 or abs(passed - wanted) < TRUE_TO:
            break
        open_share = min(open_share * sqrt(wanted / passed), 1.0)
        through = _between_threads(on, ways, open_share)
    return through * inside


def _between_threads(on: Spread, ways: tuple[tuple[float, float], ...], open_share: float) -> Array:
    """What each cell gets through rows of threads that lie a mark's size apart."""
    sheet, pitch = on.sheet, max(on.size_mm, 0.2)
    step = sheet.girth_mm / sheet.round_share.size
    through = np.ones(sheet.area_mm2.shape)
    for along, way in ways:
        at = (along * sheet.x_mm + way * sheet.way_mm) / pitch
        cell = (abs(along) * sheet.step_mm + abs(way) * step) / pitch
        through = through * _waves(at, np.broadcast_to(cell, at.shape), open_share)
    return through


def _net(on: Spread) -> Array:
    return _threads(on, ((0.8, 0.6), (0.8, -0.6)))


def _scales(on: Spread) -> Array:
    """Rims of scales in rows that take turns, open towards the nose, each thickest in its middle."""
    sheet, pitch = on.sheet, max(on.size_mm, 0.8)
    x, way = np.broadcast_arrays(sheet.x_mm - on.first_mm, sheet.way_mm)
    off = np.full(x.shape, np.inf)
    for turn in (0, 1):
        row = (np.round((way / (pitch / 2) - turn) / 2) * 2 + turn) * pitch / 2
        middle = (np.round(x / pitch - turn / 2) + turn / 2) * pitch
        along, round_it = x - middle, way - row
        rim = np.hypot(along, round_it) - RIM_OUT * pitch
        hollow = RIM_OUT * pitch - np.hypot(along + RIM_THICK * pitch, round_it)
        off = np.minimum(off, np.maximum(np.maximum(rim, hollow), RIM_FROM * pitch - along))
    region = _region(on)
    cover = _ramp(off, np.maximum(on.place.edge_share * pitch, on.cell_mm)) * region
    wanted = _scale_share() * float((region * sheet.area_mm2).sum())
    passed = float((cover * sheet.area_mm2).sum())  # rims thinner than cells are blurred, and look larger
    return np.minimum(cover * wanted / passed, 1.0) if passed > 0 else cover


@lru_cache(maxsize=1)
def _scale_share() -> float:
    """What rims of scales take of a stretch: two of them lie on each square of their distance."""
    x, y = np.meshgrid(*[np.linspace(-0.5, 0.5, 1001)] * 2)
    hollow = np.hypot(x + RIM_THICK, y)
    return 2.0 * float(((np.hypot(x, y) < RIM_OUT) & (hollow > RIM_OUT) & (x > RIM_FROM)).mean())


def _weave(on: Spread) -> Array:
    return _threads(on, ((1.0, 0.0), (0.0, 1.0)))


def _chance(on: Spread, field: Array, rim: float) -> Array:
    """The cells where a field is least, until they make up `cover_share` of the stretch."""
    weight = _region(on) * on.sheet.area_mm2
    order = np.argsort(field, axis=None)
    wanted = on.place.cover_share * float(weight.sum())
    if wanted <= 0:
        return np.zeros(weight.shape)
    so_far = np.cumsum(weight.ravel()[order])
    level = float(field.ravel()[order[min(int(np.searchsorted(so_far, wanted)), len(order) - 1)]])
    cover = _ramp(field - level, rim)
    cover = cover * wanted / float((cover * weight).sum())
    return np.asarray(np.minimum(cover, 1.0) * _region(on))


@lru_cache(maxsize=64)
def _dots(seed: int, count: int) -> Array:
    return np.asarray(np.random.default_rng(seed).random((count, 3)))


def _splatter(on: Spread) -> Array:
    """Drops thrown by chance, some larger than others."""
    sheet, size = on.sheet, max(on.size_mm, 0.3)
    wide, tall = on.last_mm - on.first_mm, float(sheet.girth_mm.max())
    count = int(min(max(2.0 * wide * tall / size**2, 12), 4000))
    dots = _dots(on.place.seed, count)
    tree = cKDTree(np.column_stack([on.first_mm + dots[:, 0] * wide, dots[:, 1] * tall]))
    inside = np.broadcast_to(_region(on) > 0, sheet.way_mm.shape)
    cells = np.column_stack([np.broadcast_to(sheet.x_mm, inside.shape)[inside], sheet.way_mm[inside]])
    near, which = tree.query(cells, k=2)
    field = np.full(inside.shape, np.inf)
    field[inside] = (near / size - 0.5 * dots[which, 2] ** 2).min(axis=1)
    return _chance(on, field, 0.15 + on.place.edge_share)


def _veins(on: Spread) -> Array:
    """Winding lines: where a field of waves by chance is near zero."""
    sheet, size = on.sheet, max(on.size_mm, 0.6)
    turn = 2.0 * np.pi * _dots(on.place.seed, 24)
    inside = np.broadcast_to(_region(on) > 0, sheet.way_mm.shape)
    x = np.broadcast_to(sheet.x_mm, inside.shape)[inside].astype(np.float32)
    around, summed = sheet.way_mm[inside].astype(np.float32), np.zeros(len(x), dtype=np.float32)
    for way, phase, spread in turn:
        wave = 2.0 * np.pi / size * (0.75 + 0.5 * spread / (2.0 * np.pi))
        summed += np.sin(
            np.float32(wave * np.cos(way)) * x + np.float32(wave * np.sin(way)) * around + np.float32(phase)
        )
    field = np.full(inside.shape, np.inf)
    field[inside] = np.abs(summed)
    return _chance(on, field, 0.6 + 2.0 * on.place.edge_share)


_STRETCH = ("begins", "ends", "top", "bottom")
_SPOT = ("begins", "top", "size_percent", "size_mm")
SHAPES = {
    shape.name: shape
    for shape in (
        MaskShape("region", _region, (*_STRETCH, "edge_percent", "cover_percent"), is_marks=False),
        MaskShape("bars", _bars, (*_STRETCH, "count", "size_percent", "slant_deg", "edge_percent")),
        MaskShape("spots", _spots, (*_STRETCH, "count", "size_percent", "size_mm", "edge_percent")),
        MaskShape("net", _net, (*_STRETCH, "size_mm", "cover_percent", "edge_percent"), shares=True),
        MaskShape("scales", _scales, (*_STRETCH, "size_mm", "edge_percent")),
        MaskShape("weave", _weave, (*_STRETCH, "size_mm", "cover_percent", "edge_percent"), shares=True),
        MaskShape("veins", _veins, (*_STRETCH, "size_mm", "cover_percent", "seed"), shares=True),
        MaskShape("splatter", _splatter, (*_STRETCH, "size_mm", "cover_percent", "seed"), shares=True),
        MaskShape(
            "stencil", _stencil, (*_STRETCH, "outline", "count", "size_percent", "size_mm", "slant_deg")
        ),
        MaskShape("disc", _disc, (*_SPOT, "edge_percent"), is_lone=True),
        MaskShape("arc", _arc, (*_SPOT, "edge_percent"), is_lone=True),
        MaskShape("letters", _letters, (*_SPOT, "words"), is_lone=True, is_read=True),
    )
}
"""By name."""
