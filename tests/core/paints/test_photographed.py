"""Colours off photos that were made up: what was painted comes back under any lamp; bad light is told."""

import numpy as np
import pytest

from lamsik.core.paints.colour import difference, linear_of_lab
from lamsik.core.paints.lab import Lab
from lamsik.core.paints.light import coded_of
from lamsik.core.paints.photographed import GREY_CARD, read_photo
from tests.refusing import refusing

BAIT = Lab(52.0, 24.0, 30.0)
CARD = ((100.0, 60.0), (200.0, 60.0), (300.0, 60.0))
POINTS = ((150.0, 220.0), (240.0, 240.0), (300.0, 210.0))


def photo(gain=(0.8, 0.8, 0.8), lift=0.0, tilt=0.0, looks=GREY_CARD, bait=BAIT, noise=0.6):
    """A card of three patches over a bait, as a camera sees them through gains, a veil and a tilted light."""
    high, wide = 320, 420
    linear = np.full((high, wide, 3), 0.3)
    for n, one in enumerate(looks):
        linear[20:100, 60 + 100 * n : 140 + 100 * n] = linear_of_lab(one.row)
    linear[160:300, 60:380] = linear_of_lab(bait.row)
    across = 1.0 + tilt * (np.arange(wide) / wide - 0.5)
    seen = linear * np.array(gain) * across[None, :, None] + lift
    coded = coded_of(seen).astype(float) + np.random.default_rng(2).normal(0, noise, seen.shape)
    return np.clip(np.rint(coded), 0, 255).astype(np.uint8)


@pytest.mark.parametrize(
    ("gain", "lift"),
    [((0.8, 0.8, 0.8), 0.0), ((0.95, 0.75, 0.45), 0.0), ((0.55, 0.62, 0.8), 0.01), ((0.3, 0.3, 0.3), 0.0)],
    ids=["daylight", "lamp", "shade through a veil", "dark"],
)
def test_what_was_painted_comes_back_under_any_lamp(gain, lift):
    told = read_photo(photo(gain, lift), CARD, POINTS)
    assert float(difference(told.look.row, BAIT.row)) < 1.0 and told.apart < 1.0
    assert 2500 <= told.lamp_k <= 10_000


def test_a_warm_lamp_is_warmer_than_the_shade():
    warm, cool = (
        read_photo(photo(gain), CARD, POINTS).lamp_k for gain in ((0.9, 0.7, 0.4), (0.6, 0.68, 0.8))
    )
    assert warm < 4500 < 6000 < cool
    assert read_photo(photo(), CARD, POINTS).lamp_k == pytest.approx(6500, rel=0.05)


def test_points_that_lie_on_two_colours_are_told_apart():
    assert read_photo(photo(), CARD, [*POINTS, (400.0, 140.0)]).apart > 10.0


@pytest.mark.parametrize(
    ("made", "card", "points", "says"),
    [
        ({"gain": (1.3, 1.3, 1.3)}, CARD, POINTS, "a white that is not burnt out"),
        ({}, CARD[:2], POINTS, "mark all three"),
        ({}, (CARD[2], CARD[1], CARD[0]), POINTS, "in this order"),
        ({}, CARD, (), "1 to 20 points on the bait"),
        ({}, CARD, ((900.0, 20.0),), "marks that lie in the picture"),
        ({"tilt": 1.2, "gain": (0.5, 0.5, 0.5)}, CARD, POINTS, "three patches agree"),
        (
            {"looks": (Lab(95), Lab(62, 6, 0), Lab(20))},
            CARD,
            POINTS,
            "a card whose three patches agree: is each mark on its patch, is it the card typed?",
        ),
        ({"gain": (0.8, 0.2, 0.8)}, CARD, POINTS, "the cast of this photo is none of a lamp"),
        ({"bait": Lab(100.0), "gain": (1.08, 1.08, 1.08)}, CARD, POINTS, "points off the shine"),
    ],
)
def test_light_that_is_wrong_is_told(made, card, points, says):
    with refusing(says):
        read_photo(photo(**made), card, points)


def test_a_card_under_two_lamps_is_told():
    picture = photo()
    picture[20:100, 60:100] = (picture[20:100, 60:100] * np.array([0.72, 0.8, 1.0])).astype(np.uint8)
    with refusing("one light all over the card"):
        read_photo(picture, ((100.0, 60.0), *CARD[1:]), POINTS)
