"""Drills that go by a number or a letter, as they are typed: `#30`, `No. 30`, `letter F`.

Reference: ANSI/ASME B94.11M, twist drills, diameters [in].
"""

import re

_NUMBERS = (
    ".2280 .2210 .2130 .2090 .2055 .2040 .2010 .1990 .1960 .1935 .1910 .1890 .1850 .1820 .1800"
    " .1770 .1730 .1695 .1660 .1610 .1590 .1570 .1540 .1520 .1495 .1470 .1440 .1405 .1360 .1285"
    " .1200 .1160 .1130 .1110 .1100 .1065 .1040 .1015 .0995 .0980 .0960 .0935 .0890 .0860 .0820"
    " .0810 .0785 .0760 .0730 .0700 .0670 .0635 .0595 .0550 .0520 .0465 .0430 .0420 .0410 .0400"
)
_LETTERS = (
    ".234 .238 .242 .246 .250 .257 .261 .266 .272 .277 .281 .290 .295 .302 .316"
    " .323 .332 .339 .348 .358 .368 .377 .386 .397 .404 .413"
)
SIZES_IN = {str(number): float(size) for number, size in enumerate(_NUMBERS.split(), start=1)} | {
    chr(ord("A") + at): float(size) for at, size in enumerate(_LETTERS.split())
}
"""Diameter [in] by what is stamped on the shank: 1 to 60, A to Z."""

_TYPED = re.compile(r"(?:#|no\.? ?|number )(\d{1,2})|letter ([a-z])", re.IGNORECASE)


def drill_mm(text: str) -> float | None:
    """The diameter [mm] of a drill typed by its number or letter; None where that is not what was typed, or
    there is no such drill.
    """
    named = _TYPED.fullmatch(text.strip())
    size = SIZES_IN.get((named[1] or named[2]).upper().lstrip("0")) if named else None
    return None if size is None else 25.4 * size
