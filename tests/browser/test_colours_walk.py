"""A colour is read off a photo, mixed from the shelf, corrected, seen; what is painted with it is cut and
counted.
"""

import io
import re

from PIL import Image
from playwright.sync_api import Page, expect

from tests import demo_rows
from tests.core.paints.test_photographed import CARD, POINTS, photo


def test_a_photographed_bait_is_matched_mixed_and_teaches(demo_page: Page):
    page = demo_page
    page.goto("/paints")
    page.get_by_role("link", name="Shelf and colours").click()
    page.get_by_role("button", name="Match a colour").click()
    page.get_by_label("Name of the colour").fill("Rust of an old bait")
    page.keyboard.press("Tab")
    expect(page.locator("#saved")).to_have_text("Saved")
    page.get_by_role("link", name="Off a photo").click()
    file = io.BytesIO()
    Image.fromarray(photo()).save(file, "PNG")
    page.get_by_label("Photo", exact=True).set_input_files(
        {"name": "bait.png", "mimeType": "image/png", "buffer": file.getvalue()}
    )
    canvas = page.get_by_role("application")
    expect(canvas).to_be_visible()
    box = canvas.bounding_box()
    for x, y in (*CARD, POINTS[0]):
        canvas.click(position={"x": x / 420 * box["width"], "y": y / 320 * box["height"]})
    page.get_by_role("radio", name="A point on the bait").check()
    canvas.press("Enter")
    canvas.press("Shift+ArrowDown")
    page.get_by_role("button", name="Read it").press("Enter")
    expect(
        page.get_by_text(re.compile(r"^L 5[123]\.\d, a 2\d\.\d, b \d\d\.\d, in the light"))
    ).to_be_visible()
    page.get_by_role("button", name="Take it as wanted").press("Enter")
    expect(page.get_by_role("heading", name=re.compile("Recipes from the shelf"))).to_be_visible()
    page.get_by_role("button", name=re.compile("^Take ")).first.click()
    expect(page.get_by_text(re.compile("foretold ΔE")).first).to_be_visible()
    page.get_by_role("button", name="Lighter").press("Enter")
    page.get_by_role("button", name="Undo").click()
    expect(page.locator("#saved")).to_have_text("Saved")
    page.get_by_label(re.compile("It was mixed and sprayed")).press("Space")
    page.get_by_role("group", name="How it came out").get_by_label("Lightness L").fill("54")
    page.keyboard.press("Tab")
    expect(page.get_by_text(re.compile("^It came out ΔE")).first).to_be_visible()
    expect(page.get_by_text(re.compile("Foretells your 7 mixed swatches"))).to_be_visible()


def test_a_set_is_counted_out_and_its_stencils_are_cut(demo_page: Page):
    page = demo_page
    page.goto(f"/paints/on/{demo_rows.TOLLHOUSE}")
    page.get_by_role("button", name="Perch, off the shelf S-017").click()
    expect(page.locator("#saved")).to_have_text("Saved")
    page.get_by_role("link", name="Doing it").press("Enter")
    page.get_by_role("link", name="How much paint").press("Enter")
    expect(page.get_by_text("How much paint 5 pieces take.")).to_be_visible()
    page.get_by_label("Pieces").fill("900")
    page.keyboard.press("Enter")
    expect(page.get_by_text(re.compile("left: buy")).first).to_be_visible()
    page.get_by_role("link", name="Belly cream (W-002)").click()
    expect(page.get_by_role("heading", name=re.compile("The mix"))).to_be_visible()
    page.goto(f"/paints/on/{demo_rows.TOLLHOUSE}/doing")
    page.get_by_role("link", name="Bars", exact=True).press("Enter")
    expect(page.get_by_text(re.compile("It lies on the body"))).to_be_visible()
    page.get_by_role("button", name="It is cut: into the register").press("Enter")
    expect(page.get_by_role("cell", name="Bars, Tollhouse, left", exact=True)).to_be_visible()
