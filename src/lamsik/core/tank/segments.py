"""Each segment of a jointed body by itself, and the chain they make at the surface.

Segments on a pin or a printed hinge pitch as one group; groups on linked eyelets pitch freely and carry each other
at the hinge, which takes any force and no moment.
"""

from dataclasses import dataclass, replace

import numpy as np
from scipy.optimize import minimize

from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Array
from lamsik.core.shapes.design import Design
from lamsik.core.shapes.polyhedra import joined, measures, segment_meshes
from lamsik.core.shapes.solid import Segment, segment_at, segments
from lamsik.core.tank.attitude import Attitude, Hanging, immersed
from lamsik.core.tank.floating import Floating, body_state, draft_for, float_drag, vessel_of_hull
from lamsik.core.tank.immersion import Hull, hull_of
from lamsik.core.tank.mass import SIZE, Budget, summed
from lamsik.core.tank.motion import Bands
from lamsik.core.tank.parts import Part
from lamsik.core.tank.verdict import Verdict, verdict

FINE = (28, 24)
"""Stations and points round of the segments' meshes; their volume is set true."""


@dataclass(frozen=True)
class Group:
    """Segments that pitch as one: their keys, budget, rest under water and at the surface, verdict."""

    keys: tuple[str, ...]
    volume_ml: float
    budget: Budget
    hanging: Hanging
    surface: tuple[Floating, ...]
    verdict: Verdict
    chain_pitch_deg: float | None = None

    @property
    def name(self) -> str:
        """`segment 1` or `segments 1 and 2`."""
        numbers = [key[1:] for key in self.keys]
        return f"segment {numbers[0]}" if len(numbers) == 1 else f"segments {', '.join(numbers[:-1])} and {numbers[-1]}"


def pitch_groups(body: Body) -> tuple[tuple[Segment, ...], ...]:
    """The segments gathered into groups that pitch as one, from the nose."""
    found: list[list[Segment]] = [[]]
    for segment, joint in zip(segments(body), (*body.joints, None), strict=True):
        found[-1].append(segment)
        if joint is not None and not joint.shares_pitch:
            found.append([])
    return tuple(tuple(group) for group in found)


def group_verdicts(design: Design, mass: Budget, drag: float, bands: Bands) -> tuple[Group, ...]:
    """Every group of a jointed design by itself in its water, and its pitch in the chain; empty without joints."""
    if not design.body.joints:
        return ()
    made = pitch_groups(design.body)
    hulls = _hulls(design.body, made)
    shares = _Shares.of(design)
    found = tuple(_group(design, mass, group, hull, shares, drag, bands) for group, hull in zip(made, hulls, strict=True))
    pitches = chain_pitches(design, found, hulls)
    return tuple(replace(group, chain_pitch_deg=pitch) for group, pitch in zip(found, pitches, strict=True))


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
        found = [measures(mesh) for mesh in segment_meshes(body, *FINE)]
        area = sum(row.area_mm2 for row in found)
        keys = [part.key for part in parts]
        return _Shares(
            {part.key: part.volume_mm3 / whole for part in parts},
            {key: row.area_mm2 / area for key, row in zip(keys, found, strict=True)},
            {key: row.area_centroid_mm for key, row in zip(keys, found, strict=True)},
        )


def _group(design: Design, mass: Budget, group: tuple[Segment, ...], hull: Hull, shares: _Shares, drag: float, bands: Bands) -> Group:
    rows = [row for segment in group for part in mass.parts if (row := part_in(design, part, segment, shares))]
    volume = sum(segment.volume_ml for segment in group)
    budget = summed(rows, volume, mass.host_density_g_cm3)
    centre = np.sum([s.volume_mm3 * np.array(s.centroid_mm) for s in group], axis=0) / (volume * 1000.0)
    rho = design.water.density_g_cm3
    hanging = immersed((float(centre[0]), float(centre[1]), float(centre[2])), budget, rho)
    floating = float_drag(vessel_of_hull(hull), budget, rho)
    surface = (floating,) if floating else ()
    area = float(np.abs(hull.area_vectors @ hanging.free.up).sum()) / 2.0
    says = verdict(hanging.net_g, budget.mass_g, area, design.water, hanging.free, surface[0] if surface else None, drag, bands)
    return Group(tuple(s.key for s in group), volume, budget, hanging, surface, says)


def part_in(design: Design, part: Part, segment: Segment, shares: _Shares) -> Part | None:
    """What of a part belongs to a segment: the body by its volume, coats by skin, glue by volume, all else by its place."""
    key = segment.key
    if part.key == "host":
        return replace(part, mass_g=part.mass_g * shares.volume[key], at_mm=segment.centroid_mm)
    if part.film_ml > 0 or part.key == SIZE:
        return replace(part, mass_g=part.mass_g * shares.skin[key], film_ml=part.film_ml * shares.skin[key], at_mm=shares.skin_at[key])
    if part.pieces:
        return _piece(part, key)
    if part.key == "glue":
        return replace(part, mass_g=part.mass_g * shares.volume[key], at_mm=segment.centroid_mm)
    at = part.key.split(":")[1] if part.key.startswith("segment:") else segment_at(design.body, part.at_mm[0], part.at_mm[2])
    return part if at == key else None


def _piece(part: Part, key: str) -> Part | None:
    """What of something that takes room lies in a segment."""
    whole = sum(piece.volume_mm3 for piece in part.pieces)
    mine = next((piece for piece in part.pieces if piece.segment == key), None)
    return replace(part, mass_g=part.mass_g * mine.volume_mm3 / whole, at_mm=mine.at_mm) if mine else None


def chain_pitches(design: Design, groups: tuple[Group, ...], hulls: tuple[Hull, ...]) -> tuple[float | None, ...]:
    """Pitch [°] of each group as a chain afloat, hinged where the linked joints cross the axis; None where it sinks.

    Notes: the energy of floating, summed over the groups, is least; each group's draft follows from the hinge before it.
    """
    rho = design.water.density_g_cm3
    if len(groups) < 2 or sum(g.hanging.net_g for g in groups) <= 0:
        return tuple(None for _ in groups)
    hinges = [np.array([joint.x_mm, 0.0, 0.0]) for joint in design.body.joints if not joint.shares_pitch]
    vessels = [vessel_of_hull(hull) for hull in hulls]
    length = design.body.length_mm

    def energy(state: Array) -> float:
        total, draft, up = 0.0, 0.0, np.zeros(3)
        for at, (group, vessel) in enumerate(zip(groups, vessels, strict=True)):
            before, up = up, Attitude(float(np.degrees(state[1 + at])), 0.0).up
            draft = float(state[0]) * length if at == 0 else float(up @ hinges[at - 1]) - (float(before @ hinges[at - 1]) - draft)
            total += body_state(vessel.quick, group.budget, rho, up, draft).energy
        return total

    first = draft_for(vessels[0], groups[0].budget, rho, Attitude(0.0, 0.0).up) if groups[0].hanging.net_g > 0 else 0.0
    weight = sum(g.budget.mass_g for g in groups) * length
    best = minimize(lambda s: energy(s) / weight, np.array([first / length, *np.zeros(len(groups))]), method="BFGS", options={"gtol": 1e-6, "maxiter": 120})
    return tuple(float(np.degrees(p)) for p in best.x[1:])
