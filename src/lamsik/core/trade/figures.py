"""Figures that a shop may see otherwise: each stands here once, with what it is called and what it may be.
What the core reckons with where nobody says another is the same.
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
        words: what it is called.
        usual: what holds where the shop has none of its own, in the stored unit of its quantity.
        quantity: what it is a measure of (see `units`).
        least, most: between which it may be.
    """

    key: str
    words: str
    usual: float
    quantity: str
    least: float
    most: float


_BANDS, _BENCH, _SNAPS = Bands(), Bench((), ()), SnapRules()

FIGURES: Mapping[str, tuple[UsualFigure, ...]] = {
    "bench": (
        UsualFigure("wall_mm", "Wall left round a hole", _BENCH.wall_mm, "length", 0.2, 20.0),
        UsualFigure("cover_mm", "Filler over a slug", _BENCH.cover_mm, "length", 0.0, 20.0),
        UsualFigure("slug_step_g", "Cut slugs to", _BENCH.slug_step_g, "mass", 0.01, 5.0),
    ),
    "bands": (
        UsualFigure("suspends_cm_s", "Suspends below", _BANDS.suspends_cm_s, "speed", 0.5, 20.0),
        UsualFigure("slow_cm_s", "Slow below", _BANDS.slow_cm_s, "speed", 1.0, 60.0),
        UsualFigure("drag", "Drag coefficient C_d", DEFAULT_DRAG, "number", 0.05, 10.0),
        UsualFigure("steady_hz", "Roll steady from, Hz", STEADY_HZ, "number", 0.1, 20.0),
    ),
    "saw": (
        UsualFigure("kerf_mm", "Saw kerf", KERF_MM, "length", 0.0, 20.0),
        UsualFigure("block_spare_mm", "Spare round a block", SPARE_MM, "length", 0.0, 50.0),
        UsualFigure("hinge_mm", "Thinnest printed hinge", HINGE_MM, "length", 0.1, 10.0),
    ),
    "blades": (
        UsualFigure("free_ratio", "Snap swings from, × wire", _SNAPS.free_ratio, "number", 1.0, 5.0),
        UsualFigure("edge_share", "Metal at a hole, × thickness", _SNAPS.edge_share, "number", 0.0, 10.0),
        UsualFigure("edge_mm", "Metal at a hole, at least", _SNAPS.edge_mm, "length", 0.0, 10.0),
        UsualFigure("uneven_deg", "Cups of a blade alike within", _SNAPS.uneven_deg, "angle", 0.0, 20.0),
    ),
    "mixing": (
        UsualFigure("step_g", "The mixing scale shows", 0.1, "mass", 0.0001, 10.0),
        UsualFigure("room_c", "The shop is at", 20.0, "temperature", -5.0, 45.0),
        UsualFigure("scoop_ml", "A level scoop holds", 15.0, "volume", 0.1, 2000.0),
        UsualFigure("near_percent", "Pour slowly from", 90.0, "percent", 50.0, 99.0),
        UsualFigure("in_percent", "A part is in within ±", 0.5, "percent", 0.05, 5.0),
        UsualFigure("counts_percent", "A reading counts from", 97.0, "percent", 50.0, 100.0),
    ),
    "casting": (
        UsualFigure("pour_min", "Hands to pour a shot", 15.0, "minutes", 0.5, 480.0),
        UsualFigure("demould_min", "Hands to demould a shot", 10.0, "minutes", 0.0, 480.0),
        UsualFigure("half_min", "Hands to pour a half of a mould", 60.0, "minutes", 0.5, 480.0),
        UsualFigure("half_h", "A half cures, where no product says", 16.0, "time", 0.1, 500.0),
        UsualFigure("silicone_g_cm3", "Mould silicone, where no product says", 1.15, "density", 0.8, 2.5),
        UsualFigure("good_percent", "Good of all that is cast", 95.0, "percent", 5.0, 100.0),
        UsualFigure("jug_g", "Plastisol heated at once", 120.0, "mass", 1.0, 5000.0),
        UsualFigure("heat_min", "Heating plastisol", 6.0, "minutes", 0.1, 240.0),
        UsualFigure("shot_min", "One hot shot", 4.0, "minutes", 0.1, 240.0),
        UsualFigure("squeeze_percent", "A soft bait is squeezed by", 50.0, "percent", 0.0, 95.0),
        UsualFigure("shank_mm", "Across a hook shank cast in", 1.2, "length", 0.2, 10.0),
    ),
    "heat": (UsualFigure("margin_c", "Margin under the limit", MARGIN_C, "warming", 0.0, 100.0),),
}
"""By the setting they are kept in."""


def usual(setting: str) -> dict[str, float]:
    """What holds of a setting where the shop has nothing of its own, by key."""
    return {figure.key: figure.usual for figure in FIGURES.get(setting, ())}
