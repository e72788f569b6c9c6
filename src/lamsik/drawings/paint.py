"""A scheme's layers on the side silhouette."""

from collections.abc import Callable
from dataclasses import dataclass

from lamsik.core.paints import layout
from lamsik.core.paints.coats import Coat
from lamsik.core.shapes.body import Body, side_outline
from lamsik.core.shapes.design import Design
from lamsik.drawings.cuts import joints_side
from lamsik.drawings.ink import INK, WOOD, Pen
from lamsik.drawings.svg import Node, group, node, path


def painted(design: Design, pen: Pen, name: str = "body", upto: str | None = None) -> Node:
    """The body's side with its coats in order, clipped to the silhouette; `upto` stops after a coat."""
    outline = path(side_outline(design.body))
    layers: list[Node] = [node("path", d=outline, fill=WOOD)]
    definitions: list[Node] = [node("clipPath", node("path", d=outline), id=f"{name}-clip")]
    for coat in design.coats:
        drawn = DRAWN[coat.role]
        definitions += drawn.defines(coat, f"{name}-{coat.key}")
        layers += drawn.layer(_On(design.body, outline, f"{name}-{coat.key}"), coat)
        if coat.key == upto:
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


def _flat(opacity: float) -> Callable[[_On, Coat], list[Node]]:
    return lambda on, coat: [node("path", d=on.outline, fill=coat.colour, opacity=opacity)]


def _shaded(on: _On, coat: Coat) -> list[Node]:
    return [node("path", d=on.outline, fill=f"url(#{on.name})")]


def _bars(on: _On, coat: Coat) -> list[Node]:
    return [node("path", d=path(bar), fill=coat.colour, opacity=0.82) for bar in layout.bars(on.body, coat)]


def _spots(on: _On, coat: Coat) -> list[Node]:
    return [
        node("circle", cx=s.x_mm, cy=-s.z_mm, r=s.radius_mm, fill=coat.colour, opacity=0.85)
        for s in layout.spots(on.body, coat)
    ]


def _eye(on: _On, coat: Coat) -> list[Node]:
    at = layout.eye(on.body, coat)
    return [
        node(
            "circle",
            cx=at.x_mm,
            cy=-at.z_mm,
            r=at.radius_mm,
            fill=coat.colour,
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


def _fading(coat: Coat) -> Stops:
    reach = max(coat.reach_share, 0.05)
    return ((0.0, coat.colour, 1.0), (reach * 0.5, coat.colour, 0.85), (reach, coat.colour, 0.0))


def _shine(coat: Coat) -> Stops:
    return ((0.0, "#FFFFFF", 0.0), (0.16, "#FFFFFF", 0.34), (0.3, "#FFFFFF", 0.0))


@dataclass(frozen=True)
class Drawn:
    """How a kind of layer is drawn, and the shading it is filled with, from the back down."""

    layer: Callable[[_On, Coat], list[Node]]
    stops: Callable[[Coat], Stops] | None = None

    def defines(self, coat: Coat, name: str) -> list[Node]:
        """The shading under its name."""
        if self.stops is None:
            return []
        children = [
            node("stop", offset=offset, stop_color=colour, stop_opacity=opacity)
            for offset, colour, opacity in self.stops(coat)
        ]
        return [node("linearGradient", *children, id=name, x1=0, y1=0, x2=0, y2=1)]


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
