"""What the float's page binds."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.drawings.svg import Node
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.view import Head, Panel, Removable


@dataclass(frozen=True)
class RatingRow:
    """What it carries to one mark: on the line, in all; how far the tip answers to 0.1 g; what the family's
    weighed floats make of it.
    """

    key: str
    mark: str
    line: str
    total: str
    response: str
    learned: str


@dataclass(frozen=True, kw_only=True)
class PartRow(Removable):
    """A part of the float with the paths of its figures, and how its points are pulled."""

    length: str
    diameter: str
    foot: str
    bore: str
    wall: str
    bore_says: str
    density: str
    mass: str
    form: str
    title: str
    is_open: bool
    sealed: str
    inside: str
    is_sealed: bool
    is_inside: bool
    pull_says: str


@dataclass(frozen=True, kw_only=True)
class MarkRow(Removable):
    """A mark on the float with the paths of its name and height."""

    name: str
    height: str
    says: str
    name_says: str


@dataclass(frozen=True, kw_only=True)
class TipRow(Removable):
    """A tip of its box with the paths of its figures."""

    name: str
    length: str
    diameter: str
    density: str
    title: str


@dataclass(frozen=True)
class TipSide:
    """The same float with one of its tips."""

    key: str
    tip: str
    line: str
    response: str
    stands: str


@dataclass(frozen=True)
class CapacityEffectRow:
    """What a change of one figure does to what it carries."""

    key: str
    name: str
    effect: str


@dataclass(frozen=True)
class FloatPanel(Panel):
    """The float in its water: drawing, ratings, facts, troubles; `pulled` is the part whose points show;
    `painted` the scheme it is painted by, and its page."""

    picture: Node
    ratings: Sequence[RatingRow]
    known: str
    facts: Sequence[Fact]
    trouble: str
    not_for_sale: bool
    pulled: str
    painted: str
    painted_at: str
    paint_anew: str


@dataclass(frozen=True)
class ShottingPanel(Panel):
    """How it is shotted, or why it cannot be."""

    shotting: str
    no_shotting: str


@dataclass(frozen=True)
class RowsPanel(Panel):
    """The rows of the document: parts, marks, tips."""

    parts: Sequence[PartRow]
    marks: Sequence[MarkRow]
    tips: Sequence[TipRow]


@dataclass(frozen=True)
class StandingPanel(Panel):
    """What a settled answer adds: how it stands, lifts, answers with other tips, what changes it, what was
    learned.
    """

    stands: str
    lift: str
    tip_rows: Sequence[TipSide]
    effects: Sequence[CapacityEffectRow]
    learned: str


@dataclass(frozen=True)
class FloatView:
    """What the float's page shows of one document; how it stands once it is settled."""

    head: Head
    rated: FloatPanel
    shotting: ShottingPanel
    rows: RowsPanel
    standing: StandingPanel | None = None
