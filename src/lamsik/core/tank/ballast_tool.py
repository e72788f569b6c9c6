"""A slug in a drill, or a mirrored pair of them: what it adds by its mass, and where and how heavy it can be drilled."""

from dataclasses import dataclass
from functools import cached_property
from math import pi

import numpy as np
from numpy.typing import NDArray

from lamsik.core.shapes.ballast_holes import BALLS, Hole, Slug
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.mouths import floor_mm
from lamsik.core.tank.ballast_base import Base, Bench
from lamsik.core.tank.drilling import below_wire, clear_of, table, walls_left_mm

Flags = NDArray[np.bool_]

COARSE_MM, LEVELS = 4.0, 5
"""Places [mm] and masses tried for the holes before the one that closes."""

NARROW_MM = 1.0
"""A place that lacks less wall than this at the masses tried may hold one between them."""


@dataclass(frozen=True, eq=False)
class Tool:
    """A slug in a drill: what a mass of it adds [g] and the moment of that over the skin [g·mm], both as a maker fits it.

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

    @property
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
        each = self.slug.diameter_mm / self.slug.ball_g if self.slug.form == BALLS else 1000.0 / (self.slug.density_g_cm3 * self.slug.area_mm2)
        return each / self.count

    @cached_property
    def floors(self) -> tuple[Array, Array]:
        """Where the holes begin: places (n,) and heights of the skin there (n,) [mm]."""
        rows = table(self.base.design.body)
        return rows.x, rows.bottom if self.beside_mm <= 0 else floor_mm(self.base.design.body, rows.x, self.beside_mm)

    def depth_mm(self, mass: Array) -> Array:
        """Drill depth [mm]."""
        return np.asarray(self.tall_mm_g * mass + self.bench.cover_mm)

    def gain_g(self, mass: Array) -> Array:
        """Metal and filler less the host that is drilled out [g]; nothing where there is no mass."""
        per, fixed = self.line
        return np.where(mass > 0, per * mass + fixed, 0.0)

    @cached_property
    def line(self) -> tuple[float, float]:
        """The gain is a line in the mass: its slope, and what an empty hole adds [g]."""
        swap = (self.bench.filler_g_cm3 - self.base.host_g_cm3) * self.area_mm2 / 1000.0
        return 1.0 - self.bench.filler_g_cm3 / self.slug.density_g_cm3 + swap * self.tall_mm_g, swap * self.bench.cover_mm

    def lift_g_mm(self, mass: Array) -> Array:
        """Moment of the gain over the belly line [g·mm]."""
        cover, tall, fill = self.bench.cover_mm, self.tall_mm_g * mass, self.bench.filler_g_cm3
        beside = self.area_mm2 * tall / 1000.0 - mass / self.slug.density_g_cm3
        filled = fill * (self.area_mm2 * cover / 1000.0 * cover / 2 + beside * (cover + tall / 2))
        drilled = self.base.host_g_cm3 * self.area_mm2 * (tall + cover) / 1000.0 * (tall + cover) / 2
        return np.where(mass > 0, mass * (cover + tall / 2) + filled - drilled, 0.0)

    def mass_for(self, gain: Array) -> Array:
        """The mass that adds so much [g], as it can be cut; at least one step."""
        per, fixed = self.line
        return np.asarray(np.maximum(np.round((gain - fixed) / per / self.step_g), 1.0) * self.step_g)

    def holds(self, x: Array, mass: Array) -> Flags:
        """Whether such holes can be drilled there: wall, hangers, lip, joints, wire."""
        length = self.base.design.body.length_mm
        depth = self.depth_mm(mass)
        good = (x > 0.05 * length) & (x < 0.95 * length) & clear_of(self.base.blocked, x, self.drill_mm) & (self.gain_g(mass) > 0)
        at = np.nonzero(good)[0]
        wall = walls_left_mm(self.base.design.body, x[at], depth[at], self.drill_mm, self.beside_mm)
        good[at] = below_wire(self.base.design, x[at], depth[at]) & (wall >= self.bench.wall_mm)
        return np.asarray(good)

    @cached_property
    def places(self) -> Array:
        """Places on the bench's step [mm]."""
        length, step = self.base.design.body.length_mm, self.bench.place_step_mm
        found = np.arange(np.ceil(0.05 * length / step), np.floor(0.95 * length / step) + 1) * step
        return np.asarray(found[clear_of(self.base.blocked, found, self.drill_mm)])

    @cached_property
    def room_g(self) -> tuple[Array, Array]:
        """The lightest and the heaviest that each place holds (n,) [g]; 0 where nothing does.

        A hole too shallow may break out beside a sharp belly just as one too deep does above.
        """
        none = np.zeros(len(self.places))
        if not self.places.size:
            return none, none
        tall = float(np.ptp([table(self.base.design.body).top.max(), table(self.base.design.body).bottom.min()]))
        levels = np.arange(1, max(int(tall / self.tall_mm_g / self.step_g), 1) + 1) * self.step_g
        apart = max(6, len(levels) // 24 + 1)
        levels = levels[np.unique(np.linspace(0, len(levels) - 1, min(len(levels), 25)).astype(int))]
        grid, masses = np.meshgrid(self.places, levels, indexing="ij")
        good = self.holds(grid.ravel(), masses.ravel()).reshape(grid.shape)
        some = good.any(axis=1)
        most = np.where(some, levels[good.shape[1] - 1 - good[:, ::-1].argmax(axis=1)], 0.0)
        least = np.where(some, levels[good.argmax(axis=1)], 0.0)
        narrow = np.nonzero(~some)[0]
        if narrow.size:
            found = self._between(self.places[narrow], levels)
            least[narrow], most[narrow] = found, found
            some = most > 0
        for _ in range(apart):  # on in steps while there is room
            more, less = some & self.holds(self.places, most + self.step_g), some & (least > 1.5 * self.step_g)
            less[less] = self.holds(self.places[less], least[less] - self.step_g)
            if not (more.any() or less.any()):
                break
            most, least = np.where(more, most + self.step_g, most), np.where(less, least - self.step_g, least)
        return least, most

    def _between(self, places: Array, levels: Array) -> Array:
        """A mass that places (n,) hold although none of the levels does [g]; 0 where there is none.

        Looked for about the level that leaves most wall, where that is nearly enough.
        """
        grid, masses = (row.ravel() for row in np.meshgrid(places, levels, indexing="ij"))
        walls = walls_left_mm(self.base.design.body, grid, self.depth_mm(masses), self.drill_mm, self.beside_mm).reshape(len(places), len(levels))
        near = np.nonzero(walls.max(axis=1) > self.bench.wall_mm - NARROW_MM)[0]
        at = np.clip(walls.argmax(axis=1)[near, None] + np.linspace(-0.9, 0.9, 9), 0, len(levels) - 1)
        tried = np.maximum(np.round(np.interp(at, np.arange(len(levels)), levels) / self.step_g), 1.0) * self.step_g
        good = self.holds(np.repeat(places[near], 9), tried.ravel()).reshape(tried.shape)
        found = np.zeros(len(places))
        found[near] = np.where(good.any(axis=1), tried[np.arange(len(near)), good.argmax(axis=1)], 0.0)
        return found

    @property
    def most_g(self) -> Array:
        """The heaviest that each place holds (n,) [g]."""
        return self.room_g[1]

    @cached_property
    def atoms(self) -> tuple[Array, Array]:
        """Places and masses to begin with: a few masses at places some millimetres apart, the heaviest of each among them."""
        if not self.places.size or not self.most_g.any():
            return np.zeros(0), np.zeros(0)
        every = max(round(COARSE_MM / self.bench.place_step_mm), 1)
        room = np.nonzero(self.most_g > 0)[0]
        at = room[np.unique(np.concatenate([np.arange(0, len(room), every), [0, len(room) - 1]]))]
        low, high = (row[at][:, None] for row in self.room_g)
        masses = np.maximum(np.round((low + (high - low) * np.linspace(0.0, 1.0, LEVELS)) / self.step_g), 1.0) * self.step_g
        x = np.repeat(self.places[at], LEVELS)
        pairs = np.unique(np.column_stack([x, masses.ravel()]), axis=0)
        good = self.holds(pairs[:, 0], pairs[:, 1])
        return pairs[good, 0], pairs[good, 1]

    def hole(self, key: str, x: float, mass: float) -> Hole:
        """The hole as a design keeps it."""
        return Hole(key, self.slug, float(mass), float(x), self.drill_mm, self.bench.cover_mm, self.bench.filler_g_cm3, self.beside_mm)


def tools_of(base: Base, bench: Bench) -> list[Tool]:
    """Every slug in the two tightest drills that pass it: wider ones only remove more. In the tightest also a mirrored pair, as near as the wall lets it."""
    found = []
    for slug in bench.slugs:
        for n, drill in enumerate(sorted(d for d in bench.drills_mm if slug.diameter_mm <= d <= slug.diameter_mm + 2.0)[:2]):
            found.append(Tool(base, bench, slug, drill))
            beside = float(np.ceil(drill + max(bench.wall_mm, 1.5))) / 2
            if n == 0 and beside + drill / 2 + bench.wall_mm < base.design.body.width_mm / 2:
                found.append(Tool(base, bench, slug, drill, beside))
    return found
