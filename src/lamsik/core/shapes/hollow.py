"""Hollow bodies: a shell of even wall, empty or filled with something lighter."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lamsik.core.errors import Refused, finite_between
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array, Curve, phi_of_share
from lamsik.core.shapes.quadrature import Stretch, gauss_panels, half_superellipse_area, half_superellipse_moment


@dataclass(frozen=True)
class Shell:
    """The wall [mm] and what is inside it: density [g/cm³], 0 for air, and its name."""

    wall_mm: float = 2.0
    fill_g_cm3: float = 0.0
    fill: str = "air"

    def __post_init__(self) -> None:
        finite_between("shell.wall_mm", self.wall_mm, 0.3, 60.0, "mm")
        finite_between("shell.fill_g_cm3", self.fill_g_cm3, 0.0, 3.0, "g/cm³")

    @property
    def is_empty(self) -> bool:
        """Whether a pierced skin would let water in: closed foam does not."""
        return self.fill_g_cm3 < 0.02


@lru_cache(maxsize=64)
def inside_of(body: Body, wall_mm: float) -> Stretch:
    """Volume and centroid of what lies inside a wall of even thickness.

    Notes: each outline is moved in by the wall across its own slope, w·√(1 + (dz/dx)²), and the ends by the wall.
    Raises `Refused` where nothing is left inside.
    """
    if body.length_mm - 2 * wall_mm < 5.0 or min(body.depth_mm, body.width_mm) < 2 * wall_mm + 0.6:
        raise Refused("shell.wall_mm", wall_mm, f"thinner than {min(body.depth_mm, body.width_mm) / 2:.1f} mm, else it is solid")
    phi, weight = gauss_panels(_breaks(body, wall_mm), 0.1, 8)
    x, dx = body.length_mm * (1 - np.cos(phi)) / 2, weight * body.length_mm * np.sin(phi) / 2
    top, bottom, half = (_moved(body, line, phi, wall_mm, sign) for line, sign in ((body.top, -1.0), (body.bottom, 1.0), (body.half_width, -1.0)))
    open_here = (x > wall_mm) & (x < body.length_mm - wall_mm) & (top > bottom) & (half > 0)
    widest = np.clip(body.widest_at(phi), bottom, np.maximum(top, bottom))
    a, up, low = (np.where(open_here, v, 0.0) for v in (half, top - widest, widest - bottom))
    area = half_superellipse_area(a, up, body.upper_exponent) + half_superellipse_area(a, low, body.lower_exponent)
    lift = half_superellipse_moment(a, up, body.upper_exponent) - half_superellipse_moment(a, low, body.lower_exponent)
    volume = float(dx @ area)
    return Stretch(volume, (float(dx @ (x * area)) / volume, 0.0, float(dx @ (widest * area + lift)) / volume))


def _breaks(body: Body, wall_mm: float) -> Array:
    """The curves' points and the two inner ends, station angles φ."""
    ends = phi_of_share(np.array([wall_mm, body.length_mm - wall_mm]) / body.length_mm)
    marks = np.sort(np.concatenate([body.knots(), ends]))
    return np.asarray(marks[np.concatenate([[True], np.diff(marks) > 1e-6])])


def _moved(body: Body, line: Curve, phi: Array, wall_mm: float, sign: float) -> Array:
    along = np.maximum(body.length_mm * np.sin(phi) / 2, 1e-6)
    slope = line.slope(phi) / along
    return np.asarray(line.at(phi) + sign * wall_mm * np.sqrt(1.0 + slope**2))
