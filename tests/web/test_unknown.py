"""Names and numbers of what the shop does not have: refused with a sentence on every bench, never taken
for something else, never kept.
"""

import json

import pytest

from tests.demo_rows import (
    FERRY_RUNNER,
    MUDLARK_FOAM_PAIR,
    ORDER_FERRY_RUNNER_90,
    PIECE_LITTLE_GLIDER,
    REED_STICK_2_G,
    STUBBY_FOUR_AT_ONCE,
    TENCH_ANTENNA_2_5_G,
    WEED_TADPOLE_SOFT,
)

NONE = "99999"


class TestFloats:
    def live(self, shop, path, text):
        document = json.loads(shop.get(f"/floats/{TENCH_ANTENNA_2_5_G}/float.json").data)
        return shop.send(
            f"/floats/{TENCH_ANTENNA_2_5_G}/live",
            {"bench": "floats", "document": document, "edits": [{"do": "set", "path": path, "text": text}]},
        ).json

    @pytest.mark.parametrize(("path", "text"), [("shots", "cannon balls"), ("telltale", "No 99")])
    def test_shots_the_shop_has_not_are_refused(self, demo, path, text):
        answer = self.live(demo, path, text)
        assert "one of" in answer["errors"][0]["message"] and answer["document"][path] != text

    def test_none_and_a_shot_of_the_table_are_taken(self, demo):
        assert self.live(demo, "telltale", "")["document"]["telltale"] == ""
        assert self.live(demo, "telltale", "No 10")["errors"] == []

    def test_a_float_from_elsewhere_says_which_shots_are_missing(self, demo):
        document = json.loads(demo.get(f"/floats/{TENCH_ANTENNA_2_5_G}/float.json").data) | {
            "shots": "cannon balls"
        }
        view = demo.send(
            f"/floats/{TENCH_ANTENNA_2_5_G}/live", {"bench": "floats", "document": document, "edits": []}
        ).json["view"]
        assert "no shot table cannon balls" in view["trouble"] and "in the box" in view["shotting"]
        document |= {"shots": "Weighed shot", "telltale": "No 99"}
        assert (
            "no No 99"
            in demo.send(
                f"/floats/{TENCH_ANTENNA_2_5_G}/live", {"bench": "floats", "document": document, "edits": []}
            ).json["view"]["trouble"]
        )


@pytest.mark.parametrize(
    ("url", "says"),
    [
        ("/mixes?product=99999&net=10+ml", "that product is not in the shop"),
        ("/mixes?product=silicone&net=10+ml", "that product is not in the shop"),
        (f"/moulds/{MUDLARK_FOAM_PAIR}/cast?product=99999", "that product is not in this shop"),
        (f"/moulds/{STUBBY_FOUR_AT_ONCE}/cast?filler=sawdust&density=0.8", "one of hollow microspheres"),
        (f"/moulds/{STUBBY_FOUR_AT_ONCE}/cast?filler=sawdust&match=1", "one of hollow microspheres"),
        ("/scale/things/3?to=0+g&water=Lethe", "one of as weighed"),
        ("/scale/things/3?to=0+g&metal=cheese", "one of"),
    ],
)
def test_a_question_about_what_is_not_there_is_refused_where_it_was_asked(demo, url, says):
    answer = demo.get(url)
    assert answer.status_code == 422 and says in answer.text.lower() and "problem" in answer.text


@pytest.mark.parametrize(
    ("field", "value", "says"),
    [
        ("instrument", NONE, "that scale is not in Stores"),
        ("float", NONE, "that float is not in the shop"),
        ("water_id", NONE, "that water is not in Stores"),
        ("water_id", "sea", "that water is not in Stores"),
        ("stage", "polished", "one of"),
        ("kind", "boat", "one of"),
    ],
)
def test_a_weighing_names_what_there_is(demo, field, value, says):
    sent = {"name": "Plug", "kind": "other", "air": "12 g", field: value}
    answer = demo.post("/scale", sent, page="/scale")
    assert answer.status_code == 422 and says.lower() in answer.text.lower()


@pytest.mark.parametrize(
    ("url", "sent"),
    [
        ("/mixes/weigh", {"product": NONE, "net": "10 ml"}),
        ("/mixes/weigh", {"product": "5", "net": "10 ml", "mould": NONE}),
        ("/pieces/start", {"design": NONE}),
        ("/pieces/start", {"design": str(FERRY_RUNNER), "line": NONE}),
        (f"/pieces/{PIECE_LITTLE_GLIDER}/weigh", {"instrument": NONE, "target": "blank", "mass": "5 g"}),
        (f"/orders/{ORDER_FERRY_RUNNER_90}/line/{ORDER_FERRY_RUNNER_90}/design", {"design": NONE}),
        ("/moulds/new/body", {"body": NONE}),
        ("/moulds/new/weighed", {"thing": NONE}),
        ("/shapes/new", {"form": "submarine", "name": "U"}),
        ("/floats/new", {"kind": "buoy"}),
        ("/scale/connect", {"url": "", "baud": "9600", "unit": "", "step": "0.01 g", "instrument": NONE}),
    ],
)
def test_what_is_begun_names_what_there_is(demo, url, sent):
    answer = demo.post(url, sent)
    assert 400 <= answer.status_code < 500, (answer.status_code, answer.headers.get("Location"))


@pytest.mark.parametrize(("name", "text"), [("mould_product", "M-999"), ("casting_product", "M-999")])
def test_a_mould_takes_products_of_the_shop(demo, name, text):
    state = json.loads(demo.get(f"/moulds/{MUDLARK_FOAM_PAIR}/mould.json").data)
    answer = demo.send(
        f"/moulds/{MUDLARK_FOAM_PAIR}/live",
        {"bench": "moulds", "document": state, "edits": [{"do": "set", "path": name, "text": text}]},
    ).json
    assert "one of" in answer["errors"][0]["message"] and answer["document"][name] == state[name]


@pytest.mark.parametrize("sent", [{"order": NONE}, {"product": NONE}])
def test_a_pour_for_what_is_not_there_is_not_begun(demo, sent):
    before = demo.get("/moulds").text.count("/pours/")
    answer = demo.post("/pours/begin/53", sent, follow_redirects=True)
    assert "not in the shop any more" in answer.text or "one of" in answer.text
    assert demo.get("/moulds").text.count("/pours/") == before


def test_a_refusal_names_what_is_wrong_where_it_was_typed(demo):
    """Moved down, a part leaves a mark above the top: not the typed foot is out of reach but the mark."""
    document = json.loads(demo.get(f"/floats/{REED_STICK_2_G}/float.json").data)
    edits = [{"do": "set", "path": "parts.body.foot_mm", "text": "-30 mm"}]
    [error] = demo.send(
        f"/floats/{REED_STICK_2_G}/live", {"bench": "floats", "document": document, "edits": edits}
    ).json["errors"]
    assert error["field"] == "parts.body.foot_mm" and error["message"].startswith(
        "Mark shoulder: 137.695; allowed is"
    )


def test_an_edit_that_leaves_nothing_to_show_is_refused_and_the_rest_stays(demo):
    """So long that its tip stands out of every drawing: said beside the length, and the page goes on with
    what was there.
    """
    document = json.loads(demo.get(f"/floats/{TENCH_ANTENNA_2_5_G}/float.json").data)
    edits = [{"do": "set", "path": "parts.body.length_mm", "text": "900 mm"}]
    answer = demo.send(
        f"/floats/{TENCH_ANTENNA_2_5_G}/live",
        {"bench": "floats", "document": document, "edits": edits, "save": True, "base": 1},
    )
    assert (
        answer.status_code == 200
        and answer.json["errors"][0]["field"] == "parts.body.length_mm"
        and answer.json["document"] == document
    )


def test_what_is_refused_of_a_field_that_is_not_there_is_said_all_the_same(demo):
    """A density typed for a filled casting, then another material: nothing on its form shows that field."""
    text = demo.get(f"/moulds/{WEED_TADPOLE_SOFT}/cast?density=thick&heat=long").text
    assert text.count('class="problem"') == 1
