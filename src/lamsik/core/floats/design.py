"""A float: its parts, paint and varnish, marks, water; what it displaces up to any height and what it
weighs.
"""

from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Annotated

import numpy as np
from annotated_types import MaxLen

from lamsik.core.errors import Refused, require, rule
from lamsik.core.floats.parts import FloatPart, centre_mm, mass_g, profile, radius_at
from lamsik.core.limits import Between, Name, OneOf, Pattern, held
from lamsik.core.shapes.curves import Array
from lamsik.core.water import Water

KINDS = (
    "stick",
    "antenna",
    "waggler",
    "slider",
    "loaded",
    "insert tip",
    "bulk foam",
    "live bait",
    "cast",
    "printed",
)
BARE, PAINTED, VARNISHED = "bare", "painted", "varnished"
GRID = 480
"""Heights at which the displaced volume is tabulated."""


@dataclass(frozen=True)
class Mark:
    """A named mark at a height over the foot [mm]: shoulder, tip, a ring of paint; its key stays when
    others go.
    """

    name: Name
    height_mm: Annotated[float, Between(-1000, 2000, "mm", "over the foot")]
    key: Annotated[str, Pattern("^[a-zA-Z0-9_-]*$", 0, 40)] = ""

    def __post_init__(self) -> None:
        held(self, f"mark {self.name} ")


@dataclass(frozen=True)
class Float:
    """A float as it floats upright.

    `paint_g` and `varnish_g` are dry masses; their film adds to the volume at `film_g_cm3`, spread over the
    surface. `family` names the float's kind of the shop, from which its capacity is learned.
    """

    name: Annotated[str, MaxLen(120)]
    kind: Annotated[str, OneOf(KINDS)]
    parts: Annotated[tuple[FloatPart, ...], MaxLen(16)]
    marks: Annotated[tuple[Mark, ...], MaxLen(24)] = ()
    water: Water = field(default_factory=lambda: Water("fresh water", 14.0))
    paint_g: Annotated[float, Between(0, 50, "g", "dry")] = 0.0
    varnish_g: Annotated[float, Between(0, 50, "g", "dry")] = 0.0
    film_g_cm3: Annotated[float, Between(0.2, 8, "g/cm³", "of paint and varnish")] = 1.2
    family: Name = ""
    wanted_mark: Name = ""

    def __post_init__(self) -> None:
        require(bool(self.name.strip()), "name", self.name, rule("give-float"))
        held(self)
        require(1 <= len(self.parts) <= 16, "parts", len(self.parts), rule("parts"))
        keys = [part.key for part in self.parts]
        require(len(set(keys)) == len(keys), "parts", keys, rule("each-key"))
        require(
            any(not part.inside for part in self.parts),
            "parts",
            "all inside",
            rule("part-least"),
        )
        low, high = self.foot_mm, self.top_mm
        names = [mark.name for mark in self.marks]
        require(len(set(names)) == len(names), "marks", names, rule("each-mark"))
        for mark in self.marks:
            require(
                low <= mark.height_mm <= high + 1e-9,
                f"mark {mark.name}",
                mark.height_mm,
                rule("allowed", low=low, high=high),
            )

    @property
    def foot_mm(self) -> float:
        """Its lowest point [mm]."""
        return min(part.foot_mm for part in self.parts if not part.inside)

    @property
    def top_mm(self) -> float:
        """Its highest point [mm]."""
        return max(part.top_mm for part in self.parts if not part.inside)

    def part(self, key: str) -> FloatPart:
        """The part of a key. Raises `Refused` if it has none."""
        for part in self.parts:
            if part.key == key:
                return part
        raise Refused("part", key, rule("one-of", listed=", ".join(part.key for part in self.parts)))

    def mark(self, name: str) -> Mark:
        """The mark of a name; the top where it has none of that name."""
        return next((mark for mark in self.marks if mark.name == name), Mark("tip", self.top_mm))


@dataclass(frozen=True, eq=False)
class ImmersionTable:
    """Heights over the foot (n,) [mm], water-plane area there (n,) [mm²], volume up to there (n,) [ml] and
    its moment (n,) [ml·mm].
    """

    z: Array
    area: Array
    volume: Array
    moment: Array

    def volume_at(self, height_mm: float) -> float:
        """Displaced volume up to a height [ml]."""
        return float(np.interp(height_mm, self.z, self.volume))

    def area_at(self, height_mm: float) -> float:
        """Water-plane area just above a height [mm²]."""
        return float(np.interp(height_mm, self.z, self.area))

    def height_of(self, volume_ml: float) -> float:
        """The height up to which so much is displaced [mm]."""
        return float(np.interp(volume_ml, self.volume, self.z))

    def centre_at(self, height_mm: float) -> float:
        """Centre of the displaced volume up to a height [mm]: the centre of buoyancy."""
        volume = self.volume_at(height_mm)
        return (
            float(np.interp(height_mm, self.z, self.moment)) / volume if volume > 1e-12 else float(self.z[0])
        )


def table(design: Float, flooded: bool | None = None) -> ImmersionTable:
    """What the float displaces by height. Parts nested on one axis displace the outermost; open bores take
    their water away.

    Args:
        design: the float.
        flooded: None as its parts say; True or False takes every bore so.

    Notes: the film of paint and varnish adds its share all over.
    """
    bare = bare_table(tuple(_shape_of(part) for part in design.parts if not part.inside), flooded)
    film, whole = (design.paint_g + design.varnish_g) / design.film_g_cm3, float(bare.volume[-1])
    more = 1.0 + film / whole if whole > 0 else 1.0
    return ImmersionTable(bare.z, bare.area * more, bare.volume * more, bare.moment * more)


def _shape_of(part: FloatPart) -> FloatPart:
    """A part as water meets it: what it weighs and is called makes no other table."""
    return replace(part, key="", name="", density_g_cm3=1.0, mass_g=None, spread_g_cm3=0.0)


@lru_cache(maxsize=256)
def bare_table(parts: tuple[FloatPart, ...], flooded: bool | None = None) -> ImmersionTable:
    """What parts in the water displace by height, without paint.

    Notes: areas are exact for frusta and ellipsoids; volume is the trapezium rule of the area over breaks at
        every profile point, where the area is quadratic in between, so Simpson's rule on each step is exact.
    """
    heights = [part.foot_mm + profile(part)[0] for part in parts]
    bottoms = np.array([part.foot_mm + part.wall_mm for part in parts if part.bore_mm > 0])
    breaks = np.unique(np.concatenate([*heights, bottoms]))
    count = max(int(np.ceil(GRID / max(len(breaks) - 1, 1))), 4)
    z = np.unique(
        np.concatenate([np.linspace(a, b, count + 1) for a, b in zip(breaks[:-1], breaks[1:], strict=True)])
    )
    eps = 1e-9 * max(float(z[-1] - z[0]), 1.0)
    low, high = _area(parts, z[:-1] + eps, flooded), _area(parts, z[1:] - eps, flooded)
    middle_z = (z[:-1] + z[1:]) / 2
    middle = _area(parts, middle_z, flooded)
    step = np.diff(z)
    piece = step * (low + 4 * middle + high) / 6
    first = step * (low * z[:-1] + 4 * middle * middle_z + high * z[1:]) / 6
    volume, moment = (np.concatenate([[0.0], np.cumsum(rows)]) / 1000.0 for rows in (piece, first))
    area = np.concatenate([low, high[-1:]])
    keep = np.concatenate([[True], np.diff(volume) > 0])
    return ImmersionTable(z[keep], area[keep], volume[keep], moment[keep])


def _area(parts: tuple[FloatPart, ...], z: Array, flooded: bool | None) -> Array:
    """Water-plane area at heights z (n,) [mm²]: the outermost part's circle, less open bores."""
    outer, hole = np.zeros(z.shape), np.full(z.shape, np.inf)
    for part in parts:
        here = (z >= part.foot_mm) & (z <= part.top_mm)
        radius = np.where(here, radius_at(part, z - part.foot_mm), 0.0)
        outer = np.maximum(outer, radius)
        is_open = part.bore_mm > 0 and (not part.sealed if flooded is None else flooded)
        hole = np.where(
            here & is_open & (z >= part.foot_mm + part.wall_mm),
            np.minimum(hole, np.minimum(part.bore_mm / 2, radius)),
            hole,
        )
    filled = np.where(np.isfinite(hole) & np.logical_not(_blocked(parts, z, hole)), hole, 0.0)
    return np.asarray(np.pi * np.maximum(outer**2 - filled**2, 0.0))


def _blocked(parts: tuple[FloatPart, ...], z: Array, hole: Array) -> Array:
    """Where something solid fills the open bore: a stem through a tube."""
    blocked = np.zeros(z.shape, dtype=bool)
    for part in parts:
        if part.bore_mm <= 0:
            here = (z >= part.foot_mm) & (z <= part.top_mm)
            blocked |= here & (
                radius_at(part, z - part.foot_mm) >= np.where(np.isfinite(hole), hole, np.inf) - 0.25
            )
    return blocked


def own_mass_g(design: Float, without: tuple[str, ...] = ()) -> float:
    """The float's own mass in air [g]: parts, paint and varnish; parts of some kinds left out."""
    return (
        sum(mass_g(part) for part in _own(design) if part.kind not in without)
        + design.paint_g
        + design.varnish_g
    )


def _own(design: Float) -> tuple[FloatPart, ...]:
    """Parts with what a stem or tip inside them drills out taken off their mass."""
    rows = []
    for part in design.parts:
        bored = max(
            (other.diameter_mm for other in design.parts if other is not part and _runs_through(other, part)),
            default=0.0,
        )
        rows.append(
            replace(part, bore_mm=max(part.bore_mm, min(bored, 0.98 * part.diameter_mm)))
            if part.kind == "body" and part.mass_g is None and bored
            else part
        )
    return tuple(rows)


def _runs_through(inner: FloatPart, outer: FloatPart) -> bool:
    """Whether a thin part lies along the whole of a thicker one."""
    return (
        outer.kind == "body"
        and inner.kind in ("stem", "antenna", "tube")
        and inner.foot_mm <= outer.foot_mm + 1e-6
        and inner.top_mm >= outer.top_mm - 1e-6
    )


def gravity_mm(design: Float) -> float:
    """Height of its centre of gravity over the foot [mm]; paint and varnish at the middle of its volume."""
    rows = [(mass_g(part), centre_mm(part)) for part in _own(design)]
    film, hull = design.paint_g + design.varnish_g, table(design)
    rows.append((film, hull.centre_at(float(hull.z[-1]))))
    whole = sum(mass for mass, _ in rows)
    return sum(mass * at for mass, at in rows) / whole if whole > 0 else 0.0
