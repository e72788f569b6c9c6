"""Material twins: one shape in wood, filled resin, foam and print, side by side; and the twin that matches
the carved original.

The original's mass and G are three numbers; the twin's density, and place and height of its moulded-in slug,
give three.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from lamsik.core.findings import Finding, finding
from lamsik.core.materials import BODY_MATERIALS, Material
from lamsik.core.mixes.filler import MICROSPHERE_G_CM3, RESIN_G_CM3, Filling, filling_for
from lamsik.core.paints.roles import SEALS
from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design, host_of
from lamsik.core.tank import evaluate
from lamsik.core.tank.evaluate import STANDARD, Outcome, Rules
from lamsik.core.tank.mass import NOTHING, Measured, budget

MATERIALS = ("basswood", "filled urethane", "rigid foam", "printed resin")
"""One of each construction, to stand side by side; the design's own takes its construction's place."""


ITSELF = finding("the-original")


@dataclass(frozen=True)
class Twin:
    """The shape in another material: as it comes with the original's fittings, and matched to the original.

    `needed_g_cm3` is the density at which mass and G match; `filling` how a filled resin gets there, None
    where it cannot or need not; `matched` what that gives, None where no density does; `says` in words.
    """

    material: Material
    plain: Outcome
    needed_g_cm3: float | None
    filling: Filling | None
    matched: Outcome | None
    mass_off_g: float
    g_off_mm: float
    says: Finding


@dataclass(frozen=True)
class Sameness:
    """One quantity of a prototype against its target: both values, the difference, and whether it is
    within tolerance.
    """

    name: str
    quantity: str
    target: float
    reached: float
    tolerance: float

    @property
    def off(self) -> float:
        """Prototype minus target."""
        return self.reached - self.target

    @property
    def within(self) -> bool:
        """Whether it is close enough."""
        return abs(self.off) <= self.tolerance + 1e-12


def materials_for(design: Design) -> tuple[Material, ...]:
    """The materials to compare, the design's own in its construction's place."""
    own = design.host
    rows = [BODY_MATERIALS[name] for name in MATERIALS]
    mine = Material(own.name, own.density_g_cm3, own.spread_g_cm3, own.construction)
    return tuple(mine if row.kind == own.construction else row for row in rows)


def moulded(design: Design, material: Material) -> Design:
    """The design made of a material the way that is made: only wood is sealed; slugs of the others are
    moulded in, without a hole.

    A moulded-in slug is a hole of its own size, filled with the host. Only a print is hollow: carved, cast
    and foamed it is solid.
    """
    host = host_of(material)
    changed = replace(design, host=host, shell=design.shell if material.kind == "print" else None)
    if material.kind == "wood":
        return changed
    return _embedded(replace(changed, layers=tuple(one for one in design.layers if one.does != SEALS)))


def _embedded(design: Design) -> Design:
    host = max(design.host.density_g_cm3, 0.05)
    holes = tuple(replace(hole, drill_mm=hole.slug.diameter_mm, filler_g_cm3=host) for hole in design.ballast)
    return replace(design, ballast=holes)


def twins(
    design: Design, measured: Measured = NOTHING, rules: Rules = STANDARD, materials: Sequence[Material] = ()
) -> tuple[Twin, ...]:
    """The shape in each material beside the original."""
    original = evaluate.drag(design, measured, rules)
    return tuple(twin(design, original, material, rules) for material in materials or materials_for(design))


def twin(design: Design, original: Outcome, material: Material, rules: Rules = STANDARD) -> Twin:
    """The shape in one material, plain and matched to the original."""
    cast = moulded(design, material)
    plain = evaluate.drag(cast, NOTHING, rules)
    if material.name == design.host.name:
        return Twin(
            material,
            original,
            design.host.density_g_cm3,
            None,
            original,
            0.0,
            0.0,
            ITSELF,
        )
    matched = matched_design(cast, original)
    if matched is None:
        lighter = plain.budget.mass_g > original.budget.mass_g
        name = "no-density-so-light" if lighter else "no-density-so-heavy"
        return Twin(
            material,
            plain,
            None,
            None,
            None,
            0.0,
            0.0,
            finding(name),
        )
    outcome = evaluate.drag(matched, NOTHING, rules)
    off = float(np.linalg.norm(np.array(outcome.budget.g_mm) - np.array(original.budget.g_mm)))
    density = matched.host.density_g_cm3
    filling = (
        filling_for(density)
        if material.kind == "cast" and MICROSPHERE_G_CM3 < density <= RESIN_G_CM3
        else None
    )
    return Twin(
        material,
        plain,
        density,
        filling,
        outcome,
        outcome.budget.mass_g - original.budget.mass_g,
        off,
        _says(material, density, filling),
    )


def matched_design(cast: Design, original: Outcome, rounds: int = 12) -> Design | None:
    """The design at the density, slug place and slug height that give the original's mass and G; None without
    such a density.

    Mass is linear in the density; G then in place and height of the slugs, which move together. Heights stop
    at the belly: what is left is said as the distance of G.
    """
    goal_mass, goal_g = original.budget.mass_g, np.array(original.budget.g_mm)
    here = cast
    for _ in range(rounds):
        density = _density_for(here, goal_mass)
        if not 0.03 <= density <= 8.0:
            return None
        here = _embedded(replace(here, host=replace(here.host, density_g_cm3=density)))
        if not here.ballast:
            break
        mass = budget(here)
        off = goal_g - np.array(mass.g_mm)
        if float(np.abs(off[[0, 2]]).max()) < 0.01:
            break
        here = _shifted(here, off * mass.mass_g)
    return here


def _density_for(design: Design, goal_mass: float) -> float:
    now, dense = design.host.density_g_cm3, design.host.density_g_cm3 + 0.1
    masses = [
        budget(
            _embedded(replace(design, host=replace(design.host, density_g_cm3=d, solid_g_cm3=None)))
        ).mass_g
        for d in (now, dense)
    ]
    return now + 0.1 * (goal_mass - masses[0]) / (masses[1] - masses[0])


def _shifted(design: Design, moment: Array) -> Design:
    """All slugs moved alike so that their excess over the host makes up a moment (x, y, z) [g·mm]."""
    excess = sum(h.mass_g * (1 - design.host.density_g_cm3 / h.slug.density_g_cm3) for h in design.ballast)
    dx, dz = moment[0] / excess, moment[2] / excess
    length = design.body.length_mm

    def moved(hole: Hole) -> Hole:
        return replace(
            hole,
            x_mm=float(np.clip(hole.x_mm + dx, 0.02 * length, 0.98 * length)),
            cover_mm=float(np.clip(hole.cover_mm + dz, 0.0, 50.0)),
        )

    return replace(design, ballast=tuple(moved(hole) for hole in design.ballast))


def _says(material: Material, density: float, filling: Filling | None) -> Finding:
    if filling is not None and not filling.mixes:
        return finding("no-mix-so-light", volume_share=100 * filling.volume_share)
    if filling is not None:
        return finding(
            "microspheres-stiff" if filling.stiff else "microspheres",
            mass_share=100 * filling.mass_share,
            volume_share=100 * filling.volume_share,
        )
    if material.kind == "cast":
        return finding("more-than-plain-resin", density=density)
    if material.kind == "foam":
        return finding("foam-of", density=density)
    if material.kind == "print":
        part = 100 * density / material.density_g_cm3
        return finding("walls-and-infill", part=part) if part <= 100 else finding("heavier-than-solid-print")
    return finding("stick-of", density=density)


def fidelity(
    target: Outcome,
    twin_outcome: Outcome,
    mass_percent: float = 2.0,
    net_g: float = 0.1,
    g_mm: float = 0.5,
    roll_percent: float = 10.0,
) -> tuple[Sameness, ...]:
    """A prototype against its target: mass, net, place and height of G, roll, each with its tolerance."""
    t, f = target.budget, twin_outcome.budget
    return (
        Sameness("Mass", "mass", t.mass_g, f.mass_g, t.mass_g * mass_percent / 100),
        Sameness("Net lift", "mass", target.verdict.net_g, twin_outcome.verdict.net_g, net_g),
        Sameness("G from the nose", "length", t.g_mm[0], f.g_mm[0], g_mm),
        Sameness("Height of G", "length", t.g_mm[2], f.g_mm[2], g_mm),
        Sameness(
            "Roll recovery",
            "frequency",
            target.roll.frequency_hz,
            twin_outcome.roll.frequency_hz,
            target.roll.frequency_hz * roll_percent / 100,
        ),
    )
