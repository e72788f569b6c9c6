"""What to do about a change: the ballast that is in, resized and moved so that the wanted behaviour is met
again.
"""

from dataclasses import dataclass

from lamsik.core.findings import Finding, finding
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
    says: Finding


def refit(outcome: Outcome, bench: Bench) -> Refit:
    """The nearest thing to do: nothing, other grams and places for the slugs that are in, other ballast,
    or why none helps.
    """
    design, rules = outcome.design, outcome.rules
    aim = target(design, outcome.budget, drag_of(design, rules.drag), rules.bands)
    net = outcome.verdict.net_g
    afloat = aim.wet_lift_g is not None and bool(outcome.surface)
    lying = outcome.surface[0].attitude if afloat else outcome.hanging.free
    pitch = lying.pitch_deg
    off, tilt = net - aim.net_g, pitch - design.want.pitch_deg
    also = _also(outcome)
    if aim.holds(net) and abs(tilt) <= CLOSE_DEG:
        return Refit(not also, None, also or finding("as-wanted"))
    wrong = finding(
        "one-after-another",
        rows=(_wrong(0.0 if aim.holds(net) else off, tilt, bool(outcome.surface) and not afloat), also),
    )
    resized = _resized(outcome, bench) if design.ballast else None
    if resized is not None:
        return Refit(False, resized, finding("one-after-another", rows=(wrong, _to_do(design, resized))))
    return _anew(outcome, bench, wrong)


def _also(outcome: Outcome) -> Finding | None:
    """What is wrong although net and pitch may be right: it sinks pierced, or rolls otherwise than wanted."""
    design, rolls = outcome.design, outcome.roll.frequency_hz
    if design.want.pierced and outcome.flooded_net_g <= 0:
        return finding("sinks-pierced")
    if design.want.roll not in ("any", nature(rolls, outcome.rules.steady_hz)):
        name = "carry-metal-lower" if design.want.roll == "steady" else "carry-metal-higher"
        return finding(name, rolls=rolls, want=design.want.roll)
    return None


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


def _anew(outcome: Outcome, bench: Bench, wrong: Finding) -> Refit:
    """Other ballast altogether, the best there is; or why there is none."""
    design, rules = outcome.design, outcome.rules
    if not bench.slugs or not bench.drills_mm:
        return Refit(False, None, finding("nothing-in-stores", wrong=wrong))
    answers = search(design, bench, drag=rules.drag, bands=rules.bands, steady_hz=rules.steady_hz)
    if not answers:
        why = why_none(design, bench, drag=rules.drag, bands=rules.bands)
        return Refit(False, None, finding("one-after-another", rows=(wrong, why)))
    best = answers[0]
    name = "instead-put-in" if has_ballast(design) else "put-in"
    return Refit(False, with_answer(design, best), finding(name, wrong=wrong, answer=best.says))


def _wrong(off_g: float, tilt_deg: float, under: bool) -> Finding | None:
    """What is wrong; `under` of a floater: its tilt is that of hanging under water, not the one afloat."""
    parts = []
    if abs(off_g) > 1e-9:
        parts.append(finding("too-light" if off_g > 0 else "too-heavy", off=abs(off_g)))
    if abs(tilt_deg) > CLOSE_DEG:
        tilt = finding("too-nose-up" if tilt_deg > 0 else "too-nose-down", tilt=abs(tilt_deg))
        parts.append(finding("hanging-under-water", tilt=tilt) if under else tilt)
    return finding("it-is", parts=tuple(parts)) if parts else None


def _to_do(before: Design, after: Design) -> Finding:
    rows = []
    for was, now in zip(before.ballast, after.ballast, strict=True):
        cut, moved = abs(now.mass_g - was.mass_g) > 1e-6, abs(now.x_mm - was.x_mm) > 1e-6
        grams = finding("grams-instead" if cut else "the-grams", now=now.mass_g, was=was.mass_g)
        place = finding("place-instead" if moved else "the-place", now=now.x_mm, was=was.x_mm)
        rows.append(finding("grams-at-place", grams=grams, place=place))
    return finding("make-it", rows=tuple(rows))
