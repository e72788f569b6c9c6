"""What a layer is painted with, and where on the body it lies."""

import re
from dataclasses import dataclass
from typing import Annotated

from lamsik.core.errors import require, rule
from lamsik.core.limits import Between, Name, OneOf, Pattern, held

BOTH, LEFT, RIGHT = "both", "left", "right"
SIDES = (BOTH, LEFT, RIGHT)


@dataclass(frozen=True)
class Paint:
    """A paint as it dries: its colour, the density of its film, its name on the rack, what can hurt."""

    colour: Annotated[str, Pattern("^#[0-9A-Fa-f]{6}$")] = "#FFFFFF"
    density_g_cm3: Annotated[float, Between(0.1, 6, "g/cm³", "dry film density")] = 1.25
    name: Name = ""
    caution: Name = "solvent"

    def __post_init__(self) -> None:
        held(self)
        good = re.fullmatch(r"#[0-9A-Fa-f]{6}", self.colour) is not None
        require(good, "colour", self.colour, rule("colour-such"))


@dataclass(frozen=True)
class Place:
    """Where a layer lies.

    `cover_share` is the part of the wetted surface it takes on the sides it is meant for; `reach_share` how
    far down the flank it reaches, or the diameter of an eye over the depth; `count` how many marks there are.
    `edge_share` is how soft its rim is: 0 is cut, 1 fades all the way from its middle. A soft rim thins the
    film there, so it takes no mass away.
    """

    cover_share: Annotated[float, Between(0, 1, "", "share of the surface")] = 1.0
    reach_share: Annotated[float, Between(0, 1, "", "how far down the flank; or eye diameter over depth")] = (
        0.5
    )
    count: Annotated[int, Between(0, 60, "", "how many marks")] = 0
    edge_share: Annotated[float, Between(0, 1, "", "how soft its rim is: 0 cut, 1 fading all the way")] = 0.0
    side: Annotated[str, OneOf(SIDES)] = BOTH

    def __post_init__(self) -> None:
        held(self)

    def is_on(self, side: str) -> bool:
        """Whether it lies on the left or the right of the body."""
        return self.side in (BOTH, side)
