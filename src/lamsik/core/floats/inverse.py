"""From a load to a size: which body length, diameter or loading carries what is wanted; what a dowel's
density, size and sanding do.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from scipy.optimize import brentq

from lamsik.core.errors import Allowed, Refused, finite_between, require, rule
from lamsik.core.findings import Finding, finding
from lamsik.core.floats.design import Float, own_mass_g
from lamsik.core.floats.parts import FloatPart, profile
from lamsik.core.floats.rating import capacity_g
from lamsik.core.materials import body_material
from lamsik.core.quantities import plainly

LEAST_WALL_MM = 0.8
SANDING_MM = 0.1
NEAR_EQUAL = 0.07
"""Dowels whose diameters differ by less than this share are easily taken for each other."""


def main_body(design: Float) -> FloatPart:
    """The part that carries: its largest body. Raises `Refused` if it has none."""
    bodies = [part for part in design.parts if part.kind == "body" and not part.inside]
    if not bodies:
        raise Refused("parts", "no body", rule("float-needs"))
    return max(bodies, key=lambda part: part.length_mm * part.diameter_mm**2)


def resized(
    design: Float,
    length_mm: float | None = None,
    diameter_mm: float | None = None,
    density_g_cm3: float | None = None,
) -> Float:
    """The float with its main body at another length, diameter or density, the profile's shape kept.

    What stands over it moves up or down, a stem through it is as much longer.
    """
    body = main_body(design)
    density = density_g_cm3 or body.density_g_cm3
    long = length_mm or body.length_mm
    new = replace(
        body,
        length_mm=long,
        wall_mm=min(body.wall_mm, 0.9 * long),
        diameter_mm=diameter_mm or body.diameter_mm,
        density_g_cm3=density,
        mass_g=None,
    )
    shift, edge = new.length_mm - body.length_mm, body.top_mm - 1e-6

    def moved(part: FloatPart) -> FloatPart:
        if part.key == body.key:
            return new
        if part.foot_mm >= edge:
            return replace(part, foot_mm=part.foot_mm + shift)
        if part.top_mm > edge:
            return replace(part, length_mm=max(part.length_mm + shift, 0.5))
        return part

    marks = tuple(
        replace(mark, height_mm=carried_mm(mark.height_mm, body, new.length_mm)) for mark in design.marks
    )
    return replace(design, parts=tuple(moved(part) for part in design.parts), marks=marks)


def carried_mm(height_mm: float, part: FloatPart, length_mm: float) -> float:
    """Where a height goes when a part gets another length: over it up or down with it, on it in
    proportion, under it not at all.
    """
    if height_mm >= part.top_mm - 1e-6:
        return height_mm + length_mm - part.length_mm
    if height_mm > part.foot_mm:
        return part.foot_mm + (height_mm - part.foot_mm) * length_mm / part.length_mm
    return height_mm


def wall_at_foot_mm(part: FloatPart, bore_mm: float) -> float:
    """Material left round a bore at the foot of a body [mm]."""
    return float(profile(part)[1][0]) - bore_mm / 2


def protrusion_mm(part: FloatPart, bore_mm: float, wall_mm: float = LEAST_WALL_MM) -> float:
    """How far the stem must stand out of the drawn foot, so that the wall round the bore is thick enough
    where the body begins [mm].

    Raises:
        Refused: it is thick enough nowhere.
    """
    z, r = profile(part)
    fine = np.linspace(0.0, part.length_mm, 801)
    good = np.interp(fine, z, r) - bore_mm / 2 >= wall_mm - 1e-9
    if not good.any():
        raise Refused(
            "bore",
            plainly(bore_mm, "length"),
            rule("smaller-body", diameter_mm=part.diameter_mm, wall_mm=wall_mm),
        )
    return float(fine[int(np.argmax(good))])


def check_foot(design: Float, wall_mm: float = LEAST_WALL_MM) -> None:
    """Refuse a stem's bore that leaves too little wall at the body's foot, saying the protrusion that
    helps.
    """
    body = main_body(design)
    stem = max(
        (
            part.diameter_mm
            for part in design.parts
            if part.kind in ("stem", "antenna") and part.foot_mm <= body.foot_mm + 1e-6 < part.top_mm
        ),
        default=0.0,
    )
    bore = stem or (body.bore_mm if body.form == "cylinder" and not body.wall_mm else 0.0)
    if bore and wall_at_foot_mm(body, bore) < wall_mm - 1e-9:
        need = protrusion_mm(body, bore, wall_mm)
        raise Refused(
            "bore",
            plainly(bore, "length"),
            rule("foot-leaves", max=max(wall_at_foot_mm(body, bore), 0), need=need),
        )


LENGTH, DIAMETER, LOADING = "length", "diameter", "loading"


def sized(design: Float, wanted_g: float, by: str = LENGTH, low: float = 8.0, high: float = 400.0) -> Float:
    """The float that carries the wanted pull at its wanted mark.

    Args:
        design: where to begin; its shape is kept.
        wanted_g: pull on the line [g].
        by: what may change: length, diameter or loading.
        low, high: bounds of the length [mm]; diameters and loadings have bounds of their own.

    Raises:
        Refused: no size within the bounds does it, saying what the bounds give.
    """
    finite_between("load", wanted_g, 0.05, 500.0, "g")
    require(
        by in (LENGTH, DIAMETER, LOADING),
        "by",
        by,
        rule("inverse-25", length=LENGTH, diameter=DIAMETER, loading=LOADING),
    )

    def made(value: float) -> Float:
        if by == LOADING:
            return loaded(design, value)
        return resized(design, length_mm=value) if by == LENGTH else resized(design, diameter_mm=value)

    def off(value: float) -> float:
        sized_so = made(value)
        return capacity_g(sized_so, sized_so.mark(sized_so.wanted_mark).height_mm) - wanted_g

    if by == DIAMETER:
        low, high = (
            max(
                2.0,
                max(
                    (part.diameter_mm for part in design.parts if part.kind in ("stem", "antenna")),
                    default=0.0,
                )
                + 1.0,
            ),
            60.0,
        )
    if by == LOADING:
        low, high = 0.0, 200.0
    ends = off(low), off(high)
    if ends[0] * ends[1] > 0:
        gives = sorted(end + wanted_g for end in ends)
        raise Refused(
            "load",
            plainly(wanted_g, "mass"),
            rule("carries-change", by=by, low=low, high=high, value=gives[0], value2=gives[1]),
        )
    guess = low - ends[0] * (high - low) / (ends[1] - ends[0])  # by length it is a straight line
    if by == LENGTH and abs(off(guess)) < 1e-3:
        return made(guess)
    return made(float(brentq(off, low, high, xtol=5e-3)))


def loaded(design: Float, mass: float) -> Float:
    """The float with its loading at another mass [g]. Raises `Refused` if it has none."""
    if not any(part.kind == "loading" for part in design.parts):
        raise Refused("loading", None, rule("loading-yet"))
    first = next(part.key for part in design.parts if part.kind == "loading")
    return replace(
        design,
        parts=tuple(
            replace(part, mass_g=max(mass, 0.0)) if part.key == first else part for part in design.parts
        ),
    )


@dataclass(frozen=True)
class Option:
    """One way to build it: dowel [mm], wood, the float, its length [mm] and mass [g], or why it cannot be."""

    dowel_mm: float
    wood: str
    design: Float | None
    length_mm: float
    mass_g: float
    why: Allowed = ""


def options(
    design: Float, wanted_g: float, dowels_mm: Sequence[float], woods: Sequence[str]
) -> tuple[Option, ...]:
    """The body length for every dowel in stock and every wood, the shortest first; what cannot be says
    why.
    """
    require(bool(dowels_mm) and bool(woods), "dowels", len(dowels_mm), rule("dowel-wood"))
    rows = []
    for wood in woods:
        density = body_material(wood).density_g_cm3
        for dowel in dowels_mm:
            finite_between("dowel", dowel, 1.0, 60.0, "mm")
            try:
                start = resized(design, diameter_mm=dowel, density_g_cm3=density)
                check_foot(start)
                option = sized(start, wanted_g)
                rows.append(Option(dowel, wood, option, main_body(option).length_mm, own_mass_g(option)))
            except Refused as refused:
                rows.append(Option(dowel, wood, None, 0.0, 0.0, refused.allowed))
    return tuple(sorted(rows, key=lambda row: (row.design is None, row.length_mm)))


@dataclass(frozen=True)
class CapacityEffect:
    """What a small change does to the capacity [g]."""

    name: Finding
    effect_g: float


def sensitivity(design: Float, dowels_mm: Sequence[float] = ()) -> tuple[CapacityEffect, ...]:
    """A tenth of dowel density, 0.1 mm of sanding, and dowels that are easily taken for this one, at the
    wanted mark.
    """
    body = main_body(design)
    height = design.mark(design.wanted_mark).height_mm
    base = capacity_g(design, height)

    def change(other: Float) -> float:
        return capacity_g(other, other.mark(other.wanted_mark).height_mm) - base

    rows = [
        CapacityEffect(
            finding("denser-dowel"), change(resized(design, density_g_cm3=1.1 * body.density_g_cm3))
        ),
        CapacityEffect(
            finding("sanded-off", sanding=SANDING_MM),
            change(resized(design, diameter_mm=body.diameter_mm - 2 * SANDING_MM)),
        ),
    ]
    near = [d for d in dowels_mm if 0.005 < abs(d / body.diameter_mm - 1.0) < NEAR_EQUAL]
    return (
        *rows,
        *(
            CapacityEffect(
                finding("another-dowel", d=d, diameter=body.diameter_mm),
                change(resized(design, diameter_mm=d)),
            )
            for d in near
        ),
    )


@dataclass(frozen=True)
class PartCut:
    """A line of the cut list: load [g], body dowel, length and bore, stem, whole length [mm], mass [g].

    A blind bore has its depth from the top and the wall left under it at the foot [mm]; None: it goes
    through.
    """

    load_g: float
    design: Float
    dowel_mm: float
    body_mm: float
    bore_mm: float
    stem_mm: float
    whole_mm: float
    mass_g: float
    bore_deep_mm: float | None = None
    wall_mm: float = 0.0


STEM_SPARE_MM = 15.0
"""A stem is left so much longer for the chuck."""


@dataclass(frozen=True)
class Sizes:
    """A float for several loads: the cut list of those that can be met, and why each other cannot."""

    cuts: tuple[PartCut, ...]
    missed: tuple[tuple[float, Refused], ...]


def family(design: Float, loads_g: Sequence[float], by: str = LENGTH) -> Sizes:
    """The same float for several loads. Raises `Refused` where there is none of them, or too many."""
    require(1 <= len(loads_g) <= 12, "loads", len(loads_g), rule("loads"))
    cuts, missed = [], []
    for load in sorted(set(loads_g)):
        try:
            cuts.append(_cut(design, load, by))
        except Refused as refused:
            missed.append((load, refused))
    return Sizes(tuple(cuts), tuple(missed))


def _cut(design: Float, load_g: float, by: str) -> PartCut:
    cut = sized(design, load_g, by)
    check_foot(cut)
    body = main_body(cut)
    stems = [part for part in cut.parts if part.kind in ("stem", "antenna")]
    bore, wall = _bored(body, stems)
    stem = max((part.length_mm for part in stems), default=0.0)
    return PartCut(
        load_g,
        cut,
        body.diameter_mm,
        body.length_mm,
        bore,
        stem + (STEM_SPARE_MM if stem else 0.0),
        cut.top_mm - cut.foot_mm,
        own_mass_g(cut),
        body.length_mm - wall if wall else None,
        wall,
    )


def _bored(body: FloatPart, stems: Sequence[FloatPart]) -> tuple[float, float]:
    """The bore of a body and the wall left under it at the foot [mm]: for a stem through it, one let into
    it from above, or its own.
    """
    through = [part.diameter_mm for part in stems if part.foot_mm <= body.foot_mm + 1e-6 < part.top_mm]
    if through:
        return max(through), 0.0
    blind = [
        part
        for part in stems
        if body.foot_mm < part.foot_mm < body.top_mm - 1e-6 and part.top_mm > body.top_mm
    ]
    if blind:
        deepest = min(blind, key=lambda part: part.foot_mm)
        return deepest.diameter_mm, deepest.foot_mm - body.foot_mm
    return body.bore_mm, body.wall_mm if body.bore_mm else 0.0
