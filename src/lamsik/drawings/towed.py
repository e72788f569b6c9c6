"""The line in the water to scale, from rod tip to bait, and the bait at its running pitch."""

from math import tan

from lamsik.core.quantities import plainly, said
from lamsik.core.shapes.design import Design
from lamsik.core.tank.line import Shape
from lamsik.core.tank.running import Tow, Trim
from lamsik.drawings import parts
from lamsik.drawings.ink import DEEP, INK, MUTED, PALE, WATER, pen_for
from lamsik.drawings.paint import painted
from lamsik.drawings.svg import Node, framed, group, label, node


def towed(design: Design, tow: Tow, trim: Trim, shape: Shape, depth_m: float) -> Node:
    """A picture of the tow: heights and distances true to each other, the bait drawn larger beside."""
    wet = max(int((shape.height_m < depth_m).sum()), 2)
    x, z = shape.ahead_m[:wet], shape.height_m[:wet] - depth_m
    entry, angle = float(x[-1]), max(float(shape.angle_rad[wet - 1]), 0.02)
    tip = (entry + tow.rod_m / tan(angle), -tow.rod_m)
    width = max(tip[0] * 1.16, 3.0)
    height = max(width * 0.4, 1.5 * (tow.rod_m + depth_m))
    left, sky = -0.08 * width, min(max(tow.rod_m + 0.06 * height, 0.12 * height), 0.5 * height)
    pen = pen_for(width, 640)
    low, middle = height - sky, left + 0.66 * width
    bait = _bait(design, trim, min(0.22 * width, 0.4 * low), (middle, 0.46 * low))
    bends = " L".join(f"{a:.3f} {-b:.3f}" for a, b in zip(x, z, strict=True))
    line = f"M{bends} L{entry:.3f} 0 L{tip[0]:.3f} {tip[1]:.3f}"
    rod = {"r": 4 * pen.mm, "fill": "#FFFFFF", "stroke": INK, "stroke_width": 1.6 * pen.mm}
    nose = "up" if trim.pitch_deg > 0 else "down"
    says = (
        f"runs {said(abs(trim.pitch_deg), 'angle', 0)} nose {nose}, line"
        f" {said(trim.angle_deg, 'angle', 0)} at the tie"
    )
    beside = {"fill": MUTED, "text_anchor": "end"}
    deep = {"fill": DEEP, "font_weight": 600}
    content = [
        node("rect", x=left, y=0, width=width, height=low, fill=PALE),
        node("path", d=line, fill="none", stroke=INK, stroke_width=1.6 * pen.mm),
        node("line", x1=left, y1=0, x2=left + width, y2=0, stroke=WATER, stroke_width=2.4 * pen.mm),
        node("circle", cx=x[0], cy=-z[0], r=5 * pen.mm, fill=INK),
        node("circle", cx=tip[0], cy=tip[1], **rod),
        label("rod tip", tip[0] - 9 * pen.mm, tip[1] + 26 * pen.mm, pen.text, **beside),
        label(
            said(depth_m, "distance"),
            float(x[0]) + 10 * pen.mm,
            -float(z[0]) + 18 * pen.mm,
            1.2 * pen.text,
            **deep,
        ),
        bait,
        label(
            f"the bait, larger: {says}",
            left + width - 8 * pen.mm,
            low - 10 * pen.mm,
            pen.text,
            **beside,
        ),
    ]
    title = (
        f"{design.name} on {plainly(tow.line_out_m, 'distance')} of line, about"
        f" {said(depth_m, 'distance')} deep"
    )
    return framed(content, left, -sky, width, height, title)


def _bait(design: Design, trim: Trim, long: float, at: tuple[float, float]) -> Node:
    """The bait, drawn `long` [m of the drawing], at its running pitch; nose to the right, towards the rod."""
    size = long / design.body.length_mm
    pen = pen_for(design.body.length_mm * 1.2, 220)
    drawn = [
        *parts.lip(design, pen),
        painted(design, pen, "towed"),
        *parts.hardware(design, pen, trim.pitch_deg),
    ]
    half = design.body.length_mm / 2
    return group(
        drawn,
        transform=(
            f"translate({at[0]:.4f} {at[1]:.4f}) scale({-size:.6f} {size:.6f}) rotate({trim.pitch_deg:.2f})"
            f" translate({-half:.2f} 0)"
        ),
    )
