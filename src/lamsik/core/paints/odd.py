"""What is wrong with where a layer lies among the others: what needs white under it, eyes too late."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from lamsik.core.paints.eyes import EYE_KINDS
from lamsik.core.paints.roles import CLEARS, COLOURS, GROUNDS, SEALS

if TYPE_CHECKING:
    from lamsik.core.paints.layers import Layer

SEALS_PAINT, HIDES, ON_CLEAR, NO_GROUND, NOT_COVERED, NO_WHITE, BARE_WOOD = (
    "seals_paint",
    "hides",
    "on_clear",
    "no_ground",
    "not_covered",
    "no_white",
    "bare_wood",
)
"""What can be wrong with the place of a layer among the others."""
RIM_GATHERS, SEAT_GLOSSY, EYES_LATE = "rim_gathers", "seat_glossy", "eyes_late"
"""What can be wrong with eyes: domed ones under a clear, or on one that is not scuffed; kept ones that do not
come first.
"""


@dataclass(frozen=True)
class Warned:
    """A finding about a layer: which it is, the layer's key, the key of the other it is about, and its
    figures by name, each as its quantity has it.
    """

    name: str
    layer: str
    other: str = ""
    figures: tuple[tuple[str, float, str], ...] = ()


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
    if layer.paint.of.wants_white and not any(one.is_white or one.paint.kind == "foil" for one in under):
        yield Warned(NO_WHITE, layer.key)
    held = any(one.does in (SEALS, GROUNDS) or not one.paint.of.is_open for one in under)
    if layer.paint.of.is_open and not held and layer.paint.kind != "clear":
        yield Warned(BARE_WOOD, layer.key)


def eyes_in_order(layer: "Layer", under: Others, over: Others) -> Iterator[Warned]:
    """Eyes that no clear holds, domed ones a clear runs round, kept ones that are masked too late."""
    kind, clears = EYE_KINDS[layer.eye], [one for one in under if one.does == CLEARS]
    if kind.must_be_under and clears and not any(one.does == CLEARS for one in over):
        yield Warned(NOT_COVERED, layer.key)
    if kind.is_there and under:
        yield Warned(EYES_LATE, layer.key, under[0].key)
    runs = next((one for one in over if one.does == CLEARS), None)
    if kind.has_rim and runs is not None:
        yield Warned(RIM_GATHERS, layer.key, runs.key)
    if kind.may_be_last and clears and runs is None and not clears[-1].scuff:
        yield Warned(SEAT_GLOSSY, layer.key, clears[-1].key)
