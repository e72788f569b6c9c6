"""A scheme on a body as files: four views as a picture at true size, its layers as named outlines."""

import numpy as np
from skimage.measure import find_contours

from lamsik.core.paints.dressed import anchors_on
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.look import looks
from lamsik.core.paints.masks import mask
from lamsik.core.paints.paint import BOTH, LEFT, RIGHT
from lamsik.core.paints.skin import CLOSE, FINE, SkinSheet, skin_of
from lamsik.core.paints.views import VIEWS, view
from lamsik.core.shapes.body import side_outline
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.drawings.ink import INK
from lamsik.drawings.raster import MM_PER_INCH, png
from lamsik.drawings.svg import Node, node, path

PER_INCH, MOST_POINTS = 300.0, 6e6
"""Points to the inch, and how many a view may have: more take long and much room."""
HALF = 0.5
"""A layer's outline runs where it covers half."""
MARGIN_MM = 4.0


def picture(design: Design) -> bytes:
    """Four views of a design in its layers at true size, as PNG: 300 points to the inch, of very large bodies
    fewer.
    """
    anchors, body = anchors_on(design), design.body
    skin, painted = skin_of(body, CLOSE), looks(design.layers, body, anchors, CLOSE)
    most = (MOST_POINTS / (body.length_mm * max(body.depth_mm, body.width_mm))) ** 0.5 * MM_PER_INCH
    per_inch = min(PER_INCH, float(int(most)))
    return png([view(side, skin, painted, per_inch / MM_PER_INCH) for side in VIEWS], per_inch)


def outlines_of(design: Design, layer: Layer, side: str = LEFT) -> list[Array]:
    """Where a layer ends on a flank, closed outlines (n, 2) of points (x, z) [mm]."""
    skin = skin_of(design.body, FINE)
    sheet = skin.sides[0 if side == LEFT else 1]
    cover = mask(layer.place, skin, anchors_on(design)).get(sheet.name)
    if cover is None:
        return []
    level = HALF * float(cover.max())
    contours = find_contours(np.pad(cover, 1), level) if level > 0 else []  # type: ignore[no-untyped-call]
    return [_flat(sheet, outline - 1.0) for outline in contours if len(outline) > 3]


def _flat(sheet: SkinSheet, outline: Array) -> Array:
    """Places among the middles of cells as points of the flank."""
    m, n = sheet.area_mm2.shape
    rows, columns = (np.clip(outline[:, k] + 0.5, 0.0, size) for k, size in ((0, m), (1, n)))
    low, left = np.minimum(rows.astype(int), m - 1), np.minimum(columns.astype(int), n - 1)
    down, along = (rows - low)[:, None], (columns - left)[:, None]
    corners = sheet.corners
    first = corners[low, left] * (1.0 - along) + corners[low, left + 1] * along
    second = corners[low + 1, left] * (1.0 - along) + corners[low + 1, left + 1] * along
    return np.asarray((first * (1.0 - down) + second * down)[:, [0, 2]])


def layers_svg(design: Design) -> Node:
    """The flanks at true size, each layer a named group of its outlines; the right one where it differs."""
    outline = side_outline(design.body)
    high, low = float(outline[:, 1].max()), float(outline[:, 1].min())
    tall = high - low + 2 * MARGIN_MM
    sides = [LEFT] if all(one.place.side == BOTH for one in design.layers) else [LEFT, RIGHT]
    groups = []
    for number, side in enumerate(sides):
        body = node("path", d=path(outline), fill="none", stroke=INK, stroke_width=0.25)
        rows = [_group(design, layer, side) for layer in design.layers if layer.place.is_on(side)]
        moved = f"translate(0 {number * tall:.2f})"
        groups.append(node("g", node("title", side), *rows, body, id=side, transform=moved))
    wide, whole = design.body.length_mm + 2 * MARGIN_MM, tall * len(sides)
    return node(
        "svg",
        node("title", design.name),
        *groups,
        xmlns="http://www.w3.org/2000/svg",
        width=f"{wide:.2f}mm",
        height=f"{whole:.2f}mm",
        viewBox=f"{-MARGIN_MM:.2f} {-high - MARGIN_MM:.2f} {wide:.2f} {whole:.2f}",
    )


def _group(design: Design, layer: Layer, side: str) -> Node:
    d = " ".join(path(one) for one in outlines_of(design, layer, side))
    drawn = node(
        "path",
        d=d,
        fill=layer.paint.colour,
        fill_opacity=round(layer.paint.covering_share, 2),
        fill_rule="evenodd",
        stroke=layer.paint.colour,
        stroke_width=0.1,
    )
    return node("g", node("title", layer.name), drawn, id=f"{side}-{layer.key}")
