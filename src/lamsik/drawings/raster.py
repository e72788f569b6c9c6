"""Pictures of points within drawings: carried in them, so that a file and a page need no other."""

from base64 import b64encode
from collections.abc import Sequence
from io import BytesIO
from typing import Any

import numpy as np
from numpy.typing import NDArray
from PIL import Image

from lamsik.core.paints.views import Picture
from lamsik.drawings.svg import Node, node

QUALITY = 80
MM_PER_INCH, GAP_MM = 25.4, 4.0


def image(picture: Picture, quality: int = QUALITY) -> Node:
    """A picture as a node at its place, in mm; y of the picture is down."""
    return node(
        "image",
        href=address(picture.pixels, quality),
        x=picture.left_mm,
        y=-picture.top_mm,
        width=picture.width_mm,
        height=picture.height_mm,
        preserveAspectRatio="none",
    )


def address(pixels: NDArray[Any], quality: int = QUALITY) -> str:
    """An address that carries a picture of points (h, w, 3), 0 to 255."""
    held = BytesIO()
    Image.fromarray(pixels.astype(np.uint8)).save(held, "WEBP", quality=quality, method=2)
    return f"data:image/webp;base64,{b64encode(held.getvalue()).decode()}"


def png(pictures: Sequence[Picture], per_inch: float) -> bytes:
    """Pictures under each other as one PNG file that knows its true size, clear where no body is."""
    gap = int(per_inch / MM_PER_INCH * GAP_MM)
    wide = max(one.pixels.shape[1] for one in pictures)
    rows = []
    for one in pictures:
        alpha = np.where(one.inside, 255, 0)[..., None]
        held = np.concatenate([one.pixels, alpha], axis=-1).astype(np.uint8)
        rows.append(np.pad(held, ((gap, gap), (gap, gap + wide - held.shape[1]), (0, 0))))
    file = BytesIO()
    Image.fromarray(np.concatenate(rows)).save(file, "PNG", dpi=(per_inch, per_inch))
    return file.getvalue()
