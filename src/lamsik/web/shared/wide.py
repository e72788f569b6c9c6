"""The Japanese face in slices: a page asks for those that its own texts need, by the characters
themselves.
"""

import json
from functools import lru_cache

from flask import Flask, Response, request, url_for

from lamsik.web.shared.static import FOLDER, for_ever

SLICES = "vendor/fonts/japanese"
MOST = 600
"""Different characters that one page may ask for; it asks again for more."""


def install(app: Flask) -> None:
    """The style sheet of a page's slices."""
    app.add_url_rule("/wide.css", endpoint="wide", view_func=_sheet)


@lru_cache(maxsize=1)
def ranges() -> dict[str, list[tuple[int, int]]]:
    """The code points of each slice: first and last of its spans."""
    by_font = json.loads((FOLDER / SLICES / "ranges.json").read_text(encoding="utf-8"))
    return {name: [_span(part) for part in text.split(",")] for name, text in by_font.items()}


def _span(part: str) -> tuple[int, int]:
    first, _, last = part.removeprefix("U+").partition("-")
    return int(first, 16), int(last or first, 16)


def slices_of(text: str) -> dict[str, list[int]]:
    """The slices that hold characters of a text, and which."""
    slices: dict[str, list[int]] = {}
    for code in sorted({ord(char) for char in text[:MOST]}):
        name = next(
            (name for name, spans in ranges().items() if any(first <= code <= last for first, last in spans)),
            None,
        )
        if name is not None:
            slices.setdefault(name, []).append(code)
    return slices


def _sheet() -> Response:
    rows = []
    for name, codes in slices_of(request.args.get("of", "")).items():
        source = url_for("static", filename=f"{SLICES}/{name}.woff2")
        span = ", ".join(f"U+{code:X}" for code in codes)
        rows.append(
            f'@font-face {{ font-family: "Fallback Japanese"; src: url("{source}") format("woff2");'
            f" font-display: swap; unicode-range: {span}; }}"
        )
    response = Response("\n".join(rows), mimetype="text/css")
    for_ever(response)
    return response
