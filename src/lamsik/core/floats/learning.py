"""The shop's own finished floats teach their family: measured against computed capacity, by slope and
intercept; what to do with one that came out light.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lamsik.core.errors import require, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.floats.shotting import ShotTable
from lamsik.core.learning import SHOP, Learned
from lamsik.core.water import Water

LEAST = 3
"""A slope of its own needs as many floats; with fewer only the intercept is shifted."""


@dataclass(frozen=True)
class FamilyFit:
    """Measured = intercept [g] + slope · computed [g]; the spread [g] that is left over stands with the
    intercept.
    """

    slope: Learned = Learned(1.0)
    intercept_g: Learned = Learned(0.0)

    @property
    def count(self) -> int:
        """How many floats taught it."""
        return self.intercept_g.n

    def predict(self, computed_g: float) -> float:
        """What a float will measure that computes to so much [g]."""
        return self.intercept_g.value + self.slope.value * computed_g


NONE = FamilyFit()


def fit(pairs: Sequence[tuple[float, float]]) -> FamilyFit:
    """The family's fit from pairs of computed and measured capacity [g], by least squares.

    Floats that compute almost alike give no slope: then only the intercept is shifted.
    """
    if not pairs:
        return NONE
    computed, measured = np.array(pairs, dtype=float).T
    require(
        bool(np.all(np.isfinite(computed)) and np.all(np.isfinite(measured))),
        "pairs",
        "not finite",
        rule("finite-capacities"),
    )
    if len(pairs) < LEAST or np.ptp(computed) < 0.05 * max(abs(float(computed.mean())), 1e-6):
        shift = float((measured - computed).mean())
        rest = measured - computed - shift
        spread = float(rest.std(ddof=1)) if len(pairs) > 1 else None
        return FamilyFit(intercept_g=Learned(shift, len(pairs), spread, SHOP))
    slope, intercept = (float(v) for v in np.polyfit(computed, measured, 1))
    rest = measured - intercept - slope * computed
    spread = float(np.sqrt((rest**2).sum() / max(len(pairs) - 2, 1)))
    return FamilyFit(Learned(slope, len(pairs), None, SHOP), Learned(intercept, len(pairs), spread, SHOP))


def advice(
    measured_g: float, nominal_g: float, table: ShotTable, water: Water, loading_g: float = 0.0
) -> Finding:
    """What to do with a float that does not carry what it should: what to print on it, what to add, or
    what of its own loading to take off.
    """
    off = measured_g - nominal_g
    smallest = min(shot.pull_g(water) for shot in table.shots)
    if abs(off) < smallest / 2:
        return finding("carries-what-it-says", nominal=nominal_g)
    if off > 0:
        near = min(table.shots, key=lambda shot: abs(shot.pull_g(water) - off))
        return finding(
            "carries-more",
            off=off,
            measured=measured_g,
            shot=near.name,
            shot_g=near.mass_g,
            nominal=nominal_g,
        )
    return finding("light-take-off" if loading_g > -off else "light-wood", off=-off, measured=measured_g)
