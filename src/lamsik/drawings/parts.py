"""Hardware, lip and ballast on the side view, in body coordinates (x right, z up drawn downward)."""

from dataclasses import dataclass
from math import cos, radians, sin

from lamsik.core.quantities import said
from lamsik.core.shapes.ballast_holes import BALLS, Hole, mouth_mm
from lamsik.core.shapes.body import station
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Placement, eye_of, lip_point, seat_point
from lamsik.drawings.ink import FILLER, INK, LEAD, PLATE, STEEL, TIP, Pen
from lamsik.drawings.svg import Node, group, node, path


def lip(design: Design, pen: Pen) -> list[Node]:
    """The lip from inside its slot to its tip, and where it sits."""
    if design.lip is None:
        return []
    inner, outer = (
        lip_point(design.body, design.lip, -design.lip.inset_mm),
        lip_point(design.body, design.lip, design.lip.length_mm),
    )
    thick = max(design.lip.thickness_mm, 2 * pen.mm)
    line = {"x1": inner[0], "y1": -inner[2], "x2": outer[0], "y2": -outer[2], "stroke_linecap": "round"}
    return [
        node("line", **line, stroke=INK, stroke_width=thick + 2 * pen.mm),
        node("line", **line, stroke=PLATE, stroke_width=thick),
    ]


def lip_plan(design: Design, pen: Pen) -> list[Node]:
    """The lip seen from above."""
    if design.lip is None:
        return []
    root, tip = (
        lip_point(design.body, design.lip, 0.0),
        lip_point(design.body, design.lip, design.lip.length_mm),
    )
    half = design.lip.width_mm / 2
    left, right = min(tip[0], root[0]), max(tip[0], root[0])
    corner = min(half, (right - left) / 2)
    return [
        node(
            "rect",
            x=left,
            y=-half,
            width=max(right - left, pen.mm),
            height=2 * half,
            rx=corner,
            fill=PLATE,
            stroke=INK,
            stroke_width=pen.mm,
        )
    ]


def hole(design: Design, drilled: Hole, pen: Pen) -> Node:
    """A ballast hole with its filler and metal, dashed as what lies inside."""
    belly = -mouth_mm(design.body, drilled)
    left, wide = drilled.x_mm - drilled.drill_mm / 2, drilled.drill_mm
    shapes = [
        node(
            "rect",
            x=left,
            y=belly - drilled.depth_mm,
            width=wide,
            height=drilled.depth_mm,
            fill=FILLER,
            stroke=INK,
            stroke_width=pen.mm,
            stroke_dasharray=f"{3 * pen.mm:.2f} {2 * pen.mm:.2f}",
        )
    ]
    tall, slug = drilled.tall_mm, drilled.slug
    base = belly - drilled.cover_mm
    if slug.form == BALLS:
        radius = slug.diameter_mm / 2
        count = max(slug.balls(drilled.each_g), 1)
        shapes += [
            node(
                "circle",
                cx=drilled.x_mm,
                cy=base - radius - i * slug.diameter_mm,
                r=radius,
                fill=LEAD,
                stroke=INK,
                stroke_width=pen.mm,
            )
            for i in range(count)
        ]
    else:
        shapes.append(
            node(
                "rect",
                x=drilled.x_mm - slug.diameter_mm / 2,
                y=base - tall,
                width=slug.diameter_mm,
                height=tall,
                fill=LEAD,
                stroke=INK,
                stroke_width=pen.mm,
            )
        )
    return group(shapes)


def slug_handle(design: Design, drilled: Hole, pen: Pen) -> Node:
    """The handle that drags a slug along the belly; also a slider for the keyboard."""
    belly = -station(design.body, drilled.x_mm).bottom_mm
    x, size = drilled.x_mm, 9 * pen.mm
    grip = path([(x, -belly - 2 * pen.mm), (x + size, -belly - 2.6 * size), (x - size, -belly - 2.6 * size)])
    return handle(
        [
            node(
                "rect",
                x=x - 22 * pen.mm,
                y=belly - 14 * pen.mm,
                width=44 * pen.mm,
                height=54 * pen.mm,
                fill="transparent",
            ),
            node(
                "path", d=grip, fill=TIP, stroke="#FFFFFF", stroke_width=1.2 * pen.mm, stroke_linejoin="round"
            ),
        ],
        Pull(
            path=f"ballast.{drilled.key}.x_mm",
            value=x,
            low=0.05 * design.body.length_mm,
            high=0.95 * design.body.length_mm,
            says=f"Ballast {drilled.slug.name}, distance from the nose",
        ),
    )


@dataclass(frozen=True)
class Pull:
    """What a handle changes: the field at `path`, its value and limits, and what it is called.

    value = factor · coordinate + offset along `axis` of its own frame [mm]; `turn` goes round its origin [°].
    With axis `xy` it moves both ways: `along_mm` is then its place along the other axis.
    """

    path: str
    value: float
    low: float
    high: float
    says: str
    axis: str = "x"
    factor: float = 1.0
    offset: float = 0.0
    quantity: str = "length"
    along_mm: float | None = None


def handle(children: list[Node], pull: Pull) -> Node:
    """A draggable group, a slider for the keyboard as well."""
    return group(
        children,
        class_="handle",
        tabindex=0,
        role="slider",
        aria_label=pull.says,
        aria_valuenow=round(pull.value, 1),
        aria_valuemin=round(pull.low, 1),
        aria_valuemax=round(pull.high, 1),
        aria_valuetext=said(pull.value, pull.quantity, 1),
        data_path=pull.path,
        data_axis=pull.axis,
        data_factor=pull.factor,
        data_offset=pull.offset,
        data_x=pull.along_mm,
    )


def grip(
    x: float, y: float, pen: Pen, pull: Pull, size: tuple[float, float] = (22.0, 6.5), colour: str = TIP
) -> Node:
    """A round handle at a place of the drawing; `size` is how far round it a finger takes it, and the radius
    of the dot, both in points of the screen.
    """
    reach, radius = size
    dot = [
        node("circle", cx=x, cy=y, r=reach * pen.mm, fill="transparent"),
        node(
            "circle", cx=x, cy=y, r=radius * pen.mm, fill=colour, stroke="#FFFFFF", stroke_width=1.5 * pen.mm
        ),
    ]
    return handle(dot, pull)


def hardware(design: Design, pen: Pen, turn_deg: float = 0.0) -> list[Node]:
    """Eyes, rings and hooks; hanging parts stay upright when the body is turned by `turn_deg`."""
    nodes = []
    for placed in design.hardware:
        if placed.item.of.is_screwed:
            nodes.append(_screw_eye(design, placed, pen))
    for placed in design.hardware:
        eye = eye_of(design.hardware, design.body, placed, design.lip)
        if placed.item.kind == "ring":
            nodes.append(
                group(
                    [
                        node(
                            "circle",
                            cx=eye[0],
                            cy=-eye[2] + 1.6,
                            r=1.9,
                            fill="none",
                            stroke=STEEL,
                            stroke_width=0.7,
                        )
                    ],
                    transform=f"rotate({-turn_deg:.2f} {eye[0]:.2f} {-eye[2]:.2f})",
                )
            )
        if placed.item.kind == "hook":
            nodes.append(treble(eye[0], -eye[2] + 2.6, placed.item.mass_g, -turn_deg, -eye[2]))
    return nodes


def _screw_eye(design: Design, placed: Placement, pen: Pen) -> Node:
    x, _, z = seat_point(design.body, placed, design.lip)
    reach, deep = placed.item.reach_mm, placed.item.reach_mm + (1.5 if placed.seat == "lip" else 8.0)
    tilt = radians(design.lip.angle_deg) if design.lip else 0.0
    inward = {
        "nose": (1, 0),
        "tail": (-1, 0),
        "belly": (0, 1),
        "back": (0, -1),
        "lip": (sin(tilt), -cos(tilt)),
    }.get(placed.seat, (1, 0))
    shank = node(
        "line",
        x1=x + inward[0] * reach * 0.4,
        y1=-z - inward[1] * reach * 0.4,
        x2=x + inward[0] * deep,
        y2=-z - inward[1] * deep,
        stroke=STEEL,
        stroke_width=0.8,
        stroke_linecap="round",
    )
    return group([shank, node("circle", cx=x, cy=-z, r=1.5, fill="none", stroke=INK, stroke_width=1.0)])


def treble(x: float, y: float, mass_g: float, turn_deg: float, eye_y: float) -> Node:
    """A treble hook hanging from (x, y), its size by its mass, turned about its eye."""
    size = 13.0 * (max(mass_g, 0.02) / 0.6) ** (1 / 3)
    bend, gap = 0.3 * size, 0.27 * size
    prongs = []
    for side in (-1, 1):
        foot = x + side * gap
        low, out = y + size + bend, foot + side * gap
        barb = f"{foot + side * gap * 0.8:.2f} {y + size * 0.62:.2f}"
        d = f"M{x:.2f} {y + size * 0.68:.2f} C{x:.2f} {low:.2f} {out:.2f} {low - bend * 0.4:.2f} {barb}"
        prongs.append(node("path", d=d, fill="none", stroke=INK, stroke_width=0.7, stroke_linecap="round"))
    shank = node("line", x1=x, y1=y, x2=x, y2=y + size * 0.7, stroke=INK, stroke_width=0.8)
    return group([shank, *prongs], transform=f"rotate({turn_deg:.2f} {x:.2f} {eye_y:.2f})")


def point_mark(name: str, x: float, y: float, pen: Pen, colour: str) -> Node:
    """A marked point (G, B) with its letter beside it."""
    r = 6.5 * pen.mm
    return group(
        [
            node("circle", cx=x, cy=y, r=r, fill="#FFFFFF", stroke=colour, stroke_width=1.8 * pen.mm),
            node(
                "path",
                d=(
                    f"M{x:.3f} {y:.3f}v{-r:.3f}a{r:.3f} {r:.3f} 0 0 1 {r:.3f} {r:.3f}z M{x:.3f}"
                    f" {y:.3f}v{r:.3f}a{r:.3f} {r:.3f} 0 0 1 {-r:.3f} {-r:.3f}z"
                ),
                fill=colour,
            ),
            node(
                "text",
                name,
                x=x + (1.5 * r if name == "G" else -1.5 * r),
                y=y + (1.6 * r if name == "G" else -0.4 * r),
                text_anchor="start" if name == "G" else "end",
                font_size=15 * pen.mm,
                font_weight=700,
                fill=colour,
                stroke="#FFFFFF",
                stroke_width=3 * pen.mm,
                paint_order="stroke",
                font_family="Atkinson Hyperlegible Next Variable, sans-serif",
            ),
        ]
    )


def arrow(x: float, y: float, length: float, pen: Pen, colour: str) -> Node:
    """A vertical arrow from (x, y), `length` [mm] downward (negative: upward)."""
    head = 7 * pen.mm * (1 if length > 0 else -1)
    tip = y + length
    return group(
        [
            node("line", x1=x, y1=y, x2=x, y2=tip - head, stroke=colour, stroke_width=2.2 * pen.mm),
            node(
                "path",
                d=(
                    f"M{x:.3f} {tip:.3f} L{x - abs(head) * 0.7:.3f} {tip - head * 1.4:.3f}"
                    f" L{x + abs(head) * 0.7:.3f} {tip - head * 1.4:.3f}Z"
                ),
                fill=colour,
            ),
        ]
    )
