"""Renew docs/screenshots from a fresh demo shop: one picture of each main view."""

import tempfile
from pathlib import Path
from urllib.request import urlopen

from playwright.sync_api import Page, sync_playwright

from lamsik.cli.shop import bench_scale
from lamsik.core.quantities import INCHES, code_of
from lamsik.demo.shop import build
from lamsik.store.database import open_database, session_of
from lamsik.store.stores import put_setting
from lamsik.web.shared.units import COOKIE
from tests.browser.conftest import FLAGS, WHOLE, Server

TARGET = Path(__file__).parent.parent / "docs" / "screenshots"

DESK, TABLET, PHONE = (1280, 800), (820, 1100), (390, 844)

VIEWS = (
    ("today", "/", DESK),
    ("orders", "/orders/26", DESK),
    ("shapes", "/shapes", DESK),
    ("shape", "/shapes/15", DESK),
    ("pack", "/shapes/27/pack", DESK),
    ("tank", "/tank/15", DESK),
    ("tank-tablet", "/tank/21", TABLET),
    ("mould", "/moulds/56#air", DESK),
    ("mix", "/mixes?net=60+ml", DESK),
    ("pour", "/moulds/53/cast", DESK),
    ("float", "/floats/62", DESK),
    ("scale", "/scale", DESK),
    ("scheme", "/paints/4", DESK),
    ("doing", "/paints/on/27/doing", DESK),
    ("piece", "/pieces/55", DESK),
    ("piece-phone", "/pieces/55", PHONE),
    ("match", "/paints/match/86", DESK),
    ("stencil", "/paints/on/60/stencil/bars1", DESK),
    ("stores", "/stores/stock", DESK),
)


def lay(pan: str, mass_g: float) -> None:
    """Put so much on the simulated scale's pan."""
    urlopen(pan, f"load_g={mass_g}".encode()).close()


def shoot(page: Page, name: str, url: str, size: tuple[int, int], pan: str) -> None:
    """One view at one size."""
    page.set_viewport_size({"width": size[0], "height": size[1]})
    guest = name == "tank-tablet"  # dark and in inches, as one of the two
    page.emulate_media(color_scheme="dark" if guest else "light")
    page.context.clear_cookies(name=COOKIE)
    if guest:
        page.context.add_cookies([{"name": COOKIE, "value": code_of(INCHES), "url": page.url}])
    page.goto(url)
    page.wait_for_load_state(
        "load" if name.startswith(("scale", "piece", "mix")) else "networkidle"
    )  # the scale is asked all the time
    if name == "scale":
        lay(pan, 0)
        page.locator("#scale-value").get_by_text("0.00 g").wait_for()
        page.get_by_label("What", exact=True).fill("Night walker")
        page.get_by_label("In air", exact=True).focus()
        page.get_by_text("Lies still").first.wait_for()
        lay(pan, 15.12)
        page.get_by_text("Taken: 15.12 g").wait_for()
    if name == "piece-phone":
        page.wait_for_timeout(500)  # until it has come to rest at the field at hand
    if name == "tank":
        page.get_by_role("button", name="Find ballast").click()
        page.locator("#answers > li").first.wait_for()
        page.evaluate("scrollTo(0, 0)")
    if name == "pour":
        page.get_by_role("button", name="Begin a pour").click()
        for _ in range(3):
            with page.expect_navigation():
                page.locator(".tickline[aria-pressed='false']").first.click()
    if name == "mix":
        page.get_by_label("For", exact=True).fill("six stubbies")
        page.get_by_role("button", name="Weigh it out").click()
        page.get_by_role("button", name="I have read this").click()
        page.locator("#scale-take").wait_for()
        lay(pan, 38.4)
        page.locator("#scale-value").get_by_text("38.40 g").wait_for()
        page.get_by_role("button", name="Zero", exact=True).click()
        page.locator("#scale-zero").wait_for()
        lay(pan, 38.4 + 21.3)
        page.locator("#scale-value").get_by_text("21.30 g").wait_for()
    page.evaluate("document.activeElement.blur()")
    page.screenshot(path=TARGET / f"{name}.png")


def main() -> None:
    """All views."""
    TARGET.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, bench_scale() as where:
        engine = open_database(Path(folder))
        with session_of(engine) as session:
            build(session)
            put_setting(session, "scale", {"url": where["scale"], "page": where["page"]})
        lay(where["page"], 15.12)
        engine.dispose()
        server = Server(Path(folder))
        try:
            with sync_playwright() as playwright:
                browser = playwright.chromium.launch(
                    executable_path=WHOLE,
                    args=[flag for flag in FLAGS if "gpu" not in flag and "rasterizer" not in flag],
                )
                page = browser.new_page(base_url=server.url)
                page.goto("/")
                page.locator(".asks-who").get_by_role("button", name="Maj").click()
                for view in VIEWS:
                    shoot(page, *view, where["page"])
                    print(view[0])
                browser.close()
        finally:
            server.stop()


if __name__ == "__main__":
    main()
