"""Photos in: decoded by Pillow, turned upright, made small enough to work on; anything that is no picture
is refused.
"""

import json
import resource
import subprocess
import sys
from io import BytesIO
from pathlib import Path

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageFile, ImageOps

from lamsik.core.errors import Refused
from lamsik.formats.sniff import kind_of
from lamsik.words import refusals

MOST_BYTES, MOST_PIXELS, LONGEST_PX = 25_000_000, 50_000_000, 4200
MOST_MEMORY = 900_000_000
KINDS = ("JPEG", "PNG", "WEBP", "TIFF", "BMP", "MPO")


def normalised(data: bytes) -> tuple[bytes, int, int]:
    """The photo as JPEG, upright, its longer side at most 4200 px, without the camera's notes; width and
    height [px].

    Raises `Refused` naming what is wrong: too many bytes or pixels, no picture, cut short.
    """
    if len(data) > MOST_BYTES:
        raise Refused(
            "photo",
            f"{len(data) / 1e6:.0f} MB",
            f"at most {MOST_BYTES / 1e6:.0f} MB: let the camera save a smaller JPEG",
        )
    ImageFile.LOAD_TRUNCATED_IMAGES = (
        False  # the printing library lets cut pictures through for the whole process
    )
    try:
        with Image.open(BytesIO(data), formats=KINDS) as opened:
            wide, high = opened.size
            if wide * high > MOST_PIXELS:
                raise Refused(
                    "photo", f"{wide} × {high} pixels", f"at most {MOST_PIXELS / 1e6:.0f} million pixels"
                )
            if min(wide, high) < 60:
                raise Refused("photo", f"{wide} × {high} pixels", "at least 60 pixels each way")
            opened.draft(
                "RGB", (LONGEST_PX // 2, LONGEST_PX // 2)
            )  # a JPEG of twice the size is never unpacked whole
            picture = ImageOps.exif_transpose(opened).convert("RGB")
    except Refused:
        raise
    except Exception as error:
        raise Refused(
            "photo",
            kind_of(data, "a picture"),
            "this is no picture that can be read: JPEG, PNG, WebP, TIFF or BMP",
        ) from error
    picture.thumbnail((LONGEST_PX, LONGEST_PX))
    kept = BytesIO()
    picture.save(kept, "JPEG", quality=90)
    return kept.getvalue(), picture.width, picture.height


def shrunk(jpeg: bytes, longest_px: int, quality: int = 85) -> tuple[bytes, int, int]:
    """A kept photo with its longer side at most so long; width and height [px]."""
    with Image.open(BytesIO(jpeg)) as opened:
        opened.draft("RGB", (longest_px, longest_px))
        picture = opened.convert("RGB")
    picture.thumbnail((longest_px, longest_px))
    kept = BytesIO()
    picture.save(kept, "JPEG", quality=quality)
    return kept.getvalue(), picture.width, picture.height


def pixels(jpeg: bytes) -> NDArray[np.uint8]:
    """A kept photo as an array (h, w, 3)."""
    with Image.open(BytesIO(jpeg)) as opened:
        return np.asarray(opened.convert("RGB"))


def apart(data: bytes) -> tuple[bytes, int, int]:
    """`normalised`, in a process of its own that may take so much memory and no more: what a photo takes to
    unpack is given back.

    Raises `Refused` as that does, and for a photo that does not fit.
    """
    if len(data) > MOST_BYTES:
        return normalised(data)  # refused before it is sent anywhere
    child = subprocess.run(
        [sys.executable, "-m", "lamsik.formats.photo"],
        input=data,
        capture_output=True,
        timeout=120,
        check=False,
    )
    head, _, picture = child.stdout.partition(b"\n")
    if child.returncode != 0 or not head:
        raise Refused(
            "photo",
            f"{len(data) / 1e6:.0f} MB",
            "it takes more memory to unpack than this shop gives a photo: let the camera save a smaller one",
        )
    told = json.loads(head)
    if "allowed" in told:
        raise Refused("photo", told["given"], told["allowed"])
    return picture, int(told["wide"]), int(told["high"])


def _serve() -> None:
    """What runs apart: the photo comes in, one line of words and the picture go out."""
    held = Path(
        "/proc/self/statm"
    )  # what the libraries have reserved is not the photo's, and grows with the machine's processors
    most = MOST_MEMORY + (
        int(held.read_text().split()[0]) * resource.getpagesize() if held.exists() else MOST_MEMORY
    )
    resource.setrlimit(resource.RLIMIT_AS, (most, most))
    try:
        picture, wide, high = normalised(sys.stdin.buffer.read())
        told: dict[str, object] = {"wide": wide, "high": high}
    except Refused as refused:
        picture, told = b"", {"given": str(refused.given), "allowed": refusals.allowed(refused)}
    sys.stdout.buffer.write(json.dumps(told).encode() + b"\n" + picture)


if __name__ == "__main__":
    _serve()
