"""Coats: what one layer is, what it weighs dry, when the next may follow."""

import re
from dataclasses import dataclass
from typing import Annotated

from lamsik.core.errors import finite_between, require
from lamsik.core.limits import Between, Key, Name, OneOf, Pattern, held
from lamsik.core.paints.layers import KINDS

ROLES = tuple(KINDS)
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

    key: Key
    role: Annotated[str, OneOf(ROLES)]
    name: Name
    colour: Annotated[str, Pattern("^#[0-9A-Fa-f]{6}$")] = "#FFFFFF"
    film_um: Annotated[float, Between(0, 3000, "µm", "dry film")] = 20.0
    density_g_cm3: Annotated[float, Between(0.1, 6, "g/cm³", "dry film density")] = 1.25
    cover_share: Annotated[float, Between(0, 1, "", "share of the surface")] = 1.0
    wait_h: Annotated[float, Between(0, 2000, "h", "least wait before the next coat")] = 1.0
    window_h: Annotated[float, Between(0, 5000, "h", "longest wait before the next coat")] | None = None
    mass_g: Annotated[float, Between(0, 50, "g", "mass of a pair of eyes")] | None = None
    reach_share: Annotated[float, Between(0, 1, "", "how far down the flank; or eye diameter over depth")] = (
        0.5
    )
    count: Annotated[int, Between(0, 60)] = 0
    caution: Name = "solvent"
    note: Name = ""

    def __post_init__(self) -> None:
        held(self)
        require(
            re.fullmatch(r"#[0-9A-Fa-f]{6}", self.colour) is not None,
            "colour",
            self.colour,
            "a colour such as #4F7A36",
        )
        if self.window_h is not None:
            finite_between("window_h", self.window_h, self.wait_h, 5000.0, "h")

    @property
    def does(self) -> str:
        """What a layer of its kind does."""
        return KINDS[self.role].does


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
