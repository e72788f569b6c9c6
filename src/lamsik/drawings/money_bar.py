"""Where the money goes: a price as a bar, a piece for each share."""

from collections.abc import Mapping

from lamsik.drawings.ink import BRICK, LEAD, POUR, WATER, WOOD
from lamsik.drawings.svg import Node, node

WIDE, HIGH = 1000.0, 56.0
COLOURS = {
    "materials": POUR,
    "hours": WATER,
    "tools": LEAD,
    "packing": WOOD,
    "shipping": "#8A9A5B",
    "fees": "#B97A08",
    "tax": BRICK,
}
"""By share: the colour of its piece; the table beside it says the same in words."""


def money_bar(goes: Mapping[str, int], says: str) -> Node:
    """The bar of a price.

    Args:
        goes: by share, in minor units; what is less than nothing has no piece.
        says: what it shows, in words.
    """
    there = {share: minor for share, minor in goes.items() if minor > 0}
    total = sum(there.values()) or 1
    pieces, x = [], 0.0
    for share, minor in there.items():
        width = WIDE * minor / total
        pieces.append(node("rect", x=x, y=0, width=max(width - 2.0, 1.0), height=HIGH, fill=COLOURS[share]))
        x += width
    return node(
        "svg",
        node("title", says),
        *pieces,
        viewBox=f"0 0 {WIDE:g} {HIGH:g}",
        height=48,
        class_="w-100 d-block",
        role="img",
        preserveAspectRatio="none",
    )
