"""A bench scale on a serial port or a `socket://` address: read on a thread of its own, reconnected by
itself, its state in clear words.
"""

import logging
import threading
import time
from collections.abc import Callable
from dataclasses import asdict, dataclass, replace

import serial

from lamsik.core.errors import Refused
from lamsik.devices.readings import MOST_LINE, Steady, reading_g
from lamsik.devices.scale_address import check, is_socket

log = logging.getLogger("lamsik")

OFF, CONNECTING, SILENT, GARBLED, READING, GONE = "off", "connecting", "silent", "garbled", "reading", "gone"
SILENT_AFTER_S, RETRY_S, MOST_RETRY_S, TICK_S = 2.5, 0.4, 4.0, 0.25
GARBLED_FROM = 3
"""So many unreadable lines in a row are a fault; one or two are a hiccup."""


@dataclass(frozen=True)
class Settings:
    """Where the scale is and how it speaks: address, speed, its unit if it sends none, its step [g]."""

    url: str = ""
    baud: int = 9600
    unit: str = ""
    step_g: float = 0.01


@dataclass(frozen=True)
class PortState:
    """What the port knows: its state in one word and in words, the newest reading [g], whether stable, how
    often it settled.

    `rest_g` is what lay on it when it last lay still or was empty [g]; None until then, and after a fault.
    """

    state: str = OFF
    says: str = "No scale is connected: type the mass, or connect one in Stores."
    value_g: float | None = None
    stable: bool = False
    settled: int = 0
    garbled: int = 0
    rest_g: float | None = None


MUTE = (
    "No reading comes from there: is the scale plugged in, switched on and set to send by itself? Trying"
    " again …"
)


class ScalePort:
    """Reads a scale until it is closed. All faults become states; nothing is raised out of the thread.

    Of an address that never sent a reading it tells only that none comes: whether something else answers
    there is nobody's business.

    It knows no tare: what counts as nothing belongs to the page that said so.
    """

    def __init__(self, settings: Settings, clock: Callable[[], float] = time.monotonic) -> None:
        self.settings, self._clock = settings, clock
        self._state, self._lock, self._stop = (
            PortState(CONNECTING, "Looking for the scale …"),
            threading.Lock(),
            threading.Event(),
        )
        self._steady = Steady(max(settings.step_g * 1.01, 1e-6))
        self._was_stable, self._bad = False, 0
        self._proven, self._began = not is_socket(settings.url), clock()
        self._thread = threading.Thread(target=self._run, name="scale", daemon=True)
        self._thread.start()

    @property
    def state(self) -> PortState:
        """What it knows at this moment."""
        with self._lock:
            return self._state

    def view(self) -> dict[str, object]:
        """The state as plain values."""
        return asdict(self.state)

    def close(self) -> None:
        """Stop reading."""
        self._stop.set()
        self._thread.join(3.0)

    def _tell(self, state: str, says: str) -> None:
        if not self._proven:
            if self._clock() - self._began < SILENT_AFTER_S:
                return
            state, says = GONE, MUTE
        with self._lock:
            self._state = replace(
                self._state, state=state, says=says, value_g=None, stable=False, rest_g=None
            )

    def _run(self) -> None:
        wait = RETRY_S
        while not self._stop.is_set():
            try:
                if not is_socket(self.settings.url):
                    check(self.settings.url)  # a link may point elsewhere by now
                with serial.serial_for_url(
                    self.settings.url, baudrate=self.settings.baud, timeout=TICK_S
                ) as port:
                    wait = RETRY_S
                    self._listen(port)
            except (Refused, serial.SerialException, OSError, ValueError, AttributeError) as error:
                if self._stop.is_set():
                    return
                log.debug("%s: %s", self.settings.url, error)
                self._tell(GONE, MUTE)
            self._steady.forget()
            self._was_stable = False
            self._stop.wait(wait)
            wait = min(wait * 1.6, MOST_RETRY_S)

    def _listen(self, port: serial.SerialBase) -> None:
        """Take bytes as they come and split them into lines; a scale that says nothing is told off."""
        rest, heard = b"", self._clock()
        self._tell(CONNECTING, "Connected; waiting for the first reading …")
        while not self._stop.is_set():
            got = port.read(max(1, min(port.in_waiting, 512)))
            if got:
                heard = self._clock()
                *lines, rest = (rest + got).replace(b"\r", b"\n").split(b"\n")
                rest = rest[-4 * MOST_LINE :]
                for line in lines:
                    if line.strip():
                        self._take(line)
            if not self._proven:
                self._tell(GONE, MUTE)
            elif not got and self._clock() - heard > SILENT_AFTER_S:
                self._tell(
                    SILENT,
                    "The scale is connected but sends nothing: is it switched on, and set to send by itself?",
                )
                self._steady.forget()

    def _take(self, line: bytes) -> None:
        try:
            gross = reading_g(line.decode("ascii", "replace"), self.settings.unit)
        except Refused as refused:
            self._bad += 1
            self._proven = self._proven or refused.field == "unit"
            with self._lock:
                self._state = replace(self._state, garbled=self._state.garbled + self._proven)
            if refused.field == "unit":
                self._tell(
                    GARBLED, f"The scale sends {refused.given or 'no'} as its unit: {refused.allowed}."
                )
            elif self._bad >= GARBLED_FROM:
                self._tell(
                    GARBLED,
                    "The scale sends lines that cannot be read: check the cable and the speed (baud) in"
                    " Stores.",
                )
            return
        self._bad, self._proven = 0, True
        stable = self._steady.take(gross, self._clock())
        with self._lock:
            fresh = stable and not self._was_stable
            self._was_stable = stable
            words = "Lies still." if stable else "Settling …"
            rest = gross if stable or abs(gross) <= self._steady.band_g else self._state.rest_g
            self._state = replace(
                self._state,
                state=READING,
                says=words,
                value_g=gross,
                stable=stable,
                settled=self._state.settled + fresh,
                rest_g=rest,
            )
