"""What strangers, slow fingers and full disks do: forms sent twice, disks that fill at the commit, locks, ids of nothing, things taken back."""

import re
import resource
import sqlite3
from contextlib import contextmanager

import pytest
from sqlmodel import func, select

from lamsik.store.database import FILE_NAME, session_of
from lamsik.store.tables import Clock, Document, Hardware, Order, Piece, Weighed
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
            ("/shapes/15", "/pieces/start", {"design": "15"}, Piece),
            ("/scale", "/scale", {"name": "Bead", "kind": "hardware", "air": "5 g", "water_id": "1", "instrument": "1"}, Weighed),
        ],
    )
    def test_a_form_sent_twice_is_done_once_and_leads_to_the_same_page(self, demo, page, action, data, table):
        hidden, before = fields_of(demo, page, action), count(demo, table)
        assert len(hidden["once"]) == 22
        answers = [demo.post(action, {**hidden, **data}, page=page) for _ in range(2)]
        assert [answer.status_code for answer in answers] == [302, 303] and answers[0].headers["Location"] == answers[1].headers["Location"]
        assert count(demo, table) == before + 1
        assert demo.post(action, {**fields_of(demo, page, action), **data}, page=page).status_code == 302 and count(demo, table) == before + 2

    def test_a_form_that_was_refused_is_mended_and_sent_again(self, empty):
        hidden = fields_of(empty, "/orders/new", "/orders/new")
        assert empty.post("/orders/new", {**hidden, **ENQUIRY, "customer": ""}).status_code == 422
        assert empty.post("/orders/new", {**hidden, **ENQUIRY, "customer": "Mended"}).status_code == 302


class TestDisk:
    def test_a_disk_that_fills_at_the_commit_has_its_words_and_nothing_is_said_to_be_kept(self, empty, tmp_path):
        data = {**fields_of(empty, "/orders/new", "/orders/new"), **ENQUIRY, "customer": "Nobody"}
        token = empty.get("/mixes/clocks")
        assert token.status_code == 200
        with disk_full(tmp_path / "empty"):
            answer = empty.http.post("/orders/new", data=data)
        assert answer.status_code == 507 and "The disk is full." in answer.text and "is noted" not in answer.text
        assert "is noted" not in empty.get("/orders").text and count(empty, Order) == 0
        assert empty.http.post("/orders/new", data=data).status_code == 302 and count(empty, Order) == 1  # with room again the same form is done

    def test_a_lock_that_is_held_is_said_and_the_error_page_does_not_wait_for_it(self, empty, tmp_path):
        data = {**fields_of(empty, "/orders/new", "/orders/new"), **ENQUIRY, "customer": "Nobody"}
        engine = empty.http.application.extensions["engine"]
        holder = sqlite3.connect(tmp_path / "empty" / FILE_NAME, isolation_level=None)
        with engine.connect() as connection:
            connection.exec_driver_sql("PRAGMA busy_timeout = 100")
        holder.execute("BEGIN EXCLUSIVE")
        try:
            answer = empty.http.post("/orders/new", data=data)
        finally:
            holder.rollback()
            holder.close()
        assert answer.status_code == 503 and "busy: something else is writing" in answer.text and count(empty, Order) == 0


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
        assert add("Ring three").status_code == 302 and codes()["Ring three"][1] not in (code, codes()["Ring two"][1])
        undo = re.search(r'action="(/stores/put-back/hardware/\w+)"', told)[1]
        assert empty.post(undo).status_code == 302 and codes()["Ring one"][1] == code
        assert "back already" in empty.post(undo, follow_redirects=True).text and len(codes()) == len(set(codes()))

    def test_a_stopped_clock_runs_on_and_a_mistaken_piece_comes_back(self, demo):
        with session_of(demo.http.application.extensions["engine"]) as session:
            clock = session.exec(select(Clock).where(Clock.stopped_at.is_(None))).first()
        told = demo.post(f"/mixes/clocks/{clock.id}/stop", follow_redirects=True).text
        assert f"Stopped: {clock.name}" in told and demo.get("/mixes/clocks.json").text.count(clock.name) == 0
        demo.post(re.search(r'action="(/mixes/clocks/\d+/run-on)"', told)[1])
        assert clock.name in demo.get("/mixes/clocks.json").json["clocks"][0]["name"] + str(demo.get("/mixes/clocks.json").json)
        gone = demo.post("/pieces/50/delete", follow_redirects=True).text
        number = re.search(r"(P\d{4}) is deleted", gone)[1]
        assert f">{number}<" not in demo.get("/pieces").text
        demo.post("/pieces/50/bring_back")
        assert number in demo.get("/pieces").text

    def test_what_a_piece_does_not_have_is_not_weighed_and_a_revision_that_is_not_there_is_said(self, demo):
        refused = demo.post("/pieces/50/weigh", {"target": "part:wings", "mass": "3 g", "instrument": "1"})
        assert refused.status_code == 422 and "no such part" in refused.text
        assert demo.post("/tank/15/history/999").status_code == 404 and "no revision 999" in demo.post("/shapes/15/revisions/999/name", {"name": "x"}).text


class TestKept:
    def test_what_never_changes_is_kept_for_ever_and_the_shops_own_data_nowhere(self, demo):
        page = demo.get("/orders")
        address = re.search(r'href="(/static/\w{16}/css/app\.css)"', page.text)[1]
        assert page.headers["Cache-Control"] == "no-store" and demo.get("/shapes/15/body.json").headers["Cache-Control"] == "no-store"
        with demo.get(address) as kept, demo.get(address.replace(address.split("/")[2], "0" * 16)) as old:
            assert "immutable" in kept.headers["Cache-Control"] and "max-age=31536000" in kept.headers["Cache-Control"]
            assert old.status_code == 200 and "immutable" not in old.headers["Cache-Control"]


class TestWild:
    @pytest.mark.parametrize("seed", [1, 2])
    def test_no_request_breaks_it(self, demo, seed):
        assert broken(demo.http.application, 1, seed) == []

    @pytest.mark.parametrize("code", ["é", "\ud83d\ude00".encode("utf-16", "surrogatepass").decode("utf-16"), "9" * 5000, ""])
    def test_a_strange_pairing_code_is_a_wrong_one(self, empty, code):
        assert empty.post("/pair", {"code": code}).status_code == 422
