"""Trial weights of the tub become the inside ballast that does the same.

Outside, metal pulls with w(1 − ρ_w/ρ_m) at its hang point, since it displaces water itself. Sealed inside it
displaces nothing more, but its hole takes out host material. Force and fore-and-aft moment are matched; the
height cannot be, and what that does to BG is said.
"""

from dataclasses import dataclass, replace

import numpy as np

from lamsik.core.errors import require, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.shapes.ballast_holes import BALLS, Hole
from lamsik.core.shapes.body import station
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Point, eye_of
from lamsik.core.shapes.solid import solid
from lamsik.core.shapes.trial import BELLY, TrialWeight
from lamsik.core.tank.attitude import Hanging, immersed
from lamsik.core.tank.ballast import Aim, Answer, drilled, put_on, varied
from lamsik.core.tank.ballast_base import KINDS_OF_BALLAST, Base, Bench, base_of, place_mm, slug_mass_g
from lamsik.core.tank.drilling import net_added_g
from lamsik.core.tank.mass import NOTHING, Budget, Measured
from lamsik.core.tank.stability import bg_mm
from lamsik.core.tank.wanted import Target

FAR_DEG, FAR_G = 10.0, 0.2
"""Further off than this an inside place does not do the same."""


@dataclass(frozen=True)
class TubState:
    """The bait with its trial weights on: how it hangs, what they weigh in air and pull in water [g]."""

    hanging: Hanging
    air_g: float
    pull_g: float


@dataclass(frozen=True)
class Replacement:
    """The inside ballast that does what the trial weights do, the best first; or why there is none."""

    tub: TubState
    answers: tuple[Answer, ...]
    differences: tuple[Finding, ...]
    why: Finding | None = None


def trial_point(design: Design, trial: TrialWeight) -> Point:
    """Where a trial weight acts (x, y, z) [mm]: on the belly, or the eye it is clipped to."""
    if trial.place == BELLY:
        return (trial.x_mm, 0.0, station(design.body, trial.x_mm).bottom_mm)
    placed = next(p for p in design.hardware if p.key == trial.place)
    return eye_of(design.hardware, design.body, placed, design.lip)


def pull_g(trial: TrialWeight, water_g_cm3: float) -> float:
    """What it pulls in water [g]: w(1 − ρ_w/ρ_m)."""
    return trial.mass_g * (1.0 - water_g_cm3 / trial.density_g_cm3)


def in_tub(design: Design, mass: Budget) -> TubState:
    """How the design hangs with its trial weights on."""
    rho = design.water.density_g_cm3
    grams = np.array([t.mass_g for t in design.trials])
    at = np.array([trial_point(design, t) for t in design.trials]).reshape(-1, 3)
    volumes = np.array([t.mass_g / t.density_g_cm3 for t in design.trials])
    total = mass.mass_g + float(grams.sum())
    g = (mass.mass_g * np.array(mass.g_mm) + grams @ at) / total
    loaded = replace(
        mass,
        mass_g=total,
        g_mm=(float(g[0]), float(g[1]), float(g[2])),
        outside_ml=np.concatenate([mass.outside_ml, volumes]),
        outside_mm=np.vstack([mass.outside_mm, at]),
        outside_hangs=np.concatenate([mass.outside_hangs, np.ones(len(volumes))]),
    )
    hanging = immersed(solid(design.body).centroid_mm, loaded, rho)
    return TubState(hanging, float(grams.sum()), sum(pull_g(t, rho) for t in design.trials))


def replacement(design: Design, bench: Bench, measured: Measured = NOTHING, most: int = 4) -> Replacement:
    """The inside ballast that does what the trial weights do, beside the ballast that is in already.

    Raises:
        Refused: no trial weights on, or no slugs or drills at hand.
    """
    require(bool(design.trials), "trials", "none", rule("hang-trial"))
    require(bool(bench.slugs), "slugs", "none", rule("add-ballast"))
    require(bool(bench.drills_mm), "drills", "none", rule("add-drill"))
    base = base_of(design, measured, keep=KINDS_OF_BALLAST)
    tub = in_tub(design, base.mass)
    if abs(tub.hanging.free.roll_deg) > 90:
        return Replacement(tub, (), (), finding("trial-turns-it-over"))
    if tub.air_g <= 0:
        return Replacement(tub, (), (), finding("trial-weighs-nothing"))
    net = tub.hanging.net_g
    aim = Aim(Target(net, net - 0.05, net + 0.05), net, tub.hanging.free.pitch_deg)
    near = [
        a
        for a in drilled(base, aim, bench)
        if a is not None and abs(a.pitch_error_deg) < FAR_DEG and abs(a.net_error_g) < FAR_G
    ]
    answers = varied(sorted(near, key=lambda a: a.miss), most)
    if not answers:
        return Replacement(tub, (), (), _why_none(base, aim, bench))
    return Replacement(tub, answers, _differences(base, tub, answers[0]))


def _differences(base: Base, tub: TubState, answer: Answer) -> tuple[Finding, ...]:
    """Why the inside metal is not what was on the scale, step by step."""
    outside = tub.air_g - tub.pull_g
    wood, filler = answer.removed_g, sum(hole.filler_g for hole in answer.holes)
    bg = _bg_with(base, answer.holes)
    now = bg_mm(tub.hanging)
    return (
        (finding("pushed-aside-outside", air=tub.air_g, pull=tub.pull_g, outside=outside)),
        (finding("costs-inside", wood=wood, filler=filler, mass=answer.mass_g)),
        (finding("rolls-back-livelier" if bg < now else "rolls-back-steadier", bg=bg, now=now)),
    )


def _bg_with(base: Base, holes: tuple[Hole, ...]) -> float:
    return bg_mm(put_on(base, holes))


def _why_none(base: Base, aim: Aim, bench: Bench) -> Finding:
    """No room, or no place inside at all: told by where a small slug would have to sit."""
    slug = min(bench.slugs, key=lambda s: s.diameter_mm)
    drill = min((d for d in bench.drills_mm if d >= slug.diameter_mm), default=slug.diameter_mm)
    total = slug_mass_g(base, aim.net_g, slug, drill, 1, bench)
    length = base.design.body.length_mm
    if total <= 0:
        return finding("trial-adds-nothing")
    if slug.form == BALLS:
        total = max(slug.balls(total), 1) * slug.ball_g
    hole = Hole("b1", slug, total, 0.0, drill, bench.cover_mm, bench.filler_g_cm3)
    if net_added_g(hole, base.host_g_cm3) <= 0:
        return finding("hole-takes-more-than-it-gives", total=total, metal=slug.metal)
    x = place_mm(base, [hole], [0.0], aim.pitch_deg)
    if not 0.05 * length < x < 0.95 * length:
        if x < 0:
            return finding("no-place-ahead-of-nose", total=total, ahead=-x)
        return finding("no-place-behind-tail", total=total, x=x, length=length)
    return finding("no-hole-there", total=total, x=x, wall=bench.wall_mm)
