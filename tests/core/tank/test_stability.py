"""Righting arms against theory, energy balance, mirrored and rotated inputs, roll inertia against a mesh."""

from dataclasses import replace

import numpy as np
import pytest
import trimesh

from lamsik.core.paints.layers import Layer
from lamsik.core.paints.paint import Paint
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Curve
from lamsik.core.shapes.design import Host
from lamsik.core.shapes.forms import FORMS, body_from
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.shapes.skins import Mesh
from lamsik.core.tank import evaluate
from lamsik.core.tank.floating import float_settled, vessel_of_body, vessel_of_mesh
from lamsik.core.tank.inertia import added_inertia_g_mm2, nature, polar_moment_mm5, roll, roll_moment_g_mm2
from lamsik.core.tank.mass import budget
from lamsik.core.tank.stability import bg_mm, metacentre, pendulum, righting_curve
from tests.bodies import bait, bare_budget, box_mesh, ellipsoid, homogeneous, straight, volume_ml

SIDE = 20.0


def prism(share: float, low_mm: float):
    """A square prism of a mean density `share`, G on its middle line `low_mm` under the centre."""
    mass = share * 100 * SIDE * SIDE / 1000
    return vessel_of_mesh(box_mesh(100, SIDE, SIDE)), bare_budget(
        mass, (50.0, 0.0, -low_mm), 100 * SIDE * SIDE / 1000
    )


@pytest.mark.parametrize(("share", "low"), [(0.5, 4.0), (0.5, 6.5), (0.4, 5.0)])
def test_a_square_prism_has_the_wall_sided_arm(share, low):
    vessel, mass = prism(share, low)
    curve = righting_curve(vessel, mass, 1.0)
    draft = share * SIDE
    bm = SIDE**2 / (12 * draft)
    gm = draft / 2 + bm - (SIDE / 2 - low)
    corner = np.degrees(np.arctan(2 * min(draft, SIDE - draft) / SIDE)) - 1  # until an edge dips or comes out
    phi = np.radians(curve.heel_deg[curve.heel_deg < corner])
    np.testing.assert_allclose(
        curve.arm_mm[: len(phi)], np.sin(phi) * (gm + bm / 2 * np.tan(phi) ** 2), atol=2e-3
    )
    upright = float_settled(vessel, mass, 1.0)[0]
    found = metacentre(vessel, mass, 1.0, upright)
    assert (found.kb_mm, found.bm_mm, found.gm_mm) == pytest.approx((draft / 2, bm, gm), abs=0.01)


@pytest.mark.parametrize("low", [0.0, 1.5, -1.0])
def test_a_half_sunk_elliptic_cylinder_has_the_arm_of_theory_at_every_heel(low):
    a, b, length = 9.0, 6.0, 120.0
    up, down, half = (Curve((0, 1), (v, v), False, False) for v in (b, -b, a))
    body = Body(length, up, down, half)
    mass = bare_budget(volume_ml(body) / 2, (length / 2, 0.0, -low), volume_ml(body))
    curve = righting_curve(vessel_of_body(body), mass, 1.0)
    phi = np.radians(curve.heel_deg)
    y, z = -np.sin(phi), np.cos(phi)
    reach = -4 / (3 * np.pi) / np.sqrt(a**2 * y**2 + b**2 * z**2)
    theory = np.cos(phi) * reach * a**2 * y + np.sin(phi) * (reach * b**2 * z + low)
    np.testing.assert_allclose(curve.arm_mm, theory, atol=0.02)


@pytest.mark.parametrize("form", ["slim", "stubby", "deepflank", "walker"])
def test_the_work_of_turning_it_over_is_the_area_under_the_arm(form):
    start = FORMS[form]
    design = bait(
        body=body_from(start, start.length_mm, start.depth_mm, start.width_mm),
        host=Host("balsa", 0.18, 0.03),
        lip=None,
        hardware=(),
        ballast=(),
    )
    mass, vessel = budget(design), vessel_of_body(design.body)
    curve = righting_curve(vessel, mass, 0.9995)
    assert curve.whole
    step, rows = np.radians(5.0), curve.arm_mm * np.cos(np.radians(curve.pitch_deg)) * mass.mass_g
    simpson = step / 3 * (rows[0] + rows[-1] + 4 * rows[1:-1:2].sum() + 2 * rows[2:-2:2].sum())
    biggest = np.abs(curve.energy_g_mm).max()
    assert simpson == pytest.approx(curve.energy_g_mm[-1], abs=0.01 * biggest + 0.01)


def test_a_body_turned_in_its_own_frame_has_the_same_arms_turned():
    turned = trimesh.transformations.rotation_matrix(np.radians(30.0), [1, 0, 0])[:3, :3]
    box = box_mesh(100, SIDE, 14.0)
    g = np.array([50.0, 0.0, -3.0])
    flat = righting_curve(vessel_of_mesh(box), bare_budget(14.0, tuple(g), 28.0), 1.0)
    other = Mesh(box.vertices @ turned.T, box.faces)
    tilted = righting_curve(vessel_of_mesh(other), bare_budget(14.0, tuple(turned @ g), 28.0), 1.0)
    np.testing.assert_allclose(tilted.arm_mm[6:], flat.arm_mm[:-6], atol=0.01)


def test_weight_to_one_side_leans_it_and_mirrored_leans_it_the_other_way():
    vessel = vessel_of_mesh(box_mesh(100, SIDE, 14.0))
    left, right = (
        float_settled(vessel, bare_budget(14.0, (50.0, y, -3.0), 28.0), 1.0)[0] for y in (-0.8, 0.8)
    )
    assert abs(right.attitude.roll_deg) > 1 and left.attitude.roll_deg == pytest.approx(
        -right.attitude.roll_deg, abs=0.02
    )
    assert left.draft_mm == pytest.approx(right.draft_mm, abs=1e-3)


def test_the_curve_says_where_it_stops_righting():
    low = righting_curve(*prism(0.5, 8.0), 1.0)
    assert low.vanishes_deg is None and low.largest[0] > 0 and low.area_mm_rad > 0
    top_heavy = righting_curve(
        vessel_of_mesh(box_mesh(100, 30.0, 10.0)), bare_budget(15.0, (50.0, 0.0, 6.0), 30.0), 1.0
    )
    assert 20 < top_heavy.vanishes_deg < 120


def test_a_body_that_sinks_has_no_curve_but_a_pendulum():
    design = bait(host=Host("beech", 0.9, 0.05))
    assert righting_curve(vessel_of_body(design.body), budget(design), design.water.density_g_cm3) is None
    hanging = evaluate.drag(design).hanging
    arms = pendulum(hanging, np.array([0.0, 30.0, 90.0, 180.0]))
    np.testing.assert_allclose(arms, bg_mm(hanging) * np.array([0.0, 0.5, 1.0, 0.0]), atol=1e-12)


class TestInertia:
    def test_an_ellipsoid_in_closed_form(self):
        body = ellipsoid(90, 14, 20)
        assert polar_moment_mm5(body) / (1000 * volume_ml(body)) == pytest.approx(
            (7**2 + 10**2) / 5, rel=1e-4
        )

    @pytest.mark.parametrize("form", ["stubby", "glider", "popper"])
    def test_any_form_against_a_fine_mesh(self, form):
        start = FORMS[form]
        body = body_from(start, start.length_mm, start.depth_mm, start.width_mm)
        mesh = body_mesh(body, 160, 160)
        whole = trimesh.Trimesh(mesh.vertices, mesh.faces)
        about_centre = whole.moment_inertia[0, 0]
        z = whole.center_mass[2]
        assert polar_moment_mm5(body) == pytest.approx(about_centre + whole.volume * z**2, rel=2e-3)

    def test_a_round_body_drags_no_water_round_but_a_lip_does(self):
        round_one = bait(body=ellipsoid(90, 18, 18), lip=None)
        assert added_inertia_g_mm2(round_one, 1.0) == pytest.approx(0.0, abs=1e-6)
        assert added_inertia_g_mm2(replace(round_one, lip=bait().lip), 1.0) == pytest.approx(
            np.pi / 8 * 7**4 * 16 / 1000
        )

    def test_a_coat_lies_as_far_out_as_the_skin(self):
        rod = homogeneous(
            straight(200, 8, 8), 0.5
        )  # its two round ends are a twenty-fifth of the skin, at half the square of the radius
        coated = replace(
            rod, layers=(Layer("c1", "clear", "Clear", Paint(density_g_cm3=1.1), film_um=200.0),)
        )
        plain, thick = budget(rod), budget(coated)
        coat = thick.mass_g - plain.mass_g
        assert coat > 1 and roll_moment_g_mm2(coated, thick) - roll_moment_g_mm2(rod, plain) == pytest.approx(
            coat * 64 * (25 + 0.5) / 26, rel=0.02
        )

    def test_lower_weight_recovers_quicker(self):
        high, low = (
            replace(bait(), ballast=(replace(bait().ballast[0], cover_mm=cover),)) for cover in (4.0, 0.5)
        )
        rates = [evaluate.drag(design).roll.frequency_hz for design in (high, low)]
        assert rates[0] < rates[1]
        assert nature(rates[1], rates[1] - 0.1) == "steady" and nature(rates[0], rates[0] + 0.1) == "lively"

    def test_the_period_is_that_of_a_pendulum(self):
        design = bait()
        found = roll(design, budget(design), 1.0, 2.0)
        assert found.frequency_hz == pytest.approx(
            (budget(design).mass_g * 9806.65 * 2.0 / (found.inertia_g_mm2 + found.added_g_mm2)) ** 0.5
            / (2 * np.pi)
        )
        assert found.added_share > 0 and roll(design, budget(design), 1.0, -1.0).frequency_hz == 0
