"""What every bench that looks at a body binds."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.drawings.svg import Node
from lamsik.web.bodies.paints_state import PaintPanel
from lamsik.web.bodies.shape_view import HardwareRow, InsideRow, JointRow, LipRow, Metals
from lamsik.web.bodies.tank_view import Late, SegmentsPanel, TankPart
from lamsik.web.shared.facts import Fact
from lamsik.web.shared.view import Head, Panel, Said


@dataclass(frozen=True)
class NeedRow:
    """What a body cannot do without and has not got, and why."""

    key: str
    name: str
    why: str


@dataclass(frozen=True)
class BodyPanel(Panel):
    """What every look at a body shows beside its head: what it still needs."""

    missing: Sequence[NeedRow]
    nothing_missing: bool


@dataclass(frozen=True)
class WhyNot:
    """Why what acts on drawn lines, what turns a body and what mirrors it cannot act; empty where it can."""

    lines: str = ""
    turned: str = ""
    mirror: str = ""


@dataclass(frozen=True)
class DrawnPanel(Panel):
    """The drawing of the body, the station its section is taken at, and what kind of body it is."""

    picture: Node
    looks: str
    station_mm: float
    station: str
    drawn: bool
    is_mesh: bool
    has_widest: bool
    why_not: WhyNot
    is_turned: bool
    is_hollow: bool
    facts: Sequence[Fact]
    density_source: str


@dataclass(frozen=True)
class PartsPanel(Panel):
    """What is on and in the body, what clashes, and where the shape is from."""

    clashes: Sequence[Said]
    any_clash: bool
    hardware: Sequence[HardwareRow]
    no_hardware: bool
    lip: LipRow | None
    no_lip: bool
    inside: Sequence[InsideRow]
    no_inside: bool
    joints: Sequence[JointRow]
    no_joints: bool
    not_for_sale: bool


@dataclass(frozen=True)
class ShapeView:
    """What Shapes shows of a body; segments and metals once it is settled."""

    head: Head
    body: BodyPanel
    drawn: DrawnPanel
    parts: PartsPanel
    segments: SegmentsPanel | None = None
    metals: Metals | None = None


@dataclass(frozen=True)
class TankView:
    """What the Tank shows of a body; the late panel comes in a second answer."""

    head: Head
    body: BodyPanel
    tank: TankPart
    late: Late | None = None


@dataclass(frozen=True)
class PaintView:
    """What Paints shows of a body in its scheme."""

    head: Head
    body: BodyPanel
    paint: PaintPanel
