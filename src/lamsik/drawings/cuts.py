"""What cuts a body and what is hidden in it, on the side and top views: joints, the hollow, buried parts,
clashes with their distance.
"""

from lamsik.core.quantities import said
from lamsik.core.shapes.ballast_holes import mouth_mm
from lamsik.core.shapes.body import leaning, station
from lamsik.core.shapes.clashes import SKIN, Clash, cut_ends
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Item, Placement, seat_of
from lamsik.core.shapes.inside import cavity_point
from lamsik.core.shapes.joints import Joint
from lamsik.core.shapes.space import hollow_outlines
from lamsik.core.trade.part_kinds import CLOSED, OPEN, THROUGH
from lamsik.drawings.ink import BRICK, CARD, INK, MUTED, PLATE, STEEL, Pen
from lamsik.drawings.svg import Node, group, label, node, path


def joints_side(design: Design, pen: Pen) -> list[Node]:
    """The saw cuts from the side, each as wide as its kerf, with its pin or eyelets."""
    return [group(_joint_side(design, joint, pen)) for joint in design.body.joints]


def _joint_side(design: Design, joint: Joint, pen: Pen) -> list[Node]:
    (tf, bf), (ta, ba) = (
        cut_ends(design.body, leaning(design.body, x, joint.slant_deg)) for x in (joint.fore_mm, joint.aft_mm)
    )
    gap = node("path", d=path([tf, ta, ba, bf]), fill=CARD, stroke=INK, stroke_width=pen.mm)
    top, low = ((tf[0] + ta[0]) / 2, (tf[1] + ta[1]) / 2), ((bf[0] + ba[0]) / 2, (bf[1] + ba[1]) / 2)
    if joint.shares_pitch:
        inset = 0.12 * (top[1] - low[1])
        return [
            gap,
            node(
                "line",
                x1=top[0],
                y1=-top[1] + inset,
                x2=low[0],
                y2=-low[1] - inset,
                stroke=STEEL,
                stroke_width=max(1.2, 2 * pen.mm),
                stroke_linecap="round",
            ),
        ]
    rings = []
    for share in (0.3, 0.7):
        x, z = low[0] + share * (top[0] - low[0]), low[1] + share * (top[1] - low[1])
        rings += [
            node("circle", cx=x + way * 1.1, cy=-z, r=1.5, fill="none", stroke=STEEL, stroke_width=0.7)
            for way in (-1, 1)
        ]
    return [gap, *rings]


def joints_plan(design: Design, pen: Pen) -> list[Node]:
    """The saw cuts from above."""
    rows = []
    for joint in design.body.joints:
        half = station(design.body, joint.x_mm).half_width_mm
        edges = [(joint.fore_mm, half), (joint.aft_mm, half), (joint.aft_mm, -half), (joint.fore_mm, -half)]
        rows.append(node("path", d=path(edges), fill=CARD, stroke=INK, stroke_width=pen.mm))
    return rows


def hollow(design: Design, pen: Pen) -> list[Node]:
    """The inner side of a shell, dashed."""
    dash = f"{4 * pen.mm:.2f} {3 * pen.mm:.2f}"
    looks = {
        "fill": CARD,
        "fill_opacity": 0.45,
        "stroke": INK,
        "stroke_width": pen.mm,
        "stroke_dasharray": dash,
    }
    rows = [
        node("path", d=path([(float(x), float(z)) for x, z in edge]), **looks)
        for edge in hollow_outlines(design)
    ]
    return (
        [*rows, *_walls(design, design.shell.around_mm, pen)]
        if rows and design.shell and design.shell.around_mm
        else rows
    )


def _walls(design: Design, wall_mm: float, pen: Pen) -> list[Node]:
    """The walls round holes and chambers in the hollow."""
    boxes: list[tuple[float, float, float, float]] = []
    for hole in design.ballast:
        low, half = mouth_mm(design.body, hole), hole.drill_mm / 2
        boxes.append((hole.x_mm - half, low, hole.x_mm + half, low + hole.depth_mm))
    for cavity in design.cavities:
        x, _, z = cavity_point(design.body, cavity)
        boxes.append(
            (
                x - cavity.length_mm / 2,
                z - cavity.bore_mm / 2,
                x + cavity.length_mm / 2,
                z + cavity.bore_mm / 2,
            )
        )
    looks = {"rx": wall_mm / 2, "fill": "none", "stroke": MUTED, "stroke_width": pen.mm}
    return [
        node(
            "rect",
            x=left - wall_mm,
            y=-top - wall_mm,
            width=right - left + 2 * wall_mm,
            height=top - low + 2 * wall_mm,
            **looks,
        )
        for left, low, right, top in boxes
    ]


def buried(design: Design, pen: Pen) -> list[Node]:
    """Rattles, line tubes, through-wires and eyes, as they lie."""
    return [row for placed in design.hardware for row in _buried(design, placed, pen)]


def _buried(design: Design, placed: Placement, pen: Pen) -> list[Node]:
    item, here = placed.item, station(design.body, placed.x_mm)
    z = here.middle_mm if placed.up_mm is None else here.bottom_mm + placed.up_mm
    dash = f"{3 * pen.mm:.2f} {2 * pen.mm:.2f}"
    if item.kind == "eyes":
        r = max(item.wire_mm, 3.0) / 2
        return [
            node("circle", cx=here.x_mm, cy=-z, r=r, fill="#F3E7B6", stroke=INK, stroke_width=1.2 * pen.mm),
            node("circle", cx=here.x_mm, cy=-z, r=0.45 * r, fill=INK),
        ]
    if item.of.bore in (OPEN, CLOSED) and item.shank_mm > 0:
        return _along(item, here.x_mm, z, dash, pen)
    if item.of.bore == THROUGH:
        long = design.body.length_mm
        ends = station(design.body, 0.0).middle_mm, station(design.body, long).middle_mm
        thick = max(item.wire_mm, 1.5 * pen.mm)
        wire = {"stroke": STEEL, "stroke_width": thick, "stroke_dasharray": dash}
        return [node("line", x1=-2, y1=-ends[0], x2=long + 2, y2=-ends[1], **wire)]
    behind = {"skirt": _skirt, "hair": _skirt, "soft_tail": _soft_tail, "rotor": _rotor, "contact": _contact}
    return behind[item.kind](design, placed, pen) if item.kind in behind else []


def _along(item: Item, x: float, z: float, dash: str, pen: Pen) -> list[Node]:
    """A rattle or a tube that lies along the body, its middle at x, z [mm]."""
    is_rattle, ball = item.of.bore == CLOSED, 0.34 * item.wire_mm
    case = node(
        "rect",
        y=-z - item.wire_mm / 2,
        height=item.wire_mm,
        rx=item.wire_mm / 2 if is_rattle else 0,
        stroke_dasharray=dash,
        fill_opacity=0.7,
        x=x - item.shank_mm / 2,
        width=item.shank_mm,
        fill=PLATE,
        stroke=INK,
        stroke_width=pen.mm,
    )
    balls = [
        node("circle", cx=x + i * 2.2 * ball, cy=-z + 0.4 * ball, r=ball, fill=STEEL) for i in (-1, 0, 1)
    ]
    return [case, *(balls if is_rattle else [])]


def _skirt(design: Design, placed: Placement, pen: Pen) -> list[Node]:
    here, end = station(design.body, placed.x_mm), station(design.body, design.body.length_mm)
    behind = seat_of(design.hardware, placed) == "tail"
    x, z = (end.x_mm, end.middle_mm) if behind else (here.x_mm, here.bottom_mm)
    thread = {"fill": "none", "stroke": MUTED, "stroke_width": 1.3 * pen.mm}
    return [
        node("path", d=f"M{x:.2f} {-z:.2f} q 12 {way * 5:.1f} 26 {way * 6:.1f}", **thread)
        for way in (-1, -0.5, 0, 0.5, 1)
    ]


def _at(design: Design, placed: Placement) -> tuple[float, float, float]:
    """Where a part sits, x and z [mm], and which way it points: −1 ahead of the nose, else 1."""
    seat, body = seat_of(design.hardware, placed), design.body
    if seat in ("nose", "tail"):
        end = station(body, 0.0 if seat == "nose" else body.length_mm)
        return end.x_mm, end.middle_mm, -1.0 if seat == "nose" else 1.0
    here = station(body, placed.x_mm)
    return here.x_mm, here.top_mm if seat == "back" else here.bottom_mm, 1.0


def _soft_tail(design: Design, placed: Placement, pen: Pen) -> list[Node]:
    x, z, _ = _at(design, placed)
    reach = 0.28 * design.body.length_mm
    blade = (
        f"M{x:.2f} {-z - 1.5:.2f} q {0.6 * reach:.2f} -1 {reach:.2f} {-0.3 * reach:.2f} "
        f"q {0.14 * reach:.2f} {0.3 * reach:.2f} 0 {0.6 * reach:.2f} "
        f"q {-0.4 * reach:.2f} {-0.26 * reach:.2f} {-reach:.2f} {-0.3 * reach + 3:.2f} Z"
    )
    looks = {"fill": PLATE, "fill_opacity": 0.7, "stroke": MUTED, "stroke_width": pen.mm}
    return [node("path", d=blade, **looks)]


def _rotor(design: Design, placed: Placement, pen: Pen) -> list[Node]:
    x, z, way = _at(design, placed)
    high, looks = 0.45 * design.body.depth_mm, {"fill": PLATE, "stroke": STEEL, "stroke_width": pen.mm}
    blades = [
        node("ellipse", cx=x + way * 2.5, cy=-z + up * high / 2, rx=1.6, ry=high / 2, **looks)
        for up in (-1, 1)
    ]
    return [*blades, node("circle", cx=x + way * 2.5, cy=-z, r=1.2, fill=STEEL)]


def _contact(design: Design, placed: Placement, pen: Pen) -> list[Node]:
    x, z, _ = _at(design, placed)
    looks = {"r": 1.1, "fill": STEEL, "stroke": INK, "stroke_width": pen.mm}
    return [node("circle", cx=x + aside, cy=-z, **looks) for aside in (-3.0, 3.0)]


def clash_marks(clashes: tuple[Clash, ...], pen: Pen) -> list[Node]:
    """Each clash as a red dimension with its distance; into each other as a ring round the place."""
    return [mark for clash in clashes[:6] for mark in _clash(clash, pen)]


def _clash(clash: Clash, pen: Pen) -> list[Node]:
    (x0, z0), (x1, z1) = clash.at, clash.to
    says = said(clash.gap_mm, "length") if clash.gap_mm > 0 else ("out" if clash.other == SKIN else "clash")
    ring = node(
        "circle",
        cx=x1 if clash.gap_mm > 0 else x0,
        cy=-(z1 if clash.gap_mm > 0 else z0),
        r=6 * pen.mm,
        fill="none",
        stroke=BRICK,
        stroke_width=2.2 * pen.mm,
    )
    line = node("line", x1=x0, y1=-z0, x2=x1, y2=-z1, stroke=BRICK, stroke_width=2.2 * pen.mm)
    text = label(
        says,
        (x0 + x1) / 2 + 9 * pen.mm,
        -(z0 + z1) / 2 - 5 * pen.mm,
        pen.text,
        fill=BRICK,
        font_weight=700,
        stroke="#FFFFFF",
        stroke_width=3 * pen.mm,
        paint_order="stroke",
    )
    return [line, ring, text]
