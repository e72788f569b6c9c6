"""The Tank's pages and questions: what is passed on from the core, what is refused, what is kept."""

import copy
import json
import re

import pytest

from lamsik.documents.body import edits as body_edits
from lamsik.documents.body.document import to_design
from lamsik.web.bodies import live
from tests import demo_rows as shop
from tests.kinds import body_file as loads

BAIT, GLIDER = shop.FERRY_RUNNER, shop.SLACK_WATER_GLIDER
FLOATER, STICK = shop.TOLLHOUSE, shop.REED_STICK


def document(shop, key=BAIT):
    return loads(shop.get(f"/shapes/{key}/body.json").text)


def ask(shop, key=BAIT, way="live", edits=(), **more):
    body = {
        "bench": "tank",
        "document": more.pop("document", None) or document(shop, key),
        "edits": list(edits),
        **more,
    }
    return shop.send(f"/designs/{key}/{way}", body)


def view(shop, *edits, key=BAIT, **more):
    """What the page shows in the end: of a settled answer with what it says follows."""
    first = ask(shop, key, edits=edits, **more).json
    if not first["view"].get("late"):
        return first["view"]
    return first["view"] | ask(shop, key, document=first["document"], mode="late").json["view"]


class TestLive:
    def test_hooks_changed_say_at_once_what_to_do(self, demo):
        before = view(demo)
        assert before["met"] and before["refit"] == "That is what you want of it."
        heavier = view(demo, {"do": "hooks", "code": "tre-6"})
        assert (
            not heavier["met"]
            and "too heavy" in heavier["refit"]
            and "Instead of what is in: " in heavier["refit"]
            and heavier["can_refit"]
        )
        mended = view(demo, {"do": "hooks", "code": "tre-6"}, json.loads(heavier["refit_edit"]))
        assert mended["figures"]["behaviour"] == "slow rise"

    def test_four_clear_coats(self, demo):
        one, four = view(demo), view(demo, {"do": "clear", "count": 4})
        assert (
            four["clears"] == "4"
            and float(four["figures"]["mass"].split()[0]) > float(one["figures"]["mass"].split()[0]) + 0.8
        )
        assert four["figures"]["behaviour"] != one["figures"]["behaviour"] and not four["met"]

    def test_the_verdict_comes_first_and_what_takes_longer_after_it(self, demo):
        first = ask(demo).json
        late = ask(demo, document=first["document"], mode="late").json
        assert first["view"]["sentence"] and first["view"]["waters"] and first["view"]["late"]
        assert not {"effects", "refit", "sure"} & set(first["view"]) and {
            "effects",
            "flips",
            "refit",
            "sure",
            "sure_rows",
        } <= set(late["view"])
        assert late["view"]["late"] == "" and set(late) == {
            "view"
        }  # the page may have gone on: only what was asked for is told

    def test_what_follows_is_of_the_document_that_was_sent(self, demo):
        changed = ask(demo, edits=[{"do": "hooks", "code": "tre-6"}]).json["document"]
        of_this, of_saved = (
            ask(demo, document=one, mode="late").json["view"] for one in (changed, document(demo))
        )
        assert not of_this["met"] and of_saved["met"]

    @pytest.mark.parametrize(
        ("edits", "mode"),
        [
            ([], "drag"),
            ([{"do": "set", "path": "want.pitch_deg", "text": "3°"}], "drag"),
            ([{"do": "pose", "deg": 0}], "settled"),
            ([], "late"),
        ],
    )
    def test_a_document_is_translated_once_for_an_answer(self, demo, monkeypatch, edits, mode):
        sent, made = document(demo), []
        for module in (live, body_edits):
            monkeypatch.setattr(
                module, "to_design", lambda content: made.append(content) or to_design(content)
            )
        assert ask(demo, document=sent, edits=edits, mode=mode).status_code == 200
        assert len(made) == 1

    def test_effects_flips_and_chances_come_only_once_settled(self, demo):
        settled, dragged = view(demo), view(demo, mode="drag")
        assert (
            len(settled["effects"]) >= 6
            and settled["flips"]
            and "in 100" in settled["sure"]
            and "held under water" in settled["sure"]
        )
        assert "effects" not in dragged and dragged["g"] == pytest.approx(settled["g"])

    @pytest.mark.parametrize(
        ("looks", "facing", "says"),
        [
            ("held", "side", "held from"),
            ("under", "front", "head-on"),
            ("surface", "front", "list"),
            ("surface", "side", "Ferry"),
        ],
    )
    def test_each_way_of_looking(self, demo, looks, facing, says):
        found = view(demo, looks=looks, facing=facing)
        assert (found["looks"], found["facing"]) == (looks, facing) and says in str(found["picture"])

    def test_what_sinks_is_not_shown_at_the_surface(self, demo):
        found = view(demo, key=GLIDER, looks="surface")
        assert found["looks"] == "under" and not found["can_float"]

    def test_the_trail_of_g_is_drawn(self, demo):
        found = view(demo, mode="drag", trail=[[40.0, -2.0], [41.0, -2.1], [42.0, -2.2]])
        assert "trail" in str(found["picture"])

    @pytest.mark.parametrize("trail", [[[1]], [["a", 2]], [[1, 2]] * 200, [[float("inf"), 1]]])
    def test_a_wild_trail_is_refused(self, demo, trail):
        assert ask(demo, trail=trail).status_code in (400, 422)

    def test_waters_it_must_hold_in(self, demo):
        found = view(demo, {"do": "hold", "name": "sea water"})
        row = next(w for w in found["waters"] if w["name"] == "sea water")
        assert row["on"] and row["fails"] and "sea water" in found["waters_lost"]

    def test_a_lip_trim_is_written_beside_the_revision(self, demo):
        edits = [
            {"do": "set", "path": "lip.width_mm", "text": "12 mm"},
            {"do": "set", "path": "lip.square_deg", "text": "1.5°"},
            {"do": "tie", "seat": "lip"},
        ]
        ask(demo, edits=edits, save=True, base=2)
        page = demo.get(f"/tank/{BAIT}/history").text
        assert (
            "lip: 14.0 mm wide, 16.0 mm long, 40° to the axis, square → 12.0 mm wide, 16.0 mm long, 40° to"
            " the axis, +1.5° out of square" in page
        )
        assert "line tie: on the nose" in page and "→ on the lip, 2.0 mm out" in page

    @pytest.mark.parametrize(
        ("edit", "field"),
        [
            ({"do": "set", "path": "trials.t9.mass_g", "text": "1 g"}, "trials.t9.mass_g"),
            ({"do": "set", "path": "ballast.b1.mass_g", "text": "-1 g"}, "ballast.b1.mass_g"),
            ({"do": "set", "path": "water.measured_g_cm3", "text": "0"}, "water.measured_g_cm3"),
            ({"do": "set", "path": "water.measured_g_cm3", "text": "NaN"}, "water.measured_g_cm3"),
            ({"do": "set", "path": "want.freeboard_mm", "text": "-4 mm"}, "want.freeboard_mm"),
            ({"do": "set", "path": "allowances.a1.mass_g", "text": "1 g"}, "allowances.a1.mass_g"),
            ({"do": "set", "path": "drag", "text": "0"}, "drag"),
        ],
    )
    def test_bad_input_is_said_for_its_field_and_nothing_is_lost(self, demo, edit, field):
        before = document(demo)
        answer = ask(demo, edits=[edit]).json
        assert (
            answer["errors"][0]["field"] == field
            and answer["errors"][0]["message"]
            and answer["document"] == before
        )

    @pytest.mark.parametrize(
        ("edits", "says"),
        [
            ([{"do": "set", "path": "ballast.b1.x_mm", "text": "88 mm"}], "breaks out of the body"),
            ([{"do": "set", "path": "ballast.b1.x_mm", "text": "NEAR"}], "runs into another hole"),
            (
                [
                    {"do": "cavity", "code": "lead ball 7 mm"},
                    {"do": "set", "path": "cavities.c1.x_mm", "text": "88 mm"},
                ],
                "breaks out of the body",
            ),
            ([{"do": "pour"}, {"do": "pour"}], "overlaps another pour"),
        ],
    )
    def test_what_cannot_be_built_is_said_in_its_row(self, demo, edits, says):
        other = document(demo)["ballast"][1]["x_mm"]
        edits = [
            {**edit, "text": f"{other + 2} mm"} if edit.get("text") == "NEAR" else edit for edit in edits
        ]
        assert any(says in row["trouble"] for row in view(demo, *edits)["holes"])

    def test_hooks_heavier_than_the_bait_and_a_freeboard_that_cannot_be(self, demo):
        found = document(demo)
        for row in found["hardware"]:
            if row["kind"] == "hook":
                row["mass_g"] = 60.0
        heavy = view(demo, document=found)
        assert heavy["figures"]["behaviour"] == "sinks" and "Even without ballast" in heavy["refit"]
        why = ask(demo, way="ballast", document=found).json["why"]
        assert "even without ballast" in why
        high = copy.deepcopy(document(demo, FLOATER))
        high["want"] |= {"by": "freeboard", "freeboard_mm": 120.0}
        assert "clear of the water" in view(demo, key=FLOATER, document=high)["refit"]


class TestTub:
    def test_trial_weights_become_inside_ballast_with_the_difference_explained(self, demo):
        edits = [
            {"do": "trial", "place": "belly"},
            {"do": "set", "path": "trials.t1.mass_g", "text": "1.5 g"},
            {"do": "set", "path": "trials.t1.x_mm", "text": "52 mm"},
        ]
        shown = ask(demo, edits=edits).json
        assert "1.50 g hung outside" in shown["view"]["tub"] and len(shown["view"]["trials"]) == 1
        found = ask(demo, way="trials", document=shown["document"]).json
        assert found["answers"] and len(found["differences"]) == 3 and found["why"] == ""
        after = ask(demo, document=shown["document"], edits=[found["answers"][0]["edit"]]).json
        assert after["document"]["trials"] == [] and len(after["document"]["ballast"]) > len(
            shown["document"]["ballast"]
        )
        promised = re.search(r"net ([+−\d.]+) g", found["answers"][0]["off"])
        assert promised

    def test_no_weights_and_no_metal_are_said(self, demo):
        answer = ask(demo, way="trials")
        assert answer.status_code == 422 and "hang a trial weight" in answer.json["error"]["message"]
        for slug in range(1, 12):
            demo.post(f"/stores/remove/slug/{slug}")
        refused = ask(demo, way="ballast")
        assert (
            refused.status_code == 422 and "add a ballast metal in Stores" in refused.json["error"]["message"]
        )

    def test_timed_runs_give_net_then_cd_and_say_what_was_assumed(self, demo):
        for seconds in ("8.4 s", "8.6 s"):
            assert (
                demo.post(
                    f"/tank/{BAIT}/timed", {"way": "rise", "distance": "50 cm", "seconds": seconds}
                ).status_code
                == 302
            )
        timed = view(demo)["timed"]
        assert "Net is +" in timed["says"] and "C_d 0.90 (assumed)" in timed["says"] and not timed["can_use"]
        demo.post(
            f"/tank/{BAIT}/timed", {"way": "rise", "distance": "0.5 m", "seconds": "8.5 s", "net": "0.14 g"}
        )
        timed = view(demo)["timed"]
        assert "C_d is" in timed["says"] and "weighed net" in timed["says"] and timed["can_use"]
        used = ask(demo, edits=[json.loads(timed["drag"])]).json
        assert used["document"]["drag_source"] == "timed"
        back = view(demo)["timed_rows"][0]["action"]
        demo.post(back)
        assert len(view(demo)["timed_rows"]) == 2
        demo.post(back.replace("take", "put"))
        assert len(view(demo)["timed_rows"]) == 3

    @pytest.mark.parametrize(
        ("field", "text"), [("distance", "50"), ("seconds", "soon"), ("distance", "-1 m"), ("net", "1 km")]
    )
    def test_a_run_that_cannot_be_read_keeps_what_was_typed(self, demo, field, text):
        answer = demo.post(
            f"/tank/{BAIT}/timed", {"way": "sink", "distance": "1 m", "seconds": "3 s", field: text}
        )
        assert answer.status_code == 422 and text in answer.text and 'class="problem"' in answer.text

    def test_an_impossible_time_is_said_and_not_a_crash(self, demo):
        demo.post(
            f"/tank/{BAIT}/timed", {"way": "rise", "distance": "2 m", "seconds": "0.2 s", "net": "0.1 g"}
        )
        assert "cannot be" in view(demo)["timed"]["says"]


class TestRooms:
    @pytest.mark.parametrize("room", ["stability", "twins", "running", "history"])
    def test_every_kind_of_design_has_its_rooms(self, demo, room):
        for key in (BAIT, FLOATER, GLIDER, 21, 23, STICK):
            page = demo.get(f"/tank/{key}/{room}")
            assert page.status_code == 200 and 'class="verdict"' in page.text, key
            assert 'aria-current="page">Tank<' in re.sub(r"\s+", " ", page.text)

    @pytest.mark.parametrize("name", ["d18", "p45"])
    def test_another_bait_stands_beside_it(self, demo, name):
        page = demo.get(f"/tank/{FLOATER if name != 'd18' else 17}/stability?with={name}").text
        assert page.count("</button> under water</th>") == 2 and page.count('scope="col" class="n"') == 2
        assert (
            "off</th>"
            in demo.get(f"/tank/{BAIT}/twins?with={name}&mass=2+%25&net=0.1+g&place=0.5+mm&roll=10+%25").text
        )

    @pytest.mark.parametrize("name", ["x9", "d", "d999", "p999", "d-1"])
    def test_what_is_nothing_is_404(self, demo, name):
        assert demo.get(f"/tank/{BAIT}/stability?with={name}").status_code == 404

    def test_a_logged_run_narrows_the_band_and_can_be_taken_back(self, demo):
        page = demo.get(f"/tank/{BAIT}/running").text
        blind = re.search(r"Band ± (\d+) %", page)[1]
        assert (
            40 <= int(blind) <= 50
            and "mm shorter" in page
            and "assumed" in page
            and "an estimate: log the pitch you see" in page
        )
        run = {
            "line_out": "25 m",
            "speed": "1 m/s",
            "line": "0.28 mm",
            "rod": "1.5 m",
            "depth": "1.1 m",
            "lead": "0 g",
            "pitch": "-12°",
            "note": "calm",
        }
        assert demo.post(f"/tank/{BAIT}/running/log", run).status_code == 302
        page = demo.get(f"/tank/{BAIT}/running").text
        assert (
            "Fitted to 1 logged run" in page
            and f"Band ± {round(int(blind) / 2)} %" in page
            and "About 1.1 m deep" in page
            and "runs at −12°, as was seen" in page
        )
        demo.post(re.search(r"/tank/towed/\d+/take_back", page).group(0))
        assert f"Band ± {blind} %" in demo.get(f"/tank/{BAIT}/running").text

    @pytest.mark.parametrize(
        ("field", "text"), [("speed", "fast"), ("line", "0 mm"), ("depth", "1.1"), ("rod", "-1 m")]
    )
    def test_bad_runs_are_refused_beside_the_field(self, demo, field, text):
        run = {
            "line_out": "25 m",
            "speed": "1 m/s",
            "line": "0.28 mm",
            "rod": "1.5 m",
            "depth": "1.1 m",
            field: text,
        }
        answer = demo.post(f"/tank/{BAIT}/running/log", run)
        if (field, text) == ("depth", "1.1"):  # a bare number takes the field's unit
            assert answer.status_code == 302
        else:
            assert answer.status_code == 422 and f'id="log-{field}-error"' in answer.text

    def test_a_question_that_cannot_be_read_is_said_beside_its_field(self, demo):
        page = demo.get(f"/tank/{BAIT}/running?speed=warp&line=0.3+mm&rod=1+m&out=20+m")
        assert page.status_code == 200 and "warp" in page.text and 'class="problem"' in page.text

    def test_an_earlier_revision_comes_back_as_a_new_one(self, demo):
        before = document(demo)
        assert demo.post(f"/tank/{BAIT}/history/1").status_code == 302
        assert (
            document(demo)["ballast"] == [] and "back to revision 1" in demo.get(f"/tank/{BAIT}/history").text
        )
        demo.send(f"/designs/{BAIT}/undo", {"bench": "tank"})
        assert document(demo) == before


class TestCannotBeBuilt:
    def test_nothing_is_said_of_how_it_swims_until_it_can_be_built(self, demo):
        found = view(
            demo,
            {"do": "cavity", "code": "steel ball 6 mm"},
            {"do": "set", "path": "cavities.c1.x_mm", "text": "21 mm"},
            mode="settled",
        )
        assert (
            found["sentence"].startswith("It cannot be built as drawn: the ")
            and "runs into the chamber" in found["sentence"]
        )
        assert (
            found["facts"] == []
            and found["effects"] == []
            and found["sure"] == ""
            and not found["can_refit"]
            and "in the way" in found["refit"]
        )
        assert "cm/s" not in json.dumps(found["picture"])
        put_right = view(
            demo,
            {"do": "cavity", "code": "steel ball 6 mm"},
            {"do": "remove", "group": "cavities", "key": "c1"},
            mode="settled",
        )
        assert put_right["facts"] and put_right["sure"]

    def test_a_pair_is_shown_as_two_with_the_way_back(self, demo):
        found = view(demo, {"do": "pair", "key": "b1"})
        row = next(row for row in found["holes"] if row["key"] == "ballast-b1")
        assert (
            row["says"].startswith("two of ")
            and "to each side" in row["says"]
            and row["is_pair"]
            and row["pair_word"] == "One on the middle instead"
        )


def test_a_carved_body_is_said_to_be_by_hand_or_over_a_template(demo):
    found = view(demo, mode="settled")
    edit = json.loads(next(row["edit"] for row in found["face_ways"] if row["name"] == "by template"))
    over = view(demo, edit, mode="settled")
    assert over["fields"]["material.face_mm"] == "0.1 mm" and over["sure"] != found["sure"]
