"""What is drilled, cast or set into a body, each as upright columns: holes, chambers and bores along the
body, the lip's plate.
"""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from functools import lru_cache
from math import cos, radians, sin

import numpy as np

from lamsik.core.shapes.ballast_holes import Hole, mouth_mm
from lamsik.core.shapes.body import Body, station, uncut
from lamsik.core.shapes.columns import Columns, reach_of
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.hardware import Lip, Placement, lip_outline, lip_root
from lamsik.core.shapes.inside import Cavity, cavity_point
from lamsik.core.shapes.mouths import disc
from lamsik.core.shapes.quadrature import gauss_panels

RINGS = 32
"""Columns to a ring."""

HOLE, CHAMBER, BORE, PLATE = "hole", "chamber", "bore", "plate"


@dataclass(frozen=True)
class Upright:
    """A hole from the belly: middle and radius on the ground, foot and head [mm], of which a wall round
    it. It is open to the skin.
    """

    body: Body
    x_mm: float
    y_mm: float
    radius_mm: float
    low_mm: float
    high_mm: float
    wall_mm: float = 0.0

    @property
    def span(self) -> tuple[float, float]:
        """From where to where it is along the body [mm]."""
        return self.x_mm - self.radius_mm, self.x_mm + self.radius_mm

    @property
    def heights(self) -> tuple[float, float]:
        """From where to where it reaches [mm]."""
        return self.low_mm, self.high_mm

    def reach(self, x: Array, y: Array) -> tuple[Array, Array]:
        """Foot and head over (x, y)."""
        there = (x - self.x_mm) ** 2 + (y - self.y_mm) ** 2 <= self.radius_mm**2
        return np.where(there, self.low_mm, np.inf), np.where(there, self.high_mm, -np.inf)

    def columns(self, breaks: Array) -> Columns:
        """Filled with columns, with breaks at some x where it is cut square; one with a wall in rings,
        from the hole to its own edge.
        """
        if self.wall_mm > 0:
            marks = np.array([0.0, self.radius_mm - self.wall_mm, self.radius_mm])
            radius, wide = gauss_panels(marks, 10.0, 4)
            around = 2 * np.pi * (np.arange(RINGS) + 0.5) / RINGS
            x, y = (np.outer(radius, turn(around)).ravel() for turn in (np.cos, np.sin))
            ground = np.repeat(radius * wide * 2 * np.pi / RINGS, RINGS)
            return Columns(
                self.x_mm + x,
                self.y_mm + y,
                ground,
                np.full(x.shape, self.low_mm),
                np.full(x.shape, self.high_mm),
            )
        dx, y, ground = disc(self.radius_mm, breaks - self.x_mm)
        y = self.y_mm + y
        foot, _ = reach_of(self.body)(self.x_mm + dx, y)
        foot = np.where(np.isfinite(foot), foot, self.low_mm)
        return Columns(self.x_mm + dx, y, ground, foot, np.full(y.shape, self.high_mm))

    def grown(self, wall_mm: float) -> "Upright":
        """With a wall round it."""
        return Upright(
            self.body,
            self.x_mm,
            self.y_mm,
            self.radius_mm + wall_mm,
            self.low_mm - wall_mm,
            self.high_mm + wall_mm,
            wall_mm,
        )


@dataclass(frozen=True)
class Lying:
    """A chamber or bore along the body from x to x, its middle rising from one height to another, its radius
    [mm], of which a wall round it.

    With a body it is only as long as that is: a tube or a wire may come out of the skin.
    """

    from_mm: float
    to_mm: float
    z_from_mm: float
    z_to_mm: float
    radius_mm: float
    wall_mm: float = 0.0
    body: Body | None = None

    @property
    def span(self) -> tuple[float, float]:
        """From where to where it is along the body [mm]."""
        return self.from_mm, self.to_mm

    @property
    def heights(self) -> tuple[float, float]:
        """From where to where it reaches [mm]."""
        return (
            min(self.z_from_mm, self.z_to_mm) - self.radius_mm,
            max(self.z_from_mm, self.z_to_mm) + self.radius_mm,
        )

    def _heights(self, x: Array, y: Array) -> tuple[Array, Array]:
        rise = (self.z_to_mm - self.z_from_mm) / (self.to_mm - self.from_mm)
        half = np.sqrt(np.maximum(self.radius_mm**2 - y**2, 0.0)) * np.sqrt(1.0 + rise**2)
        middle = self.z_from_mm + rise * (x - self.from_mm)
        return middle - half, middle + half

    def reach(self, x: Array, y: Array) -> tuple[Array, Array]:
        """Foot and head over (x, y)."""
        there = (x >= self.from_mm) & (x <= self.to_mm) & (np.abs(y) <= self.radius_mm)
        low, high = self._heights(x, y)
        return np.where(there, low, np.inf), np.where(there, high, -np.inf)

    def columns(self, breaks: Array) -> Columns:
        """Filled with columns, with breaks at some x where it is cut square."""
        own = [self.from_mm, self.from_mm + self.wall_mm, self.to_mm - self.wall_mm, self.to_mm]
        marks = np.unique(np.clip(np.concatenate([own, breaks]), self.from_mm, self.to_mm))
        x, along = gauss_panels(marks, max((self.to_mm - self.from_mm) / 6, 0.5), 4)
        edge = np.arcsin(1.0 - self.wall_mm / self.radius_mm)
        turn, share = gauss_panels(np.unique([-np.pi / 2, -edge, edge, np.pi / 2]), 10.0, 10)
        y = np.tile(self.radius_mm * np.sin(turn), len(x))
        ground = np.outer(along, share * self.radius_mm * np.cos(turn)).ravel()
        x = np.repeat(x, len(turn))
        low, high = self._heights(x, y)
        if self.body is not None:
            foot, head = reach_of(self.body)(x, y)
            low, high = np.maximum(low, foot), np.minimum(high, head)
        return Columns(x, y, ground, low, high)

    def grown(self, wall_mm: float) -> "Lying":
        """With a wall round it."""
        rise = (self.z_to_mm - self.z_from_mm) / (self.to_mm - self.from_mm)
        return Lying(
            self.from_mm - wall_mm,
            self.to_mm + wall_mm,
            self.z_from_mm - rise * wall_mm,
            self.z_to_mm + rise * wall_mm,
            self.radius_mm + wall_mm,
            wall_mm,
        )


@dataclass(frozen=True)
class Plate:
    """A lip from its slot outward, as far as it is in the body: the lip, where it leaves the belly, and a
    wall round it [mm].
    """

    body: Body
    lip: Lip
    wall_mm: float = 0.0

    @property
    def span(self) -> tuple[float, float]:
        """From where to where it may be along the body [mm]."""
        root, angle, thick = (
            lip_root(self.body, self.lip)[0],
            radians(self.lip.angle_deg),
            self.lip.thickness_mm / 2 + self.wall_mm,
        )
        return (
            root - self.lip.length_mm * cos(angle) - thick,
            root + (self.lip.inset_mm + self.wall_mm) * cos(angle) + thick,
        )

    @property
    def heights(self) -> tuple[float, float]:
        """From where to where it reaches [mm]."""
        root, angle = lip_root(self.body, self.lip), radians(self.lip.angle_deg)
        deep, thick = (
            (self.lip.inset_mm + self.wall_mm) * sin(angle),
            (self.lip.thickness_mm / 2 + self.wall_mm) * cos(angle),
        )
        return root[2] - thick, root[2] + deep + thick

    def _sides(self, y: Array) -> tuple[Array, Array]:
        """How far the plate reaches along itself at a distance to the side, (from, to) [mm]; from beyond
        to beside it.
        """
        sides, ends, root = _edge(self.lip)
        far = np.interp(np.abs(y), sides, ends)
        near = np.where(np.abs(y) <= root + self.wall_mm, -self.lip.inset_mm - self.wall_mm, 0.0)
        beside = np.abs(y) > self.lip.width_mm / 2 + self.wall_mm
        return np.where(beside, np.inf, near), np.where(beside, -np.inf, far)

    def reach(self, x: Array, y: Array) -> tuple[Array, Array]:
        """Foot and head over (x, y): between its faces, its inner edge and its end."""
        root, angle = lip_root(self.body, self.lip), radians(self.lip.angle_deg)
        near, far = self._sides(y)
        thick = self.lip.thickness_mm / 2 + self.wall_mm
        dx, (c, s) = x - root[0], (cos(angle), sin(angle))
        low, high = np.full(x.shape, -np.inf), np.full(x.shape, np.inf)
        # across: |dx·s − dz·c| ≤ thick; along, outward: near ≤ −dx·c − dz·s ≤ far
        for at, by, least, most in ((dx * s, -c, -thick, thick), (-dx * c, -s, near, far)):
            if abs(by) < 1e-9:
                shut = (at < least) | (at > most)
                low, high = np.where(shut, np.inf, low), np.where(shut, -np.inf, high)
            else:
                one, other = (least - at) / by, (most - at) / by
                low, high = np.maximum(low, np.minimum(one, other)), np.minimum(high, np.maximum(one, other))
        shut = (high <= low) | (near > far)
        return np.where(shut, np.inf, low + root[2]), np.where(shut, -np.inf, high + root[2])

    def columns(self, breaks: Array) -> Columns:
        """Filled with columns as far as it is inside the skin."""
        return _plated(self, tuple(breaks.tolist()))

    def filled(self, breaks: Array) -> Columns:
        """The same, worked out."""
        root, angle = lip_root(self.body, self.lip), radians(self.lip.angle_deg)
        thick, inner = self.lip.thickness_mm / 2, self.lip.inset_mm
        reaches = (-self.lip.length_mm, 0.0, inner, inner + self.wall_mm)
        corners = root[0] + np.array(
            [
                a * cos(angle) + n * sin(angle)
                for a in reaches
                for n in (-thick - self.wall_mm, -thick, thick, thick + self.wall_mm)
            ]
        )
        corners = np.clip(corners, 0.0, self.body.length_mm)
        marks = np.unique(
            np.concatenate([corners, breaks[(breaks > corners.min()) & (breaks < corners.max())]])
        )
        if np.ptp(marks) < 1e-9:
            marks = np.array([0.0, 1e-6])
        x, along = gauss_panels(marks, 2.0, 4)
        wide = min(self.lip.width_mm, self.body.width_mm) / 2 + self.wall_mm
        y, across = gauss_panels(
            np.unique([*np.linspace(-wide, wide, 5), self.wall_mm - wide, wide - self.wall_mm]), wide, 6
        )
        x, y, ground = np.repeat(x, len(y)), np.tile(y, len(x)), np.outer(along, across).ravel()
        low, high = self.reach(x, y)
        foot, head = reach_of(self.body)(x, y)
        return Columns(x, y, ground, np.maximum(low, foot), np.minimum(high, head))

    def grown(self, wall_mm: float) -> "Plate":
        """With a wall round it."""
        return replace(self, wall_mm=self.wall_mm + wall_mm)


@lru_cache(maxsize=32)
def _plated(plate: Plate, breaks: tuple[float, ...]) -> Columns:
    """Kept: a hole that is moved leaves the lip where it was."""
    return plate.filled(np.array(breaks))


@lru_cache(maxsize=64)
def _edge(lip: Lip) -> tuple[Array, Array, float]:
    """The plate's far edge: distances to the side, rising, and how far it reaches there; and the half of
    its width in the slot.
    """
    rows = lip_outline(lip, 24)
    ahead = rows[rows[:, 1] >= 0]
    sides, at = np.unique(np.round(ahead[:, 1], 9), return_inverse=True)
    ends = np.full(len(sides), -np.inf)
    np.maximum.at(ends, at, ahead[:, 0])
    return sides, ends, float(abs(rows[0, 1]))


Solid = Upright | Lying | Plate


@dataclass(frozen=True)
class Thing:
    """Something in the body: what it is, the key it has in its group, and its shape."""

    kind: str
    key: str
    shape: Solid


def things_in(
    body: Body,
    ballast: Iterable[Hole],
    cavities: Iterable[Cavity],
    bores: Iterable[Placement],
    lip: Lip | None,
) -> tuple[Thing, ...]:
    """Everything that takes room in a body; screws are driven into it and take none."""
    things = [Thing(HOLE, hole.key, shape) for hole in ballast for shape in _holes(uncut(body), hole)]
    things += [Thing(CHAMBER, cavity.key, _chamber(body, cavity)) for cavity in cavities]
    things += [Thing(BORE, placed.key, replace(_bore(body, placed), body=uncut(body))) for placed in bores]
    if lip is not None and lip.inset_mm > 0:
        things.append(Thing(PLATE, "lip", Plate(uncut(body), lip)))
    return tuple(things)


def _holes(body: Body, hole: Hole) -> list[Upright]:
    low = mouth_mm(body, hole)
    return [Upright(body, hole.x_mm, y, hole.drill_mm / 2, low, low + hole.depth_mm) for y in hole.sides_mm]


def _chamber(body: Body, cavity: Cavity) -> Lying:
    x, _, z = cavity_point(body, cavity)
    return Lying(x - cavity.length_mm / 2, x + cavity.length_mm / 2, z, z, cavity.bore_mm / 2)


def _bore(body: Body, placed: Placement) -> Lying:
    """A bore lies along the body at its place; one for a through-wire follows the middle from end to end."""
    item, here, length = placed.item, station(body, placed.x_mm), body.length_mm
    if item.kind == "wire":
        half, ends = (
            min(item.shank_mm, length) / 2,
            (station(body, 0.0).middle_mm, station(body, length).middle_mm),
        )
        rise, middle = (ends[1] - ends[0]) / length, sum(ends) / 2
        return Lying(
            length / 2 - half, length / 2 + half, middle - rise * half, middle + rise * half, item.wire_mm / 2
        )
    z = here.middle_mm if placed.up_mm is None else here.bottom_mm + placed.up_mm
    return Lying(
        max(here.x_mm - item.shank_mm / 2, 0.0),
        min(here.x_mm + item.shank_mm / 2, length),
        z,
        z,
        item.wire_mm / 2,
    )
