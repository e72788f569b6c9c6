"""A sheet-metal blade: flat, from the side as bent, from behind with its cup; and its bending template."""

import numpy as np

from lamsik.core.quantities import plainly, said
from lamsik.core.shapes.blades import Blade
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.drawn_layers import DrawnLayer
from lamsik.drawings.ink import INK, MUTED, STEEL, TIP, Pen, pen_for
from lamsik.drawings.paper import Drawing
from lamsik.drawings.svg import Node, framed, group, label, node, path

BRASS = "#D9B65A"


def strip(blade: Blade, count: int = 40) -> Array:
    """The flat strip's outline (n, 2) [mm], nose end at x = 0, both ends round."""
    half, length = blade.width_mm / 2, blade.flat_mm
    reach = min(half, length / 2)
    turn = np.linspace(np.pi / 2, 1.5 * np.pi, count)
    front = np.column_stack([reach + reach * np.cos(turn), half * np.sin(turn)])
    return np.vstack([front, front[::-1] * [-1, 1] + [length, 0]])


def centres(blade: Blade) -> list[tuple[float, float]]:
    """Where the holes are on the flat strip, x and diameter [mm]."""
    return [
        (hole.edge_mm if hole.key == "front" else blade.flat_mm - hole.edge_mm, hole.diameter_mm)
        for hole in blade.holes
    ]


def side(blade: Blade) -> Array:
    """The bent blade's outer line from the side (n, 2) [mm]: nose, bend, rear."""
    turn = np.radians(blade.nose_deg)
    return np.array(
        [[-blade.nose_mm * np.cos(turn), blade.nose_mm * np.sin(turn)], [0.0, 0.0], [blade.rear_mm, 0.0]]
    )


def behind(blade: Blade) -> Array:
    """The cup from behind (n, 2) [mm]: left edge, flat, right edge."""
    flat = blade.width_mm / 2 - blade.cup_mm
    left, right = np.radians(blade.left_deg), np.radians(blade.right_deg)
    ends = [
        (-flat - blade.cup_mm * np.cos(left), -blade.cup_mm * np.sin(left)),
        (flat + blade.cup_mm * np.cos(right), -blade.cup_mm * np.sin(right)),
    ]
    return np.array([ends[0], (-flat, 0.0), (flat, 0.0), ends[1]])


def picture(blade: Blade) -> Node:
    """All three at one scale."""
    pen = pen_for(blade.flat_mm + blade.width_mm + 20, 640)
    bent, cup = side(blade), behind(blade)
    tall = max(abs(float(bent[:, 1].max())), 4.0)
    flat = group(_flat(blade, pen, BRASS), transform=f"translate(0 {tall + blade.width_mm / 2 + 10:.2f})")
    profile = group([_line(bent, blade, pen)], transform=f"translate({-float(bent[:, 0].min()):.2f} 0)")
    rear = group(
        [_line(cup, blade, pen)], transform=f"translate({blade.flat_mm + blade.width_mm / 2 + 10:.2f} 0)"
    )
    words = [
        label("as bent, from the side", 0, -tall - 3, pen.text, fill=MUTED),
        label("from behind", blade.flat_mm + 10, -tall - 3, pen.text, fill=MUTED),
        label(
            f"flat strip {said(blade.flat_mm, 'length')}, bend line at {said(blade.bend_mm, 'length')}",
            0,
            tall + 7,
            pen.text,
            fill=MUTED,
        ),
    ]
    return framed(
        [profile, rear, flat, *words],
        -4,
        -tall - 9,
        blade.flat_mm + blade.width_mm + 26,
        2 * tall + blade.width_mm + 24,
        f"{blade.name}: bent and flat",
    )


def _line(points: Array, blade: Blade, pen: Pen) -> Node:
    return node(
        "path",
        d=path(points, close=False),
        fill="none",
        stroke=STEEL,
        stroke_width=max(blade.thickness_mm, 2 * pen.mm),
        stroke_linejoin="round",
    )


def _flat(blade: Blade, pen: Pen, fill: str) -> list[Node]:
    half, fine = blade.width_mm / 2, 1.2 * pen.mm
    rows = [node("path", d=path(strip(blade)), fill=fill, stroke=INK, stroke_width=fine)]
    rows.append(
        node(
            "line",
            x1=blade.bend_mm,
            x2=blade.bend_mm,
            y1=-half,
            y2=half,
            stroke=TIP,
            stroke_width=fine,
            stroke_dasharray="2 1",
        )
    )
    if blade.cup_mm > 0:
        for y in (blade.cup_mm - half, half - blade.cup_mm):
            rows.append(
                node(
                    "line",
                    x1=0,
                    x2=blade.flat_mm,
                    y1=y,
                    y2=y,
                    stroke=TIP,
                    stroke_width=fine,
                    stroke_dasharray="1 1",
                )
            )
    return rows + [
        node("circle", cx=x, cy=0, r=d / 2, fill="#FFFFFF", stroke=INK, stroke_width=fine)
        for x, d in centres(blade)
    ]


def templates(blade: Blade) -> list[Drawing]:
    """The flat strip and the bends, for the printer."""
    pen, half = Pen(0.2), blade.width_mm / 2
    marks = [
        node("path", d=f"M{x - 1.5:.2f} 0h3M{x:.2f} -1.5v3", stroke=INK, stroke_width=0.2)
        for x, _ in centres(blade)
    ]
    holes = ", ".join(
        f"{key} {plainly(d, 'length')}"
        for (_, d), key in zip(centres(blade), ("front", "rear"), strict=False)
    )
    box = (-3.0, -half - 3, max(blade.flat_mm + 6, 120.0), 2 * half + 6)
    note = (
        f"Holes {holes}; drill before bending, deburr both sides. Bend on the long dashes, cup on the short"
        " ones."
    )
    flat = Drawing(
        "flat",
        f"Flat strip, {blade.metal} {plainly(blade.thickness_mm, 'length')}",
        (*_flat(blade, pen, "none"), *marks),
        box,
        note,
    )
    bent, cup = side(blade), behind(blade)
    rows = [
        Drawing(
            "bend",
            f"Nose bend {said(blade.nose_deg, 'angle', 0)}, inside radius"
            f" {plainly(blade.radius_mm, 'length')}",
            (_line(bent, blade, pen),),
            (
                float(bent[:, 0].min()) - 3,
                -max(float(bent[:, 1].max()), 2) - 3,
                max(float(np.ptp(bent[:, 0])) + 6, 80),
                float(np.ptp(bent[:, 1])) + 10,
            ),
        ),
        Drawing(
            "cup",
            f"Cup {said(blade.left_deg, 'angle', 0)} left, {said(blade.right_deg, 'angle', 0)} right",
            (_line(cup, blade, pen),),
            (
                float(cup[:, 0].min()) - 3,
                -3,
                max(float(np.ptp(cup[:, 0])) + 6, 70),
                max(float(np.ptp(cup[:, 1])), 2) + 8,
            ),
        ),
    ]
    return [flat, *rows]


def layers(blade: Blade) -> list[DrawnLayer]:
    """The flat strip as DXF layers."""
    half = blade.width_mm / 2
    bends = [np.array([[blade.bend_mm, -half], [blade.bend_mm, half]])]
    if blade.cup_mm > 0:
        bends += [
            np.array([[0.0, y], [blade.flat_mm, y]]) for y in (blade.cup_mm - half, half - blade.cup_mm)
        ]
    return [
        DrawnLayer("SIDE", (strip(blade),)),
        DrawnLayer("HOLES", circles=tuple((x, 0.0, d) for x, d in centres(blade))),
        DrawnLayer("BENDS", lines=tuple(bends)),
    ]
