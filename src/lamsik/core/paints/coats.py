"""Coats: what one layer is, what it weighs dry, when the next may follow."""

import re
from dataclasses import dataclass

from lamsik.core.errors import finite_between, require

ROLES = ("seal", "primer", "base", "fade", "bars", "spots", "eyes", "clear")
"""Kinds of layer in the order they usually lie."""


@dataclass(frozen=True)
class Coat:
    """One layer of a scheme.

    `film_um` is the dry film [µm] where it lies, `cover_share` the share of the wetted
    area it lies on. Eyes are bought parts: they carry `mass_g` for the pair instead.
    `reach_share` is how far down the flank a fade or bars reach, or the eye's diameter as a
    share of the depth; `count` how many bars or spots.
    `wait_h` is the least wait before the next coat; `window_h` the longest, if there is one.
    """

    key: str
    role: str
    name: str
    colour: str = "#FFFFFF"
    film_um: float = 20.0
    density_g_cm3: float = 1.25
    cover_share: float = 1.0
    wait_h: float = 1.0
    window_h: float | None = None
    mass_g: float | None = None
    reach_share: float = 0.5
    count: int = 0
    caution: str = "solvent"
    note: str = ""

    def __post_init__(self) -> None:
        require(self.role in ROLES, "role", self.role, f"one of {', '.join(ROLES)}")
        require(
            re.fullmatch(r"#[0-9A-Fa-f]{6}", self.colour) is not None,
            "colour",
            self.colour,
            "a colour such as #4F7A36",
        )
        finite_between("film_um", self.film_um, 0.0, 3000.0, "µm")
        finite_between("density_g_cm3", self.density_g_cm3, 0.1, 6.0, "g/cm³")
        finite_between("cover_share", self.cover_share, 0.0, 1.0)
        finite_between("reach_share", self.reach_share, 0.0, 1.0)
        finite_between("count", self.count, 0, 60)
        finite_between("wait_h", self.wait_h, 0.0, 2000.0, "h")
        if self.window_h is not None:
            finite_between("window_h", self.window_h, self.wait_h, 5000.0, "h")
        if self.mass_g is not None:
            finite_between("mass_g", self.mass_g, 0.0, 50.0, "g")


def dry_volume_ml(coat: Coat, area_mm2: float) -> float:
    """Dry film volume [ml] = t · S · share, or mass/density for eyes."""
    if coat.mass_g is not None:
        return coat.mass_g / coat.density_g_cm3
    return coat.film_um * 1e-3 * area_mm2 * coat.cover_share / 1000.0


def dry_mass_g(coat: Coat, area_mm2: float) -> float:
    """Dry film mass [g] on a wetted area [mm²]: t · S · ρ_film."""
    if coat.mass_g is not None:
        return coat.mass_g
    return dry_volume_ml(coat, area_mm2) * coat.density_g_cm3
