"""What strangers, slow fingers and full disks do: forms sent twice, disks that fill at the commit, locks,
ids of nothing, things taken back.
"""

import html
import io
import json
import re
import resource
import sqlite3
from contextlib import contextmanager

import pytest
from sqlmodel import func, select

from lamsik.store.database import FILE_NAME, session_of
from lamsik.store.tables import Clock, Document, Hardware, Order, Piece, Revision, WeighedThing
from lamsik.web.bodies import live
from tests.demo_rows import (
    FERRY_RUNNER,
    ORDER_SLACK_WATER_GLIDER,
    PIECE_LITTLE_GLIDER,
    PIECE_SLACK_WATER_GLIDER,
    SLACK_WATER_GLIDER,
    SPLIT_EEL,
    STUBBY_FOUR_AT_ONCE,
    TENCH_ANTENNA_2_5_G,
    WEIGHED_SHOT,
)
from tests.web.test_slice import ENQUIRY
from tests.wild import broken


def count(visitor, table):
    with session_of(visitor.http.application.extensions["engine"]) as session:
        return session.exec(select(func.count()).select_from(table)).one()


def fields_of(visitor, page, action):
    """The hidden fields of the form with an action, as a browser sends them."""
    text = visitor.get(page).text
    form = re.search(rf'<form[^>]*action="{re.escape(action)}"[^>]*>(.*?)</form>', text, re.S)
    found = form[1] if form else text
    return dict(re.findall(r'<input type="hidden" name="([\w-]+)" value="([^"]*)"', found))


@contextmanager
def disk_full(home):
    """No file of this process may grow: the write-ahead log cannot take the commit."""
    soft, hard = resource.getrlimit(resource.RLIMIT_FSIZE)
    log = home / f"{FILE_NAME}-wal"
    resource.setrlimit(resource.RLIMIT_FSIZE, (log.stat().st_size if log.exists() else 4096, hard))
    try:
        yield
    finally:
        resource.setrlimit(resource.RLIMIT_FSIZE, (soft, hard))


class TestTwice:
    @pytest.mark.parametrize(
        ("page", "action", "data", "table"),
        [
            ("/orders/new", "/orders/new", {**ENQUIRY, "customer": "Twice Asked"}, Order),
            ("/shapes", "/shapes/new", {"form": "slim"}, Document),
            ("/floats", "/floats/new", {"kind": "stick"}, Document),
            (f"/shapes/{FERRY_RUNNER}", "/pieces/start", {"design": str(FERRY_RUNNER)}, Piece),
            (
                "/scale",
                "/scale",
                {"name": "Bead", "kind": "hardware", "air": "5 g", "water_id": "1", "instrument": "1"},
                WeighedThing,
            ),
        ],
    )
    def test_a_form_sent_twice_is_done_once_and_leads_to_the_same_page(self, demo, page, action, data, table):
        hidden, before = fields_of(demo, page, action), count(demo, table)
        assert len(hidden["once"]) == 22
        answers = [demo.post(action, {**hidden, **data}, page=page) for _ in range(2)]
        assert [answer.status_code for answer in answers] == [302, 303] and answers[0].headers[
            "Location"
        ] == answers[1].headers["Location"]
        assert count(demo, table) == before + 1
        assert (
            demo.post(action, {**fields_of(demo, page, action), **data}, page=page).status_code == 302
            and count(demo, table) == before + 2
        )

    def test_a_form_that_was_refused_is_mended_and_sent_again(self, empty):
        hidden = fields_of(empty, "/orders/new", "/orders/new")
        assert empty.post("/orders/new", {**hidden, **ENQUIRY, "customer": ""}).status_code == 422
        assert empty.post("/orders/new", {**hidden, **ENQUIRY, "customer": "Mended"}).status_code == 302


class TestDisk:
    def test_a_disk_that_fills_at_the_commit_has_its_words_and_nothing_is_said_to_be_kept(
        self, empty, stocked_home
    ):
        data = {**fields_of(empty, "/orders/new", "/orders/new"), **ENQUIRY, "customer": "Nobody"}
        assert (
            empty.get("/nowhere").status_code == 404
        )  # the page of errors is compiled: only the shop is short of room
        with disk_full(stocked_home):
            answer = empty.http.post("/orders/new", data=data)
        assert (
            answer.status_code == 507 and "The disk is full." in answer.text and "is noted" not in answer.text
        )
        assert "is noted" not in empty.get("/orders").text and count(empty, Order) == 0
        assert (
            empty.http.post("/orders/new", data=data).status_code == 302 and count(empty, Order) == 1
        )  # with room again the same form is done

    def test_a_lock_that_is_held_is_said_and_the_error_page_does_not_wait_for_it(self, empty, stocked_home):
        data = {**fields_of(empty, "/orders/new", "/orders/new"), **ENQUIRY, "customer": "Nobody"}
        engine = empty.http.application.extensions["engine"]
        holder = sqlite3.connect(stocked_home / FILE_NAME, isolation_level=None)
        with engine.connect() as connection:
            connection.exec_driver_sql("PRAGMA busy_timeout = 100")
        holder.execute("BEGIN EXCLUSIVE")
        try:
            answer = empty.http.post("/orders/new", data=data)
        finally:
            holder.rollback()
            holder.close()
        assert (
            answer.status_code == 503
            and "busy: something else is writing" in answer.text
            and count(empty, Order) == 0
        )

    @pytest.mark.parametrize(
        ("address", "more"),
        [
            (f"/designs/{FERRY_RUNNER}/live", {"mode": "drag"}),
            (f"/designs/{FERRY_RUNNER}/live", {"mode": "settled"}),
            (f"/designs/{FERRY_RUNNER}/ballast", {}),
        ],
    )
    def test_what_only_looks_waits_for_no_lock(self, demo, demo_home, address, more):
        document = json.loads(demo.get(f"/shapes/{FERRY_RUNNER}/body.json").text)
        holder = sqlite3.connect(demo_home / FILE_NAME, isolation_level=None)
        holder.execute("BEGIN IMMEDIATE")
        try:
            assert (
                demo.send(address, {"bench": "tank", "document": document, "edits": [], **more}).status_code
                == 200
            )
            assert demo.get("/search?q=ferry").status_code == 200
        finally:
            holder.rollback()
            holder.close()

    def test_a_save_is_there_before_its_view_is_computed(self, demo, demo_home, monkeypatch):
        seen = []

        def look(*given, **named):
            other = sqlite3.connect(demo_home / FILE_NAME, timeout=0, isolation_level=None)
            other.execute("BEGIN IMMEDIATE")  # another tablet may write while this one computes
            seen.append(other.execute("SELECT current FROM document WHERE id = 15").fetchone()[0])
            other.rollback()
            other.close()
            return kept(*given, **named)

        kept = live._view
        monkeypatch.setattr(live, "_view", look)
        document = json.loads(demo.get(f"/shapes/{FERRY_RUNNER}/body.json").text)
        edit = {"do": "set", "path": "body.depth_mm", "text": "21 mm"}
        answer = demo.send(
            f"/designs/{FERRY_RUNNER}/live",
            {
                "bench": "shapes",
                "document": document,
                "edits": [edit],
                "save": True,
                "mode": "settled",
                "base": current_of(demo, 15),
            },
        )
        assert (
            answer.json["saved"]
            and seen == [answer.json["base"]]
            and current_of(demo, 15) == answer.json["base"]
        )


class TestTakenBack:
    def test_a_part_is_taken_out_put_back_and_a_new_one_never_meets_its_code(self, empty):
        def add(name):
            return empty.post(
                "/stores/add/hardware",
                {
                    "hardware-name": name,
                    "hardware-kind": "ring",
                    "hardware-mass": "0.1 g",
                    "hardware-count": "1",
                    "hardware-material": "steel",
                    "hardware-source": "label",
                },
                page="/stores",
            )

        def codes():
            with session_of(empty.http.application.extensions["engine"]) as session:
                return {row.name: (row.id, row.code) for row in session.exec(select(Hardware)).all()}

        assert [add(name).status_code for name in ("Ring one", "Ring two")] == [302, 302]
        key, code = codes()["Ring one"]
        told = empty.post(f"/stores/remove/hardware/{key}", follow_redirects=True).text
        assert "Ring one" not in codes() and "Undo" in told
        assert add("Ring three").status_code == 302 and codes()["Ring three"][1] not in (
            code,
            codes()["Ring two"][1],
        )
        undo = re.search(r'action="(/history/\d+/take-back\?to=hardware)"', told)[1]
        assert empty.post(undo).status_code == 302 and codes()["Ring one"][1] == code
        assert "changed since" in empty.post(undo, follow_redirects=True).text and len(codes()) == len(
            set(codes())
        )

    def test_a_stopped_clock_runs_on_and_a_mistaken_piece_comes_back(self, demo):
        with session_of(demo.http.application.extensions["engine"]) as session:
            clock = session.exec(select(Clock).where(Clock.stopped_at.is_(None))).first()
        told = demo.post(f"/mixes/clocks/{clock.id}/stop", follow_redirects=True).text
        assert f"Stopped: {clock.name}" in told and demo.get("/mixes/clocks.json").text.count(clock.name) == 0
        demo.post(re.search(r'action="(/mixes/clocks/\d+/run-on)"', told)[1])
        assert clock.name in demo.get("/mixes/clocks.json").json["clocks"][0]["name"] + str(
            demo.get("/mixes/clocks.json").json
        )
        gone = demo.post(f"/pieces/{PIECE_LITTLE_GLIDER}/delete", follow_redirects=True).text
        number = re.search(r"(P\d{4}) is deleted", gone)[1]
        assert f">{number}<" not in demo.get("/pieces").text
        demo.post(f"/pieces/{PIECE_LITTLE_GLIDER}/bring_back")
        assert number in demo.get("/pieces").text

    def test_what_a_piece_does_not_have_is_not_weighed_and_a_revision_that_is_not_there_is_said(self, demo):
        refused = demo.post(
            f"/pieces/{PIECE_LITTLE_GLIDER}/weigh", {"target": "part:wings", "mass": "3 g", "instrument": "1"}
        )
        assert refused.status_code == 422 and "no such part" in refused.text
        assert (
            demo.post(f"/tank/{FERRY_RUNNER}/history/999").status_code == 404
            and "no revision 999"
            in demo.post(f"/shapes/{FERRY_RUNNER}/revisions/999/name", {"name": "x"}).text
        )


class TestKept:
    def test_what_never_changes_is_kept_for_ever_and_the_shops_own_data_nowhere(self, demo):
        page = demo.get("/orders")
        address = re.search(r'href="(/static/\w{16}/css/shop\.css)"', page.text)[1]
        assert (
            page.headers["Cache-Control"] == "no-store"
            and demo.get(f"/shapes/{FERRY_RUNNER}/body.json").headers["Cache-Control"] == "no-store"
        )
        with demo.get(address) as kept, demo.get(address.replace(address.split("/")[2], "0" * 16)) as old:
            assert (
                "immutable" in kept.headers["Cache-Control"]
                and "max-age=31536000" in kept.headers["Cache-Control"]
            )
            assert old.status_code == 200 and "immutable" not in old.headers["Cache-Control"]


class TestWild:
    @pytest.mark.parametrize("seed", [1])
    def test_no_request_breaks_it(self, demo, seed):
        assert broken(demo.http.application, 1, seed) == []

    @pytest.mark.parametrize(
        "code", ["é", "\ud83d\ude00".encode("utf-16", "surrogatepass").decode("utf-16"), "9" * 5000, ""]
    )
    def test_a_strange_pairing_code_is_a_wrong_one(self, empty, code):
        assert empty.post("/pair", {"code": code}).status_code == 422


class TestTwoTabs:
    @pytest.mark.parametrize(
        ("address", "data"),
        [(f"/shapes/{FERRY_RUNNER}/joints", {"x": "40 mm"}), (f"/tank/{FERRY_RUNNER}/history/1", {})],
    )
    def test_what_has_nothing_typed_is_refused(self, demo, address, data):
        assert demo.post(address, {**data, "base": "1"}).status_code == 409
        assert demo.post(address, data).status_code == 302

    def test_outlines_for_a_body_that_was_changed_meanwhile(self, demo):
        svg = demo.get(f"/shapes/{FERRY_RUNNER}/outlines.svg").data
        sent = {"onto": "15", "base": "1", "file": (io.BytesIO(svg), "side.svg")}
        assert (
            demo.post("/shapes/bring-in", sent, content_type="multipart/form-data").status_code == 422
        )  # said beside the field

    def test_an_undo_sent_twice_steps_once(self, demo):
        base = int(
            re.search(r'&#34;base&#34;: ?(\d+)|"base": ?(\d+)', demo.get(f"/tank/{FERRY_RUNNER}").text)[
                0
            ].split(":")[1]
        )
        first = demo.send(f"/designs/{FERRY_RUNNER}/undo", {"bench": "tank", "base": base})
        assert first.status_code == 200 and first.json["base"] != base
        assert demo.send(f"/designs/{FERRY_RUNNER}/undo", {"bench": "tank", "base": base}).status_code == 409


class TestDeadEnds:
    def test_a_trial_weight_on_a_hanger_and_a_cut_taken_without_comparing(self, demo):
        document = json.loads(demo.get(f"/shapes/{FERRY_RUNNER}/body.json").text)
        hanger = next(part["key"] for part in document["hardware"] if part["kind"] == "hanger")
        base = json.loads(
            demo.send(
                f"/designs/{FERRY_RUNNER}/live", {"bench": "tank", "document": document, "edits": []}
            ).text
        )["document"]
        sent = {
            "bench": "tank",
            "document": base,
            "edits": [{"do": "trial", "place": hanger}],
            "save": True,
            "mode": "settled",
            "base": current_of(demo, 15),
        }
        answer = demo.send(f"/designs/{FERRY_RUNNER}/live", sent)
        assert answer.json["saved"] and not answer.json["errors"]
        assert demo.get(f"/paints/on/{FERRY_RUNNER}").status_code == 200
        bare = {"x": "", "slant": "", "kerf": "", "kind": ""}
        assert demo.post(f"/shapes/{SPLIT_EEL}/joints", bare).status_code == 302
        wrong = demo.post(f"/shapes/{SPLIT_EEL}/joints", {**bare, "kind": "wings"})
        assert wrong.status_code == 422 and "Take the other cut" in wrong.text

    def test_an_order_whose_design_is_gone_has_a_way_back(self, demo):
        demo.post(f"/shapes/{SLACK_WATER_GLIDER}/delete")
        order = demo.get(f"/orders/{ORDER_SLACK_WATER_GLIDER}").text
        assert "was deleted" in order
        for bench in ("shapes", "tank"):
            assert f'href="/{bench}/{SLACK_WATER_GLIDER}"' not in order
        assert (
            f'href="/shapes/{SLACK_WATER_GLIDER}"' not in demo.get(f"/pieces/{PIECE_SLACK_WATER_GLIDER}").text
            and "Bring it back" in demo.get(f"/pieces/{PIECE_SLACK_WATER_GLIDER}").text
        )
        demo.post(re.search(r'action="(/shapes/\d+/bring_back)"', order)[1])
        assert f'href="/shapes/{SLACK_WATER_GLIDER}"' in demo.get(f"/orders/{ORDER_SLACK_WATER_GLIDER}").text


def current_of(visitor, key):
    with session_of(visitor.http.application.extensions["engine"]) as session:
        return session.get(Document, key).current


class TestBadDocuments:
    @pytest.mark.parametrize(
        ("change", "says"),
        [
            ({"film_g_cm3": 0}, "film: 0"),
            ({"marks": []}, "at least one mark"),
            ({"family": 7}, "Family"),
            ({"parts": []}, "Parts"),
            ({"paint_g": 1e308}, "Paint"),
            ({"water": None}, "Water"),
        ],
    )
    def test_a_float_that_cannot_be_shown_is_not_kept(self, demo, change, says):
        document = {**json.loads(demo.get(f"/floats/{TENCH_ANTENNA_2_5_G}/float.json").text), **change}
        answer = demo.post(
            "/floats/bring-in",
            {"file": (io.BytesIO(json.dumps(document).encode()), "f.json")},
            content_type="multipart/form-data",
        )
        assert (
            answer.status_code == 422
            and says.lower() in answer.text.lower()
            and demo.get("/floats").status_code == 200
        )

    @pytest.mark.parametrize(
        "lacks", ["family", "telltale", "shots", "tips", "typed", "source", "wanted_mark"]
    )
    def test_a_float_file_may_leave_out_what_has_a_usual_value(self, demo, lacks):
        document = json.loads(demo.get(f"/floats/{TENCH_ANTENNA_2_5_G}/float.json").text)
        document.pop(lacks, None)
        answer = demo.post(
            "/floats/bring-in",
            {"file": (io.BytesIO(json.dumps(document).encode()), "f.json")},
            content_type="multipart/form-data",
        )
        assert answer.status_code == 302 and demo.get(answer.headers["Location"]).status_code == 200

    @pytest.mark.parametrize(
        "lacks", ["vents", "texts", "wells", "feed", "keys", "stand", "typed", "level_deg"]
    )
    def test_a_mould_file_too(self, demo, lacks):
        document = json.loads(demo.get(f"/moulds/{STUBBY_FOUR_AT_ONCE}/mould.json").text)
        document.pop(lacks, None)
        answer = demo.post(
            "/moulds/bring-in",
            {"file": (io.BytesIO(json.dumps(document).encode()), "m.json")},
            content_type="multipart/form-data",
        )
        if answer.status_code == 302:
            assert all(
                demo.get(answer.headers["Location"] + room).status_code == 200
                for room in ("", "/cast", "/card", "/halves", "/by-when")
            )
        else:
            assert answer.status_code == 422
        assert demo.get("/moulds").status_code == 200

    KINDS = (
        ("float", "/floats"),
        ("mould", "/moulds"),
        ("body", "/shapes"),
        ("blade", "/shapes/blades"),
        ("product", "/mixes"),
        ("scheme", "/paints"),
    )

    @pytest.mark.parametrize(("kind", "page"), KINDS)
    def test_one_bad_row_takes_no_list_down(self, demo, kind, page):
        with session_of(demo.http.application.extensions["engine"]) as session:
            row = session.exec(
                select(Document).where(Document.kind == kind, Document.deleted_at.is_(None))
            ).first()
            kept = session.exec(
                select(Revision).where(Revision.document_id == row.id, Revision.number == row.current)
            ).one()
            kept.content = {
                **kept.content,
                "parts": 5,
                "master": None,
                "body": None,
                "holes": 5,
                "layers": [{"x": 1}],
            }
            session.add(kept)
        own = f"/mixes/products/{row.id}" if kind == "product" else f"{page}/{row.id}"
        for shown in (demo.get(page), demo.get(own)):  # in the list, and by itself
            assert f"{row.name} ({row.code}) cannot be shown" in html.unescape(shown.text) and (
                "Take its file" in shown.text or kind == "scheme"
            )
        assert demo.get(page).status_code == 200 and demo.get(own).status_code == 422
        assert demo.post(f"{own}/delete").status_code == 302 and "cannot be shown" not in demo.get(page).text

    def test_a_bad_table_of_sizes_takes_no_float_along(self, demo):
        with session_of(demo.http.application.extensions["engine"]) as session:
            kept = session.exec(select(Revision).where(Revision.document_id == WEIGHED_SHOT)).one()
            kept.content = {**kept.content, "shots": 5}
            session.add(kept)
        own = demo.get(f"/floats/shots/{WEIGHED_SHOT}")
        assert own.status_code == 422 and "Take its file" in own.text
        assert all(
            demo.get(page).status_code == 200 for page in ("/floats", f"/floats/{TENCH_ANTENNA_2_5_G}")
        )
        assert "Weighed shot (T-001) cannot be shown" in demo.get("/floats").text


class TestBackups:
    def test_one_is_made_looked_into_taken_and_put_back_by_page(self, demo):
        assert "no backup of this shop yet" in demo.get("/").text
        told = demo.post("/stores/backups/make", follow_redirects=True).text
        name = re.search(r"shop-\d{8}-\d{6}\.sqlite3", told)[0]
        assert (
            "can be put back" in told
            and re.search(r"\d+ bodies", told)
            and "no backup" not in demo.get("/").text
        )
        with demo.get(f"/stores/backups/{name}") as taken:
            assert taken.data[:15] == b"SQLite format 3"
        before = count(demo, Order)
        demo.post("/orders/new", {**ENQUIRY, "customer": "After the backup"})
        unsure = demo.post(f"/stores/backups/{name}/restore")
        assert unsure.status_code == 422 and count(demo, Order) == before + 1
        sealed = hidden_once(demo.get("/stores/backups").text)
        done = demo.post(f"/stores/backups/{name}/restore", {**sealed, "sure": "1"}, follow_redirects=True)
        assert (
            f"The shop is as in {name}" in done.text
            and "before-restore" in done.text
            and count(demo, Order) == before
        )
        assert demo.get("/stores/backups/passwd").status_code == 404

    def test_a_torn_one_is_listed_with_why_and_has_no_way_back(self, demo):
        demo.post("/stores/backups/make")
        home = demo.http.application.config["HOME"] / "backups"
        (home / "shop-20200101-000000.sqlite3").write_text("no database" * 100)
        page = demo.get("/stores/backups").text
        assert (
            "not a backup of a shop" in page and page.count("Put it back") == 2
        )  # the good one's summary and its button
        assert (
            demo.post("/stores/backups/shop-20200101-000000.sqlite3/restore", {"sure": "1"}).status_code
            == 422
        )

    def test_how_many_are_kept(self, empty):
        assert empty.post("/stores/backups/plan", {"keep": "many"}).status_code == 422
        empty.post("/stores/backups/plan", {"keep": "3"})
        page = empty.get("/stores/backups").text
        assert 'value="3"' in page and 'name="daily" value="1" checked' not in page


def hidden_once(text):
    return dict(re.findall(r'<input type="hidden" name="(once|csrf_token)" value="([^"]*)"', text))


def test_the_table_of_weighed_things_goes_out_whole_and_coming_in_again_doubles_nothing(demo):
    data = demo.get("/scale/things.csv").data
    head, *rows = data.decode().splitlines()
    assert (
        "marks" in head
        and "weighed at" in head
        and "id" in head
        and any("ring 2" in row and "F-00" in row and "T" in row for row in rows)
    )
    before = count(demo, WeighedThing)
    again = demo.post(
        "/scale/things.csv",
        {"file": (io.BytesIO(data), "w.csv")},
        content_type="multipart/form-data",
        follow_redirects=True,
    )
    assert (
        f"0 weighed things brought in. {before} were here already" in again.text
        and count(demo, WeighedThing) == before
    )
