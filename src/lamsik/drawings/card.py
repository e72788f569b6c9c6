"""Full-size templates for the bench card: every drawing in true millimetres."""

import numpy as np

from lamsik.core.quantities import place, plainly, said, unit_of
from lamsik.core.shapes.ballast_holes import Hole, mouth_mm
from lamsik.core.shapes.body import section_outline, side_outline, station, top_outline
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import lip_point, seat_point
from lamsik.drawings import parts
from lamsik.drawings.ink import INK, MUTED, PRINT
from lamsik.drawings.ruler import ruler
from lamsik.drawings.svg import Node, group, label, node, path

MARGIN = 4.0


def full_size(content: list[Node], x: float, y: float, width: float, height: float, title: str) -> Node:
    """An SVG whose user unit is one millimetre on paper."""
    return node(
        "svg",
        node("title", title),
        *content,
        viewBox=f"{x:.2f} {y:.2f} {width:.2f} {height:.2f}",
        width=f"{width:.2f}mm",
        height=f"{height:.2f}mm",
        xmlns="http://www.w3.org/2000/svg",
    )


def side_template(design: Design) -> Node:
    """The side pattern with station lines, holes, seats and slot: to be glued on the blank."""
    body = design.body
    outline = side_outline(body, 161)
    high, low = float(outline[:, 1].max()), float(outline[:, 1].min())
    lines = [_station_line(design, x) for x in _tens(body.length_mm)]
    seats = [
        _seat(p_x, -p_z)
        for p_x, _, p_z in (
            seat_point(body, p, design.lip) for p in design.hardware if not p.hung_on and p.seat != "lip"
        )
    ]
    holes = [_hole_lines(design, i) for i in range(len(design.ballast))]
    return _template(
        outline,
        [*lines, *holes, *_slot(design), *seats],
        high,
        low,
        body.length_mm,
        "Side template, full size",
    )


def top_template(design: Design) -> Node:
    """The top pattern with its centre line and the hole centres."""
    body = design.body
    outline = top_outline(body, 161)
    half = float(outline[:, 1].max())
    centre = node(
        "line",
        x1=-MARGIN,
        x2=body.length_mm + MARGIN,
        y1=0,
        y2=0,
        stroke=MUTED,
        stroke_width=PRINT.mm,
        stroke_dasharray="4 1 0.5 1",
    )
    holes = [
        node("circle", cx=h.x_mm, cy=y, r=h.drill_mm / 2, fill="none", stroke=INK, stroke_width=PRINT.mm)
        for h in design.ballast
        for y in h.sides_mm
    ]
    marks = [_cross(h.x_mm, 0.0) for h in design.ballast]
    return _template(
        outline, [centre, *holes, *marks], half, -half, body.length_mm, "Top template, full size"
    )


def sections(design: Design) -> Node:
    """Sections at a quarter, the middle and three quarters, side by side, full size."""
    nodes, x = [], 0.0
    high, low = 0.0, 0.0
    for share in (0.25, 0.5, 0.75):
        outline = section_outline(design.body, share * design.body.length_mm, 96)
        half = float(outline[:, 0].max())
        x += half
        shape = node("path", d=path(outline), fill="none", stroke=INK, stroke_width=1.5 * PRINT.mm)
        name = label(
            said(share * design.body.length_mm, "length", 0),
            0,
            -float(outline[:, 1].min()) + 4,
            2.8,
            text_anchor="middle",
        )
        nodes.append(group([shape, name], transform=f"translate({x:.2f} 0)"))
        high, low = max(high, float(outline[:, 1].max())), min(low, float(outline[:, 1].min()))
        x += half + 8
    return full_size(nodes, -1, -high - 1, x, high - low + 7, "Sections, full size")


def check_ruler() -> tuple[Node, str]:
    """A ruler to lay a real one against before cutting, and how long it is."""
    length = 50.8 if unit_of("length") == "in" else 50.0
    says = plainly(length, "length")
    return full_size([ruler(length, PRINT)], -3, -2, 62, 8, f"{says} check ruler"), says


def drill_map(design: Design) -> Node:
    """Each hole on the side view by its number, and what it is below: place, drill and depth."""
    body = design.body
    outline = side_outline(body, 121)
    high, low = float(outline[:, 1].max()), float(outline[:, 1].min())
    content = [node("path", d=path(outline), fill="none", stroke=INK, stroke_width=1.5 * PRINT.mm)]
    for number, hole in enumerate(sorted(design.ballast, key=lambda h: h.x_mm), start=1):
        foot = -mouth_mm(body, hole)
        content += [
            parts.hole(design, hole, PRINT),
            node("line", x1=hole.x_mm, x2=hole.x_mm, y1=foot, y2=foot + 2, stroke=INK, stroke_width=PRINT.mm),
            label(str(number), hole.x_mm, foot + 5, 3.2, text_anchor="middle", font_weight=600),
        ]
        says = f"{number}  {_place(hole)}: drill {plainly(hole.drill_mm, 'length')},"
        says += f" {said(hole.depth_mm, 'length')} deep, {said(hole.each_g, 'mass', 1)} {hole.slug.name}"
        content.append(label(says, 0, -low + 6 + 5 * number, 2.6))
    height = high - low + 10 + 5 * max(len(design.ballast), 1)
    return full_size(
        content, -MARGIN, -high - 2, max(body.length_mm, 104) + 12, height, "Drill map, full size"
    )


def _template(outline: Array, marks: list[Node], high: float, low: float, length: float, title: str) -> Node:
    shape = node("path", d=path(outline), fill="none", stroke=INK, stroke_width=1.5 * PRINT.mm)
    scale = ruler(length, PRINT, 0, -low + 2)
    return full_size(
        [*marks, shape, scale], -MARGIN - 5, -high - 2, length + 2 * MARGIN + 16, high - low + 10, title
    )


def _tens(length: float) -> list[float]:
    return [float(x) for x in np.arange(10, length, 10)]


def _station_line(design: Design, x: float) -> Node:
    here = station(design.body, x)
    return node(
        "line",
        x1=x,
        x2=x,
        y1=-here.top_mm,
        y2=-here.bottom_mm,
        stroke=MUTED,
        stroke_width=0.5 * PRINT.mm,
        stroke_dasharray="1 1",
    )


def _place(hole: Hole) -> str:
    return f"{place(hole.x_mm)} from the nose" + (
        f", {place(hole.beside_mm)} to each side" if hole.count > 1 else ""
    )


def _hole_lines(design: Design, index: int) -> Node:
    hole = design.ballast[index]
    belly = mouth_mm(design.body, hole)
    return node(
        "rect",
        x=hole.x_mm - hole.drill_mm / 2,
        y=-belly - hole.depth_mm,
        width=hole.drill_mm,
        height=hole.depth_mm,
        fill="none",
        stroke=INK,
        stroke_width=PRINT.mm,
        stroke_dasharray="1.2 0.8",
    )


def _slot(design: Design) -> list[Node]:
    if design.lip is None:
        return []
    outer, inner = (
        lip_point(design.body, design.lip, 4.0),
        lip_point(design.body, design.lip, -design.lip.inset_mm),
    )
    half = design.lip.thickness_mm / 2
    return [
        node(
            "line",
            x1=outer[0],
            y1=-outer[2] + shift,
            x2=inner[0],
            y2=-inner[2] + shift,
            stroke=INK,
            stroke_width=PRINT.mm,
        )
        for shift in (-half, half)
    ]


def _seat(x: float, y: float) -> Node:
    return group(
        [node("circle", cx=x, cy=y, r=1.2, fill="none", stroke=INK, stroke_width=PRINT.mm), _cross(x, y)]
    )


def _cross(x: float, y: float) -> Node:
    return node(
        "path",
        d=f"M{x - 2:.2f} {y:.2f}H{x + 2:.2f} M{x:.2f} {y - 2:.2f}V{y + 2:.2f}",
        stroke=INK,
        stroke_width=PRINT.mm,
        fill="none",
    )
