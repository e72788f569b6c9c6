"""HTML to PDF, imported when used: its system library may be missing."""

import unicodedata
from functools import lru_cache
from pathlib import Path
from threading import Lock
from typing import Any

STATIC = Path(__file__).parent.parent / "static"


class CannotPrint(Exception):
    """The PDF maker's system library is not here; the message says what to install."""


@lru_cache(maxsize=1)
def _signs() -> frozenset[int]:
    """What the fonts on paper can write, as code points."""
    from fontTools.ttLib import TTFont  # noqa: PLC0415 - slow to import, and needed for rare signs alone

    signs: set[int] = set()
    for path in sorted((STATIC / "vendor" / "fonts").glob("*.woff2")):
        with TTFont(path, lazy=True) as font:
            signs |= set(font.getBestCmap())
    return frozenset(signs)


def spelled(text: str) -> str:
    """The text with the signs that no font of ours can write, such as emoji, in words: "(fish)" and no
    empty box.
    """
    if text.isascii() or not any(ord(sign) > LATIN and ord(sign) not in _signs() for sign in set(text)):
        return text
    return "".join(sign if ord(sign) <= LATIN or ord(sign) in _signs() else _word(sign) for sign in text)


def _word(sign: str) -> str:
    """A sign in words: as it is said in a sentence, else its name in brackets; nothing for what only joins
    or colours others.
    """
    if sign in SAID:
        return SAID[sign]
    if unicodedata.category(sign) in ("Cf", "Mn", "Sk", "Cc"):
        return ""
    name = unicodedata.name(sign, "")
    return f"({name.lower()})" if name else "(sign)"


LATIN = 0x24F
SAID = {
    "→": "to",
    "≈": "about",
    "√": "root ",
    "≤": "at most",
    "≥": "at least",
    "\u202f": "\u00a0",
    "✓": "×",
    "∞": "without end",
}


_ONE_AT_A_TIME = Lock()
"""The fonts that pages are set with are shared, and made for one that sets at a time."""


@lru_cache(maxsize=1)
def _fonts() -> Any:
    """The fonts unpacked so far: each is unpacked once, not for every page anew."""
    from weasyprint.text.fonts import FontConfiguration  # noqa: PLC0415 - as below

    return FontConfiguration()


def pdf(html: str) -> bytes:
    """The page as PDF with the app's own fonts and pictures that drawings carry; nothing is fetched from
    anywhere else.
    """
    try:
        from weasyprint import HTML, URLFetcher  # noqa: PLC0415 - needs Pango, which may be missing
    except OSError as error:
        raise CannotPrint(
            "PDF needs the Pango library. On Debian: sudo apt-get install libpango-1.0-0 libpangoft2-1.0-0"
            " libharfbuzz-subset0"
        ) from error
    page = HTML(
        string=spelled(html),
        base_url=f"{STATIC.as_uri()}/",
        url_fetcher=URLFetcher(allowed_protocols=("file", "data")),
    )
    with _ONE_AT_A_TIME:
        if not Path(_fonts()._folder or STATIC).exists():  # a machine that is on for weeks clears its /tmp
            _fonts.cache_clear()
        return bytes(page.write_pdf(font_config=_fonts()))
