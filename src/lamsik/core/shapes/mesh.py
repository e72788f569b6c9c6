"""Triangle meshes of bodies for clipping by a water plane.

A mesh inscribed in the curve is short of volume; two nested meshes and Richardson's
step remove that (see tank/immersion). A mesh is never the source of volume or centroid.
"""

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array, share_of_phi
from lamsik.core.shapes.skins import Mesh

Index = NDArray[np.int64]


@lru_cache(maxsize=64)
def body_mesh(body: Body, stations: int, around: int, times: int = 1) -> Mesh:
    """Mesh of the body: about `stations` sections of `around` points, each step split `times`.

    Meshes of one body that differ only in `times` are nested, as Richardson's step needs.
    """
    phi = _stations(body, stations, times)
    rings = _rings(body, phi, around * times)
    count, size = len(phi), around * times
    vertices = np.vstack([rings.reshape(-1, 3), rings[0].mean(axis=0), rings[-1].mean(axis=0)])
    faces = [_skin_faces(count, size)]
    if np.ptp(rings[0], axis=0).max() > 1e-9:
        faces.append(_fan(0, size, count * size, outward_nose=True))
    if np.ptp(rings[-1], axis=0).max() > 1e-9:
        faces.append(_fan((count - 1) * size, size, count * size + 1, outward_nose=False))
    return Mesh(vertices, np.vstack(faces))


def _stations(body: Body, stations: int, times: int) -> Array:
    knots = body.knots()
    step = np.pi / stations
    pieces = [
        np.linspace(lo, hi, max(round((hi - lo) / step), 1) * times + 1)[:-1]
        for lo, hi in zip(knots[:-1], knots[1:], strict=True)
    ]
    return np.concatenate([*pieces, [np.pi]])


def _rings(body: Body, phi: Array, around: int) -> Array:
    """Section points (stations, around, 3) [mm], counter-clockwise seen from the tail."""
    angle = 2 * np.pi * np.arange(around) / around
    cos, sin = np.cos(angle), np.sin(angle)
    up = sin >= 0
    n = np.where(up, body.upper_exponent, body.lower_exponent)
    radius = (np.abs(cos) ** n + np.abs(sin) ** n) ** (-1.0 / n)
    widest = body.widest_at(phi)[:, None]
    reach_up, reach_low = body.top.at(phi)[:, None] - widest, widest - body.bottom.at(phi)[:, None]
    y = np.maximum(body.half_width.at(phi), 0.0)[:, None] * (cos * radius)
    z = widest + np.where(up, reach_up, reach_low) * (sin * radius)
    x = np.broadcast_to((body.length_mm * share_of_phi(phi))[:, None], y.shape)
    return np.stack([x, y, z], axis=-1)


def _skin_faces(count: int, size: int) -> Index:
    ring, spoke = np.meshgrid(np.arange(count - 1), np.arange(size), indexing="ij")
    here = ring * size + spoke
    beside = ring * size + (spoke + 1) % size
    first = np.stack([here, here + size, beside], axis=-1)
    second = np.stack([beside, here + size, beside + size], axis=-1)
    return np.concatenate([first.reshape(-1, 3), second.reshape(-1, 3)])[:, ::-1].astype(np.int64)


def _fan(start: int, size: int, centre: int, outward_nose: bool) -> Index:
    here = start + np.arange(size)
    beside = start + (np.arange(size) + 1) % size
    middle = np.full(size, centre)
    order = (middle, beside, here) if outward_nose else (middle, here, beside)
    return np.stack(order, axis=-1).astype(np.int64)
