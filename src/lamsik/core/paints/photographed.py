"""A colour off a photo, after a card of white, grey and black in it: read in linear light, and only where the
light was good enough.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from lamsik.core.errors import require, rule
from lamsik.core.paints.colour import TO_XYZ, difference, lab_of, linear_of_lab
from lamsik.core.paints.lab import Lab
from lamsik.core.shapes.curves import Array

Spot = tuple[float, float]
"""A place in a picture, from its left and from its top [px]."""
GREY_CARD: tuple[Lab, Lab, Lab] = (Lab(95.0), Lab(50.0), Lab(20.0))
"""A usual card: its white, grey and black."""
FULL, CLIPPED_SHARE = 251, 0.02
"""A channel so bright may be any brighter; so much of a patch may be."""
APART = 3.0
"""ΔE2000 by which the card may disagree with itself, or change from one side to the other."""
COLDEST_K, WARMEST_K, OFF_LOCUS = 10_000.0, 2_500.0, 0.03
"""Lamps there are, and how far from their line a cast may be (CIE 1960 uv)."""
PLANCK_STEPS = 160


@dataclass(frozen=True)
class PhotoLook:
    """A colour read off a photo: its look, how far its points lie apart (ΔE2000 of the farthest from their
    middle), the lamp that gives the photo's cast [K].
    """

    look: Lab
    apart: float
    lamp_k: float


def read_photo(
    pixels: NDArray[np.uint8],
    card: Sequence[Spot],
    points: Sequence[Spot],
    known: tuple[Lab, Lab, Lab] = GREY_CARD,
) -> PhotoLook:
    """The look at points of a photo (h, w, 3), after its card's white, grey and black.

    Notes: in linear light (IEC 61966-2-1) each channel is straight through the three patches by least squares
        of their shares; points are averaged.

    Raises:
        Refused: no point, a place beside the picture, a patch that is clipped, a card under two lamps or one
            that disagrees with itself, a cast that no lamp gives.
    """
    require(len(card) == 3, "card", len(card), rule("three-patches"))
    require(1 <= len(points) <= 20, "points", len(points), rule("points-on-bait"))
    reach = max(min(pixels.shape[:2]) // 120, 2)
    patches = [_patch(pixels, spot, reach) for spot in card]
    require(_clipped(patches[0]) <= CLIPPED_SHARE, "card", "white", rule("patch-clipped"))
    wanted = np.array([linear_of_lab(one.row) for one in known])
    seen = np.array([_linear(patch).reshape(-1, 3).mean(axis=0) for patch in patches])
    require(
        bool((seen[0] > 1.5 * seen[1]).all() and (seen[1] > seen[2]).all()), "card", "", rule("patch-order")
    )
    gain, lift = _straight(seen, wanted)
    for patch in patches[:2]:
        one, other = (_linear(half).reshape(-1, 3).mean(axis=0) * gain + lift for half in _halves(patch))
        changed = float(difference(lab_of(one), lab_of(other)))
        require(changed <= APART, "card", f"ΔE {changed:.1f}", rule("light-changes"))
    off = difference(lab_of(seen * gain + lift), np.array([one.row for one in known]))
    require(float(off.max()) <= APART, "card", f"ΔE {float(off.max()):.1f}", rule("card-agrees"))
    lamp_k, beside = _lamp(seen[0] - seen[2])
    is_lamp = beside <= OFF_LOCUS and WARMEST_K <= lamp_k <= COLDEST_K
    require(is_lamp, "card", f"{lamp_k:.0f} K", rule("no-lamp"))
    spots = [_patch(pixels, spot, reach) for spot in points]
    require(max(_clipped(spot) for spot in spots) <= CLIPPED_SHARE, "points", "", rule("point-clipped"))
    looks = np.array([_linear(spot).reshape(-1, 3).mean(axis=0) * gain + lift for spot in spots])
    middle = lab_of(np.maximum(looks.mean(axis=0), 0.0))
    apart = float(difference(lab_of(np.maximum(looks, 0.0)), np.broadcast_to(middle, looks.shape)).max())
    light, red, yellow = (round(float(one), 1) for one in middle)
    return PhotoLook(Lab(min(max(light, 0.0), 100.0), red, yellow), apart, lamp_k)


def _patch(pixels: NDArray[np.uint8], spot: Spot, reach: int) -> NDArray[np.uint8]:
    """The points round a place. Raises `Refused` for one beside the picture."""
    high, wide = pixels.shape[:2]
    x, y = round(spot[0]), round(spot[1])
    require(
        reach <= x < wide - reach and reach <= y < high - reach, "points", f"{x}, {y}", rule("in-picture")
    )
    return pixels[y - reach : y + reach + 1, x - reach : x + reach + 1]


def _linear(patch: NDArray[np.uint8]) -> Array:
    coded = patch.astype(float) / 255.0
    return np.where(coded <= 0.04045, coded / 12.92, ((coded + 0.055) / 1.055) ** 2.4)


def _clipped(patch: NDArray[np.uint8]) -> float:
    """What share of a patch is as bright as the camera can tell."""
    return float((patch >= FULL).any(axis=-1).mean())


def _halves(patch: NDArray[np.uint8]) -> tuple[NDArray[np.uint8], NDArray[np.uint8]]:
    middle = patch.shape[1] // 2
    return patch[:, :middle], patch[:, middle + 1 :]


def _straight(seen: Array, wanted: Array) -> tuple[Array, Array]:
    """Gain and lift of each channel, (3,) each, by the shares of what is wanted."""
    rows = []
    for n in range(3):
        weight = 1.0 / np.maximum(wanted[:, n], 0.02)
        left = np.column_stack([seen[:, n], np.ones(3)]) * weight[:, None]
        rows.append(np.linalg.lstsq(left, wanted[:, n] * weight, rcond=None)[0])
    both = np.array(rows)
    return both[:, 0], both[:, 1]


@lru_cache(maxsize=1)
def _locus() -> tuple[Array, Array]:
    """Temperatures of glowing bodies [K], even in their mireds, and their chromaticities u, v (CIE 1960)."""
    from coloraide import cmfs  # noqa: PLC0415 - 0.3 s that only who reads a photo waits for

    table = cmfs.CIE_1931_2DEG
    nm = np.arange(395.0, 706.0, 5.0)
    eyes = np.array([table[int(one)] for one in nm])
    kelvin = 1e6 / np.linspace(1e6 / 30_000.0, 1e6 / 1_500.0, PLANCK_STEPS)
    metres = nm * 1e-9
    light = metres**-5.0 / (np.exp(0.014387769 / (metres * kelvin[:, None])) - 1.0)
    return kelvin, _uv(light @ eyes)


def _uv(xyz: Array) -> Array:
    whole = xyz[..., 0] + 15.0 * xyz[..., 1] + 3.0 * xyz[..., 2]
    return np.stack([4.0 * xyz[..., 0] / whole, 6.0 * xyz[..., 1] / whole], axis=-1)


def _lamp(white: Array) -> tuple[float, float]:
    """The lamp whose cast a white has [K], by Planck's law, and how far beside its line it lies."""
    kelvin, line = _locus()
    away = np.linalg.norm(line - _uv(TO_XYZ @ np.maximum(white, 1e-9)), axis=1)
    at = int(np.argmin(away))
    return float(kelvin[at]), float(away[at])
