"""Why there is no ballast that does what is wanted: what binds, and what would be lighter."""

from dataclasses import replace

from lamsik.core.quantities import plainly, said
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.ballast import aim_at
from lamsik.core.tank.ballast_base import Base, Bench, base_of
from lamsik.core.tank.ballast_binds import MASS, Bind, binds
from lamsik.core.tank.inertia import STEADY_HZ
from lamsik.core.tank.mass import NOTHING, Measured
from lamsik.core.tank.motion import DEFAULT_DRAG, Bands


def why_none(
    design: Design,
    bench: Bench,
    measured: Measured = NOTHING,
    drag: float = DEFAULT_DRAG,
    bands: Bands = Bands(),
) -> str:
    """Why no ballast meets the want, and what nearest can."""
    base, aim = aim_at(design, base_of(design, measured), drag, bands, STEADY_HZ)
    spare = base.lift_g - base.mass.mass_g - aim.net_g
    if spare <= 0:
        return (
            f"Even without ballast it is {said(-spare, 'mass')} too heavy for this. {_lighter(base, -spare)}"
        )
    return (
        f"{said(spare, 'mass')} of ballast is wanted, but no slug at hand fits with"
        f" {plainly(bench.wall_mm, 'length')} of wall"
        " left: smaller drills, denser metal or a thinner wall."
    )


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
        if bind.what != MASS or bind.frees or not bind.by.startswith("even")
        else replace(bind, frees=_lighter(base, aim.net_g - base.lift_g + base.mass.mass_g).rstrip("."))
    )


def _lighter(base: Base, over_g: float) -> str:
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
            f"{'foam' if base.design.host.construction == 'foam' else 'lighter wood'} of at most"
            f" {said(density, 'density', 2)}"
        ]
        if density > 0.08
        else []
    )
    ways += (
        [f"hooks {said(over_g, 'mass', 1)} lighter in water (they pull {said(hooks, 'mass', 1)} now)"]
        if hooks > over_g
        else []
    )
    room_g = max(base.lift_g - base.mass.mass_g + over_g, 0.25 * base.lift_g)
    ways.append(f"a body {said(100 * ((1 + over_g / room_g) ** (1 / 3) - 1), 'percent', 0)} larger")
    return f"Any of these would do: {', '.join(ways)}."


def _hooks(design: Design) -> set[str]:
    return {placed.key for placed in design.hardware if placed.item.kind == "hook"}
