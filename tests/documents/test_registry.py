"""What holds of every kind of document: an edit is done or refused and never half, files and the shop give
back what they got, undo is the document before, and what pages and modules send can be done.
"""

import copy
import json
import re
from dataclasses import dataclass
from pathlib import Path

import pytest
from hypothesis import Phase, given, settings
from hypothesis import strategies as st
from jsonschema import Draft202012Validator

from lamsik.core.errors import Refused
from lamsik.core.floats.design import KINDS as FLOAT_KINDS
from lamsik.core.paints.lab import Lab
from lamsik.core.paints.shelf import Pot, ShelfPaint
from lamsik.core.paints.swatch import Swatch
from lamsik.core.paints.wanted import RecipePart, WantedColour
from lamsik.core.water import Water
from lamsik.documents import engine
from lamsik.documents.document_schema import DocumentSchema
from lamsik.documents.floats.edits import Shop
from lamsik.documents.registry import KINDS
from lamsik.documents.rows import holder_of
from lamsik.formats import document_file
from lamsik.formats.json_text import tidied
from lamsik.store import documents, references
from lamsik.store.starter_mixes import STARTERS
from lamsik.words import refusals
from tests.documents.test_body import SHOP, full
from tests.documents.test_moulds import MASTER, fresh

SOURCES = Path(__file__).parents[2] / "src/lamsik"
RUST = ShelfPaint("Rust", swatch=Swatch(Lab(48, 22, 24), Lab(30, 10, 12)), pots=(Pot("p1", "L7", 25),))
SAMPLES = {
    "body": [full()],
    "float": [KINDS["float"].begins("F", kind, Water()) for kind in FLOAT_KINDS],
    "mould": [fresh()],
    "scheme": [KINDS["scheme"].begins("Roach")],
    "product": [KINDS["product"].begins(product) for product in STARTERS],
    "shots": [KINDS["shots"].begins()],
    "blade": [KINDS["blade"].begins()],
    "paint": [KINDS["paint"].begins(RUST)],
    "match": [KINDS["match"].begins(WantedColour("Roach fin", parts=(RecipePart("r1", "C-001", 3),)))],
}
SHOPS = {"body": SHOP, "float": Shop({"sea": Water("sea", 9, 35)}), "mould": lambda _: MASTER}
EVERY = [(kind, sample) for kind, samples in SAMPLES.items() for sample in samples]
WORDS = (
    "",
    "x",
    "12 mm",
    "-3 mm",
    "0",
    "1e9",
    "½ in",
    "nan",
    "30°",
    "4.5 g",
    "press",
    "own",
    "sinks",
    "9" * 60,
)

SLOW = ("tilt", "vents", "parting", "arrange")
"""Searches over a whole mould: `TestEdits` of the moulds has them."""


def test_every_kind_is_here():
    assert set(SAMPLES) == set(KINDS)
    assert (
        len({kind.stem for kind in KINDS.values()}) == len(KINDS) == len({k.format for k in KINDS.values()})
    )


@pytest.mark.parametrize(("name", "sample"), EVERY)
def test_one_begins_whole(name, sample):
    assert KINDS[name].schema.checked(sample) and KINDS[name].value(sample, {}, SHOPS.get(name))


@pytest.mark.parametrize(
    ("name", "path", "kind", "by"),
    [(kind.name, one.path, one.kind, one.by) for kind in KINDS.values() for one in kind.refers],
)
def test_who_names_a_document_is_found(session, name, path, kind, by):
    there, other = (documents.begin(session, kind, {**SAMPLES[kind][0], "name": called}) for called in "AB")
    content = copy.deepcopy(SAMPLES[name][0])
    holder, leaf = holder_of(content, path)
    assert leaf in holder, "it has no such field"
    holder[leaf] = getattr(there, by)
    row = documents.begin(session, name, content)
    assert references.naming(session, there) == [row]
    assert references.naming(session, other) == []
    holder[leaf] = None
    documents.save(session, row, content, row.current)
    assert references.naming(session, there) == []


@pytest.mark.parametrize("kind", KINDS.values(), ids=KINDS)
def test_the_published_schema_is_that_of_the_types(kind):
    assert kind.schema.schema == json.loads(json.dumps(kind.schema.made())), "make format writes it anew"
    Draft202012Validator.check_schema(kind.schema.schema)


def names_in(value, path=""):
    """Every path that an edit can name, and some that it cannot."""
    if isinstance(value, dict):
        for name, one in value.items():
            yield f"{path}{name}"
            yield from names_in(one, f"{path}{name}.")
    elif isinstance(value, list):
        for row in value:
            if isinstance(row, dict) and "key" in row:
                yield from names_in(row, f"{path}{row['key']}.")


@st.composite
def wild(draw, kind, document):
    paths = sorted({*names_in(document), "nobody", "ballast.b9.x_mm", ""})
    keys = [path.split(".")[-2] for path in paths if path.count(".") > 1] + ["nobody"]
    anything = st.one_of(
        st.sampled_from(WORDS),
        st.none(),
        st.booleans(),
        st.floats(),
        st.integers(-5, 500),
        st.just([]),
        st.just({}),
    )
    known = {
        "path": st.sampled_from(paths),
        "group": st.sampled_from([*kind.groups, *kind.singles, "name"]),
        "key": st.sampled_from(keys),
        "line": st.sampled_from([*keys, "top", "half_width"]),
        "text": st.sampled_from(WORDS),
        "code": st.sampled_from(["tie", "lip", "lead", "shot", "S-1", "no such"]),
    }
    names = (
        "value",
        "x_mm",
        "value_mm",
        "index",
        "on",
        "count",
        "kind",
        "by",
        "name",
        "how",
        "half",
        "percent",
    )
    edit = {name: draw(st.one_of(found, anything)) for name, found in known.items() if draw(st.booleans())}
    edit |= {name: draw(anything) for name in names if draw(st.integers(0, 3)) == 0}
    return {"do": draw(st.sampled_from([name for name in kind.edits if name not in SLOW])), **edit}


@pytest.mark.parametrize("name", KINDS)
@given(data=st.data())
@settings(max_examples=60, phases=[Phase.explicit, Phase.generate])
def test_an_edit_is_done_or_refused_and_never_half(name, data):
    kind, shop = KINDS[name], SHOPS.get(name)
    document = data.draw(st.sampled_from(SAMPLES[name]))
    before = copy.deepcopy(document)
    for _ in range(2):
        try:
            after, value = engine.applied(kind, document, data.draw(wild(kind, document)), shop)
        except Refused as refused:
            assert document == before and refused.allowed
            assert re.findall(r"[\[\]{}]|\bNone\b|\bTrue\b|\bFalse\b", refusals.says(refused)) == [], (
                refusals.says(refused)
            )
        else:
            assert document == before and value is not None
            assert json.loads(json.dumps(after, allow_nan=False)) == after
            engine.applied(
                kind, after, {"do": "set", "path": "name", "text": "Again"}, shop
            ) if kind.texts else None


@pytest.mark.parametrize(("name", "sample"), EVERY)
def test_a_file_gives_back_what_it_got(name, sample):
    kind = KINDS[name]
    text = document_file.write(kind, sample)
    head = json.loads(text)
    assert (head["format"], head["version"]) == (kind.format, kind.version)
    again = document_file.read(kind, text.encode())
    assert tidied({k: v for k, v in again.items() if k != "typed"}) == tidied(
        {k: v for k, v in sample.items() if k != "typed"}
    )
    for spoiled in ({**head, "format": "other"}, {**head, "version": 99}, [], 7):
        with pytest.raises(Refused):
            document_file.read(kind, json.dumps(spoiled).encode())


@pytest.mark.parametrize(("name", "sample"), [row for row in EVERY if KINDS[row[0]].texts])
def test_undo_is_the_document_before(session, name, sample):
    row = documents.begin(session, name, sample)
    assert row.code == f"{KINDS[name].stem}-001" or row.code.startswith(f"{KINDS[name].stem}-")
    after = engine.apply(
        KINDS[name], sample, {"do": "set", "path": "name", "text": "Another"}, SHOPS.get(name)
    )
    documents.save(session, row, after, row.current)
    assert row.name == "Another" and documents.content(session, row) == after
    assert documents.undo(session, row) and documents.content(session, row) == sample
    assert documents.redo(session, row) and documents.content(session, row) == after


@dataclass(frozen=True)
class Eye:
    colour: str = "red"
    gloss: float = 0.5


@dataclass(frozen=True)
class Head:
    eye: Eye = Eye()


@dataclass(frozen=True)
class Bait:
    head: Head = Head()
    others: tuple[Head, ...] = ()
    name: str = ""


def test_what_was_thought_of_later_is_begun_however_deep_it_stands():
    schema = DocumentSchema("tests", Bait, "bait", 1, may_lack=["Eye.gloss", "Bait.name"])
    old = {"head": {"eye": {"colour": "blue"}}, "others": [{"eye": {"colour": "red"}}, {"eye": None}]}
    assert schema.brought_up(copy.deepcopy(old)) == {
        "name": "",
        "head": {"eye": {"colour": "blue", "gloss": 0.5}},
        "others": [{"eye": {"colour": "red", "gloss": 0.5}}, {"eye": None}],
    }
    assert schema.brought_up({"head": {"eye": {"gloss": 0.1}}, "name": "Perch"}) == {
        "name": "Perch",
        "head": {"eye": {"gloss": 0.1}},
    }


@pytest.mark.parametrize("deep", [300, 900])
def test_what_is_nested_without_end_is_refused_and_no_fault(deep):
    rows = json.loads("[" * deep + "]" * deep)
    for path in ("ballast", "name"):
        with pytest.raises(Refused):
            KINDS["body"].schema.checked({**full(), path: rows})


def places(value):
    """Every holder in a document with each of its names, and one it has not."""
    if isinstance(value, dict | list):
        for name in list(value) if isinstance(value, dict) else range(len(value)):
            yield value, name
            yield from places(value[name])
    if isinstance(value, dict):
        yield value, "nobody"


@pytest.mark.parametrize("name", KINDS)
@given(data=st.data())
@settings(max_examples=25, phases=[Phase.explicit, Phase.generate])
def test_what_is_no_document_is_refused_and_nothing_else(name, data):
    schema, spoiled = KINDS[name].schema, copy.deepcopy(data.draw(st.sampled_from(SAMPLES[name])))
    holder, place = data.draw(st.sampled_from([*places(spoiled)]))
    odd = (None, True, [], {}, "", "#12345G", "é" * 200, "\ud800", -1, 0.5, 3, 1e12, 10**30)
    holder[place] = data.draw(st.sampled_from(odd))
    try:
        good = schema.checked(spoiled) is not None
    except Refused:
        good = False
    assert good == Draft202012Validator(schema.schema).is_valid(schema.brought_up(spoiled))


def sent():
    """Edits that templates, modules and views send, by where and which."""
    for file in sorted(SOURCES.rglob("*")):
        if file.suffix not in (".html", ".js", ".py") or "vendor" in file.parts or "documents" in file.parts:
            continue
        ways = r"""\bdo["']?: ?["'](\w+)["']|\b(?:edit|change)\(\s*["'](\w+)["']"""
        for found in re.finditer(ways, file.read_text(encoding="utf-8")):
            yield file.relative_to(SOURCES), found[1] or found[2]


def test_every_edit_that_is_sent_can_be_done():
    rows, known = list(sent()), {name for kind in KINDS.values() for name in kind.edits}
    assert len(rows) > 60
    assert [(str(file), name) for file, name in rows if name not in known] == []
