"""The shelf and wanted colours over the web: looks typed, recipes taken, what came out."""

import io
import json
import re
import subprocess
import sys
from xml.etree import ElementTree

import ezdxf
import pytest
from PIL import Image

from lamsik.cli.calc_match import calc_match
from lamsik.cli.calc_stencil import calc_stencil
from lamsik.documents.matches.document import MATCH, begun, recipe_of, word_of
from lamsik.documents.paints.document import PAINT
from lamsik.documents.registry import KINDS
from lamsik.store import documents
from lamsik.store.tables import Document
from lamsik.web.shared.whole import WAYS
from tests import demo_rows
from tests.core.paints.test_photographed import BAIT, CARD, POINTS, photo
from tests.lean import state
from tests.refusing import refusing
from tests.web.test_doing import opened

PAINT_PAGE = f"/paints/shelf/{demo_rows.GLASS_RED}"
WANTED = f"/paints/match/{demo_rows.FADED_PERCH}"
PHOTO = f"/paints/photo/match/{demo_rows.FADED_PERCH}"
MIXED = f"/paints/match/{demo_rows.WEED_BACK}"


def live(shop, page, *edits):
    held = state(shop, page)
    sent = {"document": held["document"], "base": held["base"], "edits": list(edits), "save": True}
    return shop.send(f"{page}/live", sent).get_json()


def set_to(path, text):
    return {"do": "set", "path": path, "text": text}


def fills(node):
    yield from ([node["attrs"].get("fill")] if isinstance(node, dict) and node.get("tag") == "rect" else [])
    for child in node.get("children", []) if isinstance(node, dict) else []:
        yield from fills(child)


def test_the_shelf_shows_every_paint_its_stock_and_how_well_mixes_are_foretold(demo):
    text = demo.get("/paints/shelf").text
    assert text.count("over white and over black") >= 20
    assert "Glass green" in text and "empty" in text and "20 ml" in text
    assert "Foretells your 6 mixed swatches to ΔE" in text and "no recipe yet" in text
    assert "came out: ΔE" in text and "Solvent and spray" in text
    assert 'href="/paints/shelf"' in demo.get("/paints").text


def test_a_look_that_is_typed_changes_the_strip_and_one_that_cannot_be_is_said(demo):
    before = state(demo, PAINT_PAGE)["view"]
    assert before["wrong"] == "" and before["sentence"].startswith("Transparent, water-based")
    after = live(demo, PAINT_PAGE, set_to("swatch.white.red", "50"), set_to("swatch.white.yellow", "20"))
    assert after["errors"] == [] and list(fills(after["view"]["picture"])) != list(fills(before["picture"]))
    darker = live(demo, PAINT_PAGE, set_to("swatch.black.lightness", "70"))
    assert "a look that a surface can have" in darker["view"]["wrong"] and darker["saved"]
    beyond = live(demo, PAINT_PAGE, set_to("swatch.white.lightness", "140"))
    assert beyond["errors"][0]["field"] == "swatch.white.lightness"
    pots = live(demo, PAINT_PAGE, {"do": "add"}, set_to("pots.p2.left_ml", "12 ml"))["view"]["facts"]
    assert [one["value"] for one in pots if one["key"] == "left"] == ["32 ml"]


def test_a_new_paint_is_a_guess_until_a_look_is_typed(demo):
    page = demo.post("/paints/shelf/new").headers["Location"]
    assert state(demo, page)["view"]["guessed"] is True
    typed = live(demo, page, set_to("swatch.white.lightness", "70"))
    assert typed["view"]["guessed"] is False and typed["document"]["source"] == "typed"


def test_recipes_are_found_taken_moved_and_what_came_out_is_noted(demo):
    view = state(demo, WANTED)["view"]
    assert view["sentence"].startswith("Nearest from the shelf") and view["no_mix"] is True
    counts = {len(row["says"].split(" + ")) for row in view["recipes"]}
    assert counts <= {1, 2, 3} and len(counts) > 1 and "Glass green" not in json.dumps(view["recipes"])
    taken = live(demo, WANTED, json.loads(view["recipes"][0]["take"]))
    assert taken["view"]["recipes"][0]["taken"] is True and taken["view"]["no_mix"] is False
    assert "foretold ΔE" in taken["view"]["sentence"]
    key = taken["view"]["mixed"][0]["key"]
    off = [one["value"] for one in taken["view"]["facts"]]
    more = live(demo, WANTED, set_to(f"parts.{key}.drops", "9"))["view"]
    assert [one["value"] for one in more["facts"]] != off
    moved = live(demo, WANTED, {"do": "move", "how": "lighter"}, {"do": "move", "how": "warmer"})
    assert moved["document"]["wanted"]["lightness"] == 63.0 and moved["document"]["wanted"]["yellow"] == 46.0
    seen = live(demo, WANTED, {"do": "flag", "path": "is_seen", "on": True}, set_to("seen.lightness", "62"))
    assert seen["view"]["sentence"].startswith("It came out ΔE")
    assert "7 mixed swatches" in seen["view"]["model"] or "7 mixed" in demo.get("/paints/shelf").text
    other = live(demo, WANTED, {"do": "take", "recipe": "C-001:1"})
    assert other["document"]["is_seen"] is False  # how another looked is no look of it


def test_what_a_mix_taught_moves_what_is_foretold(demo):
    before = {row["key"]: row for row in state(demo, MIXED)["view"]["facts"]}
    live(demo, MIXED, set_to("seen.red", "-5"), set_to("seen.lightness", "48"))
    after = {row["key"]: row for row in state(demo, MIXED)["view"]["facts"]}
    assert (
        before["missed"]["value"] != after["missed"]["value"]
        and before["off"]["value"] != after["off"]["value"]
    )


def test_a_recipe_that_names_what_is_gone_is_said_and_kept(demo):
    kept = live(demo, WANTED, {"do": "take", "recipe": "C-999:2,C-001:1"})
    assert [row["name"] for row in kept["view"]["mixed"]] == ["C-999, not on the shelf", "Chalk white"]
    assert kept["view"]["sentence"].startswith("Nearest from the shelf")
    empty = live(demo, WANTED, {"do": "take", "recipe": "C-017:2,C-001:1"})
    assert [row["wrong"] for row in empty["view"]["mixed"]] == [
        "its pots are empty: buy some, or take another recipe",
        "",
    ]
    live(demo, f"/paints/shelf/{demo_rows.GLASS_RED + 2}", set_to("instead", "C-009"))
    again = state(demo, WANTED)["view"]["mixed"]
    assert again[0]["wrong"] == "its pots are empty: take C-009"


@pytest.mark.parametrize(
    ("edit", "says"),
    [
        ({"do": "take", "recipe": "C-001"}, "code and drops of each paint"),
        ({"do": "move", "how": "prettier"}, "lighter"),
        ({"do": "set", "path": "name", "text": " "}, "name the colour that is wanted"),
    ],
)
def test_what_is_no_recipe_and_no_move_is_refused(demo, edit, says):
    answer = live(demo, WANTED, edit)
    assert says in json.dumps(answer["errors"]) and answer["document"]["parts"] == []


def test_a_ground_that_no_surface_has_is_said_and_nothing_is_lost(demo):
    answer = live(demo, WANTED, set_to("ground.red", "120"), set_to("ground.yellow", "-120"))
    assert "a look that a surface can have" in answer["view"]["wrong"] and answer["view"]["no_recipes"]


def test_a_recipe_in_one_word_comes_back():
    parts = recipe_of("C-001:3,C-004:12")
    assert word_of(tuple((part.code, int(part.drops)) for part in parts)) == "C-001:3,C-004:12"
    assert word_of({"C-001": 3}) == "C-001:3"
    with refusing("code and drops"):
        recipe_of("C-001:3,,")
    held = begun()
    with refusing("in the recipe already"):
        for _ in range(2):
            held = MATCH.acts["add"](held, {"code": "C-001"}, None)


@pytest.mark.parametrize(("kind", "page", "name"), [(PAINT, PAINT_PAGE, "shelf"), (MATCH, WANTED, "match")])
def test_their_files_go_out_and_come_in(demo, kind, page, name):
    text = demo.get(f"{page}/{kind.name}.json").data
    assert json.loads(text)["format"] == kind.format
    sent = {"file": (io.BytesIO(text), "again.json")}
    answer = demo.post(f"/paints/{name}/bring-in", data=sent)
    assert answer.headers["Location"].startswith(f"/paints/{name}/")
    for bad in (b"no", b"{}", b"[1]"):
        sent = {"file": (io.BytesIO(bad), "bad.json")}
        text = demo.post(f"/paints/{name}/bring-in", data=sent, follow_redirects=True).text
        assert "It cannot be brought in." in text


def test_a_layer_takes_a_paint_off_the_shelf_and_loses_its_looks_with_another_colour(demo):
    page = "/paints/4"
    held = state(demo, page)
    assert "Glass red" in demo.get(page).text and "Weed back" in demo.get(page).text
    key = held["view"]["layers"][4]["key"]
    before = json.dumps(held["view"]["picture"])
    taken = live(demo, page, {"do": "shelf", "key": key, "code": "C-015"})
    layer = next(row for row in taken["document"]["layers"] if row["key"] == key)
    assert layer["paint"]["name"] == "Glass red (C-015)" and layer["paint"]["swatch"]["white"]["red"] == 62.0
    assert layer["paint"]["solids_percent"] == 24.0 and json.dumps(taken["view"]["picture"]) != before
    mixed = live(demo, page, {"do": "shelf", "key": key, "code": "W-001"})
    layer = next(row for row in mixed["document"]["layers"] if row["key"] == key)
    assert layer["paint"]["name"] == "Weed back (W-001)" and layer["paint"]["swatch"]["white"]["red"] < -10
    other = live(demo, page, set_to(f"layers.{key}.paint.colour", "#804020"))
    layer = next(row for row in other["document"]["layers"] if row["key"] == key)
    assert layer["paint"]["swatch"] is None and layer["paint"]["colour"] == "#804020"
    gone = live(demo, page, {"do": "shelf", "key": key, "code": "C-999"})
    assert gone["errors"]
    live(demo, page, {"do": "flag", "path": f"layers.{key}.locked", "on": True})
    locked = live(demo, page, {"do": "shelf", "key": key, "code": "C-015"})
    assert "this layer is locked" in json.dumps(locked["errors"])


def test_what_a_colour_asks_goes_out_as_one_file_that_is_reckoned(demo, tmp_path):
    file = tmp_path / "asked.json"
    file.write_bytes(demo.get(f"{WANTED}/asked.json").data)
    told = calc_match(file)
    shown = state(demo, WANTED)["view"]["recipes"][0]["take"]
    assert json.loads(shown)["recipe"] == word_of(told["recipes"][0]["drops"])
    assert told["model"]["swatches"] == 6
    for text, says in (
        ('{"format": "lamsik-paint"}', "lamsik-match-asked, version 1"),
        ('{"format": "lamsik-match-asked", "version": 1}', "an object of paints by code"),
        (
            '{"format": "lamsik-match-asked", "version": 1, "paints": {}, "mixed": 7}',
            "a list of mixed swatches",
        ),
    ):
        file.write_text(text)
        with refusing(says):
            calc_match(file)
    many = {**json.loads(demo.get(f"{WANTED}/asked.json").data)}
    one = next(iter(many["paints"].values()))
    file.write_text(json.dumps({**many, "paints": {f"P{n}": one for n in range(151)}}))
    with refusing("at most 150 paints"):
        calc_match(file)
    file.write_text(json.dumps({**many, "mixed": many["mixed"] * 40}))
    with refusing("mixed swatches"):
        calc_match(file)


def test_every_kind_of_document_has_its_page_and_is_searched(demo):
    assert set(WAYS) == set(KINDS)
    found = demo.get("/search?q=glass").text
    assert "Glass red" in found and "/paints/shelf/" in found


def test_how_much_a_set_takes_of_each_paint_and_what_must_be_bought(demo):
    page = f"/paints/on/{demo_rows.FERRY_RUNNER}"
    held = state(demo, page)
    edit = {"do": "scheme", "code": "S-017"}
    sent = {"document": held["document"], "base": held["base"], "edits": [edit], "save": True}
    laid = demo.send(f"/designs/{demo_rows.FERRY_RUNNER}/live", {**sent, "bench": "paints"}).get_json()
    assert laid["errors"] == []
    assert "/amounts?pieces=5" in demo.get(f"{page}/doing").text
    text = " ".join(demo.get(f"{page}/amounts?pieces=5").text.split())
    assert "How much paint 5 pieces take." in text and re.search(r"\d+ drops Chalk white", text)
    assert "Perch gold (C-005)" in text and "not off the shelf" in text and "ml left" in text
    many = demo.get(f"{page}/amounts?pieces=900&loss=20+%25").text
    assert "left: buy" in " ".join(many.split())
    assert demo.get("/paints/shelf/coded/W-002").headers["Location"].endswith("/paints/match/87")
    assert demo.get("/paints/shelf/coded/X-9").status_code == 404
    for query in ("pieces=0", "pieces=many", "loss=400+%25"):
        answer = demo.get(f"{page}/amounts?{query}")
        assert answer.status_code == 422
        assert 'role="alert"' in answer.text and 'aria-invalid="true"' in answer.text


def test_a_stencil_is_seen_printed_cut_and_kept_in_the_register(demo):
    page = f"/paints/on/{demo_rows.TOLLHOUSE}"
    assert f"{page}/stencil/bars1" in demo.get(f"{page}/doing").text
    text = demo.get(f"{page}/stencil/bars1").text
    assert "It lies on the body" in text and "For the left side" in text and "For the right side" in text
    drawn = ElementTree.fromstring(demo.get(f"{page}/stencil/bars1/sheet-1.svg").data)
    assert drawn.get("width").endswith("mm") and len(list(drawn.iter())) > 20
    assert demo.get(f"{page}/stencil/bars1/sheet-9.svg").status_code == 422
    assert demo.get(f"{page}/stencil/bars1/sheet.pdf").data[:4] == b"%PDF"
    cut = ezdxf.read(io.StringIO(demo.get(f"{page}/stencil/bars1/cut.dxf").text)).modelspace()
    lines = [one for one in cut if one.dxf.layer == "CUT"]
    assert len(lines) >= 12 and {one.dxf.layer for one in cut} == {"CUT", "MARKS"}
    for _ in range(2):  # twice the same is there once
        kept = demo.post(f"{page}/stencil/bars1/register", follow_redirects=True).text
        assert "is in the register." in kept
    assert kept.count("cut here</td>") == 2
    assert demo.get(f"{page}/stencil/base1").status_code == 422
    assert "one of " in demo.get(f"{page}/stencil/none").text


def test_stencils_of_a_body_are_reckoned_from_its_file(demo, tmp_path):
    file = tmp_path / "body.json"
    file.write_bytes(demo.get(f"/shapes/{demo_rows.TOLLHOUSE}/body.json").data)
    told = calc_stencil(file)
    bars = next(one for one in told["stencils"] if one["layer"] == "bars1")
    lip = next(one for one in told["stencils"] if one["layer"] == "lip")
    assert lip["openings_mm"] == [] and lip["twin"] and lip["side"] == "upper"
    assert bars["lies"] and bars["twin"] and len(bars["openings_mm"]) >= 5 and len(bars["outline_mm"]) > 60
    bare = json.loads(file.read_text())
    file.write_text(json.dumps({**bare, "layers": [], "adjustments": [], "lip": None}))
    with refusing("a layer of marks with edges"):
        calc_stencil(file)


def test_a_wanted_colour_is_read_off_a_photo_and_taken(demo):
    file = io.BytesIO()
    Image.fromarray(photo()).save(file, "PNG")
    card, points = ([[x / 420, y / 320] for x, y in spots] for spots in (CARD, POINTS))

    def sent(marks, **more):
        data = {"photo": (io.BytesIO(file.getvalue()), "bait.png"), "marks": json.dumps(marks)}
        light = {"white": "95", "grey": "50", "black": "20"}
        return demo.post(PHOTO, data={**data, **light, **more}, headers={"Accept": "application/json"})

    assert "Off a photo" in demo.get(WANTED).text and "A point on the bait" in demo.get(PHOTO).text
    told = sent({"card": card, "points": points}).get_json()
    look = told["look"]
    assert abs(look["lightness"] - BAIT.lightness) < 1 and abs(look["red"] - BAIT.red) < 1.5
    assert "in the light of a lamp of" in told["says"] and "apart" not in told["says"]
    two = sent({"card": card, "points": [*points, [0.95, 0.45]]}).get_json()
    assert "are they all of one colour?" in two["says"]
    demo.post(f"{PHOTO}/take", {**look, "part": "wanted"})
    now = state(demo, WANTED)["document"]
    assert (now["wanted"], now["source"]) == (look, "photo")
    for marks, more, says in (
        ({"card": card[::-1], "points": points}, {}, "in this order"),
        ({"card": card}, {}, "marks cannot be read"),
        ({"card": card, "points": points}, {"grey": "140"}, "140"),
        ({"card": card, "points": points}, {"photo": (io.BytesIO(b"no"), "no.png")}, "no picture"),
    ):
        answer = sent(marks, **more)
        assert answer.status_code == 422 and says in json.dumps(answer.get_json(), ensure_ascii=False)
    assert demo.post(f"{PHOTO}/take", {**look, "lightness": "900", "part": "wanted"}).status_code == 422
    assert demo.post(f"{PHOTO}/take", {**look, "part": "swatch.white"}).status_code == 422
    demo.post(f"{PHOTO}/take", {**look, "part": "seen"})
    came = state(demo, WANTED)["document"]
    assert came["seen"] == look and came["is_seen"] is True


def test_a_paint_takes_its_looks_off_a_photo(demo):
    page = PAINT_PAGE.replace("/shelf/", "/photo/paint/")
    assert page in demo.get(PAINT_PAGE).text and "A point on the swatch" in demo.get(page).text
    look = {"lightness": "31", "red": "4", "yellow": "2"}
    said = demo.post(f"{page}/take", {**look, "part": "swatch.black"}, follow_redirects=True).text
    now = state(demo, PAINT_PAGE)["document"]
    assert now["swatch"]["black"] == {"lightness": 31.0, "red": 4.0, "yellow": 2.0}
    assert now["source"] == "photo" and "Taken off the photo: over black." in said
    assert demo.post(f"{page}/take", {**look, "part": "wanted"}).status_code == 422


@pytest.fixture
def reader():
    process = subprocess.Popen(
        [sys.executable, "-m", "lamsik.devices.colour_reader"],
        stdin=subprocess.PIPE,
        stdout=subprocess.PIPE,
        text=True,
    )
    yield json.loads(process.stdout.readline())
    process.stdin.close()
    process.stdout.close()
    process.wait(10)


def test_the_reader_reads_into_a_swatch_and_a_wanted_colour(demo, reader):
    def read(page, part):
        kind, key = ("match" if "match" in page else "paint"), page.rsplit("/", 1)[1]
        return demo.post(f"/paints/reader/{kind}/{key}", {"part": part}, follow_redirects=True).text

    demo.post("/paints/reader/connect", {"url": ""})
    assert "connect a colour reader first" in read(WANTED, "wanted")
    assert (
        "not connected"
        in demo.post("/paints/reader/connect", {"url": "http://somewhere"}, follow_redirects=True).text
    )
    demo.post("/paints/reader/connect", {"url": reader["reader"]})
    assert reader["reader"] in demo.get("/paints/shelf").text
    assert "Read: L 5" in read(WANTED, "wanted") and "its readings lie within" in read(
        PAINT_PAGE, "swatch.white"
    )
    assert state(demo, WANTED)["document"]["source"] == "reader"
    assert state(demo, PAINT_PAGE)["document"]["swatch"]["white"]["red"] == pytest.approx(24, abs=1)
    read(MIXED, "seen")
    assert state(demo, MIXED)["document"]["is_seen"] is True
    assert state(demo, MIXED)["document"]["seen"]["lightness"] == pytest.approx(52, abs=1)
    assert demo.post("/paints/reader/match/92", {"part": "name"}).status_code == 422
    demo.post("/paints/reader/connect", {"url": "socket://127.0.0.1:9"})
    assert "Nothing was read." in read(WANTED, "wanted")


def test_a_mix_that_teaches_nothing_stops_no_page(demo):
    live(demo, MIXED, set_to("ground.red", "120"), set_to("ground.yellow", "-120"))
    other = f"/paints/match/{demo_rows.WEED_BACK + 1}"
    for part in state(demo, other)["view"]["mixed"]:
        live(demo, other, set_to(part["drops"]["path"], "0"))
    assert "Foretells your 4 mixed swatches" in demo.get("/paints/shelf").text
    for page in (WANTED, other, MIXED, "/paints/4", f"/paints/on/{demo_rows.FERRY_RUNNER}/amounts"):
        assert demo.get(page).status_code == 200
    half = live(demo, WANTED, {"do": "take", "recipe": "C-001:2"}, set_to("parts.r1.drops", "2.5"))
    assert half["errors"][0]["field"] == "parts.r1.drops" and half["document"]["parts"][0]["drops"] == 2


def test_a_paint_that_cannot_be_read_is_named_and_the_rest_is_there(demo):
    with opened(demo) as session:
        row = session.get_one(Document, demo_rows.GLASS_RED)
        content = documents.content(session, row)
        content["kind"] = "velvet"
        documents.save(session, row, content, row.current)
    text = " ".join(demo.get("/paints/shelf").text.split())
    assert "kept as they are: Glass red (C-015)." in text and "Glass blue" in text
