"""Photos in: taken apart from the shop's own work, shown in the sizes that pages need."""

import json
import subprocess
import sys
from io import BytesIO

import numpy as np
from numpy.typing import NDArray
from PIL import Image

from lamsik.core.errors import Refused
from lamsik.formats.upright import MOST_BYTES, normalised


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
        [sys.executable, "-m", "lamsik.formats.upright"],
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
