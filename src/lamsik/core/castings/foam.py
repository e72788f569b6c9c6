"""Expanding foam: the charge for a density, its range where the expansion is uncertain, fill mark,
overpack, overflow, lid.
"""

from dataclasses import dataclass

from lamsik.core.errors import Refused, finite_between, require, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.quantities import plainly

LID_FROM = 1.02
"""Overpack from which a lid has to hold it."""
WARMTH = 0.02
"""Free rise grows by about this share for each degree warmer: a rule of thumb."""


@dataclass(frozen=True)
class FreeRise:
    """A free-rise test of one's own: grams poured, what it rose to [ml], temperature [°C]."""

    poured_g: float
    risen_ml: float
    at_c: float = 20.0

    def __post_init__(self) -> None:
        finite_between("poured_g", self.poured_g, 0.1, 5000.0, "g")
        finite_between("risen_ml", self.risen_ml, 0.1, 100_000.0, "ml")
        require(
            self.risen_ml > self.poured_g / 3.0,
            "risen_ml",
            plainly(self.risen_ml, "volume"),
            rule("less-liquid"),
        )

    @property
    def density_g_cm3(self) -> float:
        """Free-rise density [g/cm³]."""
        return self.poured_g / self.risen_ml

    def ratio(self, liquid_g_cm3: float) -> float:
        """Expansion ratio: risen over liquid volume."""
        return liquid_g_cm3 / self.density_g_cm3


def density_of_ratio(ratio: float, liquid_g_cm3: float) -> float:
    """Density of a foam that expands so many times [g/cm³]. Raises `Refused` for a ratio below 1."""
    finite_between("ratio", ratio, 1.0, 80.0, "times")
    return liquid_g_cm3 / ratio


def at_warmth(free_rise_g_cm3: float, reference_c: float, at_c: float) -> float:
    """Free-rise density at another temperature [g/cm³]: warmer rises more; a rule of thumb."""
    finite_between("temperature", at_c, -5.0, 50.0, "°C")
    finite_between("reference_c", reference_c, -20.0, 250.0, "°C")
    return float(free_rise_g_cm3 / (1.0 + WARMTH) ** (at_c - reference_c))


@dataclass(frozen=True)
class Charge:
    """A foam charge: grams, with the range where the foam's free rise is uncertain; liquid [ml]; overpack;
    what an open mould loses [ml].
    """

    grams: float
    low_g: float
    high_g: float
    liquid_ml: float
    overpack: float
    overflow_ml: float
    target_g_cm3: float
    free_rise_g_cm3: float

    @property
    def lid(self) -> bool:
        """Whether a lid has to hold it."""
        return self.overpack > LID_FROM

    @property
    def says(self) -> Finding:
        """In one sentence."""
        if self.overpack < 0.98:
            return finding("charge-too-little", target=self.target_g_cm3)
        if self.lid:
            return finding("charge-packed", overpack=self.overpack, overflow=self.overflow_ml)
        return finding("rises-to-the-rim")


def charge(
    net_ml: float, target_g_cm3: float, free_rise_g_cm3: float, liquid_g_cm3: float, spread: float = 0.0
) -> Charge:
    """The charge that fills a cavity [ml] at a density [g/cm³].

    Args:
        net_ml: cavity less inserts [ml].
        target_g_cm3: wanted density.
        free_rise_g_cm3: what the foam comes to when it rises freely.
        liquid_g_cm3: of the mixed liquid.
        spread: how far the free rise may be off [share]; gives the range of charge that fills the cavity for
            certain.

    Raises:
        Refused: a target below the free rise, which no closing can reach, or at or above the liquid.

    Notes: m = ρV; overpack = ρ_target/ρ_free; the range covers the charge just filling an open cavity with
        the lightest and densest rise; in a mould that is closed and packed there is none.
    """
    finite_between("net_ml", net_ml, 0.01, 50_000.0, "ml")
    finite_between("spread", spread, 0.0, 0.5)
    require(
        free_rise_g_cm3 < liquid_g_cm3,
        "free_rise_g_cm3",
        plainly(free_rise_g_cm3, "density"),
        rule("foam-lighter", liquid_g_cm3=liquid_g_cm3),
    )
    if target_g_cm3 >= liquid_g_cm3:
        raise Refused(
            "target_g_cm3",
            plainly(target_g_cm3, "density"),
            rule("foam-lighter-liquid", liquid_g_cm3=liquid_g_cm3),
        )
    if target_g_cm3 < free_rise_g_cm3 * (1 - spread) - 1e-12:
        raise Refused(
            "target_g_cm3",
            plainly(target_g_cm3, "density"),
            rule("foam-cannot", free_rise_g_cm3=free_rise_g_cm3),
        )
    grams = net_ml * target_g_cm3
    least = net_ml * free_rise_g_cm3
    over = target_g_cm3 / free_rise_g_cm3
    low, high = max(grams * (1 - spread), least * (1 - spread)), grams * (1 + spread)
    if (
        over > LID_FROM
    ):  # closed and packed it is density times volume, whatever the foam would do in the open
        low = high = grams
    return Charge(
        grams,
        low,
        high,
        grams / liquid_g_cm3,
        over,
        max(grams / free_rise_g_cm3 - net_ml, 0.0),
        target_g_cm3,
        free_rise_g_cm3,
    )
