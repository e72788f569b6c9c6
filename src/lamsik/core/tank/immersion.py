"""The wet part of a body under a water plane, exactly for its mesh, in one vectorised pass.

A point P is wet where up·P < d. Signed tetrahedra with their apex on the plane need no
cap; the water-plane's own area and moments come from the waterline's segments (Green).
Two nested meshes and Richardson's step (4·fine − coarse)/3 remove the inscribed mesh's
volume error to about 1e-5.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.shapes.polyhedra import joined, segment_meshes, surface, thinned
from lamsik.core.shapes.skins import Mesh
from lamsik.core.shapes.solid import solid


@dataclass(frozen=True)
class Wet:
    """The wet part: volume [mm³], first moment about the origin [mm⁴], and the water-plane.

    Water-plane: area [mm²], first moments (Sx, Sy) [mm³] and second moments (Ixx, Ixy, Iyy)
    [mm⁴] of its points' coordinates along the two tank axes e1, e2.
    """

    volume: float
    moment: Array
    area: float
    first: Array
    second: Array


@dataclass(frozen=True, eq=False)
class Hull:
    """A mesh prepared for clipping: per-face sums that are linear in the apex. Its `corners` are its faces
    (3, n), a row for each corner.
    """

    vertices: Array
    faces: NDArray[np.int64]
    corners: NDArray[np.int64]
    sums: Array
    area_vectors: Array


def hull_of(mesh: Mesh, volume_mm3: float | None = None) -> Hull:
    """A hull from a closed mesh; with a volume given, the mesh's sections are scaled to hold it."""
    vertices = mesh.vertices
    if volume_mm3 is not None:
        short = volume_mm3 / _face_sums(vertices, mesh.faces)[0][:, 0].sum()
        centre = (vertices.max(axis=0) + vertices.min(axis=0)) / 2
        vertices = centre + (vertices - centre) * np.array([1.0, short**0.5, short**0.5])
    sums, area_vectors = _face_sums(vertices, mesh.faces)
    return Hull(vertices, mesh.faces, np.ascontiguousarray(mesh.faces.T), sums, area_vectors)


def _face_sums(vertices: Array, faces: NDArray[np.int64]) -> tuple[Array, Array]:
    a, b, c = vertices[faces[:, 0]], vertices[faces[:, 1]], vertices[faces[:, 2]]
    volume = np.einsum("ij,ij->i", a, np.cross(b, c)) / 6.0
    area = np.cross(b - a, c - a) / 2.0
    corner = a + b + c
    outer = np.einsum("ij,ik->ijk", area, corner).reshape(len(faces), 9)
    return np.column_stack([volume, area, volume[:, None] * corner, outer]), area


@lru_cache(maxsize=64)
def coarse_hull(body: Body) -> Hull:
    """A coarse hull that holds the body's true volume: for dragging and for searching."""
    return hull_of(_coarse_mesh(body), solid(body).volume_mm3)


@lru_cache(maxsize=64)
def scout_hull(body: Body) -> Hull:
    """A coarser hull yet, of the true volume: only where rests are is asked of it."""
    return hull_of(surface(body, 16, 16), solid(body).volume_mm3)


def _coarse_mesh(body: Body) -> Mesh:
    whole = joined(segment_meshes(body, 22, 24)) if body.joints else surface(body, 22, 24)
    return thinned(whole) if body.skin else whole


@lru_cache(maxsize=16)
def made_hulls(body: Body) -> tuple[Hull, Hull]:
    """Hulls (fair, exact) of a body brought in as a mesh or cut by joints, at their true volume."""
    whole = joined(segment_meshes(body, 60, 48)) if body.joints else surface(body, 60, 48)
    volume = solid(body).volume_mm3
    return hull_of(thinned(whole, 56) if body.skin else whole, volume), hull_of(whole, volume)


@lru_cache(maxsize=64)
def fine_hulls(body: Body, rings: int = 36) -> tuple[Hull, Hull]:
    """Two nested hulls (coarse, fine) for Richardson's step."""
    return hull_of(body_mesh(body, rings, rings)), hull_of(body_mesh(body, rings, rings, 2))


def tank_axes(up: Array) -> tuple[Array, Array]:
    """Two horizontal unit vectors (body frame) that with `up` make a right-handed frame."""
    ux, uy, uz = float(up[0]), float(up[1]), float(up[2])
    if abs(ux) < 0.8:  # up × x, else up × y; written out, since np.cross is slow on single vectors
        ax, ay, az = 0.0, uz, -uy
    else:
        ax, ay, az = -uz, 0.0, ux
    size = (ax * ax + ay * ay + az * az) ** 0.5
    ax, ay, az = ax / size, ay / size, az / size
    return np.array([ay * uz - az * uy, az * ux - ax * uz, ax * uy - ay * ux]), np.array([ax, ay, az])


LONE = np.array([0, 0, 1, 2, 2, 1, 0, 0])
"""Which corner of a face stands alone on its side of the water, by which are wet: 1, 2, 4 for the corners."""
LONE_WET = np.array([0.0, 1.0, 1.0, -1.0, 1.0, -1.0, -1.0, 0.0])
"""1 where the lone corner is the wet one, −1 where it is the dry one."""
MOSTLY_WET = np.array([0.0, 0.0, 0.0, 1.0, 0.0, 1.0, 1.0, 1.0])
"""1 where two corners or three are wet."""


def wet(hull: Hull, up: Array, d: float) -> Wet:
    """The wet part of a hull below the plane up·P = d.

    Args:
        hull: closed, outward mesh.
        up: (3,) unit vector, upward in the body frame.
        d: draft of the body's origin along `up` [mm].
    """
    height = hull.vertices @ up - d
    under = (height < 0.0).view(np.int8)
    first, second, third = hull.corners
    which = under[first] + 2 * under[second] + 4 * under[third]
    apex = up * d
    volume, moment = _linear(np.asarray(MOSTLY_WET[which] @ hull.sums), apex)
    cut = np.nonzero((which != 0) & (which != 7))[0]
    if cut.size == 0:
        return Wet(volume, moment, 0.0, np.zeros(2), np.zeros(3))
    which = which[cut]
    lone, sign = LONE[which], LONE_WET[which]
    ia, ib, ic = (hull.corners[(lone + turn) % 3, cut] for turn in range(3))
    a, ha = hull.vertices[ia], height[ia]
    p = a + (ha / (ha - height[ib]))[:, None] * (hull.vertices[ib] - a)
    q = a + (ha / (ha - height[ic]))[:, None] * (hull.vertices[ic] - a)
    a0, p0, q0 = a - apex, p - apex, q - apex
    tetra = sign * _triple(a0, p0, q0) / 6.0
    small = float(tetra.sum())
    moment = moment + tetra @ (a0 + p0 + q0) / 4.0 + small * apex
    return Wet(volume + small, moment, *_water_plane(p, q, sign, up))


def _triple(a: Array, b: Array, c: Array) -> Array:
    """a·(b × c) row by row, (n, 3) each; quicker than np.cross."""
    ax, ay, az = a.T
    bx, by, bz = b.T
    cx, cy, cz = c.T
    return np.asarray(ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx))


def _linear(sums: Array, apex: Array) -> tuple[float, Array]:
    """Volume and first moment of tetrahedra from the apex to the summed faces."""
    area, outer = sums[1:4], sums[7:16].reshape(3, 3)
    volume = float(sums[0] - apex @ area / 3.0)
    moment = (sums[4:7] - apex @ outer / 3.0 + apex * volume) / 4.0
    return volume, moment


def _water_plane(p: Array, q: Array, sign: Array, up: Array) -> tuple[float, Array, Array]:
    e1, e2 = tank_axes(up)
    # The wet faces' rim runs p→q; the water-plane's own boundary, seen from above, runs back.
    axes = np.array([e1, e2]).T
    (px, py), (qx, qy) = (p @ axes).T, (q @ axes).T
    forward = sign > 0
    x0, y0 = np.where(forward, qx, px), np.where(forward, qy, py)
    x1, y1 = px + qx - x0, py + qy - y0
    cross = x0 * y1 - x1 * y0
    area = float(cross.sum()) / 2.0
    first = np.array([cross @ (x0 + x1), cross @ (y0 + y1)]) / 6.0
    ixx = float(cross @ (x0 * x0 + x0 * x1 + x1 * x1)) / 12.0
    iyy = float(cross @ (y0 * y0 + y0 * y1 + y1 * y1)) / 12.0
    ixy = float(cross @ (x0 * y1 + 2 * x0 * y0 + 2 * x1 * y1 + x1 * y0)) / 24.0
    return area, first, np.array([ixx, ixy, iyy])
