"""Drilled ballast: slugs, the holes they sit in, and what a hole removes."""

from dataclasses import dataclass
from functools import cached_property
from math import pi
from typing import Annotated

import numpy as np

from lamsik.core.errors import require, rule
from lamsik.core.limits import Between, Key, Name, OneOf, held
from lamsik.core.materials import EPOXY_FILLER_G_CM3
from lamsik.core.quantities import plainly
from lamsik.core.shapes.body import Body, station
from lamsik.core.shapes.columns import reach_of

BALLS = "ball"
BALL_OFF_SHARE, BALL_OFF_G = 0.02, 0.006
"""So far a mass may be off a whole number of balls [share, g]: their own spread, and rounding as it is
typed.
"""

ROD = "rod"


@dataclass(frozen=True)
class Slug:
    """Ballast metal: a rod cut to a mass, or a ball of fixed mass; diameter [mm], density [g/cm³]."""

    name: Name
    form: Annotated[str, OneOf((ROD, BALLS))]
    metal: Name
    density_g_cm3: Annotated[float, Between(1.5, 23, "g/cm³", "density")]
    diameter_mm: Annotated[float, Between(0.5, 40, "mm", "diameter")]

    def __post_init__(self) -> None:
        held(self, "slug.")

    @cached_property
    def area_mm2(self) -> float:
        """Cross-section [mm²]."""
        return pi * self.diameter_mm**2 / 4

    @cached_property
    def ball_g(self) -> float:
        """Mass of one ball [g]."""
        return pi * self.diameter_mm**3 / 6 * self.density_g_cm3 / 1000.0

    def balls(self, mass_g: float) -> int:
        """How many balls weigh so much."""
        return round(mass_g / self.ball_g)

    def length_mm(self, mass_g: float) -> float:
        """Height the metal takes up in its hole [mm]; balls lie one above the other."""
        if self.form == BALLS:
            return self.balls(mass_g) * self.diameter_mm
        return mass_g * 1000.0 / (self.density_g_cm3 * self.area_mm2)


@dataclass(frozen=True)
class Hole:
    """A hole drilled straight up from the belly, its slug at the bottom of the drill, filler below; or a
    mirrored pair of them.

    `cover_mm` is the filler between slug and belly surface. `beside_mm` is how far each of a pair is from the
    middle, 0 for one hole on it; `mass_g` is all the metal of the pair.
    """

    key: Key
    slug: Slug
    mass_g: Annotated[float, Between(0, 500, "g", "metal in this hole")]
    x_mm: Annotated[float, Between(0, 600, "mm", "distance from the nose")]
    drill_mm: Annotated[float, Between(0.5, 50, "mm", "drill diameter")]
    cover_mm: Annotated[float, Between(0, 50, "mm", "filler between slug and belly")] = 2.0
    filler_g_cm3: Annotated[float, Between(0.05, 3, "g/cm³", "filler density")] = EPOXY_FILLER_G_CM3
    beside_mm: Annotated[
        float,
        Between(
            0,
            100,
            "mm",
            "how far each of a mirrored pair is from the middle, 0 for one hole on it; mass_g: both",
        ),
    ] = 0.0

    def __post_init__(self) -> None:
        held(self)
        if self.slug.form == BALLS and self.mass_g > 0:
            n, each = max(self.slug.balls(self.each_g), 1), self.slug.ball_g
            require(
                abs(self.each_g - n * each) <= max(BALL_OFF_SHARE * n * each, BALL_OFF_G),
                "mass_g",
                plainly(self.each_g, "mass"),
                rule(
                    "balls-come",
                    called=self.slug.name,
                    each=each,
                    n=n,
                    value=n * each,
                    value2=n + 1,
                    value3=(n + 1) * each,
                ),
            )
        require(
            self.drill_mm >= self.slug.diameter_mm - 1e-9,
            "drill_mm",
            self.drill_mm,
            rule("least-slug", diameter_mm=self.slug.diameter_mm),
        )

    @cached_property
    def count(self) -> int:
        """How many holes: one on the middle, or two beside it."""
        return 2 if self.beside_mm > 0 else 1

    @property
    def each_g(self) -> float:
        """Metal in each hole [g]."""
        return self.mass_g / self.count

    @property
    def sides_mm(self) -> tuple[float, ...]:
        """Where the holes are from side to side, y [mm]."""
        return (-self.beside_mm, self.beside_mm) if self.beside_mm > 0 else (0.0,)

    @cached_property
    def tall_mm(self) -> float:
        """How tall the metal stands in each hole [mm]."""
        return self.slug.length_mm(self.each_g)

    @cached_property
    def depth_mm(self) -> float:
        """Drill depth [mm]."""
        return self.tall_mm + self.cover_mm

    @cached_property
    def hole_ml(self) -> float:
        """What the drill takes out, flat at its mouth, all holes together [ml]."""
        return self.count * pi * self.drill_mm**2 / 4 * self.depth_mm / 1000.0

    @cached_property
    def filler_g(self) -> float:
        """Filler round and below the slug [g]."""
        return max(self.hole_ml - self.mass_g / self.slug.density_g_cm3, 0.0) * self.filler_g_cm3

    @cached_property
    def filler_height_mm(self) -> float:
        """How high over the belly line the filler's own middle lies [mm]: under the slug and round it, not
        at the hole's middle.
        """
        area, tall = pi * self.drill_mm**2 / 4, self.tall_mm
        under, beside = (
            area * self.cover_mm,
            max(area * tall - 1000.0 * self.each_g / self.slug.density_g_cm3, 0.0),
        )
        return (
            (under * self.cover_mm / 2 + beside * (self.cover_mm + tall / 2)) / (under + beside)
            if under + beside > 0
            else self.depth_mm / 2
        )


def mouth_mm(body: Body, hole: Hole) -> float:
    """Height z [mm] of the skin where a hole begins: on the belly line, or beside it."""
    low = station(body, hole.x_mm)
    if hole.beside_mm <= 0:
        return low.bottom_mm
    foot = float(reach_of(body)(np.array([hole.x_mm]), np.array([hole.beside_mm]))[0][0])
    return foot if np.isfinite(foot) else low.widest_mm


def slug_height_mm(body: Body, hole: Hole) -> float:
    """Height z [mm] of the slug's middle."""
    return mouth_mm(body, hole) + hole.cover_mm + hole.tall_mm / 2


def hole_height_mm(body: Body, hole: Hole) -> float:
    """Height z [mm] of the hole's middle."""
    return mouth_mm(body, hole) + hole.depth_mm / 2
