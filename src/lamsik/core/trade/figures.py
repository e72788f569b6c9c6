"""Figures that a shop may see otherwise: each stands here once, with what it may be; `words`
has what each is called. What the core reckons with where nobody says another is the same.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from lamsik.core.moulds.heat import MARGIN_C
from lamsik.core.shapes.blades import SnapRules
from lamsik.core.shapes.stock import KERF_MM, SPARE_MM
from lamsik.core.tank.ballast_base import Bench
from lamsik.core.tank.inertia import STEADY_HZ
from lamsik.core.tank.motion import DEFAULT_DRAG, Bands
from lamsik.core.tank.printed import HINGE_MM


@dataclass(frozen=True)
class UsualFigure:
    """A figure of the trade.

    Args:
        key: what it is kept as.
        usual: what holds where the shop has none of its own, in the stored unit of its quantity.
        quantity: what it is a measure of (see `units`).
        least, most: between which it may be.
    """

    key: str
    usual: float
    quantity: str
    least: float
    most: float


_BANDS, _BENCH, _SNAPS = Bands(), Bench((), ()), SnapRules()

FIGURES: Mapping[str, tuple[UsualFigure, ...]] = {
    "bench": (
        UsualFigure("wall_mm", _BENCH.wall_mm, "length", 0.2, 20.0),
        UsualFigure("cover_mm", _BENCH.cover_mm, "length", 0.0, 20.0),
        UsualFigure("slug_step_g", _BENCH.slug_step_g, "mass", 0.01, 5.0),
    ),
    "bands": (
        UsualFigure("suspends_cm_s", _BANDS.suspends_cm_s, "speed", 0.5, 20.0),
        UsualFigure("slow_cm_s", _BANDS.slow_cm_s, "speed", 1.0, 60.0),
        UsualFigure("drag", DEFAULT_DRAG, "number", 0.05, 10.0),
        UsualFigure("steady_hz", STEADY_HZ, "number", 0.1, 20.0),
    ),
    "saw": (
        UsualFigure("kerf_mm", KERF_MM, "length", 0.0, 20.0),
        UsualFigure("block_spare_mm", SPARE_MM, "length", 0.0, 50.0),
        UsualFigure("hinge_mm", HINGE_MM, "length", 0.1, 10.0),
    ),
    "blades": (
        UsualFigure("free_ratio", _SNAPS.free_ratio, "number", 1.0, 5.0),
        UsualFigure("edge_share", _SNAPS.edge_share, "number", 0.0, 10.0),
        UsualFigure("edge_mm", _SNAPS.edge_mm, "length", 0.0, 10.0),
        UsualFigure("uneven_deg", _SNAPS.uneven_deg, "angle", 0.0, 20.0),
    ),
    "mixing": (
        UsualFigure("step_g", 0.1, "mass", 0.0001, 10.0),
        UsualFigure("room_c", 20.0, "temperature", -5.0, 45.0),
        UsualFigure("scoop_ml", 15.0, "volume", 0.1, 2000.0),
        UsualFigure("near_percent", 90.0, "percent", 50.0, 99.0),
        UsualFigure("in_percent", 0.5, "percent", 0.05, 5.0),
        UsualFigure("counts_percent", 97.0, "percent", 50.0, 100.0),
    ),
    "casting": (
        UsualFigure("pour_min", 15.0, "minutes", 0.5, 480.0),
        UsualFigure("demould_min", 10.0, "minutes", 0.0, 480.0),
        UsualFigure("half_min", 60.0, "minutes", 0.5, 480.0),
        UsualFigure("half_h", 16.0, "time", 0.1, 500.0),
        UsualFigure("silicone_g_cm3", 1.15, "density", 0.8, 2.5),
        UsualFigure("good_percent", 95.0, "percent", 5.0, 100.0),
        UsualFigure("jug_g", 120.0, "mass", 1.0, 5000.0),
        UsualFigure("heat_min", 6.0, "minutes", 0.1, 240.0),
        UsualFigure("shot_min", 4.0, "minutes", 0.1, 240.0),
        UsualFigure("squeeze_percent", 50.0, "percent", 0.0, 95.0),
        UsualFigure("shank_mm", 1.2, "length", 0.2, 10.0),
    ),
    "heat": (UsualFigure("margin_c", MARGIN_C, "warming", 0.0, 100.0),),
}
"""By the setting they are kept in."""


def usual(setting: str) -> dict[str, float]:
    """What holds of a setting where the shop has nothing of its own, by key."""
    return {figure.key: figure.usual for figure in FIGURES.get(setting, ())}
