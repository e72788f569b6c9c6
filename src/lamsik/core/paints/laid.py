"""Layers as they lie on a body: the surface each takes, its dry volume and mass, and where that acts."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lamsik.core.paints.layers import Layer
from lamsik.core.paints.masks import mask
from lamsik.core.paints.place import Anchors, Place
from lamsik.core.paints.roles import FITTED
from lamsik.core.paints.skin import COARSE, skin_of
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.solid import solid

Point = tuple[float, float, float]


@dataclass(frozen=True)
class Laid:
    """A layer on a body: surface it takes [mm²] and its share of all there is, dry volume [ml], dry mass [g],
    and the middle of that, (x, y, z) [mm].
    """

    area_mm2: float
    share: float
    film_ml: float
    mass_g: float
    at_mm: Point


@dataclass(frozen=True)
class Covered:
    """What a mask takes of a body: share of its surface, and the middle of it (x, y, z) [mm]."""

    share: float
    at_mm: Point


@lru_cache(maxsize=2048)
def covered(place: Place, body: Body, anchors: Anchors, cells: tuple[int, int] = COARSE) -> Covered:
    """What a place takes of a body, the integral of its mask.

    Notes: the share is of the skin in cells, and holds of the surface as it is measured; a layer all over is
        all of it, about the surface's own middle.
    """
    whole = solid(body)
    if place == Place():
        return Covered(1.0, whole.area_centroid_mm)
    skin = skin_of(body, cells)
    taken, moment = 0.0, np.zeros(3)
    masks = mask(place, skin, anchors)
    for sheet in skin:
        if sheet.name in masks:
            area = masks[sheet.name] * sheet.area_mm2
            taken += float(area.sum())
            moment += np.einsum("ij,ijk->k", area, sheet.middle_mm)
    if taken <= 0:
        return Covered(0.0, whole.area_centroid_mm)
    x, y, z = (float(one) for one in moment / taken)
    return Covered(taken / skin.area_mm2, (x, y, z))


def laid(layer: Layer, body: Body, anchors: Anchors) -> Laid:
    """The layer on a body.

    Notes: dry volume is area × film of one pass × passes; of a bought part, what it weighs over its density.
    """
    on = covered(layer.place, body, anchors)
    area = on.share * solid(body).area_mm2
    if layer.mass_g is not None:
        volume, mass = layer.mass_g / layer.paint.density_g_cm3, layer.mass_g
    else:
        volume = layer.dry_um * 1e-3 * area / 1000.0
        mass = volume * layer.paint.density_g_cm3
    return Laid(area, on.share, volume, mass, on.at_mm)


def anchors_of(layers: Sequence[Layer], body: Body, hangers_mm: Sequence[float] = ()) -> Anchors:
    """Where layers are placed from on a body: its first eyes say where the eye is."""
    bare = Anchors(joints_mm=tuple(one.x_mm for one in body.joints), hangers_mm=tuple(sorted(hangers_mm)))
    eyes = next((one for one in layers if one.does == FITTED), None)
    if eyes is None:
        return bare
    x = bare.x_mm(eyes.place.begins, body.length_mm)
    sheet = skin_of(body, COARSE).sides[0]
    girth = float(np.interp(x, sheet.x_mm[:, 0], sheet.girth_mm[:, 0]))
    return Anchors(x, bare.round_share(eyes.place.top, girth), bare.joints_mm, bare.hangers_mm)
