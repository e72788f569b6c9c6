"""What the design screens show of one document: built here, bound by static/js/shared/bind.js."""

import json
from dataclasses import asdict, dataclass
from typing import Any

from sqlmodel import Session

from lamsik.core.errors import Refused
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Placement
from lamsik.core.tank import evaluate
from lamsik.core.tank.evaluate import Near, Outcome, Rules
from lamsik.core.tank.mass import ESTIMATES, NOTHING, Measured, Part
from lamsik.core.units import show
from lamsik.formats.body_document import Document, to_design
from lamsik.formats.edits import Catalogue, quantity_of
from lamsik.store import stores
from lamsik.web.pictures.body import paint_view, three_views
from lamsik.web.pictures.tank import SURFACE, UNDER, default_view, scene

DIGITS = {"length": 1, "mass": 2, "density": 3, "temperature": 1, "angle": 1, "thickness": 0, "time": 1, "speed": 1, "salinity": 1, "number": 2}
"""Digits shown after the point, by quantity."""

BENCHES = ("shapes", "tank", "paints")


@dataclass(frozen=True)
class Fact:
    """A number beside the drawing: what it is, its value with unit, how it came about."""

    key: str
    label: str
    value: str
    how: str
    estimate: bool = False


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


def catalogue(session: Session) -> Catalogue:
    """What the shop has to choose from."""
    parts = stores.hardware(session)
    return Catalogue(
        items={row.code: stores.item_of(row) for row in parts if row.kind != "lip"},
        lips={row.code: stores.lip_of(row) for row in parts if row.kind == "lip"},
        slugs={slug.name: slug for slug in stores.bench(session).slugs},
        waters={row.name: stores.water_of(row) for row in stores.waters(session)},
        schemes=stores.schemes(session),
    )


def view(
    document: Document, bench: str, rules: Rules, unit: str, settled: bool, looks: str = "", near: Near | None = None, measured: Measured = NOTHING
) -> dict[str, Any]:
    """The part of the state that is computed from the document, for one bench."""
    design = to_design(document)
    outcome = evaluate.settle(design, measured, rules) if settled else evaluate.drag(design, measured, rules, near)
    shared = {
        "name": design.name,
        "fields": fields(document, unit),
        "sentence": outcome.verdict.sentence,
        "over": outcome.turns_over,
        "missing": [asdict(need) for need in outcome.missing],
        "nothing_missing": not outcome.missing,
        "near": _near(outcome),
        "settled": outcome.settled,
        "selected": {
            "material": design.host.name,
            "form": design.form,
            "water": design.water.name,
            "behaviour": design.want.behaviour,
            "scheme": design.scheme,
        },
    }
    return {**shared, **_PARTS[bench](outcome, unit, looks)}


def _near(outcome: Outcome) -> dict[str, float] | None:
    if not outcome.surface:
        return None
    first = outcome.surface[0]
    return {"pitch_deg": first.attitude.pitch_deg, "roll_deg": first.attitude.roll_deg, "draft_mm": first.draft_mm}


def fields(document: Any, unit: str, path: str = "") -> dict[str, str]:
    """Every typed number of the document as text in the shop's unit, by path."""
    found: dict[str, str] = {}
    if isinstance(document, dict):
        for name, value in document.items():
            if name != "typed":
                found |= fields(value, unit, f"{path}.{name}" if path else name)
    elif isinstance(document, list):
        for row in document:
            if isinstance(row, dict) and "key" in row:
                found |= fields(row, unit, f"{path}.{row['key']}")
    elif isinstance(document, int | float) and not isinstance(document, bool):
        kind = quantity_of(path)
        found[path] = show(document, kind, _digits(path, kind), unit if kind == "length" and unit == "in" else None)
    elif isinstance(document, str):
        found[path] = document
    return found


def _digits(path: str, kind: str) -> int:
    return 0 if path.endswith(".count") else DIGITS[kind]


def _shapes_part(outcome: Outcome, unit: str, looks: str) -> dict[str, Any]:
    design = outcome.design
    return {
        "picture": three_views(design, unit),
        "facts": [asdict(fact) for fact in _body_facts(outcome)],
        "hardware": [_hardware_row(p, design) for p in design.hardware],
        "no_hardware": not design.hardware,
        "lip": _lip_row(design),
        "no_lip": design.lip is None,
        "density_source": {"table": "from the table: weigh a stick", "typed": "typed", "weighed": "weighed"}.get(design.host.source, design.host.source),
    }


def _hardware_row(placed: Placement, design: Design) -> dict[str, Any]:
    item, key = placed.item, placed.key
    host = next((p for p in design.hardware if p.key == placed.hung_on), None)
    return {
        "key": key,
        "name": item.name,
        "mass": show(item.mass_g, "mass", 2),
        "place": f"on the {_root(design, placed).seat} {host.item.kind.replace('_', ' ')}" if host else placed.seat,
        "estimate": not item.weighed,
        "path": f"hardware.{key}.x_mm",
        "movable": not host and placed.seat in ("belly", "back"),
        "says": f"{item.name} distance from the nose",
        "remove": json.dumps({"do": "remove", "group": "hardware", "key": key}),
        "remove_says": f"Take off {item.name}, {placed.seat}",
    }


def _root(design: Design, placed: Placement) -> Placement:
    """The seated part at the end of the chain a part hangs on."""
    host = next((p for p in design.hardware if p.key == placed.hung_on), None)
    return _root(design, host) if host else placed


def _lip_row(design: Design) -> dict[str, Any]:
    if design.lip is None:
        return {}
    angle = design.lip.angle_deg
    runs = "lies along the axis: dives deep" if angle < 30 else ("stands across: stays shallow" if angle > 55 else "between deep and shallow")
    return {"name": design.lip.name, "says": f"{angle:.0f}° to the body axis, {runs}"}


def _body_facts(outcome: Outcome) -> list[Fact]:
    shape, design = outcome.solid, outcome.design
    host = design.host
    return [
        Fact("volume", "Body volume", f"{shape.volume_ml:.2f} ml", "Section areas added up along the length (Gauss quadrature of the curve as drawn)."),
        Fact("area", "Surface to coat", f"{shape.area_mm2 / 100:.1f} cm²", "The skin of the same curve, end faces included."),
        Fact(
            "blank",
            "Carved blank",
            f"{outcome.budget.parts[0].mass_g:.1f} g",
            f"{shape.volume_ml:.2f} ml × {host.density_g_cm3:.3f} g/cm³ {host.name}, ± {outcome.budget.parts[0].sd_g:.1f} g between sticks.",
            True,
        ),
        Fact("mass", "Finished bait", f"{outcome.budget.mass_g:.1f} g", "All parts, coats and allowances added; see the Tank for each.", True),
    ]


def _tank_part(outcome: Outcome, unit: str, looks: str) -> dict[str, Any]:
    looks = looks if looks in (SURFACE, UNDER) else default_view(outcome)
    design = outcome.design
    return {
        "picture": scene(outcome, looks, unit),
        "looks": looks if outcome.surface else UNDER,
        "can_float": bool(outcome.surface),
        "verdict": verdict_view(outcome),
        "facts": [asdict(fact) for fact in tank_facts(outcome)],
        "budget": [asdict(row) for row in budget_rows(outcome.budget.parts)],
        "total": show(outcome.budget.mass_g, "mass", 2),
        "unweighed": sum(p.is_estimate for p in outcome.budget.parts),
        "holes": [_hole_row(h) for h in design.ballast],
        "no_holes": not design.ballast,
        "others": [_other(i, p.attitude.pitch_deg, p.attitude.roll_deg, p.energy < outcome.surface[0].energy) for i, p in enumerate(outcome.surface[1:])],
    }


def _other(index: int, pitch: float, roll: float, deeper: bool) -> dict[str, str]:
    return {
        "key": str(index),
        "says": f"It can also rest at pitch {pitch:.0f}°, roll {roll:.0f}°" + (" and prefers that: it will turn over." if deeper else "."),
    }


def verdict_view(outcome: Outcome) -> dict[str, Any]:
    """The verdict's figures as text: net, share, band."""
    found = outcome.verdict
    if found.band_g is None:
        band = f"“{found.behaviour}” has no limit on its far side."
    else:
        fine = "more than half of it" if found.band_g < 0.2 else "finer than that"
        band = f"“{found.behaviour}” is {found.band_g:.2f} g wide; a 0.1 g scale step is {fine}."
    return {
        "sentence": found.sentence,
        "behaviour": found.behaviour,
        "band": band,
    }


def tank_facts(outcome: Outcome) -> list[Fact]:
    """Net, mass, pitch, speed, G and B with what they came from."""
    found, mass, water = outcome.verdict, outcome.budget, outcome.design.water
    estimate = any(p.is_estimate for p in mass.parts)
    held = outcome.hanging.held
    g, b = outcome.hanging.g_mm, outcome.hanging.b_mm
    rows = [
        Fact(
            "net",
            "Net lift",
            f"{_signed(found.net_g)} g ({_signed(100 * found.net_share, 1)} %)",
            f"{water.density_g_cm3:.4f} g/cm³ ({water.describe()}) × {mass.displaced_ml:.2f} ml under water − {mass.mass_g:.2f} g. Known to ± {mass.sd_g:.2f} g.",
            estimate,
        ),
        Fact(
            "mass",
            "Mass",
            f"{mass.mass_g:.2f} g",
            f"In air, for casting: all parts added, ± {mass.sd_g:.2f} g. In water it weighs {_signed(-found.net_g)} g.",
            estimate,
        ),
        Fact(
            "pitch",
            "Pitch",
            f"{_signed(outcome.hanging.free.pitch_deg, 1)}°",
            "B comes to lie straight above G; + is nose up." + (f" Held at its tie it hangs at {_signed(held.pitch_deg, 0)}°." if held else ""),
            estimate,
        ),
        Fact(
            "speed",
            "Speed",
            f"{_signed(found.speed_cm_s, 0)} cm/s",
            f"√(2 · net · g / (ρ · C_d · area)), C_d 0.9 assumed until timed, area {outcome.frontal_mm2 / 100:.1f} cm². + rises.",
            True,
        ),
        Fact(
            "bg",
            "B over G",
            f"{((g[0] - b[0]) ** 2 + (g[2] - b[2]) ** 2) ** 0.5:.1f} mm",
            f"G {g[0]:.1f} mm from the nose at height {_signed(g[2], 1)}, B {b[0]:.1f} mm at {_signed(b[2], 1)}. More is steadier, less is livelier.",
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


def _signed(value: float, digits: int = 2) -> str:
    text = f"{value:+.{digits}f}"
    return text.removeprefix("-").removeprefix("+") if float(text) == 0 else text.replace("-", "−")


def budget_rows(parts: tuple[Part, ...]) -> list[BudgetRow]:
    """The parts, the heaviest first, with a bar's share and where each figure is from."""
    heaviest = max((abs(p.mass_g) for p in parts), default=1.0) or 1.0
    rows = sorted((p for p in parts if abs(p.mass_g) > 0.0005), key=lambda p: -p.mass_g)
    return [
        BudgetRow(
            p.key,
            p.name,
            f"{_signed(p.mass_g) if p.mass_g < 0 else f'{p.mass_g:.2f}'} g",
            f"± {p.sd_g:.2f}",
            p.status,
            p.status in ESTIMATES,
            round(100 * abs(p.mass_g) / heaviest, 1),
        )
        for p in rows
    ]


def _hole_row(hole: Any) -> dict[str, Any]:
    return {
        "key": hole.key,
        "name": hole.slug.name,
        "says": f"{hole.drill_mm:g} mm drill, {hole.depth_mm:.1f} mm deep",
        "mass_path": f"ballast.{hole.key}.mass_g",
        "path": f"ballast.{hole.key}.x_mm",
        "mass_says": f"Mass of {hole.slug.name}",
        "place_says": f"{hole.slug.name} distance from the nose",
        "remove": json.dumps({"do": "remove", "group": "ballast", "key": hole.key}),
        "remove_says": f"Take out {hole.slug.name}",
    }


def _paints_part(outcome: Outcome, unit: str, looks: str) -> dict[str, Any]:
    design = outcome.design
    total = sum(p.mass_g for p in outcome.budget.parts if p.key.startswith("coat:"))
    hours = sum(c.wait_h for c in design.coats)
    return {
        "picture": paint_view(design, unit),
        "coats": [_coat_row(c, next(p for p in outcome.budget.parts if p.key == f"coat:{c.key}")) for c in design.coats],
        "no_coats": not design.coats,
        "coats_total": f"{total:.2f} g dry, {len(design.coats)} coats, {hours:.0f} h of waiting",
        "waits": hours,
    }


def _coat_row(coat: Any, part: Part) -> dict[str, Any]:
    window = f" to {coat.window_h:g} h" if coat.window_h else ""
    return {
        "key": coat.key,
        "name": coat.name,
        "role": coat.role,
        "colour": coat.colour,
        "mass": f"{part.mass_g:.2f} g",
        "wait": f"wait {coat.wait_h:g}{window}{'' if window else ' h'}",
        "path": f"coats.{coat.key}.film_um",
        "film": coat.mass_g is None,
        "film_says": f"{coat.name} dry film",
        "remove": json.dumps({"do": "remove", "group": "coats", "key": coat.key}),
        "remove_says": f"Leave out {coat.name}",
    }


_PARTS = {"shapes": _shapes_part, "tank": _tank_part, "paints": _paints_part}


def errors_of(error: Refused, path: str = "") -> dict[str, str]:
    """A refusal as the screens show it beside the field."""
    return {
        "field": path or error.field,
        "message": f"{error.given} cannot be used: {error.allowed}." if error.given not in (None, "") else f"{error.allowed}.",
    }
