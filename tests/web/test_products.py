"""Products over the web: what stands on a tin is edited live, kept as revisions, undone, copied, refused
beside its field.
"""

import json

import pytest

from tests import demo_rows
from tests.lean import state

PAGE = f"/mixes/products/{demo_rows.CASTING_RESIN}"


def live(shop, *edits, page=PAGE, **more):
    held = state(shop, page)
    sent = {"document": held["document"], "base": held["base"], "edits": list(edits), "save": True, **more}
    return shop.send(f"{page}/live", sent)


def set_to(path, text):
    return {"do": "set", "path": path, "text": text}


def test_a_tin_is_changed_and_every_step_can_be_undone(demo):
    was = state(demo, PAGE)
    answer = live(
        demo,
        set_to("pot_life_min", "330 s"),
        set_to("demould_h", "45 min"),
        set_to("parts.p1.figure", "2"),
        {"do": "add"},
        set_to("parts.p3.name", "catalyst"),
        set_to("basis", "mass"),
    ).get_json()
    assert answer["errors"] == [] and answer["base"] == was["base"] + 1
    now = state(demo, PAGE)
    fields = now["view"]["fields"]
    assert (fields["pot_life_min"], fields["demould_h"], fields["parts.p1.figure"]) == (
        "330 s",
        "45 min",
        "2",
    )
    assert [row["share"] for row in now["view"]["parts"]] == [
        "50.0 %",
        "25.0 %",
        "25.0 %",
    ]
    assert "Isocyanates" in now["view"]["caution"]
    assert now["view"]["sentence"] == "2:1:1 by mass." and "catalyst" in json.dumps(now["view"]["picture"])
    assert live(demo, {"do": "remove", "group": "parts", "key": "p3"}).get_json()["errors"] == []
    undone = demo.send(f"{PAGE}/undo", {"base": answer["base"] + 1}).get_json()
    assert undone["base"] == answer["base"]
    demo.send(f"{PAGE}/undo", {"base": answer["base"]})
    assert state(demo, PAGE)["document"] == was["document"]


@pytest.mark.parametrize(
    ("path", "text", "says"),
    [
        ("pot_life_min", "soon", "type a"),
        ("cure_h", "10 min", "cannot come before demoulding"),
        ("reference_c", "20", "unit is missing"),
    ],
)
def test_what_cannot_stand_on_a_tin_is_told_and_changes_nothing(demo, path, text, says):
    base = state(demo, PAGE)["base"]
    answer = live(demo, set_to(path, text)).get_json()
    assert says in answer["errors"][0]["says"].lower() and answer["errors"][0]["field"] == path
    assert state(demo, PAGE)["base"] == base


def test_the_last_part_stays_and_a_fourth_is_refused(demo):
    both = [{"do": "remove", "group": "parts", "key": key} for key in ("p1", "p2")]
    assert "one to three parts" in live(demo, *both).get_json()["errors"][0]["says"]
    assert "one to three parts" in live(demo, *3 * [{"do": "add"}]).get_json()["errors"][-1]["says"]


def test_a_second_tab_is_told_and_a_copy_is_its_own(demo):
    assert live(demo, set_to("name", "Other resin")).status_code == 200
    assert live(demo, set_to("name", "Third"), base=1).status_code == 409
    copied = demo.post(f"{PAGE}/copy").headers["Location"]
    assert state(demo, copied)["document"]["name"] == "Other resin copy"
    live(demo, set_to("gel_min", "30 min"), page=copied)
    assert state(demo, PAGE)["document"]["gel_min"] != 30.0


def test_a_product_kept_before_its_parts_had_keys_is_shown_and_edited(demo):
    document = state(demo, PAGE)["document"]
    parts = [{name: value for name, value in row.items() if name != "key"} for row in document["parts"]]
    answer = live(demo, set_to("parts.p2.figure", "3"), document={**document, "parts": parts}).get_json()
    assert answer["errors"] == [] and answer["document"]["parts"][1]["figure"] == 3.0
