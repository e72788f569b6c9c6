"""Volume, centroid and wetted area of a body by section quadrature.

Section moments are exact (gamma functions); along x Gauss nodes in φ with panels split
at the curves' points. Never from a mesh, which is short by up to a percent.
"""

from dataclasses import dataclass
from functools import lru_cache
from math import gamma

import numpy as np

from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array, phi_of_share


@dataclass(frozen=True)
class Solid:
    """Volume [mm³], centroid (x, y, z) [mm], wetted area [mm²] and its centroid [mm]; how far from the middle
    plane the skin of one side lies, in the mean [mm].
    """

    volume_mm3: float
    centroid_mm: tuple[float, float, float]
    area_mm2: float
    area_centroid_mm: tuple[float, float, float]
    beside_mm: float = 0.0

    @property
    def volume_ml(self) -> float:
        """Volume [ml]."""
        return self.volume_mm3 / 1000.0


def half_superellipse_area(a: Array, b: Array, n: float) -> Array:
    """Area [mm²] of half a superellipse of half-width a and height b [mm].

    Notes: 2ab Γ(1+1/n)² / Γ(1+2/n), Dirichlet's integral.
    """
    return 2.0 * a * b * gamma(1 + 1 / n) ** 2 / gamma(1 + 2 / n)


def half_superellipse_moment(a: Array, b: Array, n: float) -> Array:
    """First moment about the widest line [mm³] of half a superellipse: 2ab²/n · B(2/n, 1+1/n)."""
    beta = gamma(2 / n) * gamma(1 + 1 / n) / gamma(1 + 3 / n)
    return 2.0 * a * b**2 * beta / n


@lru_cache(maxsize=16)
def _legendre(nodes: int) -> tuple[Array, Array]:
    unit, weight = np.polynomial.legendre.leggauss(nodes)
    return unit, weight


def gauss_panels(breaks: Array, widest: float, nodes: int) -> tuple[Array, Array]:
    """Gauss-Legendre nodes and weights over panels between breaks, none wider than `widest`."""
    edges = breaks
    if np.diff(breaks).max() > widest:
        pieces = [
            np.linspace(lo, hi, max(int(np.ceil((hi - lo) / widest)), 1) + 1)[:-1]
            for lo, hi in zip(breaks[:-1], breaks[1:], strict=True)
        ]
        edges = np.concatenate([*pieces, breaks[-1:]])
    unit, weight = _legendre(nodes)
    half = np.diff(edges)[:, None] / 2
    middle = (edges[:-1] + edges[1:])[:, None] / 2
    return (middle + half * unit).ravel(), (half * weight).ravel()


@dataclass(frozen=True)
class Stretch:
    """Volume [mm³] and centroid (x, y, z) [mm] of a part of the body between two stations."""

    volume_mm3: float
    centroid_mm: tuple[float, float, float]


@lru_cache(maxsize=128)
def whole(body: Body) -> Solid:
    """Volume, centroid, wetted area and area centroid of the uncut curve as drawn."""
    phi, weight = gauss_panels(body.knots(), 0.35, 8)
    inside = _summed(body, phi, weight)
    if inside.volume_mm3 <= 0:
        return Solid(0.0, (0.0, 0.0, 0.0), 0.0, (0.0, 0.0, 0.0))
    return Solid(inside.volume_mm3, inside.centroid_mm, *_skin(body, phi, weight))


@lru_cache(maxsize=256)
def stretch(body: Body, from_mm: float, to_mm: float) -> Stretch:
    """The part of the body from one x to another [mm], cut square to the axis; held to the body's length."""
    ends = phi_of_share(np.array([from_mm, to_mm]) / body.length_mm)
    knots = body.knots()
    inner = knots[(knots > ends[0] + 1e-9) & (knots < ends[1] - 1e-9)]
    if ends[1] - ends[0] < 1e-9:
        return Stretch(0.0, (min(from_mm, body.length_mm), 0.0, 0.0))
    return _summed(body, *gauss_panels(np.concatenate([ends[:1], inner, ends[1:]]), 0.35, 8))


def sections(body: Body, phi: Array) -> tuple[Array, Array, Array, Array]:
    """Half-width, widest height, and reach above and below it, each [mm] at station angles φ."""
    widest = body.widest_at(phi)
    half = np.maximum(body.half_width.at(phi), 0.0)
    return (
        half,
        widest,
        np.maximum(body.top.at(phi) - widest, 0.0),
        np.maximum(widest - body.bottom.at(phi), 0.0),
    )


def _summed(body: Body, phi: Array, weight: Array) -> Stretch:
    a, widest, up, low = sections(body, phi)
    x = body.length_mm * (1 - np.cos(phi)) / 2
    dx = weight * body.length_mm * np.sin(phi) / 2
    area = half_superellipse_area(a, up, body.upper_exponent) + half_superellipse_area(
        a, low, body.lower_exponent
    )
    lift = half_superellipse_moment(a, up, body.upper_exponent) - half_superellipse_moment(
        a, low, body.lower_exponent
    )
    volume = float(dx @ area)
    if volume <= 0:
        return Stretch(0.0, (0.0, 0.0, 0.0))
    return Stretch(
        volume, (float(dx @ (x * area)) / volume, 0.0, float(dx @ (widest * area + lift)) / volume)
    )


def _skin(body: Body, phi: Array, weight: Array) -> tuple[float, tuple[float, float, float], float]:
    """Area and centroid of the surface, and the mean of |y| on it: |∂P/∂φ × ∂P/∂θ| integrated, flat end faces
    added.
    """
    total, moment_x, moment_y, moment_z = 0.0, 0.0, 0.0, 0.0
    theta, theta_weight = gauss_panels(np.array([0.0, np.pi / 4, np.pi / 2]), 1.0, 16)
    widest, widest_slope = body.widest_at(phi), body.widest_slope(phi)
    x = body.length_mm * (1 - np.cos(phi)) / 2
    x_slope = body.length_mm * np.sin(phi) / 2
    a, a_slope = body.half_width.at(phi), body.half_width.slope(phi)
    for edge, n, sign in ((body.top, body.upper_exponent, 1.0), (body.bottom, body.lower_exponent, -1.0)):
        reach = sign * (edge.at(phi) - widest)
        reach_slope = sign * (edge.slope(phi) - widest_slope)
        y1, z1, dy1, dz1 = _unit_superellipse(theta, n)
        y_phi = np.outer(a_slope, y1)
        z_phi = widest_slope[:, None] + sign * np.outer(reach_slope, z1)
        y_theta, z_theta = np.outer(a, dy1), sign * np.outer(reach, dz1)
        density = np.sqrt(
            (y_phi * z_theta - z_phi * y_theta) ** 2 + (x_slope[:, None] ** 2) * (y_theta**2 + z_theta**2)
        )
        patch = 2.0 * weight[:, None] * theta_weight[None, :] * density
        total += float(patch.sum())
        moment_x += float((patch * x[:, None]).sum())
        moment_y += float((patch * np.outer(a, y1)).sum())
        moment_z += float((patch * (widest[:, None] + sign * np.outer(reach, z1))).sum())
    for face_phi, face_x in ((0.0, 0.0), (np.pi, body.length_mm)):
        face, beside, height = _end_face(body, face_phi)
        total, moment_x, moment_z = total + face, moment_x + face * face_x, moment_z + face * height
        moment_y += beside
    return total, (moment_x / total, 0.0, moment_z / total), moment_y / total


def _unit_superellipse(theta: Array, n: float) -> tuple[Array, Array, Array, Array]:
    """A quarter of the unit superellipse and its derivatives by θ, free of end singularities."""
    cos, sin = np.cos(theta), np.sin(theta)
    total = cos**n + sin**n
    radius = total ** (-1.0 / n)
    # d(radius)/dθ = −radius/total · (sinⁿ⁻¹ cos − cosⁿ⁻¹ sin)
    radius_slope = -radius / total * (sin ** (n - 1) * cos - cos ** (n - 1) * sin)
    return cos * radius, sin * radius, radius_slope * cos - radius * sin, radius_slope * sin + radius * cos


def _end_face(body: Body, phi: float) -> tuple[float, float, float]:
    """Area [mm²] of a flat end, its moment of |y| [mm³], and the height of its widest line [mm]."""
    at = np.array([phi])
    a, widest = np.maximum(body.half_width.at(at), 0.0), body.widest_at(at)
    up = np.maximum(body.top.at(at) - widest, 0.0)
    low = np.maximum(widest - body.bottom.at(at), 0.0)
    area = half_superellipse_area(a, up, body.upper_exponent) + half_superellipse_area(
        a, low, body.lower_exponent
    )
    beside = half_superellipse_moment(up, a, body.upper_exponent) + half_superellipse_moment(
        low, a, body.lower_exponent
    )
    return float(area[0]), float(beside[0]), float(widest[0])
