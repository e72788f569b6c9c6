"""Every hole a body gets: from which face, where, how deep, which drill, at what angle."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import cos, radians

import numpy as np

from lamsik.core.findings import Finding, finding
from lamsik.core.shapes.ballast_holes import mouth_mm
from lamsik.core.shapes.body import station, uncut
from lamsik.core.shapes.clearance import Clearances, drill_for, pilot_mm
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import lip_root
from lamsik.core.shapes.hollow import inside_chart
from lamsik.core.shapes.inside import cavity_point
from lamsik.core.trade.part_kinds import OPEN, THROUGH

FACES = {"belly": 90.0, "back": 90.0, "nose": 0.0, "tail": 0.0}


@dataclass(frozen=True)
class Drilling:
    """A hole: mark, face, distance from the nose and height over the axis of its mouth [mm], drill and depth
    [mm], angle to the axis [°], what for.

    Of a mirrored pair `beside_mm` is how far each is from the middle [mm].
    """

    mark: str
    face: str
    x_mm: float
    z_mm: float
    drill_mm: float
    depth_mm: float
    angle_deg: float
    purpose: Finding | str
    fits: Finding | None = None
    beside_mm: float = 0.0
    through_mm: float | None = None
    """The wall it goes through where it comes into a hollow [mm]."""


def drillings(design: Design, table: Clearances, drills: Sequence[float]) -> tuple[Drilling, ...]:
    """The drill map, from the nose: ballast holes as designed, pilot holes and bores by the shop's
    clearances.
    """
    ballast, others = (
        _ballast(design, table),
        [*_hardware(design, table, drills), *_joint_pins(design, table, drills)],
    )
    rows = [
        *((row, bool(design.shell and design.shell.around_mm)) for row in ballast),
        *((row, False) for row in others),
    ]
    drilled = []
    for at, (row, walled) in enumerate(sorted(rows, key=lambda pair: (pair[0][1], pair[0][0]))):
        hole = Drilling(chr(ord("A") + at) if at < 26 else str(at + 1), *row)
        drilled.append(hole if walled else replace(hole, through_mm=_through_mm(design, hole)))
    return tuple(drilled)


def _through_mm(design: Design, hole: Drilling) -> float | None:
    """How far a hole goes until it comes into the hollow [mm]; None where it stays in material. A chamber,
    a tube and a slug's hole may have walls of their own.
    """
    shell, body = design.shell, design.body
    if shell is None:
        return None
    inside = inside_chart(uncut(body), shell.wall_mm)
    if hole.face in ("nose", "tail"):
        wall = inside.from_mm if hole.face == "nose" else body.length_mm - inside.to_mm
    elif hole.face in ("belly", "back"):
        low, high = (float(row[0]) for row in inside.reach(np.array([hole.x_mm]), np.array([hole.beside_mm])))
        wall = low - hole.z_mm if hole.face == "belly" else hole.z_mm - high
    else:
        return None
    return wall if 0.0 < wall < hole.depth_mm else None


Row = tuple[str, float, float, float, float, float, Finding | str, Finding | None, float]


def _ballast(design: Design, table: Clearances) -> list[Row]:
    rows: list[Row] = []
    room = table.of("slug", design.host)
    for hole in design.ballast:
        low = mouth_mm(design.body, hole)
        spare = hole.drill_mm - hole.slug.diameter_mm
        tight = spare < room - 1e-9
        rows.append(
            (
                "belly",
                hole.x_mm,
                low,
                hole.drill_mm,
                hole.depth_mm,
                90.0,
                finding(
                    "slug-in-each" if hole.count > 1 else "slug-in", mass=hole.each_g, slug=hole.slug.name
                ),
                finding("slug-tight", slug=hole.slug.diameter_mm, room=room) if tight else None,
                hole.beside_mm,
            )
        )
    for cavity in design.cavities:
        x, _, z = cavity_point(design.body, cavity)
        rows.append(
            (
                "inside",
                x,
                z,
                cavity.bore_mm,
                cavity.length_mm,
                0.0,
                finding("chamber-of", count=cavity.count, balls=cavity.slug.name),
                finding("cast-it-in"),
                0.0,
            )
        )
    return rows


def _hardware(design: Design, table: Clearances, drills: Sequence[float]) -> list[Row]:
    rows: list[Row] = []
    for placed in design.hardware:
        drill = (
            None if placed.hung_on or placed.seat == "lip" else pilot_mm(design, placed.item, table, drills)
        )
        if drill is None or not placed.item.of.is_rod:
            continue
        item, here = placed.item, station(design.body, placed.x_mm)
        if item.of.bore == THROUGH:
            rows.append(
                (
                    "nose",
                    0.0,
                    station(design.body, 0.0).middle_mm,
                    drill,
                    design.body.length_mm,
                    0.0,
                    item.name,
                    finding("right-through"),
                    0.0,
                )
            )
            continue
        mouth = {
            "nose": (0.0, station(design.body, 0.0).middle_mm),
            "tail": (design.body.length_mm, station(design.body, design.body.length_mm).middle_mm),
        }
        x, z = mouth.get(placed.seat, (here.x_mm, here.top_mm if placed.seat == "back" else here.bottom_mm))
        if placed.seat in ("inside", "flank"):
            middle = here.middle_mm if placed.up_mm is None else here.bottom_mm + placed.up_mm
            rows.append(
                (
                    "nose" if item.of.bore == OPEN else "inside",
                    here.x_mm,
                    middle,
                    drill,
                    item.shank_mm,
                    0.0,
                    item.name,
                    finding("along-the-body"),
                    0.0,
                )
            )
            continue
        pilot = finding("pilot-hole" if drill < item.wire_mm else "clearance-hole")
        rows.append(
            (placed.seat, x, z, drill, item.shank_mm, FACES.get(placed.seat, 90.0), item.name, pilot, 0.0)
        )
    return rows


def _joint_pins(design: Design, table: Clearances, drills: Sequence[float]) -> list[Row]:
    rows: list[Row] = []
    joints = [placed for placed in design.hardware if placed.item.kind == "joint"]
    for joint in design.body.joints:
        near = min(joints, key=lambda placed: abs(placed.x_mm - joint.x_mm), default=None)
        if near is None or near.item.wire_mm <= 0:
            continue
        here = station(design.body, joint.x_mm)
        drill = drill_for(
            near.item.wire_mm, table.of("wire" if joint.shares_pitch else "screw", design.host), drills
        )
        if joint.shares_pitch:
            rows.append(
                (
                    "belly",
                    joint.x_mm,
                    here.bottom_mm,
                    drill,
                    here.top_mm - here.bottom_mm - 2.0,
                    90.0 - joint.slant_deg,
                    near.item.name,
                    finding("pin-from-below"),
                    0.0,
                )
            )
        else:
            for share in (0.3, 0.7):
                height = here.bottom_mm + share * (here.top_mm - here.bottom_mm)
                rows.append(
                    (
                        "joint",
                        joint.x_mm,
                        height,
                        drill,
                        near.item.shank_mm,
                        joint.slant_deg,
                        near.item.name,
                        finding("eyelet-each"),
                        0.0,
                    )
                )
    return rows


def slot_words(design: Design, table: Clearances) -> Finding | None:
    """The lip slot: width, depth, angle, where it leaves the body."""
    lip = design.lip
    if lip is None:
        return None
    room = table.of("plate", design.host)
    root = lip_root(design.body, lip)
    along = lip.inset_mm * cos(radians(lip.angle_deg))
    return finding(
        "lip-slot-cut",
        wide=lip.thickness_mm + room,
        plate=lip.thickness_mm,
        deep=lip.inset_mm,
        along=along,
        angle=lip.angle_deg,
        x=root[0],
    )
