"""What each half takes, from the true solids; clay for the bed, walls for the box, and what plain box
arithmetic would have cost.
"""

from dataclasses import dataclass
from functools import lru_cache
from math import ceil, cos, radians, sin, tan

import numpy as np

from lamsik.core.errors import finite_between
from lamsik.core.findings import Finding, finding
from lamsik.core.moulds.funnels import feed_ml, feeds, wall_mm
from lamsik.core.moulds.geometry import below_mm3
from lamsik.core.moulds.layout import Mould, box, cavity_ml, placed, turned
from lamsik.core.moulds.vents import FLAT
from lamsik.core.shapes.skins import Mesh


@dataclass(frozen=True)
class Half:
    """One half [ml]: box, less master, funnel and vents, and the keys with their sign; what is poured."""

    name: str
    box_ml: float
    master_ml: float
    feed_ml: float
    keys_ml: float

    @property
    def pour_ml(self) -> float:
        """What it takes [ml]."""
        return self.box_ml - self.master_ml - self.feed_ml + self.keys_ml


FIRST_HALF, SECOND_HALF, BLOCK = "first half", "second half", "block"


def master_below_ml(mould: Mould) -> float:
    """How much of one master is below its parting plane [ml], the plane leaning as it does."""
    return _below_plane_ml(mould.lies, mould.parting_mm, mould.slant_deg)


@lru_cache(maxsize=64)
def _below_plane_ml(mesh: Mesh, parting_mm: float, slant_deg: float) -> float:
    lean = radians(slant_deg)
    return below_mm3(mesh, np.array([-np.sin(lean), 0.0, np.cos(lean)]), parting_mm * np.cos(lean)) / 1000.0


def vents_ml(mould: Mould) -> float:
    """All vents [ml]: rods from each cavity straight up, as it is poured, to the wall."""
    walls, total, way = box(mould), 0.0, radians(mould.tilt_deg)
    for spot in mould.cavities:
        for vent in mould.vents:
            x, y = turned(vent.x_mm, vent.y_mm, spot)
            long = (
                walls.above_mm - (vent.z_mm - mould.parting_mm)
                if mould.stand == FLAT
                else wall_mm(walls, x, y, cos(way), sin(way))
            )
            total += vent.area_mm2 * max(long, 0.0)
    return total / 1000.0


def halves(mould: Mould) -> tuple[Half, ...]:
    """What is poured for each half, the first poured first; an open mould is poured at once.

    Notes: the first half lies over the part that stands out of the clay. Keys pressed into the clay stand
        proud on it (+) and are hollows in the second (−); set on the clay it is the other way round. The
        parting plane turns about the box's middle, so the halves of the box keep their volume; cavities off
        the middle are cut where the plane passes them.
    """
    walls, each = box(mould), cavity_ml(mould)
    count = len(mould.cavities)
    if mould.parts == 1:
        return (Half(BLOCK, walls.volume_ml, count * each, 0.0, 0.0),)
    below = sum(_below_ml(mould, n) for n in range(count))
    feed = feed_ml(mould) + (vents_ml(mould) if mould.stand != FLAT else 0.0)
    up = vents_ml(mould) if mould.stand == FLAT else 0.0
    keys, hollow, sign = (
        mould.keys.count * mould.keys.volume_mm3 / 1000.0,
        mould.keys.count * mould.keys.hollow_mm3 / 1000.0,
        1 if mould.keys.proud else -1,
    )
    first = sign * (keys if mould.keys.proud else hollow)
    second = -sign * (hollow if mould.keys.proud else keys)
    wells = sum(well.volume_mm3 for well in mould.wells) / 1000.0
    return (
        Half(
            FIRST_HALF,
            walls.area_mm2 * walls.above_mm / 1000.0,
            count * each - below,
            feed / 2 + up,
            first,
        ),
        Half(
            SECOND_HALF,
            walls.area_mm2 * walls.below_mm / 1000.0,
            below,
            feed / 2 + wells,
            second,
        ),
    )


def _below_ml(mould: Mould, number: int) -> float:
    """How much of a cavity lies below the mould's parting plane [ml]."""
    spot, walls = mould.cavities[number], box(mould)
    if not mould.slant_deg:
        return master_below_ml(mould)
    slope = tan(radians(mould.slant_deg))
    normal = np.array([-slope, 0.0, 1.0]) / np.hypot(slope, 1.0)
    return (
        below_mm3(placed(mould, spot), normal, float(-slope * walls.length_mm / 2 / np.hypot(slope, 1.0)))
        / 1000.0
    )


def clay_ml(mould: Mould) -> float:
    """Clay of the bed under the parting [ml]: what the second half takes the place of; the keys pressed in
    push theirs aside.
    """
    if mould.parts == 1:
        return 0.0
    half = halves(mould)[1]
    return half.box_ml - half.master_ml - feed_ml(mould) / 2


@dataclass(frozen=True)
class Saved:
    """Plain box arithmetic beside the true amount [ml], [g] and what it would have cost in the shop's
    money.
    """

    box_ml: float
    true_ml: float
    density_g_cm3: float
    price_per_kg: float | None = None

    @property
    def wasted_ml(self) -> float:
        """What ignoring the master would have mixed too much [ml]."""
        return self.box_ml - self.true_ml

    @property
    def cost(self) -> float | None:
        """What that costs."""
        return (
            None
            if self.price_per_kg is None
            else self.wasted_ml * self.density_g_cm3 / 1000.0 * self.price_per_kg
        )


@dataclass(frozen=True)
class Bricks:
    """The shop's building bricks for boxes: length, width, height of one course [mm], how many there are. Or
    a strip: height, length.

    None and 0 mm say that they were not counted or measured: nothing is then called short.
    """

    long_mm: float = 40.0
    wide_mm: float = 20.0
    high_mm: float = 12.0
    have: int = 0
    strip_high_mm: float = 0.0
    strip_long_mm: float = 0.0

    def __post_init__(self) -> None:
        for name in ("long_mm", "wide_mm", "high_mm"):
            finite_between(f"bricks.{name}", getattr(self, name), 1.0, 500.0, "mm")
        finite_between("bricks.have", self.have, 0, 100_000)
        for name in ("strip_high_mm", "strip_long_mm"):
            finite_between(f"bricks.{name}", getattr(self, name), 0.0, 10_000.0, "mm")


@dataclass(frozen=True)
class Walls:
    """What the box is built of: bricks per course, courses, bricks in all, how many are short; strip
    needed and short [mm].
    """

    per_course: int
    courses: int
    short: int
    strip_mm: float
    strip_short_mm: float
    strip_high_enough: bool

    @property
    def bricks(self) -> int:
        """In all."""
        return self.per_course * self.courses


def walls_of(mould: Mould, bricks: Bricks) -> Walls:
    """Bricks or strip round the box. Bricks are laid outside the inner size, each corner bonded by one
    brick's width.

    Notes: a ring round l × w of bricks b wide runs 2(l + w) + 4b along its middle, so it takes ⌈(2(l + w) +
        4b)/brick⌉.
    """
    walls = box(mould)
    round_mm = 2 * (walls.length_mm + walls.width_mm)
    per, courses = (
        ceil((round_mm + 4 * bricks.wide_mm) / bricks.long_mm - 1e-9),
        ceil(walls.high_mm / bricks.high_mm - 1e-9),
    )
    strip = round_mm + 30.0  # an overlap to tape
    short = max(per * courses - bricks.have, 0) if bricks.have else 0
    strip_short = max(strip - bricks.strip_long_mm, 0.0) if bricks.strip_long_mm else 0.0
    return Walls(
        per,
        courses,
        short,
        strip,
        strip_short,
        not bricks.strip_high_mm or bricks.strip_high_mm >= walls.high_mm,
    )


@dataclass(frozen=True)
class Lift:
    """A master in silicone: what lifts it [g] under water's name: ρV − m. Positive floats."""

    net_g: float
    says: Finding


def lift(mould: Mould, silicone_g_cm3: float) -> Lift:
    """What a master does once silicone gets under it, and how to fix it."""
    finite_between("silicone_g_cm3", silicone_g_cm3, 0.5, 3.0, "g/cm³")
    mass = mould.master.mass_g
    volume = cavity_ml(mould)
    if mass is None:
        return Lift(0.0, finding("master-not-weighed"))
    net = silicone_g_cm3 * volume - mass
    if net <= 0:
        return Lift(net, finding("master-stays-down", net=-net))
    pins = max(2, ceil(net / 25.0))
    return Lift(
        net,
        finding("master-lifts", net=net, pins=pins),
    )


def runner_ml(mould: Mould) -> float:
    """What a casting takes beside its cavity: its share of the funnels [ml]."""
    return feed_ml(mould) / max(len(feeds(mould)), 1)
