"""Colours and pens of the drawings; the same tokens as static/css/tokens.css."""

from dataclasses import dataclass
from math import log

INK, MUTED, WATER, PALE, CARD = "#16283A", "#52616E", "#1F7A8C", "#DCEDEE", "#FFFFFF"
TIP, BRICK = "#D9481C", "#A8281E"
DEEP, EMBER = "#17606E", "#A93411"
WOOD, STEEL, LEAD, FILLER, PLATE = "#EAD9B8", "#8996A0", "#5B6670", "#E7B98A", "#BFDDE2"
POUR = "#B79A78"


@dataclass(frozen=True)
class Pen:
    """How thick a nominal one-pixel line is [mm of the drawing]; text and marks follow it."""

    mm: float

    @property
    def text(self) -> float:
        """Size of a small label [mm]."""
        return 12.5 * self.mm


PEN_STEP = 1.04
"""From one width of pen to the next: less than anyone sees."""


def pen_for(width_mm: float, pixels: float = 860.0) -> Pen:
    """The pen of a drawing this wide, shown at about `pixels`; it widens in steps, so that a drawing that
    moves a little keeps its strokes.
    """
    return Pen(PEN_STEP ** round(log(width_mm / pixels, PEN_STEP)))


PRINT = Pen(0.2)
