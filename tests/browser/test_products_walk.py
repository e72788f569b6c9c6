"""A product at the bench: figures, parts and cautions changed by mouse and keys, each step back."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests import demo_rows

pytestmark = pytest.mark.browser


def test_a_tin_is_put_right_by_mouse_and_keys_with_every_step_back(demo_page: Page):
    page = demo_page
    page.goto(f"/mixes/products/{demo_rows.CASTING_RESIN}")
    sentence, saved, rows = (
        page.locator(".verdict"),
        page.locator("#saved"),
        page.locator("tbody[data-each='parts'] tr"),
    )
    expect(sentence).to_contain_text("1:1 by volume")
    figure = page.get_by_label("A in the ratio")
    figure.fill("2")
    figure.press("Enter")
    expect(sentence).to_contain_text("2:1 by volume")
    page.get_by_label("Ratio by").select_option("mass")
    expect(sentence).to_contain_text("2:1 by mass")
    cure = page.get_by_label("Full cure")
    cure.fill("10 min")
    cure.press("Enter")
    expect(page.get_by_text(re.compile("full cure cannot come before demoulding"))).to_be_visible()
    expect(cure).to_have_value("10 min")  # what was typed stays until it is put right
    cure.fill("1 d")
    cure.press("Enter")
    expect(cure).to_have_value("1 d")
    page.get_by_role("button", name="part", exact=True).click()
    expect(rows).to_have_count(3)
    page.get_by_label("Caution").select_option("epoxy")
    expect(page.locator("p.caution").first).to_contain_text("Epoxy")
    expect(saved).to_have_text("Saved")
    for _ in range(5):
        page.keyboard.press("Control+z")
        expect(saved).to_have_text("Saved")
    expect(rows).to_have_count(2)
    expect(sentence).to_contain_text("1:1 by volume")
