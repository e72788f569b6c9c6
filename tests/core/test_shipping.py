"""What the way of a parcel costs, by zone and weight."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core.errors import Refused
from lamsik.core.stock.shipping import Rate, rate_for, zones

TABLE = [
    Rate("Overseas", 500.0, 1450),
    Rate("Here", 2000.0, 720),
    Rate("Here", 250.0, 390),
    Rate("Here", 500.0, 510),
]


@pytest.mark.parametrize(
    ("mass_g", "minor"), [(0.0, 390), (250.0, 390), (250.1, 510), (500.0, 510), (2000.0, 720)]
)
def test_the_lightest_rate_that_holds_it_counts(mass_g, minor):
    assert rate_for(TABLE, "Here", mass_g).minor == minor


def test_a_zone_that_is_none_and_what_is_too_heavy_are_refused():
    assert zones(TABLE) == ["Overseas", "Here"]
    with pytest.raises(Refused, match="put a rate for more into the shop’s table, or send two parcels"):
        rate_for(TABLE, "Overseas", 501.0)
    with pytest.raises(Refused, match="one of Overseas, Here"):
        rate_for(TABLE, "The moon", 10.0)
    with pytest.raises(Refused, match="the zone it goes to"):
        Rate("", 100.0, 1)
    for wrong in ((0.0, 1), (100.0, -1), (1e6, 1)):
        with pytest.raises(Refused):
            Rate("Here", *wrong)


@given(st.lists(st.floats(1.0, 1e5), min_size=1, max_size=8, unique=True), st.floats(0.0, 1e5))
def test_no_lighter_rate_would_hold_it(weights, mass_g):
    table = [Rate("Here", one, n) for n, one in enumerate(weights)]
    if mass_g > max(weights):
        with pytest.raises(Refused):
            rate_for(table, "Here", mass_g)
        return
    found = rate_for(table, "Here", mass_g)
    assert found.up_to_g >= mass_g and not [one for one in weights if mass_g <= one < found.up_to_g]
