"""Moulds as a new user walks them: a two-part mould of a body, its halves as STL, a mix on the simulated
scale with one over-pour put right, six cast with one dead cavity.
"""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_floats_walk import bench, connect  # noqa: F401 - the fixture
from tests.browser.test_screens import drag
from tests.demo_rows import MUDLARK_FOAM_PAIR
from tests.devices.test_scale import Bench

pytestmark = pytest.mark.browser


def saved(page: Page) -> None:
    expect(page.locator("#saved")).to_have_text("Saved")


def pour(page: Page, bench: Bench, cup: float, grams: float, label: str) -> float:  # noqa: F811
    """Pour a part onto what is in the cup, with a rest half way that is not taken."""
    bench.set(load_g=f"{cup + grams / 2:.2f}")
    expect(page.locator("#scale-value")).to_have_text(f"{grams / 2:.2f} g")
    expect(page.get_by_label(label, exact=True)).to_have_value("")
    bench.set(load_g=f"{cup + grams:.2f}")
    expect(page.get_by_label(label, exact=True)).to_have_value(f"{grams:.2f} g")
    page.get_by_role("button", name="Keep").click()
    expect(page.get_by_text("weighed").first).to_be_visible()
    return cup + grams


def zero(page: Page, bench: Bench, cup: float) -> float:  # noqa: F811
    """The empty cup on, then Zero: it alone is never taken."""
    bench.set(load_g=f"{cup:.2f}")
    expect(page.locator("#scale-value")).to_have_text(f"{cup:.2f} g")
    expect(page.locator("#scale-guide")).to_have_text("Put the empty cup on the scale, then press Zero.")
    expect(page.get_by_label("Weighed", exact=True)).to_have_value("")
    page.get_by_role("button", name="Zero", exact=True).click()
    expect(page.locator("#scale-zero")).to_have_text(f"less {cup:.2f} g, the cup")
    return cup


def test_a_mould_is_made_its_halves_taken_a_mix_put_right_and_six_cast(demo_server, visit, bench: Bench):  # noqa: F811
    page = visit("422")  # the browser notes what asks first
    connect(page, bench)
    page.goto("/moulds")
    page.get_by_label("Body", exact=True).select_option(label="Skiff popper (B-007)")
    page.get_by_role("button", name="Make its mould").first.click()
    expect(page.locator(".verdict")).to_contain_text("Two-part mould of one cavity")
    page.get_by_role("tab", name="Cavities").click()
    page.get_by_label("Cavities in the block").fill("7")
    page.get_by_role("button", name="Side by side").click()
    expect(page.locator(".verdict")).to_contain_text("7 cavities")
    saved(page)
    page.get_by_role("tab", name="Air").click()
    drag(page, page.get_by_role("slider", name="Tilt while it is poured"), (60, 25))
    page.mouse.up()
    saved(page)
    expect(page.get_by_label("Tilt", exact=True)).not_to_have_value("0.0°")
    page.get_by_role("button", name="Find the tilt with fewest vents").click()
    expect(page.get_by_text("Nothing holds air as it stands.")).to_be_visible()

    page.get_by_role("link", name="Halves to print").click()
    page.get_by_role("button", name="Work them out").click()
    link = page.get_by_role("link", name="STL of the upper half")
    expect(link).to_be_visible()
    with page.expect_download() as taken:
        link.click()
    assert (
        taken.value.suggested_filename.endswith("upper half.stl")
        and taken.value.path().stat().st_size > 10_000
    )

    page.get_by_role("link", name="Card and shots").click()
    page.get_by_role("button", name="A version is made").click()
    page.get_by_label("State of cavity 7").select_option("dead")
    page.get_by_label("Reason, cavity 7").fill("torn at the lip")
    page.get_by_role("button", name="Keep").nth(6).click()
    expect(page.locator(".verdict")).to_contain_text("6 of 7 cavities cast")
    for shot in (1, 2):  # the first is a purge
        page.get_by_role("link", name="Casting", exact=True).click()
        page.get_by_label("Material").select_option(label="Casting resin")
        page.get_by_role("button", name="Work it out").click()
        page.get_by_role("button", name="Begin a pour").click()
        expect(page.get_by_role("heading", name=f"Shot {shot} of")).to_be_visible()
        page.wait_for_load_state()
        while page.locator(".tickline[aria-pressed='false']").count():
            with page.expect_navigation():
                page.locator(".tickline[aria-pressed='false']").first.click()
        page.get_by_role("button", name="Go on: weigh").click()
        expect(page.locator(".fill strong + output").nth(1)).to_be_visible()
        targets = [float(text.split()[0]) for text in page.locator(".fill strong + output").all_inner_texts()]
        weighed = [targets[0], targets[1] + 3.0 if shot == 2 else targets[1]]
        cup = zero(page, bench, 8.0)
        for grams in weighed:
            cup = pour(page, bench, cup, grams, "Weighed")
        if shot == 2:
            expect(page.locator(".verdict")).to_contain_text("more A puts it right")
            more = re.search(r"(\d+\.\d) g more", page.locator(".verdict").inner_text()).group(1)
            cup = pour(page, bench, cup, float(more), f"Added, {more} g wanted")
        expect(page.locator(".verdict")).to_contain_text(re.compile("All\\s+in|within\\s+the"))
        page.get_by_role("button", name="Mixed: start the pot life").click()
        bench.set(load_g="0")
        expect(page.get_by_role("timer", name=re.compile("^Pot life"))).to_have_text(re.compile(r"\d:\d\d"))
        page.get_by_role("button", name="Poured: start the cure").click()
        page.get_by_role("button", name="Demould", exact=True).click()
        expect(page.get_by_text(re.compile("not before .* until then it is soft"))).to_be_visible()
        page.get_by_label("take it out before that").check()
        page.get_by_role("button", name="Demould", exact=True).click()
        page.get_by_role("button", name="Out of the mould: count").click()
        expect(page.get_by_role("radio", name="Good")).to_have_count(6)
        for good in page.get_by_role("radio", name="Good").all():
            good.check()
        page.get_by_role("button", name="Keep the count").click()
        expect(page.get_by_role("status").first).to_contain_text("6 of 6 are good")
        if shot == 1:
            page.get_by_role("link", name="The next shot").click()
    pieces = page.get_by_role("link", name=re.compile(r"^P\d{4}$"))
    expect(pieces).to_have_count(6)
    number = pieces.first.inner_text()
    page.get_by_role("link", name="Card and shots").click()
    expect(page.locator("tbody tr").filter(has_text="v1, 2")).to_contain_text("6 of 6")
    page.goto("/pieces")
    page.get_by_role("link", name=re.compile(number)).first.click()
    expect(page.get_by_text(re.compile("shot 2, lot A 2231, B 2232"))).to_be_visible()
    page.goto("/mixes")
    expect(
        page.get_by_text("learned from 7")
    ).to_be_visible()  # the one put right after an over-pour is no lesson


def test_a_clock_survives_a_reload_counts_on_rings_and_is_stopped(moved_page: Page):
    page = moved_page
    page.clock.install()
    page.goto("/mixes/clocks")
    timer = page.get_by_role("timer", name=re.compile("^Demould"))
    expect(timer).to_have_text(re.compile(r"^2:\d\d h$"))
    assert timer.evaluate("element => parseFloat(getComputedStyle(element).fontSize)") > 60
    page.clock.fast_forward("02:30:00")
    expect(timer).to_have_text(re.compile(r"^\d:\d\d$|^\d\d:\d\d$"))
    assert not page.evaluate("document.documentElement.dataset.rang")
    page.clock.fast_forward("00:12:00")
    expect(timer).to_have_text(re.compile(r"^\+\d+:\d\d$"))
    expect(page.locator("li.over")).to_have_count(1)
    assert int(page.evaluate("document.documentElement.dataset.rang")) >= 1
    page.reload()
    expect(page.get_by_role("timer", name=re.compile("^Demould"))).to_be_visible()
    page.get_by_role("button", name=re.compile("^Stop Demould")).click()
    expect(timer).to_have_count(0)
    page.goto("/")
    expect(page.get_by_role("timer", name=re.compile("^Full cure"))).to_be_visible()
    expect(timer).to_have_count(0)


def test_a_layout_by_keyboard_alone(demo_page: Page):
    page = demo_page
    page.goto(f"/moulds/{MUDLARK_FOAM_PAIR}")
    page.get_by_role("slider", name="Cavity 1, place in the box").focus()
    before = page.locator(".verdict").inner_text()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Shift+ArrowDown")
    page.keyboard.press("ArrowLeft")
    saved(page)
    page.get_by_role("tab", name="Kind").focus()
    page.keyboard.press("ArrowRight")
    expect(page.get_by_text(re.compile("^cavity 1 and the wall"))).to_be_visible()
    page.get_by_label("Edge round").fill("40")
    page.keyboard.press("Enter")
    expect(page.locator(".verdict")).not_to_have_text(before)
    saved(page)
    page.get_by_label("Box long").fill("20 mm")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="smaller than what lies in it")).to_be_visible()
    page.keyboard.press("Tab")
    page.get_by_role("slider", name="Tilt while it is poured").focus()
    page.keyboard.press("Shift+ArrowRight")
    saved(page)
    expect(page.get_by_text("standing on edge, 5°")).to_be_visible()
    for _ in range(5):
        page.keyboard.press("Control+z")
        saved(page)
    expect(page.get_by_text("standing on edge, 0°")).to_be_visible()


def test_a_mix_follows_the_scale_and_a_zero_belongs_to_its_page(demo_page: Page, bench: Bench):  # noqa: F811
    page = demo_page
    connect(page, bench)
    bench.set(load_g="8.00")
    page.goto("/mixes")
    page.get_by_label("Product", exact=True).select_option(label="Casting resin, 1:1 by volume")
    page.get_by_label("To fill", exact=True).fill("40 ml")
    page.get_by_role("button", name="Work it out").click()
    page.get_by_role("button", name="Weigh it out").click()
    page.get_by_role("button", name="I have read this and the safety data sheet").click()
    weighed = page.get_by_label("Weighed", exact=True)
    expect(page.locator("#scale-value")).to_have_text("8.00 g")
    expect(weighed).to_have_value("")  # what lies on it when the page opens is nobody's part
    page.get_by_role("button", name="Take it").click()
    expect(page.locator("#scale-said")).to_have_text("Put the empty cup on and press Zero first.")
    cup = zero(page, bench, 8.0)
    page.get_by_role("button", name="Zero", exact=True).click()
    expect(page.locator("#scale-value")).to_have_text("0.00 g")  # pressed twice it is still zeroed
    page.get_by_role("button", name="Show the whole weight").click()
    expect(page.locator("#scale-value")).to_have_text("8.00 g")
    page.get_by_role("button", name="Zero", exact=True).click()
    target = float(page.locator(".fill strong + output").first.inner_text().split()[0])
    cup = pour(page, bench, cup, target, "Weighed")
    expect(page.locator("#scale-zero")).to_have_text(f"less {cup:.2f} g, the cup with A in it")
    expect(page.get_by_label("Weighed", exact=True)).to_have_value("")  # A still lies there and is not B
    page.reload()  # come back to later: the cup is not empty any more
    expect(page.locator("#scale-guide")).to_have_text(
        "Put the cup with A in it on the scale, then press Zero."
    )
    page.get_by_role("button", name="Zero", exact=True).click()
    expect(page.locator("#scale-zero")).to_have_text(f"less {cup:.2f} g, the cup with A in it")
    page.get_by_role("button", name="Take back A").click()
    expect(page.locator(".verdict")).to_contain_text("pour A to")
    page.goto("/pieces")
    page.get_by_role("link", name=re.compile("P0056|P0055")).first.click()
    expect(page.locator("#scale-value")).to_have_text(f"{cup:.2f} g")  # the zero stayed with the mix
    expect(page.locator("#scale-zero")).to_be_hidden()
