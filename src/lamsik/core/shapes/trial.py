"""Trial weights: clips on the hangers or tape on the belly, hung outside while the bait floats in the tub."""

from dataclasses import dataclass
from typing import Annotated

from annotated_types import MaxLen

from lamsik.core.limits import Between, Key, Name, Says, held

BELLY = "belly"


@dataclass(frozen=True)
class TrialWeight:
    """Mass [g] of metal of a density [g/cm³] on the belly at `x_mm`, or hanging from the part named in
    `place`.
    """

    key: Key
    place: Annotated[str, MaxLen(40), Says("belly, or the key of the part it hangs from")]
    x_mm: Annotated[float, Between(0, 600, "mm", "distance from the nose, on the belly")]
    mass_g: Annotated[float, Between(0, 500, "g", "mass in air")]
    metal: Name = "lead"
    density_g_cm3: Annotated[float, Between(1.5, 23, "g/cm³", "density")] = 11.34

    def __post_init__(self) -> None:
        held(self)
