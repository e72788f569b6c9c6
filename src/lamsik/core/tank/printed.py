"""Printed bodies before they are printed: what each metal in the same chambers weighs in air and in water,
and whether hinges last.
"""

from dataclasses import dataclass, replace

from lamsik.core.findings import Finding, finding
from lamsik.core.materials import METALS
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.joints import HINGE, Joint
from lamsik.core.tank.mass import Measured, budget

BALL_METALS = ("steel", "brass", "lead", "tungsten")


@dataclass(frozen=True)
class FilledPrint:
    """The same chambers with balls of one metal: mass in air [g], net lift in the design's water [g]."""

    metal: str
    balls_g: float
    mass_g: float
    net_g: float

    @property
    def in_water_g(self) -> float:
        """Mass in water [g]: what a scale reads of it sunk; negative where it floats."""
        return -self.net_g


def by_metal(design: Design, measured: Measured) -> tuple[FilledPrint, ...]:
    """The design's chambers filled with each metal, lightest first; empty without chambers."""
    if not design.cavities:
        return ()
    rho, prints = design.water.density_g_cm3, []
    for metal in BALL_METALS:
        filled = tuple(
            replace(c, slug=replace(c.slug, metal=metal, name=f"{metal} ball", density_g_cm3=METALS[metal]))
            for c in design.cavities
        )
        mass = budget(replace(design, cavities=filled), measured)
        prints.append(
            FilledPrint(
                metal, sum(c.mass_g for c in filled), mass.mass_g, rho * mass.displaced_ml - mass.mass_g
            )
        )
    return tuple(sorted(prints, key=lambda row: row.mass_g))


def sink_words(design: Design, rows: tuple[FilledPrint, ...]) -> Finding | None:
    """What to know before printing a bait that shall sink: which metals are too light for it; nothing where
    all is well.
    """
    if not rows or design.want.behaviour not in ("sinks", "slow sink"):
        return None
    light = [row.metal for row in rows if row.net_g >= 0]
    if len(light) == len(rows):
        best = rows[-1]
        return finding("too-light-with-any", metal=best.metal, net=best.net_g)
    if not light:
        return None
    return finding("too-light-but", light=light, sinks=next(row.metal for row in rows if row.net_g < 0))


HINGE_MM = 0.8
"""A printed hinge thinner than that fails early."""


def weak_hinges(design: Design, limit_mm: float = HINGE_MM) -> tuple[Joint, ...]:
    """Printed hinges thinner than the shop's limit [mm]: they fail early."""
    return tuple(
        joint for joint in design.body.joints if joint.kind == HINGE and joint.hinge_mm < limit_mm - 1e-9
    )
