"""The painted skin of what is no bait's body: a float, from its tip to its foot; a blade, its two faces and
its edge.
"""

from collections.abc import Sequence
from math import pi

import numpy as np

from lamsik.core.floats.design import Float
from lamsik.core.floats.parts import FloatPart, profile, radius_at
from lamsik.core.paints.laid import Laid, laid_on
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.look import PaintedSide, looks_on
from lamsik.core.paints.paint import BOTH, LEFT, RIGHT
from lamsik.core.paints.place import Anchors
from lamsik.core.paints.roles import FITTED
from lamsik.core.paints.skin import FINE, PaintedSkin, SkinSheet
from lamsik.core.shapes.blades import Blade
from lamsik.core.shapes.curves import Array

AROUND = FINE[1]
NEAR = 1e-6
EDGE = "edge"


def float_profile(design: Float) -> tuple[Array, Array]:
    """The outside of a float from its tip to its foot: distance from the tip (n,) [mm], radius there (n,)
    [mm]. Where one part steps out of another the same distance stands twice.
    """
    outside = [part for part in design.parts if not part.inside]
    marks: list[float] = []
    for part in outside:
        rows, _ = profile(part)
        marks += [float(one) + part.foot_mm for one in rows]
    heights = np.unique(np.round(np.concatenate([marks, _crossings(outside, np.unique(marks))]), 9))
    at, radii = [design.top_mm], [0.0]
    for low, high in reversed(list(zip(heights, heights[1:], strict=False))):
        step = np.array([high - NEAR, low + NEAR])
        at += [high, low]
        radii += [float(one) for one in _outermost(outside, step)]
    return design.top_mm - np.array([*at, design.foot_mm]), np.array([*radii, 0.0])


def _outermost(parts: list[FloatPart], heights: Array) -> Array:
    """Radius of the outermost part at heights [mm]; 0 where none is."""
    rows = [
        np.where(
            (heights >= part.foot_mm) & (heights <= part.top_mm), radius_at(part, heights - part.foot_mm), 0.0
        )
        for part in parts
    ]
    return np.asarray(np.max(rows, axis=0))


def _crossings(parts: list[FloatPart], marks: Array) -> Array:
    """Heights between the marks at which another part becomes the outermost."""
    crossings = [np.empty(0)]
    for n, one in enumerate(parts):
        for other in parts[n + 1 :]:
            fine = np.unique(
                np.concatenate([np.linspace(a, b, 9) for a, b in zip(marks, marks[1:], strict=False)])
            )
            gap = _outermost([one], fine) - _outermost([other], fine)
            crossings.append(fine[gap == 0])
            turns = np.flatnonzero(gap[:-1] * gap[1:] < 0)
            share = gap[turns] / (gap[turns] - gap[turns + 1])
            crossings.append(fine[turns] + share * (fine[turns + 1] - fine[turns]))
    return np.concatenate(crossings)


def skin_of_float(design: Float) -> PaintedSkin:
    """The painted skin of a float as it is assembled, x from its tip down; its back is where its left begins.

    Notes: each stretch of the profile is a frustum, π(a + b)s around, and a step from one part to another a
        ring; together they are the outside of the float, ends and shoulders among it.
    """
    at, radius = float_profile(design)
    at, radius = _finely(at, radius)
    slant = np.hypot(np.diff(at), np.diff(radius))
    turn = np.linspace(0.0, pi, AROUND + 1)
    sides = []
    for name, sign in ((LEFT, -1.0), (RIGHT, 1.0)):
        points = np.stack(
            [
                np.broadcast_to(at[:, None], (len(at), AROUND + 1)),
                sign * radius[:, None] * np.sin(turn),
                radius[:, None] * np.cos(turn),
            ],
            axis=-1,
        )
        ring = pi * (radius[1:] + radius[:-1]) / 2 * slant / AROUND
        area = np.repeat(ring[:, None], AROUND, axis=1)
        middle = (points[1:, 1:] + points[:-1, 1:] + points[1:, :-1] + points[:-1, :-1]) / 4
        girth = np.maximum(pi * (radius[1:] + radius[:-1]) / 2, 1e-9)[:, None]
        share = ((np.arange(AROUND) + 0.5) / AROUND)[None, :]
        sides.append(SkinSheet(name, name, middle[:, :1, 0], share, girth, points, area, middle))
    length = float(at.max())
    return PaintedSkin(length, 2 * float(radius.max()), (sides[0], sides[1]), (), True)


def looks_of_float(design: Float, layers: Sequence[Layer]) -> tuple[PaintedSide, PaintedSide]:
    """Both sides of a float in the layers of a scheme, left and right; eyes are no part of a float."""
    rows = [one for one in layers if one.does != FITTED]
    return looks_on(rows, skin_of_float(design), Anchors(), ("float", design.parts))


def _finely(at: Array, radius: Array) -> tuple[Array, Array]:
    """A profile with stretches no longer than the cells of a skin."""
    most = float(at.max()) / FINE[0]
    rows = [(at[:1], radius[:1])]
    for n in range(len(at) - 1):
        count = max(int(np.ceil(np.hypot(at[n + 1] - at[n], radius[n + 1] - radius[n]) / most)), 1)
        share = np.linspace(0.0, 1.0, count + 1)[1:]
        rows.append((at[n] + share * (at[n + 1] - at[n]), radius[n] + share * (radius[n + 1] - radius[n])))
    return np.concatenate([row[0] for row in rows]), np.concatenate([row[1] for row in rows])


def skin_of_blade(blade: Blade) -> PaintedSkin:
    """The painted skin of a blade, flat: both faces in cells from one edge to the other, what its holes take
    shared over their rows, and its edge as a patch.
    """
    long, wide = blade.flat_mm, blade.width_mm
    at = np.linspace(0.0, long, FINE[0] + 1)
    end = min(wide, long) / 2
    inward = np.clip(np.minimum(at, long - at) / end, 0.0, 1.0)
    half = wide / 2 * np.sqrt(np.clip(1.0 - (1.0 - inward) ** 2, 0.0, 1.0))
    share = np.linspace(-1.0, 1.0, AROUND + 1)
    holes = sum(pi * hole.diameter_mm**2 / 4 for hole in blade.holes)
    flat = wide * (long - 2 * end) + pi * wide * end / 2
    sides = []
    for name, sign in ((LEFT, -1.0), (RIGHT, 1.0)):
        points = np.stack(
            [
                np.broadcast_to(at[:, None], (len(at), AROUND + 1)),
                np.full((len(at), AROUND + 1), sign * blade.thickness_mm / 2),
                -half[:, None] * share,
            ],
            axis=-1,
        )
        rows = np.diff(at) * (half[1:] + half[:-1])
        rows = rows * flat / rows.sum()
        area = np.repeat((rows * (1.0 - holes / flat))[:, None], AROUND, axis=1) / AROUND
        middle = (points[1:, 1:] + points[:-1, 1:] + points[1:, :-1] + points[:-1, :-1]) / 4
        girth = np.maximum(half[1:] + half[:-1], 1e-9)[:, None]
        around = ((np.arange(AROUND) + 0.5) / AROUND)[None, :]
        sides.append(SkinSheet(name, name, middle[:, :1, 0], around, girth, points, area, middle))
    return PaintedSkin(long, wide, (sides[0], sides[1]), (_edge(blade, at, half),), True)


def _edge(blade: Blade, at: Array, half: Array) -> SkinSheet:
    """The rim of a blade, and the walls of its holes, as one cell for each stretch of the strip."""
    rim = 2.0 * np.hypot(np.diff(at), np.diff(half))
    walls = sum(pi * hole.diameter_mm for hole in blade.holes) / len(rim)
    area = ((rim + walls) * blade.thickness_mm)[:, None]
    x = ((at[1:] + at[:-1]) / 2)[:, None]
    middle = np.stack([x, np.zeros_like(x), np.zeros_like(x)], axis=-1)
    one = np.ones((1, 1))
    return SkinSheet(EDGE, BOTH, x, one * 0.5, np.ones_like(x), np.zeros((len(x) + 1, 2, 3)), area, middle)


def laid_on_other(layers: tuple[Layer, ...], skin: PaintedSkin) -> list[tuple[Layer, Laid]]:
    """Each layer on the skin of a float or a blade with what it takes: bands and the tip of a float are
    stretches from its tip (the nose of a scheme) or its foot (its tail).
    """
    return [(layer, laid_on(layer, skin, Anchors())) for layer in layers]
