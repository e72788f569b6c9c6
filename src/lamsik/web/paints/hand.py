"""A painted body as it is sent to be turned in the hand (`static/js/paints/hand.js` draws it)."""

from base64 import b64encode
from typing import Any

import numpy as np
from numpy.typing import NDArray

from lamsik.core.paints.dressed import anchors_on
from lamsik.core.paints.layers import layers_upto
from lamsik.core.paints.look import looks
from lamsik.core.paints.place import LETTERS
from lamsik.core.paints.skin import CLOSE, FINE, skin_of
from lamsik.core.paints.solid_skin import hand_solid
from lamsik.core.shapes.design import Design
from lamsik.drawings.raster import address

QUALITY, FLAKES = 88, 95
EVEN = 128
"""How a flake that lies flat is sent."""


def sent(design: Design, upto: str = "") -> dict[str, Any]:
    """Numbers as little-endian text in base 64, pictures as addresses that carry them; lengths in mm. Layers
    over the one named `upto` are left off.
    """
    layers = layers_upto(design.layers, upto)
    cells = CLOSE if any(one.place.shape == LETTERS for one in layers) else FINE
    painted = looks(layers, design.body, anchors_on(design), cells)
    solid = hand_solid(skin_of(design.body, cells), painted)
    return {
        "points": _packed(solid.points, "<f4"),
        "normals": _packed(solid.normals, "<f4"),
        "at": _packed(solid.at, "<f4"),
        "faces": _packed(solid.faces, "<u2"),
        "colour": address(solid.colour, QUALITY),
        "shine": address(solid.shine, QUALITY),
        "flakes": address(solid.flakes, FLAKES) if (solid.flakes[..., :2] != EVEN).any() else None,
        "glossy": solid.is_glossy,
        "glows": bool(solid.shine[..., 2].any()),
        "turns": bool(solid.shine[..., 1].any()),
        "length_mm": design.body.length_mm,
    }


def _packed(rows: NDArray[Any], kind: str) -> str:
    return b64encode(np.ascontiguousarray(rows, dtype=kind).tobytes()).decode()
