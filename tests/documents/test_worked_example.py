"""The worked example of docs/a-kind-of-document.md does what the page says."""

import json
import re
from pathlib import Path

import pytest

from lamsik.documents import engine
from lamsik.documents.registry import KINDS
from lamsik.formats import document_file
from lamsik.store import documents
from tests.refusing import refusing

PAGE = Path(__file__).parents[2] / "docs/a-kind-of-document.md"
CODE = re.search(r"```python\n(.*?)```", PAGE.read_text(encoding="utf-8"), re.S)[1]


def run(code):
    room = {"__name__": "lamsik.documents.cards"}
    exec(compile(code, str(PAGE), "exec"), room)  # noqa: S102
    return room


def test_a_kind_is_kept_edited_undone_and_filed_from_eighty_lines(session, monkeypatch):
    assert len(CODE.splitlines()) <= 80
    room = run(CODE)
    kind = room["CARD"]
    monkeypatch.setitem(KINDS, kind.name, kind)
    row = documents.begin(session, "card", room["blank"]("Dip and hang"))
    assert row.code == "C-001"
    edits = (
        {"do": "add"},
        {"do": "set", "path": "steps.s1.says", "text": "Stir slowly"},
        {"do": "set", "path": "steps.s1.time_min", "text": "12"},
    )
    content = documents.content(session, row)
    for edit in edits:
        content = engine.apply(kind, content, edit, None)
        documents.save(session, row, content, row.current)
    again = document_file.read(kind, document_file.write(kind, content).encode())
    assert room["card_of"](again).steps == (room["Step"]("s1", "Stir slowly", 12.0),)
    assert documents.undo(session, row) and documents.content(session, row)["steps"][0]["time_min"] == 5.0
    with refusing("say what is done"):
        engine.apply(kind, content, {"do": "set", "path": "steps.s1.says", "text": " "}, None)
    assert engine.apply(kind, content, {"do": "remove", "group": "steps", "key": "s1"}, None)["steps"] == []


def test_a_field_more_is_one_place():
    last = '    time_min: Annotated[float, Between(0, 10_000, "min")] = 5.0\n'
    room = run(CODE.replace(last, f'{last}    film_um: Annotated[float, Between(0, 900, "µm")] = 0.0\n'))
    content = engine.apply(room["CARD"], room["blank"]("Dip"), {"do": "add"}, None)
    edit = {"do": "set", "path": "steps.s1.film_um", "text": "2 mil"}
    content = engine.apply(room["CARD"], content, edit, None)
    assert content["steps"][0]["film_um"] == pytest.approx(50.8) and content["typed"] == {
        "steps.s1.film_um": "2 mil"
    }
    assert json.loads(document_file.write(room["CARD"], content))["steps"][0]["film_um"] == pytest.approx(
        50.8
    )
