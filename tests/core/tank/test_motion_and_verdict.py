"""Speed, behaviour and the sentence."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core.shapes.design import Want
from lamsik.core.shapes.hardware import Item, Placement
from lamsik.core.tank import evaluate
from lamsik.core.tank.attitude import Attitude
from lamsik.core.tank.ballast import search, with_answer
from lamsik.core.tank.motion import (
    DEFAULT_DRAG,
    Bands,
    behaviour,
    frontal_area_mm2,
    net_for_speed_g,
    speed_cm_s,
    window_cm_s,
)
from lamsik.core.tank.verdict import Front, verdict
from lamsik.core.trade.behaviours import BEHAVIOURS
from lamsik.core.water import Water
from lamsik.words.verdict import posture, sentence
from tests.bodies import BENCH, bait, ellipsoid


def test_speed_of_a_known_case():
    # 0.05 g on 1200 mm² at C_d 1 in fresh water: √(2·5e-5·9.80665/(1000·1.2e-3)) = 2.86 cm/s
    assert speed_cm_s(0.05, 1200, 1.0, 1.0) == pytest.approx(2.8588, abs=1e-3)
    assert speed_cm_s(-0.05, 1200, 1.0, 1.0) == pytest.approx(-2.8588, abs=1e-3)


@given(st.floats(-40, 40), st.floats(100, 5000), st.floats(0.99, 1.03))
def test_net_and_speed_are_inverse(speed, area, rho):
    assert speed_cm_s(net_for_speed_g(speed, area, rho), area, rho) == pytest.approx(speed, abs=1e-6)


@pytest.mark.parametrize(
    ("speed", "name"),
    [
        (25, "floats"),
        (9.9, "slow rise"),
        (2.9, "suspends"),
        (0, "suspends"),
        (-2.9, "suspends"),
        (-5, "slow sink"),
        (-10, "sinks"),
    ],
)
def test_behaviour_by_speed(speed, name):
    assert behaviour(speed) == name
    low, high = window_cm_s(name)
    assert low <= speed <= high


def test_the_shops_own_thresholds_count():
    assert behaviour(4, Bands(5, 12)) == "suspends"


def test_every_behaviour_has_a_typical_speed_inside_its_window():
    for name in BEHAVIOURS:
        low, high = window_cm_s(name)
        assert low <= BEHAVIOURS[name].speed_cm_s <= high


def test_frontal_area_is_the_plan_of_an_ellipsoid():
    body = ellipsoid(90, 14, 20)
    assert frontal_area_mm2(body, Attitude(0, 0).up) == pytest.approx(np.pi * 45 * 7, rel=0.01)
    assert frontal_area_mm2(body, Attitude(90, 0).up) == pytest.approx(np.pi * 7 * 10, rel=0.01)


POSTURES = [
    (Attitude(0.5, 0), "level"),
    (Attitude(-12, 0), "12° nose down"),
    (Attitude(8, 2), "8° nose up"),
    (Attitude(80, 0), "tail down"),
    (Attitude(-75, 0), "nose down"),
    (Attitude(0, 178), "upside down"),
    (Attitude(0, 85), "on its side"),
    (Attitude(0, 30), "leaning 30°"),
]


@pytest.mark.parametrize(("attitude", "words"), POSTURES)
def test_posture_in_words(attitude, words):
    assert posture(attitude) == words


def at(grams, **changes):
    return evaluate.settle(bait(ballast=(replace(bait().ballast[0], mass_g=grams),), **changes))


def test_the_sentence_follows_the_ballast():
    said = [at(g).verdict for g in (1.0, 4.0, 5.0)]
    assert said[0].behaviour == "floats" and "mm above the water" in sentence(said[0])
    assert said[2].behaviour == "sinks" and said[2].to_next_g is None
    assert all("in 12 °C fresh water" in sentence(v) for v in said)


@pytest.mark.parametrize("net", [1.2, 0.2, 0.0, -0.15])
def test_the_grams_to_the_next_behaviour_bring_it(net):
    water, free = Water(), Attitude(0.0, 0.0)
    light = verdict(net, 12.0, Front(900.0, DEFAULT_DRAG), water, free, None, Bands())
    heavier = verdict(
        net - light.to_next_g * 1.0001 - 1e-6, 12.0, Front(900.0, DEFAULT_DRAG), water, free, None, Bands()
    )
    assert heavier.behaviour == light.next_behaviour
    assert f"{light.to_next_g:.2f} g more and it would" in sentence(light)


def test_the_band_of_suspending_is_a_few_hundredths_of_a_gram():
    design = bait(want=Want("suspends", 0.0, 0.0))
    found = evaluate.settle(with_answer(design, search(design, BENCH)[0])).verdict
    assert found.behaviour == "suspends"
    assert 0.02 < found.band_g < 0.2


def test_salinity_multiplies_displaced_water_not_net_lift():
    fresh, sea = at(3.0), at(3.0, water=Water("sea water", 12.0, 35.0))
    gain = sea.verdict.net_g - fresh.verdict.net_g
    assert gain == pytest.approx(
        fresh.budget.displaced_ml * (sea.design.water.density_g_cm3 - fresh.design.water.density_g_cm3)
    )
    assert sea.budget.mass_g == pytest.approx(fresh.budget.mass_g)


def test_quick_and_settled_say_which_they_are_and_agree():
    quick = evaluate.drag(bait())
    near = evaluate.Near(quick.surface[0].attitude, quick.surface[0].draft_mm)
    warm, settled = evaluate.drag(bait(), near=near), evaluate.settle(bait())
    assert (quick.settled, settled.settled) == (False, True)
    assert sentence(quick.verdict) == sentence(settled.verdict) == sentence(warm.verdict)


def test_top_heavy_turns_over():
    tall = bait(
        ballast=(),
        hardware=(
            *bait().hardware,
            Placement("top", Item("w", "weight", "eyes", 3.0, 11.34, 0.0, 4.0), "back", 40.0),
        ),
    )
    assert abs(evaluate.settle(tall).hanging.free.roll_deg) > 90
    assert evaluate.settle(tall).turns_over
    assert not evaluate.settle(bait()).turns_over


def test_a_design_without_a_tie_is_not_held():
    assert evaluate.settle(bait(hardware=())).hanging.held is None
    assert evaluate.line_tie(bait())[0] == -3.0
