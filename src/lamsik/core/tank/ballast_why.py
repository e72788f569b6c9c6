"""Why there is no ballast that does what is wanted: what binds, and what would be lighter."""

from dataclasses import replace

from lamsik.core.findings import Finding, finding
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.ballast import aim_at
from lamsik.core.tank.ballast_base import Base, Bench, base_of
from lamsik.core.tank.ballast_binds import MASS, TOO_HEAVY, Bind, binds
from lamsik.core.tank.inertia import STEADY_HZ
from lamsik.core.tank.mass import NOTHING, Measured
from lamsik.core.tank.motion import DEFAULT_DRAG, Bands


def why_none(
    design: Design,
    bench: Bench,
    measured: Measured = NOTHING,
    drag: float = DEFAULT_DRAG,
    bands: Bands = Bands(),
) -> Finding:
    """Why no ballast meets the want, and what nearest can."""
    base, aim = aim_at(design, base_of(design, measured), drag, bands, STEADY_HZ)
    spare = base.lift_g - base.mass.mass_g - aim.net_g
    if spare <= 0:
        return finding("too-heavy-bare", over=-spare, lighter=_lighter(base, -spare))
    return finding("no-slug-fits", ballast=spare, wall=bench.wall_mm)


def what_binds(
    design: Design,
    bench: Bench,
    measured: Measured = NOTHING,
    drag: float = DEFAULT_DRAG,
    bands: Bands = Bands(),
) -> Bind:
    """What stands in the way of a drilled answer within the tolerances, and the one change that frees it."""
    base, aim = aim_at(design, base_of(design, measured), drag, bands, STEADY_HZ)
    bind = binds(base, aim.net_g, aim.pitch_deg, bench)
    return (
        bind
        if bind.what != MASS or bind.frees or bind.by.name != TOO_HEAVY
        else replace(bind, frees=_lighter(base, aim.net_g - base.lift_g + base.mass.mass_g))
    )


def _lighter(base: Base, over_g: float) -> Finding:
    """What would take so much weight off [g]: the host's density that does, the hooks if they are enough."""
    volume = solid(base.design.body).volume_ml
    density = base.host_g_cm3 - over_g / volume
    hooks = sum(
        p.mass_g - base.design.water.density_g_cm3 * p.outside_ml
        for p in base.mass.parts
        if p.key in _hooks(base.design)
    )
    ways = (
        [
            finding(
                "lighter-foam" if base.design.host.construction == "foam" else "lighter-wood",
                density=density,
            )
        ]
        if density > 0.08
        else []
    )
    ways += [finding("lighter-hooks", over=over_g, hooks=hooks)] if hooks > over_g else []
    room_g = max(base.lift_g - base.mass.mass_g + over_g, 0.25 * base.lift_g)
    ways.append(finding("larger-body", larger=100 * ((1 + over_g / room_g) ** (1 / 3) - 1)))
    return finding("any-would-do", ways=tuple(ways))


def _hooks(design: Design) -> set[str]:
    return {placed.key for placed in design.hardware if placed.item.kind == "hook"}
