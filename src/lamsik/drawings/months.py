"""Twelve months as bars: what was sold in each."""

from collections.abc import Sequence

from lamsik.drawings.ink import INK, MUTED, WATER
from lamsik.drawings.svg import Node, label, node

DESK, PHONE = 1180.0, 360.0
"""How wide it is drawn, so that its words are read at one size on both."""
HIGH, LEFT, BOTTOM, TOP = 220.0, 8.0, 24.0, 22.0
MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")


def month_bars(sums: Sequence[float], unit: str, wide: float = DESK) -> Node:
    """A bar for each month, as high as its sum, which stands above it.

    Args:
        sums: of the twelve months, in whole units.
        unit: what they are in.
        wide: how wide it is drawn; `DESK` or `PHONE`.
    """
    most, step = max([*sums, 1.0]), (wide - 2 * LEFT) / 12
    plot = HIGH - BOTTOM - TOP
    marks: list[Node] = []
    for n, (name, value) in enumerate(zip(MONTHS, sums, strict=True)):
        x, high = LEFT + n * step, plot * max(value, 0.0) / most
        middle = x + step / 2
        if value > 0:
            marks.append(
                node("rect", x=x + step / 8, y=TOP + plot - high, width=0.75 * step, height=high, fill=WATER)
            )
            marks.append(
                label(f"{value:.0f}", middle, TOP + plot - high - 5, 11, fill=INK, text_anchor="middle")
            )
        marks.append(label(name, middle, HIGH - 7, 11, fill=MUTED, text_anchor="middle"))
    base = node("line", x1=LEFT, x2=wide - LEFT, y1=TOP + plot, y2=TOP + plot, stroke=MUTED)
    says = f"Sold by month, {unit}: " + ", ".join(
        f"{name} {value:.0f}" for name, value in zip(MONTHS, sums, strict=True) if value
    )
    return node(
        "svg", node("title", says), base, *marks, viewBox=f"0 0 {wide:g} {HIGH:g}", class_="chart", role="img"
    )
