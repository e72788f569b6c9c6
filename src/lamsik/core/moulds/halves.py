"""Mould halves as solids to print: box, cavities, keys, funnels, vents, wells. Cut by manifold3d."""

from collections.abc import Callable
from dataclasses import dataclass
from math import radians, tan
from typing import TypeAlias

import manifold3d
import numpy as np

from lamsik.core.errors import Refused, require, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.moulds.funnels import Feed, feeds
from lamsik.core.moulds.geometry import face_normals, solid_of
from lamsik.core.moulds.layout import Mould, box, key_places, placed, turned
from lamsik.core.moulds.vents import FLAT
from lamsik.core.quantities import said
from lamsik.core.shapes.skins import Mesh

Solid: TypeAlias = manifold3d.Manifold
STEEP_DEG = 45.0
SIDES = 48
INTO_MM = 0.4
"""How far a key reaches into its own half: solids that overlap join without a seam."""
SMOOTH_MM = 1e-4


@dataclass(frozen=True, eq=False)
class Printed:
    """A half to print: its mesh as it lies on the printer, volume [ml], overhangs steeper than 45° in its
    cavities [cm²].
    """

    name: str
    mesh: Mesh
    volume_ml: float
    overhang_cm2: float

    @property
    def note(self) -> Finding:
        """What to know before printing."""
        if self.overhang_cm2 < 0.2:
            return finding("no-overhangs")
        return finding("overhangs", overhang_cm2=self.overhang_cm2, steep=STEEP_DEG)


@dataclass(frozen=True)
class Sum:
    """That the parts add up [ml]: both halves, what is hollow, play at the keys, the whole block."""

    halves_ml: float
    hollow_ml: float
    play_ml: float
    block_ml: float

    @property
    def off(self) -> float:
        """How far they miss the block [share]."""
        return abs((self.halves_ml + self.hollow_ml + self.play_ml) / self.block_ml - 1.0)


def _quiet(share: float, says: str) -> None:
    """Nobody asks how far it is."""


def printed_halves(
    mould: Mould, step: Callable[[float, str], None] = _quiet
) -> tuple[tuple[Printed, ...], Sum]:
    """The halves of a hard mould, watertight, and their sum; `step` is told how far it is.

    Raises:
        Refused: an open mould of one part has no halves (print the block); a cavity whose surface is broken,
            with the place;
            cavities that run into each other.
    """
    walls = box(mould)
    step(0.05, "block")
    block = Solid.cube((walls.length_mm, walls.width_mm, walls.high_mm)).translate(
        (0.0, 0.0, -walls.below_mm)
    )
    hollow = _hollow(mould, step)
    step(0.6, "halves")
    if mould.parts == 1:
        half = block - hollow.translate((0.0, 0.0, _sink(mould)))
        whole = _printed("block", half)
        return (whole,), Sum(
            whole.volume_ml, (block.volume() - half.volume()) / 1000, 0.0, block.volume() / 1000
        )
    normal, height = _parting(mould)
    upper, lower = block.split_by_plane(normal, height)
    step(0.8, "keys")
    proud, other = (upper, lower) if mould.keys.proud else (lower, upper)
    other, play = other - hollow, 0.0
    if mould.keys.count:
        key, room = (
            _lenses(mould, mould.keys.high_mm, 0.0),
            _lenses(mould, mould.keys.second_high_mm or mould.keys.high_mm, mould.keys.gap_mm),
        )
        roomy = other - room
        added = (other ^ key).volume()
        play = max(round((other.volume() - added - roomy.volume()) / 1000.0, 9), 0.0)
        proud, other = proud + (key ^ block), roomy
    proud = proud - hollow
    upper, lower = (proud, other) if mould.keys.proud else (other, proud)
    step(0.9, "check")
    parts = (_printed("upper half", upper), _printed("lower half", lower))
    return parts, Sum(
        sum(part.volume_ml for part in parts),
        (block ^ hollow).volume() / 1000.0,
        play,
        block.volume() / 1000.0,
    )


def _parting(mould: Mould) -> tuple[tuple[float, float, float], float]:
    """The parting plane: unit normal, and its distance from the origin along it [mm]."""
    lean = tan(radians(mould.slant_deg))
    size = float(np.hypot(lean, 1.0))
    return (-lean / size, 0.0, 1.0 / size), -lean * box(mould).length_mm / 2 / size


def _sink(mould: Mould) -> float:
    """How far an open mould's cavity is raised so that its flat side lies in the block's lower face [mm]."""
    return -float(placed(mould, mould.cavities[0]).vertices[:, 2].min())


def _hollow(mould: Mould, step: Callable[[float, str], None]) -> Solid:
    """All that is not material: cavities, funnels, vents, wells."""
    parts, volume = [], 0.0
    for n, spot in enumerate(mould.cavities):
        step(0.1 + 0.4 * n / len(mould.cavities), f"cavity {n + 1} of {len(mould.cavities)}")
        cavity = solid_of(placed(mould, spot), f"cavity {spot.key[1:]}")
        parts.append(cavity)
        volume += cavity.volume()
    joined = Solid.batch_boolean(parts, manifold3d.OpType.Add)
    if joined.volume() < volume * (1 - 1e-3):
        raise Refused(
            "cavities",
            said((volume - joined.volume()) / 1000, "volume"),
            rule("cavities-run"),
        )
    rest = (
        [_funnel(feed) for feed in feeds(mould)]
        + [_vent(mould, n) for n in range(len(mould.vents) * len(mould.cavities))]
        + _wells(mould)
    )
    rest = [row for row in rest if not row.is_empty()]
    return Solid.batch_boolean([joined, *rest], manifold3d.OpType.Add) if rest else joined


def _funnel(feed: Feed) -> Solid:
    if feed.length_mm < 0.05:
        return Solid()
    # it begins a little inside the cavity so that no skin stays between
    inside = min(feed.neck_mm / 2, 3.0)
    cone = Solid.cylinder(feed.length_mm + 1.0, feed.neck_mm / 2, feed.mouth_mm / 2, SIDES)
    cone = cone + Solid.cylinder(inside + 0.1, feed.neck_mm / 2, feed.neck_mm / 2, SIDES).translate(
        (0, 0, -inside)
    )
    return (
        cone.rotate((0.0, 90.0, 0.0))
        .rotate((0.0, 0.0, feed.way_deg))
        .translate((feed.x0_mm, feed.y0_mm, 0.0))
    )


def _vent(mould: Mould, number: int) -> Solid:
    vent, spot = mould.vents[number % len(mould.vents)], mould.cavities[number // len(mould.vents)]
    walls, (x, y) = box(mould), turned(vent.x_mm, vent.y_mm, spot)
    z = vent.z_mm - mould.parting_mm
    section = manifold3d.CrossSection([np.array(vent.section_mm)])
    long = max(walls.length_mm, walls.high_mm) + walls.width_mm + 2.0
    rod = Solid.extrude(section, long).translate((0, 0, -0.5))
    if mould.stand == FLAT:
        return rod.translate((x, y, z))
    return rod.rotate((0.0, 90.0, 0.0)).rotate((0.0, 0.0, mould.tilt_deg)).translate((x, y, z))


def _wells(mould: Mould) -> list[Solid]:
    rows = []
    for well in mould.wells:
        a, h = well.across_mm / 2, well.deep_mm
        radius = (a * a + h * h) / (2 * h)
        ball = Solid.sphere(radius, 64).translate((well.x_mm, well.y_mm, radius - h))
        rows.append(ball.trim_by_plane((0.0, 0.0, -1.0), 0.0))
    return rows


def _lenses(mould: Mould, high_mm: float, gap_mm: float) -> Solid:
    """All keys as lenses: the cap in the half that is not proud, wider by a gap, and a little into the
    other, so that no faces coincide.
    """
    side, lean, rows = (1.0 if mould.keys.proud else -1.0), tan(radians(mould.slant_deg)), []
    a, h = mould.keys.base_mm / 2, high_mm
    radius = (a * a + h * h) / (2 * h)
    normal, height = _parting(mould)
    for x, y in key_places(mould):
        level = lean * (x - box(mould).length_mm / 2)
        rows.append(Solid.sphere(radius + gap_mm, 64).translate((x, y, level + side * (radius - h))))
    lenses = Solid.batch_boolean(rows, manifold3d.OpType.Add)
    if side > 0:
        return lenses.trim_by_plane((-normal[0], -normal[1], -normal[2]), -(height + INTO_MM))
    return lenses.trim_by_plane(normal, height - INTO_MM)


def _printed(name: str, half: Solid) -> Printed:
    require(
        half.status() == manifold3d.Error.NoError and half.volume() > 0,
        name,
        half.status().name,
        rule("cannot-made"),
    )
    raw = half.simplify(SMOOTH_MM).to_mesh()
    mesh = Mesh(
        np.asarray(raw.vert_properties, dtype=float)[:, :3], np.asarray(raw.tri_verts, dtype=np.int64)
    )
    if name in ("upper half", "block"):  # parting face up on the printer
        mesh = Mesh(mesh.vertices * np.array([1.0, -1.0, -1.0]), mesh.faces)
    mesh = Mesh(mesh.vertices - mesh.vertices.min(axis=0), mesh.faces)
    normals, areas = face_normals(mesh)
    on_bed = mesh.vertices[mesh.faces][:, :, 2].max(axis=1) < 0.01
    over = (normals[:, 2] < -np.sin(np.radians(STEEP_DEG))) & ~on_bed
    return Printed(name, mesh, half.volume() / 1000.0, float(areas[over].sum()) / 100.0)
