"""Hollow bodies: a shell whose wall is even square to the skin, empty or filled with something lighter.

What lies inside a wall w is every point at least w from the skin (erosion by a ball): over (x, y) it reaches
up to the least of top(x + a, y + b) − √(w² − a² − b²) within the ball's ground, and down to the greatest of
the same from below.
"""

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from typing import Annotated

import numpy as np
from annotated_types import MaxLen

from lamsik.core.errors import Refused, rule
from lamsik.core.limits import Between, held
from lamsik.core.shapes.body import Body, uncut
from lamsik.core.shapes.columns import Chart, Columns, Reach, reach_of
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.quadrature import Stretch, gauss_panels


@dataclass(frozen=True)
class Shell:
    """The wall [mm] and what is inside it: density [g/cm³], 0 for air, and its name.

    `around_mm` is the wall of host round what sits in the hollow (holes, chambers, tubes, the lip's slot); 0
    is none.
    """

    wall_mm: Annotated[float, Between(0.3, 60, "mm", "wall of a hollow body")] = 2.0
    fill_g_cm3: Annotated[float, Between(0, 3, "g/cm³", "density of what fills it, 0 for air")] = 0.0
    fill: Annotated[str, MaxLen(60)] = "air"
    around_mm: Annotated[
        float,
        Between(
            0,
            20,
            "mm",
            "wall of host round holes, chambers, bores and the lip's slot in the hollow, 0 for none",
        ),
    ] = 0.0

    def __post_init__(self) -> None:
        held(self, "shell.")

    @property
    def is_empty(self) -> bool:
        """Whether a pierced skin would let water in: closed foam does not."""
        return self.fill_g_cm3 < 0.02


TILTS, TURNS = 6, 16
"""Directions of the ball that are tried first: from upright to level, and round."""

ROUNDS = 3
"""So often the nearest direction is looked for at half the step; 5·10⁻⁵ of the volume is left."""


def _ball() -> Array:
    """Directions over half a ball (n, 3), upright first."""
    tilt, turn = np.meshgrid(
        np.linspace(0, np.pi / 2, TILTS + 1)[1:], 2 * np.pi * np.arange(TURNS) / TURNS, indexing="ij"
    )
    rows = np.column_stack(
        [(np.sin(tilt) * np.cos(turn)).ravel(), (np.sin(tilt) * np.sin(turn)).ravel(), np.cos(tilt).ravel()]
    )
    return np.vstack([[0.0, 0.0, 1.0], rows])


BALL = _ball()


def reach_inside(body: Body, wall_mm: float) -> Reach:
    """How far up and down the inside of a wall of even thickness reaches, looked up in a chart of it; of a
    body that joints have not cut.
    """
    return inside_chart(uncut(body), wall_mm).reach


CHART = (65, 25)
"""Stations and points from side to side: near enough for what sits in a hollow."""


@lru_cache(maxsize=32)
def inside_chart(body: Body, wall_mm: float) -> Chart:
    """The inside of a wall as a chart. Raises `Refused` where nothing is left inside."""
    return charted(body, wall_mm, CHART, *_opened(body, wall_mm))


def exact_chart(body: Body, wall_mm: float, counts: tuple[int, int]) -> Chart:
    """The same at so many stations and points from side to side, its edge where the wall is even there
    too: for what is made by it.
    """
    reach = _exactly(body, wall_mm)

    def is_open(x: Array, y: Array) -> Array:
        low, high = reach(x, y)
        return np.asarray(high > low)

    _, (first, last) = _opened(body, wall_mm)
    x = np.linspace(first, last, 121)
    there = np.nonzero(is_open(x, np.zeros(121)))[0]
    if not there.size:
        raise _too_thick(body, wall_mm)
    step = x[1] - x[0]
    ends = (
        _edge(is_open, x[there[0]], x[there[0]] - step),
        _edge(is_open, x[there[-1]], x[there[-1]] + step),
    )
    return charted(body, wall_mm, counts, is_open, ends)


def charted(
    body: Body, wall_mm: float, counts: tuple[int, int], is_open: "Reachable", ends: tuple[float, float]
) -> Chart:
    """A chart of the inside of a wall: so many stations between its ends, so many points from side to side
    of where it is open.
    """
    middle, half = sum(ends) / 2, (ends[1] - ends[0]) / 2
    x = middle - half * np.cos(np.linspace(0.0, np.pi, counts[0])) * (1 - 1e-6)
    right = _sides(is_open, x, body.width_mm / 2)
    left = _sides(is_open, x, -body.width_mm / 2) if body.skin else -right
    across = -np.cos(np.linspace(0.0, np.pi, counts[1])) * (1 - 1e-6)
    y = (left + right)[:, None] / 2 + (right - left)[:, None] / 2 * across
    low, high = (row.reshape(y.shape) for row in _exactly(body, wall_mm)(np.repeat(x, counts[1]), y.ravel()))
    # a point that just closes lies at the middle height of its station
    closed = ~np.isfinite(low)
    low, high = (np.where(closed, 0.0, row) for row in (low, high))
    height = ((low + high) / 2).sum(axis=1) / np.maximum((~closed).sum(axis=1), 1)
    low, high = (np.where(closed, height[:, None], row) for row in (low, high))
    return Chart(float(ends[0]), float(ends[1]), np.column_stack([left, right]), low, high)


def _exactly(body: Body, wall_mm: float) -> Reach:
    """The same without a chart."""
    skin, drawn = reach_of(body), body.skin is None
    return lambda x, y: _eroded(skin, wall_mm, x, np.abs(y) if drawn else y, ROUNDS)


def _eroded(skin: Reach, wall_mm: float, x: Array, y: Array, rounds: int) -> tuple[Array, Array]:
    low, high = _tops(skin, wall_mm, x, y, BALL[None, :, :])
    best_low, best_high = low.max(axis=1), high.min(axis=1)
    open_here = np.nonzero(best_high > best_low)[0]
    if open_here.size and rounds:
        here = x[open_here], y[open_here]
        best_low[open_here] = _nearer(skin, wall_mm, *here, low[open_here], 1.0, rounds)
        best_high[open_here] = _nearer(skin, wall_mm, *here, -high[open_here], -1.0, rounds)
    closed = best_high <= best_low
    return np.where(closed, np.inf, best_low), np.where(closed, -np.inf, best_high)


def _tops(skin: Reach, wall_mm: float, x: Array, y: Array, ways: Array) -> tuple[Array, Array]:
    """What each direction (n or 1, k, 3) leaves between below and above, (n, k) [mm] each."""
    shape = (len(x), ways.shape[1])
    at = [
        np.broadcast_to(place[:, None] + wall_mm * ways[:, :, k], shape).ravel()
        for k, place in enumerate((x, y))
    ]
    low, high = (row.reshape(shape) for row in skin(at[0], at[1]))
    return low + wall_mm * ways[:, :, 2], high - wall_mm * ways[:, :, 2]


def _nearer(skin: Reach, wall_mm: float, x: Array, y: Array, tried: Array, sign: float, rounds: int) -> Array:
    """The direction that leaves least, followed from the best one tried by ever smaller turns: what it
    leaves (n,).
    """
    way, step = BALL[np.argmax(tried, axis=1)], np.pi / 2 / TILTS
    best = tried.max(axis=1)
    for _ in range(rounds):
        step /= 2
        across = np.cross(way, np.array([0.31, 0.95, 0.02]))
        across /= np.linalg.norm(across, axis=1)[:, None]
        other = np.cross(way, across)
        turns = np.arange(6) * np.pi / 3
        moved = way[:, None, :] + step * (
            np.cos(turns)[:, None] * across[:, None, :] + np.sin(turns)[:, None] * other[:, None, :]
        )
        moved[:, :, 2] = np.maximum(moved[:, :, 2], 0.0)
        ways = np.concatenate([way[:, None, :], moved / np.linalg.norm(moved, axis=2)[:, :, None]], axis=1)
        low, high = _tops(skin, wall_mm, x, y, ways)
        leaves = low if sign > 0 else -high
        pick = np.argmax(leaves, axis=1)
        way, best = ways[np.arange(len(way)), pick], leaves[np.arange(len(way)), pick]
    return np.asarray(sign * best)


Reachable = Callable[[Array, Array], Array]
"""Whether it is open over (x, y)."""

STATIONS, ACROSS = 48, 10
"""Gauss nodes along and from the middle to the side."""


@lru_cache(maxsize=64)
def inside_columns(body: Body, wall_mm: float, breaks: tuple[float, ...] = ()) -> Columns:
    """The inside of the wall as columns, with breaks at some x [mm] where it is going to be cut square.

    Raises `Refused` where nothing is left inside.
    """
    if body.joints:
        return inside_columns(uncut(body), wall_mm, breaks)
    is_open, ends = _opened(body, wall_mm)
    reach = _exactly(body, wall_mm)
    middle, half = sum(ends) / 2, (ends[1] - ends[0]) / 2
    marks = np.unique(
        [
            0.0,
            *np.linspace(0.0, np.pi, STATIONS // 4 + 1),
            *(np.arccos((middle - at) / half) for at in breaks if ends[0] < at < ends[1]),
        ]
    )
    angle, weight = gauss_panels(marks, 10.0, 4)
    x, dx = middle - half * np.cos(angle), weight * half * np.sin(angle)
    turn, share = gauss_panels(np.array([0.0, np.pi / 2]), 10.0, ACROSS)
    halves: list[tuple[Array, ...]] = []
    for way in (1.0, -1.0) if body.skin else (1.0,):  # a drawn body is the same on both sides
        side = _sides(is_open, x, way * body.width_mm / 2)
        along, y = np.repeat(x, ACROSS), np.outer(side, np.sin(turn)).ravel()
        halves.append((along, y, np.outer(dx * np.abs(side), share * np.cos(turn)).ravel(), *reach(along, y)))
    if len(halves) == 1:
        along, y, *rest = halves[0]
        halves.append((along, -y, *rest))
    columns = np.concatenate(halves, axis=1)
    return Columns(*columns[:, columns[4] > columns[3]])


@lru_cache(maxsize=32)
def _too_thick(body: Body, wall_mm: float) -> Refused:
    most = min(body.depth_mm, body.width_mm) / 2
    return Refused("shell.wall_mm", wall_mm, rule("thinner-else", most=most))


@lru_cache(maxsize=32)
def _opened(body: Body, wall_mm: float) -> tuple[Reachable, tuple[float, float]]:
    """Whether it is open over a place, and from where to where along the middle [mm]. Raises `Refused`
    where it is nowhere.
    """
    if body.length_mm - 2 * wall_mm < 5.0 or min(body.depth_mm, body.width_mm) < 2 * wall_mm + 0.6:
        raise _too_thick(body, wall_mm)
    skin = reach_of(body)

    def is_open(x: Array, y: Array) -> Array:
        low, high = _eroded(skin, wall_mm, x, y, 0)
        return np.asarray(high > low)

    x = np.linspace(0.0, body.length_mm, 121)
    there = np.nonzero(is_open(x, np.zeros(121)))[0]
    if not there.size:
        raise _too_thick(body, wall_mm)
    return is_open, (
        _edge(is_open, x[there[0]], x[there[0] - 1]),
        _edge(is_open, x[there[-1]], x[there[-1] + 1]),
    )


def _edge(is_open: Reachable, inner: float, outer: float) -> float:
    """Where on the way from an open x to a closed one it closes [mm]."""
    for _ in range(5):
        tried = np.linspace(inner, outer, 12)
        last = int(np.nonzero(is_open(tried, np.zeros(12)))[0].max(initial=0))
        inner, outer = float(tried[last]), float(tried[min(last + 1, 11)])
    return inner


def _sides(is_open: Reachable, x: Array, furthest: float) -> Array:
    """How far to one side it is open at each x (n,) [mm]."""
    inner, outer = np.zeros(len(x)), np.full(len(x), furthest)
    for _ in range(14):
        middle = (inner + outer) / 2
        good = is_open(x, middle)
        inner, outer = np.where(good, middle, inner), np.where(good, outer, middle)
    return inner


def inside_of(body: Body, wall_mm: float) -> Stretch:
    """Volume and centroid of what lies inside a wall of even thickness; of a body that joints have not
    cut.
    """
    rows = inside_columns(body, wall_mm)
    held = rows.ground * (rows.high - rows.low)
    volume = float(held.sum())
    return Stretch(
        volume, (float(held @ rows.x) / volume, 0.0, float(held @ (rows.low + rows.high)) / 2 / volume)
    )


def require_room(body: Body, wall_mm: float) -> None:
    """Raises `Refused` where a wall leaves nothing inside."""
    _opened(uncut(body), wall_mm)
