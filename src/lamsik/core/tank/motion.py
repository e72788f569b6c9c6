"""Rising and sinking: terminal speed from net lift, and back."""

from dataclasses import dataclass

import numpy as np

from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array
from lamsik.core.tank.immersion import coarse_hull
from lamsik.core.trade.behaviours import FLOATS, SINKS, SLOW_RISE, SLOW_SINK, SUSPENDS

GRAVITY = 9.80665
"""Standard gravity [m/s²]."""

DEFAULT_DRAG = 0.9
"""C_d of a slender body moving broadside: a long circular cylinder is 1.2, one five diameters
long 0.74 (Hoerner, Fluid-Dynamic Drag, 1965). An assumption until a timed drop calibrates it."""


@dataclass(frozen=True)
class Bands:
    """Speeds [cm/s] below which a body suspends, and below which it moves slowly."""

    suspends_cm_s: float = 3.0
    slow_cm_s: float = 10.0


def frontal_area_mm2(body: Body, up: Array) -> float:
    """Area [mm²] the body shows to vertical motion at this attitude: ½Σ|Aᵢ·up| over its faces."""
    return float(np.abs(coarse_hull(body).area_vectors @ up).sum()) / 2.0


def speed_cm_s(net_g: float, area_mm2: float, water_g_cm3: float, drag: float = DEFAULT_DRAG) -> float:
    """Terminal speed [cm/s], rising positive: v = sqrt(2|net|g / (ρ C_d A))."""
    force = abs(net_g) / 1000.0 * GRAVITY
    speed = (2.0 * force / (water_g_cm3 * 1000.0 * drag * area_mm2 * 1e-6)) ** 0.5 * 100.0
    return float(np.copysign(speed, net_g))


def net_for_speed_g(speed: float, area_mm2: float, water_g_cm3: float, drag: float = DEFAULT_DRAG) -> float:
    """Net lift [g] that gives a terminal speed [cm/s]; the inverse of `speed_cm_s`."""
    force = 0.5 * water_g_cm3 * 1000.0 * drag * area_mm2 * 1e-6 * (speed / 100.0) ** 2
    return float(np.copysign(force / GRAVITY * 1000.0, speed))


def behaviour(speed: float, bands: Bands = Bands()) -> str:
    """The name of what is watched in the tub at this speed [cm/s]."""
    if abs(speed) < bands.suspends_cm_s:
        return SUSPENDS
    if abs(speed) < bands.slow_cm_s:
        return SLOW_RISE if speed > 0 else SLOW_SINK
    return FLOATS if speed > 0 else SINKS


def window_cm_s(name: str, bands: Bands = Bands()) -> tuple[float, float]:
    """Lowest and highest speed [cm/s] of a behaviour; the outer ones are open."""
    low, high = bands.suspends_cm_s, bands.slow_cm_s
    far = float("inf")
    return {
        FLOATS: (high, far),
        SLOW_RISE: (low, high),
        SUSPENDS: (-low, low),
        SLOW_SINK: (-high, -low),
        SINKS: (-far, -high),
    }[name]
