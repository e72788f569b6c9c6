"""How quick this machine is just now: one numpy pass over triangles, the unit that targets are multiples
of.
"""

import numpy as np

from bench.rows import median_ms

TRIANGLES = 100_000
QUIET_MS = 11.0
"""What the pass takes on a quiet machine of the kind the limits in milliseconds were set on."""

_POINTS = np.random.default_rng(1).normal(size=(3, TRIANGLES, 3))


def once() -> float:
    """Signed volumes and first moments of the triangles with the origin, summed."""
    a, b, c = _POINTS
    volume = np.einsum("ij,ij->i", a, np.cross(b, c)) / 6.0
    return float((volume[:, None] * (a + b + c)).sum())


def figure_ms() -> float:
    """The pass now [ms]."""
    return median_ms(once, 15, 3)
