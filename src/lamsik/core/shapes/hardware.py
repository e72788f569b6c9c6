"""Metal and plates that go on a body: catalogue items, where they sit, the lip."""

from dataclasses import dataclass
from math import cos, pi, radians, sin
from typing import Annotated

import numpy as np
from annotated_types import MaxLen

from lamsik.core.errors import Refused, require, rule
from lamsik.core.limits import Between, Key, Name, OneOf, held
from lamsik.core.shapes.body import Body, station
from lamsik.core.shapes.curves import Array
from lamsik.core.trade.part_kinds import OPEN, PART_KINDS, PartKind

Point = tuple[float, float, float]

SEATS = ("nose", "belly", "back", "tail", "lip", "flank", "inside")
KINDS = tuple(PART_KINDS)

OUTLINES = ("round", "square", "flared")
"""Outlines of a lip."""


@dataclass(frozen=True)
class Item:
    """A bought part: mass [g], density [g/cm³] and the share of it that stays outside the body.

    `weighed` tells a mass read on a scale from one copied off a label; a label is not a mass. `wire_mm` is
    the diameter of its shank, tube or chamber, `shank_mm` what of it goes into the body, `bore_mm` the bore
    of a line tube, which stays full of water.
    """

    code: Name
    name: Name
    kind: Annotated[str, OneOf(KINDS)]
    mass_g: Annotated[float, Between(0, 500, "g", "mass of the part")]
    density_g_cm3: Annotated[float, Between(0.05, 23, "g/cm³", "density of its material")]
    outside_share: Annotated[float, Between(0, 1, "", "share of its volume outside the body")] = 1.0
    reach_mm: Annotated[float, Between(0, 200, "mm", "how far its eye stands off the surface")] = 0.0
    weighed: bool = False
    material: Annotated[str, MaxLen(60)] = "steel"
    wire_mm: Annotated[float, Between(0, 40, "mm", "diameter of its shank, tube or chamber")] = 0.0
    shank_mm: Annotated[float, Between(0, 600, "mm", "length of it in the body")] = 0.0
    bore_mm: Annotated[float, Between(0, 40, "mm", "bore of a line tube")] = 0.0

    def __post_init__(self) -> None:
        held(self)

    @property
    def of(self) -> PartKind:
        """What is true of its kind."""
        return PART_KINDS[self.kind]

    @property
    def pocket_ml(self) -> float:
        """Host material its own bore takes away [ml]; a screw's pilot hole counts as nothing."""
        return pi * self.wire_mm**2 / 4 * self.shank_mm / 1000.0 if self.of.bore else 0.0

    @property
    def water_ml(self) -> float:
        """Water that stands in its open bore [ml]."""
        return (
            pi * min(self.bore_mm, self.wire_mm) ** 2 / 4 * self.shank_mm / 1000.0
            if self.of.bore == OPEN
            else 0.0
        )


@dataclass(frozen=True)
class Placement:
    """An item on the body: at a seat and x [mm], or hung on another placement's eye.

    `up_mm` is the height of what lies inside or on the flanks over the belly line; None is the middle.
    """

    key: Key
    item: Item
    seat: Annotated[str, OneOf(SEATS)] = "belly"
    x_mm: Annotated[
        float,
        Between(0, 600, "mm", "distance from the nose; on the lip, along it from where it leaves the body"),
    ] = 0.0
    hung_on: Annotated[str, MaxLen(40)] | None = None
    up_mm: (
        Annotated[
            float,
            Between(
                0,
                300,
                "mm",
                "height over the belly line of what lies inside or on the flanks; null is the middle",
            ),
        ]
        | None
    ) = None

    def __post_init__(self) -> None:
        held(self)


@dataclass(frozen=True)
class Lip:
    """A flat lip: width and exposed length [mm], the angle to the body axis, what sits in its slot.

    An angle near 0° lies along the axis and dives deep; near 90° it stands across and stays shallow.
    `square_deg` is how far its slot is out of square to the body: beyond about 1° the bait runs to one side.
    """

    width_mm: Annotated[float, Between(2, 150, "mm", "width")]
    length_mm: Annotated[float, Between(2, 150, "mm", "length outside the slot")]
    thickness_mm: Annotated[float, Between(0.2, 6, "mm", "plate thickness")]
    density_g_cm3: Annotated[float, Between(0.8, 9, "g/cm³", "plate density")]
    angle_deg: Annotated[float, Between(0, 90, "°", "angle to the body axis; 0 lies along it")]
    x_mm: Annotated[float, Between(0, 600, "mm", "where it leaves the belly line")]
    inset_mm: Annotated[float, Between(0, 60, "mm", "length in the slot")] = 6.0
    mass_g: Annotated[float, Between(0, 500, "g", "weighed mass; null if computed")] | None = None
    code: Name = "lip"
    name: Name = "Lip"
    square_deg: Annotated[float, Between(-20, 20, "°", "out of squareness of the slot")] = 0.0
    outline: Annotated[str, OneOf(OUTLINES)] = "round"

    def __post_init__(self) -> None:
        held(self, "lip.")

    @property
    def whole_g(self) -> float:
        """Mass [g]: weighed, or the plate's area × thickness × density."""
        return self.plate_ml * self.density_g_cm3 if self.mass_g is None else self.mass_g

    @property
    def plate_ml(self) -> float:
        """Volume of the whole plate [ml]."""
        x, y = lip_outline(self).T
        return abs(float(x @ np.roll(y, -1) - y @ np.roll(x, -1))) / 2 * self.thickness_mm / 1000.0


def lip_outline(lip: Lip, count: int = 48) -> Array:
    """The plate's outline, (n, 2) points (along, across) [mm], along from −inset (in the slot) to the
    length.
    """
    half, inset, length = lip.width_mm / 2, lip.inset_mm, lip.length_mm
    end = np.linspace(np.pi / 2, -np.pi / 2, count)
    if lip.outline == "square":
        corner = min(1.0, half / 2)
        rows = [
            (-inset, half),
            (length - corner, half),
            (length, half - corner),
            (length, corner - half),
            (length - corner, -half),
            (-inset, -half),
        ]
        return np.array(rows)
    root = 0.6 * half if lip.outline == "flared" else half
    reach = min(half, length)
    arc = np.column_stack([length - reach + reach * np.cos(end), half * np.sin(end)])
    return np.vstack([[(-inset, root), (0.0, root)], arc, [(0.0, -root), (-inset, -root)]])


def lip_root(body: Body, lip: Lip) -> Point:
    """Where the lip leaves the body, (x, y, z) [mm]."""
    here = station(body, lip.x_mm)
    return (here.x_mm, 0.0, here.bottom_mm)


def lip_point(body: Body, lip: Lip, along_mm: float) -> Point:
    """A point of the lip `along_mm` from its root, outward (negative: into the slot)."""
    root = lip_root(body, lip)
    angle = radians(lip.angle_deg)
    return (root[0] - along_mm * cos(angle), 0.0, root[2] - along_mm * sin(angle))


def seat_point(body: Body, placement: Placement, lip: Lip | None = None) -> Point:
    """Where the item's eye is, (x, y, z) [mm]: on the surface plus its reach outward.

    On the lip, `x_mm` counts along the plate from where it leaves the body, and the eye stands off its upper
    face.
    """
    reach = placement.item.reach_mm
    if placement.seat == "lip":
        require(
            lip is not None,
            f"hardware.{placement.key}.seat",
            "lip",
            rule("lip-tie"),
        )
        assert lip is not None
        angle = radians(lip.angle_deg)
        on = lip_point(body, lip, min(placement.x_mm, lip.length_mm))
        return (on[0] - reach * sin(angle), 0.0, on[2] + reach * cos(angle))
    if placement.seat == "nose":
        return (-reach, 0.0, station(body, 0.0).middle_mm)
    if placement.seat == "tail":
        return (body.length_mm + reach, 0.0, station(body, body.length_mm).middle_mm)
    here = station(body, placement.x_mm)
    if placement.seat == "back":
        return (here.x_mm, 0.0, here.top_mm + reach)
    if placement.seat in ("flank", "inside"):
        return (
            here.x_mm,
            0.0,
            here.middle_mm if placement.up_mm is None else here.bottom_mm + placement.up_mm,
        )
    return (here.x_mm, 0.0, here.bottom_mm - reach)


def seat_of(placements: tuple[Placement, ...], placement: Placement) -> str:
    """Where on the body the chain begins that a placement hangs on; its own seat where it hangs on
    nothing.
    """
    hosts = {placed.key: placed for placed in placements}
    here, left = placement, len(placements)
    while here.hung_on in hosts and left:
        here, left = hosts[here.hung_on], left - 1
    return here.seat


def eye_of(
    placements: tuple[Placement, ...], body: Body, placement: Placement, lip: Lip | None = None
) -> Point:
    """Where a placement acts: its own seat, or the eye of what it hangs on.

    Raises:
        Refused: it hangs on something that is not there, or in a circle.
    """
    seen = {placement.key}
    here = placement
    while here.hung_on:
        host = next((p for p in placements if p.key == here.hung_on), None)
        if host is None or host.key in seen:
            raise Refused(f"hardware.{placement.key}.hung_on", here.hung_on, rule("name-part-body"))
        seen.add(host.key)
        here = host
    return seat_point(body, here, lip)
