"""Light fillers in a resin: the share that gives a wanted density."""

from dataclasses import dataclass

from lamsik.core.errors import finite_between, require, rule

RESIN_G_CM3, MICROSPHERE_G_CM3 = 1.05, 0.15
"""A cast urethane and common hollow microspheres [g/cm³]; a product's own figures replace them."""

HARD_TO_POUR = 0.42
"""Volume share of microspheres above which a mix no longer runs into thin parts (40 to 45 %)."""


CLOSEST_PACKING = 0.62
"""Volume share that spheres shaken together fill: no mix holds more."""


@dataclass(frozen=True)
class Filling:
    """Filler in a resin: share of the mass and of the volume, and the density that gives [g/cm³]."""

    mass_share: float
    volume_share: float
    density_g_cm3: float

    @property
    def stiff(self) -> bool:
        """Whether it is hard to pour."""
        return self.volume_share > HARD_TO_POUR

    @property
    def mixes(self) -> bool:
        """Whether so many spheres go into the resin at all."""
        return self.volume_share <= CLOSEST_PACKING


def filling_for(
    density_g_cm3: float, resin_g_cm3: float = RESIN_G_CM3, filler_g_cm3: float = MICROSPHERE_G_CM3
) -> Filling:
    """The filler share for a cured density [g/cm³].

    Raises:
        Refused: a density outside those of resin and filler.

    Notes: 1/ρ = Σ wᵢ/ρᵢ, volumes add.
    """
    finite_between("resin_g_cm3", resin_g_cm3, 0.5, 3.0, "g/cm³")
    finite_between("filler_g_cm3", filler_g_cm3, 0.02, 20.0, "g/cm³")
    require(
        abs(resin_g_cm3 - filler_g_cm3) > 1e-6,
        "filler_g_cm3",
        filler_g_cm3,
        rule("filler-another"),
    )
    low, high = sorted((resin_g_cm3, filler_g_cm3))
    require(
        low <= density_g_cm3 <= high,
        "density_g_cm3",
        density_g_cm3,
        rule("between-the-two", low=low, high=high),
    )
    share = (1 / density_g_cm3 - 1 / resin_g_cm3) / (1 / filler_g_cm3 - 1 / resin_g_cm3)
    return Filling(share, share * density_g_cm3 / filler_g_cm3, density_g_cm3)
