"""What a blade's page binds."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.drawings.svg import Node
from lamsik.web.shared.view import Head, Panel, Said


@dataclass(frozen=True)
class SnapRow:
    """Whether a snap swings in its hole, and why."""

    key: str
    says: str
    why: str
    bad: bool


@dataclass(frozen=True)
class BladePanel(Panel):
    """The blade drawn, its snaps, what makes it run badly, and where its shape is from: `shape_from` empty
    where that needs no words, `not_for_sale` where it may not be sold.
    """

    picture: Node
    swings: Sequence[SnapRow]
    remarks: Sequence[Said]
    shape_from: str
    not_for_sale: bool


@dataclass(frozen=True)
class BladeView:
    """What a blade's page shows of its document."""

    head: Head
    blade: BladePanel
