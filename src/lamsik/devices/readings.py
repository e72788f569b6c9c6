"""Lines from a scale as readings, and when a run of them is stable."""

import re
from collections import deque
from dataclasses import dataclass

from lamsik.core import units
from lamsik.core.errors import Refused

UNITS = {
    "g": "g",
    "gr": None,
    "kg": "kg",
    "mg": "mg",
    "oz": "oz",
    "lb": "lb",
    "gn": "grain",
    "grain": "grain",
    "ct": "ct",
}
"""Words scales send for their unit; `gr` is grams to some and grains to others, so it is refused."""

CARAT_G = 0.2
MOST_LINE = 80
_LINE = re.compile(
    r"^[^\d+−-]*?(?P<sign>[-+−])?\s*(?P<number>\d{1,6}(?:[.,]\d{1,5})?)\s*(?P<unit>[A-Za-z]{1,5})?\s*$"
)


def reading_g(line: str, unit: str = "") -> float:
    """A line such as `+  12.34 g` as grams.

    Args:
        line: what the scale sent, without its line end.
        unit: the unit it is set to, for scales that send none.

    Raises:
        Refused: no number in it, a unit that is none or is missing, or rubbish.
    """
    text = line.strip()
    match = _LINE.match(text) if len(text) <= MOST_LINE else None
    if match is None:
        raise Refused("line", text[:40], "a number with its unit is needed")
    word = (match["unit"] or unit).lower()
    if word not in UNITS or UNITS[word] is None:
        raise Refused(
            "unit", word or None, "set the scale to g, kg, mg, oz, lb, gn or ct, or say its unit in Stores"
        )
    value = float(match["number"].replace(",", ".")) * (-1.0 if match["sign"] in ("-", "−") else 1.0)
    name = UNITS[word]
    return value * CARAT_G if name == "ct" else units.convert(value, str(name), "g")


@dataclass
class Steady:
    """Tells when readings are stable: so many of the newest, over so long, within a band of each other."""

    band_g: float
    count: int = 5
    seconds: float = 0.6

    def __post_init__(self) -> None:
        self._kept: deque[tuple[float, float]] = deque(maxlen=60)

    def take(self, value_g: float, at_s: float) -> bool:
        """Take one more reading; whether it is stable now."""
        self._kept.append((at_s, value_g))
        run: list[tuple[float, float]] = []
        for row in reversed(self._kept):
            if max(abs(row[1] - v) for _, v in [*run, row]) > self.band_g + 1e-9:
                break
            run.append(row)
        return len(run) >= self.count and run[0][0] - run[-1][0] >= self.seconds

    def forget(self) -> None:
        """Begin anew, after a pause or a fault."""
        self._kept.clear()
