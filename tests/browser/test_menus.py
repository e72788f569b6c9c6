"""Menus, the benches on a phone, explanations and notices: at the first touch, by keys, and put away."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.demo_rows import FERRY_RUNNER

pytestmark = pytest.mark.browser


def test_the_first_touch_opens_a_menu_and_escape_gives_the_button_back(demo_page: Page):
    page = demo_page
    page.goto(f"/shapes/{FERRY_RUNNER}")
    more = page.get_by_role("button", name="More for this design")
    more.click()
    expect(page.get_by_role("button", name="Copy")).to_be_visible()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name="Copy")).to_be_hidden()
    expect(more).to_be_focused()


def test_a_number_tells_where_it_comes_from_one_at_a_time(demo_page: Page):
    page = demo_page
    page.goto(f"/shapes/{FERRY_RUNNER}")
    page.get_by_role("button", name="Body volume").press("Enter")
    told = page.get_by_role("tooltip")
    expect(told).to_contain_text("added up along")
    page.get_by_role("button", name="Surface to coat").click()
    expect(told).to_have_count(1)
    expect(told).to_contain_text("skin")
    page.keyboard.press("Escape")
    expect(told).to_have_count(0)


def test_what_was_deleted_is_told_with_its_way_back(demo_page: Page):
    page = demo_page
    page.goto(f"/shapes/{FERRY_RUNNER}")
    name = page.get_by_role("heading", level=1).inner_text()
    page.get_by_role("button", name="More for this design").click()
    page.get_by_role("button", name="Delete").click()
    notice = page.get_by_role("status").filter(has_text=f"{name} is deleted")
    expect(notice).to_be_visible()
    notice.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("heading", name=name)).to_be_attached()
    page.goto("/stores")
    page.get_by_role("button", name="Keep", exact=True).first.click()
    page.get_by_role("button", name="Put the notice away").click()
    expect(page.locator(".toast")).to_be_hidden()


def test_on_a_phone_the_benches_come_from_the_side(demo_page: Page):
    page = demo_page
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto("/")
    floats = page.get_by_role("link", name="Floats", exact=True)
    expect(floats).to_be_hidden()
    page.get_by_role("button", name="Today").click()
    expect(floats).to_be_visible()
    assert page.evaluate("document.querySelector('#benches').contains(document.activeElement)")
    floats.click()
    expect(page).to_have_url(re.compile("/floats$"))


def test_a_word_of_the_trade_opens_where_it_stands(demo_page: Page):
    page = demo_page
    page.goto(f"/tank/{FERRY_RUNNER}")
    page.get_by_role("button", name="What does PSU mean?").press("Enter")
    expect(page.get_by_role("tooltip")).to_contain_text("grams of salt in a kilogram of water")
    page.get_by_role("button", name="Net lift").click()
    told = page.get_by_role("tooltip")
    expect(told).to_contain_text("beyond the bait's own weight")  # the word, and where this figure is from
    expect(told).to_contain_text("Known to ±")


def test_the_orange_button_goes_when_the_want_is_met(demo_page: Page):
    page = demo_page
    page.goto(f"/tank/{FERRY_RUNNER}")
    find = page.get_by_role("button", name="Find ballast")
    expect(page.locator("#part-ballast").get_by_text("That is what you want of it")).to_be_visible()
    expect(find).not_to_have_class(re.compile("btn-primary"))
    page.get_by_label("speed, + rises").fill("30 cm/s")
    page.get_by_label("speed, + rises").press("Enter")
    expect(find).to_have_class(re.compile("btn-primary"))
