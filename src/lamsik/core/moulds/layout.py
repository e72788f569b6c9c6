"""The mould as laid out: master, cavities in the block, box, funnel, keys, vents, wells, marks. Lengths in
mm; z = 0 is the parting at the box's middle.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property, lru_cache
from math import cos, pi, radians, sin, tan
from typing import Annotated

import numpy as np
from annotated_types import Len, MaxLen

from lamsik.core.errors import Refused, Rule, finite_between, require, rule
from lamsik.core.limits import Between, Key, OneOf, Says, held
from lamsik.core.moulds.geometry import seen
from lamsik.core.moulds.masters import PULLS, Master, laid, laid_at, shrunk_mesh
from lamsik.core.moulds.pull import KINDS
from lamsik.core.moulds.vents import FLAT, ON_EDGE, STANDS, up_of
from lamsik.core.quantities import numeral, plainly, said
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.skins import Mesh
from lamsik.core.trade.mould_kinds import OPEN, TWO_PART
from lamsik.core.trade.vent_shapes import ROUND, VENT_SHAPES

ENDS = ("tail", "nose", "back", "belly")
"""Where the funnel meets the cavity, as the bait's ends lie in the plan: +x, −x, +y, −y."""

MOST_CAVITIES = 12


@dataclass(frozen=True)
class CavitySpot:
    """A cavity's place: the master's middle in the plan [mm], its turn in the plan [°]."""

    key: Key
    x_mm: Annotated[float, Between(-2000, 2000, "mm")]
    y_mm: Annotated[float, Between(-2000, 2000, "mm")]
    turn_deg: Annotated[float, Between(-360, 360, "°")] = 0.0

    def __post_init__(self) -> None:
        held(self, f"cavities.{self.key}.")


def _between(field: str, value: float, limits: Rule) -> None:
    """Raise `Refused` beyond the `low` and `high` of a rule, which says where they are from."""
    bounds = dict(limits.values)
    require(float(str(bounds["low"])) <= value <= float(str(bounds["high"])), field, value, limits)


@dataclass(frozen=True)
class Funnel:
    """A funnel: neck at the cavity and mouth at the wall [mm across], at one end of every cavity."""

    end: Annotated[str, OneOf(ENDS)] = "tail"
    neck_mm: Annotated[float, Between(0.5, 80, "mm", "at the cavity")] = 6.0
    mouth_mm: Annotated[float, Says("at the wall, at least the neck [mm]")] = 14.0

    def __post_init__(self) -> None:
        held(self, "funnel.")
        _between("funnel.mouth_mm", self.mouth_mm, rule("at-least-the-neck", low=self.neck_mm, high=150.0))


@dataclass(frozen=True)
class Keys:
    """Keys: how many, across the base and high [mm]. `proud` on the first half, hollow in the second;
    `gap_mm` is their play in a printed mould.
    """

    count: Annotated[int, Between(0, 24)] = 4
    base_mm: Annotated[float, Between(1, 60, "mm")] = 8.0
    high_mm: Annotated[float, Says("at most their base [mm]")] = 4.0
    second_high_mm: Annotated[float | None, Says("of the hollow, at least as deep as the key [mm]")] = None
    proud: bool = True
    gap_mm: Annotated[float, Between(0, 2, "mm", "play in a printed mould")] = 0.0

    def __post_init__(self) -> None:
        held(self, "keys.")
        _between("keys.high_mm", self.high_mm, rule("at-most-their-base", low=0.5, high=self.base_mm))
        if self.second_high_mm is not None:
            low = self.high_mm if self.proud else 0.5
            _between(
                "keys.second_high_mm",
                self.second_high_mm,
                rule("as-deep-as-the-key", low=low, high=self.base_mm),
            )

    @property
    def volume_mm3(self) -> float:
        """One key: a spherical cap πh(3a² + h²)/6 [mm³]."""
        return cap_mm3(self.base_mm / 2, self.high_mm)

    @property
    def hollow_mm3(self) -> float:
        """Its hollow in the other half [mm³]."""
        return cap_mm3(self.base_mm / 2, self.second_high_mm or self.high_mm)


def cap_mm3(a_mm: float, h_mm: float) -> float:
    """A spherical cap of base radius a and height h [mm³]."""
    return pi * h_mm * (3 * a_mm**2 + h_mm**2) / 6


@dataclass(frozen=True)
class Vent:
    """A vent from a cavity's point up to the outside: place in the laid master's frame [mm], across [mm], its
    shape across.
    """

    key: Key
    x_mm: Annotated[float, Between(-400, 400, "mm")]
    y_mm: Annotated[float, Between(-400, 400, "mm")]
    z_mm: Annotated[float, Between(-400, 400, "mm")]
    across_mm: Annotated[float, Between(0.3, 12, "mm")] = 1.5
    shape: Annotated[str, OneOf(tuple(VENT_SHAPES))] = ROUND

    def __post_init__(self) -> None:
        held(self, f"vents.{self.key}.")

    @property
    def area_mm2(self) -> float:
        """Its section [mm²]."""
        return VENT_SHAPES[self.shape].area_share * self.across_mm**2

    @property
    def section_mm(self) -> list[tuple[float, float]]:
        """The outline of its section, centred [mm]."""
        return [(x * self.across_mm, y * self.across_mm) for x, y in VENT_SHAPES[self.shape].outline]


@dataclass(frozen=True)
class Well:
    """An overflow well beside a press mould's cavity: place in the plan, across and deep [mm]; a half
    ball's cap.
    """

    key: Key
    x_mm: Annotated[float, Between(0, 2000, "mm")]
    y_mm: Annotated[float, Between(0, 2000, "mm")]
    across_mm: Annotated[float, Between(1, 80, "mm")] = 10.0
    deep_mm: Annotated[float, Between(0.3, 40, "mm")] = 4.0

    def __post_init__(self) -> None:
        held(self, f"wells.{self.key}.")

    @property
    def volume_mm3(self) -> float:
        """What it takes [mm³]."""
        return cap_mm3(self.across_mm / 2, self.deep_mm)


@dataclass(frozen=True)
class Text:
    """A text or one-sided mark on a cavity: read right on the bait, so mirrored on the mould's face."""

    key: Key
    says: Annotated[str, MaxLen(24)]
    x_mm: Annotated[float, Between(-2000, 2000, "mm")] = 16.0
    y_mm: Annotated[float, Between(-2000, 2000, "mm")] = 0.0
    high_mm: Annotated[float, Between(1, 40, "mm")] = 4.0
    half: Annotated[str, OneOf(("upper", "lower"))] = "upper"

    def __post_init__(self) -> None:
        held(self, f"texts.{self.key}.")
        require(
            bool(self.says.strip()) and len(self.says) <= 24,
            f"texts.{self.key}.says",
            self.says,
            rule("characters"),
        )


BoxSize = Annotated[float, Between(5, 2000, "mm", "inside the box; null for as much as is needed")]


@dataclass(frozen=True, eq=False)
class Mould:
    """A mould of one master. Margins: `edge_mm` round the cavities, `floor_mm` under and `cover_mm` over
    them; box sizes typed or as needed.
    """

    name: Annotated[str, MaxLen(160)]
    master: Master
    kind: Annotated[str, OneOf(KINDS)] = TWO_PART
    pull: Annotated[str, OneOf(PULLS)] = "side"
    parting_mm: Annotated[float, Says("over the master's middle, within it [mm]")] = 0.0
    slant_deg: Annotated[float, Between(-30, 30, "°", "of the parting")] = 0.0
    cavities: Annotated[tuple[CavitySpot, ...], Len(1, MOST_CAVITIES)] = ()
    edge_mm: Annotated[float, Between(1, 100, "mm", "round the cavities")] = 12.0
    floor_mm: Annotated[float, Between(1, 100, "mm", "under the cavities")] = 10.0
    cover_mm: Annotated[float, Between(0, 100, "mm", "over the cavities")] = 10.0
    length_mm: BoxSize | None = None
    width_mm: BoxSize | None = None
    height_mm: BoxSize | None = None
    funnel: Funnel = field(default_factory=Funnel)
    keys: Keys = field(default_factory=Keys)
    vents: Annotated[tuple[Vent, ...], MaxLen(40)] = ()
    wells: Annotated[tuple[Well, ...], MaxLen(40)] = ()
    texts: Annotated[tuple[Text, ...], MaxLen(40)] = ()
    boards: bool = False
    stand: Annotated[str, OneOf(STANDS)] = ON_EDGE
    tilt_deg: Annotated[float, Between(-180, 180, "°")] = 0.0
    bump_mm: Annotated[float, Between(0, 20, "mm", "high points below it trap nothing to speak of")] = 0.4
    thin_mm: Annotated[float, Between(0.1, 20, "mm", "a wall under it is named thin")] = 2.0
    shrink_percent: Annotated[float, Between(0, 20, "%", "linear")] = 0.0
    overfill_ml: Annotated[float, Between(0, 1000, "ml")] = 0.0

    def __post_init__(self) -> None:
        require(bool(self.name.strip()), "name", self.name, rule("name-mould"))
        held(self)
        require(
            1 <= len(self.cavities) <= MOST_CAVITIES,
            "cavities",
            len(self.cavities),
            rule("cavities-block", most_cavities=MOST_CAVITIES),
        )
        half = float(np.ptp(self.lies.vertices[:, 2])) / 2
        _between("parting_mm", self.parting_mm, rule("within-the-master", low=-half, high=half))
        _refuse_small(self)

    @cached_property
    def lies(self) -> Mesh:
        """The master as it lies, enlarged by the shrinkage; its middle at the origin, the parting not yet
        moved to z = 0.
        """
        return _lying(self.master.mesh, self.pull, self.shrink_percent)

    @cached_property
    def lies_true(self) -> Mesh:
        """The same as it was brought in, not thinned: what leans in is judged on it."""
        true = self.master.true_mesh
        return self.lies if true is None else _lying(true, self.pull, self.shrink_percent)

    @property
    def parts(self) -> int:
        """How many halves it has."""
        return 1 if self.kind == OPEN else 2


@lru_cache(maxsize=64)
def _lying(mesh: Mesh, pull: str, percent: float) -> Mesh:
    return laid(shrunk_mesh(mesh, percent), pull)


def laid_point(mould: Mould, at_mm: tuple[float, float, float]) -> tuple[float, float, float]:
    """Where a point of the bait's own frame lies in the laid, enlarged master [mm]."""
    mesh = shrunk_mesh(mould.master.mesh, mould.shrink_percent)
    grown = np.asarray(at_mm) / (1.0 - mould.shrink_percent / 100.0)
    spot = laid_at(mesh, mould.pull, grown)
    return (float(spot[0]), float(spot[1]), float(spot[2]))


def bait_way(mould: Mould, way_mm: Sequence[float]) -> tuple[float, float, float]:
    """A way in the laid, enlarged master [mm] in the bait's own frame and size."""
    start = np.asarray(laid_point(mould, (0.0, 0.0, 0.0)))
    axes = [laid_point(mould, axis) for axis in ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))]
    x, y, z = np.linalg.solve((np.asarray(axes) - start).T, np.asarray(way_mm, dtype=float))
    return (float(x), float(y), float(z))


def cavity_ml(mould: Mould) -> float:
    """One cavity [ml], the shrinkage allowed for."""
    return mould.master.volume_ml / (1 - mould.shrink_percent / 100) ** 3


def placed(mould: Mould, spot: CavitySpot) -> Mesh:
    """A cavity's mesh in the mould's frame: the parting plane at z = 0 under the cavity's middle."""
    mesh, turn = mould.lies, radians(spot.turn_deg)
    spin = np.array([[cos(turn), -sin(turn), 0], [sin(turn), cos(turn), 0], [0, 0, 1]])
    return Mesh(mesh.vertices @ spin.T + np.array([spot.x_mm, spot.y_mm, -mould.parting_mm]), mesh.faces)


@dataclass(frozen=True)
class Box:
    """The box's inside [mm]: length, width, below and above the parting plane at its middle."""

    length_mm: float
    width_mm: float
    below_mm: float
    above_mm: float

    @property
    def area_mm2(self) -> float:
        """Its floor [mm²]."""
        return self.length_mm * self.width_mm

    @property
    def high_mm(self) -> float:
        """Wall needed [mm]."""
        return self.below_mm + self.above_mm

    @property
    def volume_ml(self) -> float:
        """All of it [ml]: what plain box arithmetic pours."""
        return self.area_mm2 * self.high_mm / 1000.0


@lru_cache(maxsize=64)
def box(mould: Mould) -> Box:
    """The box: as typed, or as the cavities need with their margins."""
    length, width = needed(mould)
    mesh = mould.lies
    low, high = (
        float(mesh.vertices[:, 2].min()) - mould.parting_mm,
        float(mesh.vertices[:, 2].max()) - mould.parting_mm,
    )
    lean = abs(tan(radians(mould.slant_deg))) * (mould.length_mm or length) / 2
    below = max(-low + mould.floor_mm, lean + 1.0) if mould.parts == 2 else 0.0
    above = max(high + mould.cover_mm, lean + 1.0) if mould.parts == 2 else high - low + mould.cover_mm
    if mould.height_mm is not None:  # the room over and under the master is shared out as the margins are
        spare = mould.height_mm - (high - low)
        below = -low + spare * mould.floor_mm / (mould.floor_mm + mould.cover_mm) if mould.parts == 2 else 0.0
        above = mould.height_mm - below
    return Box(mould.length_mm or length, mould.width_mm or width, below, above)


def needed(mould: Mould) -> tuple[float, float]:
    """Length and width [mm] that hold the cavities with their edge distance, from the origin of the plan."""
    spans = [_span(mould, spot) for spot in mould.cavities]
    return max(row[1] for row in spans) + mould.edge_mm, max(row[3] for row in spans) + mould.edge_mm


def _span(mould: Mould, spot: CavitySpot) -> tuple[float, float, float, float]:
    points = outline(mould, spot)
    return (
        float(points[:, 0].min()),
        float(points[:, 0].max()),
        float(points[:, 1].min()),
        float(points[:, 1].max()),
    )


@lru_cache(maxsize=256)
def outline(mould: Mould, spot: CavitySpot) -> Array:
    """A cavity's shadow in the plan, (n, 2) [mm]."""
    rows = seen(mould.lies)[0]
    points = max(rows, key=len)
    turn = radians(spot.turn_deg)
    spin = np.array([[cos(turn), -sin(turn)], [sin(turn), cos(turn)]])
    return np.asarray(points @ spin.T + np.array([spot.x_mm, spot.y_mm]))


def _refuse_small(mould: Mould) -> None:
    """Refuse a box smaller than what is to lie in it."""
    length, width = needed(mould)
    for name, given, least in (("length_mm", mould.length_mm, length), ("width_mm", mould.width_mm, width)):
        bare = least - mould.edge_mm
        if given is not None and given < bare - 1e-6:
            raise Refused(
                name,
                plainly(given, "length"),
                rule("box-smaller", bare=bare, edge_mm=mould.edge_mm, least=least),
            )
    if mould.height_mm is not None:
        tall = float(np.ptp(mould.lies.vertices[:, 2]))
        require(
            mould.height_mm > tall,
            "height_mm",
            plainly(mould.height_mm, "length"),
            rule("box-lower", tall=tall),
        )
        lean = abs(tan(radians(mould.slant_deg))) * (mould.length_mm or length) / 2
        walls = box(mould)
        require(
            mould.parts == 1 or min(walls.below_mm, walls.above_mm) > lean,
            "height_mm",
            plainly(mould.height_mm, "length"),
            rule("leaning-parting"),
        )
    for spot in mould.cavities:
        x0, _, y0, _ = _span(mould, spot)
        require(
            x0 >= -1e-6 and y0 >= -1e-6,
            f"cavities.{spot.key}",
            f"({numeral(x0, 'length')}, {said(y0, 'length')})",
            rule("master-reaches"),
        )


def arranged(mould: Mould, count: int) -> Mould:
    """The mould with so many cavities side by side, edge distance all round and between."""
    finite_between("cavities", count, 1, MOST_CAVITIES)
    points = outline(
        replace(mould, cavities=(CavitySpot("c1", 500.0, 500.0),), length_mm=None, width_mm=None),
        CavitySpot("c1", 0.0, 0.0),
    )
    low, high = points.min(axis=0), points.max(axis=0)
    step = (high - low)[1] + mould.edge_mm
    x = mould.edge_mm - low[0] + (feed_mm(mould) if mould.funnel.end == "nose" else 0.0)
    spots = tuple(
        CavitySpot(f"c{n + 1}", float(x), float(mould.edge_mm - low[1] + n * step)) for n in range(count)
    )
    return replace(mould, cavities=spots, length_mm=None, width_mm=None, wells=())


def feed_mm(mould: Mould) -> float:
    """How much longer the block is kept for a funnel of a useful head [mm]."""
    return max(mould.funnel.mouth_mm - mould.edge_mm, 0.0)


def turned(x_mm: float, y_mm: float, spot: CavitySpot) -> tuple[float, float]:
    """A point of the laid master in the plan, turned and moved with its cavity [mm]."""
    turn = radians(spot.turn_deg)
    return spot.x_mm + x_mm * cos(turn) - y_mm * sin(turn), spot.y_mm + x_mm * sin(turn) + y_mm * cos(turn)


def key_places(mould: Mould) -> tuple[tuple[float, float], ...]:
    """Where the keys sit in the plan [mm]: in the corners first, then along the long edges, half an edge
    in.
    """
    walls, inset = box(mould), mould.edge_mm / 2
    inset = max(inset, mould.keys.base_mm / 2 + 1.0)
    x0, x1, y0, y1 = inset, walls.length_mm - inset, inset, walls.width_mm - inset
    places = [(x0, y0), (x1, y1), (x0, y1), (x1, y0)]
    rest = mould.keys.count - 4
    top = (rest + 1) // 2
    places += [(x0 + (x1 - x0) * (n + 1) / (top + 1), y1) for n in range(max(top, 0))]
    places += [(x0 + (x1 - x0) * (n + 1) / (rest - top + 1), y0) for n in range(max(rest - top, 0))]
    return tuple(places[: mould.keys.count])


def pour_up(mould: Mould, tilt_deg: float | None = None) -> Array:
    """What is up in the laid master's frame while it is cast; an open mould is turned over, its flat side
    up.
    """
    up = up_of(mould.stand, mould.tilt_deg if tilt_deg is None else tilt_deg)
    return up * np.array([1.0, 1.0, -1.0]) if mould.kind == OPEN else up


def usual_stand(kind: str) -> str:
    """How a mould of a kind is set up to be poured."""
    return FLAT if kind in (OPEN, "press") else ON_EDGE
