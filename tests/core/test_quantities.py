"""Figures as they are said, in whichever units a shop has chosen."""

from dataclasses import replace
from datetime import time

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core.errors import Refused
from lamsik.core.quantities import (
    IMPERIAL,
    INCHES,
    METRIC,
    OFFERED,
    QUANTITIES,
    UNSAID,
    UnitChoice,
    as_typed,
    choice_of,
    chosen,
    code_of,
    coded,
    give_or_take,
    kept_as_said,
    numeral,
    plain_numeral,
    plainly,
    read_measure,
    read_planned,
    resaid,
    said,
    saying,
    stands,
    sure,
    sure_digits,
    time_of_day,
    unit_of,
)
from lamsik.core.units import CHOICES, STORED

SIXTEENTHS, DECIMALS = replace(INCHES, inch=16), replace(INCHES, inch=0)


@pytest.mark.parametrize(
    ("choice", "asked", "text"),
    [
        (METRIC, (12.46, "length"), "12.5 mm"),
        (METRIC, (-0.424, "mass"), "−0.42 g"),
        (METRIC, (-0.001, "mass"), "0.00 g"),
        (METRIC, (0.42, "mass", 2, True), "+0.42 g"),
        (METRIC, (0.001, "mass", 2, True), "0.00 g"),
        (METRIC, (7.0, "number", 0), "7"),
        (METRIC, (35.2, "thickness"), "35 µm"),
        (METRIC, (-8.04, "angle"), "−8.0°"),
        (replace(METRIC, decimal=","), (1234.5, "length"), "1234,5 mm"),
        (INCHES, (89.7, "length"), "3 17/32 in"),
        (SIXTEENTHS, (89.0, "length"), "3 1/2 in"),
        (DECIMALS, (89.7, "length"), "3.53 in"),
        (INCHES, (0.8, "length"), "1/32 in"),  # a small length on a mark
        (INCHES, (3.0, "length"), "0.118 in"),  # and one between two
        (INCHES, (0.5, "length", 2), "0.020 in"),
        (INCHES, (-0.4, "length", 1, True), "−0.02 in"),
        (INCHES, (12.3, "mass", 1), "0.434 oz"),
        (INCHES, (0.01, "mass"), "0.0004 oz"),
        (replace(INCHES, mass="grain"), (0.42, "mass"), "6.5 grain"),
        (INCHES, (29.5735, "volume"), "1.0000 fl oz"),
        (replace(INCHES, volume="in³"), (16.387064, "volume", 0), "1.0 in³"),
        (INCHES, (20.0, "temperature", 0), "68 °F"),
        (INCHES, (10.0, "warming"), "18 °F"),  # a difference has no zero to shift
        (INCHES, (2.54, "speed"), "1.0 in/s"),
        (INCHES, (3.048, "distance"), "10.0 ft"),
        (replace(INCHES, pace="knots"), (1852 / 3600, "pace"), "1.0 knots"),
        (INCHES, (25.4, "thickness"), "1.0 mil"),
        (INCHES, (1.0, "density"), "62.4 lb/ft³"),
        (INCHES, (6.4516, "area"), "1.00 in²"),
        (INCHES, (35.0, "angle", 0), "35°"),
        (INCHES, (2.4, "frequency"), "2.4 Hz"),
    ],
)
def test_a_figure_is_said_in_the_units_chosen_with_the_digits_that_are_sure(choice, asked, text):
    with saying(choice):
        assert said(*asked) == text
    assert chosen() == METRIC


@pytest.mark.parametrize(
    ("choice", "asked", "text"),
    [
        (METRIC, (3.0, "length"), "3 mm"),
        (METRIC, (1.0, "angle"), "1°"),
        (INCHES, (2.38125, "length"), "3/32 in"),
        (INCHES, (3.0, "length"), "0.118 in"),
        (INCHES, (12.0, "temperature"), "54 °F"),
        (INCHES, (12.5, "temperature"), "54.5 °F"),
        (INCHES, (-1.0, "temperature"), "30 °F"),
        (INCHES, (15.0, "minutes"), "15 min"),
        (INCHES, (8.0, "mass"), "0.2822 oz"),
    ],
)
def test_a_figure_is_said_as_short_as_it_is(choice, asked, text):
    with saying(choice):
        assert plainly(*asked) == text


def test_measures_side_by_side_share_their_unit():
    with saying(INCHES):
        sizes = " × ".join(numeral(mm, "length") for mm in (107.95, 28.575, 22.225))
        assert f"{sizes} {unit_of('length')}" == "4 1/4 × 1 1/8 × 7/8 in"


CHOICE = st.builds(UnitChoice, **{name: st.sampled_from(values) for name, values in OFFERED.items()})
READ_BACK = sorted(set(QUANTITIES) & set(CHOICES) - {"number"})


@given(CHOICE, st.sampled_from(READ_BACK), st.floats(0.5, 900.0))
def test_what_is_said_is_read_back_to_its_last_digit(choice, quantity, value):
    with saying(METRIC):
        step = 10.0 ** -QUANTITIES[quantity].digits
    with saying(choice):
        off = abs(read_measure(said(value, quantity), quantity, "figure") - value)
    coarse = 25.4 / choice.inch if choice.length == "in" and choice.inch and quantity == "length" else 0.0
    assert off <= max(0.5 * 2.6 * step, 0.5 * coarse) * (1 + 1e-6)


@given(CHOICE, st.sampled_from(READ_BACK), st.floats(0.5, 900.0))
def test_a_bare_number_means_what_its_field_shows(choice, quantity, value):
    number = f"{value:.3f}"
    with saying(choice):
        if quantity == "temperature":
            with pytest.raises(Refused, match="unit is missing"):
                read_measure(number, quantity, "figure")
        else:
            whole = as_typed(number, quantity)
            assert read_measure(number, quantity, "figure") == read_measure(whole, quantity, "figure")
            assert whole.endswith(unit_of(quantity)) and as_typed(whole, quantity) == whole


@given(CHOICE)
def test_a_choice_is_carried_along_as_a_short_text(choice):
    assert coded(code_of(choice)) == choice


@pytest.mark.parametrize("code", ["", "0", "9" * 11, "x" * 11, "٠" * 11, "0" * 13, "9" * 12])
def test_what_is_no_choice_chooses_nothing(code):
    assert coded(code) is None


def test_a_choice_kept_by_an_older_shop_is_filled_in_and_nonsense_left_out():
    assert choice_of({"length": "in", "mass": "stone", "typed": {}}) == replace(METRIC, length="in")


@pytest.mark.parametrize("quantity", QUANTITIES)
def test_every_quantity_has_one_stored_unit(quantity):
    assert STORED.get(quantity, QUANTITIES[quantity].stored) == QUANTITIES[quantity].stored


@pytest.mark.parametrize("choice", [METRIC, INCHES])
def test_a_text_that_is_kept_says_its_figures_when_it_is_shown(choice):
    def sentence():
        sizes = f"{numeral(90.0, 'length')} × {said(20.0, 'length', 0)}, {plain_numeral(2.0, 'mass')}"
        return (
            f"{sizes} {unit_of('mass')}, {said(-0.4, 'mass', 1, sign=True)}, {plainly(54.0, 'temperature')}"
        )

    with saying(UNSAID):
        kept = sentence()
    with saying(choice):
        assert resaid(kept) == sentence() != kept
        assert resaid("3 < 4 | as typed") == "3 < 4 | as typed"


def test_what_holds_words_is_kept_for_the_units_it_was_said_in():
    asked = []

    @kept_as_said(4)
    def says(mm):
        asked.append(mm)
        return said(mm, "length")

    with saying(INCHES):
        assert [says(25.4), says(25.4)] == ["1 in"] * 2
    assert [says(25.4), says(25.4)] == ["25.4 mm"] * 2 and asked == [25.4, 25.4]


@pytest.mark.parametrize(
    ("hour", "of_24", "of_12"),
    [
        (time(0, 5), "00:05", "12:05 am"),
        (time(12, 0), "12:00", "12:00 pm"),
        (time(16, 5), "16:05", "4:05 pm"),
        (time(11, 59), "11:59", "11:59 am"),
    ],
)
def test_an_hour_is_said_by_the_clock_chosen(hour, of_24, of_12):
    assert time_of_day(hour) == of_24
    with saying(replace(METRIC, clock="12 h")):
        assert time_of_day(hour) == of_12


@pytest.mark.parametrize(
    ("quantity", "sd", "digits"),
    [
        ("mass", 0.0, 2),
        ("mass", float("inf"), 2),
        ("mass", 0.004, 2),
        ("mass", 0.07, 2),
        ("mass", 0.13, 2),
        ("mass", 0.19, 2),
        ("mass", 0.2, 1),
        ("mass", 1.3, 1),
        ("mass", 24.0, 1),
        ("density", 0.04, 2),
        ("thickness", 30.0, 0),
    ],
)
def test_a_figure_has_as_many_digits_as_it_is_sure(quantity, sd, digits):
    assert sure_digits(quantity, sd) == digits


@given(st.floats(0.0, 500.0), st.floats(1e-4, 100.0))
def test_rounding_hides_no_more_than_the_doubt(value, sd):
    shown = float(sure(value, "mass", sd).removesuffix(" g"))
    assert abs(shown - value) <= max(sd / 2, 0.0051)


def test_the_doubt_has_the_digits_of_its_figure_in_any_unit():
    assert (sure(12.345, "mass", 0.31), give_or_take("mass", 0.31, 2.0)) == ("12.3 g", "±\u00a00.6 g")
    with saying(INCHES):
        figure, doubt = sure(12.345, "mass", 0.31), give_or_take("mass", 0.31)
    assert len(figure.split(" ")[0].split(".")[1]) == len(doubt.split(" ")[0].split(".")[1])


@pytest.mark.parametrize(
    ("typed", "us_ml", "us_said", "imperial_ml", "imperial_said"),
    [  # 1 US gallon is 231 in³, 1 imperial gallon 4.54609 l; a pint is an eighth of each
        ("1 pint", 473.176473, "1 US pint", 568.26125, "1 imp pint"),
        ("2 cups", 473.176473, "2 US cups", 568.26125, "2 imp cups"),
        ("1/2 pt", 236.588236, "1/2 US pt", 284.130625, "1/2 imp pt"),
        ("3 fl oz", 88.720589, "3 US fl oz", 85.239188, "3 imp fl oz"),
        ("1 imp. pint", 568.26125, "1 imp. pint", 568.26125, "1 imp. pint"),
        ("1 US pint", 473.176473, "1 US pint", 473.176473, "1 US pint"),
        ("2 UK pints", 1136.5225, "2 UK pints", 1136.5225, "2 UK pints"),
        ("12 ml", 12.0, "12 ml", 12.0, "12 ml"),
    ],
)
def test_a_pint_is_the_shops_and_says_whose(typed, us_ml, us_said, imperial_ml, imperial_said):
    assert read_measure(typed, "volume", "x") == pytest.approx(us_ml)
    assert as_typed(typed, "volume") == us_said and stands(us_said, us_ml, "volume")
    with saying(UnitChoice(volume=IMPERIAL)):
        assert read_measure(typed, "volume", "x") == pytest.approx(imperial_ml)
        assert as_typed(typed, "volume") == imperial_said and said(28.4130625, "volume") == "1.0000 imp fl oz"


def test_a_refusal_tells_what_was_typed_and_not_what_was_read_into_it():
    with pytest.raises(Refused) as refused:
        read_measure(" 1 pint 3 ", "volume", "x")
    assert refused.value.given == "1 pint 3"


def test_a_shop_of_us_ounces_is_not_told_whose_they_are():
    with saying(INCHES):
        assert (as_typed("3 fl oz", "volume"), as_typed("1 pint", "volume")) == ("3 fl oz", "1 US pint")
        assert read_measure("3 fl oz", "volume", "x") == pytest.approx(88.720589)


def test_a_volume_alone_is_asked_for_in_the_shops_own_ounces():
    with saying(UnitChoice(volume=IMPERIAL)), pytest.raises(Refused) as refused:
        read_planned("8", "volume", "x")
    assert dict(refused.value.allowed.values)["readings"] == ("8 ml", "8 imp fl oz")
