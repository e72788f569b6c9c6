"""Weighing in water: identities of Archimedes by property, closed forms of trimming, what the scale cannot
tell.
"""

from datetime import date, timedelta
from math import pi

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from lamsik.core.errors import Refused
from lamsik.core.materials import METALS
from lamsik.core.water import Water
from lamsik.core.weighing.bydifference import capacities
from lamsik.core.weighing.instrument import Scale, can_tell, remarks
from lamsik.core.weighing.inwater import (
    InWater,
    air_buoyancy_g,
    by_ratio,
    converted_lift,
    line_ml,
    mass_in,
    mass_in_sd,
    with_sinker,
    without_line,
)
from lamsik.core.weighing.pair import Bearer, margins, turns_at
from lamsik.core.weighing.trim import cut_mm, flips_at, next_cut, to_add
from lamsik.words.refusals import limits_said

FRESH, SEA = Water("fresh water", 15.0), Water("sea water", 10.0, 35.0)
waters = st.builds(Water, st.just("w"), st.floats(0, 30), st.floats(0, 40))
masses = st.floats(0.5, 500)
volumes = st.floats(0.5, 500)


def thing(mass, volume, water):
    return InWater(mass, mass - volume * water.density_g_cm3, water)


@given(masses, volumes, waters, waters)
def test_there_and_back_is_the_same(mass, volume, one, other):
    here = thing(mass, volume, one)
    there = InWater(mass, mass_in(here, other), other)
    assert here.volume_ml == pytest.approx(volume) and there.volume_ml == pytest.approx(volume)
    assert mass_in(there, one) == pytest.approx(here.water_g, abs=1e-9 * max(mass, volume))
    assert here.lift_g == -here.water_g and here.density_g_cm3 == pytest.approx(mass / volume)


@given(masses, volumes, waters, waters)
def test_a_lift_is_converted_by_what_it_displaces(mass, volume, one, other):
    capacity = volume * one.density_g_cm3 - mass
    assert converted_lift(capacity, mass, one, other) == pytest.approx(
        volume * other.density_g_cm3 - mass, abs=1e-9 * max(mass, volume)
    )


@given(masses, st.floats(0.96, 1.24), waters)
def test_the_flip_water_is_its_own_density(mass, density, water):
    here = thing(mass, mass / density, water)
    assert mass_in(here, Water("flip", measured_g_cm3=here.density_g_cm3)) == pytest.approx(
        0, abs=1e-9 * mass
    )


@given(
    masses,
    volumes,
    waters,
    st.floats(-20, 20),
    st.sampled_from(sorted(METALS)),
    st.sampled_from(["outside", "inside"]),
)
def test_what_is_added_changes_the_mass_in_water_by_just_that(mass, volume, water, change, metal, where):
    trim = to_add(change, metal, where, water)
    after_mass, after_volume = (
        mass + trim.mass_g,
        volume + (trim.mass_g / METALS[metal] if where == "outside" else 0),
    )
    assert (after_mass - after_volume * water.density_g_cm3) - (
        mass - volume * water.density_g_cm3
    ) == pytest.approx(change, abs=1e-9 * max(mass, volume))
    assert abs(trim.mass_g) >= abs(change) - 1e-12
    assume(after_volume > 0.1)
    assert flips_at(mass, volume, trim) == pytest.approx(after_mass / after_volume)


def test_a_floater_under_a_sinker_and_the_line_that_lifts_too():
    assert with_sinker(21.4, 30.0) == pytest.approx(-8.6)
    volume = line_ml(0.3, 400)
    assert volume == pytest.approx(pi * 0.0225 * 400 / 1000) and without_line(
        5.0, volume, FRESH
    ) == pytest.approx(5 + volume * FRESH.density_g_cm3)
    assert air_buoyancy_g(InWater(20.0, 2.0, FRESH)) == pytest.approx(0.0012 * 18 / FRESH.density_g_cm3)
    assert by_ratio(0.9991, 1.026).density_g_cm3 == pytest.approx(0.9991 * 1.026)


def test_the_uncertainty_of_a_conversion_grows_with_the_difference_of_the_waters():
    here = InWater(20.0, 2.0, FRESH, 0.03, 0.05)
    assert mass_in_sd(here, FRESH) == pytest.approx(0.05) and mass_in_sd(here, SEA) == pytest.approx(
        0.0513, abs=2e-4
    )
    assert here.volume_sd_ml == pytest.approx((0.03**2 + 0.05**2) ** 0.5 / FRESH.density_g_cm3)


def test_wire_by_its_length():
    trim = to_add(0.5, "lead", "outside", FRESH, 1.0)
    assert trim.mass_g == pytest.approx(
        0.5 / (1 - FRESH.density_g_cm3 / 11.34)
    ) and trim.wire_mm == pytest.approx(trim.mass_g / 11.34 * 1000 / (pi / 4))
    assert to_add(-0.5, "lead", "outside", FRESH, 1.0).wire_mm < 0


@given(st.floats(0.5, 50), st.floats(1, 100), st.floats(0.01, 1))
def test_a_cylinder_is_cut_in_proportion(mass, length, share):
    cut = cut_mm(mass, length, mass * share)
    assert (length - cut) / length * mass == pytest.approx(mass * share)


@given(st.floats(1.0, 60.0), st.floats(0.2, 0.95), st.sampled_from([0.01, 0.1]))
def test_the_loop_of_cutting_ends_at_the_mass_and_never_under_it(mass, share, step):
    wanted, rounds = round(mass * share, 2), 0
    assume(mass - wanted > 2 * step)
    while not (found := next_cut(mass, wanted, step)).done:
        mass -= found.take_off_g
        rounds += 1
    assert wanted - step / 2 <= mass <= wanted + step + 1e-9 and rounds < 20
    assert "too light now" in next_cut(wanted - step, wanted, step).says


class TestByDifference:
    READINGS = (("shoulder", 27.2), ("scale mark", 25.6), ("tip", 24.1))

    def test_every_mark_in_both_waters(self):
        found, why = capacities(30.0, self.READINGS, FRESH, SEA, 3.1, 0.03)
        assert [c.measured_g for c in found] == pytest.approx([2.8, 4.4, 5.9]) and why == ""
        ratio = SEA.density_g_cm3 / FRESH.density_g_cm3
        assert [c.wanted_g for c in found] == pytest.approx(
            [(c + 3.1) * ratio - 3.1 for c in (2.8, 4.4, 5.9)]
        ) and found[0].sd_g == pytest.approx(0.03 * 2**0.5)

    def test_without_its_mass_in_air_there_is_no_conversion_and_the_reason_is_said(self):
        found, why = capacities(30.0, self.READINGS, FRESH, SEA, None)
        why = limits_said(why)
        assert (
            all(c.wanted_g is None for c in found)
            and "weigh it in air first" in why
            and "not its lift" in why
        )


class TestPair:
    def test_a_margin_in_each_water_with_its_uncertainty(self):
        load, bearer = InWater(12.0, 6.0, FRESH, 0.03, 0.03), Bearer("pike float", 7.0, FRESH, 4.0, 0.05)
        fresh, sea = margins(bearer, load, (FRESH, SEA))
        assert fresh.margin_g == pytest.approx(1.0) and fresh.certain and "1.00 g to spare" in fresh.says
        assert (
            sea.margin_g == pytest.approx(converted_lift(7.0, 4.0, FRESH, SEA) - mass_in(load, SEA))
            and sea.margin_g > fresh.margin_g
        )

    @given(st.floats(2, 30), st.floats(1, 40), st.floats(5, 60), st.floats(0.5, 30))
    def test_the_water_at_which_the_verdict_turns_is_where_the_margin_is_nothing(
        self, own, carries, mass, volume
    ):
        load, bearer = thing(mass, volume, FRESH), Bearer("f", carries, FRESH, own, 0.02)
        turn = turns_at(bearer, load)
        assert turn.density_g_cm3 == pytest.approx(
            (own + mass) / ((carries + own) / FRESH.density_g_cm3 + volume), abs=2e-4
        )
        assert turn.ratio == pytest.approx(turn.density_g_cm3 / FRESH.density_g_cm3) and turn.sd_g_cm3 > 0
        if 0.95 < turn.density_g_cm3 < 1.25:
            at = Water("there", measured_g_cm3=turn.density_g_cm3)
            assert margins(bearer, load, (at,))[0].margin_g == pytest.approx(0.0, abs=1e-6)

    @pytest.mark.parametrize(
        ("mass", "wet", "met"), [(50.0, 44.0, "no"), (12.0, 6.0, "some"), (2.0, 1.0, "any")]
    )
    def test_a_turn_beyond_every_water_is_told_from_one_to_look_for(self, mass, wet, met):
        turn = turns_at(Bearer("f", 6.0, FRESH, 4.0), InWater(mass, wet, FRESH))
        assert turn.met_in == met

    def test_a_waters_own_spread_counts_where_it_is_not_the_one_weighed_in(self):
        load, bearer = InWater(120.0, 6.0, FRESH), Bearer("f", 9.0, FRESH, 4.0)
        fresh, sea = margins(bearer, load, (FRESH, SEA))
        assert fresh.sd_g == 0.0 and sea.sd_g == pytest.approx(
            (13.0 + 114.0) / FRESH.density_g_cm3 * SEA.spread_g_cm3
        )
        assert (
            0.0003 < SEA.spread_g_cm3 < 0.001
            and FRESH.spread_g_cm3 < 0.0001
            and Water("m", measured_g_cm3=1.01).spread_g_cm3 == 0.00025
        )
        with pytest.raises(Refused, match="weigh the float in air first"):
            turns_at(Bearer("f", 9.0, FRESH, None), load)

    def test_what_the_scale_cannot_tell_is_said(self):
        near = margins(Bearer("f", 6.05, FRESH, None, 0.05), InWater(12.0, 6.0, FRESH, 0.05, 0.05), (FRESH,))[
            0
        ]
        assert not near.certain and "too near to tell" in near.says
        assert (
            "goes under: 0.50 g"
            in margins(Bearer("f", 5.5, FRESH, None, 0.03), InWater(12.0, 6.0, FRESH), (FRESH,))[0].says
        )
        with pytest.raises(Refused, match="weigh it in air first"):
            margins(Bearer("f", 6.0, FRESH, None), InWater(12.0, 6.0, FRESH), (SEA,))


class TestInstrument:
    def test_the_spread_and_the_step_make_the_uncertainty(self):
        assert Scale("s", 0.1, 500).sd_g == pytest.approx(0.1 / 12**0.5) and Scale(
            "s", 0.1, 500, 0.05
        ).sd_g == pytest.approx((0.01 / 12 + 0.0025) ** 0.5)
        assert can_tell(0.1, 0.04) and not can_tell(-0.05, 0.04)

    def test_what_to_know_of_a_reading(self):
        today = date(2027, 5, 1)
        good = Scale("Fine", 0.01, 100, 0.01, today - timedelta(days=3), 50.0)
        assert remarks(good, 60.0, today) == ()
        assert (
            "less than half of this load" in remarks(good, 101.0, today)[1]
            and "ends at 100 g" in remarks(good, 101.0, today)[0]
        )
        assert "never checked" in remarks(Scale("Old", 0.1, 500), 5.0, today)[0]
        assert (
            "200 days ago"
            in remarks(Scale("Old", 0.1, 500, checked_on=today - timedelta(days=200)), 5.0, today)[0]
        )
