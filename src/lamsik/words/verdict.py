"""The verdict in one plain sentence."""

from lamsik.core.quantities import said
from lamsik.core.tank.attitude import Attitude
from lamsik.core.tank.verdict import UNBUILT, Verdict
from lamsik.core.trade.behaviours import BEHAVIOURS
from lamsik.words.tell import tell

LEVEL_DEG = 2.0
"""Pitch that a maker still calls level [°]."""


def posture(attitude: Attitude) -> str:
    """How it sits, in words: `level`, `4° nose up`, `12° nose down`, `upside down`, `on its side`."""
    pitch, roll = attitude.pitch_deg, abs(attitude.roll_deg)
    if abs(pitch) > 60:
        return "tail down" if pitch > 0 else "nose down"
    if roll > 150:
        return "upside down"
    if roll > 20:
        return "on its side" if roll > 60 else f"leaning {said(roll, 'angle', 0)}"
    if abs(pitch) <= LEVEL_DEG:
        return "level"
    return f"{said(abs(pitch), 'angle', 0)} nose {'up' if pitch > 0 else 'down'}"


def sentence(verdict: Verdict) -> str:
    """How it hangs or floats, how fast, and the grams to the next behaviour; or what is in its way."""
    if verdict.behaviour == UNBUILT:
        why = "; ".join(map(tell, verdict.cannot))
        return f"It cannot be built as drawn: {why}. How it swims is said once that is put right."
    says = f"{_does(verdict)} in {verdict.water.describe()}"
    if verdict.to_next_g is not None and verdict.next_behaviour is not None:
        would = BEHAVIOURS[verdict.next_behaviour].should
        says += f"; {said(verdict.to_next_g, 'mass')} more and it would {would}"
    return f"{says}."


def _does(verdict: Verdict) -> str:
    name, speed, surface = verdict.behaviour, verdict.speed_cm_s, verdict.surface
    if name == "floats" and surface is not None:
        out = max(surface.freeboard_mm, 0)
        return f"Floats {posture(surface.attitude)} with {said(out, 'length', 0)} above the water"
    hangs = f"Hangs {posture(verdict.free)} and"
    if name == "suspends":
        way = "rising" if speed > 0 else "sinking"
        moves = f", {way} at {said(abs(speed), 'speed', 0)}" if abs(speed) >= 0.5 else ""
        return f"{hangs} suspends{moves}"
    does = BEHAVIOURS[name].does
    return f"{hangs} {does} at {said(abs(speed), 'speed', 0)}"
