"""Where ballast holes may go: places on the bench's step, the nearest room, groups on either side of a joint."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from lamsik.core.shapes.ballast_holes import Hole, Slug
from lamsik.core.shapes.curves import Array
from lamsik.core.tank.ballast_base import Base, Bench, place_mm
from lamsik.core.tank.drilling import below_wire, clear_of, walls_left_mm


def spacing_mm(drill: float, bench: Bench) -> float:
    """Middle to middle of neighbouring holes [mm]."""
    return drill + max(bench.wall_mm, 1.5)


def places_for(base: Base, hole: Hole, offsets: Sequence[float], bench: Bench) -> tuple[Array, NDArray[np.bool_]]:
    """Places on the bench's step, and at which of them such a hole can be drilled at every offset."""
    length, step = base.design.body.length_mm, bench.place_step_mm
    places = np.arange(np.ceil(0.1 * length / step), np.floor(0.92 * length / step) + 1) * step
    at = (places[:, None] + np.array(offsets)).ravel()  # all at once: the calls cost more than the numbers
    good = (at > 0.05 * length) & (at < 0.95 * length) & clear_of(base.blocked, at, hole.drill_mm) & below_wire(base.design, at, hole.depth_mm)
    good &= walls_left_mm(base.design.body, at, hole.depth_mm, hole.drill_mm) >= bench.wall_mm
    return places, good.reshape(len(places), -1).all(axis=1)


def nearest_room(base: Base, hole: Hole, offsets: Sequence[float], wish: float, bench: Bench) -> float | None:
    """The buildable x nearest to the wished one, on the bench's step; None if there is no room."""
    places, good = places_for(base, hole, offsets, bench)
    fitting = places[good]
    return float(fitting[np.argmin(np.abs(fitting - wish))]) if fitting.size else None


def either_side(base: Base, slug: Slug, drill: float, masses: list[float], pitch_deg: float, bench: Bench) -> Iterator[tuple[Hole, ...]]:
    """Equal holes in two groups with room between, as on both sides of a joint: of all places of both those whose middle is nearest to the wished one."""
    count, spacing = len(masses), spacing_mm(drill, bench)
    holes = [Hole(f"b{i + 1}", slug, mass, 0.0, drill, bench.cover_mm, bench.filler_g_cm3) for i, mass in enumerate(masses)]
    wish = place_mm(base, holes, [0.0] * count, pitch_deg)
    for ahead in range(1, count):
        rows = [[(i - (n - 1) / 2) * spacing for i in range(n)] for n in (ahead, count - ahead)]
        fore, aft = (places[good] for places, good in (places_for(base, holes[0], row, bench) for row in rows))
        apart = aft[None, :] - fore[:, None] - spacing * count / 2
        off = np.where(apart >= 0, np.abs((ahead * fore[:, None] + (count - ahead) * aft[None, :]) / count - wish) + NEAR * apart, np.inf)
        if off.size and np.isfinite(off.min()):
            a, b = np.unravel_index(int(np.argmin(off)), off.shape)
            places = [float(fore[a]) + x for x in rows[0]] + [float(aft[b]) + x for x in rows[1]]
            yield tuple(replace(hole, x_mm=x) for hole, x in zip(holes, places, strict=True))


NEAR = 0.01
"""How little it counts that two groups lie apart, beside where their middle is: it decides between equals."""
