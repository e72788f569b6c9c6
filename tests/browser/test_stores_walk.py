"""The stores: what an order is short of, a stand-in, buying, counting by label, a price, a tool, all of it
out and in again.
"""

import re
import zipfile

import segno
from PIL import Image
from playwright.sync_api import Page, expect
from sqlmodel import select

from lamsik.store import folder
from lamsik.store.database import open_database, session_of
from lamsik.store.tables import Movement
from tests.browser.conftest import CHROMIUM, FLAGS, patient


def test_from_what_is_short_to_the_whole_shop_in_a_folder_and_back(demo_page: Page, tmp_path):
    page = demo_page
    page.goto("/stores/stock")
    expect(page.locator(".verdict")).to_contain_text("2 items short for 2 orders")
    page.get_by_role("link", name="What is short").click()
    row = page.get_by_role("row").filter(has_text="Treble hook size 8")
    expect(row).to_contain_text("A0023")
    row.get_by_role("link", name="Treble hook size 6").click()
    before, after = page.get_by_text("above the water").all()[:2]
    assert before.inner_text() != after.inner_text()
    page.get_by_role("button", name="Take it").press("Enter")
    expect(page.locator(".verdict")).to_contain_text("1 item short for 1 order")

    page.get_by_role("link", name="Jelutong stick 40 × 25").click()
    page.get_by_label("It was").select_option("bought")
    page.get_by_label("How much").fill("2 packs")
    page.get_by_text("Bought: price, lot, from whom").click()
    page.get_by_label("Paid for it").fill("14.80")
    page.get_by_label("Paid for it").press("Enter")
    expect(page.locator(".verdict")).to_contain_text("2130 mm there")
    page.get_by_role("button", name=re.compile("^Take back: Bought")).click()
    expect(page.locator(".verdict")).to_contain_text("26 mm short")
    page.get_by_role("button", name=re.compile("^Count again: Bought")).click()
    expect(page.locator(".verdict")).to_contain_text("2130 mm there")

    page.get_by_role("link", name="Stock", exact=True).click()
    page.get_by_role("link", name="Count a shelf").click()
    expect(page.get_by_label("Label")).to_be_focused()
    page.keyboard.type("s8\n")
    expect(page.get_by_label("How much is there")).to_be_focused()
    page.keyboard.type("9\n")
    expect(page.get_by_text("the books had 12")).to_be_visible()
    page.get_by_role("link", name="Drawer 3").click()
    page.get_by_label("There is of Treble hook size 4").fill("33")
    page.get_by_label("There is of Treble hook size 4").press("Enter")
    expect(page.get_by_text("the books had 31")).to_be_visible()

    page.get_by_role("link", name="Costs").click()
    page.get_by_role("link", name="Bream fry").click()
    page.get_by_label("or wanted pay an hour").fill("30")
    page.get_by_role("button", name="Which price").click()
    expect(page.locator(".verdict")).to_contain_text(re.compile(r"the hour earns 30\.0\d EUR an hour"))
    page.get_by_role("link", name="Costs").click()
    for label, text in (
        ("The tool costs", "120"),
        ("One by hand", "1 h"),
        ("One with it", "15 min"),
        ("Pieces a week", "3"),
    ):
        page.get_by_label(label).fill(text)
    page.get_by_role("button", name="When it pays").click()
    expect(page.locator(".verdict")).to_contain_text("It has paid after 7 pieces")

    page.get_by_role("link", name="The shop’s own").click()
    page.get_by_role("link", name="Take all along").click()
    expect(page.locator("#main")).not_to_have_attribute("inert", "")
    page.get_by_role("button", name="Write it").press("Enter")
    expect(page.get_by_role("link", name="Take it along")).to_be_visible()
    with page.expect_download() as taken:
        page.get_by_role("link", name="Take it along").press("Enter")
    zipfile.ZipFile(taken.value.path()).extractall(tmp_path / "out")
    assert folder.bring(tmp_path / "out", tmp_path / "shop") > 3000
    engine = open_database(tmp_path / "shop")
    with session_of(engine) as session:
        assert session.exec(select(Movement).where(Movement.counted == 33)).one().amount == 2
    engine.dispose()


def film(path, text):
    """What a camera sees that looks at a label: a film of two frames."""
    code = path.with_suffix(".png")
    segno.make(text, error="m").save(str(code), scale=9, border=4)
    frame = Image.new("L", (640, 480), 190)
    with Image.open(code) as label:
        frame.paste(label.convert("L"), (120, 40))
    grey = b"\x80" * (320 * 240)
    with path.open("wb") as out:
        out.write(b"YUV4MPEG2 W640 H480 F10:1 Ip A1:1 C420jpeg\n")
        for _ in range(2):
            out.write(b"FRAME\n" + frame.tobytes() + grey + grey)


def test_a_label_is_read_by_the_camera(browser, demo_server, tmp_path):
    film(tmp_path / "label.y4m", f"{demo_server.url}/stores/count/S0008")
    flags = [
        *FLAGS,
        "--use-fake-ui-for-media-stream",
        "--use-fake-device-for-media-stream",
        f"--use-file-for-fake-video-capture={tmp_path / 'label.y4m'}",
    ]
    seeing = browser.browser_type.launch(args=flags, executable_path=CHROMIUM)
    page = patient(seeing.new_page(base_url=demo_server.url))
    page.goto("/stores/count")
    page.get_by_role("button", name="Read with the camera").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Treble hook size 8")
    seeing.close()


def test_where_there_is_no_camera_it_is_said(demo_page: Page):
    demo_page.goto("/stores/count")
    demo_page.get_by_role("button", name="Read with the camera").click()
    expect(demo_page.locator("#scan-says")).to_contain_text("type what stands under the label")
    expect(demo_page.get_by_label("Label")).to_be_focused()
