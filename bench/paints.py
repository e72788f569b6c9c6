"""Paints: a body's skin with twenty layers on it, one of them changed, and what of a drag is the shop's."""

from dataclasses import replace
from itertools import count

import numpy as np

from bench.rows import Row, median_ms
from lamsik.core.paints.flatten import flattened
from lamsik.core.paints.lab import Lab
from lamsik.core.paints.laid import anchors_of
from lamsik.core.paints.layers import Layer, begun
from lamsik.core.paints.look import looks
from lamsik.core.paints.matching import matches
from lamsik.core.paints.measured import measured
from lamsik.core.paints.mixing import Backing, Tint
from lamsik.core.paints.place import Anchors
from lamsik.core.paints.skin import FINE, skin_of
from lamsik.core.paints.spraying import cups
from lamsik.core.paints.stencils import stencil
from lamsik.core.paints.swatch import Swatch
from lamsik.core.route.batches import batched
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.forms import body_from, form
from lamsik.core.trade.step_kinds import minutes
from tests.bodies import bait

TWENTY = (
    "seal primer base fade bars foil net spots veins band fade gill fin band splatter stencil fade"
    " spots eyes clear"
)


def paint_rows() -> list[Row]:
    """Rows of the painted skin, 256 × 96 cells a side in 16 bands; never a body or a film it has seen."""
    layers = tuple(begun(kind, f"{kind}{n}") for n, kind in enumerate(TWENTY.split()))
    slim, step = form("slim"), count()

    def body() -> Body:
        return body_from(slim, 90.0 + 0.01 * next(step), slim.depth_mm, slim.width_mm)

    def painted() -> None:
        here = body()
        skin_of(here, FINE)
        looks(layers, here, anchors_of(layers, here), FINE)

    known = body()
    anchors = anchors_of(layers, known)
    looks(layers, known, anchors, FINE)

    def changed() -> None:
        looks(with_film(layers, 8.0 + 0.01 * next(step)), known, anchors, FINE)

    def together() -> None:
        pieces = [
            cups(replace(bait(), body=body(), layers=layers[n : n + 12 : 3] + layers[12 + n : 16 + n]))
            for n in range(5)
        ]
        batched(pieces, minutes())

    tints, card = shelf_of(30), Backing(np.full(16, 0.86))
    wanted = Lab(48.0, 12.0, 26.0)

    def recipes() -> None:
        matches(replace(wanted, red=12.0 + 0.01 * next(step)), tints, card)

    def fitted() -> None:
        measured(Swatch(replace(wanted, yellow=20.0 + 0.01 * next(step)), Lab(36.0, 6.0, 12.0)))

    painted_bait = bait()
    bars = begun("bars", "b")

    def cut() -> None:
        there = replace(bars.place, size_percent=50.0 + 0.01 * next(step))
        stencil(replace(bars, place=there), painted_bait.body, Anchors())

    patch = flat_patch(40)

    def laid_flat() -> None:
        flattened(*patch)

    return [
        Row("one patch of 40 × 40 laid flat", 400, median_ms(laid_flat, 9)),
        Row("a stencil of seven bars with its slits", 3000, median_ms(cut, 9)),
        Row("recipes from 30 paints, triples up to 12 drops", 1500, median_ms(recipes, 5)),
        Row("a paint's curves by its swatch", 200, median_ms(fitted, 15)),
        Row("batch card of 40 layers of five schemes", 3000, median_ms(together, 5)),
        Row("skin of 256 × 96 cells a side, 20 layers in 16 bands", 150, median_ms(painted, 9)),
        Row("one of 20 layers changed, the eighteenth", 50, median_ms(changed, 15)),
    ]


def flat_patch(count: int) -> tuple[np.ndarray, np.ndarray]:
    """A patch of a ball in places one way and the other, and its triangles."""
    u, v = np.meshgrid(np.linspace(0.5, 1.5, count), np.linspace(0, 1, count), indexing="ij")
    points = 20 * np.stack([np.cos(u), np.sin(u) * np.cos(v), np.sin(u) * np.sin(v)], -1).reshape(-1, 3)
    a = (np.arange(count - 1)[:, None] * count + np.arange(count - 1)).ravel()
    faces = [(a, a + count, a + count + 1), (a, a + count + 1, a + 1)]
    return points, np.concatenate([np.stack(row, axis=-1) for row in faces])


def shelf_of(count: int) -> list[Tint]:
    """Paints that nobody sells, as they are mixed."""
    random, nm = np.random.default_rng(3), np.arange(400.0, 701.0, 20.0)
    return [
        Tint(
            f"P{n}",
            0.002 + 0.5 * np.exp(-(((nm - random.uniform(380, 720)) / random.uniform(30, 90)) ** 2)),
            np.full(16, random.uniform(0.005, 0.15)),
        )
        for n in range(count)
    ]


def with_film(layers: tuple[Layer, ...], film_um: float) -> tuple[Layer, ...]:
    """The layers with another film of the last but two."""
    return (*layers[:-3], replace(layers[-3], film_um=film_um), *layers[-2:])
