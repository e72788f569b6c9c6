"""Layers as they lie on a body: the surface each takes, its dry volume and mass, and where that acts."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import radians, tan

import numpy as np

from lamsik.core.paints.layers import Layer
from lamsik.core.paints.masks import mask
from lamsik.core.paints.place import Anchors, Place
from lamsik.core.paints.roles import FITTED
from lamsik.core.paints.skin import COARSE, PaintedSkin, skin_of
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.solid import solid

Point = tuple[float, float, float]


@dataclass(frozen=True)
class Laid:
    """A layer on a body: surface it takes [mm²] and its share of all there is, dry volume [ml], dry mass [g],
    and the middle of that, (x, y, z) [mm]; of a jointed body what of it each segment has, as `Covered`.
    """

    area_mm2: float
    share: float
    film_ml: float
    mass_g: float
    at_mm: Point
    segments: tuple[tuple[str, float, Point], ...] = ()


@dataclass(frozen=True)
class Covered:
    """What a mask takes of a body: share of its surface, and the middle of it (x, y, z) [mm]; of a jointed
    one also what of that each segment has: key, share, middle.
    """

    share: float
    at_mm: Point
    segments: tuple[tuple[str, float, Point], ...] = ()


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
    area, at = _taken(place, skin, anchors)
    taken = float(area.sum())
    if taken <= 0:
        return Covered(0.0, whole.area_centroid_mm)
    return Covered(taken / skin.area_mm2, _middle(area, at), _by_segment(body, area, at))


def _taken(place: Place, skin: PaintedSkin, anchors: Anchors) -> tuple[Array, Array]:
    """What a place takes of each cell of a skin (n,) [mm²], and where they are (n, 3) [mm]."""
    masks = mask(place, skin, anchors)
    area = np.concatenate([(masks[one.name] * one.area_mm2).ravel() for one in skin if one.name in masks])
    at = np.concatenate([one.middle_mm.reshape(-1, 3) for one in skin if one.name in masks])
    return area, at


def laid_on(layer: Layer, skin: PaintedSkin, anchors: Anchors) -> Laid:
    """A layer on any skin: area, dry volume and mass, and where it acts."""
    area, at = _taken(layer.place, skin, anchors)
    taken = float(area.sum())
    middle = _middle(area, at) if taken > 0 else (skin.length_mm / 2, 0.0, 0.0)
    if layer.mass_g is not None:
        volume, mass = layer.mass_g / layer.paint.density_g_cm3, layer.mass_g
    else:
        volume = layer.dry_um * 1e-3 * taken / 1000.0
        mass = volume * layer.paint.density_g_cm3
    return Laid(taken, taken / skin.area_mm2, volume, mass, middle)


def _middle(area: Array, at: Array) -> Point:
    x, y, z = (float(one) for one in area @ at / area.sum())
    return (x, y, z)


def _by_segment(body: Body, area: Array, at: Array) -> tuple[tuple[str, float, Point], ...]:
    """What of a covered surface each segment of a jointed body has."""
    if not body.joints:
        return ()
    ahead = [at[:, 0] < fore.x_mm + at[:, 2] * tan(radians(fore.slant_deg)) for fore, _ in body.cuts]
    number = len(ahead) - np.sum(ahead, axis=0)
    rows = []
    for n in range(len(ahead) + 1):
        mine = number == n
        share = float(area[mine].sum() / area.sum())
        if share > 0:
            rows.append((f"s{n + 1}", share, _middle(area[mine], at[mine])))
    return tuple(rows)


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
    return Laid(area, on.share, volume, mass, on.at_mm, on.segments)


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
