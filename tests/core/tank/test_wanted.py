"""The wanted behaviour as a share, a freeboard, in several waters and pierced; what would change it; how
sure it is.
"""

from dataclasses import replace
from statistics import NormalDist

import numpy as np
import pytest

from lamsik.core.errors import Refused
from lamsik.core.shapes.design import Host, Want
from lamsik.core.shapes.forms import FORMS, body_from
from lamsik.core.shapes.inside import Cavity, PouredEnd
from lamsik.core.shapes.solid import solid
from lamsik.core.tank import evaluate
from lamsik.core.tank.ballast import search, with_answer
from lamsik.core.tank.ballast_why import why_none
from lamsik.core.tank.certainty import certainty
from lamsik.core.tank.floating import float_settled, vessel_of_body
from lamsik.core.tank.mass import Measured, budget
from lamsik.core.tank.motion import Bands, behaviour, frontal_area_mm2, speed_cm_s
from lamsik.core.tank.refit import refit
from lamsik.core.tank.sensitivities import bare, effects, flips, with_clear_coats
from lamsik.core.tank.wanted import flooded_net_g, holdings, target
from lamsik.core.water import Water
from lamsik.words.tell import tell
from tests.bodies import BENCH, LEAD_BALL, TREBLE, bait

HOOKS = [replace(TREBLE, code=f"t{i}", mass_g=m) for i, m in enumerate((0.32, 0.48, 0.79))]
SEA, BRACKISH = Water("sea", 9.0, 35.0), Water("brackish", 10.0, 6.0)


class TestTarget:
    @pytest.mark.parametrize("percent", [3.0, 0.0, -2.0])
    def test_a_share_is_of_the_finished_mass(self, percent):
        design = bait(want=Want(by="share", net_percent=percent))
        answer = search(design, BENCH)[0]
        afresh = evaluate.drag(with_answer(design, answer))
        assert answer.net_g - answer.net_error_g == pytest.approx(target(design, budget(design)).net_g)
        assert 100 * afresh.verdict.net_share == pytest.approx(percent, abs=1.0)

    @pytest.mark.parametrize(
        ("form", "freeboard", "pitch"), [("walker", 6.0, 0.0), ("popper", 8.0, 12.0), ("stubby", 5.0, -5.0)]
    )
    def test_a_freeboard_answer_put_on_floats_as_it_promised(self, form, freeboard, pitch):
        start = FORMS[form]
        body = body_from(start, start.length_mm, start.depth_mm, start.width_mm)
        hardware = tuple(replace(p, x_mm=p.x_mm * body.length_mm / 90) for p in bait().hardware)
        host, want = (
            Host("balsa", 0.2, 0.03),
            Want("floats", 20.0, pitch, by="freeboard", freeboard_mm=freeboard),
        )
        design = bait(body=body, hardware=hardware, host=host, lip=None, want=want)
        answers = search(design, BENCH)
        assert answers
        for answer in answers:
            put = with_answer(design, answer)
            places = float_settled(vessel_of_body(body), budget(put), put.water.density_g_cm3)
            near = min(
                places, key=lambda p: abs(p.attitude.pitch_deg - answer.pitch_deg) + abs(p.attitude.roll_deg)
            )
            assert near.attitude.pitch_deg == pytest.approx(answer.pitch_deg, abs=0.5)
            assert near.freeboard_mm == pytest.approx(answer.freeboard_mm, abs=0.1)
            assert answer.freeboard_error_mm == pytest.approx(answer.freeboard_mm - freeboard)
        assert abs(answers[0].freeboard_error_mm) < 1.2

    def test_a_freeboard_higher_than_the_hull_is_refused(self):
        with pytest.raises(Refused, match="clear of the water"):
            target(bait(want=Want("floats", by="freeboard", freeboard_mm=80.0)), budget(bait()))

    def test_what_counts_as_met_ends_at_the_behaviours_edges(self):
        design, mass = bait(), budget(bait())
        aim = target(design, mass)
        assert aim.low_g < aim.net_g < aim.high_g
        for edge, inward in ((aim.low_g, 1e-6), (aim.high_g, -1e-6)):
            speeds = [
                speed_cm_s(
                    edge + way,
                    frontal_area_mm2(design.body, np.array([0.0, 0.0, 1.0])),
                    design.water.density_g_cm3,
                )
                for way in (inward, -inward)
            ]
            assert behaviour(speeds[0]) == "slow rise" != behaviour(speeds[1])
            assert aim.holds(edge + inward) and not aim.holds(edge - inward)


class TestWaters:
    def test_salinity_multiplies_the_displaced_water(self):
        design = bait(want=Want(waters=(SEA, BRACKISH)))
        mass = budget(design)
        rows = holdings(design, mass)
        for row, water in zip(rows, (SEA, BRACKISH), strict=True):
            assert row.net_g == pytest.approx(evaluate.drag(replace(design, water=water)).verdict.net_g)
        assert rows[0].behaviour == "floats" and not rows[0].held
        assert search(design, BENCH)[0].waters[0].water == SEA

    def test_the_target_is_a_net_that_holds_in_every_water(self):
        design = bait(want=Want("slow rise", 9.0, waters=(BRACKISH,)))
        mass = budget(design)
        alone, both = target(replace(design, want=Want("slow rise", 9.0)), mass), target(design, mass)
        assert both.high_g < alone.high_g and both.net_g < alone.net_g and both.apart_g == 0
        settled = replace(mass, mass_g=design.water.density_g_cm3 * mass.displaced_ml - both.net_g)
        assert alone.holds(both.net_g) and holdings(design, settled)[0].held
        assert [row.held for row in search(design, BENCH)[0].waters] == [True]

    def test_waters_too_far_apart_for_the_band_say_by_how_much(self):
        design = bait(want=Want("suspends", 0.0, waters=(SEA,)))
        found = target(design, budget(design))
        gap = (SEA.density_g_cm3 - design.water.density_g_cm3) * budget(design).displaced_ml
        one, other = (
            target(bait(water=w, want=Want("suspends", 0.0)), budget(design)) for w in (Water(), SEA)
        )
        assert (
            found.apart_g == pytest.approx(gap - (one.high_g - other.low_g), abs=1e-6) and found.apart_g > 0
        )

    @pytest.mark.parametrize(("share", "sinks"), [(0.0, False), (0.5, True)])
    def test_a_pierced_hollow_shell_loses_its_air(self, share, sinks):
        host = Host("printed", 0.42, 0.01, "print", solid_g_cm3=0.42 / (1 - share) if share else None)
        design = bait(host=host, ballast=(), want=Want(pierced=True))
        mass = budget(design)
        net = evaluate.drag(design).verdict.net_g
        lost = share * solid(design.body).volume_ml * design.water.density_g_cm3
        assert (
            flooded_net_g(design, mass) == pytest.approx(net - lost)
            and (flooded_net_g(design, mass) <= 0) is sinks
        )

    def test_a_loose_chamber_floods_too(self):
        cavity = Cavity("c1", LEAD_BALL, 1, 45.0, 7.0, 1.0)
        design = bait(cavities=(cavity,), ballast=())
        air = cavity.volume_ml - LEAD_BALL.ball_g / 11.34
        assert flooded_net_g(design, budget(design)) == pytest.approx(
            evaluate.drag(design).verdict.net_g - air * design.water.density_g_cm3
        )


class TestEffects:
    def test_the_largest_comes_first_and_each_is_what_the_change_itself_does(self):
        found = effects(bait(), HOOKS)
        assert [e.weight for e in found] == sorted((e.weight for e in found), reverse=True)
        rows = {e.key: e for e in found}
        start = evaluate.drag(bait()).verdict.net_g
        heavier = bait(ballast=(replace(bait().ballast[0], mass_g=5.2),))
        assert rows["gram"].net_change_g == pytest.approx(evaluate.drag(heavier).verdict.net_g - start)
        assert rows["salt"].net_change_g == pytest.approx(
            evaluate.drag(bait(water=Water("fresh water", 12, 35))).verdict.net_g - start, abs=1e-9
        )
        assert rows["shift"].net_change_g == pytest.approx(0, abs=2e-3) and rows["shift"].pitch_change_deg > 0
        assert rows["hook-up"].net_change_g == pytest.approx(-2 * 0.31 * (1 - 0.9995 / 7.85), abs=1e-3)
        assert rows["clear"].net_change_g == pytest.approx(
            evaluate.drag(with_clear_coats(bait(), 2)).verdict.net_g - start
        )
        assert rows["clear"].net_change_g < 0 and rows["warm"].net_change_g < 0 < rows["salt"].net_change_g

    def test_a_weighed_host_and_the_largest_hook_have_no_step(self):
        design = bait(host=Host("basswood", 0.42, 0.04, source="weighed"))
        keys = {e.key for e in effects(design, HOOKS[:2])}
        assert "host" not in keys and "hook-up" not in keys and "hook-down" in keys

    @pytest.mark.parametrize("water", [Water(), SEA, Water("measured", 12, 0, 1.004)])
    def test_the_water_at_which_it_flips(self, water):
        design = bait(water=water, ballast=(replace(bait().ballast[0], mass_g=4.25),))
        mass = budget(design)
        area, now = evaluate.drag(design).frontal_mm2, evaluate.drag(design).verdict.behaviour
        for flip in flips(design, mass):
            sides = [
                behaviour(speed_cm_s(rho * mass.displaced_ml - mass.mass_g, area, rho), Bands())
                for rho in (flip.density_g_cm3 - 2e-6, flip.density_g_cm3 + 2e-6)
            ]
            assert flip.behaviour in sides and sides[0] != sides[1] and flip.behaviour != now
            if flip.salinity_psu is not None and water.measured_g_cm3 is None:
                assert Water("x", water.temperature_c, flip.salinity_psu).density_g_cm3 == pytest.approx(
                    flip.density_g_cm3, abs=2e-5
                )

    def test_clear_coats_are_counted(self):
        assert sum(c.kind == "clear" for c in with_clear_coats(bait(), 4).layers) == 4
        assert (
            with_clear_coats(bait(layers=()), 1).layers[0].kind == "clear"
            and with_clear_coats(bait(), 0).layers == bait().layers[:2]
        )

    def test_bare_is_lighter_by_coats_and_hooks(self):
        assert {p.item.kind for p in bare(bait()).hardware} == {"line_tie", "hanger"} and [
            c.kind for c in bare(bait()).layers
        ] == ["seal"]


class TestCertainty:
    def test_with_only_the_stick_unknown_it_is_the_normal_law(self):
        host = Host("stick", 0.42, 0.02, face_mm=0.0)
        design = bait(
            host=host,
            hardware=(),
            lip=None,
            ballast=(),
            layers=(),
            glue_g=0.0,
            want=Want(by="share", net_percent=130.0),
        )
        mass = budget(design)
        aim = target(design, mass)
        net, sd = evaluate.drag(design).verdict.net_g, 0.02 * solid(design.body).volume_ml
        found = certainty(design)
        expected = NormalDist().cdf((aim.high_g - net) / found.net_sd_g) - NormalDist().cdf(
            (aim.low_g - net) / found.net_sd_g
        )
        assert found.net_sd_g == pytest.approx(sd, rel=0.08) and found.chance == pytest.approx(
            expected, abs=0.03
        )

    def test_the_stick_is_what_to_weigh_and_weighing_it_raises_the_chance(self):
        design = bait(host=replace(bait().host, face_mm=0.02))
        found = certainty(design)
        assert (
            found.best.group == "host"
            and "blank" in found.best.says
            and found.best.chance > found.refitted + 0.2
        )
        planned = budget(bait()).up_to("carved")
        after = certainty(design, Measured((("carved", planned, 0.02),)))
        assert after.net_sd_g < found.net_sd_g / 2 and after.chance > found.chance

    def test_known_to_the_last_gram_it_is_certain(self):
        known = Measured(parts=tuple((p.key, p.mass_g, 0.0) for p in budget(bait()).parts if p.mass_g > 0))
        design = bait(want=Want("floats", 20.0), ballast=(), drag_source="timed", drag=0.9)
        assert certainty(design, known).chance == 1.0
        assert certainty(replace(design, want=Want("sinks", -20.0)), known).chance == 0.0
        assert certainty(design, known).best is None

    def test_a_carver_s_hand_makes_the_weighed_blank_less_sure(self):
        def after_weighing(face):
            design = bait(host=replace(bait().host, face_mm=face))
            found = certainty(design)
            return next(row.chance for row in found.better if row.group == "host")

        assert after_weighing(0.0) > after_weighing(0.15) + 0.2

    def test_the_same_design_gives_the_same_answer(self):
        assert vars(certainty(bait())) == vars(certainty(bait()))


def test_why_none_names_what_would_do():
    heavy = bait(host=Host("maple", 0.9, 0.04), ballast=())
    says = tell(why_none(heavy, BENCH))
    assert "Even without ballast" in says and "lighter wood of at most" in says and "larger" in says
    density = float(says.split("at most ")[1].split(" ")[0])
    lighter = replace(heavy, host=Host("wood", density - 0.01, 0.01))
    assert evaluate.drag(lighter).verdict.net_g > target(lighter, budget(lighter)).net_g - 0.05


class TestRefit:
    def refit(self, **changes):
        return refit(evaluate.settle(bait(**changes)), BENCH)

    def test_what_is_right_needs_nothing(self):
        design = with_answer(bait(), search(bait(), BENCH)[0])
        assert refit(evaluate.settle(design), BENCH).met

    def test_its_own_slugs_are_cut_and_moved_and_poured_ends_stay(self):
        pour = PouredEnd("p1", "dense", 0.8, 80.0, 90.0)
        found = self.refit(pours=(pour,), ballast=(replace(bait().ballast[0], mass_g=3.4),))
        assert not found.met and "instead of 3.4 g" in found.says and found.design.pours == (pour,)
        assert refit(evaluate.settle(found.design), BENCH).met

    def test_a_floaters_tilt_under_water_is_not_taken_for_that_afloat(self):
        for x, grams, afloat in ((25.0, 1.7, True), (36.0, 4.8, False)):
            slug = replace(bait().ballast[0], x_mm=x, mass_g=grams)
            outcome = evaluate.settle(bait(ballast=(slug,)))
            hanging = outcome.hanging.free.pitch_deg
            says, way = tell(refit(outcome, BENCH).says), "up" if hanging > 0 else "down"
            assert f"{abs(hanging):.0f}° too far nose {way}" in says and bool(outcome.surface) == afloat
            assert (f"nose {way} hanging under water" in says) == afloat

    def test_without_ballast_some_is_put_in(self):
        found = self.refit(ballast=())
        assert (
            "too light" in found.says
            and "Put in: " in found.says
            and refit(evaluate.settle(found.design), BENCH).met
        )

    @pytest.mark.parametrize(
        ("changes", "says"),
        [
            ({"host": Host("maple", 0.95, 0.03)}, "Even without ballast"),
            (
                {"host": Host("print", 0.42, 0.01, "print", solid_g_cm3=1.15), "want": Want(pierced=True)},
                "skin pierced",
            ),
            ({"want": Want(roll="lively")}, "you want it lively"),
        ],
    )
    def test_what_it_cannot_put_right_is_said(self, changes, says):
        found = self.refit(**changes)
        assert not found.met and says in found.says

    def test_an_empty_bench_is_said(self):
        assert "in Stores" in refit(evaluate.settle(bait(ballast=())), replace(BENCH, slugs=())).says
