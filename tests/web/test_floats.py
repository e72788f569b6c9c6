"""The Floats bench on the wire: the page's exchange, sizes, labels, finished ones, tables, live-bait
lists, files.
"""

import io
import json
import re

import pypdfium2
import pytest

from lamsik.core.floats.design import KINDS
from lamsik.core.floats.shotting import pull_to
from lamsik.documents.floats.document import to_float
from tests import demo_rows as shop
from tests.kinds import float_file as loads
from tests.lean import state

STICK, ANTENNA = shop.REED_STICK_2_G, shop.TENCH_ANTENNA_2_5_G
WAGGLER, FOAM = shop.BREAM_WAGGLER, shop.FOAM_PILOT


def document(shop, key=ANTENNA):
    return loads(shop.get(f"/floats/{key}/float.json").data)


def live(shop, *edits, key=ANTENNA, **more):
    return shop.send(
        f"/floats/{key}/live",
        {"bench": "floats", "document": document(shop, key), "edits": list(edits), **more},
    ).json


class TestFloat:
    @pytest.mark.parametrize("kind", KINDS)
    def test_every_kind_begins_standing_in_water(self, empty, kind):
        where = empty.post("/floats/new", {"kind": kind}).headers["Location"]
        page = empty.get(where).text
        assert (
            "Carries" in page
            and "standing in" in page
            and empty.get("/floats").text.count("on the line to the") == 1
        )

    def test_the_state_says_what_it_carries_and_how_it_stands(self, demo):
        view = live(demo)["view"]
        assert (
            view["sentence"].startswith("Carries 2.50 g on the line to the ring with its antenna")
            and "lies flat; shotted it stands" in view["stands"]
            and "lifts it" in view["lift"]
        )
        assert (
            [r["mark"] for r in view["ratings"]] == ["shoulder", "ring", "wholly under"]
            and view["ratings"][0]["learned"]
            and len(view["tip_rows"]) == 3
        )
        assert (
            any("sea water" in e["name"] for e in view["effects"])
            and any("sanded" in e["name"] for e in view["effects"])
            and "× No 8" in view["shotting"]
        )

    def test_it_is_seen_in_the_scheme_that_paints_it_and_says_which(self, demo):
        plain = live(demo)
        assert "float-paint" not in json.dumps(plain["view"]["picture"]) and plain["view"]["painted"] == ""
        answer = live(demo, {"do": "scheme", "code": "S-010"}, save=True, base=1)
        view = answer["view"]
        assert "data:image/webp" in json.dumps(view["picture"]) and view["painted"] == "S-010, version 1"
        moving = live(demo, mode="drag")["view"]
        assert "data:image/webp" not in json.dumps(moving["picture"]) and moving["painted"]
        assert demo.get(view["painted_at"]).headers["Location"].endswith("/paints/10")
        assert demo.get("/paints/coded/S-999/1").status_code == 404
        used = demo.get("/paints/10").text
        assert "Tench antenna 2.5 g" in used

    def test_a_flooded_tube_shows_among_the_effects(self, demo):
        assert {"every tube flooded", "every tube sealed"} <= {
            e["name"] for e in live(demo, key=FOAM)["view"]["effects"]
        }

    def test_an_edit_is_saved_undone_and_redone(self, demo):
        answer = live(demo, {"do": "size", "text": "4 g", "by": "length"}, save=True, base=1)
        assert answer["saved"] and pull_to(to_float(document(demo))) == pytest.approx(4.0, abs=5e-3)
        back = demo.send(f"/floats/{ANTENNA}/undo", {"bench": "floats"}).json
        assert (
            back["moved"]
            and back["view"]["sentence"].startswith("Carries 2.50 g")
            and demo.send(f"/floats/{ANTENNA}/redo", {"bench": "floats"}).json["moved"]
        )

    def test_a_bad_edit_is_said_beside_its_field_and_the_rest_is_kept(self, demo):
        answer = live(
            demo,
            {"do": "set", "path": "parts.body.length_mm", "text": "wide"},
            {"do": "set", "path": "varnish_g", "text": "0.3 g"},
        )
        assert (
            answer["errors"][0]["field"] == "parts.body.length_mm" and answer["document"]["varnish_g"] == 0.3
        )

    @pytest.mark.parametrize(
        "body",
        [
            {"document": None},
            {"document": {"format": "lamsik-float", "version": 1}},
            {"edits": "many"},
            {"edits": [5]},
        ],
    )
    def test_wild_requests_are_refused(self, demo, body):
        sent = {"bench": "floats", "document": document(demo), "edits": [], **body}
        assert demo.send(f"/floats/{ANTENNA}/live", sent).status_code == 422

    def test_what_sinks_by_itself_says_so(self, demo):
        view = live(
            demo,
            {"do": "add", "group": "parts", "kind": "loading"},
            {"do": "set", "path": "parts.loading1.diameter_mm", "text": "20 mm"},
        )["view"]
        assert (
            "too deep by itself" in view["sentence"]
            and "carries nothing" in view["no_shotting"]
            and "sinks" in view["stands"]
        )

    def test_a_file_comes_back_unchanged_and_a_bad_one_is_answered(self, demo):
        data = demo.get(f"/floats/{WAGGLER}/float.json").data
        where = demo.post("/floats/bring-in", {"file": (io.BytesIO(data), "w.json")}).headers["Location"]
        assert document(demo, int(where.rsplit("/", 1)[1])) == document(demo, WAGGLER)
        assert demo.post("/floats/bring-in", {"file": (io.BytesIO(b"{}"), "w.json")}).status_code == 422

    def test_copied_deleted_and_brought_back(self, demo):
        demo.post(f"/floats/{STICK}/copy")
        assert demo.get("/floats?q=copy").text.count("on the line to the") == 1
        demo.post(f"/floats/{STICK}/delete")
        assert demo.get(f"/floats/{STICK}").status_code == 404
        demo.post(f"/floats/{STICK}/bring_back")
        assert demo.get(f"/floats/{STICK}").status_code == 200


class TestSizes:
    def test_a_family_with_its_cut_list_and_sheets_at_true_size(self, demo):
        page = f"/floats/{ANTENNA}/sizes?loads=1.5+g,+2.5+g,+4+g&by=length"
        found = demo.get(page).text
        assert "3 floats: 1.5 g from" in found and "Bore, drill" in found and "spinning tools" in found
        data = demo.get(f"/floats/{ANTENNA}/profile.pdf?loads=1.5+g,+2.5+g,+4+g&by=length").data
        pages = pypdfium2.PdfDocument(data)
        bars = [
            s.get_bounds()
            for s in pages[0].get_objects(filter=(pypdfium2.raw.FPDF_PAGEOBJ_PATH,), max_depth=4)
        ]
        widths = [
            (r - left) / 72 * 25.4
            for left, b, r, t in bars
            if 1.5 < (t - b) / 72 * 25.4 < 2.5 and b / 72 * 25.4 < 40
        ]
        assert min(abs(w - 50.0) for w in widths) < 0.2
        demo.post(f"/floats/{ANTENNA}/sizes", {"loads": "1.5 g, 2.5 g, 4 g", "by": "length"})
        assert demo.get("/floats?q=antenna").text.count("Tench antenna 2.5 g ") >= 3

    def test_one_load_over_the_dowels_says_why_some_cannot(self, demo):
        found = demo.get(f"/floats/{ANTENNA}/sizes?wanted=3+g&dowels=6,+14,+15.9,+16+mm").text
        assert found.count("balsa") >= 4 and "let the stem stand out" in found

    @pytest.mark.parametrize(
        ("query", "says"),
        [
            ("loads=many", "type a mass"),
            ("loads=300+g", "it carries"),
            ("loads=3+g&by=hope", "one of"),
            ("wanted=3+g&dowels=9+m", "1 to 60"),
        ],
    )
    def test_what_cannot_be_is_answered(self, demo, query, says):
        answer = demo.get(f"/floats/{ANTENNA}/sizes?{query}")
        assert answer.status_code == 422 and says in answer.text

    def test_dowels_at_hand_are_kept(self, demo):
        demo.post("/floats/dowels", {"dowels": "1/2 in, 14, 9 mm", "float": str(ANTENNA)})
        assert "9 mm, 12.7 mm, 14 mm" in demo.get(f"/floats/{ANTENNA}/sizes").text
        assert demo.post("/floats/dowels", {"dowels": "thick"}).status_code == 422

    def test_profiles_for_printer_and_cutter(self, demo):
        sheet = demo.get(f"/floats/{ANTENNA}/profile-1.svg?loads=2+g,+3+g").text
        assert "Cut list and drill map" in sheet and "bore, drill" in sheet and "2 g: Turning" in sheet
        assert (
            b"Turning" in demo.get(f"/floats/{ANTENNA}/profile-1.svg").data
            and b"LWPOLYLINE" in demo.get(f"/floats/{ANTENNA}/profile.dxf").data
        )
        assert demo.get(f"/floats/{ANTENNA}/profile-9.svg").status_code == 422


class TestLabels:
    def test_a_sheet_with_the_basis_on_every_label(self, demo):
        query = "basis=on+the+line&mark=ring&count=5&paper=A4"
        page = demo.get(f"/floats/{ANTENNA}/labels?{query}").text
        assert (
            len(re.findall(r"≈ 2\.[45]\d g on the line", page)) == 5
            and page.count("to the ring, antenna, Holm mere at 14 °C") == 5
        )
        assert (
            demo.get(f"/floats/{ANTENNA}/labels.pdf?{query}").data[:4] == b"%PDF"
            and b"on the line" in demo.get(f"/floats/{ANTENNA}/labels.svg?{query}").data
        )

    def test_measured_labels_are_of_the_last_stage_in_the_water_asked_for_and_as_many_as_asked(self, demo):
        fresh = {
            "water_by": "measured",
            "measured": "1.0000 g/cm³",
            "kind": "float",
            "float": str(ANTENNA),
            "sinker": "30 g",
            "mark_1": "ring",
            "air": "2 g",
        }
        for stage, reading in (("bare", "27.40 g"), ("varnished", "27.60 g"), ("painted", "27.50 g")):
            demo.post(
                "/scale", {**fresh, "name": "One of two", "stage": stage, "reading_1": reading}, page="/scale"
            )
        sheet = "/labels?basis=on+the+line&mark=ring&from=measured&paper=A4"
        page = demo.get(f"/floats/{ANTENNA}{sheet}&count=3").text
        assert page.count("One of two") == 3
        assert (
            demo.get(f"/floats/{ANTENNA}{sheet}&count=").text.count("One of two") == 1
        )  # nobody said how many: one for each float
        assert demo.get(f"/floats/{ANTENNA}/labels?basis=on+the+line&mark=ring&count=").text.count("≈ ") == 12
        sea = next(w for w in ("Outer bank", "sea water") if f">{w}<" in page)
        salt = demo.get(f"/floats/{ANTENNA}{sheet}&water={sea.replace(' ', '+')}").text
        assert salt.count("One of two") == 1
        grams = float(re.search(r"One of two.*?([\d.]+) g on the line", salt, re.S)[1])
        assert (
            1.010 < (grams + 2.0) / (30 - 27.6 + 2.0) < 1.03
        )  # as its own card converts it; unconverted it would be 1

    def test_each_finished_float_gets_what_it_measured(self, demo):
        page = demo.get(f"/floats/{ANTENNA}/labels?basis=on+the+line&mark=ring&from=measured&paper=A4").text
        assert (
            "Antenna 1" in page
            and "Antenna 3" in page
            and "≈" not in page.split('aria-label="The sheet"')[1].split("</section>")[0]
        )

    @pytest.mark.parametrize(
        ("query", "says"),
        [
            ("mark=ring", "say whether it is"),
            ("basis=total&mark=ring&count=900", "1 to 60"),
            ("basis=total&mark=ring&count=x", "1 to 60"),
            ("basis=total&mark=shoulder&from=measured", "weigh one"),
            ("basis=total&mark=ring&paper=A9", "one of A4"),
        ],
    )
    def test_a_rating_without_its_basis_is_refused(self, demo, query, says):
        answer = demo.get(f"/floats/{ANTENNA}/labels?{query}")
        assert answer.status_code == 422 and says in answer.text


class TestLearned:
    def test_before_and_after_the_fit_and_what_to_do_with_each(self, demo):
        found = demo.get(f"/floats/{ANTENNA}/learned").text
        assert (
            "This one computes to 2.50 g; from 3 finished" in found
            and found.count("Antenna ") >= 3
            and ("light: print" in found or "print 2." in found)
        )
        assert "No finished" in demo.get(f"/floats/{WAGGLER}/learned").text

    def test_weighing_one_more_moves_the_prediction(self, demo):
        before = live(demo)["view"]["ratings"][1]["learned"]
        demo.post(
            "/scale",
            {
                "name": "Antenna 4",
                "kind": "float",
                "air": "1.2 g",
                "sinker": "30 g",
                "mark_1": "ring",
                "reading_1": "28.5 g",
                "stage": "varnished",
                "float": str(ANTENNA),
            },
            page="/scale",
        )
        assert live(demo)["view"]["ratings"][1]["learned"] != before


def sizes(shop, page, *edits):
    held = state(shop, page)
    sent = {"document": held["document"], "base": held["base"], "edits": list(edits), "save": True}
    return shop.send(f"{page}/live", sent).get_json()


def put(path, text):
    return {"do": "set", "path": path, "text": text}


class TestTables:
    def test_a_table_is_edited_used_undone_and_taken_out(self, demo):
        page = demo.post("/floats/shots/new").headers["Location"]
        was = state(demo, page)
        off = [{"do": "remove", "group": "shots", "key": f"s{n}"} for n in range(3, 14)]
        sizes(demo, page, *off, put("name", "Tiny"), put("shots.s1.name", "one"), put("shots.s2.name", "two"))
        sizes(demo, page, put("shots.s2.mass_g", "65 grains"), put("shots.s1.mass_g", "0.5 g"))
        sizes(demo, page, put("shots.s1.density_g_cm3", "7.3 g/cm³"))
        view = state(demo, page)["view"]
        assert [row["name"]["path"] for row in view["sizes"]] == ["shots.s2.name", "shots.s1.name"]
        assert view["fields"]["shots.s2.mass_g"] == "4.212 g" and view["sizes"][1]["across"] == "5.1 mm"
        assert view["sentence"].startswith("2 sizes. ") and "two" in json.dumps(view["picture"])
        changed = put("shots", "Tiny"), put("telltale", "")
        assert "× one" in live(demo, *changed)["view"]["shotting"]
        sizes(demo, page, {"do": "add"})
        assert state(demo, page)["document"]["shots"][-1]["name"] == "size 1"
        file = demo.get(f"{page}/shots.json").data
        again = demo.post("/floats/bring-in", {"file": (io.BytesIO(file), "t.json")}).headers["Location"]
        assert "/floats/shots/" in again and demo.get(f"{again}/shots.json").data == file
        while state(demo, page)["base"] != was["base"]:
            demo.send(f"{page}/undo", {"base": state(demo, page)["base"]})
        assert state(demo, page)["document"] == was["document"]

    @pytest.mark.parametrize(
        ("path", "text", "says"),
        [
            ("shots.s1.mass_g", "heavy", "type a mass"),
            ("name", "", "name the table"),
            ("shots.s1.name", "AAA", "each name once"),
            ("shots.s1.density_g_cm3", "99 g/cm³", "1.5 to 20"),
        ],
    )
    def test_what_no_size_can_be_is_told_beside_it(self, demo, path, text, says):
        answer = sizes(demo, f"/floats/shots/{shop.WEIGHED_SHOT}", put(path, text))
        assert says in answer["errors"][0]["message"].lower() and answer["errors"][0]["field"] == path

    def test_a_table_keeps_one_size(self, demo):
        page = demo.post("/floats/shots/new").headers["Location"]
        off = [{"do": "remove", "group": "shots", "key": f"s{n}"} for n in range(1, 14)]
        assert "at least one size" in sizes(demo, page, *off)["errors"][0]["says"]
        assert state(demo, page)["view"]["sizes"][0]["only"] == "a table has one size at least"

    def test_a_float_goes_on_with_a_table_that_was_renamed(self, demo):
        page, before = f"/floats/shots/{shop.WEIGHED_SHOT}", live(demo)["view"]
        sizes(demo, page, put("name", "Box on the left"))
        after = live(demo)["view"]
        assert after["selected"]["shots"] == after["fields"]["shots"] == "Box on the left"
        assert after["shotting"] == before["shotting"] and "There is no" not in json.dumps(after)
        gone = demo.post(f"{page}/delete", follow_redirects=True).text
        assert re.search(r"Box on the left is deleted\. \w[^.<]* and \d+ more use it\.", gone)


def test_live_bait_lists_and_what_is_questioned(demo):
    page = "/floats/live-bait"
    assert (
        "carries" in demo.get(page).text
        and "negative displacement" in demo.get(f"{page}?tests=60+mm+21+g,+80+mm+20+g").text
        and "They agree" in demo.get(f"{page}?tests=60+mm+30+g,+80+mm+41+g").text
    )
    for query, says in (
        ("allowances=5,+7+mm", "two different allowances"),
        ("sizes=wide", "type a length"),
        ("counts=1,+2", "one number for each"),
        ("pipe_mm=20+mm", "pipe inside"),
        ("tests=60+mm", "type a mass"),
        ("load=3+m", "not one of"),
    ):
        answer = demo.get(f"{page}?{query}")
        assert answer.status_code == 422 and says in answer.text, query


@pytest.mark.parametrize(
    ("query", "status", "says"),
    [
        ("depth=5+m&rod=4.2+m", 200, "Yes: with a 4.2 m rod"),
        ("depth=9+ft&rod=13+ft", 200, "No: a fixed float does"),
        ("depth=deep&rod=4+m", 422, "type a distance"),
        ("depth=5+m&rod=", 422, "type a distance"),
    ],
)
def test_does_this_water_need_a_slider(demo, query, status, says):
    answer = demo.get(f"/floats?{query}")
    assert answer.status_code == status and says in answer.text


def test_the_drawing_has_handles_for_marks_and_the_pulled_part(demo):
    drawn = json.dumps(live(demo, looks="body")["view"]["picture"])
    assert "point.body.2" in drawn and "marks.m1.height_mm" in drawn and "g on the line" in drawn
    assert "point.body" not in json.dumps(live(demo, looks="")["view"]["picture"])


def test_of_several_loads_those_that_can_be_met_are_given(demo):
    page = demo.get(f"/floats/{ANTENNA}/sizes?loads=2+g,+900+g,+3+g")
    assert page.status_code == 200 and "2 floats:" in page.text and "900 g cannot be met: " in page.text
    made = demo.post(f"/floats/{ANTENNA}/sizes", {"loads": "2 g, 900 g"}, follow_redirects=True).text
    assert "1 float made from Tench antenna 2.5 g. 900 g cannot be met: " in made
    assert demo.get(f"/floats/{ANTENNA}/sizes?loads=900+g").status_code == 422
    assert demo.get(f"/floats/{ANTENNA}/profile.pdf?loads=2+g,+900+g").data[:4] == b"%PDF"
