"""One film of paint over what lies under it: two-constant Kubelka–Munk on bands of wavelength.

Inside, reflectances are those under the surface; what is seen is corrected for the surface's own reflection
(Saunderson). A typed colour is that of the paint on a finished body, under a glossy clear; before the clear
the matt surface sends a haze of its own besides, which is why a clear deepens colours.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lamsik.core.paints.light import LEAST, reflectance
from lamsik.core.paints.paint import Paint
from lamsik.core.shapes.curves import Array

OUTER, INNER = 0.04, 0.5
"""What the surface sends back of light from outside (k₁) and from inside (k₂)."""
CARD_WHITE = 0.92
"""The white of the card a swatch is looked at on, under its surface; its black sends nothing back."""
DEEPEST = 40.0
"""Beyond this bSh a film hides all that lies under it: coth is 1."""


def under_surface(looks: Array) -> Array:
    """Reflectance under the surface of a glossy look.

    Notes: R_seen = (1 − k₁)(1 − k₂)R/(1 − k₂R), undone; what the surface itself sends back goes to one side.
    """
    over = np.clip(looks, LEAST * 0.1, None)
    return np.asarray(over / ((1.0 - OUTER) * (1.0 - INNER) + INNER * over))


def over_surface(inside: Array, is_glossy: bool) -> Array:
    """What is seen of a reflectance under the surface; a glossy one sends its own reflection to one side."""
    shown = (1.0 - OUTER) * (1.0 - INNER) * inside / (1.0 - INNER * inside)
    return np.asarray(shown if is_glossy else shown + OUTER)


@dataclass(frozen=True, eq=False)
class Curves:
    """A paint in bands: a = 1 + K/S, b = √(a² − 1), and S per µm, (16,) each."""

    a: Array
    b: Array
    s_um: Array


@lru_cache(maxsize=512)
def curves(colour: str, covering_share: float, swatch_um: float) -> Curves:
    """The curves of a paint of a colour that hides so much under a film of a swatch.

    Notes: the pair of looks is the smoothest reflectance over white, and the covering share of it over black;
        a = ½[R_w + (R_b − R_w + R_g)/(R_b·R_g)], bSh = arcoth((1 − aR_b)/(bR_b)). The least of a is held a
        hair over 1, where a white that absorbs nothing would be.
    """
    white = np.clip(under_surface(reflectance(colour)), 1e-4, 0.995 * CARD_WHITE)
    black = np.clip(covering_share * white, 1e-5, None)
    a = (white + (black - white + CARD_WHITE) / (black * CARD_WHITE)) / 2.0
    a = np.maximum(a, 1.0 + 1e-7)
    b = np.sqrt(a**2 - 1.0)
    coth = np.maximum((1.0 - a * black) / (b * black), 1.0 + 1e-9)
    return Curves(a, b, np.arctanh(1.0 / coth) / b / swatch_um)


def curves_of(paint: Paint) -> Curves:
    """The curves of a paint by its colour and covering power."""
    return curves(paint.colour, paint.covering_share, paint.swatch_um)


def bcoth(paint: Curves, film_um: Array) -> Array:
    """b·coth(bSh) of films [µm] (n,), (16, n): all that a film of a paint does to what lies under it."""
    depth = np.clip(paint.b[:, None] * paint.s_um[:, None] * np.maximum(film_um, 1e-9), 1e-12, DEEPEST)
    return np.asarray(paint.b[:, None] / np.tanh(depth))


def through(paint: Curves, film_um: Array) -> Array:
    """What films [µm] (n,) let through, (16, n): T = b/(a sinh bSh + b cosh bSh)."""
    depth = np.clip(paint.b[:, None] * paint.s_um[:, None] * np.maximum(film_um, 0.0), 0.0, DEEPEST)
    a, b = paint.a[:, None], paint.b[:, None]
    return np.asarray(b / (a * np.sinh(depth) + b * np.cosh(depth)))


def over(paint: Curves, film_um: Array, under: Array) -> Array:
    """Reflectance of films [µm] (n,) over what lies under them (16, n), under the surface.

    Notes: R = [1 − R_g(a − b coth bSh)]/[a − R_g + b coth bSh]; n passes are one film n times as thick.
    """
    deep, a = bcoth(paint, film_um), paint.a[:, None]
    return np.asarray((1.0 - under * (a - deep)) / (a - under + deep))
