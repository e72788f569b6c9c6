"""What a scheme's page binds."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.drawings.svg import Node
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.view import Head, Panel, Removable, RowField, Said


@dataclass(frozen=True, kw_only=True)
class LayerRow(Removable):
    """A layer in the order it goes on: its name and colour, what it does and takes, its way up and off."""

    order: str
    name: str
    kind: str
    colour: str
    takes: str
    dry: str
    locked: bool
    up: str
    up_says: str
    first: str
    stays: str


@dataclass(frozen=True)
class PlaceRow:
    """A field of where the chosen layer lies: of a station its anchor, so much of the way, and so far on;
    else one figure, or one word.
    """

    key: str
    label: str
    anchor: RowField
    has_anchor_along: bool
    has_anchor_round: bool
    figure: RowField
    has_figure: bool
    more: RowField
    outline: RowField
    has_outline: bool
    words: RowField
    has_words: bool


@dataclass(frozen=True)
class ChosenLayer:
    """The layer whose figures are shown: the paths of all that can be set of it."""

    key: str
    title: str
    from_shelf: str
    name: RowField
    colour: RowField
    paint: RowField
    paint_kind: RowField
    chemistry: RowField
    covering: RowField
    solids: RowField
    film: RowField
    is_film: bool
    mass: RowField
    is_part: bool
    passes: RowField
    by: RowField
    pressure: RowField
    distance: RowField
    is_sprayed: bool
    eye: RowField
    wait: RowField
    window: RowField
    cure: RowField
    is_clear: bool
    side: RowField
    shape: RowField
    place: Sequence[PlaceRow]
    note: RowField
    intended: RowField
    scuff: str
    scuffed: bool
    scuff_says: str
    lock: str
    locked: bool
    lock_says: str
    takes: str


@dataclass(frozen=True)
class JobRow:
    """A layer of a scheme that is matched: the path of its lock, and what of it changed so far."""

    key: str
    says: str
    lock: str
    lock_says: str
    locked: bool


@dataclass(frozen=True)
class SchemePanel(Panel):
    """The scheme from four sides, its layers in order, the chosen one, what is wrong, and what they take
    together; `facing` is the chosen one's key, `looks` whether those over it are left off; of one that is
    matched, which layers change.
    """

    picture: Node
    layers: Sequence[LayerRow]
    no_layers: bool
    chosen: Sequence[ChosenLayer]
    facing: str
    looks: str
    warnings: Sequence[Said]
    facts: Sequence[Fact]
    job: Sequence[JobRow]
    job_says: str
    in_job: bool


@dataclass(frozen=True)
class SchemeView:
    """What a scheme's page shows of its document."""

    head: Head
    scheme: SchemePanel
