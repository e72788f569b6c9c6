"""Rulers along the edges of drawings: millimetres, or sixteenths of an inch."""

from lamsik.core.quantities import inch_fraction, unit_of
from lamsik.core.units import convert
from lamsik.drawings.ink import MUTED, Pen
from lamsik.drawings.svg import Node, group, label, node


def ruler(length_mm: float, pen: Pen, x: float = 0.0, y: float = 0.0) -> Node:
    """A horizontal ruler from x along `length_mm`, its edge at y (SVG downward), ticks downward.

    It is drawn where it begins and then moved: what moves is one group, whatever its length.
    """
    unit = unit_of("length")
    step, labelled, half = (25.4 / 16, 16, 4) if unit == "in" else (1.0, 10, 5)
    if length_mm > 260 and unit == "mm":
        step, labelled, half = 5.0, 10, 2
    marks: list[Node] = [
        node("line", x1=0.0, y1=0.0, x2=length_mm, y2=0.0, stroke=MUTED, stroke_width=pen.mm)
    ]
    ticks = []
    for i in range(int(length_mm / step + 1e-6) + 1):
        tall = 9 if i % labelled == 0 else (6 if i % half == 0 else 3.5)
        ticks.append(f"M{i * step:.3f} 0V{tall * pen.mm:.3f}")
        if i % labelled == 0:
            text = (
                inch_fraction(convert(i * step, "mm", "in")).removesuffix(" in")
                if unit == "in"
                else f"{i * step:.0f}"
            )
            marks.append(label(text, i * step, 21 * pen.mm, 11 * pen.mm, fill=MUTED, text_anchor="middle"))
    marks.append(node("path", d="".join(ticks), stroke=MUTED, stroke_width=0.8 * pen.mm, fill="none"))
    marks.append(label(unit, length_mm + 14 * pen.mm, 21 * pen.mm, 11 * pen.mm, fill=MUTED))
    return group([group(marks)], class_="ruler", aria_hidden="true", transform=f"translate({x:.3f} {y:.3f})")


def upright_ruler(low_mm: float, high_mm: float, pen: Pen, x: float = 0.0) -> Node:
    """A vertical ruler at x over heights from low to high [mm], 0 on the axis; ticks and figures to the
    left.
    """
    unit = unit_of("length")
    step, labelled, half = (25.4 / 16, 8, 4) if unit == "in" else (1.0, 10, 5)
    marks: list[Node] = [node("line", x1=x, y1=-high_mm, x2=x, y2=-low_mm, stroke=MUTED, stroke_width=pen.mm)]
    for i in range(int(low_mm / step), int(high_mm / step) + 1):
        wide = 9 if i % labelled == 0 else (6 if i % half == 0 else 3.5)
        marks.append(
            node(
                "line",
                x1=x - wide * pen.mm,
                y1=-i * step,
                x2=x,
                y2=-i * step,
                stroke=MUTED,
                stroke_width=0.8 * pen.mm,
            )
        )
        if i % labelled == 0:
            text = (
                inch_fraction(convert(i * step, "mm", "in")).removesuffix(" in")
                if unit == "in"
                else f"{i * step:.0f}"
            )
            marks.append(
                label(
                    text.replace("-", "−"),
                    x - 12 * pen.mm,
                    -i * step + 4 * pen.mm,
                    11 * pen.mm,
                    fill=MUTED,
                    text_anchor="end",
                )
            )
    return group(marks, class_="ruler", aria_hidden="true")
