"""Ballast that is not drilled, trial weights, allowances, twins: each against its closed form or put on
and solved afresh.
"""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamsik.core.errors import Refused
from lamsik.core.materials import BODY_MATERIALS
from lamsik.core.mixes.filler import filling_for
from lamsik.core.shapes.allowances import Allowance
from lamsik.core.shapes.ballast_holes import Slug
from lamsik.core.shapes.design import Host, Want
from lamsik.core.shapes.hardware import Item, Placement
from lamsik.core.shapes.hollow import Shell
from lamsik.core.shapes.inside import Cavity, PouredEnd, pour_volume_ml
from lamsik.core.shapes.solid import segment, solid
from lamsik.core.shapes.trial import TrialWeight
from lamsik.core.tank import evaluate
from lamsik.core.tank.ballast import search, with_answer
from lamsik.core.tank.drilling import cavity_troubles, pour_troubles, troubles
from lamsik.core.tank.mass import budget
from lamsik.core.tank.trial import pull_g, replacement
from lamsik.core.tank.twins import fidelity, matched_design, moulded, twins
from tests.bodies import BENCH, LEAD_BALL, bait, straight

CAST, PRINT = (
    Host("filled urethane", 0.6, 0.02, "cast"),
    Host("printed", 0.55, 0.02, "print", solid_g_cm3=1.15),
)


@settings(max_examples=30)
@given(st.floats(0.0, 90.0), st.floats(0.0, 90.0))
def test_two_parts_of_a_body_are_the_whole(one, two):
    body, (low, high) = bait().body, sorted((one, two))
    rows = [segment(body, 0.0, low), segment(body, low, high), segment(body, high, 90.0)]
    assert sum(r.volume_mm3 for r in rows) == pytest.approx(solid(body).volume_mm3, rel=1e-5)
    centre = sum(np.array(r.centroid_mm) * r.volume_mm3 for r in rows) / solid(body).volume_mm3
    np.testing.assert_allclose(centre, solid(body).centroid_mm, atol=1e-3)


def test_a_poured_end_of_a_cylinder_in_closed_form():
    body = straight(100, 8, 8)
    volume, at = pour_volume_ml(body, PouredEnd("p1", "dense", 2.0, 70.0, 100.0))
    assert volume == pytest.approx(np.pi * 64 * 30 / 1000, rel=1e-6) and at[0] == pytest.approx(85.0)
    design = bait(
        body=body,
        host=CAST,
        pours=(PouredEnd("p1", "dense", 2.0, 70.0, 100.0),),
        hardware=(),
        lip=None,
        ballast=(),
        layers=(),
        glue_g=0.0,
    )
    assert budget(design).mass_g == pytest.approx(0.6 * np.pi * 64 * 70 / 1000 + 2.0 * volume, rel=1e-6)


def test_balls_in_a_chamber_add_metal_and_take_host_out():
    cavity = Cavity("c1", LEAD_BALL, 2, 45.0, 7.0, 0.6)
    plain, filled = (budget(bait(host=PRINT, ballast=(), cavities=rows)) for rows in ((), (cavity,)))
    assert filled.mass_g - plain.mass_g == pytest.approx(
        2 * LEAD_BALL.ball_g - 0.55 * np.pi * 7.6**2 / 4 * 14.6 / 1000
    )


@pytest.mark.parametrize(
    ("host", "kinds"),
    [
        (CAST, {"pours", "cavities"}),
        (PRINT, {"cavities"}),
        (Host("rigid foam", 0.3, 0.02, "foam"), {"pours"}),
    ],
)
def test_moulded_answers_put_on_give_what_they_promised(host, kinds):
    design = bait(host=host, ballast=(), want=Want("suspends", 0.0, 0.0))
    seen = set()
    for answer in search(design, BENCH, most=30):
        afresh = evaluate.drag(with_answer(design, answer))
        assert afresh.verdict.net_g == pytest.approx(answer.net_g, abs=0.01)
        assert afresh.hanging.free.pitch_deg == pytest.approx(answer.pitch_deg, abs=0.5)
        assert answer.frequency_hz == pytest.approx(afresh.roll.frequency_hz, rel=0.05)
        seen |= {name for name in ("pours", "cavities") if getattr(answer, name)}
    assert seen <= kinds


@pytest.mark.parametrize(
    "changes", [{"shell": Shell(1.4, around_mm=1.2)}, {"shell": Shell(1.4, 0.05, "foam")}]
)
def test_drilled_answers_in_a_hollow_give_what_they_promise(changes):
    design = bait(
        host=Host("printed", 1.1, 0.02, "print"), ballast=(), want=Want("suspends", 0.0, 0.0), **changes
    )
    answers = search(design, BENCH)
    assert min(abs(a.net_error_g) / 0.05 + abs(a.pitch_error_deg) / 2 for a in answers if a.holes) < 2
    for answer in answers:
        afresh = evaluate.drag(with_answer(design, answer))
        assert afresh.verdict.net_g == pytest.approx(
            answer.net_g, abs=0.01
        ) and afresh.hanging.free.pitch_deg == pytest.approx(answer.pitch_deg, abs=0.5)


def test_a_chamber_answer_is_found_for_a_print_and_stands_in_its_walls():
    design = bait(host=PRINT, ballast=(), want=Want("slow rise", 6.0, 0.0))
    found = [a for a in search(design, BENCH, most=30) if a.cavities]
    assert found and all(
        cavity_troubles(with_answer(design, a), a.cavities[0], BENCH.wall_mm) == () for a in found
    )


@pytest.mark.parametrize(
    ("says", "found"),
    [
        (
            "takes out",
            lambda: troubles(
                bait(host=Host("maple", 0.95, 0.02)),
                replace(
                    bait().ballast[0],
                    slug=Slug("x", "rod", "light", 1.5, 4.0),
                    mass_g=0.05,
                    drill_mm=8.0,
                    filler_g_cm3=0.2,
                ),
                1.0,
            ),
        ),
        (
            "a poured end",
            lambda: troubles(
                bait(pours=(PouredEnd("p1", "dense", 2.0, 25.0, 50.0),)), bait().ballast[0], 1.0
            ),
        ),
        (
            "a cavity",
            lambda: troubles(bait(cavities=(Cavity("c1", LEAD_BALL, 1, 33.0, 9.0),)), bait().ballast[0], 1.0),
        ),
        (
            "overlaps",
            lambda: pour_troubles(
                bait(pours=(PouredEnd("p1", "a", 2.0, 0.0, 20.0), PouredEnd("p2", "b", 2.0, 15.0, 30.0))),
                "p1",
            ),
        ),
        ("breaks out", lambda: cavity_troubles(bait(), Cavity("c1", LEAD_BALL, 1, 88.0, 3.0), 1.0)),
        ("leaves only", lambda: cavity_troubles(bait(), Cavity("c1", LEAD_BALL, 1, 40.0, 5.0), 3.0)),
        (
            "lighter",
            lambda: cavity_troubles(
                bait(host=Host("heavy", 4.0, 0.1)),
                Cavity("c1", Slug("steel", "ball", "steel", 7.85, 2.0), 1, 40.0, 9.0, 8.0),
                1.0,
            ),
        ),
        (
            "another cavity",
            lambda: cavity_troubles(
                bait(cavities=(Cavity("c1", LEAD_BALL, 1, 40.0, 9.0), Cavity("c2", LEAD_BALL, 1, 44.0, 9.0))),
                Cavity("c1", LEAD_BALL, 1, 40.0, 9.0),
                0.5,
            ),
        ),
    ],
)
def test_what_cannot_be_built_is_said(says, found):
    assert any(says in text for text in found())


def test_no_answer_takes_out_more_than_it_puts_in():
    heavy = replace(BENCH, slugs=(Slug("alloy", "rod", "aluminium", 2.7, 6.0),), filler_g_cm3=0.2)
    design = bait(host=Host("beech", 0.7, 0.02), ballast=(), want=Want("slow sink", -6.0))
    found = search(design, heavy)
    assert found
    for answer in found:
        assert all(troubles(with_answer(design, answer), hole, 0.0) == () for hole in answer.holes)


class TestTrialWeights:
    def tubbed(self, *trials, **changes):
        return bait(**{"ballast": (), "trials": trials, **changes})

    def test_a_clip_weighs_what_an_item_of_its_mass_on_the_same_eye_would(self):
        design = self.tubbed(TrialWeight("t1", "h1", 0.0, 3.0))
        clip = Placement("clip", Item("clip", "clip", "ring", 3.0, 11.34), hung_on="h1")
        as_item = evaluate.drag(bait(ballast=(), hardware=(*bait().hardware, clip)))
        tub = replacement(design, BENCH).tub
        assert tub.hanging.net_g == pytest.approx(
            as_item.verdict.net_g
        ) and tub.hanging.free.pitch_deg == pytest.approx(as_item.hanging.free.pitch_deg)
        assert (
            tub.pull_g
            == pytest.approx(3.0 * (1 - design.water.density_g_cm3 / 11.34))
            == pull_g(design.trials[0], design.water.density_g_cm3)
        )

    def test_the_inside_ballast_does_the_same_and_the_difference_is_explained(self):
        design = self.tubbed(TrialWeight("t1", "belly", 33.0, 4.0))
        found = replacement(design, BENCH)
        assert found.answers and found.why is None
        for answer in found.answers:
            afresh = evaluate.drag(replace(design, ballast=answer.holes, trials=()))
            assert afresh.verdict.net_g == pytest.approx(answer.net_g, abs=0.01)
            assert afresh.verdict.net_g == pytest.approx(found.tub.hanging.net_g, abs=0.1)
            assert afresh.hanging.free.pitch_deg == pytest.approx(found.tub.hanging.free.pitch_deg, abs=10)
            assert answer.mass_g < 4.0
        assert (
            "4.00 g pull with 3.65 g" in found.differences[0]
            and f"{found.answers[0].mass_g:.2f} g of metal" in found.differences[1]
        )

    def test_ballast_that_is_in_stays_and_is_kept_clear_of(self):
        design = self.tubbed(TrialWeight("t1", "belly", 36.0, 0.8), ballast=bait().ballast)
        for answer in replacement(design, BENCH).answers:
            both = replace(
                design,
                ballast=(*design.ballast, *(replace(h, key=f"n{h.key}") for h in answer.holes)),
                trials=(),
            )
            assert evaluate.drag(both).verdict.net_g == pytest.approx(answer.net_g, abs=0.01)
            assert all(troubles(both, hole, BENCH.wall_mm) == () for hole in both.ballast)

    @pytest.mark.parametrize(
        ("trial", "says"),
        [
            (TrialWeight("t1", "tie", 0.0, 4.0), "No place inside does it"),
            (TrialWeight("t1", "belly", 40.0, 0.0), "weigh nothing yet"),
        ],
    )
    def test_where_nothing_inside_does_the_same_it_says_why(self, trial, says):
        found = replacement(self.tubbed(trial), BENCH)
        assert found.answers == () and says in found.why

    @pytest.mark.parametrize(
        ("design", "bench", "field"),
        [
            (bait(), BENCH, "trials"),
            (bait(trials=(TrialWeight("t1", "belly", 3, 1),)), replace(BENCH, slugs=()), "slugs"),
        ],
    )
    def test_nothing_to_work_with_is_said(self, design, bench, field):
        with pytest.raises(Refused) as refusal:
            replacement(design, bench)
        assert refusal.value.field == field


class TestAllowances:
    CLEAR = Allowance("a1", "clear", "Clear to come", 0.9, 0.2)

    def test_it_counts_until_the_thing_itself_is_on(self):
        bare = bait(layers=bait().layers[:2])
        allowed = budget(replace(bare, allowances=(self.CLEAR,)))
        assert (
            allowed.mass_g == pytest.approx(budget(bare).mass_g + 0.9)
            and allowed.film_ml > budget(bare).film_ml
        )
        assert budget(bait(allowances=(self.CLEAR,))).mass_g == pytest.approx(budget(bait()).mass_g)

    def test_ballast_is_found_for_the_finished_bait(self):
        bare = bait(layers=bait().layers[:2])
        finished = search(replace(bare, allowances=(self.CLEAR,)), BENCH)[0]
        now = search(bare, BENCH)[0]
        assert now.mass_g - finished.mass_g == pytest.approx(
            0.1, abs=0.12
        )  # clear is hardly heavier than water

    @pytest.mark.parametrize(
        ("kind", "changes"),
        [
            ("hooks", {"hardware": bait().hardware[:3]}),
            ("glue", {"glue_g": 0.0}),
            ("paint", {"layers": ()}),
            ("other", {}),
        ],
    )
    def test_each_kind_acts_and_steps_aside(self, kind, changes):
        row = Allowance("a1", kind, "to come", 1.0, 0.2)
        without = bait(**changes)
        assert budget(replace(without, allowances=(row,))).mass_g == pytest.approx(
            budget(without).mass_g + 1.0
        )
        if kind != "other":
            assert budget(bait(allowances=(row,))).mass_g == pytest.approx(budget(bait()).mass_g)


class TestTwins:
    def test_every_material_that_can_matches_mass_and_g(self):
        rows = twins(bait())
        assert [row.material.kind for row in rows] == ["wood", "cast", "foam", "print"]
        for row in rows[1:]:
            assert row.matched.budget.mass_g == pytest.approx(evaluate.drag(bait()).budget.mass_g, abs=0.01)
            assert row.g_off_mm < 0.05 and row.matched.verdict.net_g != row.plain.verdict.net_g
        assert not rows[1].filling.mixes and "no resin mix is so light" in rows[1].says
        dense = twins(bait(host=Host("beech", 0.6, 0.03), want=Want("sinks", -20.0)))[1]
        assert dense.filling.stiff and dense.filling.mixes and "hard to pour" in dense.says

    def test_only_a_print_of_a_hollow_original_is_hollow(self):
        printed = bait(host=PRINT, shell=Shell(1.6))
        made = {
            row.kind: moulded(printed, row)
            for row in (
                BODY_MATERIALS[name]
                for name in ("basswood", "filled urethane", "rigid foam", "printed resin")
            )
        }
        assert {kind: design.shell is not None for kind, design in made.items()} == {
            "wood": False,
            "cast": False,
            "foam": False,
            "print": True,
        }
        cast = next(row for row in twins(printed) if row.material.kind == "cast")
        assert cast.plain.budget.mass_g > evaluate.drag(replace(printed, host=CAST)).budget.mass_g + 2

    def test_no_density_makes_it_so_light(self):
        heavy = replace(bait().ballast[0], mass_g=40.0)
        light = evaluate.drag(bait(host=Host("balsa", 0.1, 0.02)))
        assert matched_design(moulded(bait(ballast=(heavy,)), twins(bait())[1].material), light) is None

    @pytest.mark.parametrize("density", [0.3, 0.6, 0.9, 1.05])
    def test_the_filler_share_gives_the_density_by_volumes(self, density):
        found = filling_for(density)
        assert found.mass_share / 0.15 + (1 - found.mass_share) / 1.05 == pytest.approx(1 / density)
        assert found.stiff is (found.volume_share > 0.42)

    @pytest.mark.parametrize("density", [0.1, 1.2, float("nan")])
    def test_a_density_out_of_reach_is_refused(self, density):
        with pytest.raises(Refused):
            filling_for(density)

    def test_a_prototype_is_compared_within_tolerances(self):
        target = evaluate.drag(bait())
        assert all(row.within for row in fidelity(target, target))
        other = evaluate.drag(bait(host=Host("basswood", 0.47, 0.04)))
        rows = {row.name: row for row in fidelity(target, other)}
        assert not rows["Mass"].within and rows["Mass"].off == pytest.approx(
            other.budget.mass_g - target.budget.mass_g
        )
