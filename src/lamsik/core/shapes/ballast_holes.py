"""Drilled ballast: slugs, the holes they sit in, and what a hole removes."""

from dataclasses import dataclass
from math import pi

from lamsik.core.errors import finite_between, require
from lamsik.core.materials import EPOXY_FILLER_G_CM3
from lamsik.core.shapes.body import Body, station

BALLS = "ball"
BALL_OFF_SHARE, BALL_OFF_G = 0.02, 0.006
"""So far a mass may be off a whole number of balls [share, g]: their own spread, and rounding as it is typed."""

ROD = "rod"


@dataclass(frozen=True)
class Slug:
    """Ballast metal: a rod cut to a mass, or a ball of fixed mass; diameter [mm], density [g/cm³]."""

    name: str
    form: str
    metal: str
    density_g_cm3: float
    diameter_mm: float

    def __post_init__(self) -> None:
        require(self.form in (BALLS, ROD), "slug.form", self.form, f"{ROD} or {BALLS}")
        finite_between("slug.density_g_cm3", self.density_g_cm3, 1.5, 23.0, "g/cm³")
        finite_between("slug.diameter_mm", self.diameter_mm, 0.5, 40.0, "mm")

    @property
    def area_mm2(self) -> float:
        """Cross-section [mm²]."""
        return pi * self.diameter_mm**2 / 4

    @property
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
    """A hole drilled straight up from the belly, its slug at the bottom of the drill, filler below.

    `cover_mm` is the filler between slug and belly surface.
    """

    key: str
    slug: Slug
    mass_g: float
    x_mm: float
    drill_mm: float
    cover_mm: float = 2.0
    filler_g_cm3: float = EPOXY_FILLER_G_CM3

    def __post_init__(self) -> None:
        finite_between("mass_g", self.mass_g, 0.0, 500.0, "g")
        finite_between("drill_mm", self.drill_mm, 0.5, 50.0, "mm")
        finite_between("cover_mm", self.cover_mm, 0.0, 50.0, "mm")
        finite_between("x_mm", self.x_mm, 0.0, 600.0, "mm")
        if self.slug.form == BALLS and self.mass_g > 0:
            n, each = max(self.slug.balls(self.mass_g), 1), self.slug.ball_g
            require(
                abs(self.mass_g - n * each) <= max(BALL_OFF_SHARE * n * each, BALL_OFF_G), "mass_g", f"{self.mass_g:g} g",
                f"balls come whole: one {self.slug.name} is {each:.2f} g, {n} are {n * each:.2f} g, {n + 1} are {(n + 1) * each:.2f} g",
            )  # fmt: skip
        require(self.drill_mm >= self.slug.diameter_mm - 1e-9, "drill_mm", self.drill_mm, f"at least the slug's {self.slug.diameter_mm:g} mm")

    @property
    def depth_mm(self) -> float:
        """Drill depth [mm]."""
        return self.slug.length_mm(self.mass_g) + self.cover_mm

    @property
    def hole_ml(self) -> float:
        """Host material drilled out [ml]."""
        return pi * self.drill_mm**2 / 4 * self.depth_mm / 1000.0

    @property
    def filler_g(self) -> float:
        """Filler round and below the slug [g]."""
        return max(self.hole_ml - self.mass_g / self.slug.density_g_cm3, 0.0) * self.filler_g_cm3

    @property
    def filler_height_mm(self) -> float:
        """How high over the belly line the filler's own middle lies [mm]: under the slug and round it, not at the hole's middle."""
        area, tall = pi * self.drill_mm**2 / 4, self.slug.length_mm(self.mass_g)
        under, beside = area * self.cover_mm, max(area * tall - 1000.0 * self.mass_g / self.slug.density_g_cm3, 0.0)
        return (under * self.cover_mm / 2 + beside * (self.cover_mm + tall / 2)) / (under + beside) if under + beside > 0 else self.depth_mm / 2


def slug_height_mm(body: Body, hole: Hole) -> float:
    """Height z [mm] of the slug's middle."""
    return station(body, hole.x_mm).bottom_mm + hole.cover_mm + hole.slug.length_mm(hole.mass_g) / 2


def hole_height_mm(body: Body, hole: Hole) -> float:
    """Height z [mm] of the hole's middle."""
    return station(body, hole.x_mm).bottom_mm + hole.depth_mm / 2
