"""Closed meshes: what they measure, cutting them by planes, thinning them for quick work. Cuts by
manifold3d.
"""

from functools import lru_cache
from math import cos, radians, sin

import manifold3d
import numpy as np

from lamsik.core.errors import Refused, rule
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.joints import Cut
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.shapes.quadrature import Solid
from lamsik.core.shapes.skins import Mesh, mesh_of


def measures(mesh: Mesh) -> Solid:
    """Volume, centroid, area and area centroid of a closed mesh; exact for the polyhedron, but for the mean
    of |y| where faces cross the middle plane.
    """
    corners = mesh.vertices[mesh.faces]
    a, b, c = corners[:, 0], corners[:, 1], corners[:, 2]
    parts = np.einsum("ij,ij->i", a, np.cross(b, c)) / 6.0
    volume = float(parts.sum())
    if volume <= 0:
        return Solid(0.0, (0.0, 0.0, 0.0), 0.0, (0.0, 0.0, 0.0))
    middle = parts @ (a + b + c) / 4.0 / volume
    areas = np.linalg.norm(np.cross(b - a, c - a), axis=1) / 2.0
    skin = areas @ (a + b + c) / 3.0 / areas.sum()
    beside = areas @ np.abs((a + b + c)[:, 1]) / 3.0 / areas.sum()
    return Solid(volume, _point(middle), float(areas.sum()), _point(skin), float(beside))


def _point(row: Array) -> tuple[float, float, float]:
    return (float(row[0]), float(row[1]), float(row[2]))


def surface(body: Body, stations: int = 120, around: int = 96) -> Mesh:
    """The uncut body as one closed mesh: the mesh brought in, or the curve at this fineness."""
    return mesh_of(body.skin) if body.skin else body_mesh(body, stations, around)


@lru_cache(maxsize=64)
def manifold_of(mesh: Mesh) -> manifold3d.Manifold:
    """A closed mesh ready to be cut. Raises `Refused` where it is not closed or crosses itself."""
    raw = manifold3d.Mesh(
        vert_properties=np.asarray(mesh.vertices, dtype=np.float32),
        tri_verts=np.asarray(mesh.faces, dtype=np.uint32),
    )
    raw.merge()
    manifold = manifold3d.Manifold(raw)
    if manifold.status() != manifold3d.Error.NoError or manifold.volume() <= 0:
        raise Refused("body", manifold.status().name, rule("surface-crosses"))
    return manifold


def mesh_from(manifold: manifold3d.Manifold) -> Mesh:
    """What was cut as a mesh [mm]."""
    raw = manifold.to_mesh()
    return Mesh(
        np.asarray(raw.vert_properties, dtype=float)[:, :3], np.asarray(raw.tri_verts, dtype=np.int64)
    )


def ahead_of(manifold: manifold3d.Manifold, cut: Cut) -> tuple[manifold3d.Manifold, manifold3d.Manifold]:
    """The parts on the nose side and on the tail side."""
    # (cos s, 0, −sin s)·P < x cos s is the nose side
    normal = (cos(radians(cut.slant_deg)), 0.0, -sin(radians(cut.slant_deg)))
    aft, fore = manifold.split_by_plane(normal, cut.x_mm * normal[0])
    return fore, aft


@lru_cache(maxsize=64)
def within(mesh: Mesh, fores: tuple[Cut, ...], afts: tuple[Cut, ...]) -> Solid:
    """What a mesh measures behind all of some cuts and ahead of all of others."""
    if not fores and not afts:
        return measures(mesh)
    left = manifold_of(mesh)
    for cut in afts:
        left, _ = ahead_of(left, cut)
    for cut in fores:
        _, left = ahead_of(left, cut)
    return measures(mesh_from(left))


@lru_cache(maxsize=32)
def segment_meshes(body: Body, stations: int = 120, around: int = 96) -> tuple[Mesh, ...]:
    """Closed meshes of the body's segments from the nose, kerfs taken out."""
    left, meshes = manifold_of(surface(body, stations, around)), []
    for first, last in body.cuts:
        fore, aft = ahead_of(left, first)
        meshes.append(mesh_from(fore))
        _, left = ahead_of(aft, last)
    return (*meshes, mesh_from(left))


def joined(meshes: tuple[Mesh, ...]) -> Mesh:
    """Several closed meshes as one."""
    counts = np.cumsum([0, *(len(m.vertices) for m in meshes)])
    return Mesh(
        np.vstack([m.vertices for m in meshes]),
        np.vstack([m.faces + shift for m, shift in zip(meshes, counts[:-1], strict=True)]),
    )


def thinned(mesh: Mesh, cells: int = 28) -> Mesh:
    """A coarser closed mesh: vertices gathered in the cells of a grid, `cells` along the longest side.

    Gathering vertices keeps a closed surface closed, so clipping it stays right; its volume is set by the
    caller.
    """
    size = float(np.ptp(mesh.vertices, axis=0).max()) / cells
    spot = np.floor((mesh.vertices - mesh.vertices.min(axis=0)) / size).astype(np.int64)
    _, back = np.unique(spot @ np.array([1, 4096, 4096 * 4096]), return_inverse=True)
    counts = np.bincount(back)
    middles = np.column_stack([np.bincount(back, weights=mesh.vertices[:, k]) / counts for k in range(3)])
    faces = back[mesh.faces]
    kept = (faces[:, 0] != faces[:, 1]) & (faces[:, 1] != faces[:, 2]) & (faces[:, 2] != faces[:, 0])
    return Mesh(middles, faces[kept])
