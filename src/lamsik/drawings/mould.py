"""A mould to scale: its plan and section with rulers, beside them a cavity as it is poured."""

from math import cos, radians, sin

import numpy as np
from numpy.typing import NDArray

from lamsik.core.moulds.funnels import Feed, feeds, wall_mm
from lamsik.core.moulds.geometry import middle_cut
from lamsik.core.moulds.layout import (
    Box,
    CavitySpot,
    Mould,
    Text,
    box,
    key_places,
    outline,
    turned,
)
from lamsik.core.moulds.tight import Tight
from lamsik.core.moulds.vents import FLAT, HighPoint
from lamsik.core.quantities import numeral, said
from lamsik.core.shapes.curves import Array
from lamsik.drawings import parts
from lamsik.drawings.ink import (
    BRICK,
    CARD,
    DEEP,
    INK,
    MUTED,
    POUR,
    TIP,
    WATER,
    WOOD,
    Pen,
    pen_for,
)
from lamsik.drawings.poured import poured
from lamsik.drawings.ruler import ruler, upright_ruler
from lamsik.drawings.svg import Node, framed, group, label, node, path

UPPER, LOWER, BOARD = "#CFE0D3", "#BCD3DC", "#DCCBA6"


def picture(
    mould: Mould,
    points: tuple[HighPoint, ...],
    tight: tuple[Tight, ...],
    undercut: NDArray[np.bool_],
) -> Node:
    """The whole drawing: plan over section on the left, the pour on the right; y grows downward in SVG."""
    walls = box(mould)
    ring, gap = 1.24 * _reach(mould), max(0.12 * walls.length_mm, 14.0)
    stacked = (
        walls.width_mm < 0.85 * walls.length_mm
    )  # a long plan stands over its section, a tall one beside it
    beside = max(2 * ring, 0.0 if stacked else walls.length_mm)
    tall = walls.width_mm + walls.high_mm if stacked else max(walls.width_mm, walls.high_mm + 2 * ring)
    pen = pen_for(max(walls.length_mm + 2 * gap + beside, 1.55 * tall), 780.0)
    section_x, section_y = (
        (0.0, walls.width_mm + 62 * pen.mm + walls.above_mm)
        if stacked
        else (walls.length_mm + 2 * gap + 60 * pen.mm, 14 * pen.mm + walls.above_mm)
    )
    ring_x = walls.length_mm + gap + 70 * pen.mm + beside / 2
    low = section_y + walls.below_mm
    ring_y = max(ring + 26 * pen.mm, low / 2) if stacked else low + 40 * pen.mm + ring
    drawn = [
        group(_plan(mould, walls, tight, undercut, pen), transform=f"translate(0 {walls.width_mm:.2f})"),
        label("plan", 0, -9 * pen.mm, pen.text, fill=MUTED),
        group(
            [upright_ruler(0, walls.width_mm, pen, -8 * pen.mm)],
            transform=f"translate(0 {walls.width_mm:.2f})",
        ),
        ruler(walls.length_mm, pen, 0, walls.width_mm + 5 * pen.mm),
        label(
            f"section through cavity {mould.cavities[0].key[1:]}",
            section_x,
            section_y - walls.above_mm - 8 * pen.mm,
            pen.text,
            fill=MUTED,
        ),
        group(_section(mould, walls, pen), transform=f"translate({section_x:.2f} {section_y:.2f})"),
        group(poured(mould, points, ring, pen), transform=f"translate({ring_x:.2f} {ring_y:.2f})"),
    ]
    left, top = 58 * pen.mm, 26 * pen.mm
    wide = max(ring_x + ring, section_x + walls.length_mm + 60 * pen.mm) + 14 * pen.mm
    high = max(low + 14 * pen.mm, ring_y + ring + 34 * pen.mm, walls.width_mm + 34 * pen.mm)
    return framed(
        drawn,
        -left,
        -top,
        wide + left,
        high + top,
        f"{mould.name}: plan, section and how it is poured, to scale",
        role="group",
    )


def _reach(mould: Mould) -> float:
    mesh = mould.lies
    across = mesh.vertices[:, (0, 2)] if mould.stand == FLAT else mesh.vertices[:, (0, 1)]
    return float(np.hypot(across[:, 0], across[:, 1]).max())


def _plan(
    mould: Mould, walls: Box, tight: tuple[Tight, ...], undercut: NDArray[np.bool_], pen: Pen
) -> list[Node]:
    """The box from above; its lower left corner is the origin."""
    rows = [*_block(mould, walls, pen), *_keys_and_wells(mould, pen)]
    for spot in mould.cavities:
        rows.append(
            node(
                "path",
                d=path(outline(mould, spot)),
                fill=WOOD,
                stroke=INK,
                stroke_width=1.6 * pen.mm,
                stroke_linejoin="round",
            )
        )
        rows += _marked(mould, spot, undercut, pen)
        rows += _rods(mould, walls, spot, pen)
        rows += [_text(t, spot) for t in mould.texts]
    return [*rows, *_too_near(tight, pen), *_grips(mould, walls, pen)]


def _block(mould: Mould, walls: Box, pen: Pen) -> list[Node]:
    """The box, its boards, and the funnels in it."""
    wide, high, deep = walls.length_mm, walls.width_mm, 5 * pen.mm
    board = {"fill": BOARD, "stroke": INK, "stroke_width": pen.mm}
    boards = [
        node("rect", x=0, y=-high - deep, width=wide, height=deep, **board),
        node("rect", x=0, y=0, width=wide, height=deep, **board),
    ]
    cone = {"fill": POUR, "fill_opacity": 0.75, "stroke": INK, "stroke_width": 0.8 * pen.mm}
    return [
        *(boards if mould.boards else []),
        node("rect", x=0, y=-high, width=wide, height=high, fill=UPPER, stroke=INK, stroke_width=2 * pen.mm),
        *(node("path", d=path(_cone(feed)), **cone) for feed in feeds(mould)),
    ]


def _keys_and_wells(mould: Mould, pen: Pen) -> list[Node]:
    base, thin = mould.keys.base_mm, {"stroke": INK, "stroke_width": pen.mm}
    heart = {"fill": "none", "stroke": MUTED, "stroke_width": 0.6 * pen.mm}
    rows: list[Node] = []
    for x, y in key_places(mould) if mould.parts == 2 else ():
        rows.append(node("circle", cx=x, cy=-y, r=base / 2, fill=LOWER, **thin))
        rows.append(node("circle", cx=x, cy=-y, r=base / 6, **heart))
    well = {"fill": CARD, "stroke": DEEP, "stroke_width": 1.2 * pen.mm}
    return rows + [node("circle", cx=w.x_mm, cy=-w.y_mm, r=w.across_mm / 2, **well) for w in mould.wells]


def _too_near(tight: tuple[Tight, ...], pen: Pen) -> list[Node]:
    """Rings where something lies too near to something else, with how near."""
    ring = {"r": 7 * pen.mm, "fill": "none", "stroke": BRICK, "stroke_width": 2 * pen.mm}
    rows: list[Node] = []
    for place in tight:
        x, y = place.x_mm, -place.y_mm
        rows.append(node("circle", cx=x, cy=y, **ring))
        text = numeral(place.distance_mm, "length")
        rows.append(label(text, x + 10 * pen.mm, y - 6 * pen.mm, 11 * pen.mm, fill=BRICK))
    return rows


def _grips(mould: Mould, walls: Box, pen: Pen) -> list[Node]:
    limits = (0.0, walls.width_mm)
    return [
        *(
            _grip(f"point.{spot.key}.0", spot.x_mm, spot.y_mm, f"Cavity {n}", pen, limits, str(n))
            for n, spot in enumerate(mould.cavities, start=1)
        ),
        *(
            _grip(f"point.{w.key}.0", w.x_mm, w.y_mm, f"Well {w.key[1:]}", pen, limits, "")
            for w in mould.wells
        ),
    ]


def _cone(feed: Feed) -> Array:
    x0, y0, x1, y1 = feed.x0_mm, feed.y0_mm, feed.x1_mm, feed.y1_mm
    way = radians(feed.way_deg)
    across = np.array([-sin(way), cos(way)])
    r, big = feed.neck_mm / 2, feed.mouth_mm / 2
    a, b = np.array([x0, y0]) - 1.5 * np.array([cos(way), sin(way)]), np.array([x1, y1])
    return np.array([a + r * across, b + big * across, b - big * across, a - r * across])


def _marked(mould: Mould, spot: CavitySpot, undercut: NDArray[np.bool_], pen: Pen) -> list[Node]:
    """Faces that lean in under a half, hatched in red."""
    if not undercut.any():
        return []
    mesh = mould.lies_true
    middles = mesh.vertices[mesh.faces[undercut]].mean(axis=1)
    spots = np.unique(np.round(middles[:, :2] / (3 * pen.mm)), axis=0)[:600] * 3 * pen.mm
    d = " ".join(
        f"M{x - 1.2 * pen.mm:.2f} {-y + 1.2 * pen.mm:.2f}l{2.4 * pen.mm:.2f} {-2.4 * pen.mm:.2f}"
        for x, y in (turned(x, y, spot) for x, y in spots)
    )
    return [node("path", d=d, stroke=BRICK, stroke_width=1.2 * pen.mm, fill="none", opacity=0.8)]


def _rods(mould: Mould, walls: Box, spot: CavitySpot, pen: Pen) -> list[Node]:
    """Vents: rods to the wall, or seen from above where they run up."""
    rows = []
    for vent in mould.vents:
        x, y = turned(vent.x_mm, vent.y_mm, spot)
        wide = max(vent.across_mm, 2 * pen.mm)
        if mould.stand == FLAT:
            seen = max(1.0, 5 * pen.mm / vent.across_mm)  # one too small to be seen is drawn larger
            across = np.array(vent.section_mm) * seen + (x, y)
            rows.append(node("path", d=path(across), fill=CARD, stroke=WATER, stroke_width=1.4 * pen.mm))
            continue
        way = radians(mould.tilt_deg)
        far = wall_mm(walls, x, y, cos(way), sin(way))
        rows.append(
            node(
                "line",
                x1=x,
                y1=-y,
                x2=x + far * cos(way),
                y2=-(y + far * sin(way)),
                stroke=WATER,
                stroke_width=wide,
                opacity=0.8,
            )
        )
    return rows


def _text(text: Text, spot: CavitySpot) -> Node:
    """A text as it stands on the mould's face: mirrored, since it reads right on the bait."""
    x, y = turned(text.x_mm, text.y_mm, spot)
    return group(
        [
            label(
                text.says,
                0,
                text.high_mm * 0.35,
                text.high_mm,
                text_anchor="middle",
                fill=DEEP if text.half == "upper" else MUTED,
            )
        ],
        transform=f"translate({x:.2f} {-y:.2f}) rotate({-spot.turn_deg:.1f}) scale(-1 1)",
    )


def _grip(
    key: str, x: float, y: float, says: str, pen: Pen, limits: tuple[float, float], number: str
) -> Node:
    dot = [
        node("circle", cx=x, cy=-y, r=22 * pen.mm, fill="transparent"),
        node(
            "circle",
            cx=x,
            cy=-y,
            r=(9 if number else 6) * pen.mm,
            fill=TIP,
            stroke=CARD,
            stroke_width=1.5 * pen.mm,
        ),
        *(
            [
                label(
                    number,
                    x,
                    -y + 4 * pen.mm,
                    11 * pen.mm,
                    text_anchor="middle",
                    fill="#FFFFFF",
                    font_weight=700,
                )
            ]
            if number
            else []
        ),
    ]
    return parts.handle(
        dot,
        parts.Pull(
            path=key,
            value=y,
            low=limits[0],
            high=limits[1],
            says=f"{says}, place in the box",
            axis="xy",
            factor=-1.0,
            along_mm=round(x, 2),
        ),
    )


def _section(mould: Mould, walls: Box, pen: Pen) -> list[Node]:
    """The block cut along the first cavity; z = 0 is the parting."""
    spot, length = mould.cavities[0], walls.length_mm
    lean = np.tan(radians(mould.slant_deg))
    left, right = -lean * length / 2, lean * length / 2
    upper = [(0, left), (length, right), (length, walls.above_mm), (0, walls.above_mm)]
    lower = [(0, left), (length, right), (length, -walls.below_mm), (0, -walls.below_mm)]
    rows = [node("path", d=path(upper), fill=UPPER, stroke=INK, stroke_width=1.6 * pen.mm)]
    if mould.parts == 2:
        rows.append(node("path", d=path(lower), fill=LOWER, stroke=INK, stroke_width=1.6 * pen.mm))
    shift = 0.0 if mould.parts == 2 else -float(mould.lies.vertices[:, 2].min())
    for row in middle_cut(mould.lies):
        points = row * np.array([cos(radians(spot.turn_deg)), 1.0]) + np.array(
            [spot.x_mm, shift - (mould.parting_mm if mould.parts == 2 else 0.0)]
        )
        rows.append(node("path", d=path(points), fill=WOOD, stroke=INK, stroke_width=1.4 * pen.mm))
    for feed in feeds(mould)[:1]:
        if abs(feed.y1_mm - feed.y0_mm) < 0.5:
            r, big = feed.neck_mm / 2, feed.mouth_mm / 2
            rows.append(
                node(
                    "path",
                    d=path([(feed.x0_mm, r), (feed.x1_mm, big), (feed.x1_mm, -big), (feed.x0_mm, -r)]),
                    fill=POUR,
                    fill_opacity=0.75,
                    stroke=INK,
                    stroke_width=0.8 * pen.mm,
                )
            )
    if mould.parts == 2:
        rows.append(
            node(
                "line",
                x1=-10 * pen.mm,
                x2=length + 10 * pen.mm,
                y1=-left,
                y2=-right,
                stroke=DEEP,
                stroke_width=1.2 * pen.mm,
                stroke_dasharray=f"{6 * pen.mm:.2f} {3 * pen.mm:.2f}",
            )
        )
        rows.append(label("parting", length + 12 * pen.mm, -right + 4 * pen.mm, 11 * pen.mm, fill=DEEP))
    rows += [
        _height(walls.above_mm, 0.0, -6 * pen.mm, said(walls.above_mm, "length"), pen),
        *(
            [_height(0.0, -walls.below_mm, -6 * pen.mm, said(walls.below_mm, "length"), pen)]
            if mould.parts == 2
            else []
        ),
    ]
    return rows


def _height(top: float, low: float, x: float, text: str, pen: Pen) -> Node:
    return group(
        [
            node("line", x1=x, x2=x, y1=-top, y2=-low, stroke=MUTED, stroke_width=pen.mm),
            label(
                text,
                x - 5 * pen.mm,
                -(top + low) / 2 + 4 * pen.mm,
                11 * pen.mm,
                fill=MUTED,
                text_anchor="end",
            ),
        ]
    )


def thumbnail(mould: Mould) -> Node:
    """The plan, small."""
    walls = box(mould)
    pen = pen_for(max(walls.length_mm, 1.8 * walls.width_mm) * 1.1, 220)
    rows = [
        node(
            "rect",
            x=0,
            y=-walls.width_mm,
            width=walls.length_mm,
            height=walls.width_mm,
            fill=UPPER,
            stroke=INK,
            stroke_width=1.5 * pen.mm,
        )
    ]
    rows += [
        node("path", d=path(_cone(feed)), fill=POUR, stroke=INK, stroke_width=0.6 * pen.mm)
        for feed in feeds(mould)
    ]
    rows += [
        node("path", d=path(outline(mould, spot)), fill=WOOD, stroke=INK, stroke_width=1.2 * pen.mm)
        for spot in mould.cavities
    ]
    edge = 4 * pen.mm
    return framed(
        rows, -edge, -walls.width_mm - edge, walls.length_mm + 2 * edge, walls.width_mm + 2 * edge, ""
    )
