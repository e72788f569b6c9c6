"""What of a scheme does not fit a body: an anchor it has not, a mark larger than the body is."""

from collections.abc import Iterator, Sequence

from lamsik.core.paints.layers import Layer
from lamsik.core.paints.masks import SHAPES
from lamsik.core.paints.odd import Warned
from lamsik.core.paints.place import Anchors
from lamsik.core.shapes.body import Body

LACKS_ANCHOR, TOO_LARGE = "lacks_anchor", "too_large"
"""What can be wrong with a layer on a body; of the first, the other is the anchor."""


def misfits(layers: Sequence[Layer], body: Body, anchors: Anchors) -> Iterator[Warned]:
    """What of each layer does not fit, from the first on; what is meant so is not."""
    for layer in layers:
        if not layer.intended:
            for anchor in anchors.lacks(layer.place):
                yield Warned(LACKS_ANCHOR, layer.key, anchor)
            if _is_too_large(layer, body):
                yield Warned(TOO_LARGE, layer.key)


def _is_too_large(layer: Layer, body: Body) -> bool:
    """Whether one mark is longer than the body, or wider than its flank is round."""
    uses = SHAPES[layer.place.shape].uses
    if "size_mm" not in uses or not ("outline" in uses or SHAPES[layer.place.shape].is_lone):
        return False
    size = layer.place.size_share * body.depth_mm + layer.place.size_mm
    return size > body.length_mm or (layer.place.shape == "disc" and size > body.depth_mm + body.width_mm)
