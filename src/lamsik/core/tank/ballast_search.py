"""The search for drilled ballast: up to four holes of unequal mass at free places, of one metal or mixed.

With places and drills chosen, net lift and the moment along the body are linear in the masses; only the height of a slug that
grows upward is not. So holes are tried in turn and the last one closes what is left: its mass from the net lift, its place from
the moment. What comes out best is then moved and cut by steps with the true evaluation.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import combinations
from math import cos, radians, sin

import numpy as np
from numpy.typing import NDArray

from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.mouths import mouths
from lamsik.core.tank.ballast_base import Base, Bench
from lamsik.core.tank.ballast_tool import Tool, tools_of

NET_UNIT_G, PITCH_UNIT_DEG = 0.02, 1.0
"""What counts alike: so many grams of net lift, so many degrees of pitch."""

KEPT = 10
"""Of each number of holes of a metal and drill so many go on."""

LOOKED_AT = 30
"""So many neighbours of a candidate, the nearest, are looked at until one can be drilled."""

MOST_HOLES = 4


@dataclass(frozen=True, eq=False)
class Scale:
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
        """What is still wanted of the moment (n,) [g·mm] once `gain` [g] is put on in all and `along` of it is there."""
        b, g, mass = np.array(self.base.b_mm), np.array(self.base.mass.g_mm), self.base.mass.mass_g
        ex, ez = self.way
        return np.asarray(mass * ((b - g)[0] * ex + (b - g)[2] * ez) + gain * (b[0] * ex + b[2] * ez) - along)

    def errors(self, gain: Array, x_moment: Array, z_moment: Array) -> tuple[Array, Array]:
        """Net lift and pitch over what is wanted (n,) [g, °]; an infinite pitch where it would hang upside down."""
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
    """One hole of a candidate: its tool, place [mm] and mass [g]."""

    tool: Tool
    x_mm: float
    mass_g: float


Candidate = tuple[Spot, ...]


def holes_of(candidate: Candidate) -> tuple[Hole, ...]:
    """The holes of a candidate, from the nose."""
    ordered = sorted(candidate, key=lambda spot: spot.x_mm)
    return tuple(spot.tool.hole(f"b{n}", spot.x_mm, spot.mass_g) for n, spot in enumerate(ordered, start=1))


def apart_mm(one: float, other: float, bench: Bench) -> float:
    """Middle to middle of two holes of these drills [mm]: the shop's wall between them, 1.5 mm at least."""
    return (one + other) / 2 + max(bench.wall_mm, 1.5)


def candidates(base: Base, net_g: float, pitch_deg: float, bench: Bench) -> Iterator[tuple[float, Candidate]]:
    """The best holes of each metal and number, polished, with how far off they are."""
    scale = Scale(base, net_g, pitch_deg)
    tools = [tool for tool in tools_of(base, bench) if tool.most_g.size and tool.most_g.any()]
    found: dict[tuple[str, int, int], list[tuple[float, Candidate]]] = {}
    for tool in tools:
        for off, candidate in _of_tool(scale, tool):
            found.setdefault((tool.slug.name, len(candidate), tool.count), []).append((off, candidate))
    for rows in found.values():
        rows.sort(key=lambda row: row[0])
    kinds = sorted(found.items(), key=lambda item: item[1][0][0])
    first = {n: next((key for key, _ in kinds if key[1] * key[2] == n), None) for n in (1, 2, 3)}  # the best of each number is polished too
    done: list[tuple[float, Candidate]] = []
    for rank, (key, rows) in enumerate(kinds):
        if rank < POLISHED or key in first.values():
            done.append(polished(scale, rows[0][1], rows[0][0]))
            rows = rows[1:]
        yield from rows[:2]
    yield from done
    done.sort(key=lambda row: row[0])
    if done and done[0][0] > GOOD:
        for off, candidate in done[:3]:
            others = [*_mixed(scale, candidate, tools), *(_split(scale, candidate) if len(candidate) < MOST_HOLES and off > 1.0 else ())]
            for other in others:
                yield polished(scale, other, off_by(scale, other))


POLISHED = 8
"""So many kinds, the nearest, are moved and cut by steps."""

GOOD = 0.3
"""Nearer than this needs no polish: a hundredth of a gram and a tenth of a degree."""


def errors_of(scale: Scale, candidate: Candidate) -> tuple[float, float]:
    """Net lift [g] and pitch [°] of a candidate over what is wanted."""
    rows = [_loads(spot.tool, np.array([spot.x_mm]), np.array([spot.mass_g])) for spot in candidate]
    net, pitch = scale.errors(*(sum((row[k] for row in rows), start=np.zeros(1)) for k in range(3)))
    return float(net[0]), float(pitch[0])


def off_by(scale: Scale, candidate: Candidate) -> float:
    """How far off a candidate is, exactly."""
    net, pitch = errors_of(scale, candidate)
    return abs(net) / NET_UNIT_G + abs(pitch) / PITCH_UNIT_DEG


def _loads(tool: Tool, x: Array, mass: Array) -> tuple[Array, Array, Array]:
    """Gain [g], its moment along and its moment up (n,) [g·mm]; the mouth follows the skin."""
    gain = tool.gain_g(mass)
    swap = np.where(mass > 0, (tool.base.host_g_cm3 - tool.bench.filler_g_cm3) / 1000.0, 0.0)
    volume, along, up = (swap * row for row in mouths(tool.base.design.body, tool.drill_mm, tool.beside_mm).at(x))
    whole = gain + volume
    return whole, whole * x + along, whole * np.interp(x, *tool.floors) + tool.lift_g_mm(mass) + up


def _of_tool(scale: Scale, tool: Tool) -> Iterator[tuple[float, Candidate]]:
    x, mass = tool.atoms
    if not x.size:
        return
    yield from _single(scale, tool)
    yield from _closed(scale, tool, x[:, None], mass[:, None])
    first, second = _pairs(tool, x, mass)
    if first.size and tool.count == 1:
        yield from _closed(scale, tool, np.column_stack([x[first], x[second]]), np.column_stack([mass[first], mass[second]]))


def _single(scale: Scale, tool: Tool) -> Iterator[tuple[float, Candidate]]:
    """One hole: the best masses at every place."""
    room = tool.most_g > 0
    places, most = tool.places[room], tool.most_g[room]
    counts = np.maximum(np.round(most / tool.step_g), 1.0).astype(int)
    x = np.repeat(places, counts)
    mass = (np.concatenate([np.arange(1, n + 1) for n in counts])) * tool.step_g
    held = mass >= np.repeat(tool.room_g[0][room], counts) - 1e-9
    x, mass = x[held], mass[held]
    offs = scale.score(*_loads(tool, x, mass))
    order = np.argsort(offs)[: 4 * KEPT]
    good = tool.holds(x[order], mass[order])
    for n in order[good][:3]:
        if np.isfinite(offs[n]):
            yield float(offs[n]), (Spot(tool, float(x[n]), float(mass[n])),)


def _pairs(tool: Tool, x: Array, mass: Array) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """Pairs of atoms that lie far enough apart, thinned where they are very many."""
    a, b = np.triu_indices(len(x), 1)
    good = np.abs(x[a] - x[b]) >= apart_mm(tool.drill_mm, tool.drill_mm, tool.bench) - 1e-9
    a, b = a[good], b[good]
    return a, b


def _closed(scale: Scale, tool: Tool, x: Array, mass: Array) -> Iterator[tuple[float, Candidate]]:
    """Rows of holes (n, k), each with one more that brings net lift and moment as near as it can; the best few."""
    gain = np.zeros(len(x))
    along, up = np.zeros(len(x)), np.zeros(len(x))
    for k in range(x.shape[1]):
        one = _loads(tool, x[:, k], mass[:, k])
        gain, along, up = gain + one[0], along + one[1], up + one[2]
    room = np.nonzero(tool.most_g > 0)[0]
    places, least, most = tool.places[room], tool.room_g[0][room], tool.most_g[room]
    last = np.minimum(tool.mass_for(scale.needed_g - gain), most.max())
    wish = _wished(scale, tool, gain, along, up, last)
    tried = []
    for shift in (0, -1, 1):  # the place wished for, and its neighbours: what is there has to hold the mass
        at = np.clip(np.searchsorted(places, wish) + shift, 0, len(places) - 1)
        tried.append((places[at], np.clip(last, least[at], most[at])))
    heaviest = int(np.argmax(most))
    able = _nearest_able(places, least, most, wish, last)
    tried += [(places[able], np.clip(last, least[able], most[able])), (np.full(len(x), places[heaviest]), np.clip(last, least[heaviest], most[heaviest]))]
    results = []
    for there, cut in tried:
        here = _loads(tool, there, cut)
        off = scale.score(gain + here[0], along + here[1], up + here[2])
        gap = apart_mm(tool.drill_mm, tool.drill_mm, tool.bench) - 1e-9
        clash = (np.abs(x - there[:, None]) < gap).any(axis=1) if x.shape[1] else np.zeros(len(x), dtype=bool)
        results.append((np.where(clash, np.inf, off), there, cut))
    offs = np.concatenate([row[0] for row in results])
    count = min(4 * KEPT, len(offs))
    best = np.argpartition(offs, count - 1)[:count]
    which, row = np.divmod(best[np.isfinite(offs[best])], len(x))
    there, cut = (np.array([results[w][k][r] for w, r in zip(which, row, strict=True)]) for k in (1, 2))
    good = tool.holds(there, cut) if len(there) else np.zeros(0, dtype=bool)
    ranked = np.nonzero(good)[0]
    for n in ranked[np.argsort(offs[best[np.isfinite(offs[best])]][ranked])][:KEPT]:
        spots = [Spot(tool, float(x[row[n], k]), float(mass[row[n], k])) for k in range(x.shape[1])]
        yield float(results[which[n]][0][row[n]]), (*spots, Spot(tool, float(there[n]), float(cut[n])))


def _wished(scale: Scale, tool: Tool, gain: Array, along: Array, up: Array, last: Array) -> Array:
    """Where the last hole has to be for the wanted pitch (n,) [mm]; the belly's rise there is followed by a few steps."""
    added, (ex, ez) = tool.gain_g(last), scale.way
    left = scale.wish_mm(gain + added, along * ex + up * ez)
    x = np.full(len(gain), tool.base.design.body.length_mm / 2)
    safe = np.where(np.abs(added) > 1e-9, added, 1e-9)
    for _ in range(4 if ez else 1):
        height = added * np.interp(x, *tool.floors) + tool.lift_g_mm(last)
        x = (left - height * ez) / (safe * ex)
    return np.asarray(np.clip(x, 0.0, tool.base.design.body.length_mm))


def _nearest_able(places: Array, least: Array, most: Array, wish: Array, mass: Array) -> NDArray[np.int64]:
    """For each wish the nearest place that holds the mass; the heaviest place where none does."""
    found = np.full(len(wish), int(np.argmax(most)))
    for n, level in enumerate(np.unique(mass)):
        if n > 200:
            break
        mine = np.nonzero(mass == level)[0]
        able = np.nonzero((most >= level - 1e-9) & (least <= level + 1e-9))[0]
        if able.size:
            spots = places[able]
            at = np.clip(np.searchsorted(spots, wish[mine]), 0, len(spots) - 1)
            before = np.maximum(at - 1, 0)
            nearer = np.where(np.abs(spots[before] - wish[mine]) < np.abs(spots[at] - wish[mine]), before, at)
            found[mine] = able[nearer]
    return found


def polished(scale: Scale, candidate: Candidate, off: float, rounds: int = 25) -> tuple[float, Candidate]:
    """The candidate moved and cut by single steps while that brings it nearer."""
    for _ in range(rounds):
        if off < GOOD:
            break
        best = min(_moves(scale, candidate), key=lambda row: row[0], default=(np.inf, candidate))
        if best[0] >= off - 1e-6:
            return off, candidate
        off, candidate = best
    return off, candidate


def _moves(scale: Scale, candidate: Candidate) -> Iterable[tuple[float, Candidate]]:
    """Neighbours that can be drilled, the most promising looked at: holes moved, a step cut off or added, a step from one to another."""
    bench = candidate[0].tool.bench
    changes: list[Candidate] = []
    for n, spot in enumerate(candidate):
        for far in (0.5, 1.0, 2.0, 5.0):
            changes += [_with(candidate, n, replace(spot, x_mm=spot.x_mm + way * far * bench.place_step_mm / 0.5)) for way in (-1, 1)]
        for steps in (-4, -2, -1, 1, 2, 4):
            mass = spot.mass_g + steps * spot.tool.step_g
            if mass > 1e-9:
                changes += [_with(candidate, n, replace(spot, mass_g=mass, x_mm=spot.x_mm + far * bench.place_step_mm)) for far in (0, -4, -2, -1, 1, 2, 4)]
    for (i, one), (j, other) in combinations(enumerate(candidate), 2):
        for way in (-3, -1, 1, 3):
            give, take = replace(one, mass_g=one.mass_g - way * one.tool.step_g), replace(other, mass_g=other.mass_g + way * other.tool.step_g)
            if give.mass_g > 1e-9 and take.mass_g > 1e-9:
                changes.append(_with(_with(candidate, i, give), j, take))
        for far in (0.5, 1.0):
            for way in (-1, 1):
                near, away = replace(one, x_mm=one.x_mm + way * far), replace(other, x_mm=other.x_mm - way * far)
                changes.append(_with(_with(candidate, i, near), j, away))
    if not changes:
        return []
    ranked = sorted(zip(_offs(scale, changes), changes, strict=True), key=lambda row: row[0])
    return next(([row] for row in ranked[:LOOKED_AT] if fits(row[1])), [])


def _offs(scale: Scale, changes: list[Candidate]) -> list[float]:
    """How far off many candidates of one size are, at once."""
    total = [np.zeros(len(changes)) for _ in range(3)]
    for k in range(len(changes[0])):
        by_tool: dict[int, list[int]] = {}
        for n, change in enumerate(changes):
            by_tool.setdefault(id(change[k].tool), []).append(n)
        for rows in by_tool.values():
            tool = changes[rows[0]][k].tool
            found = _loads(tool, np.array([changes[n][k].x_mm for n in rows]), np.array([changes[n][k].mass_g for n in rows]))
            for m in range(3):
                total[m][rows] += found[m]
    return [float(off) for off in scale.score(*total)]


def _with(candidate: Candidate, n: int, spot: Spot) -> Candidate:
    return (*candidate[:n], spot, *candidate[n + 1 :])


def fits(candidate: Candidate) -> bool:
    """Whether all its holes can be drilled, and keep apart."""
    for one, other in combinations(candidate, 2):
        if abs(one.x_mm - other.x_mm) < apart_mm(one.tool.drill_mm, other.tool.drill_mm, one.tool.bench) - 1e-9:
            return False
    return all(bool(spot.tool.holds(np.array([spot.x_mm]), np.array([spot.mass_g]))[0]) for spot in candidate)


def _mixed(scale: Scale, candidate: Candidate, tools: list[Tool]) -> Iterator[Candidate]:
    """One of its holes with another metal or drill, cut so that the net lift is kept as nearly as can be."""
    for n, spot in enumerate(candidate):
        rest = sum(float(other.tool.gain_g(np.array([other.mass_g]))[0]) for k, other in enumerate(candidate) if k != n)
        trials = []
        for tool in tools:
            if tool is spot.tool:
                continue
            mass = float(tool.mass_for(np.array([scale.needed_g - rest]))[0])
            changed = _with(candidate, n, Spot(tool, spot.x_mm, mass))
            trials.append((off_by(scale, changed), changed))
        for _, changed in sorted(trials, key=lambda row: row[0])[:2]:
            if fits(changed):
                yield changed


def _split(scale: Scale, candidate: Candidate) -> Iterator[Candidate]:
    """Its heaviest hole in two beside each other, where there is room: more metal, lower down."""
    n, spot = max(enumerate(candidate), key=lambda row: row[1].mass_g)
    gap = apart_mm(spot.tool.drill_mm, spot.tool.drill_mm, spot.tool.bench)
    steps = round(spot.mass_g / spot.tool.step_g)
    if steps < 2:
        return
    for less in (steps // 2, steps - 1, 1):
        for side in (-1, 1):
            pair = (replace(spot, mass_g=(steps - less) * spot.tool.step_g), replace(spot, x_mm=spot.x_mm + side * np.ceil(2 * gap) / 2, mass_g=less * spot.tool.step_g))
            changed = (*candidate[:n], *pair, *candidate[n + 1 :])
            if fits(changed):
                yield changed
