"""Every page shows, on the demo data and on an empty shop; what is missing answers 404."""

import re

import pytest
from flask import url_for

from lamsik import __version__
from tests import demo_rows as shop
from tests.recorded.pages import seen, words

BODY, SCHEME, ORDER, PIECE = shop.FERRY_RUNNER, shop.ZANDER_CLAY, 19, 50


@pytest.mark.parametrize(
    ("url", "says"),
    [
        ("/", "Welcome"),
        ("/orders", "No orders yet"),
        ("/shapes", "No bodies yet"),
        ("/tank", "The tank is empty"),
        ("/floats", "No floats yet"),
        ("/scale", "Nothing weighed yet"),
        ("/moulds", "No moulds yet"),
        ("/mixes", "No products yet"),
        ("/mixes/clocks", "No clock runs"),
        ("/paints", "Barred perch"),
        ("/pieces", "No pieces yet"),
        ("/pieces/unweighed", "No pieces at work"),
    ],
)
def test_an_empty_shop_says_what_to_do(empty, url, says):
    assert says in empty.get(url).text


ASKED = {"mould_id": 9999, "job_key": "none", "path": "none", "number": 99, "way": "delete", "what": "drill"}
"""What addresses ask for beside the key of something."""


def test_what_is_not_there_answers_404_in_the_apps_look(demo):
    """Every page of something, of a thing that is not there and of one of another kind."""
    rules = [
        rule
        for rule in demo.http.application.url_map.iter_rules()
        if "key" in rule.arguments and "GET" in rule.methods and rule.arguments <= {"key", *ASKED}
    ]
    assert len(rules) > 50
    with demo.http.application.test_request_context():
        urls = [
            url_for(rule.endpoint, **{"key": 9999} | {n: ASKED[n] for n in rule.arguments - {"key"}})
            for rule in rules
        ]
    others = [
        f"/shapes/{SCHEME}",
        f"/paints/{BODY}",
        f"/moulds/{shop.FERRY_RUNNER}",
        f"/floats/{shop.FERRY_RUNNER}",
        f"/mixes/products/{shop.STUBBY_FOUR_AT_ONCE}",
        f"/shapes/blades/{shop.FERRY_RUNNER}",
    ]
    for url in (
        *urls,
        *others,
        "/nowhere",
        "/shapes/x",
        f"/shapes/{shop.FERRY_RUNNER}/sheet-99.svg",
        f"/shapes/{shop.FERRY_RUNNER}/segment-1.stl",
    ):
        answer = demo.get(url)
        assert answer.status_code == 404, url
        assert "There is nothing at this address" in answer.text and "id finds it in the log" in answer.text


def test_tank_opens_the_last_design(demo):
    assert "/tank/" in demo.get("/tank").headers["Location"]


def test_health(demo):
    assert demo.get("/healthz").json == {
        "status": "ok",
        "version": __version__,
    }


def test_health_of_a_shop_that_is_not_migrated(demo):
    with demo.http.application.extensions["engine"].begin() as connection:
        connection.exec_driver_sql("UPDATE alembic_version SET version_num = '0000'")
    answer = demo.get("/healthz")
    assert (answer.status_code, answer.json["status"]) == (503, "not migrated")


@pytest.mark.parametrize(
    ("text", "kind", "says"),
    [
        ("1 1/2 in", "length", "38.10 mm"),
        ("54 °F", "temperature", "12.2 °C"),
        ("8 gr", "mass", "cannot be read"),
        ("54", "temperature", "unit is missing"),
    ],
)
def test_the_converter(demo, text, kind, says):
    assert says in demo.get("/handbook", query_string={"text": text, "kind": kind}).text


def test_an_estimate_is_marked_on_every_bench(demo):
    assert 'class="estimate"' in demo.get("/pieces/unweighed").text
    assert (
        '"estimate": true' in demo.get(f"/tank/{BODY}").text
        and '"estimate": true' in demo.get(f"/shapes/{BODY}").text
    )
    card = demo.get(f"/pieces/{PIECE}/card").text
    assert "contains estimates" in card and "label" in card


def test_names_in_any_script_are_escaped_and_shown(demo):
    made = demo.post("/shapes/new", {"form": "slim"}).headers["Location"]
    key = int(made.rsplit("/", 1)[1])
    state = demo.send(
        f"/designs/{key}/live",
        {
            "bench": "shapes",
            "document": demo.get(f"/shapes/{key}/body.json").json,
            "base": 1,
            "save": True,
            "edits": [{"do": "set", "path": "name", "text": "<b>鯰 ''\" &"}],
        },
    )
    assert state.status_code == 200
    for url in (f"/shapes/{key}", f"/tank/{key}", "/shapes", f"/paints/on/{key}"):
        text = demo.get(url).text
        assert "<b>鯰" not in text
        assert "鯰" in text or "\\u9bf0" in text


RECORDED = seen()


def test_pages_are_recorded_from_every_bench():
    """Without its record the test below would have nothing to compare, and pass."""
    rooms = {url.split("/")[1].split("?")[0] for url in RECORDED}
    assert len(RECORDED) >= 90
    benches = "orders shapes tank floats scale moulds mixes paints pieces stores"
    assert set(benches.split()) <= rooms


@pytest.mark.parametrize("url", sorted(RECORDED))
def test_every_page_says_what_it_said(demo, url):
    """`python -m tests.recorded` records anew; the difference is for the commit to explain."""
    answer = demo.get(url, follow_redirects=True)
    assert "style=" not in answer.text and "onclick=" not in answer.text
    assert "script-src 'self'" in answer.headers["Content-Security-Policy"]
    ids = re.findall(r'\sid="([^"]+)"', answer.text)
    assert sorted(ids) == sorted(set(ids))
    assert not re.search(r">[^<]*(got None|got '|\bNone,|the the )[^<]*<", answer.text)
    assert words(answer.get_data(as_text=True)) == RECORDED[url]
