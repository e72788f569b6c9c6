"""The kinds of layer that a scheme is made of, registered by name: what each does, how a new one begins.

A kind more is one line here and its drawing in `drawings/paint.py`; schemes, weights, routes and what a body
lacks ask the kind and know no names.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

SEALS, GROUNDS, COLOURS, FITTED, CLEARS = "seals", "grounds", "colours", "fitted", "clears"
"""What a layer does: closes the body, gives paint a hold, is the pattern, is a bought part, protects all."""


@dataclass(frozen=True)
class LayerKind:
    """A kind of layer: what it does, whether it is drawn in a number of pieces, what a new one begins with
    (every figure is the maker's to change).
    """

    name: str
    does: str
    is_counted: bool = False
    start: Mapping[str, Any] = field(default_factory=dict, hash=False)


def _known(*kinds: LayerKind) -> dict[str, LayerKind]:
    return {kind.name: kind for kind in kinds}


KINDS = _known(
    LayerKind(
        "seal",
        SEALS,
        start={
            "name": "Seal, thinned epoxy",
            "colour": "#D9C08C",
            "film_um": 35.0,
            "density_g_cm3": 1.12,
            "wait_h": 12.0,
            "caution": "epoxy",
        },
    ),
    LayerKind(
        "primer",
        GROUNDS,
        start={
            "name": "White primer",
            "colour": "#F4F2EC",
            "film_um": 30.0,
            "density_g_cm3": 1.45,
            "wait_h": 2.0,
        },
    ),
    LayerKind("base", COLOURS, start={"name": "Base", "colour": "#D8DEE0", "film_um": 15.0, "wait_h": 1.0}),
    LayerKind(
        "fade",
        COLOURS,
        start={
            "name": "Back fade",
            "colour": "#3B5B45",
            "film_um": 12.0,
            "cover_share": 0.5,
            "reach_share": 0.55,
            "wait_h": 1.0,
        },
    ),
    LayerKind(
        "bars",
        COLOURS,
        is_counted=True,
        start={
            "name": "Bars",
            "colour": "#22332B",
            "film_um": 10.0,
            "cover_share": 0.2,
            "reach_share": 0.6,
            "count": 7,
            "wait_h": 1.0,
        },
    ),
    LayerKind(
        "spots",
        COLOURS,
        is_counted=True,
        start={
            "name": "Spots",
            "colour": "#A8281E",
            "film_um": 10.0,
            "cover_share": 0.08,
            "count": 9,
            "wait_h": 1.0,
        },
    ),
    LayerKind(
        "eyes",
        FITTED,
        start={
            "name": "Eyes, 5 mm",
            "colour": "#E8C33A",
            "film_um": 0.0,
            "density_g_cm3": 1.3,
            "mass_g": 0.06,
            "reach_share": 0.26,
            "wait_h": 0.0,
            "caution": "",
        },
    ),
    LayerKind(
        "clear",
        CLEARS,
        start={
            "name": "Clear, slow epoxy",
            "colour": "#FFFFFF",
            "film_um": 120.0,
            "density_g_cm3": 1.12,
            "wait_h": 24.0,
            "window_h": 36.0,
            "caution": "epoxy",
        },
    ),
)
"""By name, in the order they usually lie."""
