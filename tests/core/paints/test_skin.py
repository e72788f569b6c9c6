"""The painted skin adds up to the surface of a body, whatever it is made as; left is left and out is out."""

from dataclasses import replace

import numpy as np
import pytest

from lamsik.core.paints.skin import COARSE, FINE, INNER, skin_of
from lamsik.core.shapes import skins
from lamsik.core.shapes.body import Body
from lamsik.core.shapes.curves import Curve
from lamsik.core.shapes.forms import FORMS, body_from, form
from lamsik.core.shapes.joints import Joint
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.shapes.meshing import measured
from lamsik.core.shapes.polyhedra import measures, segment_meshes
from lamsik.core.shapes.skins import Mesh
from lamsik.core.shapes.solid import solid
from tests.bodies import bait, box_mesh, ellipsoid, straight

JOINTED = replace(bait().body, joints=(Joint("j1", 40.0, 20.0, 1.6), Joint("j2", 62.0, -20.0, 1.2)))
PALM = replace(ellipsoid(90, 16, 22), upper_exponent=1.4, lower_exponent=4.0)


def of_form(key):
    of = form(key)
    return body_from(of, of.length_mm, of.depth_mm, of.width_mm)


def meshed(name: str, mesh: Mesh) -> Body:
    size = measured(mesh)
    digest = name.ljust(64, "0")
    skins.keep(digest, size.shares)
    body = size.body
    return replace(body, skin=skins.Skin(digest, body.length_mm, body.width_mm, body.depth_mm))


BODIES = {
    **{key: of_form(key) for key in ("slim", "popper", "glider", "stick", "antenna")},
    "ellipsoid": ellipsoid(90, 14, 20),
    "cylinder": straight(80, 8, 8),
    "cone": straight(80, 2, 9),
    "slab below": PALM,
    "jointed": JOINTED,
    "mesh": meshed("mesh", body_mesh(bait().body, 90, 64)),
    "mesh, jointed": replace(meshed("mesh", body_mesh(bait().body, 90, 64)), joints=JOINTED.joints),
}


@pytest.mark.parametrize("name", BODIES)
def test_cells_and_patches_add_up_to_the_coated_surface(name):
    body = BODIES[name]
    for cells in (FINE, COARSE):
        assert skin_of(body, cells).area_mm2 == pytest.approx(solid(body).area_mm2, rel=1e-3)
    coarse, whole = skin_of(body, COARSE), solid(body)
    moment = sum(np.einsum("ij,ijk->k", sheet.area_mm2, sheet.middle_mm) for sheet in coarse)
    if not body.joints:
        assert moment / coarse.area_mm2 == pytest.approx(whole.area_centroid_mm, abs=0.12)


@pytest.mark.parametrize(
    ("body", "area"),
    [
        (straight(80, 8, 8), 2 * np.pi * 8 * (80 + 8)),
        (straight(80, 0.01, 9), np.pi * 9 * (np.hypot(80, 8.99) + 9)),
        (ellipsoid(40, 40, 40), np.pi * 40**2),
        (  # a prolate spheroid
            ellipsoid(80, 20, 20),
            2 * np.pi * 10**2 * (1 + 40 / (10 * np.sqrt(15 / 16)) * np.arcsin(np.sqrt(15 / 16))),
        ),
    ],
)
def test_closed_forms(body, area):
    assert skin_of(body, FINE).area_mm2 == pytest.approx(area, rel=1e-3)


@pytest.mark.parametrize("slant", [0.0, 20.0, -45.0])
def test_a_joint_takes_its_kerf_and_gives_two_faces(slant):
    body = replace(bait().body, joints=(Joint("j1", 42.0, slant, 1.6),))
    skin = skin_of(body, FINE)
    assert {patch.name for patch in skin.patches} >= {"j1 fore", "j1 aft"}
    cut = sum(measures(mesh).area_mm2 for mesh in segment_meshes(body, 200, 150))
    assert skin.area_mm2 == pytest.approx(cut, rel=1e-3)
    kerf = sum(side.area_mm2.sum() for side in skin_of(bait().body, FINE).sides) - sum(
        side.area_mm2.sum() for side in skin.sides
    )
    girth = float(np.interp(42.0, skin.sides[0].x_mm[:, 0], skin.sides[0].girth_mm[:, 0]))
    assert kerf == pytest.approx(2 * girth * 1.6 / np.cos(np.radians(slant)), rel=0.05)


def test_left_is_left_and_normals_point_out():
    for body in (BODIES["slim"], BODIES["mesh"]):
        left, right = skin_of(body, COARSE).sides
        assert (left.name, right.name) == ("left", "right")
        assert left.middle_mm[..., 1].max() < 0 < right.middle_mm[..., 1].min()
        for sheet in (left, right):
            middle = np.array([body.length_mm / 2, 0.0, 0.0])
            out = np.einsum("ijk,ijk->ij", sheet.normal, sheet.middle_mm - middle)
            assert (out > 0).mean() > 0.97
            assert np.all(np.diff(sheet.middle_mm[COARSE[0] // 2, :, 2]) < 0)  # from the back down


def test_a_share_of_the_girth_is_one_of_its_length():
    body = replace(ellipsoid(90, 10, 30), upper_exponent=3.0)
    sheet = skin_of(body, FINE).sides[1]
    steps = np.linalg.norm(np.diff(sheet.corners[128], axis=0), axis=1)
    assert steps.std() / steps.mean() < 0.01
    assert steps.sum() == pytest.approx(float(sheet.girth_mm[128, 0]), rel=5e-3)


def test_what_slices_of_a_mesh_miss_is_a_patch_of_its_own():
    box, hole = box_mesh(60, 16, 20), box_mesh(30, 6, 8)
    inside = Mesh(hole.vertices + np.array([15.0, 0.0, 0.0]), hole.faces[:, ::-1])
    mesh = Mesh(np.vstack([box.vertices, inside.vertices]), np.vstack([box.faces, inside.faces + 8]))
    skin = skin_of(meshed("hollow", mesh), COARSE)
    inner = next(patch for patch in skin.patches if patch.name == INNER)
    assert inner.area_mm2.sum() == pytest.approx(measures(hole).area_mm2, rel=0.08)
    assert skin.area_mm2 == pytest.approx(measures(box).area_mm2 + measures(hole).area_mm2, rel=1e-3)


def test_a_lopsided_mesh_keeps_its_sides_apart():
    body = bait().body
    made = body_mesh(body, 90, 64)
    wide = np.where(made.vertices[:, 1:2] > 0, 1.5, 1.0)
    skin = skin_of(
        meshed("lopsided", Mesh(made.vertices * np.hstack([wide**0, wide, wide**0]), made.faces)), FINE
    )
    left, right = (float(side.area_mm2.sum()) for side in skin.sides)
    assert abs(right / left - 1.0) > 0.03 and not skin.is_mirrored


def test_every_form_there_is_can_be_painted():
    for key in FORMS:
        assert skin_of(of_form(key), COARSE).area_mm2 == pytest.approx(solid(of_form(key)).area_mm2, rel=1e-3)


def test_a_flat_end_is_a_patch_and_a_pointed_one_is_none():
    names = [patch.name for patch in skin_of(straight(80, 8, 5), COARSE).patches]
    assert names == ["nose", "tail"]
    assert skin_of(ellipsoid(80, 12, 12), COARSE).patches == ()
    cone = Body(
        60,
        Curve((0, 1), (0, 6), False, False),
        Curve((0, 1), (0, -6), False, False),
        Curve((0, 1), (0, 6), False, False),
    )
    (only,) = skin_of(cone, COARSE).patches
    assert only.name == "tail" and only.area_mm2.sum() == pytest.approx(np.pi * 36, rel=1e-3)
