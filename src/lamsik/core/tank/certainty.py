"""How sure the verdict is: the chance of landing in the wanted behaviour, its band, the measurement that
helps most.

Masses vary by what each part's figure is known to, the body's volume by its four faces, slugs by half a
millimetre in place, the drag coefficient by what is known of it, the water by a degree.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lamsik.core.findings import Finding, finding
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import SPEED, Design
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.attitude import buoyancy
from lamsik.core.tank.errors_of_making import VOLUME, Errors, errors_of
from lamsik.core.tank.mass import NOTHING, Measured, budget
from lamsik.core.tank.motion import DEFAULT_DRAG, GRAVITY, Bands, behaviour, frontal_area_mm2, window_cm_s
from lamsik.core.tank.wanted import Target, drag_of, target

SAMPLES = 4000
DRAG_SPREAD, DRAG_SPREAD_TIMED = 0.15, 0.05
PITCH_ROOM_DEG = 3.0
"""How far from the wanted pitch a finished bait may hang and still count."""

BAND = 1.6449
"""Sigmas to either side that hold 90 of 100."""

SCALE_SD_G = 0.01
"""What a measurement that is only thought of is taken to err by [g]."""

WORTH = 0.02
"""By how much more the blank in water must help than the blank on the scale alone, to be named before it."""

MEASURE = {
    "host": "weigh-blank",
    VOLUME: "weigh-in-air-and-water",
    "segments": "weigh-segments",
    "ballast": "weigh-slugs",
    "hooks": "weigh-hooks",
    "fittings": "weigh-fittings",
    "coats": "weigh-coats",
    "allowed": "weigh-allowed",
    "glue": "weigh-glue",
    "water": "measure-water",
    "drag": "time-in-the-tub",
}
"""The measurement that settles each group, by its finding."""


@dataclass(frozen=True)
class Better:
    """A measurement: its group, what to do, and the chance once it is done and the ballast fitted to it."""

    group: str
    says: Finding
    chance: float


@dataclass(frozen=True, eq=False)
class Certainty:
    """Chances of landing in the wanted behaviour, and of the wanted pitch too; what measuring would make of
    them.

    `refitted` is the chance with the ballast set right on the want and nothing more measured. `net_g` is what
    is expected, `net_sd_g` and `pitch_sd_deg` the spread.
    """

    chance: float
    chance_with_pitch: float
    refitted: float
    net_g: float
    net_sd_g: float
    pitch_sd_deg: float
    better: tuple[Better, ...]

    @property
    def net_band_g(self) -> tuple[float, float]:
        """Where 90 of 100 baits made so end up [g]."""
        return self.net_g - BAND * self.net_sd_g, self.net_g + BAND * self.net_sd_g

    @property
    def best(self) -> Better | None:
        """The measurement that would raise the chance most; None where none helps. The blank in water only
        where it is worth the trouble.
        """
        rows = {row.group: row for row in self.better}
        if VOLUME in rows and "host" in rows and rows[VOLUME].chance < rows["host"].chance + WORTH:
            del rows[VOLUME]
        better = max(rows.values(), key=lambda row: row.chance, default=None)
        return better if better and better.chance > max(self.refitted, self.chance) + 0.01 else None


def _to_do(design: Design, group: str) -> Finding:
    """The measurement, the bare body called what it is."""
    host = design.host
    sealed = (
        f"sealed {host.blank}".replace("sealed carved", "sealed")
        if host.construction in ("wood", "foam")
        else host.blank
    )
    return finding(MEASURE[group], blank=host.blank, sealed=sealed)


@dataclass(frozen=True)
class _Luck:
    """Where baits made with some spread come to lie: what is wanted, what they are towed by, the draws."""

    design: Design
    aim: Target
    drag: float
    area_mm2: float
    window_cm_s: tuple[float, float]
    drawn: Array

    def chance(
        self, net_g: float, pitch_deg: float, spread: Array, drag_sd: float | None = None
    ) -> tuple[float, float]:
        """The share round this net and pitch that does what is wanted, and that also at the wanted pitch."""
        tilts, nets = self._tilts(spread), net_g + self._nets(spread)
        if self.design.want.by != SPEED:
            good = (nets > self.aim.low_g) & (nets < self.aim.high_g)
        else:
            speeds = self._speeds_cm_s(nets, self._drag_sd if drag_sd is None else drag_sd)
            good = (speeds > self.window_cm_s[0]) & (speeds < self.window_cm_s[1])
        off = np.abs(pitch_deg + np.degrees(np.arctan(tilts)) - self.design.want.pitch_deg)
        return float(good.mean()), float((good & (off < PITCH_ROOM_DEG)).mean())

    @property
    def _drag_sd(self) -> float:
        return DRAG_SPREAD_TIMED if self.design.drag_source == "timed" else DRAG_SPREAD

    def _nets(self, spread: Array) -> Array:
        return np.asarray((_root(spread) @ self.drawn[:2])[0])

    def _tilts(self, spread: Array) -> Array:
        return np.asarray((_root(spread) @ self.drawn[:2])[1])

    def _speeds_cm_s(self, nets: Array, drag_sd: float) -> Array:
        push = np.abs(nets) * 1e-3 * GRAVITY
        water = self.design.water.density_g_cm3 * 1000.0
        drags = self.drag * np.exp(drag_sd * self.drawn[2])
        speeds = np.sqrt(2.0 * push / (water * drags * self.area_mm2 * 1e-6))
        return np.asarray(np.copysign(speeds, nets) * 100.0)


def certainty(
    design: Design,
    measured: Measured = NOTHING,
    drag: float = DEFAULT_DRAG,
    bands: Bands = Bands(),
    samples: int = SAMPLES,
    face_mm: float | None = None,
) -> Certainty:
    """The chance of landing in the wanted behaviour, and what would raise it; `face_mm` is how true the
    shop's own blanks came out.
    """
    mass = budget(design, measured)
    own = drag_of(design, drag)
    aim = target(design, mass, own, bands)
    net = design.water.density_g_cm3 * mass.displaced_ml - mass.mass_g
    b, g = np.array(buoyancy(solid(design.body).centroid_mm, mass)), np.array(mass.g_mm)
    pitch = float(np.degrees(np.arctan2(-(b - g)[0], max((b - g)[2], 1e-6))))
    errors = errors_of(design, measured, face_mm)
    luck = _Luck(
        design,
        aim,
        drag=own,
        area_mm2=frontal_area_mm2(design.body, np.array([0.0, 0.0, 1.0])),
        window_cm_s=window_cm_s(behaviour(design.want.speed_cm_s, bands), bands),
        drawn=_drawn(samples),
    )
    chance = luck.chance
    now, with_pitch = chance(net, pitch, errors.spread())
    wanted = (aim.net_g, design.want.pitch_deg)
    refit = chance(*wanted, errors.spread())[0]
    better = [
        Better(group, _to_do(design, group), chance(*wanted, errors.spread(left))[0])
        for group, left in _thought_of(errors, measured)
    ]
    if design.want.by == SPEED and design.drag_source != "timed":
        better.append(
            Better("drag", finding(MEASURE["drag"]), chance(*wanted, errors.spread(), DRAG_SPREAD_TIMED)[0])
        )
    spread = errors.spread()
    tilt_deg = float(np.degrees(np.arctan(_root(spread) @ luck.drawn[:2])[1]).std())
    return Certainty(
        now,
        with_pitch,
        refit,
        net,
        float(np.sqrt(spread[0, 0])),
        tilt_deg,
        tuple(sorted(better, key=lambda row: -row.chance)),
    )


def _thought_of(errors: Errors, measured: Measured) -> list[tuple[str, Array]]:
    """Each measurement that is still open, with what it would leave."""
    thoughts = []
    on_scale = bool(measured.stages) or any(key == "host" for key, _, _ in measured.parts)
    for group in dict.fromkeys(errors.groups):
        mine = np.array([name == group for name in errors.groups])
        if not errors.net[mine].any():
            continue
        if group == "host":
            if not on_scale:
                thoughts.append((group, errors.weighed("carved", SCALE_SD_G)))
        elif group == VOLUME:
            if not measured.waters:
                thoughts.append(
                    (
                        group,
                        errors.sized(
                            SCALE_SD_G * 1.5, None if on_scale else errors.weighed("carved", SCALE_SD_G)
                        ),
                    )
                )
        else:
            thoughts.append((group, errors.without(group)))
    return thoughts


def _root(spread: Array) -> Array:
    """Lower factor of a (2, 2) covariance."""
    first = float(np.sqrt(max(spread[0, 0], 0.0)))
    cross = float(spread[0, 1]) / first if first > 1e-12 else 0.0
    return np.array([[first, 0.0], [cross, float(np.sqrt(max(spread[1, 1] - cross**2, 0.0)))]])


@lru_cache(maxsize=4)
def _drawn(samples: int) -> Array:
    """Standard normals (3, samples) of net, pitch and drag: the same for every design, so answers do not
    flicker.
    """
    return np.asarray(np.random.default_rng(20).standard_normal((3, samples)))
