"""A thing weighed in air and in water: volume, mean density, lift, its mass in any other water."""

from dataclasses import dataclass
from math import hypot, pi

from lamsik.core.errors import Refused, finite_between, require, rule
from lamsik.core.quantities import said
from lamsik.core.water import Water

AIR_G_CM3 = 0.0012
"""Density of air [g/cm³]: a scale in air reads that much less for each ml; it matters below 0.01 g."""


@dataclass(frozen=True)
class InWater:
    """A thing's mass in air and what it weighs under water [g], negative where it floats, in a water;
    one-sigma uncertainties [g].
    """

    air_g: float
    water_g: float
    water: Water
    air_sd_g: float = 0.0
    water_sd_g: float = 0.0

    def __post_init__(self) -> None:
        finite_between("mass_in_air", self.air_g, 0.001, 1e5, "g")
        finite_between("mass_in_water", self.water_g, -1e5, 1e5, "g")
        require(
            self.air_g - self.water_g > 1e-6,
            "mass_in_water",
            self.water_g,
            rule("less-air", air_g=self.air_g),
        )

    @property
    def volume_ml(self) -> float:
        """Volume [ml]: V = (m − w)/ρ (Archimedes)."""
        return (self.air_g - self.water_g) / self.water.density_g_cm3

    @property
    def volume_sd_ml(self) -> float:
        """One-sigma uncertainty of the volume [ml]."""
        return hypot(self.air_sd_g, self.water_sd_g) / self.water.density_g_cm3

    @property
    def density_g_cm3(self) -> float:
        """Mean density [g/cm³]."""
        return self.air_g / self.volume_ml

    @property
    def lift_g(self) -> float:
        """Net lift wholly under water [g]: + rises."""
        return -self.water_g


def with_sinker(both_g: float, sinker_g: float) -> float:
    """What a floater weighs in water [g], negative, from a sinker's mass in water alone and with the
    floater held under by it.
    """
    require(sinker_g > 0, "sinker_in_water", said(sinker_g, "mass"), rule("more-than"))
    require(
        both_g >= 0,
        "both_in_water",
        both_g,
        rule("nothing-sinker"),
    )
    return both_g - sinker_g


def line_ml(diameter_mm: float, length_mm: float) -> float:
    """What an immersed line displaces [ml]: a cylinder; with the line hung and tared in air, its lift is
    missing in the reading.
    """
    finite_between("line diameter", diameter_mm, 0.0, 3.0, "mm")
    finite_between("line_under_water", length_mm, 0.0, 3000.0, "mm")
    return pi * diameter_mm**2 / 4 * length_mm / 1000.0


def without_line(reading_g: float, line_volume_ml: float, water: Water) -> float:
    """A reading in water [g] with the immersed line's lift added back."""
    return reading_g + water.density_g_cm3 * line_volume_ml


def mass_in(thing: InWater, other: Water) -> float:
    """What it weighs in another water [g]: w' = m − V·ρ'."""
    return thing.air_g - thing.volume_ml * other.density_g_cm3


def mass_in_sd(thing: InWater, other: Water) -> float:
    """One-sigma uncertainty of that [g]: the air reading counts 1 − ρ'/ρ, the water reading ρ'/ρ."""
    ratio = other.density_g_cm3 / thing.water.density_g_cm3
    return hypot((1.0 - ratio) * thing.air_sd_g, ratio * thing.water_sd_g)


def by_ratio(density_g_cm3: float, ratio: float) -> Water:
    """A water so many times as dense as another, as makers say of their sea."""
    finite_between("ratio", ratio, 0.95, 1.1)
    value = density_g_cm3 * ratio
    return Water(f"{ratio:g} × as dense", measured_g_cm3=value)


def air_buoyancy_g(thing: InWater) -> float:
    """What the air itself carries of it [g]: mentioned where it can be seen, never corrected silently."""
    return AIR_G_CM3 * thing.volume_ml


def converted_lift(capacity_g: float, own_air_g: float | None, measured: Water, wanted: Water) -> float:
    """A lift or carrying capacity [g] in another water: C' = (C + m)·ρ'/ρ − m.

    Raises:
        Refused: the thing's own mass in air is not known; salt multiplies the water it displaces, not its
            lift.
    """
    if own_air_g is None:
        raise Refused(
            "mass_in_air",
            None,
            rule("weigh-air"),
        )
    finite_between("mass_in_air", own_air_g, 0.0, 1e5, "g")
    return (capacity_g + own_air_g) * wanted.density_g_cm3 / measured.density_g_cm3 - own_air_g
