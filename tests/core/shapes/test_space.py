"""The account of space: against booleans of another library, closed forms, and the wall measured on the
skin.
"""

from dataclasses import replace
from functools import cache
from math import cos, pi, radians

import numpy as np
import pytest
from scipy.spatial import cKDTree

from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.body import axis_mm
from lamsik.core.shapes.forms import FORMS, body_from
from lamsik.core.shapes.hardware import Lip
from lamsik.core.shapes.hollow import Shell, inside_columns, inside_of
from lamsik.core.shapes.inside import Cavity, PouredEnd, pour_volume_ml
from lamsik.core.shapes.joints import Cut, Joint
from lamsik.core.shapes.mesh import body_mesh
from lamsik.core.shapes.meshing import check, measured, turned
from lamsik.core.shapes.skins import Skin, keep
from lamsik.core.shapes.solid import kerf_ml, segments, solid, wedge
from lamsik.core.shapes.space import KINDS, account, space_of
from lamsik.core.shapes.unbuilt import unbuilt
from lamsik.core.tank import evaluate
from lamsik.core.tank.mass import budget
from lamsik.words.tell import tell
from lamsik.words.verdict import sentence
from tests.bodies import LEAD_BALL, LEAD_ROD, bait, ellipsoid, homogeneous, straight
from tests.conftest import sampled
from tests.space_booleans import combinations_, held_against, hull

ROUND_MOUTH = float(
    np.sum([2 * np.sqrt(9 - y**2) * (10 - np.sqrt(100 - y**2)) * 0.001 for y in np.arange(-2.9995, 3, 0.001)])
)
"""What a skin of radius 10 mm leaves out of a flat mouth of 6 mm [mm³]."""


@cache
def combined():
    """Made by whoever runs them, not by all that look for tests."""
    return combinations_(20, seed=8, pool=(0, 4))


@pytest.mark.parametrize("number", sampled(range(20), 3))
def test_every_share_is_what_booleans_of_meshes_say(number):
    found = held_against(combined()[number])
    assert found["volume_off"] < 1e-3 and found["mass_off"] < 1e-3 and found["sum_off"] < 1e-6, found


def mesh_of_body(body):
    """A drawn body brought in as a mesh."""
    mesh = hull(body).to_mesh()
    found = measured(
        turned(check(np.array(mesh.vert_properties), np.array(mesh.tri_verts)).mesh, "-x", "+z", 1.0)
    )
    keep("c" * 64, found.shares)
    return replace(
        found.body, skin=Skin("c" * 64, found.body.length_mm, found.body.width_mm, found.body.depth_mm)
    )


@pytest.mark.parametrize("slant", [-25.0, 18.0])
def test_the_same_joint_and_pour_cut_a_mesh_and_a_drawn_body_alike(slant):
    start = FORMS["popper"]
    low = replace(start, top=tuple((s, 0.6 * v) for s, v in start.top))
    drawn = body_from(low, 90, 20, 15)
    pour = PouredEnd("p1", "dense", 1.6, 60.0, drawn.length_mm, slant)
    shares = []
    for body in (drawn, mesh_of_body(drawn)):
        cut = replace(body, joints=(Joint("j1", 40.0, slant, 2.0),))
        shares.append([*(part.volume_mm3 for part in segments(cut)), pour_volume_ml(body, pour)[0] * 1000])
    assert abs(axis_mm(drawn)) > 1 and shares[0] == pytest.approx(shares[1], rel=1e-3)


class TestWall:
    @pytest.mark.parametrize(
        ("body", "wall", "volume"),
        [
            (straight(100, 10, 10), 2.0, pi * 64 * 96),
            (ellipsoid(40, 40, 40), 3.0, 4 / 3 * pi * 17**3),
            (straight(60, 9, 9, 12.0), 1.0, None),
        ],
    )
    def test_the_inside_of_simple_bodies_in_closed_form(self, body, wall, volume):
        found = inside_of(body, wall)
        if volume:
            assert found.volume_mm3 == pytest.approx(volume, rel=2e-4)
        assert found.centroid_mm == pytest.approx((body.length_mm / 2, 0, 0), abs=2e-3)

    @pytest.mark.parametrize("form", ["deepflank", "walker", "slim"])
    def test_it_is_as_thick_everywhere_square_to_the_skin(self, form):
        body = body_from(FORMS[form], 100, 26, 14)
        sharp = replace(body, upper_exponent=1.6, lower_exponent=1.5)
        skin = cKDTree(body_mesh(sharp, 500, 400).vertices)
        rows = inside_columns(sharp, 1.8)
        for z in (rows.low, rows.high):
            away = skin.query(np.column_stack([rows.x, rows.y, z]))[0]
            assert away.min() > 1.795 and away.max() < 1.83

    def test_a_mesh_has_the_same_inside_as_the_curve_it_is_of(self):
        body = body_from(FORMS["slim"], 90, 20, 15)
        assert inside_of(mesh_of_body(body), 1.6).volume_mm3 == pytest.approx(
            inside_of(body, 1.6).volume_mm3, rel=2e-3
        )

    @pytest.mark.parametrize("slant", [0.0, 12.0])
    def test_a_joint_is_closed_by_walls_on_both_sides(self, slant):
        body = replace(straight(100, 10, 10), joints=(Joint("j1", 50.0, slant, 3.0),))
        found = space_of(replace(homogeneous(body, 1.1), shell=Shell(2.0)))
        # half the tube less its end wall, half the kerf and the joint's wall, which are both measured square
        # to the cut
        long = 50 - 2 - (1.5 + 2.0) / cos(radians(slant))
        assert [piece.volume_mm3 for piece in found.hollow] == pytest.approx([pi * 64 * long] * 2, rel=3e-4)


class TestTogether:
    def hollow(self, around=0.0, **changes):
        return replace(homogeneous(straight(100, 10, 10), 1.1), shell=Shell(2.0, around_mm=around), **changes)

    def test_walls_round_a_chamber_are_host_again(self):
        cavity = Cavity("c1", LEAD_BALL, 3, 50.0, 10.0)
        bare, walled = (budget(self.hollow(around, cavities=(cavity,))).mass_g for around in (0.0, 1.2))
        ring = (
            pi
            / 4
            * ((cavity.bore_mm + 2.4) ** 2 * (cavity.length_mm + 2.4) - cavity.bore_mm**2 * cavity.length_mm)
            / 1000
        )
        assert walled - bare == pytest.approx(1.1 * ring, rel=1e-3)

    def test_walls_round_a_hole_stand_only_in_the_hollow(self):
        hole = Hole("b1", LEAD_ROD, 3.0, 40.0, 6.0)
        bare, walled = (budget(self.hollow(around, ballast=(hole,))).mass_g for around in (0.0, 1.5))
        # the hollow begins at 8 mm round the middle; the wall is what is within 4.5 mm of the drill's middle
        # and not within 3 mm, and a cap
        x, y = np.meshgrid(*[np.linspace(-4.5, 4.5, 1201)] * 2)
        away, foot, top = np.hypot(x, y), -np.sqrt(64 - y**2), hole.depth_mm - 10.0
        ring = (
            np.where(away < 3.0, 1.5, np.where(away < 4.5, top + 1.5 - foot, 0.0)).sum()
            * (9 / 1200) ** 2
            / 1000
        )
        assert walled - bare == pytest.approx(1.1 * ring, rel=3e-3)

    def test_a_hole_in_a_poured_end_takes_the_pour(self):
        pour, hole = PouredEnd("p1", "dense", 1.6, 60.0, 100.0), Hole("b1", LEAD_ROD, 3.0, 80.0, 6.0)
        cast = replace(homogeneous(straight(100, 10, 10), 0.6), pours=(pour,))
        gained = budget(replace(cast, ballast=(hole,))).mass_g - budget(cast).mass_g
        assert gained == pytest.approx(
            3.0 + hole.filler_g - 1.6 * hole.hole_ml + (1.6 - 1.15) * ROUND_MOUTH / 1000, abs=1e-5
        )

    def test_the_mouth_of_a_hole_follows_the_skin(self):
        hole = Hole("b1", LEAD_ROD, 3.0, 50.0, 6.0)
        filler = next(
            part
            for part in budget(replace(homogeneous(straight(100, 10, 10), 0.6), ballast=(hole,))).parts
            if part.key == "fill:b1"
        )
        assert filler.mass_g == pytest.approx(hole.filler_g - 1.15 * ROUND_MOUTH / 1000, abs=1e-5)
        # on a slope as much is left standing downhill as is missing uphill
        cone = replace(homogeneous(straight(100, 14, 6, 12.0), 0.6), ballast=(hole,))
        assert next(part for part in budget(cone).parts if part.key == "cut:b1").cut_ml == pytest.approx(
            hole.hole_ml, rel=1e-4
        )

    def test_what_shares_a_key_is_kept_apart(self):
        things = {
            "ballast": (Hole("k", LEAD_ROD, 2.0, 25.0, 6.0),),
            "cavities": (Cavity("k", LEAD_BALL, 1, 60.0, 10.0),),
            "pours": (PouredEnd("k", "dense", 1.6, 90, 100),),
        }
        solid_body = homogeneous(straight(100, 10, 10), 0.6)
        alone = [
            budget(replace(solid_body, **{name: rows})).mass_g - budget(solid_body).mass_g
            for name, rows in things.items()
        ]
        assert budget(replace(solid_body, **things)).mass_g - budget(solid_body).mass_g == pytest.approx(
            sum(alone), abs=1e-6
        )

    def test_a_lip_wider_than_its_nose_displaces_beside_its_slot(self):
        thin = homogeneous(straight(100, 4, 4), 0.5)
        lip = Lip(20.0, 20.0, 1.5, 1.2, 0.0, 10.0, 8.0, outline="square")
        row = next(
            part
            for part in budget(replace(thin, lip=replace(lip, angle_deg=90.0, x_mm=30.0))).parts
            if part.key == "lip"
        )
        # it stands upright through the whole round body: what is inside is a slice of it
        assert row.outside_ml == pytest.approx(lip.plate_ml - pi * 16 * 1.5 / 1000, rel=2e-3)

    def test_the_account_names_its_kinds_and_adds_up(self):
        design = bait(
            ballast=(Hole("b1", LEAD_ROD, 2.0, 25.0, 6.0),),
            cavities=(Cavity("c1", LEAD_BALL, 1, 50.0, 9.0),),
            pours=(PouredEnd("p1", "dense", 1.6, 80, 90),),
        )
        design = replace(design, body=replace(design.body, joints=(Joint("j1", 65.0, 8.0),)))
        cells = account(design)
        assert {cell.kind for cell in cells} == set(KINDS) - {"shell", "void"}
        assert sum(cell.piece.volume_mm3 for cell in cells) == pytest.approx(
            solid(replace(design.body, joints=())).volume_mm3, rel=1e-6
        )
        assert sum(cell.piece.volume_mm3 for cell in cells if cell.kind == "kerf") == pytest.approx(
            1000 * kerf_ml(design.body)
        )
        assert {cell.kind for cell in account(replace(design, shell=Shell(1.5)))} == set(KINDS) - {"host"}

    def test_faces_of_different_lean_that_cross_in_the_body(self):
        body = straight(100, 10, 10)
        one, other = Cut(50.0, 30.0), Cut(50.0, -30.0)
        # behind the one and ahead of the other lies the upper half's wedge, behind both the rest: with its
        # mirror they are the whole
        parts = [
            wedge(body, fores, afts).volume_mm3
            for fores, afts in (
                ((one, other), ()),
                ((one,), (other,)),
                ((other,), (one,)),
                ((), (one, other)),
            )
        ]
        assert sum(parts) == pytest.approx(pi * 1e4, rel=1e-6) and parts[1] == pytest.approx(
            parts[2], rel=1e-9
        )
        # the wedge between z = 0 and x = z·tan 30° on both sides: 2·tan 30°·∫z dA over the half disc
        assert parts[1] == pytest.approx(2 * np.tan(radians(30)) * 2 / 3 * 1000, rel=1e-5)


class TestUnbuilt:
    HOLE = Hole("b1", LEAD_ROD, 2.0, 45.0, 6.0)

    def design(self, **changes):
        return replace(homogeneous(straight(100, 10, 10), 0.6), ballast=(self.HOLE,), **changes)

    @pytest.mark.parametrize(
        ("changes", "says"),
        [
            (
                {"cavities": (Cavity("c1", LEAD_BALL, 1, 46.0, 8.0),)},
                "the 6 mm hole at 45 mm runs into the chamber at 46 mm",
            ),
            (
                {"body": replace(straight(100, 10, 10), joints=(Joint("j1", 46.0),))},
                "the 6 mm hole at 45 mm runs into a joint",
            ),
            ({"ballast": (replace(HOLE, mass_g=6.0),)}, "the 6 mm hole at 45 mm breaks out of the body"),
            (
                {"cavities": (Cavity("c1", LEAD_BALL, 2, 75.0, 2.0),)},
                "the chamber at 75 mm breaks out of the body",
            ),
            (
                {"pours": (PouredEnd("p1", "a", 1.6, 60, 80), PouredEnd("p2", "b", 1.6, 70, 100))},
                "the pours from 60 and from 70 mm overlap",
            ),
            (
                {"shell": Shell(2.0)},
                "the 6 mm hole at 45 mm stands open in the hollow: give it walls round it",
            ),
            (
                {"lip": Lip(12.0, 20.0, 1.5, 1.2, 0.0, 42.0, 8.0), "ballast": (replace(HOLE, x_mm=46.0),)},
                "the 6 mm hole at 46 mm runs into the lip’s slot",
            ),
        ],
    )
    def test_it_is_named_and_no_verdict_given(self, changes, says):
        design = replace(self.design(), **changes)
        assert says in map(tell, unbuilt(design))
        outcome = evaluate.settle(design)
        assert (
            says in sentence(outcome.verdict)
            and outcome.verdict.behaviour == "cannot be built"
            and outcome.unbuilt
        )

    @pytest.mark.parametrize(
        "changes",
        [
            {},
            {"shell": Shell(2.0, around_mm=1.0)},
            {"shell": Shell(2.0, 0.05, "foam")},
            {"pours": (PouredEnd("p1", "a", 1.6, 40, 100),)},
        ],
    )
    def test_what_can_be_built_has_one(self, changes):
        outcome = evaluate.settle(replace(self.design(), **changes))
        assert outcome.unbuilt == () and outcome.verdict.behaviour != "cannot be built"
