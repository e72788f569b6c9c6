"""A towed line in still water: its tension and angle from the bait up, by drag and weight on every millimetre
of it.

With θ the line's angle over the horizontal and s counted up from the bait (T in N, everything in SI): dT/ds =
½ρC_t·πd·U²·cos²θ + w·sin θ;  T·dθ/ds = w·cos θ − ½ρC_n·d·U²·sin²θ. Without weight and friction cot θ grows by
N/T for each metre (depth by asinh); without drag T·cos θ stays (a catenary).
"""

from dataclasses import dataclass
from math import pi

import numpy as np
from scipy.integrate import solve_ivp

from lamsik.core.errors import finite_between
from lamsik.core.shapes.curves import Array
from lamsik.core.tank.motion import GRAVITY

NORMAL_DRAG, FRICTION = 1.2, 0.02
"""C_n of a long cylinder across the flow and the friction along it (Hoerner, Fluid-Dynamic Drag, 1965)."""

LINE_G_CM3 = 1.14
"""Nylon; braids of polyethylene are 0.97."""


@dataclass(frozen=True)
class Line:
    """A line: diameter [mm], density [g/cm³], drag across and friction along."""

    diameter_mm: float
    density_g_cm3: float = LINE_G_CM3
    normal_drag: float = NORMAL_DRAG
    friction: float = FRICTION

    def __post_init__(self) -> None:
        finite_between("line_mm", self.diameter_mm, 0.02, 5.0, "mm")
        finite_between("line_density", self.density_g_cm3, 0.5, 12.0, "g/cm³")
        finite_between("normal_drag", self.normal_drag, 0.0, 5.0)
        finite_between("friction", self.friction, 0.0, 1.0)

    def weight_n_m(self, water_g_cm3: float) -> float:
        """Weight in water of a metre [N]; negative floats."""
        return (self.density_g_cm3 - water_g_cm3) * 1000.0 * GRAVITY * pi * (self.diameter_mm * 1e-3) ** 2 / 4


@dataclass(frozen=True, eq=False)
class Shape:
    """The line's shape: way along it from the bait [m], height over the bait and distance ahead of it [m],
    angle [rad], tension [N]; each (n,).
    """

    along_m: Array
    height_m: Array
    ahead_m: Array
    angle_rad: Array
    tension_n: Array


def hang(
    line: Line, speed_m_s: float, water_g_cm3: float, tension_n: float, angle_rad: float, along_m: Array
) -> Shape:
    """The line from the bait up, at stations along it (n,) [m], rising from 0.

    Args:
        line: the line.
        speed_m_s: speed through the water.
        water_g_cm3: density of the water.
        tension_n: tension at the bait.
        angle_rad: the line's angle over the horizontal at the bait.
        along_m: where it is wanted.
    """
    d, rho = line.diameter_mm * 1e-3, water_g_cm3 * 1000.0
    across = 0.5 * rho * line.normal_drag * d * speed_m_s**2
    rub = 0.5 * rho * line.friction * pi * d * speed_m_s**2
    weight = line.weight_n_m(water_g_cm3)

    def slope(_s: float, state: Array) -> list[float]:
        tension, angle = max(float(state[0]), 1e-9), float(state[1])
        cos, sin = np.cos(angle), np.sin(angle)
        return [rub * cos * cos + weight * sin, (weight * cos - across * sin * abs(sin)) / tension, sin, cos]

    solved = solve_ivp(
        slope,
        (0.0, float(along_m[-1])),
        [tension_n, angle_rad, 0.0, 0.0],
        t_eval=along_m,
        rtol=1e-7,
        atol=1e-9,
        method="LSODA",
    )
    return Shape(along_m, solved.y[2], solved.y[3], solved.y[1], solved.y[0])


def depths_m(shape: Shape, line_out_m: Array, rod_m: float) -> Array:
    """Depth of the bait [m] for line out from the rod tip (n,) [m]: water line plus the straight piece in the
    air.

    The air line continues the water line's angle at the surface to a tip `rod_m` over the water; 0 where the
    line is too short to reach the water at that angle.
    """
    air = rod_m / np.maximum(np.sin(np.maximum(shape.angle_rad, 1e-3)), 1e-3)
    total = shape.along_m + np.minimum(air, 1e6)
    # More line in the water flattens it, so the air line grows too: total rises along the way.
    rising = np.maximum.accumulate(total)
    depth = np.interp(line_out_m, rising, shape.height_m)
    return np.where(np.asarray(line_out_m) < rising[0], 0.0, depth)
