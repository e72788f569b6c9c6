"""The sentences of a scheme: how long it takes, and what is wrong with where a layer lies."""

from collections.abc import Iterable, Sequence

from lamsik.core.paints.fitting import LACKS_ANCHOR, TOO_LARGE
from lamsik.core.paints.layers import Layer, warned
from lamsik.core.paints.odd import (
    BARE_WOOD,
    HIDES,
    NO_GROUND,
    NO_WHITE,
    NOT_COVERED,
    ON_CLEAR,
    ON_FOIL,
    SEALS_PAINT,
    Warned,
)
from lamsik.core.paints.waiting import waiting_h
from lamsik.core.quantities import said

SAYS = {
    SEALS_PAINT: "{layer} lies over {other}: it closes the paint in, not the body. Move it under the paint.",
    HIDES: "{layer} covers {other}: little of that colour is left to be seen. Move it under the colours.",
    ON_CLEAR: "{layer} goes on {other}: scuff the clear first, or move it under the clear.",
    NO_GROUND: "{layer} lies under {other}: it has no ground to hold on to. Move the ground under it.",
    NOT_COVERED: (
        "{layer} come after the last clear: flat stickers lift there. Glue domed ones, or move them under it."
    ),
    ON_FOIL: (
        "{layer} covers the foil ({other}) and hides its shine: take a transparent or candy paint there,"
        " leave the flank out, or lay the foil over it."
    ),
    NO_WHITE: "{layer} is dull without white under it: put a white ground or foil under it.",
    LACKS_ANCHOR: (
        "{layer} is placed from the {other}, which this body has not: it lies about the middle. Place it from"
        " the nose, the eye or the tail."
    ),
    TOO_LARGE: "{layer} is larger than this body: most of it lies beside. Make it smaller.",
    BARE_WOOD: "{layer} is see-through and lies on the bare body, which drinks it: seal the body first.",
}
"""By what is wrong."""


FIELDS = {
    "paint.colour": "colour",
    "place.begins.at_percent": "where it begins",
    "place.begins.more_mm": "where it begins",
    "place.ends.at_percent": "where it ends",
    "place.ends.more_mm": "where it ends",
    "place.top.at_percent": "upper edge",
    "place.top.more_mm": "upper edge",
    "place.bottom.at_percent": "lower edge",
    "place.bottom.more_mm": "lower edge",
    "place.count": "how many",
    "place.size_percent": "size",
    "place.size_mm": "size",
    "place.slant_deg": "slant",
    "place.cover_percent": "covers",
    "place.edge_percent": "soft edge",
    "place.side": "side",
    "film_um": "film",
    "wait_h": "wait",
    "window_h": "longest wait",
    "cure_h": "cure",
    "mass_g": "mass",
}
"""What a field of a layer is called; others by their own name."""

KINDS = {
    "seal": "seal",
    "primer": "primer",
    "foil": "foil",
    "base": "base",
    "powder": "powder",
    "wrap": "cloth wrap",
    "fade": "fade",
    "band": "band",
    "net": "scale net",
    "bars": "bars",
    "spots": "spots",
    "veins": "veins",
    "splatter": "splatter",
    "stencil": "stencil",
    "gill": "gill",
    "fin": "fin",
    "lettering": "lettering",
    "glitter": "glitter",
    "eyes": "eyes",
    "clear": "clear",
}
"""What a kind of layer is called."""

SHAPES = {
    "region": "a stretch of the body",
    "bars": "bars",
    "spots": "spots",
    "net": "through a net",
    "weave": "through a cloth",
    "veins": "veins",
    "splatter": "splatter",
    "stencil": "stencil",
    "disc": "a disc",
    "arc": "a stroke round",
    "letters": "letters",
}
"""What a shape of masks is called."""

PLACES = {
    "begins": "Begins",
    "ends": "Ends",
    "top": "Upper edge",
    "bottom": "Lower edge",
    "count": "How many",
    "size_percent": "Size, of the depth",
    "size_mm": "Size",
    "slant_deg": "Slant",
    "cover_percent": "Covers",
    "edge_percent": "Soft edge",
    "seed": "Throw",
    "outline": "Outline",
    "words": "Letters",
}
"""What a field of a place is called."""
OTHERWISE = {
    ("bars", "size_percent"): "Width, of their pitch",
    ("net", "size_mm"): "Mesh",
    ("weave", "size_mm"): "Threads apart",
    ("disc", "begins"): "Along the body",
    ("arc", "begins"): "Along the body",
    ("letters", "begins"): "Along the body",
    ("disc", "top"): "Round from the back",
    ("arc", "top"): "Round from the back",
    ("letters", "top"): "Round from the back",
}
"""The same where a shape has a word of its own."""


def place_word(shape: str, name: str) -> str:
    """What a field of a place is called, of a layer in a shape."""
    return OTHERWISE.get((shape, name), PLACES[name])


def fields(names: Sequence[str]) -> str:
    """Fields of a layer in words."""
    return ", ".join(FIELDS.get(name, name) for name in names)


def warnings(layers: Sequence[Layer], on_body: Iterable[Warned] = ()) -> list[tuple[Warned, str]]:
    """Each finding of `warned`, and of `misfits` on a body, with its sentence: what is wrong, what helps."""
    names = {layer.key: layer.name for layer in layers}
    return [
        (one, SAYS[one.name].format(layer=names[one.layer], other=names.get(one.other, one.other)))
        for one in (*warned(layers), *on_body)
    ]


def sentence(layers: Sequence[Layer]) -> str:
    """How many layers, and how long they take."""
    if not layers:
        return "No layer yet: add the first."
    hours, count = waiting_h(layers), len(layers)
    return (
        f"{count} {'layer' if count == 1 else 'layers'}, {said(hours, 'time', 0)} of waiting until it"
        " is cured."
    )
