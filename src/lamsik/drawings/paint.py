"""A scheme's layers on the side silhouette."""

from collections.abc import Callable
from dataclasses import dataclass

from lamsik.core.paints import layout
from lamsik.core.paints.layers import KINDS, Layer
from lamsik.core.paints.paint import LEFT
from lamsik.core.shapes.body import Body, side_outline
from lamsik.core.shapes.design import Design
from lamsik.drawings.cuts import joints_side
from lamsik.drawings.ink import INK, WOOD, Pen
from lamsik.drawings.svg import Node, group, node, path


def painted(design: Design, pen: Pen, name: str = "body", upto: str | None = None, side: str = LEFT) -> Node:
    """A side of the body with its layers in order, clipped to the silhouette, nose to the left; `upto` stops
    after a layer.
    """
    outline = path(side_outline(design.body))
    layers: list[Node] = [node("path", d=outline, fill=WOOD)]
    definitions: list[Node] = [node("clipPath", node("path", d=outline), id=f"{name}-clip")]
    for layer in design.layers:
        if layer.place.is_on(side):
            on = _On(design.body, outline, f"{name}-{layer.key}")
            definitions += _defined(on, layer)
            layers += DRAWN[layer.kind].layer(on, layer)
        if layer.key == upto:
            break
    rim = node("path", d=outline, fill="none", stroke=INK, stroke_width=1.6 * pen.mm, stroke_linejoin="round")
    return group(
        [
            node("defs", *definitions),
            group(layers, clip_path=f"url(#{name}-clip)"),
            rim,
            *joints_side(design, pen),
        ]
    )


@dataclass(frozen=True)
class _On:
    """What a layer is drawn on: the body, its outline as a path, the name of what the layer has defined."""

    body: Body
    outline: str
    name: str


def _flat(opacity: float) -> Callable[[_On, Layer], list[Node]]:
    return lambda on, layer: [node("path", d=on.outline, fill=layer.paint.colour, opacity=opacity)]


def _shaded(on: _On, layer: Layer) -> list[Node]:
    return [node("path", d=on.outline, fill=f"url(#{on.name})")]


def _bars(on: _On, layer: Layer) -> list[Node]:
    colour, bars = layer.paint.colour, layout.bars(on.body, layer)
    return _marks(on, layer, [node("path", d=path(bar), fill=colour, opacity=0.82) for bar in bars])


def _spots(on: _On, layer: Layer) -> list[Node]:
    colour = layer.paint.colour
    spots = [
        node("circle", cx=s.x_mm, cy=-s.z_mm, r=s.radius_mm, fill=colour, opacity=0.85)
        for s in layout.spots(on.body, layer)
    ]
    return _marks(on, layer, spots)


def _marks(on: _On, layer: Layer, marks: list[Node]) -> list[Node]:
    """Marks, soft where their rim is."""
    return [group(marks, filter=f"url(#{on.name})")] if layer.place.edge_share else marks


def _eye(on: _On, layer: Layer) -> list[Node]:
    at = layout.eye(on.body, layer)
    return [
        node(
            "circle",
            cx=at.x_mm,
            cy=-at.z_mm,
            r=at.radius_mm,
            fill=layer.paint.colour,
            stroke=INK,
            stroke_width=at.radius_mm * 0.14,
        ),
        node("circle", cx=at.x_mm, cy=-at.z_mm, r=at.radius_mm * 0.48, fill="#0B141D"),
        node(
            "circle",
            cx=at.x_mm - at.radius_mm * 0.3,
            cy=-at.z_mm - at.radius_mm * 0.3,
            r=at.radius_mm * 0.16,
            fill="#FFFFFF",
        ),
    ]


Stops = tuple[tuple[float, str, float], ...]
SOFT_OF_DEPTH = 0.08
"""How far the softest mark runs out, one sigma, as a share of the depth."""


def _fading(layer: Layer) -> Stops:
    """Full at the back; from where its rim begins to where it ends it thins out."""
    reach, colour = max(layer.place.reach_share, 0.05), layer.paint.colour
    begins = reach * (1.0 - layer.place.edge_share)
    return ((0.0, colour, 1.0), (begins, colour, 0.85), (reach, colour, 0.0))


def _shine(layer: Layer) -> Stops:
    return ((0.0, "#FFFFFF", 0.0), (0.16, "#FFFFFF", 0.34), (0.3, "#FFFFFF", 0.0))


@dataclass(frozen=True)
class Drawn:
    """How a kind of layer is drawn, and the shading it is filled with, from the back down."""

    layer: Callable[[_On, Layer], list[Node]]
    stops: Callable[[Layer], Stops] | None = None


def _defined(on: _On, layer: Layer) -> list[Node]:
    """The shading of a layer, or the softness of its marks, under its name."""
    stops = DRAWN[layer.kind].stops
    if stops is not None:
        children = [
            node("stop", offset=offset, stop_color=colour, stop_opacity=opacity)
            for offset, colour, opacity in stops(layer)
        ]
        return [node("linearGradient", *children, id=on.name, x1=0, y1=0, x2=0, y2=1)]
    if KINDS[layer.kind].is_counted and layer.place.edge_share:
        soft_mm = SOFT_OF_DEPTH * layer.place.edge_share * on.body.depth_mm
        return [node("filter", node("feGaussianBlur", stdDeviation=soft_mm), id=on.name)]
    return []


DRAWN = {
    "seal": Drawn(_flat(0.25)),
    "primer": Drawn(_flat(1.0)),
    "base": Drawn(_flat(1.0)),
    "fade": Drawn(_shaded, _fading),
    "bars": Drawn(_bars),
    "spots": Drawn(_spots),
    "eyes": Drawn(_eye),
    "clear": Drawn(_shaded, _shine),
}
"""By kind of layer (see `core/paints/layers`)."""
