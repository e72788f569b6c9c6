"""A design in its paint: where its layers are placed from, and what each takes of it."""

from lamsik.core.paints.laid import Laid, anchors_of, laid
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.place import Anchors
from lamsik.core.shapes.design import Design

HANGER_KIND = "hanger"


def anchors_on(design: Design) -> Anchors:
    """Where layers are placed from on this design."""
    hangers = [one.x_mm for one in design.hardware if one.item.kind == HANGER_KIND and one.hung_on is None]
    return anchors_of(design.layers, design.body, hangers)


def layers_on(design: Design) -> list[tuple[Layer, Laid]]:
    """Each layer of a design with what it takes of it."""
    if not design.layers:
        return []
    anchors = anchors_on(design)
    return [(layer, laid(layer, design.body, anchors)) for layer in design.layers]
