"""Hollows, tilted pours, tubes, clashes, clearances, drill maps, stock, blades, families: closed forms and
rules of the trade.
"""

from dataclasses import replace
from math import pi, radians, tan

import numpy as np
import pytest
from manifold3d import Manifold, OpType

from lamsik.core.errors import Refused
from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.blades import FREE, RESTRICTED, TEARS, Blade, SnapHole, SnapRules, remarks, swing
from lamsik.core.shapes.clearance import (
    HOSTS,
    INSERTS,
    START_MM,
    Clearances,
    clearances,
    drill_for,
    host_class,
)
from lamsik.core.shapes.design import Host
from lamsik.core.shapes.drillings import drillings, slot_words
from lamsik.core.shapes.family import members
from lamsik.core.shapes.forms import FORMS, body_from
from lamsik.core.shapes.hardware import OUTLINES, Item, Lip, Placement, lip_outline
from lamsik.core.shapes.hollow import Shell, inside_of
from lamsik.core.shapes.inside import Cavity, PouredEnd, pour_volume_ml
from lamsik.core.shapes.joints import Joint
from lamsik.core.shapes.scaling import Offered, nearest_size, to_volume
from lamsik.core.shapes.solid import solid
from lamsik.core.shapes.sources import Source
from lamsik.core.shapes.stock import block, cutting, pieces_along
from lamsik.core.shapes.things import Lying
from lamsik.core.tank import evaluate
from lamsik.core.tank.mass import NOTHING, budget
from lamsik.core.tank.motion import Bands
from lamsik.core.tank.printed import by_metal, sink_words, weak_hinges
from lamsik.core.tank.segments import group_verdicts
from lamsik.words.revisions import differences
from lamsik.words.tell import tell, told
from tests.bodies import LEAD_BALL, LEAD_ROD, TIE, bait, homogeneous, straight

TUBE = Item(
    "tube", "line tube", "tube", 0.14, 0.95, 0.0, material="plastic", wire_mm=3.0, shank_mm=40.0, bore_mm=2.0
)
DRILLS = (0.7, 0.8, 1.0, 1.2, 3.0, 5.0, 6.0)


LARGE_MOUTH = float(
    np.sum(
        [2 * np.sqrt(16 - y**2) * (10 - np.sqrt(100 - y**2)) * 0.001 for y in np.arange(-3.9995, 4, 0.001)]
    )
)
"""What a skin of radius 10 mm leaves out of a flat mouth of 8 mm [mm³]."""


class TestHollow:
    def test_a_straight_tube_keeps_an_even_wall(self):
        inner = inside_of(straight(100, 10, 10), 2.0)
        assert inner.volume_mm3 == pytest.approx(
            pi * 64 * 96, rel=1e-3
        ) and inner.centroid_mm == pytest.approx((50, 0, 0), abs=1e-3)

    def test_a_cones_wall_is_measured_across_its_slope(self):
        slope = 1 + (10 / 100) ** 2
        inner = inside_of(straight(100, 12, 2), 1.0)
        expected = sum(pi * max(12 - 0.1 * x - slope**0.5, 0) ** 2 * 0.05 for x in np.arange(1.025, 99, 0.05))
        assert inner.volume_mm3 == pytest.approx(expected, rel=3e-3)

    def test_what_fills_it_weighs_and_an_empty_one_floods(self):
        design = replace(homogeneous(straight(100, 10, 10), 1.1), shell=Shell(2.0))
        inner = inside_of(design.body, 2.0).volume_mm3 / 1000
        assert budget(design).mass_g == pytest.approx(1.1 * (solid(design.body).volume_ml - inner))
        outcome = evaluate.drag(design)
        assert outcome.flooded_net_g == pytest.approx(
            outcome.hanging.net_g - design.water.density_g_cm3 * inner
        )
        foamed = evaluate.drag(replace(design, shell=Shell(2.0, 0.1, "rigid foam")))
        assert foamed.budget.mass_g == pytest.approx(
            outcome.budget.mass_g + 0.1 * inner
        ) and foamed.flooded_net_g == pytest.approx(foamed.hanging.net_g)

    @pytest.mark.parametrize("fill", [0.0, 0.1])
    @pytest.mark.parametrize("what", ["balls", "slug", "poured end", "all"])
    def test_what_is_inside_a_hollow_takes_out_only_what_is_there(self, what, fill):
        body, cavity, pour = (
            straight(100, 10, 10),
            Cavity("c1", LEAD_BALL, 3, 50.0, 6.0),
            PouredEnd("p1", "dense", 1.6, 80, 100),
        )
        hole = Hole("b1", LEAD_ROD, 4.0, 20.0, 5.5)
        on = {
            "balls": {"cavities": (cavity,)},
            "slug": {"ballast": (hole,)},
            "poured end": {"pours": (pour,)},
        }
        on["all"] = {name: rows for row in list(on.values()) for name, rows in row.items()}
        design = replace(homogeneous(body, 1.1), shell=Shell(2.0, fill, "foam"), **on[what])
        hull, inner = (
            Manifold.cylinder(long, r, r, 720).rotate((0, 90, 0)).translate((x, 0, 0))
            for long, r, x in ((100, 10, 0), (96, 8, 2))
        )
        things = {
            "balls": (
                Manifold.cylinder(cavity.length_mm, cavity.bore_mm / 2, cavity.bore_mm / 2, 360, True)
                .rotate((0, 90, 0))
                .translate((50, 0, -4))
            ),
            "slug": Manifold.cylinder(hole.depth_mm, 2.75, 2.75, 360).translate((20, 0, -10)),
            "poured end": hull ^ Manifold.cube((20, 40, 40)).translate((80, -20, -20)),
        }
        took = Manifold.batch_boolean(
            [row for name, row in things.items() if what in (name, "all")], OpType.Add
        )
        own = {
            "balls": cavity.mass_g,
            "slug": 4.0 + hole.filler_g,
            "poured end": 1.6 * things["poured end"].volume() / 1000,
        }
        expected = (1.1 * (hull - inner - took).volume() + fill * (inner - took).volume()) / 1000 + sum(
            g for name, g in own.items() if what in (name, "all")
        )
        assert budget(design).mass_g == pytest.approx(expected, rel=1e-3)

    def test_a_hole_in_a_heavier_segment_takes_out_the_heavier_material(self):
        body = replace(straight(100, 10, 10), joints=(Joint("j1", 50.0),))
        light = replace(homogeneous(body, 0.3), segment_hosts=(("s2", Host("resin", 1.1, 0.03)),))
        hole = Hole("b1", LEAD_ROD, 4.0, 75.0, 8.0)
        gained = budget(replace(light, ballast=(hole,))).mass_g - budget(light).mass_g
        mouth = LARGE_MOUTH / 1000
        assert gained == pytest.approx(
            4.0 + hole.filler_g - 1.1 * hole.hole_ml + (1.1 - 1.15) * mouth, abs=1e-5
        )
        ahead = replace(hole, x_mm=25.0)
        assert budget(replace(light, ballast=(ahead,))).mass_g - budget(light).mass_g == pytest.approx(
            4.0 + ahead.filler_g - 0.3 * ahead.hole_ml + (0.3 - 1.15) * mouth, abs=1e-5
        )

    def test_a_wall_that_leaves_nothing_inside_is_refused(self):
        with pytest.raises(Refused, match="else it is solid"):
            replace(homogeneous(straight(100, 5, 5), 1.1), shell=Shell(4.9))


class TestPours:
    def test_a_pour_across_a_joint_is_the_body_less_the_kerf_and_each_segment_has_its_own(self):
        body = replace(straight(100, 10, 10), joints=(Joint("j1", 60.0, kerf_mm=4.0),))
        design = replace(homogeneous(body, 0.3), pours=(PouredEnd("p1", "dense", 1.6, 50, 100),))
        volume, at = pour_volume_ml(body, design.pours[0])
        assert volume == pytest.approx(pi * 100 * 46 / 1000, rel=1e-6) and at[0] == pytest.approx(
            (8 * 54 + 38 * 81) / 46
        )
        assert budget(design).mass_g == pytest.approx(pi * (50 * 0.3 + 46 * 1.6) / 10, rel=1e-6)
        fore, aft = group_verdicts(design, budget(design), 0.9, Bands())
        assert fore.budget.mass_g == pytest.approx(
            pi * (50 * 0.3 + 8 * 1.6) / 10, rel=1e-4
        ) and aft.budget.mass_g == pytest.approx(pi * 38 * 1.6 / 10, rel=1e-4)
        assert fore.budget.g_mm[0] == pytest.approx(
            (50 * 0.3 * 25 + 8 * 1.6 * 54) / (50 * 0.3 + 8 * 1.6), abs=0.01
        )

    @pytest.mark.parametrize("tilt", [-30, 0, 25])
    def test_a_tilted_pour_in_a_straight_body_has_the_volume_of_a_square_one(self, tilt):
        volume, at = pour_volume_ml(straight(100, 9, 9), PouredEnd("p1", "dense", 1.6, 70, 100, tilt))
        assert volume == pytest.approx(pi * 81 * 30 / 1000, rel=1e-5)
        # the face leans aft at the top, so what lies behind it is lower
        assert at[2] == pytest.approx(-tan(radians(tilt)) * (pi * 9**4 / 4) / (pi * 81 * 30), abs=1e-3)

    def test_a_dense_rear_and_light_front_weigh_together(self):
        design = replace(
            homogeneous(straight(100, 9, 9), 0.7), pours=(PouredEnd("p1", "dense", 1.6, 70, 100, 20),)
        )
        assert budget(design).mass_g == pytest.approx(pi * 81 * (70 * 0.7 + 30 * 1.6) / 1000, rel=1e-5)


class TestPrinted:
    def design(self, behaviour="sinks"):
        found = replace(
            homogeneous(body_from(FORMS["slim"], 90, 20, 15), 0.75),
            cavities=(Cavity("c1", LEAD_BALL, 2, 40, 8),),
        )
        return replace(found, want=replace(found.want, behaviour=behaviour))

    def test_each_metal_in_the_same_chamber_side_by_side(self):
        rows = by_metal(self.design(), NOTHING)
        assert [r.metal for r in rows] == ["steel", "brass", "lead", "tungsten"]
        balls = {r.metal: r.balls_g for r in rows}
        assert balls["tungsten"] / balls["steel"] == pytest.approx(18 / 7.85) and all(
            r.in_water_g == -r.net_g for r in rows
        )
        assert rows[3].mass_g - rows[0].mass_g == pytest.approx(balls["tungsten"] - balls["steel"])

    def test_too_light_to_sink_is_said_before_printing(self):
        heavy = replace(self.design(), host=Host("print", 0.77, 0.02, "print"))
        light = replace(self.design(), host=Host("print", 0.3, 0.02, "print"))
        assert "Too light to sink with any metal: even tungsten" in sink_words(
            light, by_metal(light, NOTHING)
        )
        assert tell(sink_words(heavy, by_metal(heavy, NOTHING))).startswith("Too light to sink with steel")
        floater = self.design("floats")
        assert sink_words(floater, by_metal(floater, NOTHING)) is None and by_metal(bait(), NOTHING) == ()

    def test_thin_hinges_are_named(self):
        body = replace(
            straight(100, 9, 9),
            joints=(
                Joint("j1", 30, kind="hinge", hinge_mm=0.5),
                Joint("j2", 60, kind="hinge", hinge_mm=1.0),
                Joint("j3", 80, kind="pin", hinge_mm=0.2),
            ),
        )
        assert [j.key for j in weak_hinges(homogeneous(body, 1.1), 0.8)] == ["j1"]


def test_a_line_tube_takes_host_away_and_holds_water():
    plain = homogeneous(straight(100, 9, 9), 0.5)
    tubed = replace(plain, hardware=(Placement("t", TUBE, "inside", 50),))
    one, other = budget(plain), budget(tubed)
    assert other.mass_g - one.mass_g == pytest.approx(0.14 - 0.5 * pi * 9 / 4 * 40 / 1000)
    assert one.displaced_ml - other.displaced_ml == pytest.approx(pi * 40 / 1000)


class TestDrilling:
    def test_pilot_holes_are_smaller_than_the_screw_and_inserts_get_room_in_hard_hosts(self):
        screw = Placement("t", replace(TIE, wire_mm=0.9, shank_mm=16.0), "nose")
        soft, cast = (
            replace(
                homogeneous(body_from(FORMS["slim"], 90, 20, 15), rho),
                host=Host("x", rho, 0.02, how),
                hardware=(screw,),
            )
            for rho, how in ((0.3, "wood"), (1.05, "cast"))
        )
        (pilot,), (room,) = drillings(soft, Clearances(), DRILLS), drillings(cast, Clearances(), DRILLS)
        assert (pilot.drill_mm, pilot.face, pilot.depth_mm, pilot.angle_deg) == (
            0.7,
            "nose",
            16.0,
            0.0,
        ) and room.drill_mm == 1.0
        assert "smaller than the screw" in pilot.fits and "clearance" in room.fits

    def test_the_shops_own_table_is_used(self):
        table = clearances({"screw|soft wood": -0.1})
        assert table.at("screw", "soft wood") == -0.1 and table.at("slug", "foam") == START_MM["slug", "foam"]
        with pytest.raises(Refused, match="screw in print"):
            clearances({"screw|print": 9.0})

    def test_every_pair_has_a_start(self):
        assert set(START_MM) == {(insert, host) for insert in INSERTS for host in HOSTS}
        assert {
            host_class(Host("x", rho, 0, how))
            for rho, how in ((0.3, "wood"), (0.7, "wood"), (0.3, "foam"), (1, "cast"), (1, "print"))
        } == set(HOSTS)

    @pytest.mark.parametrize(
        ("size", "room", "drill"),
        [
            (0.9, -0.2, 0.7),
            (0.9, 0.1, 1.0),
            (3.0, 0.0, 3.0),
            (2.0, 0.1, 2.1),
            (5.0, 0.2, 5.2),
            (5.9, 0.1, 6.0),
        ],
    )
    def test_the_drill_is_one_at_hand_or_the_wanted_size(self, size, room, drill):
        assert drill_for(size, room, DRILLS) == drill

    def test_a_hole_tight_for_its_slug_says_so_and_joints_are_drilled_by_their_kind(self):
        pin = Placement("p", Item("pin", "pin", "joint", 0.3, 7.85, wire_mm=1.2, shank_mm=12.0), "inside", 50)
        body = replace(body_from(FORMS["slim"], 90, 20, 15), joints=(Joint("j1", 50, 10, kind="pin"),))
        hard = replace(
            homogeneous(body, 1.05),
            host=Host("x", 1.05, 0.02, "cast"),
            hardware=(pin,),
            ballast=(Hole("b1", LEAD_ROD, 1.0, 30, 5.0),),
        )
        rows = {str(told(row.purpose)): row for row in drillings(hard, Clearances(), DRILLS)}
        assert (
            "tight" in rows["1.0 g lead rod 5 mm"].fits
            and rows["pin"].angle_deg == 80
            and rows["pin"].face == "belly"
        )
        linked = replace(hard, body=replace(body, joints=(Joint("j1", 50),)))
        assert sum(row.face == "joint" for row in drillings(linked, Clearances(), DRILLS)) == 2

    def test_the_slot_is_stated_with_width_depth_and_angle(self):
        words = slot_words(bait(), Clearances())
        assert (
            "40° to the axis" in words
            and "6.0 mm deep" in words
            and slot_words(replace(bait(), lip=None), Clearances()) is None
        )


class TestLips:
    @pytest.mark.parametrize("outline", OUTLINES)
    def test_a_plates_mass_is_its_outlines_area(self, outline):
        lip = Lip(20, 30, 1.5, 1.2, 40, 6, outline=outline)
        points = lip_outline(lip, 400)
        x, y = points.T
        assert lip.whole_g == pytest.approx(
            abs(x @ np.roll(y, -1) - y @ np.roll(x, -1)) / 2 * 1.5 * 1.2 / 1000, rel=2e-3
        )
        assert (points[:, 0].min(), points[:, 0].max(), np.ptp(points[:, 1])) == pytest.approx(
            (-6, 30, 20), abs=0.05
        )

    def test_a_rounded_end_is_a_half_circle(self):
        assert Lip(20, 30, 1.0, 1.0, 40, 6).whole_g * 1000 == pytest.approx(20 * 26 + pi * 50, rel=2e-3)

    def test_an_outline_that_is_none_is_refused(self):
        with pytest.raises(Refused, match="lip.outline"):
            Lip(20, 30, 1.5, 1.2, 40, 6, outline="heart")


class TestStock:
    def test_a_block_and_its_waste(self):
        found = block(straight(100, 10, 10), 3.0)
        assert (found.length_mm, found.depth_mm, found.width_mm) == (106, 26, 26)
        assert found.waste_share == pytest.approx(1 - pi * 100 * 100 / (106 * 26 * 26))

    @pytest.mark.parametrize(
        ("stick", "piece", "kerf", "count"),
        [(100, 50, 0, 2), (100, 50, 0.1, 1), (101.5, 50, 1.5, 2), (49, 50, 1, 0), (1000, 96, 1.5, 10)],
    )
    def test_pieces_and_the_cuts_between_them(self, stick, piece, kerf, count):
        assert pieces_along(stick, piece, kerf) == count

    def test_the_better_way_to_lay_it(self):
        body = body_from(FORMS["glider"], 120, 34, 18)
        found = cutting(body, (1000, 24.5, 41), 1.5, 3.0)
        assert (
            found.pieces == 7 and found.on_edge and found.rest_mm == pytest.approx(1000 - 7 * 126 - 6 * 1.5)
        )
        with pytest.raises(Refused, match="kerf"):
            cutting(body, (1000, 40, 24), -1.0, 3.0)


class TestBlades:
    def blade(self, **changes):
        return replace(
            Blade(
                "b", "brass", 14, 52, 18, 0.8, 25, 1.5, 3, 12, 12, (SnapHole("front", 3.5, 2.4, 1.0, 4.0),)
            ),
            **changes,
        )

    def test_the_flat_strip_by_bend_allowance(self):
        assert self.blade(nose_deg=0).flat_mm == 66
        bent, angle = self.blade(nose_deg=90, radius_mm=2, thickness_mm=1), pi / 2
        assert bent.flat_mm == pytest.approx(66 - 2 * 3 + angle * (2 + 0.42))
        assert bent.bend_mm == pytest.approx(14 - 3 + angle * 2.42 / 2)

    def test_its_mass(self):
        flat = self.blade(nose_deg=0)
        assert flat.mass_g == pytest.approx((18 * 48 + pi * 81 - pi * 1.44) * 0.8 * 8.5 / 1000)

    @pytest.mark.parametrize(
        ("hole", "verdict", "why"),
        [
            (SnapHole("f", 3.5, 2.4, 1.0, 4.0), FREE, "2.3 mm of metal"),
            (SnapHole("f", 3.5, 1.4, 1.0, 4.0), RESTRICTED, "drill at least 1.5 mm"),
            (SnapHole("f", 6.0, 2.4, 1.0, 4.0), RESTRICTED, "does not fit"),
            (SnapHole("f", 2.0, 2.4, 1.0, 4.0), TEARS, "leave 1.2 mm"),
            (SnapHole("f", 3.5, 1.5, 1.0, 4.0), FREE, "1.5 ×"),
        ],
    )
    def test_whether_a_snap_swings(self, hole, verdict, why):
        found = swing(self.blade(), hole)
        assert found.verdict == verdict and why in found.why

    def test_a_shop_may_hold_them_to_more(self):
        hole, wider = SnapHole("f", 3.5, 2.4, 1.0, 4.0), SnapRules(free_ratio=2.5)
        assert "at least 2.5 mm" in swing(self.blade(), hole, wider).why
        for rules in (SnapRules(edge_mm=2.4), SnapRules(edge_share=3.0)):
            assert tell(swing(self.blade(), hole, rules).why).endswith("leave 2.4 mm")
        assert remarks(self.blade(left_deg=15), SnapRules(uneven_deg=3.0)) == ()

    def test_what_makes_it_run_badly(self):
        assert remarks(self.blade()) == ()
        assert "runs to one side" in remarks(self.blade(left_deg=15))[0]
        assert (
            "against the cup" in remarks(self.blade(nose_deg=-25))[0]
            and "cup both edges" in remarks(self.blade(left_deg=0, right_deg=0))[0]
        )

    @pytest.mark.parametrize(
        ("field", "value"),
        [("metal", "wood"), ("width_mm", float("nan")), ("cup_mm", 9.5), ("name", " "), ("nose_deg", 120.0)],
    )
    def test_a_blade_that_cannot_be_is_refused(self, field, value):
        with pytest.raises(Refused, match=field):
            self.blade(**{field: value})


class TestSizes:
    def test_a_family_is_every_length_in_every_material(self):
        found = members(bait(), (110, 70), ("balsa", "basswood"))
        assert [m.key for m in found] == ["70|balsa", "70|basswood", "110|balsa", "110|basswood"]
        assert solid(found[2].design.body).volume_ml / solid(found[0].design.body).volume_ml == pytest.approx(
            (110 / 70) ** 3
        )
        assert (
            found[0].design.hardware[1].x_mm == pytest.approx(46 * 70 / 90)
            and found[0].design.host.name == "balsa"
        )

    def test_scaling_to_a_volume_keeps_proportions(self):
        grown = to_volume(bait(), 30.0)
        assert solid(grown.body).volume_ml == pytest.approx(
            30.0
        ) and grown.body.depth_mm / grown.body.length_mm == pytest.approx(bait().body.depth_mm / 90)

    def test_the_size_nearest_in_proportion_is_offered(self):
        stock = [
            Offered("a", "small", 0.3),
            Offered("b", "middle", 0.8),
            Offered("c", "large", 2.0),
            Offered("d", "unknown", 0.0),
        ]
        assert [nearest_size(stock, w).code for w in (0.1, 0.45, 0.6, 9.0)] == [
            "a",
            "a",
            "b",
            "c",
        ] and nearest_size([], 1.0) is None


def test_a_source_says_whether_it_may_be_sold_and_is_a_difference():
    source = Source("not_for_sale", "after a bought bait")
    assert (
        not source.may_sell and source.describe() == "not for sale: after a bought bait" and Source().may_sell
    )
    after = replace(
        bait(), source=source, body=replace(bait().body, joints=(Joint("j1", 50),)), shell=Shell(2.0)
    )
    words = "; ".join(differences(bait(), after))
    assert (
        "source: own shape → not for sale" in words
        and "joints: none → linked at 50.0 mm" in words
        and "hollow: no → 2.0 mm wall" in words
    )
    with pytest.raises(Refused, match=r"source\.kind"):
        Source("borrowed")


def test_a_slanted_bore_lies_at_each_end_where_it_is_drawn():
    bore, slope = Lying(12.0, 40.0, 2.0, 9.0, 1.5), np.hypot(1.0, 7.0 / 28.0)
    low, high = bore.reach(np.array([12.0, 26.0, 40.0]), np.zeros(3))
    np.testing.assert_allclose((low + high) / 2, [2.0, 5.5, 9.0])
    np.testing.assert_allclose((high - low) / 2, 1.5 * slope)
