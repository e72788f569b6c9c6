"""What a weighing changes: the ballast that now gives the wanted behaviour, against the planned one."""

from dataclasses import dataclass, replace

import numpy as np

from lamsik.core.findings import Finding, Known, finding
from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.design import Design
from lamsik.core.tank.ballast import Aim, aim_at, judged
from lamsik.core.tank.ballast_base import Base, Bench, base_of, place_mm
from lamsik.core.tank.ballast_tool import Counts, Tool
from lamsik.core.tank.inertia import STEADY_HZ
from lamsik.core.tank.mass import Budget, Measured, budget
from lamsik.core.tank.motion import DEFAULT_DRAG, Bands
from lamsik.core.tank.wanted import drag_of, target


@dataclass(frozen=True)
class Advice:
    """Ballast advice: the resized design (None when the ballast is in, or none fits) and in words."""

    design: Design | None
    says: Finding


def advise(design: Design, measured: Measured, bench: Bench, drag: float = DEFAULT_DRAG) -> Advice:
    """The ballast for the piece as weighed, keeping the planned slugs, drills and spacing."""
    if not measured.stages and not measured.parts:
        return Advice(None, finding("nothing-weighed-yet", blank=design.host.blank))
    ballasted = any(name in ("ballasted", "cleared", "rigged") for name, _, _ in measured.stages)
    if ballasted or not design.ballast:
        return Advice(None, _trim(design, measured, drag))
    base, aim = aim_at(
        design, base_of(design, measured, keep=("pours", "cavities")), drag, Bands(), STEADY_HZ
    )
    resized = resize(design, base, bench, aim)
    cause = host_surprise(design, budget(design, measured))
    was = sum(hole.mass_g for hole in design.ballast)
    if resized is None:
        spare = base.lift_g - base.mass.mass_g - aim.net_g
        return Advice(
            None,
            finding("blank-too-heavy", cause=cause, over=-spare),
        )
    now = sum(hole.mass_g for hole in resized.ballast)
    if abs(now - was) < bench.slug_step_g / 2:
        return Advice(None, finding("planned-still-fits", cause=cause, was=was))
    if len(resized.ballast) == 1:
        first = resized.ballast[0]
        return Advice(
            resized,
            finding(
                "use-one-slug",
                cause=cause,
                now=now,
                was=was,
                drill=first.drill_mm,
                deep=first.depth_mm,
                x=first.x_mm,
            ),
        )
    places = tuple(
        finding("slug-at", mass=hole.mass_g, x=hole.x_mm, drill=hole.drill_mm, deep=hole.depth_mm)
        for hole in resized.ballast
    )
    return Advice(
        resized, finding("use-slugs", cause=cause, count=len(places), now=now, was=was, places=places)
    )


def host_surprise(design: Design, weighed: Budget) -> Finding:
    """The blank against its assumption: `Blank 1.3 g heavier than basswood at 0.42`."""
    assumed = next(p.mass_g for p in budget(design).parts if p.key == "host")
    actual = next(p.mass_g for p in weighed.parts if p.key == "host")
    delta = actual - assumed
    name = "blank-as-assumed" if abs(delta) < 0.05 else "blank-heavier" if delta > 0 else "blank-lighter"
    return finding(name, off=abs(delta), material=design.host.name, density=design.host.density_g_cm3)


def resize(design: Design, base: Base, bench: Bench, aim: Aim) -> Design | None:
    """The design with its slugs' masses and places solved anew for an aim; None if they would have to be
    negative.

    Holes keep their spacing, their stock and their shares of the ballast; balls stay whole. Of the steps next
    to the solution that comes nearest which is judged best: a slug is cut by tenths, and a body may turn by
    degrees for half a millimetre.
    """
    steps = _steps(design, base, bench, aim)
    if steps is None:
        return None
    tools = [_tool(base, bench, hole) for hole in design.ballast]
    finest = min(tool.step_g for tool in tools)
    fine = np.array([tool.step_g < finest * 1.5 for tool in tools])
    tried = [
        _placed(
            design,
            base,
            bench,
            [float(n * tool.step_g) for n, tool in zip(steps + more * fine, tools, strict=True)],
            shift,
        )
        for more in (0, -1, 1)
        for shift in (0, -1, 1)
        if (steps + more * fine).min() > 0
    ]
    judged_rows = [(choice, judged(base, choice.ballast, aim, bench)) for choice in tried]
    return min(judged_rows, key=lambda row: row[1].miss if row[1] else float("inf"))[0]


def _tool(base: Base, bench: Bench, hole: Hole) -> Tool:
    """What a hole of a design is made with, as it is covered and filled."""
    return Tool(
        base,
        replace(bench, cover_mm=hole.cover_mm, filler_g_cm3=hole.filler_g_cm3),
        hole.slug,
        hole.drill_mm,
        hole.beside_mm,
    )


def _steps(design: Design, base: Base, bench: Bench, aim: Aim) -> Counts | None:
    """How many steps of mass each hole takes for the wanted net lift, in the shares they have (n,); None
    where one would have none left.

    What the coarser stock cannot give in whole steps is given by the finest.
    """
    holes, tools = design.ballast, [_tool(base, bench, hole) for hole in design.ballast]
    was = np.array([hole.mass_g for hole in holes])
    share = was / was.sum() if was.sum() else np.full(len(holes), 1.0 / len(holes))
    per, fixed = (np.array([tool.line[k] for tool in tools]) for k in (0, 1))
    mouth = np.array(
        [float(tool.ground(np.array([hole.x_mm])).grams[0]) for tool, hole in zip(tools, holes, strict=True)]
    )
    step = np.array([tool.step_g for tool in tools])
    needed = base.lift_g - base.mass.mass_g - aim.net_g - float((fixed + mouth).sum())
    whole = needed / float(per @ share)
    if whole <= 0:
        return None
    steps = np.rint(whole * share / step)
    fine = step < step.min() * 1.5
    if not fine.all():
        left = needed - float(per[~fine] @ (steps * step)[~fine])
        steps[fine] = np.rint(left / float(per[fine] @ share[fine]) * share[fine] / step[fine])
    return steps.astype(int) if steps.min() > 0 else None


def _placed(design: Design, base: Base, bench: Bench, masses: list[float], shift: int) -> Design:
    """The design with these masses where they balance it, so many steps from there."""
    holes = [replace(hole, mass_g=mass) for hole, mass in zip(design.ballast, masses, strict=True)]
    middle = sum(hole.x_mm for hole in holes) / len(holes)
    offsets = [hole.x_mm - middle for hole in holes]
    x = place_mm(base, holes, offsets, design.want.pitch_deg)
    reach, step = design.body.length_mm, bench.place_step_mm
    places = [
        min(max((round((x + offset) / step) + shift) * step, 0.05 * reach), 0.95 * reach)
        for offset in offsets
    ]
    return replace(design, ballast=tuple(replace(h, x_mm=p) for h, p in zip(holes, places, strict=True)))


def _trim(design: Design, measured: Measured, drag: float) -> Finding:
    """What is left to do once the ballast is in: grams to the wanted net."""
    mass = budget(design, measured)
    net = design.water.density_g_cm3 * mass.displaced_ml - mass.mass_g
    over = net - target(design, mass, drag_of(design, drag)).net_g
    if abs(over) < 0.03:
        return finding("as-weighed-right")
    return finding("as-weighed-lifts" if over > 0 else "as-weighed-heavy", over=Known(abs(over), mass.sd_g))
