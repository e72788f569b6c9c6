"""What one body needs otherwise than its scheme says: kept beside the scheme, laid over it."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Any

from lamsik.core.errors import Refused
from lamsik.core.limits import Key, OneOf, held
from lamsik.core.paints.layers import Layer

LEFT_OUT, LIKE = "", "like"
"""Fields of adjustments that leave their layer out, or put one more on that is like the layer of that key."""
FIELDS = (
    LEFT_OUT,
    LIKE,
    "paint.colour",
    *(
        f"place.{end}.{name}"
        for end in ("begins", "ends", "top", "bottom")
        for name in ("at_percent", "more_mm")
    ),
    "place.count",
    "place.size_percent",
    "place.size_mm",
    "place.slant_deg",
    "place.cover_percent",
    "place.edge_percent",
    "place.side",
    "film_um",
    "passes",
    "wait_h",
    "window_h",
    "cure_h",
    "mass_g",
    "note",
    "intended",
    "by",
    "eye",
    "pressure_bar",
    "distance_mm",
)
"""What can be otherwise on one body."""


@dataclass(frozen=True)
class Adjustment:
    """A field of a layer that is otherwise on this body; the layer left out, its name as the value; or one
    more layer on top, like that of the key that is the value.
    """

    layer: Key
    field: Annotated[str, OneOf(FIELDS)] = LEFT_OUT
    value: float | int | str | None = None

    def __post_init__(self) -> None:
        held(self)


def resolved(scheme: Sequence[Layer], adjustments: Sequence[Adjustment]) -> tuple[Layer, ...]:
    """The layers of a scheme as they lie on a body. What is said of a layer that the scheme has no more, or
    what it cannot be by now, is passed over.
    """
    known = {layer.key: layer for layer in scheme}
    more = [
        replace(known[str(one.value)], key=one.layer)
        for one in adjustments
        if one.field == LIKE and str(one.value) in known and one.layer not in known
    ]
    layers = []
    for layer in (*scheme, *more):
        mine = [one for one in adjustments if one.layer == layer.key]
        if not any(one.field == LEFT_OUT for one in mine):
            for one in mine:
                layer = _with(layer, one)
            layers.append(layer)
    return tuple(layers)


def _with(layer: Layer, adjustment: Adjustment) -> Layer:
    if adjustment.field == LIKE:
        return layer
    try:
        changed: Layer = _replaced(layer, adjustment.field.split("."), adjustment.value)
    except Refused:
        return layer
    return changed


def _replaced(of: Any, path: Sequence[str], value: Any) -> Any:
    """A value with a field within it that is another."""
    name, *within = path
    changed = replace(of, **{name: _replaced(getattr(of, name), within, value) if within else value})
    return replace(changed, swatch=None, code="") if name == "colour" else changed
