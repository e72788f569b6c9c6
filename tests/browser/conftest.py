"""The real interface: its own server process on a free port, headless Chromium, and a watch on every page."""

import atexit
import json
import os
import re
import shutil
import signal
import socket
import subprocess
import sys
import time
from pathlib import Path
from urllib.request import urlopen

import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright

from tests.conftest import lay

ROOT = Path(__file__).parent.parent.parent
CHROMIUM = os.environ.get("LAMSIK_CHROMIUM") or shutil.which("chromium") or "/usr/bin/chromium"
expect.set_options(timeout=20_000)  # a busy machine is slow, not wrong
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync"]


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


class Server:
    """`lamsik run` on a folder of its own, in a process of its own, forked from one that has everything imported."""

    ready: subprocess.Popen | None = None

    def __init__(self, home: Path, *words: str) -> None:
        self.port = free_port()
        self.url = f"http://127.0.0.1:{self.port}"
        self.log = home / "server.log"
        if Server.ready is None or Server.ready.poll() is not None:
            Server.ready = subprocess.Popen([sys.executable, "-m", "tests.browser.ready"], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True, cwd=ROOT)
            atexit.register(Server.ready.stdin.close)
        print(json.dumps({"home": str(home), "port": self.port, "log": str(self.log), "words": words}), file=Server.ready.stdin, flush=True)
        self.pid = int(Server.ready.stdout.readline())
        self._wait()

    def is_running(self) -> bool:
        try:
            os.kill(self.pid, 0)
        except ProcessLookupError:
            return False
        return True

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
def browser():
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        yield browser
        browser.close()


@pytest.fixture
def demo_server(demo_file, tmp_path):
    lay(demo_file, tmp_path)
    server = Server(tmp_path)
    yield server
    server.stop()


@pytest.fixture
def empty_server(stocked_home):
    server = Server(stocked_home)
    yield server
    server.stop()


def watched(browser: Browser, server: Server, **options) -> tuple[Page, list[str]]:
    """A page on the server, and the list of everything that went wrong on it."""
    context = browser.new_context(base_url=server.url, viewport=options.pop("viewport", {"width": 1280, "height": 800}), **options)
    page = context.new_page()
    wrong: list[str] = []
    page.on("console", lambda message: wrong.append(f"console: {message.text}") if message.type in ("error", "warning") else None)
    page.on("pageerror", lambda error: wrong.append(f"page error: {error}"))
    page.on("requestfailed", lambda request: wrong.append(f"failed: {request.url} {request.failure}") if "ERR_ABORTED" not in (request.failure or "") else None)
    page.on("request", lambda request: wrong.append(f"off the machine: {request.url}") if not re.match(rf"(data:|blob:|{re.escape(server.url)}/)", request.url) else None)
    page.on("response", lambda response: wrong.append(f"{response.status}: {response.url}") if response.status >= 500 else None)
    return page, wrong


@pytest.fixture
def demo_page(browser, demo_server):
    page, wrong = watched(browser, demo_server)
    yield page
    page.context.close()
    assert wrong == []


@pytest.fixture
def empty_page(browser, empty_server):
    page, wrong = watched(browser, empty_server)
    yield page
    page.context.close()
    assert wrong == []
