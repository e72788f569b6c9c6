"""A float standing in its water to scale with its shot below, its load curve beside it on the same
heights; and its profile for turning.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import cos, pi, radians, sin

import numpy as np

from lamsik.core.floats.design import Float
from lamsik.core.floats.inverse import PartCut
from lamsik.core.floats.parts import FloatPart, profile
from lamsik.core.floats.rating import capacity_g
from lamsik.core.floats.shotting import Shotting
from lamsik.core.floats.standing import SINKS, Standing
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.other_skins import looks_of_float, skin_of_float
from lamsik.core.paints.paint import LEFT
from lamsik.core.paints.views import view
from lamsik.core.quantities import numeral, plain_numeral, plainly, said, unit_of
from lamsik.core.shapes.curves import Array
from lamsik.drawings import parts
from lamsik.drawings.charts import axis
from lamsik.drawings.ink import CARD, DEEP, INK, LEAD, MUTED, PALE, STEEL, TIP, WATER, WOOD, Pen, pen_for
from lamsik.drawings.paper import THIN, Drawing
from lamsik.drawings.raster import image
from lamsik.drawings.ruler import ruler, upright_ruler
from lamsik.drawings.svg import Node, framed, group, label, node, path

COLOURS = {
    "body": WOOD,
    "stem": "#CDB98F",
    "antenna": TIP,
    "tip": TIP,
    "bead": TIP,
    "adapter": "#9FB4BD",
    "loading": "#C9A94E",
    "tube": "#BFD0D6",
}
PAINT_PER_MM = 6.0
"""Pixels of a painted float's picture."""
LINE_MM = 46.0
"""How much of the line is drawn under the foot; the line itself is not to scale."""


@dataclass(frozen=True)
class FloatSight:
    """What the drawing shows beside the float: settled height [mm], shot on the line, how it rests without
    shot, its curve, the part to pull at, the layers it is painted in.
    """

    height_mm: float
    shotting: Shotting | None
    alone: Standing | None
    loads: Array
    heights: Array
    pulled: str = ""
    layers: tuple[Layer, ...] = ()


def outline(part: FloatPart) -> Array:
    """A part's outline (n, 2) points (x, z) [mm], up the right and down the left."""
    z, r = profile(part)
    return np.vstack(
        [np.column_stack([r, part.foot_mm + z]), np.column_stack([-r[::-1], part.foot_mm + z[::-1]])]
    )


def drawn_parts(design: Float, pen: Pen) -> list[Node]:
    """The parts, the thin ones behind what they run through."""
    order = {"stem": 0, "tube": 1, "antenna": 2, "body": 3, "adapter": 4, "loading": 5, "tip": 6, "bead": 7}
    rows = []
    for part in sorted(design.parts, key=lambda p: order[p.kind]):
        dash = f"{3 * pen.mm:.2f} {2 * pen.mm:.2f}" if part.inside else None
        opacity = 0.75 if part.inside else None
        rows.append(
            node(
                "path",
                d=path(outline(part)),
                fill=COLOURS[part.kind],
                fill_opacity=opacity,
                stroke=INK,
                stroke_width=1.3 * pen.mm,
                stroke_dasharray=dash,
                stroke_linejoin="round",
            )
        )
    return rows


def standing_picture(design: Float, sight: FloatSight) -> Node:
    """The whole drawing: float and line on the left, curve on the right, heights in common; y = 0 is the
    foot, upward negative.
    """
    tall = design.top_mm - design.foot_mm
    low, high = design.foot_mm - LINE_MM * max(tall / 200.0, 0.6), design.top_mm + 0.08 * tall
    span = high - low
    wide = span * 1.72
    pen = pen_for(span, 430.0)
    axis_x, chart_x, right = 0.38 * wide, 0.57 * wide, wide
    surface = -sight.height_mm
    under = max(low, -1e9)
    rows = [
        node("rect", x=0, y=surface, width=wide, height=-under - surface, fill=PALE),
        *_alone(design, sight, pen, 0.13 * wide),
        group(
            [
                *_line(design, sight, pen),
                *drawn_parts(design, pen),
                *_painted(design, sight, pen),
                *_marks(design, pen),
                *_pulled(design, sight, pen),
            ],
            transform=f"translate({axis_x:.2f} 0)",
        ),
        node(
            "line",
            x1=0,
            x2=chart_x - 6 * pen.mm,
            y1=surface,
            y2=surface,
            stroke=WATER,
            stroke_width=2.4 * pen.mm,
        ),
        upright_ruler(design.foot_mm, design.top_mm, pen, axis_x + 0.11 * wide),
        *_curve(design, sight, pen, chart_x, right - 18 * pen.mm),
    ]
    title = f"{design.name} standing in {design.water.describe()}, and its load curve"
    return framed(rows, 0, -high, wide, span, title, role="group")


def _painted(design: Float, sight: FloatSight, pen: Pen) -> list[Node]:
    """The outside parts in their paint, cut clean along their outlines; the tip is the picture's left end."""
    if not sight.layers:
        return []
    shown = view(LEFT, skin_of_float(design), looks_of_float(design, sight.layers), PAINT_PER_MM)
    cut = [node("path", d=path(outline(part))) for part in design.parts if not part.inside]
    rims = [
        node("path", d=path(outline(part)), fill="none", stroke=INK, stroke_width=1.3 * pen.mm)
        for part in design.parts
        if not part.inside
    ]
    turned = f"translate(0 {-design.top_mm:.3f}) rotate(90)"
    picture = group([group([image(shown)], transform=turned)], clip_path="url(#float-paint)")
    return [node("defs", node("clipPath", *cut, id="float-paint")), picture, *rims]


def _line(design: Float, sight: FloatSight, pen: Pen) -> list[Node]:
    """The line from the foot with its shot, their size to scale."""
    foot = -design.foot_mm
    shots = [shot for shot, count in (sight.shotting.shots if sight.shotting else ()) for _ in range(count)]
    end = foot + LINE_MM * max((design.top_mm - design.foot_mm) / 200.0, 0.6) - 4 * pen.mm
    rows = [node("line", x1=0, x2=0, y1=foot, y2=end, stroke=INK, stroke_width=0.8 * pen.mm)]
    if not shots:
        return rows
    bulk, last = shots[:-1], shots[-1]
    at = foot + 8 * pen.mm
    for shot in bulk:
        r = max((3 * shot.mass_g / (4 * pi * shot.density_g_cm3) * 1000) ** (1 / 3), 1.2 * pen.mm)
        rows.append(node("circle", cx=0, cy=at + r, r=r, fill=LEAD, stroke=INK, stroke_width=0.6 * pen.mm))
        at += 2 * r + 0.6 * pen.mm
    r = max((3 * last.mass_g / (4 * pi * last.density_g_cm3) * 1000) ** (1 / 3), 1.2 * pen.mm)
    rows.append(
        node("circle", cx=0, cy=max(end - r, at + r), r=r, fill=LEAD, stroke=INK, stroke_width=0.6 * pen.mm)
    )
    return rows


def _marks(design: Float, pen: Pen) -> list[Node]:
    """Each mark as a tick with its name; it slides."""
    rows = []
    for mark in design.marks:
        y, reach = -mark.height_mm, 26 * pen.mm
        colour = TIP if mark.name == design.wanted_mark else DEEP
        tick = [
            node(
                "rect",
                x=-reach - 58 * pen.mm,
                y=y - 11 * pen.mm,
                width=reach + 60 * pen.mm,
                height=22 * pen.mm,
                fill="transparent",
            ),
            node("line", x1=-reach, x2=0, y1=y, y2=y, stroke=colour, stroke_width=1.6 * pen.mm),
            label(
                mark.name,
                -reach - 6 * pen.mm,
                y - 4 * pen.mm,  # over the line of the water, where it floats to this mark
                pen.text,
                text_anchor="end",
                fill=colour,
                font_weight=600,
                stroke="#FFFFFF",
                stroke_width=3 * pen.mm,
                paint_order="stroke",
            ),
            node(
                "circle",
                cx=-reach,
                cy=y,
                r=4 * pen.mm,
                fill="#FFFFFF",
                stroke=colour,
                stroke_width=2 * pen.mm,
            ),
        ]
        rows.append(
            parts.handle(
                tick,
                parts.Pull(
                    path=f"marks.{mark.key}.height_mm",
                    value=mark.height_mm,
                    low=design.foot_mm,
                    high=design.top_mm,
                    says=f"{mark.name}, height",
                    axis="y",
                    factor=-1.0,
                ),
            )
        )
    return rows


def _pulled(design: Float, sight: FloatSight, pen: Pen) -> list[Node]:
    """The points of the part that is pulled at, and its upper end."""
    part = next((part for part in design.parts if part.key == sight.pulled), None)
    if part is None:
        return []
    z, r = profile(part)
    if len(z) > 12:
        z, r = np.linspace(0.0, part.length_mm, 9), np.interp(np.linspace(0.0, part.length_mm, 9), z, r)
    rows = []
    for at, (height, radius) in enumerate(zip(z.tolist(), r.tolist(), strict=True)):
        y = -(part.foot_mm + height)
        rows.append(
            group(
                [
                    node("circle", cx=radius, cy=y, r=12 * pen.mm, fill="transparent"),
                    node(
                        "circle",
                        cx=radius,
                        cy=y,
                        r=4.4 * pen.mm,
                        fill="#FFFFFF",
                        stroke=TIP,
                        stroke_width=2.2 * pen.mm,
                    ),
                ],
                class_="handle point",
                tabindex=0 if at == 0 else -1,
                role="slider",
                aria_label=f"{part.name}, point {at + 1}",
                aria_valuenow=round(-y, 2),
                aria_valuemin=-1000,
                aria_valuemax=1000,
                aria_valuetext=f"{said(-y, 'length')} up, {said(radius, 'length')} out",
                data_path=f"point.{part.key}.{at}",
                data_axis="xy",
                data_factor=-1,
                data_offset=0,
                data_x=round(radius, 3),
            )
        )
    return rows


def _alone(design: Float, sight: FloatSight, pen: Pen, x: float) -> list[Node]:
    """The float without shot, small, as it rests by itself."""
    if sight.alone is None:
        return []
    surface, scale = -sight.height_mm, 0.42
    says = {"stands": "stands", "half-lies": "half lies", "lies": "lies flat", SINKS: "sinks"}[
        sight.alone.word
    ] + " without shot"
    lean = radians(90.0 - sight.alone.lean_deg)
    middle = (design.top_mm + design.foot_mm) / 2
    depth = (
        0.28 * (design.top_mm - design.foot_mm) * scale * cos(lean)
        if sight.alone.word != SINKS
        else 0.5 * (design.top_mm - design.foot_mm) * scale
    )
    turn = (
        f"translate({x:.2f} {surface + depth:.2f}) rotate({90.0 - sight.alone.lean_deg:.1f}) scale({scale})"
        f" translate(0 {middle:.2f})"
    )
    return [
        group(drawn_parts(design, Pen(pen.mm / scale)), transform=turn),
        label(
            says,
            x,
            surface
            + depth
            + 0.5 * (design.top_mm - design.foot_mm) * scale * abs(cos(lean))
            + 10 * pen.mm
            + 8 * pen.mm * sin(lean),
            pen.text,
            text_anchor="middle",
            fill=MUTED,
        ),
    ]


@dataclass(frozen=True)
class _Plot:
    """The frame of the curve: left, right [drawing], the load at its right [g]."""

    left: float
    right: float
    top_g: float

    def across(self, load_g: float) -> float:
        return self.left + load_g / self.top_g * (self.right - self.left)

    @property
    def middle(self) -> float:
        return (self.left + self.right) / 2


def _curve(design: Float, sight: FloatSight, pen: Pen, left: float, right: float) -> list[Node]:
    """Load on the line against the height it settles at, heights as drawn beside."""
    bottom, high = -design.foot_mm, design.top_mm - design.foot_mm
    frame = {"fill": CARD, "stroke": MUTED, "stroke_width": 0.8 * pen.mm}
    rows = [node("rect", x=left, y=-design.top_mm, width=right - left, height=high, **frame)]
    if not len(sight.loads):
        y = bottom - 20 * pen.mm
        says = "it sinks by itself"
        return [*rows, label(says, (left + right) / 2, y, pen.text, text_anchor="middle", fill=MUTED)]
    most = float(sight.loads[-1])
    loads = axis("load", 0.0, 1.001 * most, "mass", 5)
    plot = _Plot(left, right, loads.high / loads.times)
    words = {"text_anchor": "middle", "fill": MUTED}
    for value in np.arange(0.0, loads.high + loads.step / 2, loads.step):
        x = plot.across(float(value) / loads.times)
        rows += [
            node("line", x1=x, x2=x, y1=bottom, y2=-design.top_mm, stroke=MUTED, stroke_width=0.4 * pen.mm),
            label(plain_numeral(float(value), "number"), x, bottom + 14 * pen.mm, 11 * pen.mm, **words),
        ]
    rows.append(
        label(f"{unit_of('mass')} on the line", plot.middle, bottom + 29 * pen.mm, 11.5 * pen.mm, **words)
    )
    rows += _loads_of_marks(design, sight, plot, pen)
    bends = " L".join(
        f"{plot.across(float(x)):.2f} {-float(z):.2f}"
        for x, z in zip(sight.loads, sight.heights, strict=True)
    )
    line = {"fill": "none", "stroke": WATER, "stroke_width": 2.4 * pen.mm, "stroke_linejoin": "round"}
    return [*rows, node("path", d=f"M{bends}", **line)]


def _loads_of_marks(design: Float, sight: FloatSight, plot: _Plot, pen: Pen) -> list[Node]:
    """From each mark to what it carries there; the wanted one in the tip's colour."""
    rows: list[Node] = []
    for mark in design.marks:
        wanted, y = mark.name == design.wanted_mark, -mark.height_mm
        load, colour = max(capacity_g(design, mark.height_mm), 0.0), TIP if wanted else DEEP
        x, dash = plot.across(load), f"{4 * pen.mm:.2f} {3 * pen.mm:.2f}"
        dashed = {"stroke": colour, "stroke_width": pen.mm, "stroke_dasharray": dash}
        rows.append(node("line", x1=plot.left, x2=x, y1=y, y2=y, **dashed))
        if sight.heights[0] <= mark.height_mm:
            heavy = {"text_anchor": "end", "font_weight": 700 if wanted else 500}
            rows.append(node("circle", cx=x, cy=y, r=4 * pen.mm, fill=colour))
            rows.append(label(said(load, "mass"), x - 7 * pen.mm, y - 6 * pen.mm, pen.text, **heavy))
    return rows


def thumbnail(design: Float) -> Node:
    """The float lying on its side, small: for lists."""
    tall = design.top_mm - design.foot_mm
    pen = pen_for(tall, 215)
    half = max(part.diameter_mm for part in design.parts) / 2
    turned = group(drawn_parts(design, pen), transform=f"rotate(90) translate(0 {design.foot_mm:.2f})")
    return framed([turned], -2, -half - 2, tall + 4, 2 * half + 4, "")


def cut_list_drawing(cuts: Sequence[PartCut], drill: Callable[[float], float]) -> Drawing:
    """The cut list and drill map of a family, a line for each load, to be ticked off."""
    heads = ("load", "dowel", "body, cut", "bore, drill", "stem, cut", "whole", "mass")
    at = (8.0, 28.0, 50.0, 76.0, 104.0, 130.0, 152.0)
    rows = [label(head, x, 3.0, 2.5, fill=MUTED) for head, x in zip(heads, at, strict=True)]
    for number, cut in enumerate(cuts, start=1):
        y = 3.0 + 6.5 * number
        deep = f", {numeral(cut.bore_deep_mm, 'length')} deep" if cut.bore_deep_mm is not None else ""
        bore = f"{plainly(drill(cut.bore_mm), 'length')}{deep}" if cut.bore_mm else "none"
        stem = said(cut.stem_mm, "length", 0) if cut.stem_mm else "none"
        texts = (
            plainly(cut.load_g, "mass"),
            plainly(cut.dowel_mm, "length"),
            said(cut.body_mm, "length"),
            bore,
            stem,
            said(cut.whole_mm, "length", 0),
            said(cut.mass_g, "mass"),
        )
        rows.append(
            node("rect", x=0.5, y=y - 3.2, width=3.6, height=3.6, fill="none", stroke=INK, stroke_width=0.2)
        )
        rows += [label(text, x, y, 3.1, font_weight=600) for text, x in zip(texts, at, strict=True)]
    note = (
        f"Drill bodies from both ends, centres marked; stems are {said(15.0, 'length', 0)} longer for"
        " the chuck."
    )
    return Drawing(
        "cuts", "Cut list and drill map", tuple(rows), (0.0, 0.0, 172.0, 8.0 + 6.5 * len(cuts)), note
    )


def profile_drawings(design: Float) -> list[Drawing]:
    """The float at true size along the paper, and a table of diameters for turning each shaped part."""
    tall, half = design.top_mm - design.foot_mm, max(part.diameter_mm for part in design.parts) / 2
    lying = group(drawn_parts(design, THIN), transform=f"rotate(90) translate(0 {design.foot_mm:.2f})")
    marks = []
    for mark in design.marks:
        x = mark.height_mm - design.foot_mm
        marks += [
            node("line", x1=x, x2=x, y1=-half - 3, y2=half + 3, stroke=INK, stroke_width=0.2),
            label(mark.name, x, -half - 4, 2.4, text_anchor="middle", fill=MUTED),
        ]
    whole = Drawing(
        "whole",
        "Whole float, foot at the left",
        (lying, *marks, ruler(tall, THIN, 0, half + 5)),
        (-4, -half - 9, tall + 18, 2 * half + 20),
        "Leave the stem long for the chuck.",
    )
    return [
        whole,
        *(
            _turning(part)
            for part in design.parts
            if part.form != "cylinder" and part.kind in ("body", "tip")
        ),
    ]


def _turning(part: FloatPart) -> Drawing:
    """A shaped part with its diameter every few millimetres."""
    z, r = profile(part)
    half = float(r.max())
    step = 5.0 if part.length_mm > 30 else 2.5
    shape = np.vstack([np.column_stack([z, r]), np.column_stack([z[::-1], -r[::-1]])])
    rows = [
        node("path", d=path(shape), fill="none", stroke=INK, stroke_width=0.3),
        node(
            "line",
            x1=-3,
            x2=part.length_mm + 3,
            y1=0,
            y2=0,
            stroke=MUTED,
            stroke_width=0.15,
            stroke_dasharray="2 1",
        ),
    ]
    for at in np.arange(0.0, part.length_mm + 1e-6, step).tolist():
        radius = float(np.interp(at, z, r))
        rows += [
            node("line", x1=at, x2=at, y1=-radius, y2=radius, stroke=MUTED, stroke_width=0.1),
            label(
                f"{2 * radius:.1f}",
                at,
                half + 4.0,
                2.0,
                text_anchor="middle",
                transform=f"rotate(-60 {at:.2f} {half + 4.0:.2f})",
            ),
        ]
    if part.bore_mm:
        rows += [
            node(
                "line",
                x1=0,
                x2=part.length_mm,
                y1=y,
                y2=y,
                stroke=STEEL,
                stroke_width=0.2,
                stroke_dasharray="1.2 0.8",
            )
            for y in (-part.bore_mm / 2, part.bore_mm / 2)
        ]
    rows.append(ruler(part.length_mm, THIN, 0, half + 7))
    bore = f", bore {plainly(part.bore_mm, 'length')} from both ends" if part.bore_mm else ""
    return Drawing(
        part.key,
        f"Turning {part.name}, {said(part.length_mm, 'length')} long{bore}",
        tuple(rows),
        (-5, -half - 3, max(part.length_mm + 16, 70), 2 * half + 18),
        "Diameters in mm under the drawing.",
    )


def flat_outlines(design: Float) -> list[Array]:
    """Every outer part's outline lying along x, foot at 0 (n, 2) [mm]: for a cutter."""
    return [
        np.column_stack([points[:, 1] - design.foot_mm, points[:, 0]])
        for points in (outline(part) for part in design.parts if not part.inside)
    ]
