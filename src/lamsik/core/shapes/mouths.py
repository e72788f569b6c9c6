"""The mouths of holes: what a drill takes of a rounded or sloping belly is not the flat disc at its belly
line.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lamsik.core.shapes.body import Body
from lamsik.core.shapes.columns import reach_of
from lamsik.core.shapes.curves import Array, phi_of_share, share_of_phi
from lamsik.core.shapes.quadrature import gauss_panels

STATIONS = 181


@lru_cache(maxsize=1)
def _chord() -> tuple[Array, Array]:
    """Turns across a disc, and the weight of each."""
    return gauss_panels(np.array([-np.pi / 2, np.pi / 2]), 10.0, 8)


def disc(radius_mm: float, breaks: Array) -> tuple[Array, Array, Array]:
    """Points of a disc and the ground each stands for, x, y [mm] and [mm²]; with breaks at some x."""
    inside = np.clip(breaks / radius_mm, -1.0, 1.0)
    turn, weight = gauss_panels(
        np.unique(np.concatenate([[-np.pi / 2, 0.0, np.pi / 2], np.arcsin(inside)])), 10.0, 6
    )
    chord, share = _chord()
    half = radius_mm * np.cos(turn)
    y = np.outer(half, np.sin(chord)).ravel()
    return (
        np.repeat(radius_mm * np.sin(turn), len(chord)),
        y,
        np.outer(weight * half**2, share * np.cos(chord)).ravel(),
    )


@dataclass(frozen=True, eq=False)
class Mouths:
    """What is missing at the mouth of a drill at places (n,) [mm]: volume [mm³], and its moments along the
    body and over the belly line [mm⁴].
    """

    x_mm: Array
    volume: Array
    along: Array
    up: Array

    def at(self, x_mm: Array) -> tuple[Array, Array, Array]:
        """Volume and moments of holes at some x (n,) [mm]."""
        moments = [np.interp(x_mm, self.x_mm, row) for row in (self.volume, self.along, self.up)]
        return moments[0], moments[1], moments[2]


@lru_cache(maxsize=64)
def mouths(body: Body, drill_mm: float, beside_mm: float = 0.0) -> Mouths:
    """The mouths of a drill along a body: the room between the height where it begins and the skin, less than
    nothing where the skin is lower.

    With `beside_mm` those of a mirrored pair so far from the middle, both together.
    """
    phi = np.linspace(0.0, np.pi, STATIONS)
    x = body.length_mm * share_of_phi(phi)
    belly = floor_mm(body, x, beside_mm)
    dx, dy, ground = disc(drill_mm / 2, np.zeros(0))
    ground = ground * (2 if beside_mm > 0 else 1)
    foot, _ = reach_of(body)((x[:, None] + dx).ravel(), np.tile(beside_mm + dy, len(x)))
    sag = np.where(np.isfinite(foot), foot, np.repeat(belly, len(dx))).reshape(len(x), -1) - belly[:, None]
    return Mouths(x, sag @ ground, sag @ (ground * dx), sag**2 / 2 @ ground)


def floor_mm(body: Body, x_mm: Array, beside_mm: float) -> Array:
    """Height of the skin at places (n,) along the belly line, or so far beside it [mm]; of the widest line
    where there is no body.
    """
    phi = phi_of_share(np.clip(x_mm / body.length_mm, 0.0, 1.0))
    if beside_mm <= 0:
        return body.bottom.at(phi)
    foot, _ = reach_of(body)(x_mm, np.full(x_mm.shape, beside_mm))
    return np.where(np.isfinite(foot), foot, body.widest_at(phi))
