"""What a mould's page says first: where air stays, what is too tight, what is short; gathered from the
single rules.
"""

from dataclasses import dataclass
from math import cos, radians, sin

import numpy as np

from lamsik.core.moulds.funnels import end_of
from lamsik.core.moulds.geometry import seen
from lamsik.core.moulds.layout import Mould, pour_up
from lamsik.core.moulds.pull import Choice, Features, choices, features
from lamsik.core.moulds.silicone import Half, halves
from lamsik.core.moulds.tight import Tight, tight_places
from lamsik.core.moulds.vents import HighPoint, high_points
from lamsik.core.trade.mould_kinds import OPEN, PRESS

_END = {"tail": (0, 1.0), "nose": (0, -1.0), "back": (1, 1.0), "belly": (1, -1.0)}


def feed_point(mould: Mould) -> tuple[float, float, float]:
    """Where the funnel meets the laid master [mm]."""
    axis, way = _END[mould.funnel.end]
    spot = end_of(mould.lies.vertices, way * np.eye(3)[axis])
    return (float(spot[0]), float(spot[1]), float(spot[2]))


def escapes(mould: Mould) -> list[tuple[float, float, float]]:
    """Where air leaves the cavity: the funnel, vents there are; the whole open face of an open pour; wells
    of a press mould let it out all round the parting.
    """
    mesh = mould.lies
    spots = [(vent.x_mm, vent.y_mm, vent.z_mm) for vent in mould.vents]
    if mould.kind == OPEN:
        flat = mesh.vertices[:, 2] < mesh.vertices[:, 2].min() + 1e-3
        return spots + [(float(x), float(y), float(z)) for x, y, z in mesh.vertices[flat]]
    if mould.kind == PRESS:
        near = np.abs(mesh.vertices[:, 2] - mould.parting_mm) < 0.02 * float(np.ptp(mesh.vertices[:, 2]))
        return spots + [(float(x), float(y), float(z)) for x, y, z in mesh.vertices[near][::4]]
    return [*spots, feed_point(mould)]


def high_points_of(mould: Mould, turn_deg: float | None = None) -> tuple[HighPoint, ...]:
    """High points that still trap air as the mould stands, of a cavity turned so in the block; of the
    first unless said.
    """
    turn = radians(mould.cavities[0].turn_deg if turn_deg is None else turn_deg)
    spin = np.array([[cos(turn), sin(turn), 0.0], [-sin(turn), cos(turn), 0.0], [0.0, 0.0, 1.0]])
    return high_points(mould.lies, spin @ pour_up(mould), escapes(mould), mould.bump_mm)


def turns(mould: Mould) -> tuple[float, ...]:
    """How the cavities are turned in the block [°], each once, the first cavity's first."""
    return tuple(dict.fromkeys(spot.turn_deg % 360.0 for spot in mould.cavities))


@dataclass(frozen=True, eq=False)
class Look:
    """All of a mould at a glance; `points` are of the first cavity, `turned` of those that lie otherwise
    and hold air.
    """

    features: Features
    choices: tuple[Choice, ...]
    halves: tuple[Half, ...]
    points: tuple[HighPoint, ...]
    turned: tuple[tuple[float, tuple[HighPoint, ...]], ...]
    tight: tuple[Tight, ...]


def look(mould: Mould, injector: bool = False) -> Look:
    """Everything the page shows of a mould, without prices and stock."""
    shape = features(mould.lies_true, mould.parting_mm, mould.slant_deg, seen(mould.lies)[1])
    others = tuple((turn, air) for turn in turns(mould)[1:] if (air := high_points_of(mould, turn)))
    return Look(
        shape,
        choices(shape, mould.thin_mm, injector),
        halves(mould),
        high_points_of(mould),
        others,
        tight_places(mould),
    )
