"""Strangers, forged forms, oversized files, and errors that say what to do."""

import pytest

from lamsik.web.app import create_app
from tests.web.conftest import Visitor

STRANGER = {"REMOTE_ADDR": "192.168.7.20"}


@pytest.fixture
def lan(demo_home):
    app = create_app(demo_home, lan=True)
    app.config["ALLOWED_HOSTS"] = app.config["ALLOWED_HOSTS"] | {"shop.local"}
    yield app
    app.extensions["engine"].dispose()


@pytest.mark.parametrize("host", ["evil.example.com", "127.0.0.1.evil.example.com", "localhost.evil:5151", ""])
def test_only_the_shops_own_names_are_answered(demo, host):
    answer = demo.get("/", headers={"Host": host})
    assert answer.status_code == 400


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


def test_guessing_is_slowed_down_even_for_the_right_code(lan):
    tablet = Visitor(lan, **STRANGER)
    for _ in range(5):
        tablet.post("/pair", {"code": "000000x"}, page="/pair")
    late = tablet.post("/pair", {"code": lan.config["PAIRING_CODE"]}, page="/pair")
    assert late.status_code == 429 and "Wait a minute" in late.text
    assert Visitor(lan, REMOTE_ADDR="192.168.7.21").get("/pair").status_code == 200


def test_cookies_are_closed_to_scripts_and_other_sites(demo):
    cookie = demo.get("/").headers["Set-Cookie"]
    assert "HttpOnly" in cookie and "SameSite=Lax" in cookie


@pytest.mark.parametrize(
    "url", ["/shapes/new", "/orders/new", "/pieces/start", "/pieces/50/weigh", "/stores/limits", "/designs/15/live", "/designs/15/undo", "/paints/new"]
)
def test_every_change_needs_its_token(demo, url):
    assert demo.http.post(url, data={}).status_code == 400
    assert demo.http.post(url, json={}).status_code == 400


def test_a_json_caller_gets_json(demo):
    error = demo.send("/designs/15/live", {"bench": "attic"}).json["error"]
    assert error["field"] == "bench" and "shapes" in error["allowed"] and len(error["id"]) == 8
    missing = demo.send("/designs/9999/live", {"bench": "tank"})
    assert missing.status_code == 404 and missing.json["error"]["message"]


def test_a_file_over_the_limit_is_refused_with_the_limit(demo):
    answer = demo.http.post("/shapes/bring-in", data=b"x" * 3_000_000, content_type="multipart/form-data; boundary=x")
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
