"""SVG as plain values: nodes that the page renders, the browser rebuilds, and print embeds."""

from collections.abc import Callable, Iterable
from typing import Any

import numpy as np
from markupsafe import Markup, escape

Node = dict[str, Any]


def node(tag: str, *children: "Node | str", **attributes: object) -> Node:
    """An SVG element; `fill_opacity=…` becomes `fill-opacity`, None is left out."""
    kept = {
        name.rstrip("_").replace("_", "-"): _text(value)
        for name, value in attributes.items()
        if value is not None
    }
    return {"tag": tag, "attrs": kept, "children": list(children)}


def _text(value: object) -> str:
    if isinstance(value, float | np.floating):
        return f"{value:.3f}".rstrip("0").rstrip(".")
    return str(value)


def markup(root: "Node | str") -> Markup:
    """The node as SVG text; every attribute and text escaped."""
    parts: list[str] = []
    _write(root, parts.append)
    return Markup("".join(parts))


def _write(root: "Node | str", put: Callable[[str], None]) -> None:
    if isinstance(root, str):
        put(escape(root))
        return
    put(f"<{root['tag']}")
    for name, value in root["attrs"].items():
        put(f' {name}="{escape(value)}"')
    put(">")
    for child in root["children"]:
        _write(child, put)
    put(f"</{root['tag']}>")


def path(points: Iterable[Iterable[float]], close: bool = True) -> str:
    """Path data through (x, z) points; z upward becomes SVG's y downward."""
    parts = [f"{x:.2f} {-z:.2f}" for x, z in points]
    return f"M{' L'.join(parts)}{'Z' if close else ''}"


def group(children: Iterable[Node], **attributes: object) -> Node:
    """A `<g>` of nodes."""
    return node("g", *children, **attributes)


def framed(
    content: list[Node], x: float, y: float, width: float, height: float, title: str, role: str = "img"
) -> Node:
    """The drawing with its title; one without a title stands beside its name and is hidden from screen
    readers. One with handles is a group of them.
    """
    named = {"role": role, "aria_label": title} if title else {"aria_hidden": "true"}
    box = f"{x:.2f} {y:.2f} {width:.2f} {height:.2f}"
    titles = [node("title", title)] if title else []
    return node(
        "svg",
        *titles,
        *content,
        viewBox=box,
        **named,
        xmlns="http://www.w3.org/2000/svg",
        preserveAspectRatio="xMidYMid meet",
    )


def label(text: str, x: float, y: float, size: float, **attributes: object) -> Node:
    """A text in the reading face; x, y in SVG coordinates."""
    settings: dict[str, object] = {
        "font_family": "Print Reading, Spline Sans Mono Variable, monospace",
        "fill": "#16283A",
        **attributes,
    }
    return node("text", text, x=x, y=y, font_size=size, **settings)
