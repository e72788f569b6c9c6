"""The body in water, to scale: at the surface or hanging below it, with G, B and the ballast handles."""

from collections.abc import Sequence
from math import cos, radians, sin

import numpy as np

from lamsik.core.quantities import said
from lamsik.core.shapes.body import station
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Point, seat_point
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.tank.attitude import Attitude
from lamsik.core.tank.evaluate import Outcome, line_tie
from lamsik.core.trade.behaviours import FLOATS
from lamsik.drawings import parts
from lamsik.drawings.ink import DEEP, EMBER, INK, MUTED, PALE, TIP, WATER, WOOD, Pen, pen_for
from lamsik.drawings.inside import inside, trial_weights
from lamsik.drawings.paint import painted
from lamsik.drawings.ruler import ruler
from lamsik.drawings.svg import Node, framed, group, label, node, path
from lamsik.words.verdict import sentence

SURFACE, UNDER, HELD = "surface", "under", "held"
VIEWS = (SURFACE, UNDER, HELD)
ROLLED_DEG = 12.0
"""Beyond this roll the plain side view no longer tells the truth and the hull is projected."""


def default_view(outcome: Outcome) -> str:
    """What a maker looks at first: the surface for a floater, else the bait hanging in the water."""
    return SURFACE if outcome.verdict.behaviour == FLOATS and outcome.surface else UNDER


def shown_view(outcome: Outcome, view: str) -> str:
    """The view that can be shown: the surface only of what floats, held only what has a tie."""
    if view == SURFACE and outcome.surface:
        return SURFACE
    return HELD if view == HELD and outcome.hanging.held else UNDER


def scene(
    outcome: Outcome,
    view: str,
    handles: bool = True,
    trail: Sequence[tuple[float, float]] = (),
    plain: str = "",
) -> Node:
    """The Tank's picture from the side. `view` falls back to hanging where the body cannot float.

    `trail` is where G was, (x, z) [mm] in the body, while something is dragged. A `plain` picture is for
    showing small beside others, under a name that no other has on its page: no ruler, no readings, G and B as
    dots.
    """
    view = shown_view(outcome, view)
    attitude, draft, b = _placing(outcome, view)
    width, height, sky = _frame(outcome, attitude, view)
    pen = pen_for(width, 320 if plain else 880)
    turn = attitude.pitch_deg
    shift = _shift(outcome, attitude, draft, view, sky, height)
    low = height - sky
    box = {"x": -width / 2, "y": 0, "width": width, "height": low}
    body = _body(outcome, attitude, pen, plain or "tank", turn, shift)
    marks = (
        _dots(outcome, attitude, b, shift, pen)
        if plain
        else [*_trail(trail, attitude, shift, pen), *_marks(outcome, attitude, b, shift, pen)]
    )
    if outcome.unbuilt:  # nothing is said of how it lies
        marks = []
    if view == HELD:
        marks.insert(0, _held_line(outcome, attitude, shift, pen, low))
    content = [
        node("rect", **box, fill=PALE),
        body,
        node("rect", **box, fill=WATER, fill_opacity=0.13, pointer_events="none"),
        node("path", d=_surface_line(width, pen), fill="none", stroke=WATER, stroke_width=2.4 * pen.mm),
        *marks,
        *([body_handles(outcome, attitude, pen, shift)] if handles else []),
        *([] if plain else _legend(outcome, width, low, pen)),
    ]
    title = f"{outcome.design.name}: {sentence(outcome.verdict)}"
    return framed(content, -width / 2, -sky, width, height, title, role="group")


def _legend(outcome: Outcome, width: float, low: float, pen: Pen) -> list[Node]:
    """Which water it is, and the ruler."""
    length = _ruler_length(outcome.design.body.length_mm)
    x, y = width / 2 - 14 * pen.mm, low - 14 * pen.mm
    return [
        label(outcome.design.water.describe(), x, y, pen.text, fill=DEEP, text_anchor="end"),
        ruler(length, pen, -width / 2 + 22 * pen.mm, low - 34 * pen.mm),
    ]


def _placing(outcome: Outcome, view: str) -> tuple[Attitude, float, Point]:
    if view == SURFACE:
        first = outcome.surface[0]
        return first.attitude, first.draft_mm, first.b_mm
    held = outcome.hanging.held if view == HELD else None
    return held or outcome.hanging.free, 0.0, outcome.hanging.b_mm


def _frame(outcome: Outcome, attitude: Attitude, view: str) -> tuple[float, float, float]:
    """Width, height and height above the water [mm] of the picture: the bait with its hooks fits whatever
    its pitch.
    """
    body = outcome.design.body
    rise = abs(sin(radians(attitude.pitch_deg))) * body.length_mm
    tall = rise + body.depth_mm + 2.2 * _hook_reach(outcome)
    width = max(1.5 * body.length_mm, 60.0, tall / (0.52 * (0.8 if view != SURFACE else 0.86)))
    height = width * 0.52
    if view != SURFACE:
        return width, height, height * 0.14
    above = max(outcome.surface[0].freeboard_mm + 0.08 * height, 0.24 * height)
    return width, height, min(above, 0.62 * height)


def _hook_reach(outcome: Outcome) -> float:
    return max(
        (
            16.0 * (max(p.item.mass_g, 0.02) / 0.6) ** (1 / 3)
            for p in outcome.design.hardware
            if p.item.kind == "hook"
        ),
        default=2.0,
    )


def _shift(
    outcome: Outcome, attitude: Attitude, draft: float, view: str, sky: float, height: float
) -> tuple[float, float]:
    """Where the body's origin goes in the picture: the middle stays in the middle."""
    p = radians(attitude.pitch_deg)
    half = outcome.design.body.length_mm / 2
    if view == SURFACE:
        return -half * cos(p), draft
    return -half * cos(p), (height - sky) * 0.44 - half * sin(p)


def _body(
    outcome: Outcome, attitude: Attitude, pen: Pen, name: str, turn: float, shift: tuple[float, float]
) -> Node:
    design = outcome.design
    if abs(attitude.roll_deg) > ROLLED_DEG:
        return _rolled(outcome, attitude, pen, shift)
    held = inside(design, pen)
    content = [
        *parts.lip(design, pen),
        group([painted(design, pen, name)], opacity=0.9),
        *held,
        *parts.hardware(design, pen, turn),
        *trial_weights(design, pen),
    ]
    return group(
        content, transform=f"translate({shift[0]:.3f} {shift[1]:.3f}) rotate({turn:.3f})", class_="body"
    )


def body_handles(outcome: Outcome, attitude: Attitude, pen: Pen, shift: tuple[float, float]) -> Node:
    """The ballast handles, above everything else, in the body's own frame."""
    grips = [parts.slug_handle(outcome.design, h, pen) for h in outcome.design.ballast]
    return group(
        grips, transform=f"translate({shift[0]:.3f} {shift[1]:.3f}) rotate({attitude.pitch_deg:.3f})"
    )


def project(points: Array, attitude: Attitude) -> Array:
    """Points (n, 3) of the body seen from its left: (forward-to-aft, up) [mm], (n, 2)."""
    up = attitude.up
    aft = np.array([1.0, 0.0, 0.0]) - up[0] * up
    size = np.sqrt(aft @ aft)
    aft = aft / size if size > 1e-6 else np.array([0.0, 1.0, 0.0])
    return np.column_stack([points @ aft, points @ up])


def _rolled(outcome: Outcome, attitude: Attitude, pen: Pen, shift: tuple[float, float]) -> Node:
    """The hull as it lies, by the edges of its projected sections."""
    mesh = body_mesh(outcome.design.body, 40, 24)
    rings = mesh.vertices[:-2].reshape(-1, 24, 3)
    flat = np.array([project(ring, attitude) for ring in rings])
    upper = np.array([ring[ring[:, 1].argmax()] for ring in flat])
    lower = np.array([ring[ring[:, 1].argmin()] for ring in flat])
    hull = node(
        "path", d=path(np.vstack([upper, lower[::-1]])), fill=WOOD, stroke=INK, stroke_width=1.6 * pen.mm
    )
    middle = project(rings[:, [0, 12]].reshape(-1, 3), attitude)[::2]
    keel = node(
        "path",
        d=path(middle, close=False),
        fill="none",
        stroke=MUTED,
        stroke_width=pen.mm,
        stroke_dasharray=f"{4 * pen.mm:.2f}",
    )
    return group([hull, keel], transform=f"translate({shift[0]:.3f} {shift[1]:.3f})", class_="body")


def _dots(outcome: Outcome, attitude: Attitude, b: Point, shift: tuple[float, float], pen: Pen) -> list[Node]:
    flat = project(np.array([b, outcome.budget.g_mm]), attitude)
    return [
        node("circle", cx=shift[0] + x, cy=shift[1] - y, r=3 * pen.mm, fill=colour)
        for (x, y), colour in zip(flat, (WATER, INK), strict=True)
    ]


def _marks(
    outcome: Outcome, attitude: Attitude, b: Point, shift: tuple[float, float], pen: Pen
) -> list[Node]:
    g_at, b_at = project(np.array([outcome.budget.g_mm, b]), attitude)
    gx, gy = shift[0] + g_at[0], shift[1] - g_at[1]
    bx, by = shift[0] + b_at[0], shift[1] - b_at[1]
    weight, lift = outcome.budget.mass_g, outcome.hanging.net_g + outcome.budget.mass_g
    lift = weight if outcome.surface and b == outcome.surface[0].b_mm else lift
    side, out = _free_side(outcome.design, attitude, float(g_at[0]), pen)
    longest = _reach(outcome, b, pen, side) / max(weight, lift)
    rise = outcome.verdict.speed_cm_s
    nodes = [
        parts.arrow(gx, gy, weight * longest, pen, INK),
        parts.arrow(bx, by, -lift * longest, pen, WATER),
        _halo(said(weight, "mass", 1), gx + side * out * pen.mm, gy + weight * longest, pen, INK, side),
        _halo(said(lift, "mass", 1), bx + 9 * pen.mm, by - lift * longest + 6 * pen.mm, pen, DEEP),
        parts.point_mark("B", bx, by, pen, WATER),
        parts.point_mark("G", gx, gy, pen, INK),
    ]
    if outcome.verdict.behaviour not in (FLOATS, "suspends"):
        x, y = 398 * pen.mm, 270 * pen.mm
        way = -1 if rise > 0 else 1
        nodes += [
            parts.arrow(x, y - way * 30 * pen.mm, way * 60 * pen.mm, pen, TIP),
            label(
                said(abs(rise), "speed", 0),
                x,
                y + 52 * pen.mm,
                15 * pen.mm,
                font_weight=600,
                fill=EMBER,
                text_anchor="middle",
            ),
        ]
    return nodes


RING = 20
"""So far from the middle of a hook's ring [pixels] is clear of it."""


def _free_side(design: Design, attitude: Attitude, g_mm: float, pen: Pen) -> tuple[int, float]:
    """On which side of its arrow the weight is read and how far out: behind it (1), unless a hook hangs
    there and none before it (-1); past the ring of one that hangs on the arrow.
    """
    away = [
        float(project(np.array([seat_point(design.body, placed)]), attitude)[0, 0] - g_mm) / pen.mm
        for placed in design.hardware
        if placed.seat == "belly" and not placed.hung_on
    ]
    behind, before = (any(-RING < side * mm < 60 + RING for mm in away) for side in (1, -1))
    side = -1 if behind and not before else 1
    return side, max([9.0, *(side * mm + RING for mm in away if abs(mm) < RING)])


def _reach(outcome: Outcome, b: Point, pen: Pen, side: int) -> float:
    """How long the larger force is drawn [mm]: its tip and its reading stand outside the hull, and under the
    handles of ballast that hang beside it.
    """
    body, g = outcome.design.body, outcome.budget.g_mm
    here = station(body, min(max(g[0], 0.0), body.length_mm))
    beside = any(-12 * pen.mm < side * (hole.x_mm - g[0]) < 76 * pen.mm for hole in outcome.design.ballast)
    below = g[2] - here.bottom_mm + (40 if beside else 16) * pen.mm
    return min(max(52 * pen.mm, here.top_mm - b[2] + 16 * pen.mm, below), 150 * pen.mm)


def _halo(text: str, x: float, y: float, pen: Pen, colour: str, side: int = 1) -> Node:
    """A reading that stays legible over the drawing, from there on or (-1) up to there."""
    return label(
        text,
        x,
        y,
        pen.text,
        fill=colour,
        font_weight=600,
        stroke="#FFFFFF",
        stroke_width=3 * pen.mm,
        paint_order="stroke",
        text_anchor="start" if side > 0 else "end",
    )


def _trail(
    trail: Sequence[tuple[float, float]], attitude: Attitude, shift: tuple[float, float], pen: Pen
) -> list[Node]:
    """Where G was while the ballast was dragged, in the body as it lies now."""
    if len(trail) < 2:
        return []
    flat = project(np.array([[x, 0.0, z] for x, z in trail]), attitude)
    line = path([(shift[0] + x, y - shift[1]) for x, y in flat], close=False)
    return [
        node(
            "path",
            d=line,
            fill="none",
            stroke="#FFFFFF",
            stroke_width=4 * pen.mm,
            stroke_linecap="round",
            class_="trail",
        ),
        node(
            "path",
            d=line,
            fill="none",
            stroke=TIP,
            stroke_width=1.8 * pen.mm,
            stroke_dasharray=f"{4 * pen.mm:.2f} {3 * pen.mm:.2f}",
            stroke_linecap="round",
        ),
    ]


def _held_line(
    outcome: Outcome, attitude: Attitude, shift: tuple[float, float], pen: Pen, depth: float
) -> Node:
    """The line it hangs on: from above if it sinks, from below if it rises."""
    tie = line_tie(outcome.design)
    assert tie is not None
    at = project(np.array([tie]), attitude)[0]
    x, y = shift[0] + at[0], shift[1] - at[1]
    end = depth if outcome.hanging.net_g > 0 else 0.0
    says = "held from below" if outcome.hanging.net_g > 0 else "held from above"
    return group(
        [
            node("line", x1=x, y1=y, x2=x, y2=end, stroke=INK, stroke_width=1.4 * pen.mm),
            _halo(says, x + 8 * pen.mm, (y + end) / 2 + (20 * pen.mm if end else 0), pen, INK),
        ]
    )


def _surface_line(width: float, pen: Pen) -> str:
    """One thin continuous line: flat, as a tub's surface is, with a slight lift at both rims."""
    rim, rise = 14 * pen.mm, 4 * pen.mm
    left, right = -width / 2, width / 2
    return (
        f"M{left:.2f} {-rise:.2f} Q{left + rim * 0.4:.2f} 0 {left + rim:.2f} 0 L{right - rim:.2f} 0"
        f" Q{right - rim * 0.4:.2f} 0 {right:.2f} {-rise:.2f}"
    )


def _ruler_length(length: float) -> float:
    return 50.0 if length < 200 else 100.0
