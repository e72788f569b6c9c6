"""The mass budget of a design: every part with mass, place, displacement and where its figure is from.

A weighing overrides what was assumed: a part's own weighing replaces its mass; a stage
weighing (the whole piece on the scale) corrects the parts added since the last one, each
in proportion to its variance, which is the conditional mean of independent normal errors.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Point
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.parts import SHARED, STAGES, WEIGHED, Part, assumed, is_cut
from lamsik.core.weighing.inwater import AIR_G_CM3


@dataclass(frozen=True)
class Measured:
    """What the scale said: (stage, g, sd g) for the whole piece, (part key, g, sd g) for single parts.

    `waters` are the whole piece held wholly under: (stage, g, sd g, water g/cm³), negative where it floats.
    """

    stages: tuple[tuple[str, float, float], ...] = ()
    parts: tuple[tuple[str, float, float], ...] = ()
    waters: tuple[tuple[str, float, float, float], ...] = ()

    def __post_init__(self) -> None:
        for name, held, sd, water in self.waters:
            finite_between(f"weighing.{name}.water", held, -5000.0, 5000.0, "g")
            finite_between(f"weighing.{name}.sd", sd, 0.0, 100.0, "g")
            finite_between("water_g_cm3", water, 0.95, 1.3, "g/cm³")
            require(
                name in SIZED_AT,
                "stage",
                name,
                rule("blank-held", listed=" or ".join(SIZED_AT)),
            )
        for name, mass, sd in (*self.stages, *self.parts):
            finite_between(f"weighing.{name}", mass, 0.0, 5000.0, "g")
            finite_between(f"weighing.{name}.sd", sd, 0.0, 100.0, "g")
        for name, _, _ in self.stages:
            require(name in STAGES, "stage", name, rule("one-of", listed=", ".join(STAGES)))


SIZED_AT = ("carved", "sealed")
"""When a piece held under water tells the size of the body itself."""

SIZE = "made:size"
"""The row by which a body as made differs from its drawing: it displaces, and weighs nothing by itself."""

NOTHING = Measured()


@dataclass(frozen=True)
class Budget:
    """The parts with their sums: mass [g], G [mm], hull and film volume [ml], outside parts."""

    parts: tuple[Part, ...]
    mass_g: float
    sd_g: float
    g_mm: Point
    hull_ml: float
    film_ml: float
    host_density_g_cm3: float
    outside_ml: Array
    outside_mm: Array
    outside_hangs: Array
    doubts: tuple[Finding, ...] = ()

    @property
    def displaced_ml(self) -> float:
        """Everything under water [ml]."""
        return self.hull_ml + self.film_ml + float(self.outside_ml.sum())

    def up_to(self, stage: str) -> float:
        """Mass [g] of the piece at the end of a stage."""
        done = STAGES[: STAGES.index(stage) + 1]
        return sum(p.mass_g for p in self.parts if p.stage in done)


def budget(design: Design, measured: Measured = NOTHING) -> Budget:
    """The mass budget of a design, with what the scale said put in place of what was assumed."""
    rows, volume = assumed(design), solid(design.body).volume_ml
    seen = size_ml(design, measured)
    if seen is not None:
        rows = [
            (
                replace(p, mass_g=p.mass_g * seen[0] / volume, sd_g=p.sd_g * seen[0] / volume)
                if p.key == "host"
                else p
            )
            for p in rows
        ]
        rows = [
            *rows,
            Part(
                SIZE,
                "size as made",
                "carved",
                0.0,
                0.0,
                solid(design.body).area_centroid_mm,
                WEIGHED,
                film_ml=seen[0] - volume,
            ),
        ]
    parts, host_density, doubts = _weighed(design, rows, measured, volume if seen is None else seen[0])
    return summed(parts, solid(design.body).volume_ml, host_density, tuple(doubts))


def size_ml(design: Design, measured: Measured) -> tuple[float, float] | None:
    """Volume of the body as made [ml] and its one-sigma uncertainty, from a blank weighed in air and in
    water; None while it is not.

    Notes: V = (W_air - W_water)/(ρ_w - ρ_air), less the film of the seal; a scale settles it ten times
    closer than any hand works, so the drawing has no say beside it.
    """
    air = {stage: (g, sd) for stage, g, sd in measured.stages}
    for stage, held, sd, water in sorted(measured.waters, key=lambda row: SIZED_AT.index(row[0])):
        if stage not in air:
            continue
        whole = (air[stage][0] - held) / (water - AIR_G_CM3)
        film = sum(
            p.film_ml
            for p in assumed(design)
            if p.film_ml > 0 and stage == "sealed" and p.stage in ("carved", "sealed")
        )
        return whole - film, float(np.hypot(air[stage][1], sd)) / (water - AIR_G_CM3)
    return None


def summed(
    parts: Sequence[Part], hull_ml: float, host_density_g_cm3: float, doubts: tuple[Finding, ...] = ()
) -> Budget:
    """The budget that parts on a hull of this volume [ml] add up to."""
    masses = np.array([p.mass_g for p in parts])
    at = np.array([p.at_mm for p in parts])
    total = float(masses.sum())
    centre = masses @ at / total if total > 0 else at[0]
    outside = [p for p in parts if p.outside_ml > 0]
    return Budget(
        parts=tuple(parts),
        mass_g=total,
        sd_g=float(np.sqrt(sum(p.sd_g**2 for p in parts))),
        g_mm=(float(centre[0]), float(centre[1]), float(centre[2])),
        hull_ml=hull_ml,
        film_ml=sum(p.film_ml for p in parts),
        host_density_g_cm3=host_density_g_cm3,
        outside_ml=np.array([p.outside_ml for p in outside]),
        outside_mm=np.array([p.at_mm for p in outside]).reshape(-1, 3),
        outside_hangs=np.array([p.hangs for p in outside], dtype=float),
        doubts=doubts,
    )


def _weighed(
    design: Design, parts: list[Part], measured: Measured, volume_ml: float
) -> tuple[list[Part], float, list[Finding]]:
    single = {key: (mass, sd) for key, mass, sd in measured.parts}
    parts = [_set(p, *single[p.key], WEIGHED) if p.key in single else p for p in parts]
    density = design.host.density_g_cm3
    if "host" in single:
        density = single["host"][0] / volume_ml
        parts = _with_host_density(design, parts, density, single["host"][1], WEIGHED, volume_ml)
    doubts: list[Finding] = []
    done: set[str] = set()
    for stage, mass, sd in sorted(measured.stages, key=lambda row: STAGES.index(row[0])):
        group_stages = {s for s in STAGES[: STAGES.index(stage) + 1]} - done
        done |= group_stages
        delta = mass - sum(p.mass_g for p in parts if p.stage in done)
        surplus = _Surplus(stage, group_stages, delta, sd)
        parts, density = _spread(design, parts, surplus, density, doubts, volume_ml)
    return parts, density, doubts


@dataclass(frozen=True)
class _Surplus:
    """What a weighing at a stage is over what was reckoned [g], its standard deviation [g], and the stages
    since the weighing before.
    """

    stage: str
    stages: set[str]
    delta_g: float
    sd_g: float


def _spread(
    design: Design,
    parts: list[Part],
    surplus: _Surplus,
    density: float,
    doubts: list[Finding],
    volume_ml: float,
) -> tuple[list[Part], float]:
    """Give a stage's surplus to its unweighed parts by variance; the host moves as one density."""
    stages, delta, sd = surplus.stages, surplus.delta_g, surplus.sd_g
    wood = [p for p in parts if p.stage in stages and (p.key == "host" or is_cut(p)) and p.status != WEIGHED]
    loose = [p for p in parts if p.stage in stages and p not in wood and p.status != WEIGHED]
    has_host = any(p.key == "host" for p in wood)
    wood_ml = sum(p.mass_g for p in wood) / density if has_host else 0.0
    wood_var = (design.host.spread_g_cm3 * wood_ml) ** 2
    variance = wood_var + sum(p.sd_g**2 for p in loose)
    if variance <= 0:
        if abs(delta) > max(4 * sd, 0.1):
            doubts.append(finding("differs-from-weighed-parts", stage=surplus.stage, delta=delta))
        return parts, density
    gain = delta / (variance + sd**2)
    status = WEIGHED if len(loose) + has_host == 1 else SHARED
    moved = {p.key: p.mass_g + gain * p.sd_g**2 for p in loose}
    if any(mass < 0 for mass in moved.values()):
        doubts.append(finding("weighs-less-than-before", stage=surplus.stage))
    left = np.sqrt(max(variance * sd**2 / (variance + sd**2), 0.0) / max(len(moved) + has_host, 1))
    parts = [_set(p, max(moved[p.key], 0.0), float(left), status) if p.key in moved else p for p in parts]
    if has_host:
        density = max(density + gain * wood_var / wood_ml, 0.01)
        parts = _with_host_density(design, parts, density, float(left), status, volume_ml)
    return parts, density


def _with_host_density(
    design: Design, parts: list[Part], density: float, sd: float, status: str, volume_ml: float
) -> list[Part]:
    scale = density / design.host.density_g_cm3
    whole = density * volume_ml
    fixed = []
    for part in parts:
        if part.key == "host":
            part = replace(part, mass_g=whole, sd_g=sd, status=status)
        elif is_cut(part):
            part = replace(
                part, mass_g=-density * part.cut_ml, sd_g=sd * part.cut_ml / volume_ml * scale, status=status
            )
        fixed.append(part)
    return fixed


def _set(part: Part, mass: float, sd: float, status: str) -> Part:
    """The part with another mass; what it displaces goes along, at its own density."""
    scale = mass / part.mass_g if part.mass_g > 0 else 1.0
    return replace(
        part,
        mass_g=mass,
        sd_g=sd,
        status=status,
        outside_ml=part.outside_ml * scale,
        film_ml=part.film_ml * scale,
    )


def unweighed(parts: Sequence[Part]) -> tuple[Part, ...]:
    """The parts no scale has seen, the least certain first; what was cut away goes with the body."""
    rows = [p for p in parts if p.is_estimate and not is_cut(p) and p.mass_g > 0]
    return tuple(sorted(rows, key=lambda p: -p.sd_g))
