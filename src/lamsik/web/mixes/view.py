"""What a product's page binds."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.drawings.svg import Node
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.view import Head, Panel, Removable, RowField


@dataclass(frozen=True, kw_only=True)
class TinPart(Removable):
    """A part on the tin, with the paths of its name, its figure in the ratio and its density."""

    name: RowField
    figure: RowField
    density: RowField
    share: str
    only: str


@dataclass(frozen=True)
class ProductPanel(Panel):
    """What is mixed: the parts with what of the mix each is, what follows from them, what can hurt."""

    picture: Node
    parts: Sequence[TinPart]
    facts: Sequence[Fact]
    caution: str


@dataclass(frozen=True)
class ProductView:
    """What a product's page shows of its document."""

    head: Head
    product: ProductPanel
