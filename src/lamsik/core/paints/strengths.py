"""What mixed swatches teach: how strong each paint is among others, and how well mixtures are foretold."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from scipy.optimize import least_squares

from lamsik.core.paints.colour import difference
from lamsik.core.paints.lab import Lab
from lamsik.core.paints.mixing import Backing, Tint, lab_mixed
from lamsik.core.shapes.curves import Array

READ_TO = 0.6
"""How far apart two readings of one look lie, of each of L*, a*, b* (one standard deviation)."""
SPREAD = 0.8
"""How far strengths lie apart before anything is known, of their logarithm."""
BOUND = 3.0


@dataclass(frozen=True, eq=False)
class MixedSwatch:
    """A mixture that was sprayed and looked at: code and drops of each paint, on what, and how it looked."""

    parts: tuple[tuple[str, float], ...]
    ground: Backing
    seen: Lab


@dataclass(frozen=True)
class Strengths:
    """What the mixed swatches say.

    Args:
        of: strength by code, 1 where no swatch says otherwise.
        spread: one standard deviation of it, as a share of it, by code.
        median, worst: ΔE2000 by which a swatch is missed when it is left out; None with fewer than two.
        count: so many swatches.
    """

    of: Mapping[str, float]
    spread: Mapping[str, float]
    median: float | None
    worst: float | None
    count: int


def strengths(tints: Sequence[Tint], swatches: Sequence[MixedSwatch], read_to: float = READ_TO) -> Strengths:
    """Strengths of paints by their mixed swatches, and how well each is foretold by the others.

    Notes: least squares of the logarithms (scipy), looks in L*, a*, b* over what a reading is good for, held
        to 1 by a spread wide enough to be moved by one swatch. Those that only paints at hand make up count.
    """
    known = {one.code: one for one in tints}
    good = [one for one in swatches if all(code in known for code, _ in one.parts)]
    log, covariance = _fitted(known, good, read_to)
    missed = []
    if len(good) > 1:
        for n, one in enumerate(good):
            others, _ = _fitted(known, [*good[:n], *good[n + 1 :]], read_to)
            missed.append(float(difference(_foretold(known, one, others), one.seen.row)))
    return Strengths(
        {code: float(np.exp(log.get(code, 0.0))) for code in known},
        {code: float(np.sqrt(covariance.get(code, SPREAD**2))) for code in known},
        float(np.median(missed)) if missed else None,
        max(missed) if missed else None,
        len(good),
    )


def _foretold(known: Mapping[str, Tint], swatch: MixedSwatch, log: Mapping[str, float]) -> Array:
    tints = [replace(known[code], strength=float(np.exp(log.get(code, 0.0)))) for code, _ in swatch.parts]
    return lab_mixed(tints, [drops for _, drops in swatch.parts], swatch.ground)


def _fitted(
    known: Mapping[str, Tint], swatches: Sequence[MixedSwatch], read_to: float
) -> tuple[dict[str, float], dict[str, float]]:
    """Logarithms of strengths by code, and their variances; of paints in no mixture nothing is known."""
    codes = sorted({code for one in swatches if len(one.parts) > 1 for code, _ in one.parts})
    if not codes:
        return {}, {}

    def off(log: Array) -> Array:
        by_code = dict(zip(codes, log, strict=True))
        looks = [(_foretold(known, one, by_code) - one.seen.row) / read_to for one in swatches]
        return np.concatenate([*looks, log / SPREAD])

    fit = least_squares(off, np.zeros(len(codes)), bounds=(-BOUND, BOUND), x_scale=SPREAD)
    covariance = np.diag(np.linalg.inv(fit.jac.T @ fit.jac))
    return dict(zip(codes, fit.x, strict=True)), dict(zip(codes, covariance, strict=True))
