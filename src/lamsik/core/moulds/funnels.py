"""The funnels of a mould: where each leads, and what stands in them."""

from dataclasses import dataclass
from functools import lru_cache
from math import atan2, cos, degrees, hypot, pi, radians, sin

import numpy as np

from lamsik.core.moulds.layout import Box, Mould, box, outline
from lamsik.core.shapes.curves import Array
from lamsik.core.trade.mould_kinds import OPEN, PRESS

_TOWARD = {"tail": (1.0, 0.0), "nose": (-1.0, 0.0), "back": (0.0, 1.0), "belly": (0.0, -1.0)}


@dataclass(frozen=True)
class Feed:
    """A cavity's funnel: from the cavity to the wall in the plan [mm], both radii [mm], its volume outside
    the cavity [mm³].
    """

    x0_mm: float
    y0_mm: float
    x1_mm: float
    y1_mm: float
    neck_mm: float
    mouth_mm: float

    @property
    def length_mm(self) -> float:
        """How long [mm]."""
        return hypot(self.x1_mm - self.x0_mm, self.y1_mm - self.y0_mm)

    @property
    def volume_mm3(self) -> float:
        """A frustum πl(r² + rR + R²)/3 [mm³]."""
        r, big = self.neck_mm / 2, self.mouth_mm / 2
        return pi * self.length_mm * (r * r + r * big + big * big) / 3

    @property
    def way_deg(self) -> float:
        """Its direction in the plan [°]."""
        return degrees(atan2(self.y1_mm - self.y0_mm, self.x1_mm - self.x0_mm))


@lru_cache(maxsize=64)
def feeds(mould: Mould) -> tuple[Feed, ...]:
    """The funnels, one at each cavity's end, out to the nearest wall that way; none in an open or a press
    mould.
    """
    if mould.kind in (OPEN, PRESS):
        return ()
    walls = box(mould)
    channels = []
    for spot in mould.cavities:
        way = radians(spot.turn_deg)
        dx, dy = _TOWARD[mould.funnel.end]
        dx, dy = dx * cos(way) - dy * sin(way), dx * sin(way) + dy * cos(way)
        points = outline(mould, spot)
        tip = end_of(points, np.array([dx, dy]))
        far = wall_mm(walls, float(tip[0]), float(tip[1]), dx, dy)
        channels.append(
            Feed(
                float(tip[0]),
                float(tip[1]),
                float(tip[0] + far * dx),
                float(tip[1] + far * dy),
                mould.funnel.neck_mm,
                mould.funnel.mouth_mm,
            )
        )
    return tuple(channels)


def wall_mm(walls: Box, x_mm: float, y_mm: float, dx: float, dy: float) -> float:
    """How far it is in the plan from a point to the wall in a direction [mm]; 0 from outside."""
    to_x = ((walls.length_mm if dx > 0 else 0.0) - x_mm) / dx if abs(dx) > 1e-9 else 1e9
    to_y = ((walls.width_mm if dy > 0 else 0.0) - y_mm) / dy if abs(dy) > 1e-9 else 1e9
    return max(min(to_x, to_y), 0.0)


def end_of(points: Array, way: Array) -> Array:
    """The middle of the end of some points in a direction: of a tip its point, of a flat end its middle."""
    reach = points @ way
    end = points[reach > reach.max() - 0.004 * float(np.ptp(reach))]
    middle = (end.min(axis=0) + end.max(axis=0)) / 2
    return np.asarray(middle + (reach.max() - middle @ way) * way)


def feed_ml(mould: Mould) -> float:
    """All funnels [ml]."""
    return sum(feed.volume_mm3 for feed in feeds(mould)) / 1000.0
