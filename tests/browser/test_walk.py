"""The slice as a new user walks it, by mouse on an empty shop and by keyboard on the demo."""

import re
from collections.abc import Callable

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.browser.conftest import LOOKS, patient
from tests.demo_rows import PIECE_LITTLE_GLIDER

pytestmark = pytest.mark.browser


def put_on(page: Page, part: str, seat: str | None = None) -> None:
    rows = page.locator("ul[data-each='hardware'] > li")
    had = rows.count()
    choice = page.get_by_label("Part to put on")
    choice.select_option(
        label=next(text for text in choice.locator("option").all_inner_texts() if part in text)
    )
    if seat:
        page.get_by_label("Where", exact=True).select_option(seat)
    page.get_by_role("button", name="Put on", exact=True).click()
    expect(rows).to_have_count(had + 1)


def open_steps(page: Page) -> Locator:
    """The buttons of what is not ticked; by their words, since asking by role reads the whole page each
    time.
    """
    return page.locator("button[aria-label$=': tick off']")


TICKED = """async () => {
  const forms = [...document.querySelectorAll("form:has(> button[aria-label$=': tick off'])")];
  const answers = [], points = document.querySelectorAll(".points form");
  for (const form of points) await fetch(form.action, { method: "POST", body: new FormData(form) });
  for (const form of forms.slice(0, -1)) {
    const said = new FormData(form);
    said.set("early", "1");
    answers.push((await fetch(form.action, { method: "POST", body: said, redirect: "manual" })).type);
  }
  return answers;
}"""


def tick_by(page: Page, press: Callable[[Locator], None], go_on: Callable[[Locator], None]) -> None:
    """Steps by hand until one had to be waited for and one had not; those between as their own forms say;
    the last by hand.
    """
    seen = set()
    while len(seen) < 2:
        seen.add(_tick_one(page, press, go_on))
    page.wait_for_load_state()
    left = open_steps(page).count()
    assert page.evaluate(TICKED) == ["opaqueredirect"] * (left - 1)
    page.reload()
    expect(open_steps(page)).to_have_count(1)
    _tick_one(page, press, go_on)


def _tick_one(page: Page, press: Callable[[Locator], None], go_on: Callable[[Locator], None]) -> bool:
    expect(page).to_have_url(re.compile("/pieces/[0-9]"))
    page.wait_for_load_state()  # a page half read has half its steps
    left, early = open_steps(page).count(), page.get_by_label("go on before that")
    with page.expect_navigation():
        press(open_steps(page).first)
    asked = early.count() > 0
    if asked:
        go_on(early)
    expect(open_steps(page)).to_have_count(left - 1)
    return asked


def saved(page: Page) -> None:
    expect(page.locator("#saved")).to_have_text("Saved")


def test_by_mouse_from_enquiry_to_shipped(empty_page: Page):
    page = empty_page
    page.goto("/")
    page.get_by_role("link", name="Take an enquiry").first.click()
    page.get_by_label("Customer").fill("Tove Ekmark")
    page.get_by_label("Length").fill("90 mm")
    page.get_by_label("Scheme").select_option(label="Silver fry (S-001)")
    page.get_by_label("Wanted by").fill("2031-05-01")
    page.get_by_role("button", name="Note the enquiry").click()
    page.get_by_role("button", name="Accept the order").click()
    page.get_by_role("button", name="Begin the design").click()

    expect(page.get_by_role("group", name=re.compile("side, top and section"))).to_be_visible()
    expect(page.get_by_role("textbox", name="Length", exact=True)).to_have_value("90.0 mm")
    expect(page.get_by_text("Line tie is missing")).to_be_visible()
    page.get_by_role("textbox", name="Width", exact=True).fill("15 mm")
    page.keyboard.press("Enter")
    saved(page)
    page.get_by_role("tab", name="Parts").click()
    put_on(page, "Line tie, screw eye 0.9")
    put_on(page, "Hook hanger, screw eye 0.9", "belly")
    put_on(page, "Hook hanger, screw eye 0.9", "tail")
    for part in ("Split ring 4", "Split ring 4", "Treble hook size 8", "Treble hook size 8"):
        put_on(page, part)
    page.get_by_role("button", name="Fit a lip").click()
    expect(page.get_by_text("Nothing is missing.")).to_be_visible()
    saved(page)

    page.get_by_role("link", name="Tank", exact=True).last.click()
    expect(page.locator(".verdict")).to_contain_text("in 12 °C fresh water")
    page.get_by_role("button", name="Find ballast").click()
    answers = page.locator("#answers > li")
    expect(answers.nth(2)).to_be_visible()
    answers.first.get_by_role("button").click()
    expect(page.locator(".verdict")).to_contain_text("rises slowly at 6 cm/s")
    saved(page)

    page.get_by_role("link", name="Paint", exact=True).click()
    page.get_by_role("button", name="Barred perch").click()
    expect(page.get_by_role("button", name="Barred perch")).to_have_attribute("aria-pressed", "true")
    expect(page.locator("ol[data-each='layers'] > li")).to_have_count(8)
    saved(page)

    page.get_by_role("link", name="Orders", exact=True).click()
    page.get_by_role("link", name="A0001").click()
    page.get_by_role("button", name="Make a piece for this order").click()
    expect(page.get_by_role("heading", name="P0001")).to_be_visible()
    with page.expect_response(re.compile(r"card\.pdf")) as printed:
        page.evaluate("fetch(document.querySelector('a[href$=\".pdf\"]').href)")
    assert printed.value.headers["content-type"] == "application/pdf"

    expected = float(page.get_by_label("Weighed when carved").get_attribute("placeholder").split()[0])
    page.get_by_label("Weighed when carved").fill(f"{expected + 0.5:.1f}".replace(".", ","))
    page.get_by_label("Weighed when carved").press("Enter")
    expect(page.locator(".advised")).to_contain_text("heavier than basswood at 0.42 g/cm³: use ")
    page.get_by_role("button", name="Make this piece so").click()
    expect(page.locator(".advised")).to_contain_text("still fits")
    for stage in ("sealed", "ballasted", "cleared"):
        field = page.get_by_label(f"Weighed when {stage}")
        field.fill(field.get_attribute("placeholder").removesuffix("?"))
        field.press("Enter")
        expect(page.get_by_role("button", name=f"Take back the {stage} weighing")).to_be_visible()
    page.get_by_role("link", name="Pieces", exact=True).click()
    page.get_by_role("link", name="All that is unweighed").click()
    expect(page.get_by_role("listitem").filter(has_text="Treble hook size 8").first).to_be_visible()
    expect(page.get_by_text("basswood body")).to_have_count(0)
    page.go_back()
    page.get_by_role("link", name="P0001").click()
    tick_by(
        page,
        lambda step: step.click(),
        lambda early: (early.check(), page.get_by_role("button", name="Tick it all the same").click()),
    )
    page.get_by_role("link", name="A0001").click()
    expect(page.locator(".stands [aria-current]")).to_have_text("shipped")


def tab_to(page: Page, role: str, name: str, most: int = 90) -> None:
    """Reach a control with the Tab key alone."""
    wanted = page.get_by_role(role, name=name, exact=True).first
    expect(wanted).to_be_visible()
    element = wanted.element_handle()  # asking by role at every press would take longer than the presses
    for _ in range(most):
        at = element.evaluate(
            "element => element === document.activeElement ? 'there' : element.isConnected ? 'before' :"
            " 'gone'"
        )
        if at == "there":
            return
        if at == "gone":
            element = wanted.element_handle()
        else:
            page.keyboard.press("Tab")
    raise AssertionError(f"{role} {name!r} is not reached with Tab")


def test_by_keyboard_alone(demo_page: Page):
    page, keys = demo_page, demo_page.keyboard
    page.goto("/")
    tab_to(page, "link", "Take an enquiry")
    keys.press("Enter")
    tab_to(page, "combobox", "Customer")
    keys.type("Lena Holt")
    tab_to(page, "textbox", "Length")
    keys.press("Control+A")
    keys.type("3 1/2 in")
    tab_to(page, "button", "Note the enquiry")
    keys.press("Enter")
    tab_to(page, "button", "Accept the order")
    keys.press("Enter")
    tab_to(page, "button", "Begin the design")
    keys.press("Enter")
    tab_to(page, "button", "Sizes")
    keys.press("Enter")
    tab_to(page, "slider", "Depth")
    keys.press("ArrowUp")
    expect(page.get_by_label("Depth", exact=True).last).to_have_value("18.3 mm")
    assert page.evaluate("document.activeElement.dataset.path") == "body.depth_mm"
    keys.press("Control+z")
    expect(page.get_by_label("Depth", exact=True).last).to_have_value("17.8 mm")
    tab_to(page, "tab", "Shape")
    keys.press("ArrowRight")
    tab_to(page, "button", "Put on")
    keys.press("Enter")
    expect(page.locator("ul[data-each='hardware'] > li")).to_have_count(1)
    tab_to(page, "button", "Fit a lip")
    keys.press("Enter")
    expect(page.get_by_role("button", name="Take the lip off")).to_be_visible()
    saved(page)
    page.evaluate("document.activeElement.blur()")
    keys.press("g")
    keys.press("k")
    expect(page.get_by_role("heading", name="Wanted")).to_be_visible()
    tab_to(page, "button", "Find ballast")
    keys.press("Enter")
    expect(page.locator("#answers > li").nth(2)).to_be_visible()
    keys.press("Tab")
    keys.press("Tab")
    keys.press("Tab")
    keys.press("Enter")
    expect(page.locator("#answers > li")).to_have_count(0)
    saved(page)
    tab_to(page, "link", "Paint")
    keys.press("Enter")
    expect(page.get_by_role("heading", name="Layers in order")).to_be_visible()
    tab_to(page, "button", "Garfish green S-006")
    keys.press("Enter")
    expect(page.get_by_role("button", name="Garfish green S-006")).to_have_attribute("aria-pressed", "true")
    saved(page)
    tab_to(page, "button", "Make a piece")
    keys.press("Enter")
    expect(page.get_by_label("Weighed when carved")).to_be_focused()
    keys.type("5,1")
    keys.press("Enter")
    expect(page.get_by_role("button", name="Take back the carved weighing")).to_be_visible()

    def press(step: Locator) -> None:
        tab_to(page, "button", step.get_attribute("aria-label"))
        keys.press("Enter")

    def go_on(early: Locator) -> None:
        expect(early).to_be_focused()
        for key in ("Space", "Tab", "Enter"):
            keys.press(key)

    left = open_steps(page).count()
    press(open_steps(page).first)  # it has no hooks: that is asked before the first step
    expect(page.get_by_label("It goes without because")).to_be_focused()
    keys.type("a model for the wall")
    keys.press("Enter")
    expect(open_steps(page)).to_have_count(left - 1)
    expect(page.get_by_text("a model for the wall")).to_be_visible()
    tick_by(page, press, go_on)
    tab_to(page, "link", "A0027")
    keys.press("Enter")
    expect(page.locator(".stands [aria-current]")).to_have_text("shipped")
    keys.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
    keys.press("Escape")
    keys.press("/")
    keys.type("lena")
    keys.press("Enter")
    expect(page.get_by_role("main").get_by_text("Lena Holt").first).to_be_visible()


def who(page: Page, name: str) -> Locator:
    """The button of someone in the header."""
    return page.get_by_role("group", name="Who stands here").get_by_role("button", name=name, exact=True)


def test_two_people_at_two_browsers_make_one_piece(demo_server, browser, visit):
    """Each says once who stands there; the history says what both did; a step is left out and that undone."""
    ann = visit()
    other = patient(browser.new_context(base_url=demo_server.url, **LOOKS))
    bo = other.new_page()
    ann.goto("/stores#people")
    for name in ("Ann", "Bo"):
        ann.get_by_label("A name").fill(name)
        ann.get_by_role("button", name="Add", exact=True).last.click()
        expect(
            ann.get_by_role("group", name="Who stands here").get_by_role("button", name=name)
        ).to_be_visible()
    for page, name in ((ann, "Ann"), (bo, "Bo")):
        page.goto(f"/pieces/{PIECE_LITTLE_GLIDER}")
        page.locator(".asks-who").get_by_role("button", name=name, exact=True).click()
        expect(who(page, name)).to_have_attribute("aria-pressed", "true")
        expect(page.get_by_text("Who stands here? ")).to_have_count(0)
    ann.get_by_role("button", name="Begin: Tub test").click()
    expect(ann.locator(".running")).to_contain_text("Ann")
    bo.goto("/")
    bo.locator(".begun").get_by_role("link").first.click()
    bo.get_by_role("button", name="Tub test: tick off").click()
    expect(bo.locator("#step-tub")).to_contain_text("Bo")
    ann.reload()
    ann.get_by_text("Leave it out", exact=True).first.click()
    ann.get_by_label("Left out because").fill("the mere is frozen")
    ann.keyboard.press("Enter")
    expect(ann.get_by_text("left out: the mere is frozen")).to_be_visible()
    bo.get_by_role("link", name="History").click()
    lines = bo.locator(".history li")
    expect(lines.nth(0)).to_contain_text("Ann")
    expect(lines.nth(0)).to_contain_text("left out, the mere is frozen")
    expect(lines.nth(1)).to_contain_text("Bo")
    lines.nth(0).get_by_role("button", name=re.compile("^Take back")).click()
    ann.reload()
    expect(ann.get_by_text("left out: the mere is frozen")).to_have_count(0)
    other.close()
