"""A paint on the shelf: its swatch, what it is thinned with, what is left of it."""

from dataclasses import dataclass, field
from typing import Annotated

from annotated_types import MaxLen

from lamsik.core.cautions import CAUTIONS
from lamsik.core.errors import require, rule
from lamsik.core.limits import Between, Key, Name, OneOf, Says, held
from lamsik.core.paints.colour import hex_of_lab
from lamsik.core.paints.lab import Lab
from lamsik.core.paints.paint import CHEMISTRIES, PAINT_KINDS, Paint
from lamsik.core.paints.swatch import Swatch

TYPED, PHOTO, READER, GUESSED = SOURCES = ("typed", "photo", "reader", "guessed")
"""Where the looks of a swatch are from."""
MIXES_NOT = ("metallic", "foil", "glitter", "powder", "glow", "fluorescent")
"""Kinds that no recipe is looked for with: flakes and light of their own do not mix as paints do."""
SOLIDS_LEAST = 2.0
MOST_ML = 20_000
"""More than this is in no pot."""


@dataclass(frozen=True)
class Pot:
    """A pot of a paint: its lot, what is left in it."""

    key: Key
    lot: Annotated[str, MaxLen(40), Says("lot, as on the pot")] = ""
    left_ml: Annotated[float, Between(0, MOST_ML, "ml", "left in it")] = 30.0

    def __post_init__(self) -> None:
        held(self)


@dataclass(frozen=True)
class ShelfPaint:
    """A paint on the shelf.

    `swatch` is how it looks over the white and over the black of a contrast card; `source` where these looks
    are from. `price` is of one ml in the shop's money. `on` are the chemistries it may lie on by what is
    known here; `instead` the codes of those that stand in for it.
    """

    name: Annotated[str, MaxLen(120)]
    kind: Annotated[str, OneOf(tuple(PAINT_KINDS))] = "opaque"
    chemistry: Annotated[str, OneOf(CHEMISTRIES)] = "water"
    swatch: Swatch = Swatch(Lab(60.0), Lab(58.0))
    source: Annotated[str, OneOf(SOURCES)] = GUESSED
    solids_percent: Annotated[
        float, Between(SOLIDS_LEAST, 100, "%", "what of its volume stays when it dries")
    ] = 35.0
    density_g_cm3: Annotated[float, Between(0.1, 6, "g/cm³", "dry film density")] = 1.25
    wet_g_cm3: Annotated[float, Between(0.5, 4, "g/cm³", "density as it is poured")] = 1.08
    drop_ml: Annotated[float, Between(0.005, 1, "ml", "of one drop")] = 0.05
    price: Annotated[float, Between(0, 1000, "", "price of one ml")] = 0.0
    thinner: Name = ""
    caution: Annotated[str, OneOf(("", *CAUTIONS))] = ""
    on: Annotated[str, MaxLen(120), Says("chemistries it may lie on")] = ""
    instead: Annotated[str, MaxLen(120), Says("codes of its stand-ins")] = ""
    note: Annotated[str, MaxLen(2000)] = ""
    pots: Annotated[tuple[Pot, ...], MaxLen(40)] = field(default=())

    def __post_init__(self) -> None:
        require(bool(self.name.strip()), "name", self.name, rule("paint-name"))
        held(self)
        keys = [pot.key for pot in self.pots]
        require(len(set(keys)) == len(keys), "pots", keys, rule("each-key-once"))

    @property
    def left_ml(self) -> float:
        """What is left of it in all pots [ml]."""
        return sum(pot.left_ml for pot in self.pots)

    @property
    def mixes(self) -> bool:
        """Whether recipes may be looked for with it: a kind that mixes, and its looks are known."""
        return self.kind not in MIXES_NOT and self.source != GUESSED

    @property
    def as_paint(self) -> Paint:
        """As a layer takes it: its looks go with it."""
        white, black = self.swatch.white, self.swatch.black
        covers = PAINT_KINDS[self.kind].covering_share
        if white.lightness > 1.0:
            covers = min(max((black.lightness / white.lightness) ** 2.4, 0.02), 0.99)
        return Paint(
            colour=hex_of_lab(white.row),
            density_g_cm3=self.density_g_cm3,
            name=self.name,
            caution=self.caution,
            kind=self.kind,
            chemistry=self.chemistry,
            covering_percent=round(100.0 * covers, 1),
            swatch_um=self.swatch.film_um,
            solids_percent=self.solids_percent,
            swatch=None if self.source == GUESSED else self.swatch,
        )
