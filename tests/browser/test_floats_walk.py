"""Floats and the scale as a new user walks them: a family of three, its cut list, weighed on the simulated
scale, labels put right; a bait to the sea and trimmed; faults.
"""

import re

import pytest
from playwright.sync_api import Page, Route, expect

from tests.browser.test_screens import drag
from tests.demo_rows import TENCH_ANTENNA_2_5_G
from tests.devices.test_scale import Bench
from tests.until import until

pytestmark = pytest.mark.browser


@pytest.fixture
def bench():
    found = Bench()
    found.set(settle_s="0.2", noise_g="0", load_g="0")
    yield found
    found.stop()


def connect(page: Page, bench: Bench) -> None:
    page.goto("/scale")
    page.get_by_text("Connect a scale").click()
    page.get_by_label("Serial port or address").fill(bench.where["scale"])
    page.get_by_role("button", name="Connect", exact=True).click()
    expect(page.locator("#scale-value")).to_have_text(re.compile(r"0\.00 g"))


def lay(page: Page, bench: Bench, grams: str, label: str) -> None:
    """Put it on, wait for the tick."""
    bench.set(load_g=grams)
    expect(page.get_by_label(label, exact=True)).to_have_value(f"{float(grams):.2f} g")
    bench.set(load_g="0")
    expect(page.locator("#scale-value")).to_have_text("0.00 g")


def test_a_family_is_designed_cut_weighed_and_its_labels_put_right(empty_server, visit, bench):
    page = visit("422")  # the browser notes the refusal of a label without its basis
    page.goto("/floats")
    page.get_by_role("button", name="antenna").click()
    expect(page.locator(".verdict")).to_contain_text("on the line to the ring")
    page.get_by_label("Name of the float").fill("Mere antenna")
    page.get_by_label("Name of the float").press("Enter")
    expect(page.locator("#saved")).to_have_text("Saved")
    page.get_by_role("link", name="Sizes and cut list").click()
    page.get_by_label(re.compile("^Loads on the line")).fill("2 g, 3 g, 4 g")
    page.get_by_role("button", name="Find the sizes").click()
    expect(page.locator("table.table tbody tr")).to_have_count(3)
    answer = page.request.get(
        page.get_by_role("link", name="Cut and turning sheets, PDF").get_attribute("href")
    )
    assert answer.status == 200 and answer.body()[:4] == b"%PDF"
    page.get_by_role("button", name="Keep them as floats").click()
    expect(page.get_by_text("3 floats made from Mere antenna.")).to_be_visible()

    connect(page, bench)
    for name, air, at_ring in (
        ("No 1", "1.12", "25.10"),
        ("No 2", "1.36", "24.20"),
        ("No 3", "1.60", "23.28"),
    ):
        page.goto("/scale")
        page.get_by_label("What", exact=True).fill(name)
        page.get_by_label("Kind", exact=True).first.select_option("float")
        page.get_by_text("It floats: hold it under").click()
        page.get_by_label("Mark 1", exact=True).fill("ring")
        load = {"No 1": 2, "No 2": 3, "No 3": 4}[name]
        made_from = page.get_by_label("Made from")
        made_from.select_option(
            made_from.locator("option", has_text=f"Mere antenna {load} g").get_attribute("value")
        )
        page.get_by_label("In air", exact=True).focus()
        lay(page, bench, air, "In air")
        page.get_by_label("Sinker alone, in water").focus()
        lay(page, bench, "27.00", "Sinker alone, in water")
        page.get_by_label("Reading at mark 1").focus()
        lay(page, bench, at_ring, "Reading at mark 1")
        page.get_by_role("button", name="Keep it").click()
        expect(page.locator(".verdict")).to_contain_text("g to the ring")
    page.goto("/floats")
    page.get_by_role("link", name=re.compile("Mere antenna 3 g")).click()
    page.get_by_role("link", name="Finished ones").click()
    expect(page.locator(".verdict")).to_contain_text("from 3 finished")
    expect(page.locator("tbody tr").filter(has_text="No 2")).to_contain_text("2.80 g")
    page.get_by_role("link", name="Labels").click()
    page.get_by_role("button", name="Lay out").click()
    expect(page.get_by_role("alert")).to_contain_text("say whether it is on the line or total")
    page.get_by_label("The grams are").select_option("on the line")
    page.get_by_label("from", exact=True).select_option("measured")
    page.get_by_role("button", name="Lay out").click()
    expect(page.get_by_text("2.80 g on the line").first).to_be_visible()


def test_a_bait_from_the_tub_to_the_sea_and_trimmed_by_keyboard(demo_page: Page):
    page = demo_page
    page.goto("/scale")
    page.get_by_label("What", exact=True).fill("Night walker, new hooks")
    page.get_by_label("In air", exact=True).fill("15.4 g")
    page.get_by_label("In air", exact=True).press("Tab")
    page.get_by_label("In water, if it sinks").fill("0.6 g")
    page.get_by_label("In water, if it sinks").press("Enter")
    expect(page.locator(".verdict")).to_contain_text("Casts at 15.40 g and sinks with 0.60 g")
    sea = page.locator("tbody tr").filter(has_text="sea water")
    expect(sea).to_contain_text("0.19 g")
    page.get_by_label("It shall weigh").fill("0.6 g")
    page.get_by_label("In which water").select_option("sea water")
    page.get_by_label("as wire of").fill("0.8 mm")
    page.get_by_label("as wire of").press("Enter")
    expect(page.locator(".advised")).to_contain_text(
        re.compile(r"Add 0\.4\d g of lead outside, \d+ mm of 0\.8 mm wire")
    )


def test_what_is_put_on_while_the_page_still_opens_is_taken(empty_server, visit, bench):
    page = visit()
    connect(page, bench)
    expect(page.locator("#scale-says")).to_have_text("Lies still.")
    held: list[Route] = []
    page.route("**/scale/live", lambda route: held.append(route))
    page.goto("/scale")
    bench.set(load_g="5")
    until(  # it lies still before the page has heard anything
        lambda: page.request.get("/scale/live").json(),
        lambda scale: scale["stable"] and scale["value_g"] == pytest.approx(5, abs=0.01),
    )
    page.unroute("**/scale/live")  # what was held goes on
    assert held
    expect(page.get_by_label("In air", exact=True)).to_have_value("5.00 g")


def test_faults_of_the_scale_are_said_and_it_comes_back(demo_page: Page, bench):
    page = demo_page
    connect(page, bench)
    says, where = page.locator("#scale-says"), page.get_by_role("link", name="Where it is connected")
    bench.set(fault="unplugged")
    expect(says).to_contain_text("plugged in")
    expect(where).to_be_visible()
    page.get_by_label("In air", exact=True).fill("5 g")
    bench.set(fault="none", load_g="3")
    expect(page.locator("#scale-value")).to_have_text("3.00 g")
    expect(page.get_by_label("In air", exact=True)).to_have_value("5 g")
    bench.set(fault="garbled")
    expect(says).to_contain_text("cannot be read")
    bench.set(fault="none")
    expect(says).to_have_text("Lies still.")
    expect(where).to_be_hidden()
    page.get_by_role("button", name="Zero", exact=True).click()
    expect(page.locator("#scale-value")).to_have_text("0.00 g")
    expect(page.locator("#scale-zero")).to_have_text("less 3.00 g, what lay on it")


def test_a_profile_is_pulled_and_a_mark_slid_and_both_are_undone(demo_page: Page):
    page = demo_page
    page.goto(f"/floats/{TENCH_ANTENNA_2_5_G}")
    page.wait_for_load_state("networkidle")
    verdict = page.locator(".verdict")
    before = verdict.inner_text()
    drag(page, page.locator(".handle[data-path='point.body.2']"), (14, 0))
    page.mouse.up()
    expect(page.locator("#saved")).to_have_text("Saved")
    expect(verdict).not_to_have_text(before)
    page.get_by_role("button", name="Undo").click()
    expect(verdict).to_have_text(before)
    page.get_by_role("slider", name="shoulder, height").focus()
    page.keyboard.press("ArrowDown")
    expect(page.get_by_label("Height of shoulder")).to_have_value(re.compile(r"^101\.1"))
    page.get_by_role("tab", name="Load").focus()
    page.keyboard.press("ArrowRight")
    page.get_by_label("Long").first.fill("wide")
    page.get_by_label("Long").first.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="type a length")).to_be_visible()


def test_a_piece_is_weighed_with_one_hand(demo_page: Page, bench):
    page = demo_page
    connect(page, bench)
    page.goto("/pieces")
    page.get_by_role("link", name=re.compile("P0056|P0055")).first.click()
    weight = page.get_by_label(re.compile("^Weighed when")).first
    expect(weight).to_be_visible()
    weight.focus()
    bench.set(load_g="9.87")
    expect(weight).to_have_value("9.87 g")
    expect(page.get_by_role("button", name="Note").first).to_be_focused()
    bench.set(load_g="4.2")  # laid on before the first was noted: the next step does not get it
    expect(page.locator("#scale-value")).to_have_text("4.20 g")
    expect(page.locator("#scale-says")).to_have_text("Lies still.")
    expect(page.get_by_label(re.compile("^Weighed when")).nth(1)).to_have_value("")
    expect(weight).to_have_value("9.87 g")
    expect(page.get_by_role("button", name="Note").first).to_be_focused()
    bench.set(load_g="9.87")
    expect(page.locator("#scale-value")).to_have_text("9.87 g")
    page.keyboard.press("Enter")
    expect(page.locator("output").filter(has_text="9.87 g").first).to_be_visible()
    expect(page.locator(".scale").filter(has_text="9.87 g").locator("small")).to_have_text(
        "Fine scale 0.01 g"
    )  # the scale that read it
    following = page.get_by_label(re.compile("^Weighed when")).first
    following.focus()
    expect(page.locator("#scale-says")).to_have_text("Lies still.")
    page.get_by_role("button", name="Take it").click()
    expect(page.locator("#scale-said")).to_contain_text("kept already for Weighed when")
    expect(following).to_have_value("")
    bench.set(load_g="0")
    expect(page.locator("#scale-value")).to_have_text("0.00 g")
    following.focus()
    bench.set(load_g="9.87")
    expect(following).to_have_value("9.87 g")  # off and on again it may be the same
