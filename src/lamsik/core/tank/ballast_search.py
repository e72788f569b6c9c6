"""The search for drilled ballast: up to four holes of unequal mass at free places, of one metal or mixed.

Holes are tried in turn and the last one closes what is left. What comes out best is then moved and cut by
steps.
"""

from collections.abc import Iterator
from itertools import chain

import numpy as np

from lamsik.core.tank.ballast_base import Base, Bench
from lamsik.core.tank.ballast_close import Holes, closed
from lamsik.core.tank.ballast_polish import GOOD, mixed, polished, split
from lamsik.core.tank.ballast_spots import (
    MOST_HOLES,
    Candidate,
    ErrorScale,
    Found,
    Spot,
    apart_mm,
    count_of,
    off_by,
)
from lamsik.core.tank.ballast_tool import Counts, Tool, tools_of

KEPT = 10
"""Of each number of holes of a metal and drill so many go on."""

POLISHED = 8
"""So many kinds, the nearest, are moved and cut by steps."""

SPARSE = 8
"""Every so many of the holes to begin with go before two of other stock: there are too many of all."""

WORTH = 6.0
"""What is further off than the nearest by more, three hundredths of a gram and four degrees, is not worth
judging.
"""

MIXED = "mixed"


def candidates(base: Base, net_g: float, pitch_deg: float, bench: Bench) -> Iterator[Found]:
    """The best holes of each metal and number, polished, with how far off they are."""
    scale = ErrorScale(base, net_g, pitch_deg)
    tools = tools_of(base, bench)
    if not tools:
        return
    by_pattern: dict[tuple[str, int, int], list[Found]] = {}
    for off, candidate in chain(_ones(scale, tools), _twos(scale, tools), _threes(scale, tools)):
        by_pattern.setdefault(_kind(candidate), []).append((off, candidate))
    for rows in by_pattern.values():
        rows.sort(key=lambda row: row[0])
    kinds = sorted(by_pattern.items(), key=lambda item: item[1][0][0])
    first = {
        n: next((key for key, _ in kinds if key[2] == n), None) for n in (1, 2, 3)
    }  # the best of each number is polished too
    done: list[Found] = []
    for rank, (key, rows) in enumerate(kinds):
        if rank < POLISHED or key in first.values():
            done.append(polished(scale, rows[0][1], rows[0][0]))
            rows = rows[1:]
        yield from (row for row in rows[:2] if row[0] <= kinds[0][1][0][0] + WORTH)
    yield from done
    done.sort(key=lambda row: row[0])
    if done and done[0][0] > GOOD:
        for off, candidate in done[:3]:
            others = [*mixed(scale, candidate, tools), *(split(scale, candidate) if off > 1.0 else ())]
            for other in others:
                if count_of(other) <= MOST_HOLES:
                    yield polished(scale, other, off_by(scale, other))


def _kind(candidate: Candidate) -> tuple[str, int, int]:
    """What candidates are told apart by: the stock, in how many places, how many holes."""
    names = {spot.tool.slug.name for spot in candidate}
    return names.pop() if len(names) == 1 else MIXED, len(candidate), count_of(candidate)


def _ones(scale: ErrorScale, tools: list[Tool]) -> Iterator[Found]:
    """One hole, or one pair: at every place the masses about the wanted net lift, and some through all it
    holds.
    """
    for tool in tools:
        room, (per, fixed) = tool.room, tool.line
        wanted = np.rint((scale.needed_g - fixed) / (per * tool.step_g))
        through = np.rint(room.least[:, None] + (room.most - room.least)[:, None] * np.linspace(0.0, 1.0, 8))
        about = np.broadcast_to(np.clip(wanted, 1, 1e6) + np.arange(-3.0, 4.0), (len(room.x), 7))
        steps = np.clip(np.hstack([through, about]), room.least[:, None], room.most[:, None])
        at, mass = np.repeat(np.arange(len(room.x)), steps.shape[1]), steps.ravel() * tool.step_g
        off = scale.score(*tool.loads(room.x[at], mass, tool.room_ground.take(at)))
        for n in np.argsort(off)[:3]:
            if np.isfinite(off[n]):
                yield float(off[n]), (Spot(tool, float(room.x[at[n]]), float(mass[n])),)


def _twos(scale: ErrorScale, tools: list[Tool]) -> Iterator[Found]:
    """Two holes, or pairs, of one stock or of two."""
    holes = Holes.of(tools)
    every = np.arange(len(holes.x))
    for n, tool in enumerate(tools):
        yield from closed(scale, holes, (every,), tool, KEPT, (holes.tool == n).astype(int))


def _threes(scale: ErrorScale, tools: list[Tool]) -> Iterator[Found]:
    """Three holes of one stock; and of several, fewer of those tried."""
    single = [tool for tool in tools if tool.count == 1]
    for tool in single:
        holes = Holes.of((tool,))
        yield from closed(scale, holes, _pairs(holes), tool, KEPT)
    if len(single) > 1:
        holes = Holes.of(single).thinned(SPARSE)
        for tool in single:
            yield from closed(scale, holes, _pairs(holes), tool, KEPT)


def _pairs(holes: Holes) -> tuple[Counts, Counts]:
    """Two of the holes that lie far enough apart: every such two."""
    a, b = np.triu_indices(len(holes.x), 1)
    good = (
        np.abs(holes.x[a] - holes.x[b])
        >= apart_mm(0.0, 0.0, holes.tools[0].bench) + (holes.drill[a] + holes.drill[b]) / 2 - 1e-9
    )
    return a[good], b[good]
