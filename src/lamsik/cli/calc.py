"""`lamsik calc body`: what the Tank shows for a body document, as JSON with units in the names."""

from pathlib import Path
from typing import Any

from lamsik.core.shapes.hardware import Point
from lamsik.core.tank.evaluate import Outcome, settle
from lamsik.core.tank.floating import Floating
from lamsik.core.tank.parts import Part
from lamsik.documents.body.document import to_design
from lamsik.formats.body_file import opened
from lamsik.words.verdict import sentence


def calc_body(file: Path) -> dict[str, Any]:
    """The settled evaluation of a body document. Raises `Refused` on a bad file."""
    return report(settle(to_design(opened(file.read_bytes())[0])))


def report(outcome: Outcome) -> dict[str, Any]:
    """An outcome as plain values."""
    verdict, water, hanging = outcome.verdict, outcome.design.water, outcome.hanging
    told = {
        "format": "lamsik-tank",
        "version": 1,
        "name": outcome.design.name,
        "verdict": sentence(verdict),
        "behaviour": verdict.behaviour,
        "water": {
            "name": water.name,
            "temperature_c": water.temperature_c,
            "salinity_psu": water.salinity_psu,
            "density_g_cm3": round(water.density_g_cm3, 6),
        },
        "body": {
            "volume_ml": round(outcome.solid.volume_ml, 4),
            "centroid_mm": _rounded(outcome.solid.centroid_mm),
            "wetted_area_mm2": round(outcome.solid.area_mm2, 2),
        },
        "mass_g": round(outcome.budget.mass_g, 4),
        "mass_sd_g": round(outcome.budget.sd_g, 4),
        "displaced_ml": round(outcome.budget.displaced_ml, 4),
        "net_g": round(verdict.net_g, 4),
        "net_share": round(verdict.net_share, 5),
        "speed_cm_s": round(verdict.speed_cm_s, 2),
        "band_g": None if verdict.band_g is None else round(verdict.band_g, 4),
        "drag": outcome.drag,
        "drag_source": outcome.design.drag_source,
        "flooded_net_g": round(outcome.flooded_net_g, 4),
        "bg_mm": round(outcome.roll.arm_mm, 4),
        "roll_hz": round(outcome.roll.frequency_hz, 4),
        "g_mm": _rounded(hanging.g_mm),
        "b_mm": _rounded(hanging.b_mm),
        "hanging_free": {
            "pitch_deg": round(hanging.free.pitch_deg, 3),
            "roll_deg": round(hanging.free.roll_deg, 3),
        },
        "hanging_held": (
            None
            if hanging.held is None
            else {"pitch_deg": round(hanging.held.pitch_deg, 3), "roll_deg": round(hanging.held.roll_deg, 3)}
        ),
        "floating": [_floating(place) for place in outcome.surface],
        "parts": [_part(p) for p in outcome.budget.parts],
        "missing": [need.name for need in outcome.missing],
        "cannot_be_built": list(outcome.unbuilt),
    }
    return {**told, **dict.fromkeys(SWIMS, None)} if outcome.unbuilt else told


SWIMS = (
    "net_g",
    "net_share",
    "speed_cm_s",
    "band_g",
    "flooded_net_g",
    "bg_mm",
    "roll_hz",
    "hanging_free",
    "hanging_held",
    "floating",
)
"""What is not said of a body that cannot be built as drawn."""


def _part(part: Part) -> dict[str, Any]:
    return {
        "key": part.key,
        "name": part.name,
        "mass_g": round(part.mass_g, 4),
        "sd_g": round(part.sd_g, 4),
        "at_mm": _rounded(part.at_mm),
        "from": part.status,
    }


def _rounded(point: Point) -> list[float]:
    return [round(value, 4) for value in point]


def _floating(place: Floating) -> dict[str, float]:
    return {
        "pitch_deg": round(place.attitude.pitch_deg, 3),
        "roll_deg": round(place.attitude.roll_deg, 3),
        "draft_mm": round(place.draft_mm, 4),
        "freeboard_mm": round(place.freeboard_mm, 3),
        "force_residual": float(place.force_residual),
        "moment_residual": float(place.moment_residual),
    }
