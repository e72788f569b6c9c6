"""When an order can be ready: hands within hours, coats and cures through nights and weekends."""

from datetime import datetime, time, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core.orders.promise import ready, worked
from lamsik.core.paints.roles import CLEARS
from lamsik.core.route.steps import steps
from lamsik.core.route.workdays import Workdays
from lamsik.core.tank.sensitivities import with_clear_coats
from tests.bodies import bait
from tests.refusing import refusing

MONDAY = datetime(2030, 1, 7, 9, 0)
DAYS = Workdays(begins=time(9), ends=time(17))
ALWAYS = Workdays(after_hours=True)


def test_work_goes_on_the_next_day_and_not_on_sunday():
    assert worked(DAYS, MONDAY, 60) == datetime(2030, 1, 7, 10)
    assert worked(DAYS, MONDAY, 9 * 60) == datetime(2030, 1, 8, 10)
    friday = datetime(2030, 1, 11, 16)
    assert worked(DAYS, friday, 120) == datetime(2030, 1, 14, 10)
    assert worked(DAYS, datetime(2030, 1, 12, 3), 0) == datetime(2030, 1, 12, 3)
    assert worked(DAYS, datetime(2030, 1, 12, 3), 1) == datetime(2030, 1, 14, 9, 1)
    with refusing("less than two years of work: look through what is promised"):
        worked(DAYS, MONDAY, 60 * 24 * 365 * 4)


@given(st.floats(1, 5000), st.floats(1, 5000), st.integers(0, 24 * 14))
def test_work_is_the_same_in_one_go_or_in_two(first, second, hours):
    at = MONDAY + timedelta(hours=hours)
    whole = worked(DAYS, at, first + second)
    assert abs(worked(DAYS, worked(DAYS, at, first), second) - whole) < timedelta(seconds=1)
    assert whole - at >= timedelta(minutes=first + second) - timedelta(seconds=1)


def test_four_clear_coats_where_two_were_asked_move_a_promise_by_two_recoats():
    two, four = (with_clear_coats(bait(), count) for count in (2, 4))
    recoat = next(layer for layer in two.layers if layer.does == CLEARS).wait_h
    before, after = (ready([(steps(one), 3)], 0.0, ALWAYS, MONDAY) for one in (two, four))
    assert after.waits_h - before.waits_h == pytest.approx(2 * recoat)
    hands = timedelta(minutes=after.hands_min - before.hands_min)
    assert after.at - before.at == timedelta(hours=2 * recoat) + hands and recoat >= 1


def test_what_was_promised_before_comes_first_and_lines_share_the_waits():
    route = steps(with_clear_coats(bait(), 2))
    alone, later = (ready([(route, 2)], before, ALWAYS, MONDAY) for before in (0.0, 600.0))
    assert later.at - alone.at == timedelta(minutes=600) and later.before_min == 600
    both = ready([(route, 2), (route, 2)], 0.0, ALWAYS, MONDAY)
    assert both.at == alone.at and both.hands_min == pytest.approx(2 * alone.hands_min)
    many = ready([(route, 400)], 0.0, DAYS, MONDAY)
    assert many.at > worked(DAYS, MONDAY, many.hands_min) - timedelta(seconds=1)
    assert ready([], 0.0, DAYS, MONDAY).at == MONDAY
