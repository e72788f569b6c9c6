"""The simulated hand colour reader: a process of its own that answers `READ` with a look over a loopback
port, with a little page to set what lies under its window.

`python -m lamsik.devices.colour_reader` prints one line of JSON with its two addresses and runs until its
input is closed.
"""

import contextlib
import random
import select
import socket
import sys
import threading
import time
from dataclasses import dataclass

from lamsik.devices import stand_in

FAULTS = ("none", "silent", "garbled", "busy")
LIGHTS = ("D65", "D50")
"""What its figures are for."""
WAIT_S = 0.1
LIMITS = {
    "lightness": (0, 100),
    "red": (-128, 128),
    "yellow": (-128, 128),
    "noise": (0, 20),
    "drift_h": (-50, 50),
}


@dataclass
class ColourReader:
    """What lies under its window (L*, a*, b*), and how it behaves: noise (one sigma), drift of L* an hour,
    the light its figures are for, fault.
    """

    lightness: float = 52.0
    red: float = 24.0
    yellow: float = 30.0
    noise: float = 0.15
    drift_h: float = 0.2
    light: str = "D65"
    fault: str = "none"

    def __post_init__(self) -> None:
        self._random, self._began = random.Random(7), time.monotonic()

    def set(self, values: dict[str, str]) -> str:
        """Set what is named; an empty text, or what is wrong."""
        for name, text in values.items():
            if (name == "light" and text in LIGHTS) or (name == "fault" and text in FAULTS):
                setattr(self, name, text)
                continue
            low, high = LIMITS.get(name, (1, 0))
            try:
                value = float(text)
            except ValueError:
                return f"{name}: {text[:20]!r} is no number"
            if not low <= value <= high:
                return f"{name}: {text[:20]!r} cannot be"
            setattr(self, name, value)
        return ""

    def answer(self) -> bytes:
        """What it says when it is asked; empty while it says nothing."""
        if self.fault == "silent":
            return b""
        if self.fault == "busy":
            return b"BUSY\r\n"
        if self.fault == "garbled":
            return bytes(self._random.randrange(33, 126) for _ in range(14)) + b"\r\n"
        drift = self.drift_h * (time.monotonic() - self._began) / 3600.0
        rows = (self.lightness + drift, self.red, self.yellow)
        light, red, yellow = (one + self._random.gauss(0.0, self.noise) for one in rows)
        return f"LAB {self.light} {light:.2f} {red:.2f} {yellow:.2f}\r\n".encode("ascii")


def talking(reader: ColourReader, listener: socket.socket, stop: threading.Event) -> None:
    """Answer whoever asks, one after the other."""
    while not stop.is_set():
        if not select.select([listener], [], [], WAIT_S)[0]:
            continue
        client, _ = listener.accept()
        with client, contextlib.suppress(OSError):
            client.settimeout(5.0)
            heard = b""
            while not stop.is_set() and (more := client.recv(64)):
                heard += more
                while b"\n" in heard:
                    line, _, heard = heard.partition(b"\n")
                    if line.strip() == b"READ":
                        client.sendall(reader.answer())


def main() -> int:
    """Listen on two free loopback ports until the input is closed."""
    reader = ColourReader()
    choices = {"lights": LIGHTS, "faults": FAULTS}

    def shown(problem: str) -> str:
        kept = {"lights": reader.light, "faults": reader.fault}
        rows = {name: (kept[name], words) for name, words in choices.items()}
        return stand_in.page("colour_reader.html", reader, rows, problem)

    return stand_in.run(
        "A colour reader that is not there.",
        "reader",
        stand_in.handler_of(reader.set, shown),
        lambda listener, stop: talking(reader, listener, stop),
    )


if __name__ == "__main__":
    sys.exit(main())
