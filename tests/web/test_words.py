"""Words that the Handbook explains, in sentences."""

import pytest
from markupsafe import Markup

from lamsik.web.shared.context import explained
from lamsik.words.handbook import MEANINGS, first_word, meaning


@pytest.mark.parametrize(
    ("text", "word"),
    [
        ("Roll recovery under water", "Roll recovery"),
        ("GM afloat", "GM"),
        ("BG under water", "BG"),
        ("the longest Righting arm", "Righting arm"),
        ("Balsa", None),
        ("BGM and GMT", None),
        ("a G or a B alone is too short to find", None),
    ],
)
def test_the_first_word_that_is_explained(text, word):
    found = first_word(text)
    assert (found and found[0]) == word
    if found:
        assert text[found[1] : found[2]] == word


def test_a_text_is_escaped_around_its_word():
    shown = explained("<b>PSU</b> & more")
    assert isinstance(shown, Markup)
    assert shown.startswith("&lt;b&gt;<button") and shown.endswith("</button>&lt;/b&gt; &amp; more")
    assert shown.count("<button") == 1


def test_a_figure_has_the_meaning_of_its_word():
    assert meaning("Pitch hanging") == MEANINGS["Pitch"]
    assert meaning("Carved blank") == ""
