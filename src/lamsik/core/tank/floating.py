"""Where a body comes to rest at the surface, by minimising energy over direction and draft together.

U = m(up·G − d) − ρ(up·M − d·V) with M, V first moment and volume of the wet part:
∂U/∂up = mG − ρM and ∂U/∂d = ρV − m vanish at rest; the Hessian comes from the water-plane.
"""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.hardware import Point
from lamsik.core.shapes.skins import Mesh
from lamsik.core.shapes.support import reach_mm
from lamsik.core.tank.attitude import Attitude, attitude_of
from lamsik.core.tank.immersion import (
    Hull,
    Wet,
    coarse_hull,
    fine_hulls,
    hull_of,
    made_hulls,
    scout_hull,
    tank_axes,
    wet,
)
from lamsik.core.tank.mass import Budget

HANG_DROP = 1.6
"""How far the middle of a hanging hook lies below its eye, in its own equivalent radii."""

Clip = Callable[[Array, float], Wet]


@dataclass(frozen=True, eq=False)
class Vessel:
    """A closed surface ready to be floated: its length [mm], how far it reaches in a direction [mm], and
    three clips.

    `quick` is for dragging and searching, `exact` for rest, `fair` (volume to 1e-4) for curves through many
    attitudes. One that is `even` is the same to both sides of its middle plane, y = 0; `scout` is coarser
    still, for finding all rests.
    """

    quick: Clip
    fair: Clip
    exact: Clip
    length_mm: float
    reach: Callable[[Array], float]
    even: bool = False
    scout: Clip | None = None

    @property
    def searching(self) -> Clip:
        """The clip that finds where rests are: a coarser one where there is one."""
        return self.scout or self.quick

    def heights(self, up: Array) -> tuple[float, float]:
        """Its lowest and highest point along a direction [mm]."""
        return -self.reach(-up), self.reach(up)


@lru_cache(maxsize=32)
def vessel_of_body(body: Body) -> Vessel:
    """The body as a vessel: a coarse volume-true mesh for dragging, Richardson's pair for settling.

    A mesh brought in is its own solid; so are the pieces that joints leave.
    """

    def reach(way: Array) -> float:
        return reach_mm(body, way)

    if body.skin is not None or body.joints:
        rough = coarse_hull(body)
        fair_clip, exact_clip = (
            (lambda up, d: wet(made_hulls(body)[0], up, d)),
            (lambda up, d: wet(made_hulls(body)[1], up, d)),
        )
        return Vessel(_clip_of(rough), fair_clip, exact_clip, body.length_mm, reach, body.skin is None)
    quick, fair, scout = _clip_of(coarse_hull(body)), fine_hulls(body, 18), _clip_of(scout_hull(body))
    fair_clip, exact_clip = (
        (lambda up, d: _richardson(*fair, up, d)),
        (lambda up, d: _richardson(*fine_hulls(body), up, d)),
    )
    return Vessel(quick, fair_clip, exact_clip, body.length_mm, reach, True, scout)


def vessel_of_mesh(mesh: Mesh) -> Vessel:
    """A closed mesh as a vessel; exact for that polyhedron."""
    return vessel_of_hull(hull_of(mesh))


def vessel_of_hull(hull: Hull) -> Vessel:
    """A prepared hull as a vessel."""
    clip = _clip_of(hull)
    return Vessel(
        clip,
        clip,
        clip,
        float(np.ptp(hull.vertices, axis=0).max()),
        lambda way: float((hull.vertices @ way).max()),
    )


def _clip_of(hull: Hull) -> Clip:
    return lambda up, d: wet(hull, up, d)


def _richardson(coarse: Hull, fine: Hull, up: Array, d: float) -> Wet:
    c, f = wet(coarse, up, d), wet(fine, up, d)
    return Wet(
        (4 * f.volume - c.volume) / 3,
        (4 * f.moment - c.moment) / 3,
        (4 * f.area - c.area) / 3,
        (4 * f.first - c.first) / 3,
        (4 * f.second - c.second) / 3,
    )


@dataclass(frozen=True)
class Floating:
    """A stable floating position: attitude, draft d of the body's origin [mm], energy [g·mm].

    `force_residual` is |ρV − m|/m, `moment_residual` the righting moment over m·L. B is of
    the wet part. `freeboard_mm` is the height of the hull's highest point over the water.
    """

    attitude: Attitude
    draft_mm: float
    energy: float
    b_mm: Point
    force_residual: float
    moment_residual: float
    stable: bool
    freeboard_mm: float
    waterplane_mm2: float
    softest: float


@dataclass(frozen=True)
class ImmersedState:
    """Energy with its gradient and Hessian at (up, d), in the tangent axes (e1, e2, d); wet volume, moment
    and water-plane.
    """

    energy: float
    gradient: Array
    hessian: Array
    volume: float
    moment: Array
    area: float
    first: Array
    second: Array


def body_state(clip: Clip, mass: Budget, water: float, up: Array, d: float) -> ImmersedState:
    """Energy and derivatives; grams and millimetres (ρ in g/mm³)."""
    rho, hull = water / 1000.0, clip(up, d)
    film = 1.0 + mass.film_ml / mass.hull_ml
    volume, moment, area = film * hull.volume, film * hull.moment, film * hull.area
    first, second = film * hull.first, film * hull.second
    e1, e2 = tank_axes(up)
    stored = 0.0
    if mass.outside_ml.size:
        parts, points = _outside(mass, up, d), mass.outside_mm
        x, y, slope, stored = points @ e1, points @ e2, parts.slope, float(parts.stored.sum())
        volume, area = volume + float(parts.volume.sum()), area + float(slope.sum())
        moment = moment + parts.volume @ points
        first = first + np.array([slope @ x, slope @ y])
        second = second + np.array([slope @ (x * x), slope @ (x * y), slope @ (y * y)])
    g = np.array(mass.g_mm)
    pull = mass.mass_g * g - rho * moment
    energy = mass.mass_g * (float(up @ g) - d) - rho * (float(up @ moment) - d * volume - stored)
    gradient = np.array([e1 @ pull, e2 @ pull, rho * volume - mass.mass_g])
    ixx, ixy, iyy = second
    hessian = rho * np.array([[ixx, ixy, -first[0]], [ixy, iyy, -first[1]], [-first[0], -first[1], area]])
    curve = float(pull @ up)
    hessian[0, 0] -= curve
    hessian[1, 1] -= curve
    return ImmersedState(energy, gradient, hessian, volume, moment, area, first, second)


def _drops(mass: Budget) -> tuple[Array, Array]:
    """Equivalent-sphere radius [mm] of each outside part and how far it hangs below its eye [mm]."""
    radius = np.cbrt(mass.outside_ml * 1000.0 * 3.0 / (4.0 * np.pi))
    return radius, HANG_DROP * radius * mass.outside_hangs


@dataclass(frozen=True)
class WetOutside:
    """Outside parts (as spheres) under a plane: wet volume of each [mm³], dV/dd [mm²], and what makes U the
    exact integral for them [g·mm over ρ].
    """

    volume: Array
    slope: Array
    stored: Array


def _outside(mass: Budget, up: Array, d: float) -> WetOutside:
    """With depth s of a sphere's lowest point, ρ∫V ds is its energy; the common terms already count
    −ρV(up·P − d), so the rest is `stored`.
    """
    radius, drop = _drops(mass)
    height = mass.outside_mm @ up - d
    under = drop + radius - height
    depth = np.minimum(np.maximum(under, 0.0), 2.0 * radius)
    volume = np.pi * depth**2 * (3.0 * radius - depth) / 3.0
    beyond = np.maximum(under - 2.0 * radius, 0.0)
    stored = np.pi * (radius * depth**3 / 3.0 - depth**4 / 12.0) + volume * (beyond + height)
    return WetOutside(volume, np.pi * depth * (2.0 * radius - depth), stored)


Known = Sequence[tuple[Array, float]]
"""Rests that were found already: up and draft of each."""


@dataclass(frozen=True)
class Patience:
    """How far the energy is followed: most steps, and the gradient [g·mm, as a share of weight times length]
    that counts as rest.
    """

    steps: int = 60
    tolerance: float = 1e-7


FULL = Patience()


def settle(
    clip: Clip,
    mass: Budget,
    water: float,
    start: tuple[Array, float],
    size_mm: float,
    patience: Patience = FULL,
    known: Known = (),
) -> tuple[Array, float, ImmersedState]:
    """Follow the energy down from a start (up, draft) to rest: Newton with |eigenvalues|, step limit,
    backtracking.

    Where the next step from a bowl leads to a rest that is `known`, it is that one, and nothing more is
    followed.
    """
    scale = np.array([1.0, 1.0, size_mm / 4.0])
    up, d = start
    state = body_state(clip, mass, water, up, d)
    for _ in range(patience.steps):
        gradient = state.gradient * scale
        values, vectors = np.linalg.eigh(state.hessian * np.outer(scale, scale))
        along = vectors.T @ gradient
        weight = mass.mass_g * size_mm
        if float(np.abs(gradient).max()) < patience.tolerance * weight:
            if values[0] > -1e-6 * weight:
                break
            along = along + np.array(
                [-abs(values[0]) * 0.05, 0.0, 0.0]
            )  # leave a saddle by its downhill axis
        step = -vectors @ (along / np.maximum(np.abs(values), 1e-4 * weight))
        step *= min(1.0, 0.35 / max(float(np.abs(step).max()), 1e-12))
        if known and values[0] > BOWL * weight:
            there = _known_at(known, up, d, step * scale, size_mm)
            if there is not None:
                return *there, state
        up, d, state, moved = _descend(clip, mass, water, up, d, step * scale, state)
        if not moved:
            break
    return up, d, state


BOWL = 2e-3
"""Stiffness, over weight × length, of a bowl whose bottom one step of Newton's finds."""
ALIKE, ALIKE_DRAFT = 0.9994, 0.01
"""Rests nearer than this (cosine between their ups, share of the length between their drafts) are one
while searching.
"""


def _known_at(known: Known, up: Array, d: float, step: Array, size_mm: float) -> tuple[Array, float] | None:
    e1, e2 = tank_axes(up)
    turned = up + step[0] * e1 + step[1] * e2
    turned = turned / np.sqrt(turned @ turned)
    near = (
        (to, draft)
        for to, draft in known
        if float(turned @ to) > ALIKE and abs(d + step[2] - draft) < ALIKE_DRAFT * size_mm
    )
    return next(near, None)


def _descend(
    clip: Clip, mass: Budget, water: float, up: Array, d: float, step: Array, before: ImmersedState
) -> tuple[Array, float, ImmersedState, bool]:
    e1, e2 = tank_axes(up)
    room = 1e-12 * abs(before.energy) + 1e-12
    for _ in range(12):
        turned = up + step[0] * e1 + step[1] * e2
        turned = turned / np.sqrt(turned @ turned)
        after = body_state(clip, mass, water, turned, d + step[2])
        if after.energy <= before.energy + room:
            return turned, float(d + step[2]), after, True
        step = step / 2.0
    return up, d, before, False


def draft_for(vessel: Vessel, mass: Budget, water: float, up: Array) -> float:
    """A draft that carries the weight at this direction to a sixteenth: guarded Newton, dV/dd being the
    water-plane's area.
    """
    clip, (low, high) = vessel.searching, vessel.heights(up)
    film, outside = 1.0 + mass.film_ml / mass.hull_ml, mass.outside_ml.size > 0
    wanted, d = mass.mass_g * 1000.0 / water, (low + high) / 2
    for _ in range(12):
        hull = clip(up, d)
        short = wanted - film * hull.volume - (float(_outside(mass, up, d).volume.sum()) if outside else 0.0)
        if abs(short) < NEAR_ENOUGH * wanted:
            break
        low, high = (d, high) if short > 0 else (low, d)
        step = d + short / max(film * hull.area, 1e-6)
        d = step if low < step < high else (low + high) / 2
    return d


NEAR_ENOUGH = 0.06
"""How near the first draft must come, as a share of the weight: it is only where the search begins."""


def position(vessel: Vessel, mass: Budget, up: Array, d: float, state: ImmersedState) -> Floating:
    """The floating position a settled state stands for."""
    size = vessel.length_mm
    turning = float(np.abs(state.gradient[:2]).max()) / (mass.mass_g * size)
    scale = np.array([1.0, 1.0, size / 4.0])
    softest = float(np.linalg.eigvalsh(state.hessian * np.outer(scale, scale))[0]) / (mass.mass_g * size)
    b = state.moment / state.volume
    return Floating(
        attitude_of(up),
        d,
        state.energy,
        (float(b[0]), float(b[1]), float(b[2])),
        abs(state.gradient[2]) / mass.mass_g,
        turning,
        softest > -NEUTRAL,
        vessel.reach(up) - d,
        state.area,
        softest,
    )


def floats(mass: Budget, water_g_cm3: float) -> bool:
    """Whether the design can carry its own mass at all."""
    return water_g_cm3 * mass.displaced_ml > mass.mass_g


def float_drag(
    vessel: Vessel,
    mass: Budget,
    water_g_cm3: float,
    near: Attitude | None = None,
    draft_mm: float | None = None,
) -> Floating | None:
    """The floating branch being watched: coarse volume-true mesh, warm start. For dragging only. None if
    it sinks.
    """
    if not floats(mass, water_g_cm3):
        return None
    up = (near or Attitude(0.0, 0.05)).up
    d = draft_mm if draft_mm is not None else draft_for(vessel, mass, water_g_cm3, up)
    up, d, state = settle(vessel.quick, mass, water_g_cm3, (up, d), vessel.length_mm, Patience(25, 1e-5))
    return position(vessel, mass, up, d, state)


def float_settled(vessel: Vessel, mass: Budget, water_g_cm3: float) -> tuple[Floating, ...]:
    """All stable floating positions at full accuracy, the one reached from upright first.

    The rest follow by energy, the deepest first. Empty if the design sinks. What is even to both sides is
    sought on one side only: each rest there has its mirror image.
    """
    if not floats(mass, water_g_cm3):
        return ()
    even = vessel.even and is_even(mass)
    rests: list[tuple[Array, float]] = []
    for start in _starts():
        if even and start[1] > 0:
            continue
        d = draft_for(vessel, mass, water_g_cm3, start)
        known = [*rests, *((up * MIRROR, d) for up, d in rests)] if even else rests
        up, d, _ = settle(
            vessel.searching,
            mass,
            water_g_cm3,
            (start, d),
            vessel.length_mm,
            Patience(40, 1e-5),
            known,
        )
        if all(float(up @ other) < ALIKE for other, _ in known):
            rests.append((up, d))
    polished: list[Floating] = []
    for up, d in rests:
        up, d, state = settle(vessel.exact, mass, water_g_cm3, (up, d), vessel.length_mm)
        place = position(vessel, mass, up, d, state)
        for one in (place, _mirrored(place)) if even else (place,):
            if one.stable and not any(_same(one, other) for other in polished):
                polished.append(one)
    return (*polished[:1], *sorted(polished[1:], key=lambda p: p.energy))


MIRROR = np.array([1.0, -1.0, 1.0])


def is_even(mass: Budget) -> bool:
    """Whether mass and outside parts are the same to both sides: G on the middle plane, every part with
    its mirror image.
    """
    if abs(mass.g_mm[1]) > 1e-9:
        return False
    rows = (
        np.column_stack([mass.outside_mm, mass.outside_ml, mass.outside_hangs])
        if mass.outside_ml.size
        else np.zeros((0, 5))
    )
    other = rows * np.array([1.0, -1.0, 1.0, 1.0, 1.0])
    return bool(np.allclose(_in_order(rows), _in_order(other), atol=1e-9))


def _in_order(rows: Array) -> Array:
    rounded = np.round(rows, 6) + 0.0
    return rows[np.lexsort(rounded.T)]


def _mirrored(place: Floating) -> Floating:
    x, y, z = place.b_mm
    return replace(place, attitude=attitude_of(place.attitude.up * MIRROR), b_mm=(x, -y, z))


NEUTRAL, FREE = 1e-6, 5e-4
"""Stiffness (over weight × length) that is none at all, and below which a body in effect turns freely about
an axis: a body of revolution rolls, but for the facets of its mesh."""


def _same(one: Floating, other: Floating) -> bool:
    """The same position, or another of one family through which the body turns freely."""
    if float(one.attitude.up @ other.attitude.up) > 0.9999:
        return True
    alike = (
        abs(one.attitude.pitch_deg - other.attitude.pitch_deg) < 0.2
        and abs(one.draft_mm - other.draft_mm) < 0.05
    )
    return alike and one.softest < FREE and other.softest < FREE


def _starts() -> Iterable[Array]:
    """Upright first, then round the roll circle, then directions spread over the sphere."""
    yield Attitude(0.0, 0.5).up
    for roll in np.arange(0.0, 360.0, 22.5):
        yield Attitude(0.7, float(roll) + 1.3).up
    count = 14
    for k in range(count):
        height = 1.0 - (2.0 * k + 1.0) / count
        turn = k * np.pi * (3.0 - 5.0**0.5)
        across = (1.0 - height**2) ** 0.5
        yield np.array([height, across * np.cos(turn), across * np.sin(turn)])
