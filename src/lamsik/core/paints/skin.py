"""The painted skin of a body: two sides in cells along it and round it, and the flat faces that a brush
reaches besides: cut ends, the faces of joints.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np

from lamsik.core.paints.paint import BOTH, LEFT, RIGHT
from lamsik.core.paints.place import NOSE, TAIL
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.solid import solid
from lamsik.core.shapes.unrolled import areas, corners, face_outline, fan, middles, sawn

FINE, COARSE = (256, 96), (128, 48)
"""Cells along the body and from back to keel on each side: for what is kept, and while a handle moves."""
CLOSE = (512, 192)
"""For what is looked at from near by, with letters on it."""
RINGS = 8
INNER = "inner"
"""What of a mesh is neither side nor end: hollows and further loops of its slices, as one patch."""


@dataclass(frozen=True, eq=False)
class SkinSheet:
    """A part of the skin in cells.

    Args:
        name: `left`, `right`; of patches `nose`, `tail`, a joint's key with `fore` or `aft`, `inner`.
        side: on which side of the middle plane it lies; patches lie across it.
        x_mm: of each row of cells along the body (of a patch: of all of it), (m, 1).
        round_share: how far round from the back each cell lies, (1, n).
        girth_mm: half a girth at each row, (m, 1).
        corners: of the cells, (m + 1, n + 1, 3) [mm].
        area_mm2: of each cell, less what kerfs take of it, (m, n).
        middle_mm: of each cell, (m, n, 3).
    """

    name: str
    side: str
    x_mm: Array
    round_share: Array
    girth_mm: Array
    corners: Array
    area_mm2: Array
    middle_mm: Array

    @property
    def is_end(self) -> bool:
        """Whether it is one that lies open: an end of the body."""
        return self.name in (NOSE, TAIL)

    @cached_property
    def step_mm(self) -> Array:
        """How long each row of cells is along the body [mm], (m, 1)."""
        x = self.corners[:, :, 0].mean(axis=1)
        return np.asarray(np.maximum(np.diff(x), 1e-6)[:, None])

    @cached_property
    def way_mm(self) -> Array:
        """How far each cell lies from the back, round the body [mm], (m, n)."""
        return np.asarray(self.round_share * self.girth_mm)

    @cached_property
    def normal(self) -> Array:
        """Outward unit normals of the cells, (m, n, 3)."""
        one = self.corners[1:, 1:] - self.corners[:-1, :-1]
        other = self.corners[1:, :-1] - self.corners[:-1, 1:]
        across = np.cross(one, other) * (-1.0 if self.side == RIGHT else 1.0)
        return np.asarray(across / np.maximum(np.linalg.norm(across, axis=-1, keepdims=True), 1e-12))


@dataclass(frozen=True, eq=False)
class PaintedSkin:
    """All there is to paint: left and right side, and flat faces.

    Args:
        length_mm, depth_mm: of the body.
        is_mirrored: whether the right side is the mirror of the left.
    """

    length_mm: float
    depth_mm: float
    sides: tuple[SkinSheet, SkinSheet]
    patches: tuple[SkinSheet, ...]
    is_mirrored: bool

    def __iter__(self) -> Iterator[SkinSheet]:
        return iter((*self.sides, *self.patches))

    @cached_property
    def area_mm2(self) -> float:
        """Everything together [mm²]."""
        return float(sum(sheet.area_mm2.sum() for sheet in self))


@lru_cache(maxsize=12)
def skin_of(body: Body, cells: tuple[int, int] = FINE) -> PaintedSkin:
    """The painted skin of a body.

    Notes: all cells and patches add up to `solid(body).area_mm2`. A mesh is sliced: what its slices
        miss (hollows, further loops) is one patch of its own; less than a thousandth is shared out.
    """
    points = corners(body, *cells)
    area = areas(points)
    if body.joints:
        area = area * (1.0 - sawn(points, body.cuts))
    patches = [*_ends(points), *_joint_faces(body)]
    if body.skin is not None:
        whole = solid(body).area_mm2
        left = whole - float(area.sum() + sum(patch.area_mm2.sum() for patch in patches))
        if left > 1e-3 * whole:
            patches.append(_inner(left, body))
        else:
            area = area * (1.0 + left / float(area.sum()))
    sides = tuple(_side(name, points[n], area[n]) for n, name in enumerate((LEFT, RIGHT)))
    depth = float(np.ptp(points[..., 2]))
    return PaintedSkin(body.length_mm, depth, (sides[0], sides[1]), tuple(patches), body.skin is None)


def _side(name: str, points: Array, area: Array) -> SkinSheet:
    way = np.linalg.norm(np.diff(points, axis=1), axis=-1).sum(axis=1)
    middle = middles(points)
    return SkinSheet(
        name,
        name,
        middle[:, :1, 0],
        _evenly(area.shape[1]),
        np.maximum((way[1:] + way[:-1]) / 2, 1e-9)[:, None],
        points,
        area,
        middle,
    )


def _evenly(count: int) -> Array:
    return ((np.arange(count) + 0.5) / count)[None, :]


def _patch(name: str, outline: Array) -> SkinSheet:
    """A flat face; its outline goes down the right side from the back and up the left."""
    points = fan(outline, RINGS)
    area, middle = areas(points), middles(points)
    down = np.linspace(0.0, 2.0, area.shape[1] + 1)
    at = (down[1:] + down[:-1]) / 2
    half = np.linalg.norm(np.diff(np.vstack([outline, outline[:1]]), axis=0), axis=1).sum() / 2
    rings = ((np.arange(RINGS) + 0.5) / RINGS)[:, None]
    return SkinSheet(
        name,
        BOTH,
        np.full((RINGS, 1), outline[:, 0].mean()),
        np.minimum(at, 2.0 - at)[None, :],
        np.maximum(half * rings, 1e-9),
        points,
        area,
        middle,
    )


def _ends(points: Array) -> list[SkinSheet]:
    """The flat ends of the body, where it has some."""
    rows = ((NOSE, 0), (TAIL, -1))
    patches = [_patch(name, np.vstack([points[1, row], points[0, row, -2:0:-1]])) for name, row in rows]
    return [patch for patch in patches if patch.area_mm2.sum() > 1e-6]


def _joint_faces(body: Body) -> list[SkinSheet]:
    """Both faces of every joint."""
    return [
        _patch(f"{joint.key} {which}", face_outline(body, cut))
        for joint, pair in zip(body.joints, body.cuts, strict=True)
        for which, cut in zip(("fore", "aft"), pair, strict=True)
    ]


def _inner(area_mm2: float, body: Body) -> SkinSheet:
    """What lies inside a mesh's outline, as one cell at the middle of its surface."""
    middle = np.array(solid(body).area_centroid_mm)
    one = np.ones((1, 1))
    return SkinSheet(
        INNER,
        BOTH,
        one * middle[0],
        one * 0.5,
        one,
        np.broadcast_to(middle, (2, 2, 3)),
        one * area_mm2,
        np.broadcast_to(middle, (1, 1, 3)),
    )
