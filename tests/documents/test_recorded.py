"""What is refused, in which words, and what a change is called: as recorded (see tests/recorded)."""

import json

from tests.recorded.edits import SAID, all_said


def test_of_every_figure_the_same_is_said_as_was():
    was = [json.loads(line) for line in SAID.read_text(encoding="utf-8").splitlines()]
    now = all_said()
    off = [
        f"{one['document']} {path}: {one['said'].get(path)} → {other['said'].get(path)}"
        for one, other in zip(was, now, strict=True)
        for path in sorted({*one["said"], *other["said"]})
        if one["said"].get(path) != other["said"].get(path)
    ]
    assert off == []
    assert [one["note"] for one in was] == [other["note"] for other in now]
    assert sum(bool(text) for one in was for texts in one["said"].values() for text in texts) > 300
