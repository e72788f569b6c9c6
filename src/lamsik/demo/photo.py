"""A photo for the demo shop: an old lure's card template on a sheet of paper, beside a ruler, taken a
little from the side.
"""

from io import BytesIO
from typing import Any

import numpy as np
from PIL import Image, ImageDraw

from lamsik.core.shapes.body import Body, side_outline
from lamsik.core.shapes.outlining import Lines
from lamsik.core.shapes.tracing import Marks, Pixel, trace

SHEET_MM, PX = (148.0, 105.0), 8
WIDE, HIGH = 1400, 1080
CORNERS = ((150.0, 110.0), (1270.0, 170.0), (1215.0, 960.0), (170.0, 905.0))
"""Where the sheet's corners lie in the photo [px], clockwise from its top left."""

LEFT_MM, MIDDLE_MM = 24.0, 46.0


def template(body: Body) -> tuple[bytes, dict[str, object]]:
    """The photo as JPEG and the marks a maker would set in it, for a body up to 100 mm long."""
    outline = side_outline(body, 121)
    sheet = Image.new("RGB", (int(SHEET_MM[0] * PX), int(SHEET_MM[1] * PX)), (243, 240, 231))
    pen = ImageDraw.Draw(sheet)
    pen.polygon([((LEFT_MM + x) * PX, (MIDDLE_MM - z) * PX) for x, z in outline.tolist()], fill=(122, 92, 62))
    pen.rectangle((20 * PX, 84 * PX, 132 * PX, 94 * PX), fill=(226, 214, 176), outline=(90, 80, 60), width=2)
    for mm in range(0, 111):
        deep = 5 if mm % 10 == 0 else 3.5 if mm % 5 == 0 else 2.2
        pen.line(((21 + mm) * PX, 84 * PX, (21 + mm) * PX, (84 + deep) * PX), fill=(40, 36, 30), width=2)
    taken = sheet.transform(
        (WIDE, HIGH), Image.Transform.PERSPECTIVE, _back(), Image.Resampling.BILINEAR, fillcolor=(96, 84, 72)
    )
    grain = np.random.default_rng(11).normal(0, 5, (HIGH, WIDE, 3))
    light = np.linspace(0.9, 1.03, WIDE)[None, :, None]
    kept = BytesIO()
    Image.fromarray(np.clip(np.asarray(taken) * light + grain, 0, 255).astype(np.uint8)).save(
        kept, "JPEG", quality=85
    )
    nose, tail = outline[0], outline[len(outline) // 2 - 1]
    marks = {
        "by": "sheet",
        "sheet": [list(corner) for corner in CORNERS],
        "sheet_width": f"{SHEET_MM[0]:g} mm",
        "sheet_height": f"{SHEET_MM[1]:g} mm",
        "nose": _seen(nose),
        "tail": _seen(tail),
        "on": _seen((nose + tail) / 2),
        "ruler": [_seen(np.array([x, MIDDLE_MM - 84.0])) for x in (-3.0, 97.0)],
        "ruler_mm": "100 mm",
        "flip": False,
    }
    return kept.getvalue(), marks


def traced(body: Body) -> Lines:
    """The lines that tracing finds of a body in its photo."""
    picture, marks = template(body)
    sheet, on, nose, tail = (marks[name] for name in ("sheet", "on", "nose", "tail"))
    seen = Marks(
        sheet=_corners(sheet), sheet_mm=SHEET_MM, on=_pixel(on), nose=_pixel(nose), tail=_pixel(tail)
    )
    return trace(np.asarray(Image.open(BytesIO(picture)).convert("RGB")), seen).lines


def _pixel(at: Any) -> Pixel:
    return (float(at[0]), float(at[1]))


def _corners(sheet: Any) -> tuple[Pixel, Pixel, Pixel, Pixel]:
    first, second, third, fourth = (_pixel(corner) for corner in sheet)
    return first, second, third, fourth


def _map(start: np.ndarray, to: np.ndarray) -> np.ndarray:
    """The eight coefficients of the projective map that takes four points to four others."""
    rows = []
    for (x, y), (u, v) in zip(start, to, strict=True):
        rows += [[x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]]
    return np.linalg.solve(np.array(rows, dtype=float), np.asarray(to, dtype=float).ravel())


def _sheet_px() -> np.ndarray:
    return np.array([(0, 0), (SHEET_MM[0], 0), SHEET_MM, (0, SHEET_MM[1])], dtype=float) * PX


def _back() -> list[float]:
    return [float(v) for v in _map(np.array(CORNERS), _sheet_px())]


def _seen(spot: np.ndarray) -> list[float]:
    """A point of the body's frame [mm] in the photo [px]."""
    a = _map(_sheet_px(), np.array(CORNERS))
    x, y = (LEFT_MM + float(spot[0])) * PX, (MIDDLE_MM - float(spot[1])) * PX
    scale = a[6] * x + a[7] * y + 1.0
    return [
        round(float((a[0] * x + a[1] * y + a[2]) / scale), 1),
        round(float((a[3] * x + a[4] * y + a[5]) / scale), 1),
    ]
