"""A paint by its swatch: from its look over white and over black to what it absorbs and scatters.

Two looks are six numbers, a paint's curves in bands are thirty-two: of all pairs of reflectance curves that
have these looks the smoothest is taken, both fitted together, so that they never cross.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from scipy.optimize import brentq, nnls

from lamsik.core.errors import Refused, require, rule
from lamsik.core.paints.colour import TO_XYZ, TOLD_APART, difference, lab_of, lab_seen, linear_of_lab
from lamsik.core.paints.film import INNER, OUTER, Curves, curves_of, over_surface, under_surface
from lamsik.core.paints.fluorescent import PEAKS_NM, Lit, band
from lamsik.core.paints.lab import Lab
from lamsik.core.paints.light import BANDS_NM, observer
from lamsik.core.paints.paint import Paint
from lamsik.core.paints.swatch import Swatch
from lamsik.core.shapes.curves import Array

HEAVY = 1e3
"""How much more the looks count than the smoothness."""
NEAR_ENOUGH = 1.0
"""ΔE2000 by which the fitted curves may miss a look; beyond it no surface has it."""
FLUORESCENT = "fluorescent"
"""The kind of paint that adds light of its own."""
DIM = 1.0
"""What added light costs, beside the smoothness: an ordinary surface is tried before it."""
LEAST_R = 1e-4
DEEP = 12.0


@dataclass(frozen=True, eq=False)
class PaintCurves:
    """What a swatch says of its paint, in bands (16,): reflectances over white and over black as they are
    seen under a gloss, K and S per µm of dry film.

    Args:
        is_opaque: its two looks cannot be told apart: K/S is known, of S only that it is no less.
        lit: the light that it adds besides, of a fluorescent one.
    """

    over_white: Array
    over_black: Array
    k_um: Array
    s_um: Array
    is_opaque: bool
    lit: Lit | None = None


@lru_cache(maxsize=256)
def measured(swatch: Swatch, is_lit: bool = False) -> PaintCurves:
    """Curves of a paint by its swatch; of a fluorescent one (`is_lit`) the least light added besides that
    its looks ask for.

    Notes: least squares of the second differences of both curves under 0 ≤ R_black ≤ R_white ≤ R of the bare
        white in every band (non-negative least squares in R_black, their difference and what is left to the
        card, scipy's). Then a and c = b·coth(bSh) of both grounds: a(R + g) + c(R − g) = 1 + Rg.

    Raises:
        Refused: no surface looks so: darker over white than over black, lighter than the card, or a colour
            that is none of a surface's.
    """
    grounds = [
        smoothest(swatch.card_white, "card_white", swatch.glossy),
        smoothest(swatch.card_black, "card_black", swatch.glossy),
    ]
    white, black, light = _lit_pair(swatch, grounds[0]) if is_lit else (*_pair(swatch, grounds[0]), None)
    is_opaque = float(difference(lab_seen(white), lab_seen(black))) < TOLD_APART
    r1, r2 = (np.clip(under_surface(row), LEAST_R, None) for row in (white, black))
    g1, g2 = (under_surface(row) for row in grounds)
    a, s_h = _scattering(r1, r2, g1, g2)
    if is_opaque:
        a, s_h = _least_scattering((r1 + r2) / 2.0, g1, g2)
    s_um = s_h / swatch.film_um
    k_um = (a - 1.0) * s_um
    lit = None
    if light is not None:
        peak, more_white, more_black = light
        exciting = peak > BANDS_NM
        back = (float(g1[exciting].mean()), float(g2[exciting].mean()))
        taken = float(k_um[exciting].mean())
        lit = Lit(peak, more_white, more_black, swatch.film_um, *back, taken)
    return PaintCurves(white, black, k_um, s_um, is_opaque, lit)


def curves_for(paint: Paint) -> Curves:
    """The curves of a paint: by its swatch, or where it has none by its colour and covering power."""
    known = known_of(paint)
    return curves_of(paint) if known is None else curves_measured(known.k_um, known.s_um)


def known_of(paint: Paint) -> PaintCurves | None:
    """What the swatch of a paint says; None where it has none, or none that a surface can have."""
    if paint.swatch is None:
        return None
    try:
        return measured(paint.swatch, paint.kind == FLUORESCENT)
    except Refused:
        return None


def curves_measured(k_um: Array, s_um: Array) -> Curves:
    """K and S per µm (16,) as films are computed from; a filter scatters a trace."""
    s = np.maximum(s_um, 1e-6 * np.maximum(k_um, 1e-6))
    a = np.maximum(1.0 + k_um / s, 1.0 + 1e-7)
    return Curves(a, np.sqrt(a**2 - 1.0), s)


def _plain(lab: Lab, glossy: bool) -> Array:
    """A look without the surface's own haze, linear (3,); what is darker than that is black."""
    plain = linear_of_lab(lab.row) - (0.0 if glossy else OUTER)
    return plain if float(TO_XYZ[1] @ plain) > LEAST_R else np.full(3, LEAST_R)


def smoothest(lab: Lab, name: str, glossy: bool = False) -> Array:
    """The smoothest reflectance with a look, as it is seen under a gloss (16,). Raises `Refused` where no
    surface has it, naming the field.
    """
    top = (1.0 - OUTER) * (1.0 - INNER) / (1.0 - INNER)
    rows = _smooth([_plain(lab, glossy)], np.full(len(BANDS_NM), top))
    _is_near(rows[0], lab, glossy, name)
    return rows[0]


def _pair(swatch: Swatch, ground: Array) -> tuple[Array, Array]:
    """The smoothest pair of curves with these looks, over white and over black."""
    looks = [_plain(one, swatch.glossy) for one in (swatch.black, swatch.white)]
    black, white = _smooth(looks, ground)
    for row, lab, name in ((white, swatch.white, "white"), (black, swatch.black, "black")):
        _is_near(row, lab, swatch.glossy, name)
    return white, black


def _lit_pair(swatch: Swatch, ground: Array) -> tuple[Array, Array, tuple[float, float, float]]:
    """The smoothest pair of curves with these looks and the least light besides: peak of its band [nm], how
    much over white and over black.
    """
    looks = [_plain(one, swatch.glossy) for one in (swatch.black, swatch.white)]
    fits = [(*_fitted(looks, ground, band(peak)), float(peak)) for peak in PEAKS_NM]
    (black, white), (more_black, more_white), _, peak = min(fits, key=lambda fit: fit[2])
    for row, more, lab, name in (
        (white, more_white, swatch.white, "white"),
        (black, more_black, swatch.black, "black"),
    ):
        _is_near(row + more * band(peak), lab, swatch.glossy, name)
    return white, black, (peak, float(more_white), float(more_black))


def _smooth(looks: list[Array], top: Array) -> list[Array]:
    """The smoothest curves with these looks, each at least the one before and none over the top."""
    return _fitted(looks, top)[0]


def _fitted(
    looks: list[Array], top: Array, light: Array | None = None
) -> tuple[list[Array], list[float], float]:
    """The same, with how much of a band of light (16,) each look has besides, and what is left over.

    Notes: unknowns are the steps from curve to curve and from the last to the top, all of them 0 or more, and
        as much of the light.
    """
    count, steps = len(BANDS_NM), len(looks) + 1
    bend = np.diff(np.eye(count), 2, axis=0)
    left, right = [], []
    for n, look in enumerate(looks):
        summed = np.concatenate([np.full(n + 1, 1.0), np.zeros(steps - n - 1)])
        left += [np.kron(summed, bend), HEAVY * np.kron(summed, observer().T)]
        right += [np.zeros(count - 2), HEAVY * look]
    left.append(HEAVY * np.kron(np.ones(steps), np.eye(count)))
    right.append(HEAVY * top)
    matrix, wanted = np.vstack(left), np.concatenate(right)
    if light is not None:
        more = np.zeros((len(matrix), len(looks)))
        for n in range(len(looks)):
            first = n * (count + 1) + count - 2
            more[first : first + 3, n] = HEAVY * (observer().T @ light)
        cost = np.hstack([np.zeros((len(looks), matrix.shape[1])), DIM * np.eye(len(looks))])
        matrix = np.vstack([np.hstack([matrix, more]), cost])
        wanted = np.concatenate([wanted, np.zeros(len(looks))])
    steps_and_light, left_over = nnls(matrix, wanted)
    rows = steps_and_light[: steps * count].reshape(steps, count)
    curves = [np.asarray(row) for row in np.cumsum(rows, axis=0)[:-1]]
    return curves, [float(one) for one in steps_and_light[steps * count :]], float(left_over)


def _is_near(row: Array, lab: Lab, glossy: bool, name: str) -> None:
    """Raises `Refused` where the curve does not look as asked: no surface does."""
    off = float(difference(lab_seen(row + OUTER), lab_of(_plain(lab, glossy) + OUTER)))
    require(off <= NEAR_ENOUGH, name, lab.said, rule("no-surface"))


def _scattering(r1: Array, r2: Array, g1: Array, g2: Array) -> tuple[Array, Array]:
    """a and S·h of a film that looks r1 over g1 and r2 over g2, under the surface."""
    one, other = (r1 + g1, r1 - g1), (r2 + g2, r2 - g2)
    whole = one[0] * other[1] - other[0] * one[1]
    first, second = 1.0 + r1 * g1, 1.0 + r2 * g2
    safe = np.where(np.abs(whole) > 1e-12, whole, 1e-12)
    a = np.maximum((first * other[1] - second * one[1]) / safe, 1.0 + 1e-7)
    b = np.sqrt(a**2 - 1.0)
    c = (one[0] * second - other[0] * first) / safe
    return a, np.clip(np.arctanh(np.clip(b / np.maximum(c, 1e-12), 0.0, 1.0 - 1e-10)) / b, 0.0, DEEP)


def _least_scattering(r: Array, g1: Array, g2: Array) -> tuple[Array, Array]:
    """a, and the least S·h, of a film that hides what is under it: as thin as it may be for its two looks
    not to be told apart.
    """
    a = np.maximum((1.0 / r + r) / 2.0, 1.0 + 1e-7)
    b = np.sqrt(a**2 - 1.0)

    def apart(s_h: float) -> float:
        deep = b / np.tanh(np.clip(b * s_h, 1e-9, 40.0))
        looks = [over_surface((1.0 - g * (a - deep)) / (a - g + deep), True) for g in (g1, g2)]
        return float(difference(*(lab_seen(row) for row in looks))) - TOLD_APART

    least = brentq(apart, 1e-3, 400.0) if apart(1e-3) > 0 > apart(400.0) else DEEP
    return a, np.full(len(r), least)
