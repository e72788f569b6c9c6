"""Strangers, forged forms, oversized files, and errors that say what to do."""

import socket
from datetime import UTC, datetime, timedelta

import pytest
from werkzeug.test import Client

from lamsik.web.app import create_app
from lamsik.web.lan.certificate import certificate
from lamsik.web.lan.pairing import Pairings
from lamsik.web.lan.pipe import Pipe
from tests.demo_rows import FERRY_RUNNER, PIECE_LITTLE_GLIDER
from tests.web.conftest import Visitor

STRANGER = {"REMOTE_ADDR": "192.168.7.20"}


@pytest.fixture
def lan(demo_home):
    app = create_app(demo_home, lan=True)
    app.config["ALLOWED_HOSTS"] = app.config["ALLOWED_HOSTS"] | {"shop.local"}
    yield app
    app.extensions["engine"].dispose()


@pytest.mark.parametrize(
    "host", ["evil.example.com", "127.0.0.1.evil.example.com", "localhost.evil:5151", ""]
)
def test_only_the_shops_own_names_are_answered(demo, host):
    answer = demo.get("/", headers={"Host": host})
    assert answer.status_code == 400 and "This shop does not answer to the name" in answer.text


@pytest.mark.parametrize("host", ["127.0.0.1:5151", "localhost", "[::1]:5151"])
def test_loopback_names_are_fine(demo, host):
    assert demo.get("/", headers={"Host": host}).status_code == 200


def test_without_lan_nobody_else_gets_in(demo):
    answer = Visitor(demo.http.application, **STRANGER).get("/")
    assert answer.status_code == 403 and "--lan" in answer.text


def test_a_tablet_pairs_with_the_code_only(lan):
    tablet = Visitor(lan, **STRANGER)
    assert tablet.get("/orders").headers["Location"] == "/pair"
    wrong = tablet.post("/pair", {"code": "12"}, page="/pair")
    assert wrong.status_code == 422 and "not the code" in wrong.text
    assert tablet.post("/pair", {"code": lan.config["PAIRING_CODE"]}, page="/pair").status_code == 302
    assert tablet.get("/orders").status_code == 200


def test_the_listener_behind_the_pipe_lets_nobody_in_by_itself(lan, tmp_path):
    """Any program of this machine can reach it; there it is not this machine's own browser."""
    with socket.socket() as listener:
        listener.bind(("127.0.0.1", 0))
        pipe = Pipe(listener, ("127.0.0.1", 4000), certificate(tmp_path, ["localhost"]).chain)
        told = pipe.behind(lan.wsgi_app, 4000)
        pipe.callers[5001] = ("192.168.7.9", "https")
        for port, to in (("5000", "/trust/"), ("5001", "/pair"), ("", "/trust/")):
            environ = {
                "SERVER_PORT": "4000",
                "REMOTE_PORT": port,
                "REMOTE_ADDR": "127.0.0.1",
                "HTTP_HOST": "localhost",
            }
            assert Client(told).get("/orders", environ_overrides=environ).headers["Location"] == to
        assert (
            Client(told)
            .get("/orders", environ_overrides={"SERVER_PORT": "4001", "REMOTE_ADDR": "127.0.0.1"})
            .status_code
            == 200
        )


def test_this_machines_own_browser_is_known_by_its_own_names_only(lan):
    assert Visitor(lan).get("/orders").status_code == 200
    assert Visitor(lan).get("/orders", headers={"Host": "shop.local"}).headers["Location"] == "/pair"


def test_guessing_is_slowed_down_even_for_the_right_code(lan):
    tablet = Visitor(lan, **STRANGER)
    for _ in range(5):
        tablet.post("/pair", {"code": "000000x"}, page="/pair")
    late = tablet.post("/pair", {"code": lan.config["PAIRING_CODE"]}, page="/pair")
    assert late.status_code == 429 and "Too many wrong codes. Wait" in late.text
    assert Visitor(lan, REMOTE_ADDR="192.168.7.21").get("/pair").status_code == 200


def test_cookies_are_closed_to_scripts_and_other_sites(demo):
    cookie = Visitor(demo.http.application).get("/").headers["Set-Cookie"]
    assert "HttpOnly" in cookie and "SameSite=Lax" in cookie


@pytest.mark.parametrize(
    "url",
    [
        "/shapes/new",
        "/orders/new",
        "/pieces/start",
        f"/pieces/{PIECE_LITTLE_GLIDER}/weigh",
        "/stores/limits",
        f"/designs/{FERRY_RUNNER}/live",
        f"/designs/{FERRY_RUNNER}/undo",
        "/paints/new",
    ],
)
def test_every_change_needs_its_token(demo, url):
    assert demo.http.post(url, data={}).status_code == 400
    assert demo.http.post(url, json={}).status_code == 400


def test_a_json_caller_gets_json(demo):
    error = demo.send(f"/designs/{FERRY_RUNNER}/live", {"bench": "attic"}).json["error"]
    assert error["field"] == "bench" and "shapes" in error["allowed"] and len(error["id"]) == 8
    missing = demo.send("/designs/9999/live", {"bench": "tank"})
    assert missing.status_code == 404 and missing.json["error"]["message"]


def test_a_file_over_the_limit_is_refused_with_the_limit(demo):
    answer = demo.http.post(
        "/shapes/bring-in", data=b"x" * 3_000_000, content_type="multipart/form-data; boundary=x"
    )
    assert answer.status_code == 413 and "2 MB" in answer.text


def test_the_secret_is_the_shops_own_and_stays(demo_home, tmp_path):
    one, two = create_app(demo_home), create_app(demo_home)
    other = create_app(tmp_path / "other")
    assert one.secret_key == two.secret_key != other.secret_key
    assert (demo_home / "secret.key").stat().st_mode & 0o077 == 0
    for app in (one, two, other):
        app.extensions["engine"].dispose()


def test_a_fault_of_the_program_is_a_page_with_an_id_and_saves_nothing(demo, monkeypatch):
    def broken(*_args, **_more):
        raise RuntimeError("secret detail")

    monkeypatch.setattr("lamsik.web.orders.views.orders.place", broken)
    form = {
        "customer": "Nobody New",
        "quantity": "1",
        "form": "slim",
        "length": "90 mm",
        "material": "basswood",
        "scheme": "0",
        "behaviour": "slow rise",
        "pitch": "0°",
        "water": "1",
    }
    answer = demo.post("/orders/new", form)
    assert answer.status_code == 500
    assert "secret detail" not in answer.text and "Nothing that was saved is lost" in answer.text
    assert "Nobody New" not in demo.get("/search?q=nobody").text.split("<main")[1].replace("nobody", "")


class TestPairings:
    """Tablets that were let in, and codes that were wrong."""

    def let_in(self, lan, address="192.168.7.20", agent="Mozilla/5.0 (iPad; CPU OS 17)"):
        tablet = Visitor(lan, REMOTE_ADDR=address, HTTP_USER_AGENT=agent)
        assert tablet.post("/pair", {"code": lan.config["PAIRING_CODE"]}, page="/pair").status_code == 302
        return tablet

    def test_they_are_listed_and_ended_one_by_one_or_all_at_once(self, lan):
        first, second = self.let_in(lan), self.let_in(lan, "192.168.7.21", "Mozilla/5.0 (Linux; Android 14)")
        own = Visitor(lan)
        page = own.get("/tablets").text
        assert (
            "an iPad" in page
            and "an Android tablet" in page
            and "192.168.7.21" in page
            and "2 tablets are let in" in page
        )
        key = next(key for key, row in lan.extensions["pairings"].rows.items() if row.device == "an iPad")
        own.post("/tablets/end", {"key": key})
        assert first.get("/orders").status_code == 302 and second.get("/orders").status_code == 200
        own.post("/tablets/end")
        assert (
            second.get("/orders").headers["Location"] == "/pair"
            and "No tablet is let in" in own.get("/tablets").text
        )

    def test_a_restart_ends_all_but_those_that_are_kept_on_purpose(self, lan):
        stays, goes = self.let_in(lan), self.let_in(lan, "192.168.7.21")
        key = next(
            key for key, row in lan.extensions["pairings"].rows.items() if row.address == "192.168.7.20"
        )
        Visitor(lan).post("/tablets/keep", {"key": key, "kept": "1"})
        file = lan.config["HOME"] / "pairings.json"
        assert file.stat().st_mode & 0o777 == 0o600
        lan.extensions["pairings"].rows[key].last = (datetime.now(UTC) - timedelta(days=13)).isoformat()
        assert (
            stays.get("/orders").status_code == 200
            and datetime.now(UTC).date().isoformat() in file.read_text()
        )  # its use is kept too
        lan.extensions["pairings"] = Pairings(lan.config["HOME"])
        assert stays.get("/orders").status_code == 200 and goes.get("/orders").status_code == 302

    def test_one_that_is_not_used_for_long_types_the_code_again(self, lan):
        tablet = self.let_in(lan)
        row = next(iter(lan.extensions["pairings"].rows.values()))
        row.last = (datetime.now(UTC) - timedelta(days=15)).isoformat()
        assert tablet.get("/orders").status_code == 302 and not lan.extensions["pairings"].rows

    def test_wrong_codes_count_together_from_wherever_they_come_and_each_makes_the_wait_longer(
        self, lan, caplog
    ):
        for number in range(5):
            assert (
                Visitor(lan, REMOTE_ADDR=f"192.168.7.{30 + number}")
                .post("/pair", {"code": "nope"}, page="/pair")
                .status_code
                == 422
            )
        right = {"code": lan.config["PAIRING_CODE"]}
        assert Visitor(lan, REMOTE_ADDR="192.168.7.99").post("/pair", right, page="/pair").status_code == 429
        known, waits = lan.extensions["pairings"], []
        assert 0 < known.wait_s() <= 60 and "wrong pairing code from 192.168.7.34" in caplog.text
        for _ in range(8):
            known.missed("192.168.7.40")
            waits.append(round(known.wait_s()))
        assert waits[:3] == [120, 240, 480] and waits[-1] == 3600
        known.open_from = 0.0
        self.let_in(lan)
        assert known.wrong == 0

    def test_a_cookie_made_up_or_of_another_start_lets_nobody_in(self, lan):
        tablet = self.let_in(lan)
        lan.extensions["pairings"].rows.clear()
        assert tablet.get("/orders").status_code == 302

    @pytest.mark.parametrize("held", ["", "[]", "{", '{"a": 1}', '{"a": {"device": "x"}}'])
    def test_a_torn_list_lets_nobody_in_and_stops_nothing(self, tmp_path, held):
        (tmp_path / "pairings.json").write_text(held)
        assert Pairings(tmp_path).rows == {}
