"""A cavity as it stands while it is poured, turned so that up is up: with the air it would hold, or filled to
its level.
"""

from dataclasses import dataclass
from math import cos, radians, sin

import manifold3d
import numpy as np

from lamsik.core.moulds.funnels import end_of, feeds
from lamsik.core.moulds.geometry import seen
from lamsik.core.moulds.layout import Mould
from lamsik.core.moulds.vents import FLAT, HighPoint
from lamsik.core.quantities import said
from lamsik.core.shapes.curves import Array
from lamsik.core.trade.mould_kinds import OPEN
from lamsik.drawings import parts
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
from lamsik.drawings.svg import Node, framed, label, node, path


@dataclass(frozen=True)
class _Turned:
    """A cavity turned as it stands while it is poured: which axes are seen, how far it is turned [rad]."""

    mould: Mould
    turn: float

    @property
    def is_flat(self) -> bool:
        return self.mould.stand == FLAT

    @property
    def axes(self) -> tuple[int, int]:
        return (0, 2) if self.is_flat else (0, 1)

    @property
    def spin(self) -> Array:
        return np.array([[cos(self.turn), -sin(self.turn)], [sin(self.turn), cos(self.turn)]])

    @property
    def shapes(self) -> list[Array]:
        """Outlines of its shadow."""
        mesh = self.mould.lies
        outlines = seen(mesh, 1)[0] if self.is_flat else seen(mesh)[0]
        return [shape @ self.spin.T for shape in outlines]

    def at(self, point: Array) -> tuple[float, float]:
        """Where a point of the laid master is seen."""
        x, y = self.spin @ np.asarray(point)[list(self.axes)]
        return float(x), float(y)

    def mouth(self) -> tuple[float, float]:
        """Where the funnel meets it."""
        axis, way = {"tail": (0, 1), "nose": (0, -1), "back": (1, 1), "belly": (1, -1)}[self.mould.funnel.end]
        return self.at(end_of(self.mould.lies.vertices, way * np.eye(3)[axis]))


def _turned(mould: Mould, tilt_deg: float, lies_deg: float = 0.0) -> _Turned:
    flat = tilt_deg if mould.kind != OPEN else 180.0 - tilt_deg
    return _Turned(mould, radians(flat if mould.stand == FLAT else 90.0 - tilt_deg + lies_deg))


def poured(mould: Mould, points: tuple[HighPoint, ...], ring: float, pen: Pen) -> list[Node]:
    """A cavity as it stands while it is poured, turned so that up is up; air that stays is drawn pale in
    its high points.
    """
    stands = _turned(mould, mould.tilt_deg, mould.cavities[0].turn_deg)  # one turned in the block stands so
    body = {"fill": POUR, "stroke": INK, "stroke_width": 1.5 * pen.mm, "stroke_linejoin": "round"}
    return [
        node(
            "circle",
            cx=0,
            cy=0,
            r=ring,
            fill=CARD,
            stroke=MUTED,
            stroke_width=pen.mm,
            stroke_dasharray=f"{2 * pen.mm:.2f} {3 * pen.mm:.2f}",
        ),
        *(node("path", d=path(shape), **body) for shape in stands.shapes),
        *_vents(stands, ring, pen),
        *_air(stands, points, pen),
        *(_funnel(stands, pen) if feeds(mould) else []),
        *_up(stands, ring, pen),
        _tilt(stands, ring, pen),
    ]


def _vents(stands: _Turned, ring: float, pen: Pen) -> list[Node]:
    rows = []
    for vent in stands.mould.vents:
        x, y = stands.at(np.array((vent.x_mm, vent.y_mm, vent.z_mm)))
        wide = max(vent.across_mm, 2 * pen.mm)
        rows.append(node("line", x1=x, x2=x, y1=-y, y2=-ring, stroke=WATER, stroke_width=wide, opacity=0.8))
    return rows


def _air(stands: _Turned, points: tuple[HighPoint, ...], pen: Pen) -> list[Node]:
    """Air that stays: pale in its pocket, numbered at its highest point."""
    rows: list[Node] = []
    for n, point in enumerate(points[:9], start=1):
        x, y = stands.at(np.array(point.place_mm))
        pocket = _pocket(stands.shapes, (x, y), y - point.rise_mm)
        if len(pocket) > 2:
            rows.append(node("path", d=path(pocket), fill=PALE, stroke=WATER, stroke_width=1.5 * pen.mm))
        rows.append(node("circle", cx=x, cy=-y, r=3 * pen.mm, fill=BRICK))
        rows.append(
            label(f"{n}", x, -y - 8 * pen.mm, 12 * pen.mm, fill=BRICK, text_anchor="middle", font_weight=700)
        )
    return rows


def _funnel(stands: _Turned, pen: Pen) -> list[Node]:
    x, y = stands.mouth()
    lies = abs(x) > abs(y)  # its word goes under it then: beside it lies the line of the air
    at = (x, -y + 20 * pen.mm) if lies else (x - 10 * pen.mm, -y + 4 * pen.mm)
    return [
        node("circle", cx=x, cy=-y, r=4.5 * pen.mm, fill=STEEL, stroke=INK, stroke_width=pen.mm),
        label("funnel", *at, 11 * pen.mm, fill=MUTED, text_anchor="middle" if lies else "end"),
    ]


def _up(stands: _Turned, ring: float, pen: Pen) -> list[Node]:
    """The arrow that points up, and how it stands in words."""
    words = (
        f"as poured: {'lying flat' if stands.is_flat else 'standing on edge'},"
        f" {said(stands.mould.tilt_deg, 'angle', 0)}"
    )
    arrow = f"M0 {-ring - 4 * pen.mm:.2f}l{-5 * pen.mm:.2f} {9 * pen.mm:.2f}h{10 * pen.mm:.2f}Z"
    middle = {"fill": MUTED, "text_anchor": "middle"}
    return [
        node("path", d=arrow, fill=MUTED),
        label("up", 0, -ring - 9 * pen.mm, 11 * pen.mm, **middle),
        label(words.replace("-", "−"), 0, ring + 22 * pen.mm, pen.text, **middle),
    ]


def _tilt(stands: _Turned, ring: float, pen: Pen) -> Node:
    """The handle that tilts it, on the ring."""
    mould, flat = stands.mould, stands.is_flat
    grip = stands.turn if flat else stands.turn - radians(mould.cavities[0].turn_deg)
    x, y = ring * cos(grip), -ring * sin(grip)
    dot = [
        node("circle", cx=x, cy=y, r=22 * pen.mm, fill="transparent"),
        node("circle", cx=x, cy=y, r=7 * pen.mm, fill=TIP, stroke=CARD, stroke_width=1.5 * pen.mm),
    ]
    reach = 45.0 if flat else 180.0
    pull = parts.Pull(
        path="tilt_deg",
        value=mould.tilt_deg,
        low=-reach,
        high=reach,
        says="Tilt while it is poured",
        axis="turn",
        factor=1.0 if flat and mould.kind != OPEN else -1.0,
        quantity="angle",
    )
    return parts.handle(dot, pull)


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
    above = _beyond(shapes, level, above=True)
    return min(above, key=lambda row: float(((row - at) ** 2).sum(axis=1).min()), default=np.zeros((0, 2)))


def cast_picture(
    mould: Mould,
    level_mm: float | None = None,
    dense: bool = False,
    prop_deg: float | None = None,
    zones: tuple[tuple[float, float], ...] = (),
) -> Node:
    """One casting as it is poured: up is up; liquid or dense pour filled to its level, thin zones ringed."""
    stands = _turned(mould, mould.tilt_deg if prop_deg is None else prop_deg)
    shapes = stands.shapes
    low, high = np.vstack(shapes).min(axis=0), np.vstack(shapes).max(axis=0)
    wide, tall = (float(v) for v in high - low)
    pen = pen_for(max(wide, 1.2 * tall) * 1.25, 380)
    edge = {"stroke": INK, "stroke_width": 1.5 * pen.mm}
    rows: list[Node] = [
        node("path", d=path(shape), fill=WOOD, stroke_linejoin="round", **edge) for shape in shapes
    ]
    if level_mm is not None:
        rows += _filled(shapes, level_mm, STEEL if dense else POUR, pen)
    rows += _thin(stands, zones, pen)
    if feeds(mould):
        x, y = stands.mouth()
        cone = f"M{x:.2f} {-y:.2f}l{-9 * pen.mm:.2f} {-16 * pen.mm:.2f}h{18 * pen.mm:.2f}Z"
        rows.append(node("path", d=cone, fill=POUR, stroke=INK, stroke_width=pen.mm))
    room = 26 * pen.mm
    return framed(
        rows,
        low[0] - room,
        -high[1] - room,
        wide + 2 * room + 26 * pen.mm,
        tall + 2 * room,
        f"A casting in {mould.name} as it is poured",
    )


def _filled(shapes: list[Array], level_mm: float, colour: str, pen: Pen) -> list[Node]:
    """What is poured up to a level, the outlines again over it, the level with its height."""
    low, high = np.vstack(shapes).min(axis=0), np.vstack(shapes).max(axis=0)
    edge = {"fill": "none", "stroke": INK, "stroke_width": 1.5 * pen.mm}
    water = {"y1": -level_mm, "y2": -level_mm, "stroke": WATER, "stroke_width": 1.6 * pen.mm}
    return [
        *(
            node("path", d=path(part), fill=colour, stroke="none")
            for part in _beyond(shapes, level_mm, above=False)
        ),
        *(node("path", d=path(shape), **edge) for shape in shapes),
        node("line", x1=low[0] - 8 * pen.mm, x2=high[0] + 8 * pen.mm, **water),
        label(
            said(level_mm - low[1], "length", 0),
            high[0] + 10 * pen.mm,
            -level_mm + 4 * pen.mm,
            pen.text,
            fill=DEEP,
        ),
    ]


def _thin(stands: _Turned, zones: tuple[tuple[float, float], ...], pen: Pen) -> list[Node]:
    """Rings round the stretches [mm from the nose] where it is thin."""
    points = stands.mould.lies.vertices
    start, rows = float(points[:, 0].min()), []
    for a, b in zones:
        within = (points[:, 0] >= start + a - 0.5) & (points[:, 0] <= start + b + 0.5)
        inside = points[within][:, stands.axes] @ stands.spin.T
        if len(inside):
            middle = (inside.max(axis=0) + inside.min(axis=0)) / 2
            reach = np.ptp(inside, axis=0) / 2 + 3 * pen.mm
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
    return rows
