"""What is wrong with where a layer lies among the others: opaque over foil, bright colours without white."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from lamsik.core.paints.roles import CLEARS, COLOURS, GROUNDS

if TYPE_CHECKING:
    from lamsik.core.paints.layers import Layer

SEALS_PAINT, HIDES, ON_CLEAR, NO_GROUND, NOT_COVERED, ON_FOIL, NO_WHITE, BARE_WOOD = (
    "seals_paint",
    "hides",
    "on_clear",
    "no_ground",
    "not_covered",
    "on_foil",
    "no_white",
    "bare_wood",
)
"""What can be wrong with the place of a layer among the others."""


@dataclass(frozen=True)
class Warned:
    """A finding about a layer: which of the above, the layer's key, and the key of the other it is about."""

    name: str
    layer: str
    other: str = ""


Others = Sequence["Layer"]


def closes_in(layer: "Layer", under: Others, over: Others) -> Iterator[Warned]:
    """A seal over paint."""
    painted = [one for one in under if one.does in (GROUNDS, COLOURS)]
    if painted:
        yield Warned(SEALS_PAINT, layer.key, painted[-1].key)


def hides(layer: "Layer", under: Others, over: Others) -> Iterator[Warned]:
    """A ground over colours."""
    yield from on_clear(layer, under, over)
    colours = [one for one in under if one.does == COLOURS]
    if colours and layer.covers_all:
        yield Warned(HIDES, layer.key, colours[-1].key)


def on_clear(layer: "Layer", under: Others, over: Others) -> Iterator[Warned]:
    """Paint over a clear."""
    clears = [one for one in under if one.does == CLEARS]
    if clears:
        yield Warned(ON_CLEAR, layer.key, clears[-1].key)


def grounded(layer: "Layer", under: Others, over: Others) -> Iterator[Warned]:
    """A colour without what it needs under it, or over what it hides."""
    yield from on_clear(layer, under, over)
    late = [one for one in over if one.does == GROUNDS]
    if late and not any(one.does == GROUNDS for one in under):
        yield Warned(NO_GROUND, layer.key, late[0].key)
    yield from _shows_foil(layer, under)
    if layer.paint.of.wants_white and not any(one.is_white or one.paint.kind == "foil" for one in under):
        yield Warned(NO_WHITE, layer.key)
    if layer.paint.of.is_open and not under and layer.paint.kind != "clear":
        yield Warned(BARE_WOOD, layer.key)


def _shows_foil(layer: "Layer", under: Others) -> Iterator[Warned]:
    foils = [one for one in under if one.kind == "foil"]
    if foils and layer.covers_all and not layer.paint.of.is_open:
        yield Warned(ON_FOIL, layer.key, foils[-1].key)


def sealed_in(layer: "Layer", under: Others, over: Others) -> Iterator[Warned]:
    """A bought part that no clear holds."""
    if any(one.does == CLEARS for one in under) and not any(one.does == CLEARS for one in over):
        yield Warned(NOT_COVERED, layer.key)
