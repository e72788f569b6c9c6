"""Two people at two browsers: who did what, steps begun, noted, left out and taken back, names in Stores."""

import re

import pytest

from lamsik.store.tables import LogEntry, Person, Piece, PieceStep, Pour
from tests.demo_rows import FEATHER_DIVER_HEAD, FERRY_RUNNER
from tests.web.conftest import Visitor
from tests.web.pouring import poured, rows


@pytest.fixture
def two(demo):
    """Ann and Bo, each at a browser of their own."""
    for name in ("Ann", "Bo"):
        demo.post("/people/add", {"name": name})
    other = Visitor(demo.http.application)
    for visitor, name in ((demo, "Ann"), (other, "Bo")):
        assert "Who stands here?" in visitor.get("/").text
        key = next(row.id for row in rows(demo, Person) if row.name == name)
        visitor.post("/people/here", {"person": key, "back": "/orders"})
        assert "Who stands here?" not in visitor.get("/").text
    return demo, other


def piece_of(visitor, design=FERRY_RUNNER):
    page = visitor.post("/pieces/start", {"design": str(design)}).headers["Location"]
    return page, rows(visitor, Piece)[-1]


def lines(visitor, url):
    found = re.findall(r"<li(?: [^>]*)?>(.*?)</li>", visitor.get(url).text, re.S)
    return [" ".join(re.sub(r"<[^>]+>", " ", line).split()) for line in found]


def test_who_did_what_to_a_piece_and_to_a_pour(two):
    ann, bo = two
    page, piece = piece_of(ann)
    bo.post(f"{page}/steps/tick", {"step": "carve", "done": "1"})
    ann.post(f"{page}/weigh", {"target": "stage:carved", "mass": "9.4", "instrument": "1"})
    told = lines(ann, f"/history?of=piece&id={piece.id}")
    assert [re.sub(r"^\d+ \w+ [\d:]+ ", "", line).replace(" Take back", "") for line in told] == [
        f"Ann {piece.number} weighed carved: 9.4 g",
        f"Bo {piece.number} Carve the body: done",
        f"Ann {piece.number} begun",
    ]
    file = ann.get(f"/history/piece/{piece.id}.json").json
    assert [one["by"] for one in file["events"]][-2:] == ["Bo", "Ann"] and file[
        "format"
    ] == "lamsik-history/1"
    assert {one["part"] for one in file["state"]} == {"", "step", "observed"}
    pour = poured(bo)
    told = lines(ann, f"/history?of=pour&id={pour.id}")
    assert all(" Bo Shot " in line for line in told) and any("on to: Let it cure" in line for line in told)
    assert any("release: seen to" in line for line in told) and "begun" in told[-1]
    key = next(row.id for row in rows(ann, Person) if row.name == "Bo")
    assert all(" Bo " in line for line in lines(ann, f"/history?by={key}"))
    assert any("weighed A" in line for line in lines(ann, "/history?of=batch"))


def test_a_step_is_begun_seen_on_today_noted_and_done(two):
    ann, bo = two
    page, piece = piece_of(ann)
    ann.post(f"{page}/steps/begin", {"step": "carve"})
    today = bo.get("/").text
    assert "Begun" in today and re.search(rf"{piece.number}</a> <strong>Carve the body</strong> Ann", today)
    again = ann.post(f"{page}/steps/begin", {"step": "carve"})
    assert again.status_code == 422 and "begun already" in again.text
    bo.post(f"{page}/steps/note", {"step": "carve", "note": "knot at the tail"})
    bo.post(f"{page}/steps/tick", {"step": "carve", "done": "1"})
    shown = ann.get(page).text
    assert "knot at the tail" in shown and re.search(r"\d\d:\d\d, Bo, 0 min of work", shown)
    assert piece.number not in re.sub(r"At the bench.*", "", ann.get("/").text)


def test_a_step_is_left_out_with_a_reason_or_not_at_all_and_undone_once(two):
    ann, bo = two
    page, piece = piece_of(ann)
    silent = ann.post(f"{page}/steps/leave-out", {"step": "swim", "reason": " "})
    assert silent.status_code == 422 and "say why it is left out" in silent.text
    ann.post(f"{page}/steps/leave-out", {"step": "swim", "reason": "ice on the mere"})
    back = f"/history/{rows(bo, LogEntry, LogEntry.of == 'piece')[-1].id}/take-back"
    bo.post(back)
    assert rows(bo, PieceStep, PieceStep.piece_id == piece.id) == []
    assert "undo what came after it first" in bo.post(back, follow_redirects=True).text


def test_a_body_that_lacks_something_asks_before_the_first_step_and_keeps_the_answer(two):
    ann, _ = two
    page, piece = piece_of(ann, FEATHER_DIVER_HEAD)
    asked = ann.post(f"{page}/steps/begin", {"step": "carve"}, follow_redirects=True).text
    assert "cannot do without" in asked and "<strong>Hook</strong>" in asked
    assert rows(ann, PieceStep, PieceStep.piece_id == piece.id) == [] and 'name="without"' in asked
    ann.post(f"{page}/steps/begin", {"step": "carve", "without": "a model for the wall"})
    assert "a model for the wall" in ann.get(page).text
    ann.post(f"{page}/steps/tick", {"step": "carve", "done": "1"})
    assert rows(ann, PieceStep, PieceStep.piece_id == piece.id)[0].done_at is not None


def test_names_are_kept_changed_and_taken_off_in_stores(two):
    ann, _ = two
    key = next(row.id for row in rows(ann, Person) if row.name == "Bo")
    assert "that name is taken" in ann.post("/people/add", {"name": "bo"}, follow_redirects=True).text
    assert "type a name" in ann.post(f"/people/{key}/rename", {"name": " "}, follow_redirects=True).text
    ann.post(f"/people/{key}/rename", {"name": "Bo Lund"})
    stores = ann.get("/stores").text
    assert 'value="Bo Lund"' in stores and ">BL</span>" in stores
    gone = ann.post(f"/people/{key}/leave", follow_redirects=True).text
    assert "Bo Lund is off the list" in gone and ">BL</span>" not in gone
    ann.post(f"/people/{key}/bring_back")
    assert ">BL</span>" in ann.get("/stores").text
    nobody = ann.post("/people/here", {"person": "", "back": "//elsewhere.example"})
    assert nobody.headers["Location"] == "/" and "Who stands here?" not in ann.get("/").text


def test_minutes_of_the_shop_stand_beside_those_of_the_table(demo):
    page = demo.get("/stores").text
    sent = dict(re.findall(r'name="(minutes:[^"]+)" aria-label="[^"]+" value="([^"]+)"', page))
    demo.post("/stores/minutes", {**sent, "minutes:carve:each": "1 h"})
    shown = demo.get("/stores").text
    assert "table: 42 min" in shown and "table: 15 min" not in shown
    page, _ = piece_of(demo)
    assert "about 15 min to set up, 60 min each" in demo.get(page).text
    bad = demo.post("/stores/minutes", {**sent, "minutes:carve:each": "soon"})
    assert bad.status_code == 422 and 'value="soon"' in bad.text


def test_pages_of_the_history_that_name_nothing_are_answered(demo):
    assert demo.get("/history?of=dragon&id=7&by=x&page=999").status_code == 200
    assert "Nothing was done here yet" in demo.get("/history?of=pour&id=99999").text
    assert demo.post("/history/999999/take-back").status_code == 404
    assert demo.get("/history/pour/999999.json").status_code == 404
    made = rows(demo, Pour)[0]
    event = rows(demo, LogEntry, LogEntry.of == "pour", LogEntry.of_id == made.id)[0]
    told = demo.post(f"/history/{event.id}/take-back", follow_redirects=True).text
    assert "gone back on at its own bench" in told


def test_what_was_changed_says_which_and_goes_back_and_shipping_is_not_left_out(two):
    ann, bo = two
    page, piece = piece_of(ann)
    ann.post(f"{page}/steps/begin", {"step": "carve"})
    ann.post(f"{page}/steps/note", {"step": "carve", "note": "a knot"})
    back = f"/history/{rows(bo, LogEntry, LogEntry.of == 'piece')[-1].id}/take-back"
    assert bo.post(back).status_code == 302 and "a knot" not in bo.get(page).text
    ann.post(f"{page}/steps/tick", {"step": "carve", "done": "1"})
    assert "Carve the body: done" in lines(bo, f"/history?of=piece&id={piece.id}")[0]
    sent = ann.post(f"{page}/steps/leave-out", {"step": "ship", "reason": "kept"})
    assert sent.status_code == 422 and "what is not sent is not left out" in sent.text
    refused = ann.post(f"{page}/weigh", {"target": "stage:carved", "mass": "x", "instrument": "1"})
    assert refused.status_code == 422 and 'name="back" value="/"' in refused.text
