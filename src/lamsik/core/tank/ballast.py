"""Ballast answers: what can be built from the shop's slugs, drills and mixes for a wanted behaviour, the best
first.

Answers are judged in closed form; those kept for a waterline are floated once more, so that their errors are
true.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

import numpy as np

from lamsik.core.errors import require, rule
from lamsik.core.findings import Finding
from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.inside import Cavity, PouredEnd, pour_volume_ml
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.attitude import Attitude, Hanging, immersed
from lamsik.core.tank.ballast_base import Base, Bench, aimed, base_of, loads_of, with_loads
from lamsik.core.tank.ballast_search import candidates
from lamsik.core.tank.ballast_spots import NET_UNIT_G, PITCH_UNIT_DEG, holes_of
from lamsik.core.tank.ballast_words import says
from lamsik.core.tank.drilling import cavity_wall_mm, net_added_g, walls_of
from lamsik.core.tank.floating import Floating, Patience, position, settle, vessel_of_body
from lamsik.core.tank.inertia import STEADY_HZ, frequency_hz
from lamsik.core.tank.mass import NOTHING, Budget, Measured, budget
from lamsik.core.tank.motion import DEFAULT_DRAG, Bands
from lamsik.core.tank.moulded import cavities_for, moulded_loads, poured_ends
from lamsik.core.tank.stability import bg_mm, trim_step
from lamsik.core.tank.wanted import FREEBOARD_TOLERANCE_MM, Holding, Target, drag_of, holdings, target

NET_TOLERANCE_G = 0.05
PITCH_TOLERANCE_DEG = 2.0
ROLL_WEIGHT = 0.6
"""What a hertz on the wrong side of steady or lively counts, in tolerances."""


@dataclass(frozen=True)
class Aim:
    """What is solved for: the target, and the roll wanted with the shop's limit between lively and steady
    [Hz].
    """

    target: Target
    net_g: float
    pitch_deg: float
    roll: str = "any"
    steady_hz: float = STEADY_HZ


@dataclass(frozen=True)
class Answer:
    """A buildable answer: the holes, pours or cavities, what they give, and by how much they miss.

    `tags` say what it is the best at of all: nearest, least metal, lowest, most wall, or of its number of
    holes.
    `wall_mm` is the thinnest material left; `height_mm` how high the metal's middle lies; `removed_g` the
    host material taken out. `miss` is in units of the tolerances: 1 is as far off as a maker would still
    accept. At a wanted waterline `net_error_g` is what the wet part carries too much, and the freeboard is
    given with its error.
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
    says: Finding
    pours: tuple[PouredEnd, ...] = ()
    cavities: tuple[Cavity, ...] = ()
    removed_g: float = 0.0
    frequency_hz: float = 0.0
    freeboard_mm: float | None = None
    freeboard_error_mm: float | None = None
    waters: tuple[Holding, ...] = ()
    tags: tuple[str, ...] = ()

    @property
    def kind(self) -> tuple[str, int]:
        """What it is made with: the metal or mix, and in how many places."""
        if self.holes:
            return " and ".join(sorted({hole.slug.name for hole in self.holes})), sum(
                hole.count for hole in self.holes
            )
        if self.cavities:
            return f"{self.cavities[0].slug.name} in a chamber", len(self.cavities)
        return self.pours[0].name, len(self.pours)


def aim_at(design: Design, base: Base, drag: float, bands: Bands, steady_hz: float) -> tuple[Base, Aim]:
    """The base to solve on, and the aim."""
    wanted = target(design, base.mass, drag_of(design, drag), bands)
    base, net = aimed(base, wanted)
    return base, Aim(wanted, net, design.want.pitch_deg, design.want.roll, steady_hz)


def search(
    design: Design,
    bench: Bench,
    measured: Measured = NOTHING,
    drag: float = DEFAULT_DRAG,
    most: int = 7,
    bands: Bands = Bands(),
    steady_hz: float = STEADY_HZ,
) -> tuple[Answer, ...]:
    """Buildable answers for the design's want, the best first; several metals, drills and one to three holes.

    Castings and foam are offered poured ends too, prints and castings balls in closed cavities.

    Raises:
        Refused: no slugs or no drills at hand; a waterline that cannot be.
    """
    require(bool(bench.slugs), "slugs", "none", rule("add-ballast"))
    require(bool(bench.drills_mm), "drills", "none", rule("add-drill"))
    base, aim = aim_at(design, base_of(design, measured), drag, bands, steady_hz)
    answers = [a for a in (*drilled(base, aim, bench), *_moulded(base, aim, bench)) if a is not None]
    kept = varied(sorted(answers, key=lambda a: a.miss), most)
    finished = (_finished(base, aim, answer, drag_of(design, drag), bands) for answer in kept)
    return tuple(sorted(finished, key=lambda a: a.miss))


def drilled(base: Base, aim: Aim, bench: Bench) -> Iterator[Answer | None]:
    """Every drilled answer worth judging: up to four unequal holes at free places, of one metal or mixed."""
    if base.lift_g - base.mass.mass_g - aim.net_g <= 0:
        return
    net, pitch = aim.net_g, aim.pitch_deg
    for _ in range(ROUNDS if base.is_uneven else 1):
        rows = sorted(candidates(base, net, pitch, bench), key=lambda row: row[0])
        tried = [holes_of(candidate) for _, candidate in (rows[:LOOKED_AT] if base.is_uneven else rows)]
        walls = np.split(
            walls_of(base.design.body, [hole for holes in tried for hole in holes]),
            np.cumsum([len(holes) for holes in tried])[:-1],
        )
        judged_rows = (
            [
                judged(base, holes, aim, bench, wall_mm=float(wall.min()))
                for holes, wall in zip(tried, walls, strict=True)
            ]
            if tried
            else []
        )
        yield from judged_rows
        best = min((answer for answer in judged_rows if answer), key=lambda answer: answer.miss, default=None)
        if best is None or best.miss < NEAR:
            return
        # what a hole takes out is not the same everywhere: aimed as far to the other side as it was off
        net, pitch = net - best.net_error_g, pitch - float(np.clip(best.pitch_error_deg, -20, 20))


LOOKED_AT = 16
"""So many candidates, the nearest, are judged in each round of an uneven body."""

ROUNDS, NEAR = 5, 0.6
"""So often an uneven body is aimed at, until the best is this near [units of what a maker would still
accept].
"""


def _moulded(base: Base, aim: Aim, bench: Bench) -> Iterator[Answer | None]:
    construction = base.design.host.construction
    if construction in ("cast", "foam"):
        for pour in poured_ends(base, aim.net_g, bench):
            yield judged(base, (), aim, bench, pours=(pour,))
    if construction in ("cast", "print"):
        for cavity in cavities_for(base, aim.net_g, aim.pitch_deg, bench):
            yield judged(base, (), aim, bench, cavities=(cavity,))


def _roll_inertia_g_mm2(base: Base, holes: tuple[Hole, ...], loads: Array, mass: Budget) -> float:
    """Inertia about the roll axis [g·mm²]: the base's, the loads' at their heights and beside the middle,
    less that of all in G; the water's share added.
    """
    apart = sum(hole.mass_g * hole.beside_mm**2 for hole in holes)
    return (
        base.roll_moment_g_mm2
        + apart
        + float(loads[:, 0] @ (loads[:, 3] ** 2))
        - mass.mass_g * mass.g_mm[2] ** 2
        + base.added_inertia_g_mm2
    )


def judged(
    base: Base,
    holes: tuple[Hole, ...],
    aim: Aim,
    bench: Bench,
    pours: tuple[PouredEnd, ...] = (),
    cavities: tuple[Cavity, ...] = (),
    wall_mm: float | None = None,
) -> Answer | None:
    """The answer these make, with the wall that they leave if that is known.

    None if it would hang the wrong way up (x alone fixes only tan p), or takes out more than it puts in.
    """
    if any(net_added_g(hole, base.host_g_cm3) <= 0 for hole in holes):
        return None
    loads = _all_loads(base, holes, pours, cavities)
    mass = with_loads(base, loads)
    afloat = aim.target.wet_lift_g is not None
    pitch, roll, net, bg = _afloat(base, mass, aim) if afloat else _under(base, mass)
    if abs(roll) > 90:
        return None
    wanted = aim.net_g + (aim.target.net_g if afloat else 0.0)
    net_error, pitch_error = net - wanted, pitch - aim.pitch_deg
    frequency = frequency_hz(mass.mass_g, bg, _roll_inertia_g_mm2(base, holes, loads, mass))
    belly = float(np.mean(loads[:, 3])) - solid(base.design.body).centroid_mm[2]
    height = belly + base.design.body.depth_mm / 2
    wall = _wall(base, holes, cavities) if wall_mm is None else wall_mm
    work = (
        sum(hole.count for hole in holes)
        + len(cavities)
        + len({(hole.slug.name, hole.drill_mm) for hole in holes})
    )
    miss = (
        missed(net_error, pitch_error) + 0.02 * height / 10 + 0.04 * work
    )  # a second drill or metal is as much work as one more hole
    return Answer(
        holes,
        sum(h.mass_g for h in holes)
        + sum(c.mass_g for c in cavities)
        + sum(p.density_g_cm3 * pour_volume_ml(base.design.body, p)[0] for p in pours),
        net,
        pitch,
        net_error,
        pitch_error,
        wall,
        height,
        miss + _roll_miss(frequency, aim),
        says(base, holes, pours, cavities),
        pours,
        cavities,
        removed_g(base, holes, pours, cavities),
        frequency,
    )


def missed(net_error_g: float, pitch_error_deg: float) -> float:
    """How far off [units of what a maker would still accept]; 0.02 g of net lift count as much as a degree
    of pitch.
    """
    return abs(net_error_g) / NET_TOLERANCE_G + abs(pitch_error_deg) * NET_UNIT_G / (
        NET_TOLERANCE_G * PITCH_UNIT_DEG
    )


def _under(base: Base, mass: Budget) -> tuple[float, float, float, float]:
    """Pitch and roll [°], net lift [g] and BG [mm] wholly under water."""
    hanging = immersed(solid(base.design.body).centroid_mm, mass, base.design.water.density_g_cm3)
    return hanging.free.pitch_deg, hanging.free.roll_deg, hanging.net_g, bg_mm(hanging)


def _afloat(base: Base, mass: Budget, aim: Aim) -> tuple[float, float, float, float]:
    """The same at the wanted waterline, one Newton step from it; GM stands for BG."""
    design, draft = base.design, aim.target.draft_mm or 0.0
    rho = design.water.density_g_cm3
    step = trim_step(
        vessel_of_body(design.body).quick,
        mass,
        rho,
        0.0,
        np.radians(aim.pitch_deg),
        draft,
        design.body.length_mm,
    )
    pitch = aim.pitch_deg + float(np.clip(np.degrees(step.pitch), -60, 60))
    return (
        pitch,
        180.0 if step.stiffness_mm < 0 else 0.0,
        rho * mass.displaced_ml - mass.mass_g,
        max(step.stiffness_mm, 0.0),
    )


def _roll_miss(frequency: float, aim: Aim) -> float:
    if aim.roll == "any":
        return 0.0
    off = aim.steady_hz - frequency if aim.roll == "steady" else frequency - aim.steady_hz
    return ROLL_WEIGHT * max(off, 0.0)


def _wall(base: Base, holes: tuple[Hole, ...], cavities: tuple[Cavity, ...]) -> float:
    walls = [*map(float, walls_of(base.design.body, holes))] + [
        cavity_wall_mm(base.design.body, cavity) for cavity in cavities
    ]
    return min(walls, default=float("inf"))


def removed_g(
    base: Base, holes: tuple[Hole, ...], pours: tuple[PouredEnd, ...] = (), cavities: tuple[Cavity, ...] = ()
) -> float:
    """Host material that goes [g]."""
    volume = (
        sum(hole.hole_ml for hole in holes)
        + sum(c.volume_ml for c in cavities)
        + sum(pour_volume_ml(base.design.body, p)[0] for p in pours)
    )
    return base.host_g_cm3 * volume


def put_on(base: Base, holes: tuple[Hole, ...]) -> Hanging:
    """How the design hangs with these holes, from the same base."""
    return immersed(
        solid(base.design.body).centroid_mm,
        with_loads(base, loads_of(base, holes)),
        base.design.water.density_g_cm3,
    )


def _finished(base: Base, aim: Aim, answer: Answer, drag: float, bands: Bands) -> Answer:
    """What is worth computing for the kept answers only: the true waterline, and the other waters."""
    design = with_answer(base.design, answer)
    mass = (
        budget(design)
        if base.mass.host_density_g_cm3 == design.host.density_g_cm3
        else with_loads(base, _all_loads(base, answer.holes, answer.pours, answer.cavities))
    )
    answer = replace(answer, waters=holdings(design, mass, drag, bands))
    if aim.target.wet_lift_g is None:
        return answer
    place = float_near(design, mass, aim)
    if place is None:
        return replace(answer, freeboard_mm=0.0, freeboard_error_mm=-design.want.freeboard_mm)
    pitch, off = place.attitude.pitch_deg, place.freeboard_mm - design.want.freeboard_mm
    return replace(
        answer,
        pitch_deg=pitch,
        pitch_error_deg=pitch - aim.pitch_deg,
        freeboard_mm=place.freeboard_mm,
        freeboard_error_mm=off,
        miss=abs(off) / FREEBOARD_TOLERANCE_MM + abs(pitch - aim.pitch_deg) / PITCH_TOLERANCE_DEG,
    )


def _all_loads(
    base: Base, holes: tuple[Hole, ...], pours: tuple[PouredEnd, ...], cavities: tuple[Cavity, ...]
) -> Array:
    """What all of it adds (n, 4); in an uneven body by the account of space."""
    if base.is_uneven or (holes and (pours or cavities)):
        rows = [moulded_loads(base, pours, cavities, holes)]
    else:
        rows = [loads_of(base, holes) if holes else None, moulded_loads(base, pours, cavities)]
    return np.vstack([row for row in rows if row is not None])


def float_near(design: Design, mass: Budget, aim: Aim) -> Floating | None:
    """Where it floats, followed at full accuracy from the wanted waterline; None if it does not."""
    vessel, rho = vessel_of_body(design.body), design.water.density_g_cm3
    if rho * mass.displaced_ml <= mass.mass_g:
        return None
    up, d, _ = settle(
        vessel.fair,
        mass,
        rho,
        (Attitude(aim.pitch_deg, 0.05).up, aim.target.draft_mm or 0.0),
        vessel.length_mm,
        Patience(30, 1e-5),
    )
    up, d, state = settle(vessel.exact, mass, rho, (up, d), vessel.length_mm, Patience(8))
    return position(vessel, mass, up, d, state)


def within(answer: Answer) -> bool:
    """Whether it is what was wanted, within the tolerances."""
    return abs(answer.net_error_g) <= NET_TOLERANCE_G and abs(answer.pitch_error_deg) <= PITCH_TOLERANCE_DEG


def _drilled(answer: Answer) -> int:
    """How many holes it takes, both of a pair."""
    return sum(hole.count for hole in answer.holes)


def _paired(answer: Answer) -> bool:
    return any(hole.count > 1 for hole in answer.holes)


BEST_AT: tuple[tuple[str, Callable[[Answer], bool], Callable[[Answer], float]], ...] = (
    ("nearest", lambda a: True, lambda a: a.miss),
    ("one hole", lambda a: _drilled(a) == 1, lambda a: a.miss),
    ("two holes", lambda a: _drilled(a) == 2 and not _paired(a), lambda a: a.miss),
    ("three holes", lambda a: _drilled(a) >= 3 and not _paired(a), lambda a: a.miss),
    ("pair of holes", lambda a: _paired(a), lambda a: a.miss),
    ("least metal", lambda a: True, lambda a: a.mass_g),
    ("lowest", lambda a: True, lambda a: a.height_mm),
    ("most wall", lambda a: bool(a.holes), lambda a: -a.wall_mm),
)
"""What an answer can be the best at: its name, which answers count, and the less the better."""


def varied(answers: list[Answer], most: int) -> tuple[Answer, ...]:
    """The best of each kind, so that the maker chooses: the nearest, one, two and three holes, least metal,
    lowest, most wall.

    Of those that reach the want, where any does. The best poured end and the best chamber are among them
    where the body can have one, however far they miss: they say by how much.
    """
    good = [answer for answer in answers if within(answer)]
    kept: dict[tuple[object, ...], Answer] = {}
    for tag, counts, less in BEST_AT:
        near = tag.endswith("hole") or tag.endswith("holes")
        pool = [a for a in (answers if near or not good else good) if counts(a) and (a.holes or not near)]
        best = min(pool, key=less, default=None)
        if (
            best is None
            or (near and best.miss > FAR and kept)
            or (not good and not near and tag != "nearest")
        ):
            continue
        like = _alike(best)
        if like in kept or len(kept) < most:
            kept[like] = replace(kept.get(like, best), tags=(*kept.get(like, best).tags, tag))
    for answer in answers:
        if len(kept) >= most or answer.miss > 3.0:
            break
        if all(answer.kind != other.kind for other in kept.values()):
            kept.setdefault(_alike(answer), answer)
    rows = list(kept.values())
    for moulded in (
        next((a for a in answers if a.pours), None),
        next((a for a in answers if a.cavities), None),
    ):
        if moulded is not None and all(_alike(moulded) != _alike(row) for row in rows):
            rows = [*rows[: most - 1], moulded]
    return tuple(rows)


FAR = 40.0
"""An answer of a number of holes that misses by more is not worth showing."""


def _alike(answer: Answer) -> tuple[object, ...]:
    """What makes two answers the same to a maker: metal, drill, place within a millimetre and mass within
    a step.
    """
    holes = tuple(
        (hole.slug.name, hole.drill_mm, hole.count, round(hole.x_mm), round(hole.mass_g, 1))
        for hole in answer.holes
    )
    return (
        holes,
        tuple((p.name, p.from_mm) for p in answer.pours),
        tuple((c.slug.name, c.count) for c in answer.cavities),
    )


def with_answer(design: Design, answer: Answer) -> Design:
    """The design with an answer in the place of its own ballast."""
    return replace(design, ballast=answer.holes, pours=answer.pours, cavities=answer.cavities)
