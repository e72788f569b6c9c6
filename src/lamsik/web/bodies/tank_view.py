"""What the Tank's page binds of a body."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.drawings.svg import Node
from lamsik.web.bodies.shape_view import SegmentRow
from lamsik.web.bodies.tank_facts import BudgetRow
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.view import Panel, Removable, Said


@dataclass(frozen=True)
class WaterRow:
    """Another water: whether the want must hold in it, and how the bait does there."""

    key: str
    name: str
    on: bool
    fails: bool
    says: str
    edit: str


@dataclass(frozen=True)
class FaceWay:
    """A way of carving, and the edit that takes its figure."""

    key: str
    name: str
    edit: str


@dataclass(frozen=True, kw_only=True)
class AllowanceRow(Removable):
    """A mass set aside for what is not on yet, and its give or take."""

    name: str
    path: str
    spread: str
    mass_says: str
    spread_says: str
    says: str
    counts: bool


@dataclass(frozen=True, kw_only=True)
class TrialRow(Removable):
    """A weight hung on in the tub: what, where, of which metal."""

    name: str
    mass_path: str
    place_path: str
    density_path: str
    mass_says: str
    place_says: str
    density_says: str
    on_belly: bool


@dataclass(frozen=True)
class TimedWords:
    """What timed runs say; `drag` is the edit that takes their C_d, where `can_use`."""

    says: str
    drag: str = ""
    can_use: bool = False


@dataclass(frozen=True)
class TimedRow:
    """A timed run, and where it is taken back."""

    key: str
    says: str
    action: str


@dataclass(frozen=True)
class Wants(Panel):
    """The other waters and which of those that must be held are lost."""

    waters: Sequence[WaterRow]
    waters_lost: str


@dataclass(frozen=True)
class Faces(Panel):
    """How true the body is taken to be made, where that is from, the ways to carve it."""

    face_says: str
    face_mm: str
    face_ways: Sequence[FaceWay]


@dataclass(frozen=True)
class Beside(Panel):
    """What a settled design shows beside its verdict; `late` says that more is to be asked for,
    `late_problem` why that did not come.
    """

    late: str
    late_problem: str
    wants: Wants
    faces: Faces
    allowances: Sequence[AllowanceRow]
    no_allowances: bool
    bare: str
    trials: Sequence[TrialRow]
    tub: str
    timed: TimedWords
    timed_rows: Sequence[TimedRow]


@dataclass(frozen=True)
class EffectRow:
    """What one change would do to net and pitch; its bar is a share of the largest."""

    key: str
    name: str
    net: str
    pitch: str
    then: str
    share: float


@dataclass(frozen=True)
class SureRow:
    """A measurement, and the chance after it."""

    key: str
    says: str
    chance: str
    share: int


@dataclass(frozen=True)
class Sure(Panel):
    """The chance to land in the wanted behaviour, what would raise it, and between what its net falls."""

    sure: str = ""
    sure_rows: Sequence[SureRow] = ()
    sure_spread: str = ""


@dataclass(frozen=True)
class RefitPanel(Panel):
    """What to do now, and the edit that does it."""

    met: bool
    unmet: bool
    refit: str
    can_refit: bool
    refit_edit: str


@dataclass(frozen=True)
class Late(Panel):
    """What takes longer than the verdict."""

    late: str
    effects: Sequence[EffectRow]
    first_effects: str
    flips: str
    refit: RefitPanel
    sure: Sure


@dataclass(frozen=True)
class ScenePanel(Panel):
    """The drawing and how it is looked at: posture, side, which of them can be, where G lies (x, z) [mm]."""

    picture: Node
    looks: str
    facing: str
    can_float: bool
    can_hold: bool
    g: tuple[float, float]


@dataclass(frozen=True)
class Figures:
    """The few numbers that are set side by side when something is tried, each with its unit."""

    net: str
    behaviour: str
    speed: str
    pitch: str
    mass: str
    roll: str


@dataclass(frozen=True)
class VerdictPanel(Panel):
    """Whether it turns over, its figures, where else it can rest, whether its segments do so each for
    itself.
    """

    over: bool
    figures: Figures
    facts: Sequence[Fact]
    others: Sequence[Said]
    jointed: bool


@dataclass(frozen=True)
class BudgetPanel(Panel):
    """Its weight by part, the sum, and how many parts nobody weighed."""

    budget: Sequence[BudgetRow]
    total: str
    unweighed: int


@dataclass(frozen=True, kw_only=True)
class BallastRow(Removable):
    """A hole, a poured end or a chamber with its two figures, and what is wrong with it."""

    name: str
    says: str
    trouble: str
    troubled: bool
    mass_path: str
    mass_says: str
    path: str
    place_says: str
    is_hole: bool = False
    is_pair: bool = False
    beside_path: str = ""
    beside_says: str = ""
    pair: str = ""
    pair_says: str = ""
    pair_word: str = ""


@dataclass(frozen=True)
class BallastPanel(Panel):
    """All that is ballast, and what to mind with its metals."""

    holes: Sequence[BallastRow]
    caution: str


@dataclass(frozen=True)
class WantPanel(Panel):
    """How the want is said, and what of the design can be tried otherwise."""

    by_speed: bool
    by_share: bool
    by_freeboard: bool
    pierced: bool
    has_lip: bool
    tie_moves: bool
    tie_path: str
    clears: str


@dataclass(frozen=True)
class SegmentsPanel(Panel):
    """Each group of a jointed bait's segments."""

    segments: Sequence[SegmentRow]


@dataclass(frozen=True)
class TankPart(Panel):
    """The Tank's panels; the last two only once it is settled."""

    scene: ScenePanel
    verdict: VerdictPanel
    budget: BudgetPanel
    ballast: BallastPanel
    want: WantPanel
    segments: SegmentsPanel | None = None
    beside: Beside | None = None
