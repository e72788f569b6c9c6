"""Letters as a hand writes them with a fine brush: strokes of one width, small letters as small capitals."""

from functools import lru_cache
from unicodedata import combining, normalize

import numpy as np

from lamsik.core.shapes.curves import Array

TALL, SPACE = 6.0, 1.7
"""Height of a capital in its grid, and how far letters stand apart in it."""
BLANK = 2.4
SMALL = 0.78
"""A small letter's height of a capital's."""
STROKE = 0.13
"""How wide a stroke is, of a capital's height."""
BOX_WIDE, BOX_INK = 0.62, 0.36
"""Of writing that there are no strokes for: a sign's width of its height, and what of its box is ink."""
SAMPLES = 48
"""Points to a capital's height when its ink is measured."""

_STROKES = {
    "A": "002640 1333",
    "B": "000636454433033342413000",
    "C": "4536160501103041",
    "D": "00062644422000",
    "E": "46060040 0333",
    "F": "460600 0333",
    "G": "45361605011030414323",
    "H": "0006 4046 0343",
    "I": "0006",
    "J": "3631201001",
    "K": "0006 460340",
    "L": "060040",
    "M": "0006234640",
    "N": "00064046",
    "O": "163645413010010516",
    "P": "00063645443303",
    "Q": "163645413010010516 2240",
    "R": "00063645443303 2340",
    "S": "453616050413334241301001",
    "T": "0646 2620",
    "U": "060110304146",
    "V": "062046",
    "W": "0610233046",
    "X": "0046 0640",
    "Y": "062346 2320",
    "Z": "06460040",
    "0": "162635312010010516",
    "1": "051610",
    "2": "05163645440040",
    "3": "0516364544334241301001 1333",
    "4": "30360242",
    "5": "460604344341301001",
    "6": "453616050110304142331302",
    "7": "064610",
    "8": "13040516364544331302011030414233",
    "9": "011030414536160504133344",
    ".": "0000",
    ",": "0100",
    ":": "0101 0404",
    "-": "0333",
    "/": "0046",
    "+": "0343 2125",
    "#": "1016 3036 0242 0444",
    "&": "4004051626353401102042",
    "'": "0605",
    "(": "16040210",
    ")": "06141200",
    "!": "0602 0000",
    "?": "051636454423 2121",
    "*": "0145 0541",
    "=": "0242 0444",
}
"""Of a letter in its grid of 4 × 6: strokes apart by blanks, points as pairs of digits."""
_ABOVE = {"\u0308": "1717 3737", "\u0301": "2738", "\u0300": "1827", "\u030a": "2727", "\u0302": "172837"}
"""What stands over a letter."""
_WHOLE = {"Æ": "AE", "Œ": "OE", "Ø": "O", "–": "-", "—": "-", "’": "'", "№": "NO."}


def _points(text: str) -> list[Array]:
    return [
        np.array([(int(row[n]), int(row[n + 1])) for n in range(0, len(row), 2)], dtype=float)
        for row in text.split()
    ]


def _signs(words: str) -> list[tuple[str, float]]:
    """What is written, letter by letter with its size; what stands over one comes after it."""
    signs = []
    for sign in words:
        large = sign.upper()
        size = SMALL if sign != large else 1.0
        signs += [(one, size) for one in normalize("NFD", "".join(_WHOLE.get(one, one) for one in large))]
    return signs


def can_write(words: str) -> bool:
    """Whether there are strokes for all of it."""
    return all(one.isspace() or one in _STROKES or combining(one) for one, _ in _signs(words))


@lru_cache(maxsize=256)
def strokes(words: str) -> tuple[Array, ...]:
    """The strokes of a line of words about its middle, (n, 2) each, in heights of a capital; y is up."""
    rows: list[Array] = []
    at, before = 0.0, 0.0
    for sign, size in _signs(words):
        if combining(sign):
            rows += [one * size + (before, 0.0) for one in _points(_ABOVE.get(sign, ""))]
        elif sign in _STROKES:
            mine = _points(_STROKES[sign])
            rows += [one * size + (at, 0.0) for one in mine]
            before, at = at, at + size * max(float(one[:, 0].max()) for one in mine) + SPACE
        else:
            at += BLANK
    middle = np.array([max(at - SPACE, 0.0) / 2, TALL / 2])
    return tuple((one - middle) / TALL for one in rows)


def width(words: str) -> float:
    """How wide a line of words is, in heights of a capital."""
    if not can_write(words):
        return BOX_WIDE * len(words)
    reach = [float(np.abs(one[:, 0]).max()) for one in strokes(words)]
    return 2.0 * max(reach, default=0.0) + STROKE


def distance(words: str, x: Array, y: Array) -> Array:
    """How far places are from the ink of a line of words, negative in it, or from the box of what there are
    no strokes for; in heights of a capital.
    """
    if not can_write(words):
        return np.asarray(np.maximum(np.abs(x) - width(words) / 2, np.abs(y) - 0.5))
    best = np.full(np.broadcast(x, y).shape, np.inf)
    for row in strokes(words):
        for (ax, ay), (bx, by) in zip(row, row[1:], strict=False):
            dx, dy = bx - ax, by - ay
            along = np.clip(((x - ax) * dx + (y - ay) * dy) / max(dx * dx + dy * dy, 1e-15), 0.0, 1.0)
            best = np.minimum(best, (x - ax - along * dx) ** 2 + (y - ay - along * dy) ** 2)
    return np.asarray(np.sqrt(best) - STROKE / 2)


def ink_share(words: str) -> float:
    """What of all that `distance` calls ink is ink."""
    return 1.0 if can_write(words) else BOX_INK


@lru_cache(maxsize=256)
def area(words: str) -> float:
    """The area of what `distance` calls ink, in squares of a capital's height."""
    x, y = (np.arange(-reach, reach, 1.0 / SAMPLES) for reach in (width(words) / 2, 1.0))
    off = distance(words, x[:, None], y[None, :])
    return float(np.clip(0.5 - off * SAMPLES, 0.0, 1.0).sum()) / SAMPLES**2
