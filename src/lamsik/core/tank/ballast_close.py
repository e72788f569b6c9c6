"""The last hole closes what the others leave: its mass from the net lift, its place from the moment.

With places and drills chosen, net lift and the moment along the body are linear in the masses; only the
height of a slug that grows upward is not, and that is known once the mass is.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from lamsik.core.shapes.curves import Array
from lamsik.core.tank.ballast_spots import Candidate, ErrorScale, Found, Spot, apart_mm
from lamsik.core.tank.ballast_tool import Counts, Tool

SHALLOWER = 3
"""So often the place of the last hole is found again where the wanted pitch is not level and the belly
there rises or falls.
"""


@dataclass(frozen=True, eq=False)
class Holes:
    """Holes that may come first: of which tool, at which place, of what mass; what each adds [g] and its
    moments [g·mm]; all (n,).
    """

    tools: Sequence[Tool]
    tool: Counts
    x: Array
    mass: Array
    gain: Array
    along: Array
    up: Array

    @staticmethod
    def of(tools: Sequence[Tool]) -> "Holes":
        """The holes to begin with of all tools."""
        rows = []
        for tool in tools:
            at, steps = tool.atoms
            x, mass = tool.room.x[at], np.asarray(steps * tool.step_g)
            rows.append((x, mass, *tool.loads(x, mass, tool.room_ground.take(at))))
        return Holes(
            tools,
            np.repeat(np.arange(len(tools)), [len(row[0]) for row in rows]),
            *(np.concatenate([row[k] for row in rows]) for k in range(5)),
        )

    @cached_property
    def count(self) -> Counts:
        """How many holes each is: one, or a mirrored pair (n,)."""
        return np.array([tool.count for tool in self.tools])[self.tool]

    @cached_property
    def drill(self) -> Array:
        """Drill of each (n,) [mm]."""
        return np.array([tool.drill_mm for tool in self.tools])[self.tool]

    def thinned(self, every: int) -> "Holes":
        """Every so many of them."""
        return Holes(
            self.tools,
            self.tool[::every],
            *(row[::every] for row in (self.x, self.mass, self.gain, self.along, self.up)),
        )

    def spot(self, n: int) -> Spot:
        """One of them."""
        return Spot(self.tools[self.tool[n]], float(self.x[n]), float(self.mass[n]))


def closed(
    scale: ErrorScale,
    holes: Holes,
    first: Sequence[Counts],
    tool: Tool,
    kept: int,
    groups: Counts | None = None,
) -> list[Found]:
    """Rows of holes (each of `first` (n,) one hole of every row), with one more of a tool that brings net
    lift and moment as near as it can.

    Returns:
        the best few; of each group of rows, where `groups` (n,) tells them apart.
    """
    if not len(first[0]):
        return []
    gain, along, up = (
        np.sum([row[at] for at in first], axis=0) for row in (holes.gain, holes.along, holes.up)
    )
    which, there, steps = _places(scale, tool, gain, along, up)
    x, mass = tool.room.x[there], np.asarray(steps * tool.step_g)
    here = tool.loads(x, mass, tool.room_ground.take(there))
    off = scale.score(gain[which] + here[0], along[which] + here[1], up[which] + here[2])
    for at in first:
        gap = apart_mm(0.0, tool.drill_mm, tool.bench) - 1e-9 + holes.drill[at] / 2
        off[np.abs(holes.x[at][which] - x) < gap[which]] = np.inf
    fits: list[Found] = []
    for name in (0,) if groups is None else np.unique(groups):
        mine = np.nonzero(np.isfinite(off) if groups is None else (groups[which] == name) & np.isfinite(off))[
            0
        ]
        best = mine[np.argpartition(off[mine], kept - 1)[:kept]] if len(mine) > kept else mine
        fits += [
            (float(off[n]), _candidate(holes, first, int(which[n]), Spot(tool, float(x[n]), float(mass[n]))))
            for n in best[np.argsort(off[best])]
        ]
    return fits


def _candidate(holes: Holes, first: Sequence[Counts], row: int, last: Spot) -> Candidate:
    return (*(holes.spot(int(at[row])) for at in first), last)


def _places(
    scale: ErrorScale, tool: Tool, gain: Array, along: Array, up: Array
) -> tuple[Counts, Counts, Counts]:
    """For rows (n,) where the last hole may go and how heavy: of which row, at which place of the room, steps
    of mass; (m,) each.

    The nearest place that takes the whole mass, and the one wished for with the mass that it takes.
    """
    per, fixed = tool.line
    near, by_mass = tool.nearest
    last = np.clip(
        np.rint((scale.needed_g - gain - fixed) / (per * tool.step_g)), 1, len(by_mass) - 1
    ).astype(int)
    cell = _wished(scale, tool, gain, along, up, last * tool.step_g)
    able, wished = by_mass[last, cell], near[cell]
    room, others = tool.room, np.nonzero(able != wished)[0]
    there = np.concatenate([able, wished[others]])
    which = np.concatenate([np.arange(len(gain)), others])
    return which, there, np.clip(last[which], room.least[there], room.most[there])


def _wished(
    scale: ErrorScale, tool: Tool, gain: Array, along: Array, up: Array, mass: Array
) -> NDArray[np.int64]:
    """On which step along the body the last hole has to be for the wanted pitch (n,); the belly's rise
    there is followed by a few steps.
    """
    added, (ex, ez) = tool.line[0] * mass + tool.line[1], scale.way
    left = scale.wish_mm(gain + added, along * ex + up * ez)
    step, most = tool.bench.place_step_mm, len(tool.nearest[0]) - 1
    safe = 1.0 / (np.where(np.abs(added) > 1e-9, added, 1e-9) * ex * step)
    if not ez:
        return _cell(left * safe, most)
    l0, l1, l2 = tool.lift
    left = left - (l0 + mass * (l1 + l2 * mass)) * ez
    cell = np.full(len(gain), most // 2)
    for _ in range(SHALLOWER):
        cell = _cell((left - added * tool.floors[cell] * ez) * safe, most)
    return cell


def _cell(steps: Array, most: int) -> NDArray[np.int64]:
    return np.rint(np.clip(steps, 0, most)).astype(int)
