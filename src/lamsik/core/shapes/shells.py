"""A hollow body as it is printed or cast: its segments as closed meshes with the hollow taken out of them,
walls round what sits inside left in.
"""

from functools import lru_cache

import manifold3d
import numpy as np
from numpy.typing import NDArray

from lamsik.core.errors import Refused, rule
from lamsik.core.shapes.body import Body, uncut
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.dividing import Bounds
from lamsik.core.shapes.hardware import lip_root
from lamsik.core.shapes.hollow import exact_chart
from lamsik.core.shapes.polyhedra import ahead_of, manifold_of, mesh_from, segment_meshes, surface
from lamsik.core.shapes.skins import Mesh
from lamsik.core.shapes.things import Lying, Plate, Solid, Upright, things_in

FINE = (161, 65)
"""Stations and points from side to side of the hollow's own surface."""

ROUND = 64
"""Sides of what is round in it."""


@lru_cache(maxsize=8)
def hollow_mesh(body: Body, wall_mm: float) -> Mesh:
    """The whole inside of a wall as one closed mesh [mm], of a body that joints have not cut. Raises
    `Refused` where nothing is left inside.
    """
    chart = exact_chart(uncut(body), wall_mm, FINE)
    count, across = chart.low.shape
    x = (chart.from_mm + chart.to_mm) / 2 - (chart.to_mm - chart.from_mm) / 2 * np.cos(
        np.linspace(0.0, np.pi, count)
    )
    y = chart.sides.mean(axis=1)[:, None] - np.ptp(chart.sides, axis=1)[:, None] / 2 * np.cos(
        np.linspace(0.0, np.pi, across)
    )
    shut = chart.high - chart.low < SHUT_MM
    shut[:, [0, -1]] = shut[[0, -1], :] = True  # it closes all round
    middle = _carried((chart.low + chart.high) / 2, shut)
    # where it is shut its two sides are one: they share the corner
    top = np.arange(count * across).reshape(count, across)
    under = np.where(shut, top, top + count * across)
    high, low = (np.where(shut, middle, side) for side in (chart.high, chart.low))
    flat = [np.repeat(x, across), y.ravel()]
    vertices = np.vstack([np.column_stack([*flat, high.ravel()]), np.column_stack([*flat, low.ravel()])])
    faces = np.vstack([_grid(top, shut), _grid(under, shut)[:, ::-1]])
    used, faces = np.unique(faces, return_inverse=True)
    return Mesh(vertices[used], faces.reshape(-1, 3).astype(np.int64))


SHUT_MM = 1e-4
"""A hollow that is flatter is none."""


def _carried(middle: Array, shut: NDArray[np.bool_]) -> Array:
    """Middle heights, where it is shut that of the nearest open point of the station, or of the nearest
    station that has one.
    """
    carried, open_rows = middle.copy(), np.nonzero(~shut.all(axis=1))[0]
    at = np.arange(shut.shape[1])
    for row in open_rows:
        there = np.nonzero(~shut[row])[0]
        carried[row] = middle[row, there[np.argmin(np.abs(at[:, None] - there), axis=1)]]
    for row in np.nonzero(shut.all(axis=1))[0]:
        carried[row] = carried[open_rows[np.argmin(np.abs(open_rows - row))]].mean()
    return carried


def _grid(index: NDArray[np.int64], shut: NDArray[np.bool_]) -> NDArray[np.int64]:
    """The two triangles of each cell of a grid of corners, seen from above turning left; those shut at
    every corner are left out.
    """
    a, b, c, d = (
        index[:-1, :-1].ravel(),
        index[1:, :-1].ravel(),
        index[1:, 1:].ravel(),
        index[:-1, 1:].ravel(),
    )
    faces = np.vstack([np.column_stack([a, b, c]), np.column_stack([a, c, d])])
    e, f, g, h = shut[:-1, :-1].ravel(), shut[1:, :-1].ravel(), shut[1:, 1:].ravel(), shut[:-1, 1:].ravel()
    kept: NDArray[np.int64] = faces[~np.concatenate([e & f & g, e & g & h])]
    return kept


def shell_meshes(design: Design, stations: int, around: int) -> tuple[Mesh, ...]:
    """The segments as they are printed, from the nose: each solid one, or the shell of a hollow one.

    Raises:
        Refused: the surface cannot be cut.
    """
    whole = (
        segment_meshes(design.body, stations, around)
        if design.body.joints
        else (surface(design.body, stations, around),)
    )
    if design.shell is None:
        return whole
    hollow = _hollow(design)
    return tuple(mesh_from(manifold_of(mesh) - hollow) for mesh in whole)


def whole_shell(design: Design, stations: int, around: int) -> Mesh:
    """The uncut body, its hollow taken out."""
    solid = surface(design.body, stations, around)
    return solid if design.shell is None else mesh_from(manifold_of(solid) - _hollow(design))


def _hollow(design: Design) -> manifold3d.Manifold:
    """The chambers of the hollow: it ends at the walls of joints, at pours, and at the walls round what
    sits in it.
    """
    body, shell = design.body, design.shell
    assert shell is not None
    left = manifold_of(hollow_mesh(uncut(body), shell.wall_mm))
    bounds, chambers = Bounds.of(body, design.pours, shell), []
    for fore, aft in bounds.closed:
        ahead, _ = ahead_of(left, fore)
        chambers.append(ahead)
        _, left = ahead_of(left, aft)
    hollow = manifold3d.Manifold.batch_boolean([*chambers, left], manifold3d.OpType.Add)
    for first, last in bounds.pours:
        kept = []
        if first is not None:
            kept.append(ahead_of(hollow, first)[0])
        if last is not None:
            kept.append(ahead_of(hollow, last)[1])
        hollow = (
            manifold3d.Manifold.batch_boolean(kept, manifold3d.OpType.Add) if kept else manifold3d.Manifold()
        )
    if shell.around_mm > 0:
        bores = tuple(placed for placed in design.hardware if placed.item.pocket_ml > 0)
        for thing in things_in(body, design.ballast, design.cavities, bores, design.lip):
            hollow -= _shape(thing.shape.grown(shell.around_mm))
    if hollow.status() != manifold3d.Error.NoError:
        raise Refused("shell", None, rule("hollow-cannot"))
    return hollow


def _shape(shape: Solid) -> manifold3d.Manifold:
    """What sits in the hollow, with its wall."""
    if isinstance(shape, Upright):
        return manifold3d.Manifold.cylinder(
            shape.high_mm - shape.low_mm, shape.radius_mm, shape.radius_mm, ROUND
        ).translate([shape.x_mm, shape.y_mm, shape.low_mm])
    if isinstance(shape, Lying):
        rise = (shape.z_to_mm - shape.z_from_mm) / (shape.to_mm - shape.from_mm)
        lying = manifold3d.Manifold.cylinder(
            shape.to_mm - shape.from_mm, shape.radius_mm, shape.radius_mm, ROUND
        ).rotate([0.0, 90.0, 0.0])
        return lying.transform(
            np.array(
                [[1.0, 0.0, 0.0, shape.from_mm], [0.0, 1.0, 0.0, 0.0], [rise, 0.0, 1.0, shape.z_from_mm]]
            )
        )
    return _plate(shape)


def _plate(shape: Plate) -> manifold3d.Manifold:
    """The lip's slot with its wall: along the plate from its inner edge to where it has left the body."""
    lip, root = shape.lip, lip_root(shape.body, shape.lip)
    deep, out, thick = lip.inset_mm + shape.wall_mm, lip.length_mm, lip.thickness_mm + 2 * shape.wall_mm
    wide = lip.width_mm + 2 * shape.wall_mm
    box = manifold3d.Manifold.cube([deep + out, wide, thick]).translate([-out, -wide / 2, -thick / 2])
    # the plate runs inward up and aft: x grows into the body
    return box.rotate([0.0, -lip.angle_deg, 0.0]).translate([root[0], root[1], root[2]])
