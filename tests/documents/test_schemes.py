"""Schemes as documents: what earlier versions wrote is raised, a locked layer stays as it is."""

from dataclasses import replace

import pytest

from lamsik.core.errors import Refused
from lamsik.core.paints.job import changes
from lamsik.core.paints.kinds import KINDS
from lamsik.core.paints.layers import begun
from lamsik.core.paints.paint import Paint
from lamsik.core.paints.place import Place
from lamsik.documents.body.edits import BODY
from lamsik.documents.engine import apply
from lamsik.documents.schemes.document import SCHEME, blank, job_of, layers_of, of_layers, read
from lamsik.words import paints, refusals
from tests.documents.before import layer_of_2
from tests.documents.test_body import full
from tests.refusing import refusing

OLD = ("seal", "primer", "base", "fade", "bars", "spots", "eyes", "clear")
SCHEME_OF = of_layers("Perch", [begun(kind, f"{kind}1") for kind in OLD])
LAYER = "layers.bars1"


def edited(document, *edits):
    for edit in edits:
        document = apply(SCHEME, document, edit, None)
    return document


def test_layers_at_a_typed_share_are_raised_to_shapes():
    before = {
        **SCHEME_OF,
        "version": 2,
        "layers": [layer_of_2(row) for row in SCHEME_OF["layers"]],
        "typed": {},
    }
    now = [{**row, "cure_h": None} for row in SCHEME_OF["layers"]]
    assert SCHEME.brought_in(before)["layers"] == now
    mist = layer_of_2(SCHEME_OF["layers"][2])
    mist["place"] |= {"cover_share": 0.6, "edge_share": 0.25, "side": "left"}
    place = layers_of(SCHEME.brought_in({**before, "layers": [mist]}))[0].place
    assert (place.cover_percent, place.edge_percent, place.side) == (60.0, 25.0, "left")
    fade = layer_of_2(SCHEME_OF["layers"][3])
    fade["place"] |= {"reach_share": 0.7, "cover_share": 0.2}
    place = layers_of(SCHEME.brought_in({**before, "layers": [fade]}))[0].place
    assert (place.bottom.at_percent, place.cover_percent) == (70.0, 100.0)


def test_marks_that_were_never_counted_stay_as_they_were_drawn():
    rows = [layer_of_2(row) for row in SCHEME_OF["layers"] if row["kind"] in ("bars", "spots")]
    for row in rows:
        row["place"]["count"] = 0
    raised = SCHEME.brought_in({**SCHEME_OF, "version": 2, "layers": rows, "typed": {}})
    assert [row["place"]["count"] for row in raised["layers"]] == [6, 9]


@pytest.mark.parametrize(
    "broken", ["all", [7], [{"key": "a"}], [{**layer_of_2(SCHEME_OF["layers"][0]), "place": 3}]]
)
def test_what_no_version_wrote_is_refused(broken):
    with pytest.raises(Refused):
        SCHEME.brought_in({**SCHEME_OF, "version": 2, "layers": broken})


def test_a_body_keeps_what_was_otherwise_on_it():
    before = full()
    typed = {
        "layers.fade1.place.reach_share": "0.4",
        "layers.base1.place.count": "3",
        "body.length_mm": "90 mm",
    }
    raised = BODY.brought_in(
        {
            **before,
            "version": 4,
            "layers": [layer_of_2(row) for row in SCHEME_OF["layers"]],
            "typed": {**before["typed"], **typed},
            "adjustments": [
                {"layer": "fade1", "field": "place.reach_share", "value": 0.4},
                {"layer": "spots1", "field": "place.cover_share", "value": 0.4},
                {"layer": "base1", "field": "place.cover_share", "value": 0.4},
                {"layer": "base1", "field": "film_um", "value": 9.0},
                {"layer": "gone", "field": "", "value": "Gone"},
            ],
        }
    )
    assert [(row["layer"], row["field"], row["value"]) for row in raised["adjustments"]] == [
        ("fade1", "place.bottom.at_percent", 40.0),
        ("base1", "place.cover_percent", 40.0),
        ("base1", "film_um", 9.0),
        ("gone", "", "Gone"),
    ]
    assert "layers.fade1.place.reach_share" not in raised["typed"]
    assert raised["typed"]["body.length_mm"] == "90 mm" and raised["typed"]["layers.base1.place.count"] == "3"


def test_a_place_is_set_in_percent_and_millimetres_as_typed():
    after = edited(
        SCHEME_OF,
        {"do": "set", "path": f"{LAYER}.place.begins.at_percent", "text": "25"},
        {"do": "set", "path": f"{LAYER}.place.begins.more_mm", "text": "1/8 in"},
        {"do": "set", "path": f"{LAYER}.place.begins.anchor", "text": "eye"},
        {"do": "set", "path": f"{LAYER}.paint.kind", "text": "candy"},
        {"do": "set", "path": f"{LAYER}.place.shape", "text": "spots"},
    )
    bars = next(layer for layer in layers_of(after) if layer.key == "bars1")
    assert (bars.place.begins.anchor, bars.place.begins.at_percent) == ("eye", 25.0)
    assert bars.place.begins.more_mm == pytest.approx(3.175) and bars.paint.kind == "candy"
    assert bars.kind == "bars" and bars.place.shape == "spots"
    assert after["typed"][f"{LAYER}.place.begins.more_mm"] == "1/8 in"


@pytest.mark.parametrize(
    ("path", "text", "says"),
    [
        ("place.begins.at_percent", "140", "100"),
        ("place.shape", "blob", "one of region"),
        ("paint.covering_percent", "0", "2 to 99"),
        ("place.begins.anchor", "back", "one of nose"),
        ("place.top.anchor", "nose", "one of back"),
        ("place.outline", "brick", "one of leaf"),
        ("paint.kind", "mud", "one of opaque"),
    ],
)
def test_a_place_or_paint_that_cannot_be_is_told(path, text, says):
    with pytest.raises(Refused) as refused:
        edited(SCHEME_OF, {"do": "set", "path": f"{LAYER}.{path}", "text": text})
    assert says in refusals.says(refused.value)


def test_a_locked_layer_stays_as_it_is():
    locked = edited(SCHEME_OF, {"do": "flag", "path": f"{LAYER}.locked", "on": True})
    for edit in (
        {"do": "set", "path": f"{LAYER}.film_um", "text": "9"},
        {"do": "remove", "group": "layers", "key": "bars1"},
    ):
        with pytest.raises(Refused) as refused:
            edited(locked, edit)
        assert "untick Locked in its scheme first" in refusals.says(refused.value)
        with pytest.raises(Refused):  # the confirmation names another
            edited(locked, {**edit, "though": "White primer"})
        name = next(row["name"] for row in locked["layers"] if row["key"] == "bars1")
        assert edited(locked, {**edit, "though": name}) != locked
    assert edited(locked, {"do": "set", "path": "layers.base1.film_um", "text": "9"}) != locked
    free = edited(locked, {"do": "flag", "path": f"{LAYER}.locked", "on": False})
    assert edited(free, {"do": "remove", "group": "layers", "key": "bars1"})["layers"] != free["layers"]


@pytest.mark.parametrize(
    "edit",
    [
        {"do": "flag", "path": f"{LAYER}.scuff", "on": True},
        {"do": "up", "key": "bars1"},
        {"do": "shelf", "key": "bars1", "code": "C-1"},
        {"do": "set", "path": f"{LAYER}.place.begins.at_percent", "value": 31.0},
    ],
)
def test_no_way_changes_a_locked_layer_unasked_and_a_confirmation_lets_each_through(edit):
    shop = {"C-1": Paint("#112233", name="Navy")}
    locked = apply(SCHEME, SCHEME_OF, {"do": "flag", "path": f"{LAYER}.locked", "on": True}, shop)
    with pytest.raises(Refused):
        apply(SCHEME, locked, edit, shop)
    name = next(row["name"] for row in locked["layers"] if row["key"] == "bars1")
    assert apply(SCHEME, locked, {**edit, "though": name}, shop)["layers"] != locked["layers"]


def test_a_match_locks_all_keeps_what_was_and_lets_go_again():
    before = edited(SCHEME_OF, {"do": "flag", "path": "layers.base1.locked", "on": True})
    matched = edited(before, {"do": "set", "path": "match_to", "text": "the old bait"})
    assert all(row["locked"] for row in matched["layers"])
    assert job_of(matched).to == "the old bait" and job_of(before) is None
    assert changes(job_of(matched).before, read(matched)) == ()  # a lock is no change
    other = edited(matched, {"do": "set", "path": "match_to", "text": "another"})
    assert other["match_before"] == matched["match_before"]
    free = edited(matched, {"do": "flag", "path": f"{LAYER}.locked", "on": False})
    free = edited(free, {"do": "set", "path": f"{LAYER}.passes", "text": "3"})
    free = edited(free, {"do": "add", "kind": "spots"})
    free = edited(
        free, {"do": "remove", "group": "layers", "key": "eyes1", "though": named_in(free, "eyes1")}
    )
    rows = changes(job_of(free).before, read(free))
    assert [(one.parts, (one.now or one.was).key) for one in rows] == [
        (("film",), "bars1"),
        (("new",), "spots2"),
        (("gone",), "eyes1"),
    ]
    done = edited(free, {"do": "set", "path": "match_to", "text": ""})
    assert job_of(done) is None and [row["key"] for row in done["layers"] if row["locked"]] == ["base1"]
    assert not {"match_to", "match_before"} & SCHEME.filed(matched).keys()
    assert SCHEME.brought_in(SCHEME.filed(matched))["match_before"] is None


@pytest.mark.parametrize(
    ("changed", "part", "says"),
    [
        ({"paint": Paint("#102030", name="Slate (C-010)")}, "paint", "→ Slate (C-010)"),
        ({"passes": 3}, "film", "→ 3 × 10 µm dry"),
        ({"place": Place(side="left")}, "place", "it lies elsewhere"),
        ({"by": "brushed"}, "way", "→ brushed"),
        ({"wait_h": 5.0}, "waits", "→ wait 5 h"),
        ({"name": "Old bars"}, "name", "called Bars → Old bars"),
        ({"note": "thin"}, "note", "no note → thin"),
        ({"intended": "as the sample", "locked": True}, "", ""),
    ],
)
def test_each_change_of_a_layer_is_told_as_it_is_done(changed, part, says):
    was = begun("bars", "b")
    rows = changes([was], [replace(was, **changed)])
    assert [one.parts for one in rows] == ([(part,)] if part else [])
    assert not part or says in paints.changed(rows[0])


def named_in(document, key):
    return next(row["name"] for row in document["layers"] if row["key"] == key)


def test_every_kind_can_be_added_and_read_again():
    document = of_layers("All", [])
    for kind in KINDS:
        document = edited(document, {"do": "add", "kind": kind})
    assert [row["kind"] for row in document["layers"]] == list(KINDS)
    assert SCHEME.brought_in(SCHEME.filed(document))["layers"] == document["layers"]


def test_another_kind_of_paint_covers_as_its_kind_does():
    path = f"{LAYER}.paint"
    typed = edited(SCHEME_OF, {"do": "set", "path": f"{path}.covering_percent", "text": "80 %"})
    after = edited(typed, {"do": "set", "path": f"{path}.kind", "text": "candy"})
    bars = next(layer for layer in layers_of(after) if layer.key == "bars1")
    assert (bars.paint.kind, bars.paint.covering_percent) == ("candy", 12.0)
    assert f"{path}.covering_percent" not in after["typed"]


def test_another_shape_begins_as_its_kind_does_where_the_layer_was():
    place = f"{LAYER}.place"
    moved = edited(
        SCHEME_OF,
        {"do": "set", "path": f"{place}.begins.at_percent", "text": "31"},
        {"do": "set", "path": f"{place}.side", "text": "left"},
        {"do": "set", "path": f"{place}.size_percent", "text": "40 %"},
        {"do": "set", "path": f"{place}.shape", "text": "net"},
    )
    bars = next(layer for layer in layers_of(moved) if layer.key == "bars1")
    usual = begun("net", "n").place
    assert (bars.place.size_mm, bars.place.cover_percent) == (usual.size_mm, usual.cover_percent)
    assert (bars.place.begins.at_percent, bars.place.side) == (31.0, "left")
    assert moved["typed"][f"{place}.begins.at_percent"] and f"{place}.size_percent" not in moved["typed"]
    region = edited(moved, {"do": "set", "path": f"{place}.shape", "text": "region"})
    assert next(one for one in layers_of(region) if one.key == "bars1").place.count == 0


@pytest.mark.parametrize(
    ("eye", "after"),
    [("kept", ""), ("painted", "fade1"), ("moulded", "fade1"), ("flat", "fade1"), ("domed", "clear1")],
)
def test_eyes_go_on_when_their_kind_asks_for_it(eye, after):
    begins = apply(SCHEME, blank("Eyes"), {"do": "set", "path": "layers.eyes1.eye", "text": "domed"}, None)
    changed = apply(SCHEME, begins, {"do": "set", "path": "layers.eyes1.eye", "text": eye}, None)
    keys = [row["key"] for row in changed["layers"]]
    at = keys.index("eyes1")
    assert (keys[at - 1] if at else "") == after and sorted(keys) == sorted(
        row["key"] for row in begins["layers"]
    )
    with refusing("one of flat, domed"):
        apply(SCHEME, begins, {"do": "set", "path": "layers.eyes1.eye", "text": "square"}, None)
