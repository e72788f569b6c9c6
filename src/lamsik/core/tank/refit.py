"""What to do about a change: the ballast that is in, resized and moved so that the wanted behaviour is met
again.
"""

from dataclasses import dataclass

from lamsik.core.quantities import said
from lamsik.core.shapes.design import Design
from lamsik.core.tank.advice import resize
from lamsik.core.tank.ballast import aim_at, search, with_answer
from lamsik.core.tank.ballast_base import Bench, base_of
from lamsik.core.tank.ballast_why import why_none
from lamsik.core.tank.drilling import troubles
from lamsik.core.tank.evaluate import Outcome
from lamsik.core.tank.inertia import nature
from lamsik.core.tank.sensitivities import has_ballast
from lamsik.core.tank.wanted import drag_of, target

CLOSE_DEG = 3.0


@dataclass(frozen=True)
class Refit:
    """Whether the want is met; the design with other ballast that meets it (None where there is none, or
    no need); in words.
    """

    met: bool
    design: Design | None
    says: str


def refit(outcome: Outcome, bench: Bench) -> Refit:
    """The nearest thing to do: nothing, other grams and places for the slugs that are in, other ballast,
    or why none helps.
    """
    design, rules = outcome.design, outcome.rules
    aim = target(design, outcome.budget, drag_of(design, rules.drag), rules.bands)
    net = outcome.verdict.net_g
    pitch = (
        outcome.surface[0].attitude.pitch_deg
        if aim.wet_lift_g is not None and outcome.surface
        else outcome.hanging.free.pitch_deg
    )
    off, tilt = net - aim.net_g, pitch - design.want.pitch_deg
    also = _also(outcome)
    if aim.holds(net) and abs(tilt) <= CLOSE_DEG:
        return Refit(not also, None, also or "That is what you want of it.")
    wrong = f"{_wrong(0.0 if aim.holds(net) else off, tilt)} {also}".strip()
    resized = _resized(outcome, bench) if design.ballast else None
    if resized is not None:
        return Refit(False, resized, f"{wrong} {_to_do(design, resized)}")
    return _anew(outcome, bench, wrong)


def _also(outcome: Outcome) -> str:
    """What is wrong although net and pitch may be right: it sinks pierced, or rolls otherwise than wanted."""
    design, rolls = outcome.design, outcome.roll.frequency_hz
    if design.want.pierced and outcome.flooded_net_g <= 0:
        return "With its skin pierced it would sink: solid wood or closed foam would not."
    if design.want.roll not in ("any", nature(rolls, outcome.rules.steady_hz)):
        way = "lower" if design.want.roll == "steady" else "higher"
        return (
            f"It rolls back at {said(rolls, 'frequency')}, and you want it {design.want.roll}: carry"
            f" the metal {way}."
        )
    return ""


def _resized(outcome: Outcome, bench: Bench) -> Design | None:
    """The design's own slugs, cut and moved; None where that cannot be built or changes nothing."""
    design, rules = outcome.design, outcome.rules
    base, solve = aim_at(
        design, base_of(design, keep=("pours", "cavities")), rules.drag, rules.bands, rules.steady_hz
    )
    resized = resize(design, base, bench, solve)
    if resized is None or any(troubles(resized, hole, bench.wall_mm) for hole in resized.ballast):
        return None
    same = all(
        abs(a.mass_g - b.mass_g) < 1e-6 and abs(a.x_mm - b.x_mm) < 1e-6
        for a, b in zip(resized.ballast, design.ballast, strict=True)
    )
    return None if same else resized


def _anew(outcome: Outcome, bench: Bench, wrong: str) -> Refit:
    """Other ballast altogether, the best there is; or why there is none."""
    design, rules = outcome.design, outcome.rules
    if not bench.slugs or not bench.drills_mm:
        return Refit(
            False, None, f"{wrong} There is no ballast metal or no drill in Stores to put it right with."
        )
    answers = search(design, bench, drag=rules.drag, bands=rules.bands, steady_hz=rules.steady_hz)
    if not answers:
        return Refit(False, None, f"{wrong} {why_none(design, bench, drag=rules.drag, bands=rules.bands)}")
    best = answers[0]
    instead = "Instead of what is in" if has_ballast(design) else "Put in"
    return Refit(False, with_answer(design, best), f"{wrong} {instead}: {best.says}.")


def _wrong(off_g: float, tilt_deg: float) -> str:
    parts = []
    if abs(off_g) > 1e-9:
        parts.append(f"{said(abs(off_g), 'mass')} too {'light' if off_g > 0 else 'heavy'} for what you want")
    if abs(tilt_deg) > CLOSE_DEG:
        parts.append(f"{said(abs(tilt_deg), 'angle', 0)} too far nose {'up' if tilt_deg > 0 else 'down'}")
    return f"It is {' and '.join(parts)}."


def _to_do(before: Design, after: Design) -> str:
    rows = []
    for was, now in zip(before.ballast, after.ballast, strict=True):
        grams = (
            f"{said(now.mass_g, 'mass', 1)} instead of {said(was.mass_g, 'mass', 1)}"
            if abs(now.mass_g - was.mass_g) > 1e-6
            else f"the {said(now.mass_g, 'mass', 1)}"
        )
        place = (
            f"at {said(now.x_mm, 'length')} instead of {said(was.x_mm, 'length')}"
            if abs(now.x_mm - was.x_mm) > 1e-6
            else f"at {said(now.x_mm, 'length')}"
        )
        rows.append(f"{grams} {place}")
    return f"Make it {'; '.join(rows)}."
