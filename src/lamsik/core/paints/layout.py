"""Where a scheme's layers lie on the side of a body: bars, spots and the eye, in mm."""

from dataclasses import dataclass

from lamsik.core.paints.layers import Layer
from lamsik.core.shapes.body import Body, station


@dataclass(frozen=True)
class PaintSpot:
    """A round mark on the side view: centre (x, z) and radius [mm]."""

    x_mm: float
    z_mm: float
    radius_mm: float


Polygon = tuple[tuple[float, float], ...]


def bars(body: Body, layer: Layer) -> tuple[Polygon, ...]:
    """Tapering bars from the back, as (x, z) polygons [mm], evenly spread behind the head."""
    count = layer.place.count or 6
    first, last = 0.22 * body.length_mm, 0.9 * body.length_mm
    pitch = (last - first) / count
    polygons = []
    for i in range(count):
        x = first + (i + 0.5) * pitch
        here = station(body, x)
        tip = here.top_mm - layer.place.reach_share * (here.top_mm - here.bottom_mm)
        half = 0.26 * pitch
        polygons.append(
            (
                (x - half, here.top_mm + 1),
                (x + half, here.top_mm + 1),
                (x + 0.25 * half, tip),
                (x - 0.25 * half, tip),
            )
        )
    return tuple(polygons)


def spots(body: Body, layer: Layer) -> tuple[PaintSpot, ...]:
    """Spots along the flank, in two staggered rows."""
    count = layer.place.count or 9
    first, last = 0.25 * body.length_mm, 0.88 * body.length_mm
    places = []
    for i in range(count):
        here = station(body, first + (last - first) * i / max(count - 1, 1))
        tall = here.top_mm - here.bottom_mm
        height = here.top_mm - tall * (0.28 if i % 2 else 0.45)
        places.append(PaintSpot(here.x_mm, height, 0.055 * tall + 0.4))
    return tuple(places)


def eye(body: Body, layer: Layer) -> PaintSpot:
    """The eye: behind the nose, above the middle; `reach_share` of the greatest depth across."""
    radius = max(layer.place.reach_share * body.depth_mm / 2, 0.8)
    x = max(0.085 * body.length_mm, radius * 1.6)
    here = station(body, x)
    return PaintSpot(x, here.middle_mm + 0.14 * (here.top_mm - here.bottom_mm), radius)
