"""Ballast answers in words, as a maker would write them on the blank."""

from lamsik.core.quantities import numeral, plainly, said, unit_of
from lamsik.core.shapes.ballast_holes import BALLS, Hole
from lamsik.core.shapes.inside import Cavity, PouredEnd, pour_volume_ml
from lamsik.core.tank.ballast_base import Base


def says(
    base: Base, holes: tuple[Hole, ...], pours: tuple[PouredEnd, ...], cavities: tuple[Cavity, ...]
) -> str:
    """What to drill, pour or print, in one line."""
    rows = [_drilled(holes)] if holes else []
    rows += [_poured(base, pour) for pour in pours]
    rows += [_closed(cavity) for cavity in cavities]
    return "; ".join(rows)


def _poured(base: Base, pour: PouredEnd) -> str:
    volume, length = pour_volume_ml(base.design.body, pour)[0], base.design.body.length_mm
    end = (
        f"rear {said(length - pour.from_mm, 'length')}"
        if pour.to_mm > length - 0.1
        else f"front {said(pour.to_mm, 'length')}"
    )
    return (
        f"{end} poured in {pour.name} ({plainly(pour.density_g_cm3, 'density')}): {said(volume, 'volume')},"
        f" {said(volume * pour.density_g_cm3, 'mass', 1)}"
    )


def _closed(cavity: Cavity) -> str:
    return (
        f"{cavity.count} × {cavity.slug.name} in a closed chamber {said(cavity.bore_mm, 'length')} wide and"
        f" {said(cavity.length_mm, 'length')} long, its middle {said(cavity.x_mm, 'length')} from the"
        " nose and"
        f" {said(cavity.up_mm, 'length')} over the belly"
    )


def _drilled(holes: tuple[Hole, ...]) -> str:
    one, number = holes[0], sum(hole.count for hole in holes)
    if any(hole.count > 1 for hole in holes):
        return " and ".join(_one(hole) for hole in holes)
    if len({(hole.slug, hole.drill_mm) for hole in holes}) > 1:
        return f"{number} holes: {' and '.join(_one(hole) for hole in holes)}"
    if len({round(hole.mass_g, 3) for hole in holes}) > 1:
        each = " and ".join(
            f"{_amount(hole)} at {said(hole.x_mm, 'length')}, {said(hole.depth_mm, 'length')} deep"
            for hole in holes
        )
        return f"{number} holes of {plainly(one.drill_mm, 'length')}, {one.slug.name}: {each}"
    times = f"{number} holes, each " if number > 1 else ""
    places = ", ".join(numeral(hole.x_mm, "length") for hole in holes)
    return (
        f"{times}{_metal(one)} in a {plainly(one.drill_mm, 'length')} hole,"
        f" {said(one.depth_mm, 'length')} deep, {places} {unit_of('length')} from"
        " the nose"
    )


def _one(hole: Hole) -> str:
    """One hole, or a mirrored pair, by itself."""
    if hole.count > 1:
        return (
            f"a pair of {plainly(hole.drill_mm, 'length')} holes at {said(hole.x_mm, 'length')},"
            f" {said(hole.beside_mm, 'length')} to each"
            f" side, {said(hole.depth_mm, 'length')} deep, each {_metal(hole)}"
        )
    return (
        f"{_metal(hole)} in a {plainly(hole.drill_mm, 'length')} hole at {said(hole.x_mm, 'length')},"
        f" {said(hole.depth_mm, 'length')} deep"
    )


def _amount(hole: Hole) -> str:
    """How much of a metal that is named already: grams, or balls."""
    balls = hole.slug.balls(hole.each_g) if hole.slug.form == BALLS else 0
    return f"{balls} {'ball' if balls == 1 else 'balls'}" if balls else said(hole.each_g, "mass", 1)


def _metal(hole: Hole) -> str:
    if hole.slug.form == BALLS:
        balls = hole.slug.balls(hole.each_g)
        return f"{balls} × {hole.slug.name}" if balls > 1 else hole.slug.name
    return f"{said(hole.each_g, 'mass', 1)} {hole.slug.name}"
