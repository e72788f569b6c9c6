"""What a float carries: to each mark, by height, with its uncertainty; how its tip answers."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import hypot

import numpy as np

from lamsik.core.errors import Refused, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.floats.design import Float, own_mass_g, table
from lamsik.core.floats.parts import bore_ml, mass_g, outer_ml
from lamsik.core.quantities import said
from lamsik.core.shapes.curves import Array
from lamsik.core.water import Water

ON_THE_LINE, TOTAL = "on the line", "total"


@dataclass(frozen=True)
class Rating:
    """What it carries to a mark [g of pull on the line], with its own loading added, one-sigma, mm of tip
    for 0.1 g there.
    """

    mark: str
    height_mm: float
    line_g: float
    total_g: float
    sd_g: float
    response_mm: float


def capacity_g(
    design: Float, height_mm: float, water: Water | None = None, flooded: bool | None = None
) -> float:
    """The pull on the line that brings it down to a height [g]: ρ·V(height) − m; negative where it lies
    deeper by itself.
    """
    rho = (water or design.water).density_g_cm3
    return rho * table(design, flooded).volume_at(height_mm) - own_mass_g(design)


def loading_g(design: Float) -> float:
    """What its own loading uses of its capacity [g]: its mass, less what it displaces where it is outside."""
    rho = design.water.density_g_cm3
    return sum(
        mass_g(p) - (0.0 if p.inside else rho * (outer_ml(p) - bore_ml(p)))
        for p in design.parts
        if p.kind == "loading"
    )


def sd_g(design: Float) -> float:
    """One-sigma of the capacity [g]: the spread of each material's density over its volume, and a tenth of
    the paint.
    """
    spread = [p.spread_g_cm3 * (outer_ml(p) - bore_ml(p)) for p in design.parts if p.mass_g is None]
    return (
        hypot(*spread, 0.1 * (design.paint_g + design.varnish_g))
        if spread
        else 0.1 * (design.paint_g + design.varnish_g)
    )


def ratings(design: Float) -> tuple[Rating, ...]:
    """The rating at every mark from below, and wholly under."""
    rows = [(mark.name, mark.height_mm) for mark in sorted(design.marks, key=lambda m: m.height_mm)]
    if not any(abs(height - design.top_mm) < 0.05 for _, height in rows):
        rows.append(("wholly under", design.top_mm))
    loading, spread = loading_g(design), sd_g(design)
    return tuple(
        Rating(
            name,
            height,
            capacity_g(design, height),
            capacity_g(design, height) + loading,
            spread,
            response_mm(design, height),
        )
        for name, height in rows
    )


MOST_RESPONSE_MM = 500.0
"""A tip that moves further for 0.1 g says nothing: it is as good as lying."""


def response_mm(design: Float, height_mm: float) -> float:
    """How far the tip moves for 0.1 g on the line at a height [mm]: 0.1/(ρ·A)."""
    area = table(design).area_at(min(height_mm, design.top_mm) - 1e-6)
    return 0.1 / (design.water.density_g_cm3 * area / 1000.0) if area > 1e-9 else float("inf")


def settles_at_mm(design: Float, line_g: float, water: Water | None = None) -> float | None:
    """The height to which it settles under a pull on the line [mm]; None where it goes under."""
    rho = (water or design.water).density_g_cm3
    volume = (own_mass_g(design) + line_g) / rho
    hull = table(design)
    return None if volume > float(hull.volume[-1]) + 1e-12 else hull.height_of(volume)


def curve(design: Float, count: int = 200, water: Water | None = None) -> tuple[Array, Array]:
    """Load on the line (n,) [g] and the height it settles at (n,) [mm], from nothing to wholly under."""
    rho, hull = (water or design.water).density_g_cm3, table(design)
    most = rho * float(hull.volume[-1]) - own_mass_g(design)
    if most <= 0:
        raise Refused("float", said(most, "mass"), rule("sinks-itself"))
    loads = np.linspace(0.0, most, count)
    return loads, np.asarray(np.interp((own_mass_g(design) + loads) / rho, hull.volume, hull.z))


@dataclass(frozen=True)
class CapacityChange:
    """What a change does to the capacity at the wanted mark [g]."""

    name: Finding
    effect_g: float


def changes(design: Float, waters: Sequence[Water]) -> tuple[CapacityChange, ...]:
    """The effect of other waters, of a second coat of varnish, of flooded or sealed tubes."""
    height = design.mark(design.wanted_mark).height_mm
    base = capacity_g(design, height)
    rows = [
        CapacityChange(finding("in-water", water=water.describe()), capacity_g(design, height, water) - base)
        for water in waters
        if water != design.water
    ]
    coat = design.varnish_g or 0.05
    rows.append(
        CapacityChange(
            finding("more-varnish", coat=coat),
            capacity_g(replace(design, varnish_g=design.varnish_g + coat), height) - base,
        )
    )
    if any(part.bore_mm > 0 and not part.inside for part in design.parts):
        rows.append(
            CapacityChange(finding("every-tube-flooded"), capacity_g(design, height, flooded=True) - base)
        )
        rows.append(
            CapacityChange(finding("every-tube-sealed"), capacity_g(design, height, flooded=False) - base)
        )
    return tuple(rows)
