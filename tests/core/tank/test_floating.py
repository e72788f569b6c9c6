"""Floating positions: theory of the square prism and the ellipsoid, Archimedes, mirrors."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamsik.core.shapes.forms import FORMS, body_from
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.shapes.solid import solid
from lamsik.core.shapes.support import reach_mm
from lamsik.core.tank.attitude import Attitude, attitude_of, immersed
from lamsik.core.tank.floating import float_drag, float_settled, vessel_of_body, vessel_of_mesh
from lamsik.core.tank.mass import budget
from tests.bodies import bait, bare_budget, box_mesh, ellipsoid, homogeneous, straight

RESIDUAL = 1e-4


@pytest.mark.parametrize(("density", "count", "heel"), [(0.1, 4, 0.0), (0.23, 8, 19.5), (0.5, 4, 45.0)])
def test_every_position_of_a_square_prism(density, count, heel):
    """Gilbert 1991: a long square log lies flat, at 19.5° or on its edge as its density grows."""
    places = float_settled(
        vessel_of_mesh(box_mesh(200, 20, 20)), bare_budget(density * 80, (100, 0, 0), 80), 1.0
    )
    assert len(places) == count
    leans = [abs((p.attitude.roll_deg + 45) % 90 - 45) for p in places]
    assert leans == pytest.approx([heel] * count, abs=0.15)
    assert all(abs(p.attitude.pitch_deg) < 0.1 for p in places)
    assert all(p.force_residual < RESIDUAL and p.moment_residual < RESIDUAL and p.stable for p in places)


@pytest.mark.parametrize("density", [0.3, 0.6])
def test_a_triaxial_ellipsoid_floats_on_its_flat_side_only(density):
    body = ellipsoid(90, 30, 14)
    places = float_settled(vessel_of_body(body), budget(homogeneous(body, density)), 1.0)
    assert sorted(round(abs(p.attitude.roll_deg)) for p in places) == [0, 180]
    assert all(abs(p.attitude.pitch_deg) < 0.05 for p in places)
    assert all(p.force_residual < RESIDUAL and p.moment_residual < RESIDUAL for p in places)
    # displaced cap by affine map: (1 + t)²(2 − t)/4 = density, freeboard c(1 − t)
    t = np.roots([-1, 0, 3, 2 - 4 * density])
    t = float(next(r.real for r in t if abs(r.imag) < 1e-9 and -1 <= r.real <= 1))
    assert places[0].freeboard_mm == pytest.approx(7 * (1 - t), abs=0.02)


def test_a_low_weight_rights_it_and_the_first_is_the_one_from_upright():
    body = ellipsoid(90, 14, 20)
    heavy_keel = replace(budget(homogeneous(body, 0.5)), g_mm=(45.0, 0.0, -4.0))
    places = float_settled(vessel_of_body(body), heavy_keel, 1.0)
    assert abs(places[0].attitude.roll_deg) < 0.1
    assert places[0].energy == min(p.energy for p in places)


def test_a_body_of_revolution_is_not_counted_for_every_roll():
    body = straight(100, 10, 10)
    places = float_settled(vessel_of_body(body), budget(homogeneous(body, 0.4)), 1.0)
    assert len(places) <= 2


def test_a_loaded_stick_stands():
    body = straight(160, 3.5, 3.5)
    mass = replace(budget(homogeneous(body, 0.45)), g_mm=(140.0, 0.0, 0.0))
    first = float_settled(vessel_of_body(body), mass, 1.0)[0]
    assert first.attitude.pitch_deg == pytest.approx(90, abs=1.0)
    assert first.freeboard_mm == pytest.approx(160 * 0.55, abs=0.3)


@settings(max_examples=12)
@given(
    st.sampled_from(["slim", "stubby", "glider", "popper"]),
    st.floats(0.2, 0.85),
    st.floats(-3, 3),
    st.floats(-4, 0.5),
)
def test_archimedes_and_the_mirror(key, density, aft, low):
    start = FORMS[key]
    body = body_from(start, start.length_mm, start.depth_mm, start.width_mm)
    base = budget(homogeneous(body, density))
    g = (base.g_mm[0] + aft, 0.0, base.g_mm[2] + low)
    place = float_drag(vessel_of_body(body), replace(base, g_mm=g), 1.0)
    assert place is not None and place.force_residual < RESIDUAL and place.moment_residual < RESIDUAL
    left = float_drag(vessel_of_body(body), replace(base, g_mm=(g[0], 1.0, g[2])), 1.0)
    right = float_drag(vessel_of_body(body), replace(base, g_mm=(g[0], -1.0, g[2])), 1.0)
    assert left.energy == pytest.approx(right.energy, abs=1e-4 * base.mass_g * body.length_mm)


def test_more_ballast_never_floats_higher():
    hulls, last = vessel_of_body(bait().body), np.inf
    for grams in (1.5, 2.0, 2.5, 3.0):
        design = bait(ballast=(replace(bait().ballast[0], mass_g=grams),))
        place = float_drag(hulls, budget(design), 0.9995)
        assert place.freeboard_mm < last
        last = place.freeboard_mm


def test_the_quick_evaluation_agrees_with_the_settled_one():
    design = bait(ballast=(replace(bait().ballast[0], mass_g=1.0),))
    mass, hulls = budget(design), vessel_of_body(design.body)
    settled = float_settled(hulls, mass, 0.9995)[0]
    quick = float_drag(hulls, mass, 0.9995)
    warm = float_drag(hulls, mass, 0.9995, Attitude(quick.attitude.pitch_deg + 3, 2.0), quick.draft_mm + 1)
    for place in (quick, warm):
        assert place.attitude.pitch_deg == pytest.approx(settled.attitude.pitch_deg, abs=0.5)
        assert place.draft_mm == pytest.approx(settled.draft_mm, abs=0.2)


def test_what_is_too_heavy_does_not_float():
    body = ellipsoid(60, 10, 10)
    assert float_drag(vessel_of_body(body), budget(homogeneous(body, 1.2)), 1.0) is None
    assert float_settled(vessel_of_body(body), budget(homogeneous(body, 1.2)), 1.0) == ()


@given(st.floats(-85, 85), st.floats(-175, 175))
def test_attitude_and_up_are_inverse(pitch, roll):
    back = attitude_of(Attitude(pitch, roll).up)
    assert (back.pitch_deg, back.roll_deg) == pytest.approx((pitch, roll), abs=1e-6)


class TestHanging:
    """Wholly under water, in closed form."""

    def at(self, g, tie=None, density=0.9):
        body = ellipsoid(90, 14, 20)
        mass = replace(budget(homogeneous(body, density)), g_mm=g)
        return immersed(solid(body).centroid_mm, mass, 1.0, tie)

    def test_weight_ahead_of_b_puts_the_nose_down(self):
        found = self.at((43.0, 0.0, -2.0))
        assert found.free.pitch_deg == pytest.approx(-45.0, abs=0.01)
        assert self.at((47.0, 0.0, -2.0)).free.pitch_deg == pytest.approx(45.0, abs=0.01)

    def test_weight_to_the_right_rolls_right_side_down(self):
        assert self.at((45.0, 1.0, -1.0)).free.roll_deg == pytest.approx(45.0, abs=0.01)

    def test_weight_above_turns_it_over(self):
        assert abs(self.at((45.0, 0.0, 2.0)).free.roll_deg) > 90

    def test_net_lift_is_archimedes(self):
        found = self.at((45.0, 0.0, -1.0))
        assert found.net_g == pytest.approx(solid(ellipsoid(90, 14, 20)).volume_ml * 0.1, rel=1e-6)

    def test_held_at_its_nose_a_rising_bait_points_down_and_a_sinking_one_up(self):
        tie = (0.0, 0.0, 0.0)
        assert self.at((45.0, 0.0, -1.0), tie, 0.8).held.pitch_deg < -60
        assert self.at((45.0, 0.0, -1.0), tie, 1.3).held.pitch_deg > 60

    def test_without_net_held_and_free_agree(self):
        found = self.at((44.5, 0.0, -1.0), (0.0, 0.0, 0.0), 1.0)
        assert found.held.pitch_deg == pytest.approx(found.free.pitch_deg, abs=0.1)


@pytest.mark.parametrize("form", ["deepflank", "walker", "slim"])
def test_the_highest_point_is_the_curves_own(form):
    body = replace(body_from(FORMS[form], 100, 24, 14), upper_exponent=1.7, lower_exponent=2.6)
    points = body_mesh(body, 900, 720).vertices
    random = np.random.default_rng(4)
    for way in random.normal(size=(30, 3)):
        way /= np.linalg.norm(way)
        highest = (points @ way).max()
        assert highest - 1e-6 < reach_mm(body, way) < highest + 2e-3
