"""A match job: a scheme brought nearer to a sample; what of its layers changes, and what stays locked."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.core.paints.layers import Layer

PARTS = {
    "paint": ("paint",),
    "film": ("film_um", "passes", "mass_g"),
    "place": ("place",),
    "way": ("by", "pressure_bar", "distance_mm", "eye"),
    "waits": ("wait_h", "window_h", "cure_h", "scuff"),
    "name": ("name",),
    "note": ("note",),
}
"""What of a layer can change, as it is done, by the fields that say it."""
GONE, NEW = "gone", "new"


@dataclass(frozen=True)
class MatchJob:
    """What a scheme is being matched to, and its layers as they were."""

    to: str
    before: tuple[Layer, ...]


@dataclass(frozen=True)
class LayerChange:
    """A layer that is done otherwise than before: as it was (None of a new one), as it is (None of one that
    is gone), and which parts of it changed.
    """

    was: Layer | None
    now: Layer | None
    parts: tuple[str, ...]


def changes(before: Sequence[Layer], after: Sequence[Layer]) -> tuple[LayerChange, ...]:
    """What is done otherwise, in the order the layers go on; what is gone comes last."""
    was, now = {one.key: one for one in before}, {one.key: one for one in after}
    rows = []
    for layer in after:
        old = was.get(layer.key)
        parts = (NEW,) if old is None else _parts(old, layer)
        if parts:
            rows.append(LayerChange(old, layer, parts))
    gone = [LayerChange(one, None, (GONE,)) for one in before if one.key not in now]
    return (*rows, *gone)


def _parts(was: Layer, now: Layer) -> tuple[str, ...]:
    return tuple(
        part
        for part, names in PARTS.items()
        if any(getattr(was, name) != getattr(now, name) for name in names)
    )
