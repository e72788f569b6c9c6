"""Findings in words: each has a sentence, each sentence is asked for, values are said as they are."""

import ast
from datetime import date
from pathlib import Path

import pytest

import lamsik.core
from lamsik.core.findings import Grams, Known, finding
from lamsik.core.quantities import INCHES, saying
from lamsik.words import tell as told
from lamsik.words.tell import SENTENCES, capital, filled, tell, within
from tests.words.test_refusals import calls, fields_of, names_of

NOTHING = finding("insert-covered")


def test_every_finding_has_a_sentence_that_asks_for_no_more_than_it_holds():
    for where, call in calls():
        if call.func.id == "finding":
            held = {word.arg for word in call.keywords}
            for name in names_of(call.args[0]):
                assert name in SENTENCES, f"{where}: {name}"
                assert None in held or fields_of(SENTENCES[name]) <= held, f"{where}: {name}"


def test_every_sentence_is_asked_for_in_the_core():
    rooms = Path(lamsik.core.__path__[0]).rglob("*.py")
    texts = {
        node.value
        for path in rooms
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8")))
        if isinstance(node, ast.Constant) and isinstance(node.value, str)
    }
    assert set(SENTENCES) - texts == set()


def test_no_two_benches_have_a_sentence_of_the_same_name():
    benches = (
        told.castings,
        told.floats,
        told.mixes,
        told.moulds,
        told.orders,
        told.route,
        told.scale,
        told.shapes,
        told.tank,
    )
    assert sum(len(bench.SAYS) for bench in benches) == len(SENTENCES)


@pytest.mark.parametrize(
    ("sentence", "value", "says"),
    [
        ("{x:length}", 12.7, "12.7 mm"),
        ("{x:mass,,+}", 0.5, "+0.50 g"),
        ("{x:counted,hole}", 1, "1 hole"),
        ("{x:counted,batch,batches}", 3, "3 batches"),
        ("{x:* and }", (finding("ball-of", slug="shot"), None, NOTHING), "shot and covered"),
        ("{x}", (NOTHING, NOTHING), "covered, covered"),
        ("{x:^}", NOTHING, "Covered"),
        ("{x}", None, ""),
        ("{x}", Grams(2.5, 2), "2.50 g"),
        ("{x:both}", 172.0, "172 °C (342 °F)"),
        ("{x:example}", "angle", "type an angle such as 35°"),
        ("{x:%-d %b}", date(2027, 3, 4), "4 Mar"),
    ],
)
def test_a_value_is_said_as_its_sentence_asks(sentence, value, says):
    assert filled(sentence, finding("any", x=value)) == says


def test_a_sentence_is_said_in_the_units_of_who_asks_whenever_it_was_found():
    wall = finding("wall-left", wall=25.4)
    assert tell(wall) == "leaves only 25.4 mm of wall"
    with saying(INCHES):
        assert tell(wall) == "leaves only 1 in of wall"


def test_nothing_is_empty_and_a_text_stays_as_it_is():
    assert tell(None) == "" and capital("as weighed") == "As weighed" and within("Water") == "water"


def test_a_figure_is_said_as_sure_as_it_is():
    heavy = finding("as-weighed-heavy", over=Known(0.853, 0.31))
    assert tell(heavy).startswith("As weighed it is 0.9 g heavier")
