"""Light in bands: what the standard observer sees of a reflectance, the smoothest reflectance of a colour.

Sixteen bands of 20 nm from 400 to 700 nm; CIE 1931 2° observer and illuminant D65, by coloraide's tables.
"""

from functools import lru_cache

import numpy as np

from lamsik.core.shapes.curves import Array

BANDS_NM = np.arange(400.0, 701.0, 20.0)
LEAST, MOST = 0.004, 0.97
"""No paint is blacker or whiter."""
FROM_XYZ = np.array(
    [
        [3.2409699419, -1.5373831776, -0.4986107603],
        [-0.9692436363, 1.8759675015, 0.0415550574],
        [0.0556300797, -0.2039769589, 1.0569715142],
    ]
)
"""XYZ (D65) to linear sRGB (IEC 61966-2-1)."""


@lru_cache(maxsize=1)
def observer() -> Array:
    """What each band of a reflectance adds to linear red, green and blue, (16, 3); of white, 1, 1, 1."""
    from coloraide import cmfs, illuminants  # noqa: PLC0415 - 0.3 s that only who looks at paint waits for

    rows = []
    for band in BANDS_NM:
        near = range(int(band) - 10, int(band) + 10)
        rows.append(
            np.sum(
                [float(_light(illuminants.D65, nm)) * np.array(cmfs.CIE_1931_2DEG[nm]) for nm in near], axis=0
            )
        )
    linear = np.array(rows) @ FROM_XYZ.T
    return np.asarray(linear / linear.sum(axis=0))


def _light(table: object, nm: int) -> float:
    """A lamp's power at a wavelength, straight between the table's entries."""
    low = nm - nm % 5
    first, last = float(table[low]), float(table[low + 5])  # type: ignore[index]
    return first + (last - first) * (nm - low) / 5


def linear_of(colour: str) -> Array:
    """Linear red, green and blue of a colour `#RRGGBB` (IEC 61966-2-1)."""
    coded = np.array([int(colour[n : n + 2], 16) for n in (1, 3, 5)]) / 255.0
    return np.asarray(np.where(coded <= 0.04045, coded / 12.92, ((coded + 0.055) / 1.055) ** 2.4))


def coded_of(linear: Array) -> Array:
    """Linear values as they are shown, 0 to 255, of the same shape (IEC 61966-2-1); beyond white is white."""
    place = np.clip(np.sqrt(np.clip(linear, 0.0, 1.0)) * (len(_CODED) - 1), 0, len(_CODED) - 1)
    return np.asarray(_CODED[place.astype(np.int32)])


def _coded_table() -> Array:
    linear = np.linspace(0.0, 1.0, 2048) ** 2  # even in the root: dark tones are told apart
    coded = np.where(linear <= 0.0031308, 12.92 * linear, 1.055 * linear ** (1 / 2.4) - 0.055)
    return np.asarray(np.round(255.0 * coded).astype(np.uint8))


_CODED = _coded_table()


def seen(reflectance: Array) -> Array:
    """Linear red, green and blue of reflectances (…, 16), (…, 3)."""
    return np.asarray(reflectance @ observer())


@lru_cache(maxsize=512)
def reflectance(colour: str) -> Array:
    """The smoothest reflectance that looks like a colour, (16,).

    Notes: least squares of second differences under the three equations of the observer, bands beyond
        what a paint can be are held there and the rest solved again; a colour no paint has comes out near.
    """
    wanted, weights = linear_of(colour), observer()
    count = len(BANDS_NM)
    bend = np.diff(np.eye(count), 2, axis=0)
    cost = bend.T @ bend + 1e-6 * np.eye(count)
    held = np.full(count, np.nan)
    row = np.zeros(count)
    for _ in range(count):
        free = np.isnan(held)
        if free.sum() < 3:
            break
        known = np.where(free, 0.0, held)
        left = np.block(
            [
                [cost[np.ix_(free, free)], weights[free]],
                [weights[free].T, np.zeros((3, 3))],
            ]
        )
        right = np.concatenate([-(cost @ known)[free], wanted - weights.T @ known])
        row = known.copy()
        row[free] = np.linalg.lstsq(left, right, rcond=None)[0][: int(free.sum())]
        beyond = free & ((row < LEAST) | (row > MOST))
        if not beyond.any():
            break
        held[beyond] = np.clip(row[beyond], LEAST, MOST)
    return np.asarray(np.clip(row, LEAST, MOST))
