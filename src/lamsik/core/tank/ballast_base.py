"""The closed form of ballast: which slug mass leaves a wanted net lift, and where it must sit for a wanted
pitch.

One slug at x in a hole from the belly. Its mass w enters net lift linearly:
Δm(w) = w(1 − ρ_f/ρ_s + (ρ_f − ρ_h)A_d/(ρ_s A_s)) + (ρ_f − ρ_h)A_d·c
(slug s, filler f, host h, drill area A_d, slug area A_s, cover c). For a pitch p* B must lie
straight above G: (B − G)·e = 0 with e = (cos p, 0, sin p), which is linear in x once w is known.
At the surface lift and B are those of the wet part at the wanted waterline.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from math import cos, pi, radians, sin

import numpy as np

from lamsik.core.materials import EPOXY_FILLER_G_CM3
from lamsik.core.shapes.ballast_holes import BALLS, Hole, Slug, mouth_mm
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.hardware import Point
from lamsik.core.shapes.mouths import floor_mm, mouths
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.attitude import buoyancy
from lamsik.core.tank.drilling import Over, net_added_g, obstacles, overhead
from lamsik.core.tank.inertia import added_inertia_g_mm2, roll_moment_g_mm2
from lamsik.core.tank.mass import NOTHING, Budget, Measured, budget
from lamsik.core.tank.wanted import Target

DENSE_POURS = (("filled resin, dense", 1.6), ("metal-filled resin", 2.4), ("metal-filled resin, heavy", 3.4))
"""Poured ends that a shop can mix: name and density [g/cm³]; a setting of the shop."""


@dataclass(frozen=True)
class Bench:
    """What the shop can build with: slugs, drills and dense mixes at hand, its limits [mm] and cutting
    step [g].
    """

    slugs: tuple[Slug, ...]
    drills_mm: tuple[float, ...]
    wall_mm: float = 2.0
    cover_mm: float = 2.0
    slug_step_g: float = 0.1
    place_step_mm: float = 0.5
    filler_g_cm3: float = EPOXY_FILLER_G_CM3
    pours: tuple[tuple[str, float], ...] = DENSE_POURS


@dataclass(frozen=True)
class Base:
    """The design without ballast, as the solver sees it: budget, B [mm], lift [g], host density.

    `lift_g` and `b_mm` are those of the whole body under water, or of its wet part where a waterline is
    wanted.
    """

    design: Design
    mass: Budget
    b_mm: Point
    lift_g: float
    host_g_cm3: float

    @cached_property
    def blocked(self) -> tuple[tuple[float, float], ...]:
        """Where no hole may be drilled; holes that are in already count too."""
        gap = 1.0
        return (
            *obstacles(self.design),
            *((h.x_mm - h.drill_mm / 2 - gap, h.x_mm + h.drill_mm / 2 + gap) for h in self.design.ballast),
        )

    @cached_property
    def overhead(self) -> tuple[Over, ...]:
        """What a hole from the belly would run into from below."""
        return overhead(self.design)

    @property
    def is_uneven(self) -> bool:
        """Whether a hole may take something else than the body's own material: a hollow, another
        segment's.
        """
        return self.design.shell is not None or bool(self.design.segment_hosts)

    @cached_property
    def roll_moment_g_mm2(self) -> float:
        """Σ m(y² + z²) of everything but the ballast."""
        return roll_moment_g_mm2(self.design, self.mass)

    @cached_property
    def added_inertia_g_mm2(self) -> float:
        """Roll inertia of the water."""
        return added_inertia_g_mm2(self.design, self.design.water.density_g_cm3)


KINDS_OF_BALLAST = ("ballast", "pours", "cavities")


def base_of(design: Design, measured: Measured = NOTHING, keep: tuple[str, ...] = ()) -> Base:
    """The design stripped of its ballast; weighings of the ballasted stage and later are set aside.

    Args:
        design: the design.
        measured: what the scale said.
        keep: kinds of ballast that stay on, of `ballast`, `pours`, `cavities`.
    """
    bare = replace(
        design,
        ballast=design.ballast if "ballast" in keep else (),
        pours=design.pours if "pours" in keep else (),
        cavities=design.cavities if "cavities" in keep else (),
    )
    if "ballast" not in keep:
        early = tuple(row for row in measured.stages if row[0] in ("carved", "sealed"))
        measured = Measured(
            early, tuple(row for row in measured.parts if not row[0].startswith(("slug:", "fill:")))
        )
    mass = budget(bare, measured)
    lift = design.water.density_g_cm3 * mass.displaced_ml
    return Base(bare, mass, buoyancy(solid(design.body).centroid_mm, mass), lift, mass.host_density_g_cm3)


def aimed(base: Base, aim: Target) -> tuple[Base, float]:
    """The base and the net lift [g] to solve for: at a waterline the wet part alone carries, and nothing
    is left over.
    """
    if aim.wet_lift_g is None or aim.wet_b_mm is None:
        return base, aim.net_g
    return replace(base, lift_g=aim.wet_lift_g, b_mm=aim.wet_b_mm), 0.0


def slug_mass_g(
    base: Base,
    net_g: float,
    slug: Slug,
    drill_mm: float,
    holes: int,
    bench: Bench,
    at_mm: Sequence[float] = (),
) -> float:
    """Metal mass [g], all holes together, that leaves this net lift; negative if the body is too heavy
    already.

    `at_mm` are the places of the holes on the centre line, where they are known: there their mouths follow
    the skin.
    """
    missing = (
        float(mouths(base.design.body, drill_mm, 0.0).at(np.array(at_mm, dtype=float))[0].sum())
        if len(at_mm)
        else 0.0
    )
    needed = (
        base.lift_g - base.mass.mass_g - net_g - missing * (base.host_g_cm3 - bench.filler_g_cm3) / 1000.0
    )
    drill_area = pi * drill_mm**2 / 4
    swap = bench.filler_g_cm3 - base.host_g_cm3
    fixed = holes * swap * drill_area * bench.cover_mm / 1000.0
    per_gram = (
        1.0
        - bench.filler_g_cm3 / slug.density_g_cm3
        + swap * drill_area / (slug.density_g_cm3 * slug.area_mm2)
    )
    if slug.form == BALLS:  # a stack of balls fills its hole by diameter, not by area
        tall = drill_area * slug.diameter_mm / 1000.0 / slug.ball_g
        per_gram = 1.0 - bench.filler_g_cm3 / slug.density_g_cm3 + swap * tall
    return (needed - fixed) / per_gram


def place_mm(base: Base, holes: Sequence[Hole], offsets: Sequence[float], pitch_deg: float) -> float:
    """The x [mm] of the middle of the holes at which the body hangs at the wanted pitch.

    Moments about B along the horizontal e = (cos p, 0, sin p); the belly's rise under the
    holes is followed by a few steps.
    """
    p = radians(pitch_deg)
    e = np.array([cos(p), 0.0, sin(p)])
    b, g = np.array(base.b_mm), np.array(base.mass.g_mm)
    loads = np.array([net_added_g(hole, base.host_g_cm3) for hole in holes])
    lifts = np.array([load_height_mm(base, hole) for hole in holes])
    apart = np.array(offsets)
    swap = np.array([(base.host_g_cm3 - hole.filler_g_cm3) / 1000.0 for hole in holes])
    x = base.design.body.length_mm / 2
    if abs(float(loads.sum())) < 1e-9:
        return x
    for _ in range(8):
        belly = np.array(
            [
                float(floor_mm(base.design.body, np.array([x + off]), hole.beside_mm)[0])
                for hole, off in zip(holes, offsets, strict=True)
            ]
        )
        centres = [
            mouths(base.design.body, hole.drill_mm, hole.beside_mm).at(np.array([x + off]))
            for hole, off in zip(holes, offsets, strict=True)
        ]
        missing, along, up = (swap * np.array([float(row[k][0]) for row in centres]) for k in range(3))
        whole = loads + missing
        total = float(whole.sum())
        wanted = (
            base.mass.mass_g * float((b - g) @ e)
            + total * float(b @ e)
            - float(whole @ apart + along.sum()) * e[0]
        )
        x = (wanted - float(loads @ (belly + lifts) + missing @ belly + up.sum()) * e[2]) / (total * e[0])
    return float(x)


def load_height_mm(base: Base, hole: Hole) -> float:
    """Height above the belly [mm] at which slug, filler and lost host act together."""
    slug = hole.mass_g * (hole.cover_mm + hole.tall_mm / 2)
    rest = hole.filler_g * hole.filler_height_mm - base.host_g_cm3 * hole.hole_ml * hole.depth_mm / 2
    added = net_added_g(hole, base.host_g_cm3)
    return (slug + rest) / added if abs(added) > 1e-9 else 0.0


def loads_of(base: Base, holes: Sequence[Hole]) -> Array:
    """What holes add, (n, 4): grams, x, y, z [mm] where it acts; their mouths follow the skin."""
    body, rows = base.design.body, []
    for hole in holes:
        flat, low = net_added_g(hole, base.host_g_cm3), mouth_mm(body, hole)
        missing = (
            float(row[0]) for row in mouths(body, hole.drill_mm, hole.beside_mm).at(np.array([hole.x_mm]))
        )
        volume, along, up = (row * (base.host_g_cm3 - hole.filler_g_cm3) / 1000.0 for row in missing)
        grams = flat + volume
        moments = (grams * hole.x_mm + along, flat * (low + load_height_mm(base, hole)) + volume * low + up)
        rows.append(
            [
                grams,
                *(
                    (moments[0] / grams, 0.0, moments[1] / grams)
                    if abs(grams) > 1e-9
                    else (hole.x_mm, 0.0, low)
                ),
            ]
        )
    return np.array(rows)


def with_loads(base: Base, loads: Array) -> Budget:
    """The base's budget with loads (n, 4) put in: grams, x, y, z [mm]; its parts stay as they were."""
    mass = base.mass.mass_g + float(loads[:, 0].sum())
    g = (np.array(base.mass.g_mm) * base.mass.mass_g + loads[:, 0] @ loads[:, 1:]) / mass
    return replace(base.mass, mass_g=mass, g_mm=(float(g[0]), float(g[1]), float(g[2])))
