"""The wanted behaviour as numbers: the net lift that gives it, what still counts as it, and where it must
hold.
"""

from dataclasses import dataclass, replace

import numpy as np

from lamsik.core.errors import Refused, rule
from lamsik.core.shapes.design import FREEBOARD, SHARE, Design
from lamsik.core.shapes.hardware import Point
from lamsik.core.shapes.solid import solid
from lamsik.core.shapes.space import space_of
from lamsik.core.tank.attitude import Attitude
from lamsik.core.tank.floating import body_state, vessel_of_body
from lamsik.core.tank.mass import Budget
from lamsik.core.tank.motion import (
    DEFAULT_DRAG,
    Bands,
    behaviour,
    frontal_area_mm2,
    net_for_speed_g,
    speed_cm_s,
    window_cm_s,
)
from lamsik.core.water import Water

FREEBOARD_TOLERANCE_MM = 1.0
SHARE_TOLERANCE = 0.01


@dataclass(frozen=True)
class Target:
    """The wanted net lift [g] of a design wholly under water, and between which nets it still counts as met.

    Where it must hold in several waters the nets are those that hold in all of them; `apart_g` is by how much
    no net does (0 if one does). For a wanted freeboard also what the wet part then carries [g], its centre of
    buoyancy and its draft [mm].
    """

    net_g: float
    low_g: float
    high_g: float
    wet_lift_g: float | None = None
    wet_b_mm: Point | None = None
    draft_mm: float | None = None
    apart_g: float = 0.0

    def holds(self, net_g: float) -> bool:
        """Whether a net lift [g] still counts as the wanted behaviour."""
        return self.low_g <= net_g <= self.high_g


@dataclass(frozen=True)
class Holding:
    """How the design behaves in one more water: net lift [g], speed [cm/s], behaviour, whether that is the
    wanted one.
    """

    water: Water
    net_g: float
    speed_cm_s: float
    behaviour: str
    held: bool


def drag_of(design: Design, shop_drag: float = DEFAULT_DRAG) -> float:
    """The design's own drag coefficient, or the shop's while it has none."""
    return design.drag if design.drag is not None else shop_drag


def target(design: Design, mass: Budget, drag: float = DEFAULT_DRAG, bands: Bands = Bands()) -> Target:
    """The net lift [g] that gives the wanted behaviour in the design's water, with what it may be off.

    Args:
        design: the design with its want and water.
        mass: its budget; only what it displaces is used, which ballast inside does not change.
        drag: drag coefficient.
        bands: the shop's speeds of the behaviours.

    Raises:
        Refused: a freeboard that leaves no part of the hull in the water.
    """
    here = _target_here(design, mass, drag, bands)
    if not design.want.waters or design.want.by == FREEBOARD:
        return here
    return _everywhere(design, mass, here, drag, bands)


def _everywhere(design: Design, mass: Budget, here: Target, drag: float, bands: Bands) -> Target:
    """The target held to the nets that give the behaviour in every water: a denser one lifts by (ρ' − ρ)·V
    more.

    A net outside is brought in by a fifth of the room there is, since slugs are cut in steps. Where no net
    holds everywhere the middle of the gap is aimed at, and the gap is said.
    """
    low, high = here.low_g, here.high_g
    for water in design.want.waters:
        there = _target_here(replace(design, water=water), mass, drag, bands)
        more = (water.density_g_cm3 - design.water.density_g_cm3) * mass.displaced_ml
        low, high = max(low, there.low_g - more), min(high, there.high_g - more)
    if low > high:
        return Target((low + high) / 2, here.low_g, here.high_g, apart_g=low - high)
    room = 0.2 * (high - low) if np.isfinite(high - low) else 0.0
    return Target(float(np.clip(here.net_g, low + room, high - room)), low, high)


def _target_here(design: Design, mass: Budget, drag: float, bands: Bands) -> Target:
    """The target in the design's own water alone."""
    want, rho = design.want, design.water.density_g_cm3
    lift = rho * mass.displaced_ml
    if want.by == SHARE:
        share = want.net_percent / 100.0
        net, room = share * lift / (1 + share), SHARE_TOLERANCE * lift
        return Target(net, net - room, net + room)
    if want.by == FREEBOARD:
        return _afloat(design, mass, lift)
    area = frontal_area_mm2(design.body, Attitude(want.pitch_deg, 0.0).up)
    net = net_for_speed_g(want.speed_cm_s, area, rho, drag)
    low, high = (
        _edge(edge, area, rho, drag) for edge in window_cm_s(behaviour(want.speed_cm_s, bands), bands)
    )
    return Target(net, low, high)


def _edge(speed: float, area: float, rho: float, drag: float) -> float:
    return speed if np.isinf(speed) else net_for_speed_g(speed, area, rho, drag)


def _afloat(design: Design, mass: Budget, lift: float) -> Target:
    """At the wanted pitch the freeboard fixes the draft, that the wet part, that mass and the line of G."""
    vessel, up, rho = (
        vessel_of_body(design.body),
        Attitude(design.want.pitch_deg, 0.0).up,
        design.water.density_g_cm3,
    )
    low, high = vessel.heights(up)
    draft = high - design.want.freeboard_mm
    if draft <= low:
        raise Refused(
            "want.freeboard_mm",
            design.want.freeboard_mm,
            rule("lifts-hull", value=high - low),
        )
    state = body_state(vessel.exact, mass, rho, up, draft)
    carried, b = rho / 1000.0 * state.volume, state.moment / max(state.volume, 1e-9)
    room = rho / 1000.0 * state.area * FREEBOARD_TOLERANCE_MM
    net = lift - carried
    return Target(net, net - room, net + room, carried, (float(b[0]), float(b[1]), float(b[2])), draft)


def flooded_net_g(design: Design, mass: Budget) -> float:
    """Net lift [g] once the skin is pierced and every void behind it is full of water.

    Solid wood and closed foam have none; a hollow shell loses what its air carried.
    """
    rho = design.water.density_g_cm3
    cut = sum(hole.hole_ml for hole in design.ballast) + sum(cavity.volume_ml for cavity in design.cavities)
    air = design.host.void_share * max(solid(design.body).volume_ml - cut, 0.0)
    if design.shell is not None and design.shell.is_empty:
        air = sum(piece.volume_mm3 for piece in space_of(design).left_hollow) / 1000.0
    loose = sum(
        max(cavity.volume_ml - cavity.mass_g / cavity.slug.density_g_cm3, 0.0) for cavity in design.cavities
    )
    return rho * (mass.displaced_ml - air - loose) - mass.mass_g


def holdings(
    design: Design, mass: Budget, drag: float = DEFAULT_DRAG, bands: Bands = Bands()
) -> tuple[Holding, ...]:
    """How it behaves in each water in which the want must hold; salinity multiplies the displaced water,
    never the net.
    """
    area = frontal_area_mm2(design.body, Attitude(design.want.pitch_deg, 0.0).up)
    rows = []
    for water in design.want.waters:
        net = water.density_g_cm3 * mass.displaced_ml - mass.mass_g
        speed = speed_cm_s(net, area, water.density_g_cm3, drag)
        there = replace(design, water=water)
        aim = _target_here(there, mass, drag, bands)
        rows.append(Holding(water, net, speed, behaviour(speed, bands), aim.holds(net)))
    return tuple(rows)
