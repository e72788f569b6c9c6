"""The body in water seen head-on, nose towards the viewer: roll, list, and how low the metal lies."""

import numpy as np

from lamsik.core.quantities import said
from lamsik.core.shapes.ballast_holes import slug_height_mm
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.hardware import Lip, eye_of, lip_point
from lamsik.core.shapes.inside import cavity_point
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.tank.attitude import Attitude
from lamsik.core.tank.evaluate import Outcome
from lamsik.drawings import parts
from lamsik.drawings.ink import DEEP, INK, LEAD, PALE, PLATE, WATER, WOOD, Pen, pen_for
from lamsik.drawings.ruler import ruler
from lamsik.drawings.svg import Node, framed, label, node, path

RINGS, ROUND = 40, 40


def facing(points: Array, attitude: Attitude) -> Array:
    """Points (n, 3) of the body seen from ahead: (to the viewer's right, up) [mm], (n, 2)."""
    up = attitude.up
    aft = np.array([1.0, 0.0, 0.0]) - up[0] * up
    size = float(np.sqrt(aft @ aft))
    aft = aft / size if size > 1e-6 else np.array([0.0, 1.0, 0.0])
    return np.column_stack([points @ np.cross(aft, up), points @ up])


def head_on(
    outcome: Outcome,
    attitude: Attitude,
    draft_mm: float | None,
    b_mm: tuple[float, float, float],
    plain: bool = False,
) -> Node:
    """The picture head-on: at the surface with a draft [mm], wholly under water without one.

    `plain` leaves out letters and rulers, for small pictures side by side.
    """
    design = outcome.design
    rings = body_mesh(design.body, RINGS, ROUND).vertices[:-2].reshape(-1, ROUND, 3)
    flat = [facing(ring, attitude) for ring in rings]
    middle = facing(np.array([outcome.solid.centroid_mm]), attitude)[0]
    reach = max(design.body.depth_mm, design.body.width_mm)
    hooks = [p for p in design.hardware if p.item.kind == "hook"]
    tall = (2.1 if hooks else 1.5) * reach if plain else 3.0 * reach
    width = tall * (1.25 if plain else 1 / 0.52)
    pen = pen_for(width, 220 if plain else 880)
    top = _water_height(flat, draft_mm, middle, tall)
    x0, y0 = -width / 2 + middle[0], -middle[1] - tall * (0.42 if hooks else 0.5)
    box = {"x": x0, "y": -top, "width": width, "height": y0 + tall + top}
    solid = _solid(flat, pen, next((one.paint.colour for one in design.layers if one.kind == "base"), WOOD))
    content = [
        node("rect", **box, fill=PALE),
        *_hanging(outcome, attitude, aft=True),
        *solid,
        *_metal(outcome, attitude, pen),
        *_lip(outcome, attitude, pen),
        *_hanging(outcome, attitude, aft=False),
        node("rect", **box, fill=WATER, fill_opacity=0.13),
        node("line", x1=x0, y1=-top, x2=x0 + width, y2=-top, stroke=WATER, stroke_width=2.4 * pen.mm),
        *_marks(outcome, attitude, b_mm, pen, plain),
    ]
    if not plain:
        says = f"head-on, {design.water.describe()}"
        x, y = x0 + width - 14 * pen.mm, y0 + tall - 14 * pen.mm
        content += [
            ruler(20.0 if reach < 60 else 50.0, pen, x0 + 22 * pen.mm, y0 + tall - 34 * pen.mm),
            label(says, x, y, pen.text, fill=DEEP, text_anchor="end"),
        ]
    title = "" if plain else f"{design.name} seen head-on, list {said(attitude.roll_deg, 'angle', 0)}"
    return framed(content, x0, y0, width, tall, title)


def _water_height(flat: list[Array], draft_mm: float | None, middle: Array, tall: float) -> float:
    """Height of the surface: the draft, or well above a body that hangs under water."""
    if draft_mm is not None:
        return draft_mm
    return float(max(max(ring[:, 1].max() for ring in flat) + 0.05 * tall, middle[1] + 0.34 * tall))


def _solid(flat: list[Array], pen: Pen, colour: str) -> list[Node]:
    """Sections from tail to nose, the nearer over the further."""
    rows = [
        node("path", d=path(ring), fill=colour, stroke=INK, stroke_opacity=0.16, stroke_width=pen.mm)
        for ring in flat[::-2]
    ]
    largest = max(flat, key=lambda ring: float(np.ptp(ring[:, 0]) * np.ptp(ring[:, 1])))
    return [*rows, node("path", d=path(largest), fill="none", stroke=INK, stroke_width=1.6 * pen.mm)]


def _lip(outcome: Outcome, attitude: Attitude, pen: Pen) -> list[Node]:
    lip = outcome.design.lip
    if lip is None:
        return []
    corners = np.array(_lip_corners(outcome, lip))
    return [
        node(
            "path",
            d=path(facing(corners, attitude)),
            fill=PLATE,
            fill_opacity=0.85,
            stroke=INK,
            stroke_width=pen.mm,
            stroke_linejoin="round",
        )
    ]


def _lip_corners(outcome: Outcome, lip: Lip) -> list[tuple[float, float, float]]:
    body, half = outcome.design.body, lip.width_mm / 2
    near, far = lip_point(body, lip, 0.0), lip_point(body, lip, lip.length_mm)
    return [
        (near[0], -half, near[2]),
        (near[0], half, near[2]),
        (far[0], half, far[2]),
        (far[0], -half, far[2]),
    ]


def _metal(outcome: Outcome, attitude: Attitude, pen: Pen) -> list[Node]:
    design = outcome.design
    rows = [
        ((h.x_mm, y, slug_height_mm(design.body, h)), h.slug.diameter_mm)
        for h in design.ballast
        for y in h.sides_mm
    ]
    rows += [(cavity_point(design.body, c), c.slug.diameter_mm) for c in design.cavities]
    nodes = []
    for at, size in rows:
        x, y = facing(np.array([at]), attitude)[0]
        nodes.append(
            node(
                "circle",
                cx=x,
                cy=-y,
                r=size / 2,
                fill=LEAD,
                stroke=INK,
                stroke_width=pen.mm,
                stroke_dasharray=f"{3 * pen.mm:.2f} {2 * pen.mm:.2f}",
            )
        )
    return nodes


def _hanging(outcome: Outcome, attitude: Attitude, aft: bool) -> list[Node]:
    """Hooks and tie; those at the tail are hidden behind the body."""
    design, nodes = outcome.design, []
    for placed in design.hardware:
        eye = eye_of(design.hardware, design.body, placed, design.lip)
        if (eye[0] > 0.8 * design.body.length_mm) is not aft:
            continue
        x, y = facing(np.array([eye]), attitude)[0]
        if placed.item.kind == "hook":
            nodes.append(parts.treble(x, -y + 2.6, placed.item.mass_g, 0.0, -y))
        elif placed.item.kind == "line_tie":
            nodes.append(node("circle", cx=x, cy=-y, r=1.5, fill="none", stroke=INK, stroke_width=1.0))
    return nodes


def _marks(
    outcome: Outcome, attitude: Attitude, b_mm: tuple[float, float, float], pen: Pen, plain: bool
) -> list[Node]:
    g, b = facing(np.array([outcome.budget.g_mm, b_mm]), attitude)
    if plain:
        return [
            node("circle", cx=b[0], cy=-b[1], r=3 * pen.mm, fill=WATER),
            node("circle", cx=g[0], cy=-g[1], r=3 * pen.mm, fill=INK),
        ]
    reach = 46 * pen.mm
    return [
        parts.arrow(g[0], -g[1], reach, pen, INK),
        parts.arrow(b[0], -b[1], -reach, pen, WATER),
        parts.point_mark("B", b[0], -b[1], pen, WATER),
        parts.point_mark("G", g[0], -g[1], pen, INK),
    ]
