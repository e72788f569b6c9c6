"""Costs, prices and what the hour earns: closed forms and properties."""

from datetime import date
from fractions import Fraction
from math import ceil

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core.stock import costs
from lamsik.core.stock.costs import Costing, Terms
from lamsik.core.stock.year import Earned, Sale, by, by_month
from tests.refusing import refusing

SUMS = st.integers(0, 10**7)
TERMS = st.builds(Terms, st.floats(0, 20), SUMS, st.floats(0, 30), SUMS)
PARTS = st.lists(
    st.builds(
        costs.CostPart,
        st.sampled_from([costs.MATERIALS, costs.TOOLS, costs.PACKING]),
        st.just("x"),
        st.fractions(0, 10**6, max_denominator=1000),
    ),
    max_size=8,
)
COSTINGS = st.builds(Costing, PARTS.map(tuple), st.floats(0.01, 100), TERMS)


def test_a_pack_of_n_costs_price_over_n_each_and_loss_comes_on_top():
    assert costs.material("hooks", 3, 950, 25).minor == Fraction(3 * 950, 25)
    assert costs.material("resin", 40.0, 2400, 1000.0, 0.1).minor == Fraction(44 * 2400, 1000)
    assert costs.shared("mould", 6000, 80).minor == 75


def test_the_hour_earns_what_is_left_over_hands_and_the_price_is_that_the_other_way():
    piece = Costing((costs.material("all", 1, 640, 1),), 1.5, Terms(2.0, 30, 25.0, 10))
    # 50.00: 40.00 net of tax, 1.30 of fees, 0.10 duty, 6.40 of parts: 32.20 for an hour and a half
    assert piece.hourly(5000) == Fraction(3220, 1) / Fraction(3, 2)
    assert piece.goes(5000) == {
        "materials": 640,
        "hours": 3220,
        "tools": 0,
        "packing": 0,
        "shipping": 0,
        "fees": 130,
        "tax": 1010,
    }
    assert piece.price(2147) == ceil(Fraction(2147 * 3, 2) / Fraction(78, 100) + Fraction(680 * 100, 78))
    assert Costing((), 0.0).hourly(100) is None
    assert (piece.left(5000), piece.left(15000, 3)) == (3220, 3 * 3220)


@given(COSTINGS, st.integers(0, 10**6))
def test_a_price_for_the_wanted_pay_pays_it_and_a_unit_less_does_not(piece, wanted):
    price = piece.price(wanted)
    assert piece.hourly(price) >= wanted > piece.hourly(price - 1)


@given(COSTINGS, st.integers(0, 10**7))
def test_where_a_price_goes_sums_to_it_to_the_last_unit(piece, price):
    goes = piece.goes(price)
    assert sum(goes.values()) == price and set(goes) == set(costs.SHARES)


@given(st.lists(st.fractions(-1000, 1000, max_denominator=97), min_size=1, max_size=9))
def test_rounded_parts_have_the_rounded_sum_and_none_is_off_by_a_whole_unit(parts):
    rounded = costs.whole(parts)
    assert sum(rounded) == round(sum(parts))
    assert all(abs(a - b) <= 1 for a, b in zip(rounded, parts, strict=True))


@given(st.tuples(st.floats(10, 300), SUMS), st.tuples(st.floats(10, 300), SUMS))
def test_a_family_costs_at_its_two_known_sizes_what_they_cost(one, other):
    if abs(one[0] - other[0]) < 1:
        return
    family = costs.by_length(one, other)
    assert abs(family.at(one[0]) - one[1]) <= 1 and abs(family.at(other[0]) - other[1]) <= 1
    middle = (one[0] + other[0]) / 2
    assert family.at(middle) == pytest.approx((one[1] + other[1]) / 2, abs=abs(one[1] - other[1]) * 2e-3 + 1)


def test_a_mould_pays_after_as_many_pieces_as_it_saves_and_one_that_saves_nothing_never():
    paid = costs.breaks_even(12_000, 1.0, 0.25, 2000, 150, 210)
    assert (paid.pieces, paid.saved_minor, paid.freed_h) == (ceil(12_000 / 1440), 1440, 0.75)
    assert costs.breaks_even(100, 0.5, 0.5, 2000).pieces is None
    assert costs.breaks_even(0, 1.0, 0.5, 2000).pieces == 0


@pytest.mark.parametrize(
    ("call", "says"),
    [
        (lambda: costs.material("x", 1, 100, 0.0), "how much is in a pack"),
        (lambda: costs.shared("x", 100, 0), "one use at least"),
        (lambda: Terms(fee_percent=80.0, tax_percent=90.0), "of this nothing is left"),
        (lambda: Terms(fee_minor=-1), "a sum, not below nothing"),
        (lambda: costs.by_length((90.0, 1), (90.0, 2)), "two sizes of different lengths"),
        (lambda: costs.breaks_even(1, -1.0, 0.0, 1), "0 to 10000 h"),
    ],
)
def test_what_cannot_be_reckoned_is_refused(call, says):
    with refusing(says):
        call()


def test_sales_of_a_sort_are_summed_and_the_hour_is_over_all_their_hands():
    row = ("A1", "Perch", "made")
    sales = [
        Sale(date(2026, 3, 1), row[0], "Runner", *row[1:], 2, 5000, Fraction(3000), 1.5),
        Sale(date(2026, 3, 9), "A2", "Mudlark", *row[1:], 1, 9000, Fraction(8000), 0.0),
        Sale(date(2026, 7, 2), "A3", "Runner", *row[1:], 3, 7000, Fraction(1500), 3.0),
    ]
    runner = Earned("Runner", 5, 12000, Fraction(1000))
    assert by(sales, lambda one: one.body) == [runner, Earned("Mudlark", 1, 9000, None)]
    assert by_month(sales) == (0, 0, 14000, 0, 0, 0, 7000, 0, 0, 0, 0, 0)
