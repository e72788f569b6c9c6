"""A body seen as upright columns: how low and how high it reaches over each (x, y), for what lies inside
it or inside its wall.
"""

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array, phi_of_share, share_of_phi
from lamsik.core.shapes.skins import Mesh, mesh_of

Reach = Callable[[Array, Array], tuple[Array, Array]]
"""Lowest and highest point (n,) [mm] over (x, y) (n,) [mm]; +∞ and −∞ where there is nothing."""

POINTS, ROUND = 2001, 97
"""Stations of the table of a drawn body; points from side to side of a mesh brought in, which has fewer
stations.
"""

MESH_STATIONS = 241


@dataclass(frozen=True, eq=False)
class Columns:
    """Upright columns that fill something: x, y (n,) [mm], what ground each stands for (n,) [mm²], its
    foot and head (n,) [mm].
    """

    x: Array
    y: Array
    ground: Array
    low: Array
    high: Array

    def meets(self, from_mm: float, to_mm: float) -> bool:
        """Whether any of them is between one x and another."""
        return bool(len(self.x)) and bool(self.x.min() <= to_mm) and bool(self.x.max() >= from_mm)


def reach_of(body: Body) -> Reach:
    """How far up and down the uncut body reaches."""
    if body.skin is not None:
        return _mesh_chart(mesh_of(body.skin), body.length_mm).reach
    return lambda x, y: _of_curves(body, x, y)


@dataclass(frozen=True, eq=False)
class _Outlines:
    """The curves at even station angles; all (n,) [mm]."""

    top: Array
    bottom: Array
    widest: Array
    half: Array


@lru_cache(maxsize=32)
def _outlines(body: Body) -> _Outlines:
    phi = np.linspace(0.0, np.pi, POINTS)
    return _Outlines(
        body.top.at(phi), body.bottom.at(phi), body.widest_at(phi), np.maximum(body.half_width.at(phi), 0.0)
    )


def _of_curves(body: Body, x: Array, y: Array) -> tuple[Array, Array]:
    rows = _outlines(body)
    at, part = _between(phi_of_share(np.clip(x / body.length_mm, 0.0, 1.0)) / np.pi, POINTS)
    top, bottom, widest, half = (
        line[at] + part * (line[at + 1] - line[at])
        for line in (rows.top, rows.bottom, rows.widest, rows.half)
    )
    share = np.abs(y) / np.maximum(half, 1e-12)
    there = (x >= 0.0) & (x <= body.length_mm) & (share <= 1.0)
    share = np.minimum(share, 1.0)
    up, low = (_rise(share, n) for n in (body.upper_exponent, body.lower_exponent))
    return np.where(there, widest - (widest - bottom) * low, np.inf), np.where(
        there, widest + (top - widest) * up, -np.inf
    )


def _rise(share: Array, n: float) -> Array:
    """Height of half a unit superellipse over a share of its half-width."""
    return np.asarray(np.sqrt(1.0 - share * share) if n == 2.0 else (1.0 - share**n) ** (1.0 / n))


def _between(share: Array, count: int) -> tuple[Array, Array]:
    """The step of a table of so many points in which shares 0 to 1 fall, and how far into it."""
    place = share * (count - 1)
    at = np.minimum(place.astype(np.int64), count - 2)
    return at, place - at


@dataclass(frozen=True, eq=False)
class Chart:
    """A closed surface from side to side at stations from one x to another [mm]: its sides (s, 2), its lowest
    and highest points (s, r) [mm].

    Stations are closest at the ends and points closest at the sides, both as cosines.
    """

    from_mm: float
    to_mm: float
    sides: Array
    low: Array
    high: Array

    def reach(self, x: Array, y: Array) -> tuple[Array, Array]:
        """Lowest and highest point over (x, y), between the stations in straight lines."""
        place = (x - self.from_mm) / (self.to_mm - self.from_mm)
        at, part = _between(phi_of_share(np.clip(place, 0.0, 1.0)) / np.pi, len(self.sides))
        left, right = (self.sides[at, k] + part * (self.sides[at + 1, k] - self.sides[at, k]) for k in (0, 1))
        share = (y - (left + right) / 2) / np.maximum((right - left) / 2, 1e-12)
        there = (place >= 0.0) & (place <= 1.0) & (np.abs(share) <= 1.0)
        beside, over = _between(np.arccos(-np.clip(share, -1.0, 1.0)) / np.pi, self.low.shape[1])
        low, high = (
            (1 - part) * ((1 - over) * grid[at, beside] + over * grid[at, beside + 1])
            + part * ((1 - over) * grid[at + 1, beside] + over * grid[at + 1, beside + 1])
            for grid in (self.low, self.high)
        )
        return np.where(there, low, np.inf), np.where(there, high, -np.inf)


@lru_cache(maxsize=16)
def _mesh_chart(mesh: Mesh, length_mm: float) -> Chart:
    """A mesh as its outermost points: a hollow between two humps over one spot is filled."""
    x = length_mm * np.clip(share_of_phi(np.linspace(0.0, np.pi, MESH_STATIONS)), 1e-5, 1 - 1e-5)
    rows = [_section(mesh, float(at)) for at in x]
    return Chart(0.0, length_mm, *(np.array(column) for column in zip(*rows, strict=True)))


def _section(mesh: Mesh, x: float) -> tuple[Array, Array, Array]:
    """Sides, and lowest and highest points from side to side, of the plane section at x."""
    ahead = mesh.vertices[:, 0] < x
    mixed = ahead[mesh.faces]
    corners = mesh.vertices[mesh.faces[mixed.any(axis=1) & ~mixed.all(axis=1)]]
    after = np.roll(corners, -1, axis=1)
    crossed = (corners[:, :, 0] < x) != (after[:, :, 0] < x)
    if not len(corners):
        return np.zeros(2), np.zeros(ROUND), np.zeros(ROUND)
    share = (x - corners[crossed][:, 0]) / (after[crossed][:, 0] - corners[crossed][:, 0])
    ends = (corners[crossed] + share[:, None] * (after[crossed] - corners[crossed]))[:, 1:].reshape(-1, 2, 2)
    sides = np.array([ends[:, :, 0].min(), ends[:, :, 0].max()])
    y = np.clip(
        sides.mean() - np.ptp(sides) / 2 * np.cos(np.linspace(0.0, np.pi, ROUND)),
        sides[0] + 1e-9,
        sides[1] - 1e-9,
    )
    (y0, z0), (y1, z1) = ends[:, 0].T, ends[:, 1].T
    run = np.where(np.abs(y1 - y0) > 1e-12, y1 - y0, 1e-12)
    along = (y[:, None] - y0) / run
    z = np.where((along >= -1e-6) & (along <= 1 + 1e-6), z0 + along * (z1 - z0), np.nan)
    return sides, np.nan_to_num(np.nanmin(z, axis=1)), np.nan_to_num(np.nanmax(z, axis=1))
