"""Holes on trial: where they are, how far their sum is from what is wanted, and whether they can all be
drilled.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import combinations
from math import cos, radians, sin

import numpy as np

from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.curves import Array
from lamsik.core.tank.ballast_base import Base, Bench
from lamsik.core.tank.ballast_tool import Tool

NET_UNIT_G, PITCH_UNIT_DEG = 0.02, 1.0
"""What counts alike: so many grams of net lift, so many degrees of pitch."""

MOST_HOLES = 4


@dataclass(frozen=True, eq=False)
class ErrorScale:
    """What holes are judged by: the base, the wanted net lift [g] and pitch [°]."""

    base: Base
    net_g: float
    pitch_deg: float

    @cached_property
    def needed_g(self) -> float:
        """What ballast has to add [g]."""
        return self.base.lift_g - self.base.mass.mass_g - self.net_g

    @cached_property
    def way(self) -> tuple[float, float]:
        """Along and up of the direction in which B and G must not be apart."""
        return cos(radians(self.pitch_deg)), sin(radians(self.pitch_deg))

    def wish_mm(self, gain: Array, along: Array) -> Array:
        """What is still wanted of the moment (n,) [g·mm] once `gain` [g] is put on in all and `along` of
        it is there.
        """
        b, g, mass = np.array(self.base.b_mm), np.array(self.base.mass.g_mm), self.base.mass.mass_g
        ex, ez = self.way
        return np.asarray(mass * ((b - g)[0] * ex + (b - g)[2] * ez) + gain * (b[0] * ex + b[2] * ez) - along)

    def errors(self, gain: Array, x_moment: Array, z_moment: Array) -> tuple[Array, Array]:
        """Net lift and pitch over what is wanted (n,) [g, °]; an infinite pitch where it would hang upside
        down.
        """
        mass, g, b = self.base.mass.mass_g, self.base.mass.g_mm, self.base.b_mm
        total = mass + gain
        up_x, up_z = b[0] - (mass * g[0] + x_moment) / total, b[2] - (mass * g[2] + z_moment) / total
        pitch = -np.degrees(np.arctan2(up_x, np.maximum(up_z, 1e-12)))
        return self.needed_g - gain, np.where(up_z > 0, pitch - self.pitch_deg, np.inf)

    def score(self, gain: Array, x_moment: Array, z_moment: Array) -> Array:
        """How far off (n,): net in its unit and pitch in its own."""
        net, pitch = self.errors(gain, x_moment, z_moment)
        return np.abs(net) / NET_UNIT_G + np.abs(pitch) / PITCH_UNIT_DEG


@dataclass(frozen=True)
class Spot:
    """One hole of a candidate, or a mirrored pair: its tool, place [mm] and mass [g]."""

    tool: Tool
    x_mm: float
    mass_g: float


Candidate = tuple[Spot, ...]
Found = tuple[float, Candidate]
"""How far off a candidate is, and the candidate."""


def holes_of(candidate: Candidate) -> tuple[Hole, ...]:
    """The holes of a candidate, from the nose."""
    ordered = sorted(candidate, key=lambda spot: spot.x_mm)
    return tuple(spot.tool.hole(f"b{n}", spot.x_mm, spot.mass_g) for n, spot in enumerate(ordered, start=1))


def count_of(candidate: Candidate) -> int:
    """How many holes it takes, both of a pair."""
    return sum(spot.tool.count for spot in candidate)


def apart_mm(one: float, other: float, bench: Bench) -> float:
    """Middle to middle of two holes of these drills [mm]: the shop's wall between them, 1.5 mm at least."""
    return (one + other) / 2 + max(bench.wall_mm, 1.5)


def fits(candidate: Candidate) -> bool:
    """Whether all its holes can be drilled, and keep apart."""
    for one, other in combinations(candidate, 2):
        if (
            abs(one.x_mm - other.x_mm)
            < apart_mm(one.tool.drill_mm, other.tool.drill_mm, one.tool.bench) - 1e-9
        ):
            return False
    return all(bool(spot.tool.holds(np.array([spot.x_mm]), np.array([spot.mass_g]))[0]) for spot in candidate)


def errors_of(scale: ErrorScale, candidate: Candidate) -> tuple[float, float]:
    """Net lift [g] and pitch [°] of a candidate over what is wanted."""
    rows = [spot.tool.loads(np.array([spot.x_mm]), np.array([spot.mass_g])) for spot in candidate]
    net, pitch = scale.errors(*(sum((row[k] for row in rows), start=np.zeros(1)) for k in range(3)))
    return float(net[0]), float(pitch[0])


def off_by(scale: ErrorScale, candidate: Candidate) -> float:
    """How far off a candidate is, exactly."""
    net, pitch = errors_of(scale, candidate)
    return abs(net) / NET_UNIT_G + abs(pitch) / PITCH_UNIT_DEG


def offs_of(scale: ErrorScale, candidates: Sequence[Candidate]) -> list[float]:
    """How far off many candidates of one size are, at once."""
    total = [np.zeros(len(candidates)) for _ in range(3)]
    for k in range(len(candidates[0])):
        by_tool: dict[int, list[int]] = {}
        for n, candidate in enumerate(candidates):
            by_tool.setdefault(id(candidate[k].tool), []).append(n)
        for rows in by_tool.values():
            tool = candidates[rows[0]][k].tool
            loads = tool.loads(
                np.array([candidates[n][k].x_mm for n in rows]),
                np.array([candidates[n][k].mass_g for n in rows]),
            )
            for m in range(3):
                total[m][rows] += loads[m]
    return [float(off) for off in scale.score(*total)]
