"""What is cut of card or tape for one body: a stencil for each layer with edges, a mask for each joint and
for the lip.
"""

from dataclasses import dataclass, replace

import numpy as np

from lamsik.core.errors import Refused, named
from lamsik.core.paints.dressed import anchors_on
from lamsik.core.paints.flatten import Flat
from lamsik.core.paints.paint import BOTH
from lamsik.core.paints.stencils import UPPER, Stencil, can_be_cut, collar, stencil
from lamsik.core.paints.zones import FinishZone, zones_on
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Lip, lip_outline

STENCIL, JOINT, LIP = "stencil", "joint", "lip"
OVER_MM = 2.5
"""How far a joint's mask reaches past it on either side."""
PLATE_POINTS = 96


@dataclass(frozen=True)
class CutPiece:
    """Something that can be cut for a body: its key, what it is, and what it is of: the name of a layer, or
    where a joint begins [mm].
    """

    key: str
    kind: str
    of: str | float = ""


def cuts_of(design: Design) -> tuple[CutPiece, ...]:
    """All that can be cut for a body: its layers' stencils, then masks from the nose on."""
    layers = [CutPiece(one.key, STENCIL, one.name) for one in design.layers if can_be_cut(one)]
    zones = [CutPiece(one.key, one.kind, one.from_mm) for one in zones_on(design) if one.kind in (JOINT, LIP)]
    return (*layers, *zones)


def cut_of(design: Design, key: str) -> tuple[CutPiece, tuple[Stencil, ...]]:
    """What is cut under a key: both twins, or the one of a layer's side.

    Raises:
        Refused: no such key, or nothing of it lies on the skin.
    """
    layer = next((one for one in design.layers if one.key == key), None)
    if layer is not None:
        one = stencil(layer, design.body, anchors_on(design))
        return CutPiece(key, STENCIL, layer.name), (one, one.twin) if layer.place.side == BOTH else (one,)
    zone = next((one for one in zones_on(design) if one.key == key and one.kind in (JOINT, LIP)), None)
    if zone is None:
        raise Refused("layer", key, named([one.key for one in cuts_of(design)]))
    one = _plate(design.lip) if zone.kind == LIP and design.lip is not None else _over_joint(design, zone)
    return CutPiece(key, zone.kind, zone.from_mm), (one, one.twin)


def _over_joint(design: Design, zone: FinishZone) -> Stencil:
    return collar(design.body, zone.from_mm - OVER_MM, zone.to_mm + OVER_MM, anchors_on(design))


def _plate(lip: Lip) -> Stencil:
    """Tape for the upper side of the lip as far as it stands out of the body; its twin is for the lower."""
    outline: Array = lip_outline(replace(lip, inset_mm=0.0), PLATE_POINTS)
    outline = np.column_stack([-outline[:, 0], outline[:, 1]])  # its end lies ahead, as the nose does
    outline = outline[np.append(True, np.linalg.norm(np.diff(outline, axis=0), axis=1) > 1e-9)]
    outline = outline - outline.min(axis=0)
    return Stencil(
        UPPER, outline, (), Flat(outline, np.array([[0, 1, 2]]), np.ones((1, 2))), 0, 0, False, None
    )
