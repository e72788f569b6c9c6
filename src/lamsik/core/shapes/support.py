"""How far a body reaches in a direction: its support function, off the curve and not off a mesh inscribed
in it.
"""

from functools import lru_cache

import numpy as np

from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array, share_of_phi
from lamsik.core.shapes.skins import mesh_of

POINTS = 721


def reach_mm(body: Body, way: Array) -> float:
    """The greatest P·way of all points P of the uncut body [mm]; `way` is a unit vector (3,) in its frame.

    Notes: of half a superellipse |y/a|ⁿ + |z/b|ⁿ = 1 it is ((a|w_y|)^q + (b·w_z)^q)^(1/q) with 1/n + 1/q = 1;
        along the body the greatest of many sections, between them the top of a parabola.
    """
    if body.skin is not None:
        return float((mesh_of(body.skin).vertices @ way).max())
    x, widest, half, up, low = _sections(body)
    reach, n = (up, body.upper_exponent) if way[2] >= 0 else (low, body.lower_exponent)
    across = _dual(half * abs(way[1]), reach * abs(way[2]), n)
    rows = x * way[0] + widest * way[2] + across
    k = int(np.argmax(rows))
    if not 0 < k < POINTS - 1:
        return float(rows[k])
    before, here, after = rows[k - 1 : k + 2]
    bend = 2 * here - before - after
    return float(here + (after - before) ** 2 / (8 * bend)) if bend > 1e-12 else float(here)


def _dual(a: Array, b: Array, n: float) -> Array:
    if n <= 1.0 + 1e-9:
        return np.asarray(np.maximum(a, b))
    q = n / (n - 1.0)
    most = np.maximum(np.maximum(a, b), 1e-12)
    return np.asarray(most * ((a / most) ** q + (b / most) ** q) ** (1.0 / q))


@lru_cache(maxsize=32)
def _sections(body: Body) -> tuple[Array, Array, Array, Array, Array]:
    phi = np.linspace(0.0, np.pi, POINTS)
    widest = body.widest_at(phi)
    half = np.maximum(body.half_width.at(phi), 0.0)
    return (
        body.length_mm * share_of_phi(phi),
        widest,
        half,
        np.maximum(body.top.at(phi) - widest, 0.0),
        np.maximum(widest - body.bottom.at(phi), 0.0),
    )
