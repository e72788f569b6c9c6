"""What would change it: the effect of one step of each thing a maker can change, and the water at which
the verdict flips.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from scipy.optimize import brentq

from lamsik.core.findings import Finding, finding
from lamsik.core.paints.layers import begun
from lamsik.core.paints.roles import CLEARS, SEALS
from lamsik.core.shapes.ballast_holes import BALLS
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Item
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.attitude import immersed
from lamsik.core.tank.ballast_base import KINDS_OF_BALLAST
from lamsik.core.tank.mass import NOTHING, Budget, Measured, budget
from lamsik.core.tank.motion import (
    DEFAULT_DRAG,
    Bands,
    behaviour,
    frontal_area_mm2,
    net_for_speed_g,
    speed_cm_s,
)
from lamsik.core.tank.wanted import drag_of
from lamsik.core.water import Water, density

NET_STEP_G, PITCH_STEP_DEG = 0.05, 2.0
"""An effect is weighed by how many of these it is: what a maker can see in the tub."""

CLEAR = replace(begun("clear", "clear1"), name="Clear")
"""What a clear coat is until a scheme says otherwise."""

SALT_PSU = 35.0


@dataclass(frozen=True)
class Effect:
    """What one step does: change in net lift [g] and in pitch [°], the speed [cm/s] and behaviour it leads
    to.

    `weight` is its size in steps that a maker can see.
    """

    key: str
    name: Finding
    net_change_g: float
    pitch_change_deg: float
    speed_cm_s: float
    behaviour: str
    weight: float


@dataclass(frozen=True)
class Flip:
    """A water at which the behaviour becomes another: its density [g/cm³], and what reaches it, if
    anything does.
    """

    behaviour: str
    density_g_cm3: float
    salinity_psu: float | None
    temperature_c: float | None


def with_clear_coats(design: Design, count: int) -> Design:
    """The design with so many clear coats, each like its last one; they lie above everything else."""
    clears = [one for one in design.layers if one.does == CLEARS]
    pattern = clears[-1] if clears else CLEAR
    others = tuple(one for one in design.layers if one.does != CLEARS)
    taken, coats = {one.key for one in others}, clears[:count]
    keys = (f"clear{n}" for n in range(1, 60))
    while len(coats) < count:
        taken |= {one.key for one in coats}
        key = next(key for key in keys if key not in taken)
        coats.append(replace(pattern, key=key))
    return replace(design, layers=(*others, *coats))


def effects(
    design: Design,
    hooks: Sequence[Item] = (),
    measured: Measured = NOTHING,
    drag: float = DEFAULT_DRAG,
    bands: Bands = Bands(),
) -> tuple[Effect, ...]:
    """Each step's effect, the largest first.

    Args:
        design: the design.
        hooks: hooks the shop has, of which the next size up and down are tried.
        measured: what the scale said.
        drag: the shop's drag coefficient.
        bands: the shop's speeds.
    """
    start = _state(design, budget(design, measured), drag, bands)
    rows = []
    for key, name, changed in (
        *_ballast_steps(design),
        *_hook_steps(design, hooks),
        *_coat_steps(design),
        *_water_steps(design),
        *_host_steps(design),
    ):
        state = _state(changed, budget(changed, measured), drag, bands)
        rows.append(_effect(key, name, start, state))
    return tuple(sorted(rows, key=lambda effect: -effect.weight))


@dataclass(frozen=True)
class _State:
    net_g: float
    pitch_deg: float
    speed_cm_s: float
    behaviour: str


def _state(design: Design, mass: Budget, drag: float, bands: Bands) -> _State:
    rho = design.water.density_g_cm3
    hanging = immersed(solid(design.body).centroid_mm, mass, rho)
    speed = speed_cm_s(
        hanging.net_g, frontal_area_mm2(design.body, hanging.free.up), rho, drag_of(design, drag)
    )
    return _State(hanging.net_g, hanging.free.pitch_deg, speed, behaviour(speed, bands))


def _effect(key: str, name: Finding, before: _State, after: _State) -> Effect:
    net, pitch = after.net_g - before.net_g, after.pitch_deg - before.pitch_deg
    return Effect(
        key,
        name,
        net,
        pitch,
        after.speed_cm_s,
        after.behaviour,
        abs(net) / NET_STEP_G + abs(pitch) / PITCH_STEP_DEG,
    )


def _ballast_steps(design: Design) -> list[tuple[str, Finding, Design]]:
    """A gram more metal, of the rods where there are any, for balls come whole; a millimetre further aft.

    On a body with no hole yet, a gram under its middle is no step.
    """
    if not design.ballast:
        return []
    rods = [hole for hole in design.ballast if hole.slug.form != BALLS]
    whole = sum(hole.mass_g for hole in rods)
    first = max(design.ballast, key=lambda hole: hole.mass_g)
    if rods:
        more = {hole.key: hole.mass_g / whole if whole else 1 / len(rods) for hole in rods}
        says = finding("more-ballast", more=1.0)
    else:
        more, says = (
            {first.key: first.count * first.slug.ball_g},
            finding("ball-more" if first.count == 1 else "two-balls-more", balls=first.slug.name),
        )
    heavier = tuple(replace(hole, mass_g=hole.mass_g + more.get(hole.key, 0.0)) for hole in design.ballast)
    length = design.body.length_mm
    further = tuple(replace(hole, x_mm=min(hole.x_mm + 1.0, length)) for hole in design.ballast)
    return [
        ("gram", says, replace(design, ballast=heavier)),
        ("shift", finding("ballast-further-aft", aft=1.0), replace(design, ballast=further)),
    ]


def _hook_steps(design: Design, hooks: Sequence[Item]) -> list[tuple[str, Finding, Design]]:
    on = [placed.item for placed in design.hardware if placed.item.kind == "hook"]
    if not on or not hooks:
        return []
    sizes = sorted({hook.mass_g: hook for hook in hooks}.values(), key=lambda hook: hook.mass_g)
    steps = []
    for way, says in ((1, "up"), (-1, "down")):
        swapped = {item.code: _next_size(item, sizes, way) for item in on}
        if all(other is not None for other in swapped.values()):
            changed = tuple(
                replace(p, item=swapped[p.item.code] or p.item) if p.item.kind == "hook" else p
                for p in design.hardware
            )
            steps.append(
                (
                    f"hook-{says}",
                    finding("hooks-size-up" if way > 0 else "hooks-size-down"),
                    replace(design, hardware=changed),
                )
            )
    return steps


def _next_size(item: Item, sizes: Sequence[Item], way: int) -> Item | None:
    further = [hook for hook in sizes if (hook.mass_g - item.mass_g) * way > 1e-6]
    return (further[0] if way > 0 else further[-1]) if further else None


def _coat_steps(design: Design) -> list[tuple[str, Finding, Design]]:
    count = sum(one.does == CLEARS for one in design.layers)
    return [("clear", finding("one-more-clear"), with_clear_coats(design, count + 1))]


def _water_steps(design: Design) -> list[tuple[str, Finding, Design]]:
    """Ten degrees and the other end of the estuary; a measured density is moved by what TEOS-10 says of
    the difference.
    """
    water = design.water
    warmer = min(water.temperature_c + 10.0, 40.0)
    name, salt = (
        (finding("fresh-water-instead"), 0.0)
        if water.salinity_psu > 2.0
        else (finding("sea-water-instead"), SALT_PSU)
    )
    return [
        (
            "warm",
            finding("water-warmer", warmer=warmer - water.temperature_c),
            replace(design, water=_moved(water, warmer, water.salinity_psu)),
        ),
        ("salt", name, replace(design, water=_moved(water, water.temperature_c, salt))),
    ]


def _moved(water: Water, temperature_c: float, salinity_psu: float) -> Water:
    shift = density(temperature_c, salinity_psu) - density(water.temperature_c, water.salinity_psu)
    measured = None if water.measured_g_cm3 is None else min(max(water.measured_g_cm3 + shift, 0.95), 1.25)
    return replace(water, temperature_c=temperature_c, salinity_psu=salinity_psu, measured_g_cm3=measured)


def _host_steps(design: Design) -> list[tuple[str, Finding, Design]]:
    host = design.host
    if host.source == "weighed" or host.spread_g_cm3 <= 0:
        return []
    heavier = replace(host, density_g_cm3=host.density_g_cm3 + host.spread_g_cm3, solid_g_cm3=None)
    return [
        (
            "host",
            finding("heavier-stick", name=host.name, spread=host.spread_g_cm3),
            replace(design, host=heavier),
        )
    ]


def flips(
    design: Design, mass: Budget, drag: float = DEFAULT_DRAG, bands: Bands = Bands()
) -> tuple[Flip, ...]:
    """The waters, one lighter and one denser, at which the behaviour becomes another, where a natural water
    reaches that far.

    Solved in density: net(ρ) = ρV − m meets the net of the band's edge. Then said as a salinity at this
    temperature, or as a temperature at this salinity.
    """
    water, area = (
        design.water,
        frontal_area_mm2(
            design.body, immersed(solid(design.body).centroid_mm, mass, design.water.density_g_cm3).free.up
        ),
    )
    here, own_drag = water.density_g_cm3, drag_of(design, drag)

    def speed(rho: float) -> float:
        return speed_cm_s(rho * mass.displaced_ml - mass.mass_g, area, rho, own_drag)

    now, flipped = behaviour(speed(here), bands), []
    for edge in (-bands.slow_cm_s, -bands.suspends_cm_s, bands.suspends_cm_s, bands.slow_cm_s):

        def short(rho: float, edge: float = edge) -> float:
            return rho * mass.displaced_ml - mass.mass_g - net_for_speed_g(edge, area, rho, own_drag)

        if short(0.9) * short(1.3) < 0:
            rho = float(brentq(short, 0.9, 1.3, xtol=1e-7))
            after = behaviour(speed(rho + float(np.copysign(1e-6, rho - here))), bands)
            if after != now:
                flipped.append(Flip(after, rho, _salinity_at(water, rho), _temperature_at(water, rho)))
    lighter = max((f for f in flipped if f.density_g_cm3 < here), key=lambda f: f.density_g_cm3, default=None)
    denser = min((f for f in flipped if f.density_g_cm3 >= here), key=lambda f: f.density_g_cm3, default=None)
    return tuple(f for f in (lighter, denser) if f is not None)


def _salinity_at(water: Water, rho: float) -> float | None:
    offset = water.density_g_cm3 - density(water.temperature_c, water.salinity_psu)

    def short(salinity: float) -> float:
        return density(water.temperature_c, salinity) + offset - rho

    return float(brentq(short, 0.0, 42.0, xtol=0.01)) if short(0.0) * short(42.0) < 0 else None


def _temperature_at(water: Water, rho: float) -> float | None:
    """The warmer side of the density's maximum only; natural waters from there to 35 °C."""
    offset = water.density_g_cm3 - density(water.temperature_c, water.salinity_psu)
    coldest = 4.0 if water.salinity_psu < 5 else 0.0

    def short(temperature: float) -> float:
        return density(temperature, water.salinity_psu) + offset - rho

    return float(brentq(short, coldest, 35.0, xtol=0.01)) if short(coldest) * short(35.0) < 0 else None


def bare(design: Design) -> Design:
    """The design as it is on the bench before anything is on it: no coats but the seal, no hooks, no
    allowances.
    """
    gone = {p.key for p in design.hardware if p.item.kind in ("hook", "ring")}
    return replace(
        design,
        allowances=(),
        layers=tuple(one for one in design.layers if one.does == SEALS),
        hardware=tuple(p for p in design.hardware if p.key not in gone),
        trials=tuple(t for t in design.trials if t.place not in gone),
    )


def has_ballast(design: Design) -> bool:
    """Whether any kind of ballast is in it."""
    return any(getattr(design, kind) for kind in KINDS_OF_BALLAST)
