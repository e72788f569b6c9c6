"""Ballast that is moulded in: a denser end poured into a casting, balls in a closed cavity of a print."""

from collections.abc import Iterator
from dataclasses import replace
from math import cos, radians, sin

import numpy as np
from scipy.optimize import brentq

from lamsik.core.shapes.ballast_holes import BALLS, Hole
from lamsik.core.shapes.clashes import chamber, is_clear, rods
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.inside import Cavity, PouredEnd, cavity_point
from lamsik.core.shapes.solid import segment, solid
from lamsik.core.tank.ballast_base import Base, Bench
from lamsik.core.tank.drilling import cavity_wall_mm
from lamsik.core.tank.parts import assumed

MOST_BALLS = 8
MOST_SHARE = 0.6
"""A poured end longer than this share of the length is no end any more."""


def moulded_loads(
    base: Base, pours: tuple[PouredEnd, ...], cavities: tuple[Cavity, ...], holes: tuple[Hole, ...] = ()
) -> Array | None:
    """What pours, cavities and holes add, (1, 4): grams over what they replace, and where that acts, x, y, z
    [mm]; None if there are none.

    By the account of space: a poured end is less what is set into it, and a chamber or a hole takes host only
    where host was.
    """
    if not pours and not cavities and not holes:
        return None
    bare = replace(
        base.design, host=replace(base.design.host, density_g_cm3=base.host_g_cm3, solid_g_cm3=None)
    )
    filled = replace(
        bare,
        pours=(*bare.pours, *pours),
        cavities=(*bare.cavities, *cavities),
        ballast=(*bare.ballast, *_named(bare, holes)),
    )
    before, after = ([row for row in assumed(design) if row.key != "host"] for design in (bare, filled))
    grams = sum(row.mass_g for row in after) - sum(row.mass_g for row in before)
    moment = sum((row.mass_g * np.array(row.at_mm) for row in after), np.zeros(3)) - sum(
        (row.mass_g * np.array(row.at_mm) for row in before), np.zeros(3)
    )
    return np.array([[grams, *(moment / grams if abs(grams) > 1e-9 else moment * 0.0)]])


def _named(design: Design, holes: tuple[Hole, ...]) -> tuple[Hole, ...]:
    """The holes with keys that no hole in the design has."""
    return tuple(replace(hole, key=f"new-{n}") for n, hole in enumerate(holes)) if design.ballast else holes


def poured_ends(base: Base, net_g: float, bench: Bench) -> Iterator[PouredEnd]:
    """A rear and a front end of each dense mix, as long as the wanted net [g] needs."""
    needed = base.lift_g - base.mass.mass_g - net_g
    body = base.design.body
    for name, density in bench.pours:
        extra = density - base.host_g_cm3
        if needed <= 0 or extra <= 0.05:
            continue
        wanted = needed / extra * 1000.0
        if wanted >= solid(body).volume_mm3 * MOST_SHARE:
            continue
        for rear in (True, False):
            end = _end(base, name, density, wanted, rear)
            loads = moulded_loads(base, (end,), ()) if end else None
            if loads is not None:  # what is set into it makes it lighter: once more, by so much longer
                end = _end(
                    base,
                    name,
                    density,
                    min(
                        wanted * 2 - float(loads[0, 0]) / extra * 1000.0, solid(body).volume_mm3 * MOST_SHARE
                    ),
                    rear,
                )
            if end is not None:
                yield end


LEAST_END_MM = 0.3
"""A shorter end is no pour: it would be a film."""


def _end(base: Base, name: str, density: float, volume_mm3: float, rear: bool) -> PouredEnd | None:
    """The end that holds so much; None where it would be shorter than can be poured, as at a flat nose."""
    body = base.design.body
    length = body.length_mm

    def short(edge: float) -> float:
        part = segment(body, edge, length) if rear else segment(body, 0.0, edge)
        return part.volume_mm3 - volume_mm3

    edge = float(brentq(short, 0.0, length, xtol=0.01))
    # A tenth of a millimetre is what a mould line can be set to.
    edge = round(edge, 1)
    if min(edge, length - edge) < LEAST_END_MM or (length - edge if rear else edge) < LEAST_END_MM:
        return None
    return PouredEnd("p1", name, density, edge, length) if rear else PouredEnd("p1", name, density, 0.0, edge)


def cavities_for(base: Base, net_g: float, pitch_deg: float, bench: Bench) -> Iterator[Cavity]:
    """For each ball at hand a row of as many as the wanted net [g] needs, where the pitch needs it, as low
    as the wall allows.
    """
    needed = base.lift_g - base.mass.mass_g - net_g
    for slug in bench.slugs:
        if slug.form != BALLS:
            continue
        up = bench.wall_mm + (slug.diameter_mm + 0.6) / 2 + 0.2
        best = [Cavity("c1", slug, n, base.design.body.length_mm / 2, up) for n in range(1, MOST_BALLS + 1)]
        gains = np.array([c.mass_g - base.host_g_cm3 * c.volume_ml for c in best])
        if needed <= 0 or gains[0] <= 0:
            continue
        near = best[int(np.argmin(np.abs(gains - needed)))]
        placed = _placed(base, near, float(gains[near.count - 1]), pitch_deg, bench)
        if placed is not None:
            yield placed


def _placed(base: Base, cavity: Cavity, gain_g: float, pitch_deg: float, bench: Bench) -> Cavity | None:
    """The cavity where the body hangs at the wanted pitch, or as near to it as the walls allow, and as low
    as there is room.
    """
    cavities = []
    for rise in LIFTS_MM:
        higher = replace(cavity, up_mm=cavity.up_mm + rise)
        x = _wished(base, higher, gain_g, pitch_deg)
        there = _nearest(base, higher, x, bench)
        if there is not None:
            cavities.append((abs(there.x_mm - x) + rise, there))
    return min(cavities, key=lambda row: row[0])[1] if cavities else None


LIFTS_MM = (0.0, 1.0, 2.0, 3.5, 5.0)
"""How much higher than the wall asks a cavity may lie to find room."""


def _wished(base: Base, cavity: Cavity, gain_g: float, pitch_deg: float) -> float:
    p = radians(pitch_deg)
    e = np.array([cos(p), 0.0, sin(p)])
    b, g = np.array(base.b_mm), np.array(base.mass.g_mm)
    z = cavity_point(base.design.body, cavity)[2]
    return float(
        (base.mass.mass_g * float((b - g) @ e) + gain_g * (float(b @ e) - z * e[2])) / (gain_g * e[0])
    )


def _nearest(base: Base, cavity: Cavity, x: float, bench: Bench) -> Cavity | None:
    length, step = base.design.body.length_mm, bench.place_step_mm
    places = np.arange(np.ceil(0.1 * length / step), np.floor(0.9 * length / step) + 1) * step
    others = rods(base.design)
    for place in sorted(places, key=lambda at: abs(at - x))[:NEAREST]:
        there = replace(cavity, x_mm=float(place))
        walled = cavity_wall_mm(base.design.body, there) >= bench.wall_mm
        if walled and is_clear(chamber(base.design.body, there), others, bench.wall_mm):
            return there
    return None


NEAREST = 60
