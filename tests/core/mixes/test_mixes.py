"""Mixes against closed forms and identities: ratios by mass and volume, rounding, fillers, layers,
over-pours, clocks, tubs.
"""

from dataclasses import replace
from datetime import date, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core.cautions import to_read
from lamsik.core.errors import Refused
from lamsik.core.learning import Learned
from lamsik.core.mixes.amount import (
    MixJob,
    learned_loss,
    least_g,
    poured_g_cm3,
    ratio_error,
    used_g,
    weighed_out,
)
from lamsik.core.mixes.clocks import at_temperature
from lamsik.core.mixes.fillers import FILLERS, Filler, filled, pigment_g
from lamsik.core.mixes.layers import USUAL, layered
from lamsik.core.mixes.overpour import put_right
from lamsik.core.mixes.product import (
    MixPart,
    Product,
    keepable,
    liquid_g_cm3,
    mass_shares,
    parse_ratio,
    ratio_text,
)
from lamsik.core.mixes.tubs import Tub, choose, drawn, remarks
from lamsik.documents.products.document import to_document, to_product
from lamsik.words.tell import tell

RESIN = Product(
    "Resin", "resin", "volume", (MixPart("A", 1, 1.10), MixPart("B", 1, 1.02)), 3.0, 5.0, 8.0, 1.0, 24.0
)
SILICONE = Product(
    "Silicone",
    "silicone",
    "mass",
    (MixPart("base", 100, 1.20), MixPart("catalyst", 4, 0.98)),
    10.0,
    stir_s=60,
)
THREE = Product(
    "Three", "epoxy", "mass", (MixPart("A", 100, 1.1), MixPart("B", 45, 1.0), MixPart("C", 2, 1.3)), 5.0
)
FOAM = Product(
    "Foam",
    "foam",
    "mass",
    (MixPart("A", 100, 1.06), MixPart("B", 110, 1.23)),
    caution="isocyanate",
    free_rise_g_cm3=0.16,
)
products = st.sampled_from([RESIN, SILICONE, THREE])


class TestProduct:
    def test_shares_by_mass_and_by_volume(self):
        assert mass_shares(SILICONE) == pytest.approx((100 / 104, 4 / 104))
        assert mass_shares(RESIN) == pytest.approx((1.10 / 2.12, 1.02 / 2.12))
        assert liquid_g_cm3(RESIN) == pytest.approx(1.06)

    @pytest.mark.parametrize(
        ("text", "basis", "found"),
        [
            ("1:1 by volume", "", ((1, 1), "volume")),
            ("100:45:2", "mass", ((100, 45, 2), "mass")),
            ("2 : 1 by weight", "", ((2, 1), "mass")),
            ("1", "", ((1,), "mass")),
        ],
    )
    def test_ratios_as_on_the_tin(self, text, basis, found):
        assert parse_ratio(text, basis) == found
        assert ratio_text(SILICONE) == "100:4 by mass"

    @given(products)
    def test_it_round_trips_as_plain_values(self, product):
        assert to_product(to_document(product)) == product


class TestAmount:
    @given(products, st.floats(5, 5000), st.sampled_from([0.01, 0.1, 1.0]))
    def test_portions_add_up_and_the_error_is_that_of_the_rounding(self, product, total, step):
        try:
            out = weighed_out(product, total, step)
        except Refused as refused:
            assert min(mass_shares(product)) * total <= step / 2 + 1e-9, refused
            return
        assert sum(p.exact_g for p in out.portions) == pytest.approx(total)
        assert abs(out.total_g - total) <= len(out.portions) * step / 2 + 1e-9
        assert out.error_percent == pytest.approx(ratio_error(product, [p.scale_g for p in out.portions]))
        for portion in out.portions:
            assert portion.rounding == pytest.approx(step / (2 * portion.exact_g))
            assert abs(portion.scale_g / step - round(portion.scale_g / step)) < 1e-6

    @given(products, st.floats(0, 500), st.sampled_from([0.01, 0.1, 1.0]))
    def test_from_the_least_batch_on_rounding_stays_within_tolerance(self, product, more, step):
        assert weighed_out(product, least_g(product, step) + more, step).holds

    def test_the_job_with_its_sprue_and_loss(self):
        job = MixJob(40.0, 2.0, 0.05)
        assert job.total_ml == pytest.approx(44.1) and poured_g_cm3(RESIN) == 1.06
        with pytest.raises(Refused, match="what is to be filled"):
            MixJob(0.0)

    def test_the_loss_is_learned_and_few_batches_are_not_believed_at_once(self):
        assert learned_loss([]) == Learned(0.05)
        assert learned_loss([(100, 110)] * 3).value == pytest.approx(0.10)
        assert learned_loss([(100, 110)]).value == pytest.approx(0.05 + 0.05 / 3)
        assert learned_loss([(100, 90)] * 5).value == 0.0 and learned_loss([(0, 5)]).n == 0
        spread = learned_loss([(100, 110), (100, 130)]).spread
        assert spread == pytest.approx(0.2 / 2**0.5)


class TestFoam:
    def test_a_foam_is_planned_by_what_it_becomes_and_never_by_its_liquid(self):
        assert poured_g_cm3(FOAM) == 0.16 and poured_g_cm3(FOAM, 0.25) == 0.25
        assert (
            FOAM.density_g_cm3 == 0.16
            and poured_g_cm3(replace(FOAM, cured_g_cm3=0.2)) == 0.2
            and poured_g_cm3(FOAM, None, 0.18) == 0.18
        )

    @pytest.mark.parametrize("kind", ["resin", "foam", "plastisol"])
    def test_what_can_hurt_is_not_kept_without_its_caution(self, kind):
        bare = replace(RESIN, kind=kind)
        with pytest.raises(Refused, match="which caution"):
            keepable(bare)
        assert (
            keepable(replace(bare, caution="isocyanate")).caution
            and keepable(replace(RESIN, kind="clear")) is not None
        )

    def test_cautions_are_read_for_every_batch_or_once_a_day(self):
        read = {"silicone": "2027-03-01", "isocyanate": "2027-03-01"}
        assert to_read(["silicone", "isocyanate", ""], [], read, "2027-03-01") == ("isocyanate",)
        assert (
            to_read(["silicone", "silicone"], [], read, "2027-03-02") == ("silicone",)
            and to_read(["isocyanate"], ["isocyanate"], {}, "2027-03-02") == ()
        )


class TestFillers:
    @given(st.floats(0.6, 1.0), st.floats(1, 2000))
    def test_masses_over_volumes_give_the_density_asked_for(self, density, ml):
        sphere = FILLERS["hollow microspheres"]
        found = filled(RESIN, ml, density, sphere)
        volume = found.resin_g / RESIN.density_g_cm3 + found.filler_g / sphere.true_g_cm3
        assert (found.resin_g + found.filler_g) / volume == pytest.approx(
            density
        ) and volume == pytest.approx(ml)
        assert sum(g for _, g in found.into) == pytest.approx(found.filler_g)
        assert found.into[0][1] == pytest.approx(found.into[1][1])  # 1:1 by volume: half each

    def test_scoops_go_by_the_heap_not_by_the_grains(self):
        brass = FILLERS["brass powder"]
        found = filled(RESIN, 100, 1.6, brass)
        assert found.scoops(brass, 10.0) == pytest.approx(found.filler_g / 3.4 / 10)
        with pytest.raises(Refused, match="cannot be denser than its grains"):
            Filler("odd", 0.15, 0.2)

    @pytest.mark.parametrize(
        ("density", "says"),
        [(0.3, "pack to 62 %"), (1.3, "between the filler's and the resin's"), (0.05, "between")],
    )
    def test_what_cannot_be_mixed_is_refused(self, density, says):
        with pytest.raises(Refused, match=says):
            filled(RESIN, 50, density, FILLERS["hollow microspheres"])

    def test_pigment_by_percent_or_drops(self):
        assert pigment_g(50, percent=2) == pytest.approx(1.0) and pigment_g(50, drops=20) == pytest.approx(
            0.6
        )
        with pytest.raises(Refused, match="a percentage or drops"):
            pigment_g(50, 1, 1)


class TestLayers:
    @given(st.floats(30, 3000))
    def test_they_add_up_to_the_batch_within_one_percent_and_wait_for_the_gel(self, total):
        rows = layered(RESIN, total, USUAL, 0.1, 10.0)
        assert sum(row.weighed.total_g for row in rows) == pytest.approx(total, rel=0.01)
        assert [row.after_min for row in rows] == pytest.approx(
            [0.0, 16.0, 32.0]
        )  # 8 min at 20 °C doubles at 10 °C


class TestOverpour:
    @given(products, st.floats(20, 800), st.floats(1.0, 1.6), st.integers(0, 2))
    def test_what_it_says_to_add_brings_the_ratio_back(self, product, total, over, which):
        which %= len(product.parts)
        grams = [share * total for share in mass_shares(product)]
        grams[which] *= over
        found = put_right(product, grams, 0.01)
        after = [g + more for g, more in zip(grams, found.add_g, strict=True)]
        assert all(more >= 0 for more in found.add_g) and found.add_g[which] == 0.0
        assert ratio_error(product, after) <= max(0.012 / min(after) * 100, 0.02)
        assert found.within == (ratio_error(product, grams) <= product.tolerance_percent)

    def test_a_right_ratio_of_too_much_is_said_to_be_over_plan(self):
        even = replace(RESIN, basis="mass", parts=(MixPart("A", 1, 1.1), MixPart("B", 1.5, 1.0)))
        found = put_right(even, (100, 150), 0.1, (), 200.0)
        assert (
            found.within
            and found.over_percent == pytest.approx(25.0)
            and tell(found.says).startswith("25.0 % over plan: 250.0 g instead of 200.0 g")
        )
        assert (
            put_right(even, (80.1, 120.1), 0.1, (), 200.0).over_percent == 0.0
            and "under plan" in put_right(even, (70, 105), 0.1, (), 200.0).says
        )
        assert (
            tell(put_right(even, (90, 0), 0.1, (), 200.0).says)
            == "135.0 g more B puts it right: 225.0 g in all, 12.5 % over plan."
        )

    def test_a_batch_over_its_plan_is_no_lesson_unless_what_was_left_was_weighed(self):
        assert (
            used_g(200, 250) is None
            and used_g(200, 250, 50) == 200
            and used_g(200, 202) == 202
            and used_g(200, 205) is None
        )

    def test_twenty_three_four_instead_of_twenty_two(self):
        found = put_right(RESIN, (23.4, 20.4), 0.1)
        assert tell(found.says) == "1.3 g more B puts it right: 45.1 g in all." and not found.within
        assert "within" in put_right(RESIN, (22.2, 20.4), 0.1).says
        out = put_right(RESIN, (23.4, 20.4), 0.1, (100.0, 0.5))
        assert tell(out.says).startswith("Out of tolerance") and "Do not pour it" in out.says
        with pytest.raises(Refused, match="nothing was weighed"):
            put_right(RESIN, (0, 0), 0.1)


@given(st.floats(0.1, 100), st.floats(-5, 45))
def test_ten_degrees_colder_takes_twice_as_long(time, at):
    assert at_temperature(time, 20.0, at) == pytest.approx(2 * at_temperature(time, 20.0, at + 10))


def test_no_shop_is_as_hot_as_an_oven():
    with pytest.raises(Refused, match="for a workshop"):
        at_temperature(1.0, 20.0, 172.0)


class TestTubs:
    TODAY = date(2027, 3, 1)

    def tub(self, key, left, expires=None, opened=None):
        return Tub(key, "A", f"L{key}", left, expires, opened)

    def test_the_opened_and_oldest_good_one_with_enough_is_drawn_from(self):
        opened = self.tub("1", 50, date(2027, 9, 1), date(2027, 2, 1))
        fresh, old = self.tub("2", 500, date(2027, 5, 1)), self.tub("3", 900, date(2027, 2, 1))
        assert choose([fresh, old, opened], "A", 40, 365, self.TODAY) == opened
        assert choose([fresh, old, opened], "A", 60, 365, self.TODAY) == fresh

    @pytest.mark.parametrize(
        ("tubs", "says"),
        [
            ([], "no tub of it"),
            ([("1", 5.0, None, None)], "5.0 g, 35.0 g too little"),
            ([("1", 500.0, date(2027, 2, 1), None)], "expired"),
            ([("1", 500.0, None, date(2026, 1, 1))], "expired"),
        ],
    )
    def test_too_little_or_expired_is_said_before_anything_is_mixed(self, tubs, says):
        with pytest.raises(Refused, match=says):
            choose([self.tub(*row) for row in tubs], "A", 40, 365, self.TODAY)

    def test_a_settled_or_old_tub_is_remarked(self):
        at = datetime(2027, 3, 1, 10)
        tub = self.tub("1", 50, date(2027, 3, 10))
        assert any("settled" in text for text in remarks(tub, 365, 60, at)) and any(
            "good until" in text for text in remarks(tub, 365, 0, at)
        )
        assert remarks(replace(tub, stirred_at=at - timedelta(hours=1), expires_on=None), 365, 60, at) == ()
        assert "expired" in remarks(replace(tub, expires_on=date(2027, 1, 1)), 365, 0, at)[0]

    @given(st.floats(0, 1000), st.floats(0, 1000))
    def test_stock_never_goes_below_nothing(self, left, grams):
        if grams <= left:
            assert drawn(left, grams, "A") == pytest.approx(left - grams)
        elif grams > left + 1e-6:
            with pytest.raises(Refused, match="below nothing"):
                drawn(left, grams, "A")
