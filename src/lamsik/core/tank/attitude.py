"""Pitch and roll, and where a body comes to rest wholly under water: closed form.

Up seen from the body: (−sin p, −sin r·cos p, cos r·cos p) for pitch p (nose up) and roll r
(right side down).
"""

from dataclasses import dataclass
from math import asin, atan2, cos, degrees, radians, sin

import numpy as np

from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.hardware import Point
from lamsik.core.tank.mass import Budget


@dataclass(frozen=True)
class Attitude:
    """Pitch (nose up) and roll (right side down) [°]."""

    pitch_deg: float
    roll_deg: float

    @property
    def up(self) -> Array:
        """Upward unit vector in the body frame, (3,)."""
        p, r = radians(self.pitch_deg), radians(self.roll_deg)
        return np.array([-sin(p), -sin(r) * cos(p), cos(r) * cos(p)])


def attitude_of(up: Array) -> Attitude:
    """The attitude whose upward vector in the body frame is `up` (3,)."""
    length = float(np.sqrt(up @ up))
    pitch = degrees(asin(float(np.clip(-up[0] / length, -1.0, 1.0))))
    roll = degrees(atan2(-float(up[1]), float(up[2]))) if np.hypot(up[1], up[2]) > 1e-9 * length else 0.0
    return Attitude(pitch, roll)


@dataclass(frozen=True)
class Hanging:
    """A body wholly under water: net lift [g], G and B [mm], attitude free and held at its tie."""

    net_g: float
    g_mm: Point
    b_mm: Point
    free: Attitude
    held: Attitude | None


def buoyancy(body_centroid: Point, mass: Budget) -> Point:
    """Centre of buoyancy B [mm] of everything the design displaces; films are taken with the hull."""
    hull = mass.hull_ml + mass.film_ml
    moment = hull * np.array(body_centroid) + mass.outside_ml @ mass.outside_mm
    b = moment / mass.displaced_ml
    return (float(b[0]), float(b[1]), float(b[2]))


def immersed(body_centroid: Point, mass: Budget, water_g_cm3: float, tie: Point | None = None) -> Hanging:
    """Rest wholly under water: B straight above G when free; held at the tie, the moment about it vanishes.

    Held: D = ρV(B − T) − m(G − T) points up (a rising bait on a line below it hangs the other way round).
    """
    b, g = np.array(buoyancy(body_centroid, mass)), np.array(mass.g_mm)
    lift = water_g_cm3 * mass.displaced_ml
    free = attitude_of(b - g) if float(np.abs(b - g).max()) > 1e-9 else Attitude(0.0, 0.0)
    held = None
    if tie is not None:
        d = lift * (b - np.array(tie)) - mass.mass_g * (g - np.array(tie))
        held = attitude_of(d) if float(np.abs(d).max()) > 1e-9 else free
    return Hanging(lift - mass.mass_g, mass.g_mm, (float(b[0]), float(b[1]), float(b[2])), free, held)
