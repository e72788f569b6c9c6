"""The handles of the Shapes drawing: points of the lines, the section's roundness, parts and joints that
slide, the station.
"""

import numpy as np

from lamsik.core.quantities import said
from lamsik.core.shapes.body import Body, leaning, station
from lamsik.core.shapes.clashes import cut_ends
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Placement, lip_point, seat_point
from lamsik.drawings import parts
from lamsik.drawings.ink import DEEP, INK, MUTED, TIP, WATER, Pen
from lamsik.drawings.parts import Pull
from lamsik.drawings.svg import Node, group, label, node

SAYS = {"top": "Back line", "bottom": "Belly line", "half_width": "Plan", "widest": "Widest line"}
COLOUR = {"top": TIP, "bottom": TIP, "half_width": TIP, "widest": WATER}
SMALL = (18.0, 5.5)
"""Reach and radius of the handles of what slides: many lie beside each other."""


def points(body: Body, line: str, pen: Pen) -> list[Node]:
    """The points of one line as handles that move both ways."""
    curve = getattr(body, line)
    if curve is None:
        return []
    rows = zip(curve.shares, curve.values_mm, strict=True)
    return [
        _point(body, line, index, share * body.length_mm, value, pen)
        for index, (share, value) in enumerate(rows)
    ]


def _point(body: Body, line: str, index: int, x: float, value: float, pen: Pen) -> Node:
    dot = [
        node("circle", cx=x, cy=-value, r=13 * pen.mm, fill="transparent"),
        node(
            "circle",
            cx=x,
            cy=-value,
            r=4.6 * pen.mm,
            fill="#FFFFFF",
            stroke=COLOUR[line],
            stroke_width=2.4 * pen.mm,
        ),
    ]
    return group(
        dot,
        class_="handle point",
        tabindex=0 if index == 0 else -1,
        role="slider",
        aria_label=f"{SAYS[line]}, point {index + 1}",
        aria_valuenow=round(value, 2),
        aria_valuemin=-300,
        aria_valuemax=300,
        aria_valuetext=f"{said(x, 'length')} from the nose, {said(value, 'length')}",
        data_path=f"point.{line}.{index}",
        data_axis="xy",
        data_factor=-1,
        data_offset=0,
        data_x=round(x, 3),
    )


def station_line(body: Body, x: float, pen: Pen, low: float) -> Node:
    """The station that the section view shows: a line to slide along the body."""
    here = station(body, x)
    top = -here.top_mm - 15 * pen.mm
    dash = f"{5 * pen.mm:.2f} {4 * pen.mm:.2f}"
    grip = f"M{x:.2f} {top + 9 * pen.mm:.2f} l{-7 * pen.mm:.2f} {-12 * pen.mm:.2f}h{14 * pen.mm:.2f}z"
    return parts.handle(
        [
            node(
                "line",
                x1=x,
                x2=x,
                y1=top,
                y2=low,
                stroke=WATER,
                stroke_width=1.4 * pen.mm,
                stroke_dasharray=dash,
            ),
            node(
                "rect",
                x=x - 16 * pen.mm,
                y=top - 14 * pen.mm,
                width=32 * pen.mm,
                height=30 * pen.mm,
                fill="transparent",
            ),
            node("path", d=grip, fill=WATER, stroke="#FFFFFF", stroke_width=pen.mm),
        ],
        Pull(
            path="view.station",
            value=x,
            low=0.02 * body.length_mm,
            high=0.98 * body.length_mm,
            says="Station of the section",
        ),
    )


def exponents(body: Body, x: float, pen: Pen) -> list[Node]:
    """How full the section is above and below: a point on its diagonal, pulled out towards a slab or in
    towards a diamond.
    """
    here = station(body, x)
    if body.skin is not None or here.half_width_mm < 0.4:
        return []
    rows = []
    for name, n, reach, says in (
        ("upper", body.upper_exponent, here.top_mm - here.widest_mm, "Section above, fullness"),
        ("lower", body.lower_exponent, here.bottom_mm - here.widest_mm, "Section below, fullness"),
    ):
        share = 0.5 ** (1.0 / n)
        y, z = here.half_width_mm * share, here.widest_mm + reach * share
        dot = [
            node("circle", cx=y, cy=-z, r=16 * pen.mm, fill="transparent"),
            node("circle", cx=y, cy=-z, r=5 * pen.mm, fill="#FFFFFF", stroke=TIP, stroke_width=2.4 * pen.mm),
        ]
        rows.append(
            parts.handle(
                dot,
                Pull(
                    path=f"exponent.{name}",
                    value=y,
                    low=0.5 * here.half_width_mm,
                    high=0.943 * here.half_width_mm,
                    says=says,
                ),
            )
        )
    return rows


def sliding(design: Design, pen: Pen) -> list[Node]:
    """Everything that slides along the body: parts, holes, chambers, the lip, joints."""
    body = design.body
    rows = [
        _slider(p, design, pen)
        for p in design.hardware
        if not p.hung_on and p.seat in ("belly", "back", "flank", "inside")
    ]
    rows += [parts.slug_handle(design, hole, pen) for hole in design.ballast]
    if design.lip is not None:
        root = lip_point(body, design.lip, 0.0)
        pull = _slide("lip.x_mm", design.lip.x_mm, body, "Lip")
        rows.append(parts.grip(root[0], -root[2], pen, pull, SMALL))
    for joint in body.joints:
        _, low = cut_ends(body, leaning(body, joint.x_mm, joint.slant_deg))
        pull = _slide(f"joints.{joint.key}.x_mm", joint.x_mm, body, "Joint")
        rows.append(parts.grip(low[0], -low[1] + 9 * pen.mm, pen, pull, SMALL, DEEP))
    return rows


def _slider(placed: Placement, design: Design, pen: Pen) -> Node:
    x, _, z = seat_point(design.body, placed, design.lip)
    pull = _slide(f"hardware.{placed.key}.x_mm", placed.x_mm, design.body, placed.item.name)
    return parts.grip(x, -z, pen, pull, SMALL)


def _slide(path: str, value: float, body: Body, says: str) -> Pull:
    return Pull(path, value, 0.01 * body.length_mm, 0.99 * body.length_mm, f"{says}, distance from the nose")


def widest_line(body: Body, pen: Pen) -> Node:
    """Where the body is widest, on the side view."""
    phi = np.linspace(0.0, np.pi, 81)
    x, z = body.length_mm * (1 - np.cos(phi)) / 2, body.widest_at(phi)
    d = "M" + " L".join(f"{a:.2f} {-b:.2f}" for a, b in zip(x, z, strict=True))
    colour = WATER if body.widest is not None else MUTED
    return node(
        "path",
        d=d,
        fill="none",
        stroke=colour,
        stroke_width=1.1 * pen.mm,
        stroke_dasharray=f"{7 * pen.mm:.2f} {3 * pen.mm:.2f} {pen.mm:.2f} {3 * pen.mm:.2f}",
    )


def lip_angle(design: Design, pen: Pen) -> list[Node]:
    """The lip's angle to the body axis, drawn: the axis through its root, and the arc between."""
    lip = design.lip
    if lip is None:
        return []
    root = lip_point(design.body, lip, 0.0)
    reach = min(0.62 * lip.length_mm, 16.0)
    end, tip = lip_point(design.body, lip, reach), lip_point(design.body, lip, lip.length_mm)
    axis = node(
        "line",
        x1=root[0],
        y1=-root[2],
        x2=root[0] - 1.35 * reach,
        y2=-root[2],
        stroke=MUTED,
        stroke_width=pen.mm,
        stroke_dasharray=f"{3 * pen.mm:.2f} {3 * pen.mm:.2f}",
    )
    arc = f"M{root[0] - reach:.2f} {-root[2]:.2f} A{reach:.2f} {reach:.2f} 0 0 0 {end[0]:.2f} {-end[2]:.2f}"
    text = label(
        f"{said(lip.angle_deg, 'angle', 0)} to the axis",
        tip[0],
        -tip[2] + 20 * pen.mm,
        pen.text,
        fill=INK,
        stroke="#FFFFFF",
        stroke_width=3 * pen.mm,
        paint_order="stroke",
    )
    return [axis, node("path", d=arc, fill="none", stroke=INK, stroke_width=1.2 * pen.mm), text]
