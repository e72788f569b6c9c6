"""How far a made body is off its drawing, each face by itself: left, right, back and belly, the whole length
alike.

A hand that takes a shaving too little leaves it along the whole face: errors of sections would average out to
nothing, errors of faces do not.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lamsik.core.errors import finite_between
from lamsik.core.learning import SHOP, TABLE, Learned
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.quadrature import gauss_panels, half_superellipse_area, sections

FACES = ("left", "right", "back", "belly")
TRUE_TO = {"by hand": 0.20, "by template": 0.10}
"""How true a carver works, one sigma a face [mm]; the handbook's makers name 0.1 to 0.3 by eye, less over
a template.
"""

MADE_TRUE_TO = {"wood": TRUE_TO["by hand"], "foam": 0.10, "cast": 0.08, "soft": 0.10, "print": 0.08}
"""One sigma a face [mm] by construction, as long as the shop's own blanks tell nothing: cast and printed
bodies shrink.
"""

BELIEF = 4
"""What the figure above counts for, in blanks, against the shop's own."""


@dataclass(frozen=True, eq=False)
class Moved:
    """What moving each face out by a millimetre adds: volume [ml/mm] (4,), and where that lies along the
    body [mm] (4,).
    """

    ml: Array
    x_mm: Array

    @property
    def ml_per_mm(self) -> float:
        """One sigma of the volume [ml] for one millimetre of sigma on each face, which err apart."""
        return float(np.linalg.norm(self.ml))


@lru_cache(maxsize=64)
def moved(body: Body) -> Moved:
    """The faces of a body, in the order of `FACES`.

    Notes: a section has the area k_u·2ab_u + k_l·2ab_l; its half-width moved out on one side changes half of
        that per millimetre of a, its top or bottom 2ka per millimetre of b (the widest height follows, so
        both halves share it).
    """
    phi, weight = gauss_panels(body.knots(), 0.35, 8)
    x, dx = body.length_mm * (1 - np.cos(phi)) / 2, weight * body.length_mm * np.sin(phi) / 2
    a, _, up, low = sections(body, phi)
    one = np.ones_like(a)
    side = (
        half_superellipse_area(one, up, body.upper_exponent)
        + half_superellipse_area(one, low, body.lower_exponent)
    ) / 2
    back, belly = (
        half_superellipse_area(a, one, body.upper_exponent),
        half_superellipse_area(a, one, body.lower_exponent),
    )
    if body.widest is None:
        back = belly = (back + belly) / 2
    rows = [side, side, back, belly]
    ml = np.array([float(dx @ row) for row in rows])
    return Moved(ml / 1000.0, np.array([float(dx @ (x * row)) for row in rows]) / np.maximum(ml, 1e-12))


def learned_mm(drawn: Sequence[tuple[float, float]], start_mm: float) -> Learned:
    """How true the shop works [mm a face, one sigma] from its blanks: (volume off the drawing [ml], that for
    1 mm a face [ml]) each.

    Notes: the scaled inverse-chi-squared mean with `BELIEF` blanks of the starting figure. Raises `Refused`
        for one out of reach.
    """
    finite_between("face_mm", start_mm, 0.0, 2.0, "mm")
    seen = [off / per for off, per in drawn if per > 0]
    value = float(np.sqrt((BELIEF * start_mm**2 + sum(row**2 for row in seen)) / (BELIEF + len(seen))))
    return Learned(
        value, len(seen), float(np.std(seen, ddof=1)) if len(seen) > 1 else None, SHOP if seen else TABLE
    )
