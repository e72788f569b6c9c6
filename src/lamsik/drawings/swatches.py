"""Paints and colours as swatches: a paint over the white and the black of a card, a wanted colour beside what
is foretold and what came of it.
"""

from collections.abc import Sequence

import numpy as np

from lamsik.core.errors import Refused
from lamsik.core.paints.colour import hex_of_lab, lab_seen
from lamsik.core.paints.film import over, over_surface, under_surface
from lamsik.core.paints.lab import Lab
from lamsik.core.paints.measured import FLUORESCENT, PaintCurves, curves_measured, measured, smoothest
from lamsik.core.paints.shelf import ShelfPaint
from lamsik.core.quantities import said
from lamsik.core.shapes.curves import Array
from lamsik.drawings.ink import INK, MUTED
from lamsik.drawings.svg import Node, framed, label, node

WIDE, HIGH = 300.0, 84.0
STEPS = (0.5, 1.0, 2.0, 3.0)
"""Films of a strip, of that of the swatch."""


def chip(paint: ShelfPaint) -> Node:
    """A paint as it looks over the white and over the black of its card."""
    rows = _card(WIDE, HIGH, paint)
    for n, look in enumerate((paint.swatch.white, paint.swatch.black)):
        rows.append(_rect(n * WIDE / 2, 20, WIDE / 2, HIGH - 40, look))
    return framed(rows, 0, 0, WIDE, HIGH, f"{paint.name} over white and over black")


def strip(paint: ShelfPaint) -> Node:
    """A paint in films of half, once, twice and three times its swatch, over white and over black; where no
    surface looks so, its two looks alone.
    """
    long, step = 560.0, 560.0 / len(STEPS)
    rows = _card(long, 150, paint, is_upright=True)
    try:
        known: PaintCurves | None = measured(paint.swatch, paint.kind == FLUORESCENT)
    except Refused:
        known = None
    for n, times in enumerate(STEPS):
        for down, look, ground in (
            (10, paint.swatch.white, paint.swatch.card_white),
            (85, paint.swatch.black, paint.swatch.card_black),
        ):
            shown = look.row if known is None or times == 1.0 else _in_film(known, ground, times, paint)
            rows.append(
                node("rect", x=n * step + 8, y=down, width=step - 16, height=55, fill=hex_of_lab(shown))
            )
        film = said(times * paint.swatch.film_um, "thickness", 0)
        rows.append(label(film, (n + 0.5) * step, 168, 13, fill=MUTED, text_anchor="middle"))
    return framed(rows, 0, 0, long, 178, f"{paint.name} in thin and thick films, over white and over black")


def _in_film(known: PaintCurves, ground: Lab, times: float, paint: ShelfPaint) -> Array:
    """Lab of so many times the swatch's film over a part of its card."""
    under = under_surface(smoothest(ground, "ground", paint.swatch.glossy))[:, None]
    film = over(curves_measured(known.k_um, known.s_um), np.array([times * paint.swatch.film_um]), under)[
        :, 0
    ]
    added = known.lit.added(np.array([times * paint.swatch.film_um]), under)[:, 0] if known.lit else 0.0
    return lab_seen(over_surface(film, paint.swatch.glossy) + added)


def _card(wide: float, high: float, paint: ShelfPaint, is_upright: bool = False) -> list[Node]:
    """The bare card: white and black side by side, or white over black."""
    half = (wide, high / 2) if is_upright else (wide / 2, high)
    second = (0.0, high / 2) if is_upright else (wide / 2, 0.0)
    return [
        _rect(0, 0, *half, paint.swatch.card_white),
        _rect(*second, *half, paint.swatch.card_black),
        node("rect", x=0, y=0, width=wide, height=high, fill="none", stroke=INK, stroke_width=1),
    ]


def _rect(x: float, y: float, wide: float, high: float, look: Lab) -> Node:
    return node("rect", x=x, y=y, width=wide, height=high, fill=hex_of_lab(look.row))


def beside(name: str, looks: Sequence[tuple[str, Array]]) -> Node:
    """Looks beside each other, edge to edge, each with its name under it."""
    step = 560.0 / max(len(looks), 1)
    rows: list[Node] = []
    for n, (says, look) in enumerate(looks):
        rows.append(node("rect", x=n * step, y=0, width=step, height=170, fill=hex_of_lab(look)))
        rows.append(label(says, (n + 0.5) * step, 192, 14, fill=MUTED, text_anchor="middle"))
    return framed(rows, 0, 0, 560, 204, f"{name}: {', '.join(says for says, _ in looks)}")
