"""A scheme's layers on the side silhouette."""

from lamsik.core.paints import layout
from lamsik.core.paints.coats import Coat
from lamsik.core.shapes.body import side_outline
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
        definitions += _gradients(design, coat, name)
        layers += _layer(design, coat, outline, name)
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


def _layer(design: Design, coat: Coat, outline: str, name: str) -> list[Node]:
    body = design.body
    if coat.role == "fade":
        return [node("path", d=outline, fill=f"url(#{name}-{coat.key})")]
    if coat.role == "bars":
        return [node("path", d=path(bar), fill=coat.colour, opacity=0.82) for bar in layout.bars(body, coat)]
    if coat.role == "spots":
        return [
            node("circle", cx=s.x_mm, cy=-s.z_mm, r=s.radius_mm, fill=coat.colour, opacity=0.85)
            for s in layout.spots(body, coat)
        ]
    if coat.role == "eyes":
        return _eye(layout.eye(body, coat), coat)
    if coat.role == "clear":
        return [node("path", d=outline, fill=f"url(#{name}-{coat.key})")]
    opacity = {"seal": 0.25, "primer": 1.0, "base": 1.0}[coat.role]
    return [node("path", d=outline, fill=coat.colour, opacity=opacity)]


def _eye(at: layout.PaintSpot, coat: Coat) -> list[Node]:
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


def _gradients(design: Design, coat: Coat, name: str) -> list[Node]:
    if coat.role == "fade":
        reach = max(coat.reach_share, 0.05)
        stops = ((0.0, coat.colour, 1.0), (reach * 0.5, coat.colour, 0.85), (reach, coat.colour, 0.0))
    elif coat.role == "clear":
        stops = ((0.0, "#FFFFFF", 0.0), (0.16, "#FFFFFF", 0.34), (0.3, "#FFFFFF", 0.0))
    else:
        return []
    children = [
        node("stop", offset=offset, stop_color=colour, stop_opacity=opacity)
        for offset, colour, opacity in stops
    ]
    return [node("linearGradient", *children, id=f"{name}-{coat.key}", x1=0, y1=0, x2=0, y2=1)]
