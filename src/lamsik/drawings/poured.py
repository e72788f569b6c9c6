"""A cavity as it stands while it is poured, turned so that up is up: with the air it would hold, or filled to
its level.
"""

from math import cos, radians, sin

import manifold3d
import numpy as np

from lamsik.core.moulds.geometry import seen
from lamsik.core.moulds.layout import Mould, end_of, feeds, lying
from lamsik.core.moulds.pull import OPEN
from lamsik.core.moulds.vents import FLAT, HighPoint
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.skins import Mesh
from lamsik.drawings import parts
from lamsik.drawings.body import framed
from lamsik.drawings.ink import (
    BRICK,
    CARD,
    DEEP,
    INK,
    MUTED,
    PALE,
    POUR,
    STEEL,
    TIP,
    WATER,
    WOOD,
    Pen,
    pen_for,
)
from lamsik.drawings.svg import Node, label, node, path


def poured(mould: Mould, points: tuple[HighPoint, ...], ring: float, pen: Pen) -> list[Node]:
    """A cavity as it stands while it is poured, turned so that up is up; air that stays is drawn pale in
    its high points.
    """
    flat = mould.stand == FLAT
    mesh, axes = lying(mould), ((0, 2) if flat else (0, 1))
    lies = mould.cavities[0].turn_deg  # a cavity turned in the block stands turned
    turn = radians(
        (mould.tilt_deg if mould.kind != OPEN else 180.0 - mould.tilt_deg)
        if flat
        else 90.0 - mould.tilt_deg + lies
    )
    spin = np.array([[cos(turn), -sin(turn)], [sin(turn), cos(turn)]])
    rows: list[Node] = [
        node(
            "circle",
            cx=0,
            cy=0,
            r=ring,
            fill=CARD,
            stroke=MUTED,
            stroke_width=pen.mm,
            stroke_dasharray=f"{2 * pen.mm:.2f} {3 * pen.mm:.2f}",
        )
    ]
    for shape in _shadow(mesh, flat):
        rows.append(
            node(
                "path",
                d=path(shape @ spin.T),
                fill=POUR,
                stroke=INK,
                stroke_width=1.5 * pen.mm,
                stroke_linejoin="round",
            )
        )
    for vent in mould.vents:
        x, y = spin @ np.array([(vent.x_mm, vent.y_mm, vent.z_mm)[k] for k in axes])
        rows.append(
            node(
                "line",
                x1=x,
                x2=x,
                y1=-y,
                y2=-ring,
                stroke=WATER,
                stroke_width=max(vent.across_mm, 2 * pen.mm),
                opacity=0.8,
            )
        )
    shapes = [shape @ spin.T for shape in _shadow(mesh, flat)]
    for n, point in enumerate(points[:9], start=1):
        x, y = spin @ np.array([point.place_mm[k] for k in axes])
        pocket = _pocket(shapes, (x, y), y - point.rise_mm)
        rows += [
            *(
                [node("path", d=path(pocket), fill=PALE, stroke=WATER, stroke_width=1.5 * pen.mm)]
                if len(pocket) > 2
                else []
            ),
            node("circle", cx=x, cy=-y, r=3 * pen.mm, fill=BRICK),
            label(f"{n}", x, -y - 8 * pen.mm, 12 * pen.mm, fill=BRICK, text_anchor="middle", font_weight=700),
        ]
    if feeds(mould):
        end = {"tail": (0, 1), "nose": (0, -1), "back": (1, 1), "belly": (1, -1)}[mould.funnel.end]
        spot = end_of(mesh.vertices, end[1] * np.eye(3)[end[0]])
        x, y = spin @ spot[list(axes)]
        rows += [
            node("circle", cx=x, cy=-y, r=4.5 * pen.mm, fill=STEEL, stroke=INK, stroke_width=pen.mm),
            label("funnel", x - 10 * pen.mm, -y + 4 * pen.mm, 11 * pen.mm, fill=MUTED, text_anchor="end"),
        ]
    rows += [
        node(
            "path",
            d=f"M0 {-ring - 4 * pen.mm:.2f}l{-5 * pen.mm:.2f} {9 * pen.mm:.2f}h{10 * pen.mm:.2f}Z",
            fill=MUTED,
        ),
        label("up", 0, -ring - 9 * pen.mm, 11 * pen.mm, fill=MUTED, text_anchor="middle"),
        label(
            f"as poured: {'lying flat' if flat else 'standing on edge'}, {mould.tilt_deg:.0f}°".replace(
                "-", "−"
            ),
            0,
            ring + 22 * pen.mm,
            pen.text,
            fill=MUTED,
            text_anchor="middle",
        ),
    ]
    grip = turn if flat else turn - radians(lies)
    hx, hy = ring * cos(grip), ring * sin(grip)
    dot = [
        node("circle", cx=hx, cy=-hy, r=22 * pen.mm, fill="transparent"),
        node("circle", cx=hx, cy=-hy, r=7 * pen.mm, fill=TIP, stroke=CARD, stroke_width=1.5 * pen.mm),
    ]
    way = 1.0 if flat and mould.kind != OPEN else -1.0
    limits = (-45.0, 45.0) if flat else (-180.0, 180.0)
    rows.append(
        parts.handle(
            dot,
            parts.Pull(
                path="tilt_deg",
                value=mould.tilt_deg,
                low=limits[0],
                high=limits[1],
                says="Tilt while it is poured",
                axis="turn",
                factor=way,
                unit="°",
            ),
        )
    )
    return rows


def _beyond(shapes: list[Array], level: float, above: bool) -> list[Array]:
    """The parts of outlines on one side of a level, each (n, 2) [mm]."""
    low, high = np.vstack(shapes).min(axis=0) - 1.0, np.vstack(shapes).max(axis=0) + 1.0
    ends = (level, high[1]) if above else (low[1], level)
    if ends[1] <= ends[0]:
        return []
    side = manifold3d.CrossSection.square((high[0] - low[0], ends[1] - ends[0])).translate((low[0], ends[0]))
    whole = manifold3d.CrossSection(shapes, manifold3d.FillRule.EvenOdd)
    return [np.asarray(row) for row in (whole ^ side).to_polygons()]


def _pocket(shapes: list[Array], at: tuple[float, float], level: float) -> Array:
    """The part of an outline above a level that holds a point of it: the air that stays there."""
    found = _beyond(shapes, level, above=True)
    return min(found, key=lambda row: float(((row - at) ** 2).sum(axis=1).min()), default=np.zeros((0, 2)))


def _shadow(mesh: Mesh, flat: bool) -> tuple[Array, ...]:
    return seen(mesh, 1)[0] if flat else seen(mesh)[0]


def cast_picture(
    mould: Mould,
    level_mm: float | None = None,
    dense: bool = False,
    prop_deg: float | None = None,
    zones: tuple[tuple[float, float], ...] = (),
) -> Node:
    """One casting as it is poured: up is up; liquid or dense pour filled to its level, thin zones ringed."""
    flat, tilt = mould.stand == FLAT, mould.tilt_deg if prop_deg is None else prop_deg
    mesh, axes = lying(mould), ((0, 2) if mould.stand == FLAT else (0, 1))
    turn = radians((tilt if mould.kind != OPEN else 180.0 - tilt) if flat else 90.0 - tilt)
    spin = np.array([[cos(turn), -sin(turn)], [sin(turn), cos(turn)]])
    shapes = [shape @ spin.T for shape in _shadow(mesh, flat)]
    low, high = np.vstack(shapes).min(axis=0), np.vstack(shapes).max(axis=0)
    wide, tall = (float(v) for v in high - low)
    pen = pen_for(max(wide, 1.2 * tall) * 1.25, 380)
    rows: list[Node] = [
        node("path", d=path(shape), fill=WOOD, stroke=INK, stroke_width=1.5 * pen.mm, stroke_linejoin="round")
        for shape in shapes
    ]
    if level_mm is not None:
        rows += [
            node("path", d=path(part), fill=STEEL if dense else POUR, stroke="none")
            for part in _beyond(shapes, level_mm, above=False)
        ]
        rows += [
            node("path", d=path(shape), fill="none", stroke=INK, stroke_width=1.5 * pen.mm)
            for shape in shapes
        ]
        rows.append(
            node(
                "line",
                x1=low[0] - 8 * pen.mm,
                x2=high[0] + 8 * pen.mm,
                y1=-level_mm,
                y2=-level_mm,
                stroke=WATER,
                stroke_width=1.6 * pen.mm,
            )
        )
        rows.append(
            label(
                f"{level_mm - low[1]:.0f} mm",
                high[0] + 10 * pen.mm,
                -level_mm + 4 * pen.mm,
                pen.text,
                fill=DEEP,
            )
        )
    start = float(mesh.vertices[:, 0].min())
    for a, b in zones:
        inside = (
            mesh.vertices[
                (mesh.vertices[:, 0] >= start + a - 0.5) & (mesh.vertices[:, 0] <= start + b + 0.5)
            ][:, axes]
            @ spin.T
        )
        if len(inside):
            middle, reach = (
                (inside.max(axis=0) + inside.min(axis=0)) / 2,
                np.ptp(inside, axis=0) / 2 + 3 * pen.mm,
            )
            rows.append(
                node(
                    "ellipse",
                    cx=middle[0],
                    cy=-middle[1],
                    rx=reach[0],
                    ry=reach[1],
                    fill="none",
                    stroke=BRICK,
                    stroke_width=2 * pen.mm,
                    stroke_dasharray=f"{5 * pen.mm:.2f} {3 * pen.mm:.2f}",
                )
            )
    if feeds(mould):
        end = {"tail": (0, 1), "nose": (0, -1), "back": (1, 1), "belly": (1, -1)}[mould.funnel.end]
        spot = spin @ end_of(mesh.vertices, end[1] * np.eye(3)[end[0]])[list(axes)]
        rows.append(
            node(
                "path",
                d=f"M{spot[0]:.2f} {-spot[1]:.2f}l{-9 * pen.mm:.2f} {-16 * pen.mm:.2f}h{18 * pen.mm:.2f}Z",
                fill=POUR,
                stroke=INK,
                stroke_width=pen.mm,
            )
        )
    edge = 26 * pen.mm
    return framed(
        rows,
        low[0] - edge,
        -high[1] - edge,
        wide + 2 * edge + 26 * pen.mm,
        tall + 2 * edge,
        f"A casting in {mould.name} as it is poured",
    )
