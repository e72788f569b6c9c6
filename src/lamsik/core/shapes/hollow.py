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
def inside_of(body: Body, wall_mm: float, from_mm: float = 0.0, to_mm: float | None = None) -> Stretch:
    """Volume and centroid of what lies inside a wall of even thickness, or of its stretch from one x to another [mm].

    Notes: each outline is moved in by the wall across its own slope, w·√(1 + (dz/dx)²), and the ends by the wall.
    Raises `Refused` where nothing is left inside.
    """
    if body.length_mm - 2 * wall_mm < 5.0 or min(body.depth_mm, body.width_mm) < 2 * wall_mm + 0.6:
        raise Refused("shell.wall_mm", wall_mm, f"thinner than {min(body.depth_mm, body.width_mm) / 2:.1f} mm, else it is solid")
    from_mm, to_mm = max(from_mm, 0.0), body.length_mm if to_mm is None else min(to_mm, body.length_mm)
    phi, weight = gauss_panels(_breaks(body, wall_mm, (from_mm, to_mm)), 0.1, 8)
    x, dx = body.length_mm * (1 - np.cos(phi)) / 2, weight * body.length_mm * np.sin(phi) / 2
    top, bottom, half = (_moved(body, line, phi, wall_mm, sign) for line, sign in ((body.top, -1.0), (body.bottom, 1.0), (body.half_width, -1.0)))
    open_here = (x > max(wall_mm, from_mm)) & (x < min(body.length_mm - wall_mm, to_mm)) & (top > bottom) & (half > 0)
    widest = np.clip(body.widest_at(phi), bottom, np.maximum(top, bottom))
    a, up, low = (np.where(open_here, v, 0.0) for v in (half, top - widest, widest - bottom))
    area = half_superellipse_area(a, up, body.upper_exponent) + half_superellipse_area(a, low, body.lower_exponent)
    lift = half_superellipse_moment(a, up, body.upper_exponent) - half_superellipse_moment(a, low, body.lower_exponent)
    volume = float(dx @ area)
    if volume <= 0:
        return Stretch(0.0, ((from_mm + to_mm) / 2, 0.0, 0.0))
    return Stretch(volume, (float(dx @ (x * area)) / volume, 0.0, float(dx @ (widest * area + lift)) / volume))


def share_inside(body: Body, wall_mm: float, points: Array) -> float:
    """What share of points (n, 3) [mm], spread evenly through something, lies in the hollow."""
    x, y, z = points.T
    phi = phi_of_share(np.clip(x / body.length_mm, 0.0, 1.0))
    top, bottom, half = (_moved(body, line, phi, wall_mm, sign) for line, sign in ((body.top, -1.0), (body.bottom, 1.0), (body.half_width, -1.0)))
    there = (x > wall_mm) & (x < body.length_mm - wall_mm) & (top > bottom) & (half > 0)
    widest = np.clip(body.widest_at(phi), bottom, np.maximum(top, bottom))
    n = np.where(z >= widest, body.upper_exponent, body.lower_exponent)
    reach = np.maximum(np.where(z >= widest, top - widest, widest - bottom), 1e-9)
    within = (np.abs(y) / np.maximum(half, 1e-9)) ** n + (np.abs(z - widest) / reach) ** n < 1.0
    return float((there & within).mean())


def rod_points(radius_mm: float, length_mm: float, middle: tuple[float, float, float], axis: int) -> Array:
    """Points (n, 3) [mm] spread evenly through a cylinder along x (0) or z (2): equal rings by area, turned from layer to layer."""
    radii, turns = radius_mm * np.sqrt((np.arange(8) + 0.5) / 8), 2 * np.pi * (np.arange(24) + 0.5) / 24
    along = length_mm * ((np.arange(60) + 0.5) / 60 - 0.5)
    r, t, a = (v.ravel() for v in np.meshgrid(radii, turns, along, indexing="ij"))
    across = (r * np.cos(t), r * np.sin(t))
    columns = (a, *across) if axis == 0 else (*across, a)
    return np.asarray(np.column_stack(columns) + np.array(middle))


def _breaks(body: Body, wall_mm: float, stretch: tuple[float, float]) -> Array:
    """The curves' points, the two inner ends and those of the stretch, station angles φ."""
    ends = phi_of_share(np.array([wall_mm, body.length_mm - wall_mm, *stretch]) / body.length_mm)
    marks = np.sort(np.concatenate([body.knots(), ends]))
    return np.asarray(marks[np.concatenate([[True], np.diff(marks) > 1e-6])])


def _moved(body: Body, line: Curve, phi: Array, wall_mm: float, sign: float) -> Array:
    along = np.maximum(body.length_mm * np.sin(phi) / 2, 1e-6)
    slope = line.slope(phi) / along
    return np.asarray(line.at(phi) + sign * wall_mm * np.sqrt(1.0 + slope**2))
