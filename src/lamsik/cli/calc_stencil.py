"""`lamsik calc stencil`: the stencils that a body's layers can be sprayed through, laid flat, as JSON."""

from pathlib import Path
from typing import Any

import numpy as np

from lamsik.core.errors import require
from lamsik.core.paints.dressed import anchors_on
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.stencils import Stencil, can_be_cut, stencil
from lamsik.core.shapes.curves import Array
from lamsik.documents.body.document import to_design
from lamsik.formats.body_file import opened


def calc_stencil(body: Path) -> dict[str, Any]:
    """Every stencil of the layers on a body: outline, openings, how it lies."""
    design = to_design(opened(body.read_bytes())[0])
    layers = [one for one in design.layers if can_be_cut(one)]
    require(bool(layers), "layers", len(design.layers), "a layer of marks with edges")
    return {
        "format": "lamsik-stencils",
        "version": 1,
        "body": design.name,
        "stencils": [_cut(one, stencil(one, design.body, anchors_on(design))) for one in layers],
    }


def _cut(layer: Layer, one: Stencil) -> dict[str, Any]:
    return {
        "layer": layer.key,
        "name": layer.name,
        "side": one.side,
        "twin": layer.place.side == "both",
        "stretch_least": round(one.least, 4),
        "stretch_most": round(one.most, 4),
        "lies": one.lies,
        "slits": one.slits,
        "bridges": one.bridges,
        "outline_mm": _points(one.outline),
        "openings_mm": [_points(row) for row in one.openings],
    }


def _points(rows: Array) -> list[list[float]]:
    return [[float(x), float(y)] for x, y in np.round(rows, 3)]
