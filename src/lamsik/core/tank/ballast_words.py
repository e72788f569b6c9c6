"""Ballast answers as findings: what to drill, pour or print, as a maker would write it on the blank."""

from lamsik.core.findings import Finding, finding
from lamsik.core.shapes.ballast_holes import BALLS, Hole
from lamsik.core.shapes.inside import Cavity, PouredEnd, pour_volume_ml
from lamsik.core.tank.ballast_base import Base


def says(
    base: Base, holes: tuple[Hole, ...], pours: tuple[PouredEnd, ...], cavities: tuple[Cavity, ...]
) -> Finding:
    """What to drill, pour or print, in one line."""
    rows = [_drilled(holes)] if holes else []
    rows += [_poured(base, pour) for pour in pours]
    rows += [_closed(cavity) for cavity in cavities]
    return finding("ballast-answer", rows=tuple(rows))


def _poured(base: Base, pour: PouredEnd) -> Finding:
    volume, length = pour_volume_ml(base.design.body, pour)[0], base.design.body.length_mm
    rear = pour.to_mm > length - 0.1
    return finding(
        "rear-poured" if rear else "front-poured",
        long=length - pour.from_mm if rear else pour.to_mm,
        name=pour.name,
        density=pour.density_g_cm3,
        volume=volume,
        mass=volume * pour.density_g_cm3,
    )


def _closed(cavity: Cavity) -> Finding:
    return finding(
        "closed-chamber",
        count=cavity.count,
        balls=cavity.slug.name,
        bore=cavity.bore_mm,
        long=cavity.length_mm,
        x=cavity.x_mm,
        up=cavity.up_mm,
    )


def _drilled(holes: tuple[Hole, ...]) -> Finding:
    one, number = holes[0], sum(hole.count for hole in holes)
    each = tuple(map(_one, holes))
    if any(hole.count > 1 for hole in holes):
        return finding("holes-and", each=each)
    if len({(hole.slug, hole.drill_mm) for hole in holes}) > 1:
        return finding("number-of-holes", number=number, each=each)
    if len({round(hole.mass_g, 3) for hole in holes}) > 1:
        unlike = tuple(
            finding("hole-of-mass", amount=_amount(hole), x=hole.x_mm, deep=hole.depth_mm) for hole in holes
        )
        return finding("holes-of-drill", number=number, drill=one.drill_mm, slug=one.slug.name, each=unlike)
    *before, last = holes
    places = (
        *(finding("place-alone", x=hole.x_mm) for hole in before),
        finding("place-with-unit", x=last.x_mm),
    )
    return finding(
        "like-holes" if number > 1 else "one-hole",
        number=number,
        metal=_metal(one),
        drill=one.drill_mm,
        deep=one.depth_mm,
        places=places,
    )


def _one(hole: Hole) -> Finding:
    """One hole, or a mirrored pair, by itself."""
    if hole.count > 1:
        return finding(
            "pair-of-holes",
            drill=hole.drill_mm,
            x=hole.x_mm,
            beside=hole.beside_mm,
            deep=hole.depth_mm,
            metal=_metal(hole),
        )
    return finding("hole-by-itself", metal=_metal(hole), drill=hole.drill_mm, x=hole.x_mm, deep=hole.depth_mm)


def _amount(hole: Hole) -> Finding:
    """How much of a metal that is named already: grams, or balls."""
    balls = hole.slug.balls(hole.each_g) if hole.slug.form == BALLS else 0
    return finding("balls-alone", balls=balls) if balls else finding("grams-alone", grams=hole.each_g)


def _metal(hole: Hole) -> Finding:
    if hole.slug.form == BALLS:
        balls = hole.slug.balls(hole.each_g)
        return finding("balls-of" if balls > 1 else "ball-of", balls=balls, slug=hole.slug.name)
    return finding("grams-of", grams=hole.each_g, slug=hole.slug.name)
