"""Fillers and pigment in a batch: microspheres or metal powder by a target density, scoops by bulk
density, drops or percent.
"""

from dataclasses import dataclass

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.mixes.filler import Filling, filling_for
from lamsik.core.mixes.product import Product, mass_shares
from lamsik.core.quantities import plainly

DROP_G = 0.03
"""A drop of liquid pigment [g]; weigh twenty of yours."""


@dataclass(frozen=True)
class Filler:
    """A filler: true density of its grains and bulk density of a scoop of it, both [g/cm³]."""

    name: str
    true_g_cm3: float
    bulk_g_cm3: float
    caution: str = ""

    def __post_init__(self) -> None:
        finite_between("true_g_cm3", self.true_g_cm3, 0.02, 20.0, "g/cm³")
        finite_between("bulk_g_cm3", self.bulk_g_cm3, 0.01, 20.0, "g/cm³")
        require(
            self.bulk_g_cm3 <= self.true_g_cm3,
            "bulk_g_cm3",
            plainly(self.bulk_g_cm3, "density"),
            rule("heap-holds", true_g_cm3=self.true_g_cm3),
        )


FILLERS = {
    row.name: row
    for row in (
        Filler("hollow microspheres", 0.15, 0.09, "sphere_dust"),
        Filler("brass powder", 8.5, 3.4, "metal_dust"),
        Filler("aluminium powder", 2.7, 1.1, "metal_dust"),
        Filler("stone powder", 2.7, 1.3, "sphere_dust"),
    )
}
"""Fillers to start from; a maker's own data sheet beats them."""


@dataclass(frozen=True)
class Filled:
    """A filled batch: filler [g], resin [g], the filling, and the filler's share to each part [g] so that
    both run alike.
    """

    filler_g: float
    resin_g: float
    filling: Filling
    into: tuple[tuple[str, float], ...]

    def scoops(self, filler: Filler, scoop_ml: float) -> float:
        """How many level scoops that is: by bulk density, never by the grains' own."""
        return self.filler_g / filler.bulk_g_cm3 / finite_between("scoop_ml", scoop_ml, 0.1, 5000.0, "ml")


def filled(product: Product, total_ml: float, density_g_cm3: float, filler: Filler) -> Filled:
    """A batch of `total_ml` at a target cured density [g/cm³].

    Raises:
        Refused: a density beyond resin and filler, or more spheres than pack into the resin.

    Notes: 1/ρ = Σ wᵢ/ρᵢ; the filler goes into the parts by their volume, so that their viscosity matches.
    """
    filling = filling_for(density_g_cm3, product.density_g_cm3, filler.true_g_cm3)
    require(
        filling.mixes,
        "density_g_cm3",
        plainly(density_g_cm3, "density"),
        rule("filler-volume", value=100 * filling.volume_share),
    )
    mass = total_ml * density_g_cm3
    filler_g = mass * filling.mass_share
    volumes = [
        share / part.density_g_cm3 for share, part in zip(mass_shares(product), product.parts, strict=True)
    ]
    into = tuple(
        (part.name, filler_g * v / sum(volumes)) for part, v in zip(product.parts, volumes, strict=True)
    )
    return Filled(filler_g, mass - filler_g, filling, into)


def pigment_g(
    total_g: float, percent: float | None = None, drops: float | None = None, drop_g: float = DROP_G
) -> float:
    """Pigment [g] for a batch: by percent of its mass, or by drops. Raises `Refused` unless just one is
    given.
    """
    require((percent is None) != (drops is None), "pigment", (percent, drops), rule("give-percentage"))
    if percent is not None:
        return total_g * finite_between("pigment", percent, 0.0, 20.0, "%") / 100.0
    return finite_between("pigment", drops, 0.0, 5000.0, "drops") * drop_g
