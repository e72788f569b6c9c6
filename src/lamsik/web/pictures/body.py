"""The three-view drawing of a body, to scale with rulers: the Shapes bench and its little pictures."""

from dataclasses import replace

import numpy as np

from lamsik.core.shapes.body import section_outline, side_outline, top_outline
from lamsik.core.shapes.curves import phi_of_share, share_of_phi
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import eye_of, lip_point
from lamsik.core.units import show
from lamsik.web.pictures import parts
from lamsik.web.pictures.ink import INK, MUTED, TIP, WOOD, Pen, pen_for
from lamsik.web.pictures.inside import inside
from lamsik.web.pictures.paint import painted
from lamsik.web.pictures.ruler import ruler
from lamsik.web.pictures.svg import Node, group, label, node, path


def three_views(design: Design, unit: str = "mm") -> Node:
    """Side, top and section view at one scale with rulers and handles for length, depth and width."""
    body = design.body
    length, depth, width = body.length_mm, body.depth_mm, body.width_mm
    pen = pen_for(length * 1.42 + width + 30, 900)
    low, left = _hang_depth(design), _front_reach(design)
    top_of_body = float(side_outline(body)[:, 1].max())
    gap = 34 * pen.mm
    ruler_y = low + 10 * pen.mm
    plan_y = ruler_y + gap + max(width, design.lip.width_mm if design.lip else 0) / 2 + 10 * pen.mm
    section_x = length + max(26 * pen.mm, 10) + width / 2
    widest = _widest_x(design)
    side = group(
        [
            *parts.lip(design, pen),
            painted(design, pen, "side"),
            *[parts.hole(design, h, pen) for h in design.ballast],
            *parts.hardware(design, pen),
            _section_line(design, widest, pen),
        ]
    )
    plan = group([*parts.lip_plan(design, pen), _outline(path(top_outline(body)), pen)], transform=f"translate(0 {plan_y:.2f})")
    cut = group([_outline(path(section_outline(body, widest)), pen), *_section_axes(design, widest, pen)], transform=f"translate({section_x:.2f} 0)")
    titles = [
        label("side", -left, -top_of_body - 9 * pen.mm, pen.text, fill=MUTED),
        label("top", -left, plan_y - width / 2 - 9 * pen.mm, pen.text, fill=MUTED),
        label(f"section at {show(widest, 'length', 0, unit)}", section_x, -top_of_body - 9 * pen.mm, pen.text, fill=MUTED, text_anchor="middle"),
    ]
    sizes = [
        _size(show(length, "length", 1, unit), length / 2, plan_y + width / 2 + 22 * pen.mm, pen),
        _size(show(width, "length", 1, unit), section_x, low * 0.0 + _section_low(design, widest) + 22 * pen.mm, pen),
        _size(show(depth, "length", 1, unit), section_x + width / 2 + 10 * pen.mm, 4 * pen.mm, pen, "start"),
    ]
    handles = _size_handles(design, pen, plan_y)
    x0, y0 = -left - 16 * pen.mm, -top_of_body - 30 * pen.mm
    x1, y1 = section_x + width / 2 + 84 * pen.mm, plan_y + width / 2 + 34 * pen.mm
    return _svg(
        [side, ruler(length, pen, unit, 0, ruler_y), plan, cut, *titles, *sizes, *handles],
        x0,
        y0,
        x1 - x0,
        y1 - y0,
        f"{design.name}: side, top and section view to scale",
    )


def thumbnail(design: Design, name: str, holes: bool = False) -> Node:
    """A small side view, painted, with lip and hooks; with `holes` also where the metal sits."""
    body = design.body
    pen = pen_for(body.length_mm * 1.2, 220)
    high, low, left = float(side_outline(body)[:, 1].max()), _hang_depth(design), _front_reach(design)
    margin = 5 * pen.mm
    content = [
        *parts.lip(design, pen),
        painted(design, pen, name),
        *(inside(design, pen) if holes else []),
        *parts.hardware(design, pen),
    ]
    hooks = [p.item.mass_g for p in design.hardware if p.item.kind == "hook"]
    tail = 3.0 + 8.0 * (max(hooks) / 0.6) ** (1 / 3) if hooks else (5.0 if design.hardware else 0.0)
    return _svg(content, -left - margin, -high - margin, body.length_mm + left + tail + 2 * margin, high + low + 2 * margin, "")


def paint_view(design: Design, unit: str = "mm") -> Node:
    """The painted side view, large, with lip, tie and hangers and a ruler."""
    body = design.body
    pen = pen_for(body.length_mm * 1.25, 860)
    outline = side_outline(body)
    high, low, left = float(outline[:, 1].max()), -float(outline[:, 1].min()), _front_reach(design)
    if design.lip:
        low = max(low, -lip_point(body, design.lip, design.lip.length_mm)[2])
    bare = [p for p in design.hardware if p.item.kind not in ("hook", "ring")]
    content = [*parts.lip(design, pen), painted(design, pen, "paint"), *parts.hardware(replace(design, hardware=tuple(bare)), pen)]
    margin, y = 16 * pen.mm, low + 18 * pen.mm
    return _svg(
        [*content, ruler(body.length_mm, pen, unit, 0, y)],
        -left - margin,
        -high - margin,
        body.length_mm + left + 6 + 2 * margin,
        high + y + margin + 40 * pen.mm,
        f"{design.name}, painted side to scale",
    )


def silhouette(design: Design) -> Node:
    """A bare side outline, for picking a form."""
    outline = side_outline(design.body)
    pen = pen_for(design.body.length_mm, 90)
    high, low = float(outline[:, 1].max()), float(outline[:, 1].min())
    shape = node("path", d=path(outline), fill=WOOD, stroke=INK, stroke_width=1.4 * pen.mm)
    return _svg([shape], -2 * pen.mm, -high - 2 * pen.mm, design.body.length_mm + 4 * pen.mm, high - low + 4 * pen.mm, "")


def _svg(content: list[Node], x: float, y: float, width: float, height: float, title: str) -> Node:
    """The drawing with its title; one without a title stands beside its name and is hidden from screen readers."""
    named = {"role": "img", "aria_label": title} if title else {"aria_hidden": "true"}
    box = f"{x:.2f} {y:.2f} {width:.2f} {height:.2f}"
    titles = [node("title", title)] if title else []
    return node("svg", *titles, *content, viewBox=box, **named, xmlns="http://www.w3.org/2000/svg", preserveAspectRatio="xMidYMid meet")


def _outline(d: str, pen: Pen) -> Node:
    return node("path", d=d, fill=WOOD, stroke=INK, stroke_width=1.6 * pen.mm, stroke_linejoin="round")


def _hang_depth(design: Design) -> float:
    """How far down (SVG) the side view reaches: belly, lip, hooks."""
    lowest = -float(side_outline(design.body)[:, 1].min())
    for placed in design.hardware:
        if placed.item.kind == "hook":
            eye = eye_of(design.hardware, design.body, placed, design.lip)
            lowest = max(lowest, -eye[2] + 2.6 + 1.25 * 13.0 * (max(placed.item.mass_g, 0.02) / 0.6) ** (1 / 3))
    if design.lip:
        lowest = max(lowest, -lip_point(design.body, design.lip, design.lip.length_mm)[2])
    return lowest


def _front_reach(design: Design) -> float:
    reach = 6.0 if any(p.seat == "nose" for p in design.hardware) else 1.0
    if design.lip:
        reach = max(reach, -lip_point(design.body, design.lip, design.lip.length_mm)[0] + 1)
    return reach


def _widest_x(design: Design) -> float:
    phi = phi_of_share(np.linspace(0.02, 0.98, 97))
    best = int(np.argmax(design.body.half_width.at(phi)))
    return float(design.body.length_mm * share_of_phi(phi)[best])


def _section_low(design: Design, x: float) -> float:
    return -float(section_outline(design.body, x)[:, 1].min())


def _section_line(design: Design, x: float, pen: Pen) -> Node:
    outline = section_outline(design.body, x)
    dash = f"{5 * pen.mm:.2f} {4 * pen.mm:.2f}"
    return node(
        "line",
        x1=x,
        x2=x,
        y1=-float(outline[:, 1].max()) - 6 * pen.mm,
        y2=-float(outline[:, 1].min()) + 6 * pen.mm,
        stroke=MUTED,
        stroke_width=pen.mm,
        stroke_dasharray=dash,
    )


def _section_axes(design: Design, x: float, pen: Pen) -> list[Node]:
    outline = section_outline(design.body, x)
    half, high, low = float(outline[:, 0].max()), float(outline[:, 1].max()), float(outline[:, 1].min())
    line = {"stroke": MUTED, "stroke_width": 0.8 * pen.mm, "stroke_dasharray": f"{2 * pen.mm:.2f} {3 * pen.mm:.2f}"}
    return [node("line", x1=0, x2=0, y1=-high, y2=-low, **line), node("line", x1=-half, x2=half, y1=0, y2=0, **line)]


def _size(text: str, x: float, y: float, pen: Pen, anchor: str = "middle") -> Node:
    return label(text, x, y, 14 * pen.mm, text_anchor=anchor, font_weight=600)


def _size_handles(design: Design, pen: Pen, plan_y: float) -> list[Node]:
    body = design.body
    top_x = _peak_x(design)
    top_z = float(body.top.at(phi_of_share(np.array([top_x / body.length_mm])))[0])
    depth_share = top_z / body.depth_mm
    wide = _widest_x(design)
    plan = [
        _grip(body.length_mm, 0.0, pen, "body.length_mm", body.length_mm, (30.0, 400.0), "Length", "x", 1.0),
        _grip(wide, body.width_mm / 2, pen, "body.width_mm", body.width_mm, (3.0, 150.0), "Width", "y", 2.0),
    ]
    side = _grip(top_x, -top_z, pen, "body.depth_mm", body.depth_mm, (3.0, 150.0), "Depth", "y", -1.0 / max(depth_share, 0.05))
    return [side, group(plan, transform=f"translate(0 {plan_y:.2f})")]


def _peak_x(design: Design) -> float:
    phi = phi_of_share(np.linspace(0.02, 0.98, 97))
    return float(design.body.length_mm * share_of_phi(phi)[int(np.argmax(design.body.top.at(phi)))])


def _grip(x: float, y: float, pen: Pen, field: str, value: float, limits: tuple[float, float], says: str, axis: str, factor: float) -> Node:
    dot = [
        node("circle", cx=x, cy=y, r=22 * pen.mm, fill="transparent"),
        node("circle", cx=x, cy=y, r=6.5 * pen.mm, fill=TIP, stroke="#FFFFFF", stroke_width=1.5 * pen.mm),
    ]
    return parts.handle(dot, path=field, value=value, low=limits[0], high=limits[1], says=says, axis=axis, factor=factor)
