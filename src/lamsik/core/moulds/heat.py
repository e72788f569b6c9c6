"""Heat, shrinkage, head, level: what the material poured asks of the mould."""

from dataclasses import dataclass
from math import radians, tan

from lamsik.core.errors import finite_between

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
"""What mould materials stand for the minutes of a pour [°C], to start from; the product's own sheet beats them."""

NEAR_C = 15.0


@dataclass(frozen=True)
class Heat:
    """Casting against mould: whether it stands it, in words."""

    stands: bool
    says: str


def heat(material: str, limit_c: float, casting_c: float) -> Heat:
    """A casting temperature [°C] against a mould's limit [°C]."""
    finite_between("casting_c", casting_c, -20.0, 1200.0, "°C")
    both = f"{casting_c:.0f} °C ({casting_c * 9 / 5 + 32:.0f} °F)"
    if casting_c > limit_c:
        return Heat(False, f"{material} stands {limit_c:.0f} °C and softens or burns at {both}: use another mould for it")
    if casting_c > limit_c - NEAR_C:
        return Heat(True, f"{both} is close to the {limit_c:.0f} °C that {material} stands: let it cool between pours")
    return Heat(True, f"{material} stands {limit_c:.0f} °C; it is poured at {both}")


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
    """How much thicker one end of an open pour gets over this length [mm] when the bench is off level by so much [°]: L·tan α."""
    return long_mm * tan(radians(finite_between("level_deg", off_deg, 0.0, 20.0, "°")))
