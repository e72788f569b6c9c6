"""Hot plastisol: amount with port and runner, shots to a heated jug, pieces an hour, thin zones first,
colours, reclaimed scrap.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from math import floor

import numpy as np

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.moulds.pull import sections
from lamsik.core.quantities import plainly
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.skins import Mesh

MOST_HEATS = 3
"""Times scrap may be heated before it yellows; less if it was too hot."""
JUG_LEFT_G = 12.0


@dataclass(frozen=True)
class Jug:
    """A shot: soft body, port and runner [g], from a jug: shots before it is heated anew, pieces an hour."""

    casting_g: float
    runner_g: float
    shots_per_jug: int
    pieces_per_hour: float
    scrap_share: float

    @property
    def shot_g(self) -> float:
        """What one shot takes [g]."""
        return self.casting_g + self.runner_g


def shot(
    casting_ml: float,
    runner_ml: float,
    density_g_cm3: float,
    jug_g: float,
    cavities: int,
    heat_min: float,
    shot_min: float,
) -> Jug:
    """A shot of all cavities, and what a heated jug gives.

    Args:
        casting_ml: all cavities less inserts [ml].
        runner_ml: ports and runner [ml].
        density_g_cm3: of the plastisol.
        jug_g: what is heated at once [g]; a little always stays in it.
        cavities: alive ones.
        heat_min: heating and letting the bubbles out, once a jug [min].
        shot_min: fill, cool, take out, one shot [min].
    """
    for name, value in (
        ("casting_ml", casting_ml),
        ("density_g_cm3", density_g_cm3),
        ("heat_min", heat_min),
        ("shot_min", shot_min),
    ):
        finite_between(name, value, 0.01, 10_000.0)
    casting, runner = (
        casting_ml * density_g_cm3,
        finite_between("runner_ml", runner_ml, 0.0, 10_000.0, "ml") * density_g_cm3,
    )
    shots = floor((jug_g - JUG_LEFT_G) / (casting + runner)) if jug_g > JUG_LEFT_G else 0
    require(
        shots >= 1,
        "jug_g",
        plainly(jug_g, "mass"),
        rule("shot-takes", value=casting + runner, jug_left_g=JUG_LEFT_G),
    )
    minutes = heat_min + shots * shot_min
    return Jug(casting, runner, shots, 60.0 * shots * cavities / minutes, runner / (casting + runner))


@dataclass(frozen=True)
class Zone:
    """A stretch thinner than the limit: from, to [mm from the end that lies first], thinnest [mm]."""

    from_mm: float
    to_mm: float
    thinnest_mm: float


def thin_zones(mesh: Mesh, limit_mm: float) -> tuple[Zone, ...]:
    """Stretches along the body thinner than a limit [mm]: they are filled first, with the mould open."""
    sizes, x = sections(mesh)
    thin = sizes.min(axis=1) < finite_between("thin_mm", limit_mm, 0.1, 20.0, "mm")
    zones, start, first = [], None, float(mesh.vertices[:, 0].min())
    for n in range(len(x) + 1):
        if n < len(x) and thin[n]:
            start = n if start is None else start
        elif start is not None:
            zones.append(Zone(float(x[start]) - first, float(x[n - 1]) - first, float(sizes[start:n].min())))
            start = None
    return tuple(zones)


def sinks_to(up: Array) -> str:
    """Which side of the laid master (x to the tail, y to the back) is down in this attitude, where the
    pigment of a hot layer sinks to.
    """
    down = -np.asarray(up)
    axis = int(np.argmax(np.abs(down)))
    return (("nose", "tail"), ("belly", "back"), ("lower flank", "upper flank"))[axis][int(down[axis] > 0)]


GELLED, HOT = "gelled", "hot on hot"


def layer_says(way: str, colours: Sequence[str], up: Array) -> Finding:
    """What layers of colours come out as."""
    require(way in (GELLED, HOT), "layers", way, rule("or", gelled=GELLED, hot=HOT))
    require(len(colours) >= 2, "colours", list(colours), rule("two-colours"))
    if way == GELLED:
        return finding("sharp-line-between", under=colours[0], over=colours[1])
    return finding("colours-blend", under=colours[0], over=colours[1], side=sinks_to(up))


@dataclass(frozen=True)
class Scrap:
    """Reclaimed plastic: its colour, how much [g], how often it was heated."""

    colour: str
    grams: float
    heats: int


def from_scrap(wanted_g: float, colour: str, scraps: Sequence[Scrap]) -> tuple[tuple[Scrap, ...], float]:
    """Scrap of just this colour to use, the least heated first, and the new plastic still needed [g].

    Scrap of other colours is never mixed in; what was heated too often is left out.
    """
    finite_between("wanted_g", wanted_g, 0.0, 100_000.0, "g")
    used, need = [], wanted_g
    for row in sorted(
        (s for s in scraps if s.colour == colour and s.heats < MOST_HEATS), key=lambda s: s.heats
    ):
        take = min(row.grams, need)
        if take > 0:
            used.append(Scrap(row.colour, take, row.heats))
            need -= take
    return tuple(used), need


@dataclass(frozen=True)
class Coloured:
    """A colour's share of a shot: its name, how much [g], scrap of it to use, new plastic needed [g]."""

    colour: str
    grams: float
    scraps: tuple[Scrap, ...]
    new_g: float


_SHARE = re.compile(r"^(?P<name>.*?\S)\s+(?P<share>\d{1,3}(?:[.,]\d{1,2})?)\s*%$")


def parse_colours(text: str) -> tuple[tuple[str, float], ...]:
    """Colours as typed, first poured first, each with its share of the shot: `pearl, black` in equal parts,
    or `pearl 70 %, black 30 %`.

    Raises:
        Refused: a share for some and not for others, shares that do not add up to 100 % within 1 %, or a
            colour twice.
    """
    rows = [part.strip() for part in text.split(",") if part.strip()]
    matches = [_SHARE.match(row) for row in rows]
    names = [match["name"].strip() if match else row for row, match in zip(rows, matches, strict=True)]
    require(len(set(names)) == len(names), "colours", text, rule("name-each"))
    if not any(matches):
        return tuple((name, 1.0 / len(names)) for name in names)
    require(all(matches), "colours", text, rule("share-every"))
    shares = [float(match["share"].replace(",", ".")) for match in matches if match]
    require(
        abs(sum(shares) - 100.0) <= 1.0 and min(shares) > 0,
        "colours",
        text,
        rule("shares-add"),
    )
    return tuple((name, share / sum(shares)) for name, share in zip(names, shares, strict=True))


def by_colour(
    shot_g: float, colours: Sequence[tuple[str, float]], scraps: Sequence[Scrap]
) -> tuple[Coloured, ...]:
    """A shot [g] in its colours, each taking its own share from scrap of its own colour only."""
    portions = []
    for name, share in colours:
        used, new = from_scrap(shot_g * share, name, scraps)
        portions.append(Coloured(name, shot_g * share, used, new))
    return tuple(portions)


def may_gloss(zones: Sequence[Zone], asked: bool) -> Finding | None:
    """Whether the heat gun may go over it: thin zones round off, so it asks first. Nothing where it may."""
    if not zones or asked:
        return None
    return finding("thin-zone", first=zones[0].from_mm, last=zones[0].to_mm, thinnest=zones[0].thinnest_mm)
