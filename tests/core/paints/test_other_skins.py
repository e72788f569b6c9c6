"""Floats and blades as skins: closed forms add up, bands and the tip take what they say."""

from dataclasses import replace
from math import hypot, pi, sqrt

import numpy as np
import pytest

from lamsik.core.floats.design import KINDS, Float
from lamsik.core.floats.parts import FloatPart
from lamsik.core.paints.layers import begun
from lamsik.core.paints.other_skins import float_profile, laid_on_other, skin_of_blade, skin_of_float
from lamsik.core.paints.place import Along, Place
from lamsik.core.shapes.blades import STARTING_BLADE
from lamsik.core.water import Water
from lamsik.documents.floats.document import blank, to_float


def a_float(*parts):
    return Float("Test", "stick", parts)


def part(key, form, length, diameter, foot=0.0, **more):
    return FloatPart(key, "body", key, length, diameter, 0.2, foot, form=form, **more)


def test_a_cylinder_a_cone_and_a_ball_have_their_surface_ends_and_all():
    assert skin_of_float(a_float(part("c", "cylinder", 60, 10))).area_mm2 == pytest.approx(
        pi * 10 * 60 + 2 * pi * 25, rel=1e-6
    )
    assert skin_of_float(a_float(part("c", "cone", 40, 20))).area_mm2 == pytest.approx(
        pi * 10 * hypot(40, 10) + pi * 100, rel=1e-6
    )
    long, wide = 40.0, 20.0
    e = sqrt(1 - (wide / long) ** 2)
    spheroid = 2 * pi * (wide / 2) ** 2 * (1 + long / wide / e * np.arcsin(e))
    assert skin_of_float(a_float(part("b", "ball", long, wide))).area_mm2 == pytest.approx(spheroid, rel=1e-3)


def test_a_stem_through_a_body_and_a_shoulder_count_once():
    body, stem = part("b", "cylinder", 30, 20, 40.0), part("s", "cylinder", 120, 2, 0.0)
    wanted = pi * 20 * 30 + 2 * pi * (100 - 1) + pi * 2 * 90 + 2 * pi
    assert skin_of_float(a_float(body, stem)).area_mm2 == pytest.approx(wanted, rel=1e-6)
    within = replace(stem, foot_mm=45.0, length_mm=10.0, inside=True)
    alone, both = (skin_of_float(a_float(*parts)).area_mm2 for parts in ((body,), (body, within)))
    assert alone == pytest.approx(both)


def test_of_parts_that_pass_through_each_other_the_outer_one_counts():
    cone, rod = part("k", "cone", 40, 20), part("s", "cylinder", 40, 10)
    slant = hypot(40, 10)
    wanted = pi * 10 * 20 + pi * 25 + pi * (5 + 10) * slant / 2 + pi * 100
    assert skin_of_float(a_float(cone, rod)).area_mm2 == pytest.approx(wanted, rel=1e-6)
    at, radius = float_profile(a_float(cone, rod))
    assert at[0] == 0.0 and at[-1] == 40.0 and radius[0] == radius[-1] == 0.0 and (np.diff(at) >= 0).all()


def test_bands_and_the_tip_of_a_float_take_their_stretch_and_weigh_their_film():
    rod = a_float(part("c", "cylinder", 100, 8))
    tip = replace(begun("base", "tip"), place=Place(ends=Along("nose", more_mm=20.0)))
    band = replace(
        begun("band", "band"),
        place=Place(begins=Along("tail", more_mm=-30.0), ends=Along("tail", more_mm=-25.0)),
    )
    skin = skin_of_float(rod)
    (_, on_tip), (_, on_band) = laid_on_other((tip, band), skin)
    assert on_tip.area_mm2 == pytest.approx(pi * 8 * 20 + pi * 16, rel=5e-3)
    assert on_band.area_mm2 == pytest.approx(pi * 8 * 5, rel=5e-3)
    assert on_tip.mass_g == pytest.approx(on_tip.area_mm2 * tip.dry_um * 1e-6 * tip.paint.density_g_cm3)
    assert on_band.at_mm[0] == pytest.approx(72.5, abs=0.1) and abs(on_band.at_mm[1]) < 1e-9
    half = laid_on_other((replace(tip, place=Place(side="left")),), skin)[0][1]
    assert half.share == pytest.approx(0.5) and half.at_mm[1] < 0


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_of_float_is_a_skin_that_closes(kind):
    skin = skin_of_float(to_float(blank("Test", kind, Water())))
    whole = replace(begun("primer", "p"), place=Place())
    ((_, on),) = laid_on_other((whole,), skin)
    assert on.area_mm2 == pytest.approx(skin.area_mm2) and on.share == pytest.approx(1.0)
    for sheet in skin.sides:
        assert np.abs(sheet.corners[[0, -1], :, 1:]).max() < 1e-9  # both ends run together in a point


def test_a_blade_has_two_faces_less_its_holes_and_an_edge():
    blade = STARTING_BLADE
    skin = skin_of_blade(blade)
    straight, round_end = blade.flat_mm - blade.width_mm, blade.width_mm / 2
    holes = sum(pi * hole.diameter_mm**2 / 4 for hole in blade.holes)
    face = straight * blade.width_mm + pi * round_end**2 - holes
    rim = 2 * straight + 2 * pi * round_end + sum(pi * hole.diameter_mm for hole in blade.holes)
    assert sum(sheet.area_mm2.sum() for sheet in skin.sides) == pytest.approx(2 * face, rel=1e-9)
    assert skin.area_mm2 == pytest.approx(2 * face + rim * blade.thickness_mm, rel=1e-3)
    one = replace(begun("base", "b"), place=Place(side="left"))
    half_edge = skin.patches[0].area_mm2.sum() / 2
    assert laid_on_other((one,), skin)[0][1].area_mm2 == pytest.approx(face + half_edge, rel=1e-9)
