"""What the mould's page binds."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.drawings.svg import Node
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.view import Head, Panel, Removable, Said


@dataclass(frozen=True)
class ChoiceRow:
    """A kind of mould, why it suits or not, and the edit that takes it."""

    key: str
    kind: str
    why: str
    suits: bool
    now: bool
    edit: str


@dataclass(frozen=True, kw_only=True)
class SpotRow(Removable):
    """A cavity with the paths of its place."""

    title: str
    x: str
    y: str
    turn: str


@dataclass(frozen=True, kw_only=True)
class VentRow(Removable):
    """A vent with the paths of its width and its shape."""

    title: str
    label: str
    across: str
    shape: str
    shape_says: str


@dataclass(frozen=True, kw_only=True)
class WellRow(Removable):
    """A well with the paths of its figures."""

    title: str
    across: str
    deep: str


@dataclass(frozen=True, kw_only=True)
class TextRow(Removable):
    """A text in the mould with the paths of what it says and where."""

    title: str
    says: str
    high: str
    x: str
    y: str
    half: str


@dataclass(frozen=True)
class HalfRow:
    """A half: its silicone by volume and mass, how that comes about, and where it is mixed."""

    key: str
    name: str
    ml: str
    g: str
    how: str
    mix: str
    mix_says: str


@dataclass(frozen=True)
class MouldPanel(Panel):
    """The mould: drawing, kinds to choose from, its master and that one's use, what leans in, its facts."""

    picture: Node
    choices: Sequence[ChoiceRow]
    master: str
    use: str
    use_last: bool
    undercut: str
    facts: Sequence[Fact]
    source: str
    not_for_sale: bool


@dataclass(frozen=True)
class BoxPanel(Panel):
    """The box and what lies in it, what lies too near, how it is held together."""

    box_size: str
    tight: Sequence[Said]
    cavities: Sequence[SpotRow]
    count: str
    wells: Sequence[WellRow]
    texts: Sequence[TextRow]
    is_press: bool
    has_halves: bool
    has_funnel: bool
    boards: bool
    proud: bool
    injector: bool


@dataclass(frozen=True)
class AirPanel(Panel):
    """Where air stays, and the vents."""

    points: Sequence[Said]
    air: bool
    no_air: bool
    vents: Sequence[VentRow]
    no_vents: bool


@dataclass(frozen=True)
class AmountsPanel(Panel):
    """Silicone of each half, clay, walls, what the plain box would cost."""

    halves: Sequence[HalfRow]
    clay: str
    walls: str
    walls_short: bool
    strip: str
    saved: str
    lift: str
    lifts: bool
    density_of: str
    pressed: str
    press_missing: bool


@dataclass(frozen=True)
class CastingPanel(Panel):
    """Heat, shrinkage, level of what is cast."""

    heat: str
    heat_bad: bool
    shrink: str
    shrink_bad: bool
    level: str


@dataclass(frozen=True)
class MouldView:
    """What the mould's page shows of one document."""

    head: Head
    mould: MouldPanel
    box: BoxPanel
    air: AirPanel
    amounts: AmountsPanel
    casting: CastingPanel
