"""Paints by their swatches, mixtures, recipes and strengths against paints that were made up."""

from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest
from coloraide import Color
from hypothesis import given, settings
from hypothesis import strategies as st

from lamsik.core.errors import Refused
from lamsik.core.paints.amounts import amount, needed
from lamsik.core.paints.colour import difference, hex_of_lab, lab_of, lab_seen, linear_of_lab
from lamsik.core.paints.film import OUTER, over, over_surface, under_surface
from lamsik.core.paints.lab import Lab
from lamsik.core.paints.layers import begun
from lamsik.core.paints.light import linear_of
from lamsik.core.paints.matching import matches, ratios
from lamsik.core.paints.measured import curves_for, curves_measured, measured
from lamsik.core.paints.mixing import Backing, Tint, lab_mixed, shares
from lamsik.core.paints.paint import Paint
from lamsik.core.paints.shelf import Pot, ShelfPaint
from lamsik.core.paints.spraying import cups
from lamsik.core.paints.strengths import SPREAD, MixedSwatch, strengths
from lamsik.core.paints.swatch import CARD, Swatch
from lamsik.core.paints.wanted import RecipePart
from tests.bodies import bait
from tests.refusing import refusing

NM = np.arange(400.0, 701.0, 20.0)
FILM = np.array([20.0])
GROUNDS = tuple(under_surface(np.full(16, float(linear_of_lab(card.row).mean()) - OUTER)) for card in CARD)


def lab_from(row):
    return Lab(*(float(one) for one in row))


def made_up(random):
    """K and S per µm of a paint that nobody sells."""
    k = np.full(16, random.uniform(0.001, 0.02))
    for _ in range(random.integers(1, 4)):
        k += random.uniform(0.01, 0.8) * np.exp(
            -(((NM - random.uniform(380, 720)) / random.uniform(30, 90)) ** 2)
        )
    return k, random.uniform(0.001, 0.2) * (1 + 0.3 * np.cos((NM - random.uniform(400, 700)) / 200))


def look(k, s, ground, film=FILM):
    return lab_from(lab_seen(over_surface(over(curves_measured(k, s), film, ground[:, None])[:, 0], False)))


SIXTY = [made_up(np.random.default_rng(seed)) for seed in range(60)]
TINTS = [Tint(f"P{n}", k, s, price_ml=0.1 + n % 7) for n, (k, s) in enumerate(SIXTY[:30])]
GROUND = Backing(GROUNDS[0])


def test_colours_are_the_librarys():
    for colour in ("#3B5B45", "#E8C33A", "#16283A", "#FFFFFF"):
        lab = lab_of(linear_of(colour))
        assert lab == pytest.approx(Color(colour).convert("lab-d65").coords(), abs=0.05)
        assert hex_of_lab(lab) == colour and lab_of(linear_of_lab(lab)) == pytest.approx(lab, abs=1e-6)


@pytest.mark.parametrize(
    ("one", "other", "apart"),
    [
        # Sharma, Wu, Dalal: The CIEDE2000 color-difference formula (2005), table 1
        ((50.0, 2.6772, -79.7751), (50.0, 0.0, -82.7485), 2.0425),
        ((50.0, -1.3802, -84.2814), (50.0, 0.0, -82.7485), 1.0000),
        ((50.0, 2.5, 0.0), (73.0, 25.0, -18.0), 27.1492),
        ((50.0, 2.5, 0.0), (50.0, 3.2592, 0.3350), 1.0000),
        ((22.7233, 20.0904, -46.6940), (23.0331, 14.9730, -42.5619), 2.0373),
        ((90.8027, -2.0831, 1.4410), (91.1528, -1.6435, 0.0447), 1.4441),
        ((2.0776, 0.0795, -1.1350), (0.9033, -0.0636, -0.5514), 0.9082),
    ],
)
def test_differences_are_those_that_are_published(one, other, apart):
    assert float(difference(np.array(one), np.array(other))) == pytest.approx(apart, abs=1e-4)


@pytest.mark.parametrize("n", range(60))
def test_curves_of_a_swatch_never_cross_and_look_as_it_did(n):
    k, s = SIXTY[n]
    swatch = Swatch(*(look(k, s, ground) for ground in GROUNDS))
    known = measured(swatch)
    assert (known.over_black >= 0).all() and (known.over_white >= known.over_black - 1e-9).all()
    assert (under_surface(known.over_white) <= GROUNDS[0] + 0.01).all()
    assert (known.k_um >= 0).all() and (known.s_um > 0).all()
    for wanted, ground in zip((swatch.white, swatch.black), GROUNDS, strict=True):
        again = look(known.k_um, known.s_um, ground)
        assert float(difference(again.row, wanted.row)) < (0.8 if known.is_opaque else 0.2)


def test_of_a_paint_that_hides_all_the_least_it_scatters_is_taken():
    hides = measured(Swatch(Lab(55.0, 20.0, 10.0), Lab(54.9, 20.0, 10.0)))
    assert hides.is_opaque
    looks = [look(hides.k_um, hides.s_um, ground).row for ground in GROUNDS]
    assert float(difference(*looks)) == pytest.approx(0.5, abs=0.05)  # at the edge of being told apart
    thinner = [look(hides.k_um, hides.s_um, ground, FILM / 2).row for ground in GROUNDS]
    assert float(difference(*thinner)) > 1.0


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"white": Lab(50.0), "black": Lab(60.0)}, "white|black"),
        ({"white": Lab(99.0)}, "white"),
        ({"white": Lab(60.0, 120.0, -120.0)}, "white"),
        ({"card_white": Lab(30.0)}, "a card whose black is 20 darker in lightness than its white"),
    ],
)
def test_looks_that_no_surface_has_are_refused(changes, field):
    with refusing(f"({field})") as refused:
        measured(replace(Swatch(Lab(70.0), Lab(60.0)), **changes))
    assert refused


def test_a_layer_of_a_swatched_paint_looks_as_its_swatch():
    k, s = SIXTY[4]
    swatch = Swatch(*(look(k, s, ground) for ground in GROUNDS))
    paint = Paint("#123456", swatch=swatch)
    film = over(curves_for(paint), FILM, GROUNDS[0][:, None])[:, 0]
    assert float(difference(lab_seen(over_surface(film, False)), swatch.white.row)) < 0.5
    assert curves_for(Paint("#123456")) is not None


def test_blue_and_yellow_make_green_and_a_mixture_of_one_is_that_one():
    yellow = Tint("Y", 0.4 * np.exp(-(((NM - 420) / 50) ** 2)) + 0.001, np.full(16, 0.08))
    blue = Tint("B", 0.4 * np.exp(-(((NM - 620) / 70) ** 2)) + 0.001, np.full(16, 0.08))
    both = lab_mixed((yellow, blue), (1, 1), GROUND)
    assert both[1] < -15 and both[0] > 20
    assert lab_mixed((yellow, yellow), (3, 5), GROUND) == pytest.approx(lab_mixed((yellow,), (1,), GROUND))
    assert lab_mixed((yellow, blue), (2, 4), GROUND) == pytest.approx(
        lab_mixed((yellow, blue), (1, 2), GROUND)
    )
    thick = replace(yellow, drop_ml=0.1)
    assert lab_mixed((thick, blue), (1, 2), GROUND) == pytest.approx(
        lab_mixed((yellow, blue), (1, 1), GROUND)
    )
    with refusing("a drop of some paint is needed"):
        shares((yellow,), (0,))


@settings(max_examples=40, deadline=None)
@given(st.integers(0, 59), st.floats(1.0, 60.0), st.floats(0.0, 0.9))
def test_ordinary_light_stays_between_black_and_white(n, film, under):
    inside = over(curves_measured(*SIXTY[n]), np.array([film]), np.full((16, 1), under))
    assert (inside >= -1e-9).all() and (inside <= 1.0 + 1e-9).all()


def test_every_ratio_is_tried_once():
    pairs = ratios(2)
    assert len({tuple(row / row.sum()) for row in pairs.tolist() for row in [np.array(row)]}) == len(pairs)
    assert pairs.min() == 1 and pairs.sum(axis=1).max() == 12 and len(ratios(1)) == 1
    count = {1: 30, 2: 435, 3: 4060}
    assert sum(len(ratios(n)) * of for n, of in count.items()) == 815_365


def test_the_recipe_that_was_planted_is_found_or_one_as_near():
    random, found = np.random.default_rng(7), 0
    for _ in range(100):
        count = int(random.integers(1, 4))
        chosen = random.choice(7, count, replace=False)
        drops = ratios(count)[random.integers(len(ratios(count)))]
        wanted = lab_mixed([TINTS[n] for n in chosen], drops, GROUND)
        noisy = lab_from(wanted + random.normal(0, 0.2, 3))
        best = min(matches(noisy, TINTS[:7], GROUND), key=lambda one: one.off)
        found += best.off <= float(difference(noisy.row, wanted)) + 0.02
    assert found >= 95


def test_recipes_nobody_tells_apart_go_by_their_drops_and_their_cost():
    wanted = lab_from(lab_mixed(TINTS[3:5], (1, 2), GROUND))
    rows = matches(wanted, TINTS[:8], GROUND)
    assert {len(row.parts) for row in rows} == {1, 2, 3}
    every = matches(wanted, TINTS[:8], GROUND, most=400)
    for count in (1, 2, 3):
        first, few = ([row for row in all_ if len(row.parts) == count] for all_ in (every, rows))
        assert few == first[: len(few)] and len(few) == 6
    near = [row for row in rows if row.off < 0.5]
    assert near == rows[: len(near)] and (("P3", 1), ("P4", 2)) in [row.parts for row in near]
    assert all((a.drops, a.cost) <= (b.drops, b.cost) for a, b in pairwise(near))
    for row in rows[:4]:
        tints = {one.code: one for one in TINTS}
        exact = lab_mixed([tints[code] for code, _ in row.parts], [n for _, n in row.parts], GROUND)
        assert row.look.row == pytest.approx(exact, abs=0.02)
        assert row.cost == pytest.approx(sum(n * 0.05 * tints[code].price_ml for code, n in row.parts))


def swatches_of(true, random, noise):
    rows = []
    for _ in range(14):
        chosen = random.choice(len(true), 2, replace=False)
        drops = [float(one) for one in random.integers(1, 6, 2)]
        ground = Backing(GROUNDS[int(random.integers(2))], 14.0)
        seen = lab_mixed([true[n] for n in chosen], drops, ground) + random.normal(0, 1.0, 3) * noise
        rows.append(
            MixedSwatch(
                tuple((true[n].code, drop) for n, drop in zip(chosen, drops, strict=True)),
                ground,
                lab_from(seen),
            )
        )
    return rows


@pytest.mark.parametrize("seed", range(3))
def test_strengths_that_were_planted_come_back(seed):
    random = np.random.default_rng(seed)
    known = TINTS[:4]
    true = [replace(one, strength=float(np.exp(random.normal(0, 0.35)))) for one in known]
    clean = strengths(known, swatches_of(true, random, 0.0), read_to=0.01)
    for one in true:
        assert clean.of[one.code] == pytest.approx(one.strength, rel=0.02)
    assert clean.median < 0.1 and clean.worst < 0.5 and clean.count == 14
    noisy = strengths(known, swatches_of(true, random, 0.6))
    for one in true:
        assert abs(np.log(noisy.of[one.code] / one.strength)) < 3.5 * noisy.spread[one.code] + 1e-3
    assert 0 < noisy.median <= noisy.worst


def test_what_no_swatch_says_stays_as_it_was_taken():
    none = strengths(TINTS[:2], [])
    assert none.of == {"P0": 1.0, "P1": 1.0} and none.median is none.worst is None and none.count == 0
    strange = MixedSwatch((("P0", 1), ("gone", 1)), GROUND, Lab(50.0))
    assert strengths(TINTS[:2], [strange]).count == 0


def test_a_swatch_of_one_paint_and_readings_that_say_nothing_leave_strengths_as_they_were():
    alone = MixedSwatch((("P0", 3),), GROUND, Lab(50.0))
    told = strengths(TINTS[:3], [alone, *swatches_of(TINTS[1:3], np.random.default_rng(1), 0.6)])
    assert (told.of["P0"], told.spread["P0"]) == (1.0, SPREAD) and told.of["P1"] != 1.0
    vague = strengths(TINTS[:3], swatches_of(TINTS[:3], np.random.default_rng(1), 0.6), read_to=1e6)
    assert list(vague.of.values()) == pytest.approx([1.0] * 3)
    assert list(vague.spread.values()) == pytest.approx([SPREAD] * 3, rel=1e-6)


def test_each_swatch_is_foretold_by_the_others_alone():
    rows = swatches_of(TINTS[:3], np.random.default_rng(2), 0.6)[:5]
    missed = []
    for n, one in enumerate(rows):
        others = strengths(TINTS[:3], [*rows[:n], *rows[n + 1 :]])
        paints = [replace(TINTS[int(code[1:])], strength=others.of[code]) for code, _ in one.parts]
        seen = lab_mixed(paints, [drops for _, drops in one.parts], one.ground)
        missed.append(float(difference(seen, one.seen.row)))
    told = strengths(TINTS[:3], rows)
    assert (told.median, told.worst) == pytest.approx((np.median(missed), max(missed)), rel=1e-3)


@settings(max_examples=60, deadline=None)
@given(st.floats(0.01, 40.0), st.integers(1, 200), st.floats(0.0, 0.5))
def test_a_set_takes_so_many_times_one_before_loss_and_drops(each, pieces, loss):
    parts = (("P1", 2, 0.05), ("P2", 3, 0.04))
    one, many = amount(each, 1, parts, loss), amount(each, pieces, parts, loss)
    assert many.net_ml == pytest.approx(pieces * one.net_ml)
    assert many.gross_ml == pytest.approx(many.net_ml * (1 + loss))
    once = 2 * 0.05 + 3 * 0.04
    assert many.gross_ml - 1e-6 <= many.mixed_ml < many.gross_ml + once
    (_, first), (_, second) = many.drops
    assert first * 3 == second * 2  # its ratio is kept


def test_a_set_of_nothing_is_refused():
    with refusing("one piece at least, and one paint"):
        amount(1.0, 0, (("P1", 1, 0.05),))
    with refusing("loss"):
        amount(1.0, 1, (("P1", 1, 0.05),), 9.0)


def test_what_a_set_takes_of_each_paint_and_of_what_is_mixed_for_it():
    red = ShelfPaint(
        "Red", swatch=Swatch(Lab(46, 52, 32), Lab(40, 42, 25)), source="typed", pots=(Pot("p1", "", 0.4),)
    )
    white = ShelfPaint("White", swatch=Swatch(Lab(93), Lab(88)), source="typed", drop_ml=0.04)
    taken = replace(white.as_paint, code="C-1")
    layers = (
        begun("base", "b1"),
        replace(begun("fade", "f1"), paint=taken),
        replace(begun("fade", "f2"), paint=taken),
        replace(begun("bars", "x1"), paint=replace(red.as_paint, code="W-1")),
        begun("eyes", "e1"),
    )
    design = bait(layers=layers)
    recipe = {"W-1": (RecipePart("r1", "C-2", 3), RecipePart("r2", "C-1", 2))}
    rows = needed(design, 5, 0.1, {"C-1": white, "C-2": red}, recipe)
    by_cup = {cup.layer.key: cup.wet_ml for cup in cups(design)}
    base, fades, bars = rows
    assert base.amount.net_ml == pytest.approx(5 * by_cup["b1"]) and base.pigments == ()
    assert fades.amount.net_ml == pytest.approx(5 * (by_cup["f1"] + by_cup["f2"]))
    (pigment,) = fades.pigments
    assert pigment.ml == pytest.approx(0.04 * pigment.drops) and pigment.ml >= fades.amount.gross_ml
    assert pigment.left_ml is None and pigment.lacks_ml == 0.0
    first, second = bars.pigments
    assert first.drops * 2 == second.drops * 3 and bars.amount.mixed_ml == pytest.approx(first.ml + second.ml)
    many = needed(design, 500, 0.1, {"C-1": white, "C-2": red}, recipe)[2].pigments[0]
    assert many.lacks_ml == pytest.approx(many.ml - 0.4) and many.lacks_ml > 0


def test_a_paint_on_the_shelf_is_taken_with_its_looks():
    swatch = Swatch(Lab(60.0, 30.0, 20.0), Lab(40.0, 15.0, 10.0), film_um=18.0)
    paint = ShelfPaint(
        "Rust",
        "transparent",
        swatch=swatch,
        source="reader",
        pots=(Pot("p1", "A", 12.0), Pot("p2", "B", 5.0)),
    )
    taken = paint.as_paint
    assert taken.swatch == swatch and taken.swatch_um == 18.0 and taken.kind == "transparent"
    assert taken.colour == hex_of_lab(swatch.white.row) and 30 < taken.covering_percent < 50
    assert paint.left_ml == 17.0 and paint.mixes
    assert not replace(paint, kind="glitter").mixes and not replace(paint, source="guessed").mixes
    assert replace(paint, source="guessed").as_paint.swatch is None
    with refusing("name the paint, as on its pot"):
        replace(paint, name=" ")
    with pytest.raises(Refused):
        replace(paint, pots=(Pot("p1"), Pot("p1")))


def test_of_a_long_shelf_the_planted_pair_is_found_among_the_likely():
    many = [
        replace(one, code=f"{one.code}-{n}", s_um=one.s_um * (1 + 0.07 * n))
        for n in range(2)
        for one in TINTS[:20]
    ]
    wanted = lab_from(lab_mixed((many[3], many[8]), (3, 1), GROUND))
    rows = matches(wanted, many, GROUND)
    assert min(row.off for row in rows) < 0.1 and max(len(row.parts) for row in rows) == 3


def test_a_paint_with_larger_drops_counts_for_more():
    large = [replace(one, drop_ml=0.12 if n == 1 else 0.05) for n, one in enumerate(TINTS[:4])]
    wanted = lab_from(lab_mixed((large[0], large[1]), (3, 1), GROUND))
    row = next(one for one in matches(wanted, large, GROUND, most=40) if one.parts == (("P0", 3), ("P1", 1)))
    assert row.off < 0.05
