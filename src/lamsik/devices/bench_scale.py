"""The simulated bench scale: a process of its own that sends readings over a loopback port, with a little
page to set load and faults.

`python -m lamsik.devices.bench_scale` prints one line of JSON with its two addresses and runs until its input
is closed.
"""

import random
import select
import socket
import sys
import threading
import time
from dataclasses import dataclass
from math import exp

from lamsik.core import units
from lamsik.devices import stand_in

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
    choices = {"units": (bench.unit, SENT_UNITS), "faults": (bench.fault, FAULTS)}
    return stand_in.page("bench_scale.html", bench, choices, problem)


def main() -> int:
    """Listen on two free loopback ports until the input is closed."""
    bench = BenchScale()
    return stand_in.run(
        "A bench scale that is not there.",
        "scale",
        stand_in.handler_of(bench.set, lambda problem: page_of(bench, problem)),
        lambda listener, stop: sending(bench, listener, stop),
    )


if __name__ == "__main__":
    sys.exit(main())
