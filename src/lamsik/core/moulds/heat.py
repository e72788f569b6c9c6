"""Heat, shrinkage, head, level: what the material poured asks of the mould."""

from collections.abc import Mapping
from dataclasses import dataclass
from math import radians, tan

from lamsik.core.errors import finite_between
from lamsik.core.findings import Finding, finding

LIMITS_C: dict[str, float] = {
    "silicone, condensation": 180.0,
    "silicone, addition": 220.0,
    "filled resin": 90.0,
    "printed resin": 60.0,
    "printed PLA": 50.0,
    "printed PETG": 70.0,
    "printed ABS": 90.0,
    "plaster, dried": 250.0,
    "aluminium": 400.0,
}
"""What mould materials stand for the minutes of a pour [°C], to start from; the product's own sheet beats
them.
"""

MARGIN_C = 5.0
"""How far under its mould's limit a melt stays [°C], to begin with; the shop's own figure replaces it."""

NEAR_C = 15.0


@dataclass(frozen=True)
class Heat:
    """Casting against mould: whether it may be poured without an answer, how far it is over what is safe
    [°C], in words.
    """

    stands: bool
    over_c: float | None
    says: Finding


def heat(material: str, limit_c: float | None, casting_c: float, margin_c: float = MARGIN_C) -> Heat:
    """A casting temperature against a mould's limit less the shop's margin [°C]; a limit nobody has given
    is asked for.
    """
    finite_between("casting_c", casting_c, -20.0, 1200.0, "°C")
    finite_between("margin_c", margin_c, 0.0, 100.0, "°C")
    if limit_c is None:
        return Heat(
            False,
            None,
            finding("heat-unknown", material=material, casting=casting_c),
        )
    over = casting_c - (limit_c - margin_c)
    if over > 0:
        return Heat(
            False,
            over,
            finding(
                "heat-over", casting=casting_c, over=over, material=material, limit=limit_c, margin=margin_c
            ),
        )
    if casting_c > limit_c - NEAR_C:
        return Heat(
            True,
            over,
            finding("heat-close", casting=casting_c, limit=limit_c, material=material),
        )
    return Heat(True, over, finding("heat-stands", material=material, limit=limit_c, casting=casting_c))


def limits(kept: Mapping[str, float]) -> dict[str, float]:
    """The table of limits [°C] with the shop's own in place of those to begin with. Raises `Refused` for
    one that cannot be.
    """
    return LIMITS_C | {name: finite_between(name, value, 20.0, 1200.0, "°C") for name, value in kept.items()}


def limit_of(material: str, own_c: float | None, table: Mapping[str, float]) -> float | None:
    """What a mould's material stands [°C]: its product's own sheet, else the table's row of that name;
    None where neither says.
    """
    if own_c is not None:
        return own_c
    return next(
        (value for name, value in table.items() if name.casefold() == material.strip().casefold()), None
    )


@dataclass(frozen=True)
class Shrunk:
    """Shrinkage: what it takes from the cavity [ml], what the funnel feeds [ml]."""

    shrinks_ml: float
    feeds_ml: float

    @property
    def short_ml(self) -> float:
        """What the funnel is too small by [ml]."""
        return max(self.shrinks_ml - self.feeds_ml, 0.0)


def shrinkage(cavity_ml: float, linear_percent: float, feed_ml: float) -> Shrunk:
    """What a casting shrinks by while it sets, against the funnel that feeds it: V(1 − (1 − s)³)."""
    s = finite_between("shrink_percent", linear_percent, 0.0, 20.0, "%") / 100.0
    return Shrunk(cavity_ml * (1 - (1 - s) ** 3), feed_ml)


def level_error_mm(long_mm: float, off_deg: float) -> float:
    """How much thicker one end of an open pour gets over this length [mm] when the bench is off level by
    so much [°]: L·tan α.
    """
    return long_mm * tan(radians(finite_between("level_deg", off_deg, 0.0, 20.0, "°")))
