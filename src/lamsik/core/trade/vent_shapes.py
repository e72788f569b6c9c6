"""Shapes of vent: what each looks like across. A shape more is one row here, and its word in
`words/moulds.py`: halves to print, volumes, drawings and the form read it.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from math import cos, pi, sin

ROUND, SLIT = "round", "slit"


@dataclass(frozen=True)
class VentShape:
    """A shape of vent.

    Args:
        key: its name in documents.
        area_share: the area of its section, of the square of its width.
        outline: its section for a width of 1, centred; the width lies along the second axis, in the parting.
    """

    key: str
    area_share: float
    outline: tuple[tuple[float, float], ...]


_ROWS = (
    VentShape(
        ROUND,
        pi / 4,
        tuple((0.5 * cos(2 * pi * n / 24), 0.5 * sin(2 * pi * n / 24)) for n in range(24)),
    ),
    VentShape(
        SLIT,
        1 / 3,
        ((-1 / 6, -0.5), (1 / 6, -0.5), (1 / 6, 0.5), (-1 / 6, 0.5)),
    ),
)
VENT_SHAPES: Mapping[str, VentShape] = {row.key: row for row in _ROWS}
"""By key."""
