"""Patches of skin laid flat with least stretch: as conformal as can be, then as rigid as can be.

Lévy and others, Least squares conformal maps (2002), for a beginning; Liu and others, A local/global approach
to mesh parameterization (2008), for the rest. The total area is kept by scale.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy import sparse
from scipy.sparse.linalg import splu, spsolve

from lamsik.core.shapes.curves import Array

Faces = NDArray[np.int64]
ROUNDS, STILL = 60, 1e-6
"""How often it is made more rigid, and the change [of its size] at which it is left."""


@dataclass(frozen=True, eq=False)
class Flat:
    """A patch laid flat.

    Args:
        points: its places in the plane (k, 2) [mm], in the order of the patch's own.
        faces: triangles of them, (t, 3).
        stretch: least and largest factor by which each triangle is stretched, (t, 2).
    """

    points: Array
    faces: Faces
    stretch: Array


def flattened(points: Array, faces: Faces) -> Flat:
    """A patch (k, 3) [mm] of triangles (t, 3) that hang together, laid flat.

    Notes: a patch that can be unrolled comes out exact.
    """
    corners = _in_own_planes(points, faces)
    flat = _rigid(_conformal(corners, faces, len(points), points), corners, faces)
    whole, now = _areas(corners).sum(), _areas(flat[faces]).sum()
    flat = flat * np.sqrt(whole / max(float(now), 1e-12))
    return Flat(flat, faces, _stretch(flat, corners, faces))


def _in_own_planes(points: Array, faces: Faces) -> Array:
    """Each triangle in a plane of its own, (t, 3, 2)."""
    a, b, c = (points[faces[:, n]] for n in range(3))
    along = b - a
    long = np.maximum(np.linalg.norm(along, axis=1), 1e-12)
    x = along / long[:, None]
    across = c - a
    cx = np.sum(across * x, axis=1)
    cy = np.linalg.norm(across - cx[:, None] * x, axis=1)
    zero = np.zeros_like(long)
    return np.stack([np.stack([zero, zero], 1), np.stack([long, zero], 1), np.stack([cx, cy], 1)], axis=1)


def _areas(corners: Array) -> Array:
    one, other = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    return np.asarray((one[:, 0] * other[:, 1] - one[:, 1] * other[:, 0]) / 2.0)


def _conformal(corners: Array, faces: Faces, count: int, points: Array) -> Array:
    """The least squares conformal map, its two farthest places held as far apart as they are."""
    double = np.maximum(2.0 * _areas(corners), 1e-12)
    weight = np.zeros((len(faces), 3), dtype=complex)
    for n in range(3):
        edge = corners[:, (n + 2) % 3] - corners[:, (n + 1) % 3]
        weight[:, n] = (edge[:, 0] + 1j * edge[:, 1]) / np.sqrt(double)
    rows = np.repeat(np.arange(len(faces)), 3)
    whole = sparse.csr_matrix((weight.ravel(), (rows, faces.ravel())), shape=(len(faces), count))
    first = int(np.argmax(np.linalg.norm(points - points.mean(axis=0), axis=1)))
    last = int(np.argmax(np.linalg.norm(points - points[first], axis=1)))
    held, free = [first, last], np.setdiff1d(np.arange(count), [first, last])
    at = np.array([0.0, np.linalg.norm(points[last] - points[first])], dtype=complex)
    left, right = whole[:, free], -(whole[:, held] @ at)
    flat = np.zeros(count, dtype=complex)
    flat[held] = at
    normal = (left.conj().T @ left).tocsc()
    flat[free] = spsolve(normal, left.conj().T @ right)
    return np.column_stack([flat.real, flat.imag])


def _rigid(flat: Array, corners: Array, faces: Faces) -> Array:
    """As rigid as can be: each triangle is turned as it lies best, then all are brought together."""
    cot = _cotangents(corners)
    count = len(flat)
    pairs = [((n + 1) % 3, (n + 2) % 3) for n in range(3)]
    rows = np.concatenate([faces[:, i] for i, _ in pairs])
    columns = np.concatenate([faces[:, j] for _, j in pairs])
    weights = np.concatenate([cot[:, n] for n in range(3)])
    off = sparse.coo_matrix((-weights, (rows, columns)), shape=(count, count))
    off = (off + off.T).tocsr()
    laplacian = off - sparse.diags(np.asarray(off.sum(axis=1)).ravel())
    solve = splu((laplacian + sparse.csr_matrix(([1.0], ([0], [0])), shape=(count, count))).tocsc())
    size = max(float(np.ptp(flat)), 1e-9)
    edges = [(corners[:, i] - corners[:, j]) * cot[:, n, None] for n, (i, j) in enumerate(pairs)]
    gather = _gathering(faces, pairs, count)
    for _ in range(ROUNDS):
        turns = _turns(flat[faces], corners, cot)
        right = gather @ np.concatenate([np.einsum("tab,tb->ta", turns, edge) for edge in edges])
        moved = np.asarray(solve.solve(right))
        moved += (flat - moved).mean(axis=0)
        change, flat = float(np.abs(moved - flat).max()), moved
        if change < STILL * size:
            break
    return flat


def _gathering(faces: Faces, pairs: list[tuple[int, int]], count: int) -> sparse.csr_matrix:
    """What brings the edges of all triangles together at their ends."""
    every = np.arange(3 * len(faces))
    begins = np.concatenate([faces[:, i] for i, _ in pairs])
    ends = np.concatenate([faces[:, j] for _, j in pairs])
    values = np.concatenate([np.ones(len(every)), -np.ones(len(every))])
    return sparse.csr_matrix(
        (values, (np.concatenate([begins, ends]), np.tile(every, 2))), shape=(count, len(every))
    )


def _cotangents(corners: Array) -> Array:
    """Half the cotangent of the angle at each corner, (t, 3); obtuse ones count a little still."""
    rows = []
    for n in range(3):
        one, other = corners[:, (n + 1) % 3] - corners[:, n], corners[:, (n + 2) % 3] - corners[:, n]
        cross = np.abs(one[:, 0] * other[:, 1] - one[:, 1] * other[:, 0])
        rows.append(np.sum(one * other, axis=1) / np.maximum(cross, 1e-12) / 2.0)
    return np.stack(rows, axis=1)


def _turns(now: Array, corners: Array, cot: Array) -> Array:
    """The turn of each triangle nearest to how it lies, (t, 2, 2)."""
    summed = np.zeros((len(now), 2, 2))
    for n in range(3):
        i, j = (n + 1) % 3, (n + 2) % 3
        summed += cot[:, n, None, None] * np.einsum(
            "ta,tb->tab", now[:, i] - now[:, j], corners[:, i] - corners[:, j]
        )
    angle = np.arctan2(summed[:, 1, 0] - summed[:, 0, 1], summed[:, 0, 0] + summed[:, 1, 1])
    cos, sin = np.cos(angle), np.sin(angle)
    return np.asarray(np.stack([np.stack([cos, -sin], 1), np.stack([sin, cos], 1)], axis=1))


def _stretch(flat: Array, corners: Array, faces: Faces) -> Array:
    """Singular values of the map of each triangle, the least first, (t, 2)."""
    now = flat[faces]
    before = np.stack([corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]], axis=-1)
    after = np.stack([now[:, 1] - now[:, 0], now[:, 2] - now[:, 0]], axis=-1)
    values = np.linalg.svd(after @ np.linalg.inv(before), compute_uv=False)
    return np.asarray(values[:, ::-1])
