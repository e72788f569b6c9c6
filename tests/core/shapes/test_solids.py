"""Volume, centroid and wetted area against closed forms and an independent mesh library."""

import numpy as np
import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.special import ellipeinc, ellipkinc, gamma

from lamsik.core.shapes.body import (
    Body,
    half_width_at_height,
    section_outline,
    side_outline,
    station,
    top_outline,
)
from lamsik.core.shapes.curves import Curve
from lamsik.core.shapes.forms import FORMS, Form, body_from
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.shapes.quadrature import half_superellipse_area, half_superellipse_moment
from lamsik.core.shapes.solid import solid
from tests.bodies import curve, ellipsoid, straight

ACCURACY = 5e-4


def ellipsoid_area(a, b, c):
    """Exact, by Legendre's incomplete integrals; a ≥ b ≥ c semi-axes."""
    a, b, c = sorted((a, b, c), reverse=True)
    phi = np.arccos(c / a)
    k2 = a**2 * (b**2 - c**2) / (b**2 * (a**2 - c**2))
    return 2 * np.pi * c**2 + 2 * np.pi * a * b / np.sin(phi) * (
        ellipeinc(phi, k2) * np.sin(phi) ** 2 + ellipkinc(phi, k2) * np.cos(phi) ** 2
    )


def test_ellipsoid():
    found = solid(ellipsoid(90, 14, 20))
    assert found.volume_mm3 == pytest.approx(4 / 3 * np.pi * 45 * 7 * 10, rel=ACCURACY / 100)
    assert found.area_mm2 == pytest.approx(ellipsoid_area(45, 7, 10), rel=ACCURACY / 10)
    assert found.centroid_mm == pytest.approx((45, 0, 0), abs=1e-6)
    assert found.area_centroid_mm == pytest.approx((45, 0, 0), abs=1e-6)


def test_cylinder_with_its_ends():
    found = solid(straight(100, 5, 5))
    assert found.volume_mm3 == pytest.approx(np.pi * 25 * 100, rel=1e-9)
    assert found.area_mm2 == pytest.approx(2 * np.pi * 5 * 100 + 2 * np.pi * 25, rel=1e-9)


def test_cone_with_its_base():
    found = solid(straight(60, 0, 10))
    assert found.volume_mm3 == pytest.approx(np.pi * 100 * 60 / 3, rel=1e-9)
    assert found.area_mm2 == pytest.approx(np.pi * 10 * np.hypot(60, 10) + np.pi * 100, rel=1e-6)
    assert found.centroid_mm[0] == pytest.approx(45, rel=1e-9)


def test_spherical_cap():
    radius, height = 30.0, 12.0
    edge = curve(
        lambda s: np.sqrt(np.clip(2 * radius * height * s - (height * s) ** 2, 0, None)), round_tail=False
    )
    below = Curve(edge.shares, tuple(-v for v in edge.values_mm), True, False)
    found = solid(Body(height, edge, below, edge))
    assert found.volume_mm3 == pytest.approx(np.pi * height**2 * (3 * radius - height) / 3, rel=ACCURACY)
    base = 2 * radius * height - height**2
    assert found.area_mm2 == pytest.approx(2 * np.pi * radius * height + np.pi * base, rel=ACCURACY)


def test_superellipsoid_area_is_converged():
    """A slab-sided body against its own fine mesh, extrapolated."""
    body = body_from(FORMS["glider"], 120, 36, 20)
    areas = []
    for times in (4, 8):
        mesh = body_mesh(body, 32, 48, times)
        a, b, c = (mesh.vertices[mesh.faces[:, i]] for i in range(3))
        areas.append(np.linalg.norm(np.cross(b - a, c - a), axis=1).sum() / 2)
    assert solid(body).area_mm2 == pytest.approx((4 * areas[1] - areas[0]) / 3, rel=ACCURACY)


@pytest.mark.parametrize("n", [1.0, 2.0, 4.0, 8.0])
def test_section_moments_match_numerical_integration(n):
    z = (np.arange(200_000) + 0.5) / 200_000
    width = 2 * 3.0 * (1 - z**n) ** (1 / n)
    assert half_superellipse_area(3.0, 5.0, n) == pytest.approx(5.0 * width.mean(), rel=1e-5)
    assert half_superellipse_moment(3.0, 5.0, n) == pytest.approx(25.0 * (z * width).mean(), rel=1e-5)
    assert half_superellipse_area(1.0, 1.0, 2.0) == pytest.approx(gamma(0.5) ** 2 / 2)


def test_a_lower_exponent_moves_the_centroid_down_and_a_diamond_up():
    base = body_from(FORMS["slim"], 90, 19, 15)
    slab = body_from(FORMS["slim"], 90, 19, 15, 2.0, 6.0)
    diamond = body_from(FORMS["slim"], 90, 19, 15, 2.0, 1.0)
    assert solid(slab).centroid_mm[2] < solid(base).centroid_mm[2] < solid(diamond).centroid_mm[2]


@pytest.mark.parametrize("start", FORMS.values(), ids=FORMS)
def test_every_starting_form_is_a_sound_body(start: Form):
    body = body_from(start, start.length_mm, start.depth_mm, start.width_mm)
    assert body.depth_mm == pytest.approx(start.depth_mm, rel=0.02)
    assert body.width_mm == pytest.approx(start.width_mm, rel=0.02)
    mesh = body_mesh(body, 60, 64, 2)
    other = trimesh.Trimesh(mesh.vertices, mesh.faces)
    other.update_faces(other.nondegenerate_faces())
    assert other.is_watertight
    assert other.volume == pytest.approx(solid(body).volume_mm3, rel=3e-3)
    assert other.center_mass == pytest.approx(solid(body).centroid_mm, abs=0.1)
    outline = side_outline(body)
    assert outline[:, 0].min() == 0 and outline[:, 0].max() == pytest.approx(start.length_mm)


def test_there_are_six_bait_forms_and_two_float_forms():
    purposes = [f.purpose for f in FORMS.values()]
    assert purposes.count("bait") >= 6 and purposes.count("float") >= 2


@settings(max_examples=25)
@given(st.sampled_from(sorted(FORMS)), st.floats(0.5, 2.5))
def test_volume_goes_with_the_cube_and_area_with_the_square(key, factor):
    start = FORMS[key]
    one = solid(body_from(start, start.length_mm, start.depth_mm, start.width_mm))
    two = solid(body_from(start, start.length_mm * factor, start.depth_mm * factor, start.width_mm * factor))
    assert two.volume_mm3 == pytest.approx(one.volume_mm3 * factor**3, rel=1e-9)
    assert two.area_mm2 == pytest.approx(one.area_mm2 * factor**2, rel=1e-9)


def test_stations_and_sections_agree_with_the_outlines():
    body = body_from(FORMS["stubby"], 60, 26, 21)
    here = station(body, 22.0)
    section = section_outline(body, 22.0, 400)
    assert section[:, 1].max() == pytest.approx(here.top_mm, abs=0.01)
    assert section[:, 1].min() == pytest.approx(here.bottom_mm, abs=0.01)
    assert half_width_at_height(body, 22.0, here.widest_mm) == pytest.approx(here.half_width_mm)
    assert half_width_at_height(body, 22.0, here.top_mm + 1) == 0
    assert top_outline(body)[:, 1].max() == pytest.approx(body.width_mm / 2, rel=0.01)
