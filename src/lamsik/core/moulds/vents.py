"""Vents: the local high points of a cavity in the attitude it is poured, what air each would trap, and the
tilt that needs fewest.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from lamsik.core.errors import finite_between
from lamsik.core.moulds.geometry import edges_of, over_plane_mm3
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.polyhedra import thinned
from lamsik.core.shapes.skins import Mesh
from lamsik.core.tank.immersion import tank_axes

FLAT, ON_EDGE = "flat", "on edge"
STANDS = (FLAT, ON_EDGE)
BUMP_MM = 0.4
SEARCHED_FACES, SEARCHED_CELLS = 2000, 30
"""The search looks at a coarser mesh: the tilt found is then computed on the fine one."""


@dataclass(frozen=True)
class HighPoint:
    """A local high point: place in the mould [mm], how far it rises over the pass the air would have to
    cross [mm], air it traps [ml].
    """

    place_mm: tuple[float, float, float]
    rise_mm: float
    trapped_ml: float


def up_of(stand: str, tilt_deg: float) -> Array:
    """The direction that is up in the mould's frame.

    Lying flat, a tilt lifts the +x end; standing on edge at 0° the +x end is up, at 90° the +y side.
    """
    tilt = np.radians(finite_between("tilt_deg", tilt_deg, -180.0, 180.0, "°"))
    if stand == FLAT:
        return np.array([np.sin(tilt), 0.0, np.cos(tilt)])
    return np.array([np.cos(tilt), np.sin(tilt), 0.0])


def high_points(
    mesh: Mesh, up: Array, escapes: Sequence[tuple[float, float, float]] = (), bump_mm: float = BUMP_MM
) -> tuple[HighPoint, ...]:
    """High points of a cavity that trap air, the largest first.

    Args:
        mesh: the closed cavity [mm].
        up: unit vector that is up while it fills.
        escapes: where air can leave: the funnel's mouth in the cavity and vents there are [mm].
        bump_mm: high points that rise less than this over their pass are left out.

    Notes: as liquid rises, each component of the cavity above it holds air; where two meet, the lower peak's
        air leaves through the higher one's. A peak traps what lies above the pass to a way out, or all above
        it where there is none (the highest one, if no escape is at it), less what peaks beside it in that air
        trap themselves. Components of the surface above each height are joined from the top down (a merge
        tree).
    """
    return _found(mesh, (float(up[0]), float(up[1]), float(up[2])), tuple(escapes), bump_mm)


@lru_cache(maxsize=64)
def _found(
    mesh: Mesh,
    way: tuple[float, float, float],
    escapes: tuple[tuple[float, float, float], ...],
    bump_mm: float,
) -> tuple[HighPoint, ...]:
    """Kept by what it depends on: a cavity dragged about the box holds the same air."""
    up = np.array(way)
    heights = mesh.vertices @ up
    out = _escape_vertices(mesh, escapes)
    points = []
    for peak, level, vertices, inner in _peaks(mesh, heights, out):
        if heights[peak] - level < bump_mm:
            continue
        air = _air_mm3(mesh, up, heights, level, vertices) - sum(
            _air_mm3(mesh, up, heights, over, some) for over, some in inner
        )
        spot = mesh.vertices[peak]
        points.append(
            HighPoint(
                (float(spot[0]), float(spot[1]), float(spot[2])), float(heights[peak] - level), air / 1000.0
            )
        )
    return tuple(sorted(points, key=lambda row: -row.trapped_ml))


def _escape_vertices(mesh: Mesh, escapes: Sequence[tuple[float, float, float]]) -> set[int]:
    """The corners of the cavity nearest to where air can leave."""
    return {int(np.argmin(((mesh.vertices - np.array(spot)) ** 2).sum(axis=1))) for spot in escapes}


@lru_cache(maxsize=32)
def _neighbours(mesh: Mesh) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """Neighbours of every corner, one after another, and where each corner's begin."""
    edges = edges_of(mesh.faces)
    both = np.concatenate([edges, edges[:, ::-1]])
    order = np.argsort(both[:, 0], kind="stable")
    starts = np.searchsorted(both[order, 0], np.arange(len(mesh.vertices) + 1))
    return both[order, 1], starts


Pocket = tuple[float, set[int]]
"""Air over a height [mm]: the corners of the surface above it."""


def _peaks(
    mesh: Mesh, heights: Array, out: set[int]
) -> list[tuple[int, float, set[int], tuple[Pocket, ...]]]:
    """Peaks with the height of their pass, the corners above it and the pockets in that air that are other
    peaks' own.

    Components of the surface are joined from the top down.

    A component with an escape in it is vented: another that meets it is trapped down to there.
    """
    beside, starts = _neighbours(mesh)
    order = np.argsort(-heights, kind="stable").tolist()
    links, begins = beside.tolist(), starts.tolist()
    parent: dict[int, int] = {}
    members: dict[int, list[int]] = {}
    vented: dict[int, bool] = {}
    top: dict[int, int] = {}
    inner: dict[int, list[Pocket]] = {}
    peaks: list[tuple[int, float, set[int], tuple[Pocket, ...]]] = []

    def root(v: int) -> int:
        while parent[v] != v:
            parent[v] = parent[parent[v]]
            v = parent[v]
        return v

    for v in order:
        roots = {root(w) for w in links[begins[v] : begins[v + 1]] if w in parent}
        parent[v] = v
        level = float(heights[v])
        if not roots:
            members[v], vented[v], top[v], inner[v] = [v], v in out, v, []
            continue
        # the vented or, failing that, the higher component goes on; the others end here
        kept = max(roots, key=lambda r: (vented[r], heights[top[r]]))
        if v in out and not vented[kept]:  # the escape lies below the peak: what is above it is trapped
            peaks.append((top[kept], level, set(members[kept]), tuple(inner[kept])))
            vented[kept] = True
        for other in roots - {kept}:
            if not vented[other]:
                pocket = set(members[other])
                peaks.append((top[other], level, pocket, tuple(inner[other])))
                inner[kept].append((level, pocket))
            parent[other] = kept
            members[kept] += members.pop(other)
        parent[v] = kept
        members[kept].append(v)
    for r in {root(v) for v in order}:
        if not vented[r]:  # no way out at all
            peaks.append((top[r], float(heights.min()), set(members[r]), tuple(inner[r])))
    return peaks


def _air_mm3(mesh: Mesh, up: Array, heights: Array, level: float, vertices: set[int]) -> float:
    mine = np.zeros(len(heights), dtype=bool)
    mine[list(vertices)] = True
    faces = mesh.faces[mine[mesh.faces].any(axis=1)]
    if not len(faces):
        return 0.0
    e1, e2 = tank_axes(up)
    frame = np.stack([e1, e2, up], axis=1)
    if np.linalg.det(frame) < 0:
        frame = np.stack([e2, e1, up], axis=1)
    return max(over_plane_mm3(mesh.vertices[faces] @ frame, heights[faces], level), 0.0)


@dataclass(frozen=True)
class PouringAttitude:
    """A tilt [°] with the vents it needs and the air they let out [ml]."""

    tilt_deg: float
    vents: int
    air_ml: float


def fewest_vents(
    mesh: Mesh,
    stand: str,
    escapes: Sequence[tuple[float, float, float]],
    bump_mm: float = BUMP_MM,
    step_deg: float = 5.0,
    turned_over: bool = False,
) -> tuple[PouringAttitude, ...]:
    """Tilts tried, the best first: fewest vents, then least air, then least tilt; an open mould is cast
    turned over.
    """
    reach = 45.0 if stand == FLAT else 180.0
    mesh, rows = thinned(mesh, SEARCHED_CELLS) if len(mesh.faces) > SEARCHED_FACES else mesh, []
    for tilt in np.arange(-reach, reach + 1e-9, step_deg):
        up = up_of(stand, float(tilt)) * np.array([1.0, 1.0, -1.0 if turned_over else 1.0])
        points = high_points(mesh, up, escapes, bump_mm)
        rows.append(PouringAttitude(float(tilt), len(points), sum(point.trapped_ml for point in points)))
    return tuple(sorted(rows, key=lambda row: (row.vents, round(row.air_ml, 3), abs(row.tilt_deg))))
