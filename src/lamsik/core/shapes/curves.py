"""Smooth curves along the body through the maker's points.

Stations run from nose (0) to tail (L). With x = L(1 − cos φ)/2 every curve, its rounded
ends included, is smooth in φ; all work along the body is therefore done in φ.
"""

from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import PchipInterpolator

from lamsik.core.errors import require, rule

Array = NDArray[np.float64]


def phi_of_share(share: Array) -> Array:
    """Station angle φ [rad] of a share of the length (0 nose, 1 tail)."""
    return np.arccos(np.clip(1.0 - 2.0 * share, -1.0, 1.0))


def share_of_phi(phi: Array) -> Array:
    """Share of the length at a station angle φ [rad]."""
    return np.asarray(0.5 * (1.0 - np.cos(phi)))


@dataclass(frozen=True)
class Curve:
    """A shape-preserving curve (PCHIP) through points (share of length, value [mm]).

    A rounded end meets the axis with a square-root start, as a carved nose does; a
    straight end runs into it like a cone.
    """

    shares: tuple[float, ...]
    values_mm: tuple[float, ...]
    round_nose: bool = True
    round_tail: bool = True

    def __post_init__(self) -> None:
        require(len(self.shares) >= 2, "shares", len(self.shares), rule("least-points"))
        require(
            len(self.shares) == len(self.values_mm),
            "values",
            len(self.values_mm),
            rule("values-needed", count=len(self.shares)),
        )
        rising = all(a < b for a, b in zip(self.shares, self.shares[1:], strict=False))
        require(
            rising and self.shares[0] == 0 and self.shares[-1] == 1,
            "shares",
            self.shares,
            rule("shares-rise-nose"),
        )

    @cached_property
    def _hash(self) -> int:
        return hash((self.shares, self.values_mm, self.round_nose, self.round_tail))

    def __hash__(self) -> int:  # a body is looked up by its curves many hundred times in one search
        return self._hash

    def at(self, phi: Array) -> Array:
        """Values [mm] at station angles φ [rad]."""
        t, _ = self.parameter(phi)
        return np.asarray(_spline(self)(t))

    def slope(self, phi: Array) -> Array:
        """Derivative of the value by φ [mm/rad] at station angles φ [rad]."""
        t, dt = self.parameter(phi)
        return np.asarray(_spline(self)(t, 1) * dt)

    def knots(self) -> Array:
        """Station angles φ [rad] of the points: where the third derivative jumps."""
        return phi_of_share(np.array(self.shares))

    def parameter(self, phi: Array) -> tuple[Array, Array]:
        """The parameter t in [0, 1] in which the curve is a PCHIP, and dt/dφ, at station angles φ [rad]."""
        if self.round_nose and self.round_tail:
            return phi / np.pi, np.full_like(phi, 1.0 / np.pi)
        if self.round_nose:
            return np.sin(phi / 2), np.cos(phi / 2) / 2
        if self.round_tail:
            return 1.0 - np.cos(phi / 2), np.sin(phi / 2) / 2
        return share_of_phi(phi), np.sin(phi) / 2


@lru_cache(maxsize=512)
def _spline(curve: Curve) -> PchipInterpolator:
    t, _ = curve.parameter(curve.knots())
    return PchipInterpolator(t, np.array(curve.values_mm), extrapolate=True)
