"""What simulated devices have in common: a loopback port they talk on, a little page that sets how they
behave, one line of JSON with both addresses, and an end when their input is closed.
"""

import argparse
import html
import json
import socket
import sys
import threading
from collections.abc import Callable, Iterable, Mapping
from dataclasses import fields
from http import HTTPStatus
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from importlib.resources import files
from typing import Any
from urllib.parse import parse_qs

Choices = Mapping[str, tuple[str, Iterable[str]]]
"""By name of a choice of the page: what is chosen, and of what."""


def page(name: str, device: Any, choices: Choices, problem: str = "") -> str:
    """A device's page: a file beside this module, with the fields of the device in square brackets."""
    text = files("lamsik.devices").joinpath(name).read_text(encoding="utf-8")
    for field in fields(device):
        text = text.replace(f"[{field.name}]", html.escape(f"{getattr(device, field.name)}"))
    for choice, (kept, words) in choices.items():
        rows = (
            f"<option{' selected' if word == kept else ''}>{html.escape(word)}</option>" for word in words
        )
        text = text.replace(f"[{choice}]", "".join(rows))
    return text.replace("[problem]", html.escape(problem))


def handler_of(
    set_to: Callable[[dict[str, str]], str], shown: Callable[[str], str]
) -> type[BaseHTTPRequestHandler]:
    """The page's server side: `set_to` sets what is sent and says what is wrong, `shown` is the page."""

    class StandInPage(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            """Show the page."""
            self._answer(HTTPStatus.OK, shown(""))

        def do_POST(self) -> None:
            """Set what the form sends, from this machine's own pages and programs only."""
            origin = self.headers.get("Origin", "")
            if origin and origin != f"http://{self.headers.get('Host', '')}":
                return self._answer(HTTPStatus.FORBIDDEN, "not from another page")
            sent = parse_qs(
                self.rfile.read(min(int(self.headers.get("Content-Length") or 0), 4000)).decode(
                    "utf-8", "replace"
                )
            )
            problem = set_to({name: values[-1] for name, values in sent.items()})
            return self._answer(HTTPStatus.UNPROCESSABLE_ENTITY if problem else HTTPStatus.OK, shown(problem))

        def _answer(self, status: HTTPStatus, text: str) -> None:
            data = text.encode("utf-8")
            self.send_response(status)
            self.send_header("Content-Type", "text/html; charset=utf-8")
            self.send_header("Content-Length", str(len(data)))
            self.send_header(
                "Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'"
            )
            self.end_headers()
            self.wfile.write(data)

        def log_message(self, *words: object) -> None:
            """Say nothing."""

    return StandInPage


def run(
    says: str,
    name: str,
    handler: type[BaseHTTPRequestHandler],
    talk: Callable[[socket.socket, threading.Event], None],
    more: Mapping[str, str] | None = None,
) -> int:
    """Listen on two free loopback ports until the input is closed; `talk` is given the one of the device.
    What `more` says is told along with the addresses.
    """
    parser = argparse.ArgumentParser(description=says)
    for port in ("port", "page-port"):
        parser.add_argument(f"--{port}", type=int, default=0)
    asked, stop = parser.parse_args(), threading.Event()
    listener = socket.create_server(("127.0.0.1", asked.port))
    server = ThreadingHTTPServer(("127.0.0.1", asked.page_port), handler)
    server.daemon_threads = True
    threading.Thread(target=server.serve_forever, daemon=True).start()
    threading.Thread(target=talk, args=(listener, stop), daemon=True).start()
    address, there = listener.getsockname()[1], server.server_address[1]
    print(
        json.dumps(
            {name: f"socket://127.0.0.1:{address}", "page": f"http://127.0.0.1:{there}/", **(more or {})}
        ),
        flush=True,
    )
    try:
        while sys.stdin.buffer.read(256):
            pass
    except KeyboardInterrupt:
        pass
    stop.set()
    server.shutdown()
    listener.close()
    return 0
