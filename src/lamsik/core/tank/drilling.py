"""Where a hole may be drilled: the wall it leaves, and what is in its way."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from math import cos, radians

import numpy as np
from numpy.typing import NDArray

from lamsik.core.findings import Finding, finding
from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.body import Body, station, uncut
from lamsik.core.shapes.clashes import (
    BLIND,
    SLOT,
    Rod,
    between_mm,
    chamber,
    drilled,
    nearest,
    rods,
    shanks,
)
from lamsik.core.shapes.columns import reach_of
from lamsik.core.shapes.curves import Array, phi_of_share
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import seat_point
from lamsik.core.shapes.inside import Cavity
from lamsik.core.shapes.joints import Cut
from lamsik.core.shapes.mouths import floor_mm
from lamsik.core.trade.part_kinds import CLOSED, OPEN

TABLE_POINTS = 601

WIRE_GAP_MM = 0.5

SHALLOW = 0.6
"""The sides of a hole are looked at where it ends and at this share of its depth."""


@dataclass(frozen=True, eq=False)
class WallTable:
    """A body's outlines at many stations, for quick look-up; all (n,) [mm]."""

    x: Array
    top: Array
    bottom: Array
    widest: Array
    half: Array


@lru_cache(maxsize=32)
def table(body: Body) -> WallTable:
    """The look-up table of a body."""
    share = np.linspace(0.0, 1.0, TABLE_POINTS)
    phi = phi_of_share(share)
    return WallTable(
        share * body.length_mm,
        body.top.at(phi),
        body.bottom.at(phi),
        body.widest_at(phi),
        np.maximum(body.half_width.at(phi), 0.0),
    )


@lru_cache(maxsize=64)
def _floor_table(body: Body, beside_mm: float) -> Array:
    return floor_mm(body, table(body).x, beside_mm)


def floors_mm(body: Body, x_mm: Array, beside_mm: float = 0.0) -> Array:
    """Height of the skin where holes at x (n,) begin [mm], so far beside the middle; looked up."""
    rows = table(body)
    return np.asarray(
        np.interp(x_mm, rows.x, rows.bottom if beside_mm <= 0 else _floor_table(body, beside_mm))
    )


def walls_left_mm(
    body: Body, x_mm: Array, depth_mm: float | Array, drill_mm: float | Array, beside_mm: float | Array = 0.0
) -> Array:
    """Thinnest material left [mm] round a hole from the belly at each x (n,): above it, beside it, and to a
    flat end.

    The sides are looked at where the hole ends and a little below, where a rounded section narrows most. Of a
    mirrored pair,
    `beside_mm` from the middle, each side's own is looked at, and what is left between the two.
    """
    x_mm = np.asarray(x_mm, dtype=float)
    depth, radius, beside = (
        np.broadcast_to(row, x_mm.shape) for row in (depth_mm, np.asarray(drill_mm) / 2, beside_mm)
    )
    pair = beside > 0
    head = floors_mm(body, x_mm) + depth
    for at in np.nonzero(pair)[0]:
        head[at] = floors_mm(body, x_mm[at : at + 1], float(beside[at]))[0] + depth[at]
    thinnest = np.minimum(x_mm, body.length_mm - x_mm) - radius
    for side in (-1, 0, 1):
        here = _Stations.at(table(body), x_mm + side * radius)
        thinnest = np.minimum(thinnest, np.where(pair, np.inf, here.top - head))
        for z in (head, head - (1 - SHALLOW) * depth):
            thinnest = np.minimum(thinnest, here.half_width(body, z) - beside - radius)
    if pair.any():
        lid = _lid_mm(body, x_mm[pair], radius[pair], beside[pair]) - head[pair]
        thinnest[pair] = np.minimum(thinnest[pair], np.minimum(lid, 2 * (beside - radius)[pair]))
    return np.asarray(thinnest)


def _lid_mm(body: Body, x_mm: Array, radius_mm: Array, beside_mm: Array) -> Array:
    """Height of the back over holes beside the middle (n,) [mm], where it is lowest round their rims."""
    around = np.linspace(0.0, 2 * np.pi, 8, endpoint=False)
    x, y = (
        at[:, None] + radius_mm[:, None] * np.append(way, 0.0)
        for at, way in ((x_mm, np.cos(around)), (beside_mm, np.sin(around)))
    )
    _, top = reach_of(uncut(body))(x.ravel(), y.ravel())
    return np.asarray(top.reshape(x.shape).min(axis=1))


def depths_mm(
    body: Body, x_mm: Array, drill_mm: float, wall_mm: float, beside_mm: float = 0.0
) -> tuple[Array, Array]:
    """The shallowest and the deepest hole at each x (n,) that leaves a wall all round [mm]; none where the
    first is the larger.

    `walls_left_mm` turned round: a section is wide enough between two heights and a lid thick enough below
    one, so what holds is one stretch of depths. A hole too shallow breaks out beside a sharp belly just as
    one too deep does above.
    """
    x_mm, radius = np.asarray(x_mm, dtype=float), drill_mm / 2
    start = floors_mm(body, x_mm, beside_mm)
    low, high = np.zeros(x_mm.shape), np.full(x_mm.shape, np.inf)
    for edge in (-radius, 0.0, radius):
        here = _Stations.at(table(body), x_mm + edge)
        floor, lid = here.stretch(body, beside_mm + radius + wall_mm)
        if beside_mm <= 0:
            lid = np.minimum(lid, here.top - wall_mm)
        low = np.maximum(low, (floor - start) / SHALLOW)
        high = np.minimum(high, lid - start)
    if beside_mm > 0:
        high = np.minimum(
            high,
            _lid_mm(body, x_mm, np.full(x_mm.shape, radius), np.full(x_mm.shape, beside_mm))
            - wall_mm
            - start,
        )
    ends = np.minimum(x_mm, body.length_mm - x_mm) - radius
    apart = 2 * beside_mm - drill_mm if beside_mm > 0 else np.inf
    good = (high > 0) & (np.minimum(ends, apart) >= wall_mm - 1e-9)
    return np.where(good, low, np.inf), np.where(good, high, 0.0)


@dataclass(frozen=True, eq=False)
class _Stations:
    """Outlines at some x (n,) [mm], looked up at once."""

    top: Array
    bottom: Array
    widest: Array
    half: Array

    @staticmethod
    def at(rows: WallTable, x: Array) -> "_Stations":
        """The outlines at x (n,) [mm]."""
        return _Stations(
            *(np.interp(x, rows.x, line) for line in (rows.top, rows.bottom, rows.widest, rows.half))
        )

    def half_width(self, body: Body, z: Array) -> Array:
        """Half-width [mm] of the sections at heights z (n,); 0 outside the profile."""
        above = z >= self.widest
        reach = np.where(above, self.top - self.widest, self.widest - self.bottom)
        n = np.where(above, body.upper_exponent, body.lower_exponent)
        share = np.minimum(np.abs(z - self.widest) / np.maximum(reach, 1e-9), 1.0)
        return np.asarray(self.half * (1.0 - share**n) ** (1.0 / n))

    def stretch(self, body: Body, half_mm: float) -> tuple[Array, Array]:
        """Heights between which the sections are at least so wide to each side (n,) [mm]; (inf, −inf)
        where nowhere.
        """
        ratio = half_mm / np.maximum(self.half, 1e-9)
        wide, share = ratio <= 1.0, np.minimum(ratio, 1.0)
        up, down = ((1.0 - share**n) ** (1.0 / n) for n in (body.upper_exponent, body.lower_exponent))
        low, high = (
            self.widest - (self.widest - self.bottom) * down,
            self.widest + (self.top - self.widest) * up,
        )
        return np.where(wide, low, np.inf), np.where(wide, high, -np.inf)


def wall_left_mm(body: Body, hole: Hole) -> float:
    """Thinnest material left round one hole [mm]."""
    return float(walls_of(body, (hole,))[0])


def walls_of(body: Body, holes: Sequence[Hole]) -> Array:
    """Thinnest material left round each of many holes (n,) [mm], looked at all at once."""
    x, depth, drill, beside = (
        np.array([(hole.x_mm, hole.depth_mm, hole.drill_mm, hole.beside_mm) for hole in holes])
        .reshape(-1, 4)
        .T
    )
    return walls_left_mm(body, x, depth, drill, beside)


def obstacles(design: Design, gap_mm: float = 1.5) -> tuple[tuple[float, float], ...]:
    """Stretches of the belly (from, to) [mm] into which no hole may reach: hangers, lip slot, poured ends,
    cavities, joints, rattles and tubes.
    """
    blocked = [(x - gap_mm - 1.0, x + gap_mm + 1.0) for x in _hangers(design)]
    if design.lip is not None:
        blocked.append(
            (-1e3, design.lip.x_mm + design.lip.inset_mm * cos(radians(design.lip.angle_deg)) + gap_mm)
        )
    blocked += [(pour.from_mm - gap_mm, pour.to_mm + gap_mm) for pour in design.pours]
    blocked += [
        (cavity.x_mm - cavity.length_mm / 2 - gap_mm, cavity.x_mm + cavity.length_mm / 2 + gap_mm)
        for cavity in design.cavities
    ]
    blocked += [_cut_stretch(design.body, pair, gap_mm) for pair in design.body.cuts]
    lying = [p for p in design.hardware if p.seat == "inside" and p.item.of.bore in (CLOSED, OPEN)]
    blocked += [(p.x_mm - p.item.shank_mm / 2 - gap_mm, p.x_mm + p.item.shank_mm / 2 + gap_mm) for p in lying]
    return tuple(blocked)


def _cut_stretch(body: Body, faces: tuple[Cut, Cut], gap_mm: float) -> tuple[float, float]:
    """What a saw cut takes of the belly, from its lower edge to its upper one."""
    here = station(body, (faces[0].x_mm + faces[1].x_mm) / 2)
    at = [face.at_height(z) for face in faces for z in (here.bottom_mm, here.top_mm)]
    return (min(at) - gap_mm, max(at) + gap_mm)


def under_wire_mm(
    design: Design, x_mm: Array, gap_mm: float = WIRE_GAP_MM, drill_mm: float = 0.0, beside_mm: float = 0.0
) -> Array:
    """The deepest hole at each x (n,) that ends so far under the through-wire [mm]; infinite where there is
    none, or where a mirrored pair goes past it to both sides.
    """
    wire = next((p.item for p in design.hardware if p.item.kind == "wire"), None)
    if wire is None or beside_mm - drill_mm / 2 >= wire.wire_mm / 2 + gap_mm:
        return np.full(np.shape(x_mm), np.inf)
    body = design.body
    line = np.interp(
        x_mm, (0.0, body.length_mm), (station(body, 0.0).middle_mm, station(body, body.length_mm).middle_mm)
    )
    return np.asarray(line - wire.wire_mm / 2 - gap_mm - floors_mm(body, x_mm, beside_mm))


@dataclass(frozen=True)
class Over:
    """What lies over a stretch of the belly: from, to, its lowest height, and how far it reaches to each side
    of the middle [mm].
    """

    from_mm: float
    to_mm: float
    low_mm: float
    half_mm: float


def overhead(design: Design) -> tuple[Over, ...]:
    """What a hole from the belly would run into from below: shanks that are driven in at the nose, the tail
    and the back; over a lip's slot there is no room at all.
    """
    over = []
    for rod in rods(replace(design, ballast=())):
        (x0, z0), (x1, z1) = rod.mouth, rod.end
        if rod.kind == SLOT:
            over.append(Over(-1e3, max(x0, x1) + rod.radius_mm, -1e3, np.inf))
        elif rod.kind == BLIND and z1 <= z0:
            wide, thick = (0.0, rod.radius_mm) if z0 == z1 else (rod.radius_mm, 0.0)
            over.append(Over(min(x0, x1) - wide, max(x0, x1) + wide, z1 - thick, rod.radius_mm))
    return tuple(over)


def under_mm(
    body: Body, over: tuple[Over, ...], x_mm: Array, drill_mm: float, beside_mm: float, gap_mm: float
) -> Array:
    """The deepest hole at each x (n,) that keeps so far from what lies over it [mm]; infinite where nothing
    does, or where a mirrored pair goes past it to both sides.
    """
    floor, deepest = floors_mm(body, x_mm, beside_mm), np.full(np.shape(x_mm), np.inf)
    for one in over:
        if beside_mm - drill_mm / 2 >= one.half_mm + gap_mm:
            continue
        below = (x_mm + drill_mm / 2 > one.from_mm - gap_mm) & (x_mm - drill_mm / 2 < one.to_mm + gap_mm)
        deepest = np.where(below, np.minimum(deepest, one.low_mm - gap_mm - floor), deepest)
    return np.asarray(deepest)


def _hangers(design: Design) -> list[float]:
    return [
        seat_point(design.body, placed)[0]
        for placed in design.hardware
        if placed.seat == "belly" and not placed.hung_on
    ]


def clear_of(stretches: tuple[tuple[float, float], ...], x_mm: Array, drill_mm: float) -> NDArray[np.bool_]:
    """Whether holes at each x (n,) keep clear of all stretches."""
    clear = np.ones(x_mm.shape, dtype=bool)
    for low, high in stretches:
        clear &= (x_mm - drill_mm / 2 >= high) | (x_mm + drill_mm / 2 <= low)
    return clear


def clear_of_hardware(design: Design, x_mm: Array, drill_mm: float) -> NDArray[np.bool_]:
    """Whether holes at each x (n,) keep clear of belly hangers, the lip slot, poured ends and cavities."""
    return clear_of(obstacles(design), x_mm, drill_mm)


def troubles(design: Design, hole: Hole, wall_mm: float) -> tuple[Finding, ...]:
    """What is wrong with a hole where it is, in words; empty if it can be drilled.

    Args:
        design: the design with all its holes.
        hole: one of them.
        wall_mm: the thinnest wall the shop allows [mm].
    """
    troubled = []
    wall = wall_left_mm(design.body, hole)
    if wall <= 0:
        troubled.append(finding("hole-breaks-out"))
    elif wall < wall_mm - 1e-9:
        troubled.append(finding("wall-left", wall=wall))
    if not clear_of_hardware(design, np.array([hole.x_mm]), hole.drill_mm)[0]:
        troubled.append(finding("runs-into", what=_what_is_at(design, hole)))
    deepest = under_wire_mm(design, np.array([hole.x_mm]), drill_mm=hole.drill_mm, beside_mm=hole.beside_mm)
    if hole.depth_mm > deepest[0]:
        troubled.append(finding("runs-into-wire"))
    over = [one for one in shanks(design) if one.end[1] <= one.mouth[1]]
    troubled += _near_shanks(drilled(design.body, hole), over, wall_mm)
    others = [other for other in design.ballast if other.key != hole.key]
    if any(abs(other.x_mm - hole.x_mm) < (other.drill_mm + hole.drill_mm) / 2 + 0.5 for other in others):
        troubled.append(finding("runs-into-hole"))
    gain = net_added_g(hole, design.host.density_g_cm3)
    if hole.mass_g > 0 and gain <= 0:
        troubled.append(finding("hole-makes-lighter", gain=-gain))
    return tuple(troubled)


def _near_shanks(what: Rod, driven: Sequence[Rod], wall_mm: float) -> list[Finding]:
    """The shanks driven into the body that something runs into, or comes too near."""
    near = []
    for shank in driven:
        if shank.kind != BLIND:
            continue
        gap = nearest(what, shank)[2]
        if gap <= 0:
            near.append(finding("runs-into", what=shank.name))
        elif gap < between_mm(wall_mm) - 1e-9:
            near.append(finding("leaves-to", gap=gap, what=shank.name))
    return near


def net_added_g(hole: Hole, host_g_cm3: float) -> float:
    """What a hole adds in all [g]: metal and filler, less the host drilled out; negative makes the bait
    lighter.
    """
    return hole.mass_g + hole.filler_g - host_g_cm3 * hole.hole_ml


def _what_is_at(design: Design, hole: Hole) -> Finding:
    """What stands in a hole's way."""
    at, drill = np.array([hole.x_mm]), hole.drill_mm
    bald = replace(
        design,
        hardware=(),
        lip=None,
        pours=(),
        cavities=(),
        trials=(),
        segment_hosts=(),
        body=replace(design.body, joints=()),
    )
    for what, bare in (
        ("a-joint", replace(bald, body=design.body)),
        ("a-poured-end", replace(bald, pours=design.pours)),
        ("a-cavity", replace(bald, cavities=design.cavities)),
        ("the-lip-slot", replace(bald, lip=design.lip)),
        ("what-lies-inside", replace(bald, hardware=tuple(p for p in design.hardware if p.seat == "inside"))),
    ):
        if not clear_of_hardware(bare, at, drill)[0]:
            return finding(what)
    return finding("a-hanger")


def pour_troubles(design: Design, key: str) -> tuple[Finding, ...]:
    """What is wrong with a poured stretch: it overlaps another."""
    mine = next(pour for pour in design.pours if pour.key == key)
    over = any(
        other.key != key and other.from_mm < mine.to_mm and mine.from_mm < other.to_mm
        for other in design.pours
    )
    return (finding("overlaps-pour"),) if over else ()


def cavity_wall_mm(body: Body, cavity: Cavity) -> float:
    """Thinnest material round a cavity [mm]: above, below and beside it, along its length; negative if it
    breaks out.
    """
    rows, half = table(body), cavity.bore_mm / 2
    x = cavity.x_mm + np.linspace(-0.5, 0.5, 9) * cavity.length_mm
    middle = float(np.interp(cavity.x_mm, rows.x, rows.bottom)) + cavity.up_mm
    above = np.interp(x, rows.x, rows.top) - middle - half
    below = middle - half - np.interp(x, rows.x, rows.bottom)
    beside = _Stations.at(rows, x).half_width(body, np.full(x.shape, middle)) - half
    ends = min(x[0], body.length_mm - x[-1])
    return float(min(above.min(), below.min(), beside.min(), ends))


def cavity_troubles(design: Design, cavity: Cavity, wall_mm: float) -> tuple[Finding, ...]:
    """What is wrong with a cavity where it is, in words."""
    troubled, wall = [], cavity_wall_mm(design.body, cavity)
    if wall <= 0:
        troubled.append(finding("hole-breaks-out"))
    elif wall < wall_mm - 1e-9:
        troubled.append(finding("wall-left", wall=wall))
    ends = [(c.x_mm - c.length_mm / 2, c.x_mm + c.length_mm / 2, c.key) for c in design.cavities]
    low, high = cavity.x_mm - cavity.length_mm / 2, cavity.x_mm + cavity.length_mm / 2
    if any(key != cavity.key and a < high and low < b for a, b, key in ends):
        troubled.append(finding("runs-into-cavity"))
    troubled += _near_shanks(chamber(design.body, cavity), shanks(design), wall_mm)
    gain = cavity.mass_g - design.host.density_g_cm3 * cavity.volume_ml
    if gain <= 0:
        troubled.append(finding("chamber-makes-lighter", gain=-gain))
    return tuple(troubled)
