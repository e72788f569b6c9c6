"""What the pages of a paint and of a wanted colour bind."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.drawings.svg import Node
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.view import Head, Panel, Removable, RowField


@dataclass(frozen=True, kw_only=True)
class PotRow(Removable):
    """A pot of the paint, with the paths of its lot and of what is left."""

    lot: RowField
    left: RowField


@dataclass(frozen=True)
class ShelfPaintPanel(Panel):
    """The paint in thin and thick films, what follows from its looks, what is wrong with them, its pots."""

    picture: Node
    facts: Sequence[Fact]
    wrong: str
    guessed: bool
    caution: str
    glossy: bool
    pots: Sequence[PotRow]
    no_pots: bool


@dataclass(frozen=True)
class ShelfPaintView:
    """What a paint's page shows of its document."""

    head: Head
    paint: ShelfPaintPanel


@dataclass(frozen=True, kw_only=True)
class MixPartRow(Removable):
    """A paint of the recipe: its code, its name on the shelf, its colour, the path of its drops, what is
    wrong with its pots.
    """

    code: str
    name: str
    colour: str
    drops: RowField
    wrong: str


@dataclass(frozen=True)
class RecipeRow:
    """A recipe that was found: what it is in words, how far off, what it costs, the edit that takes it."""

    key: str
    says: str
    colour: str
    off: str
    drops: str
    cost: str
    take: str
    take_says: str
    taken: bool


@dataclass(frozen=True)
class MatchPanel(Panel):
    """The wanted colour beside what is foretold and what came of it, recipes, the one that was taken."""

    picture: Node
    facts: Sequence[Fact]
    wrong: str
    recipes: Sequence[RecipeRow]
    no_recipes: str
    mixed: Sequence[MixPartRow]
    no_mix: bool
    seen: bool
    model: str


@dataclass(frozen=True)
class MatchView:
    """What a wanted colour's page shows of its document."""

    head: Head
    match: MatchPanel
