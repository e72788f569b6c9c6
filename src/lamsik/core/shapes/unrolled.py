"""The skin of a body in cells: along it by stations, round it by shares of the girth from back to keel.

Each row of corners is a section's outline, walked by its own length, so that a share of the girth is the same
place on a slim and on a deep section.
"""

from functools import lru_cache
from math import radians, tan

import manifold3d
import numpy as np

from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array, phi_of_share, share_of_phi
from lamsik.core.shapes.joints import Cut
from lamsik.core.shapes.polyhedra import manifold_of
from lamsik.core.shapes.quadrature import sections
from lamsik.core.shapes.skins import Skin, mesh_of

QUARTER = 65
"""Points on a quarter of a section before it is walked."""
INSET = 5e-4
"""How far inside its ends a mesh is cut for its first and last outline, a share of its length."""

FLAT = 0.01
"""Points within this share of a slice's height count as equally high."""


def corners(body: Body, along: int, around: int) -> Array:
    """Corners of the cells of both sides of the uncut skin, (2, along + 1, around + 1, 3) [mm]: the left
    (y < 0) and the right, from the nose to the tail, from the back (0) to the keel.

    Notes: stations are even in φ (see `curves`), so that cells are small where ends are round.
    """
    if body.skin is not None:
        return _of_mesh(body.skin, along, around)
    phi = np.linspace(0.0, np.pi, along + 1)
    y, z = _walked(*_outlines(body, phi), around)
    x = np.broadcast_to(body.length_mm * share_of_phi(phi)[:, None], y.shape)
    return np.stack([np.stack([x, -y, z], axis=-1), np.stack([x, y, z], axis=-1)])


def _outlines(body: Body, phi: Array) -> tuple[Array, Array]:
    """Right halves of the sections from back to keel, y and z, (stations, points) [mm]."""
    half, widest, up, low = sections(body, phi)
    angle = np.linspace(0.0, np.pi / 2, QUARTER)
    rows = []
    for exponent, reach, sign, turned in (
        (body.upper_exponent, up, 1.0, angle[::-1]),
        (body.lower_exponent, low, -1.0, angle[1:]),
    ):
        cos, sin = np.maximum(np.cos(turned), 0.0), np.sin(turned)
        radius = (cos**exponent + sin**exponent) ** (-1.0 / exponent)
        rows.append((np.outer(half, cos * radius), widest[:, None] + sign * np.outer(reach, sin * radius)))
    return tuple(np.concatenate(part, axis=1) for part in zip(*rows, strict=True))  # type: ignore[return-value]


def _walked(y: Array, z: Array, around: int) -> tuple[Array, Array]:
    """Outlines (rows, points) walked in even steps of their own length, (rows, around + 1)."""
    step = np.hypot(np.diff(y, axis=1), np.diff(z, axis=1))
    way = np.concatenate([np.zeros((len(y), 1)), np.cumsum(step, axis=1)], axis=1)
    whole = way[:, -1:]
    even = np.linspace(0.0, 1.0, y.shape[1])
    share = np.where(whole > 1e-12, way / np.maximum(whole, 1e-12), even)
    row = 2.0 * np.arange(len(y))[:, None]  # rows lie apart on one line, which is read in one go
    at, known = (row + np.linspace(0.0, 1.0, around + 1)).ravel(), (row + share).ravel()
    shape = (len(y), around + 1)
    return np.interp(at, known, y.ravel()).reshape(shape), np.interp(at, known, z.ravel()).reshape(shape)


def _of_mesh(skin: Skin, along: int, around: int) -> Array:
    """The same of a mesh, sliced square to its axis: the outer loop of each slice is the skin."""
    points = np.zeros((2, along + 1, around + 1, 3))
    size = np.array([skin.width_mm, skin.depth_mm])
    for n, (share, halves) in enumerate(_slices(skin.digest, along)):
        for side, half in enumerate(halves):
            y, z = _walked(half[None, :, 0] * size[0], half[None, :, 1] * size[1], around)
            x = np.full(around + 1, share * skin.length_mm)
            points[side, n] = np.column_stack([x, y[0], z[0]])
    return points


@lru_cache(maxsize=8)
def _slices(digest: str, along: int) -> list[tuple[float, tuple[Array, Array]]]:
    """A mesh in shares of its size, sliced: where, and the left and right half of its outline there."""
    # (x, y, z) → (−z, y, x): slices are cut at heights
    solid = manifold_of(mesh_of(Skin(digest, 1.0, 1.0, 1.0))).rotate((0.0, -90.0, 0.0))
    shares = np.clip(share_of_phi(np.linspace(0.0, np.pi, along + 1)), INSET, 1.0 - INSET)
    return [(float(share), _halves(_outer(solid, float(share)))) for share in shares]


def _outer(solid: manifold3d.Manifold, x: float) -> Array:
    """The outer loop of the slice at x, points (y, z)."""
    loops = [np.asarray(loop, dtype=float) for loop in solid.slice(x).to_polygons()]
    if not loops:
        return np.zeros((3, 2))
    loop = max(loops, key=_area)
    return np.column_stack([loop[:, 1], -loop[:, 0]])


def _area(loop: Array) -> float:
    y, z = loop[:, 0], loop[:, 1]
    return float(abs(y @ np.roll(z, -1) - z @ np.roll(y, -1))) / 2


def _halves(loop: Array) -> tuple[Array, Array]:
    """A closed outline in two chains from ridge to keel, left and right; of a flat back, from its middle."""
    loop = _with_middle(loop)
    ridge, keel = (_nearest(loop, sign * loop[:, 1]) for sign in (1.0, -1.0))
    turned = np.roll(loop, -ridge, axis=0)
    at = (keel - ridge) % len(loop)
    one, other = turned[: at + 1], np.vstack([turned[at:], turned[:1]])[::-1]
    return (one, other) if one[:, 0].mean() < other[:, 0].mean() else (other, one)


def _nearest(loop: Array, height: Array) -> int:
    """Which of the highest points of an outline is nearest to the middle plane."""
    high = height >= height.max() - FLAT * float(np.ptp(height))
    return int(np.argmin(np.where(high, np.abs(loop[:, 0]), np.inf)))


def _with_middle(loop: Array) -> Array:
    """The outline with the points at which it crosses the middle plane."""
    ahead = np.roll(loop, -1, axis=0)
    crosses = loop[:, 0] * ahead[:, 0] < 0
    share = loop[crosses, 0] / (loop[crosses, 0] - ahead[crosses, 0])
    points = loop[crosses] + share[:, None] * (ahead[crosses] - loop[crosses])
    points[:, 0] = 0.0
    return np.insert(loop, np.nonzero(crosses)[0] + 1, points, axis=0)


def areas(points: Array) -> Array:
    """Areas of the cells between corners (…, m + 1, n + 1, 3), (…, m, n) [mm²]: half the product of their
    diagonals.
    """
    one = points[..., 1:, 1:, :] - points[..., :-1, :-1, :]
    other = points[..., 1:, :-1, :] - points[..., :-1, 1:, :]
    return np.asarray(np.linalg.norm(np.cross(one, other), axis=-1) / 2)


def middles(points: Array) -> Array:
    """Middles of the cells between corners, (…, m, n, 3) [mm]."""
    return np.asarray(
        (
            points[..., 1:, 1:, :]
            + points[..., :-1, :-1, :]
            + points[..., 1:, :-1, :]
            + points[..., :-1, 1:, :]
        )
        / 4
    )


def sawn(points: Array, cuts: tuple[tuple[Cut, Cut], ...]) -> Array:
    """What share of each cell kerfs take away, (…, m, n); exact along the body, for cuts square to it."""
    x, z = points[..., 0], points[..., 2]
    first, last = (x[..., :-1, :-1] + x[..., :-1, 1:]) / 2, (x[..., 1:, :-1] + x[..., 1:, 1:]) / 2
    height = (z[..., 1:, 1:] + z[..., :-1, :-1] + z[..., 1:, :-1] + z[..., :-1, 1:]) / 4
    gone = np.zeros(first.shape)
    for fore, aft in cuts:
        begins, ends = (cut.x_mm + height * tan(radians(cut.slant_deg)) for cut in (fore, aft))
        gone += np.clip(np.minimum(last, ends) - np.maximum(first, begins), 0.0, None)
    return np.asarray(gone / np.maximum(last - first, 1e-12))


def face_outline(body: Body, cut: Cut, count: int = 97) -> Array:
    """The closed outline of the face a cut leaves, (2·count, 3) [mm]: down the right side, up the left.

    Notes: even in the angle of the plane's heights, so that the rounded ends are followed.
    """
    lean = tan(radians(cut.slant_deg))
    low, high = (_met(body, cut, at_top) for at_top in (False, True))
    z = (high + low) / 2 + (high - low) / 2 * np.cos(np.linspace(0.0, np.pi, count))
    x = cut.x_mm + z * lean
    y = half_widths(body, x, z)
    right = np.column_stack([x, y, z])
    return np.vstack([right, (right * [1.0, -1.0, 1.0])[::-1]])


def _met(body: Body, cut: Cut, at_top: bool) -> float:
    """The height at which a cut leaves the body [mm], at its back or its belly."""
    line, height = body.top if at_top else body.bottom, 0.0
    for _ in range(40):
        share = min(max(cut.at_height(height) / body.length_mm, 0.0), 1.0)
        height = (height + float(line.at(phi_of_share(np.array([share])))[0])) / 2
    return height


def half_widths(body: Body, x: Array, z: Array) -> Array:
    """Half-widths of the uncut curve at points (x, z) [mm]; 0 outside its profile."""
    half, widest, up, low = sections(body, phi_of_share(x / body.length_mm))
    is_up = z >= widest
    reach, exponent = np.where(is_up, up, low), np.where(is_up, body.upper_exponent, body.lower_exponent)
    share = np.abs(z - widest) / np.maximum(reach, 1e-9)
    inside = np.clip(1.0 - np.minimum(share, 1.0) ** exponent, 0.0, None)
    return np.asarray(half * inside ** (1.0 / exponent))


def fan(outline: Array, rings: int) -> Array:
    """Corners of a flat patch inside a closed outline (n, 3), (rings + 1, n + 1, 3) [mm]: rings from its
    middle out.
    """
    closed = np.vstack([outline, outline[:1]])
    middle = outline.mean(axis=0)
    share = np.linspace(0.0, 1.0, rings + 1)[:, None, None]
    return np.asarray(middle + share * (closed - middle))
