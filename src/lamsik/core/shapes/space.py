"""The account of space: every cubic millimetre of a body belongs to exactly one of host, shell, void, kerf,
pocket, pour, slug, filler, part.

The large shares (segments, kerfs, poured stretches, the hollow) are integrated over the body; what sits in it
is small, so each thing is filled with columns and asked, piece by piece, in which segment it lies and what it
takes the place of.
"""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from lamsik.core.shapes.ballast_holes import Hole, slug_height_mm
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.columns import Columns
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.dividing import Bits, Bounds, cut_up
from lamsik.core.shapes.hardware import Lip, Placement
from lamsik.core.shapes.hollow import Shell, inside_columns
from lamsik.core.shapes.inside import Cavity, PouredEnd, cavity_point, pour_pieces
from lamsik.core.shapes.quadrature import Stretch
from lamsik.core.shapes.solid import between, segment_at, segments
from lamsik.core.shapes.things import CHAMBER, HOLE, Solid, Thing, things_in

KERF = ""
"""In place of a segment's key: sawn away."""

HOST, SHELL, VOID, SAWN, POCKET, POUR, SLUG, FILLER, PART = KINDS = (
    "host",
    "shell",
    "void",
    "kerf",
    "pocket",
    "pour",
    "slug",
    "filler",
    "part",
)


@dataclass(frozen=True)
class SpacePiece:
    """Some room: in which segment, its volume [mm³] and first moment about the origin (x, y, z) [mm⁴]."""

    segment: str
    volume_mm3: float
    moment: tuple[float, float, float]

    @property
    def at_mm(self) -> tuple[float, float, float]:
        """Its middle [mm]."""
        return tuple(m / self.volume_mm3 for m in self.moment)  # type: ignore[return-value]


@dataclass(frozen=True)
class Taken:
    """What a thing takes in the body: of the host, of the hollow of a shell, of each pour (key, piece),
    and all of it.
    """

    thing: Thing
    host: tuple[SpacePiece, ...]
    hollow: tuple[SpacePiece, ...]
    pours: tuple[tuple[str, SpacePiece], ...]
    whole: tuple[SpacePiece, ...]


@dataclass(frozen=True)
class Cell:
    """One share of the account: kind, name of what it belongs to (`hole:b1`, a pour's key, a segment), and
    where.
    """

    kind: str
    key: str
    piece: SpacePiece


@dataclass(frozen=True)
class Space:
    """What lies in a body: the hollow and the poured stretches before anything is set into them, the walls
    round things, the things.
    """

    hollow: tuple[SpacePiece, ...]
    pours: tuple[tuple[str, tuple[SpacePiece, ...]], ...]
    walls: tuple[SpacePiece, ...]
    taken: tuple[Taken, ...]

    def of(self, kind: str, key: str) -> Taken:
        """What a thing of a kind takes; the holes of a pair together."""
        rows = [row for row in self.taken if (row.thing.kind, row.thing.key) == (kind, key)]
        if len(rows) == 1:
            return rows[0]
        host, hollow, whole = (
            by_segment(piece for row in rows for piece in getattr(row, name))
            for name in ("host", "hollow", "whole")
        )
        return Taken(rows[0].thing, host, hollow, tuple(pair for row in rows for pair in row.pours), whole)

    def left_of_pour(self, key: str) -> tuple[SpacePiece, ...]:
        """A poured stretch less what is set into it."""
        return less(
            dict(self.pours)[key], [piece for row in self.taken for name, piece in row.pours if name == key]
        )

    @property
    def left_hollow(self) -> tuple[SpacePiece, ...]:
        """The hollow less the things in it and the walls round them."""
        return less(self.hollow, [*self.walls, *(piece for row in self.taken for piece in row.hollow)])


def total(pieces: Iterable[SpacePiece], segment: str = KERF) -> SpacePiece:
    """All pieces as one."""
    rows = list(pieces)
    moment = np.sum([row.moment for row in rows], axis=0) if rows else np.zeros(3)
    return SpacePiece(
        segment, sum(row.volume_mm3 for row in rows), (float(moment[0]), float(moment[1]), float(moment[2]))
    )


def less(pieces: Iterable[SpacePiece], away: Iterable[SpacePiece]) -> tuple[SpacePiece, ...]:
    """Pieces less others, segment by segment; what is left of each that is left."""
    gone = [
        replace(row, volume_mm3=-row.volume_mm3, moment=(-row.moment[0], -row.moment[1], -row.moment[2]))
        for row in away
    ]
    return tuple(row for row in by_segment([*pieces, *gone]) if row.volume_mm3 > 1e-6)


def by_segment(pieces: Iterable[SpacePiece]) -> tuple[SpacePiece, ...]:
    """Pieces gathered by segment."""
    rows = list(pieces)
    return tuple(
        total((row for row in rows if row.segment == key), key)
        for key in dict.fromkeys(row.segment for row in rows)
    )


def space_of(design: Design) -> Space:
    """What lies where in a design's body; kept by what takes room, so that another paint or water asks
    nothing anew.
    """
    bores = tuple(placed for placed in design.hardware if placed.item.pocket_ml > 0)
    return _space(design.body, bores, design.lip, design.ballast, design.cavities, design.pours, design.shell)


@lru_cache(maxsize=128)
def _space(
    body: Body,
    bores: tuple[Placement, ...],
    lip: Lip | None,
    ballast: tuple[Hole, ...],
    cavities: tuple[Cavity, ...],
    pours: tuple[PouredEnd, ...],
    shell: Shell | None,
) -> Space:
    things, bounds = things_in(body, ballast, cavities, bores, lip), Bounds.of(body, pours, shell)
    hollow: tuple[SpacePiece, ...] = ()
    if shell:
        phi = np.linspace(0.0, np.pi, 61)
        columns = inside_columns(
            body,
            shell.wall_mm,
            bounds.hollow_breaks(float(body.bottom.at(phi).min()), float(body.top.at(phi).max())),
        )
        hollow = by_segment(_gathered(row := cut_up(columns, bounds, (), all_inside=True), row.hollow))
    poured = tuple(
        (pour.key, tuple(_piece_of(key, piece) for key, piece in pour_pieces(body, pour))) for pour in pours
    )
    taken: list[Taken] = []
    before: list[Solid] = []
    for thing in things:
        taken.append(_taken(thing, bounds, tuple(before)))
        before.append(thing.shape)
    walls = _walls(things, bounds, shell) if shell and shell.around_mm > 0 else ()
    return Space(hollow, poured, walls, tuple(taken))


def _gathered(bits: Bits, chosen: NDArray[np.bool_]) -> tuple[SpacePiece, ...]:
    """The chosen bits, by segment."""
    pieces = []
    for number in np.unique(bits.segment[chosen]):
        mine = chosen & (bits.segment == number)
        held = bits.volume[mine]
        if held.sum() > 1e-9:
            moment = (float(held @ bits.x[mine]), float(held @ bits.y[mine]), float(held @ bits.z[mine]))
            pieces.append(SpacePiece(KERF if number < 0 else f"s{number + 1}", float(held.sum()), moment))
    return tuple(pieces)


def _as_one(columns: Columns) -> tuple[SpacePiece, ...]:
    """Columns that nothing divides; they are in the only segment there is."""
    there = columns.high > columns.low
    x, y, ground, low, high = (
        row[there] for row in (columns.x, columns.y, columns.ground, columns.low, columns.high)
    )
    held = ground * (high - low)
    moment = (float(held @ x), float(held @ y), float(held @ (low + high)) / 2)
    return (SpacePiece("s1", float(held.sum()), moment),) if there.any() else ()


def _taken(thing: Thing, bounds: Bounds, before: tuple[Solid, ...]) -> Taken:
    """What a thing takes that no thing before it has; in a kerf there is nothing to take."""
    columns = thing.shape.columns(bounds.breaks(*thing.shape.heights))
    if bounds.is_plain and not any(columns.meets(*shape.span) for shape in before):
        whole = _as_one(columns)
        return Taken(thing, whole, (), (), whole)
    bits = cut_up(columns, bounds, before)
    here = ~bits.barred & (bits.segment >= 0)
    host, hollow = _gathered(bits, here & (bits.pour < 0) & ~bits.hollow), _gathered(bits, here & bits.hollow)
    pours = tuple(
        (key, piece)
        for n, key in enumerate(bounds.keys)
        for piece in _gathered(bits, here & (bits.pour == n))
    )
    return Taken(thing, host, hollow, pours, by_segment([*host, *hollow, *(piece for _, piece in pours)]))


def _walls(things: tuple[Thing, ...], bounds: Bounds, shell: Shell) -> tuple[SpacePiece, ...]:
    """The walls round what sits in the hollow, where no thing and no other wall is."""
    shapes = tuple(thing.shape for thing in things)
    walls: list[SpacePiece] = []
    before: list[Solid] = []
    for shape in shapes:
        grown = shape.grown(shell.around_mm)
        bits = cut_up(grown.columns(bounds.breaks(*grown.heights)), bounds, (*shapes, *before))
        walls += _gathered(bits, bits.hollow & ~bits.barred)
        before.append(grown)
    return by_segment(walls)


def hollow_outlines(design: Design, count: int = 161) -> tuple[Array, ...]:
    """The hollow in the middle plane, a closed outline (n, 2) of points (x, z) [mm] for each segment that
    has some.
    """
    if design.shell is None:
        return ()
    bounds = Bounds.of(design.body, design.pours, design.shell)
    assert bounds.inside is not None
    x = np.linspace(0.0, design.body.length_mm, count)
    low, high = bounds.inside(x, np.zeros(count))
    x, low, high = (row[high > low] for row in (x, low, high))
    outlines = []
    for number in range(len(design.body.joints) + 1):
        edges = [
            np.column_stack([x, z])[
                (bounds.segment_of(x, z) == number) & bounds.is_open(x, z) & (bounds.pour_of(x, z) < 0)
            ]
            for z in (high, low)
        ]
        if all(len(edge) for edge in edges):
            outlines.append(np.vstack([edges[0], edges[1][::-1]]))
    return tuple(outlines)


def hollow_section(design: Design, x_mm: float, count: int = 61) -> Array | None:
    """The hollow across a station, a closed outline (n, 2) of points (y, z) [mm]; None where the body is
    solid there.
    """
    if design.shell is None:
        return None
    bounds = Bounds.of(design.body, design.pours, design.shell)
    assert bounds.inside is not None
    wide = design.body.width_mm / 2
    y = np.linspace(-wide, wide, 20 * count)
    x = np.full(y.shape, x_mm)
    low, high = bounds.inside(x, y)
    there = high > low
    middle = np.where(there, (np.where(there, low, 0.0) + np.where(there, high, 0.0)) / 2, 0.0)
    there &= bounds.is_open(x, middle) & (bounds.pour_of(x, middle) < 0)
    if there.sum() < 3:
        return None
    at = np.unique(np.round(np.linspace(0, there.sum() - 1, count)).astype(int))
    y, low, high = (row[there][at] for row in (y, low, high))
    return np.vstack([np.column_stack([y, high]), np.column_stack([y, low])[::-1]])


def account(design: Design) -> tuple[Cell, ...]:
    """Every share of the uncut body once: kind, key and where; they add up to it."""
    space, body, shell = space_of(design), design.body, design.shell
    cells = [Cell(SAWN, joint.key, _kerf(body, n)) for n, joint in enumerate(body.joints)]
    rest = [_piece_of(row.key, Stretch(row.volume_mm3, row.centroid_mm)) for row in segments(body)]
    for kind, key in dict.fromkeys((row.thing.kind, row.thing.key) for row in space.taken):
        cells += _cells_of(design, space.of(kind, key))
    cells += [Cell(POUR, key, piece) for key, _ in space.pours for piece in space.left_of_pour(key)]
    cells += [Cell(VOID, "shell", piece) for piece in space.left_hollow]
    gone = [cell.piece for cell in cells if cell.kind != SAWN]
    return (*cells, *(Cell(SHELL if shell else HOST, piece.segment, piece) for piece in less(rest, gone)))


def _cells_of(design: Design, row: Taken) -> list[Cell]:
    """A hole is slug and filler, a chamber balls and pocket; bores and the slot are full of their part."""
    kind, key = row.thing.kind, row.thing.key
    name = f"{kind}:{key}"
    if kind == HOLE:
        slug, filler = slug_and_filler(
            design.body, next(h for h in design.ballast if h.key == key), row.whole
        )
        return [
            *([Cell(SLUG, name, slug)] if slug.volume_mm3 > 0 else []),
            *(Cell(FILLER, name, piece) for piece in filler),
        ]
    if kind == CHAMBER:
        cavity = next(c for c in design.cavities if c.key == key)
        x, _, z = cavity_point(design.body, cavity)
        volume = 1000.0 * cavity.mass_g / cavity.slug.density_g_cm3
        balls = SpacePiece(segment_at(design.body, x, z), volume, (volume * x, 0.0, volume * z))
        return [Cell(SLUG, name, balls), *(Cell(POCKET, name, piece) for piece in less(row.whole, [balls]))]
    return [Cell(PART, name, piece) for piece in row.whole]


def slug_and_filler(
    body: Body, hole: Hole, whole: tuple[SpacePiece, ...]
) -> tuple[SpacePiece, tuple[SpacePiece, ...]]:
    """The slug at the end of the drill, and what filler takes of the hole: under it and round it."""
    z, volume = slug_height_mm(body, hole), 1000.0 * hole.mass_g / hole.slug.density_g_cm3
    slug = SpacePiece(segment_at(body, hole.x_mm, z), volume, (volume * hole.x_mm, 0.0, volume * z))
    return slug, less(whole, [slug])


def _kerf(body: Body, number: int) -> SpacePiece:
    return _piece_of(KERF, between(body, *body.cuts[number]))


def _piece_of(segment: str, row: Stretch) -> SpacePiece:
    x, y, z = (row.volume_mm3 * v for v in row.centroid_mm)
    return SpacePiece(segment, row.volume_mm3, (x, y, z))
