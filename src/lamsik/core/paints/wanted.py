"""A colour that is to be matched: what it is to look like, over what, by which recipe, how it came out."""

from dataclasses import dataclass, field, replace
from typing import Annotated

from annotated_types import MaxLen

from lamsik.core.errors import one_of, require, rule
from lamsik.core.limits import Between, Key, Name, OneOf, Says, held
from lamsik.core.paints.film import under_surface
from lamsik.core.paints.lab import Lab
from lamsik.core.paints.measured import smoothest
from lamsik.core.paints.mixing import Backing

MOVES = {
    "lighter": (1.0, 0.0, 0.0),
    "darker": (-1.0, 0.0, 0.0),
    "redder": (0.0, 1.0, 0.0),
    "greener": (0.0, -1.0, 0.0),
    "warmer": (0.0, 0.35, 1.0),
    "cooler": (0.0, -0.35, -1.0),
}
"""How a wanted colour is moved, in L*, a*, b*."""
STEP = 2.0
"""How far one move goes."""
WHITE_GROUND = Lab(94.0, -0.5, 2.5)
"""A white primer as it dries, matt."""


@dataclass(frozen=True)
class RecipePart:
    """A paint in a recipe: its code on the shelf, drops of it."""

    key: Key
    code: Name
    drops: Annotated[float, Between(0, 500, "", "drops of it, whole")] = 1.0

    def __post_init__(self) -> None:
        held(self)
        require(float(self.drops).is_integer(), "drops", self.drops, rule("whole"))


@dataclass(frozen=True)
class WantedColour:
    """A colour to be matched.

    `wanted` is the look it is to have over `ground` in a film of `film_um`; `parts` is the recipe that was
    taken or mixed; `seen` how it looked when it was sprayed, where `is_seen`.
    """

    name: Annotated[str, MaxLen(120)]
    wanted: Lab = Lab(60.0, 10.0, 20.0)
    source: Annotated[str, OneOf(("typed", "photo", "reader")), Says("where the wanted look is from")] = (
        "typed"
    )
    ground: Lab = WHITE_GROUND
    film_um: Annotated[float, Between(1, 500, "µm", "dry film it is laid in")] = 20.0
    parts: Annotated[tuple[RecipePart, ...], MaxLen(12)] = field(default=())
    is_seen: bool = False
    seen: Lab = Lab(60.0, 10.0, 20.0)
    note: Annotated[str, MaxLen(2000)] = ""

    def __post_init__(self) -> None:
        require(bool(self.name.strip()), "name", self.name, rule("match-name"))
        held(self)

    def moved(self, how: str, times: float = 1.0) -> "WantedColour":
        """The wanted colour moved one step, as people say it. Raises `Refused` for no such move."""
        one_of("move", how, MOVES)
        light, red, yellow = (
            round(one + STEP * times * by, 2) for one, by in zip(self.wanted.row, MOVES[how], strict=True)
        )
        return replace(self, wanted=Lab(min(max(light, 0.0), 100.0), red, yellow))

    @property
    def on(self) -> Backing:
        """What it is laid on. Raises `Refused` for a ground that no surface looks like."""
        return Backing(under_surface(smoothest(self.ground, "ground")), self.film_um)
