"""A body in its layers: the painted skin seen square from a side, cut clean along the outline."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lamsik.core.paints import lettering
from lamsik.core.paints.dressed import anchors_on
from lamsik.core.paints.layers import Layer, layers_upto
from lamsik.core.paints.look import looks
from lamsik.core.paints.paint import LEFT, RIGHT
from lamsik.core.paints.place import LETTERS, Anchors
from lamsik.core.paints.roles import FITTED
from lamsik.core.paints.skin import COARSE, FINE, skin_of
from lamsik.core.paints.views import view
from lamsik.core.shapes.body import Body, side_outline, top_outline
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.drawings.cuts import joints_side
from lamsik.drawings.ink import INK, WOOD, Pen
from lamsik.drawings.raster import QUALITY, image
from lamsik.drawings.svg import Node, group, label, node, path


@dataclass(frozen=True)
class Detail:
    """How closely a picture is painted: cells of the skin, pixels to the millimetre, quality of 100."""

    cells: tuple[int, int]
    per_mm: float
    quality: int


SKETCHED = Detail((64, 24), 2.5, 60)
"""While a handle moves: gone in a moment."""
PLAIN = Detail(COARSE, 4.0, QUALITY)
"""Among other things, and in lists."""
CLOSE = Detail(FINE, 8.0, QUALITY)
"""Where the paint is what is looked at."""
BENT = 4
"""Into so many pieces a stroke of a letter is bent between two of its points."""


def painted(
    design: Design,
    pen: Pen,
    name: str = "body",
    upto: str | None = None,
    side: str = LEFT,
    detail: Detail = PLAIN,
) -> Node:
    """A side of the body with its layers in order, clipped to the silhouette, nose to the left; `upto` stops
    after a layer.
    """
    outline = path(side_outline(design.body))
    layers = layers_upto(design.layers, upto)
    content = [node("path", d=outline, fill=WOOD)]
    if layers:
        unwritten = tuple(one for one in layers if not _is_written(one))
        content.append(_picture(design, unwritten, side, detail))
        content += [*eyes(design, layers, side), *letters(design, layers, side)]
    rim = node("path", d=outline, fill="none", stroke=INK, stroke_width=1.6 * pen.mm, stroke_linejoin="round")
    return group(
        [
            node("defs", node("clipPath", node("path", d=outline), id=f"{name}-clip")),
            group(content, clip_path=f"url(#{name}-clip)"),
            rim,
            *joints_side(design, pen),
        ]
    )


def seen_from(
    design: Design, pen: Pen, side: str, name: str, upto: str | None = None, detail: Detail = PLAIN
) -> Node:
    """The body from its back or its belly in its layers, cut along its plan."""
    outline = path(top_outline(design.body))
    content = [node("path", d=outline, fill=WOOD)]
    layers = layers_upto(design.layers, upto)
    if layers:
        content.append(_picture(design, layers, side, detail))
    rim = node("path", d=outline, fill="none", stroke=INK, stroke_width=1.6 * pen.mm, stroke_linejoin="round")
    clip = node("defs", node("clipPath", node("path", d=outline), id=f"{name}-clip"))
    return group([clip, group(content, clip_path=f"url(#{name}-clip)"), rim])


MOST_KEPT = 384
"""Pictures of sides that are kept, a few kB each: those of a day's work."""


def _picture(design: Design, layers: tuple[Layer, ...], side: str, detail: Detail) -> Node:
    shown = _kept(design.body, layers, anchors_on(design), side, detail)
    if side == RIGHT:  # its drawing is turned round as a whole
        return group([shown], transform=f"translate({design.body.length_mm:.2f} 0) scale(-1 1)")
    return shown


@lru_cache(maxsize=MOST_KEPT)
def _kept(body: Body, layers: tuple[Layer, ...], anchors: Anchors, side: str, detail: Detail) -> Node:
    """The picture of a side, kept by all that it shows."""
    looked = looks(layers, body, anchors, detail.cells)
    return image(view(side, skin_of(body, detail.cells), looked, detail.per_mm), detail.quality)


def eyes(design: Design, layers: Sequence[Layer], side: str) -> list[Node]:
    """Rim, pupil and glint of each eye on a side, sharp at any size."""
    circles: list[Node] = []
    for layer in layers:
        if layer.does == FITTED and layer.place.shape == "disc" and layer.place.is_on(side):
            x, z = place_on(design, layer, side)
            radius = (layer.place.size_share * design.body.depth_mm + layer.place.size_mm) / 2
            circles += [
                node("circle", cx=x, cy=-z, r=radius, fill="none", stroke=INK, stroke_width=radius * 0.14),
                node("circle", cx=x, cy=-z, r=radius * 0.48, fill="#0B141D"),
                node("circle", cx=x - radius * 0.3, cy=-z - radius * 0.3, r=radius * 0.16, fill="#FFFFFF"),
            ]
    return circles


def letters(design: Design, layers: Sequence[Layer], side: str) -> list[Node]:
    """What is lettered on a side, to be read from it, sharp at any size."""
    lines = []
    for layer in layers:
        if _is_written(layer) and layer.place.is_on(side):
            words, colour = layer.place.words, layer.paint.colour
            size = layer.place.size_share * design.body.depth_mm + layer.place.size_mm
            if not lettering.can_write(words):
                lines.append(_typed(design, layer, side, size))
                continue
            rows = _on_skin(design, layer, side, size)
            lines.append(
                node(
                    "path",
                    node("title", words),
                    d=" ".join(path(one, close=False) for one in rows),
                    fill="none",
                    stroke=colour,
                    stroke_width=lettering.STROKE * size,
                    stroke_linecap="round",
                    stroke_linejoin="round",
                )
            )
    return lines


def _typed(design: Design, layer: Layer, side: str, size_mm: float) -> Node:
    """Words that there are no strokes for, in type, flat where they lie."""
    x, z = place_on(design, layer, side)
    turned = f"translate({x:.2f} {-z:.2f})" + (" scale(-1 1)" if side == RIGHT else "")
    at = {"text_anchor": "middle", "transform": turned}
    return label(layer.place.words, 0, 0.36 * size_mm, size_mm, fill=layer.paint.colour, **at)


def _on_skin(design: Design, layer: Layer, side: str, size_mm: float) -> list[Array]:
    """The strokes of words as they lie round the body, points (x, z) of a flank [mm]."""
    sheet = skin_of(design.body, COARSE).sides[0 if side == LEFT else 1]
    at = anchors_on(design).x_mm(layer.place.begins, design.body.length_mm)
    share, read = _share(design, layer, at), -1.0 if side == RIGHT else 1.0
    rows = []
    for stroke in lettering.strokes(layer.place.words):
        fine = np.linspace(0.0, len(stroke) - 1.0, 1 + BENT * (len(stroke) - 1))
        along, up = (size_mm * np.interp(fine, np.arange(len(stroke)), stroke[:, n]) for n in (0, 1))
        x = at + read * along
        girth = np.interp(x, sheet.x_mm[:, 0], sheet.girth_mm[:, 0])
        round_share = np.clip(share - up / np.maximum(girth, 1e-6), 0.0, 1.0)
        z = [height_on(design, float(one), float(way), side) for one, way in zip(x, round_share, strict=True)]
        rows.append(np.column_stack([x, z]))
    return rows


def _is_written(layer: Layer) -> bool:
    """Whether a drawing of a flank writes it itself."""
    return layer.place.shape == LETTERS and bool(layer.place.words)


def place_on(design: Design, layer: Layer, side: str = LEFT) -> tuple[float, float]:
    """Where on a flank a layer's own place is, seen square from that side: x and z [mm]."""
    anchors = anchors_on(design)
    x = anchors.x_mm(layer.place.begins, design.body.length_mm)
    return x, height_on(design, x, _share(design, layer, x), side)


def _share(design: Design, layer: Layer, x_mm: float) -> float:
    sheet = skin_of(design.body, COARSE).sides[0]
    girth = float(np.interp(x_mm, sheet.x_mm[:, 0], sheet.girth_mm[:, 0]))
    return anchors_on(design).round_share(layer.place.top, girth)


def height_on(design: Design, x_mm: float, share: float, side: str = LEFT) -> float:
    """How high the skin is at a station and a share of the way round from the back, z [mm]."""
    sheet = skin_of(design.body, COARSE).sides[0 if side == LEFT else 1]
    row = int(np.argmin(np.abs(sheet.x_mm[:, 0] - x_mm)))
    heights = sheet.middle_mm[row, :, 2]
    return float(np.interp(share, sheet.round_share[0], heights))
