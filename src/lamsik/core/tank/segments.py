"""Each segment of a jointed body by itself, and the chain they make at the surface.

Segments on a pin or a printed hinge pitch as one group; groups on linked eyelets pitch freely and carry each
other at the hinge, which takes any force and no moment.
"""

from dataclasses import dataclass, replace

import numpy as np
from scipy.optimize import minimize

from lamsik.core.shapes.body import Body, axis_mm
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.polyhedra import joined, measures, segment_meshes
from lamsik.core.shapes.solid import Segment, segment_at, segments
from lamsik.core.tank.attitude import Attitude, Hanging, attitude_of, immersed
from lamsik.core.tank.floating import Floating, Vessel, body_state, draft_for, float_drag, vessel_of_hull
from lamsik.core.tank.immersion import Hull, hull_of, tank_axes
from lamsik.core.tank.mass import SIZE, Budget, summed
from lamsik.core.tank.motion import Bands
from lamsik.core.tank.parts import Part
from lamsik.core.tank.verdict import Front, Verdict, verdict

FINE = (64, 48)
"""Stations and points round of the segments' meshes; their volume is set true."""


@dataclass(frozen=True)
class Group:
    """Segments that pitch as one: their keys, budget, rest under water and at the surface, verdict; how
    they lie in the chain afloat.
    """

    keys: tuple[str, ...]
    volume_ml: float
    budget: Budget
    hanging: Hanging
    surface: tuple[Floating, ...]
    verdict: Verdict
    chained: Attitude | None = None

    @property
    def name(self) -> str:
        """`segment 1` or `segments 1 and 2`."""
        numbers = [key[1:] for key in self.keys]
        return (
            f"segment {numbers[0]}"
            if len(numbers) == 1
            else f"segments {', '.join(numbers[:-1])} and {numbers[-1]}"
        )


def pitch_groups(body: Body) -> tuple[tuple[Segment, ...], ...]:
    """The segments gathered into groups that pitch as one, from the nose."""
    groups: list[list[Segment]] = [[]]
    for segment, joint in zip(segments(body), (*body.joints, None), strict=True):
        groups[-1].append(segment)
        if joint is not None and not joint.shares_pitch:
            groups.append([])
    return tuple(tuple(group) for group in groups)


def group_verdicts(design: Design, mass: Budget, drag: float, bands: Bands) -> tuple[Group, ...]:
    """Every group of a jointed design by itself in its water, and its pitch in the chain; empty without
    joints.
    """
    if not design.body.joints:
        return ()
    grouped = pitch_groups(design.body)
    hulls = _hulls(design.body, grouped)
    shares = _Shares.of(design)
    verdicts = tuple(
        _group(design, mass, group, hull, shares, drag, bands)
        for group, hull in zip(grouped, hulls, strict=True)
    )
    rests = chain_rests(design, verdicts, hulls)
    return tuple(replace(group, chained=rest) for group, rest in zip(verdicts, rests, strict=True))


def _hulls(body: Body, groups: tuple[tuple[Segment, ...], ...]) -> tuple[Hull, ...]:
    meshes, rows, start = segment_meshes(body, *FINE), [], 0
    for group in groups:
        mine = meshes[start : start + len(group)]
        start += len(group)
        rows.append(hull_of(joined(mine), sum(s.volume_mm3 for s in group)))
    return tuple(rows)


@dataclass(frozen=True)
class _Shares:
    """What share of the body's volume and skin each segment has, and where its skin's middle is."""

    volume: dict[str, float]
    skin: dict[str, float]
    skin_at: dict[str, tuple[float, float, float]]

    @staticmethod
    def of(design: Design) -> "_Shares":
        body = design.body
        parts = segments(body)
        whole = sum(part.volume_mm3 for part in parts)
        measured = [measures(mesh) for mesh in segment_meshes(body, *FINE)]
        area = sum(row.area_mm2 for row in measured)
        keys = [part.key for part in parts]
        return _Shares(
            {part.key: part.volume_mm3 / whole for part in parts},
            {key: row.area_mm2 / area for key, row in zip(keys, measured, strict=True)},
            {key: row.area_centroid_mm for key, row in zip(keys, measured, strict=True)},
        )


def _group(
    design: Design,
    mass: Budget,
    group: tuple[Segment, ...],
    hull: Hull,
    shares: _Shares,
    drag: float,
    bands: Bands,
) -> Group:
    rows = [
        row for segment in group for part in mass.parts if (row := part_in(design, part, segment, shares))
    ]
    volume = sum(segment.volume_ml for segment in group)
    budget = summed(rows, volume, mass.host_density_g_cm3)
    centre = np.sum([s.volume_mm3 * np.array(s.centroid_mm) for s in group], axis=0) / (volume * 1000.0)
    rho = design.water.density_g_cm3
    hanging = immersed((float(centre[0]), float(centre[1]), float(centre[2])), budget, rho)
    floating = float_drag(vessel_of_hull(hull), budget, rho)
    surface = (floating,) if floating else ()
    area = float(np.abs(hull.area_vectors @ hanging.free.up).sum()) / 2.0
    says = verdict(
        hanging.net_g,
        budget.mass_g,
        Front(area, drag),
        design.water,
        hanging.free,
        surface[0] if surface else None,
        bands,
    )
    return Group(tuple(s.key for s in group), volume, budget, hanging, surface, says)


def part_in(design: Design, part: Part, segment: Segment, shares: _Shares) -> Part | None:
    """What of a part belongs to a segment: the body by its volume, coats by skin, glue by volume, all else
    by its place.
    """
    key = segment.key
    if part.key == "host":
        return replace(part, mass_g=part.mass_g * shares.volume[key], at_mm=segment.centroid_mm)
    if part.pieces and part.film_ml > 0:
        mine = _piece(part, key)
        return mine and replace(mine, film_ml=part.film_ml * mine.mass_g / part.mass_g)
    if part.film_ml > 0 or part.key == SIZE:
        return replace(
            part,
            mass_g=part.mass_g * shares.skin[key],
            film_ml=part.film_ml * shares.skin[key],
            at_mm=(shares.skin_at[key][0], part.at_mm[1], shares.skin_at[key][2]),
        )
    if part.pieces:
        return _piece(part, key)
    if part.key == "glue":
        return replace(part, mass_g=part.mass_g * shares.volume[key], at_mm=segment.centroid_mm)
    at = (
        part.key.split(":")[1]
        if part.key.startswith("segment:")
        else segment_at(design.body, part.at_mm[0], part.at_mm[2])
    )
    return part if at == key else None


def _piece(part: Part, key: str) -> Part | None:
    """What of something that takes room lies in a segment."""
    whole = sum(piece.volume_mm3 for piece in part.pieces)
    mine = next((piece for piece in part.pieces if piece.segment == key), None)
    return replace(part, mass_g=part.mass_g * mine.volume_mm3 / whole, at_mm=mine.at_mm) if mine else None


def chain_rests(
    design: Design, groups: tuple[Group, ...], hulls: tuple[Hull, ...]
) -> tuple[Attitude | None, ...]:
    """How each group lies as a chain afloat, hinged where the linked joints cross the axis; None where the
    chain sinks.

    Notes: the energy of floating, summed over the groups, is least over the first draft and each group's
        pitch and roll; each group's draft follows from the hinge before it. Linked eyelets leave pitch and
        roll free. It is let go a little off upright, so that it rolls where it would; of the rests reached
        so, and from each group's own, the one from upright counts unless another lies lower by more than a
        hundredth of a millimetre of its height.
    """
    rho = design.water.density_g_cm3
    if len(groups) < 2 or sum(g.hanging.net_g for g in groups) <= 0:
        return tuple(None for _ in groups)
    chain = _Chain(
        groups,
        tuple(vessel_of_hull(hull) for hull in hulls),
        [np.array([j.x_mm, 0.0, axis_mm(design.body)]) for j in design.body.joints if not j.shares_pitch],
        rho,
        design.body.length_mm,
    )
    first = (
        draft_for(chain.vessels[0], groups[0].budget, rho, Attitude(0.0, 0.0).up)
        if groups[0].hanging.net_g > 0
        else 0.0
    )
    start = first / chain.length_mm
    own = [g.surface[0].attitude if g.surface else g.hanging.free for g in groups]
    begun = [
        np.array([start, *(v for _ in groups for v in (0.0, np.radians(0.6)))]),
        np.array([start, *(v for a in own for v in (np.radians(a.pitch_deg), np.radians(a.roll_deg)))]),
    ]
    solved = [
        minimize(chain.energy, state, jac=True, method="BFGS", options={"gtol": 1e-6, "maxiter": 150})
        for state in begun
    ]
    best = (
        solved[0]
        if solved[0].fun <= min(row.fun for row in solved) + LOWER_SHARE
        else min(solved, key=lambda row: row.fun)
    )
    return tuple(
        attitude_of(Attitude(*np.degrees(best.x[1 + 2 * n : 3 + 2 * n]).tolist()).up)
        for n in range(len(groups))
    )


LOWER_SHARE = 1e-4
"""By so much of weight × length another rest has to lie lower to count instead of the one reached from
upright.
"""


@dataclass(frozen=True, eq=False)
class _Chain:
    """Groups afloat, each hinged to the one before: the state is the first draft over the length, and each
    group's pitch and roll [rad].
    """

    groups: tuple[Group, ...]
    vessels: tuple[Vessel, ...]
    hinges: list[Array]
    water_g_cm3: float
    length_mm: float

    def energy(self, state: Array) -> tuple[float, Array]:
        """Energy over weight × length, and its gradient."""
        weight = sum(group.budget.mass_g for group in self.groups) * self.length_mm
        total, slope = 0.0, np.zeros(len(state))
        draft, by_state = float(state[0]) * self.length_mm, np.zeros(len(state))
        by_state[0] = self.length_mm
        up, turned = np.zeros(3), np.zeros((2, 3))
        for n, (group, vessel) in enumerate(zip(self.groups, self.vessels, strict=True)):
            at = slice(1 + 2 * n, 3 + 2 * n)
            before, before_turned = up, turned
            up, turned = _up(*state[at])
            if n:
                hinge, last = self.hinges[n - 1], slice(2 * n - 1, 2 * n + 1)
                draft = float(up @ hinge) - (float(before @ hinge) - draft)
                by_state = by_state.copy()
                by_state[last] -= before_turned @ hinge
                by_state[at] += turned @ hinge
            here = body_state(vessel.quick, group.budget, self.water_g_cm3, up, draft)
            e1, e2 = tank_axes(up)
            total += here.energy
            slope += here.gradient[2] * by_state
            slope[at] += turned @ (here.gradient[0] * e1 + here.gradient[1] * e2)
        return total / weight, slope / weight


def _up(pitch: float, roll: float) -> tuple[Array, Array]:
    """Up in the body frame, and its derivatives by pitch and roll (2, 3)."""
    (cp, sp), (cr, sr) = (np.cos(pitch), np.sin(pitch)), (np.cos(roll), np.sin(roll))
    return np.array([-sp, -sr * cp, cr * cp]), np.array([[-cp, sr * sp, -cr * sp], [0.0, -cr * cp, -sr * cp]])
