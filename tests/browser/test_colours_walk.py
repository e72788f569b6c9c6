"""A colour is read off a photo, mixed from the shelf, corrected, seen; what is painted with it is cut and
counted.
"""

import io
import re

from PIL import Image
from playwright.sync_api import Page, expect

from tests import demo_rows
from tests.browser.test_floats_walk import bench, connect  # noqa: F401 - the fixture
from tests.browser.test_moulds_walk import pour, zero
from tests.core.paints.test_photographed import CARD, POINTS, photo
from tests.devices.test_scale import Bench


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


def test_a_mix_for_a_set_is_dropped_and_weighed_and_teaches(demo_server, visit, bench: Bench):  # noqa: F811
    page = visit("422")  # the browser notes what is refused first
    connect(page, bench)
    page.goto(f"/paints/on/{demo_rows.LOCK_RUNNER_85}/amounts?pieces=40")
    page.get_by_role("button", name="Mix it: Belly cream (W-002)").press("Enter")
    page.get_by_role("button", name="I have read this and the safety data sheet").press("Enter")
    expect(page.locator(".verdict")).to_contain_text(
        re.compile(r"pour Chalk white C-001 to[\s\S]*or count\s+\d+ drops")
    )
    cup = zero(page, bench, 12.0)
    target = float(page.locator(".fill strong + output").first.inner_text().split()[0])
    pour(page, bench, cup, target, "Weighed")
    drops = page.get_by_label("or drops")
    drops.fill("2.5")
    drops.press("Enter")
    expect(page.get_by_text(re.compile("whole drops"))).to_be_visible()
    many = re.search(r"(\d+) drops?", page.locator(".fill li.here").inner_text())[1]
    page.get_by_label("or drops").fill(many)
    page.keyboard.press("Enter")
    expect(page.locator(".verdict")).to_contain_text(re.compile(r"it is lot\s+W-002/\d+"))
    page.get_by_role("button", name="Mixed", exact=True).press("Enter")
    page.get_by_role("button", name="Sprayed").press("Enter")
    page.get_by_label("Weighed back out of cup and brush").fill("0.4 g")
    page.get_by_label("The pieces gained, dry").fill("900 g")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Gained")
    page.get_by_label("Weighed back out of cup and brush").fill("0.4 g")
    page.get_by_label("The pieces gained, dry").fill("0.6 g")
    page.keyboard.press("Enter")
    expect(page.locator(".verdict")).to_contain_text("stays on the pieces")
    expect(page.get_by_text(re.compile("Stays on the body, sprayed: .*from 2 mixes"))).to_be_visible()
    page.get_by_role("link", name="How much").click()
    expect(page.get_by_text(re.compile("from 2 mixes")).first).to_be_visible()


def test_a_scheme_is_matched_and_a_locked_layer_changes_only_when_it_is_said(demo_page: Page):
    page = demo_page
    page.goto(f"/paints/{demo_rows.ZANDER_CLAY}")
    page.get_by_role("textbox", name="Sample").fill("her old bait")
    page.keyboard.press("Tab")
    expect(page.get_by_text(re.compile("Matched to her old bait: 0 of"))).to_be_visible()
    passes = page.get_by_label(re.compile("^Passes of"))
    before = passes.input_value()
    passes.fill("5")
    passes.press("Tab")
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("is locked, so that it stays as it is")
    page.keyboard.press("Enter")  # to leave it is what is chosen first
    expect(dialog).to_be_hidden()
    expect(passes).to_have_value(before)
    passes.fill("5")
    passes.press("Tab")
    dialog.get_by_role("button", name=re.compile("^Change .* all the same")).press("Enter")
    expect(page.locator("#saved")).to_have_text("Saved")
    expect(page.get_by_text(re.compile("Matched to her old bait: 1 of"))).to_be_visible()
    expect(page.locator("#job li").filter(has_text="→ 5 ×")).to_be_visible()
    box = page.locator("#job").get_by_role("checkbox").first
    box.press("Space")
    expect(page.locator("#job li").first).to_contain_text("may change")
    page.get_by_role("button", name="Matched: unlock all").press("Enter")
    expect(page.get_by_text(re.compile("Name the sample"))).to_be_visible()
