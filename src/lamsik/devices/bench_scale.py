"""The simulated bench scale: a process of its own that sends readings over a loopback port, with a little
page to set load and faults.

`python -m lamsik.devices.bench_scale` prints one line of JSON with its two addresses and runs until its input
is closed.
"""

import argparse
import html
import json
import random
import select
import socket
import sys
import threading
import time
from dataclasses import dataclass, fields
from http import HTTPStatus
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from importlib.resources import files
from math import exp
from urllib.parse import parse_qs

from lamsik.core import units

RATE_S = 0.1
FAULTS = ("none", "unplugged", "silent", "garbled", "no unit")
SENT_UNITS = {"g": "g", "oz": "oz", "kg": "kg", "gn": "grain"}


@dataclass
class BenchScale:
    """What lies on it [g] and how it behaves: step [g], noise (one sigma, g), drift [g/min], settling time
    [s], unit sent, fault.
    """

    load_g: float = 0.0
    step_g: float = 0.01
    noise_g: float = 0.002
    drift_g_min: float = 0.0
    settle_s: float = 0.5
    unit: str = "g"
    fault: str = "none"

    def __post_init__(self) -> None:
        self._random = random.Random(5)
        self._shown, self._since = 0.0, time.monotonic()
        self._began = self._since

    def set(self, values: dict[str, str]) -> str:
        """Set what is named; an empty text, or what is wrong."""
        for name, text in values.items():
            try:
                if name == "unit" and text in SENT_UNITS:
                    self.unit = text
                elif name == "fault" and text in FAULTS:
                    self.fault = text
                elif name in ("load_g", "drift_g_min") and abs(float(text)) <= 20_000:
                    self._begin(name, float(text))
                elif (
                    name in ("step_g", "noise_g", "settle_s")
                    and 0 <= float(text) <= 100
                    and (name != "step_g" or float(text) > 0)
                ):
                    setattr(self, name, float(text))
                else:
                    return f"{name}: {text[:20]!r} cannot be"
            except ValueError:
                return f"{name}: {text[:20]!r} is no number"
        return ""

    def _begin(self, name: str, value: float) -> None:
        now = time.monotonic()
        self._shown, self._since = self._true(now), now
        setattr(self, name, value)
        if name == "drift_g_min":
            self._began = now

    def _true(self, now: float) -> float:
        """What the pan feels: on its way from the last load to this one."""
        left = exp(-3.0 * (now - self._since) / self.settle_s) if self.settle_s > 0 else 0.0
        return self.load_g + (self._shown - self.load_g) * left

    def line(self) -> bytes:
        """The line it sends now; empty while it says nothing."""
        if self.fault == "silent":
            return b""
        if self.fault == "garbled":
            return bytes(self._random.randrange(33, 126) for _ in range(12)) + b"~?\r\n"
        now = time.monotonic()
        value = (
            self._true(now)
            + self._random.gauss(0.0, self.noise_g)
            + self.drift_g_min * (now - self._began) / 60.0
        )
        stepped = round(value / self.step_g) * self.step_g
        shown = units.convert(stepped, "g", SENT_UNITS[self.unit])
        digits = {"g": 2, "oz": 4, "kg": 5, "gn": 1}[self.unit] + (1 if self.step_g < 0.01 else 0)
        return (
            f"{shown:+10.{digits}f} {'' if self.fault == 'no unit' else self.unit}".rstrip().encode("ascii")
            + b"\r\n"
        )


def sending(bench: BenchScale, listener: socket.socket, stop: threading.Event) -> None:
    """Send a line to everyone connected, ten times a second; unplugged it hangs up on all and lets nobody
    in.
    """
    clients: list[socket.socket] = []
    while not stop.wait(RATE_S):
        while select.select([listener], [], [], 0)[0]:
            client, _ = listener.accept()
            client.setblocking(False)
            clients.append(client)
        if bench.fault == "unplugged":
            for client in clients:
                client.close()
            clients = []
            continue
        line = bench.line()
        for client in list(clients):
            try:
                client.send(line)
            except OSError:
                client.close()
                clients.remove(client)
    for client in clients:
        client.close()


def page_of(bench: BenchScale, problem: str = "") -> str:
    """The little page: what lies on it, how it behaves."""
    text = files("lamsik.devices").joinpath("bench_scale.html").read_text(encoding="utf-8")
    for field in fields(bench):
        text = text.replace(f"[{field.name}]", html.escape(f"{getattr(bench, field.name)}"))
    for name, kept, choices in (("units", bench.unit, SENT_UNITS), ("faults", bench.fault, FAULTS)):
        text = text.replace(
            f"[{name}]",
            "".join(
                f"<option{' selected' if word == kept else ''}>{html.escape(word)}</option>"
                for word in choices
            ),
        )
    return text.replace("[problem]", html.escape(problem))


def handler_of(bench: BenchScale) -> type[BaseHTTPRequestHandler]:
    """The page's server side."""

    class ScalePage(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            """Show the page."""
            self._answer(HTTPStatus.OK, page_of(bench))

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
            problem = bench.set({name: values[-1] for name, values in sent.items()})
            return self._answer(
                HTTPStatus.UNPROCESSABLE_ENTITY if problem else HTTPStatus.OK, page_of(bench, problem)
            )

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

    return ScalePage


def main() -> int:
    """Listen on two free loopback ports until the input is closed."""
    parser = argparse.ArgumentParser(description="A bench scale that is not there.")
    for name in ("port", "page-port"):
        parser.add_argument(f"--{name}", type=int, default=0)
    asked = parser.parse_args()
    bench, stop = BenchScale(), threading.Event()
    listener = socket.create_server(("127.0.0.1", asked.port))
    page = ThreadingHTTPServer(("127.0.0.1", asked.page_port), handler_of(bench))
    page.daemon_threads = True
    threading.Thread(target=page.serve_forever, daemon=True).start()
    threading.Thread(target=sending, args=(bench, listener, stop), daemon=True).start()
    port, page_port = listener.getsockname()[1], page.server_address[1]
    print(
        json.dumps({"scale": f"socket://127.0.0.1:{port}", "page": f"http://127.0.0.1:{page_port}/"}),
        flush=True,
    )
    try:
        while sys.stdin.buffer.read(256):
            pass
    except KeyboardInterrupt:
        pass
    stop.set()
    page.shutdown()
    listener.close()
    return 0


if __name__ == "__main__":
    sys.exit(main())
