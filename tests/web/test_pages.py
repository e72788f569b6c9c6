"""Every page shows, on the demo data and on an empty shop; what is missing answers 404."""

import re
import tomllib
from pathlib import Path

import pytest

from tests.recorded.pages import seen, words

BODY, SCHEME, ORDER, PIECE = 15, 4, 19, 50

PAGES = [
    ("/", "At the bench"),
    ("/orders", "Odile Marsac"),
    ("/orders/new", "Take an enquiry"),
    (f"/orders/{ORDER}", "Ferry runner"),
    ("/shapes", "Begin from a form"),
    (f"/shapes/{BODY}", "Ferry runner 90"),
    ("/shapes/bring-in", "Trace a photo"),
    (f"/shapes/{BODY}/compare", "with ballast"),
    (f"/shapes/{BODY}/family", "7 of 9"),
    ("/shapes/27/joints", "Another cut"),
    ("/shapes/27/pack", "Segment 2, STL"),
    ("/shapes/blades", "Estuary blade"),
    ("/shapes/blades/33", "snap"),
    (f"/tank/{BODY}", "Find ballast"),
    ("/floats", "Tench antenna"),
    ("/floats/38", "standing in"),
    ("/floats/shots/35", "ten at once"),
    ("/floats/live-bait", "Cut list"),
    ("/scale", "Weigh it in air"),
    ("/scale/things/3", "Old glider"),
    ("/paints", "Estuary smelt"),
    (f"/paints/{SCHEME}", "Dry film"),
    (f"/paints/on/{BODY}", "Coats in order"),
    ("/moulds", "Stubby, four at once"),
    ("/moulds/53", "Side by side"),
    ("/moulds/53/cast", "Begin a pour"),
    ("/moulds/54/cast", "fill mark"),
    ("/moulds/55/cast", "shots to a heated jug"),
    ("/moulds/53/halves", "Work them out"),
    ("/moulds/53/card", "torn at the tail"),
    ("/moulds/53/by-when?wanted=9&by=2031-01-10", "All 9 are good"),
    ("/mixes", "Casting resin"),
    ("/mixes?net=42+ml", "Weigh it out"),
    ("/mixes/clocks", "Demould"),
    ("/mixes/products/47", "lot 2231"),
    ("/mixes/products/new", "What stands on the tin"),
    ("/pours/5", "3 of 4 are good"),
    ("/search?q=stubby", "M-001"),
    ("/search?q=resin", "X-001"),
    ("/pieces", "P0050"),
    (f"/pieces/{PIECE}", "What the scale changes"),
    (f"/pieces/{PIECE}/card", "Drill map"),
    ("/pieces/unweighed", "weigh it first"),
    ("/stores", "Ballast metal"),
    ("/handbook", "Densities to start from"),
    ("/search?q=arla", "Ärla Brandt"),
    ("/search", "Type a name"),
    ("/search?q=%E3%81%8B%E3%81%8A", "三浦"),
    ("/search?q=zzzz", "Nothing holds that text"),
]


@pytest.mark.parametrize(("url", "says"), PAGES)
def test_every_page_shows_its_own(demo, url, says):
    answer = demo.get(url)
    assert answer.status_code == 200
    assert says in answer.text
    assert "style=" not in answer.text and "onclick=" not in answer.text
    assert "script-src 'self'" in answer.headers["Content-Security-Policy"]


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


@pytest.mark.parametrize(
    "url",
    [
        "/shapes/9999",
        "/floats/9999",
        "/moulds/9999",
        "/moulds/15",
        "/moulds/9999/card",
        "/moulds/53/halves/none",
        "/mixes/products/53",
        "/mixes/batch/9999",
        "/pours/9999",
        "/floats/15",
        "/floats/shots/38",
        "/floats/9999/labels",
        "/scale/things/9999",
        "/shapes/9999/pack",
        "/shapes/9999/compare",
        "/shapes/9999/joints",
        "/shapes/9999/family",
        "/shapes/blades/15",
        "/shapes/trace/9999",
        "/shapes/15/sheet-99.svg",
        "/shapes/15/segment-1.stl",
        "/shapes/bring-in/mesh/none",
        "/tank/9999",
        "/paints/9999",
        "/paints/on/9999",
        "/pieces/9999",
        "/orders/9999",
        f"/shapes/{SCHEME}",
        f"/paints/{BODY}",
        "/nowhere",
        "/shapes/x",
    ],
)
def test_what_is_not_there_answers_404_in_the_apps_look(demo, url):
    answer = demo.get(url)
    assert answer.status_code == 404
    assert "There is nothing at this address" in answer.text and "id finds it in the log" in answer.text


def test_tank_opens_the_last_design(demo):
    assert "/tank/" in demo.get("/tank").headers["Location"]


def test_health(demo):
    assert demo.get("/healthz").json == {
        "status": "ok",
        "version": tomllib.loads((Path(__file__).parent.parent.parent / "pyproject.toml").read_text())[
            "project"
        ]["version"],
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
    assert {
        "orders",
        "shapes",
        "tank",
        "floats",
        "scale",
        "moulds",
        "mixes",
        "paints",
        "pieces",
        "stores",
    } <= rooms


@pytest.mark.parametrize("url", sorted(RECORDED))
def test_every_page_says_what_it_said(demo, url):
    """`python -m tests.recorded` records anew; the difference is for the commit to explain."""
    answer = demo.get(url, follow_redirects=True)
    ids = re.findall(r'\sid="([^"]+)"', answer.text)
    assert sorted(ids) == sorted(set(ids))
    assert not re.search(r">[^<]*(got None|got '|\bNone,|the the )[^<]*<", answer.text)
    assert words(answer.get_data(as_text=True)) == RECORDED[url]
