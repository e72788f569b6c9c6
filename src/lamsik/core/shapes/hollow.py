"""Hollow bodies: a shell of even wall, empty or filled with something lighter."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lamsik.core.errors import Refused, finite_between
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array, Curve, share_of_phi
from lamsik.core.shapes.quadrature import Solid, whole

AIR_G_CM3 = 0.0012
POINTS = 49


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
def inside_of(body: Body, wall_mm: float) -> Solid:
    """Volume and centroid of what lies inside a wall of even thickness.

    Notes: each outline is moved in by the wall across its own slope, w·√(1 + (dz/dx)²), and the ends by the wall.
    Raises `Refused` where nothing is left inside.
    """
    length = body.length_mm - 2 * wall_mm
    if length < 5.0 or min(body.depth_mm, body.width_mm) < 2 * wall_mm + 0.6:
        raise Refused("shell.wall_mm", wall_mm, f"thinner than {min(body.depth_mm, body.width_mm) / 2:.1f} mm, else it is solid")
    phi = np.linspace(0.0, np.pi, POINTS)
    shares = share_of_phi(phi)
    shares[0], shares[-1] = 0.0, 1.0
    outer = np.arccos(np.clip(1 - 2 * (wall_mm + shares * length) / body.length_mm, -1.0, 1.0))
    top, bottom, half = (_moved(body, line, outer, wall_mm, sign) for line, sign in ((body.top, -1.0), (body.bottom, 1.0), (body.half_width, -1.0)))
    middle = (body.top.at(outer) + body.bottom.at(outer)) / 2
    closed = top <= bottom
    top, bottom, half = np.where(closed, middle, top), np.where(closed, middle, bottom), np.where(closed, 0.0, np.maximum(half, 0.0))
    upper, lower, side = (Curve(tuple(shares.tolist()), tuple(values.tolist())) for values in (top, bottom, half))
    inner = Body(length, upper, lower, side, body.upper_exponent, body.lower_exponent)
    found = whole(inner)
    x, y, z = found.centroid_mm
    return Solid(found.volume_mm3, (x + wall_mm, y, z), found.area_mm2, found.area_centroid_mm)


def _moved(body: Body, line: Curve, phi: Array, wall_mm: float, sign: float) -> Array:
    along = np.maximum(body.length_mm * np.sin(phi) / 2, 1e-6)
    slope = line.slope(phi) / along
    return np.asarray(line.at(phi) + sign * wall_mm * np.sqrt(1.0 + slope**2))
