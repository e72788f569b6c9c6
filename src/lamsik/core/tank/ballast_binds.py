"""What stands in the way where no ballast meets the want: mass, place, wall or stroke, by how much, and
the one change that frees it.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from lamsik.core.findings import Finding, finding
from lamsik.core.materials import METALS
from lamsik.core.quantities import plainly
from lamsik.core.shapes.ballast_holes import ROD, Slug
from lamsik.core.shapes.hardware import Placement
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.ballast_base import Base, Bench
from lamsik.core.tank.ballast_search import candidates
from lamsik.core.tank.ballast_spots import ErrorScale, errors_of

TOO_HEAVY = "too-heavy-without-ballast"
MASS, PLACE, WALL, STROKE = "mass", "place", "wall", "stroke"
NET_G, PITCH_DEG = 0.05, 2.0
THINNER_MM = (0.25, 0.5, 0.75, 1.0, 1.5)
LIGHTER = (0.03, 0.06, 0.1, 0.15, 0.2)


@dataclass(frozen=True)
class Bind:
    """What binds: mass, place, wall or stroke; by how much; what frees it, empty where nothing tried does;
    all in one sentence.
    """

    what: str
    by: Finding
    frees: Finding | None = None

    @property
    def says(self) -> Finding:
        """The sentence."""
        if self.frees is None:
            return finding("binds", what=self.what, by=self.by)
        return finding("binds-but", what=self.what, by=self.by, frees=self.frees)


def binds(base: Base, net_g: float, pitch_deg: float, bench: Bench) -> Bind:
    """What binds, where the nearest ballast misses the tolerances (0.05 g, 2°); changes are tried one at a
    time.
    """
    needed = base.lift_g - base.mass.mass_g - net_g
    if needed <= 0:
        return Bind(MASS, finding(TOO_HEAVY, over=-needed))
    off = nearest(base, net_g, pitch_deg, bench)
    by = (
        finding("no-slug-anywhere")
        if off is None
        else finding("nearest-ballast-off", net=off[0], pitch=off[1])
    )
    for what, frees, changed, other in _changes(base, bench):
        bind = nearest(changed, net_g, pitch_deg, other)
        if bind is not None and abs(bind[0]) <= NET_G and abs(bind[1]) <= PITCH_DEG:
            return Bind(what, by, frees)
    return Bind(MASS if off is not None and abs(off[0]) > NET_G else PLACE, by)


def nearest(base: Base, net_g: float, pitch_deg: float, bench: Bench) -> tuple[float, float] | None:
    """How far the nearest ballast is off: net [g] and pitch [°]; None where no hole can be drilled."""
    best = min(candidates(base, net_g, pitch_deg, bench), key=lambda row: row[0], default=None)
    if best is None:
        return None
    return errors_of(ErrorScale(base, net_g, pitch_deg), best[1])


def _changes(base: Base, bench: Bench) -> Iterator[tuple[str, Finding, Base, Bench]]:
    """One change at a time, the easiest first: what it tells binds, what it is, and the base and bench
    with it.
    """
    for less in THINNER_MM:
        if bench.wall_mm - less >= 0.5:
            wall = bench.wall_mm - less
            yield (
                WALL,
                finding("thinner-wall-would-do", wall=wall, now=bench.wall_mm),
                base,
                replace(bench, wall_mm=wall),
            )
    design = base.design
    wire = tuple(placed for placed in design.hardware if placed.item.kind != "wire")
    if len(wire) < len(design.hardware):
        yield (
            STROKE,
            finding("screw-eyes-would-do"),
            _without(base, wire),
            bench,
        )
    for placed in design.hardware:
        if placed.seat == "belly" and not placed.hung_on and placed.item.kind != "wire":
            others = tuple(p for p in design.hardware if p.key != placed.key)
            yield (
                PLACE,
                finding("moved-aside-would-do", part=placed.item.name, x=placed.x_mm),
                _without(base, others),
                bench,
            )
    largest = max(bench.drills_mm, default=0.0)
    yield (
        MASS,
        finding("denser-metal-would-do"),
        base,
        replace(bench, slugs=(*bench.slugs, *_tungsten(bench))),
    )
    if largest:
        wider = largest + 2.0
        big = Slug(f"lead rod {plainly(wider, 'length')}", ROD, "lead", METALS["lead"], wider)
        yield (
            MASS,
            finding("thicker-rod-would-do", wider=wider),
            base,
            replace(bench, slugs=(*bench.slugs, big), drills_mm=(*bench.drills_mm, wider)),
        )

    for share in LIGHTER:
        density = base.host_g_cm3 * (1.0 - share)
        yield (
            MASS,
            finding("lighter-body-would-do", density=density, now=base.host_g_cm3),
            _lighter(base, share),
            bench,
        )


def _lighter(base: Base, share: float) -> Base:
    """The base with a share of its host's weight gone, evenly through the body."""
    shape = solid(base.design.body)
    less = share * base.host_g_cm3 * shape.volume_ml
    mass = base.mass.mass_g - less
    g = (np.array(base.mass.g_mm) * base.mass.mass_g - less * np.array(shape.centroid_mm)) / mass
    return replace(
        base,
        mass=replace(base.mass, mass_g=mass, g_mm=(float(g[0]), float(g[1]), float(g[2]))),
        host_g_cm3=base.host_g_cm3 * (1.0 - share),
    )


def _without(base: Base, hardware: tuple[Placement, ...]) -> Base:
    """The base as solved for, less what is in the way of the drill; its masses stay as they are."""
    return replace(base, design=replace(base.design, hardware=hardware))


def _tungsten(bench: Bench) -> tuple[Slug, ...]:
    sizes = sorted({slug.diameter_mm for slug in bench.slugs if slug.form == ROD})
    return tuple(
        Slug(f"tungsten rod {plainly(size, 'length')}", ROD, "tungsten", METALS["tungsten"], size)
        for size in sizes
    )
