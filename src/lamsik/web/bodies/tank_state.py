"""What the Tank shows of an outcome: picture, verdict, ballast; what takes longer comes once it is settled
(see `depth`).
"""

import json
from dataclasses import asdict, dataclass
from typing import Any

from lamsik.core.cautions import CAUTIONS, DEFER, of_metals
from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Item
from lamsik.core.shapes.inside import Cavity, Pour, pour_volume_ml
from lamsik.core.tank.ballast_base import Bench
from lamsik.core.tank.drilling import cavity_troubles, cavity_wall_mm, pour_troubles, troubles, wall_left_mm
from lamsik.core.tank.evaluate import Outcome
from lamsik.core.tank.floating import Floating
from lamsik.core.units import show
from lamsik.core.water import Water
from lamsik.drawings.headon import head_on
from lamsik.drawings.svg import Node
from lamsik.drawings.tank import HELD, SURFACE, VIEWS, default_view, scene, shown_view
from lamsik.store.tables import TimedRun
from lamsik.web.bodies.shape_facts import segment_rows
from lamsik.web.bodies.tank_depth import beside, deeper
from lamsik.web.bodies.tank_facts import budget_rows, tank_facts, verdict_view
from lamsik.web.shared.facts import signed
from lamsik.words.verdict import posture

SIDE, FRONT = "side", "front"


@dataclass(frozen=True)
class TankShop:
    """What the settled answers choose from: hooks, waters, ballast bench, and the design's timed runs."""

    hooks: tuple[Item, ...] = ()
    waters: tuple[Water, ...] = ()
    bench: Bench | None = None
    runs: tuple[TimedRun, ...] = ()


@dataclass(frozen=True)
class TankAsked:
    """How the Tank is looked at: unit, posture and side of the picture, trail of G (x, z) [mm], the shop
    once settled.
    """

    unit: str = "mm"
    looks: str = ""
    facing: str = SIDE
    trail: tuple[tuple[float, float], ...] = ()
    shop: TankShop | None = None


def tank_part(outcome: Outcome, asked: TankAsked) -> dict[str, Any]:
    """The Tank side of a design: scene, verdict, facts, weights, ballast, other positions."""
    looks = shown_view(outcome, asked.looks if asked.looks in VIEWS else default_view(outcome))
    design = outcome.design
    shown = {
        "picture": _picture(outcome, looks, asked),
        "looks": looks,
        "facing": asked.facing if asked.facing == FRONT else SIDE,
        "can_float": bool(outcome.surface),
        "can_hold": outcome.hanging.held is not None,
        "g": [round(outcome.budget.g_mm[0], 3), round(outcome.budget.g_mm[2], 3)],
        "verdict": verdict_view(outcome),
        "figures": _figures(outcome),
        "facts": [asdict(fact) for fact in tank_facts(outcome, looks)],
        "budget": [asdict(row) for row in budget_rows(outcome.budget.parts)],
        "total": show(outcome.budget.mass_g, "mass", 2),
        "unweighed": sum(p.is_estimate for p in outcome.budget.parts),
        "holes": ballast_rows(outcome),
        "caution": f"{' '.join(CAUTIONS[key] for key in (*of_metals(design.metals), 'blades'))} {DEFER}",
        "no_holes": not (design.ballast or design.pours or design.cavities),
        "others": [_other(i, place, outcome.surface[0]) for i, place in enumerate(outcome.surface[1:])],
        "by_speed": design.want.by == "speed",
        "by_share": design.want.by == "share",
        "by_freeboard": design.want.by == "freeboard",
        "pierced": design.want.pierced,
        "has_lip": design.lip is not None,
        "jointed": bool(design.body.joints),
        "tie_moves": any(
            p.item.kind == "line_tie" and p.seat in ("lip", "belly", "back") for p in design.hardware
        ),
        "tie_path": next(
            (f"hardware.{p.key}.x_mm" for p in design.hardware if p.item.kind == "line_tie"), ""
        ),
        "clears": str(sum(c.role == "clear" for c in design.coats)),
    }
    if asked.shop is not None:
        shown["segments"] = segment_rows(outcome)
    return shown if asked.shop is None else {**shown, **beside(outcome, asked.shop.waters, asked.shop.runs)}


def late_part(outcome: Outcome, shop: TankShop) -> dict[str, Any]:
    """The Tank's second answer of a settled design; it goes over the first on the page."""
    return deeper(outcome, shop.hooks, shop.bench)


def _picture(outcome: Outcome, looks: str, asked: TankAsked) -> Node:
    if asked.facing != FRONT:
        return scene(outcome, looks, asked.unit, trail=asked.trail)
    if looks == SURFACE:
        first = outcome.surface[0]
        return head_on(outcome, first.attitude, first.draft_mm, first.b_mm, asked.unit)
    held = outcome.hanging.held if looks == HELD else None
    return head_on(outcome, held or outcome.hanging.free, None, outcome.hanging.b_mm, asked.unit)


def _figures(outcome: Outcome) -> dict[str, str]:
    """The few numbers that are set side by side when something is tried."""
    found = outcome.verdict
    return {
        "net": f"{signed(found.net_g)} g",
        "behaviour": found.behaviour,
        "speed": f"{signed(found.speed_cm_s, 0)} cm/s",
        "pitch": f"{signed(outcome.hanging.free.pitch_deg, 0)}°",
        "mass": f"{outcome.budget.mass_g:.1f} g",
        "roll": f"{outcome.roll.frequency_hz:.1f} Hz",
    }


def _other(index: int, place: Floating, first: Floating) -> dict[str, str]:
    at = f"pitch {signed(place.attitude.pitch_deg, 0)}°, roll {signed(place.attitude.roll_deg, 0)}°"
    lower = place.energy < first.energy - 1e-6 * abs(first.energy)
    return {
        "key": str(index),
        "says": (
            f"It can also rest {posture(place.attitude)} ({at})"
            + (" and prefers that: it will turn over." if lower else ".")
        ),
    }


def ballast_rows(outcome: Outcome) -> list[dict[str, Any]]:
    """Everything inside that is ballast: holes, poured ends, chambers, each with its fields and what is
    wrong with it.
    """
    design, limit = outcome.design, outcome.rules.wall_mm
    rows = [_hole_row(design, hole, troubles(design, hole, limit)) for hole in design.ballast]
    rows += [_pour_row(design, pour, pour_troubles(design, pour.key)) for pour in design.pours]
    return rows + [
        _cavity_row(design, cavity, cavity_troubles(design, cavity, limit)) for cavity in design.cavities
    ]


def _row(
    group: str,
    key: str,
    name: str,
    says: str,
    wrong: tuple[str, ...],
    first: tuple[str, str],
    place: tuple[str, str],
) -> dict[str, Any]:
    what = {"ballast": "hole", "pours": "pour", "cavities": "chamber"}[group]
    return {
        "key": f"{group}-{key}",
        "name": name,
        "says": says,
        "trouble": f"This {what} {' and '.join(wrong)}." if wrong else "",
        "troubled": bool(wrong),
        "mass_path": f"{group}.{key}.{first[0]}",
        "mass_says": first[1],
        "path": f"{group}.{key}.{place[0]}",
        "place_says": place[1],
        "remove": json.dumps({"do": "remove", "group": group, "key": key}),
        "remove_says": f"Take out {name}",
        "is_hole": False,
        "is_pair": False,
        "beside_path": f"{group}.{key}.{place[0]}",
        "beside_says": "",
        "pair": "",
        "pair_says": "",
        "pair_word": "",
    }


def _hole_row(design: Design, hole: Hole, wrong: tuple[str, ...]) -> dict[str, Any]:
    wall = wall_left_mm(design.body, hole)
    out = hole.hole_ml * design.host.density_g_cm3
    pair = f"two of {hole.each_g:.2f} g, {hole.beside_mm:.1f} mm to each side; " if hole.count > 1 else ""
    says = (
        f"{pair}{hole.drill_mm:g} mm drill, {hole.depth_mm:.1f} mm deep; {out:.2f} g out, {max(wall, 0):.1f}"
        " mm wall"
    )
    name = hole.slug.name
    other = f"{name}: one hole on the middle" if hole.count > 1 else f"{name}: a pair beside the middle"
    word = "One on the middle instead" if hole.count > 1 else "As a pair beside the middle"
    row = _row(
        "ballast",
        hole.key,
        name,
        says,
        wrong,
        ("mass_g", f"Mass of {name}{', both' if hole.count > 1 else ''}"),
        ("x_mm", f"{name} distance from the nose"),
    )
    return {
        **row,
        "is_hole": True,
        "is_pair": hole.count > 1,
        "beside_path": f"ballast.{hole.key}.beside_mm",
        "beside_says": f"{name}, how far to each side",
        "pair": json.dumps({"do": "pair", "key": hole.key}),
        "pair_word": word,
        "pair_says": other,
    }


def _pour_row(design: Design, pour: Pour, wrong: tuple[str, ...]) -> dict[str, Any]:
    volume = pour_volume_ml(design.body, pour)[0]
    says = f"{volume:.2f} ml, {volume * pour.density_g_cm3:.1f} g, to {pour.to_mm:.1f} mm"
    return _row(
        "pours",
        pour.key,
        pour.name,
        says,
        wrong,
        ("density_g_cm3", f"Density of {pour.name}"),
        ("from_mm", f"{pour.name} begins at"),
    )


def _cavity_row(design: Design, cavity: Cavity, wrong: tuple[str, ...]) -> dict[str, Any]:
    name = f"{cavity.slug.name} in a chamber"
    says = (
        f"{cavity.mass_g:.1f} g in {cavity.bore_mm:.1f} × {cavity.length_mm:.1f} mm,"
        f" {max(cavity_wall_mm(design.body, cavity), 0):.1f} mm wall"
    )
    return _row(
        "cavities",
        cavity.key,
        name,
        says,
        wrong,
        ("count", f"How many {cavity.slug.name}"),
        ("x_mm", f"{name}, its middle from the nose"),
    )
