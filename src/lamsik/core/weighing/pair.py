"""A load and the float that shall carry it: the margin in each water, and whether the scale can tell it."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import hypot

from lamsik.core.errors import Refused, require, rule
from lamsik.core.findings import Finding, Known, finding
from lamsik.core.water import Water
from lamsik.core.weighing.instrument import can_tell
from lamsik.core.weighing.inwater import InWater, converted_lift, mass_in, mass_in_sd


@dataclass(frozen=True)
class Bearer:
    """A float to a mark: what it carries [g] in a water, its own mass in air [g], one-sigma of the
    capacity [g].
    """

    name: str
    capacity_g: float
    water: Water
    own_air_g: float | None
    sd_g: float = 0.0
    mark: str = ""


@dataclass(frozen=True)
class Margin:
    """What is left of a float's capacity under a load [g], its one-sigma [g], whether that can be told, in
    words.
    """

    water: Water
    margin_g: float
    sd_g: float
    certain: bool
    says: Finding


@dataclass(frozen=True)
class Turn:
    """The water at which a float no longer goes under with a load: its density [g/cm³] with its one-sigma,
    and as a ratio to the water of the weighing.
    """

    density_g_cm3: float
    sd_g_cm3: float
    ratio: float

    @property
    def met_in(self) -> str:
        """Which water carries the load: `no`, `any`, or `some` where the turn lies among real waters."""
        lightest, densest = REAL_WATERS_G_CM3
        return "no" if self.density_g_cm3 > densest else "any" if self.density_g_cm3 < lightest else "some"


REAL_WATERS_G_CM3 = 0.958, 1.24
"""Fresh water at the boil, and the saltiest lake there is: beyond these a turn is no water to look for."""


def turns_at(bearer: Bearer, load: InWater) -> Turn:
    """Where the verdict on a pair turns; in denser water the float carries the load.

    Raises:
        Refused: the float's own mass in air is not known.

    Notes: the pair neither rises nor sinks where its mass is its displacement: ρ* = (m_F + m_L)/((C + m_F)/ρ₀
        + V_L).
    """
    if bearer.own_air_g is None:
        raise Refused(
            "mass_in_air",
            None,
            rule("weigh-float"),
        )
    volume = (bearer.capacity_g + bearer.own_air_g) / bearer.water.density_g_cm3 + load.volume_ml
    density = (bearer.own_air_g + load.air_g) / volume
    spread = hypot(bearer.sd_g / bearer.water.density_g_cm3, load.volume_sd_ml) * density / volume
    return Turn(density, hypot(spread, load.air_sd_g / volume), density / bearer.water.density_g_cm3)


def margins(bearer: Bearer, load: InWater, waters: Sequence[Water]) -> tuple[Margin, ...]:
    """The margin in each water: the float's capacity there less what the load weighs there. Raises
    `Refused` without the float's mass in air.
    """
    require(bool(waters), "waters", 0, rule("name-water"))
    return tuple(_margin(bearer, load, water) for water in waters)


def _margin(bearer: Bearer, load: InWater, water: Water) -> Margin:
    same = abs(water.density_g_cm3 - bearer.water.density_g_cm3) < 1e-9
    carries = (
        bearer.capacity_g
        if same
        else converted_lift(bearer.capacity_g, bearer.own_air_g, bearer.water, water)
    )
    ratio = water.density_g_cm3 / bearer.water.density_g_cm3
    volume = (carries + (bearer.own_air_g or 0.0)) / water.density_g_cm3 + load.volume_ml
    margin, sd = (
        carries - mass_in(load, water),
        hypot(ratio * bearer.sd_g, mass_in_sd(load, water), 0.0 if same else volume * water.spread_g_cm3),
    )
    certain = can_tell(margin, sd)
    if not certain:
        says = finding("too-near-to-tell", margin=Known(margin, sd), sd=Known(2 * sd, sd))
    elif margin > 0:
        says = finding("carries-with-spare", margin=Known(margin, sd))
    else:
        says = finding("goes-under", margin=Known(-margin, sd))
    return Margin(water, margin, sd, certain, says)
