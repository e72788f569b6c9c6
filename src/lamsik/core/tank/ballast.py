"""Ballast for a wanted behaviour: the closed-form slug, and answers that can be built from the shop's stock.

One slug at x in a hole from the belly. Its mass w enters net lift linearly:
Δm(w) = w(1 − ρ_f/ρ_s + (ρ_f − ρ_h)A_d/(ρ_s A_s)) + (ρ_f − ρ_h)A_d·c
(slug s, filler f, host h, drill area A_d, slug area A_s, cover c). For a pitch p* B must lie
straight above G: (B − G)·e = 0 with e = (cos p, 0, sin p), which is linear in x once w is known.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from math import cos, pi, radians, sin

import numpy as np
from numpy.typing import NDArray

from lamsik.core.errors import require
from lamsik.core.materials import EPOXY_FILLER_G_CM3
from lamsik.core.shapes.ballast_holes import BALLS, Hole, Slug
from lamsik.core.shapes.body import station
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design, Want
from lamsik.core.shapes.quadrature import solid
from lamsik.core.tank.attitude import Attitude, Hanging, buoyancy, immersed
from lamsik.core.tank.drilling import clear_of_hardware, wall_left_mm, walls_left_mm
from lamsik.core.tank.mass import NOTHING, Budget, Measured, budget
from lamsik.core.tank.motion import DEFAULT_DRAG, frontal_area_mm2, net_for_speed_g


@dataclass(frozen=True)
class Bench:
    """What the shop can build with: slugs and drills at hand, its limits [mm] and cutting step [g]."""

    slugs: tuple[Slug, ...]
    drills_mm: tuple[float, ...]
    wall_mm: float = 2.0
    cover_mm: float = 2.0
    slug_step_g: float = 0.1
    place_step_mm: float = 0.5
    filler_g_cm3: float = EPOXY_FILLER_G_CM3


@dataclass(frozen=True)
class Answer:
    """A buildable answer: the holes, what they give, and by how much they miss.

    `wall_mm` is the thinnest material left; `height_mm` how high the metal's middle lies.
    `miss` is in units of the tolerances: 1 is as far off as a maker would still accept.
    """

    holes: tuple[Hole, ...]
    mass_g: float
    net_g: float
    pitch_deg: float
    net_error_g: float
    pitch_error_deg: float
    wall_mm: float
    height_mm: float
    miss: float
    says: str


NET_TOLERANCE_G = 0.05
PITCH_TOLERANCE_DEG = 2.0


def wanted_net_g(design: Design, want: Want, drag: float = DEFAULT_DRAG) -> float:
    """Net lift [g] that gives the wanted speed at the wanted pitch in the design's water."""
    area = frontal_area_mm2(design.body, Attitude(want.pitch_deg, 0.0).up)
    return net_for_speed_g(want.speed_cm_s, area, design.water.density_g_cm3, drag)


def without_ballast(design: Design) -> Design:
    """The design with no holes."""
    return replace(design, ballast=())


@dataclass(frozen=True)
class Base:
    """The design without ballast, as the ballast solver sees it: mass [g], G and B [mm], lift [g]."""

    design: Design
    mass: Budget
    b_mm: tuple[float, float, float]
    lift_g: float
    host_g_cm3: float


def base_of(design: Design, measured: Measured = NOTHING) -> Base:
    """The design stripped of its ballast; weighings of the ballasted stage and later are set aside."""
    bare = without_ballast(design)
    early = Measured(
        tuple(row for row in measured.stages if row[0] in ("carved", "sealed")),
        tuple(row for row in measured.parts if not row[0].startswith(("slug:", "fill:"))),
    )
    mass = budget(bare, early)
    lift = design.water.density_g_cm3 * mass.displaced_ml
    return Base(bare, mass, buoyancy(solid(design.body).centroid_mm, mass), lift, mass.host_density_g_cm3)


def slug_mass_g(base: Base, net_g: float, slug: Slug, drill_mm: float, holes: int, bench: Bench) -> float:
    """Metal mass [g], all holes together, that leaves this net lift; negative if the body is too heavy already."""
    needed = base.lift_g - base.mass.mass_g - net_g
    drill_area = pi * drill_mm**2 / 4
    swap = bench.filler_g_cm3 - base.host_g_cm3
    fixed = holes * swap * drill_area * bench.cover_mm / 1000.0
    per_gram = 1.0 - bench.filler_g_cm3 / slug.density_g_cm3 + swap * drill_area / (slug.density_g_cm3 * slug.area_mm2)
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
    loads = np.array([_added_g(base, hole) for hole in holes])
    heights = np.zeros(len(holes))
    x = base.design.body.length_mm / 2
    for _ in range(6):
        for i, hole in enumerate(holes):
            heights[i] = station(base.design.body, x + offsets[i]).bottom_mm + _load_height(base, hole)
        moment = base.mass.mass_g * float((b - g) @ e) + float(loads.sum()) * float(b @ e)
        moment -= float(loads @ (np.array(offsets) * e[0] + heights * e[2]))
        x = moment / (float(loads.sum()) * e[0]) if abs(loads.sum()) > 1e-9 else x
    return x


def _added_g(base: Base, hole: Hole) -> float:
    return hole.mass_g + hole.filler_g - base.host_g_cm3 * hole.hole_ml


def _load_height(base: Base, hole: Hole) -> float:
    """Height above the belly [mm] at which slug, filler and lost wood act together."""
    slug = hole.mass_g * (hole.cover_mm + hole.slug.length_mm(hole.mass_g) / 2)
    rest = (hole.filler_g - base.host_g_cm3 * hole.hole_ml) * hole.depth_mm / 2
    added = _added_g(base, hole)
    return (slug + rest) / added if abs(added) > 1e-9 else 0.0


def search(design: Design, want: Want, bench: Bench, measured: Measured = NOTHING, drag: float = DEFAULT_DRAG, most: int = 6) -> tuple[Answer, ...]:
    """Buildable answers, the best first; several metals, drills and one to three holes.

    Raises:
        Refused: no slugs or no drills at hand.
    """
    require(bool(bench.slugs), "slugs", "none", "add a ballast metal in Stores")
    require(bool(bench.drills_mm), "drills", "none", "add a drill size in Stores")
    base = base_of(design, measured)
    net = wanted_net_g(design, want, drag)
    answers = [a for a in _candidates(base, net, want, bench) if a is not None]
    return _varied(sorted(answers, key=lambda a: a.miss), most)


def _candidates(base: Base, net: float, want: Want, bench: Bench) -> Iterator[Answer | None]:
    for slug in bench.slugs:
        for drill in _fitting(slug, bench.drills_mm):
            for count in (1, 2, 3):
                for mass in _masses(base, net, slug, drill, count, bench):
                    yield _answer(base, net, want, slug, drill, [mass] * count, bench)
            yield _straddling(base, net, want, slug, drill, bench)


def _fitting(slug: Slug, drills: Sequence[float]) -> list[float]:
    """The two tightest drills that pass the slug: more only removes wood."""
    return sorted(d for d in drills if slug.diameter_mm <= d <= slug.diameter_mm + 2.0)[:2]


def _masses(base: Base, net: float, slug: Slug, drill: float, count: int, bench: Bench) -> list[float]:
    total = slug_mass_g(base, net, slug, drill, count, bench)
    step = slug.ball_g if slug.form == BALLS else bench.slug_step_g
    each = round(total / count / step) * step
    return [each] if each > 0.5 * step else []


def _answer(base: Base, net: float, want: Want, slug: Slug, drill: float, masses: list[float], bench: Bench) -> Answer | None:
    spacing = drill + max(bench.wall_mm, 1.5)
    offsets = [(i - (len(masses) - 1) / 2) * spacing for i in range(len(masses))]
    holes = [Hole(f"b{i + 1}", slug, mass, 0.0, drill, bench.cover_mm, bench.filler_g_cm3) for i, mass in enumerate(masses)]
    wish = place_mm(base, holes, offsets, want.pitch_deg)
    x = _nearest_room(base.design, holes, offsets, wish, bench)
    if x is None:
        return None
    placed = tuple(replace(hole, x_mm=x + offset) for hole, offset in zip(holes, offsets, strict=True))
    return _judged(base, placed, net, want, bench)


def _judged(base: Base, holes: tuple[Hole, ...], net: float, want: Want, bench: Bench) -> Answer | None:
    """The answer these holes make; None if it would hang the wrong way up (x alone fixes only tan p)."""
    hanging = put_on(base, holes)
    if abs(hanging.free.roll_deg) > 90:
        return None
    got_net, got_pitch = hanging.net_g, hanging.free.pitch_deg
    net_error, pitch_error = got_net - net, got_pitch - want.pitch_deg
    height = float(np.mean([hole.cover_mm + hole.slug.length_mm(hole.mass_g) / 2 for hole in holes]))
    miss = abs(net_error) / NET_TOLERANCE_G + abs(pitch_error) / PITCH_TOLERANCE_DEG
    wall = min(wall_left_mm(base.design.body, hole) for hole in holes)
    return Answer(
        holes,
        sum(h.mass_g for h in holes),
        got_net,
        got_pitch,
        net_error,
        pitch_error,
        wall,
        height,
        miss + 0.05 * height / 10 + 0.1 * len(holes),
        _says(holes),
    )


def put_on(base: Base, holes: tuple[Hole, ...]) -> Hanging:
    """How the design hangs with these holes, from the same base."""
    loads = [(_added_g(base, h), h.x_mm, station(base.design.body, h.x_mm).bottom_mm + _load_height(base, h)) for h in holes]
    mass = base.mass.mass_g + sum(load for load, _, _ in loads)
    g = np.array(base.mass.g_mm) * base.mass.mass_g
    for load, x, z in loads:
        g = g + load * np.array([x, 0.0, z])
    g = g / mass
    centre = (float(g[0]), float(g[1]), float(g[2]))
    return immersed(solid(base.design.body).centroid_mm, replace(base.mass, mass_g=mass, g_mm=centre), base.design.water.density_g_cm3)


def _places(design: Design, hole: Hole, offset: float, bench: Bench) -> tuple[Array, NDArray[np.bool_]]:
    """Places on the bench's step, and at which of them this hole (shifted by its offset) can be drilled."""
    length, step = design.body.length_mm, bench.place_step_mm
    places = np.arange(np.ceil(0.1 * length / step), np.floor(0.92 * length / step) + 1) * step
    at = places + offset
    good = (at > 0.05 * length) & (at < 0.95 * length) & clear_of_hardware(design, at, hole.drill_mm)
    return places, good & (walls_left_mm(design.body, at, hole.depth_mm, hole.drill_mm) >= bench.wall_mm)


def _nearest_room(design: Design, holes: Sequence[Hole], offsets: Sequence[float], wish: float, bench: Bench) -> float | None:
    """The buildable x nearest to the wished one, on the bench's step; None if there is no room."""
    rows = [_places(design, hole, offset, bench) for hole, offset in zip(holes, offsets, strict=True)]
    fitting = rows[0][0][np.logical_and.reduce([good for _, good in rows])]
    return float(fitting[np.argmin(np.abs(fitting - wish))]) if fitting.size else None


def _straddling(base: Base, net: float, want: Want, slug: Slug, drill: float, bench: Bench) -> Answer | None:
    """Two unequal slugs before and behind the wished place, where something is in the way there.

    The lever rule shares the metal; the shares that can be cut are tried around it.
    """
    total = slug_mass_g(base, net, slug, drill, 2, bench)
    step = slug.ball_g if slug.form == BALLS else bench.slug_step_g
    if total < 2 * step:
        return None
    even = [Hole(f"b{i + 1}", slug, total / 2, 0.0, drill, bench.cover_mm, bench.filler_g_cm3) for i in range(2)]
    wish = place_mm(base, even, [0.0, 0.0], want.pitch_deg)
    places, good = _places(base.design, replace(even[0], mass_g=0.7 * total), 0.0, bench)
    before, behind = places[good & (places < wish - drill / 2)], places[good & (places > wish + drill / 2)]
    if not before.size or not behind.size or behind[0] - before[-1] < drill + bench.wall_mm:
        return None
    front, rear = float(before[-1]), float(behind[0])
    share = total * (rear - wish) / (rear - front)
    answers = []
    for whole in {np.floor(total / step), np.ceil(total / step)}:
        for first in np.round(share / step) + np.arange(-2, 3):
            if 0 < first < whole:
                pair = (replace(even[0], mass_g=float(first * step), x_mm=front), replace(even[1], mass_g=float((whole - first) * step)))
                answers.append(_judged(base, _levered(base, pair, wish, behind), net, want, bench))
    fitting = [a for a in answers if a is not None and a.wall_mm >= bench.wall_mm]
    return min(fitting, key=lambda a: a.miss, default=None)


def _levered(base: Base, pair: tuple[Hole, Hole], wish: float, behind: Array) -> tuple[Hole, Hole]:
    """The pair with its rear hole where the two together act nearest to the wished place."""
    front, rear = (_added_g(base, hole) for hole in pair)
    x = ((front + rear) * wish - front * pair[0].x_mm) / rear if rear > 1e-6 else behind[0]
    return pair[0], replace(pair[1], x_mm=float(behind[np.argmin(np.abs(behind - x))]))


def _says(holes: tuple[Hole, ...]) -> str:
    one = holes[0]
    if len({hole.mass_g for hole in holes}) > 1:
        each = " and ".join(f"{hole.mass_g:.1f} g at {hole.x_mm:.1f} mm ({hole.depth_mm:.1f} mm deep)" for hole in holes)
        return f"{len(holes)} holes of {one.drill_mm:g} mm, {one.slug.name}: {each} from the nose"
    what = f"{one.mass_g:.1f} g {one.slug.name}"
    if one.slug.form == BALLS:
        balls = round(one.mass_g / one.slug.ball_g)
        what = f"{balls} × {one.slug.name}" if balls > 1 else one.slug.name
    times = f"{len(holes)} holes, each " if len(holes) > 1 else ""
    places = ", ".join(f"{hole.x_mm:.1f}" for hole in holes)
    return f"{times}{what} in a {one.drill_mm:g} mm hole, {one.depth_mm:.1f} mm deep, {places} mm from the nose"


def _varied(answers: list[Answer], most: int) -> tuple[Answer, ...]:
    """The best answers, at most two of one slug, so that the maker sees real alternatives."""
    kept: list[Answer] = []
    for answer in answers:
        alike = [a for a in kept if a.holes[0].slug == answer.holes[0].slug]
        if len(alike) < 2 and all(len(a.holes) != len(answer.holes) for a in alike) and (answer.miss < 3.0 or len(kept) < 3):
            kept.append(answer)
        if len(kept) == most:
            break
    return tuple(kept)


def why_none(design: Design, want: Want, bench: Bench, measured: Measured = NOTHING, drag: float = DEFAULT_DRAG) -> str:
    """Why no ballast meets the want, and what would."""
    base = base_of(design, measured)
    spare = base.lift_g - base.mass.mass_g - wanted_net_g(design, want, drag)
    if spare <= 0:
        return f"Even without ballast it is {-spare:.2f} g too heavy for this: lighter wood, smaller hooks or a fuller body."
    return f"{spare:.2f} g of ballast is wanted, but no slug at hand fits with {bench.wall_mm:g} mm of wall left: smaller drills, denser metal or a thinner wall."


def with_holes(design: Design, answer: Answer) -> Design:
    """The design with an answer's holes in the place of its own."""
    return replace(design, ballast=answer.holes)
