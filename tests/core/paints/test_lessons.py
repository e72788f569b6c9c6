"""What used mixes teach, and a recipe as what is weighed."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core.errors import Refused
from lamsik.core.mixes.amount import ratio_error
from lamsik.core.mixes.product import Product, keepable
from lamsik.core.paints.layers import begun
from lamsik.core.paints.lessons import UsedMix, loss_learned, stays_learned
from lamsik.core.paints.mixture import Dropped, as_product, drop_g, dry_share
from lamsik.core.paints.shelf import ShelfPaint
from lamsik.core.paints.spraying import STAYS_SHARE, cups
from tests.bodies import bait
from tests.refusing import refusing

WHITE = ShelfPaint("White", solids_percent=40.0, density_g_cm3=1.5, wet_g_cm3=1.2, drop_ml=0.05)
THIN = ShelfPaint("Thin", solids_percent=20.0, density_g_cm3=1.1, wet_g_cm3=0.9, drop_ml=0.04)


def used(went, lost, gained, share=0.4, by="sprayed"):
    return UsedMix(went + lost, 0.0, lost, gained, share, by)


@given(st.floats(0.05, 0.95), st.floats(0.01, 0.9), st.integers(3, 8))
def test_three_mixes_and_more_give_back_what_was_planted(stays, loss, count):
    rows = [used(went := 2.0 + n, loss * went, stays * went * 0.4) for n in range(count)]
    learned = stays_learned(rows, "sprayed")
    assert learned.value == pytest.approx(stays) and learned.n == count and learned.spread < 1e-9
    assert loss_learned(rows).value == pytest.approx(loss)


def test_a_first_mix_moves_the_guess_a_third_of_the_way_and_only_its_own_way():
    one = used(3.0, 0.3, 0.65 * 3.0 * 0.4)
    assert stays_learned([one], "sprayed").value == pytest.approx(0.35 + (0.65 - 0.35) / 3)
    assert stays_learned([one], "brushed").n == 0
    assert stays_learned([], "sprayed").value == STAYS_SHARE["sprayed"]
    assert stays_learned([replace(one, by="")], "sprayed").n == 0


def test_one_used_amount_gives_not_both():
    assert UsedMix(5.0, gained_g=0.5).stays is None  # what stayed in the cup is not known
    assert UsedMix(5.0, lost_g=0.5).stays is None and loss_learned([UsedMix(5.0, lost_g=0.5)]).n == 1
    assert loss_learned([UsedMix(5.0, gained_g=0.5)]).n == 0
    assert UsedMix(5.0, kept_g=2.0, lost_g=1.0).on_its_way_g == pytest.approx(2.0)
    assert UsedMix(5.0, kept_g=4.0, lost_g=1.0, gained_g=0.1).stays is None  # nothing left the cup


def test_what_cannot_be_is_refused_by_its_field():
    for wrong, field in (
        ({"kept_g": 6.0}, "left"),
        ({"lost_g": 5.5}, "lost"),
        ({"lost_g": -1.0}, "lost"),
        ({"kept_g": 3.0, "lost_g": 2.5}, "lost"),
        ({"lost_g": 1.0, "gained_g": 4.9}, "gained"),
    ):
        with pytest.raises(Refused) as refused:
            UsedMix(5.0, **wrong)
        assert refused.value.field == field
    with refusing(r"got 2\.00 g; .*weigh the pieces before and after"):
        UsedMix(5.0, lost_g=1.0, gained_g=2.0, dry_share=0.4)


def test_a_recipe_weighs_what_its_drops_do_and_dries_to_what_its_paints_leave():
    parts = [Dropped("C-1", WHITE, 6), Dropped("C-2", THIN, 5), Dropped("C-3", THIN, 0)]
    product = as_product("mix", parts)
    assert [part.key for part in product.parts] == ["C-1", "C-2"]
    grams = [6 * 0.05 * 1.2, 5 * 0.04 * 0.9]
    assert [one.grams for one in parts[:2]] == pytest.approx(grams) and drop_g(WHITE) == pytest.approx(0.06)
    assert ratio_error(product, grams) == pytest.approx(0.0, abs=1e-9)
    dry = 0.3 * 0.4 * 1.5 + 0.2 * 0.2 * 1.1
    assert dry_share(parts) == pytest.approx(dry / sum(grams))
    with refusing("a drop"):
        as_product("none", [Dropped("C-1", WHITE, 0)])


def test_twins_of_one_name_are_told_apart_and_more_parts_than_a_tin_has_are_mixed():
    parts = [Dropped(f"C-{n}", WHITE, 1) for n in range(6)]
    product = as_product("six", parts)
    assert len({part.name for part in product.parts}) == 6
    with refusing("one to three parts"):
        keepable(product)
    assert isinstance(keepable(as_product("three", parts[:3])), Product)


def test_what_is_known_to_stay_sets_what_goes_into_the_cup():
    design = bait(layers=(begun("base", "b"), begun("clear", "c")))
    usual, known = cups(design), cups(design, {**STAYS_SHARE, "sprayed": 0.7})
    for before, after in zip(usual, known, strict=True):
        assert after.wet_ml == pytest.approx(before.wet_ml / (2.0 if before.layer.by == "sprayed" else 1.0))
    assert {one.layer.by for one in usual} >= {"sprayed"}
