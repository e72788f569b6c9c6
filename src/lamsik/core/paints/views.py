"""A painted body seen square from one side under a lamp: a picture of points for each pixel."""

from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from lamsik.core.paints.light import coded_of
from lamsik.core.paints.look import PaintedSide
from lamsik.core.paints.paint import LEFT, RIGHT
from lamsik.core.paints.skin import PaintedSkin, SkinSheet
from lamsik.core.shapes.curves import Array

Frame = Array
"""Axes of a view, rows: to the right, up, towards who looks, (3, 3)."""
BACK_VIEW, BELLY_VIEW = "back", "belly"
VIEWS = (LEFT, RIGHT, BACK_VIEW, BELLY_VIEW)
LAMP = (-0.35, 0.5, 0.8)
"""Where the light comes from: towards the nose, up, towards who looks."""
AMBIENT = 0.56
"""What of the light comes from all round."""
SPARK, GLOSS = 28.0, 90.0
"""How narrow the shine of a mirror and of a clear is (powers of the cosine)."""
GLOSS_SENDS = 0.35
TILTED, FLAKE_SPARK, FLAKE_SENDS = 0.6, 40.0, 2.2
"""How far flakes of glitter lie off the skin's own normal, how narrow each one's shine is, what it sends."""


@dataclass(frozen=True, eq=False)
class Picture:
    """A picture of a side, rows from the top, (h, w, 3) 0 to 255; which of its points lie on the body;
    and the box it fills [mm], up is up.
    """

    pixels: Array
    inside: Array
    left_mm: float
    top_mm: float
    width_mm: float
    height_mm: float


def view(
    side: str,
    skin: PaintedSkin,
    painted: tuple[PaintedSide, PaintedSide],
    per_mm: float,
    lamp: Array | None = None,
) -> Picture:
    """One view of a painted body, `per_mm` pixels to the millimetre.

    Notes: the nose is to the left in every view but that of the right side. Beyond its outline the picture
        goes on as it is at the rim, so that a clean line can be cut through it.
    """
    lamp = np.asarray(LAMP if lamp is None else lamp, dtype=float)
    lamp = lamp / np.linalg.norm(lamp)
    if side == RIGHT and painted[0] is painted[1]:
        other = _flank(LEFT, skin, painted, per_mm, lamp)
        return replace(other, pixels=other.pixels[:, ::-1], inside=other.inside[:, ::-1])
    if side in (LEFT, RIGHT):
        return _flank(side, skin, painted, per_mm, lamp)
    return _from_above(side, skin, painted, per_mm, lamp)


def _rows(skin: PaintedSkin, per_mm: float) -> tuple[Array, Array]:
    """Stations of the pixels [mm] and where they lie among the rows of corners, of the view's columns."""
    count = max(int(round(skin.length_mm * per_mm)), 8)
    x = (np.arange(count) + 0.5) / count * skin.length_mm
    at = skin.sides[0].corners[..., 0].mean(axis=1)
    return x, np.interp(x, at, np.arange(len(at), dtype=float))


def _sections(corners: Array, rows: Array) -> Array:
    """Outlines at places among the rows of corners, (columns, n + 1, 3)."""
    low = np.clip(rows.astype(int), 0, len(corners) - 2)
    share = (rows - low)[:, None, None]
    return np.asarray(corners[low] * (1.0 - share) + corners[low + 1] * share)


def _read(at: Array, known: NDArray[Any], values: NDArray[Any]) -> Array:
    """Values (columns, n) read at places (h,), where known (columns, n) rises along each column; held at both
    ends.
    """
    gap = 4.0 * (float(np.ptp(known)) + float(np.ptp(at)) + 1.0)
    column = gap * np.arange(len(known))[:, None]
    low, high = known[:, :1], known[:, -1:]
    asked = np.clip(at[None, :], low, high) + column
    read = np.interp(asked.ravel(), (known + column).ravel(), values.ravel())
    return np.asarray(read.reshape(asked.shape))


def _flank(
    side: str, skin: PaintedSkin, painted: tuple[PaintedSide, PaintedSide], per_mm: float, lamp: Array
) -> Picture:
    number = (LEFT, RIGHT).index(side)
    sheet, look = skin.sides[number], painted[number]
    _, rows = _rows(skin, per_mm)
    outline = _sections(sheet.corners, rows)
    high, low = float(sheet.corners[..., 2].max()), float(sheet.corners[..., 2].min())
    z = high - (np.arange(max(int(round((high - low) * per_mm)), 4)) + 0.5) / per_mm
    down = np.maximum.accumulate(-outline[..., 2], axis=1) + 1e-7 * np.arange(outline.shape[1])
    shares = np.broadcast_to(np.linspace(0.0, 1.0, outline.shape[1]), down.shape)
    toward = -1.0 if side == LEFT else 1.0
    frame = np.array([[1.0, 0.0, 0.0], [0.0, 0.0, 1.0], [0.0, toward, 0.0]])
    pixels = _lit(sheet, look, rows, _read(np.asarray(-z, dtype=float), down, shares).T, frame, lamp)
    tall = outline[..., 2]
    inside = (z[:, None] <= tall.max(axis=1)) & (z[:, None] >= tall.min(axis=1))
    if side == RIGHT:
        pixels, inside = pixels[:, ::-1], inside[:, ::-1]
    return Picture(pixels, inside, 0.0, high, skin.length_mm, high - low)


def _from_above(
    side: str, skin: PaintedSkin, painted: tuple[PaintedSide, PaintedSide], per_mm: float, lamp: Array
) -> Picture:
    """From above or below: the half of each side that is seen, joined along the middle; its own left is up in
    the view of its belly.
    """
    _, rows = _rows(skin, per_mm)
    wide = max(float(np.abs(sheet.corners[..., 1]).max()) for sheet in skin.sides)
    reach = (np.arange(max(int(round(wide * per_mm)), 3)) + 0.5) / per_mm
    up = 1.0 if side == BACK_VIEW else -1.0
    frame = np.array([[1.0, 0.0, 0.0], [0.0, up, 0.0], [0.0, 0.0, up]])
    halves, within = [], []
    for sheet, look in zip(skin.sides, painted, strict=True):
        outline = np.abs(_sections(sheet.corners, rows)[..., 1])
        shares: Array = np.linspace(0.0, 1.0, outline.shape[1], dtype=np.float64)
        if up < 0:
            outline, shares = outline[:, ::-1], shares[::-1]
        known = np.maximum.accumulate(outline, axis=1) + 1e-7 * np.arange(outline.shape[1])
        at = _read(np.asarray(reach, dtype=float), known, np.broadcast_to(shares, known.shape)).T
        halves.append(_lit(sheet, look, rows, at, frame, lamp))
        within.append(reach[:, None] <= outline.max(axis=1))
    first, second = (1, 0) if up > 0 else (0, 1)
    pixels, inside = (np.concatenate([half[first][::-1], half[second]]) for half in (halves, within))
    return Picture(pixels, inside, 0.0, wide, skin.length_mm, 2.0 * wide)


def _lit(sheet: SkinSheet, look: PaintedSide, rows: Array, at: Array, frame: Frame, lamp: Array) -> Array:
    """The cells at places (rows along, shares round, (h, w)) under a lamp, (h, w, 3) 0 to 255."""
    layers = [sheet.normal, look.colour]
    if look.mirror.any():
        layers += [look.mirror[..., None], look.turn[..., None], look.tint]
    read = _between(np.concatenate(layers, axis=-1, dtype=np.float32), rows, at * look.mirror.shape[1] - 0.5)
    normal, colour = read[..., :3], read[..., 3:6]
    facing = normal @ frame.astype(np.float32).T
    upward, toward = facing[..., 1], facing[..., 2]
    light = np.clip(facing @ lamp.astype(np.float32), 0.0, 1.0)
    half = lamp + np.array([0.0, 0.0, 1.0])
    shine = np.clip(facing @ (half / np.linalg.norm(half)).astype(np.float32), 0.0, 1.0)
    colour = colour * (AMBIENT + (1.0 - AMBIENT) * light / max(float(lamp[2]), 0.3))[..., None]
    if look.mirror.any():
        mirror, turn, tint = read[..., 6:7], read[..., 7], read[..., 8:]
        sky = 0.32 + 0.5 * np.clip(0.5 + upward / 2, 0.0, 1.0) ** 2 + 0.9 * shine**SPARK
        tint = _turned(tint, turn * (1.0 - np.clip(toward, 0.0, 1.0)))
        colour = colour * (1.0 - 0.75 * mirror) + mirror * tint * sky[..., None]
    if look.flakes.any():
        colour = colour + _sparkle(look, rows, at, facing, lamp)
    if look.is_glossy:
        colour = colour + GLOSS_SENDS * (shine**GLOSS)[..., None]
    return coded_of(colour)


def _sparkle(look: PaintedSide, rows: Array, at: Array, facing: Array, lamp: Array) -> Array:
    """What flakes send to who looks, (h, w, 3): the few that lie so that they mirror the lamp."""
    m, n = look.flakes.shape
    row = np.clip(rows.astype(int), 0, m - 1)[None, :]
    column = np.clip((at * n).astype(int), 0, n - 1)
    half = (lamp + np.array([0.0, 0.0, 1.0])) / np.linalg.norm(lamp + np.array([0.0, 0.0, 1.0]))
    mirrored = np.clip((facing + flake_tilts(m, n)[row, column]) @ half.astype(np.float32), 0.0, 1.0)
    shown = look.flakes[row, column] * mirrored**FLAKE_SPARK * FLAKE_SENDS
    return np.asarray(shown[..., None] * look.tint[row, column])


@lru_cache(maxsize=8)
def flake_tilts(m: int, n: int) -> Array:
    """How far the flake in each cell lies off its skin's normal, (m, n, 3); the same every time."""
    return np.asarray(TILTED * np.random.default_rng(5).normal(size=(m, n, 3)), dtype=np.float32)


def _between(values: Array, rows: Array, columns: Array) -> Array:
    """Values (m, n, k) at places between cells, rows (w,), columns (h, w): (h, w, k); held at the rim."""
    m, n, _ = values.shape
    row = np.clip(rows - 0.5, 0.0, m - 1.001)
    column = np.clip(columns, 0.0, n - 1.001)
    low, left = row.astype(np.int32), column.astype(np.int32)
    down = (row - low).astype(np.float32)[None, :, None]
    along = (column - left).astype(np.float32)[..., None]
    flat = values.reshape(m * n, -1)
    at = low[None, :] * n + left
    first = flat[at] * (1.0 - along) + flat[at + 1] * along
    second = flat[at + n] * (1.0 - along) + flat[at + n + 1] * along
    return np.asarray(first + (second - first) * down)


def _turned(tint: Array, turn: Array) -> Array:
    """Tints with their hue turned by shares of the circle: about the grey axis."""
    if not np.any(turn):
        return tint
    cos, sin = np.cos(2 * np.pi * turn)[..., None], np.sin(2 * np.pi * turn)[..., None]
    grey = tint.mean(axis=-1, keepdims=True)
    crossed = np.cross(np.full(3, 1.0 / np.sqrt(3.0)), tint)
    return np.asarray(np.clip(tint * cos + crossed * sin + grey * (1.0 - cos), 0.0, None))
