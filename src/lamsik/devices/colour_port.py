"""A hand colour reader at a port: asked for a few readings, which are averaged; what it says for D50 is
adapted to D65.
"""

import re
from collections.abc import Iterable
from contextlib import closing
from dataclasses import dataclass

import numpy as np
import serial

from lamsik.core.errors import Refused
from lamsik.core.paints.colour import difference
from lamsik.core.paints.lab import Lab
from lamsik.core.shapes.curves import Array
from lamsik.devices import scale_address

READINGS, WAIT_S = 3, 2.0
APART = 2.0
"""ΔE2000 by which readings of one thing may lie apart."""
_FIGURE = rb"(-?\d{1,3}(?:\.\d+)?)"
_SAID = re.compile(rb"^LAB (D65|D50) " + b" ".join([_FIGURE] * 3) + b"$")


@dataclass(frozen=True)
class ReaderLook:
    """What a reader saw: the middle of its readings, and how far the farthest lies from it (ΔE2000)."""

    look: Lab
    apart: float


def read(url: str, hosts: Iterable[str] = ()) -> ReaderLook:
    """Ask the reader at an address.

    Raises:
        Refused: an address that cannot be, nobody there, no answer or none that is one, readings that lie
            apart.
    """
    scale_address.check(url, hosts)
    try:
        port = serial.serial_for_url(url, timeout=WAIT_S, write_timeout=WAIT_S)
    except (serial.SerialException, OSError, ValueError) as error:
        raise Refused(
            "reader", url, "a reader that is there: is it switched on, is the address right?"
        ) from error
    with closing(port):
        rows = np.array([_one(port) for _ in range(READINGS)])
    middle = rows.mean(axis=0)
    apart = float(difference(rows, np.broadcast_to(middle, rows.shape)).max())
    if apart > APART:
        raise Refused(
            "reader", f"ΔE {apart:.1f}", "readings that agree: hold it flat, on one colour, and still"
        )
    light, red, yellow = (round(float(one), 2) for one in middle)
    return ReaderLook(Lab(min(max(light, 0.0), 100.0), red, yellow), apart)


def _one(port: serial.Serial) -> Array:
    """One reading, (3,)."""
    try:
        port.write(b"READ\n")
        line = port.read_until(b"\n", 80).strip()
    except (serial.SerialException, OSError) as error:
        raise Refused("reader", "unplugged", "a reader that answers: plug it in") from error
    if not line:
        raise Refused("reader", "silence", "a reader that answers: press its button once, or charge it")
    if line == b"BUSY":
        raise Refused("reader", "busy", "a reader that is at rest: wait for its light")
    match = _SAID.match(line)
    if match is None:
        raise Refused(
            "reader", line[:40].decode("ascii", "replace"), "a line such as LAB D65 52.10 24.30 30.20"
        )
    lab = np.array([float(match[n]) for n in (2, 3, 4)])
    return lab if match[1] == b"D65" else _from_d50(lab)


def _from_d50(lab: Array) -> Array:
    """A look for D50 as it is for D65 (Bradford, coloraide)."""
    from coloraide import Color  # noqa: PLC0415 - only who reads for D50 waits for it

    return np.array(Color("lab", lab.tolist()).convert("lab-d65").coords(nans=False))
