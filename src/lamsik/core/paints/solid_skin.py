"""A painted body as a solid to turn in the hand: points, where their colours are in a picture of the skin,
and that picture. How it is lit is the screen's.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from lamsik.core.paints.light import coded_of
from lamsik.core.paints.look import PaintedSide
from lamsik.core.paints.skin import PaintedSkin, SkinSheet
from lamsik.core.paints.views import flake_tilts
from lamsik.core.shapes.curves import Array

POINTS = 128
"""So many stretches along the body the solid has: of finer skins it takes every second corner, or fourth."""
KERF_DARK = 0.12
"""How much light is left in a saw cut."""


@dataclass(frozen=True, eq=False)
class HandSolid:
    """A body to be turned.

    Args:
        points: (k, 3) [mm], about the middle of the body, nose towards −x.
        normals: (k, 3), outward.
        at: where each is in the pictures, (k, 2), from the left and from the top, 0 to 1.
        faces: (f, 3), outward by the right hand.
        colour: of the skin, left side over right, (2·n, m, 3) 0 to 255.
        shine: what is sent about the mirror direction, how far its hue turns, its glow, (2·n, m, 3) 0 to 255.
        flakes: which way they lie, as normals in the skin's own frame: (128, 128, 255) where there are none,
            (2·n, m, 3) 0 to 255.
        is_glossy: whether a clear lies on top.
    """

    points: Array
    normals: Array
    at: Array
    faces: NDArray[np.int32]
    colour: NDArray[np.uint8]
    shine: NDArray[np.uint8]
    flakes: NDArray[np.uint8]
    is_glossy: bool


def hand_solid(skin: PaintedSkin, painted: tuple[PaintedSide, PaintedSide]) -> HandSolid:
    """The solid of a painted skin; flat ends have the colour of their rim."""
    points, normals, at, faces, before = [], [], [], [], 0
    for number, sheet in enumerate(skin.sides):
        corners = _thinned(sheet.corners)
        rows, columns = corners.shape[:2]
        along, down = np.meshgrid(np.linspace(0, 1, rows), np.linspace(0, 1, columns), indexing="ij")
        points.append(corners.reshape(-1, 3))
        normals.append(_thinned(_corner_normals(sheet)).reshape(-1, 3))
        at.append(np.stack([along, (down + number) / 2], axis=-1).reshape(-1, 2))
        faces.append(_quads(rows, columns, number == 1) + before)
        before += rows * columns
    for row, sign in ((0, -1.0), (-1, 1.0)):
        rim = np.vstack([_thinned(skin.sides[1].corners)[row], _thinned(skin.sides[0].corners)[row, ::-1]])
        added = np.vstack([rim, rim.mean(axis=0)])
        count = len(rim)
        turn = [
            (n, (n + 1) % count, count) if sign < 0 else ((n + 1) % count, n, count) for n in range(count)
        ]
        points.append(added)
        normals.append(np.tile([sign, 0.0, 0.0], (count + 1, 1)))
        down = np.concatenate(
            [np.linspace(0.5, 1.0, count // 2), np.linspace(0.5, 0.0, count - count // 2), [0.25]]
        )
        at.append(np.column_stack([np.full(count + 1, 0.0 if row == 0 else 1.0), down]))
        faces.append(np.array(turn) + before)
        before += count + 1
    middle = np.array([skin.length_mm / 2, 0.0, 0.0])
    colour = np.concatenate([_colour(sheet, side) for sheet, side in zip(skin.sides, painted, strict=True)])
    shine = np.concatenate([_shine(side) for side in painted])
    return HandSolid(
        np.concatenate(points) - middle,
        np.concatenate(normals),
        np.concatenate(at),
        np.concatenate(faces).astype(np.int32),
        colour,
        shine,
        np.concatenate([_flakes(side) for side in painted]),
        painted[0].is_glossy,
    )


def _thinned(rows: Array) -> Array:
    every = max((len(rows) - 1) // POINTS, 1)
    return rows[::every, ::every]


def _quads(rows: int, columns: int, is_right: bool) -> NDArray[np.int64]:
    first = (np.arange(rows - 1)[:, None] * columns + np.arange(columns - 1)).ravel()
    a, b, c, d = first, first + 1, first + columns, first + columns + 1
    outward = [(a, b, c), (b, d, c)] if not is_right else [(a, c, b), (b, c, d)]
    return np.concatenate([np.stack(triangle, axis=-1) for triangle in outward])


def _corner_normals(sheet: SkinSheet) -> Array:
    """Normals at corners from those of the cells round them; on ridge and keel in the middle plane."""
    m, n, _ = sheet.normal.shape
    summed = np.zeros((m + 1, n + 1, 3))
    for down in (0, 1):
        for across in (0, 1):
            summed[down : m + down, across : n + across] += sheet.normal * sheet.area_mm2[..., None]
    summed[:, (0, -1), 1] = 0.0
    size = np.linalg.norm(summed, axis=-1, keepdims=True)
    return np.where(size > 1e-9, summed / np.maximum(size, 1e-9), [0.0, 0.0, 1.0])


def _colour(sheet: SkinSheet, side: PaintedSide) -> NDArray[np.uint8]:
    """The colours of a side as a picture, nose to the left, back up; saw cuts are dark."""
    whole = np.linalg.norm(
        np.cross(
            sheet.corners[1:, 1:] - sheet.corners[:-1, :-1], sheet.corners[1:, :-1] - sheet.corners[:-1, 1:]
        ),
        axis=-1,
    )
    left = np.where(whole > 1e-9, 2.0 * sheet.area_mm2 / np.maximum(whole, 1e-9), 1.0)
    dark = np.clip(left, KERF_DARK, 1.0) if left.min() < 0.9 else np.ones_like(left)
    return np.asarray(coded_of(side.colour * dark[..., None]).transpose(1, 0, 2), dtype=np.uint8)


def _shine(side: PaintedSide) -> NDArray[np.uint8]:
    rows = np.stack([side.mirror, side.turn, side.glow], axis=-1)
    return np.asarray(np.rint(255.0 * np.clip(rows, 0.0, 1.0)).transpose(1, 0, 2), dtype=np.uint8)


def _flakes(side: PaintedSide) -> NDArray[np.uint8]:
    """Flakes as the screen reads a bumpy skin: a normal in its own frame, about (128, 128, 255)."""
    m, n = side.flakes.shape
    tilt = np.clip(flake_tilts(m, n)[..., :2] * side.flakes[..., None], -0.9, 0.9)
    up = np.sqrt(np.clip(1.0 - np.sum(tilt**2, axis=-1, keepdims=True), 0.05, 1.0))
    rows = np.concatenate([tilt, up], axis=-1)
    return np.asarray(np.rint(127.5 * (rows + 1.0)).transpose(1, 0, 2), dtype=np.uint8)
