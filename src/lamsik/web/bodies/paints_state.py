"""What a design in its scheme shows: the painted silhouette and its coats in order."""

import json
from typing import Any

from lamsik.core.paints.coats import Coat
from lamsik.core.tank.evaluate import Outcome
from lamsik.core.tank.parts import Part
from lamsik.drawings.body import paint_view


def paints_part(outcome: Outcome, unit: str, looks: str) -> dict[str, Any]:
    """The Paint side of a design: picture, coats with their dry mass, sums."""
    design = outcome.design
    total = sum(p.mass_g for p in outcome.budget.parts if p.key.startswith("coat:"))
    hours = sum(c.wait_h for c in design.coats)
    return {
        "picture": paint_view(design, unit),
        "coats": [
            _coat_row(c, next(p for p in outcome.budget.parts if p.key == f"coat:{c.key}"))
            for c in design.coats
        ],
        "no_coats": not design.coats,
        "coats_total": f"{total:.2f} g dry, {len(design.coats)} coats, {hours:.0f} h of waiting",
        "waits": hours,
    }


def _coat_row(coat: Coat, part: Part) -> dict[str, Any]:
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
