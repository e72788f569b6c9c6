"""A painted body as it is sent to be turned in the hand (`static/js/paints/hand.js` draws it)."""

from base64 import b64encode
from typing import Any

import numpy as np
from numpy.typing import NDArray

from lamsik.core.paints.dressed import anchors_on
from lamsik.core.paints.look import looks
from lamsik.core.paints.skin import FINE, skin_of
from lamsik.core.paints.solid_skin import hand_solid
from lamsik.core.shapes.design import Design
from lamsik.drawings.raster import address

QUALITY = 88


def sent(design: Design) -> dict[str, Any]:
    """Numbers as little-endian text in base 64, pictures as addresses that carry them; lengths in mm."""
    painted = looks(design.layers, design.body, anchors_on(design), FINE)
    solid = hand_solid(skin_of(design.body, FINE), painted)
    return {
        "points": _packed(solid.points, "<f4"),
        "normals": _packed(solid.normals, "<f4"),
        "at": _packed(solid.at, "<f4"),
        "faces": _packed(solid.faces, "<u2"),
        "colour": address(solid.colour, QUALITY),
        "shine": address(solid.shine, QUALITY),
        "glossy": solid.is_glossy,
        "glows": bool(solid.shine[..., 2].any()),
        "turns": bool(solid.shine[..., 1].any()),
        "length_mm": design.body.length_mm,
    }


def _packed(rows: NDArray[Any], kind: str) -> str:
    return b64encode(np.ascontiguousarray(rows, dtype=kind).tobytes()).decode()
