"""`lamsik calc match`: recipes for a wanted colour from the paints in its file, as JSON."""

from pathlib import Path
from typing import Any

from lamsik.core.paints.matching import Recipe
from lamsik.core.paints.taught import recipes, taught
from lamsik.formats import match_file


def calc_match(file: Path) -> dict[str, Any]:
    """The best recipes of one, two and three paints, and how well mixtures are foretold."""
    match, shelf, mixed = match_file.read(file.read_bytes())
    known = taught(shelf, mixed)
    return {
        "format": "lamsik-matched",
        "version": 1,
        "name": match.name,
        "wanted_lab": [float(one) for one in match.wanted.row],
        "recipes": [_recipe(one) for one in recipes(match, shelf, mixed)],
        "model": {
            "swatches": known.count,
            "median_delta_e": None if known.median is None else round(known.median, 3),
            "worst_delta_e": None if known.worst is None else round(known.worst, 3),
            "strengths": {code: round(one, 3) for code, one in known.of.items()},
        },
    }


def _recipe(one: Recipe) -> dict[str, Any]:
    return {
        "drops": dict(one.parts),
        "look_lab": [round(float(value), 2) for value in one.look.row],
        "delta_e": round(one.off, 3),
        "cost": round(one.cost, 4),
    }
