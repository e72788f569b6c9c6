"""The verdict: how it behaves, and the grams to the next behaviour. Its sentence is said by `words`."""

from dataclasses import dataclass, replace

from lamsik.core.findings import Finding
from lamsik.core.tank.attitude import Attitude
from lamsik.core.tank.floating import Floating
from lamsik.core.tank.motion import Bands, behaviour, net_for_speed_g, speed_cm_s, window_cm_s
from lamsik.core.trade.behaviours import BEHAVIOURS
from lamsik.core.water import Water


@dataclass(frozen=True)
class Verdict:
    """Net lift [g] and share of mass, speed [cm/s], behaviour with its band in net grams; how it hangs wholly
    under, how it floats if it does, in which water; and of what cannot be built what is in the way.
    """

    net_g: float
    net_share: float
    speed_cm_s: float
    behaviour: str
    band_low_g: float | None
    band_high_g: float | None
    to_next_g: float | None
    next_behaviour: str | None
    free: Attitude
    surface: Floating | None
    water: Water
    cannot: tuple[Finding, ...] = ()

    @property
    def band_g(self) -> float | None:
        """Width of the behaviour's band [g]; None where it is open to one side."""
        if self.band_low_g is None or self.band_high_g is None:
            return None
        return self.band_high_g - self.band_low_g


@dataclass(frozen=True)
class Front:
    """What meets the water as it rises or sinks: frontal area [mm²], and the drag coefficient of it."""

    area_mm2: float
    drag: float


def verdict(
    net_g: float,
    mass_g: float,
    front: Front,
    water: Water,
    free: Attitude,
    surface: Floating | None,
    bands: Bands,
) -> Verdict:
    """The verdict on a design of this net lift and mass [g] in a water."""
    rho, area_mm2, drag = water.density_g_cm3, front.area_mm2, front.drag
    speed = speed_cm_s(net_g, area_mm2, rho, drag)
    name = behaviour(speed, bands)
    low, high = window_cm_s(name, bands)
    low_g = None if low == -float("inf") else net_for_speed_g(low, area_mm2, rho, drag)
    high_g = None if high == float("inf") else net_for_speed_g(high, area_mm2, rho, drag)
    to_next, following = _heavier(name, net_g, low_g)
    share = net_g / mass_g if mass_g else 0.0
    return Verdict(net_g, share, speed, name, low_g, high_g, to_next, following, free, surface, water)


UNBUILT = "cannot be built"


def no_verdict(computed: Verdict, cannot: tuple[Finding, ...]) -> Verdict:
    """The verdict on what cannot be built as drawn: what is in the way, and no behaviour."""
    return replace(
        computed,
        behaviour=UNBUILT,
        band_low_g=None,
        band_high_g=None,
        to_next_g=None,
        next_behaviour=None,
        cannot=cannot,
    )


def _heavier(name: str, net_g: float, low_g: float | None) -> tuple[float | None, str | None]:
    """How many grams more bring the next heavier behaviour."""
    names = list(BEHAVIOURS)
    at = names.index(name)
    if low_g is None or at + 1 >= len(names):
        return None, None
    return net_g - low_g, names[at + 1]
