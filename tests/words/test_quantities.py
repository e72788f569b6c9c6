"""Figures as they are said."""

import pytest

from lamsik.core.units import STORED, parse
from lamsik.words.quantities import DIGITS, said


@pytest.mark.parametrize(
    ("asked", "text"),
    [
        ((12.46, "length"), "12.5 mm"),
        ((89.7, "length", "in"), "3 17/32 in"),
        ((-0.424, "mass", "in"), "−0.42 g"),  # the unit of lengths is no unit of masses
        ((-0.001, "mass"), "0.00 g"),
        ((7.0, "number", "", 0), "7"),
        ((35.2, "thickness"), "35 µm"),
        ((-8.04, "angle"), "−8.0°"),
    ],
)
def test_a_figure_is_said_with_its_unit_and_digits(asked, text):
    assert said(*asked) == text


@pytest.mark.parametrize("quantity", DIGITS)
def test_what_is_said_is_read_back(quantity):
    assert set(DIGITS) == set(STORED)
    off = abs(parse(said(3.137, quantity), quantity, "figure").value - 3.137)
    assert off <= 0.5 * 10 ** -DIGITS[quantity] + 1e-9
