"""Kinds of item that are kept count of: in which unit, and whether work uses it up. A kind more is one row
here, and its word in `words/stock.py`.
"""

from collections.abc import Mapping
from dataclasses import dataclass

PIECES, GRAMS, MILLILITRES, MILLIMETRES = "piece", "g", "ml", "mm"
QUANTITIES: Mapping[str, str] = {
    PIECES: "number",
    GRAMS: "mass",
    MILLILITRES: "volume",
    MILLIMETRES: "length",
}
"""What a unit is a unit of; pieces are counted."""
FINEST = 1e-6
"""Less than this of anything is nothing."""


@dataclass(frozen=True)
class ItemKind:
    """A kind of item.

    Args:
        key: its name in the shop.
        unit: what it is counted in where nobody said otherwise.
        is_used_up: whether work takes of it; a drill stays.
    """

    key: str
    unit: str = PIECES
    is_used_up: bool = True


_ROWS = (
    ItemKind("part"),
    ItemKind("metal", GRAMS),
    ItemKind("wood", MILLIMETRES),
    ItemKind("dowel", MILLIMETRES),
    ItemKind("compound", GRAMS),
    ItemKind("paint", MILLILITRES),
    ItemKind("hair", GRAMS),
    ItemKind("box"),
    ItemKind("sheet"),
    ItemKind("brick", is_used_up=False),
    ItemKind("drill", is_used_up=False),
    ItemKind("stencil", is_used_up=False),
    ItemKind("tool", is_used_up=False),
    ItemKind("other"),
)
ITEM_KINDS: Mapping[str, ItemKind] = {kind.key: kind for kind in _ROWS}
"""By key, in the order a list shows them."""
