"""Two shapes over each other at one scale: the first dashed, the second drawn."""

from lamsik.core.shapes.body import leaning, section_outline, side_outline, top_outline
from lamsik.core.shapes.clashes import cut_ends
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import lip_point, seat_point
from lamsik.drawings.body import front_reach, widest_x
from lamsik.drawings.ink import INK, MUTED, TIP, WOOD, Pen, pen_for
from lamsik.drawings.ruler import ruler
from lamsik.drawings.svg import Node, framed, group, label, node, path


def overlaid(first: Design, second: Design) -> Node:
    """Side, top and widest section of both, noses together."""
    length = max(first.body.length_mm, second.body.length_mm)
    width = max(first.body.width_mm, second.body.width_mm)
    pen = pen_for(length + width + 60, 900)
    outlines = [side_outline(d.body) for d in (first, second)]
    high, low = max(float(o[:, 1].max()) for o in outlines), min(float(o[:, 1].min()) for o in outlines)
    below = -low + _reach(first, second) + 8 * pen.mm
    plan_y = below + 52 * pen.mm + width / 2
    section_x = length + 14 + width / 2
    rows: list[Node] = []
    for design, styled in ((second, _drawn(pen)), (first, _dashed(pen))):
        rows += _one(design, styled, plan_y, section_x, pen)
    rows += [
        ruler(length, pen, 0, below),
        label("side", 0, -high - 8 * pen.mm, pen.text, fill=MUTED),
        label("top", 0, plan_y - width / 2 - 8 * pen.mm, pen.text, fill=MUTED),
    ]
    rows.append(
        label("widest section", section_x, -high - 8 * pen.mm, pen.text, fill=MUTED, text_anchor="middle")
    )
    left = 6.0 + max(front_reach(d) for d in (first, second))
    return framed(
        rows,
        -left,
        -high - 24 * pen.mm,
        left + section_x + width / 2 + 8,
        high + plan_y + width / 2 + 40 * pen.mm,
        "Both revisions over each other",
    )


def _drawn(pen: Pen) -> dict[str, object]:
    return {"fill": WOOD, "stroke": INK, "stroke_width": 1.8 * pen.mm}


def _dashed(pen: Pen) -> dict[str, object]:
    return {
        "fill": "none",
        "stroke": TIP,
        "stroke_width": 1.8 * pen.mm,
        "stroke_dasharray": f"{6 * pen.mm:.2f} {4 * pen.mm:.2f}",
    }


def _one(design: Design, style: dict[str, object], plan_y: float, section_x: float, pen: Pen) -> list[Node]:
    body = design.body
    line = {**style, "fill": "none"}
    rows = [node("path", d=path(side_outline(body)), **style)]
    if design.lip is not None:
        a, b = lip_point(body, design.lip, 0.0), lip_point(body, design.lip, design.lip.length_mm)
        rows.append(node("line", x1=a[0], y1=-a[2], x2=b[0], y2=-b[2], **line))
    for joint in body.joints:
        (x0, z0), (x1, z1) = cut_ends(body, leaning(body, joint.x_mm, joint.slant_deg))
        rows.append(node("line", x1=x0, y1=-z0, x2=x1, y2=-z1, **line))
    for placed in design.hardware:
        if not placed.hung_on and placed.item.of.is_screwed:
            x, _, z = seat_point(body, placed, design.lip)
            rows.append(node("circle", cx=x, cy=-z, r=1.5, **line))
    rows.append(
        group([node("path", d=path(top_outline(body)), **style)], transform=f"translate(0 {plan_y:.2f})")
    )
    rows.append(
        group(
            [node("path", d=path(section_outline(body, widest_x(design))), **style)],
            transform=f"translate({section_x:.2f} 0)",
        )
    )
    return rows


def _reach(first: Design, second: Design) -> float:
    """How far lips hang below the bellies."""
    reaches = [0.0]
    for design in (first, second):
        if design.lip is not None:
            low = float(side_outline(design.body)[:, 1].min())
            reaches.append(max(low - lip_point(design.body, design.lip, design.lip.length_mm)[2], 0.0))
    return max(reaches)
