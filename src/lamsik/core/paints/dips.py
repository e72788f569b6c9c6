"""How deep a body may be dipped: to the first zone that no clear may reach, less what climbs up the skin."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import sqrt

from lamsik.core.paints.layers import Layer
from lamsik.core.paints.roles import DIPPED
from lamsik.core.paints.zones import FinishZone

TENSION_N_M = 0.035
"""Surface tension of a liquid epoxy or varnish, about that of organic liquids [N/m]."""
GRAVITY_M_S2 = 9.81


@dataclass(frozen=True)
class Dip:
    """How deep a body goes in.

    Args:
        is_nose_first: whether it hangs by its tail, so that the nose goes in.
        depth_mm: how deep at most, along the body from the end that goes in [mm].
        stop: the zone that stops it.
        climbs_mm: how far the liquid climbs up the skin over its level [mm].
        length_mm: of the whole body [mm].
    """

    is_nose_first: bool
    depth_mm: float
    stop: FinishZone
    climbs_mm: float
    length_mm: float

    @property
    def stop_mm(self) -> float:
        """How far from the end that goes in the zone lies that stops it [mm]."""
        return self.stop.from_mm if self.is_nose_first else self.length_mm - self.stop.to_mm


def meniscus_mm(density_g_cm3: float) -> float:
    """How far a liquid that wets it climbs up a wall [mm].

    Notes: √2 times the capillary length √(γ / ρg), the rise at a vertical wall that is wetted wholly.
    """
    return 1000.0 * sqrt(2.0 * TENSION_N_M / (1000.0 * density_g_cm3 * GRAVITY_M_S2))


def stops(zones: Sequence[FinishZone], length_mm: float, density_g_cm3: float) -> tuple[Dip, ...]:
    """How deep a body may go in either way round, the deeper first; none where nothing stops it.

    Args:
        zones: the finish map of the body.
        length_mm: of the body.
        density_g_cm3: of the clear.
    """
    stopping = [zone for zone in zones if zone.of.stops_a_dip]
    if not stopping:
        return ()
    climbs = meniscus_mm(density_g_cm3)
    ahead = min(stopping, key=lambda zone: zone.from_mm)
    behind = max(stopping, key=lambda zone: zone.to_mm)
    ways = (
        Dip(True, max(ahead.from_mm - climbs, 0.0), ahead, climbs, length_mm),
        Dip(False, max(length_mm - behind.to_mm - climbs, 0.0), behind, climbs, length_mm),
    )
    return tuple(sorted(ways, key=lambda way: -way.depth_mm))


def stop_of(layer: Layer, zones: Sequence[FinishZone], length_mm: float) -> Dip | None:
    """Where the dip of a layer stops, the deeper way round; None where it is not dipped or nothing stops
    it.
    """
    ways = stops(zones, length_mm, layer.paint.density_g_cm3) if layer.by == DIPPED else ()
    return ways[0] if ways else None
