"""What is inside a body and gets in each other's way or too near the skin: every bore, shank, slot and cut
as a rod.
"""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from math import hypot

import numpy as np

from lamsik.core.findings import Finding, finding
from lamsik.core.quantities import kept_as_said
from lamsik.core.shapes.ballast_holes import Hole, mouth_mm
from lamsik.core.shapes.body import Body, half_width_at_height, leaning, station
from lamsik.core.shapes.columns import reach_of
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Placement, lip_point
from lamsik.core.shapes.inside import Cavity, cavity_point
from lamsik.core.shapes.joints import Cut
from lamsik.core.trade import part_kinds

Spot = tuple[float, float]

BLIND, THROUGH, BURIED, SLOT = "blind", "through", "buried", "slot"


@dataclass(frozen=True)
class Rod:
    """A thing inside the body on its middle plane: from its mouth to its end (x, z) [mm], radius [mm].

    One beside the middle, of a mirrored pair, is looked at in its own plane. `blind` ones enter at their
    mouth, `through` ones go from skin to skin, `buried` ones do not reach it, a `slot` is sawn. What is
    sawn goes right `across` the body.
    """

    key: str
    name: Finding | str
    mouth: Spot
    end: Spot
    radius_mm: float
    kind: str = BLIND
    beside_mm: float = 0.0
    across: bool = False


@dataclass(frozen=True)
class Clash:
    """Two things nearer than the shop allows, or one too near the skin: gap [mm] (negative: into each
    other) and where.
    """

    what: Finding | str
    other: Finding | str
    gap_mm: float
    at: Spot
    to: Spot

    @property
    def says(self) -> Finding:
        """In words: what, how near, to what."""
        if self.gap_mm <= 0:
            return (
                finding("breaks-out", what=self.what)
                if self.other == SKIN
                else finding("runs-into-other", what=self.what, other=self.other)
            )
        if self.other == SKIN:
            return finding("leaves-of-wall", what=self.what, gap=self.gap_mm)
        return finding("leaves-between", what=self.what, gap=self.gap_mm, other=self.other)


SKIN = "skin"

THIN_MM, THIN_WALL_MM = 1.0, 1.0
"""A shank thinner than this radius needs no more wall than this: it is a screw, not a bore [mm]."""


def cut_ends(body: Body, cut: Cut) -> tuple[Spot, Spot]:
    """Where a cut leaves the back and the belly, (x, z) [mm] each."""
    spots = []
    for edge in ("top_mm", "bottom_mm"):
        z = getattr(station(body, cut.x_mm), edge)
        for _ in range(12):
            z = getattr(station(body, cut.at_height(z)), edge)
        spots.append((cut.at_height(z), float(z)))
    return spots[0], spots[1]


def rods(design: Design) -> tuple[Rod, ...]:
    """Everything inside the body, as rods."""
    body = design.body
    in_body = [drilled(body, hole) for hole in design.ballast]
    in_body += [chamber(body, cavity) for cavity in design.cavities]
    if design.lip is not None and design.lip.inset_mm > 0:
        root, inner = lip_point(body, design.lip, 0.0), lip_point(body, design.lip, -design.lip.inset_mm)
        in_body.append(
            Rod(
                "lip",
                finding("lip-slot"),
                (root[0], root[2]),
                (inner[0], inner[2]),
                design.lip.thickness_mm / 2,
                SLOT,
                across=True,
            )
        )
    in_body += shanks(design)
    for joint in body.joints:
        top, low_end = cut_ends(body, leaning(body, joint.x_mm, joint.slant_deg))
        in_body.append(
            Rod(
                joint.key,
                finding("joint-at", x=joint.x_mm),
                top,
                low_end,
                joint.kerf_mm / 2,
                THROUGH,
                across=True,
            )
        )
    return tuple(in_body)


def drilled(body: Body, hole: Hole) -> Rod:
    """A hole for ballast, or one of a mirrored pair."""
    low, name = mouth_mm(body, hole), "pair-at" if hole.count > 1 else "hole-at"
    return Rod(
        hole.key,
        finding(name, drill=hole.drill_mm, x=hole.x_mm),
        (hole.x_mm, low),
        (hole.x_mm, low + hole.depth_mm),
        hole.drill_mm / 2,
        beside_mm=hole.beside_mm,
    )


def shanks(design: Design) -> list[Rod]:
    """What its parts have in the body: shanks, bores, chambers."""
    return [rod for placed in design.hardware if (rod := _rod_of(design, placed))]


def chamber(body: Body, cavity: Cavity) -> Rod:
    """A chamber of balls."""
    x, _, z = cavity_point(body, cavity)
    reach = max(cavity.length_mm - cavity.bore_mm, 0.0) / 2
    return Rod(
        cavity.key, finding("chamber-at", x=x), (x - reach, z), (x + reach, z), cavity.bore_mm / 2, BURIED
    )


def _rod_of(design: Design, placed: Placement) -> Rod | None:
    """The shank, bore or chamber of a part."""
    body, item = design.body, placed.item
    if placed.hung_on or item.wire_mm <= 0 or not item.of.is_rod:
        return None
    here, name = station(body, placed.x_mm), item.name
    if item.of.bore == part_kinds.THROUGH:
        ends = (0.0, station(body, 0.0).middle_mm), (body.length_mm, station(body, body.length_mm).middle_mm)
        return Rod(placed.key, name, *ends, item.wire_mm / 2, THROUGH)
    if item.shank_mm <= 0:
        return None
    middle = here.middle_mm if placed.up_mm is None else here.bottom_mm + placed.up_mm
    if item.of.bore:
        half = item.shank_mm / 2
        return Rod(
            placed.key,
            name,
            (here.x_mm - half, middle),
            (here.x_mm + half, middle),
            item.wire_mm / 2,
            BURIED if item.of.bore == part_kinds.CLOSED else THROUGH,
        )
    mouths: dict[str, tuple[Spot, Spot]] = {
        "nose": ((0.0, station(body, 0.0).middle_mm), (1.0, 0.0)),
        "tail": ((body.length_mm, station(body, body.length_mm).middle_mm), (-1.0, 0.0)),
        "belly": ((here.x_mm, here.bottom_mm), (0.0, 1.0)),
        "back": ((here.x_mm, here.top_mm), (0.0, -1.0)),
    }
    if placed.seat not in mouths:
        return None
    mouth, way = mouths[placed.seat]
    end = (mouth[0] + way[0] * item.shank_mm, mouth[1] + way[1] * item.shank_mm)
    return Rod(placed.key, name, mouth, end, item.wire_mm / 2)


@kept_as_said(64)
def clashes(design: Design, wall_mm: float) -> tuple[Clash, ...]:
    """Everything nearer to something else, or to the skin, than the shop's wall [mm]; the worst first."""
    things = rods(design)
    clashing = [
        clash
        for i, one in enumerate(things)
        for other in things[i + 1 :]
        if (clash := _between(one, other, wall_mm))
    ]
    clashing += [
        clash
        for thing in things
        if thing.kind != THROUGH
        and (
            clash := _to_skin(
                design.body, thing, min(wall_mm, THIN_WALL_MM) if thing.radius_mm < THIN_MM else wall_mm
            )
        )
    ]
    return tuple(sorted(clashing, key=lambda clash: clash.gap_mm))


def _between(one: Rod, other: Rod, wall_mm: float) -> Clash | None:
    """Parts may share a through-wire's ends and hang on it; all else keeps its distance."""
    if THROUGH in (one.kind, other.kind) and {one.kind, other.kind} == {THROUGH}:
        return None
    a, b, gap = nearest(one, other)
    if gap >= between_mm(wall_mm) - 1e-9:
        return None
    return Clash(one.name, other.name, gap, a, b)


def is_clear(rod: Rod, others: Iterable[Rod], wall_mm: float) -> bool:
    """Whether a thing keeps its distance from others."""
    return all(_between(rod, other, wall_mm) is None for other in others)


def between_mm(wall_mm: float) -> float:
    """What stays between two things inside a body: half the wall that stays to the skin [mm]."""
    return wall_mm / 2


def nearest(one: Rod, other: Rod) -> tuple[Spot, Spot, float]:
    """The nearest points of two rods' axes, and the gap between their surfaces [mm].

    Notes: two segments in a plane cross, or are nearest at an end of one of them. A drilled hole ends flat:
        its rounded rod is shortened by its radius. Two planes are apart all along what lies in them.
    """
    one, other = _flat(one), _flat(other)
    aside = 0.0 if one.across or other.across else abs(one.beside_mm - other.beside_mm)
    crossing = _crossing(one, other)
    if crossing is not None:
        return crossing, crossing, aside - one.radius_mm - other.radius_mm
    pairs = [(end, _foot(other, end)) for end in (one.mouth, one.end)] + [
        (_foot(one, end), end) for end in (other.mouth, other.end)
    ]
    a, b = min(pairs, key=lambda pair: hypot(pair[0][0] - pair[1][0], pair[0][1] - pair[1][1]))
    return a, b, hypot(a[0] - b[0], a[1] - b[1], aside) - one.radius_mm - other.radius_mm


def _flat(rod: Rod) -> Rod:
    """A blind rod whose round end reaches no further than the flat end of its hole."""
    (x0, z0), (x1, z1) = rod.mouth, rod.end
    length = hypot(x1 - x0, z1 - z0)
    if rod.kind != BLIND or length < 1e-9:
        return rod
    left = max(length - rod.radius_mm, 0.0) / length
    return replace(rod, end=(x0 + left * (x1 - x0), z0 + left * (z1 - z0)))


def _foot(rod: Rod, spot: Spot) -> Spot:
    """The point of a rod's axis nearest to a spot."""
    (x0, z0), (x1, z1) = rod.mouth, rod.end
    square = (x1 - x0) ** 2 + (z1 - z0) ** 2
    share = ((spot[0] - x0) * (x1 - x0) + (spot[1] - z0) * (z1 - z0)) / square if square > 1e-12 else 0.0
    share = min(max(share, 0.0), 1.0)
    return (x0 + share * (x1 - x0), z0 + share * (z1 - z0))


def _crossing(one: Rod, other: Rod) -> Spot | None:
    (x0, z0), (x1, z1) = one.mouth, one.end
    (u0, w0), (u1, w1) = other.mouth, other.end
    ax, az, bx, bz = x1 - x0, z1 - z0, u1 - u0, w1 - w0
    turn = ax * bz - az * bx
    if abs(turn) < 1e-12:
        return None
    s = ((u0 - x0) * bz - (w0 - z0) * bx) / turn
    t = ((u0 - x0) * az - (w0 - z0) * ax) / turn
    return (x0 + s * ax, z0 + s * az) if 0 <= s <= 1 and 0 <= t <= 1 else None


def _to_skin(body: Body, rod: Rod, wall_mm: float) -> Clash | None:
    """The thinnest wall round a rod: of one drilled from outside only its inner part counts, and not the
    way it came.
    """
    (x0, z0), (x1, z1) = rod.mouth, rod.end
    best: Clash | None = None
    for share in np.linspace(0.6 if rod.kind in (BLIND, SLOT) else 0.0, 1.0, 9).tolist():
        spot = (x0 + share * (x1 - x0), z0 + share * (z1 - z0))
        for clash in _walls(body, rod, spot):
            if clash.gap_mm < wall_mm - 1e-9 and (best is None or clash.gap_mm < best.gap_mm):
                best = clash
    return best


def _walls(body: Body, rod: Rod, spot: Spot) -> list[Clash]:
    """Material left round one point of a rod, above, below, beside and ahead: across the rod its radius
    counts, along it not.
    """
    x, z = spot
    here, radius = station(body, x), rod.radius_mm
    if rod.beside_mm > 0:
        foot, head = (float(row[0]) for row in reach_of(body)(np.array([x]), np.array([rod.beside_mm])))
        here = (
            replace(here, top_mm=head, bottom_mm=foot)
            if np.isfinite(head)
            else replace(here, top_mm=z, bottom_mm=z)
        )
    upright = abs(rod.end[1] - rod.mouth[1]) > abs(rod.end[0] - rod.mouth[0])
    rising = rod.end[1] > rod.mouth[1]
    rows: list[tuple[float, Spot]] = (
        [] if rod.kind == SLOT else [(half_width_at_height(body, x, z) - rod.beside_mm - radius, (x, z))]
    )
    if not upright or rising:
        rows.append((here.top_mm - z - (0.0 if upright else radius), (x, here.top_mm)))
    if rod.kind != SLOT and (not upright or not rising):
        rows.append((z - here.bottom_mm - (0.0 if upright else radius), (x, here.bottom_mm)))
    if rod.kind == BURIED:
        rows += [(x - radius, (0.0, z)), (body.length_mm - x - radius, (body.length_mm, z))]
    return [Clash(rod.name, SKIN, float(gap), spot, to) for gap, to in rows]
