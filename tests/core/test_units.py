"""The grammar of typed measures."""

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core.drills import SIZES_IN
from lamsik.core.errors import Refused, finite_between
from lamsik.core.quantities import QUANTITIES, inch_fraction, said, show
from lamsik.core.units import CHOICES, STORED, convert, parse
from lamsik.words import refusals

READ = [
    ("12,5 mm", "length", 12.5),
    ("1 1/2 in", "length", 38.1),
    ('1-1/2"', "length", 38.1),
    ('5/16"', "length", 7.9375),
    ("½ in", "length", 12.7),
    ("1½ in", "length", 38.1),
    ("1 ½ in", "length", 38.1),
    ("2 lb 3 oz", "mass", 992.2333),
    ("54 °F", "temperature", 12.2222),
    ("54F", "temperature", 12.2222),
    ("12 °C", "temperature", 12.0),
    ("-1 °C", "temperature", -1.0),
    ("−1 °C", "temperature", -1.0),
    ("6 ft 2 in", "length", 1879.6),
    ("65 grains", "mass", 4.2119),
    (".5 g", "mass", 0.5),
    ("0,42 g/cm3", "density", 0.42),
    ("420 kg/m³", "density", 0.42),
    ("30 min", "time", 0.5),
    ("2 d", "time", 48.0),
    ("40 µm", "thickness", 40.0),
    ("6 cm/s", "speed", 6.0),
    ("-4°", "angle", -4.0),
    ("7", "number", 7.0),
]


@pytest.mark.parametrize(("text", "quantity", "value"), READ)
def test_a_measure_is_read_and_its_text_kept(text, quantity, value):
    measure = parse(f" {text} ", quantity)
    assert measure.value == pytest.approx(value, rel=1e-5)
    assert (measure.text, measure.quantity) == (text, quantity)


REFUSED = [
    ("nan", "length"),
    ("inf", "mass"),
    ("9**9**9", "length"),
    ("8 gr", "mass"),
    ("54", "temperature"),
    ("", "length"),
    ("mm", "length"),
    ("12", "length"),
    ("1e5 mm", "length"),
    ("12 g", "length"),
    ("1/0 in", "length"),
    ("1 1/0 in", "length"),
    ("2 lb -3 oz", "mass"),
    ("3 oz 2 lb", "mass"),
    ("5 mm 3 mm", "length"),
    ("--5 mm", "length"),
    ("12 mm;", "length"),
    ("0x10 mm", "length"),
    ("1" * 41, "number"),
    ("12345678901 mm", "length"),
    ("12 mm DROP TABLE", "length"),
    ("१२ mm x", "length"),
    ("1/2/3 in", "length"),
]


@pytest.mark.parametrize(("text", "quantity"), REFUSED)
def test_what_is_no_plain_measure_is_refused_with_what_would_do(text, quantity):
    with pytest.raises(Refused) as refusal:
        parse(text, quantity, "length_mm")
    assert refusal.value.field == "length_mm"
    assert re.search("type|unit|say which", refusals.allowed(refusal.value))


def test_a_bare_number_takes_the_fields_unit_but_never_a_temperature():
    assert parse("3.5", "length", default_unit="in").value == pytest.approx(88.9)
    with pytest.raises(Refused, match="unit is missing"):
        parse("12", "temperature", default_unit="°C")


@given(st.floats(min_value=0.01, max_value=9999))
def test_what_is_shown_reads_back(value):
    assert parse(show(value, "length", 4, "mm"), "length").value == pytest.approx(value, abs=1e-4)
    assert parse(show(value, "length", 0, "in"), "length").value == pytest.approx(
        value, abs=25.4 / 128 + 1e-9
    )


@pytest.mark.parametrize(
    ("inches", "text"),
    [
        (3.5, "3 1/2 in"),
        (0.0, "0 in"),
        (0.75, "3/4 in"),
        (2.0, "2 in"),
        (3.53, "3 17/32 in"),
        (-0.5, "−1/2 in"),
    ],
)
def test_inches_show_as_the_nearest_sixty_fourth(inches, text):
    assert inch_fraction(inches) == text


@pytest.mark.parametrize(
    ("value", "unit", "to", "result"),
    [(25.4, "mm", "in", 1.0), (1.0, "oz", "g", 28.349523), (100.0, "°C", "°F", 212.0), (5.0, "", "", 5.0)],
)
def test_conversion(value, unit, to, result):
    assert convert(value, unit, to) == pytest.approx(result)


def test_minus_zero_shows_without_a_sign():
    assert show(-0.001, "mass", 2, "g") == "0.00 g"
    assert show(-1.5, "angle", 1, "°") == "−1.5°"


@pytest.mark.parametrize("value", [float("nan"), float("inf"), -1.0, 11.0, "5", None, True])
def test_a_number_out_of_range_names_field_and_range(value):
    with pytest.raises(Refused, match=r"depth_mm: .*allowed is 0 to 10 mm"):
        finite_between("depth_mm", value, 0, 10, "mm")


@pytest.mark.parametrize("quantity", STORED)
def test_every_quantity_says_what_to_type(quantity):
    with pytest.raises(Refused, match="type (a|by how)"):
        parse("soon", quantity, "x", STORED[quantity] or None)


@pytest.mark.parametrize("quantity", STORED)
def test_every_quantity_is_read_in_its_unit_said_by_words_and_refused_in_them(quantity):
    typed = f"3 {STORED[quantity]}".strip()
    assert parse(typed, quantity, "x").value == 3.0 and said(3.0, quantity).startswith("3")
    assert QUANTITIES[quantity].stored == STORED[quantity] and quantity in CHOICES
    with pytest.raises(Refused, match="type (a|by how)"):
        parse("soon", quantity, "x")


@pytest.mark.parametrize(
    ("text", "inches"),
    [
        ("#30", 0.1285),
        ("No. 7", 0.201),
        ("no 60", 0.040),
        ("letter F", 0.257),
        ("letter e", 0.25),
        ("#1", 0.228),
    ],
)
def test_a_drill_is_read_by_its_number_or_letter(text, inches):
    assert parse(text, "length").value == pytest.approx(25.4 * inches)
    with pytest.raises(Refused):
        parse(text, "mass")


@pytest.mark.parametrize("text", ["#0", "#61", "#", "letter", "letter AB", "30#", "F"])
def test_what_is_no_drill_is_no_length(text):
    with pytest.raises(Refused):
        parse(text, "length")


def test_drills_get_wider_from_sixty_to_z():
    row = [SIZES_IN[str(number)] for number in range(60, 0, -1)] + [
        SIZES_IN[chr(letter)] for letter in range(ord("A"), ord("Z") + 1)
    ]
    assert row == sorted(row) and len(set(row)) == 86
