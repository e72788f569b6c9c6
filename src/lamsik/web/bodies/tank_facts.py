"""The verdict's figures beside the drawing, each with what it came from; pieces show the same."""

from dataclasses import dataclass

from lamsik.core.quantities import give_or_take, numeral, plainly, said, sure
from lamsik.core.tank.evaluate import Outcome
from lamsik.core.tank.inertia import nature
from lamsik.core.tank.motion import DEFAULT_DRAG
from lamsik.core.tank.parts import ESTIMATES, Part
from lamsik.core.tank.stability import bg_mm
from lamsik.drawings.tank import HELD, SURFACE, UNDER
from lamsik.web.shared.facts import Fact


@dataclass(frozen=True)
class BudgetRow:
    """A part in the weight budget: mass in grams as text, its share of the heaviest, where it is from."""

    key: str
    name: str
    mass: str
    status: str
    estimate: bool
    share: float


def _band_words(outcome: Outcome) -> str:
    """How wide the verdict's band is beside what slugs are cut to."""
    verdict = outcome.verdict
    if verdict.band_g is None:
        return f"“{verdict.behaviour}” has no limit on its far side."
    step = outcome.rules.step_g
    fine = "more than half of it" if verdict.band_g < 2 * step else "finer than that"
    return (
        f"“{verdict.behaviour}” is {said(verdict.band_g, 'mass')} wide; the {plainly(step, 'mass')}"
        f" you cut slugs to is {fine}."
    )


def tank_facts(outcome: Outcome, looks: str = UNDER) -> list[Fact]:
    """Net, masses in air and water, pitch and list as it is looked at, speed with its band, roll recovery,
    freeboard.
    """
    if outcome.unbuilt:
        return []
    estimate = any(p.is_estimate for p in outcome.budget.parts)
    rows = [
        *_masses(outcome, estimate),
        _pitch(outcome, looks, estimate),
        *_list(outcome, looks),
        _speed(outcome),
        _band(outcome),
        _roll(outcome, estimate),
    ]
    if outcome.surface:
        how = "The hull's highest point over the water when it rests at the surface."
        rows.append(
            Fact(
                "freeboard",
                "Freeboard",
                said(max(outcome.surface[0].freeboard_mm, 0), "length"),
                how,
                estimate,
            )
        )
    if outcome.design.want.pierced or outcome.design.host.void_share > 0:
        how = (
            "With the skin pierced and every void behind it full of water. Solid wood and closed foam lose"
            " nothing."
        )
        rows.append(
            Fact("flooded", "Net pierced", said(outcome.flooded_net_g, "mass", sign=True), how, estimate)
        )
    return rows


def _masses(outcome: Outcome, estimate: bool) -> list[Fact]:
    verdict, mass, water = outcome.verdict, outcome.budget, outcome.design.water
    net = (
        f"{said(water.density_g_cm3, 'density', 4)} ({water.describe()}) ×"
        f" {said(mass.displaced_ml, 'volume')} under water −"
        f" {sure(mass.mass_g, 'mass', mass.sd_g)}. Known to {give_or_take('mass', mass.sd_g)}."
    )
    return [
        Fact(
            "net",
            "Net lift",
            f"{sure(verdict.net_g, 'mass', mass.sd_g, sign=True)}"
            f" ({said(100 * verdict.net_share, 'percent', sign=True)})",
            net,
            estimate,
        ),
        Fact(
            "mass",
            "In air",
            sure(mass.mass_g, "mass", mass.sd_g),
            f"What you cast: all parts added, {give_or_take('mass', mass.sd_g)}.",
            estimate,
        ),
        Fact(
            "wet",
            "In water",
            sure(-verdict.net_g, "mass", mass.sd_g, sign=True),
            "What sinks it: its mass less the water it pushes aside; a minus lifts.",
            estimate,
        ),
    ]


def _speed(outcome: Outcome) -> Fact:
    verdict = outcome.verdict
    source = {"timed": "timed in the tub", "typed": "typed"}.get(
        outcome.design.drag_source, "the shop's, assumed until timed"
    )
    how = (
        f"√(2 · net · g / (ρ · C_d · area)), C_d {said(outcome.drag, 'number')} {source}, area"
        f" {said(outcome.frontal_mm2 / 100, 'area')}. + rises."
    )
    return Fact(
        "speed",
        "Speed",
        said(verdict.speed_cm_s, "speed", 0, sign=True),
        how,
        outcome.design.drag_source != "timed" or outcome.drag == DEFAULT_DRAG,
    )


def _band(outcome: Outcome) -> Fact:
    """The behaviour's band in grams: how exactly the ballast must be cut."""
    verdict = outcome.verdict
    low, high = (
        said(edge, "mass", sign=True) if edge is not None else "no limit"
        for edge in (verdict.band_low_g, verdict.band_high_g)
    )
    width = said(verdict.band_g, "mass") if verdict.band_g is not None else "open"
    how = (
        f"“{verdict.behaviour}” lasts from {low} to {high} of net lift in this water. {_band_words(outcome)}"
    )
    return Fact("band", "Band", width, how, outcome.design.drag_source != "timed")


def _roll(outcome: Outcome, estimate: bool) -> Fact:
    g, b, roll = outcome.hanging.g_mm, outcome.hanging.b_mm, outcome.roll
    how = (
        f"B lies {said(bg_mm(outcome.hanging), 'length')} over G (G {said(g[0], 'length')} from the nose"
        " at height"
        f" {numeral(g[2], 'length')}, B {numeral(b[0], 'length')} at {numeral(b[2], 'length')})."
        " (1/2π)·√(m·g·BG / inertia), the water's"
        f" share {said(100 * roll.added_share, 'percent', 0)}. From"
        f" {plainly(outcome.rules.steady_hz, 'frequency')} on your shop says"
        " steady. A number to compare two baits by, not a promise."
    )
    return Fact(
        "bg",
        "Roll recovery",
        f"{said(roll.frequency_hz, 'frequency')}, {nature(roll.frequency_hz, outcome.rules.steady_hz)}",
        how,
        estimate,
    )


def _pitch(outcome: Outcome, looks: str, estimate: bool) -> Fact:
    """The pitch of the posture on the picture."""
    free, held = outcome.hanging.free, outcome.hanging.held
    if looks == SURFACE and outcome.surface:
        how = (
            "At rest on the surface, where it pushes its own weight of water aside. + is nose up. Under"
            f" water it hangs at {said(free.pitch_deg, 'angle', 0, sign=True)}."
        )
        return Fact(
            "pitch",
            "Pitch afloat",
            said(outcome.surface[0].attitude.pitch_deg, "angle", sign=True),
            how,
            estimate,
        )
    if looks == HELD and held:
        how = (
            "Held at its tie on a slack line; moments about the tie vanish. Free it hangs at"
            f" {said(free.pitch_deg, 'angle', 0, sign=True)}."
        )
        return Fact("pitch", "Pitch held", said(held.pitch_deg, "angle", sign=True), how, estimate)
    how = "B comes to lie straight above G; + is nose up." + (
        f" Held at its tie it hangs at {said(held.pitch_deg, 'angle', 0, sign=True)}." if held else ""
    )
    return Fact("pitch", "Pitch hanging", said(free.pitch_deg, "angle", sign=True), how, estimate)


def _list(outcome: Outcome, looks: str) -> list[Fact]:
    attitude = outcome.surface[0].attitude if looks == SURFACE and outcome.surface else outcome.hanging.free
    return [
        Fact(
            "list",
            "List",
            said(attitude.roll_deg, "angle", sign=True),
            "How far it leans; + is right side down. Everything here sits on the centre line, so a list means"
            " it cannot stand.",
        )
    ]


def budget_rows(parts: tuple[Part, ...]) -> list[BudgetRow]:
    """The parts, the heaviest first, with a bar's share and where each figure is from."""
    heaviest = max((abs(p.mass_g) for p in parts), default=1.0) or 1.0
    rows = sorted((p for p in parts if abs(p.mass_g) > 0.0005), key=lambda p: -p.mass_g)
    return [
        BudgetRow(
            p.key,
            p.name,
            said(p.mass_g, "mass"),
            p.status,
            p.status in ESTIMATES,
            round(100 * abs(p.mass_g) / heaviest, 1),
        )
        for p in rows
    ]
