"""A shop that thinks in inches and ounces, from its empty start to a printed card, without a millimetre."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_walk import put_on, saved

pytestmark = pytest.mark.browser

METRIC = re.compile(r"\d ?(?:mm|cm|ml|kg|g|°C|cm/s|µm|g/cm³)(?![\w²³/])")
NOMINAL = re.compile(
    r"(?:ring|rod|ball|pair|[Ee]yes,?|wire|pin|eyelets, pair) \d[\d.]* mm|scale \d[\d.]* g"
    r"|50 mm|90 mm or 3 1/2 in"
)
"""Names of parts keep their size; a bar to check the paper by has its own."""
SHOWN = """() => [document.querySelector('main')?.innerText ?? document.body.innerText,
  ...[...document.querySelectorAll('svg text, svg title')].map((one) => one.textContent),
  ...[...document.querySelectorAll('input:not([type=hidden])')].map((one) => one.value || one.placeholder),
  ...[...document.querySelectorAll('[aria-valuetext]')].map((one) => one.getAttribute('aria-valuetext')),
].join('\\n')"""


def without_a_millimetre(page: Page) -> None:
    page.wait_for_load_state()  # a page half read has nothing to be found in it
    shown = NOMINAL.sub("", page.evaluate(SHOWN))
    assert [shown[max(0, m.start() - 30) : m.end() + 10] for m in METRIC.finditer(shown)] == []


def test_from_an_empty_shop_to_a_printed_card(empty_page: Page):
    page = empty_page
    page.goto("/stores")
    page.get_by_role("button", name="Inches and ounces").first.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("status")).to_contain_text("every page, drawing and card")
    page.get_by_role("link", name="Today", exact=True).click()
    page.get_by_role("link", name="Take an enquiry").first.click()
    without_a_millimetre(page)
    page.get_by_label("Customer").fill("Lena Holt")
    page.get_by_label("Length").fill("4 1/4 in")
    page.get_by_label("Scheme").select_option(label="Silver fry (S-001)")
    page.get_by_label("Wanted by").fill("2031-05-01")
    page.get_by_role("button", name="Note the enquiry").click()
    expect(page.get_by_text("4 1/4 in").first).to_be_visible()  # as she said it
    page.get_by_role("button", name="Accept the order").click()
    page.get_by_role("button", name="Begin the design").click()
    expect(page.get_by_role("textbox", name="Length", exact=True)).to_have_value("4 1/4 in")
    width = page.get_by_role("textbox", name="Width", exact=True)
    width.fill("5/8")  # a number alone is what the field shows
    width.press("Enter")
    expect(width).to_have_value("5/8 in")
    saved(page)
    without_a_millimetre(page)
    page.get_by_role("tab", name="Parts").click()
    put_on(page, "Line tie, screw eye 0.9")
    put_on(page, "Hook hanger, screw eye 0.9", "belly")
    put_on(page, "Split ring 4")
    put_on(page, "Treble hook size 8")
    page.get_by_role("button", name="Fit a lip").click()
    saved(page)
    without_a_millimetre(page)
    page.get_by_role("link", name="Tank", exact=True).last.click()
    page.get_by_role("button", name="Find ballast").click()
    answers = page.locator("#answers > li")
    expect(answers.first).to_be_visible()
    without_a_millimetre(page)
    answers.first.get_by_role("button").click()
    expect(page.locator(".verdict")).to_contain_text("in/s in 54 °F fresh water")
    saved(page)
    for tab in ("What changes it", "In the tub", "Weight"):
        page.get_by_role("tab", name=tab).click()
        without_a_millimetre(page)
    page.get_by_role("link", name="Orders", exact=True).click()
    page.get_by_role("link", name="A0001").click()
    page.get_by_role("button", name="Make a piece for this order").click()
    expect(page.get_by_role("heading", name="P0001")).to_be_visible()
    without_a_millimetre(page)
    page.get_by_label("Weighed when carved").fill("0.31 oz")
    page.get_by_label("Weighed when carved").press("Enter")
    expect(page.locator(".advised")).to_contain_text("oz")
    without_a_millimetre(page)
    page.get_by_role("link", name="Bench card").click()
    expect(page.get_by_text("2 in must be 2 in")).to_be_visible()
    without_a_millimetre(page)


def test_the_fill_guide_reads_ounces_as_ounces(demo_page: Page):
    page = demo_page
    page.goto("/stores")
    page.get_by_role("button", name="Inches and ounces").first.click()
    page.goto("/mixes?net=60+ml")
    page.get_by_label("For", exact=True).fill("six stubbies")
    page.get_by_role("button", name="Weigh it out").click()
    page.get_by_role("button", name="I have read this").click()
    row = page.locator("[data-fill] > li").first
    wanted_g = float(row.get_attribute("data-target") or 0)
    field = row.locator("input[data-weigh]")
    for typed in (f"{wanted_g / 28.349523:.4f} oz", f"{wanted_g / 28.349523:.4f}", f"{wanted_g:.2f} g"):
        field.fill(typed)
        expect(row).to_have_class(re.compile(r"\bfull\b"))
    field.fill(f"{wanted_g:.2f} oz")
    expect(row).to_have_class(re.compile(r"\bpast\b"))
