"""What volumes a plane or an attitude cuts off a closed mesh, and its outlines as seen. Exact for the
mesh.
"""

from functools import lru_cache

import manifold3d
import numpy as np
from numpy.typing import NDArray

from lamsik.core.errors import Refused, rule
from lamsik.core.quantities import numeral, unit_of
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.skins import Mesh
from lamsik.core.tank.immersion import Hull, hull_of, wet


@lru_cache(maxsize=64)
def hull(mesh: Mesh) -> Hull:
    """The mesh prepared for clipping."""
    return hull_of(mesh)


def below_mm3(mesh: Mesh, normal: Array, height: float) -> float:
    """Volume of the mesh where normal·P < height [mm³]."""
    return wet(hull(mesh), normal, height).volume


def over_plane_mm3(triangles: Array, heights: Array, level: float) -> float:
    """Volume between a level plane and the part of a surface above it [mm³].

    Args:
        triangles: (n, 3, 3) corners in a frame whose third axis is up [mm].
        heights: (n, 3) their heights [mm].
        level: the plane's height [mm].

    Notes: Σ A↑·(mean height − level) over the clipped triangles; the plane itself adds nothing, so no cap is
        needed.
    """
    h = heights - level
    above = h > 0
    count = above.sum(axis=1)
    total = _prisms(triangles[count == 3], h[count == 3])
    for lone_above in (True, False):
        chosen = count == (1 if lone_above else 2)
        if not chosen.any():
            continue
        flags, points, height = above[chosen], triangles[chosen], h[chosen]
        lone = flags.argmax(axis=1) if lone_above else flags.argmin(axis=1)
        row = np.arange(len(points))
        a, b, c = (points[row, (lone + k) % 3] for k in range(3))
        ha, hb, hc = (height[row, (lone + k) % 3] for k in range(3))
        p, q = a + (ha / (ha - hb))[:, None] * (b - a), a + (ha / (ha - hc))[:, None] * (c - a)
        none = np.zeros(len(points))
        tip = _prisms(np.stack([a, p, q], axis=1), np.stack([ha, none, none], axis=1))
        total += tip if lone_above else _prisms(points, height) - tip
    return float(total)


def _prisms(triangles: Array, heights: Array) -> float:
    """Σ (projected area, upward positive) × mean height."""
    if not len(triangles):
        return 0.0
    u, v = triangles[:, 1] - triangles[:, 0], triangles[:, 2] - triangles[:, 0]
    area = (u[:, 0] * v[:, 1] - u[:, 1] * v[:, 0]) / 2
    return float(area @ heights.mean(axis=1))


@lru_cache(maxsize=32)
def solid_of(mesh: Mesh, what: str = "master") -> manifold3d.Manifold:
    """The mesh as a solid for cutting. Raises `Refused` with the place where its surface is broken."""
    raw = manifold3d.Mesh(
        vert_properties=np.asarray(mesh.vertices, dtype=np.float32),
        tri_verts=np.asarray(mesh.faces, dtype=np.uint32),
    )
    raw.merge()
    manifold = manifold3d.Manifold(raw)
    if manifold.status() != manifold3d.Error.NoError or manifold.volume() <= 0:
        raise Refused(what, manifold.status().name, rule("surface-broken", place=_place(mesh)))
    return manifold


def _place(mesh: Mesh) -> str:
    """Where an edge does not belong to two faces, in words."""
    edges = np.sort(
        np.concatenate([mesh.faces[:, [0, 1]], mesh.faces[:, [1, 2]], mesh.faces[:, [2, 0]]]), axis=1
    )
    ends, uses = np.unique(edges, axis=0, return_counts=True)
    odd = ends[uses != 2]
    if not len(odd):
        return ""
    spot = mesh.vertices[odd[0]].mean(axis=0)
    return f" near ({', '.join(numeral(v, 'length') for v in spot)}) {unit_of('length')}"


@lru_cache(maxsize=64)
def seen(mesh: Mesh, axis: int = 2) -> tuple[tuple[Array, ...], float]:
    """Outlines of the mesh's shadow along an axis, each (n, 2) [mm] in the other two axes' order, and the
    shadow's area [mm²].
    """
    manifold = solid_of(mesh)
    if axis == 1:  # (x, y, z) → (x, z, −y): z stays up
        manifold = manifold.rotate((-90.0, 0.0, 0.0))
    elif axis == 0:  # (x, y, z) → (y, z, x)
        manifold = manifold.rotate((0.0, -90.0, 0.0)).rotate((0.0, 0.0, -90.0))
    shadow = manifold.project()
    return tuple(np.asarray(row, dtype=float) for row in shadow.to_polygons()), float(shadow.area())


@lru_cache(maxsize=32)
def middle_cut(mesh: Mesh) -> tuple[Array, ...]:
    """The mesh cut along its middle (y = 0): outlines (n, 2) of (x, z) [mm]."""
    laid = solid_of(mesh).rotate((-90.0, 0.0, 0.0))
    return tuple(np.asarray(row, dtype=float) for row in laid.slice(0.0).to_polygons())


def face_normals(mesh: Mesh) -> tuple[Array, Array]:
    """Unit normals (n, 3) and areas (n,) [mm²] of the faces."""
    a, b, c = (mesh.vertices[mesh.faces[:, k]] for k in range(3))
    cross = np.cross(b - a, c - a)
    size = np.linalg.norm(cross, axis=1)
    return cross / np.maximum(size, 1e-12)[:, None], size / 2


def edges_of(faces: NDArray[np.int64]) -> NDArray[np.int64]:
    """Each edge once, (m, 2)."""
    return np.unique(
        np.sort(np.concatenate([faces[:, [0, 1]], faces[:, [1, 2]], faces[:, [2, 0]]]), axis=1), axis=0
    )
