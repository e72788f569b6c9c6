"""A scheme made at the bench: layers put on, changed, moved and taken off, with every step back."""

import re

import pytest
from playwright.sync_api import Page, expect

pytestmark = pytest.mark.browser


def test_a_scheme_is_made_by_mouse_and_keys_with_every_step_back(empty_page: Page):
    page = empty_page
    page.goto("/paints")
    page.get_by_role("button", name="New scheme").click()
    rows, saved = page.locator(".scheme tbody tr"), page.locator("#saved")
    expect(rows).to_have_count(6)
    name = page.get_by_label("Name of the scheme")
    name.fill("Mud")
    name.press("Enter")
    expect(saved).to_have_text("Saved")
    page.get_by_role("button", name="bars", exact=True).click()
    expect(rows).to_have_count(7)
    film = page.get_by_label("Dry film of Base")
    film.fill("1 mil")
    film.press("Tab")
    expect(film).to_have_value("1 mil")
    film.fill("thick")
    film.press("Enter")
    expect(page.get_by_text(re.compile("thick cannot be (read|used)"))).to_be_visible()
    expect(film).to_have_value("thick")  # what was typed stays until it is put right
    film.fill("20 µm")
    film.press("Enter")
    expect(film).to_have_value("20 µm")
    page.get_by_label("Colour of Bars").fill("#a8281e")
    expect(page.locator("#picture [fill='#a8281e'], #picture [stroke='#a8281e']").first).to_be_attached()
    page.get_by_role("button", name="Move Bars up").press("Enter")
    expect(rows.nth(3)).to_contain_text("4. bars")
    expect(page.get_by_role("button", name="Move Seal, thinned epoxy up")).to_be_disabled()
    page.get_by_role("button", name="Take Bars off").click()
    expect(rows).to_have_count(6)
    page.keyboard.press("Control+z")
    expect(rows).to_have_count(7)
    expect(rows.nth(3)).to_contain_text("4. bars")
    page.get_by_role("button", name="Redo").click()
    expect(rows).to_have_count(6)
    expect(saved).to_have_text("Saved")
    page.goto("/paints")
    expect(page.get_by_role("link", name=re.compile("Mud"))).to_contain_text("6 layers")
