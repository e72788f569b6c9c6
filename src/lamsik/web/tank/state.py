"""What the Tank shows of an outcome: verdict, facts, weight by part, ballast; pieces show the same."""

import json
from dataclasses import asdict, dataclass
from typing import Any

from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.tank.drilling import troubles
from lamsik.core.tank.evaluate import Outcome
from lamsik.core.tank.floating import Floating
from lamsik.core.tank.parts import ESTIMATES, Part
from lamsik.core.tank.verdict import posture
from lamsik.core.units import show
from lamsik.web.pictures.tank import SURFACE, UNDER, default_view, scene
from lamsik.web.shared.facts import Fact, signed


@dataclass(frozen=True)
class BudgetRow:
    """A part in the weight budget: mass in grams as text, its share of the heaviest, where it is from."""

    key: str
    name: str
    mass: str
    band: str
    status: str
    estimate: bool
    share: float


def tank_part(outcome: Outcome, unit: str, looks: str) -> dict[str, Any]:
    """The Tank side of a design: scene, verdict, facts, weights, ballast, other positions."""
    looks = looks if looks in (SURFACE, UNDER) else default_view(outcome)
    design = outcome.design
    return {
        "picture": scene(outcome, looks, unit),
        "looks": looks if outcome.surface else UNDER,
        "can_float": bool(outcome.surface),
        "verdict": verdict_view(outcome),
        "facts": [asdict(fact) for fact in tank_facts(outcome, looks)],
        "budget": [asdict(row) for row in budget_rows(outcome.budget.parts)],
        "total": show(outcome.budget.mass_g, "mass", 2),
        "unweighed": sum(p.is_estimate for p in outcome.budget.parts),
        "holes": [_hole_row(outcome, h) for h in design.ballast],
        "no_holes": not design.ballast,
        "others": [_other(i, place, outcome.surface[0]) for i, place in enumerate(outcome.surface[1:])],
    }


def _other(index: int, place: Floating, first: Floating) -> dict[str, str]:
    at = f"pitch {signed(place.attitude.pitch_deg, 0)}°, roll {signed(place.attitude.roll_deg, 0)}°"
    deeper = place.energy < first.energy - 1e-6 * abs(first.energy)
    return {"key": str(index), "says": f"It can also rest {posture(place.attitude)} ({at})" + (" and prefers that: it will turn over." if deeper else ".")}


def verdict_view(outcome: Outcome) -> dict[str, Any]:
    """The verdict's figures as text: net, share, band."""
    found = outcome.verdict
    if found.band_g is None:
        band = f"“{found.behaviour}” has no limit on its far side."
    else:
        step = outcome.rules.step_g
        fine = "more than half of it" if found.band_g < 2 * step else "finer than that"
        band = f"“{found.behaviour}” is {found.band_g:.2f} g wide; the {step:g} g you cut slugs to is {fine}."
    return {
        "sentence": found.sentence,
        "behaviour": found.behaviour,
        "band": band,
    }


def tank_facts(outcome: Outcome, looks: str = UNDER) -> list[Fact]:
    """Net, mass, pitch as it is looked at, speed, G and B with what they came from."""
    found, mass, water = outcome.verdict, outcome.budget, outcome.design.water
    estimate = any(p.is_estimate for p in mass.parts)
    g, b = outcome.hanging.g_mm, outcome.hanging.b_mm
    rows = [
        Fact(
            "net",
            "Net lift",
            f"{signed(found.net_g)} g ({signed(100 * found.net_share, 1)} %)",
            f"{water.density_g_cm3:.4f} g/cm³ ({water.describe()}) × {mass.displaced_ml:.2f} ml under water − {mass.mass_g:.2f} g. Known to ± {mass.sd_g:.2f} g.",
            estimate,
        ),
        Fact(
            "mass",
            "Mass",
            f"{mass.mass_g:.2f} g",
            f"In air, for casting: all parts added, ± {mass.sd_g:.2f} g. In water it weighs {signed(-found.net_g)} g.",
            estimate,
        ),
        _pitch(outcome, looks, estimate),
        Fact(
            "speed",
            "Speed",
            f"{signed(found.speed_cm_s, 0)} cm/s",
            f"√(2 · net · g / (ρ · C_d · area)), C_d {outcome.rules.drag:g} assumed until timed, area {outcome.frontal_mm2 / 100:.1f} cm². + rises.",
            True,
        ),
        Fact(
            "bg",
            "B over G",
            f"{((g[0] - b[0]) ** 2 + (g[2] - b[2]) ** 2) ** 0.5:.1f} mm",
            f"G {g[0]:.1f} mm from the nose at height {signed(g[2], 1)}, B {b[0]:.1f} mm at {signed(b[2], 1)}. More is steadier, less is livelier.",
            estimate,
        ),
    ]
    if outcome.surface:
        rows.append(
            Fact(
                "freeboard",
                "Freeboard",
                f"{max(outcome.surface[0].freeboard_mm, 0):.1f} mm",
                "The hull's highest point over the water when it rests at the surface.",
                estimate,
            )
        )
    return rows


def _pitch(outcome: Outcome, looks: str, estimate: bool) -> Fact:
    """The pitch of the posture on the picture."""
    held = outcome.hanging.held
    if looks == SURFACE and outcome.surface:
        how = (
            f"At rest on the surface, where it pushes its own weight of water aside. + is nose up. Under water it hangs at {signed(outcome.hanging.free.pitch_deg, 0)}°."
        )
        return Fact("pitch", "Pitch afloat", f"{signed(outcome.surface[0].attitude.pitch_deg, 1)}°", how, estimate)
    how = "B comes to lie straight above G; + is nose up." + (f" Held at its tie it hangs at {signed(held.pitch_deg, 0)}°." if held else "")
    return Fact("pitch", "Pitch hanging", f"{signed(outcome.hanging.free.pitch_deg, 1)}°", how, estimate)


def budget_rows(parts: tuple[Part, ...]) -> list[BudgetRow]:
    """The parts, the heaviest first, with a bar's share and where each figure is from."""
    heaviest = max((abs(p.mass_g) for p in parts), default=1.0) or 1.0
    rows = sorted((p for p in parts if abs(p.mass_g) > 0.0005), key=lambda p: -p.mass_g)
    return [
        BudgetRow(
            p.key,
            p.name,
            f"{signed(p.mass_g) if p.mass_g < 0 else f'{p.mass_g:.2f}'} g",
            f"± {p.sd_g:.2f}",
            p.status,
            p.status in ESTIMATES,
            round(100 * abs(p.mass_g) / heaviest, 1),
        )
        for p in rows
    ]


def _hole_row(outcome: Outcome, hole: Hole) -> dict[str, Any]:
    wrong = troubles(outcome.design, hole, outcome.rules.wall_mm)
    return {
        "key": hole.key,
        "name": hole.slug.name,
        "says": f"{hole.drill_mm:g} mm drill, {hole.depth_mm:.1f} mm deep",
        "trouble": f"This hole {' and '.join(wrong)}." if wrong else "",
        "troubled": bool(wrong),
        "mass_path": f"ballast.{hole.key}.mass_g",
        "path": f"ballast.{hole.key}.x_mm",
        "mass_says": f"Mass of {hole.slug.name}",
        "place_says": f"{hole.slug.name} distance from the nose",
        "remove": json.dumps({"do": "remove", "group": "ballast", "key": hole.key}),
        "remove_says": f"Take out {hole.slug.name}",
    }
