"""Trial weights: clips on the hangers or tape on the belly, hung outside while the bait floats in the tub."""

from dataclasses import dataclass

from lamsik.core.errors import finite_between

BELLY = "belly"


@dataclass(frozen=True)
class TrialWeight:
    """Mass [g] of metal of a density [g/cm³] on the belly at `x_mm`, or hanging from the part named in
    `place`.
    """

    key: str
    place: str
    x_mm: float
    mass_g: float
    metal: str = "lead"
    density_g_cm3: float = 11.34

    def __post_init__(self) -> None:
        finite_between("mass_g", self.mass_g, 0.0, 500.0, "g")
        finite_between("x_mm", self.x_mm, 0.0, 600.0, "mm")
        finite_between("density_g_cm3", self.density_g_cm3, 1.5, 23.0, "g/cm³")
