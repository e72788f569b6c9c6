"""What the Tank adds once nothing moves: other waters, allowances, the tub; and after the verdict what
would change it and how sure it is.
"""

from collections.abc import Mapping, Sequence
from dataclasses import asdict
from typing import Any

from lamsik.core.errors import Refused
from lamsik.core.quantities import numeral, plainly, said, unit_of
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.faces import MADE_TRUE_TO, TRUE_TO
from lamsik.core.shapes.hardware import Item, seat_of
from lamsik.core.shapes.trial import BELLY, TrialWeight
from lamsik.core.tank.ballast import Answer
from lamsik.core.tank.ballast_base import Bench
from lamsik.core.tank.certainty import Certainty, certainty
from lamsik.core.tank.drops import Drop, drag_from, moving, net_from, together
from lamsik.core.tank.evaluate import Outcome
from lamsik.core.tank.mass import budget
from lamsik.core.tank.parts import replaced_by
from lamsik.core.tank.refit import refit
from lamsik.core.tank.sensitivities import Effect, Flip, bare, effects, flips
from lamsik.core.tank.trial import in_tub
from lamsik.core.tank.wanted import Holding, holdings, target
from lamsik.core.trade.behaviours import BEHAVIOURS
from lamsik.core.water import Water
from lamsik.store.tub import TimedRun
from lamsik.web.bodies.tank_view import (
    AllowanceRow,
    Beside,
    EffectRow,
    Faces,
    FaceWay,
    Late,
    RefitPanel,
    Sure,
    SureRow,
    TimedRow,
    TimedWords,
    TrialRow,
    Wants,
    WaterRow,
)
from lamsik.web.shared.view import edit
from lamsik.words import refusals
from lamsik.words.tell import capital, tell, within

LATE = "being worked out"
"""What stands in the place of the answers that come after the verdict, until they come."""


def beside(outcome: Outcome, waters: Sequence[Water], runs: Sequence[TimedRun]) -> Beside:
    """What is shown of a settled design beside its verdict (the rest: see `deeper`)."""
    design = outcome.design
    return Beside(
        late=LATE,
        late_problem="",
        wants=_want(outcome, waters),
        faces=_faces(outcome),
        allowances=[_allowance(design, row.key) for row in design.allowances],
        no_allowances=not design.allowances,
        bare=_bare(outcome),
        trials=[_trial(design, row) for row in design.trials],
        tub=_tub(outcome),
        timed=timed_words(outcome, runs),
        timed_rows=[_timed_row(row) for row in runs],
    )


def deeper(outcome: Outcome, hooks: Sequence[Item], bench: Bench | None) -> Late:
    """What takes longer than the verdict and is asked for once that is shown: the refit, what would change
    it, how sure it is.
    """
    design = outcome.design
    felt = (
        () if outcome.unbuilt else effects(design, hooks, drag=outcome.rules.drag, bands=outcome.rules.bands)
    )
    return Late(
        late="",
        effects=effect_rows(felt),
        first_effects=_first(felt),
        flips=(
            ""
            if outcome.unbuilt
            else flip_words(flips(design, outcome.budget, outcome.rules.drag, outcome.rules.bands))
        ),
        refit=_refit(outcome, bench),
        sure=_sure(outcome),
    )


def _first(effects_seen: Sequence[Effect]) -> str:
    rows = [row for row in effects_seen if abs(row.net_change_g) > 0.005][:3]
    if not rows:
        return ""
    return (
        "Most changes it: "
        + ", ".join(f"{within(row.name)} {said(row.net_change_g, 'mass', sign=True)}" for row in rows)
        + "."
    )


def effect_rows(rows: Sequence[Effect]) -> list[EffectRow]:
    """Effects with their bar, as a share of the largest."""
    largest = max((row.weight for row in rows), default=1.0) or 1.0
    return [
        EffectRow(
            key=row.key,
            name=tell(row.name),
            net=said(row.net_change_g, "mass", sign=True),
            pitch=said(row.pitch_change_deg, "angle", sign=True),
            then=row.behaviour,
            share=round(100 * (row.weight / largest) ** 0.5, 1),
        )
        for row in rows
    ]


def flip_words(flipping: Sequence[Flip]) -> str:
    """The waters at which it flips, in one sentence."""
    if not flipping:
        return "No natural water makes it behave otherwise."
    return " ".join(_flip(row) for row in flipping)


def _flip(row: Flip) -> str:
    ways = (
        [f"{said(row.salinity_psu, 'salinity')} at this temperature"] if row.salinity_psu is not None else []
    )
    ways += (
        [f"{said(row.temperature_c, 'temperature', 0)} at this salinity"]
        if row.temperature_c is not None
        else []
    )
    where = " or ".join(ways) or "no natural water comes there by heat or salt alone"
    return f"It {BEHAVIOURS[row.behaviour].does} from {said(row.density_g_cm3, 'density', 4)} on ({where})."


def _want(outcome: Outcome, waters: Sequence[Water]) -> Wants:
    design = outcome.design
    held = {
        row.water.name: row for row in holdings(design, outcome.budget, outcome.drag, outcome.rules.bands)
    }
    return Wants(
        [_water(water, held) for water in waters if water.name != design.water.name], _lost(held, outcome)
    )


def _refit(outcome: Outcome, bench: Bench | None) -> RefitPanel:
    try:
        advice = refit(outcome, bench) if bench and not outcome.unbuilt else None
        says = (
            tell(advice.says)
            if advice
            else (
                "Move or take out one of what is in the way, or find ballast anew." if outcome.unbuilt else ""
            )
        )
    except Refused as refused:
        advice, says = None, f"{refused.given} cannot be: {refusals.allowed(refused)}."
    better = advice.design if advice else None
    met = bool(advice and advice.met)
    return RefitPanel(
        met=met,
        unmet=not met,
        refit=says,
        can_refit=better is not None,
        refit_edit=edit("ballast", **ballast_of(better)) if better else "",
    )


def ballast_of(ballasted: Design | Answer) -> dict[str, Any]:
    """The ballast of a design or an answer, as the edit that puts it on takes it."""
    holes = ballasted.ballast if isinstance(ballasted, Design) else ballasted.holes
    return {
        "holes": [asdict(hole) for hole in holes],
        "pours": [asdict(pour) for pour in ballasted.pours],
        "cavities": [asdict(cavity) for cavity in ballasted.cavities],
    }


def _water(water: Water, held: Mapping[str, Holding]) -> WaterRow:
    row = held.get(water.name)
    return WaterRow(
        key=water.name,
        name=water.name,
        on=row is not None,
        fails=row is not None and not row.held,
        says=f"{BEHAVIOURS[row.behaviour].does}, {said(row.net_g, 'mass', sign=True)}" if row else "",
        edit=edit("hold", name=water.name),
    )


def _lost(held: Mapping[str, Holding], outcome: Outcome) -> str:
    apart = target(outcome.design, outcome.budget, outcome.drag, outcome.rules.bands).apart_g if held else 0.0
    if apart > 0:
        return (
            f"No ballast makes it so in all these waters: they lie {said(apart, 'mass')} too far apart"
            " for this band."
        )
    lost = [
        f"in {name} it {BEHAVIOURS[row.behaviour].does} ({said(row.net_g, 'mass', sign=True)})"
        for name, row in held.items()
        if not row.held
    ]
    return f"It does not hold everywhere: {'; '.join(lost)}." if lost else ""


_FACES = {
    "wood": "by hand about {hand}, over a template {template}",
    "foam": "as the mould came out",
    "cast": "as the mould and the shrinkage came out",
    "soft": "as the mould and the shrinkage came out",
    "print": "as the printer and the shrinkage came out",
}


def _sure(outcome: Outcome) -> Sure:
    if outcome.unbuilt:
        return Sure()
    try:
        chances = certainty(
            outcome.design,
            drag=outcome.rules.drag,
            bands=outcome.rules.bands,
            face_mm=outcome.rules.face_mm(outcome.design.host.construction),
        )
    except Refused:
        return Sure()
    rows = [
        SureRow(
            key=row.group,
            says=capital(row.says),
            chance=f"{100 * row.chance:.0f} in 100",
            share=round(100 * row.chance),
        )
        for row in chances.better[:5]
        if row.chance > chances.refitted + 0.005
    ]
    spread = (
        f"90 of 100 end between {numeral(chances.net_band_g[0], 'mass', sign=True)} and"
        f" {said(chances.net_band_g[1], 'mass', sign=True)} net;"
        f" pitch is known to ± {said(chances.pitch_sd_deg, 'angle', 0)}. Ballast set exactly and nothing"
        " more measured:"
        f" {100 * chances.refitted:.0f} in 100."
    )
    return Sure(sure_words(chances), rows, spread)


def _faces(outcome: Outcome) -> Faces:
    """How true the body is taken to be made, and where that is from."""
    host = outcome.design.host
    learned = outcome.rules.face_mm(host.construction)
    stands = learned if learned is not None else MADE_TRUE_TO[host.construction]
    says = (
        "your own figure"
        if host.face_mm is not None
        else "from your own blanks held under water"
        if learned is not None
        else _FACES[host.construction].format(
            hand=plainly(TRUE_TO["by hand"], "length"), template=plainly(TRUE_TO["by template"], "length")
        )
    )
    ways = TRUE_TO if host.construction == "wood" else {}
    edits = [
        FaceWay(name, name, edit("set", path="material.face_mm", value=true)) for name, true in ways.items()
    ]
    return Faces(says, said(stands, "length", 2), edits)


def sure_words(chances: Certainty, so: str = "baits made so") -> str:
    """The chance of landing in the wanted behaviour, and the one measurement that would raise it most."""
    best = chances.best
    says = f"{100 * chances.chance:.0f} in 100 {so} would do what is wanted"
    says += (
        f" ({100 * chances.chance_with_pitch:.0f} also at the wanted pitch)"
        if chances.chance_with_pitch < chances.chance - 0.005
        else ""
    )
    says += f"; {tell(best.says)} and fit the ballast to it: {100 * best.chance:.0f} in 100." if best else "."
    return says


def _allowance(design: Design, key: str) -> AllowanceRow:
    row = next(a for a in design.allowances if a.key == key)
    instead = tell(replaced_by(design, row.kind))
    return AllowanceRow(
        key=key,
        name=row.name,
        path=f"allowances.{key}.mass_g",
        spread=f"allowances.{key}.spread_g",
        mass_says=f"{row.name}, grams",
        spread_says=f"{row.name}, give or take",
        says=f"{instead} stand in its place now" if instead else "counted",
        counts=not instead,
        remove=edit("remove", group="allowances", key=key),
        remove_says=f"Drop the allowance for {row.name}",
    )


def _bare(outcome: Outcome) -> str:
    """Why one drills for the finished bait."""
    plain = budget(bare(outcome.design))
    net = outcome.design.water.density_g_cm3 * plain.displaced_ml - plain.mass_g
    return (
        f"Bare, before paint and hooks, it would have {said(net, 'mass', sign=True)} of lift; finished it has"
        f" {said(outcome.verdict.net_g, 'mass', sign=True)}. Drill for the finished bait."
    )


def place_words(design: Design, place: str) -> str:
    """Where a trial weight hangs, in words."""
    if place == BELLY:
        return "taped to the belly"
    placed = next((p for p in design.hardware if p.key == place), None)
    if placed is None:
        return place
    return f"clipped to the {seat_of(design.hardware, placed)} {placed.item.kind.replace('_', ' ')}"


def _trial(design: Design, row: TrialWeight) -> TrialRow:
    place, path = place_words(design, row.place), f"trials.{row.key}"
    return TrialRow(
        key=row.key,
        name=place[0].upper() + place[1:],
        mass_path=f"{path}.mass_g",
        place_path=f"{path}.x_mm",
        density_path=f"{path}.density_g_cm3",
        mass_says=f"Trial weight {place}, grams",
        place_says="Trial weight on the belly, distance from the nose",
        density_says=f"Density of the metal {place}",
        on_belly=row.place == BELLY,
        remove=edit("remove", group="trials", key=row.key),
        remove_says=f"Take off the weight {place}",
    )


def _tub(outcome: Outcome) -> str:
    if not outcome.design.trials:
        return (
            "Float the bait in the tub, clip weights to its hangers or tape them to the belly until it does"
            " what you want, then type what hangs where."
        )
    tub = in_tub(outcome.design, outcome.budget)
    return (
        f"With {said(tub.air_g, 'mass')} hung outside (which pull {said(tub.pull_g, 'mass')} in water) it has"
        f" {said(tub.hanging.net_g, 'mass', sign=True)} of lift and hangs at"
        f" {said(tub.hanging.free.pitch_deg, 'angle', 0, sign=True)}."
    )


def timed_words(outcome: Outcome, runs: Sequence[TimedRun]) -> TimedWords:
    """What the timed runs say, and which of net and C_d was assumed."""
    if not runs:
        return TimedWords("")
    runs = [
        row for row in runs if row.way == runs[-1].way
    ]  # rises and sinks are two states of a bait: the latest counts
    body = moving(outcome.design, outcome.budget.mass_g, outcome.frontal_mm2)
    drops = [Drop(row.distance_m, row.seconds) for row in runs]
    weighed = [row for row in runs if row.net_g is not None]
    try:
        if weighed:
            kept = [Drop(row.distance_m, row.seconds) for row in weighed]
            timed = together(
                [drag_from(drop, body, row.net_g or 0.0) for drop, row in zip(kept, weighed, strict=True)],
                kept,
            )
            spread = f" ± {said(timed.sd, 'number')}" if len(kept) > 1 else ""
            says = (
                f"C_d is {said(timed.value, 'number')}{spread} from {_runs(len(kept))} at"
                f" {said(timed.speed_cm_s, 'speed', 0)},"
                " taking the weighed net as true."
            )
            return TimedWords(says + _odd(timed.odd), edit("drag", value=round(timed.value, 4)), can_use=True)
        timed = together([net_from(drop, body, outcome.drag) for drop in drops], drops)
    except Refused as refused:
        return TimedWords(f"{refused.given} cannot be: {refusals.allowed(refused)}.")
    sign = 1 if runs[0].way == "rise" else -1
    source = {"timed": "timed before", "typed": "typed"}.get(outcome.design.drag_source, "assumed")
    spread = (
        f" ± {numeral(timed.sd, 'mass', 3)}" if len(drops) > 1 else ""
    )  # one run says nothing of how far runs differ
    says = (
        f"Net is {numeral(sign * timed.value, 'mass', sign=True)}{spread} {unit_of('mass')} from"
        f" {_runs(len(drops))} at"
        f" {said(timed.speed_cm_s, 'speed', 0)}, with C_d {said(outcome.drag, 'number')} ({source})."
    )
    computed = f" The budget says {said(outcome.verdict.net_g, 'mass', sign=True)}."
    return TimedWords(says + computed + _odd(timed.odd))


def _runs(count: int) -> str:
    return f"{count} run{'s' if count > 1 else ''}"


def _odd(odd: tuple[int, ...]) -> str:
    return f" Run {', '.join(str(i + 1) for i in odd)} stands out and is left out." if odd else ""


def _timed_row(row: TimedRun) -> TimedRow:
    net = f", net weighed {said(row.net_g, 'mass', sign=True)}" if row.net_g is not None else ""
    says = f"{row.way} of {plainly(row.distance_m, 'distance')} in {said(row.seconds, 'seconds')}{net}"
    return TimedRow(str(row.id), says, f"/tank/timed/{row.id}/take_back")
