"""From a message to a parcel: an order of many lines, quoted and agreed by mail, something of theirs
received, part of it sent.
"""

import io
import re
import urllib.parse
import urllib.request

from PIL import Image
from playwright.sync_api import Page, expect
from sqlmodel import select

from lamsik.cli.shop import simulated
from lamsik.store import pieces, routes
from lamsik.store.database import open_database, session_of
from lamsik.store.tables import Document, OrderLine
from tests.until import until


def made(home, number: str) -> None:
    """Every piece of an order stands ready: what the hands do at the bench between two looks at the page."""
    engine = open_database(home)
    with session_of(engine) as session:
        for line in session.exec(select(OrderLine).where(OrderLine.order_id == int(number[1:]))).all():
            for _ in range(line.quantity):
                piece = pieces.start(
                    session,
                    session.get_one(Document, line.design_id),
                    line,
                    "clear" if line.kind == "clear" else "",
                )
                for step in routes.of(session, piece):
                    if not step.of.hands_over:
                        pieces.end_step(session, piece, step.key)
    engine.dispose()


def answer(house, text: str) -> None:
    with urllib.request.urlopen(house["page"], urllib.parse.urlencode({"fault": "none"}).encode()) as page:
        number = page.read().decode().split("name=answers value=")[1].split(">")[0]
    sent = urllib.parse.urlencode({"answers": number, "text": text}).encode()
    urllib.request.urlopen(house["page"], sent).close()


def test_from_a_message_to_a_parcel(demo_page: Page, tmp_path):
    page = demo_page
    with simulated("mail_house") as house:
        page.goto("/orders/mail")
        host, _, port = house["mail"].removeprefix("socket://").rpartition(":")
        for label, text in (
            ("Mail server (SMTP)", host),
            ("Port", port),
            ("The mail address of the shop", "bench@lamsik.example"),
            ("Folder where answers lie (maildir)", house["box"]),
        ):
            page.get_by_label(label, exact=True).fill(text)
        page.get_by_label("Secured by").select_option("none")
        page.get_by_role("button", name="Keep", exact=True).first.click()

        page.goto("/orders")
        page.get_by_role("link", name="Take an enquiry").click()
        page.get_by_label("Customer").fill("Jon Halloway")
        page.get_by_label("Wanted by").fill("2031-05-01")
        page.get_by_role("button", name="Note it, what they want comes next").click()
        expect(page).to_have_url(re.compile("/orders/[0-9]"))
        number = page.get_by_role("heading", level=1).inner_text().split()[0]
        page.get_by_role("link", name="Many at once").click()
        page.get_by_label("Sizes, by semicolons").fill("own size; 80 mm")
        page.get_by_role("button", name="Show", exact=True).click()
        page.get_by_label("Ferry runner 90 in Silver fry").fill("2")
        page.get_by_label("Ferry runner 90 in Barred perch").fill("1")
        page.get_by_role("button", name="80 mm").press("Enter")
        expect(page.get_by_role("button", name="own size (3)")).to_be_visible()
        page.get_by_label("Ferry runner 90 in Roach at dusk").fill("4")
        page.get_by_label("Price each").fill("32")
        page.get_by_role("button", name=re.compile("^Put them on")).press("Enter")
        expect(page.get_by_text("3 lines on")).to_be_visible()
        expect(page.locator("#lines > li")).to_have_count(3)

        page.get_by_role("link", name="Receive something").click()
        page.get_by_label("What", exact=True).fill("his old diver")
        page.get_by_role("button", name="Receive it").click()
        file = io.BytesIO()
        Image.new("RGB", (640, 480), "#88674c").save(file, "JPEG")
        page.get_by_label("Take or choose").set_input_files(
            {"name": "diver.jpg", "mimeType": "image/jpeg", "buffer": file.getvalue()}
        )
        page.get_by_role("region", name="Photos").get_by_role("button", name="Keep").click()
        expect(page.get_by_role("region", name="Photos").locator("img")).to_have_count(1)
        bag = page.get_by_role("region", name="Its bag")
        bag.get_by_label("Taken off").fill("treble no. 4")
        bag.get_by_label("How many").fill("2")
        bag.get_by_role("button", name="Keep the bag").press("Enter")
        expect(bag.get_by_label("treble no. 4 on again")).to_be_visible()

        page.goto(f"/orders/{int(number[1:])}")
        page.get_by_role("link", name="Jon Halloway").click()
        page.get_by_label("Address").fill("Jon Halloway\n3 Weir Cottages\nLower Ferry")
        page.get_by_role("button", name="Keep", exact=True).click()
        page.goto(f"/orders/{int(number[1:])}")
        page.get_by_role("button", name="Add a line").click()
        page.get_by_role("link", name="Clear only, on their own").click()
        page.get_by_label("What of theirs").select_option(index=1)
        page.get_by_label("Price agreed").fill("5")
        page.get_by_role("button", name="Keep the line").press("Enter")
        expect(page.locator("#lines > li")).to_have_count(4)
        for button in ("Begin the design of Ferry runner 90, 80", "Begin the design of 2 clear coats"):
            page.get_by_role("button", name=re.compile(f"^{button}")).click()
            expect(page.locator("#saved")).to_be_visible()
            page.goto(f"/orders/{int(number[1:])}")
        page.get_by_role("button", name="Quote", exact=True).press("Enter")
        expect(page.get_by_role("heading", name=re.compile("^Quote Q-"))).to_be_visible()
        expect(page.get_by_text("234.00 EUR")).to_be_visible()
        page.get_by_role("link", name="Back to the order").click()
        page.get_by_role("button", name="The quote is out").click()
        page.get_by_role("region", name="Letters").get_by_role("link", name="Quote").click()
        page.get_by_role("button", name="Send it").press("Enter")
        expect(page.get_by_role("region", name="Letters")).to_contain_text("Your baits")
        until(
            lambda: page.reload() and page.get_by_role("region", name="Letters").get_by_text("sent").count(),
            every_s=0.1,
        )
        answer(house, "Yes please, all of it.")
        page.reload()
        expect(page.get_by_role("region", name="Letters")).to_contain_text("From them:")
        page.get_by_role("button", name="Accept the order").press("Enter")
        expect(page.locator("[aria-current=step]")).to_have_text("accepted")

        made(tmp_path, number)
        page.reload()
        expect(page.locator("[aria-current=step]")).to_have_text("ready")
        parcels = page.get_by_role("region", name="Parcels")
        for box in parcels.get_by_role("checkbox").all()[3:]:
            box.uncheck()
        parcels.get_by_label("Box").fill("flat box")
        parcels.get_by_role("button", name="Pack a parcel").click()
        for paper in ("Address label", "Packing list"):
            page.get_by_role("button", name=re.compile(f"^{paper} of S")).click()
            expect(page.get_by_role("heading", name=re.compile(f"^{paper}"))).to_be_visible()
            page.get_by_role("link", name="Back to the order").click()
        page.get_by_role("button", name=re.compile("^It is on its way")).press("Enter")
        expect(page.locator("[aria-current=step]")).to_have_text("ready")  # part of it is still here
        for box in parcels.get_by_role("checkbox").all():
            box.check()
        parcels.get_by_role("button", name="Pack a parcel").click()
        page.get_by_role("button", name=re.compile("^It is on its way")).press("Enter")
        expect(page.get_by_text("of the bag are not matched")).to_be_visible()
        page.get_by_role("region", name="Theirs").get_by_role("link", name=re.compile("^K")).click()
        page.get_by_label("treble no. 4 on again").fill("2")
        page.get_by_role("button", name="Keep the bag").click()
        page.goto(f"/orders/{int(number[1:])}")
        page.get_by_role("button", name=re.compile("^It is on its way")).press("Enter")
        expect(page.locator("[aria-current=step]")).to_have_text("shipped")
        page.get_by_label("Sum").fill("234")
        page.get_by_role("button", name="Note it", exact=True).press("Enter")
        expect(page.locator("[aria-current=step]")).to_have_text("closed")
