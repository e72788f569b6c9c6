"""Dragging, saving, errors beside fields, undo, every page at three widths and open to all, the machine's own
only.
"""

import re
import sqlite3
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from lamsik.core.quantities import INCHES, code_of
from lamsik.store.database import FILE_NAME
from lamsik.web.shared.units import COOKIE
from tests.browser.conftest import visiting
from tests.demo_rows import FERRY_RUNNER, SPLIT_EEL, TENCH_ANTENNA_2_5_G, WEED_TADPOLE
from tests.pages import EVERY

pytestmark = pytest.mark.browser

CROWDED = """() => {
  const wide = document.documentElement.scrollWidth > innerWidth + 1;
  const held = 'main button, main a.btn, main output, main h1, main h2';
  const overflows = (e) => e.scrollWidth > e.clientWidth + 2 && e.clientWidth > 0;
  const cut = [...document.querySelectorAll(held)].filter((e) => !e.classList.contains('visually-hidden'))
    .filter((e) => e.offsetParent && overflows(e) && getComputedStyle(e).display !== 'inline')
    .map((e) => e.textContent.trim());
  return { wide, cut };
}"""


AXE = (Path(__file__).parent / "vendor/axe.min.js").read_text()
QUICKLY = "{ resultTypes: ['violations'], reporter: 'no-passes', selectors: false, preload: false }"
"""What is right with a page is not told."""
FOUND = f"""() => axe.run(document, {QUICKLY}).then(({{ violations }}) => violations.map(
  ({{ id, help, nodes }}) => [id, help, nodes.map((one) => one.html.slice(0, 160))]))"""
"""What keeps a page from being used without eyes, without a mouse, with weak sight."""


PHONE = 390
SIZES = ((1280, 800), (820, 1100), (PHONE, 844), (640, 400))
"""Desk, tablet, phone, and the desk zoomed to 200 %."""


def dress(page, url, dark, inches):
    """The page by daylight or dark, in the shop's units or a guest's."""
    page.emulate_media(color_scheme="dark" if dark else "light")
    page.context.clear_cookies(name=COOKIE)
    if inches:
        page.context.add_cookies([{"name": COOKIE, "value": code_of(INCHES), "url": page.url}])
    page.set_viewport_size({"width": SIZES[0][0], "height": SIZES[0][1]})
    page.goto(url)
    if page.locator("#picture").count():
        expect(page.locator("#picture > svg")).to_be_visible()


def looked_through(page, url, widths):
    """Holds a page to cut no text at any width; what shuts people out at these."""
    shut = {}
    for wide, high in SIZES if not url.partition("?")[0].endswith("card") else ():
        page.set_viewport_size({"width": wide, "height": high})
        assert page.evaluate(CROWDED) == {"wide": False, "cut": []}, f"{url} at {wide}"
        if wide == PHONE:  # from here on all that is folded away is looked at too
            page.evaluate("for (const one of document.querySelectorAll('details')) one.open = true")
            assert page.evaluate(CROWDED) == {"wide": False, "cut": []}, f"{url} unfolded"
        if wide in widths:
            shut[f"{url} at {wide}"] = page.evaluate(FOUND)
    return shut


@pytest.fixture
def people(demo_server, tmp_path):
    """The demo's people are back: they stand in every header."""
    with sqlite3.connect(tmp_path / FILE_NAME) as shop:
        shop.execute("UPDATE person SET gone_at = NULL")


@pytest.fixture
def peopled(people, visit):
    page = visit()
    page.goto("/handbook")
    return page


@pytest.fixture
def laid_out(people, unpainted):
    """A page that is laid out and asked, and never painted."""
    with visiting(unpainted) as opened:
        page = opened()
        page.add_init_script(AXE)
        page.goto("/handbook")
        yield page


@pytest.mark.parametrize("third", range(3))
def test_every_page_is_open_to_all_and_cuts_no_text_at_any_width(laid_out, third):
    """Each at one width, themes and units in turn; all of them are looked through by `make proof`."""
    shut = {}
    for n, url in enumerate(EVERY[third::3]):
        dress(laid_out, url, dark=n % 2 == 1, inches=n // 2 % 2 == 1)
        shut |= looked_through(laid_out, url, {SIZES[n % len(SIZES)][0]})
    assert {where: found for where, found in shut.items() if found} == {}


@pytest.mark.proof
@pytest.mark.parametrize("dark", [False, True], ids=["light", "dark"])
@pytest.mark.parametrize("inches", [False, True], ids=["metric", "inches"])
def test_every_page_is_open_to_all_in_every_dress(laid_out, dark, inches):
    shut = {}
    for url in EVERY:
        dress(laid_out, url, dark, inches)
        shut |= looked_through(laid_out, url, {wide for wide, _ in SIZES})
    assert {where: found for where, found in shut.items() if found} == {}


def test_on_a_phone_a_tables_cells_say_what_they_are(peopled):
    cells = """() => [...document.querySelectorAll("main .table tbody tr")]
        .flatMap((row) => [...row.children].slice(1))
        .filter((cell) => cell.textContent.trim() && !cell.querySelector("a, button"))
        .map((cell) => getComputedStyle(cell, "::before").content)"""
    for url, heads in (
        (
            f"/floats/{TENCH_ANTENNA_2_5_G}/learned",
            {"State", "To the", "Computed", "After the fit", "Measured", "What to do"},
        ),
        (f"/tank/{FERRY_RUNNER}/words", {"Mass", "From the nose", "Over the axis", "Back", "Belly", "Width"}),
    ):
        peopled.set_viewport_size({"width": 390, "height": 844})
        peopled.goto(url)
        peopled.wait_for_load_state("networkidle")
        assert {text.strip('"') for text in peopled.evaluate(cells)} == heads
        peopled.set_viewport_size({"width": 1280, "height": 800})
        assert set(peopled.evaluate(cells)) == {"none"}


def test_the_theme_is_as_the_system_until_it_is_switched_here(peopled):
    page, paper = peopled, "getComputedStyle(document.body).backgroundColor"
    page.emulate_media(color_scheme="light")
    light = page.evaluate(paper)
    page.emulate_media(color_scheme="dark")
    dark = page.evaluate(paper)
    switch = page.get_by_role("button", name="Dark or light")
    assert dark != light and switch.get_attribute("aria-pressed") == "true"
    switch.focus()
    page.keyboard.press("Enter")
    assert page.evaluate(paper) == light and switch.get_attribute("aria-pressed") == "false"
    page.goto("/orders")
    assert page.evaluate(paper) == light  # on the next page too, whatever the system has


def drag(page: Page, handle, by_px: tuple[int, int]) -> None:
    box = handle.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    for step in range(1, 9):
        page.mouse.move(x + by_px[0] * step / 8, y + by_px[1] * step / 8)
    page.wait_for_timeout(150)


def test_dragging_the_ballast_moves_it_all_and_saves_on_release(demo_page: Page):
    page = demo_page
    page.goto(f"/tank/{WEED_TADPOLE}")
    page.wait_for_load_state("networkidle")
    expect(page.locator(".verdict")).to_contain_text("level")
    place = page.get_by_label(re.compile("distance from the nose")).last
    before = float(place.input_value().split()[0])
    g_before = page.get_by_text("Pitch hanging", exact=True).locator("xpath=..").inner_text()
    handle = page.get_by_role("slider", name=re.compile("distance from the nose")).last
    drag(page, handle, (24, 0))  # further on it breaks out of the body, and then there are no figures
    assert "held" in (handle.get_attribute("class") or "")
    expect(page.locator(".verdict")).not_to_contain_text("level")
    page.mouse.up()
    expect(page.locator("#saved")).to_have_text("Saved")
    after = float(place.input_value().split()[0])
    assert after > before + 3
    assert page.get_by_text("Pitch hanging", exact=True).locator("xpath=..").inner_text() != g_before
    page.reload()
    expect(place).to_have_value(f"{after:.1f} mm")
    page.get_by_role("button", name="Undo").click()
    expect(place).to_have_value(f"{before:.1f} mm")
    page.get_by_role("button", name="Redo").click()
    expect(place).to_have_value(f"{after:.1f} mm")


def test_sizes_are_dragged_on_the_drawing(demo_page: Page):
    page = demo_page
    page.goto(f"/shapes/{FERRY_RUNNER}")
    width = page.get_by_label("Width", exact=True).and_(page.locator("input[data-path='body.width_mm']"))
    expect(width).to_have_value("15.0 mm")
    page.wait_for_load_state("networkidle")
    page.get_by_role("button", name="Sizes").click()
    drag(page, page.get_by_role("slider", name="Width"), (0, 20))
    page.mouse.up()
    expect(width).not_to_have_value("15.0 mm")
    assert 15.5 < float(width.input_value().split()[0]) < 40


def test_a_bad_measure_is_answered_beside_its_field_and_kept(demo_page: Page):
    page = demo_page
    page.goto(f"/shapes/{FERRY_RUNNER}")
    depth = page.locator("input[data-path='body.depth_mm']")
    depth.fill("8 gr")
    depth.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="not one of mm, cm")).to_be_visible()
    expect(depth).to_have_value("8 gr")
    expect(depth).to_have_attribute("aria-invalid", "true")
    depth.fill("3/4 in")
    depth.press("Enter")
    expect(depth).to_have_value("3/4 in")
    expect(page.get_by_role("alert").filter(has_text="not one of")).to_have_count(0)


def test_numbers_explain_themselves_and_the_view_switches(demo_page: Page):
    page = demo_page
    page.goto(f"/tank/{FERRY_RUNNER}")
    page.get_by_text("Net lift", exact=True).click()
    expect(page.get_by_text("ml under water")).to_be_visible()
    page.get_by_role("button", name="At the surface").click()
    expect(page.get_by_role("button", name="At the surface")).to_have_attribute("aria-pressed", "true")
    page.get_by_label("It should").select_option("sinks")
    expect(page.get_by_label("speed, + rises")).to_have_value("−20.0 cm/s")
    page.get_by_label("Water", exact=True).select_option("sea water")
    expect(page.locator(".verdict")).to_contain_text("9 °C sea water")


def test_when_the_shop_is_gone_it_says_so_and_keeps_the_change(demo_server, visit):
    page = visit("ERR_CONNECTION")
    page.goto(f"/shapes/{FERRY_RUNNER}")
    expect(page.locator("#saved")).to_have_text("Saved")
    demo_server.stop()
    depth = page.locator("input[data-path='body.depth_mm']")
    depth.fill("22 mm")
    depth.press("Enter")
    expect(page.locator("#saved")).to_contain_text("Not saved. The shop does not answer")
    expect(depth).to_have_value("22 mm")


def test_an_error_page_is_in_the_apps_look(demo_server, visit):
    page = visit("404")
    page.goto("/pieces/9999")
    expect(page.get_by_role("heading", name="There is nothing at this address.")).to_be_visible()
    expect(page.get_by_role("navigation", name="Benches")).to_be_visible()


def opened_late(page: Page, url: str, module: str, its: str) -> None:
    """Open a page whose module comes late: before that it takes no click."""
    held = []
    page.route(module, lambda route: held.append(route))
    page.goto(url, wait_until="commit")
    page.wait_for_selector(its, state="attached")
    assert page.locator("#main").evaluate("main => main.inert")
    while not held:
        page.wait_for_timeout(20)
    held[0].continue_()


def test_a_page_whose_modules_are_late_takes_no_click_it_would_lose(demo_page: Page):
    opened_late(demo_page, f"/shapes/{SPLIT_EEL}", "**/js/shared/tabs.js", "#tab-joints")
    joints = demo_page.get_by_role("tab", name="Joints")
    joints.click()
    expect(demo_page.get_by_text("Segment 2").first).to_be_visible()
    expect(joints).to_have_class(re.compile("active"))  # one is underlined, and it is this one
    expect(demo_page.locator("[role=tab].active")).to_have_count(1)


def test_a_job_is_not_begun_before_its_page_can_follow_it(demo_page: Page):
    opened_late(demo_page, "/stores/everything", "**/js/stores/whole.js", "#whole")
    demo_page.get_by_role("button", name="Write it").click()
    expect(demo_page.get_by_role("link", name="Take it along")).to_be_visible()


def test_the_bench_card_is_dark_ink_on_white_in_the_spray_corner_too(demo_page: Page):
    demo_page.emulate_media(color_scheme="dark")
    demo_page.goto(next(url for url in EVERY if url.endswith("/card") and url.startswith("/pieces")))
    ink = demo_page.evaluate("getComputedStyle(document.querySelector('h1')).color")
    paper = demo_page.evaluate("getComputedStyle(document.body).backgroundColor")
    assert paper == "rgb(255, 255, 255)" and ink == "rgb(22, 40, 58)"
