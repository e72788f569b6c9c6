"""A photo turned upright and made small enough to work on; what runs in a process of its own, which has no
more than this to import.
"""

import json
import resource
import sys
from io import BytesIO
from pathlib import Path

from PIL import Image, ImageFile, ImageOps

from lamsik.core.errors import Refused
from lamsik.formats.sniff import kind_of

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
        picture, told = b"", {"given": str(refused.given), "allowed": refused.allowed}
    sys.stdout.buffer.write(json.dumps(told).encode() + b"\n" + picture)


if __name__ == "__main__":
    _serve()
