"""Cuts and segments: nothing lost between them, closed forms, an independent mesh cutter, who pitches with
whom.
"""

from dataclasses import replace
from math import pi, radians, tan

import numpy as np
import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st

from lamsik.core.errors import Refused
from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.clashes import clashes, cut_ends
from lamsik.core.shapes.design import Host
from lamsik.core.shapes.forms import FORMS, body_from
from lamsik.core.shapes.hardware import Item, Placement
from lamsik.core.shapes.joints import Cut, Joint
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.shapes.polyhedra import measures, segment_meshes
from lamsik.core.shapes.solid import kerf_ml, segment_at, segments, solid, wedge
from lamsik.core.tank import evaluate
from lamsik.core.tank.ballast import search, with_answer
from lamsik.core.tank.ballast_base import base_of
from lamsik.core.tank.ballast_tool import Tool
from lamsik.core.tank.certainty import certainty
from lamsik.core.tank.drilling import troubles
from lamsik.core.tank.floating import float_drag, vessel_of_mesh
from lamsik.core.tank.mass import budget
from lamsik.core.tank.motion import Bands
from lamsik.core.tank.segments import group_verdicts, pitch_groups
from lamsik.words.tell import tell
from tests.bodies import BENCH, TUNGSTEN, bait, homogeneous, straight

DRAG = 0.3


def slim(*joints):
    return replace(body_from(FORMS["slim"], 90, 20, 15), joints=joints)


@settings(max_examples=40)
@given(
    st.floats(20, 45),
    st.floats(20, 35),
    st.floats(-30, 30),
    st.floats(-30, 30),
    st.floats(0.3, 4),
    st.sampled_from([f for f in FORMS.values() if f.length_mm >= 60 and f.purpose == "bait"]),
)
def test_segments_and_kerf_add_up_to_the_whole(first, gap, slant, other, kerf, form):
    body = body_from(form, 110, 22, 16)
    cut = replace(body, joints=(Joint("j1", first, slant, kerf), Joint("j2", first + gap, other, kerf)))
    parts = segments(cut)
    assert sum(p.volume_ml for p in parts) + kerf_ml(cut) == pytest.approx(solid(body).volume_ml, rel=1e-6)
    whole = np.sum([p.volume_mm3 * np.array(p.centroid_mm) for p in parts], axis=0) / sum(
        p.volume_mm3 for p in parts
    )
    assert solid(cut).centroid_mm == pytest.approx(whole, abs=1e-9) and all(p.volume_mm3 > 0 for p in parts)


@pytest.mark.parametrize("slant", [-40, -12, 0, 12, 40])
def test_a_slanted_cut_through_a_cylinders_axis_in_closed_form(slant):
    found = wedge(straight(100, 8, 8), (), (Cut(40, slant),))
    volume = pi * 64 * 40
    assert found.volume_mm3 == pytest.approx(volume, rel=1e-6)
    # the wedge shifts the centroid by tan(s)·I/V up and tan²(s)·I/2V aft, I = πr⁴/4
    second = pi * 8**4 / 4
    assert found.centroid_mm[2] == pytest.approx(tan(radians(slant)) * second / volume, abs=1e-4)
    assert found.centroid_mm[0] == pytest.approx(
        (40**2 * pi * 64 + tan(radians(slant)) ** 2 * second) / 2 / volume, rel=1e-5
    )


@pytest.mark.parametrize(
    ("form", "x", "slant"), [("slim", 38, 17), ("stubby", 30, -25), ("glider", 70, 33), ("deepflank", 35, -8)]
)
def test_cut_volumes_agree_with_an_independent_mesh_cutter(form, x, slant):
    start = FORMS[form]
    body = body_from(start, start.length_mm, start.depth_mm, start.width_mm)
    mesh = body_mesh(body, 300, 240)
    whole = trimesh.Trimesh(mesh.vertices, mesh.faces)
    normal = (-np.cos(radians(slant)), 0.0, np.sin(radians(slant)))
    part = whole.slice_plane((x, 0, 0), normal, cap=True)
    found = wedge(body, (), (Cut(x, slant),))
    assert found.volume_mm3 / solid(body).volume_mm3 == pytest.approx(part.volume / whole.volume, rel=3e-4)
    assert found.centroid_mm == pytest.approx(part.center_mass, abs=0.03)


def test_exported_segments_are_closed_and_hold_the_segments_volume():
    body = slim(Joint("j1", 35, 15, 1.5), Joint("j2", 62, -20, 2.0))
    for part, mesh in zip(segments(body), segment_meshes(body, 180, 128), strict=True):
        made = trimesh.Trimesh(mesh.vertices, mesh.faces)
        assert made.is_watertight and made.volume == pytest.approx(part.volume_mm3, rel=1e-3)


def test_points_belong_to_their_segment_and_cuts_end_on_the_skin():
    body = slim(Joint("j1", 40, 20, 2.0))
    assert [segment_at(body, x, 0.0) for x in (10, 38, 42, 80)] == ["s1", "s1", "s2", "s2"]
    assert segment_at(body, 41.5, 8.0) == "s1"  # the cut leans aft at the top
    (x, z), (u, w) = cut_ends(body, Cut(40, 20))
    assert x - u == pytest.approx((z - w) * tan(radians(20))) and z > 5 > -5 > w


@pytest.mark.parametrize(
    "joints",
    [
        (Joint("j1", 0.3),),
        (Joint("j1", 89.8),),
        (Joint("j1", 40), Joint("j2", 41)),
        (Joint("j1", 60), Joint("j2", 30)),
        (Joint("j1", 45, 50), Joint("j2", 52, -50)),
    ],
)
def test_cuts_that_cross_or_leave_no_body_are_refused(joints):
    with pytest.raises(Refused, match="leave at least 1 mm"):
        slim(*joints)


@pytest.mark.parametrize(
    ("field", "value"),
    [("kind", "glue"), ("kerf_mm", -1.0), ("slant_deg", 80.0), ("x_mm", float("nan")), ("hinge_mm", 0.0)],
)
def test_a_bad_joint_is_refused(field, value):
    with pytest.raises(Refused, match=field):
        Joint(**{"key": "j1", "x_mm": 40.0, field: value})


class TestInWater:
    def test_groups_follow_the_kind_of_joint(self):
        body = slim(Joint("j1", 30, kind="pin"), Joint("j2", 50), Joint("j3", 70, kind="hinge"))
        assert [[s.key for s in group] for group in pitch_groups(body)] == [["s1", "s2"], ["s3", "s4"]]

    def test_what_the_groups_weigh_and_lift_adds_up(self):
        design = bait()
        design = replace(design, body=replace(design.body, joints=(Joint("j1", 52, 10),)))
        mass = budget(design)
        groups = group_verdicts(design, mass, DRAG, Bands())
        assert sum(g.budget.mass_g for g in groups) == pytest.approx(mass.mass_g, rel=1e-6)
        assert sum(g.budget.displaced_ml for g in groups) == pytest.approx(mass.displaced_ml, rel=1e-6)
        assert sum(g.hanging.net_g for g in groups) == pytest.approx(
            evaluate.drag(design).hanging.net_g, abs=1e-6
        )

    def test_a_light_even_body_lies_level_however_it_is_linked(self):
        design = homogeneous(replace(straight(120, 9, 9), joints=(Joint("j1", 60, kerf_mm=1.0),)), 0.5)
        front, rear = group_verdicts(design, budget(design), DRAG, Bands())
        assert front.chained.pitch_deg == pytest.approx(
            0.0, abs=0.5
        ) and rear.chained.pitch_deg == pytest.approx(0.0, abs=0.5)

    def test_a_heavy_rear_hangs_from_a_light_front_only_where_it_is_linked(self):
        body = replace(straight(120, 9, 9), joints=(Joint("j1", 70),))
        design = replace(homogeneous(body, 0.45), segment_hosts=(("s2", Host("heavy", 1.25, 0.01)),))
        front, rear = group_verdicts(design, budget(design), DRAG, Bands())
        assert (
            front.hanging.net_g > 0 > rear.hanging.net_g
            and rear.chained.pitch_deg > 30
            and rear.name == "segment 2"
        )
        pinned = replace(design, body=replace(body, joints=(replace(body.joints[0], kind="pin"),)))
        (both,) = group_verdicts(pinned, budget(pinned), DRAG, Bands())
        assert both.keys == ("s1", "s2") and both.chained is None and both.name == "segments 1 and 2"

    def test_a_chain_of_tall_thin_segments_lies_on_its_side(self):
        tall = body_from(FORMS["glider"], 120, 26, 10)
        rows = group_verdicts(
            design := homogeneous(replace(tall, joints=(Joint("j1", 60, 6),)), 0.5),
            budget(design),
            0.9,
            Bands(),
        )
        assert all(
            abs(row.chained.roll_deg) == pytest.approx(90, abs=8) and row.surface[0].freeboard_mm < 8
            for row in rows
        )

    def test_segments_float_as_finer_meshes_of_them_do(self):
        design = homogeneous(
            replace(body_from(FORMS["walker"], 100, 24, 16), joints=(Joint("j1", 60, -8, 1.5),)), 0.55
        )
        for row, mesh in zip(
            group_verdicts(design, budget(design), 0.9, Bands()),
            segment_meshes(design.body, 200, 160),
            strict=True,
        ):
            fine = float_drag(vessel_of_mesh(mesh), row.budget, design.water.density_g_cm3)
            assert row.surface[0].attitude.pitch_deg == pytest.approx(fine.attitude.pitch_deg, abs=0.05)
            assert row.surface[0].freeboard_mm == pytest.approx(fine.freeboard_mm, abs=0.05)

    def test_without_joints_there_are_no_groups(self):
        assert group_verdicts(bait(), budget(bait()), DRAG, Bands()) == ()

    def test_another_segment_material_needs_its_segment(self):
        with pytest.raises(Refused, match="segments are s1, s2"):
            replace(homogeneous(slim(Joint("j1", 40)), 0.4), segment_hosts=(("s3", Host("x", 0.4, 0.0)),))


def test_kerfs_take_away_what_floats():
    design = homogeneous(straight(120, 9, 9), 0.4)
    cut = replace(design, body=replace(design.body, joints=(Joint("j1", 60, 0, 3.0),)))
    assert solid(cut.body).volume_ml == pytest.approx(pi * 81 * 117 / 1000)
    assert budget(cut).mass_g == pytest.approx(0.4 * pi * 81 * 117 / 1000)
    assert evaluate.settle(cut).surface[0].attitude.pitch_deg == pytest.approx(0.0, abs=0.3)
    assert measures(segment_meshes(cut.body)[0]).area_mm2 > 0


@pytest.mark.parametrize(("slant", "x"), [(0, 46), (20, 40), (-15, 34)])
def test_ballast_is_not_drilled_into_a_joint(slant, x):
    whole = bait()
    cut = replace(
        whole,
        body=replace(whole.body, joints=(Joint("j1", x, slant, 1.5),)),
        ballast=(),
        hardware=tuple(p for p in whole.hardware if p.seat != "belly"),
    )
    found = search(cut, BENCH)
    assert found
    for answer in found:
        made = with_answer(cut, answer)
        assert not [c for c in clashes(made, 1.0) if "joint" in c.what + c.other and c.gap_mm <= 0.5], answer
    over = replace(cut, ballast=(replace(whole.ballast[0], x_mm=float(x)),))
    assert "runs into a joint" in map(tell, troubles(over, over.ballast[0], 1.0))


def test_ballast_ends_under_a_through_wire():
    whole = bait()
    wired = replace(
        whole,
        ballast=(),
        hardware=(
            *whole.hardware,
            Placement("w", Item("w", "through-wire", "wire", 0.7, 7.85, 0.15, wire_mm=1.0), "inside", 45.0),
        ),
    )
    found = search(wired, BENCH)
    pair = Hole("b1", TUNGSTEN, 4.4, 38.0, 4.0, beside_mm=3.5)  # past the wire to both sides
    for hole, says in ((pair, False), (replace(pair, beside_mm=2.6), True), (whole.ballast[0], True)):
        wrong = map(tell, troubles(replace(wired, ballast=(hole,)), hole, 1.0))
        assert any("through-wire" in text for text in wrong) is says
    tool, unwired = (Tool(base_of(one), BENCH, TUNGSTEN, 4.0, 3.5) for one in (wired, whole))
    assert (tool.room.most == unwired.room.most).all()
    as_drawn = clashes(wired, BENCH.wall_mm)  # its lip is sawn into the wire
    assert found and all(clashes(with_answer(wired, a), BENCH.wall_mm) == as_drawn for a in found)


def test_a_segment_of_another_material_counts_in_the_chances():
    cut = replace(bait().body, joints=(Joint("j1", 48.0),))
    found = certainty(replace(bait(), body=cut, segment_hosts=(("s2", Host("balsa", 0.16, 0.035)),)))
    assert 0 <= found.chance <= 1 and any("segment" in row.says for row in found.better)
