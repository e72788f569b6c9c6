"""Outlines that stencils are cut in: points in a box one long, so many of it high, nose to the left."""

import numpy as np

from lamsik.core.shapes.curves import Array

_TURN = np.linspace(0.0, 2.0 * np.pi, 41)[:-1]


def _leaf() -> Array:
    x = np.linspace(-0.5, 0.5, 25)
    arch = 0.24 * np.cos(np.pi * x)
    return np.vstack([np.column_stack([x, arch]), np.column_stack([x, -arch])[-2:0:-1]])


def _drop() -> Array:
    wide = 0.3 * np.sin(_TURN) * np.sin(_TURN / 2) ** 1.5
    return np.column_stack([-0.5 * np.cos(_TURN), wide])


def _star() -> Array:
    turn = np.linspace(0.0, 2.0 * np.pi, 11)[:-1] + np.pi / 2
    reach = np.where(np.arange(10) % 2 == 0, 0.5, 0.21)
    return np.column_stack([reach * np.cos(turn), reach * np.sin(turn)])


def _half_moon() -> Array:
    turn = np.linspace(-np.pi / 2, np.pi / 2, 21)
    out = np.column_stack([0.5 * np.cos(turn) - 0.25, 0.5 * np.sin(turn)])
    back = np.column_stack([0.22 * np.cos(turn) - 0.25, 0.5 * np.sin(turn)])
    return np.vstack([out, back[-2:0:-1]])


SHAPES: dict[str, Array] = {
    "leaf": _leaf(),
    "drop": _drop(),
    "chevron": np.array(
        [(-0.5, 0.0), (0.0, 0.4), (0.5, 0.4), (0.02, 0.0), (0.5, -0.4), (0.0, -0.4)], dtype=float
    ),
    "fin": np.array(
        [(-0.5, 0.16), (-0.1, 0.24), (0.5, 0.02), (0.34, -0.16), (-0.1, -0.2), (-0.5, -0.06)], dtype=float
    ),
    "star": _star(),
    "flame": np.array(
        [
            (-0.5, 0.28),
            (-0.05, 0.26),
            (0.5, 0.3),
            (0.12, 0.1),
            (0.44, 0.02),
            (0.06, -0.1),
            (0.3, -0.28),
            (-0.5, -0.28),
        ],
        dtype=float,
    ),
    "half moon": _half_moon(),
}
"""By name, (n, 2) each; up is towards the back."""


def area(points: Array) -> float:
    """Of an outline, in its own unit squared."""
    x, y = points[:, 0], points[:, 1]
    return float(abs(x @ np.roll(y, -1) - y @ np.roll(x, -1))) / 2


def distance(points: Array, x: Array, y: Array) -> Array:
    """Signed distance of places to an outline, negative inside; in its unit.

    Notes: least distance to its edges; inside by the crossings of a ray (even-odd).
    """
    ahead = np.roll(points, -1, axis=0)
    best = np.full(np.broadcast(x, y).shape, np.inf)
    inside = np.zeros(best.shape, dtype=bool)
    for (ax, ay), (bx, by) in zip(points, ahead, strict=True):
        dx, dy = bx - ax, by - ay
        along = np.clip(((x - ax) * dx + (y - ay) * dy) / max(dx * dx + dy * dy, 1e-15), 0.0, 1.0)
        best = np.minimum(best, (x - ax - along * dx) ** 2 + (y - ay - along * dy) ** 2)
        if dy:
            inside ^= ((ay > y) != (by > y)) & (x < ax + (y - ay) / dy * dx)
    return np.asarray(np.where(inside, -1.0, 1.0) * np.sqrt(best))
