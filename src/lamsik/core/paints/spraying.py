"""What a painter does of each layer on a body: how it goes on, how much paint that takes, what follows."""

from collections.abc import Mapping
from dataclasses import dataclass

from lamsik.core.paints.dressed import layers_on
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.paint import Paint
from lamsik.core.paints.roles import BRUSHED, DIPPED, DUSTED, SPRAYED
from lamsik.core.paints.waiting import waits_h
from lamsik.core.shapes.design import Design

STAYS_SHARE = {SPRAYED: 0.35, BRUSHED: 0.9, DIPPED: 0.8, DUSTED: 0.5}
"""How much of what is taken out of the cup stays on the body: a guess to begin with. An airbrush on a small
round body sends most of its paint past it.
"""


@dataclass(frozen=True)
class Cup:
    """A layer as it is done on one body.

    Args:
        layer: which it is.
        area_mm2: what it takes of the body [mm²].
        dry_g: what stays of it [g].
        wet_ml: paint that it takes out of the cup, with what is lost [ml]; 0 of what is set on.
        wait_h, window_h: least and longest wait before the next [h].
    """

    layer: Layer
    area_mm2: float
    dry_g: float
    wet_ml: float
    wait_h: float
    window_h: float | None

    @property
    def needs_cup(self) -> bool:
        """Whether a brush is loaded for it and flushed after it."""
        return self.layer.by in STAYS_SHARE

    @property
    def paint_key(self) -> tuple[str, ...]:
        """What is done alike: the same paint put on in the same way; of what is set on, the same part."""
        layer, paint = self.layer, self.layer.paint
        if not self.needs_cup:
            return (layer.by, layer.kind, layer.name)
        return (layer.by, paint.name, paint.colour.upper(), paint.kind, paint.chemistry)


def wet_ml(dry_ml: float, paint: Paint, by: str, stays: Mapping[str, float] = STAYS_SHARE) -> float:
    """Paint out of the cup for a dry film [ml].

    Notes: dry film = wet film × solids by volume; of the wet, a share stays, by how it goes on.
    """
    share = stays.get(by, 0.0)
    return dry_ml / (paint.solids_percent / 100.0) / share if share else 0.0


def cups(design: Design, stays: Mapping[str, float] = STAYS_SHARE) -> tuple[Cup, ...]:
    """The layers of a design in the order they go on; of what leaves the cup the share `stays` on the body,
    by how it goes on.
    """
    waits = waits_h(design.layers)
    return tuple(
        Cup(
            layer,
            on.area_mm2,
            on.mass_g,
            wet_ml(on.film_ml, layer.paint, layer.by, stays) if layer.mass_g is None else 0.0,
            wait,
            layer.window_h,
        )
        for (layer, on), wait in zip(layers_on(design), waits, strict=True)
    )
