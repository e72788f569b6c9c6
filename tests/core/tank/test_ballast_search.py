"""The ballast search against trying everything, its cases, what binds, balls that come whole, filler where
it lies.
"""

import json
import re
from dataclasses import replace
from functools import cache, partial
from math import pi
from pathlib import Path

import numpy as np
import pytest
import trimesh
from hypothesis import assume, given
from hypothesis import strategies as st

from lamsik.core.errors import Refused
from lamsik.core.shapes.ballast_holes import Hole, Slug
from lamsik.core.shapes.body import station
from lamsik.core.shapes.design import Host, Want
from lamsik.core.shapes.forms import FORMS
from lamsik.core.tank import evaluate
from lamsik.core.tank.advice import resize
from lamsik.core.tank.ballast import aim_at, judged, search, with_answer, within
from lamsik.core.tank.ballast_base import base_of, load_height_mm, loads_of
from lamsik.core.tank.ballast_why import what_binds
from lamsik.core.tank.drilling import depths_mm, net_added_g, wall_left_mm, walls_left_mm
from lamsik.core.tank.inertia import STEADY_HZ
from lamsik.core.tank.mass import budget
from lamsik.core.tank.motion import DEFAULT_DRAG, Bands
from lamsik.core.tank.moulded import poured_ends
from lamsik.core.tank.refit import refit
from lamsik.core.tank.sensitivities import effects
from lamsik.core.tank.twins import twins
from lamsik.documents.body.document import to_design
from lamsik.documents.body.shape import BODY_SCHEMA
from lamsik.words.tell import tell
from tests.ballast_brute import STOCK, held_against, searched, wants
from tests.bodies import BENCH, LEAD_BALL, LEAD_ROD_6, bait, body_from

CASES = Path(__file__).parent.parent.parent / "cases"
TRIED = cache(partial(wants, 20))


def case(name):
    return to_design(BODY_SCHEMA.checked(json.loads((CASES / name).read_text())))


@pytest.mark.parametrize("number", range(20))
def test_it_is_never_worse_than_trying_everything(number):
    mine, there = searched(TRIED()[number])
    if mine <= 1.0 and there:  # no score is below 0: nothing that is tried can be better by more than 1
        return
    _, _, brute, holes = held_against(TRIED()[number], thin=9)
    assert mine <= brute + 1.0
    assert there or brute > 1.0 or not holes


def test_a_walker_that_only_unequal_holes_apart_hold_level_is_held_level():
    walker = case("walker-119.json")
    answers = search(walker, STOCK)
    first = answers[0]
    assert (
        abs(first.net_error_g) <= 0.05
        and abs(first.pitch_error_deg) <= 2.0
        and len({round(hole.mass_g, 1) for hole in first.holes}) > 1
    )
    afresh = evaluate.drag(with_answer(walker, first))
    assert afresh.verdict.net_g == pytest.approx(
        first.net_g, abs=0.01
    ) and afresh.hanging.free.pitch_deg == pytest.approx(first.pitch_deg, abs=0.1)
    assert all(wall_left_mm(walker.body, hole) >= STOCK.wall_mm - 1e-9 for hole in first.holes)
    known = tuple(
        Hole(f"k{n}", STOCK.slugs[2], mass, x, 8.5)
        for n, (mass, x) in enumerate(((7.0, 90.0), (10.5, 49.0), (10.1, 64.0)))
    )
    known_so = evaluate.drag(replace(walker, ballast=known))
    assert known_so.verdict.net_g == pytest.approx(
        0.03, abs=0.02
    ) and known_so.hanging.free.pitch_deg == pytest.approx(0.5, abs=0.3)


def test_stock_is_mixed_where_only_that_reaches_the_want():
    heavy, light = (
        Slug(f"{metal} ball {size:g}", "ball", metal, density, size)
        for metal, density, size in (("tungsten", 18.0, 6.0), ("lead", 11.34, 3.0))
    )
    design = bait(want=Want("suspends", 0.0, 0.0))
    one_metal = [
        search(design, replace(STOCK, slugs=(slug,), drills_mm=(3.0, 6.0))) for slug in (heavy, light)
    ]
    assert not any(within(answer) for answers in one_metal for answer in answers)
    first = search(design, replace(STOCK, slugs=(heavy, light), drills_mm=(3.0, 6.0)))[0]
    assert (
        within(first)
        and {hole.slug.metal for hole in first.holes} == {"tungsten", "lead"}
        and "tungsten ball 6" in first.says
        and "lead ball 3" in first.says
    )
    assert evaluate.drag(with_answer(design, first)).verdict.net_g == pytest.approx(first.net_g, abs=0.01)


@given(
    form=st.sampled_from(["slim", "stubby", "deepflank", "popper", "glider"]),
    share=st.floats(0.03, 0.97),
    drill=st.floats(3.0, 9.0),
    wall=st.floats(0.5, 4.0),
    beside=st.one_of(st.just(0.0), st.floats(2.0, 8.0)),
    depth=st.floats(0.2, 30.0),
)
def test_the_depths_that_hold_are_those_that_leave_the_wall(form, share, drill, wall, beside, depth):
    body = body_from(FORMS[form], 90.0, 24.0, 20.0)
    x = np.array([share * body.length_mm])
    least, most = (float(row[0]) for row in depths_mm(body, x, drill, wall, beside))
    left = float(walls_left_mm(body, x, depth, drill, beside)[0])
    assume(min(abs(depth - least), abs(depth - most), abs(left - wall)) > 1e-6)
    assert (least <= depth <= most) == (left >= wall)


def test_the_answers_shown_are_the_best_of_each_kind():
    answers = search(bait(), STOCK)
    tags = {tag: answer for answer in answers for tag in answer.tags}
    assert {
        "nearest",
        "one hole",
        "two holes",
        "three holes",
        "least metal",
        "lowest",
        "most wall",
        "pair of holes",
    } == set(tags)
    good = [answer for answer in answers if within(answer)]
    assert tags["nearest"].miss == min(a.miss for a in answers) and tags["least metal"].mass_g == min(
        a.mass_g for a in good
    )
    assert tags["lowest"].height_mm == min(a.height_mm for a in good) and tags["most wall"].wall_mm == max(
        a.wall_mm for a in good
    )
    assert len(tags["one hole"].holes) == 1 and len(tags["three holes"].holes) >= 3
    pair = next(hole for hole in tags["pair of holes"].holes if hole.count > 1)
    assert (
        pair.beside_mm >= (pair.drill_mm + STOCK.wall_mm) / 2 and "to each side" in tags["pair of holes"].says
    )


@pytest.mark.parametrize(
    ("changes", "bench", "what", "says"),
    [
        ({"host": Host("maple", 0.98, 0.04)}, STOCK, "mass", "too heavy"),
        (
            {"want": Want("suspends", 0.0, 0.0)},
            replace(STOCK, wall_mm=5.0),
            "wall",
            "instead of 5 mm would do",
        ),
        (
            {"want": Want("suspends", 0.0, 0.0)},
            replace(STOCK, slugs=(Slug("tin rod 3 mm", "rod", "tin", 7.3, 3.0),), drills_mm=(3.0,)),
            "mass",
            "enser metal would do",
        ),
    ],
)
def test_what_binds_is_said_with_what_would_free_it(changes, bench, what, says):
    found = what_binds(bait(**changes), bench)
    assert found.what == what and says in found.says


def test_the_lighter_body_that_is_named_does_free_it():
    popper = case("popper-crash.json")
    found = what_binds(popper, STOCK)
    density = float(re.search(r"lighter body would do: (\d\.\d\d) g/cm³", tell(found.says))[1])
    assert found.what == "mass" and not any(within(answer) for answer in search(popper, STOCK))
    freed = search(replace(popper, host=replace(popper.host, density_g_cm3=density)), STOCK)
    assert any(within(answer) and answer.holes for answer in freed)


class TestPouredEnds:
    def test_a_flat_nosed_casting_is_solved_on_its_true_interval(self):
        popper = case("popper-crash.json")
        assert search(popper, STOCK)  # it had no sign change and crashed

    @pytest.mark.parametrize("density", np.arange(0.80, 0.92, 0.02))
    def test_light_or_heavy_it_is_offered_or_not_but_never_crashes(self, density):
        popper = replace(
            case("popper-crash.json"), host=Host("filled urethane", float(density), 0.03, "cast")
        )
        base = base_of(popper)
        net = 0.3
        for pour in poured_ends(base, net, STOCK):
            assert pour.to_mm - pour.from_mm >= 0.3
            made = replace(base.design, pours=(pour,))
            lift = popper.water.density_g_cm3 * budget(made).displaced_ml - budget(made).mass_g
            assert lift == pytest.approx(net, abs=0.6)  # a tenth of a millimetre of a broad face
        search(popper, STOCK)


class TestBalls:
    def test_mass_and_number_agree_or_are_refused(self):
        each = LEAD_BALL.ball_g
        for n in (1, 2, 5):
            assert Hole("b", LEAD_BALL, n * each, 30.0, 7.0).depth_mm == pytest.approx(n * 7.0 + 2.0)
        assert Hole("b", LEAD_BALL, round(3 * each, 2), 30.0, 7.0).depth_mm == pytest.approx(23.0)
        for wrong in (0.5 * each, 1.5 * each, 2.45 * each):
            with pytest.raises(Refused, match="balls come whole"):
                Hole("b", LEAD_BALL, wrong, 30.0, 7.0)

    @pytest.mark.parametrize("stock", [(LEAD_BALL,), (LEAD_ROD_6, LEAD_BALL)])
    @pytest.mark.parametrize(
        "change", [{"host": Host("basswood", 0.36, 0.04)}, {"want": Want("slow rise", 9.0, 4.0)}]
    )
    def test_a_bait_with_balls_in_it_is_judged_changed_and_put_right_in_whole_balls(self, stock, change):
        design = bait(
            ballast=tuple(
                Hole(f"b{n}", slug, 2 * LEAD_BALL.ball_g, 25.0 + 25 * n, 7.5) for n, slug in enumerate(stock)
            )
        )
        bench = replace(STOCK, slugs=stock, drills_mm=(7.5,))
        outcome = evaluate.settle(replace(design, **change))
        named = {effect.key: effect.name for effect in effects(outcome.design)}
        assert tell(named["gram"]) == (
            "A ball more: " + LEAD_BALL.name if len(stock) == 1 else "1 g more ballast"
        )
        base, aim = aim_at(outcome.design, base_of(outcome.design), DEFAULT_DRAG, Bands(), STEADY_HZ)
        resized = resize(outcome.design, base, bench, aim)
        assert resized is not None and [hole.slug for hole in resized.ballast] == list(stock)
        was, now = (judged(base, of.ballast, aim, bench) for of in (outcome.design, resized))
        assert now.miss < was.miss and abs(now.net_error_g) < LEAD_BALL.ball_g
        if len(stock) == 2:
            assert abs(now.net_error_g) <= 0.06  # what the balls cannot give is cut from the rod
        assert refit(outcome, bench).says and twins(outcome.design)


class TestFiller:
    @pytest.mark.parametrize(
        ("slug", "mass", "drill", "cover"),
        [(LEAD_ROD_6, 4.2, 6.0, 2.0), (LEAD_ROD_6, 4.2, 8.5, 2.0), (LEAD_ROD_6, 1.0, 7.0, 9.0)],
    )
    def test_it_lies_round_and_under_the_slug_as_a_solid_says(self, slug, mass, drill, cover):
        hole = Hole("b", slug, mass, 30.0, drill, cover)
        tall = slug.length_mm(mass)
        bore = trimesh.creation.cylinder(drill / 2, cover + tall, sections=512)
        bore.apply_translation([0, 0, (cover + tall) / 2])
        metal = trimesh.creation.cylinder(slug.diameter_mm / 2, tall, sections=512)
        metal.apply_translation([0, 0, cover + tall / 2])
        volume = bore.volume - metal.volume
        middle = (bore.volume * bore.center_mass[2] - metal.volume * metal.center_mass[2]) / volume
        assert hole.filler_g == pytest.approx(
            volume / 1000 * hole.filler_g_cm3, rel=1e-3, abs=1e-4
        ) and hole.filler_height_mm == pytest.approx(middle, abs=1e-3)
        base = base_of(bait())
        moment = (
            mass * (cover + tall / 2)
            + hole.filler_g * middle
            - base.host_g_cm3 * pi * drill**2 / 4 * (cover + tall) ** 2 / 2000
        )
        assert load_height_mm(base, hole) == pytest.approx(
            moment / net_added_g(hole, base.host_g_cm3), abs=1e-3
        )
        g = budget(bait(ballast=(hole,))).g_mm[2]
        loads = loads_of(base, [hole])[0]
        assert g == pytest.approx(
            (base.mass.mass_g * base.mass.g_mm[2] + loads[0] * loads[3]) / (base.mass.mass_g + loads[0]),
            abs=5e-5,
        )
        assert loads[3] == pytest.approx(station(bait().body, 30.0).bottom_mm + moment / loads[0], abs=0.02)

    def test_with_equal_bench_and_slug_the_best_stays_the_best(self):
        assert all(answer.wall_mm >= BENCH.wall_mm - 1e-9 for answer in search(bait(), BENCH))


def test_a_hole_keeps_its_wall_to_a_flat_face():
    body = body_from(FORMS["popper"], 78.0, 20.0, 20.0)
    near, far = (Hole("b", LEAD_ROD_6, 1.0, x, 6.5) for x in (5.0, 12.0))
    assert wall_left_mm(body, near) == pytest.approx(1.75) and wall_left_mm(body, far) > 3.0
