"""What a scheme's page binds."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.drawings.svg import Node
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.view import Head, Panel, Removable, RowField, Said


@dataclass(frozen=True, kw_only=True)
class LayerRow(Removable):
    """A layer of the scheme with the paths of its figures, what is on dry, and its way up."""

    order: str
    name: RowField
    colour: RowField
    paint: RowField
    film: RowField
    is_film: bool
    passes: RowField
    pair: str
    wait: RowField
    side: RowField
    count: RowField
    has_count: bool
    edge: RowField
    has_edge: bool
    dry: str
    up: str
    up_says: str
    first: str


@dataclass(frozen=True)
class SchemePanel(Panel):
    """The layers on a reference bait, what is wrong with their order, and what they take together."""

    picture: Node
    layers: Sequence[LayerRow]
    no_layers: bool
    warnings: Sequence[Said]
    facts: Sequence[Fact]


@dataclass(frozen=True)
class SchemeView:
    """What a scheme's page shows of its document."""

    head: Head
    scheme: SchemePanel
