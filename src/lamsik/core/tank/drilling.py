"""Where a hole may be drilled: the wall it leaves, and what is in its way."""

from dataclasses import dataclass
from functools import lru_cache
from math import cos, radians

import numpy as np
from numpy.typing import NDArray

from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array, phi_of_share
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import seat_point

TABLE_POINTS = 601


@dataclass(frozen=True, eq=False)
class Table:
    """A body's outlines at many stations, for quick look-up; all (n,) [mm]."""

    x: Array
    top: Array
    bottom: Array
    widest: Array
    half: Array


@lru_cache(maxsize=32)
def table(body: Body) -> Table:
    """The look-up table of a body."""
    share = np.linspace(0.0, 1.0, TABLE_POINTS)
    phi = phi_of_share(share)
    return Table(share * body.length_mm, body.top.at(phi), body.bottom.at(phi), body.widest_at(phi), np.maximum(body.half_width.at(phi), 0.0))


def walls_left_mm(body: Body, x_mm: Array, depth_mm: float, drill_mm: float) -> Array:
    """Thinnest material left [mm] round a hole from the belly at each x (n,): above it and beside it.

    The sides are looked at where the hole ends and a little below, where a rounded section narrows most.
    """
    rows = table(body)
    top_of_hole = np.interp(x_mm, rows.x, rows.bottom) + depth_mm
    thinnest = np.full(x_mm.shape, np.inf)
    for edge in (x_mm - drill_mm / 2, x_mm, x_mm + drill_mm / 2):
        thinnest = np.minimum(thinnest, np.interp(edge, rows.x, rows.top) - top_of_hole)
        for z in (top_of_hole, top_of_hole - 0.4 * depth_mm):
            thinnest = np.minimum(thinnest, _half_width(body, rows, edge, z) - drill_mm / 2)
    return thinnest


def _half_width(body: Body, rows: Table, x: Array, z: Array) -> Array:
    """Half-width [mm] of the sections at x at heights z; 0 outside the profile."""
    widest, half = np.interp(x, rows.x, rows.widest), np.interp(x, rows.x, rows.half)
    above = z >= widest
    reach = np.where(above, np.interp(x, rows.x, rows.top) - widest, widest - np.interp(x, rows.x, rows.bottom))
    n = np.where(above, body.upper_exponent, body.lower_exponent)
    share = np.minimum(np.abs(z - widest) / np.maximum(reach, 1e-9), 1.0)
    return np.asarray(half * (1.0 - share**n) ** (1.0 / n))


def wall_left_mm(body: Body, hole: Hole) -> float:
    """Thinnest material left round one hole [mm]."""
    return float(walls_left_mm(body, np.array([hole.x_mm]), hole.depth_mm, hole.drill_mm)[0])


def clear_of_hardware(design: Design, x_mm: Array, drill_mm: float, gap_mm: float = 1.5) -> NDArray[np.bool_]:
    """Whether holes at each x (n,) keep clear of belly hangers and the lip slot."""
    half = drill_mm / 2 + gap_mm
    clear = np.ones(x_mm.shape, dtype=bool)
    for placed in design.hardware:
        if placed.seat == "belly" and not placed.hung_on:
            clear &= np.abs(seat_point(design.body, placed)[0] - x_mm) >= half + 1.0
    if design.lip is not None:
        clear &= x_mm - half > design.lip.x_mm + design.lip.inset_mm * cos(radians(design.lip.angle_deg))
    return clear


def troubles(design: Design, hole: Hole, wall_mm: float) -> tuple[str, ...]:
    """What is wrong with a hole where it is, in words; empty if it can be drilled.

    Args:
        design: the design with all its holes.
        hole: one of them.
        wall_mm: the thinnest wall the shop allows [mm].
    """
    found = []
    wall = wall_left_mm(design.body, hole)
    if wall <= 0:
        found.append("breaks out of the body")
    elif wall < wall_mm - 1e-9:
        found.append(f"leaves only {wall:.1f} mm of wall")
    if not clear_of_hardware(design, np.array([hole.x_mm]), hole.drill_mm)[0]:
        found.append("runs into a hanger or the lip slot")
    others = [other for other in design.ballast if other.key != hole.key]
    if any(abs(other.x_mm - hole.x_mm) < (other.drill_mm + hole.drill_mm) / 2 + 0.5 for other in others):
        found.append("runs into another hole")
    return tuple(found)
