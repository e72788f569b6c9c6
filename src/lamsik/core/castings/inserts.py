"""What lies in a casting beside its material: wire, ballast, tubes, hooks; taken off its volume
everywhere.
"""

from dataclasses import dataclass, replace
from functools import lru_cache
from math import pi

import numpy as np
from scipy.optimize import brentq
from scipy.spatial import cKDTree

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.materials import METALS
from lamsik.core.moulds.geometry import face_normals, hull
from lamsik.core.quantities import plainly, said
from lamsik.core.shapes.ballast_holes import BALLS, slug_height_mm
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.skins import Mesh
from lamsik.core.tank.immersion import tank_axes, wet

KINDS = ("wire", "ballast", "tube", "hook shank", "other")
BURIED = ("ballast", "tube", "hook shank")
"""Inserts that shall not show; eyes and through-wires come out by their nature."""


@dataclass(frozen=True)
class Insert:
    """A rod-shaped insert between two points of the casting [mm], across [mm], mass [g]; a tube's volume
    is its outside.
    """

    key: str
    kind: str
    start_mm: tuple[float, float, float]
    end_mm: tuple[float, float, float]
    across_mm: float
    mass_g: float
    volume_mm3: float | None = None

    def __post_init__(self) -> None:
        require(
            self.kind in KINDS, f"inserts.{self.key}.kind", self.kind, rule("one-of", listed=", ".join(KINDS))
        )
        finite_between(f"inserts.{self.key}.across_mm", self.across_mm, 0.05, 80.0, "mm")
        finite_between(f"inserts.{self.key}.mass_g", self.mass_g, 0.0, 2000.0, "g")

    @property
    def ml(self) -> float:
        """What it takes of the cavity [ml]."""
        if self.volume_mm3 is not None:
            return self.volume_mm3 / 1000.0
        length = float(np.linalg.norm(np.subtract(self.end_mm, self.start_mm)))
        return pi * self.across_mm**2 / 4 * length / 1000.0

    def pieces(self, count: int = 12) -> tuple[tuple[float, tuple[float, float, float]], ...]:
        """Volume [ml] and middle [mm] of short pieces of it: a rod may lie partly in one pour and partly
        in the next.
        """
        start, end = np.array(self.start_mm), np.array(self.end_mm)
        at = start + (np.arange(count)[:, None] + 0.5) / count * (end - start)
        return tuple((self.ml / count, (float(x), float(y), float(z))) for x, y, z in at)


def of_design(design: Design) -> tuple[Insert, ...]:
    """Inserts of a design cast at once: its slugs where they are drilled, and the wire and eyes that sit
    inside the body.
    """
    rows = []
    for hole in design.ballast:
        z, reach = slug_height_mm(design.body, hole), 0.0 if hole.slug.form == BALLS else hole.tall_mm / 2
        for side, y in enumerate(hole.sides_mm):
            ends, key = (
                ((hole.x_mm, y, z - reach), (hole.x_mm, y, z + reach)),
                f"{hole.key}-right" if side else hole.key,
            )
            rows.append(
                Insert(
                    key,
                    "ballast",
                    *ends,
                    hole.slug.diameter_mm,
                    hole.each_g,
                    1000.0 * hole.each_g / hole.slug.density_g_cm3,
                )
            )
    for placed in design.hardware:
        item = placed.item
        inside = 1.0 - item.outside_share
        if inside <= 0.02 or item.mass_g <= 0:
            continue
        x = placed.x_mm if placed.x_mm is not None else 0.0
        rows.append(
            Insert(
                placed.key,
                item.of.cast_as,
                (x, 0.0, 0.0),
                (x, 0.0, 0.0),
                max(item.wire_mm, 0.8),
                item.mass_g * inside,
                1000.0 * item.mass_g * inside / item.density_g_cm3,
            )
        )
    return tuple(rows)


def shank(from_mm: float, to_mm: float, up_mm: float, across_mm: float) -> Insert:
    """A hook's shank cast in: from and to along the body [mm from the nose], over the body's axis, across
    [mm]; of steel.
    """
    require(
        to_mm > from_mm,
        "shank_to",
        plainly(to_mm, "length"),
        rule("behind-begins", from_mm=from_mm),
    )
    eye_to_bend = Insert("shank", "hook shank", (from_mm, 0.0, up_mm), (to_mm, 0.0, up_mm), across_mm, 0.0)
    return replace(eye_to_bend, mass_g=eye_to_bend.ml * METALS["steel"])


def inserts_ml(inserts: tuple[Insert, ...]) -> float:
    """All of them [ml]."""
    return sum(insert.ml for insert in inserts)


def net_ml(cavity_ml: float, inserts: tuple[Insert, ...]) -> float:
    """What is left to fill [ml]. Raises `Refused` where the inserts are larger than the cavity."""
    taken = inserts_ml(inserts)
    require(
        taken < cavity_ml,
        "inserts",
        said(taken, "volume"),
        rule("cavity-holds-inserts", cavity_ml=cavity_ml),
    )
    return cavity_ml - taken


LEAST_COVER_MM = 1.0
"""With less material over it an insert may show through."""


def cover_says(cover_mm: float) -> Finding:
    """What so much material over an insert comes to, in words."""
    if cover_mm < 0:
        return finding("insert-stands-out")
    return finding("insert-may-show") if cover_mm < LEAST_COVER_MM else finding("insert-covered")


def covers_mm(mesh: Mesh, insert: Insert) -> float:
    """The least material over an insert [mm]: from its surface to the skin; below 0 it shows."""
    tree, outward = _skin(mesh)
    points = _surface(insert)
    near, which = tree.query(points)
    inside = np.einsum("ij,ij->i", tree.data[which] - points, outward[which]) >= 0
    return float(np.where(inside, near, -near).min())


def _surface(insert: Insert, around: int = 12) -> Array:
    """Points on a rod's surface: rings along it and its ends; of one without a length, a ball."""
    start, end = np.array(insert.start_mm), np.array(insert.end_mm)
    way, radius = end - start, insert.across_mm / 2
    long = float(np.linalg.norm(way))
    if long < 1e-9:
        turn = np.linspace(0, 2 * pi, around, endpoint=False)
        flat = np.column_stack([np.cos(turn), np.sin(turn), np.zeros(around)])
        return np.vstack([start + radius * np.roll(flat, k, axis=1) for k in range(3)])
    e1, e2 = tank_axes(way / long)
    turn = np.linspace(0, 2 * pi, around, endpoint=False)
    ring = radius * (np.outer(np.cos(turn), e1) + np.outer(np.sin(turn), e2))
    return np.vstack(
        [*(start + share * way + ring for share in np.linspace(0, 1, 7)), start[None], end[None]]
    )


@lru_cache(maxsize=16)
def _skin(mesh: Mesh) -> tuple[cKDTree, Array]:
    """Points of the skin, corners and middles of faces, and which way is out there."""
    normals, areas = face_normals(mesh)
    at_corners = np.zeros_like(mesh.vertices)
    for k in range(3):
        np.add.at(at_corners, mesh.faces[:, k], normals * areas[:, None])
    return cKDTree(np.vstack([mesh.vertices, mesh.vertices[mesh.faces].mean(axis=1)])), np.vstack(
        [at_corners, normals]
    )


def level_mm(mesh: Mesh, up: Array, volume_mm3: float) -> float:
    """The height along `up` to which this volume fills a cavity [mm]."""
    heights = mesh.vertices @ up
    low, high = float(heights.min()), float(heights.max())
    poured, whole = hull(mesh), wet(hull(mesh), up, high + 1.0).volume
    if volume_mm3 <= 0 or volume_mm3 >= whole:
        return low if volume_mm3 <= 0 else high

    def over(level: float) -> float:
        return wet(poured, up, level).volume - volume_mm3

    return float(brentq(over, low, high, xtol=1e-5))
