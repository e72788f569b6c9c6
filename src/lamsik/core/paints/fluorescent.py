"""Fluorescent paint: an ordinary film, and light that it adds in its own band.

It adds in proportion to the light that reaches it: over white what comes back up from the ground excites it a
second time, what lies over it holds some of the exciting light and some of its own back.
"""

from dataclasses import dataclass

import numpy as np

from lamsik.core.paints.film import Curves, through
from lamsik.core.paints.light import BANDS_NM
from lamsik.core.shapes.curves import Array

BROAD_NM = 22.0
"""How broad the light is that a fluorescent paint adds, one standard deviation (a guess for all of them)."""
PEAKS_NM = BANDS_NM[2:-1]
"""Where it may lie: the light that excites it has shorter waves."""
LEAST_K = 1e-5


def band(peak_nm: float) -> Array:
    """The light a fluorescent paint adds, (16,), 1 at its peak."""
    return np.asarray(np.exp(-0.5 * ((BANDS_NM - peak_nm) / BROAD_NM) ** 2))


@dataclass(frozen=True, eq=False)
class Lit:
    """The light that a fluorescent paint adds, as it is seen.

    Args:
        peak_nm: where its band lies.
        over_white, over_black: how much at the peak, in the film of its swatch over both grounds.
        film_um: that film.
        white, black: what the grounds send back of the exciting light, under the surface.
        k_um: what the paint takes of the exciting light per µm.
    """

    peak_nm: float
    over_white: float
    over_black: float
    film_um: float
    white: float
    black: float
    k_um: float

    def grown(self, film_um: Array) -> Array:
        """How much films [µm] (n,) add of what the swatch does: the more of the exciting light they take."""
        k = 2.0 * max(self.k_um, LEAST_K)
        return np.asarray(np.expm1(-k * film_um) / np.expm1(-k * self.film_um))

    def reached(self, under: Array) -> Array:
        """How much a film of its swatch adds at the peak over what lies under it (16, n), (n,)."""
        back = under[self.exciting].mean(axis=0)
        slope = (self.over_white - self.over_black) / max(self.white - self.black, 0.1)
        return np.asarray(np.maximum(self.over_black + slope * (back - self.black), 0.0))

    def added(self, film_um: Array, under: Array) -> Array:
        """What films [µm] (n,) add over what lies under them (16, n), as it is seen (16, n)."""
        return np.asarray(band(self.peak_nm)[:, None] * (self.reached(under) * self.grown(film_um)))

    @property
    def exciting(self) -> Array:
        """Which bands excite it, (16,)."""
        return np.asarray(self.peak_nm > BANDS_NM)


def held_back(paint: Curves, film_um: Array) -> Array:
    """What films [µm] (n,) leave of the light that is added under them, in bands (16, n).

    Notes: its own light passes once, T; the exciting light, of shorter waves, passed once before it: the mean
        of T up to each band.
    """
    passes = through(paint, film_um)
    exciting = np.cumsum(passes, axis=0) / np.arange(1, len(passes) + 1)[:, None]
    return np.asarray(passes * exciting)
