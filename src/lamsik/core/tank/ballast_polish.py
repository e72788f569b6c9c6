"""Good ballast made better by hand's steps: holes moved, cut longer or shorter, made with other stock,
split in two.
"""

from collections.abc import Iterable, Iterator
from dataclasses import replace
from itertools import combinations

import numpy as np

from lamsik.core.tank.ballast_spots import Candidate, ErrorScale, Found, Spot, apart_mm, fits, off_by, offs_of
from lamsik.core.tank.ballast_tool import Tool

GOOD = 0.3
"""Nearer than this needs no polish: a hundredth of a gram and a tenth of a degree."""

LOOKED_AT = 30
"""So many neighbours of a candidate, the nearest, are looked at until one can be drilled."""


def polished(scale: ErrorScale, candidate: Candidate, off: float, rounds: int = 25) -> Found:
    """The candidate moved and cut by single steps while that brings it nearer."""
    for _ in range(rounds):
        if off < GOOD:
            break
        best = min(_moves(scale, candidate), key=lambda row: row[0], default=(np.inf, candidate))
        if best[0] >= off - 1e-6:
            return off, candidate
        off, candidate = best
    return off, candidate


def _moves(scale: ErrorScale, candidate: Candidate) -> Iterable[tuple[float, Candidate]]:
    """Neighbours that can be drilled, the most promising looked at: holes moved, a step cut off or added,
    a step from one to another.
    """
    changes = [*_single_moves(candidate), *_paired_moves(candidate)]
    if not changes:
        return []
    ranked = sorted(zip(offs_of(scale, changes), changes, strict=True), key=lambda row: row[0])
    return next(([row] for row in ranked[:LOOKED_AT] if fits(row[1])), [])


def _single_moves(candidate: Candidate) -> Iterator[Candidate]:
    """One hole moved, or a step cut off or added and the hole moved with it."""
    step_mm = candidate[0].tool.bench.place_step_mm
    for n, spot in enumerate(candidate):
        for far in (0.5, 1.0, 2.0, 5.0):
            for way in (-1, 1):
                yield _with(candidate, n, replace(spot, x_mm=spot.x_mm + way * far * step_mm / 0.5))
        for steps in (-4, -2, -1, 1, 2, 4):
            mass = spot.mass_g + steps * spot.tool.step_g
            if mass > 1e-9:
                for far in (0, -4, -2, -1, 1, 2, 4):
                    yield _with(candidate, n, replace(spot, mass_g=mass, x_mm=spot.x_mm + far * step_mm))


def _paired_moves(candidate: Candidate) -> Iterator[Candidate]:
    """Mass given from one hole to another; two holes moved apart or together."""
    for (i, one), (j, other) in combinations(enumerate(candidate), 2):
        for way in (-3, -1, 1, 3):
            give = replace(one, mass_g=one.mass_g - way * one.tool.step_g)
            take = replace(other, mass_g=other.mass_g + way * other.tool.step_g)
            if give.mass_g > 1e-9 and take.mass_g > 1e-9:
                yield _with(_with(candidate, i, give), j, take)
        for far in (0.5, 1.0):
            for way in (-1, 1):
                near = replace(one, x_mm=one.x_mm + way * far)
                away = replace(other, x_mm=other.x_mm - way * far)
                yield _with(_with(candidate, i, near), j, away)


def _with(candidate: Candidate, n: int, spot: Spot) -> Candidate:
    return (*candidate[:n], spot, *candidate[n + 1 :])


def mixed(scale: ErrorScale, candidate: Candidate, tools: list[Tool]) -> Iterator[Candidate]:
    """One of its holes with another metal or drill, cut so that the net lift is kept as nearly as can be."""
    for n, spot in enumerate(candidate):
        rest = sum(
            float(other.tool.gain_g(np.array([other.mass_g]))[0])
            for k, other in enumerate(candidate)
            if k != n
        )
        trials = []
        for tool in tools:
            if tool is spot.tool:
                continue
            mass = float(tool.mass_for(np.array([scale.needed_g - rest]))[0])
            changed = _with(candidate, n, Spot(tool, spot.x_mm, mass))
            trials.append((off_by(scale, changed), changed))
        for _, changed in sorted(trials, key=lambda row: row[0])[:2]:
            if fits(changed):
                yield changed


def split(scale: ErrorScale, candidate: Candidate) -> Iterator[Candidate]:
    """Its heaviest hole in two beside each other, where there is room: more metal, lower down."""
    n, spot = max(enumerate(candidate), key=lambda row: row[1].mass_g)
    gap = apart_mm(spot.tool.drill_mm, spot.tool.drill_mm, spot.tool.bench)
    steps = round(spot.mass_g / spot.tool.step_g)
    if steps < 2:
        return
    for less in (steps // 2, steps - 1, 1):
        for side in (-1, 1):
            pair = (
                replace(spot, mass_g=(steps - less) * spot.tool.step_g),
                replace(spot, x_mm=spot.x_mm + side * np.ceil(2 * gap) / 2, mass_g=less * spot.tool.step_g),
            )
            changed = (*candidate[:n], *pair, *candidate[n + 1 :])
            if fits(changed):
                yield changed
