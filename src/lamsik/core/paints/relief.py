"""How proud the edges of paint stand, and how many coats of clear level them."""

from collections.abc import Sequence
from functools import lru_cache
from math import ceil

import numpy as np
from numpy.typing import NDArray

from lamsik.core.paints.layers import Layer
from lamsik.core.paints.masks import mask
from lamsik.core.paints.place import Anchors, Place
from lamsik.core.paints.roles import CLEARS, FITTED
from lamsik.core.paints.skin import COARSE, skin_of
from lamsik.core.shapes.body import Body

SHARP_PERCENT = 25.0
"""A rim as soft as this or softer is no edge that a finger feels."""
OVER_UM = 50.0
"""What stays of clear over the highest edge, so that it can be rubbed without going through [µm]."""
COVERED = 0.25
"""A cell is one the layer lies on from this share of it up."""


def relief_um(layers: Sequence[Layer], body: Body, anchors: Anchors) -> float:
    """How far the highest edge stands over the lowest paint beside it [µm].

    Notes: layers with soft rims, and those that lie all over, leave no edge; bought parts stand by
    themselves.
    """
    edged = [
        one
        for one in layers
        if one.does not in (CLEARS, FITTED) and one.place.edge_percent < SHARP_PERCENT and not one.covers_all
    ]
    if not edged:
        return 0.0
    heights = [np.zeros(COARSE), np.zeros(COARSE)]
    for layer in edged:
        for height, lies in zip(heights, _lies(layer.place, body, anchors), strict=True):
            height += layer.dry_um * lies
    return max(float(height.max() - height.min()) for height in heights)


@lru_cache(maxsize=256)
def _lies(place: Place, body: Body, anchors: Anchors) -> tuple[NDArray[np.bool_], NDArray[np.bool_]]:
    """On which cells of the left and the right a layer lies."""
    skin = skin_of(body, COARSE)
    covers = mask(place, skin, anchors)
    none = np.zeros(COARSE)
    left, right = (covers.get(sheet.name, none) > COVERED for sheet in skin.sides)
    return left, right


def coats_for(relief: float, coat_um: float) -> int:
    """Coats that level edges of this height and leave enough over them to rub.

    Args:
        relief: how far the highest edge stands [µm].
        coat_um: dry film of a coat [µm].
    """
    return max(ceil((relief + OVER_UM) / coat_um), 1) if coat_um > 0 else 0
