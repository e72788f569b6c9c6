"""What the design screens show of one document: built here, bound by static/js/shared/bind.js."""

import json
from dataclasses import asdict, dataclass
from typing import Any

from lamsik.core.errors import Refused
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Placement
from lamsik.core.tank import evaluate
from lamsik.core.tank.evaluate import Near, Outcome, Rules
from lamsik.core.tank.mass import NOTHING, Measured
from lamsik.core.units import show
from lamsik.formats.body_document import Document, to_design
from lamsik.formats.edits import quantity_of
from lamsik.web.paints.state import paints_part
from lamsik.web.pictures.body import three_views
from lamsik.web.shared.facts import Fact
from lamsik.web.tank.state import TankAsked, TankShop, tank_part

DIGITS = {
    "length": 1,
    "mass": 2,
    "density": 3,
    "temperature": 1,
    "angle": 1,
    "thickness": 0,
    "time": 1,
    "speed": 1,
    "salinity": 1,
    "percent": 1,
    "distance": 1,
    "pace": 1,
    "seconds": 1,
    "number": 2,
}
"""Digits shown after the point, by quantity."""

BENCHES = ("shapes", "tank", "paints")


@dataclass(frozen=True)
class Asked:
    """How a design is looked at: bench, unit, settled or dragging, posture and side of the picture, warm start, trail of G.

    `shop` is what the Tank's settled answers choose from; None while dragging.
    """

    bench: str
    unit: str = "mm"
    settled: bool = True
    looks: str = ""
    facing: str = ""
    near: Near | None = None
    trail: tuple[tuple[float, float], ...] = ()
    measured: Measured = NOTHING
    shop: TankShop | None = None


def view(document: Document, rules: Rules, asked: Asked) -> dict[str, Any]:
    """The part of the state that is computed from the document, for one bench."""
    design = to_design(document)
    outcome = evaluate.settle(design, asked.measured, rules) if asked.settled else evaluate.drag(design, asked.measured, rules, asked.near)
    shared = {
        "name": design.name,
        "fields": fields(document, asked.unit),
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
            "by": design.want.by,
            "roll": design.want.roll,
            "tie": next((p.seat for p in design.hardware if p.item.kind == "line_tie"), ""),
            "hooks": next((p.item.code for p in design.hardware if p.item.kind == "hook"), ""),
        },
    }
    if asked.bench == "tank":
        return {**shared, **tank_part(outcome, TankAsked(asked.unit, asked.looks, asked.facing, asked.trail, asked.shop))}
    return {**shared, **_PARTS[asked.bench](outcome, asked.unit, asked.looks)}


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


_PARTS = {"shapes": _shapes_part, "paints": paints_part}


def errors_of(error: Refused, path: str = "") -> dict[str, str]:
    """A refusal as the screens show it beside the field."""
    return {
        "field": path or error.field,
        "message": f"{error.given} cannot be used: {error.allowed}." if error.given not in (None, "") else f"{error.allowed}.",
    }
