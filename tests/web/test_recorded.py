"""Two hundred documents show what they showed when they were recorded: figures, words, warnings, answers."""

import pytest

from tests.conftest import sampled
from tests.recorded import apart, recorded, shown

ROWS = list(enumerate(recorded()))
AT_ONCE, ONE_IN = 5, 8


def test_there_are_documents_of_every_kind():
    kinds = {
        document["format"]: sum(row[0]["format"] == document["format"] for _, row in ROWS)
        for _, (document, _) in ROWS
    }
    assert (
        len(ROWS) == 200
        and min(kinds.values()) >= 40
        and set(kinds) == {"lamsik-body", "lamsik-float", "lamsik-mould"}
    )


@pytest.mark.parametrize("start", sampled(range(0, 200, AT_ONCE), ONE_IN))
def test_each_shows_what_it_showed(demo, start):
    off = [
        f"{at}{where}"
        for at, (document, was) in ROWS[start : start + AT_ONCE]
        for where in apart(was, shown(demo, document, at))
    ]
    assert off == []


@pytest.mark.parametrize(
    ("was", "now", "same"),
    [
        ("6 cm/s", "7 cm/s", True),
        ("6 cm/s", "8 cm/s", False),
        ("−0.15 g", "0.15 g", False),
        ("a 1", "b 1", False),
        (12.3, 12.3005, True),
        (12.3, 12.31, False),
        ([1], [1, 2], False),
        (None, 0, False),
    ],
)
def test_what_counts_as_the_same(was, now, same):
    assert (list(apart({"x": was}, {"x": now})) == []) is same
