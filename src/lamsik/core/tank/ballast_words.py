"""Ballast answers in words, as a maker would write them on the blank."""

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
        f"rear {length - pour.from_mm:.1f} mm" if pour.to_mm > length - 0.1 else f"front {pour.to_mm:.1f} mm"
    )
    return (
        f"{end} poured in {pour.name} ({pour.density_g_cm3:g} g/cm³): {volume:.2f} ml,"
        f" {volume * pour.density_g_cm3:.1f} g"
    )


def _closed(cavity: Cavity) -> str:
    return (
        f"{cavity.count} × {cavity.slug.name} in a closed chamber {cavity.bore_mm:.1f} mm wide and"
        f" {cavity.length_mm:.1f} mm long, its middle {cavity.x_mm:.1f} mm from the nose and"
        f" {cavity.up_mm:.1f} mm over the belly"
    )


def _drilled(holes: tuple[Hole, ...]) -> str:
    one, number = holes[0], sum(hole.count for hole in holes)
    if any(hole.count > 1 for hole in holes):
        return " and ".join(_one(hole) for hole in holes)
    if len({(hole.slug, hole.drill_mm) for hole in holes}) > 1:
        return f"{number} holes: {' and '.join(_one(hole) for hole in holes)}"
    if len({round(hole.mass_g, 3) for hole in holes}) > 1:
        each = " and ".join(
            f"{_amount(hole)} at {hole.x_mm:.1f} mm, {hole.depth_mm:.1f} mm deep" for hole in holes
        )
        return f"{number} holes of {one.drill_mm:g} mm, {one.slug.name}: {each}"
    times = f"{number} holes, each " if number > 1 else ""
    places = ", ".join(f"{hole.x_mm:.1f}" for hole in holes)
    return (
        f"{times}{_metal(one)} in a {one.drill_mm:g} mm hole, {one.depth_mm:.1f} mm deep, {places} mm from"
        " the nose"
    )


def _one(hole: Hole) -> str:
    """One hole, or a mirrored pair, by itself."""
    if hole.count > 1:
        return (
            f"a pair of {hole.drill_mm:g} mm holes at {hole.x_mm:.1f} mm, {hole.beside_mm:.1f} mm to each"
            f" side, {hole.depth_mm:.1f} mm deep, each {_metal(hole)}"
        )
    return f"{_metal(hole)} in a {hole.drill_mm:g} mm hole at {hole.x_mm:.1f} mm, {hole.depth_mm:.1f} mm deep"


def _amount(hole: Hole) -> str:
    """How much of a metal that is named already: grams, or balls."""
    balls = hole.slug.balls(hole.each_g) if hole.slug.form == BALLS else 0
    return f"{balls} {'ball' if balls == 1 else 'balls'}" if balls else f"{hole.each_g:.1f} g"


def _metal(hole: Hole) -> str:
    if hole.slug.form == BALLS:
        balls = hole.slug.balls(hole.each_g)
        return f"{balls} × {hole.slug.name}" if balls > 1 else hole.slug.name
    return f"{hole.each_g:.1f} g {hole.slug.name}"
