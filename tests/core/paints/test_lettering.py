"""Letters as strokes: what is ink, read from the side it is on, and what has no strokes is a box."""

import string
from dataclasses import replace
from math import pi

import numpy as np
import pytest

from lamsik.core.paints import lettering
from lamsik.core.paints.layers import begun
from lamsik.core.paints.look import looks
from lamsik.core.paints.masks import mask
from lamsik.core.paints.place import Along, Anchors, Place, Round
from lamsik.core.paints.skin import FINE, skin_of
from tests.bodies import bait

TALL = lettering.STROKE
BODY = bait().body
WORDS = Place(
    shape="letters",
    begins=Along(at_percent=50.0),
    top=Round(at_percent=50.0),
    size_percent=0.0,
    size_mm=6.0,
    words="L",
)


def capsule(long, wide=lettering.STROKE):
    return long * wide + pi * wide**2 / 4


def test_what_is_ink_has_the_area_of_its_strokes():
    assert lettering.area("I") == pytest.approx(capsule(1.0), rel=0.005)
    assert lettering.area("-") == pytest.approx(capsule(0.5), rel=0.005)
    assert lettering.area(".") == pytest.approx(pi * TALL**2 / 4, rel=0.01)
    corner = capsule(1.0) + capsule(2 / 3) - (pi * TALL**2 / 4 * 3 / 4 + TALL**2 / 4)
    assert lettering.area("L") == pytest.approx(corner, rel=0.005)


def test_every_sign_stands_in_its_line_and_small_letters_are_small_capitals():
    for sign in string.ascii_uppercase + string.digits + ".,:-/+#&'()!?*=":
        rows = np.vstack(lettering.strokes(sign))
        assert lettering.can_write(sign)
        assert np.abs(rows[:, 1]).max() <= 0.5 + 1e-9
        assert np.ptp(rows[:, 0]) <= 4 / 6 + 1e-9
        assert lettering.area(sign) > 0
    tall, small = (np.vstack(lettering.strokes(sign))[:, 1] for sign in "Hh")
    assert np.ptp(small) == pytest.approx(lettering.SMALL * np.ptp(tall)) and np.ptp(small) < np.ptp(tall)
    assert np.vstack(lettering.strokes("Ä"))[:, 1].max() > 0.5
    assert len(lettering.strokes("Å")) == len(lettering.strokes("A")) + 1
    assert lettering.width("No. 12") > lettering.width("No.") > lettering.width("")


def test_what_there_are_no_strokes_for_is_a_box_of_so_much_ink():
    assert not lettering.can_write("鮎")
    assert lettering.area("鮎") == pytest.approx(lettering.BOX_WIDE, rel=0.01)
    assert lettering.ink_share("鮎") < 1.0 == lettering.ink_share("A")


@pytest.mark.parametrize("words", ["L", "No. 12", "M/K"])
def test_the_ink_on_a_body_is_the_ink_of_the_words(words):
    skin = skin_of(BODY, FINE)
    covers = mask(replace(WORDS, words=words, size_mm=7.0), skin, Anchors())
    for sheet in skin.sides:
        taken = float((covers[sheet.name] * sheet.area_mm2).sum())
        assert taken == pytest.approx(49.0 * lettering.area(words), rel=0.005)


def test_words_are_read_from_either_side():
    skin = skin_of(BODY, FINE)
    covers = mask(WORDS, skin, Anchors())
    upright = {}
    for sheet in skin.sides:
        upper = covers[sheet.name] * (sheet.way_mm < sheet.girth_mm / 2)
        upright[sheet.name] = float((upper.sum(axis=1) @ sheet.x_mm[:, 0]) / upper.sum())
    # an L stands on its left: towards the nose seen from the left, towards the tail seen from the right
    assert upright["left"] < BODY.length_mm / 2 - 1.0 and upright["right"] > BODY.length_mm / 2 + 1.0


def test_words_are_in_the_picture_of_a_side():
    base = replace(begun("base", "b1"), place=Place())
    ink = replace(begun("lettering", "w1"), place=replace(WORDS, words="LL"))
    bare, lettered = (looks(rows, BODY, Anchors())[0].colour for rows in ((base,), (base, ink)))
    changed = np.abs(bare - lettered).max(axis=-1) > 0.05
    assert 0.001 < changed.mean() < 0.05
    left, right = looks((base, ink), BODY, Anchors())
    assert left is not right
