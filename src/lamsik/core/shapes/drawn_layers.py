"""What a drawing for a machine holds, layer by layer."""

from dataclasses import dataclass

from lamsik.core.shapes.curves import Array


@dataclass(frozen=True, eq=False)
class DrawnLayer:
    """What goes on one layer: closed outlines (n, 2) [mm], circles (x, y, diameter), open lines, words (x,
    y, text).
    """

    name: str
    outlines: tuple[Array, ...] = ()
    circles: tuple[tuple[float, float, float], ...] = ()
    lines: tuple[Array, ...] = ()
    words: tuple[tuple[float, float, str], ...] = ()
