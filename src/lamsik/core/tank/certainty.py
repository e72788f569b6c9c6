"""How sure the verdict is: sampled inputs, the chance of landing in the wanted behaviour, the measurement that helps most.

Masses vary by what each part's figure is known to (the host with everything cut out of it as one density), slugs by
half a millimetre in place, the drag coefficient by what is known of it, the water by a degree.
"""

from dataclasses import dataclass

import numpy as np

from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import SPEED, Design
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.attitude import buoyancy
from lamsik.core.tank.mass import NOTHING, Measured, budget
from lamsik.core.tank.motion import DEFAULT_DRAG, GRAVITY, Bands, behaviour, frontal_area_mm2, window_cm_s
from lamsik.core.tank.parts import Part, is_cut
from lamsik.core.tank.wanted import drag_of, target
from lamsik.core.water import density

SAMPLES = 500
PLACE_SD_MM, WATER_SD_C, DRAG_SPREAD, DRAG_SPREAD_TIMED = 0.5, 1.0, 0.15, 0.05
PITCH_ROOM_DEG = 3.0
"""How far from the wanted pitch a finished bait may hang and still count."""

MEASURE = {
    "host": "weigh the carved blank",
    "segments": "weigh each segment's blank",
    "ballast": "weigh each slug and mark its place",
    "hooks": "weigh the hooks and rings",
    "fittings": "weigh lip, tie and hangers",
    "coats": "weigh before and after the coats",
    "allowed": "weigh what is only allowed for",
    "glue": "weigh before and after gluing",
    "water": "put a thermometer in the water",
    "drag": "time a rise or sink in the tub",
}
"""The measurement that settles each group."""


@dataclass(frozen=True)
class Better:
    """A measurement: its group, what to do, and the chance once it is done and the ballast fitted to it."""

    group: str
    says: str
    chance: float


@dataclass(frozen=True, eq=False)
class Certainty:
    """Chances of landing in the wanted behaviour, and of the wanted pitch too; what measuring would make of them.

    `refitted` is the chance with the ballast set right on the want and nothing more measured. `net_sd_g` and
    `pitch_sd_deg` are the spread. `nets_g` (samples,) can be drawn.
    """

    chance: float
    chance_with_pitch: float
    refitted: float
    net_sd_g: float
    pitch_sd_deg: float
    better: tuple[Better, ...]
    nets_g: Array

    @property
    def best(self) -> Better | None:
        """The measurement that would raise the chance most; None where none helps."""
        found = max(self.better, key=lambda row: row.chance, default=None)
        return found if found and found.chance > max(self.refitted, self.chance) + 0.01 else None


@dataclass(frozen=True, eq=False)
class _Draws:
    """Deviations by group: of net lift [g], of pitch [°], and of the factor on C_d, each (groups, samples)."""

    names: tuple[str, ...]
    net: Array
    pitch: Array
    drag: Array


def certainty(design: Design, measured: Measured = NOTHING, drag: float = DEFAULT_DRAG, bands: Bands = Bands(), samples: int = SAMPLES) -> Certainty:  # noqa: B008 - frozen value
    """The chance of landing in the wanted behaviour, and what would raise it."""
    mass = budget(design, measured)
    own = drag_of(design, drag)
    aim = target(design, mass, own, bands)
    rho = design.water.density_g_cm3
    net = rho * mass.displaced_ml - mass.mass_g
    b, g = np.array(buoyancy(solid(design.body).centroid_mm, mass)), np.array(mass.g_mm)
    pitch = float(np.degrees(np.arctan2(-(b - g)[0], max((b - g)[2], 1e-6))))
    draws = _drawn(design, measured, samples)
    area = frontal_area_mm2(design.body, np.array([0.0, 0.0, 1.0]))
    low, high = window_cm_s(behaviour(design.want.speed_cm_s, bands), bands)

    def lands(nets: Array, factor: Array) -> Array:
        if design.want.by != SPEED:
            return np.asarray((nets > aim.low_g) & (nets < aim.high_g))
        speeds = np.copysign(np.sqrt(2.0 * np.abs(nets) * 1e-3 * GRAVITY / (rho * 1000.0 * own * factor * area * 1e-6)), nets) * 100.0
        return np.asarray((speeds > low) & (speeds < high))

    def chance(around_net: float, around_pitch: float, without: int | None = None) -> tuple[float, float, Array]:
        keep = [i for i in range(len(draws.names)) if i != without]
        nets = around_net + draws.net[keep].sum(axis=0)
        good = lands(nets, np.exp(draws.drag[keep].sum(axis=0)))
        level = np.abs(around_pitch + draws.pitch[keep].sum(axis=0) - design.want.pitch_deg) < PITCH_ROOM_DEG
        return float(good.mean()), float((good & level).mean()), nets

    now, with_pitch, nets = chance(net, pitch)
    refit = chance(aim.net_g, design.want.pitch_deg)[0]
    better = tuple(Better(name, MEASURE[name], chance(aim.net_g, design.want.pitch_deg, i)[0]) for i, name in enumerate(draws.names) if _matters(draws, i))
    spread = draws.pitch.sum(axis=0)
    return Certainty(now, with_pitch, refit, float(nets.std()), float(spread.std()), tuple(sorted(better, key=lambda row: -row.chance)), nets)


def _matters(draws: _Draws, row: int) -> bool:
    return bool(draws.net[row].any() or draws.drag[row].any())


def group_of(part: Part, design: Design) -> str:
    """Which measurement settles a part."""
    if part.key == "host" or is_cut(part):
        return "host"
    kinds = {placed.key: placed.item.kind for placed in design.hardware}
    if part.key in kinds:
        return "hooks" if kinds[part.key] in ("hook", "ring") else "fittings"
    stem = part.key.split(":")[0]
    return {
        "slug": "ballast",
        "fill": "ballast",
        "pour": "ballast",
        "balls": "ballast",
        "coat": "coats",
        "allow": "allowed",
        "lip": "fittings",
        "segment": "segments",
    }.get(stem, stem)


def _drawn(design: Design, measured: Measured, samples: int) -> _Draws:
    random = np.random.default_rng(20)
    mass, rho = budget(design, measured), design.water.density_g_cm3
    centroid = solid(design.body).centroid_mm
    b, g = np.array(buoyancy(centroid, mass)), np.array(mass.g_mm)
    rise = max(float(b[2] - g[2]), 0.05)
    names = (*dict.fromkeys(group_of(part, design) for part in mass.parts), "water", "drag")
    rows = {name: np.zeros((2, samples)) for name in names}
    wood = random.standard_normal(samples)
    for part in mass.parts:
        way = wood * (-1.0 if is_cut(part) else 1.0) if group_of(part, design) == "host" else random.standard_normal(samples)
        grams = part.sd_g * way
        pushed = rho * (part.outside_ml + part.film_ml) / part.mass_g if part.mass_g > 0 else 0.0
        at = np.array(part.at_mm)
        # A gram more at x turns the body by its lever over the stiffness m·BG; what it displaces turns it back.
        lever = (at - g)[0] - pushed * ((centroid[0] if part.film_ml else at[0]) - b[0])
        rows[group_of(part, design)] += np.array([-(1.0 - pushed) * grams, np.degrees(np.arctan(lever * grams / (mass.mass_g * rise)))])
    for hole in design.ballast:
        shift = PLACE_SD_MM * random.standard_normal(samples)
        rows["ballast"][1] += np.degrees(np.arctan(hole.mass_g * shift / (mass.mass_g * rise)))
    water = design.water
    slope = density(min(water.temperature_c + 0.5, 40.0), water.salinity_psu) - density(max(water.temperature_c - 0.5, -2.0), water.salinity_psu)
    if water.measured_g_cm3 is None:
        rows["water"][0] = mass.displaced_ml * slope * WATER_SD_C * random.standard_normal(samples)
    drag = np.zeros((len(names), samples))
    drag[-1] = (DRAG_SPREAD_TIMED if design.drag_source == "timed" else DRAG_SPREAD) * random.standard_normal(samples)
    return _Draws(names, np.array([rows[name][0] for name in names]), np.array([rows[name][1] for name in names]), drag)
