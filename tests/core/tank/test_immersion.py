"""The wet part: closed forms of the cut ellipsoid, an independent library, and its own derivatives."""

import numpy as np
import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st

from lamsik.core.shapes.forms import FORMS, body_from
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.shapes.solid import solid
from lamsik.core.tank.immersion import coarse_hull, fine_hulls, hull_of, tank_axes, wet
from tests.bodies import box_mesh, ellipsoid

AXES = np.array([45.0, 7.0, 10.0])
CENTRE = np.array([45.0, 0.0, 0.0])
directions = (
    st.tuples(st.floats(-1, 1), st.floats(-1, 1), st.floats(-1, 1))
    .filter(lambda v: np.linalg.norm(v) > 0.2)
    .map(lambda v: np.array(v) / np.linalg.norm(v))
)


@settings(max_examples=40)
@given(directions, st.floats(-0.85, 0.85))
def test_cut_ellipsoid(up, depth):
    reach = np.linalg.norm(AXES * up)
    exact = np.pi * AXES.prod() * (1 + depth) ** 2 * (2 - depth) / 3
    full = 4 / 3 * np.pi * AXES.prod()
    coarse, fine = (
        wet(hull, up, CENTRE @ up + depth * reach).volume for hull in fine_hulls(ellipsoid(90, 14, 20))
    )
    assert abs((4 * fine - coarse) / 3 - exact) < 1e-4 * full


@settings(max_examples=20)
@given(directions, st.floats(-0.8, 0.8))
def test_water_plane_is_the_derivative_of_volume_and_moment(up, share):
    hull = coarse_hull(body_from(FORMS["stubby"], 60, 26, 21))
    d = 30 * up[0] + 10 * share
    e1, e2 = tank_axes(up)
    here, step = wet(hull, up, d), 1e-4
    more, less = wet(hull, up, d + step), wet(hull, up, d - step)
    scale = 1e-3 * solid(body_from(FORMS["stubby"], 60, 26, 21)).area_mm2
    assert (more.volume - less.volume) / (2 * step) == pytest.approx(here.area, abs=scale)
    slope = (more.moment - less.moment) / (2 * step)
    assert slope @ e1 == pytest.approx(here.first[0], abs=60 * scale)
    assert slope @ e2 == pytest.approx(here.first[1], abs=60 * scale)


def test_second_moments_of_a_box():
    found = wet(hull_of(box_mesh(100, 20, 10)), np.array([0.0, 0.0, 1.0]), 2.0)
    e1, _ = tank_axes(np.array([0.0, 0.0, 1.0]))
    along = found.second[0] if abs(e1[0]) > 0.5 else found.second[2]
    across = found.second[2] if abs(e1[0]) > 0.5 else found.second[0]
    assert found.volume == pytest.approx(100 * 20 * 7)
    assert found.moment == pytest.approx(14000 * np.array([50, 0, -1.5]), abs=1e-6)
    assert found.area == pytest.approx(2000)
    assert (along, across) == pytest.approx((20 * 100**3 / 12 + 2000 * 2500, 100 * 20**3 / 12))


@pytest.mark.parametrize("up", [(0, 0, 1), (0.3, 0.1, 0.9), (-0.9, 0.3, 0.2), (0, 1, 0.01)])
def test_same_as_an_independent_slicer(up):
    up = np.array(up, dtype=float) / np.linalg.norm(up)
    mesh = body_mesh(body_from(FORMS["deepflank"], 75, 34, 14), 30, 32)
    d = 36 * up[0] + 2.0
    whole = trimesh.Trimesh(mesh.vertices, mesh.faces)
    sliced = trimesh.intersections.slice_mesh_plane(whole, -up, up * d, cap=True)
    found = wet(hull_of(mesh), up, d)
    assert found.volume == pytest.approx(sliced.volume, rel=1e-6)
    assert found.moment / found.volume == pytest.approx(sliced.center_mass, abs=1e-4)


def test_under_and_over():
    body = ellipsoid(60, 10, 10)
    hull, up = coarse_hull(body), np.array([0.0, 0.6, 0.8])
    assert wet(hull, up, 1e3).volume == pytest.approx(solid(body).volume_mm3, rel=1e-3)
    assert wet(hull, up, -1e3).volume == pytest.approx(0, abs=1e-9)
    assert wet(hull, up, 1e3).area == 0


def test_the_coarse_hull_holds_the_true_volume():
    body = body_from(FORMS["slim"], 90, 19, 15)
    assert coarse_hull(body).sums[:, 0].sum() == pytest.approx(solid(body).volume_mm3, rel=1e-9)
    coarse, fine = (h.sums[:, 0].sum() for h in fine_hulls(body))
    assert (4 * fine - coarse) / 3 == pytest.approx(solid(body).volume_mm3, rel=2e-4)
    assert coarse < fine < solid(body).volume_mm3


@settings(max_examples=15)
@given(directions, st.floats(-8, 8), st.floats(-30, 30))
def test_moving_the_body_moves_the_answer(up, share, shift):
    mesh = body_mesh(ellipsoid(60, 10, 14), 16, 16)
    moved = type(mesh)(mesh.vertices + np.array([0.0, 0.0, shift]), mesh.faces)
    d = 30 * up[0] + share
    one, two = wet(hull_of(mesh), up, d), wet(hull_of(moved), up, d + shift * up[2])
    assert two.volume == pytest.approx(one.volume, abs=1e-6)
    assert two.moment == pytest.approx(one.moment + one.volume * np.array([0, 0, shift]), abs=1e-3)
