"""A slug in a drill, or a mirrored pair of them: what it adds by its mass, and where and how heavy it can
be drilled.
"""

from dataclasses import dataclass
from functools import cached_property
from math import pi

import numpy as np
from numpy.typing import NDArray

from lamsik.core.shapes.ballast_holes import BALLS, Hole, Slug
from lamsik.core.shapes.clashes import between_mm
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.mouths import mouths
from lamsik.core.tank.ballast_base import Base, Bench
from lamsik.core.tank.drilling import (
    WIRE_GAP_MM,
    clear_of,
    depths_mm,
    floors_mm,
    under_mm,
    under_wire_mm,
)

Flags = NDArray[np.bool_]
Counts = NDArray[np.int64]

ENDS = 0.05
"""No hole nearer to an end than this share of the length."""

COARSE_MM, LEVELS = 4.0, 5
"""Places [mm] and masses tried for the holes before the one that closes."""

EXACT = 1e-9


@dataclass(frozen=True, eq=False)
class Room:
    """The places that hold a hole at all (n,) [mm], and the fewest and most steps of mass at each (n,)."""

    x: Array
    least: Counts
    most: Counts


@dataclass(frozen=True, eq=False)
class Ground:
    """What a hole meets at places (n,): the skin's height [mm], and what its mouth adds: [g] and the
    moments of that along and over the skin [g·mm].
    """

    floor: Array
    grams: Array
    along: Array
    up: Array

    def take(self, at: Counts) -> "Ground":
        """The same of some of the places."""
        return Ground(self.floor[at], self.grams[at], self.along[at], self.up[at])


@dataclass(frozen=True, eq=False)
class Tool:
    """A slug in a drill: what a mass of it adds [g] and the moment of that over the skin [g·mm], both as a
    maker fits it.

    With `beside_mm` a mirrored pair so far from the middle; masses are those of both.
    """

    base: Base
    bench: Bench
    slug: Slug
    drill_mm: float
    beside_mm: float = 0.0

    @property
    def count(self) -> int:
        """One hole, or two beside the middle."""
        return 2 if self.beside_mm > 0 else 1

    @cached_property
    def step_g(self) -> float:
        """What it is cut by: the shop's step, or whole balls; both of a pair alike."""
        return self.count * (self.slug.ball_g if self.slug.form == BALLS else self.bench.slug_step_g)

    @cached_property
    def area_mm2(self) -> float:
        """Of the drill, of both of a pair [mm²]."""
        return self.count * pi * self.drill_mm**2 / 4

    @cached_property
    def tall_mm_g(self) -> float:
        """How tall a gram stands [mm/g]."""
        each = (
            self.slug.diameter_mm / self.slug.ball_g
            if self.slug.form == BALLS
            else 1000.0 / (self.slug.density_g_cm3 * self.slug.area_mm2)
        )
        return each / self.count

    @cached_property
    def line(self) -> tuple[float, float]:
        """What it adds is a line in the mass: its slope, and what an empty hole adds [g]."""
        swap = (self.bench.filler_g_cm3 - self.base.host_g_cm3) * self.area_mm2 / 1000.0
        return (
            1.0 - self.bench.filler_g_cm3 / self.slug.density_g_cm3 + swap * self.tall_mm_g,
            swap * self.bench.cover_mm,
        )

    @cached_property
    def lift(self) -> tuple[float, float, float]:
        """Its moment over the skin [g·mm] is a parabola in the mass: metal, filler under and round it,
        less the host drilled out.
        """
        cover, tall, fill, host = (
            self.bench.cover_mm,
            self.tall_mm_g,
            self.bench.filler_g_cm3,
            self.base.host_g_cm3,
        )
        area, beside = (
            self.area_mm2 / 1000.0,
            fill * (self.area_mm2 * self.tall_mm_g / 1000.0 - 1.0 / self.slug.density_g_cm3),
        )
        return (
            (fill - host) * area * cover**2 / 2,
            (1.0 + beside - host * area * tall) * cover,
            (1.0 + beside - host * area * tall) * tall / 2,
        )

    def gain_g(self, mass: Array) -> Array:
        """Metal and filler less the host that is drilled out [g]; nothing where there is no mass."""
        per, fixed = self.line
        return np.where(mass > 0, per * mass + fixed, 0.0)

    def mass_for(self, gain: Array) -> Array:
        """The mass that adds so much [g], as it can be cut; at least one step."""
        per, fixed = self.line
        return np.asarray(np.maximum(np.round((gain - fixed) / per / self.step_g), 1.0) * self.step_g)

    def ground(self, x: Array) -> Ground:
        """What holes meet at places (n,)."""
        body, swap = self.base.design.body, (self.base.host_g_cm3 - self.bench.filler_g_cm3) / 1000.0
        volume, along, up = (swap * row for row in mouths(body, self.drill_mm, self.beside_mm).at(x))
        return Ground(floors_mm(body, x, self.beside_mm), volume, volume * x + along, up)

    def loads(self, x: Array, mass: Array, ground: Ground | None = None) -> tuple[Array, Array, Array]:
        """Gain [g], its moment along and its moment up (n,) [g·mm] of holes at x (n,) with a mass (n,);
        the mouth follows the skin.
        """
        under, (l0, l1, l2) = ground or self.ground(x), self.lift
        gain = self.line[0] * mass + self.line[1]
        whole = gain + under.grams
        return whole, gain * x + under.along, whole * under.floor + under.up + l0 + mass * (l1 + l2 * mass)

    def steps_at(self, x: Array) -> tuple[Counts, Counts]:
        """The fewest and the most steps of mass that holes at x (n,) take; more than fit where none can be
        drilled.

        By the wall, the through-wire, screws, hangers, lip and joints, and by that it has to add more than is
        drilled out.
        """
        base, cover, (per, fixed) = self.base, self.bench.cover_mm, self.line
        length = base.design.body.length_mm
        shallow, deep = depths_mm(base.design.body, x, self.drill_mm, self.bench.wall_mm, self.beside_mm)
        gap, way = between_mm(self.bench.wall_mm), (self.drill_mm, self.beside_mm)
        deep = np.minimum(deep, under_wire_mm(base.design, x, max(gap, WIRE_GAP_MM), *way))
        deep = np.minimum(deep, under_mm(base.design.body, base.overhead, x, *way, gap))
        good = (
            (x > ENDS * length)
            & (x < (1 - ENDS) * length)
            & clear_of(base.blocked, x, self.drill_mm)
            & (deep > cover)
            & np.isfinite(shallow)
        )
        each = self.tall_mm_g * self.step_g
        lightest = max(np.floor(-fixed / per / self.step_g + EXACT) + 1, 1.0) if per > 0 else np.inf
        least = np.maximum(np.ceil((np.where(good, shallow, cover) - cover) / each - EXACT), lightest)
        most = np.floor((np.where(good, deep, cover) - cover) / each + EXACT)
        held = good & (least <= most)
        return np.where(held, least, 1).astype(int), np.where(held, most, 0).astype(int)

    def holds(self, x: Array, mass: Array) -> Flags:
        """Whether such holes can be drilled there."""
        least, most = self.steps_at(x)
        steps = mass / self.step_g
        return np.asarray((steps >= least - 1e-6) & (steps <= most + 1e-6) & (most > 0))

    @cached_property
    def room(self) -> Room:
        """Where on the bench's step holes can be drilled, and how heavy."""
        length, step = self.base.design.body.length_mm, self.bench.place_step_mm
        x = np.arange(np.ceil(ENDS * length / step), np.floor((1 - ENDS) * length / step) + 1) * step
        least, most = self.steps_at(x)
        held = most > 0
        return Room(x[held], least[held], most[held])

    @cached_property
    def room_ground(self) -> Ground:
        """What holes meet at those places."""
        return self.ground(self.room.x)

    @cached_property
    def cells(self) -> Array:
        """The steps along the body (n,) [mm]."""
        return (
            np.arange(np.ceil(self.base.design.body.length_mm / self.bench.place_step_mm) + 1)
            * self.bench.place_step_mm
        )

    @cached_property
    def floors(self) -> Array:
        """Height of the skin where holes at those steps begin (n,) [mm]."""
        return floors_mm(self.base.design.body, self.cells, self.beside_mm)

    @cached_property
    def nearest(self) -> tuple[Counts, Counts]:
        """For each step of the body (n,) the nearest place with room; and that with room for each number of
        steps of mass (levels + 1, n).

        The one that takes most where none takes so many.
        """
        room, cells = self.room, self.cells
        by_mass = np.full((int(room.most.max()) + 1, len(cells)), int(np.argmax(room.most)))
        for level in range(len(by_mass)):
            able = np.nonzero((room.least <= level) & (level <= room.most))[0]
            if able.size:
                by_mass[level] = able[_nearest(room.x[able], cells)]
        return _nearest(room.x, cells), by_mass

    @cached_property
    def atoms(self) -> tuple[Counts, Counts]:
        """Holes to begin with: places of the room and steps of mass; a few masses at places some
        millimetres apart, the heaviest of each among them.
        """
        every = max(round(COARSE_MM / self.bench.place_step_mm), 1)
        at = np.unique(np.concatenate([np.arange(0, len(self.room.x), every), [len(self.room.x) - 1]]))
        low, high = self.room.least[at][:, None], self.room.most[at][:, None]
        steps = np.round(low + (high - low) * np.linspace(0.0, 1.0, LEVELS)).astype(int)
        pairs = np.unique(np.column_stack([np.repeat(at, LEVELS), steps.ravel()]), axis=0)
        return pairs[:, 0], pairs[:, 1]

    def hole(self, key: str, x: float, mass: float) -> Hole:
        """The hole as a design keeps it."""
        return Hole(
            key,
            self.slug,
            float(mass),
            float(x),
            self.drill_mm,
            self.bench.cover_mm,
            self.bench.filler_g_cm3,
            self.beside_mm,
        )


def _nearest(places: Array, x: Array) -> Counts:
    """Which of the sorted places is the nearest to each x (n,)."""
    return np.searchsorted((places[1:] + places[:-1]) / 2, x)


def tools_of(base: Base, bench: Bench) -> list[Tool]:
    """Every slug in the two tightest drills that pass it: wider ones only remove more. In the tightest also a
    mirrored pair, as near as the wall lets it.

    Only those that can be drilled somewhere.
    """
    tools = []
    for slug in bench.slugs:
        for n, drill in enumerate(
            sorted(d for d in bench.drills_mm if slug.diameter_mm <= d <= slug.diameter_mm + 2.0)[:2]
        ):
            tools.append(Tool(base, bench, slug, drill))
            beside = float(np.ceil(drill + max(bench.wall_mm, 1.5))) / 2
            if n == 0 and beside + drill / 2 + bench.wall_mm < base.design.body.width_mm / 2:
                tools.append(Tool(base, bench, slug, drill, beside))
    return [tool for tool in tools if tool.room.x.size]
