"""What a body measures as it is made: the curve or the mesh brought in, less the kerfs of its joints; and
its parts between cuts.
"""

from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import combinations
from math import radians as rad
from math import tan

import numpy as np
from scipy.special import beta, betainc

from lamsik.core.shapes import polyhedra
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array, phi_of_share
from lamsik.core.shapes.joints import Cut
from lamsik.core.shapes.quadrature import (
    Solid,
    Stretch,
    gauss_panels,
    half_superellipse_area,
    half_superellipse_moment,
    sections,
    stretch,
    whole,
)
from lamsik.core.shapes.skins import mesh_of
from lamsik.core.shapes.unrolled import areas, corners, face_outline, fan, sawn

NOTHING = Stretch(0.0, (0.0, 0.0, 0.0))
CELLS = (192, 64)
"""Of the skin, for what kerfs take of it: within a thousandth of them."""
SQUARE_DEG = 0.02
"""Below this slant a cut counts as square."""


@dataclass(frozen=True)
class Segment:
    """A part between joints, from the nose: key `s1`, `s2` …, the cuts that bound it, volume [mm³],
    centroid [mm], share of the skin.
    """

    key: str
    fore: Cut | None
    aft: Cut | None
    volume_mm3: float
    centroid_mm: tuple[float, float, float]

    @property
    def volume_ml(self) -> float:
        """Volume [ml]."""
        return self.volume_mm3 / 1000.0


@lru_cache(maxsize=128)
def solid(body: Body) -> Solid:
    """Volume, centroid, area to coat and its centroid; joint faces are coated too."""
    measured = polyhedra.measures(mesh_of(body.skin)) if body.skin else whole(body)
    if not body.joints:
        return measured
    kept = segments(body)
    volume = sum(s.volume_mm3 for s in kept)
    centre = np.sum([s.volume_mm3 * np.array(s.centroid_mm) for s in kept], axis=0) / volume
    points = corners(body, *CELLS)
    kerfs = float((areas(points) * sawn(points, body.cuts)).sum())
    faces = sum(float(areas(fan(face_outline(body, cut), 1)).sum()) for pair in body.cuts for cut in pair)
    area = measured.area_mm2 - kerfs + faces
    middle = (float(centre[0]), float(centre[1]), float(centre[2]))
    return replace(measured, volume_mm3=volume, centroid_mm=middle, area_mm2=area)


def segment(body: Body, from_mm: float, to_mm: float) -> Stretch:
    """The part of the uncut body from one x to another [mm], cut square to the axis; held to the body's
    length.
    """
    if body.skin is None:
        return stretch(body, from_mm, to_mm)
    return between(body, Cut(from_mm), Cut(to_mm))


def between(body: Body, fore: Cut | None, aft: Cut | None) -> Stretch:
    """The part of the uncut body behind one cut and ahead of another; None is the body's end."""
    return wedge(body, (fore,) if fore else (), (aft,) if aft else ())


@lru_cache(maxsize=512)
def wedge(body: Body, fores: tuple[Cut, ...], afts: tuple[Cut, ...]) -> Stretch:
    """The part of the uncut body that lies behind all of some cuts and ahead of all of others: volume [mm³]
    and centroid [mm].

    Notes: slanted cuts take each section from a height to a height; the area of half a superellipse up to ζ
        is (2ab/n)·B(u; 1/n, 1 + 1/n) and its first moment (2ab²/n)·B(u; 2/n, 1 + 1/n) with u = (ζ/b)ⁿ.
    """
    if body.skin is not None:
        part = polyhedra.within(mesh_of(body.skin), fores, afts)
        return Stretch(part.volume_mm3, part.centroid_mm)
    start = max([0.0, *(cut.x_mm for cut in fores if _is_square(cut))])
    end = min([body.length_mm, *(cut.x_mm for cut in afts if _is_square(cut))])
    lean = [
        (cut, is_fore)
        for is_fore, cuts in ((True, fores), (False, afts))
        for cut in cuts
        if not _is_square(cut)
    ]
    if end - start < 1e-9:
        return NOTHING
    if not lean:
        return stretch(body, start, end)
    phi, weight = gauss_panels(_breaks(body, tuple(cut for cut, _ in lean), start, end), 0.12, 8)
    x = body.length_mm * (1 - np.cos(phi)) / 2
    dx = weight * body.length_mm * np.sin(phi) / 2
    low, high = np.full(x.shape, -np.inf), np.full(x.shape, np.inf)
    for cut, is_fore in lean:
        height = (x - cut.x_mm) / tan(rad(cut.slant_deg))
        low, high = (
            (low, np.minimum(high, height))
            if is_fore == (cut.slant_deg > 0)
            else (np.maximum(low, height), high)
        )
    (area, moment), (less, less_m) = _up_to(body, phi, np.maximum(high, low)), _up_to(body, phi, low)
    area, moment = area - less, moment - less_m
    volume = float(dx @ area)
    if volume <= 1e-9:
        return NOTHING
    return Stretch(volume, (float(dx @ (x * area)) / volume, 0.0, float(dx @ moment) / volume))


def _is_square(cut: Cut) -> bool:
    return abs(cut.slant_deg) < SQUARE_DEG


@lru_cache(maxsize=128)
def segments(body: Body) -> tuple[Segment, ...]:
    """The body's segments from the nose; one without joints. Segments and kerfs add up to the uncut body."""
    edges: list[Cut | None] = [None]
    for pair in body.cuts:
        edges += pair
    edges.append(None)
    rows = []
    for number, (fore, aft) in enumerate(zip(edges[::2], edges[1::2], strict=True), start=1):
        part = between(body, fore, aft)
        rows.append(Segment(f"s{number}", fore, aft, part.volume_mm3, part.centroid_mm))
    return tuple(rows)


def kerf_ml(body: Body) -> float:
    """What all the saw cuts take away [ml]."""
    return sum(between(body, *pair).volume_mm3 for pair in body.cuts) / 1000.0


def segment_at(body: Body, x_mm: float, z_mm: float) -> str:
    """The key of the segment a point belongs to; a point in a kerf belongs to the segment behind it."""
    ahead = sum(not fore.is_ahead(x_mm, z_mm) for fore, _ in body.cuts)
    return f"s{ahead + 1}"


def _up_to(body: Body, phi: Array, height: Array) -> tuple[Array, Array]:
    """Area [mm²] and first moment about z = 0 [mm³] of each section's part below a height [mm]."""
    a, widest, up, low = sections(body, phi)
    below, below_m = _part(a, up, body.upper_exponent, np.clip(height - widest, 0.0, up))
    lost, lost_m = _part(a, low, body.lower_exponent, np.clip(widest - height, 0.0, low))
    area = below + half_superellipse_area(a, low, body.lower_exponent) - lost
    return area, below_m - (half_superellipse_moment(a, low, body.lower_exponent) - lost_m) + widest * area


def _part(a: Array, b: Array, n: float, reach: Array) -> tuple[Array, Array]:
    """Area and first moment of half a superellipse from its widest line up to `reach`."""
    share = np.where(b > 1e-12, np.clip(reach / np.maximum(b, 1e-12), 0.0, 1.0), 0.0) ** n
    area = 2 * a * b / n * beta(1 / n, 1 + 1 / n) * betainc(1 / n, 1 + 1 / n, share)
    moment = 2 * a * b**2 / n * beta(2 / n, 1 + 1 / n) * betainc(2 / n, 1 + 1 / n, share)
    return area, moment


def _breaks(body: Body, cuts: tuple[Cut, ...], start: float, end: float) -> Array:
    """Stations φ at which the integrand has a kink: the curves' points, where cuts enter, leave and pass
    the widest line, and where two meet.
    """
    phi = np.linspace(0.0, np.pi, 721)
    x = body.length_mm * (1 - np.cos(phi)) / 2
    marks = [body.knots()]
    for cut in cuts:
        height = (x - cut.x_mm) / tan(rad(cut.slant_deg))
        for line in (body.top.at(phi), body.bottom.at(phi), body.widest_at(phi)):
            gap = height - line
            at = np.nonzero(np.diff(np.sign(gap)) != 0)[0]
            marks.append(phi[at] - gap[at] * (phi[at + 1] - phi[at]) / (gap[at + 1] - gap[at]))
    for one, other in combinations(cuts, 2):
        apart = tan(rad(one.slant_deg)) - tan(rad(other.slant_deg))
        if abs(apart) > 1e-9:
            marks.append(
                phi_of_share(np.array([one.at_height((other.x_mm - one.x_mm) / apart) / body.length_mm]))
            )
    ends = phi_of_share(np.array([start, end]) / body.length_mm)
    breaks = np.sort(np.concatenate([*marks, ends]))
    breaks = breaks[(breaks >= ends[0]) & (breaks <= ends[1])]
    return np.asarray(breaks[np.concatenate([[True], np.diff(breaks) > 1e-6])])
