"""Floats: closed forms of stacked parts, marks and curves, standing, shotting, the way back from a load,
fits with a known truth.
"""

from dataclasses import replace
from math import pi, sqrt

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamsik.core.errors import Refused
from lamsik.core.floats import livebait
from lamsik.core.floats.design import Float, Mark, gravity_mm, own_mass_g, table
from lamsik.core.floats.inverse import (
    DIAMETER,
    LOADING,
    check_foot,
    family,
    main_body,
    options,
    protrusion_mm,
    resized,
    sensitivity,
    sized,
)
from lamsik.core.floats.labels import Label
from lamsik.core.floats.learning import advice, fit
from lamsik.core.floats.parts import FORMS, FloatPart, bore_ml, centre_mm, mass_g, outer_ml
from lamsik.core.floats.rating import (
    capacity_g,
    changes,
    curve,
    loading_g,
    ratings,
    response_mm,
    settles_at_mm,
)
from lamsik.core.floats.shotting import NOMINAL, Shot, ShotTable, pull_to, shotting, telltale_lift, with_tip
from lamsik.core.floats.slider import slider
from lamsik.core.floats.standing import metacentric_mm, standing
from lamsik.core.water import Water
from lamsik.words.tell import tell

FRESH, SEA = Water("fresh water", 14.0), Water("sea water", 10.0, 35.0)
RHO = FRESH.density_g_cm3
TABLE = ShotTable("Split shot", "anywhere", "nominal", tuple(Shot(name, mass) for name, mass in NOMINAL))


def cylinder(length=100.0, diameter=10.0, density=0.2, **more):
    return FloatPart("body", "body", "body", length, diameter, density, **more)


def antenna(body=60.0, diameter=16.0, density=0.16, stem=2.0):
    """A pear body on a stem that goes through it, an antenna above."""
    return Float(
        "Antenna",
        "antenna",
        (
            FloatPart("stem", "stem", "stem", 60 + body, stem, 0.6),
            FloatPart(
                "body", "body", "pear body", body, diameter, density, 60.0, form="pear", spread_g_cm3=0.03
            ),
            FloatPart("antenna", "antenna", "antenna", 70, 1.6, 0.5, 60 + body),
        ),
        (Mark("shoulder", 60 + body), Mark("ring", 60 + body + 50)),
        FRESH,
        wanted_mark="ring",
    )


class TestClosedForms:
    def test_a_cylinder(self):
        found = Float("c", "stick", (cylinder(),), (), FRESH)
        volume = pi * 25 * 100 / 1000
        assert outer_ml(found.parts[0]) == pytest.approx(volume) and table(found).volume_at(
            40
        ) == pytest.approx(0.4 * volume)
        assert own_mass_g(found) == pytest.approx(0.2 * volume) and gravity_mm(found) == pytest.approx(50)
        assert capacity_g(found, 100) == pytest.approx((RHO - 0.2) * volume) and settles_at_mm(
            found, 0.0
        ) == pytest.approx(100 * 0.2 / RHO)
        assert response_mm(found, 50) == pytest.approx(0.1 / (RHO * pi * 25e-3)) and table(found).centre_at(
            40
        ) == pytest.approx(20)

    @pytest.mark.parametrize("height", [10.0, 55.0, 100.0])
    def test_a_cone_on_its_point(self, height):
        found = Float("c", "stick", (cylinder(form="cone"),), (), FRESH)
        assert table(found).volume_at(height) == pytest.approx(
            pi * (5 * height / 100) ** 2 * height / 3 / 1000, rel=1e-4
        )
        assert centre_mm(found.parts[0]) == pytest.approx(75) and table(found).centre_at(
            height
        ) == pytest.approx(0.75 * height, rel=1e-3)

    @pytest.mark.parametrize("across", [12.0, 60.0])
    def test_a_ball_carries_what_a_ball_displaces(self, across):
        found = Float("c", "waggler", (cylinder(across, across, form="ball"),), (), FRESH)
        assert table(found).volume[-1] == pytest.approx(pi * across**3 / 6000, rel=1e-6)
        cap = across / 4
        assert table(found).volume_at(cap) == pytest.approx(
            pi * cap**2 * (3 * across / 2 - cap) / 3 / 1000, rel=2e-4
        )

    def test_a_blind_bore_leaves_its_wall_at_the_foot(self):
        blind = cylinder(bore_mm=4.0, wall_mm=25.0, sealed=False)
        assert blind.bore_deep_mm == 75 and bore_ml(blind) == pytest.approx(pi * 4 * 75 / 1000)
        hull = table(Float("c", "stick", (blind,), (), FRESH))
        assert hull.volume_at(25.0) == pytest.approx(pi * 25 * 25 / 1000) and hull.volume[
            -1
        ] == pytest.approx(pi * (25 * 100 - 4 * 75) / 1000)
        with pytest.raises(Refused, match="nothing would be drilled"):
            cylinder(bore_mm=4.0, wall_mm=100.0)
        (cut,) = family(
            Float(
                "c",
                "stick",
                (cylinder(bore_mm=4.0, wall_mm=12.0),),
                (Mark("tip", 100.0),),
                FRESH,
                wanted_mark="tip",
            ),
            [5.0],
        ).cuts
        assert (cut.bore_mm, cut.wall_mm, cut.bore_deep_mm) == pytest.approx((4.0, 12.0, cut.body_mm - 12.0))
        let_in = Float(
            "c",
            "stick",
            (cylinder(), FloatPart("s", "stem", "stem", 120, 3, 0.6, 30.0)),
            (Mark("tip", 100.0),),
            FRESH,
            wanted_mark="tip",
        )
        (cut,) = family(let_in, [4.0], DIAMETER).cuts
        assert (cut.bore_mm, cut.wall_mm, cut.bore_deep_mm) == pytest.approx((3.0, 30.0, 70.0))

    @pytest.mark.parametrize("height", [4.0, 10.0, 17.0, 20.0])
    def test_a_ball_up_to_a_height(self, height):
        found = Float("c", "waggler", (cylinder(20.0, 20.0, form="ball"),), (), FRESH)
        assert table(found).volume_at(height) == pytest.approx(
            pi * height**2 * (30 - height) / 3 / 1000, rel=6e-3
        )
        assert outer_ml(found.parts[0]) == pytest.approx(4 / 3 * pi)

    def test_stacked_parts_add_up_and_shared_heights_count_once(self):
        found = antenna()
        z = table(found)
        assert z.volume_at(60.0) == pytest.approx(pi * 60 / 1000) and float(z.volume[-1]) == pytest.approx(
            pi * 60 / 1000 + outer_ml(found.parts[1]) + pi * 0.64 * 70 / 1000, rel=2e-3
        )
        bored = replace(found.parts[1], bore_mm=2.0)
        assert own_mass_g(found) == pytest.approx(
            mass_g(found.parts[0]) + mass_g(bored) + mass_g(found.parts[2])
        )

    def test_a_tube_flooded_and_sealed(self):
        sealed = Float("t", "bulk foam", (cylinder(density=1.2, bore_mm=8.0),), (), FRESH)
        bore = pi * 16 * 100 / 1000
        assert bore_ml(sealed.parts[0]) == pytest.approx(bore) and capacity_g(
            sealed, 100, flooded=False
        ) - capacity_g(sealed, 100, flooded=True) == pytest.approx(RHO * bore)
        opened = replace(sealed, parts=(replace(sealed.parts[0], sealed=False),))
        assert capacity_g(opened, 100) == pytest.approx(capacity_g(sealed, 100, flooded=True)) and {
            tell(c.name) for c in changes(sealed, [SEA])
        } >= {
            "every tube flooded",
            "every tube sealed",
        }

    @settings(max_examples=40)
    @given(
        st.sampled_from([f for f in FORMS if f != "own"]),
        st.floats(10, 200),
        st.floats(3, 40),
        st.floats(0.05, 0.6),
    )
    def test_turning_it_over_keeps_its_volume_and_size_scales_it(self, form, length, diameter, density):
        part = FloatPart("b", "body", "b", length, diameter, density, form=form)
        big = replace(part, length_mm=2 * length, diameter_mm=2 * diameter)
        assert outer_ml(big) == pytest.approx(8 * outer_ml(part))
        found = Float("f", "stick", (part,), (), FRESH)
        assert float(table(found).volume[-1]) == pytest.approx(outer_ml(part), rel=3e-3) and np.all(
            np.diff(table(found).volume) > 0
        )

    def test_paint_and_varnish_weigh_and_displace(self):
        bare = antenna()
        coated = replace(bare, paint_g=0.1, varnish_g=0.2)
        assert capacity_g(coated, coated.top_mm) - capacity_g(bare, bare.top_mm) == pytest.approx(
            0.3 / 1.2 * RHO - 0.3
        )

    def test_loading_outside_displaces_inside_does_not(self):
        brass = FloatPart("l", "loading", "brass", 10, 4, 8.5, -10.0)
        outside, inside = (
            replace(antenna(), parts=(*antenna().parts, replace(brass, inside=within)))
            for within in (False, True)
        )
        volume = pi * 4 * 10 / 1000
        assert loading_g(outside) == pytest.approx(volume * (8.5 - RHO)) and loading_g(
            inside
        ) == pytest.approx(volume * 8.5)
        rating = ratings(outside)[-1]
        assert rating.total_g == pytest.approx(rating.line_g + loading_g(outside))


class TestCurve:
    def test_the_curve_rises_from_rest_to_wholly_under(self):
        found = antenna()
        loads, heights = curve(found)
        assert (
            len(loads) == 200 and np.all(np.diff(heights) >= 0) and heights[-1] == pytest.approx(found.top_mm)
        )
        assert (
            heights[0] == pytest.approx(settles_at_mm(found, 0.0))
            and settles_at_mm(found, float(loads[-1]) + 0.01) is None
        )
        for load in loads[1::37]:
            assert capacity_g(found, settles_at_mm(found, float(load))) == pytest.approx(load, abs=1e-6)

    def test_what_sinks_by_itself_is_refused(self):
        with pytest.raises(Refused, match="sinks by itself"):
            curve(Float("c", "stick", (cylinder(density=1.5),), (), FRESH))

    @settings(max_examples=30)
    @given(st.floats(0.0, 0.4), st.floats(0.05, 0.3))
    def test_more_load_never_floats_higher_and_denser_water_carries_more(self, load, more):
        found = antenna()
        assert settles_at_mm(found, load + more) > settles_at_mm(found, load)
        assert capacity_g(found, 100.0, SEA) > capacity_g(found, 100.0)


class TestStanding:
    def test_a_cylinder_stands_as_its_metacentre_says(self):
        light = Float("c", "stick", (cylinder(100, 10, 0.5),), (), FRESH)
        assert metacentric_mm(light) == pytest.approx(
            25 * 0.5 / RHO * 2 - 50 + 25 / 4 / (100 * 0.5 / RHO), abs=0.05
        )
        assert standing(light).word == "lies" and standing(light).lean_deg == pytest.approx(0, abs=3)

    def test_loading_at_the_foot_makes_it_stand(self):
        wooden = replace(antenna(), parts=tuple(replace(p, density_g_cm3=0.5) for p in antenna().parts))
        lead = FloatPart("l", "loading", "lead", 8, 4, 11.34, -8.0)
        assert standing(replace(wooden, parts=(*wooden.parts, lead))).word == "stands"
        found = standing(antenna(), pull_to(antenna()))
        assert found.word == "stands" and found.gm_mm > 10
        assert standing(antenna(), 99.0).word == "sinks"

    def test_the_word_agrees_with_the_sign_of_gm_for_shallow_and_deep_discs(self):
        for height, word in ((6.0, "stands"), (60.0, "lies")):
            disc = Float("d", "cast", (cylinder(height, 30.0, 0.5),), (), FRESH)
            assert standing(disc).word == word and (metacentric_mm(disc) > 0) == (word == "stands")


class TestShotting:
    def test_it_brings_the_float_to_its_mark(self):
        pull = pull_to(antenna())
        found = shotting(pull, TABLE, FRESH, "No 8")
        assert (
            abs(found.off_g) < 0.012
            and any(shot.name == "No 8" for shot, _ in found.shots)
            and sum(n for _, n in found.shots) <= 14
        )
        assert (
            found.pull_g == pytest.approx(sum(n * s.mass_g * (1 - RHO / 11.34) for s, n in found.shots))
            and "×" in found.words
        )

    @settings(max_examples=60)
    @given(st.floats(0.05, 12.0))
    def test_any_load_comes_within_the_smallest_shot_or_is_refused(self, pull):
        try:
            assert abs(shotting(pull, TABLE, FRESH).off_g) <= 0.35
        except Refused as refused:
            assert "larger sizes" in str(refused)

    def test_the_telltale_lifts_it_by_its_pull_over_its_area(self):
        found, shot = antenna(), Shot("tiny", 0.02)
        lift = telltale_lift(found, pull_to(found), shot)
        assert (
            lift.rise_mm == pytest.approx(shot.pull_g(FRESH) / (RHO * pi * 0.64e-3), rel=1e-3)
            and not lift.beyond
            and lift.after.word == "stands"
        )

    def test_a_rise_longer_than_the_antenna_is_not_claimed(self):
        lift = telltale_lift(antenna(), pull_to(antenna()), Shot("big", 0.8))
        stick = replace(
            antenna(), parts=tuple(part for part in antenna().parts if part.kind != "tip"), marks=()
        )
        bare = telltale_lift(stick, 0.9 * capacity_g(stick, stick.top_mm), Shot("small", 0.03))
        assert not bare.beyond and bare.shown_mm == 0 and 0.01 < bare.rise_mm < 5
        assert lift.beyond and lift.shown_mm == pytest.approx(50) and lift.rise_mm > 55

    def test_another_tip_takes_the_top_and_the_marks_with_it(self):
        tip = FloatPart("t", "tip", "thick tip", 30, 4, 0.2)
        one = with_tip(antenna(), tip)
        assert one.top_mm == pytest.approx(antenna().top_mm + 30) and with_tip(
            one, replace(tip, length_mm=20)
        ).top_mm == pytest.approx(antenna().top_mm + 20)
        assert response_mm(one, one.top_mm) == pytest.approx(0.1 / (RHO * pi * 4e-3))

    @pytest.mark.parametrize(
        ("call", "says"),
        [
            (lambda: shotting(-1.0, TABLE, FRESH), "carries nothing"),
            (lambda: shotting(1.0, TABLE, FRESH, "No 99"), "tell-tale"),
            (lambda: shotting(90.0, TABLE, FRESH), "bulk lead"),
            (lambda: telltale_lift(antenna(), 0.01, Shot("s", 5.0)), "whole load"),
            (lambda: telltale_lift(antenna(), 99.0, Shot("s", 0.1)), "goes under"),
        ],
    )
    def test_what_cannot_be_is_said(self, call, says):
        with pytest.raises(Refused, match=says):
            call()

    def test_a_float_that_is_nothing_but_a_tip_takes_another(self):
        alone = Float("t", "insert tip", (FloatPart("tip", "tip", "tip", 40, 3, 0.4),), (), FRESH)
        assert with_tip(alone, FloatPart("t", "tip", "t", 30, 4, 0.2)).top_mm == 30


class TestInverse:
    @settings(max_examples=25)
    @given(st.floats(1.0, 6.0))
    def test_there_and_back(self, wanted):
        found = sized(antenna(), wanted)
        assert (
            pull_to(found) == pytest.approx(wanted, abs=2e-3)
            and main_body(found).form == "pear"
            and found.mark("ring").height_mm == pytest.approx(found.top_mm - 20)
        )

    def test_by_diameter_and_by_loading(self):
        assert pull_to(sized(antenna(), 4.0, DIAMETER)) == pytest.approx(4.0, abs=2e-3)
        loaded = replace(
            antenna(body=80, diameter=20),
            parts=(
                *antenna(body=80, diameter=20).parts,
                FloatPart("l", "loading", "brass", 10, 5, 8.5, inside=True, mass_g=1.0),
            ),
        )
        found = sized(loaded, 3.0, LOADING)
        assert pull_to(found) == pytest.approx(3.0, abs=2e-3) and found.part("l").mass_g > 1

    def test_a_cylinder_in_closed_form(self):
        start = Float("c", "stick", (cylinder(50, 12, 0.2),), (), FRESH)
        assert main_body(sized(start, 5.0)).length_mm == pytest.approx(
            5.0 / ((RHO - 0.2) * pi * 36 / 1000), rel=1e-3
        )

    def test_what_no_length_carries_says_what_the_lengths_give(self):
        with pytest.raises(Refused, match=r"it carries .* to .* g"):
            sized(antenna(), 400.0)

    def test_six_dowels_by_four_woods(self):
        found = options(
            antenna(), 3.0, (10, 12, 14, 16, 18, 20), ("balsa", "paulownia", "red cedar", "basswood")
        )
        assert len(found) == 24 and any(o.design for o in found)
        for option in found:
            if option.design:
                assert pull_to(option.design) == pytest.approx(3.0, abs=2e-3)
            else:
                assert option.why

    def test_a_bore_that_leaves_too_little_wall_says_the_protrusion(self):
        thin = antenna(stem=3.5)
        with pytest.raises(Refused, match=r"let the stem stand out [\d.]+ mm"):
            check_foot(thin)
        need = protrusion_mm(main_body(thin), 3.5)
        assert 0 < need < 30
        with pytest.raises(Refused, match="nowhere"):
            protrusion_mm(main_body(thin), 15.5)

    def test_near_equal_dowels_sanding_and_density_are_shown(self):
        rows = {tell(e.name): e.effect_g for e in sensitivity(antenna(), (12.0, 15.9, 16.5, 20.0))}
        assert set(rows) == {
            "dowel 10 % denser",
            "0.1 mm sanded off all round",
            "a 15.9 mm dowel instead of 16 mm",
            "a 16.5 mm dowel instead of 16 mm",
        }
        base = pull_to(antenna())
        assert (
            rows["0.1 mm sanded off all round"]
            == pytest.approx(pull_to(resized(antenna(), diameter_mm=15.8)) - base)
            and rows["0.1 mm sanded off all round"] < 0
        )

    def test_a_family_has_its_cut_list(self):
        rows = family(antenna(), [2.0, 3.0, 4.5]).cuts
        assert [r.load_g for r in rows] == [2.0, 3.0, 4.5] and rows[0].body_mm < rows[1].body_mm < rows[
            2
        ].body_mm
        assert all(
            pull_to(r.design) == pytest.approx(r.load_g, abs=2e-3)
            and r.bore_mm == 2.0
            and r.stem_mm == pytest.approx(60 + r.body_mm + 15)
            for r in rows
        )


class TestLearning:
    @settings(max_examples=25)
    @given(st.floats(0.8, 1.2), st.floats(-0.5, 0.5), st.integers(0, 1000))
    def test_a_known_truth_is_recovered(self, slope, intercept, seed):
        random = np.random.default_rng(seed)
        computed = np.linspace(1.0, 8.0, 12)
        found = fit(
            [
                (c, intercept + slope * c + e)
                for c, e in zip(computed, random.normal(0, 0.01, 12), strict=True)
            ]
        )
        assert (
            found.slope.value == pytest.approx(slope, abs=0.01)
            and found.intercept_g.value == pytest.approx(intercept, abs=0.05)
            and found.intercept_g.spread < 0.03
        )
        assert found.predict(4.0) == pytest.approx(intercept + 4 * slope, abs=0.03)

    def test_few_or_like_floats_shift_only(self):
        assert fit([]).predict(3.0) == 3.0 and fit([(3.0, 2.8)]).predict(5.0) == pytest.approx(4.8)
        assert fit([(3.0, 2.8), (3.01, 2.9), (3.02, 2.7)]).slope.value == 1.0

    def test_what_to_do_with_one_that_came_out_otherwise(self):
        assert "print 4.00 g" in advice(4.0, 4.0, TABLE, FRESH) and "print 4.40 g, or load it" in advice(
            4.4, 4.0, TABLE, FRESH
        )
        assert "0.30 g light: print 3.70 g on it; wood" in advice(
            3.7, 4.0, TABLE, FRESH
        ) and "take 0.30 g of its own loading off" in advice(3.7, 4.0, TABLE, FRESH, 1.0)


class TestLiveBait:
    def test_the_cut_list_counts_sticks_as_a_saw_does(self):
        assert [
            livebait.per_stick(stick, piece, saw)
            for stick, piece, saw in ((100, 50, 0), (101, 50, 1), (100, 50, 1), (1000, 60, 1), (30, 60, 1))
        ] == [
            (2, 0),
            (2, 0),
            (1, 49),
            (16, 24),
            (0, 30),
        ]
        row = livebait.cut_list(livebait.Build(), [(80, 6)], 1000, 2000)[0]
        assert row.pipe_mm == 92 and row.foam_per_stick == 12 and row.foam_left_mm == 1000 - 12 * 81

    def test_two_allowances_for_one_cap_are_questioned(self):
        with pytest.raises(Refused, match="two different allowances"):
            livebait.Build(cap_allowances_mm=(5.0, 7.0))
        assert livebait.Build(cap_allowances_mm=(5.0, 5.0)).allowance_mm == 5.0

    def test_its_capacity_in_closed_form_flooded_and_sealed(self):
        build = livebait.Build()
        found = livebait.as_float(build, 80.0)
        foam, pipe = pi * (15**2 - 4**2) * 80 / 1000, pi * (4**2 - 3**2) * 92 / 1000
        sealed = (
            found.water.density_g_cm3 * (pi * 15**2 * 80 + pi * 16 * 12) / 1000
            - 0.06 * foam
            - 1.35 * pipe
            - 3.5
        )
        assert capacity_g(found, found.top_mm) == pytest.approx(sealed, rel=1e-3)
        flooded = capacity_g(livebait.as_float(replace(build, through=True), 80.0), found.top_mm)
        assert sealed - flooded == pytest.approx(found.water.density_g_cm3 * pi * 9 * 92 / 1000, rel=1e-3)

    def test_tests_of_several_sizes_are_held_against_each_other(self):
        water, build = Water("fresh water", 10.0), livebait.Build()
        most = water.density_g_cm3 * pi * 225 / 1000
        good = [(60, 60 * 0.9 * most - 5), (80, 80 * 0.9 * most - 5), (100, 100 * 0.9 * most - 5)]
        found = livebait.consistent(good, build, water)
        assert (
            found.problems == ()
            and found.per_mm_g == pytest.approx(0.9 * most)
            and found.fixed_g == pytest.approx(-5)
        )
        assert (
            "negative displacement" in livebait.consistent([(60, 40.0), (80, 30.0)], build, water).problems[0]
        )
        assert any(
            "no mass gives" in p for p in livebait.consistent([(60, 40.0), (80, 90.0)], build, water).problems
        )
        assert any(
            "fittings cannot lift" in p
            for p in livebait.consistent([(60, 60.0), (80, 70.0)], build, water).problems
        )

    def test_tests_that_would_displace_less_than_nothing_contradict_each_other(self):
        thick = livebait.Build(foam_mm=94.0)
        problems = livebait.consistent(
            [(60, 260.0), (160, 940.0)], thick, Water("fresh water", 10.0)
        ).problems
        assert any("a float cannot displace less than nothing" in p for p in problems)
        honest = [
            (mm, capacity_g(f, f.top_mm)) for mm in (60.0, 160.0) for f in [livebait.as_float(thick, mm)]
        ]
        assert livebait.consistent(honest, thick, Water("fresh water", 10.0)).problems == ()

    def test_cost_from_fixed_and_per_length(self):
        assert livebait.Cost(120, 1.5).of(80) == 240


@pytest.mark.parametrize(
    ("depth", "rod", "over", "needed", "stop"),
    [
        (5.0, 4.2, 0.0, True, 5.0),
        (3.0, 4.2, 0.0, False, 3.0),
        (3.9, 4.2, 0.3, False, 3.6),
        (3.9, 4.2, -0.1, True, 4.0),
    ],
)
def test_does_this_water_need_a_slider(depth, rod, over, needed, stop):
    found = slider(depth, rod, over)
    assert found.fixed_to_m == pytest.approx(rod - 0.4)
    assert found.needed is needed and found.stop_m == pytest.approx(stop) and ("yes" in found.says) is needed


class TestLabels:
    def test_a_label_says_everything_that_makes_it_a_rating(self):
        assert Label("f", 3.2, "on the line", "shoulder", FRESH, "red tip", True).lines == (
            "3.20 g on the line",
            "to the shoulder, red tip, 14 °C fresh water",
        )
        assert Label("f", 3.2, "total", "ring", FRESH).lines[0].startswith("≈")
        assert (
            Label("f", 1.98, "on the line", "ring", FRESH).lines[0] == "≈ 1.98 g on the line"
            and Label("f", 41.26, "total", "ring", FRESH).lines[0] == "≈ 41.3 g total"
        )


def test_an_own_profile_is_straight_between_its_points():
    part = FloatPart("b", "body", "b", 30, 10, 0.2, form="own", points=((0.0, 0.2), (0.5, 1.0), (1.0, 0.4)))
    a, b, c = 1.0, 5.0, 2.0
    assert outer_ml(part) == pytest.approx(
        pi * 15 * (a * a + a * b + b * b + b * b + b * c + c * c) / 3 / 1000
    )
    assert sqrt(table(Float("f", "stick", (part,), (), FRESH)).area_at(7.5) / pi) == pytest.approx(
        3.0, abs=0.05
    )
