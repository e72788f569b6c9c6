"""What is taken off a sum, and what is asked first."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core.errors import Refused
from lamsik.core.orders.terms import NOTHING, Share, deposit_open, less, read_share

SHARES = st.one_of(
    st.builds(Share, percent=st.floats(0.0, 100.0)), st.builds(Share, minor=st.integers(0, 10**8))
)


@given(st.integers(0, 10**9), SHARES)
def test_what_is_taken_off_and_what_is_left_are_the_sum(total, share):
    left = less(total, share)
    assert 0 <= left <= total and left + share.of(total) == total


def test_a_share_is_percent_or_a_sum_as_it_was_typed():
    assert read_share("10 %", "EUR").of(4_800) == 480 and read_share("12,5%", "EUR").of(1_000) == 125
    assert read_share("12.50", "EUR").of(4_800) == 1_250 and read_share("300 JPY", "JPY").of(4_800) == 300
    assert read_share("", "EUR") == NOTHING and less(4_800, NOTHING) == 4_800 and less(None, NOTHING) is None
    assert read_share("60", "EUR").of(4_800) == 4_800  # more than there is takes all of it
    assert (
        read_share("0.5 %", "EUR").of(100) == 0 and read_share("1.5 %", "EUR").of(100) == 2
    )  # to the even one
    for wrong in ("101 %", "-3 %", "ten", "5 % off"):
        with pytest.raises(Refused):
            read_share(wrong, "EUR")
    with pytest.raises(Refused, match="percent or a sum, not both"):
        Share(percent=5.0, minor=100)
    with pytest.raises(Refused, match="a sum, not below nothing"):
        Share(minor=-1)


@pytest.mark.parametrize(("paid", "missing"), [(0, 1_440), (1_000, 440), (1_440, 0), (4_800, 0)])
def test_a_deposit_is_open_until_as_much_has_come(paid, missing):
    assert deposit_open(Share(percent=30.0), 4_800, paid) == missing


def test_where_none_was_asked_or_no_sum_is_there_no_deposit_is_open():
    assert deposit_open(NOTHING, 4_800, 0) is None and deposit_open(Share(minor=100), None, 0) is None
