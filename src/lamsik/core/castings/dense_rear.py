"""Two densities in one casting: the dense pour first into a propped mould, the light one over it within
its bond window.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lamsik.core.castings.inserts import level_mm
from lamsik.core.errors import finite_between, require, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.moulds.geometry import hull
from lamsik.core.moulds.layout import Mould, bait_way, cavity_ml
from lamsik.core.quantities import plainly
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.hardware import Point
from lamsik.core.shapes.skins import Mesh
from lamsik.core.tank.immersion import wet


@dataclass(frozen=True)
class TwoPours:
    """The dense and the light pour [ml, g], the casting's mass [g] and centre of mass in the mesh's frame
    [mm], the height of the face between [mm], and where the centre of mass would lie in one even material
    [mm].
    """

    dense_ml: float
    light_ml: float
    dense_g: float
    light_g: float
    centre_mm: tuple[float, float, float]
    level_mm: float
    even_mm: tuple[float, float, float]

    @property
    def mass_g(self) -> float:
        """Of the casting [g]."""
        return self.dense_g + self.light_g


def two_pours(
    mesh: Mesh,
    up: Array,
    dense_ml: float,
    dense_g_cm3: float,
    light_g_cm3: float,
    inserts: Sequence[tuple[float, Point]] = (),
) -> TwoPours:
    """A cavity filled with `dense_ml` of the dense mix, level in the propped mould, and the light one over
    it.

    Args:
        mesh: the cavity as it lies in the mould [mm].
        up: what is up while it is poured.
        dense_ml: of the dense mix [ml].
        dense_g_cm3, light_g_cm3: of both.
        inserts: volume [ml] and place [mm] of what lies in it already: neither mix fills that. Each counts as
            a point.

    Raises:
        Refused: more of the dense mix than the cavity holds, or a dense mix that is the lighter one.
    """
    poured = hull(mesh)
    whole = wet(poured, up, float((mesh.vertices @ up).max()) + 1.0)
    taken = sum(ml for ml, _ in inserts)
    room = whole.volume / 1000.0 - taken
    require(
        0.0 <= dense_ml <= room,
        "dense_ml",
        plainly(dense_ml, "volume"),
        rule("cavity-holds-beside" if taken else "cavity-holds", room=room),
    )
    require(
        dense_g_cm3 > light_g_cm3,
        "dense_g_cm3",
        plainly(dense_g_cm3, "density"),
        rule("denser-goes", light_g_cm3=light_g_cm3),
    )
    level = _level(mesh, up, dense_ml, inserts)
    low = wet(poured, up, level)
    under = [(ml, np.asarray(at)) for ml, at in inserts if float(np.asarray(at) @ up) < level]
    over = [(ml, np.asarray(at)) for ml, at in inserts if float(np.asarray(at) @ up) >= level]
    dense, light = dense_ml, room - dense_ml
    moment_low = low.moment / 1000.0 - sum((ml * at for ml, at in under), start=np.zeros(3))
    moment_high = (whole.moment - low.moment) / 1000.0 - sum((ml * at for ml, at in over), start=np.zeros(3))
    mass = dense * dense_g_cm3 + light * light_g_cm3
    centre = np.asarray((dense_g_cm3 * moment_low + light_g_cm3 * moment_high) / mass)
    even = (moment_low + moment_high) / room
    return TwoPours(
        dense,
        light,
        dense * dense_g_cm3,
        light * light_g_cm3,
        (float(centre[0]), float(centre[1]), float(centre[2])),
        level,
        (float(even[0]), float(even[1]), float(even[2])),
    )


def uneven_mm(mould: Mould, two: TwoPours) -> tuple[float, float, float]:
    """How far the centre of mass of what was poured into a cavity lies from where one even material would
    have it, told of the whole cavity, in the bait's own frame [mm]: what lies in the cavity is cut out of it.
    """
    share = (two.dense_ml + two.light_ml) / cavity_ml(mould)
    return bait_way(mould, share * (np.asarray(two.centre_mm) - np.asarray(two.even_mm)))


def _level(mesh: Mesh, up: Array, dense_ml: float, inserts: Sequence[tuple[float, Point]]) -> float:
    """How high the dense mix stands [mm]: what lies under its surface pushes it up."""
    level = level_mm(mesh, up, dense_ml * 1000.0)
    for _ in inserts:
        under = sum(volume for volume, at in inserts if float(np.asarray(at) @ up) < level)
        raised = level_mm(mesh, up, (dense_ml + under) * 1000.0)
        if abs(raised - level) < 1e-6:
            break
        level = raised
    return level


def bonds(gap_min: float, from_min: float, to_min: float) -> Finding | None:
    """What pouring the second mix `gap_min` after the first does; nothing within the window."""
    finite_between("gap_min", gap_min, 0.0, 1e5, "min")
    if gap_min < from_min:
        return finding("poured-too-soon", first=from_min - gap_min)
    if gap_min > to_min:
        return finding("too-late-to-bond", gap=gap_min - to_min)
    return None
