"""A casting that shall be like a carved original: the filler share or foam density for the same mass and
G.
"""

from dataclasses import dataclass

import numpy as np

from lamsik.core.findings import Finding, finding
from lamsik.core.materials import BODY_MATERIALS
from lamsik.core.mixes.filler import Filling, filling_for
from lamsik.core.shapes.design import Design
from lamsik.core.tank import evaluate
from lamsik.core.tank.evaluate import STANDARD, Rules
from lamsik.core.tank.mass import NOTHING, Measured
from lamsik.core.tank.twins import matched_design, moulded


@dataclass(frozen=True)
class Match:
    """The casting like the original: density of its material [g/cm³], filler, mass [g], how far G is off
    [mm], the design that gives it.
    """

    density_g_cm3: float
    filling: Filling | None
    original_g: float
    mass_g: float
    off_mm: float
    design: Design
    says: Finding


def matched(
    design: Design,
    cast_g_cm3: float,
    filler_g_cm3: float | None,
    measured: Measured = NOTHING,
    rules: Rules = STANDARD,
) -> Match | None:
    """The density, and with a filler its share, that gives a casting the original's mass and G; its slugs
    move for G.

    None where no density in reach gives it. The inserts keep their masses; the casting's own wire and coats
    count.
    """
    original = evaluate.drag(design, measured, rules)
    material = BODY_MATERIALS["cast urethane" if filler_g_cm3 is not None else "rigid foam"]
    equal = matched_design(moulded(design, material), original)
    if equal is None:
        return None
    outcome = evaluate.drag(equal, NOTHING, rules)
    density = equal.host.density_g_cm3
    filling = None
    if filler_g_cm3 is not None:
        low, high = sorted((cast_g_cm3, filler_g_cm3))
        if low < density < high:
            filling = filling_for(density, cast_g_cm3, filler_g_cm3)
    off = float(np.linalg.norm(np.subtract(outcome.budget.g_mm, original.budget.g_mm)))
    return Match(
        density,
        filling,
        original.budget.mass_g,
        outcome.budget.mass_g,
        off,
        equal,
        _says(density, filling, filler_g_cm3, cast_g_cm3),
    )


def _says(density: float, filling: Filling | None, filler: float | None, cast: float) -> Finding:
    if filler is None:
        return finding("foam-at", density=density)
    if filling is None:
        return finding("density-out-of-reach", density=density, cast=cast, filler=filler)
    hard = finding("hard-to-pour") if filling.stiff else None
    full = finding("more-than-packs") if not filling.mixes else None
    return finding(
        "filler-shares",
        mass_share=100 * filling.mass_share,
        volume_share=100 * filling.volume_share,
        density=density,
        hard=hard,
        full=full,
    )
