"""The finish map of a body: its zones, each with its number; and a body as it hangs in the dip, with the
level at which it stops.
"""

from collections.abc import Sequence
from dataclasses import replace

from lamsik.core.paints.dips import Dip
from lamsik.core.paints.zones import PAINT, FinishZone
from lamsik.core.quantities import said
from lamsik.core.shapes.body import side_outline, station
from lamsik.core.shapes.design import Design
from lamsik.drawings import cuts, parts
from lamsik.drawings.ink import BRICK, CARD, INK, MUTED, PALE, WATER, WOOD, Pen, pen_for
from lamsik.drawings.svg import Node, framed, group, label, node, path

MONO = 0.62
"""Width of a sign of the reading face, in heights of its text."""
SPREAD = 2.6
"""How far apart the numbers stand at least, in heights of their text."""


def finish_map(design: Design, zones: Sequence[FinishZone]) -> Node:
    """The side of a body with what is on it; every zone but the body itself framed and numbered, in the order
    given. What stays bare is brick, what may be painted the colour of water.
    """
    body, pen = design.body, pen_for(design.body.length_mm * 1.15, 600)
    outline = side_outline(body)
    high, low = float(outline[:, 1].max()), float(outline[:, 1].min())
    low = min([low, *(zone.low_mm for zone in zones)])
    drawn = [
        *parts.lip(design, pen),
        node("path", d=path(outline), fill=WOOD, stroke=INK, stroke_width=1.3 * pen.mm),
        *cuts.joints_side(design, pen),
        *cuts.buried(design, pen),
        *parts.hardware(_unhooked(design), pen),
    ]
    marks, size = _marks(zones[1:], pen, high), pen.text
    left = min([0.0, *(zone.from_mm for zone in zones)]) - 10 * pen.mm
    right = max([body.length_mm, *(zone.to_mm for zone in zones)]) + 10 * pen.mm
    top = high + 3.4 * size
    return framed(
        [*drawn, *marks], left, -top, right - left, top - low + 10 * pen.mm, f"Finish map of {design.name}"
    )


def _unhooked(design: Design) -> Design:
    """A design as it is painted: eyes in, nothing hung on them."""
    return replace(design, hardware=tuple(one for one in design.hardware if one.hung_on is None))


def _marks(zones: Sequence[FinishZone], pen: Pen, high_mm: float) -> list[Node]:
    nodes, at = [], -1e9
    for number, zone in enumerate(zones, start=1):
        colour = WATER if PAINT in zone.of.may else BRICK
        middle = (zone.from_mm + zone.to_mm) / 2
        at = max(middle, at + SPREAD * pen.text)
        level = -high_mm - 1.9 * pen.text
        frame = node(
            "rect",
            x=zone.from_mm - 1.5 * pen.mm,
            y=-zone.high_mm - 1.5 * pen.mm,
            width=zone.to_mm - zone.from_mm + 3 * pen.mm,
            height=zone.high_mm - zone.low_mm + 3 * pen.mm,
            rx=3 * pen.mm,
            fill=colour,
            fill_opacity=0.16,
            stroke=colour,
            stroke_width=1.6 * pen.mm,
        )
        lead = node(
            "line",
            x1=middle,
            y1=-zone.high_mm - 1.5 * pen.mm,
            x2=at,
            y2=level + 0.8 * pen.text,
            stroke=colour,
            stroke_width=pen.mm,
        )
        dot = node(
            "circle", cx=at, cy=level, r=0.85 * pen.text, fill=CARD, stroke=colour, stroke_width=1.6 * pen.mm
        )
        says = label(str(number), at, level + 0.36 * pen.text, pen.text, text_anchor="middle")
        nodes.append(group([lead, frame, dot, says]))
    return nodes


def hung(design: Design, dip: Dip) -> Node:
    """The body as it hangs in the dip: the end that goes in below, the level at which it stops, what stops
    it.
    """
    body, length = design.body, design.body.length_mm
    pen = pen_for(length * 1.2, 420)
    outline = side_outline(body)
    low, high = float(outline[:, 1].min()), float(outline[:, 1].max())
    turn = "rotate(-90)" if dip.is_nose_first else f"rotate(90) translate({-length:.2f} 0)"
    middle, wide = (high + low) / 2, high - low
    across = middle if dip.is_nose_first else -middle
    level = -dip.depth_mm
    stop = -dip.stop_mm
    bath = wide + 40 * pen.mm
    held = station(body, length if dip.is_nose_first else 0.0).middle_mm
    thread = -held if dip.is_nose_first else held
    hanging = group(
        [
            node("path", d=path(outline), fill=WOOD, stroke=INK, stroke_width=1.3 * pen.mm),
            *cuts.joints_side(design, pen),
        ],
        transform=turn,
    )
    line = {"stroke": WATER, "stroke_width": 2.4 * pen.mm}
    stops = {
        "stroke": BRICK,
        "stroke_width": 1.6 * pen.mm,
        "stroke_dasharray": f"{5 * pen.mm:.2f} {3 * pen.mm:.2f}",
    }
    x0, x1 = -across - bath / 2, -across + bath / 2
    size, depth, at = pen.text, said(dip.depth_mm, "length", 0), said(dip.stop_mm, "length", 0)
    here, there = f"stop here, {depth} deep", f"{dip.stop.kind} at {at}"
    beside, room = x1 + 5 * pen.mm, MONO * size * max(len(here), len(there))
    content = [
        node("rect", x=x0, y=level, width=bath, height=dip.depth_mm + 12 * pen.mm, fill=PALE, stroke="none"),
        hanging,
        node("line", x1=x0, x2=x1, y1=level, y2=level, **line),
        node("line", x1=x0, x2=x1, y1=stop, y2=stop, **stops),
        label(here, beside, level + 0.9 * size, size),
        label(there, beside, stop - 0.4 * size, size, fill=BRICK),
        node(
            "line",
            x1=thread,
            x2=thread,
            y1=-length,
            y2=-length - 14 * pen.mm,
            stroke=MUTED,
            stroke_width=1.6 * pen.mm,
        ),
    ]
    end = "Nose" if dip.is_nose_first else "Tail"
    return framed(
        content,
        x0 - 4 * pen.mm,
        -length - 16 * pen.mm,
        bath + 14 * pen.mm + room,
        length + 32 * pen.mm,
        f"{end} first, {depth} deep at most: {dip.stop.kind} at {at}",
    )
