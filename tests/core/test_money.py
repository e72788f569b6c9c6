"""Money in minor units with the digits of its currency (ISO 4217)."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core.money import Money, read, rounded
from tests.refusing import refusing


@pytest.mark.parametrize(
    ("text", "currency", "minor", "said"),
    [
        ("48,50", "EUR", 4850, "48.50 EUR"),
        (" 48 ", "SEK", 4800, "48.00 SEK"),
        ("4850", "JPY", 4850, "4850 JPY"),
        ("1.2345", "KWD", 1234, "1.234 KWD"),
        ("0.125", "EUR", 12, "0.12 EUR"),
        ("0.135", "EUR", 14, "0.14 EUR"),
    ],
)
def test_it_is_read_and_said_in_the_digits_of_its_currency(text, currency, minor, said):
    assert read(text, currency) == Money(minor, currency) and read(text, currency).said == said


@given(st.integers(0, 10**9 - 1), st.sampled_from(["EUR", "JPY", "KWD", "USD"]))
def test_what_is_said_is_read_again(minor, currency):
    money = Money(minor, currency)
    assert rounded(money.amount, currency) == money
    if money.amount < 10**7:
        assert read(money.said.removesuffix(f" {currency}"), currency) == money


@pytest.mark.parametrize("text", ["", "a lot", "nan", "-1", "1e9", "12,3,4", "Infinity"])
def test_what_is_no_amount_is_refused(text):
    with refusing("type an amount such as 48"):
        read(text, "EUR")
