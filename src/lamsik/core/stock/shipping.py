"""What the way of a parcel costs, by its zone and what it weighs, from the shop's own table of rates."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.core.errors import finite_between, require, rule

HEAVIEST_G = 100_000.0


@dataclass(frozen=True)
class Rate:
    """To a zone, up to a weight [g], for a sum in minor units."""

    zone: str
    up_to_g: float
    minor: int

    def __post_init__(self) -> None:
        require(bool(self.zone), "zone", "", rule("a-zone"))
        finite_between("up to", self.up_to_g, 1.0, HEAVIEST_G, "g")
        require(self.minor >= 0, "sum", self.minor, rule("a-sum"))


def zones(rates: Sequence[Rate]) -> list[str]:
    """The zones of a table, each once, in its order."""
    return list(dict.fromkeys(one.zone for one in rates))


def rate_for(rates: Sequence[Rate], zone: str, mass_g: float) -> Rate:
    """The lightest rate of a zone that holds a mass [g]. Raises `Refused` for a zone that is not in the
    table, and for what is heavier than any rate of it.
    """
    of_zone = sorted((one for one in rates if one.zone == zone), key=lambda one: one.up_to_g)
    require(bool(of_zone), "zone", zone, rule("one-of", listed=", ".join(zones(rates))))
    most = of_zone[-1].up_to_g
    require(mass_g <= most, "weight", "", rule("heaviest-rate", zone=zone, most=most, mass=mass_g))
    return next(one for one in of_zone if one.up_to_g >= mass_g)
