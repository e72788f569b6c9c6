"""What the page of a shot table binds."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.drawings.svg import Node
from lamsik.web.shared.view import Head, Panel, Removable, RowField


@dataclass(frozen=True, kw_only=True)
class SizeRow(Removable):
    """A size of the table, with the paths of its name, its mass and its density; how large a ball it is."""

    name: RowField
    mass: RowField
    density: RowField
    across: str
    only: str


@dataclass(frozen=True)
class TablePanel(Panel):
    """The sizes, drawn and listed."""

    picture: Node
    sizes: Sequence[SizeRow]


@dataclass(frozen=True)
class TableView:
    """What the page of a shot table shows of its document."""

    head: Head
    table: TablePanel
