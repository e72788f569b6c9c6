"""The large drawing of the Shapes bench: side, top and section at one scale, with rulers, and everything
on it to pull.
"""

from dataclasses import dataclass

import numpy as np

from lamsik.core.quantities import said
from lamsik.core.shapes.body import section_outline, side_outline, station, top_outline
from lamsik.core.shapes.clashes import Clash
from lamsik.core.shapes.curves import phi_of_share, share_of_phi
from lamsik.core.shapes.design import Design
from lamsik.drawings import cuts, lines, parts
from lamsik.drawings.body import front_reach, hang_depth, widest_x
from lamsik.drawings.ink import INK, MUTED, WOOD, Pen, pen_for
from lamsik.drawings.inside import inside
from lamsik.drawings.paint import PLAIN, SKETCHED, painted
from lamsik.drawings.parts import Pull
from lamsik.drawings.ruler import ruler, upright_ruler
from lamsik.drawings.svg import Node, framed, group, label, node, path

SIZES, LINES, PARTS = "sizes", "lines", "parts"
LOOKS = (LINES, SIZES, PARTS)


@dataclass(frozen=True)
class Sight:
    """How the drawing is looked at: what can be pulled, station of the section [mm] (None: the
    widest), clashes to mark, whether it moves.
    """

    looks: str = LINES
    station_mm: float | None = None
    clashes: tuple[Clash, ...] = ()
    is_moving: bool = False


def three_views(design: Design, sight: Sight) -> Node:
    """Side, top and section view at one scale with rulers and handles for what the sight pulls at."""
    body = design.body
    length, width = body.length_mm, body.width_mm
    pen = pen_for(length * 1.42 + width + 30, 900)
    low, left = hang_depth(design), front_reach(design) + 30 * pen.mm
    outline = side_outline(body)
    high = float(outline[:, 1].max())
    ruler_y = low + 12 * pen.mm
    plan_y = ruler_y + 46 * pen.mm + max(width, design.lip.width_mm if design.lip else 0) / 2
    section_x = length + max(34 * pen.mm, 10) + width / 2
    at = station_of(design, sight.station_mm)
    drawn = [
        group([*_side(design, sight, pen), lines.station_line(body, at, pen, low)]),
        _plan(design, sight, pen, plan_y, at),
        _section(design, sight, pen, section_x, at),
        ruler(length, pen, 0, ruler_y),
        upright_ruler(float(outline[:, 1].min()), high, pen, -left + 12 * pen.mm),
        *_titles(design, pen, left, high, plan_y, section_x, f"section at {said(at, 'length', 0)}"),
        *_sizes(design, pen, plan_y, section_x, at),
    ]
    x0, y0 = -left - 26 * pen.mm, -high - 48 * pen.mm
    x1, y1 = section_x + width / 2 + 84 * pen.mm, plan_y + width / 2 + 34 * pen.mm
    title = f"{design.name}: side, top and section view to scale"
    return framed(drawn, x0, y0, x1 - x0, y1 - y0, title, role="group")


def station_of(design: Design, asked_mm: float | None) -> float:
    """Where the section is taken [mm]: as asked, held to the body; the widest place where nothing is
    asked.
    """
    at = widest_x(design) if asked_mm is None else asked_mm
    return min(max(at, 0.005 * design.body.length_mm), 0.995 * design.body.length_mm)


def _side(design: Design, sight: Sight, pen: Pen) -> list[Node]:
    body = design.body
    rows = [
        *parts.lip(design, pen),
        painted(design, pen, "side", detail=SKETCHED if sight.is_moving else PLAIN),
        *cuts.hollow(design, pen),
        *inside(design, pen),
        *cuts.buried(design, pen),
        *parts.hardware(design, pen),
        *lines.lip_angle(design, pen),
    ]
    if sight.looks == LINES and body.skin is None:
        pulled = ("top", "bottom", "widest") if not _is_turned(design) else ()
        rows += [
            lines.widest_line(body, pen),
            *(handle for line in pulled for handle in lines.points(body, line, pen)),
        ]
    elif sight.looks == SIZES:
        rows += _side_sizes(design, pen)
    elif sight.looks == PARTS:
        rows += lines.sliding(design, pen)
    return [*rows, *cuts.clash_marks(sight.clashes, pen)]


def _is_turned(design: Design) -> bool:
    return design.body.top is design.body.half_width


def _plan(design: Design, sight: Sight, pen: Pen, plan_y: float, at: float) -> Node:
    body = design.body
    half = station(body, at).half_width_mm
    rows = [
        *parts.lip_plan(design, pen),
        _outline(path(top_outline(body)), pen),
        *cuts.joints_plan(design, pen),
    ]
    rows.append(
        node(
            "line",
            x1=0,
            x2=body.length_mm,
            y1=0,
            y2=0,
            stroke=MUTED,
            stroke_width=0.8 * pen.mm,
            stroke_dasharray=f"{2 * pen.mm:.2f} {3 * pen.mm:.2f}",
        )
    )
    rows.append(
        node(
            "line",
            x1=at,
            x2=at,
            y1=-half,
            y2=half,
            stroke=MUTED,
            stroke_width=pen.mm,
            stroke_dasharray=f"{5 * pen.mm:.2f} {4 * pen.mm:.2f}",
        )
    )
    rows.append(upright_ruler(-body.width_mm / 2, body.width_mm / 2, pen, -front_reach(design) - 18 * pen.mm))
    if sight.looks == LINES and body.skin is None:
        rows += lines.points(body, "half_width", pen)
    elif sight.looks == SIZES:
        wide = widest_x(design)
        rows += [
            parts.grip(
                body.length_mm, 0.0, pen, Pull("body.length_mm", body.length_mm, 30.0, 400.0, "Length")
            ),
            parts.grip(
                wide,
                body.width_mm / 2,
                pen,
                Pull("body.width_mm", body.width_mm, 3.0, 150.0, "Width", "y", 2.0),
            ),
        ]
    return group(rows, transform=f"translate(0 {plan_y:.2f})")


def _section(design: Design, sight: Sight, pen: Pen, section_x: float, at: float) -> Node:
    outline = section_outline(design.body, at)
    half, high, low = float(outline[:, 0].max()), float(outline[:, 1].max()), float(outline[:, 1].min())
    widest = station(design.body, at).widest_mm
    thin = {
        "stroke": MUTED,
        "stroke_width": 0.8 * pen.mm,
        "stroke_dasharray": f"{2 * pen.mm:.2f} {3 * pen.mm:.2f}",
    }
    rows = [
        _outline(path(outline), pen),
        node("line", x1=0, x2=0, y1=-high, y2=-low, **thin),
        node("line", x1=-half, x2=half, y1=-widest, y2=-widest, **thin),
    ]
    if sight.looks == LINES:
        rows += lines.exponents(design.body, at, pen)
    return group(rows, transform=f"translate({section_x:.2f} 0)")


def _titles(
    design: Design, pen: Pen, left: float, high: float, plan_y: float, section_x: float, section: str
) -> list[Node]:
    width = design.body.width_mm
    return [
        label("side", -left - 14 * pen.mm, -high - 14 * pen.mm, pen.text, fill=MUTED),
        label("top", -left - 14 * pen.mm, plan_y - width / 2 - 9 * pen.mm, pen.text, fill=MUTED),
        label(
            section,
            section_x,
            -high - 14 * pen.mm,
            pen.text,
            fill=MUTED,
            text_anchor="middle",
        ),
    ]


def _sizes(design: Design, pen: Pen, plan_y: float, section_x: float, at: float) -> list[Node]:
    body = design.body
    outline = section_outline(body, at)
    low = -float(outline[:, 1].min())
    return [
        _size(
            said(body.length_mm, "length"),
            body.length_mm / 2,
            plan_y + body.width_mm / 2 + 22 * pen.mm,
            pen,
        ),
        _size(said(2 * float(outline[:, 0].max()), "length"), section_x, low + 22 * pen.mm, pen),
        _size(
            said(float(np.ptp(outline[:, 1])), "length"),
            section_x + float(outline[:, 0].max()) + 10 * pen.mm,
            4 * pen.mm,
            pen,
            "start",
        ),
    ]


def _size(text: str, x: float, y: float, pen: Pen, anchor: str = "middle") -> Node:
    return label(text, x, y, 14 * pen.mm, text_anchor=anchor, font_weight=600)


def _outline(d: str, pen: Pen) -> Node:
    return node("path", d=d, fill=WOOD, stroke=INK, stroke_width=1.6 * pen.mm, stroke_linejoin="round")


def _side_sizes(design: Design, pen: Pen) -> list[Node]:
    body = design.body
    phi = phi_of_share(np.linspace(0.02, 0.98, 97))
    heights = body.top.at(phi)
    best = int(np.argmax(heights))
    x, z = float(body.length_mm * share_of_phi(phi)[best]), float(heights[best])
    return [
        parts.grip(
            x,
            -z,
            pen,
            Pull(
                "body.depth_mm",
                body.depth_mm,
                3.0,
                150.0,
                "Depth",
                "y",
                -1.0 / max(z / body.depth_mm, 0.05),
            ),
        )
    ]
