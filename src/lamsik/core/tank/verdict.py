"""The verdict: one plain sentence, and the grams to the next behaviour."""

from dataclasses import dataclass, replace

from lamsik.core.tank.attitude import Attitude
from lamsik.core.tank.floating import Floating
from lamsik.core.tank.motion import BEHAVIOURS, Bands, behaviour, net_for_speed_g, speed_cm_s, window_cm_s
from lamsik.core.water import Water

LEVEL_DEG = 2.0
"""Pitch that a maker still calls level [°]."""

_MOVES = {
    "floats": "floats",
    "slow rise": "rises slowly",
    "suspends": "suspends",
    "slow sink": "sinks slowly",
    "sinks": "sinks",
}


@dataclass(frozen=True)
class Verdict:
    """Net lift [g] and share of mass, speed [cm/s], behaviour with its band in net grams, in words."""

    net_g: float
    net_share: float
    speed_cm_s: float
    behaviour: str
    band_low_g: float | None
    band_high_g: float | None
    to_next_g: float | None
    next_behaviour: str | None
    sentence: str

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
    sentence = _sentence(name, speed, free, surface, water, to_next, following)
    return Verdict(
        net_g, net_g / mass_g if mass_g else 0.0, speed, name, low_g, high_g, to_next, following, sentence
    )


UNBUILT = "cannot be built"


def no_verdict(found: Verdict, cannot: tuple[str, ...]) -> Verdict:
    """The verdict on what cannot be built as drawn: what is in the way, and no behaviour."""
    sentence = (
        f"It cannot be built as drawn: {'; '.join(cannot)}. How it swims is said once that is put right."
    )
    return replace(
        found,
        behaviour=UNBUILT,
        band_low_g=None,
        band_high_g=None,
        to_next_g=None,
        next_behaviour=None,
        sentence=sentence,
    )


def _heavier(name: str, net_g: float, low_g: float | None) -> tuple[float | None, str | None]:
    """How many grams more bring the next heavier behaviour."""
    at = BEHAVIOURS.index(name)
    if low_g is None or at + 1 >= len(BEHAVIOURS):
        return None, None
    return net_g - low_g, BEHAVIOURS[at + 1]


def posture(attitude: Attitude) -> str:
    """How it sits, in words: `level`, `4° nose up`, `12° nose down`, `upside down`, `on its side`."""
    pitch, roll = attitude.pitch_deg, abs(attitude.roll_deg)
    if abs(pitch) > 60:
        return "tail down" if pitch > 0 else "nose down"
    if roll > 150:
        return "upside down"
    if roll > 20:
        return "on its side" if roll > 60 else f"leaning {roll:.0f}°"
    if abs(pitch) <= LEVEL_DEG:
        return "level"
    return f"{abs(pitch):.0f}° nose {'up' if pitch > 0 else 'down'}"


def _sentence(
    name: str,
    speed: float,
    free: Attitude,
    surface: Floating | None,
    water: Water,
    to_next: float | None,
    following: str | None,
) -> str:
    at = f"in {water.describe()}"
    if name == "floats" and surface is not None:
        says = (
            f"Floats {posture(surface.attitude)} with {max(surface.freeboard_mm, 0):.0f} mm above the water"
            f" {at}"
        )
    elif name == "suspends":
        drift = (
            "" if abs(speed) < 0.5 else f", {'rising' if speed > 0 else 'sinking'} at {abs(speed):.0f} cm/s"
        )
        says = f"Hangs {posture(free)} and suspends{drift} {at}"
    else:
        says = f"Hangs {posture(free)} and {_MOVES[name]} at {abs(speed):.0f} cm/s {at}"
    if to_next is not None and following is not None:
        says += f"; {to_next:.2f} g more and it {_would(following)}"
    return says + "."


def _would(name: str) -> str:
    return {
        "slow rise": "would rise slowly",
        "suspends": "would suspend",
        "slow sink": "would sink slowly",
        "sinks": "would sink",
    }[name]
