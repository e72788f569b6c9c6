"""The real interface: its own server process on a free port, headless Chromium, and a watch on every page."""

import atexit
import contextlib
import json
import os
import re
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
import time
from functools import cache
from pathlib import Path
from typing import Any, TextIO, TypeVar
from urllib.request import urlopen

import pytest
from playwright.sync_api import BrowserContext, Page, expect, sync_playwright

from tests.conftest import lay
from tests.until import PATIENCE_S

ROOT = Path(__file__).parent.parent.parent
WHOLE = shutil.which("chromium") or shutil.which("chromium-headless-shell") or "/usr/bin/chromium"
"""The browser as makers have it: figures and pictures are taken with it where it is there."""
CHROMIUM = os.environ.get("LAMSIK_CHROMIUM") or shutil.which("chromium-headless-shell") or WHOLE
"""The same without what draws a window: a sixth less work for the same pages."""
PATIENCE_MS = PATIENCE_S * 1000
expect.set_options(timeout=PATIENCE_MS)
Waits = TypeVar("Waits", BrowserContext, Page)
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--in-process-gpu",
    "--js-flags=--single-threaded",
    "--disable-gpu-rasterization",
    "--disable-gpu-compositing",
    "--disable-software-rasterizer",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1",
]
"""Nothing off this machine can be reached: what a page asks for there fails, and the test with it."""
LOOKS = {"viewport": {"width": 1280, "height": 800}, "reduced_motion": "reduce"}


def patient(pages: Waits) -> Waits:
    """A context or page that waits as long for its acts and visits as `expect` does for what it expects."""
    pages.set_default_timeout(PATIENCE_MS)
    return pages


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


BEGUN: list[subprocess.Popen] = []


@cache
def ready() -> TextIO:
    """The way to what starts this run's servers, for all its workers; whichever asks first begins it."""
    run = os.environ.get("PYTEST_XDIST_TESTRUNUID", str(os.getpid()))
    where = Path(tempfile.gettempdir()) / f"lamsik-servers-{run}"
    door = socket.socket(socket.AF_UNIX)
    atexit.register(door.close)
    for _ in range(1200):
        with contextlib.suppress(OSError):
            door.connect(str(where / "door"))
            return door.makefile("rw")
        with contextlib.suppress(FileExistsError):  # an earlier one of this run may just have gone
            where.mkdir(mode=0o700)
            words = [sys.executable, "-m", "tests.browser.ready", str(where / "door")]
            BEGUN.append(subprocess.Popen(words, stdin=subprocess.DEVNULL, cwd=ROOT))
        time.sleep(0.1)
    raise RuntimeError("what starts the servers is not there")


def ask(**words: Any) -> int:
    """Ask it for something; the process id of a server it began."""
    print(json.dumps(words), file=ready(), flush=True)
    return int(ready().readline())


class Server:
    """`lamsik run` on a folder of its own, in a process of its own, forked from one that has everything
    imported.
    """

    def __init__(self, home: Path, *words: str, port: int = 0) -> None:
        self.port = port or free_port()
        self.url = f"http://127.0.0.1:{self.port}"
        self.log = home / "server.log"
        self.pid = ask(home=str(home), port=self.port, log=str(self.log), words=words)
        self._wait()

    def is_running(self) -> bool:
        try:
            os.kill(self.pid, 0)
        except ProcessLookupError:
            return False
        return True

    def troubles(self) -> list[str]:
        """What it could not answer."""
        return [
            line
            for line in self.log.read_text().splitlines()
            if re.search(r" ERROR | CRITICAL |^Traceback", line)
        ]

    def _wait(self) -> None:
        for _ in range(600):
            if not self.is_running():
                raise RuntimeError(f"the server ended early:\n{self.log.read_text()}")
            try:
                with urlopen(f"{self.url}/healthz", timeout=1):
                    return
            except OSError:
                time.sleep(0.05)
        raise RuntimeError(f"the server does not answer:\n{self.log.read_text()}")

    def stop(self) -> None:
        if self.is_running():
            os.kill(self.pid, signal.SIGTERM)
        while self.is_running():
            time.sleep(0.02)


@pytest.fixture(scope="session")
def started():
    """Starts a browser with more flags."""
    with sync_playwright() as playwright:
        yield lambda *flags: playwright.chromium.launch(executable_path=CHROMIUM, args=[*FLAGS, *flags])


@pytest.fixture(scope="session")
def browser(started):
    browser = started()
    yield browser
    browser.close()


@pytest.fixture(scope="session")
def unpainted(started, port):
    """A context whose pages are read, laid out and scripted as ever, all their pictures there from the
    first, and never painted: for what asks where things are and clicks none of them. What waits for a frame
    waits for ever there; no module does.
    """
    browser = started("--disable-threaded-compositing", "--blink-settings=lazyLoadEnabled=false")
    yield patient(browser.new_context(base_url=f"http://127.0.0.1:{port}", **LOOKS))
    browser.close()


@pytest.fixture(scope="session")
def port() -> int:
    """Where a worker's servers are, one after the other."""
    return free_port()


@pytest.fixture(scope="session")
def context(browser, port):
    """One for a worker: what it has of styles, fonts and modules need not be fetched anew for each test."""
    return patient(browser.new_context(base_url=f"http://127.0.0.1:{port}", **LOOKS))


@pytest.fixture(scope="session")
def looked_through(demo_file, worker_id):
    """For a whole run the demo's pages are visited once before: what that makes, all servers have."""
    if worker_id != "master":
        ask(demo=str(demo_file.parent))


@pytest.fixture
def demo_server(demo_file, looked_through, tmp_path, port):
    lay(demo_file, tmp_path)
    server = Server(tmp_path, port=port)
    yield server
    server.stop()
    assert server.troubles() == []


@pytest.fixture
def empty_server(stocked_home, port):
    server = Server(stocked_home, port=port)
    yield server
    server.stop()
    assert server.troubles() == []


def watch(page: Page) -> list[str]:
    """What goes wrong on a page from now on; what the server has to say of it is in its log (see
    `Server.troubles`).
    """
    wrong: list[str] = []
    page.on(
        "console",
        lambda message: (
            wrong.append(f"console: {message.text}") if message.type in ("error", "warning") else None
        ),
    )
    page.on("pageerror", lambda error: wrong.append(f"page error: {error}"))
    page.on(
        "requestfailed",
        lambda request: (
            wrong.append(f"failed: {request.url} {request.failure}")
            if "ERR_ABORTED" not in (request.failure or "")
            else None
        ),
    )
    return wrong


@contextlib.contextmanager
def visiting(context):
    """Opens pages in a context and leaves it as it was; what goes wrong on them fails the test, but for what
    it is opened for.
    """
    seen = []

    def opened(expected: str = "nothing") -> Page:
        page = context.new_page()
        seen.append((expected, watch(page)))
        return page

    yield opened
    for page in context.pages:
        page.close()
    context.clear_cookies()
    assert [line for expected, wrong in seen for line in wrong if expected not in line] == []


@pytest.fixture
def visit(context):
    with visiting(context) as opened:
        yield opened


@pytest.fixture
def demo_page(demo_server, visit):
    return visit()


@pytest.fixture
def empty_page(empty_server, visit):
    return visit()


@pytest.fixture
def moved_page(browser, demo_server):
    """A page whose clock the test moves: in a context of its own."""
    context = patient(browser.new_context(base_url=demo_server.url, **LOOKS))
    page = context.new_page()
    wrong = watch(page)
    yield page
    context.close()
    assert wrong == []
