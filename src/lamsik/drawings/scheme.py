"""A scheme on a body, from four sides, with handles for where its chosen layer lies."""

from dataclasses import dataclass, replace

import numpy as np

from lamsik.core.paints import lettering
from lamsik.core.paints.dressed import anchors_on
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.masks import SHAPES
from lamsik.core.paints.paint import BOTH, LEFT, RIGHT
from lamsik.core.paints.place import LETTERS
from lamsik.core.paints.skin import COARSE, skin_of
from lamsik.core.paints.views import BACK_VIEW, BELLY_VIEW
from lamsik.core.shapes.body import side_outline
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import lip_point
from lamsik.drawings import parts
from lamsik.drawings.body import front_reach
from lamsik.drawings.ink import MUTED, TIP, Pen, pen_for
from lamsik.drawings.paint import CLOSE, SKETCHED, height_on, painted, seen_from
from lamsik.drawings.parts import Pull
from lamsik.drawings.ruler import ruler
from lamsik.drawings.svg import Node, framed, group, label, node, path


@dataclass(frozen=True)
class Shown:
    """How a scheme is looked at: the chosen layer's key, whether layers over it are left off, whether the
    drawing moves.
    """

    chosen: str = ""
    is_upto: bool = False
    is_moving: bool = False


def scheme_view(design: Design, shown: Shown) -> Node:
    """Left flank with its lip and hangers, the right one where it differs, back and belly, a ruler."""
    body = design.body
    pen = pen_for(body.length_mm * 1.25, 860)
    chosen = next((layer for layer in design.layers if layer.key == shown.chosen), None)
    upto = shown.chosen if shown.is_upto and chosen else None
    detail = SKETCHED if shown.is_moving else CLOSE
    outline = side_outline(body)
    high, low, left = float(outline[:, 1].max()), -float(outline[:, 1].min()), front_reach(design)
    if design.lip:
        low = max(low, -lip_point(body, design.lip, design.lip.length_mm)[2])
    bare = replace(design, hardware=tuple(p for p in design.hardware if p.item.kind not in ("hook", "ring")))
    content = [*parts.lip(bare, pen), painted(bare, pen, "paint", upto, LEFT, detail)]
    content += parts.hardware(bare, pen)
    if chosen is not None and chosen.place.side != RIGHT:
        content += _pulls(design, chosen, pen)
    gap, half = 16 * pen.mm, body.width_mm / 2
    down = low + gap
    rows = [(LEFT, -high)]
    if any(layer.place.side != BOTH for layer in design.layers):
        middle = down + high
        turned = f"translate({body.length_mm:.2f} {middle:.2f}) scale(-1 1)"
        content.append(group([painted(bare, pen, "other", upto, RIGHT, detail)], transform=turned))
        if chosen is not None and chosen.place.side == RIGHT:
            content.append(group(_pulls(design, chosen, pen), transform=f"translate(0 {middle:.2f})"))
        rows.append((RIGHT, down))
        down = middle + low + gap
    for side in (BACK_VIEW, BELLY_VIEW):
        seen = seen_from(design, pen, side, f"from-{side}", upto, detail)
        content.append(group([seen], transform=f"translate(0 {down + half:.2f})"))
        rows.append((side, down))
        down += 2 * half + gap
    content.append(ruler(body.length_mm, pen, 0, down))
    content += [
        label(name, -left - 11 * pen.mm, y + 4 * pen.mm, pen.text, fill=MUTED, text_anchor="end")
        for name, y in rows
    ]
    margin = 16 * pen.mm
    room = 62 * pen.mm
    return framed(
        content,
        -left - margin - room,
        -high - 2 * margin,
        body.length_mm + left + 6 + 2 * margin + room,
        high + down + 46 * pen.mm + 2 * margin,
        f"{design.name} in its scheme, from the left, above and below",
        role="group" if chosen else "img",
    )


def _way(layer: Layer) -> float:
    """Which way along the body is to the right on the flank that the layer's handles lie on."""
    return -1.0 if layer.place.side == RIGHT else 1.0


def _shown_at(design: Design, layer: Layer, x_mm: float) -> float:
    """Where a station is seen on the flank that the layer's handles lie on: the right one's nose is right."""
    return design.body.length_mm - x_mm if layer.place.side == RIGHT else x_mm


def _pulls(design: Design, layer: Layer, pen: Pen) -> list[Node]:
    """Lines where the chosen layer's stretch ends, and the handles that move them."""
    shape = SHAPES[layer.place.shape]
    if shape.is_lone or (layer.place.shape == "stencil" and layer.place.count <= 1):
        return _lone(design, layer, pen)
    anchors, length = anchors_on(design), design.body.length_mm
    first, last = anchors.x_mm(layer.place.begins, length), anchors.x_mm(layer.place.ends, length)
    pulls: list[Node] = []
    for end, x, says in (("begins", first, "from"), ("ends", last, "to")):
        line = _across(design, layer, x)
        at = getattr(layer.place, end).at_percent
        pull = Pull(
            f"layers.{layer.key}.place.{end}.at_percent",
            at,
            at - 100.0 * x / length,
            at + 100.0 * (length - x) / length,
            f"{layer.name}, {says}, of the length",
            factor=_way(layer) * 100.0 / length,
            quantity="percent",
        )
        pulls += [_line(line, pen), parts.grip(float(line[0, 0]), -float(line[0, 1]) - 9 * pen.mm, pen, pull)]
    for edge, says in (("top", "upper edge"), ("bottom", "lower edge")):
        pulls += _level(design, layer, edge, says, (first, last), pen)
    return pulls


def _line(points: np.ndarray, pen: Pen) -> Node:
    return node(
        "path",
        d=path(points, close=False),
        fill="none",
        stroke=TIP,
        stroke_width=1.2 * pen.mm,
        stroke_dasharray=f"{4 * pen.mm:.3f} {3 * pen.mm:.3f}",
    )


def _across(design: Design, layer: Layer, x_mm: float) -> np.ndarray:
    """The flank's profile at a station, from back to belly, points (x, z) as it is seen."""
    sheet = skin_of(design.body, COARSE).sides[0]
    row = int(np.argmin(np.abs(sheet.x_mm[:, 0] - x_mm)))
    heights = sheet.middle_mm[row, [0, -1], 2]
    return np.column_stack([[_shown_at(design, layer, x_mm)] * 2, heights])


def _level(
    design: Design,
    layer: Layer,
    edge: str,
    says: str,
    stretch: tuple[float, float],
    pen: Pen,
    aside: float = 0.0,
) -> list[Node]:
    """An edge round the body: its line along the stretch, and its handle in the middle, or beside it."""
    anchors, sheet = anchors_on(design), skin_of(design.body, COARSE).sides[0]
    place, x_mm = getattr(layer.place, edge), sum(stretch) / 2

    def share(x: float) -> float:
        return anchors.round_share(place, float(np.interp(x, sheet.x_mm[:, 0], sheet.girth_mm[:, 0])))

    here = share(x_mm)
    along = np.linspace(min(stretch), max(stretch), 25)
    line = np.array(
        [(_shown_at(design, layer, float(x)), height_on(design, float(x), share(float(x)))) for x in along]
    )
    z, step = height_on(design, x_mm, here), 0.04
    low, high = max(here - step, 0.0), min(here + step, 1.0)
    fall = height_on(design, x_mm, low) - height_on(design, x_mm, high)
    pull = Pull(
        f"layers.{layer.key}.place.{edge}.at_percent",
        place.at_percent,
        place.at_percent - 100.0 * here,
        place.at_percent + 100.0 * (1.0 - here),
        f"{layer.name}, {says}, of the way from back to keel",
        axis="y",
        factor=100.0 * (high - low) / max(fall, 0.2),
        quantity="percent",
    )
    return [_line(line, pen), parts.grip(_shown_at(design, layer, x_mm) + aside, -z, pen, pull)]


def _lone(design: Design, layer: Layer, pen: Pen) -> list[Node]:
    """The place of a lone mark: along, round, and how large it is."""
    body, place = design.body, layer.place
    anchors, sheet = anchors_on(design), skin_of(body, COARSE).sides[0]
    x = anchors.x_mm(place.begins, body.length_mm)
    girth = float(np.interp(x, sheet.x_mm[:, 0], sheet.girth_mm[:, 0]))
    z = height_on(design, x, anchors.round_share(place.top, girth))
    radius = (place.size_percent / 100.0 * body.depth_mm + place.size_mm) / 2
    half = radius * lettering.width(place.words) if place.shape == LETTERS else radius
    beside, seen = half + 7 * pen.mm, _shown_at(design, layer, x)
    at = place.begins.at_percent
    along = Pull(
        f"layers.{layer.key}.place.begins.at_percent",
        at,
        at - 100.0 * x / body.length_mm,
        at + 100.0 * (body.length_mm - x) / body.length_mm,
        f"{layer.name}, place along the body",
        factor=_way(layer) * 100.0 / body.length_mm,
        quantity="percent",
    )
    size = Pull(
        f"layers.{layer.key}.place.size_percent",
        place.size_percent,
        1.0,
        200.0,
        f"{layer.name}, size, of the depth",
        factor=200.0 / body.depth_mm,
        quantity="percent",
    )
    return [
        parts.grip(seen, -z - radius - 9 * pen.mm, pen, along),
        *_level(design, layer, "top", "how far round", (x, x), pen, -beside)[1:],
        parts.grip(seen + beside, -z, pen, size, (18.0, 5.0)),
    ]
