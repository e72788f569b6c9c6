"""Every page says its figures in the units that the shop, or this browser, has chosen."""

import html
import re
from dataclasses import asdict, replace

import pytest
from sqlmodel import select

from lamsik.core.moulds.heat import limits
from lamsik.core.quantities import INCHES, METRIC, code_of
from lamsik.store import stores
from lamsik.store.database import session_of
from lamsik.store.tables import (
    Document,
    Hardware,
    Instrument,
    Order,
    OrderLine,
    Revision,
    SlugStock,
    StockItem,
    WeighedThing,
)
from lamsik.web.shared.units import COOKIE, FIELD, HEADER
from tests.demo_rows import ESTUARY_BLADE, FERRY_RUNNER
from tests.lean import state
from tests.pages import EVERY, MORE

PAGES = sorted({url.partition("#")[0] for url in (*EVERY, *MORE)} - {"/stores", "/handbook"})
"""All but those that offer units to choose from."""

FIGURE = r"(?<![\w.,/+-])[−-]?\d[\d.,/ ]*(?:{})(?![\w²³/+])"
UNITS = {
    INCHES: re.compile(FIGURE.format("mm|cm|g|kg|ml|µm|°C|cm/s|m/s|cm²|mm²|g/cm³|m|g/mm")),
    METRIC: re.compile(FIGURE.format("in|oz|fl oz|°F|ft|mil|lb/ft³|in/s|in²|ft/s")),
}
"""By what is chosen: figures in the units of the other."""
BOTH = re.compile(r"\d[\d to]*°[CF] \(\d[\d to]*°[CF]\)")
"""Where heat can hurt both are said."""
UNSAID = re.compile(
    r"<script[^>]*src[^>]*></script>|(?:width|height|viewBox|d|value|href|action|data-edit)=\"[^\"]*\"", re.S
)
"""What is no text of a page: addresses, sizes of drawings, paths, and what was typed into a form."""
CHECK_BAR = re.compile(r">(50 mm|2 in)<")
SPELLED = re.compile(r"\d+ in 100|in any unit, such as 90 mm or 3 1/2 in")

UNPLAIN = re.compile(
    r"\b([a-z]{2,}) \1\b|\breckon|\bgot None|\b(?:nan|NaN|undefined|True|False)\b|\b[a-z]+_[a-z_]+\b"
    r"|(?<![\d.,])1 (?!mm\b|ml\b|min\b)[a-z]{3,}(?<!s)s\b|\d bytes\b"
)
"""What no text says: a word twice, one of several, a name of the program's own, nothing for a value."""


def unplain(text):
    said = re.sub(r"<(script|style)\b.*?</\1>", "", text, flags=re.S)
    said = re.sub(r"\s+", " ", html.unescape(re.sub(r"<[^>]+>", " | ", said)))
    return [said[max(0, m.start() - 30) : m.end() + 30] for m in UNPLAIN.finditer(said)]


def named(engine):
    """Names, titles and measures that people typed, nominal sizes among them: they stand as typed."""
    found = set()

    def look(part):
        if isinstance(part, dict):
            found.update({part["name"]} if isinstance(part.get("name"), str) else ())
            found.update(f'"{text}"' for text in part.get("typed", {}).values())
            part = list(part.values())
        for one in part if isinstance(part, list) else ():
            look(one)

    with session_of(engine) as session:
        for kind in (Document, Hardware, Instrument, SlugStock, StockItem, WeighedThing):
            found.update(session.exec(select(kind.name)))
        lines = session.exec(select(OrderLine)).all()
        found.update(f", {text}" for line in lines for text in (line.typed or {}).values())
        found.update(line.title for line in lines)
        found.update(session.exec(select(Order.title)))
        look(list(session.exec(select(Revision.content))))
    return sorted(
        (name for name in found if re.search(r"\D{2}.*\d ?\w|^\"|^, ", name or "")), key=len, reverse=True
    )


def strays(text, names, pattern):
    plain = (
        html.unescape(UNSAID.sub("", CHECK_BAR.sub("><", text)))
        .replace("\\u00b0", "°")
        .replace("\\u00b3", "³")
    )
    for name in names:
        plain = plain.replace(name, "")
    plain = SPELLED.sub("", BOTH.sub("", plain))
    return [plain[max(0, m.start() - 40) : m.end() + 20] for m in pattern.finditer(plain)]


@pytest.mark.parametrize("choice", [INCHES, METRIC], ids=["inches", "metric"])
def test_no_page_says_a_figure_in_a_unit_that_was_not_chosen_and_all_is_plain(demo, choice):
    """One after the other in one process: nothing that was said before is kept for a shop that says it
    otherwise.
    """
    engine = demo.http.application.extensions["engine"]
    names = named(engine)
    with session_of(engine) as session:
        stores.put_setting(session, "units", asdict(choice))
        session.commit()
    texts = {url: demo.get(url).text for url in PAGES}
    found = {url: strays(text, names, UNITS[choice]) + unplain(text) for url, text in texts.items()}
    assert {url: rows for url, rows in found.items() if rows} == {}


def test_a_shop_chooses_its_units_paper_and_money(demo):
    sent = {
        "length": "in",
        "inch": "16",
        "mass": "grain",
        "decimal": ",",
        "paper": "Letter",
        "currency": "usd",
    }
    assert "every page" in demo.post("/stores/units", sent, follow_redirects=True).text
    page = demo.get("/stores").text
    for value in ("in", "16", "grain", ","):
        assert re.search(rf'<option value="{value}" selected', page)
    assert 'value="USD"' in page and "<option selected>Letter" in page
    assert "grain" in demo.get(f"/tank/{FERRY_RUNNER}").text
    assert "no currency" in demo.post("/stores/units", {"currency": "E1"}, follow_redirects=True).text
    demo.post("/stores/units", {"preset": "metric", "length": "in"})
    assert "mm" in state(demo, f"/shapes/{FERRY_RUNNER}")["view"]["fields"]["body.length_mm"]


def test_what_is_not_offered_is_left_as_a_new_shop_has_it(demo):
    demo.post("/stores/units", {"length": "furlong", "mass": "oz", "paper": "papyrus"})
    with session_of(demo.http.application.extensions["engine"]) as session:
        assert stores.setting(session, "units") == asdict(replace(METRIC, mass="oz"))
        assert stores.setting(session, "saw")["paper"] == "A4"


def test_a_guests_browser_has_its_own_and_the_shop_keeps_its(demo):
    url = f"/shapes/{FERRY_RUNNER}"
    demo.post("/stores/units/here", {"here": "inches"})
    assert demo.http.get_cookie(COOKIE).value == code_of(INCHES)
    assert state(demo, url)["view"]["fields"]["body.length_mm"] == "3 35/64 in"
    demo.http.delete_cookie(COOKIE)
    assert state(demo, url)["view"]["fields"]["body.length_mm"] == "90.0 mm"
    demo.post("/stores/units/here", {"here": "inches"})
    demo.post("/stores/units/here", {"here": ""})
    assert demo.http.get_cookie(COOKIE) is None
    demo.http.set_cookie(COOKIE, "99999999999")
    assert state(demo, url)["view"]["fields"]["body.length_mm"] == "90.0 mm"


def test_a_bare_number_means_what_stood_beside_it_though_the_shop_has_chosen_anew(demo):
    """A page made in inches is typed into after another browser chose millimetres, and the other way."""
    page = f"/shapes/blades/{ESTUARY_BLADE}"
    held = state(demo, page)
    edit = {"do": "set", "path": "width_mm", "text": "1/2"}
    sent = {"document": held["document"], "base": held["base"], "edits": [edit], "save": True}
    answer = demo.http.post(
        f"{page}/live", json=sent, headers={"X-CSRFToken": demo.token("/"), HEADER: code_of(INCHES)}
    ).json
    assert answer["document"]["width_mm"] == pytest.approx(12.7)
    assert state(demo, page)["view"]["fields"]["width_mm"] == "1/2 in"
    demo.post("/stores/units", {"preset": "inches"})
    demo.post("/stores/add/drill", {"drill-diameter": "7.3", FIELD: code_of(METRIC)})
    assert re.search("<li[^>]*> ?7.3 mm", demo.get("/stores").text)


def form_of(page, action):
    """What a form would send as it stands: its fields with what is chosen and ticked."""
    text = page[page.index(f'action="{action}"') :]
    text = text[: text.index("</form>")]
    sent = dict(
        re.findall(r'<input(?! class="form-check-input")[^>]*name="([^"]+)"[^>]*?value="([^"]*)"', text)
    )
    boxes = re.findall(
        r'<input class="form-check-input" type="checkbox" name="([^"]+)" value="([^"]+)"( checked)?', text
    )
    ticked = [(name, value) for name, value, is_on in boxes if is_on]
    return {name: html.unescape(value) for name, value in sent.items()} | {
        "day": [v for n, v in ticked if n == "day"]
    }


@pytest.mark.parametrize("action", ["limits", "days", "clearances", "heat"])
def test_a_form_sent_back_as_it_stands_changes_nothing_whatever_it_is_said_in(demo, action):
    demo.post("/stores/units", {"preset": "inches"})
    engine = demo.http.application.extensions["engine"]
    names = ("bench", "bands", "saw", "blades", "mixing", "casting", "bricks", "clearances", "heat", "days")

    def kept():
        with session_of(engine) as session:
            held = {name: stores.setting(session, name) for name in names}
            return held | {"heat": {**held["heat"], "limits": limits(held["heat"]["limits"])}}

    before = kept()
    page = demo.get("/stores").text
    assert demo.post(f"/stores/{action}", form_of(page, f"/stores/{action}")).status_code == 302
    after = kept()
    for name in names:
        for key, value in after[name].items():
            assert value == before[name].get(key, value), (name, key)
