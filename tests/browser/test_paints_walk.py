"""A scheme made at the bench: layers put on, moved by their handles, changed and taken off, with steps back;
turned in the hand under the lamp.
"""

import io
import re

import numpy as np
import pytest
from PIL import Image
from playwright.sync_api import Locator, Page, expect

from tests.browser.conftest import CHROMIUM, FLAGS, patient
from tests.until import until

pytestmark = pytest.mark.browser


def test_a_scheme_is_made_by_mouse_and_keys_with_every_step_back(empty_page: Page):
    page = empty_page
    page.goto("/paints")
    page.get_by_role("button", name="New scheme").click()
    rows, saved = page.locator("[data-each='layers'] > li"), page.locator("#saved")
    expect(rows).to_have_count(6)
    name = page.get_by_label("Name of the scheme")
    name.fill("Mud")
    name.press("Enter")
    expect(saved).to_have_text("Saved")
    page.get_by_role("button", name="Add a layer").click()
    page.get_by_role("button", name="Bars", exact=True).click()
    expect(rows).to_have_count(7)
    expect(page.get_by_label("Name of Bars")).to_have_value("Bars")  # what was put on is shown
    page.get_by_role("button", name=re.compile(r"^3\. Base")).press("Enter")
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
    page.get_by_role("button", name=re.compile(r"^5\. Bars")).click()
    before = page.locator("#picture image").first.get_attribute("href")
    page.get_by_label("Colour of Bars").fill("#a8281e")
    expect(page.locator("#picture image").first).not_to_have_attribute("href", before)
    page.get_by_role("button", name="Move Bars up").press("Enter")
    expect(rows.nth(3)).to_contain_text("4. Bars")
    expect(page.get_by_role("button", name="Move Seal, thinned epoxy up")).to_be_disabled()
    page.get_by_role("button", name="Take Bars off").click()
    expect(rows).to_have_count(6)
    page.keyboard.press("Control+z")
    expect(rows).to_have_count(7)
    expect(rows.nth(3)).to_contain_text("4. Bars")
    page.get_by_role("button", name="Redo").click()
    expect(rows).to_have_count(6)
    expect(saved).to_have_text("Saved")
    page.goto("/paints")
    expect(page.get_by_role("link", name=re.compile("Mud"))).to_contain_text("6 layers")


def test_a_layer_is_moved_on_the_body_by_hand_and_by_keys(demo_page: Page):
    page = demo_page
    page.goto("/paints/2")
    handle = page.get_by_role(
        "slider", name="Bars through a comb mask, lower edge, of the way from back to keel"
    )
    share, begins = (
        page.get_by_label(f"{edge} of Bars through a comb mask", exact=True)
        for edge in ("Lower edge", "Begins")
    )
    expect(share).to_have_value("60.0 %")
    box = handle.locator("circle").last.bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + 30, steps=4)
    page.mouse.up()
    expect(page.locator("#saved")).to_have_text("Saved")
    expect(share).not_to_have_value("60.0 %")
    assert float(share.input_value().split()[0]) > 65
    nose = page.get_by_role("slider", name="Bars through a comb mask, from, of the length")
    nose.focus()
    page.keyboard.press("Shift+ArrowRight")
    expect(begins).to_have_value("27.0 %")
    page.get_by_role("button", name="Undo").click()
    expect(begins).to_have_value("22.0 %")


def slant(page: Page) -> float:
    """How much brighter the upper third of the picture of the bait is than the lower one."""
    seen = np.asarray(Image.open(io.BytesIO(page.locator("#hand").screenshot())).convert("L"), dtype=float)
    rows = np.array([row[row < 250].mean() for row in seen if (row < 250).sum() > 40])
    return rows[: len(rows) // 3].mean() - rows[-len(rows) // 3 :].mean()


def another(canvas: Locator, than: bytes) -> bytes:
    """Its picture as soon as that is no longer the one it was."""
    return until(canvas.screenshot, lambda now: now != than)


@pytest.fixture
def solid_page(browser, demo_server):
    """A page of a browser that draws in 3D; the others do without, for they are quicker."""
    flags = [flag for flag in FLAGS if "gpu" not in flag and "rasterizer" not in flag]
    drawing = browser.browser_type.launch(executable_path=CHROMIUM, args=flags)
    page = patient(drawing.new_page(base_url=demo_server.url, viewport={"width": 1280, "height": 800}))
    yield page
    drawing.close()


def test_without_3d_the_four_views_remain(demo_page: Page):
    demo_page.goto("/paints/2")
    expect(demo_page.get_by_role("button", name="In the hand")).to_be_disabled()
    expect(demo_page.locator("#picture image")).to_have_count(3)


def test_a_bait_is_turned_in_the_hand_and_its_lit_side_faces_the_lamp(solid_page: Page):
    page = solid_page
    page.goto("/paints/12")
    button, says = page.get_by_role("button", name="In the hand"), page.locator("#hand-says")
    button.press("Enter")
    expect(button).to_have_attribute("aria-pressed", "true")
    expect(says).to_be_hidden()
    expect(page.locator("#picture")).to_be_hidden()
    canvas, height = page.get_by_role("application"), page.get_by_label("Lamp up and down")
    before = slant(page)
    height.fill("75")
    above = until(lambda: slant(page), lambda now: abs(now - before) > 1)
    height.fill("-75")
    until(lambda: slant(page), lambda below: below < above - 15)
    below = canvas.screenshot()
    height.fill("45")
    before = another(canvas, below)
    canvas.focus()
    page.keyboard.press("Shift+ArrowRight")
    turned = another(canvas, before)
    box = canvas.bounding_box()
    page.mouse.move(box["x"] + 200, box["y"] + 100)
    page.mouse.down()
    page.mouse.move(box["x"] + 320, box["y"] + 140, steps=3)
    page.mouse.up()
    dressed = another(canvas, turned)
    page.get_by_role("button", name=re.compile("^2. White primer")).click()
    page.get_by_role("button", name="As far as the chosen layer").click()
    expect(page.get_by_role("button", name="As far as the chosen layer")).to_have_attribute(
        "aria-pressed", "true"
    )
    page.wait_for_function(
        "() => performance.getEntriesByType('resource').some((one) => one.name.includes('upto='))"
    )
    another(canvas, dressed)
    button.click()
    expect(page.locator("#picture")).to_be_visible()


def test_a_jointed_bait_is_dipped_no_deeper_than_it_may_carded_and_finished_point_by_point(demo_page: Page):
    page = demo_page
    page.goto("/paints/12")
    page.get_by_role("button", name=re.compile(r"^7\. Clear, slow epoxy")).click()
    page.get_by_label("How it goes on of Clear, slow epoxy").select_option("dipped")
    expect(page.locator("#saved")).to_have_text("Saved")
    page.goto("/paints/on/27")
    page.get_by_role("button", name="Chalk bream S-012").click()
    expect(page.get_by_text(re.compile("is dipped and this body has a joint"))).to_be_visible()
    expect(page.locator("#saved")).to_have_text("Saved")
    page.get_by_role("link", name="Doing it").press("Enter")
    expect(
        page.get_by_text(re.compile(r"(nose|tail) first, stop \d+ mm deep\. The joint begins at")).last
    ).to_be_visible()
    expect(page.get_by_text(re.compile("domed, glued on after the clear"))).to_be_visible()
    page.get_by_role("link", name="Paint", exact=True).click()
    page.get_by_role("button", name="Make a piece").click()
    expect(page).to_have_url(re.compile("/pieces/[0-9]"))
    number = page.get_by_role("heading", level=1).inner_text()
    page.get_by_role("link", name="Spray card").click()
    expect(page.get_by_role("heading", name=f"{number} Split eel")).to_be_visible()
    expect(page.get_by_text("Chalk bream (S-012), version 2")).to_be_visible()
    page.goto("/paints/batch")
    page.get_by_label(number).press("Space")
    page.get_by_label("P0066").check()
    page.get_by_role("button", name="Batch card").press("Enter")
    expect(page.get_by_text(re.compile(r"2 pieces, \d+ layers: \d+ loads"))).to_be_visible()
    page.goto("/pieces")
    page.get_by_role("link", name=number).click()
    finish = page.get_by_role("button", name="Final check: tick off")
    finish.press("Enter")
    told = re.compile(f"{number} is not finished yet: Dipped to its mark.*; No run")
    expect(page.get_by_text(told)).to_be_visible()
    dipped = page.get_by_role("button", name=re.compile("^Dipped to its mark"))
    dipped.press("Enter")
    expect(dipped).to_have_attribute("aria-pressed", "true")
    points = page.locator("#step-check .points button")
    count = points.count()
    assert count > 5
    for n in range(count):
        points.nth(n).press("Enter")
        expect(points.nth(n)).to_have_attribute("aria-pressed", "true")
    finish.press("Enter")
    page.locator("#a-reason").fill("done by hand before")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Final check: done, take back")).to_be_visible()
