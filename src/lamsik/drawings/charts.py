"""Plain charts: labelled axes, curves, a band, points. Every chart says its quantities with their units."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lamsik.core.quantities import QUANTITIES, said, unit_of
from lamsik.core.shapes.curves import Array
from lamsik.core.units import convert
from lamsik.drawings.ink import INK, MUTED, WATER
from lamsik.drawings.svg import Node, label, node

WIDTH, PLOT, LEFT, BOTTOM, RIGHT, LEGEND_ROW = 640.0, 266.0, 62.0, 46.0, 18.0, 19.0


@dataclass(frozen=True, eq=False)
class PlottedCurve:
    """A curve through (x, y), each (n,), with its name and how it is drawn."""

    name: str
    x: Array
    y: Array
    colour: str = WATER
    dash: str | None = None


@dataclass(frozen=True)
class Axis:
    """An axis: what it shows with its unit, from where to where, how far apart its marks are, all in that
    unit; how many of it a stored one is.
    """

    says: str
    low: float
    high: float
    step: float
    times: float = 1.0


def nice_step(span: float, marks: int = 6) -> float:
    """A round distance of marks (1, 2, 5 times a power of ten) for a span."""
    rough = max(span, 1e-9) / marks
    power = 10.0 ** np.floor(np.log10(rough))
    return float(next(m for m in (1, 2, 5, 10) if m * power >= rough - 1e-12) * power)


def axis(says: str, low: float, high: float, quantity: str, marks: int = 6) -> Axis:
    """An axis of a quantity over round numbers of the shop's unit that hold low and high, given as stored."""
    unit = unit_of(quantity)
    times = convert(1.0, QUANTITIES[quantity].stored, unit)
    low, high = low * times, high * times
    step = nice_step(high - low, marks)
    begins, ends = float(np.floor(low / step + 1e-9) * step), float(np.ceil(high / step - 1e-9) * step)
    return Axis(f"{says}, {unit}", begins, ends, step, times)


@dataclass(frozen=True)
class _ChartFrame:
    """Where the plot lies: its top, and the axes that place a value in it."""

    top: float
    across: Axis
    up: Axis
    down: bool

    def x(self, value: float) -> float:
        """Across, in the drawing's units."""
        return LEFT + (value * self.across.times - self.across.low) / (self.across.high - self.across.low) * (
            WIDTH - LEFT - RIGHT
        )

    def y(self, value: float) -> float:
        """Down the drawing, in its units."""
        share = (value * self.up.times - self.up.low) / (self.up.high - self.up.low)
        return self.top + (share if self.down else 1 - share) * PLOT

    def line(self, x: Array, y: Array) -> str:
        """Path data through points, held to the plot."""
        inside = np.clip(y, self.up.low / self.up.times, self.up.high / self.up.times)
        return "M" + " L".join(
            f"{self.x(float(a)):.1f} {self.y(float(b)):.1f}" for a, b in zip(x, inside, strict=True)
        )


Band = tuple[Array, Array, Array]


def chart(
    title: str,
    across: Axis,
    up: Axis,
    curves: Sequence[PlottedCurve],
    band: Band | None = None,
    points: Sequence[tuple[float, float]] = (),
    down: bool = False,
) -> Node:
    """The chart. `band` is (x, low, high); `down` draws the upward axis downward, as depth is thought of."""
    frame = _ChartFrame(14.0 + LEGEND_ROW * ((len(curves) + 1) // 2), across, up, down)
    rows = _grid(frame)
    if band is not None:
        x, low, high = band
        rows.append(
            node(
                "path",
                d=frame.line(np.concatenate([x, x[::-1]]), np.concatenate([low, high[::-1]])) + "Z",
                fill=WATER,
                fill_opacity=0.16,
            )
        )
    rows += [
        node(
            "path",
            d=frame.line(c.x, c.y),
            fill="none",
            stroke=c.colour,
            stroke_width=2.4,
            stroke_dasharray=c.dash,
            stroke_linejoin="round",
        )
        for c in curves
    ]
    rows += [
        node("circle", cx=frame.x(x), cy=frame.y(y), r=5, fill="#FFFFFF", stroke=INK, stroke_width=2)
        for x, y in points
    ]
    rows += _legend(curves)
    height = frame.top + PLOT + BOTTOM
    return node(
        "svg",
        node("title", title),
        *rows,
        viewBox=f"0 0 {WIDTH:.0f} {height:.0f}",
        role="img",
        aria_label=title,
        xmlns="http://www.w3.org/2000/svg",
    )


def _grid(frame: _ChartFrame) -> list[Node]:
    rows: list[Node] = []
    across, up, foot = frame.across, frame.up, frame.top + PLOT
    for x in np.arange(across.low, across.high + across.step / 2, across.step):
        at = frame.x(float(x) / across.times)
        rows.append(node("line", x1=at, y1=frame.top, x2=at, y2=foot, stroke="#E4E0D4", stroke_width=1))
        rows.append(label(_number(x, across.step), at, foot + 17, 12, fill=MUTED, text_anchor="middle"))
    for y in np.arange(up.low, up.high + up.step / 2, up.step):
        at = frame.y(float(y) / up.times)
        rows.append(node("line", x1=LEFT, y1=at, x2=WIDTH - RIGHT, y2=at, stroke="#E4E0D4", stroke_width=1))
        rows.append(label(_number(y, up.step), LEFT - 8, at + 4, 12, fill=MUTED, text_anchor="end"))
    zero = frame.y(0.0) if up.low <= 0 <= up.high else foot
    rows.append(node("line", x1=LEFT, y1=zero, x2=WIDTH - RIGHT, y2=zero, stroke=INK, stroke_width=1.4))
    rows.append(label(across.says, WIDTH - RIGHT, foot + 37, 13, fill=INK, text_anchor="end"))
    rows.append(
        label(
            up.says,
            14,
            frame.top + 4,
            13,
            fill=INK,
            transform=f"rotate(-90 14 {frame.top + 4:.0f})",
            text_anchor="end",
        )
    )
    return rows


def _number(value: float, step: float) -> str:
    digits = max(0, -int(np.floor(np.log10(step) + 1e-9)))
    return said(float(value), "number", digits)


def _legend(curves: Sequence[PlottedCurve]) -> list[Node]:
    """Names above the plot, two in a row."""
    rows: list[Node] = []
    for i, c in enumerate(curves):
        x, y = LEFT + (i % 2) * 280.0, 18.0 + LEGEND_ROW * (i // 2)
        rows.append(
            node(
                "line",
                x1=x,
                y1=y - 4,
                x2=x + 28,
                y2=y - 4,
                stroke=c.colour,
                stroke_width=2.4,
                stroke_dasharray=c.dash,
            )
        )
        rows.append(label(c.name, x + 34, y, 12, fill=INK))
    return rows
