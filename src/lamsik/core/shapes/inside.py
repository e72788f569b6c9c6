"""Ballast that is no drilled slug: a denser end poured into the body, and balls in a closed cavity."""

from dataclasses import dataclass, replace
from functools import lru_cache
from math import pi
from typing import Annotated

import numpy as np

from lamsik.core.errors import require, rule
from lamsik.core.limits import Between, Key, Name, held
from lamsik.core.shapes.ballast_holes import BALLS, Slug
from lamsik.core.shapes.body import Body, leaning, station
from lamsik.core.shapes.hardware import Point
from lamsik.core.shapes.joints import Cut
from lamsik.core.shapes.quadrature import Stretch
from lamsik.core.shapes.solid import segments, wedge


@dataclass(frozen=True)
class PouredEnd:
    """A stretch of the body poured in another material, from one x to another [mm]; density [g/cm³].

    Poured with the mould tilted its inner faces lean: `tilt_deg` aft at the top, as the level stood in the
    mould.
    """

    key: Key
    name: Name
    density_g_cm3: Annotated[float, Between(0.05, 12, "g/cm³", "density")]
    from_mm: Annotated[float, Between(0, 600, "mm", "distance from the nose")]
    to_mm: Annotated[float, Between(0, 600, "mm", "distance from the nose")]
    tilt_deg: Annotated[float, Between(-60, 60, "°", "lean of its inner faces, aft at the top")] = 0.0

    def __post_init__(self) -> None:
        held(self)
        require(
            self.to_mm > self.from_mm,
            "to_mm",
            self.to_mm,
            rule("further-aft", from_mm=self.from_mm),
        )


@dataclass(frozen=True)
class Cavity:
    """A closed chamber along the body with balls in a row, glued or left to rattle.

    `up_mm` is the height of its middle over the belly line, `play_mm` how much wider it is than the balls.
    """

    key: Key
    slug: Slug
    count: Annotated[int, Between(1, 40, "", "balls in it")]
    x_mm: Annotated[float, Between(0, 600, "mm", "middle, from the nose")]
    up_mm: Annotated[float, Between(0, 200, "mm", "height of its middle over the belly line")]
    play_mm: Annotated[float, Between(0, 10, "mm", "bore over ball")] = 0.6

    def __post_init__(self) -> None:
        held(self)
        require(
            self.slug.form == BALLS,
            "slug.form",
            self.slug.form,
            rule("balls-go"),
        )

    @property
    def mass_g(self) -> float:
        """Mass of the balls [g]."""
        return self.count * self.slug.ball_g

    @property
    def bore_mm(self) -> float:
        """Inner diameter [mm]."""
        return self.slug.diameter_mm + self.play_mm

    @property
    def length_mm(self) -> float:
        """Inner length [mm]."""
        return self.count * self.slug.diameter_mm + self.play_mm

    @property
    def volume_ml(self) -> float:
        """What the chamber takes out of the body [ml]: a cylinder."""
        return pi * self.bore_mm**2 / 4 * self.length_mm / 1000.0


def pour_volume_ml(body: Body, pour: PouredEnd) -> tuple[float, Point]:
    """Volume [ml] of the poured stretch, less the kerfs of joints in it, and its centroid [mm]."""
    pieces = pour_pieces(body, pour)
    volume = sum(piece.volume_mm3 for _, piece in pieces)
    if volume <= 0:
        return 0.0, ((pour.from_mm + pour.to_mm) / 2, 0.0, 0.0)
    centre = np.sum([piece.volume_mm3 * np.array(piece.centroid_mm) for _, piece in pieces], axis=0) / volume
    return volume / 1000.0, (float(centre[0]), float(centre[1]), float(centre[2]))


@lru_cache(maxsize=256)
def pour_pieces(body: Body, pour: PouredEnd) -> tuple[tuple[str, Stretch], ...]:
    """The poured stretch by segment: (segment's key, what of it lies there); faces of different lean may
    cross inside the body.
    """
    fore, aft = pour_cuts(body, pour)
    pieces = []
    for segment in segments(body):
        piece = wedge(
            body,
            tuple(cut for cut in (fore, segment.fore) if cut),
            tuple(cut for cut in (aft, segment.aft) if cut),
        )
        if piece.volume_mm3 > 0:
            pieces.append((segment.key, piece))
    return tuple(pieces)


def pour_cuts(body: Body, pour: PouredEnd) -> tuple[Cut | None, Cut | None]:
    """The faces of a poured stretch; None where it reaches the body's own end, which does not lean."""
    fore = leaning(body, pour.from_mm, pour.tilt_deg) if pour.from_mm > 0.01 else None
    aft = leaning(body, pour.to_mm, pour.tilt_deg) if pour.to_mm < body.length_mm - 0.01 else None
    return fore, aft


def cavity_point(body: Body, cavity: Cavity) -> Point:
    """Middle of the chamber (x, y, z) [mm]."""
    return (cavity.x_mm, 0.0, station(body, cavity.x_mm).bottom_mm + cavity.up_mm)


def stretched(pour: PouredEnd, factor: float) -> PouredEnd:
    """The pour on a body whose length changed by a factor."""
    return replace(pour, from_mm=pour.from_mm * factor, to_mm=pour.to_mm * factor)
