"""The shop's network: a tablet comes in under another name than this machine's own, trusts the
certificate, pairs, is ended; with and without encryption.
"""

import http.client
import re
import socket
import ssl
from itertools import product

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import CHROMIUM, FLAGS, Server, free_port, patient

pytestmark = pytest.mark.browser
NAME = socket.gethostname().lower()


class Lan(Server):
    """A shop with its door to the network open."""

    def __init__(self, home, *words: str) -> None:
        super().__init__(home, "--lan", *words)

    @property
    def code(self) -> str:
        return re.search(r"pairing code: (\d{6})", self.log.read_text())[1]


@pytest.fixture
def sealed(tmp_path):
    port = free_port()
    server = Lan(tmp_path, "--lan-port", str(port))
    server.lan_port = port
    yield server
    server.stop()


@pytest.fixture
def plain(tmp_path):
    server = Lan(tmp_path, "--plain")
    server.lan_port = server.port
    yield server
    server.stop()


@pytest.fixture
def tablet(browser):
    """A browser that finds the shop under its name, as on a network; the context as asked for."""
    found = browser.browser_type.launch(
        executable_path=CHROMIUM, args=[*FLAGS, f"--host-resolver-rules=MAP {NAME} 127.0.0.1"]
    )
    yield found
    found.close()


def pair(page, server: Lan) -> None:
    page.get_by_label("Code").fill(server.code)
    page.get_by_label("Code").press("Enter")
    expect(page.get_by_role("heading", name="Today")).to_be_visible()


def test_a_tablet_is_told_how_to_trust_pairs_encrypted_and_is_ended(tablet, browser, sealed):
    context = patient(tablet.new_context(ignore_https_errors=True, viewport={"width": 820, "height": 1180}))
    page = context.new_page()
    page.goto(f"http://{NAME}:{sealed.lan_port}/orders")
    expect(page.get_by_role("heading", name="Trust this shop, once")).to_be_visible()
    shown = " ".join(page.locator(".fingerprint").inner_text().split())
    assert len(shown) == 79 and shown in sealed.log.read_text()
    page.get_by_role("link", name="Go on, encrypted").click()
    expect(page.get_by_role("heading", name="Pair this tablet")).to_be_visible()
    pair(page, sealed)
    assert page.url == f"https://{NAME}:{sealed.lan_port}/"
    assert page.evaluate(
        "isSecureContext && Boolean(navigator.mediaDevices && navigator.clipboard && navigator.serviceWorker)"
    )
    [cookie] = context.cookies()
    assert cookie["name"].startswith("__Host-") and cookie["secure"] and cookie["httpOnly"]
    page.goto(f"https://{NAME}:{sealed.lan_port}/shapes")
    page.get_by_role("button", name="Slim runner").click()
    expect(page.get_by_text("Body volume", exact=True).locator("xpath=..")).to_contain_text(
        "ml"
    )  # a form, its token and the live door work behind the pipe

    own = browser.new_page()
    own.goto(f"{sealed.url}/tablets")
    row = own.get_by_role("row").filter(has_text="127.0.0.1")
    expect(row).to_be_visible()
    row.get_by_role("button", name="End it").click()
    expect(own.locator(".verdict")).to_contain_text("No tablet is let in")
    own.close()
    page.goto(f"https://{NAME}:{sealed.lan_port}/shapes")
    expect(page.get_by_role("heading", name="Pair this tablet")).to_be_visible()
    context.close()


def test_without_encryption_it_pairs_too_and_is_no_secure_place(tablet, plain):
    page = patient(tablet.new_page())
    page.goto(f"http://{NAME}:{plain.port}/orders")
    expect(page.get_by_role("heading", name="Pair this tablet")).to_be_visible()
    pair(page, plain)
    assert not page.evaluate("isSecureContext")
    assert page.request.get(f"http://{NAME}:{plain.port}/trust/").status == 404
    page.get_by_role("link", name="Take an enquiry").first.click()
    page.get_by_label("Customer").fill("Nils")
    page.get_by_role("button", name="Note it, what they want comes next").click()
    camera = page.get_by_label("Take or choose")
    assert camera.get_attribute("type") == "file" and "image/" in camera.get_attribute("accept")
    expect(page.get_by_text("so that this works on a page that is not secure too")).to_be_visible()
    page.get_by_role("region", name="Letters").get_by_role("link", name="Quote").click()
    page.get_by_role("button", name="Copy the letter").press("Enter")
    expect(page.get_by_text("This page is not secure, so it may not copy by itself.")).to_be_visible()
    assert "Hello Nils" in page.evaluate("getSelection().toString() || document.activeElement.value")


def trusting(server: Lan, name: str = NAME) -> http.client.HTTPSConnection:
    """A client that knows the shop's root and nobody else's, asking for the shop by that name."""
    pem = (server.log.parent / "door" / "root.pem").read_text()
    context = ssl.create_default_context(cadata=pem[pem.index("-----BEGIN CERTIFICATE") :])
    connection = http.client.HTTPSConnection(name, server.lan_port, context=context)
    connection.sock = context.wrap_socket(
        socket.create_connection(("127.0.0.1", server.lan_port), 10), server_hostname=name
    )
    return connection


def test_nobody_is_local_behind_the_pipe(sealed):
    for name, path in product(
        (NAME, "127.0.0.1", "localhost"), ("/", "/orders", "/scale/live", "/designs/1/live", "/tablets")
    ):
        client = trusting(sealed, name)
        client.request("GET", path, headers={"X-Forwarded-For": "127.0.0.1", "Forwarded": "for=127.0.0.1"})
        answer = client.getresponse()
        assert answer.status == 302 and answer.headers["Location"] == "/pair", (name, path)
        client.close()


def test_half_open_handshakes_keep_nobody_waiting(sealed):
    mute = [socket.create_connection(("127.0.0.1", sealed.lan_port)) for _ in range(20)]
    for k, connection in enumerate(mute):
        connection.sendall(b"\x16\x03\x01"[: k % 4])
    client = trusting(sealed)
    client.request("GET", "/pair")
    assert client.getresponse().status == 200
    client.close()
    for connection in mute:
        connection.close()
