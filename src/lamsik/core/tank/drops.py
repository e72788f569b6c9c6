"""Timed rises and sinks: net lift from the time when C_d is known, C_d when the net is weighed.

From rest with m_eff = m + added mass, m_eff·dv/dt = F − k v² with k = ½ρC_dA, so the way after t is
x = (m_eff/k) ln cosh(t √(F k)/m_eff).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, log, pi

import numpy as np
from scipy.optimize import brentq

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.quadrature import gauss_panels, sections
from lamsik.core.tank.motion import GRAVITY


@dataclass(frozen=True)
class Drop:
    """One timed run: way [m] and time [s], from rest."""

    distance_m: float
    seconds: float

    def __post_init__(self) -> None:
        finite_between("distance_m", self.distance_m, 0.02, 20.0, "m")
        finite_between("seconds", self.seconds, 0.1, 600.0, "s")


@dataclass(frozen=True)
class Moving:
    """What moves: mass with the water it drags along [kg], frontal area [m²], water density [kg/m³]."""

    mass_kg: float
    area_m2: float
    rho_kg_m3: float

    def k(self, drag: float) -> float:
        """½ρC_dA [kg/m]."""
        return 0.5 * self.rho_kg_m3 * drag * self.area_m2


@dataclass(frozen=True)
class Timed:
    """What several runs say: a value with its standard deviation over the runs, which runs stand out, the
    mean speed [cm/s].
    """

    value: float
    sd: float
    each: tuple[float, ...]
    odd: tuple[int, ...]
    speed_cm_s: float


def added_mass_kg(design: Design, water_g_cm3: float) -> float:
    """Water that moves along when the body goes up or down broadside [kg]: strips of ρπa², a the half-width.

    Reference: Newman, Marine Hydrodynamics, 1977, table 4.3; strips take too much at the ends of a short
        body.
    """
    body = design.body
    phi, weight = gauss_panels(body.knots(), 0.35, 8)
    half = sections(body, phi)[0]
    dx = weight * body.length_mm * np.sin(phi) / 2
    return float(dx @ (pi * half**2)) * water_g_cm3 * 1e-6


def moving(design: Design, mass_g: float, area_mm2: float) -> Moving:
    """The design as it rises or sinks, from its mass [g] and frontal area [mm²]."""
    rho = design.water.density_g_cm3
    return Moving(mass_g / 1000.0 + added_mass_kg(design, rho), area_mm2 * 1e-6, rho * 1000.0)


def time_s(distance_m: float, force_n: float, k: float, mass_kg: float) -> float:
    """Time from rest [s] for a way [m] under a steady force [N] against a drag k v²."""
    return float(_tau(distance_m * k / mass_kg) * mass_kg / (force_n * k) ** 0.5)


def _tau(stretch: float) -> float:
    """arccosh(e^x), also where e^x is too large."""
    return float(np.arccosh(exp(stretch))) if stretch < 300 else stretch + log(2.0)


def net_from(drop: Drop, body: Moving, drag: float) -> float:
    """Net lift or weight [g] that needs this time for this way, with a known C_d. Closed form."""
    k = body.k(drag)
    tau = _tau(drop.distance_m * k / body.mass_kg)
    return float((tau * body.mass_kg / drop.seconds) ** 2 / k / GRAVITY * 1000.0)


def drag_from(drop: Drop, body: Moving, net_g: float) -> float:
    """C_d that makes it need this time for this way under a weighed net lift [g].

    Raises:
        Refused: it was quicker than with no drag at all, so way, time or net is wrong.
    """
    force = abs(net_g) / 1000.0 * GRAVITY
    require(force > 0, "net_g", net_g, rule("net-lift"))
    free = (2 * drop.distance_m * body.mass_kg / force) ** 0.5
    require(
        drop.seconds > free * 1.001,
        "seconds",
        drop.seconds,
        rule("cannot-quicker", free=free),
    )

    def late(drag: float) -> float:
        return time_s(drop.distance_m, force, body.k(drag), body.mass_kg) - drop.seconds

    low, high = 1e-4, 1.0
    while late(high) < 0 and high < 1e5:
        high *= 4
    require(high < 1e5, "seconds", drop.seconds, rule("shorter-time"))
    return float(brentq(late, low, high, xtol=1e-6))


def together(values: Sequence[float], drops: Sequence[Drop]) -> Timed:
    """Several runs as one: mean and standard deviation without those that stand out (3.5 median
    deviations, from four runs on).
    """
    speeds = np.array(values)
    odd: tuple[int, ...] = ()
    if len(speeds) >= 4:
        off = np.abs(speeds - np.median(speeds))
        typical = max(float(np.median(off)) / 0.6745, 0.02 * abs(float(np.median(speeds))))
        odd = tuple(int(i) for i in np.nonzero(off > 3.5 * typical)[0])
    kept = np.array([v for i, v in enumerate(speeds) if i not in odd])
    speed = float(np.mean([d.distance_m / d.seconds for i, d in enumerate(drops) if i not in odd])) * 100
    return Timed(
        float(kept.mean()),
        float(kept.std(ddof=1)) if len(kept) > 1 else 0.0,
        tuple(float(v) for v in speeds),
        odd,
        speed,
    )
