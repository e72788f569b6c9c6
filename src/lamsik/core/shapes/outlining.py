"""A closed outline as the lines of a body: upper and lower heights at stations, through as few points as
hold it.
"""

from dataclasses import dataclass

import numpy as np

from lamsik.core.errors import Refused, require, rule
from lamsik.core.findings import finding
from lamsik.core.quantities import said
from lamsik.core.shapes.curves import Array, Curve, share_of_phi

COUNTS = (9, 11, 13, 17, 21, 27, 35)
HOLDS_SHARE = 0.002
"""A line goes through the fewest points that keep it this near to the outline, as a share of the length."""

MOST_POINTS = 40_000


@dataclass(frozen=True)
class Lines:
    """The upper and lower line of an outline: length [mm], points (share of length, height [mm]), how far
    they are off [mm].
    """

    length_mm: float
    upper: tuple[tuple[float, float], ...]
    lower: tuple[tuple[float, float], ...]
    off_mm: float

    @property
    def depth_mm(self) -> float:
        """Greatest height less least [mm]."""
        return max(v for _, v in self.upper) - min(v for _, v in self.lower)


def edges_at(outline: Array, x: Array) -> tuple[Array, Array]:
    """Highest and lowest point of a closed outline (n, 2) at each x (m,) [mm]."""
    a, b = outline, np.roll(outline, -1, axis=0)
    high, low = np.full(x.shape, -np.inf), np.full(x.shape, np.inf)
    left, right = np.minimum(a[:, 0], b[:, 0]), np.maximum(a[:, 0], b[:, 0])
    for at, here in enumerate(x):
        hit = (left <= here) & (here <= right)
        run = b[hit, 0] - a[hit, 0]
        share = np.where(
            np.abs(run) > 1e-12, (here - a[hit, 0]) / np.where(np.abs(run) > 1e-12, run, 1.0), 0.0
        )
        z = a[hit, 1] + np.clip(share, 0.0, 1.0) * (b[hit, 1] - a[hit, 1])
        ends = np.where(np.abs(run) > 1e-12, z, b[hit, 1])
        if z.size:
            high[at], low[at] = max(z.max(), ends.max()), min(z.min(), ends.min())
    return high, low


def lines_of(outline: Array) -> Lines:
    """The lines of a closed outline (n, 2) [mm], nose at its least x; heights are kept.

    Raises:
        Refused: too few or too many points, not finite, or next to no length or height.
    """
    require(
        3 <= len(outline) <= MOST_POINTS,
        "outline",
        f"{len(outline)} points",
        rule("outlining-142", most_points=MOST_POINTS),
    )
    require(
        bool(np.all(np.isfinite(outline))),
        "outline",
        finding("point-is-no-number"),
        rule("finite-numbers"),
    )
    start, length = float(outline[:, 0].min()), float(np.ptp(outline[:, 0]))
    require(
        5.0 <= length <= 600.0,
        "outline.length",
        said(length, "length"),
        rule("allowed-check", value=5.0, value2=600.0),
    )
    require(
        0.5 <= float(np.ptp(outline[:, 1])) <= 300.0,
        "outline.height",
        said(float(np.ptp(outline[:, 1])), "length", 2),
        rule("allowed-mm"),
    )
    fine = np.linspace(0.0, np.pi, 301)
    inner = start + length * np.clip(share_of_phi(fine), 2e-4, 1 - 2e-4)
    high, low = edges_at(outline, inner)
    if not np.all(np.isfinite(high)):
        raise Refused("outline", "a gap", rule("outline-gap"))
    lines = None
    for count in COUNTS:
        lines = _through(fine, high, low, length, count)
        if lines.off_mm <= HOLDS_SHARE * length:
            break
    assert lines is not None
    return lines


def _through(fine: Array, high: Array, low: Array, length: float, count: int) -> Lines:
    """The lines through `count` points, closer together towards the ends, and how far they are off in
    between.
    """
    at = _stations(fine, high, low, count)
    shares = share_of_phi(at)
    shares[0], shares[-1] = 0.0, 1.0
    rows, off = [], 0.0
    for line, values in zip(
        (high, low), _parted(fine, shares, np.interp(at, fine, high), np.interp(at, fine, low)), strict=True
    ):
        curve = Curve(tuple(shares.tolist()), tuple(values.tolist()))
        steep = np.gradient(line, length * share_of_phi(fine))
        off = max(off, float((np.abs(curve.at(fine) - line) / np.sqrt(1.0 + steep**2))[ENDS:-ENDS].max()))
        rows.append(tuple((float(s), float(v)) for s, v in zip(shares, values, strict=True)))
    return Lines(length, rows[0], rows[1], off)


def _parted(fine: Array, shares: Array, upper: Array, lower: Array) -> tuple[Array, Array]:
    """The values at the points so that the lines through them do not cross: near a fine tip the inner point
    yields.

    Between two points a line stays within their heights, so an upper point no lower than the next one
    outward, and a lower one no higher, keep the lines apart there.
    """
    upper, lower = upper.copy(), np.minimum(lower, upper)
    for _ in range(4 * len(shares)):
        gap = np.subtract(
            *(Curve(tuple(shares.tolist()), tuple(line.tolist())).at(fine) for line in (upper, lower))
        )
        if float(gap.min()) >= 0.0:
            break
        share = float(share_of_phi(fine[np.argmin(gap)]))
        k = int(np.clip(np.searchsorted(shares, share) - 1, 0, len(shares) - 2))
        inner, outer = (k, k + 1) if share > 0.5 else (k + 1, k)
        if upper[inner] >= upper[outer] and lower[inner] <= lower[outer]:
            inner, outer = outer, inner
        upper[inner], lower[inner] = max(upper[inner], upper[outer]), min(lower[inner], lower[outer])
    return upper, lower


ENDS = 8
"""Fine stations at either end where heights run away and are not compared: a third of a percent of the
length.
"""


def _stations(fine: Array, high: Array, low: Array, count: int) -> Array:
    """Station angles of the points: evenly spread, with the highest, the lowest and the widest place among
    them.
    """
    peaks = np.array([fine[int(np.argmax(line))] for line in (high, -low, high - low)])
    even = np.linspace(0.0, np.pi, count)
    far = np.abs(even[:, None] - peaks).min(axis=1) > 0.4 * np.pi / count
    far[[0, -1]] = True
    kept = peaks[(peaks > 0.02) & (peaks < np.pi - 0.02)]
    stations = np.sort(np.concatenate([even[far], kept]))
    return np.asarray(stations[np.concatenate([[True], np.diff(stations) > 0.01])])


def width_line(top: Array) -> Lines:
    """The plan's half-width line of a closed top outline: half of its whole width at each station, on both
    sides.
    """
    lines = lines_of(top)
    half = tuple((s, (u - v) / 2) for (s, u), (_, v) in zip(lines.upper, lines.lower, strict=True))
    return Lines(lines.length_mm, half, tuple((s, -v) for s, v in half), lines.off_mm)
