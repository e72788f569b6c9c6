"""Server time of every page on the demo data, and pointer to repaint in the browser."""

import statistics
from pathlib import Path

from playwright.sync_api import sync_playwright

from bench.rows import Row, median_ms
from lamsik.web.app import create_app
from tests.browser.conftest import CHROMIUM, FLAGS, Server
from tests.browser.test_screens import EVERY

REPAINTED = """() => new Promise((done) => {
  const times = [], picture = document.getElementById('picture');
  const handle = picture.querySelector('.handle'), box = handle.getBoundingClientRect();
  let x = box.x + box.width / 2; const y = box.y + box.height / 2;
  const fire = (type) => picture.querySelector('.handle').dispatchEvent(new PointerEvent(type, { bubbles: true, clientX: x, clientY: y, pointerId: 1, isPrimary: true }));
  picture.setPointerCapture = () => {};
  fire('pointerdown');
  let sent = 0, turn = 0;
  const seen = new MutationObserver((records) => {
    if (!sent || !records.some((record) => record.target === picture && record.addedNodes.length)) return;
    const began = sent; sent = 0;
    requestAnimationFrame(() => { const port = new MessageChannel(); port.port1.onmessage = () => {
      times.push(performance.now() - began);
      if (times.length >= 40) { fire('pointerup'); seen.disconnect(); done(times); } else setTimeout(move, 30);
    }; port.port2.postMessage(0); });
  });
  seen.observe(picture, { childList: true });
  const move = () => { x += (turn++ % 16 < 8 ? 3 : -3); sent = performance.now(); fire('pointermove'); };
  move();
})"""


ROOMS = ("/stability", "/twins", "/running", "/joints", "/family", "/floats/", "match=1")
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


def browser_rows(home: Path) -> list[Row]:
    """Pointer moved until the recomputed drawing is painted, while dragging ballast in the Tank."""
    server = Server(home)
    try:
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
            page = browser.new_page(base_url=server.url, viewport={"width": 1280, "height": 800})
            page.goto("/tank/15")
            page.wait_for_load_state("networkidle")
            times = page.evaluate(REPAINTED)
            browser.close()
    finally:
        server.stop()
    return [Row("pointer to repaint, dragging ballast", 60, statistics.median(times[5:]))]
