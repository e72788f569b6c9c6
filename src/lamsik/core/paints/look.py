"""What a painted body looks like: its layers laid film over film on every cell of both sides."""

from collections import OrderedDict
from collections.abc import Hashable, Sequence
from dataclasses import dataclass, replace
from threading import Lock
from typing import Any

import numpy as np
from numpy.typing import NDArray

from lamsik.core.paints.film import bcoth, over_surface, under_surface
from lamsik.core.paints.fluorescent import band, held_back
from lamsik.core.paints.kinds import KINDS
from lamsik.core.paints.layers import Layer
from lamsik.core.paints.light import linear_of, reflectance, seen
from lamsik.core.paints.masks import SHAPES, mask
from lamsik.core.paints.measured import curves_for, known_of
from lamsik.core.paints.paint import BOTH, Paint
from lamsik.core.paints.place import Anchors
from lamsik.core.paints.roles import CLEARS, FITTED, SPRAYED
from lamsik.core.paints.skin import FINE, PaintedSkin, SkinSheet, skin_of
from lamsik.core.shapes.body import Body

Cells = NDArray[Any]
"""Figures of cells, in single precision."""
BARE = "#D9C7A2"
"""A bare body."""
LEVELS = 64
"""Steps of thickness that a rim is laid in."""
GLOW, GLITTER = "glow", "glitter"
"""The kinds of paint that shine in the dark, and that are flakes which each mirror their own way."""
PUPIL, PUPIL_SHARE = "#0B141D", 0.5
MOST_KEPT = 36


@dataclass(frozen=True, eq=False)
class Laying:
    """How far the painting of a side is: reflectance under the surface in bands (16, m·n), what the mirror in
    it sends back of its tint (m·n), the tint (m·n, 3), how far that turns with the angle (m·n), how much it
    glows in the dark (m·n), how much of it is flakes (m·n), whether what lies on top is a glossy clear; and
    the light that fluorescent paint adds, as it is seen (16, m·n), None where there is none.
    """

    inside: Cells
    mirror: Cells
    tint: Cells
    turn: Cells
    glow: Cells
    flakes: Cells
    is_glossy: bool = False
    light: Cells | None = None


@dataclass(frozen=True, eq=False)
class PaintedSide:
    """A painted side.

    Args:
        colour: linear red, green and blue of each cell, (m, n, 3).
        mirror: what each cell sends back about the mirror direction, of 1, (m, n).
        tint: the colour of that, (m, n, 3).
        turn: how far its hue runs round with the angle, a share of the circle, (m, n).
        glow: how much it glows in the dark, of 1, (m, n).
        flakes: how much of it is flakes that each mirror their own way, of 1, (m, n).
        is_glossy: whether a clear lies on top.
    """

    colour: Cells
    mirror: Cells
    tint: Cells
    turn: Cells
    glow: Cells
    flakes: Cells
    is_glossy: bool


class _Kept:
    """The last layings, so that one changed layer is laid on what lies under it."""

    def __init__(self) -> None:
        self._rows: OrderedDict[object, Laying] = OrderedDict()
        self._lock = Lock()

    def get(self, name: object) -> Laying | None:
        with self._lock:
            if name in self._rows:
                self._rows.move_to_end(name)
            return self._rows.get(name)

    def put(self, name: object, laying: Laying) -> None:
        with self._lock:
            self._rows[name] = laying
            while len(self._rows) > MOST_KEPT:
                self._rows.popitem(last=False)


_KEPT = _Kept()


def looks(
    layers: Sequence[Layer], body: Body, anchors: Anchors, cells: tuple[int, int] = FINE
) -> tuple[PaintedSide, PaintedSide]:
    """Both sides of a body in its layers, left and right."""
    return looks_on(layers, skin_of(body, cells), anchors, (body, cells))


def looks_on(
    layers: Sequence[Layer], skin: PaintedSkin, anchors: Anchors, named: Hashable
) -> tuple[PaintedSide, PaintedSide]:
    """Both sides of any skin in its layers, left and right; `named` tells this skin from all others."""
    mirrored = skin.is_mirrored and all(
        not SHAPES[one.place.shape].is_read and one.place.side == BOTH for one in layers
    )
    left = _side(layers, skin, anchors, named, skin.sides[0])
    return left, left if mirrored else _side(layers, skin, anchors, named, skin.sides[1])


def _side(
    layers: Sequence[Layer], skin: PaintedSkin, anchors: Anchors, named: Hashable, sheet: SkinSheet
) -> PaintedSide:
    names = [
        (named, anchors, sheet.name, tuple(_plain(one) for one in layers[:n])) for n in range(len(layers) + 1)
    ]
    known = [_KEPT.get(name) for name in names]
    first = max((n for n, one in enumerate(known) if one is not None), default=0)
    laying = known[first] or _bare(sheet)
    for n in range(first, len(layers)):
        laying = _with(laying, layers[n], skin, anchors, sheet)
        _KEPT.put(names[n + 1], laying)
    return _look(laying, sheet)


def _plain(layer: Layer) -> Layer:
    """The layer without what does not show."""
    return replace(layer, **UNSEEN)


UNSEEN: dict[str, Any] = {
    "key": "k",
    "name": "",
    "note": "",
    "wait_h": 0.0,
    "window_h": None,
    "cure_h": None,
    "intended": "",
    "locked": False,
    "scuff": False,
    "by": SPRAYED,
    "pressure_bar": None,
    "distance_mm": None,
    "eye": "flat",
}
"""What of a layer does not show."""


def _bare(sheet: SkinSheet) -> Laying:
    count = sheet.area_mm2.size
    wood = under_surface(reflectance(BARE)).astype(np.float32)
    none, white = np.zeros(count, dtype=np.float32), np.ones((count, 3), dtype=np.float32)
    return Laying(np.repeat(wood[:, None], count, axis=1), none, white, none, none, none)


def _with(laying: Laying, layer: Layer, skin: PaintedSkin, anchors: Anchors, sheet: SkinSheet) -> Laying:
    if not layer.place.is_on(sheet.side):
        return laying
    cover = mask(layer.place, skin, anchors)[sheet.name].ravel().astype(np.float32)
    if layer.does == FITTED:
        pupil = replace(
            layer.place,
            size_percent=layer.place.size_percent * PUPIL_SHARE,
            size_mm=layer.place.size_mm * PUPIL_SHARE,
        )
        dark = mask(pupil, skin, anchors)[sheet.name].ravel().astype(np.float32)
        return _fitted(laying, layer, cover, dark)
    inside = _filmed(laying.inside, layer, cover)
    return replace(
        _mirrored(laying, layer.paint, cover),
        inside=inside,
        glow=_still(laying.glow, layer.paint, cover, GLOW),
        flakes=_still(laying.flakes, layer.paint, cover, GLITTER),
        is_glossy=layer.does == CLEARS,
        light=_lit(laying, layer, cover),
    )


def _lit(laying: Laying, layer: Layer, cover: Cells) -> Cells | None:
    """The light that is added when the layer lies: it holds back what is added under it, and a fluorescent
    paint adds its own.
    """
    known = known_of(layer.paint)
    own = known.lit if known is not None else None
    if laying.light is None and own is None:
        return None
    thins = KINDS[layer.kind].thins
    levels = np.arange(LEVELS + 1) / LEVELS * layer.dry_um
    step = np.rint(cover * LEVELS).astype(np.int32)
    light = np.zeros_like(laying.inside)
    if laying.light is not None:
        left = held_back(curves_for(layer.paint), levels).astype(np.float32)
        light = laying.light * (left[:, step] if thins else 1.0 + (left[:, -1:] - 1.0) * cover)
    if own is not None:
        grown = own.grown(levels).astype(np.float32)
        share = grown[step] if thins else grown[-1] * cover
        light = light + band(own.peak_nm).astype(np.float32)[:, None] * (own.reached(laying.inside) * share)
    return np.asarray(light)


def _fitted(laying: Laying, layer: Layer, cover: Cells, dark: Cells) -> Laying:
    """A bought part hides what is under it: an eye with its pupil."""
    inside = laying.inside
    for colour, share in ((layer.paint.colour, cover), (PUPIL, dark)):
        own = under_surface(reflectance(colour)).astype(np.float32)[:, None]
        inside = inside + (own - inside) * share
    left = 1.0 - cover
    return replace(
        laying,
        inside=inside,
        mirror=laying.mirror * left,
        glow=laying.glow * left,
        flakes=laying.flakes * left,
        light=None if laying.light is None else laying.light * left,
    )


def _filmed(under: Cells, layer: Layer, cover: Cells) -> Cells:
    """The layer's film on what lies under it, where it lies: rims thin it, or share the area."""
    thins = KINDS[layer.kind].thins
    cells = np.flatnonzero(cover > 0.5 / LEVELS)
    if not len(cells):
        return under
    is_all = len(cells) == len(cover)
    below, share = (under, cover) if is_all else (under[:, cells], cover[cells])
    paint = curves_for(layer.paint)
    levels = np.arange(LEVELS + 1) / LEVELS * layer.dry_um if thins else np.array([layer.dry_um])
    deep = bcoth(paint, levels).astype(np.float32)
    deep = deep[:, np.rint(share * LEVELS).astype(np.int32)] if thins and share.min() < 1.0 else deep[:, -1:]
    a = paint.a.astype(np.float32)[:, None]
    filmed = 1.0 - below * (a - deep)
    filmed /= (a + deep) - below
    if not thins:
        filmed = below + (filmed - below) * share
    if is_all:
        return np.asarray(filmed)
    painted = under.copy()
    painted[:, cells] = filmed
    return painted


def _still(before: Cells, paint: Paint, cover: Cells, kind: str) -> Cells:
    """How much of a kind of paint still shows: a layer of that kind adds to it, what hides it takes as much
    of it away.
    """
    if paint.kind == kind:
        return np.asarray(before + (1.0 - before) * cover)
    return np.asarray(before * (1.0 - cover * np.float32(paint.covering_share))) if before.any() else before


def _mirrored(laying: Laying, paint: Paint, cover: Cells) -> Laying:
    """What the layer does to the light about the mirror direction: sends its own, tints or hides what was."""
    kind = paint.of
    colour = linear_of(paint.colour).astype(np.float32)
    if kind.mirror_share:
        mirror = laying.mirror + (np.maximum(laying.mirror, kind.mirror_share) - laying.mirror) * cover
        share = cover[:, None] * (1.0 if not kind.is_open else 0.6)
        turn = laying.turn + (kind.hue_turn - laying.turn) * cover
        return replace(laying, mirror=mirror, tint=laying.tint + (colour - laying.tint) * share, turn=turn)
    if not laying.mirror.any() or paint.kind == "clear":
        return laying
    if kind.is_open:
        share = 0.7 * cover[:, None]
        return replace(laying, tint=laying.tint * (1.0 - share + share * colour))
    return replace(laying, mirror=laying.mirror * (1.0 - cover * np.float32(paint.covering_share)))


def _look(laying: Laying, sheet: SkinSheet) -> PaintedSide:
    shape = sheet.area_mm2.shape
    shown = over_surface(laying.inside, laying.is_glossy)
    if laying.light is not None:
        shown = shown + laying.light
    return PaintedSide(
        seen(shown.T).astype(np.float32).reshape(*shape, 3),
        laying.mirror.reshape(shape),
        laying.tint.reshape(*shape, 3),
        laying.turn.reshape(shape),
        laying.glow.reshape(shape),
        laying.flakes.reshape(shape),
        laying.is_glossy,
    )
