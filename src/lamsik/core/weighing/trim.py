"""Trimming a thing to a wanted mass in water: metal on or in, wire by its length, a slug taken down."""

from dataclasses import dataclass
from math import pi

from lamsik.core.errors import Refused, finite_between, require, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.materials import METALS
from lamsik.core.water import Water

OUTSIDE, INSIDE = "outside", "inside"


@dataclass(frozen=True)
class TrimAnswer:
    """Metal to put on (+) or take off (−) [g] for a change of the mass in water, where, and as wire [mm]
    of a diameter if asked.
    """

    metal: str
    where: str
    mass_g: float
    wire_mm: float | None = None


def to_add(
    change_g: float, metal: str, where: str, water: Water, wire_diameter_mm: float | None = None
) -> TrimAnswer:
    """Metal for a change of the mass in water [g].

    Notes: outside it displaces water, Δm = Δw/(1 − ρw/ρm); sealed inside it does not, Δm = Δw.

    Raises:
        Refused: an unknown metal or place, or a metal no denser than the water put outside.
    """
    require(metal in METALS, "metal", metal, rule("one-of", listed=", ".join(METALS)))
    require(where in (OUTSIDE, INSIDE), "where", where, rule("outside-inside"))
    finite_between("change", change_g, -1e4, 1e4, "g")
    sinks = 1.0 - water.density_g_cm3 / METALS[metal]
    mass = change_g / sinks if where == OUTSIDE else change_g
    if wire_diameter_mm is None:
        return TrimAnswer(metal, where, mass)
    finite_between("wire diameter", wire_diameter_mm, 0.1, 10.0, "mm")
    return TrimAnswer(metal, where, mass, mass / METALS[metal] * 1000.0 / (pi * wire_diameter_mm**2 / 4))


def flips_at(air_g: float, volume_ml: float, trim: TrimAnswer | None = None) -> float:
    """The water density [g/cm³] at which it neither floats nor sinks, trimmed if given."""
    mass, volume = air_g, volume_ml
    if trim is not None:
        mass += trim.mass_g
        volume += trim.mass_g / METALS[trim.metal] if trim.where == OUTSIDE else 0.0
    require(volume > 0, "volume", volume, rule("ml"))
    return mass / volume


def cut_mm(mass_g: float, length_mm: float, wanted_g: float) -> float:
    """Length to take off a cylinder of a mass and length [mm] so that the wanted mass is left.

    Raises:
        Refused: more is wanted than there is, or nothing.
    """
    finite_between("slug mass", mass_g, 0.01, 1e4, "g")
    finite_between("slug length", length_mm, 0.1, 1000.0, "mm")
    if not 0 < wanted_g <= mass_g:
        raise Refused(
            "wanted mass",
            wanted_g,
            rule("gone-does", mass_g=mass_g),
        )
    return length_mm * (1.0 - wanted_g / mass_g)


@dataclass(frozen=True)
class NextCut:
    """What to do next with a slug that is no cylinder: take off about so much [g], then weigh again; or
    stop.
    """

    take_off_g: float
    done: bool
    says: Finding


def next_cut(mass_g: float, wanted_g: float, step_g: float) -> NextCut:
    """The weigh-and-repeat loop: three quarters of what is over, never all of it, until the scale cannot
    tell more.
    """
    finite_between("mass", mass_g, 0.0, 1e4, "g")
    finite_between("step", step_g, 1e-4, 100.0, "g")
    over = mass_g - wanted_g
    if over < -step_g / 2:
        return NextCut(0.0, True, finding("slug-too-light", over=-over))
    if over <= step_g:
        return NextCut(0.0, True, finding("slug-is-right"))
    take = 0.75 * over if over > 3 * step_g else over / 2
    return NextCut(take, False, finding("take-off-and-weigh", over=over, take=take))
