"""What documents refuse, and what is said of it: every rule has a sentence, and every sentence a rule."""

import ast
from collections.abc import Iterator
from pathlib import Path
from string import Formatter

import pytest

import lamsik.core
import lamsik.documents
from lamsik.core.errors import Refused, Within, finite_between, rule
from lamsik.core.quantities import INCHES, METRIC, saying
from lamsik.words import refusals
from lamsik.words.refused import REFUSALS

ROOMS = (lamsik.core, lamsik.documents)
SAYS_WHY = {"Refused": 2, "require": 3}


def calls() -> Iterator[tuple[str, ast.Call]]:
    ours = (path for room in ROOMS for path in Path(room.__path__[0]).rglob("*.py"))
    for path in sorted(ours):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if isinstance(node, ast.Call) and isinstance(node.func, ast.Name):
                yield f"{path.name}:{node.lineno}", node


def names_of(given: ast.expr) -> list[str]:
    """The names a rule or a finding may have, as they stand where it is made."""
    if isinstance(given, ast.IfExp):
        return names_of(given.body) + names_of(given.orelse)
    return [given.value] if isinstance(given, ast.Constant) else []


def fields_of(sentence: str) -> set[str]:
    return {field for _, field, _, _ in Formatter().parse(sentence) if field}


def test_every_rule_has_its_sentence_with_the_values_it_holds_and_the_other_way_round():
    broken = {}
    for where, call in calls():
        if call.func.id == "rule":
            held = {word.arg for word in call.keywords if word.arg}
            for name in names_of(call.args[0]):
                assert broken.setdefault(name, held) == held, where
    asked = {name: fields_of(says) for name, says in {**REFUSALS, **refusals.RULES}.items()}
    assert broken == asked


def test_core_and_documents_refuse_by_rule_and_never_in_words():
    texts = [
        where
        for where, call in calls()
        if call.func.id in SAYS_WHY
        and any(isinstance(one, ast.Constant | ast.JoinedStr) for one in call.args[SAYS_WHY[call.func.id] :])
    ]
    assert texts == []


@pytest.mark.parametrize(
    ("limits", "choice", "says"),
    [
        (Within(0.5, 300.0, "mm"), METRIC, "allowed is 0.5 to 300 mm"),
        (Within(12.7, 254.0, "mm"), INCHES, "allowed is 1/2 to 10 in"),
        (Within(0.0, 5.0, "g"), INCHES, "allowed is 0 to 0.1764 oz"),
        (Within(-20.0, 40.0, "°C"), INCHES, "allowed is −4 to 104 °F"),
        (Within(-1.0, 1.0), INCHES, "allowed is -1 to 1"),
    ],
)
def test_a_range_is_said_in_the_shops_unit(limits, choice, says):
    with saying(choice):
        assert refusals.allowed(Refused("x", 1, limits)) == says


def test_it_is_said_beside_its_field_in_a_line_of_its_own_and_for_a_script():
    refused = Refused("body.length_mm", 900.0, rule("rows", least=1, most=4))
    assert refusals.beside(refused) == "900 cannot be used: 1 to 4 rows."
    assert refusals.says(refused) == "Body length: 900; 1 to 4 rows."
    assert refusals.line(refused) == "body.length_mm: got 900; 1 to 4 rows"
    assert refusals.beside(Refused("x", None, rule("a-text"))) == "A text is needed."
    with pytest.raises(Refused) as far:
        finite_between("x_mm", 7000, 0.0, 50.8, "mm")
    with saying(INCHES):
        assert refusals.says(far.value) == "X: 275.591 in; allowed is 0 to 2 in."
