"""Schemes over the web: edited live, kept as revisions, refused beside their field, out and in as a file."""

import io
import json

import pytest

from lamsik.core.paints.layers import begun
from lamsik.documents.schemes.document import of_layers
from tests import demo_rows as shop
from tests.lean import state

SCHEME = shop.ZANDER_CLAY
EMPTY = of_layers("x", [])
ROW = of_layers("x", [begun("bars", "a")])["layers"][0]


def live(shop, page, *edits, **more):
    held = state(shop, page)
    sent = {"document": held["document"], "base": held["base"], "edits": list(edits), "save": True, **more}
    return shop.send(f"{page}/live", sent)


@pytest.fixture
def fresh(empty):
    """The page of a new scheme."""
    return empty.post("/paints/new").headers["Location"]


def test_a_scheme_is_made_changed_and_kept_as_revisions(empty, fresh):
    edits = (
        {"do": "set", "path": "name", "text": "Mud"},
        {"do": "add", "kind": "bars"},
        {"do": "set", "path": "layers.bars1.place.count", "text": "9"},
        {"do": "set", "path": "layers.base1.film_um", "text": "1 mil"},
        {"do": "set", "path": "layers.clear1.wait_h", "text": "2 d"},
    )
    answer = live(empty, fresh, *edits).get_json()
    assert answer["errors"] == [] and answer["base"] == 2
    kept = state(empty, fresh)
    fields, names = kept["view"]["fields"], [row["key"] for row in kept["view"]["layers"]]
    assert (fields["name"], fields["layers.bars1.place.count"]) == ("Mud", "9")
    assert (fields["layers.base1.film_um"], fields["layers.clear1.wait_h"]) == ("1 mil", "2 d")
    assert names == ["seal1", "primer1", "base1", "fade1", "bars1", "eyes1", "clear1"]
    assert kept["document"]["typed"]["layers.base1.film_um"] == "1 mil"
    assert kept["document"]["layers"][-1]["window_h"] == 48.0  # never shorter than the least wait
    live(empty, fresh, {"do": "up", "key": "bars1"}, {"do": "remove", "group": "layers", "key": "eyes1"})
    assert [row["key"] for row in state(empty, fresh)["view"]["layers"]][3:] == ["bars1", "fade1", "clear1"]
    assert empty.send(f"{fresh}/undo", {"base": 3}).get_json()["base"] == 2
    assert [row["key"] for row in state(empty, fresh)["view"]["layers"]] == names


@pytest.mark.parametrize(
    ("path", "text", "says"),
    [
        ("layers.base1.film_um", "thick", "type a film thickness"),
        ("name", " ", "give the scheme a name"),
    ],
)
def test_a_bad_figure_is_told_beside_its_field_and_changes_nothing(empty, fresh, path, text, says):
    answer = live(empty, fresh, {"do": "set", "path": path, "text": text}).get_json()
    assert answer["errors"][0]["field"] == path and says in answer["errors"][0]["says"].lower()
    assert state(empty, fresh)["base"] == 1


def test_an_unknown_kind_is_refused(empty, fresh):
    answer = live(empty, fresh, {"do": "add", "kind": "glitterbomb"}).get_json()
    assert "one of seal, primer" in answer["errors"][0]["says"]


@pytest.mark.parametrize(
    "document",
    [
        None,
        7,
        {"layers": []},
        {**EMPTY, "layers": "all"},
        {**EMPTY, "layers": [{"key": "a"}]},
        {**EMPTY, "more": 1},
        {**EMPTY, "typed": []},
        {**EMPTY, "layers": [{**ROW, "place": {**ROW["place"], "count": 2.5}}]},
        {**EMPTY, "layers": 2 * [ROW]},
    ],
)
def test_what_is_no_scheme_is_refused_in_words(empty, fresh, document):
    assert live(empty, fresh, document=document).status_code == 422


def test_the_last_of_two_tabs_is_told(demo):
    page = f"/paints/{SCHEME}"
    rename = {"do": "set", "path": "name", "text": "Other clay"}
    assert live(demo, page, rename).status_code == 200
    assert live(demo, page, {**rename, "text": "Third"}, base=1).status_code == 409
    assert state(demo, page)["document"]["name"] == "Other clay"


def test_a_scheme_goes_out_and_comes_in_as_it_was(demo):
    page = f"/paints/{SCHEME}"
    data, was = demo.get(f"{page}/scheme.json").data, state(demo, page)
    copied = demo.post(f"{page}/copy").headers["Location"]
    assert state(demo, copied)["document"]["name"] == f"{was['document']['name']} copy"
    made = demo.post("/paints/bring-in", {"file": (io.BytesIO(data), "clay.json")}).headers["Location"]
    now = state(demo, made)
    assert (
        now["document"]["layers"] == was["document"]["layers"]
        and now["document"]["name"] == was["document"]["name"]
    )
    for spoiled in (b"{}", b"\x89PNG", json.dumps({**json.loads(data), "layers": [{"key": 1}]}).encode()):
        told = demo.post("/paints/bring-in", {"file": (io.BytesIO(spoiled), "x.json")}, follow_redirects=True)
        assert "It cannot be brought in." in told.text
