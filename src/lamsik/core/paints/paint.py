"""A paint as it dries: what it is, its colour and how well it covers, its film and its chemistry."""

import re
from dataclasses import dataclass
from typing import Annotated

from lamsik.core.errors import require, rule
from lamsik.core.limits import Between, Name, OneOf, Pattern, Says, held
from lamsik.core.paints.swatch import Swatch

BOTH, LEFT, RIGHT = "both", "left", "right"
SIDES = (BOTH, LEFT, RIGHT)


@dataclass(frozen=True)
class PaintKind:
    """What is true of paints of a kind.

    Args:
        covering_share: contrast it leaves of white and black under the film of a swatch, 1 hides all.
        mirror_share: how much of the light it sends back about the mirror direction.
        hue_turn: how far that light's hue runs round with the angle, a share of the circle.
        wants_white: whether it is dull without white under it.
        is_open: whether what lies under it is still seen, so that foil under it keeps its shine.
    """

    covering_share: float
    mirror_share: float = 0.0
    hue_turn: float = 0.0
    wants_white: bool = False
    is_open: bool = False


PAINT_KINDS = {
    "opaque": PaintKind(0.94),
    "transparent": PaintKind(0.15, is_open=True),
    "pearl": PaintKind(0.3, mirror_share=0.3, is_open=True),
    "metallic": PaintKind(0.9, mirror_share=0.45),
    "iridescent": PaintKind(0.15, mirror_share=0.4, hue_turn=0.35, is_open=True),
    "fluorescent": PaintKind(0.4, wants_white=True),
    "glow": PaintKind(0.5, wants_white=True),
    "candy": PaintKind(0.12, wants_white=True, is_open=True),
    "ink": PaintKind(0.5),
    "clear": PaintKind(0.02, is_open=True),
    "foil": PaintKind(0.98, mirror_share=0.8),
    "glitter": PaintKind(0.3, mirror_share=0.6, is_open=True),
    "powder": PaintKind(0.85),
}
"""By kind of paint."""

CHEMISTRIES = ("water", "solvent", "epoxy", "urethane", "uv", "none")


@dataclass(frozen=True)
class Paint:
    """A paint as it dries: its name on the rack, its kind and colour, how much of what lies under a film of
    `swatch_um` it hides, the density of its film, what of it stays when it dries, what can hurt; and, where
    it was looked at over white and over black, its swatch.
    """

    colour: Annotated[str, Pattern("^#[0-9A-Fa-f]{6}$")] = "#FFFFFF"
    density_g_cm3: Annotated[float, Between(0.1, 6, "g/cm³", "dry film density")] = 1.25
    name: Name = ""
    caution: Name = "solvent"
    kind: Annotated[str, OneOf(tuple(PAINT_KINDS))] = "opaque"
    chemistry: Annotated[str, OneOf(CHEMISTRIES)] = "water"
    covering_percent: Annotated[
        float, Between(2, 99, "%", "how much of black and white under it a swatch's film hides")
    ] = 94.0
    swatch_um: Annotated[float, Between(1, 500, "µm", "dry film at which it covers so much")] = 20.0
    solids_percent: Annotated[float, Between(2, 100, "%", "what of its volume stays when it dries")] = 35.0
    swatch: Swatch | None = None
    code: Annotated[Name, Says("of the paint on the shelf, or of the colour as it is mixed")] = ""

    def __post_init__(self) -> None:
        held(self)
        good = re.fullmatch(r"#[0-9A-Fa-f]{6}", self.colour) is not None
        require(good, "colour", self.colour, rule("colour-such"))

    @property
    def covering_share(self) -> float:
        """How much of black and white under it a swatch's film hides, of 1."""
        return self.covering_percent / 100.0

    @property
    def of(self) -> PaintKind:
        """What is true of paints of its kind."""
        return PAINT_KINDS[self.kind]
