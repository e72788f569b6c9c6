"""What divides the room in a body (joints, pours, the inside of a shell), and columns cut up by it into
bits that lie in one thing each.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from math import cos, radians, tan

import numpy as np
from numpy.typing import NDArray

from lamsik.core.shapes.body import Body
from lamsik.core.shapes.columns import Columns, Reach
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.hollow import Shell, reach_inside
from lamsik.core.shapes.inside import PouredEnd, pour_cuts
from lamsik.core.shapes.joints import Cut
from lamsik.core.shapes.solid import SQUARE_DEG
from lamsik.core.shapes.things import Solid


@dataclass(frozen=True, eq=False)
class Bounds:
    """What divides a body: the faces of its joints and pours, and the inside of its shell."""

    joints: tuple[tuple[Cut, Cut], ...]
    pours: tuple[tuple[Cut | None, Cut | None], ...]
    keys: tuple[str, ...]
    inside: Reach | None
    wall_mm: float

    @staticmethod
    def of(body: Body, pours: tuple[PouredEnd, ...], shell: Shell | None) -> "Bounds":
        """The bounds in a body."""
        inside = reach_inside(body, shell.wall_mm) if shell else None
        return Bounds(
            body.cuts,
            tuple(pour_cuts(body, pour) for pour in pours),
            tuple(pour.key for pour in pours),
            inside,
            shell.wall_mm if shell else 0.0,
        )

    @property
    def is_plain(self) -> bool:
        """Whether nothing divides the body."""
        return not self.joints and not self.pours and self.inside is None

    @property
    def cuts(self) -> tuple[Cut, ...]:
        """Every face, those of the walls that close a hollow at its joints too."""
        rows = [cut for pair in (*self.joints, *self.pours) for cut in pair if cut]
        return (*rows, *(cut for pair in self.closed for cut in pair))

    @property
    def closed(self) -> tuple[tuple[Cut, Cut], ...]:
        """The joints with the walls that close a hollow on both sides of them."""
        if self.inside is None:
            return ()
        return tuple(
            (
                Cut(fore.x_mm - self.wall_mm / cos(radians(fore.slant_deg)), fore.slant_deg),
                Cut(aft.x_mm + self.wall_mm / cos(radians(aft.slant_deg)), aft.slant_deg),
            )
            for fore, aft in self.joints
        )

    def breaks(self, low_mm: float, high_mm: float) -> Array:
        """Where faces cross something that reaches from one height to another [mm], x (n,): integrals
        along x break there.
        """
        return _crossed(self.cuts, low_mm, high_mm)

    def hollow_breaks(self, low_mm: float, high_mm: float) -> tuple[float, ...]:
        """The same for the hollow: it ends at its own walls ahead of a joint."""
        cuts = [cut for pair in (*self.closed, *self.pours) for cut in pair if cut]
        return tuple(sorted({round(x, 6) for x in _crossed(cuts, low_mm, high_mm).tolist()}))

    def segment_of(self, x: Array, z: Array) -> NDArray[np.int64]:
        """The number of the segment of each point (n,) from 0 at the nose; −1 in a kerf."""
        number, sawn = np.zeros(x.shape, dtype=np.int64), np.zeros(x.shape, dtype=bool)
        for fore, aft in self.joints:
            past = _behind(aft, x, z)
            number += past
            sawn |= _behind(fore, x, z) & ~past
        return np.where(sawn, -1, number)

    def pour_of(self, x: Array, z: Array) -> NDArray[np.int64]:
        """The number of the pour of each point (n,), the first where two overlap; −1 in none."""
        number = np.full(x.shape, -1, dtype=np.int64)
        for n, (first, last) in reversed(list(enumerate(self.pours))):
            here = np.ones(x.shape, dtype=bool) if first is None else _behind(first, x, z)
            number[here if last is None else here & ~_behind(last, x, z)] = n
        return number

    def is_open(self, x: Array, z: Array) -> NDArray[np.bool_]:
        """Whether points (n,) keep clear of the walls that close a hollow at its joints."""
        clear = np.ones(x.shape, dtype=bool)
        for fore, aft in self.closed:
            clear &= ~_behind(fore, x, z) | _behind(aft, x, z)
        return clear


def _crossed(cuts: Iterable[Cut], low_mm: float, high_mm: float) -> Array:
    """A square face is crossed at one x; along a slanted one there are kinks from foot to head."""
    heights = np.linspace(low_mm, high_mm, 5)
    rows = [
        (
            np.array([cut.x_mm])
            if abs(cut.slant_deg) < SQUARE_DEG
            else cut.x_mm + heights * tan(radians(cut.slant_deg))
        )
        for cut in cuts
    ]
    return np.concatenate([np.zeros(0), *rows])


def _behind(cut: Cut, x: Array, z: Array) -> NDArray[np.bool_]:
    return np.asarray(x >= cut.x_mm + z * tan(radians(cut.slant_deg)))


@dataclass(frozen=True, eq=False)
class Bits:
    """Bits of columns (n,): their middles [mm] and volumes [mm³]; the number of their segment (−1 in a kerf)
    and pour (−1 in none); whether in the hollow, and whether in something that bars them.
    """

    x: Array
    y: Array
    z: Array
    volume: Array
    segment: NDArray[np.int64]
    pour: NDArray[np.int64]
    hollow: NDArray[np.bool_]
    barred: NDArray[np.bool_]


def cut_up(columns: Columns, bounds: Bounds, shapes: Iterable[Solid], all_inside: bool = False) -> Bits:
    """The columns cut where they pass from one thing to the next; volume and moments are exact for each
    column.

    Args:
        columns: what is cut up.
        bounds: what divides the body.
        shapes: what bars it.
        all_inside: whether the columns are those of the hollow itself.
    """
    tall = columns.high > columns.low
    x, y, ground, low, high = (
        row[tall] for row in (columns.x, columns.y, columns.ground, columns.low, columns.high)
    )
    rows = [
        (x - cut.x_mm) / tan(radians(cut.slant_deg))
        for cut in bounds.cuts
        if abs(cut.slant_deg) >= SQUARE_DEG
    ]
    inside = (low, high) if all_inside else bounds.inside(x, y) if bounds.inside else None
    others = [shape.reach(x, y) for shape in shapes]
    for pair in (*((inside,) if inside else ()), *others):
        rows += pair
    edges = np.sort(np.column_stack([low, *(np.clip(row, low, high) for row in rows), high]), axis=1)
    middle, size = (edges[:, 1:] + edges[:, :-1]) / 2, np.diff(edges, axis=1)
    flat_x, flat_y, z = np.repeat(x, middle.shape[1]), np.repeat(y, middle.shape[1]), middle.ravel()
    segment, pour = bounds.segment_of(flat_x, z), bounds.pour_of(flat_x, z)
    hollow = np.zeros(z.shape, dtype=bool)
    if inside is not None:
        hollow = _within(middle, inside) & (pour < 0) & (segment >= 0) & bounds.is_open(flat_x, z)
    barred = np.zeros(z.shape, dtype=bool)
    for pair in others:
        barred |= _within(middle, pair)
    return Bits(flat_x, flat_y, z, (size * ground[:, None]).ravel(), segment, pour, hollow, barred)


def _within(middle: Array, pair: tuple[Array, Array]) -> NDArray[np.bool_]:
    """Whether the middles (n, k) of each column lie between its foot and head (n,); flat."""
    return np.asarray((middle > pair[0][:, None]) & (middle < pair[1][:, None])).ravel()
