"""Ballast answers: put on and solved afresh they give what they promised."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamsik.core.errors import Refused
from lamsik.core.shapes.ballast_holes import Hole
from lamsik.core.shapes.body import station
from lamsik.core.shapes.clashes import clashes
from lamsik.core.shapes.design import Host, Want
from lamsik.core.shapes.forms import FORMS, body_from
from lamsik.core.shapes.hardware import Item, Placement
from lamsik.core.shapes.inside import Cavity
from lamsik.core.tank import advice, evaluate
from lamsik.core.tank.ballast import search, with_answer
from lamsik.core.tank.ballast_base import Bench, base_of, place_mm, slug_mass_g
from lamsik.core.tank.ballast_tool import Tool
from lamsik.core.tank.ballast_why import why_none
from lamsik.core.tank.certainty import certainty
from lamsik.core.tank.drilling import cavity_troubles, clear_of_hardware, troubles, wall_left_mm
from lamsik.core.tank.inertia import roll_moment_g_mm2
from lamsik.core.tank.mass import NOTHING, Measured, budget
from lamsik.core.tank.refit import refit
from lamsik.core.tank.wanted import target
from lamsik.core.trade.behaviours import BEHAVIOURS
from lamsik.words.tell import tell
from lamsik.words.verdict import sentence
from tests.bodies import BENCH, LEAD_BALL, LEAD_ROD, STEEL, TUNGSTEN, bait

WANTS = [
    ("slow rise", 0.0),
    ("suspends", 0.0),
    ("slow sink", 0.0),
    ("slow rise", -8.0),
    ("suspends", 10.0),
    ("floats", 0.0),
]


@pytest.mark.parametrize("form", ["slim", "stubby", "glider", "deepflank"])
@pytest.mark.parametrize(("behaviour", "pitch"), WANTS)
def test_an_answer_put_on_gives_what_it_promised(form, behaviour, pitch):
    start = FORMS[form]
    body = body_from(start, start.length_mm, start.depth_mm, start.width_mm)
    scaled = tuple(replace(p, x_mm=p.x_mm * start.length_mm / 90) for p in bait().hardware)
    design = bait(body=body, hardware=scaled, want=Want(behaviour, BEHAVIOURS[behaviour].speed_cm_s, pitch))
    for answer in search(design, BENCH):
        afresh = evaluate.drag(with_answer(design, answer))
        assert afresh.verdict.net_g == pytest.approx(answer.net_g, abs=0.01)
        assert afresh.hanging.free.pitch_deg == pytest.approx(answer.pitch_deg, abs=0.5)
        assert answer.net_error_g == pytest.approx(
            answer.net_g - target(design, budget(design)).net_g, abs=1e-9
        )
        assert answer.wall_mm >= BENCH.wall_mm - 1e-9


@pytest.mark.parametrize("slug", [LEAD_ROD, LEAD_BALL])
def test_a_pair_beside_the_middle_is_two_holes_shallower_and_rolls_slower(slug):
    body = body_from(FORMS["glider"], 100, 22, 26)
    mass = 2 * LEAD_BALL.ball_g
    one, pair = (Hole("b1", slug, mass, 48.0, 7.5, beside_mm=beside) for beside in (0.0, 6.0))
    design = bait(body=body, ballast=())
    both = tuple(replace(pair, key=f"b{n}", mass_g=mass / 2, beside_mm=0.0) for n in (1, 2))
    assert pair.hole_ml == pytest.approx(
        sum(hole.hole_ml for hole in both)
    ) and pair.filler_g == pytest.approx(sum(hole.filler_g for hole in both))
    single, double = (evaluate.drag(replace(design, ballast=(hole,))) for hole in (one, pair))
    assert double.budget.g_mm[2] < single.budget.g_mm[2] and double.budget.g_mm[1] == pytest.approx(
        0, abs=1e-9
    )
    # each gram 6 mm off the middle adds to the roll inertia what the parallel axes say
    mine, theirs = (roll_moment_g_mm2(outcome.design, outcome.budget) for outcome in (double, single))
    heights = [
        sum(p.mass_g * p.at_mm[2] ** 2 for p in outcome.budget.parts if p.key.endswith(":b1"))
        for outcome in (double, single)
    ]
    assert mine - theirs == pytest.approx(mass * 36 + heights[0] - heights[1], rel=1e-6)
    assert 0 < wall_left_mm(body, pair) <= 12.0 - 7.5  # never more than what is left between the two
    assert wall_left_mm(body, replace(pair, beside_mm=4.5)) == pytest.approx(1.5)
    assert wall_left_mm(body, replace(pair, beside_mm=11.0)) < 0


def test_the_best_of_several_answers_meets_the_want():
    answers = search(bait(), BENCH)
    assert len(answers) >= 3
    assert answers[0].miss == min(a.miss for a in answers)
    assert abs(answers[0].net_error_g) < 0.08 and abs(answers[0].pitch_error_deg) < 4
    tags = [tag for answer in answers for tag in answer.tags]
    assert len(tags) == len(set(tags)) and len({answer.says for answer in answers}) == len(answers)
    done = evaluate.settle(with_answer(bait(), answers[0]))
    assert done.verdict.behaviour == "slow rise" and "Hangs level" in sentence(done.verdict)


@settings(max_examples=25)
@given(st.floats(-0.3, 0.6), st.sampled_from([LEAD_ROD, TUNGSTEN]), st.integers(1, 3))
def test_the_closed_form_slug_leaves_exactly_the_wanted_net(net, slug, count):
    base = base_of(bait())
    total = slug_mass_g(base, net, slug, 5.5, count, BENCH, [20.0 + 10 * i for i in range(count)])
    holes = tuple(
        replace(
            bait().ballast[0], key=f"b{i}", slug=slug, drill_mm=5.5, mass_g=total / count, x_mm=20.0 + 10 * i
        )
        for i in range(count)
    )
    if total > 0:
        assert evaluate.drag(bait(ballast=holes)).verdict.net_g == pytest.approx(net, abs=1e-4)


@pytest.mark.parametrize("pitch", [0.0, 6.0, -10.0, 20.0])
def test_the_closed_form_place_gives_the_wanted_pitch(pitch):
    base = base_of(bait())
    hole = replace(bait().ballast[0], mass_g=4.2)
    x = place_mm(base, [hole], [0.0], pitch)
    assert evaluate.drag(bait(ballast=(replace(hole, x_mm=x),))).hanging.free.pitch_deg == pytest.approx(
        pitch, abs=0.05
    )


def test_holes_keep_clear_of_hangers_and_slot():
    for answer in search(bait(), BENCH):
        for hole in answer.holes:
            assert clear_of_hardware(bait(), np.array([hole.x_mm]), hole.drill_mm)[0]
            assert wall_left_mm(bait().body, hole) >= BENCH.wall_mm


EYE = Item("eye", "screw eye", "hanger", 0.3, STEEL, 0.4, 2.5, wire_mm=0.9, shank_mm=22.0)


@pytest.mark.parametrize("construction", ["wood", "print", "cast"])
@pytest.mark.parametrize("pitch", [-12.0, 0.0, 12.0])
@pytest.mark.parametrize("seats", ["nose tail", "nose back", "lip"])
def test_no_answer_runs_into_a_screw_or_too_near_one(seats, pitch, construction):
    short = replace(EYE, shank_mm=10.0)
    hung = tuple(
        Placement(seat, short if seat == "back" else EYE, seat, 40.0)
        for seat in seats.split()
        if seat != "lip"
    )
    wanted = bait(
        ballast=(),
        hardware=hung,
        lip=bait().lip if seats == "lip" else None,
        host=Host("stuff", 0.5, 0.04, construction),
        want=Want("slow rise", 6.0, pitch),
    )
    answers = search(wanted, BENCH)
    assert answers
    for answer in answers:
        assert clashes(with_answer(wanted, answer), BENCH.wall_mm) == (), answer.says


@pytest.mark.parametrize("pitch", [-8.0, 8.0])
def test_slugs_are_not_moved_into_a_screw(pitch):
    thick = replace(LEAD_ROD, name="lead rod 8 mm", diameter_mm=8.0)
    drawn = bait(
        lip=None,
        hardware=(Placement("t", replace(EYE, shank_mm=55.0), "nose"),),
        ballast=(replace(bait().ballast[0], slug=thick, drill_mm=8.0, x_mm=62.0),),
        want=Want("slow rise", 6.0, pitch),
    )
    advised = refit(evaluate.settle(drawn), BENCH).design
    assert advised is not None and clashes(advised, BENCH.wall_mm) == ()


def test_holes_go_up_to_a_screw_and_pairs_past_it():
    """Under a screw there is what a maker has there, not less."""
    tie = Placement("t", replace(EYE, shank_mm=80.0), "nose")
    base, x = base_of(bait(ballast=(), lip=None, hardware=(tie,))), np.array([40.0])
    one, pair = Tool(base, BENCH, TUNGSTEN, 4.0), Tool(base, BENCH, TUNGSTEN, 4.0, 4.0)
    most = int(one.steps_at(x)[1][0])
    deepest = base.overhead[0].low_mm - BENCH.wall_mm / 2 - station(base.design.body, 40.0).bottom_mm
    assert one.hole("b", 40.0, most * one.step_g).depth_mm <= deepest + 1e-6
    assert one.hole("b", 40.0, (most + 1) * one.step_g).depth_mm > deepest
    free = base_of(bait(ballast=(), lip=None, hardware=()))
    assert pair.steps_at(x) == Tool(free, BENCH, TUNGSTEN, 4.0, 4.0).steps_at(x)
    thin = replace(BENCH, wall_mm=1.6)
    for beside_mm in (0.0, 3.0):  # past it there would be 0.55 mm where 0.8 are wanted
        bound, open_ = (Tool(of, thin, TUNGSTEN, 4.0, beside_mm).steps_at(x)[1] for of in (base, free))
        assert bound < open_


def test_a_want_that_cannot_be_met_says_why():
    heavy = bait(host=Host("maple", 0.98, 0.04), ballast=())
    assert search(heavy, BENCH) == ()
    assert "Even without ballast" in why_none(heavy, BENCH)
    stiff = replace(BENCH, wall_mm=9.0)
    assert search(bait(), stiff) == ()
    assert "no slug at hand fits" in why_none(bait(), stiff)


@pytest.mark.parametrize(
    ("bench", "field"), [(replace(BENCH, slugs=()), "slugs"), (replace(BENCH, drills_mm=()), "drills")]
)
def test_an_empty_bench_is_said(bench: Bench, field):
    with pytest.raises(Refused) as refusal:
        search(bait(), bench)
    assert refusal.value.field == field and "Stores" in str(refusal.value)


def test_balls_come_whole():
    only = replace(BENCH, slugs=(LEAD_BALL,))
    for answer in search(bait(), only):
        for hole in answer.holes:
            assert hole.mass_g / LEAD_BALL.ball_g == pytest.approx(round(hole.mass_g / LEAD_BALL.ball_g))


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({}, None),
        ({"x_mm": 46.0}, "runs into a hanger"),
        ({"x_mm": 9.0}, "lip slot"),
        ({"x_mm": 84.0}, "breaks out of the body"),
        ({"mass_g": 8.0}, "breaks out of the body"),
        ({"mass_g": 4.9}, "leaves only"),
    ],
)
def test_a_hole_that_cannot_be_drilled_says_why(changes, says):
    hole = replace(bait().ballast[0], **changes)
    found = troubles(bait(ballast=(hole,)), hole, 2.0)
    assert (found == ()) if says is None else any(says in text for text in found)


def test_a_hole_and_a_chamber_say_which_screw_they_run_into():
    tie = Placement("t", replace(EYE, shank_mm=44.0), "nose")
    hanger = Placement("h", replace(EYE, name="hanger", shank_mm=8.0), "belly", 52.0)
    design = bait(lip=None, hardware=(tie, hanger))

    def wrong(**changes):
        hole = replace(bait().ballast[0], x_mm=32.0, **changes)
        return tuple(map(tell, troubles(replace(design, ballast=(hole,)), hole, 2.0)))

    assert wrong(mass_g=2.0) == () and wrong(mass_g=2.6) == ("leaves only 0.4 mm to screw eye",)
    assert wrong(mass_g=3.4) == ("runs into screw eye",)
    past = wrong(mass_g=5.0, slug=TUNGSTEN, drill_mm=4.0, beside_mm=3.5)  # to both sides of it
    assert past == ("leaves only 0.9 mm of wall",)
    for x_mm, says in ((33.0, "runs into screw eye"), (52.0, "runs into hanger")):
        ball = Cavity("c", LEAD_BALL, 1, x_mm, 9.0)
        filled = replace(design, ballast=(), cavities=(ball,))
        assert tuple(map(tell, cavity_troubles(filled, ball, 0.5))) == (says,)
        assert cavity_troubles(replace(filled, hardware=()), ball, 0.5) == ()


def test_two_holes_in_one_place_are_said():
    one = bait().ballast[0]
    two = replace(one, key="b2", x_mm=one.x_mm + 4)
    assert "runs into another hole" in map(tell, troubles(bait(ballast=(one, two)), one, 1.0))


class TestAdvice:
    def say(self, *stages, **changes):
        return advice.advise(bait(**changes), Measured(tuple(stages)), BENCH)

    def test_a_heavy_blank_asks_for_a_smaller_slug(self):
        planned = budget(bait()).up_to("carved")
        found = self.say(("carved", planned + 0.6, 0.03))
        assert tell(found.says).startswith("Blank 0.6 g heavier than basswood at 0.42 g/cm³: use a ")
        assert "instead of 4.2 g" in found.says
        new = sum(h.mass_g for h in found.design.ballast)
        again = evaluate.drag(found.design, Measured((("carved", planned + 0.6, 0.03),)))
        assert new < 4.2
        assert again.verdict.net_g == pytest.approx(target(bait(), budget(bait())).net_g, abs=0.08)
        assert abs(again.hanging.free.pitch_deg) < 6

    def test_a_light_blank_asks_for_more(self):
        found = self.say(("carved", budget(bait()).up_to("carved") - 0.5, 0.03))
        assert "0.5 g lighter" in found.says and sum(h.mass_g for h in found.design.ballast) > 4.2

    def test_as_planned_stays_as_planned(self):
        design = with_answer(bait(), search(bait(), BENCH)[0])
        found = advice.advise(design, Measured((("carved", budget(design).up_to("carved"), 0.03),)), BENCH)
        assert found.design is None and "still fits" in found.says

    def test_too_heavy_even_without_ballast(self):
        assert "even without ballast" in self.say(("carved", 9.5, 0.03)).says

    def test_nothing_weighed(self):
        assert "Nothing is weighed" in self.say().says

    def test_after_the_ballast_is_in_it_says_what_is_left(self):
        planned = budget(bait())
        heavy = self.say(
            ("carved", planned.up_to("carved"), 0.03), ("ballasted", planned.up_to("ballasted") + 1.5, 0.03)
        )
        light = self.say(
            ("carved", planned.up_to("carved"), 0.03), ("ballasted", planned.up_to("ballasted") - 0.8, 0.03)
        )
        assert "heavier than wanted" in heavy.says and heavy.design is None
        assert "lifts" in light.says


@pytest.mark.parametrize(
    ("made", "source", "says"),
    [
        ("wood", "table", "weigh the carved blank"),
        ("soft", "poured", "weigh the casting"),
        ("print", "table", "weigh the print"),
        ("foam", "poured", "weigh the foamed blank"),
    ],
)
def test_what_was_not_carved_is_not_called_carved(made, source, says):
    design = bait(host=Host("what it is of", 0.42, 0.04, made, source))
    assert (
        says in {tell(better.says) for better in certainty(design).better}
        and says.removeprefix("weigh the ") in advice.advise(design, NOTHING, BENCH).says
    )
