"""The walk through the pages' own endpoints: enquiry, design, ballast, piece, weighing, shipped."""

import io
import json
import re

import pytest
from sqlmodel import select

from lamsik.core.shapes.solid import solid
from lamsik.core.tank.mass import budget
from lamsik.core.trade.figures import FIGURES
from lamsik.core.units import STORED
from lamsik.documents.body.document import to_design
from lamsik.store import pieces, stores
from lamsik.store.database import session_of
from lamsik.store.tables import Drill, Observation, Order, OrderLine, Piece, Revision
from lamsik.web.bodies import state
from lamsik.web.stores.views import ADDERS, LIMITS
from tests.demo_rows import (
    ESTUARY_BLADE,
    FERRY_RUNNER,
    FERRY_RUNNER_110,
    ORDER_FERRY_RUNNER_90_ASKED,
    PIECE_LITTLE_GLIDER,
    PIECE_SKIFF_POPPER,
    PIECE_SLACK_WATER_GLIDER,
)

ENQUIRY = {
    "customer": "Ärla Brandt",
    "customer_contact": "by the quay",
    "quantity": "1",
    "form": "slim",
    "length": "3 1/2 in",
    "material": "basswood",
    "scheme": "1",
    "behaviour": "slow rise",
    "pitch": "0°",
    "water": "1",
    "due": "2031-05-01",
    "price": "48,50",
    "note": "two rattles? no",
}


def order_of(shop, key, table=Order):
    with session_of(shop.http.application.extensions["engine"]) as session:
        return session.get(table, key)


class TestEnquiry:
    def test_is_noted_with_what_was_typed(self, empty):
        where = empty.post("/orders/new", ENQUIRY).headers["Location"]
        order, line = order_of(empty, 1), order_of(empty, 1, OrderLine)
        assert (line.length_mm, line.typed, line.lump_minor, line.quantity) == (
            pytest.approx(88.9),
            {"length": "3 1/2 in", "pitch": "0°"},
            4850,
            1,
        )
        assert (order.price_minor, order.quantity) == (4850, 1)
        page = empty.get(where).text
        assert "Ärla Brandt" in page and "3 1/2 in" in page and "48.50 EUR" in page

    BAD = [
        ("customer", "", "Who is it for?"),
        ("length", "wide", "cannot be read"),
        ("length", "4 m", "out of range"),
        ("quantity", "0", "1 to 500"),
        ("quantity", "x", "valid integer"),
        ("pitch", "200°", "out of range"),
        ("price", "a lot", "type an amount"),
        ("price", "nan", "type an amount"),
        ("form", "ufo", "Not a valid choice"),
        ("due", "soon", "valid date"),
        ("water", "77", "Not a valid choice"),
    ]

    @pytest.mark.parametrize(("field", "text", "says"), BAD)
    def test_bad_input_is_answered_beside_its_field_and_kept(self, empty, field, text, says):
        answer = empty.post("/orders/new", {**ENQUIRY, field: text})
        assert answer.status_code == 422
        problem = re.search(rf'id="{field}-error">([^<]*)<', answer.text)
        assert problem and says in problem.group(1)
        assert "two rattles? no" in answer.text and (field == "customer" or "Ärla Brandt" in answer.text)
        assert order_of(empty, 1) is None


def begun(shop):
    """An accepted order with a design in its scheme, hardware on; the keys of design and order."""
    shop.post("/orders/new", ENQUIRY)
    shop.post("/orders/1/accept")
    key = int(shop.post("/orders/1/line/1/design").headers["Location"].rsplit("/", 1)[1])
    document = shop.get(f"/shapes/{key}/body.json").json
    edits = [
        {"do": "hang", "code": "tie-s", "seat": "nose"},
        {"do": "hang", "code": "hgr-s", "seat": "belly", "x_mm": 46},
        {"do": "hang", "code": "hgr-s", "seat": "tail"},
        {"do": "hang", "code": "ring-4"},
        {"do": "hang", "code": "ring-4"},
        {"do": "hang", "code": "tre-8"},
        {"do": "hang", "code": "tre-8"},
        {"do": "lip", "code": "lip-m"},
    ]
    answer = shop.send(
        f"/designs/{key}/live",
        {"bench": "shapes", "document": document, "base": 2, "edits": edits, "save": True},
    ).json
    assert answer["errors"] == [] and answer["saved"]
    return key, answer


def ballasted(shop):
    key, answer = begun(shop)
    found = shop.send(f"/designs/{key}/ballast", {"bench": "tank", "document": answer["document"]}).json
    put = {
        "bench": "tank",
        "document": answer["document"],
        "base": answer["base"],
        "edits": [found["answers"][0]["edit"]],
        "save": True,
    }
    return key, shop.send(f"/designs/{key}/live", put).json, found


def test_the_design_begins_from_the_wish(empty):
    key, answer = begun(empty)
    document = answer["document"]
    assert document["body"]["length_mm"] == pytest.approx(88.9)
    assert document["scheme"] == "S-001" and document["layers"]
    assert (
        document["want"] | {"behaviour": "slow rise", "speed_cm_s": 6.0, "pitch_deg": 0.0, "by": "speed"}
        == document["want"]
    )
    assert document["water"]["name"] == "fresh water"
    assert answer["view"]["nothing_missing"]


def test_a_ballast_answer_put_on_meets_the_want(empty):
    key, answer, found = ballasted(empty)
    assert len(found["answers"]) >= 3
    assert all(a["says"] and a["off"] and a["wall"] for a in found["answers"])
    plain = {**answer["document"], "ballast": []}
    drawn = empty.send(
        f"/designs/{key}/pictures",
        {"bench": "tank", "document": plain, "edits": [a["edit"] for a in found["answers"]]},
    ).json["pictures"]
    assert len({json.dumps(picture) for picture in drawn}) == len(found["answers"]) and all(
        picture["tag"] == "svg" for picture in drawn
    )
    assert answer["view"]["sentence"].startswith("Hangs level and rises slowly")


def test_a_piece_from_first_weighing_to_shipped(empty):
    key, answer, _ = ballasted(empty)
    page = empty.post("/pieces/start", {"design": key, "order": 1}).headers["Location"]
    before = empty.get(page).text
    assert "Nothing is weighed yet" in before
    expected = float(re.search(r'placeholder="([\d.]+) g', before).group(1))
    empty.post(
        f"{page}/weigh", {"target": "stage:carved", "mass": f"{expected + 0.6:.1f}", "instrument": "1"}
    )
    after = empty.get(page).text
    advised = re.search(
        r"Blank 0\.[567] g heavier than basswood at 0\.42 g/cm³: use"
        r" (?:a|\d slugs of) ([\d.]+) g (?:slug|in all)"
        r" instead of ([\d.]+) g",
        after,
    )
    assert advised and float(advised.group(1)) < float(advised.group(2))
    assert "Pocket scale 0.1 g" in after
    assert "As planned</small> Hangs level and rises slowly" in after
    empty.post(f"{page}/use-advice")
    with session_of(empty.http.application.extensions["engine"]) as session:
        piece = session.get(Piece, 1)
        revision = session.get(Revision, piece.revision_id)
        assert revision.beside and revision.note == "ballast for P0001 as weighed"
        assert sum(h["mass_g"] for h in revision.content["ballast"]) == pytest.approx(
            float(advised.group(1)), abs=0.06
        )
    assert "still fits" in empty.get(page).text
    steps = re.findall(r'name="step" value="([^"]+)"', after)
    hasty = empty.post(f"{page}/steps/tick", {"step": "rig", "done": "1"}, follow_redirects=True)
    assert "Not done yet: Carve the body" in hasty.text and 'name="reason"' in hasty.text
    assert re.search(r'aria-current="step"[^>]*>making', empty.get("/orders/1").text)
    for point in re.findall(r'name="point" value="([^"]+)"', after):
        empty.post(f"{page}/steps/point", {"step": "check", "point": point, "ticked": "1"})
    for step in steps:
        empty.post(f"{page}/steps/tick", {"step": step, "done": "1", "early": "1"})
    assert re.search(r'aria-current="step"[^>]*>shipped', empty.get("/orders/1").text)
    empty.post(f"{page}/steps/tick", {"step": "ship", "done": "0"})
    assert re.search(r'aria-current="step"[^>]*>ready', empty.get("/orders/1").text)


def test_a_wait_runs_by_itself_and_the_next_step_asks_before_it_is_over(empty):
    key, _, _ = ballasted(empty)
    page = empty.post("/pieces/start", {"design": key, "order": 1}).headers["Location"]
    first, second, third, *_ = dict.fromkeys(re.findall(r'name="step" value="([^"]+)"', empty.get(page).text))
    empty.post(f"{page}/steps/tick", {"step": first, "done": "1"})
    assert empty.get("/mixes/clocks.json").json["clocks"] == []  # carving waits for nothing
    empty.post(f"{page}/steps/tick", {"step": second, "done": "1"})
    (clock,) = empty.get("/mixes/clocks.json").json["clocks"]
    assert (
        clock["kind"] == "wait"
        and "P0001: then" in clock["name"]
        and clock["link"].startswith(f"{page}#step-")
    )
    assert re.search(r"Not before \d\d:\d\d", empty.get(page).text)
    asked = empty.post(f"{page}/steps/tick", {"step": third, "done": "1"}, follow_redirects=True)
    assert "go on before that" in asked.text
    empty.post(f"{page}/steps/tick", {"step": third, "done": "1", "early": "1"})
    assert [c for c in empty.get("/mixes/clocks.json").json["clocks"] if c["link"] == clock["link"]] == []
    empty.post(f"{page}/steps/tick", {"step": third, "done": "0"})
    empty.post(f"{page}/steps/tick", {"step": second, "done": "0"})
    assert empty.get("/mixes/clocks.json").json["clocks"] == []


def test_a_question_before_a_tick_is_what_is_at_hand(demo):
    """It may stand far below the step to weigh: the page opens on the question, not on that."""
    page = demo.post("/pieces/start", {"design": str(FERRY_RUNNER)}).headers["Location"]
    asked = demo.post(f"{page}/steps/tick", {"step": "rig", "done": "1"}, follow_redirects=True).text
    assert "Not done yet" in asked
    assert re.findall(r'<input id="([^"]+)"[^>]*\sautofocus', asked) == ["a-reason"]
    assert asked.count("autofocus") == 1


@pytest.mark.parametrize(
    ("mass", "says"),
    [
        ("heavy", "type a mass"),
        ("-3", "reads above 0"),
        ("9000", "up to 500 g"),
        ("8 gr", "8 g or 8 grains"),
        ("", "Type a mass"),
    ],
)
def test_a_bad_reading_comes_back_in_its_place(demo, mass, says):
    answer = demo.post(
        f"/pieces/{PIECE_SKIFF_POPPER}/weigh", {"target": "stage:sealed", "mass": mass, "instrument": "1"}
    )
    assert answer.status_code == 422
    assert says in answer.text and f'value="{mass}"' in answer.text and 'role="alert"' in answer.text


def test_a_blank_held_under_water_too_tells_its_size_and_the_shop_learns_from_it(empty):
    key, _, _ = ballasted(empty)
    page = empty.post("/pieces/start", {"design": key, "order": 1}).headers["Location"]
    under = {
        "target": "water:carved",
        "mass": "12.0",
        "sinker": "22.0",
        "temperature": "18 C",
        "instrument": "1",
    }
    assert "weigh it in air first" in empty.post(f"{page}/weigh", under).text
    air = float(re.search(r'placeholder="([\d.]+) g', empty.get(page).text).group(1))
    empty.post(f"{page}/weigh", {"target": "stage:carved", "mass": f"{air:.2f}", "instrument": "1"})
    before = empty.get(page).text
    assert "Held under water too" in before and "Bare wood drinks" in before
    for bad, says in (
        ({"temperature": ""}, "temperature"),
        ({"mass": "x"}, "type a mass"),
        ({"mass": "90", "sinker": ""}, "less than in air"),
        ({"mass": "-1"}, "take a heavier one"),
    ):
        answer = empty.post(f"{page}/weigh", {**under, **bad})
        assert answer.status_code == 422 and says in answer.text and 'class="held-under" open' in answer.text
    assert empty.post(f"{page}/weigh", under).status_code == 302
    shown = empty.get(page).text
    assert "−10.00 g" in shown and "held under, in 18" in shown
    with session_of(empty.http.application.extensions["engine"]) as session:
        learned = stores.setting(session, "faces")["learned"]["wood"]
        row = session.exec(select(Observation).where(Observation.what == "water:carved")).one()
        volume = (air + 10.0) / (0.99860 - 0.0012)
        assert learned["blanks"] == 1 and row.conditions["water"]["temperature_c"] == 18
        piece = session.get(Piece, 1)
        design = to_design(dict(pieces.document_of(session, piece)))
        mass = budget(design, pieces.measured(pieces.readings(session, piece)))
        assert mass.displaced_ml - budget(design).displaced_ml == pytest.approx(
            volume - solid(design.body).volume_ml, abs=0.02
        )
        weighing = row.id
    empty.post(f"{page}/take-back/{weighing}")
    with session_of(empty.http.application.extensions["engine"]) as session:
        assert stores.setting(session, "faces")["learned"] == {}


def test_a_reading_is_taken_back_and_a_part_is_weighed(demo):
    page = f"/pieces/{PIECE_SKIFF_POPPER}"
    demo.post(f"{page}/weigh", {"target": "part:hook1", "mass": "0.52 g", "instrument": "2"})
    assert ">0.52 g<" in demo.get(page).text
    weighing = re.search(r"take-back/(\d+)", demo.get(page).text).group(1)
    demo.post(f"{page}/take-back/{weighing}")
    assert "Nothing is weighed" not in demo.get(page).text
    assert demo.post(f"{page}/steps/tick", {"step": "dance", "done": "1"}).status_code == 422
    assert demo.post(f"/pieces/{PIECE_SLACK_WATER_GLIDER}/use-advice").status_code == 422


def test_the_card_prints_true_to_size(demo):
    from lamsik.store.database import FILE_NAME  # noqa: F401, PLC0415

    data = demo.get(f"/pieces/{PIECE_LITTLE_GLIDER}/card.pdf")
    assert data.mimetype == "application/pdf" and data.data.startswith(b"%PDF")
    card = demo.get(f"/pieces/{PIECE_LITTLE_GLIDER}/card").text
    sizes = dict(re.findall(r'width="([\d.]+)mm" height="([\d.]+)mm"', card))
    assert sizes and all(float(w) > 10 for w in sizes)
    for view_box, width in re.findall(r'viewBox="[-\d.]+ [-\d.]+ ([\d.]+) [\d.]+" width="([\d.]+)mm"', card):
        assert float(view_box) == pytest.approx(float(width), abs=0.01)
    for says in (
        "50 mm must be 50 mm",
        "Drill map",
        "from the nose",
        "Seal",
        "Wait 12 h",
        "next coat before 36 h",
        "Wood dust",
        "safety data sheet",
    ):
        assert says in card


def test_a_missing_print_library_says_what_to_install(demo, monkeypatch):
    from lamsik.web.shared import printing  # noqa: PLC0415

    def missing(_html):
        raise printing.CannotPrint(
            "PDF needs the Pango library. On Debian: sudo apt-get install libpango-1.0-0"
        )

    monkeypatch.setattr(printing, "pdf", missing)
    answer = demo.get(f"/pieces/{PIECE_LITTLE_GLIDER}/card.pdf")
    assert answer.status_code == 501 and "apt-get install" in answer.text


class TestLive:
    def ask(self, shop, key=15, bench="tank", **more):
        return shop.send(
            f"/designs/{key}/live",
            {"bench": bench, "document": shop.get(f"/shapes/{key}/body.json").json, "base": 2, **more},
        )

    @pytest.mark.parametrize("bench", state.BENCHES)
    @pytest.mark.parametrize("mode", ["drag", "settled"])
    def test_every_bench_answers_in_both_modes(self, demo, bench, mode):
        answer = self.ask(demo, bench=bench, mode=mode).json
        assert answer["view"]["settled"] is (mode == "settled")
        assert answer["view"]["picture"]["tag"] == "svg" and answer["view"]["sentence"]
        assert ("document" in answer) is (mode == "settled")  # a drag is a preview

    def test_a_refused_edit_is_said_for_its_field_and_the_rest_holds(self, demo):
        edits = [
            {"do": "set", "path": "body.width_mm", "text": "wide"},
            {"do": "set", "path": "body.depth_mm", "text": "21 mm"},
        ]
        answer = self.ask(demo, edits=edits).json
        assert [e["field"] for e in answer["errors"]] == ["body.width_mm"] and "type a length" in answer[
            "errors"
        ][0]["message"]
        assert (
            answer["document"]["body"]["depth_mm"] == 21
            and answer["view"]["fields"]["body.depth_mm"] == "21 mm"
        )

    def test_a_stale_save_is_refused_and_undo_redo_work(self, demo):
        edit = [{"do": "set", "path": "body.depth_mm", "text": "21 mm"}]
        saved = self.ask(demo, edits=edit, save=True).json
        assert saved["base"] > 2
        assert (
            self.ask(
                demo, edits=[{"do": "set", "path": "body.depth_mm", "text": "22 mm"}], save=True
            ).status_code
            == 409
        )
        undone = demo.send(f"/designs/{FERRY_RUNNER}/undo", {"bench": "tank"}).json
        assert undone["moved"] and undone["document"]["body"]["depth_mm"] == 19
        redone = demo.send(f"/designs/{FERRY_RUNNER}/redo", {"bench": "tank"}).json
        assert redone["document"]["body"]["depth_mm"] == 21
        assert (
            demo.send(f"/designs/{FERRY_RUNNER}/redo", {"bench": "tank"}).json["errors"][0]["message"]
            == "Nothing to redo."
        )

    def test_a_warm_start_and_bad_ones(self, demo):
        near = {"pitch_deg": 1.0, "roll_deg": 0.0, "draft_mm": 3.0}
        assert self.ask(demo, mode="drag", near=near).status_code == 200
        assert self.ask(demo, mode="drag", near={"pitch_deg": "up"}).status_code == 422

    @pytest.mark.parametrize("document", [None, 5, {}, {"format": "lamsik-body"}, []])
    def test_what_is_no_document_is_refused(self, demo, document):
        answer = demo.send(f"/designs/{FERRY_RUNNER}/live", {"bench": "tank", "document": document})
        assert answer.status_code == 422 and answer.json["error"]["allowed"]

    def test_inches(self, demo):
        figures = [one for setting in LIMITS for one in FIGURES[setting]]
        limits = {
            **{f"limits-{one.key}": f"{one.usual:g} {STORED[one.quantity]}" for one in figures},
            "limits-stick_length": "1 m",
            "limits-stick_width": "40 mm",
            "limits-stick_thick": "25 mm",
        }
        changed = limits | {"limits-slow_cm_s": "11 cm/s", "limits-edge_mm": "5 mm"}
        blade = f"/shapes/blades/{ESTUARY_BLADE}"
        assert "leave 5.0 mm" not in demo.get(blade).text
        assert demo.post("/stores/limits", changed).status_code == 302
        assert re.findall(r"table: [^<]+", demo.get("/stores").text) == ["table: 10 cm/s", "table: 0.8 mm"]
        assert "leave 5.0 mm" in demo.get(blade).text
        assert demo.post("/stores/limits", limits).status_code == 302
        assert (
            demo.post("/stores/units", {"preset": "inches", "currency": "usd", "paper": "Letter"}).status_code
            == 302
        )
        answer = self.ask(demo, bench="shapes").json
        assert answer["view"]["fields"]["body.length_mm"] == "3 35/64 in"

    def test_no_ballast_says_why(self, demo):
        document = demo.get(f"/shapes/{FERRY_RUNNER}/body.json").json
        document["material"]["density_g_cm3"] = 1.1
        answer = demo.send(f"/designs/{FERRY_RUNNER}/ballast", {"bench": "tank", "document": document}).json
        assert answer["answers"] == [] and "even without ballast" in answer["why"]


class TestFiles:
    def test_a_body_goes_out_and_comes_back(self, demo):
        out = demo.get(f"/shapes/{FERRY_RUNNER}/body.json")
        assert "attachment" in out.headers["Content-Disposition"]
        back = demo.post(
            "/shapes/bring-in", {"file": (io.BytesIO(out.data), "b.json")}, content_type="multipart/form-data"
        )
        key = back.headers["Location"].rsplit("/", 1)[1]
        assert demo.get(f"/shapes/{key}/body.json").json == out.json

    @pytest.mark.parametrize(
        ("change", "says"),
        [({"version": 9}, "Version: 9; "), ({"name": ""}, "name"), ({"format": "x"}, "Format: x; ")],
    )
    def test_a_wrong_file_names_the_field(self, demo, change, says):
        data = json.dumps({**demo.get(f"/shapes/{FERRY_RUNNER}/body.json").json, **change}).encode()
        answer = demo.post(
            "/shapes/bring-in", {"file": (io.BytesIO(data), "b.json")}, content_type="multipart/form-data"
        )
        assert answer.status_code == 422 and says in answer.text


class TestKeeping:
    def test_designs_schemes_and_orders_are_deleted_and_brought_back(self, demo):
        for base, key, listing, name in (
            ("shapes", 15, "/shapes", "Ferry runner 90"),
            ("paints", 4, "/paints", "Zander clay"),
            ("orders", 19, "/orders", "A0019"),
        ):
            demo.post(f"/{base}/{key}/delete")
            page = demo.get(listing).text
            assert f"{name} is deleted" in page and f"/{base}/{key}/bring_back" in page
            assert name not in demo.get(listing).text
            demo.post(f"/{base}/{key}/bring_back")
            assert name in demo.get(listing).text

    def test_a_copy_is_its_own_design(self, demo):
        made = demo.post(f"/shapes/{FERRY_RUNNER}/copy").headers["Location"]
        assert "Ferry runner 90 copy" in demo.get(made).text

    def test_an_order_takes_a_design_there_is_and_can_be_reopened(self, demo):
        demo.post(
            f"/orders/{ORDER_FERRY_RUNNER_90_ASKED}/line/{ORDER_FERRY_RUNNER_90_ASKED}/design",
            {"design": str(FERRY_RUNNER_110)},
        )
        assert order_of(demo, 24, OrderLine).design_id == 16
        demo.post(f"/orders/{ORDER_FERRY_RUNNER_90_ASKED}/accept")
        assert order_of(demo, 24).accepted_at
        demo.post(f"/orders/{ORDER_FERRY_RUNNER_90_ASKED}/reopen")
        assert order_of(demo, 24).accepted_at is None


class TestStores:
    GOOD = {
        "hardware": (
            {"name": "Long treble", "kind": "hook", "mass": "1/64 oz", "source": "weighed"},
            "Long treble",
        ),
        "slug": ({"form": "rod", "metal": "bismuth", "diameter": "7 mm"}, "bismuth rod 7 mm"),
        "drill": ({"diameter": "9/32 in"}, "9/32 in"),
        "water": ({"name": "Test tub", "temperature": "54 °F", "salinity": "1 PSU"}, "Test tub"),
        "scale": ({"name": "Old beam", "step": "0.5 g", "span": "2 lb"}, "Old beam"),
    }

    @pytest.mark.parametrize("what", ADDERS)
    def test_every_kind_can_be_added_once(self, empty, what):
        fields, shown = self.GOOD[what]
        data = {f"{what}-{name}": value for name, value in fields.items()}
        assert empty.post(f"/stores/add/{what}", data).status_code == 302
        assert shown in empty.get("/stores").text
        again = empty.post(f"/stores/add/{what}", data)
        assert again.status_code == (302 if what == "hardware" else 422)

    BAD = [
        ("hardware", {"name": "x", "kind": "hook", "mass": "8 gr", "source": "label"}, "8 g or 8 grains"),
        ("hardware", {"name": "x", "kind": "tube", "mass": "1 g", "source": "label"}, "bored and drawn"),
        ("slug", {"form": "rod", "metal": "lead", "diameter": "0 mm"}, "out of range"),
        ("drill", {"diameter": ""}, "cannot be read"),
        ("water", {"name": "x", "temperature": "12", "salinity": "0 PSU"}, "unit is missing"),
        ("scale", {"name": "", "step": "0.1 g", "span": "100 g"}, "Name the scale"),
    ]

    @pytest.mark.parametrize(("what", "fields", "says"), BAD)
    def test_bad_input_comes_back_beside_its_field(self, empty, what, fields, says):
        answer = empty.post(
            f"/stores/add/{what}", {f"{what}-{name}": value for name, value in fields.items()}
        )
        assert answer.status_code == 422 and says in answer.text
        assert empty.post("/stores/limits", {"limits-wall_mm": "thin"}).status_code == 422

    def test_measures_keep_their_typed_text(self, empty):
        empty.post("/stores/add/drill", {"drill-diameter": "9/32 in"})
        with session_of(empty.http.application.extensions["engine"]) as session:
            drill = session.exec(select(Drill).where(Drill.diameter_mm > 7.1, Drill.diameter_mm < 7.2)).one()
        assert drill.typed == {"diameter": "9/32 in"}

    def test_what_an_order_names_stays(self, demo):
        demo.post("/stores/remove/drill/1")
        assert "0.7 mm" not in re.search(r'id="drill".*?</ul>', demo.get("/stores").text, re.S).group(0)
        demo.post("/stores/remove/water/1")
        assert "An order still names it" in demo.get("/stores").text


class TestWildRequests:
    """Whatever is sent to the live exchange or the forms: an answer with words, never a fault."""

    WILD = [
        {"edits": "all"},
        {"edits": [5]},
        {"edits": [{"do": ["set"]}]},
        {"edits": [{"do": "set", "path": 5, "text": None}]},
        {"edits": [{"do": "hang", "code": "tie-s", "x_mm": "far"}]},
        {"base": "one"},
        {"base": -1},
        {"looks": ["x"]},
        {"looks": "sideways"},
        {"near": {"pitch_deg": None}},
        {"mode": 7},
        {"edits": [{"do": "set", "path": "a.b.c", "text": "1"}] * 201},
        {"edits": [{"do": "ballast", "holes": [{"key": 1}]}]},
        {"edits": [{"do": "set", "path": "hardware.x_mm", "text": "1 mm"}]},
        {"edits": [{"do": "set", "path": "body.length_mm.x", "text": "1 mm"}]},
        {"edits": [{"do": "set", "path": "body.width_mm", "text": "12", "unit": "parsec"}]},
        {"edits": [{"do": "hang", "code": {"a": 1}}]},
        {"edits": [{"do": "remove", "group": "hardware", "key": None}]},
    ]

    @pytest.mark.parametrize("wild", WILD, ids=range(len(WILD)))
    def test_the_live_exchange(self, demo, wild):
        body = {
            "bench": "tank",
            "document": demo.get(f"/shapes/{FERRY_RUNNER}/body.json").json,
            "base": 2,
            "mode": "drag",
            **wild,
        }
        answer = demo.send(f"/designs/{FERRY_RUNNER}/live", body)
        assert answer.status_code in (200, 422)
        assert answer.json.get("view") or answer.json["error"]["message"]

    @pytest.mark.parametrize(
        "url",
        [
            "/pieces/start",
            f"/orders/{ORDER_FERRY_RUNNER_90_ASKED}/line/{ORDER_FERRY_RUNNER_90_ASKED}/design",
            f"/pieces/{PIECE_SKIFF_POPPER}/weigh",
        ],
    )
    @pytest.mark.parametrize("text", ["x", "-1", "9" * 40, "1.5", "²"])
    def test_ids_in_forms(self, demo, url, text):
        answer = demo.post(
            url, {"design": text, "line": text, "instrument": text, "target": "stage:sealed", "mass": "3 g"}
        )
        assert answer.status_code in (400, 404, 422)


def test_a_piece_of_an_ordered_design_is_for_that_order(empty):
    key, _ = begun(empty)
    page = empty.get(f"/tank/{key}").text
    assert 'for <a href="/orders/1">A0001</a>' in page
    empty.post("/pieces/start", {"design": key})
    with session_of(empty.http.application.extensions["engine"]) as session:
        assert session.get(Piece, 1).order_id == 1
    empty.post("/pieces/start", {"design": key})
    with session_of(empty.http.application.extensions["engine"]) as session:
        assert session.get(Piece, 2).order_id is None
