"""The sentences of a scheme: how long it takes, and what is wrong with where a layer lies."""

from collections.abc import Sequence

from lamsik.core.paints.layers import (
    HIDES,
    NO_GROUND,
    NOT_COVERED,
    ON_CLEAR,
    SEALS_PAINT,
    Layer,
    Warned,
    warned,
)
from lamsik.core.quantities import said

SAYS = {
    SEALS_PAINT: "{layer} lies over {other}: it closes the paint in, not the body. Move it under the paint.",
    HIDES: "{layer} covers {other}: little of that colour is left to be seen. Move it under the colours.",
    ON_CLEAR: "{layer} goes on {other}: scuff the clear first, or move it under the clear.",
    NO_GROUND: "{layer} lies under {other}: it has no ground to hold on to. Move the ground under it.",
    NOT_COVERED: (
        "{layer} come after the last clear: flat stickers lift there. Glue domed ones, or move them under it."
    ),
}
"""By what is wrong."""


FIELDS = {
    "paint.colour": "colour",
    "place.cover_share": "share",
    "place.reach_share": "reach",
    "place.count": "how many",
    "place.edge_share": "edge",
    "place.side": "side",
    "film_um": "film",
    "wait_h": "wait",
    "window_h": "longest wait",
    "mass_g": "mass",
}
"""What a field of a layer is called; others by their own name."""


def fields(names: Sequence[str]) -> str:
    """Fields of a layer in words."""
    return ", ".join(FIELDS.get(name, name) for name in names)


def warnings(layers: Sequence[Layer]) -> list[tuple[Warned, str]]:
    """Each finding of `warned` in its order with its sentence: what is wrong, and what helps."""
    names = {layer.key: layer.name for layer in layers}
    return [
        (one, SAYS[one.name].format(layer=names[one.layer], other=names.get(one.other, "")))
        for one in warned(layers)
    ]


def sentence(layers: Sequence[Layer]) -> str:
    """How many layers, and how long they take."""
    if not layers:
        return "No layer yet: add the first."
    hours, count = sum(layer.wait_h for layer in layers), len(layers)
    return (
        f"{count} {'layer' if count == 1 else 'layers'}, {said(hours, 'time', 0)} of waiting until it"
        " is cured."
    )
