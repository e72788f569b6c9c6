"""Timed rises and sinks against a numerical fall, there and back."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp

from lamsik.core.tank import evaluate
from lamsik.core.tank.drops import (
    Drop,
    Moving,
    added_mass_kg,
    drag_from,
    moving,
    net_from,
    time_s,
    together,
)
from lamsik.core.tank.motion import speed_cm_s
from tests.bodies import bait, straight

BODY = Moving(0.025, 1.2e-3, 999.5)


def test_the_way_is_that_of_a_numerical_fall():
    force, k = 0.004, BODY.k(0.9)
    found = solve_ivp(
        lambda _t, y: [y[1], (force - k * y[1] ** 2) / BODY.mass_kg],
        (0, 6),
        [0, 0],
        t_eval=[0.5, 2, 6],
        rtol=1e-9,
        atol=1e-12,
    )
    for seconds, way in zip(found.t, found.y[0], strict=True):
        assert time_s(way, force, k, BODY.mass_kg) == pytest.approx(seconds, rel=1e-6)


@settings(max_examples=60)
@given(st.floats(0.02, 20.0), st.floats(0.2, 3.0), st.floats(0.1, 4.0))
def test_net_and_drag_come_back_from_the_time_they_make(net, drag, way):
    seconds = time_s(way, net / 1000 * 9.80665, BODY.k(drag), BODY.mass_kg)
    if 0.1 < seconds < 600:
        assert net_from(Drop(way, seconds), BODY, drag) == pytest.approx(net, rel=1e-6)
        free = (2 * way * BODY.mass_kg / (net / 1000 * 9.80665)) ** 0.5
        if seconds > 1.1 * free:  # close to free acceleration the drag hardly shows
            assert drag_from(Drop(way, seconds), BODY, net) == pytest.approx(drag, rel=1e-3)


def test_after_a_long_way_it_is_the_terminal_speed():
    speed = speed_cm_s(0.4, BODY.area_m2 * 1e6, BODY.rho_kg_m3 / 1000, 0.9)
    assert 20 / time_s(20.0, 0.4e-3 * 9.80665, BODY.k(0.9), BODY.mass_kg) * 100 == pytest.approx(
        speed, rel=0.02
    )


def test_a_cylinder_drags_its_own_volume_of_water_along():
    body = straight(100, 8, 8)
    assert added_mass_kg(bait(body=body), 1.0) == pytest.approx(np.pi * 8**2 * 100 * 1e-6, rel=1e-4)


def test_a_design_moves_with_its_mass_and_the_water():
    outcome = evaluate.drag(bait())
    found = moving(bait(), outcome.budget.mass_g, outcome.frontal_mm2)
    assert found.mass_kg > outcome.budget.mass_g / 1000 and found.rho_kg_m3 == pytest.approx(999.5, abs=0.1)


def test_a_run_that_stands_out_is_left_out_and_named():
    drops = [Drop(0.5, t) for t in (5.0, 5.1, 4.9, 9.0)]
    found = together([1.0, 0.98, 1.03, 0.3], drops)
    assert (
        found.odd == (3,)
        and found.value == pytest.approx(1.003, abs=0.001)
        and found.speed_cm_s == pytest.approx(10, abs=0.1)
    )
    assert together([1.0], drops[:1]).sd == 0 and together([1.0, 2.0], drops[:2]).odd == ()
