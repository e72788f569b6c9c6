"""Server time of every page on the demo data and on a grown shop, what a person waits for in the browser,
two clients side by side.
"""

import http.cookiejar
import json
import re
import statistics
import threading
import time
import urllib.parse
import urllib.request
from functools import partial
from itertools import count
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

from bench.rows import Row, in_turn_ms, median_ms
from lamsik.web.app import create_app
from tests.browser.conftest import FLAGS, WHOLE, Server
from tests.browser.test_screens import EVERY

REPAINTED = """() => new Promise((done) => {
  const times = [], picture = document.getElementById('picture');
  const handle = picture.querySelector('.handle'), box = handle.getBoundingClientRect();
  let x = box.x + box.width / 2; const y = box.y + box.height / 2;
  const fire = (type) => {
    const said = { bubbles: true, clientX: x, clientY: y, pointerId: 1, isPrimary: true };
    picture.querySelector('.handle').dispatchEvent(new PointerEvent(type, said));
  };
  picture.setPointerCapture = () => {};
  fire('pointerdown');
  let sent = 0, turn = 0;
  const seen = new MutationObserver((records) => {
    // that much the page does by itself
    if (!sent || records.every((record) => record.target.classList?.contains('handle'))) return;
    const began = sent; sent = 0;
    requestAnimationFrame(() => { const port = new MessageChannel(); port.port1.onmessage = () => {
      times.push(performance.now() - began);
      if (times.length < 40) return setTimeout(move, 30);
      fire('pointerup');
      seen.disconnect();
      done(times);
    }; port.port2.postMessage(0); });
  });
  seen.observe(picture, { childList: true, attributes: true, subtree: true });
  const move = () => { x += (turn++ % 16 < 8 ? 3 : -3); sent = performance.now(); fire('pointermove'); };
  move();
})"""


SHOWN = """() => new Promise((done) => {
  const one = (selector) => document.querySelector(selector);
  const is = () => one('.verdict')?.textContent.trim() && one('#picture > svg');
  const look = () => (is() ? done() : requestAnimationFrame(look));
  look();
})"""
SAID = """() => new Promise((done) => {
  const is = () => document.querySelector('.verdict')?.textContent.trim();
  const look = () => (is() ? done() : requestAnimationFrame(look));
  look();
})"""
KEPT = """() => new Promise((done) => {
  const saved = () => document.getElementById('saved').textContent === 'Saved';
  const is = () => saved() && !document.querySelector('#picture .held');
  const look = () => (is() ? done() : requestAnimationFrame(look));
  look();
})"""

ROOMS = (
    *("/stability", "/twins", "/running", "/joints", "/family", "/floats/", "match=1"),
    *("/stores/prices", "/stores/short/", "/stores/costs/", "/stores/year"),
)
"""Pages that compute their whole answer before they show."""


def page_rows(home: Path) -> list[Row]:
    """The slowest page, the slowest room of the Tank, and the median of all."""
    app = create_app(home)
    client = app.test_client()
    times = {url: median_ms(lambda url=url: client.get(url), 7, 2) for url in EVERY}
    app.extensions["engine"].dispose()
    rooms = {url: figure for url, figure in times.items() if any(room in url for room in ROOMS)}
    slowest = max((url for url in times if url not in rooms), key=lambda url: times[url])
    deepest = max(rooms, key=lambda url: rooms[url])
    for url, figure in sorted(times.items(), key=lambda row: -row[1])[:6]:
        print(f"server time {figure:6.1f} ms  {url}")
    print()
    return [
        Row(f"server time of the slowest page ({slowest})", 50, times[slowest]),
        Row(f"server time of the slowest room ({deepest})", 500, rooms[deepest]),
        Row("server time, median page", 50, statistics.median(times.values())),
    ]


def growth_rows(home: Path, grown: Path) -> list[Row]:
    """The page that takes longest against the demo shop's own, in a shop that has grown; and the largest
    page.
    """
    small, large, sizes = {}, {}, {}
    apps = [create_app(folder) for folder in (home, grown)]
    demo, years = (app.test_client() for app in apps)
    for url, alike in [*LISTS.items(), *((url, url) for url in EVERY)]:
        small[url], large[url] = in_turn_ms([partial(demo.get, alike), partial(years.get, url)], 5, 1)
        sizes[url] = len(years.get(url).data)
    lists = max(median_ms(partial(years.get, url), 5, 1) for url in ASKED_IN_LARGE)
    laid = median_ms(partial(years.get, "/orders/24/grid"), 5, 1)
    for app in apps:
        app.extensions["engine"].dispose()
    worst = max(large, key=lambda url: large[url] / max(small[url], LEAST_MS))
    widest = max(sizes, key=lambda url: sizes[url])
    return [
        Row(
            f"a grown shop against the demo shop, the page that slows most ({worst})",
            3,
            large[worst] / max(small[worst], LEAST_MS),
            "×",
        ),
        Row("orders listed, a customer searched, in a grown shop", 50, lists),
        Row("the grid of many lines laid out in a grown shop", 200, laid),
        Row(f"the largest page of a grown shop ({widest})", 300, sizes[widest] / 1000, "kB"),
    ]


LISTS = {
    "/stores/year": "/stores/year",
    "/pieces?q=grown": "/pieces?q=p00",
    "/orders?q=grown": "/orders?q=a00",
    "/orders/customers?q=customer": "/orders/customers?q=e",
    "/search?q=grown": "/search?q=a00",
    "/search?q=none": "/search?q=none",
}
"""What is searched for in the grown shop, and what finds a list in the demo shop."""
ASKED_IN_LARGE = ("/orders", "/orders?q=customer 7", "/orders/customers?q=customer 7")
"""Where a shop with many orders looks for one."""
HEAVY = ("/", "/tank/15", "/shapes/15", "/floats/38", "/moulds/53", "/scale", "/stores")
"""Pages with most on them."""
LEAST_MS = 4.0
"""A page that takes less than this is as quick as one can tell."""


def browser_rows(home: Path) -> list[Row]:
    """What a person waits for: a first visit, a drag, its release, and all of it on a slow tablet."""
    server = Server(home)
    try:
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=WHOLE, args=FLAGS)
            today, opened, slow_opened = [], [], []
            for _ in range(5):
                opened.append(_first_visit(browser, server.url))
                slow_opened.append(_first_visit(browser, server.url, slowed=4))
                today.append(_weights(browser, server.url, "/")["all"])
            sent = [_weights(browser, server.url, path, touched=True) for path in HEAVY]
            heaviest = {kind: max(page[kind] for page in sent) for kind in sent[0]}
            page = browser.new_page(base_url=server.url, viewport={"width": 1280, "height": 800})
            page.goto("/tank/15")
            page.wait_for_load_state("networkidle")
            times = page.evaluate(REPAINTED)
            page.wait_for_load_state("networkidle")
            painting = browser.new_page(base_url=server.url, viewport={"width": 1280, "height": 800})
            painting.goto("/paints/2")
            painting.wait_for_load_state("networkidle")
            repainted = painting.evaluate(REPAINTED)
            released, followed = zip(*(_released(page, turn) for turn in range(9)), strict=True)
            slow = browser.new_page(base_url=server.url, viewport={"width": 1280, "height": 800})
            slow.context.new_cdp_session(slow).send("Emulation.setCPUThrottlingRate", {"rate": 4})
            slow.goto("/tank/15")
            slow.wait_for_load_state("networkidle")
            slowed = slow.evaluate(REPAINTED)
            browser.close()
    finally:
        server.stop()
    return [
        Row("first visit: Tank opened with nothing kept, to its verdict", 1500, statistics.median(opened)),
        Row("first verdict of the Tank in a browser slowed four times", 1500, statistics.median(slow_opened)),
        Row("first load of Today, fonts and all", 250, statistics.median(today), "kB"),
        Row("first load of the heaviest page, touched, without fonts", 120, heaviest["plain"], "kB"),
        Row("style sheets on it", 25, heaviest["css"], "kB"),
        Row("own modules on it", 15, heaviest["own"], "kB"),
        Row("the toolkit's behaviours, once it is touched", 20, heaviest["toolkit"], "kB"),
        Row("pointer to repaint, dragging ballast", 60, statistics.median(times[5:])),
        Row("pointer to repaint, dragging a layer", 120, statistics.median(repainted[5:])),
        Row("release to settled verdict", 600, statistics.median(released)),
        Row("release to refit, effects and chances, which follow it", 800, statistics.median(followed)),
        Row("pointer to repaint in a browser slowed four times", 200, statistics.median(slowed[5:])),
    ]


def _first_visit(browser: Browser, url: str, slowed: int = 1) -> float:
    context = browser.new_context(base_url=url, viewport={"width": 1280, "height": 800})
    page = context.new_page()
    context.new_cdp_session(page).send("Emulation.setCPUThrottlingRate", {"rate": slowed})
    began = time.perf_counter()
    page.goto("/tank/15", wait_until="commit")
    if slowed == 1:
        page.wait_for_load_state("domcontentloaded")
    page.evaluate(SAID if slowed > 1 else SHOWN)
    took = (time.perf_counter() - began) * 1000
    context.close()
    return took


def _weights(browser: Browser, url: str, path: str, touched: bool = False) -> dict[str, float]:
    """What comes over the wire for a page with nothing kept, by kind [kB]."""
    context = browser.new_context(base_url=url, viewport={"width": 1280, "height": 800})
    page, asked, sizes, bodies = context.new_page(), {}, [], []
    session = context.new_cdp_session(page)
    session.send("Network.enable")
    session.on("Network.requestWillBeSent", lambda e: asked.update({e["requestId"]: e["request"]["url"]}))
    session.on("Network.dataReceived", lambda e: bodies.append((e["requestId"], e["encodedDataLength"])))
    session.on("Network.loadingFinished", lambda e: sizes.append((e["requestId"], e["encodedDataLength"])))
    page.goto(path, wait_until="load" if touched else "networkidle")
    if touched:
        page.mouse.move(400, 400)
        page.mouse.move(420, 420)
        page.wait_for_timeout(1200)
    context.close()

    def kind(rows: list[tuple[str, int]], named: str) -> float:
        return sum(size for key, size in rows if re.search(named, asked.get(key, ""))) / 1000

    return {
        "all": kind(sizes, ""),
        "plain": kind(sizes, r"(?<!\.woff2)$"),
        "css": kind(bodies, r"\.css$"),
        "own": kind(bodies, r"/js/"),
        "toolkit": kind(bodies, r"vendor/bootstrap\.js$"),
    }


def _released(page: Page, turn: int) -> tuple[float, float]:
    """From letting a handle go until the page shows the settled verdict and says it is saved, and until
    nothing more is to come [ms].
    """
    handle = page.locator("#picture .handle").first
    box = handle.bounding_box() or {"x": 0, "y": 0, "width": 0, "height": 0}
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + (7 if turn % 2 else -7), y, steps=3)
    page.wait_for_timeout(250)
    began = time.perf_counter()
    page.mouse.up()
    page.evaluate(KEPT)
    saved = (time.perf_counter() - began) * 1000
    page.wait_for_selector("#main:not(.later)")
    return saved, (time.perf_counter() - began) * 1000


class Client:
    """A tablet: one page of a design, and what it sends of it."""

    def __init__(self, url: str, key: int) -> None:
        self.browser = urllib.request.build_opener(
            urllib.request.HTTPCookieProcessor(http.cookiejar.CookieJar())
        )
        self.url, self.key = url, key
        page = self.browser.open(f"{url}/tank/{key}").read().decode()
        self.token = re.search(r'name="csrf-token" content="([^"]+)"', page).group(1)
        self.state = json.loads(re.search(r'id="state">(.*?)</script>', page, re.S).group(1))

    def live(self, text: str, mode: str) -> None:
        """Ballast moved there, as a drag or settled."""
        edit = {"do": "set", "path": "ballast.b1.x_mm", "text": text}
        body = {
            "document": self.state["document"],
            "base": self.state["base"],
            "bench": "tank",
            "edits": [edit],
            "mode": mode,
            "has": [],
        }
        self._send(f"/designs/{self.key}/live", json.dumps(body).encode(), "application/json")

    def tick(self, piece: int, step: str) -> None:
        """A step of a piece ticked or taken back."""
        form = {"csrf_token": self.token, "step": step}
        self._send(
            f"/pieces/{piece}/steps/tick",
            urllib.parse.urlencode(form).encode(),
            "application/x-www-form-urlencoded",
        )

    def _send(self, path: str, body: bytes, kind: str) -> None:
        request = urllib.request.Request(
            self.url + path,
            data=body,
            headers={"Content-Type": kind, "X-CSRFToken": self.token, "Referer": self.url},
        )
        with self.browser.open(request) as answer:
            answer.read()


def two_client_rows(home: Path) -> list[Row]:
    """One client settles without pause; how much longer the other's drag and tick take than alone."""
    server = Server(home)
    try:
        busy, other = Client(server.url, 17), Client(server.url, 15)
        stop, steps = threading.Event(), count()

        def settle() -> None:
            while not stop.is_set():
                busy.live(f"{20 + next(steps) % 997 / 100:.2f} mm", "settled")

        def drag() -> None:
            other.live(f"{30 + next(steps) % 91 / 10:.1f} mm", "drag")

        def tick() -> None:
            other.tick(52, "carve")

        alone = median_ms(drag, 25), median_ms(tick, 15)
        worker = threading.Thread(target=settle)
        worker.start()
        beside = median_ms(drag, 25), median_ms(tick, 15)
        stop.set()
        worker.join()
    finally:
        server.stop()
    print(
        f"two clients: drag {alone[0]:.0f} ms alone, {beside[0]:.0f} beside; tick {alone[1]:.0f} and"
        f" {beside[1]:.0f}\n"
    )
    return [
        Row("drag beside a client that settles without pause, against alone", 3, beside[0] / alone[0], "×"),
        Row("tick beside a client that settles without pause, against alone", 3, beside[1] / alone[1], "×"),
    ]
