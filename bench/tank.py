"""The Tank's deeper questions: stability, answers from a full bench, certainty, running depth, twins."""

from collections.abc import Iterator
from itertools import count
from typing import Any

import numpy as np

from bench.rows import Row, median_ms
from lamsik.core.shapes.ballast_holes import Slug
from lamsik.core.shapes.design import Design, Host, Want
from lamsik.core.tank.ballast import search
from lamsik.core.tank.ballast_base import Bench
from lamsik.core.tank.certainty import certainty
from lamsik.core.tank.floating import vessel_of_body
from lamsik.core.tank.mass import budget
from lamsik.core.tank.running import Tow, depth_curve
from lamsik.core.tank.sensitivities import effects, flips
from lamsik.core.tank.stability import righting_curve
from lamsik.core.tank.twins import twins
from tests.bodies import bait

METALS = (("lead", 11.34), ("tungsten", 18.0))
FORMS = (("rod", 4.0), ("rod", 5.0), ("rod", 6.0), ("rod", 8.0), ("ball", 5.5), ("ball", 7.0))
SLUGS = tuple(
    Slug(f"{metal} {form} {size:g}", form, metal, rho, size) for metal, rho in METALS for form, size in FORMS
)
FULL = Bench(SLUGS, (4.0, 4.5, 5.0, 5.5, 6.0, 6.5, 7.0, 8.0))


def unlike(**changes: Any) -> Iterator[Design]:
    """Baits of one shape of which no two are alike: nothing that is remembered of one answers for the
    next.
    """
    return (bait(**changes, glue_g=0.2 + 1e-4 * step) for step in count())


def tank_rows() -> list[Row]:
    """Rows of the Tank at full depth; never a bait it has seen."""
    baits = unlike()
    light = bait(host=Host("balsa", 0.2, 0.04))
    mass, vessel = budget(light), vessel_of_body(light.body)
    floats = unlike(
        host=Host("balsa", 0.2, 0.04), want=Want("floats", 20.0, 0.0, by="freeboard", freeboard_mm=6.0)
    )
    return [
        Row(
            "righting curve, 0 to 180° in 5° steps",
            150,
            median_ms(lambda: righting_curve(vessel, mass, 0.9995), 15),
        ),
        Row(
            "ballast answers: 12 slugs × 8 drills × places",
            200,
            median_ms(lambda: search(next(baits), FULL), 9),
        ),
        Row(
            "ballast answers for a waterline, each floated",
            1000,
            median_ms(lambda: search(next(floats), FULL), 3),
        ),
        Row("certainty, 4 000 draws", 600, median_ms(lambda: certainty(next(baits)), 15)),
        Row(
            "what would change it, and the flip waters", 200, median_ms(lambda: _what_changes(next(baits)), 9)
        ),
        Row("running depth, 60 points", 500, median_ms(lambda: _depths(next(baits)), 9)),
        Row("four material twins, matched", 1000, median_ms(lambda: twins(next(baits)), 5)),
    ]


def _what_changes(design: Design) -> None:
    effects(design)
    flips(design, budget(design))


def _depths(design: Design) -> None:
    depth_curve(design, budget(design), Tow(), 0.5, np.linspace(1.0, 60.0, 60))
