"""What mixed swatches teach: how strong each paint is among others, and how well mixtures are foretold."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import least_squares

from lamsik.core.paints.colour import difference
from lamsik.core.paints.lab import Lab
from lamsik.core.paints.mixing import Backing, Tint, labs_mixed, shares
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
    rows = _Rows(tints, good)
    log, covariance = rows.fitted(np.ones(len(good), bool), read_to, np.zeros(len(rows.codes)))
    missed = []
    if len(good) > 1:
        for n in range(len(good)):
            others, _ = rows.fitted(np.arange(len(good)) != n, read_to, log)
            missed.append(float(difference(rows.foretold(others)[n], rows.seen[n])))
    return Strengths(
        dict(zip(rows.codes, np.exp(log).tolist(), strict=True)),
        dict(zip(rows.codes, np.sqrt(covariance).tolist(), strict=True)),
        float(np.median(missed)) if missed else None,
        max(missed) if missed else None,
        len(good),
    )


class _Rows:
    """Swatches looked at together: what each is mixed of, on what, and how it looked, a row each."""

    def __init__(self, tints: Sequence[Tint], swatches: Sequence[MixedSwatch]) -> None:
        self.codes = list({one.code: one for one in tints})
        self._tints = list({one.code: one for one in tints}.values())
        self._grounds = [one.ground for one in swatches]
        self.parts = np.zeros((len(swatches), len(self.codes)))
        for row, one in enumerate(swatches):
            at = [self.codes.index(code) for code, _ in one.parts]
            of_row = shares([self._tints[n] for n in at], [drops for _, drops in one.parts])
            np.add.at(self.parts[row], at, of_row)
        self.seen = np.array([one.seen.row for one in swatches]).reshape(-1, 3)

    def foretold(self, log: Array) -> Array:
        """How they should look (n, 3) by the logarithms of all strengths."""
        return labs_mixed(self._tints, self.parts, np.exp(log), self._grounds)

    def fitted(self, chosen: NDArray[np.bool_], read_to: float, begin: Array) -> tuple[Array, Array]:
        """Logarithms of all strengths by the chosen rows, looked for from those it begins with, and their
        variances; of paints in no mixture nothing is known.
        """
        is_mixed = np.count_nonzero(self.parts, axis=1) > 1
        moved = np.flatnonzero(np.any(self.parts[chosen & is_mixed] > 0, axis=0))
        log, variance = np.zeros(len(self.codes)), np.full(len(self.codes), SPREAD**2)
        if not moved.size:
            return log, variance

        def off(of_moved: Array) -> Array:
            log[moved] = of_moved
            missed = (self.foretold(log) - self.seen)[chosen] / read_to
            return np.concatenate([missed.ravel(), of_moved / SPREAD])

        fit = least_squares(off, begin[moved], bounds=(-BOUND, BOUND), x_scale=SPREAD)
        log[moved] = fit.x
        variance[moved] = np.diag(np.linalg.inv(fit.jac.T @ fit.jac))
        return log, variance
