"""The verdict's figures beside the drawing, each with what it came from; pieces show the same."""

from dataclasses import dataclass

from lamsik.core.tank.evaluate import Outcome
from lamsik.core.tank.inertia import nature
from lamsik.core.tank.motion import DEFAULT_DRAG
from lamsik.core.tank.parts import ESTIMATES, Part
from lamsik.core.tank.stability import bg_mm
from lamsik.drawings.tank import HELD, SURFACE, UNDER
from lamsik.web.shared.facts import Fact, signed


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
    return f"“{verdict.behaviour}” is {verdict.band_g:.2f} g wide; the {step:g} g you cut slugs to is {fine}."


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
            Fact("freeboard", "Freeboard", f"{max(outcome.surface[0].freeboard_mm, 0):.1f} mm", how, estimate)
        )
    if outcome.design.want.pierced or outcome.design.host.void_share > 0:
        how = (
            "With the skin pierced and every void behind it full of water. Solid wood and closed foam lose"
            " nothing."
        )
        rows.append(Fact("flooded", "Net pierced", f"{signed(outcome.flooded_net_g)} g", how, estimate))
    return rows


def _masses(outcome: Outcome, estimate: bool) -> list[Fact]:
    verdict, mass, water = outcome.verdict, outcome.budget, outcome.design.water
    net = (
        f"{water.density_g_cm3:.4f} g/cm³ ({water.describe()}) × {mass.displaced_ml:.2f} ml under water −"
        f" {mass.mass_g:.2f} g. Known to ± {mass.sd_g:.2f} g."
    )
    return [
        Fact(
            "net",
            "Net lift",
            f"{signed(verdict.net_g)} g ({signed(100 * verdict.net_share, 1)} %)",
            net,
            estimate,
        ),
        Fact(
            "mass",
            "In air",
            f"{mass.mass_g:.2f} g",
            f"What you cast: all parts added, ± {mass.sd_g:.2f} g.",
            estimate,
        ),
        Fact(
            "wet",
            "In water",
            f"{signed(-verdict.net_g)} g",
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
        f"√(2 · net · g / (ρ · C_d · area)), C_d {outcome.drag:.2f} {source}, area"
        f" {outcome.frontal_mm2 / 100:.1f} cm². + rises."
    )
    return Fact(
        "speed",
        "Speed",
        f"{signed(verdict.speed_cm_s, 0)} cm/s",
        how,
        outcome.design.drag_source != "timed" or outcome.drag == DEFAULT_DRAG,
    )


def _band(outcome: Outcome) -> Fact:
    """The behaviour's band in grams: how exactly the ballast must be cut."""
    verdict = outcome.verdict
    low, high = (
        f"{signed(edge)} g" if edge is not None else "no limit"
        for edge in (verdict.band_low_g, verdict.band_high_g)
    )
    width = f"{verdict.band_g:.2f} g" if verdict.band_g is not None else "open"
    how = (
        f"“{verdict.behaviour}” lasts from {low} to {high} of net lift in this water. {_band_words(outcome)}"
    )
    return Fact("band", "Band", width, how, outcome.design.drag_source != "timed")


def _roll(outcome: Outcome, estimate: bool) -> Fact:
    g, b, roll = outcome.hanging.g_mm, outcome.hanging.b_mm, outcome.roll
    how = (
        f"B lies {bg_mm(outcome.hanging):.1f} mm over G (G {g[0]:.1f} mm from the nose at height"
        f" {signed(g[2], 1)}, B {b[0]:.1f} at {signed(b[2], 1)}). (1/2π)·√(m·g·BG / inertia), the water's"
        f" share {100 * roll.added_share:.0f} %. From {outcome.rules.steady_hz:g} Hz on your shop says"
        " steady. A number to compare two baits by, not a promise."
    )
    return Fact(
        "bg",
        "Roll recovery",
        f"{roll.frequency_hz:.1f} Hz, {nature(roll.frequency_hz, outcome.rules.steady_hz)}",
        how,
        estimate,
    )


def _pitch(outcome: Outcome, looks: str, estimate: bool) -> Fact:
    """The pitch of the posture on the picture."""
    free, held = outcome.hanging.free, outcome.hanging.held
    if looks == SURFACE and outcome.surface:
        how = (
            "At rest on the surface, where it pushes its own weight of water aside. + is nose up. Under"
            f" water it hangs at {signed(free.pitch_deg, 0)}°."
        )
        return Fact(
            "pitch", "Pitch afloat", f"{signed(outcome.surface[0].attitude.pitch_deg, 1)}°", how, estimate
        )
    if looks == HELD and held:
        how = (
            "Held at its tie on a slack line; moments about the tie vanish. Free it hangs at"
            f" {signed(free.pitch_deg, 0)}°."
        )
        return Fact("pitch", "Pitch held", f"{signed(held.pitch_deg, 1)}°", how, estimate)
    how = "B comes to lie straight above G; + is nose up." + (
        f" Held at its tie it hangs at {signed(held.pitch_deg, 0)}°." if held else ""
    )
    return Fact("pitch", "Pitch hanging", f"{signed(free.pitch_deg, 1)}°", how, estimate)


def _list(outcome: Outcome, looks: str) -> list[Fact]:
    attitude = outcome.surface[0].attitude if looks == SURFACE and outcome.surface else outcome.hanging.free
    return [
        Fact(
            "list",
            "List",
            f"{signed(attitude.roll_deg, 1)}°",
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
            f"{signed(p.mass_g) if p.mass_g < 0 else f'{p.mass_g:.2f}'} g",
            p.status,
            p.status in ESTIMATES,
            round(100 * abs(p.mass_g) / heaviest, 1),
        )
        for p in rows
    ]
