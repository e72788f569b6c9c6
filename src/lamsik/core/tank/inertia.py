"""Roll inertia, of the bait and of the water it drags round, and the roll frequency they give.

A number to compare two baits by, not a promise of action.
"""

from dataclasses import dataclass
from functools import lru_cache
from math import gamma, pi

import numpy as np

from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.shapes.quadrature import gauss_panels, sections
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.mass import Budget
from lamsik.core.tank.motion import GRAVITY

STEADY_HZ = 3.0
"""From this natural roll frequency on a maker calls a bait steady, below it lively; a setting of the shop."""


@dataclass(frozen=True)
class Roll:
    """Roll about the long axis through G: inertia of the bait and of the water [g·mm²], stiffness as an arm
    [mm], frequency [Hz].

    The arm is BG under water and GM at the surface.
    """

    inertia_g_mm2: float
    added_g_mm2: float
    arm_mm: float
    frequency_hz: float

    @property
    def added_share(self) -> float:
        """The water's inertia as a share of the bait's own."""
        return self.added_g_mm2 / self.inertia_g_mm2


def quadrant(a: Array, b: Array, n: float, p: int, q: int) -> Array:
    """∫∫ y^(p−1) z^(q−1) over one quadrant of the superellipse |y/a|^n + |z/b|^n ≤ 1.

    Notes: a^p b^q Γ(p/n) Γ(q/n) / (n² Γ((p+q)/n + 1)), Dirichlet's integral.
    """
    return np.asarray(a**p * b**q * gamma(p / n) * gamma(q / n) / (n**2 * gamma((p + q) / n + 1)))


@lru_cache(maxsize=128)
def polar_moment_mm5(body: Body) -> float:
    """∫(y² + z²)dV of the body about the x axis through z = 0 [mm⁵]."""
    phi, weight = gauss_panels(body.knots(), 0.35, 8)
    half, widest, up, low = sections(body, phi)
    dx = weight * body.length_mm * np.sin(phi) / 2
    total = np.zeros_like(phi)
    for reach, n, sign in ((up, body.upper_exponent, 1.0), (low, body.lower_exponent, -1.0)):
        area, across = 2 * quadrant(half, reach, n, 1, 1), 2 * quadrant(half, reach, n, 3, 1)
        first, second = 2 * quadrant(half, reach, n, 1, 2), 2 * quadrant(half, reach, n, 1, 3)
        total += across + second + 2 * sign * widest * first + widest**2 * area
    return float(dx @ total)


@lru_cache(maxsize=128)
def _skin_radius_mm2(body: Body) -> float:
    """Mean of y² + z² over the skin [mm²], about z = 0; from the mesh, which is near enough for a film."""
    mesh = body_mesh(body, 22, 24)
    corners = mesh.vertices[mesh.faces]
    area = np.linalg.norm(np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]), axis=1)
    middle = corners.mean(axis=1)
    return float(area @ (middle[:, 1] ** 2 + middle[:, 2] ** 2) / area.sum())


def roll_inertia_g_mm2(design: Design, mass: Budget) -> float:
    """Moment of inertia [g·mm²] about the axis through G along the body."""
    return roll_moment_g_mm2(design, mass) - mass.mass_g * (mass.g_mm[1] ** 2 + mass.g_mm[2] ** 2)


def roll_moment_g_mm2(design: Design, mass: Budget) -> float:
    """Σ m(y² + z²) [g·mm²] about the x axis of the body frame: solids by their sections, the rest as
    points.
    """
    shape, total = solid(design.body), 0.0
    for part in mass.parts:
        square = part.at_mm[1] ** 2 + part.at_mm[2] ** 2
        if part.key == "host":
            square = polar_moment_mm5(design.body) / shape.volume_mm3
        elif part.film_ml > 0:
            square = _skin_radius_mm2(design.body)
        total += part.mass_g * square
    return total + sum(hole.mass_g * hole.beside_mm**2 for hole in design.ballast)


def added_inertia_g_mm2(design: Design, water_g_cm3: float) -> float:
    """Inertia of the water that rolls along [g·mm²]: strips of elliptic section, and the lip as a flat plate.

    Notes: (π/8)ρ(a² − b²)² for each length of an elliptic cylinder (Newman, Marine Hydrodynamics, 1977, ch.
        4).
    """
    total = _strips_mm5(design.body)
    if design.lip is not None:
        total += pi / 8 * (design.lip.width_mm / 2) ** 4 * design.lip.length_mm
    return water_g_cm3 / 1000.0 * total


@lru_cache(maxsize=128)
def _strips_mm5(body: Body) -> float:
    """∫(π/8)(a² − b²)² dx [mm⁵]."""
    phi, weight = gauss_panels(body.knots(), 0.35, 8)
    half, _, up, low = sections(body, phi)
    dx = weight * body.length_mm * np.sin(phi) / 2
    return float(dx @ (pi / 8 * (half**2 - ((up + low) / 2) ** 2) ** 2))


def roll(design: Design, mass: Budget, water_g_cm3: float, arm_mm: float) -> Roll:
    """The roll of a design on a stiffness arm [mm]: BG under water, GM afloat.

    Notes: f = (1/2π)·sqrt(m g arm / (I + I_a)); 0 where the arm does not right it.
    """
    own, added = roll_inertia_g_mm2(design, mass), added_inertia_g_mm2(design, water_g_cm3)
    return Roll(own, added, arm_mm, frequency_hz(mass.mass_g, arm_mm, own + added))


def frequency_hz(mass_g: float, arm_mm: float, inertia_g_mm2: float) -> float:
    """Natural roll frequency [Hz] of a mass on a stiffness arm with an inertia, the water's included."""
    stiffness = mass_g * GRAVITY * 1000.0 * max(arm_mm, 0.0)
    return float((stiffness / inertia_g_mm2) ** 0.5 / (2 * pi))


def nature(frequency: float, steady_hz: float = STEADY_HZ) -> str:
    """Steady or lively, as makers say, by the natural roll frequency [Hz]."""
    return "steady" if frequency >= steady_hz else "lively"
