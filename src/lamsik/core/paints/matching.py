"""Recipes for a wanted look: whole drops of at most three paints over a base, by ΔE2000 of what they predict.

Recipes are not unique: those that nobody tells apart are put in order by how few drops they are, then by what
they cost.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations
from math import gcd

import numpy as np
from numpy.typing import NDArray

from lamsik.core.paints.colour import TO_XYZ, TOLD_APART, difference
from lamsik.core.paints.film import INNER, OUTER
from lamsik.core.paints.lab import Lab
from lamsik.core.paints.light import observer
from lamsik.core.paints.mixing import Backing, Tint
from lamsik.core.shapes.curves import Array

MOST_DROPS, MOST_PAINTS = 12, 3
MOST_TRIED = 30
"""Paints that are tried by threes."""
JUDGED = 4000
"""So many of the nearest by the older, quicker difference are judged by ΔE2000."""
BLOCK = 2000
"""So many mixtures are looked at together: fewer are mostly calls, more no longer stay near the processor."""
GOOD = 400
"""So many of those, the nearest, are put in order."""
DEEPEST = 20.0
_WHITE = TO_XYZ.sum(axis=1).astype(np.float32)
_BEND, _SLOPE = np.float32(216.0 / 24389.0), np.float32(24389.0 / 27.0 / 116.0)


@dataclass(frozen=True)
class Recipe:
    """A recipe: code and whole drops of each paint, the look it is predicted to have, how far that is from
    the wanted one (ΔE2000), what the drops cost.
    """

    parts: tuple[tuple[str, int], ...]
    look: Lab
    off: float
    cost: float

    @property
    def drops(self) -> int:
        """All its drops."""
        return sum(count for _, count in self.parts)


def matches(wanted: Lab, tints: Sequence[Tint], ground: Backing, most: int = 6) -> list[Recipe]:
    """The best recipes of one, of two and of three paints, up to `most` of each, the best first.

    Notes: every ratio of up to twelve drops is tried once, in its least number of drops.
    """
    tints = _likely(wanted, tints, ground)
    rows: list[Recipe] = []
    for count in range(1, min(MOST_PAINTS, len(tints)) + 1):
        rows += _of_so_many(wanted, tints, ground, count, most)
    return sorted(rows, key=_order)


def _likely(wanted: Lab, tints: Sequence[Tint], ground: Backing) -> Sequence[Tint]:
    """Of a long shelf the paints of the best recipes of one and of two: triples of all take minutes."""
    if len(tints) <= MOST_TRIED:
        return tints
    rows = sorted(
        (one for count in (1, 2) for one in _of_so_many(wanted, tints, ground, count, GOOD)),
        key=lambda one: one.off,
    )
    codes = dict.fromkeys(code for row in rows for code, _ in row.parts)
    chosen = {*list(codes)[:MOST_TRIED]}
    return [one for one in tints if one.code in chosen]


def _order(recipe: Recipe) -> tuple[int, int, float]:
    return (int(recipe.off / TOLD_APART), recipe.drops, recipe.cost)


@lru_cache(maxsize=8)
def ratios(count: int, most: int = MOST_DROPS) -> NDArray[np.int64]:
    """Whole drops of so many paints, each ratio once, (k, count)."""
    rows = [
        row
        for row in np.ndindex(*([most + 1] * count))
        if min(row) > 0 and sum(row) <= most and gcd(*row) == 1
    ]
    return np.array(rows, dtype=np.int64)


def _of_so_many(wanted: Lab, tints: Sequence[Tint], ground: Backing, count: int, most: int) -> list[Recipe]:
    chosen = np.array(list(combinations(range(len(tints)), count)))
    drops = ratios(count)
    table = _looks(tints, chosen, drops, ground).reshape(-1, 3)
    near = _quick(table, wanted.row)
    judged = np.argpartition(near, JUDGED)[:JUDGED] if len(near) > JUDGED else np.arange(len(near))
    off = difference(table[judged], np.broadcast_to(wanted.row, (len(judged), 3)))
    best = np.argsort(off)[:GOOD]
    ratio, which = np.divmod(judged[best], len(chosen))
    price = np.array([one.drop_ml * one.price_ml for one in tints])
    cost, apart = (drops[ratio] * price[chosen[which]]).sum(axis=1), (off[best] / TOLD_APART).astype(int)
    order = np.lexsort((cost, drops[ratio].sum(axis=1), apart))[:most]
    return [
        Recipe(
            tuple(
                (tints[one].code, int(n)) for one, n in zip(chosen[which[at]], drops[ratio[at]], strict=True)
            ),
            _within(table[judged[best[at]]].astype(float)),
            float(off[best[at]]),
            float(cost[at]),
        )
        for at in order
    ]


def _within(look: Array) -> Lab:
    """A predicted look: single precision may leave the scale of lightness by a hair."""
    return Lab(min(max(look[0], 0.0), 100.0), look[1], look[2])


def _looks(
    tints: Sequence[Tint], chosen: NDArray[np.int64], drops: NDArray[np.int64], ground: Backing
) -> Array:
    """Lab (r, k, 3) of r ratios of drops (r, count) of k choices of paints (k, count), in singles."""
    k = np.array([one.k_um * one.strength for one in tints], dtype=np.float32).T
    s = np.array([one.s_um * one.strength for one in tints], dtype=np.float32).T
    drop_ml = np.array([one.drop_ml for one in tints], dtype=np.float32)
    table = np.empty((len(drops), len(chosen), 3), np.float32)
    for first in range(0, len(chosen), BLOCK):
        some = chosen[first : first + BLOCK].T
        of_each = [(np.take(k, paint, axis=1)[:, None], np.take(s, paint, axis=1)[:, None]) for paint in some]
        at_once = max(1, BLOCK // some.shape[1])
        for at in range(0, len(drops), at_once):
            volume = drop_ml[some] * drops[at : at + at_once, :, None].astype(np.float32)
            parts = volume / volume.sum(axis=1, keepdims=True)
            k_mixed = sum(parts[:, n] * row for n, (row, _) in enumerate(of_each))
            s_mixed = sum(parts[:, n] * row for n, (_, row) in enumerate(of_each))
            table[at : at + at_once, first : first + BLOCK] = _seen(k_mixed, s_mixed, ground)
    return np.asarray(table)


def _seen(k: Array, s: Array, ground: Backing) -> Array:
    """Lab (…, 3) of paints of K and S per µm (bands, …) over a ground: in this order rows are long."""
    single = np.float32
    s = np.maximum(s, single(1e-6) * np.maximum(k, single(1e-6)))
    both = np.sqrt(k * (k + 2.0 * s))  # b·S
    depth = np.minimum(np.maximum(both * single(ground.film_um), single(1e-6)), single(DEEPEST))
    deep = both / np.tanh(depth)  # b·S·coth(bSh)
    a, under = k + s, ground.under.astype(single)[:, None, None]  # a·S
    inside = (s - under * (a - deep)) / (a - under * s + deep)
    shown = single((1.0 - OUTER) * (1.0 - INNER)) * inside / (1.0 - single(INNER) * inside)
    if not ground.is_glossy:
        shown += single(OUTER)
    xyz = (TO_XYZ @ observer().T).astype(single) @ shown.reshape(len(k), -1)
    return _lab(xyz).reshape(*k.shape[1:], 3)


def _lab(xyz: Array) -> Array:
    """CIE Lab (k, 3) of XYZ (3, k), in single precision: the library's doubles take four times as long."""
    share = np.maximum(xyz, 0.0) / _WHITE[:, None]
    root = np.where(share > _BEND, np.cbrt(share), _SLOPE * share + np.float32(16.0 / 116.0))
    return np.stack(
        [116.0 * root[1] - 16.0, 500.0 * (root[0] - root[1]), 200.0 * (root[1] - root[2])], axis=1
    )


def _quick(looks: Array, wanted: Array) -> Array:
    """CIE 94 differences, squared (k,): near enough to choose what is judged well."""
    light, red, yellow = (looks[:, n] - np.float32(wanted[n]) for n in range(3))
    chroma = np.hypot(looks[:, 1], looks[:, 2]) - np.float32(np.hypot(wanted[1], wanted[2]))
    hue = np.maximum(red**2 + yellow**2 - chroma**2, 0.0)
    own = np.float32(np.hypot(wanted[1], wanted[2]))
    return np.asarray(light**2 + (chroma / (1 + 0.045 * own)) ** 2 + hue / (1 + 0.015 * own) ** 2)
