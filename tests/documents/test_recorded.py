"""What is refused, in which words, and what a change is called: as recorded (see tests/recorded)."""

import json

import pytest

from tests.conftest import sampled
from tests.recorded.edits import SAID, documents, said_of, telling

WAS = [json.loads(line) for line in SAID.read_text(encoding="utf-8").splitlines()]


def test_every_figure_has_its_document():
    assert [one["document"] for one in WAS] == telling(documents())
    assert sum(bool(text) for one in WAS for texts in one["said"].values() for text in texts) > 300


@pytest.mark.parametrize("was", sampled(WAS, 5), ids=lambda one: str(one["document"]))
def test_of_every_figure_the_same_is_said_as_was(was):
    now = said_of(was["document"])
    off = [
        f"{path}: {was['said'].get(path)} → {now['said'].get(path)}"
        for path in sorted({*was["said"], *now["said"]})
        if was["said"].get(path) != now["said"].get(path)
    ]
    assert off == [] and now["note"] == was["note"]
