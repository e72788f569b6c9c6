"""Looks compared: CIE Lab (D65, 2°) of light and of reflectances, and ΔE2000.

The conversions and the difference are scikit-image's, fetched when first asked for.
"""

from functools import lru_cache

import numpy as np

from lamsik.core.paints.light import FROM_XYZ, coded_of, seen
from lamsik.core.shapes.curves import Array

TO_XYZ = np.linalg.inv(FROM_XYZ)
TOLD_APART = 0.5
"""ΔE2000 at which nobody tells two looks apart."""


def lab_of(linear: Array) -> Array:
    """Lab of linear red, green and blue (…, 3), (…, 3)."""
    from skimage.color import xyz2lab  # noqa: PLC0415 - only who compares looks waits for it

    rows = np.clip(np.asarray(linear, dtype=float) @ TO_XYZ.T, 0.0, None)
    return np.asarray(xyz2lab(rows, illuminant="D65", observer="2"))


def lab_seen(reflectance: Array) -> Array:
    """Lab of what is seen of reflectances (…, 16), (…, 3)."""
    return lab_of(seen(reflectance))


def linear_of_lab(lab: Array) -> Array:
    """Linear red, green and blue of Lab (…, 3), (…, 3); beyond the screen's they are below 0 or over 1."""
    from skimage.color import lab2xyz  # noqa: PLC0415

    return np.asarray(lab2xyz(np.asarray(lab, dtype=float), illuminant="D65", observer="2") @ FROM_XYZ.T)


def hex_of_lab(lab: Array) -> str:
    """The colour `#RRGGBB` nearest to a Lab (3,) that a screen shows."""
    light, red, yellow = (float(one) for one in lab)
    return _hex(light, red, yellow)


@lru_cache(maxsize=2048)
def _hex(light: float, red: float, yellow: float) -> str:
    coded = coded_of(np.clip(linear_of_lab(np.array([light, red, yellow])), 0.0, 1.0))
    return "#" + "".join(f"{int(one):02X}" for one in coded)


def difference(one: Array, other: Array) -> Array:
    """ΔE2000 of Labs (…, 3), (…)."""
    from skimage.color import deltaE_ciede2000  # noqa: PLC0415

    return np.asarray(deltaE_ciede2000(one, other))  # type: ignore[no-untyped-call]
