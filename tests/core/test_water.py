"""Water density against published values and the library's own TEOS-10 checks."""

import pytest

from lamsik.core.errors import Refused
from lamsik.core.water import Water, density


@pytest.mark.parametrize(
    ("temperature", "salinity", "published"),
    [
        # fresh: Tanaka et al. 2001, air-free water; sea: UNESCO 1981 tables, practical 35
        (4.0, 0, 0.999975),
        (12.0, 0, 0.999500),
        (20.0, 0, 0.998207),
        (30.0, 0, 0.995649),
        (20.0, 35, 1.024763),
        (10.0, 35, 1.026952),
        (0.0, 35, 1.028106),
    ],
)
def test_density_matches_published_tables(temperature, salinity, published):
    assert density(temperature, salinity) == pytest.approx(published, abs=2e-5)


def test_practical_salinity_is_not_taken_for_absolute():
    # 35 absolute would give about 1.02463 at 20 °C: 0.01 g on a 75 g object
    assert density(20.0, 35.0) > 1.0247


def test_a_measured_density_wins():
    assert Water("tub", 20.0, 0.0, 1.003).density_g_cm3 == 1.003


@pytest.mark.parametrize(
    "bad",
    [{"temperature_c": 60}, {"salinity_psu": -1}, {"measured_g_cm3": 0.0}, {"measured_g_cm3": float("nan")}],
)
def test_impossible_water_is_refused(bad):
    with pytest.raises(Refused):
        Water("x", **bad)


@pytest.mark.parametrize(
    ("water", "words"),
    [(Water("fresh water", 12), "12 °C fresh water"), (Water("Holm mere", 14.5), "Holm mere at 14.5 °C")],
)
def test_a_water_says_its_temperature(water, words):
    assert water.describe() == words
