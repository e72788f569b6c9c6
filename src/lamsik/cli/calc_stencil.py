"""`lamsik calc stencil`: the stencils and masks that a body is sprayed with, laid flat, as JSON."""

from pathlib import Path
from typing import Any

import numpy as np

from lamsik.core.errors import require
from lamsik.core.paints.cuts import CutPiece, cut_of, cuts_of
from lamsik.core.paints.stencils import Stencil
from lamsik.core.shapes.curves import Array
from lamsik.documents.body.document import to_design
from lamsik.formats.body_file import opened
from lamsik.words import paints


def calc_stencil(body: Path) -> dict[str, Any]:
    """Every stencil and mask of a body: outline, openings, how it lies."""
    design = to_design(opened(body.read_bytes())[0])
    cuts = cuts_of(design)
    require(bool(cuts), "layers", len(design.layers), "a layer of marks with edges, a joint or a lip")
    return {
        "format": "lamsik-stencils",
        "version": 1,
        "body": design.name,
        "stencils": [_cut(*cut_of(design, one.key)) for one in cuts],
    }


def _cut(cut: CutPiece, pieces: tuple[Stencil, ...]) -> dict[str, Any]:
    one = pieces[0]
    return {
        "layer": cut.key,
        "name": paints.cut(cut),
        "side": one.side,
        "twin": len(pieces) > 1,
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
