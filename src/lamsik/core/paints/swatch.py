"""A swatch: a paint sprayed over a contrast card and looked at."""

from dataclasses import dataclass
from typing import Annotated

from lamsik.core.errors import require, rule
from lamsik.core.limits import Between, held
from lamsik.core.paints.lab import Lab

CARD: tuple[Lab, Lab] = (Lab(92.6), Lab(26.0))
"""A usual contrast card, matt: its white and its black as they are measured."""


@dataclass(frozen=True)
class Swatch:
    """A paint sprayed over a contrast card: how it looks over its white and its black, at which dry film; how
    the bare card looks; whether it was read under a gloss (without the surface's own haze).
    """

    white: Lab
    black: Lab
    film_um: Annotated[float, Between(1, 500, "µm", "dry film of the swatch")] = 20.0
    card_white: Lab = CARD[0]
    card_black: Lab = CARD[1]
    glossy: bool = False

    def __post_init__(self) -> None:
        held(self)
        require(
            self.card_white.lightness - self.card_black.lightness >= 20.0,
            "card",
            self.card_black.said,
            rule("card-contrast"),
        )
