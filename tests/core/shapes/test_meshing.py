"""Meshes brought in: against trimesh, their faults named, turned and measured, as good as any body in the
Tank.
"""

from dataclasses import replace

import numpy as np
import pytest
import trimesh

from lamsik.core.errors import Refused
from lamsik.core.shapes import skins
from lamsik.core.shapes.design import Design, Host
from lamsik.core.shapes.joints import Cut, Joint
from lamsik.core.shapes.meshing import check, measured, turned
from lamsik.core.shapes.polyhedra import measures, thinned
from lamsik.core.shapes.skins import Mesh, Skin
from lamsik.core.shapes.solid import kerf_ml, segments, solid, wedge
from lamsik.core.tank import evaluate
from lamsik.core.tank.floating import vessel_of_body
from tests.bodies import box_mesh


def egg():
    made = trimesh.creation.icosphere(subdivisions=4, radius=1.0)
    made.apply_scale([45, 8, 10])
    return made


def capsule():
    made = trimesh.creation.capsule(height=60, radius=9, count=[32, 32])
    made.apply_transform(trimesh.transformations.rotation_matrix(np.pi / 2, [0, 1, 0]))
    return made


def torpedo():
    made = trimesh.creation.cone(radius=11, height=80, sections=64)
    made.apply_transform(trimesh.transformations.rotation_matrix(np.pi / 2, [0, 1, 0]))
    return made


SHAPES = {"egg": egg, "capsule": capsule, "torpedo": torpedo}


def body_of(made, digest="f"):
    found = measured(turned(check(made.vertices, made.faces).mesh, "-x", "+z", 1.0))
    key = digest * 64
    skins.keep(key, found.shares)
    return replace(found.body, skin=Skin(key, found.body.length_mm, found.body.width_mm, found.body.depth_mm))


@pytest.mark.parametrize("name", SHAPES)
def test_volume_area_centroid_and_wet_part_agree_with_trimesh(name):
    made = SHAPES[name]()
    body = body_of(made, "abc"[list(SHAPES).index(name)])
    found = solid(body)
    shift = np.array([made.bounds[0][0], made.bounds[:, 1].mean(), made.bounds[:, 2].mean()])
    assert found.volume_mm3 == pytest.approx(made.volume, rel=2e-3) and found.area_mm2 == pytest.approx(
        made.area, rel=2e-3
    )
    assert found.centroid_mm == pytest.approx(made.center_mass - shift, abs=0.02)
    up = np.array([0.2, 0.1, 1.0]) / np.linalg.norm([0.2, 0.1, 1.0])
    made.apply_translation(-shift)
    wet = made.slice_plane(up * -1.5, -up, cap=True)
    assert vessel_of_body(body).exact(up, -1.5).volume == pytest.approx(wet.volume, rel=2e-3)
    assert vessel_of_body(body).quick(up, -1.5).volume == pytest.approx(wet.volume, rel=0.06)


def test_the_outlines_measured_on_a_mesh_are_those_of_the_shape():
    body = body_of(egg(), "d")
    phi = np.array([np.pi / 2])
    assert (body.length_mm, body.width_mm, body.depth_mm) == (
        pytest.approx(90, abs=0.1),
        pytest.approx(16, abs=0.05),
        pytest.approx(20, abs=0.05),
    )
    assert float(body.top.at(phi)[0]) == pytest.approx(10, abs=0.05) and body.upper_exponent == pytest.approx(
        2.0, abs=0.03
    )


def test_a_mesh_floats_like_the_same_curve():
    body = body_of(egg(), "e")
    same = replace(body, skin=None)
    verdicts = [evaluate.settle(Design("x", "own", "bait", b, Host("f", 0.6, 0.02))) for b in (body, same)]
    assert verdicts[0].surface[0].freeboard_mm == pytest.approx(verdicts[1].surface[0].freeboard_mm, abs=0.1)
    assert verdicts[0].hanging.net_g == pytest.approx(verdicts[1].hanging.net_g, rel=0.002)


def test_a_mesh_is_cut_like_any_body():
    body = body_of(capsule(), "1")
    cut = replace(body, joints=(Joint("j1", 30, 12, 2.0),))
    assert sum(s.volume_ml for s in segments(cut)) + kerf_ml(cut) == pytest.approx(
        solid(body).volume_ml, rel=1e-5
    )
    assert wedge(body, (), (Cut(39.0),)).volume_mm3 == pytest.approx(solid(body).volume_mm3 / 2, rel=1e-3)
    assert evaluate.drag(Design("x", "own", "bait", cut, Host("f", 0.6, 0.02))).surface


@pytest.mark.parametrize(
    ("nose", "up", "size"),
    [("+x", "+z", (2, 3, 5)), ("-x", "+z", (2, 3, 5)), ("+y", "-x", (3, 5, 2)), ("-z", "+y", (5, 2, 3))],
)
def test_the_nose_is_turned_to_the_left_and_the_back_up(nose, up, size):
    box = box_mesh(20, 30, 50)
    moved = Mesh(box.vertices.copy(), box.faces)
    moved.vertices[:, 1] += 4
    found = turned(moved, nose, up, 0.1)
    assert np.ptp(found.vertices, axis=0) == pytest.approx(size) and measures(
        found
    ).volume_mm3 == pytest.approx(30.0)
    where = (1.0 if nose[0] == "+" else -1.0) * moved.vertices[:, "xyz".index(nose[1])]
    assert found.vertices[int(np.argmax(where)), 0] == pytest.approx(found.vertices[:, 0].min())


def faulty(change):
    made = egg()
    return change(np.array(made.vertices), np.array(made.faces))


FAULTS = {
    "hole": (lambda v, f: (v, f[1:]), "not watertight: there is a hole near"),
    "flipped": (lambda v, f: (v, np.vstack([f[:1, ::-1], f[1:]])), "turned against each other, near"),
    "fin": (
        lambda v, f: (np.vstack([v, [[0, 0, 40]]]), np.vstack([f, [[f[0, 0], f[0, 1], len(v)]]])),
        "not watertight|more than two faces",
    ),
    "two": (lambda v, f: (np.vstack([v, v + 200]), np.vstack([f, f + len(v)])), "one body at a time"),
    "nan": (
        lambda v, f: (np.where(np.arange(len(v))[:, None] == 7, np.nan, v), f),
        "corner 8 of .* no number",
    ),
    "few": (lambda v, f: (v, f[:2]), "at least 4"),
}


@pytest.mark.parametrize("name", FAULTS)
def test_the_fault_of_a_bad_mesh_is_named(name):
    change, says = FAULTS[name]
    with pytest.raises(Refused, match=says):
        check(*faulty(change))


def test_what_can_be_put_right_is_put_right_and_said():
    inside_out = check(*faulty(lambda v, f: (v, f[:, ::-1])))
    assert measures(inside_out.mesh).volume_mm3 > 0 and "inside out" in inside_out.notes[0]
    doubled = check(*faulty(lambda v, f: (v, np.vstack([f, [[3, 3, 5]]]))))
    assert "without area" in doubled.notes[0]


@pytest.mark.parametrize(
    ("scale", "says"), [(0.01, "length: .* is the unit right"), (100.0, "length: .*allowed is 5 to 600 mm")]
)
def test_a_wrong_unit_is_noticed(scale, says):
    with pytest.raises(Refused, match=says):
        measured(turned(check(egg().vertices, egg().faces).mesh, "-x", "+z", scale))


@pytest.mark.parametrize(("nose", "up"), [("left", "+z"), ("+x", "-x"), ("+x", "up")])
def test_axes_that_are_none_are_refused(nose, up):
    with pytest.raises(Refused, match="axis|across"):
        turned(box_mesh(1, 1, 1), nose, up, 1.0)


def test_a_thinned_mesh_is_still_closed():
    made = egg()
    coarse = thinned(Mesh(np.array(made.vertices), np.array(made.faces)))
    directed = np.concatenate([coarse.faces[:, [0, 1]], coarse.faces[:, [1, 2]], coarse.faces[:, [2, 0]]])
    count = len(coarse.vertices)
    forth, back = directed[:, 0] * count + directed[:, 1], directed[:, 1] * count + directed[:, 0]
    assert np.array_equal(np.sort(forth), np.sort(back)) and len(coarse.faces) < len(made.faces) / 2


def test_a_mesh_this_shop_does_not_have_is_asked_for():
    with pytest.raises(Refused, match="bring its STL in again"):
        skins.mesh_of(Skin("9" * 64, 90, 10, 10))
