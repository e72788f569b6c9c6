"""The Shapes bench as a new user walks it: drawn from nothing, traced, brought in, cut, given ballast,
printed; by mouse and by keyboard.
"""

import io
import re
from urllib.request import urlopen

import pytest
from PIL import Image
from playwright.sync_api import Page, expect

from tests.browser.test_screens import drag
from tests.core.shapes.test_tracing import marks, shot
from tests.demo_rows import FERRY_RUNNER, SPLIT_EEL
from tests.formats.test_meshes_and_photos import EGG

pytestmark = pytest.mark.browser


def saved(page: Page) -> None:
    expect(page.locator("#saved")).to_have_text("Saved")


def as_file(name: str, data: bytes) -> dict[str, object]:
    return {"name": name, "mimeType": "application/octet-stream", "buffer": data}


def template_photo() -> bytes:
    kept = io.BytesIO()
    Image.fromarray(shot(False, "slanted")[0]).save(kept, "PNG")
    return kept.getvalue()


def pull_mark(page: Page, name: str, to: tuple[float, float]) -> None:
    """Drag a mark of the photo to a pixel of the picture."""
    handle = page.get_by_role("slider", name=name, exact=True)
    box = page.locator("#picture svg image").bounding_box()
    scale = box["width"] / 1700
    here = handle.bounding_box()
    page.mouse.move(here["x"] + here["width"] / 2, here["y"] + here["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + to[0] * scale, box["y"] + to[1] * scale, steps=4)
    page.mouse.up()


def test_from_a_photographed_template_to_a_jointed_bait_with_ballast_and_its_print_pack(empty_page: Page):
    page = empty_page
    page.goto("/shapes")
    page.get_by_role("link", name="Bring in or trace").click()
    page.get_by_label("Photo").set_input_files(as_file("template.png", template_photo()))
    page.get_by_role("button", name="Trace it").click()
    page.get_by_label("Four corners of a sheet").check()
    page.get_by_label("Sheet, top edge").fill("148 mm")
    page.get_by_label("Sheet, side edge").fill("105 mm")
    given = marks(shot(False, "slanted")[1], "sheet")
    for number, corner in enumerate(given.sheet, start=1):
        pull_mark(page, f"Sheet corner {number}", corner)
    pull_mark(page, "Nose", given.nose)
    pull_mark(page, "Tail", given.tail)
    page.get_by_role("button", name="Trace the outline").click()
    expect(page.locator("#verdict")).to_contain_text(
        re.compile(r"Traced: 8[78]\.\d mm long, (29|30)\.\d mm deep")
    )
    points = page.get_by_role("slider", name=re.compile("^Outline point"))
    had = points.count()
    points.nth(3).focus()
    page.keyboard.press("Delete")
    expect(points).to_have_count(had - 1)
    page.get_by_role("button", name="Undo").click()
    expect(points).to_have_count(had)
    page.get_by_label("Name").fill("Jetty diver")
    page.get_by_label("Made of").select_option("paulownia")
    page.get_by_role("button", name="Make a body of it").click()

    expect(page).to_have_title(re.compile("Jetty diver"))
    page.wait_for_load_state("networkidle")
    page.get_by_role("tab", name="Parts").click()
    for part, seat in (
        ("Line tie, screw eye 0.9", "nose"),
        ("Hook hanger, screw eye 0.9", "belly"),
        ("Split ring 4", None),
        ("Treble hook size 8", None),
        ("Joint eyelets", "inside"),
    ):
        choice = page.get_by_label("Part to put on")
        rows = page.locator("ul[data-each='hardware'] > li")
        had = rows.count()
        choice.select_option(
            label=next(text for text in choice.locator("option").all_inner_texts() if part in text)
        )
        if seat:
            page.get_by_label("Where", exact=True).select_option(seat)
        page.get_by_role("button", name="Put on", exact=True).click()
        expect(rows).to_have_count(had + 1)
    page.get_by_role("tab", name="Joints").click()
    page.get_by_role("button", name="A joint").click()
    expect(page.locator("[data-each='segments'] > li")).to_have_count(2)
    place = page.locator("[data-each='joints']:visible").get_by_label("From the nose")
    place.fill("52 mm")
    place.press("Enter")
    expect(page.get_by_text("Joint at 52.0 mm")).to_be_visible()
    page.locator("[data-each='joints']:visible").get_by_label("Kind").select_option("pin")
    expect(page.locator("[data-each='segments'] > li")).to_have_count(1)
    page.locator("[data-each='joints']:visible").get_by_label("Kind").select_option("linked")
    expect(page.locator("[data-each='segments'] > li")).to_have_count(2)
    saved(page)

    page.get_by_role("link", name="Tank", exact=True).last.click()
    page.wait_for_load_state("networkidle")
    page.get_by_role("button", name="Find ballast").click()
    answers = page.locator("#answers > li")
    expect(answers.first).to_be_visible()
    answers.first.get_by_role("button").click()
    expect(page.locator(".verdict")).to_contain_text("rises slowly")
    saved(page)
    page.get_by_role("link", name="Shape", exact=True).last.click()
    expect(page.locator("[data-each='clashes'] li").filter(has_text="joint")).to_have_count(0)
    page.get_by_role("link", name="Print pack").click()
    expect(page.get_by_text(re.compile(r"\d\s+sheets?\s+of\s+A4\s+at\s+true\s+size"))).to_be_visible()
    page.get_by_label("Sections at").fill("20 mm, 45 mm, 3 in")
    page.get_by_role("button", name="Lay out").click()
    expect(page.get_by_text("Section 76.2 mm")).to_be_visible()
    answer = page.request.get(page.get_by_role("link", name="PDF, all sheets").get_attribute("href"))
    assert answer.status == 200 and answer.body()[:4] == b"%PDF"
    expect(page.get_by_role("link", name=re.compile("Segment 2, STL"))).to_be_visible()


def test_drawn_from_nothing_to_a_verdict_by_mouse_and_keys(empty_page: Page):
    page = empty_page
    page.goto("/shapes")
    page.get_by_role("button", name="Slim runner").click()
    volume = page.get_by_text("Body volume", exact=True).locator("xpath=..")
    expect(volume).to_contain_text("ml")
    before = volume.inner_text()
    point = page.locator(".handle[data-path='point.top.4']")
    drag(page, point, (0, -30))
    page.mouse.up()
    saved(page)
    expect(volume).not_to_have_text(before)
    handles = page.locator(".handle[data-path^='point.top']")
    had = handles.count()
    page.get_by_label("Station", exact=True).fill("20 mm")
    page.get_by_label("Station", exact=True).press("Enter")
    expect(page.get_by_text("section at 20 mm")).to_be_visible()
    page.get_by_role("button", name="Point at the station").click()
    expect(handles).to_have_count(had + 1)
    handles.nth(2).focus()
    page.keyboard.press("ArrowUp")
    saved(page)
    value = page.locator("#point-value")
    expect(value).to_be_visible()
    value.fill("0.3 in")
    value.press("Enter")
    expect(handles.nth(2)).to_have_attribute("aria-valuenow", re.compile(r"^7\.6"))
    handles.nth(2).focus()
    page.keyboard.press("Delete")
    expect(handles).to_have_count(had)
    page.get_by_role("button", name="Undo").click()
    expect(handles).to_have_count(had + 1)
    page.get_by_role("tab", name="Resize").click()
    page.get_by_label("By", exact=True).select_option("volume")
    page.get_by_label("To", exact=True).fill("12 ml")
    page.get_by_role("button", name="Resize", exact=True).click()
    expect(volume).to_contain_text("12.00 ml")
    page.get_by_label("To", exact=True).fill("10 m")
    page.get_by_label("By", exact=True).select_option("length")
    page.get_by_role("button", name="Resize", exact=True).click()
    expect(page.get_by_role("alert").filter(has_text="600")).to_be_visible()
    page.get_by_role("link", name="Tank", exact=True).last.click()
    expect(page.locator(".verdict")).to_contain_text("Floats")


def test_every_kind_of_file_is_brought_in_and_a_bad_one_is_answered(demo_server, visit):
    page = visit("422")  # the browser notes every refusal
    for name, way in (("a.svg", "outlines.svg"), ("a.dxf", "outlines.dxf"), ("a.json", "body.json")):
        data = urlopen(f"{demo_server.url}/shapes/15/{way}").read()
        page.goto("/shapes/bring-in")
        page.get_by_label("File", exact=True).set_input_files(as_file(name, data))
        page.get_by_role("button", name="Bring in", exact=True).click()
        expect(page.get_by_text("is brought in as")).to_be_visible()
        expect(page.locator(".verdict")).to_contain_text("rises slowly at 6 cm/s")
    page.goto("/shapes/bring-in")
    page.get_by_label("STL file").set_input_files(as_file("egg.stl", EGG.export(file_type="stl")[:-200]))
    page.get_by_role("button", name="Check it").click()
    expect(page.get_by_role("alert").filter(has_text="cut short")).to_be_visible()
    page.get_by_label("STL file").set_input_files(as_file("egg.stl", EGG.export(file_type="stl")))
    page.get_by_role("button", name="Check it").click()
    expect(page.get_by_text("Closed: 1280 triangles.")).to_be_visible()
    page.get_by_role("button", name="Make it a body").click()
    expect(page.get_by_role("alert").filter(has_text="say in which unit")).to_be_visible()
    page.get_by_label("Its unit").select_option("mm")
    expect(page.get_by_text("That makes it 90.0")).to_be_visible()
    page.get_by_role("button", name="Make it a body").click()
    expect(page.locator(".verdict")).to_contain_text("12 °C fresh water")
    expect(page.get_by_role("tabpanel", name="Shape").get_by_text("Brought in as a mesh")).to_be_visible()
    expect(page.get_by_label("Section, back")).to_be_disabled()
    page.get_by_role("link", name="Tank", exact=True).last.click()
    expect(page.locator(".verdict")).to_contain_text("12 °C fresh water")


FOLLOWS = """() => new Promise((done) => {
  const picture = document.getElementById('picture');
  const find = () => picture.querySelector('.handle[data-path="point.top.5"]');
  const box = find().getBoundingClientRect(), x = box.x + box.width / 2, y = box.y + box.height / 2;
  picture.setPointerCapture = () => {};
  const fire = (type, dy) => {
    const said = { bubbles: true, clientX: x, clientY: y + dy, pointerId: 1, isPrimary: true };
    find().dispatchEvent(new PointerEvent(type, said));
  };
  fire('pointerdown', 0);
  const off = []; let turn = 0;
  const frame = () => {
    const at = find().getBoundingClientRect();
    if (turn > 0) off.push(Math.abs(at.y + at.height / 2 - y - turn));
    if (turn++ >= 40) { fire('pointerup', 40); return done(off); }
    fire('pointermove', turn);
    requestAnimationFrame(frame);
  };
  requestAnimationFrame(frame);
})"""


def test_a_held_handle_is_under_the_pointer_in_every_frame_however_slow_the_answers(demo_page: Page):
    page = demo_page
    page.goto(f"/shapes/{FERRY_RUNNER}")
    page.wait_for_load_state("networkidle")
    page.route("**/live", lambda route: (page.wait_for_timeout(120), route.continue_()))
    off = page.evaluate(FOLLOWS)
    assert len(off) == 40 and max(off) < 2.5
    page.unroute_all(behavior="wait")
    saved(page)


def test_a_cut_is_compared_and_taken_by_keyboard(demo_page: Page):
    page = demo_page
    page.goto(f"/shapes/{SPLIT_EEL}#joints")
    page.wait_for_load_state("networkidle")
    page.get_by_role("tab", name="Shape").focus()
    for _ in range(2):
        page.keyboard.press("ArrowRight")
    expect(page.get_by_role("tab", name="Joints")).to_be_focused()
    page.get_by_role("link", name="Compare with another cut").press("Enter")
    page.get_by_label("Other cut at").fill("80 mm")
    page.get_by_label("Other cut at").press("Enter")
    expect(page.locator(".segment")).to_have_count(4)
    page.get_by_role("button", name="Take the other cut").press("Enter")
    expect(page.get_by_text("Joint at 80.0 mm")).to_be_visible()
    page.get_by_role("link", name="Revisions").press("Enter")
    expect(page.locator(".verdict")).to_contain_text("linked at 62.0 mm")
