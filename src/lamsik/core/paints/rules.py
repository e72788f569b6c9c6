"""What is wrong with layers on a body: foil that paint hides, clear where none may go, dips past a joint, too
few coats, chemistries that lift.
"""

from collections.abc import Iterator, Sequence
from functools import lru_cache

import numpy as np

from lamsik.core.paints.dips import stop_of
from lamsik.core.paints.dressed import anchors_on
from lamsik.core.paints.fitting import misfits
from lamsik.core.paints.layers import Layer, warned
from lamsik.core.paints.lifts import Patch, lifting
from lamsik.core.paints.masks import mask
from lamsik.core.paints.odd import Warned
from lamsik.core.paints.place import Anchors, Place
from lamsik.core.paints.relief import OVER_UM, coats_for, relief_um
from lamsik.core.paints.roles import CLEARS, COLOURS, DIPPED, SPRAYED
from lamsik.core.paints.skin import COARSE, skin_of
from lamsik.core.paints.zones import zones_on
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.design import Design

ON_FOIL, SPOILT, DIP_STOPS, FEW_COATS = "on_foil", "spoilt", "dip_stops", "few_coats"
"""What can be wrong with a layer on a body."""
COUNT = "count"
"""What a figure is that counts things."""
HIDDEN_LEAST = 0.1
"""So much of a foil hidden under opaque paint is worth saying."""


def ruled(design: Design, patches: Sequence[Patch] = (), free: Sequence[Layer] | None = None) -> list[Warned]:
    """Everything that is wrong with the layers of a design, by the order they go on.

    Args:
        design: the body with its layers.
        patches: the shop's test patches.
        free: the layers that may be held against what the body lacks; all where none are named.
    """
    layers, anchors = design.layers, anchors_on(design)
    warnings = [
        *warned(layers),
        *misfits(layers if free is None else free, design.body, anchors),
        *(one for one in _on_body(design, anchors) if not _is_meant(layers, one)),
        *lifting(layers, patches),
    ]
    order = {layer.key: n for n, layer in enumerate(layers)}
    return sorted(warnings, key=lambda one: order[one.layer])


def _is_meant(layers: Sequence[Layer], about: Warned) -> bool:
    return any(one.intended for one in layers if one.key == about.layer)


def _on_body(design: Design, anchors: Anchors) -> Iterator[Warned]:
    layers, zones = design.layers, zones_on(design)
    foils = [one for one in layers if one.kind == "foil"]
    for n, layer in enumerate(layers):
        if layer.does == COLOURS and not layer.paint.of.is_open:
            for foil in foils:
                if foil in layers[:n]:
                    hidden = covered_share(layer.place, foil.place, design.body, anchors)
                    if hidden >= HIDDEN_LEAST:
                        yield Warned(ON_FOIL, layer.key, foil.key, (("share", 100.0 * hidden, "percent"),))
        if layer.does == CLEARS and layer.by in (DIPPED, SPRAYED):
            spoilt = next((zone for zone in zones if zone.of.spoilt_by_clear), None)
            if spoilt is not None:
                yield Warned(SPOILT, layer.key, spoilt.name or spoilt.kind)
        dip = stop_of(layer, zones, design.body.length_mm)
        if dip is not None:
            end = "nose" if dip.is_nose_first else "tail"
            figures = (("depth", dip.depth_mm, "length"), ("at", dip.stop_mm, "length"))
            yield Warned(DIP_STOPS, layer.key, f"{end}:{dip.stop.kind}", figures)
    yield from _few_coats(layers, design.body, anchors)


def _few_coats(layers: Sequence[Layer], body: Body, anchors: Anchors) -> Iterator[Warned]:
    clears = [one for one in layers if one.does == CLEARS]
    if not clears or clears[-1].dry_um <= 0:
        return
    relief, coat = relief_um(layers, body, anchors), clears[-1].dry_um
    wanted = coats_for(relief, coat)
    if sum(one.dry_um for one in clears) < relief + OVER_UM:
        figures = (
            ("relief", relief, "thickness"),
            ("coats", float(wanted), COUNT),
            ("coat", coat, "thickness"),
        )
        yield Warned(FEW_COATS, clears[-1].key, "", figures)


@lru_cache(maxsize=512)
def covered_share(place: Place, under: Place, body: Body, anchors: Anchors) -> float:
    """How much of what lies at one place another covers, of 1: the integral of both masks over that of the
    one.
    """
    skin = skin_of(body, COARSE)
    over, below = mask(place, skin, anchors), mask(under, skin, anchors)
    shared = lain = 0.0
    for sheet in skin:
        if sheet.name in below:
            lain += float((below[sheet.name] * sheet.area_mm2).sum())
            if sheet.name in over:
                shared += float(np.sum(below[sheet.name] * over[sheet.name] * sheet.area_mm2))
    return shared / lain if lain > 0 else 0.0
