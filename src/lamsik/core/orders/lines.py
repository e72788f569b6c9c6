"""The lines of an order: what is made, what is done to something of the customer's, what is sold as it is."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.core.errors import finite_between, require, rule

MADE, REPAINT, CLEAR_ONLY, DETAIL, STOCK, FLOATS, PARTS = (
    "made",
    "repaint",
    "clear",
    "detail",
    "stock",
    "floats",
    "parts",
)
MOST_PIECES, MOST_CLEARS, MOST_IN_SET = 500, 12, 60


@dataclass(frozen=True)
class LineKind:
    """What is true of every line of a kind.

    Args:
        of: the kind of document its pieces are made of; empty where none is made.
        is_theirs: whether it is done to something of the customer's: that draws no blank from stock.
        is_painted: whether a scheme goes on.
        is_coated: whether clear coats go on, as many as the line says.
        per_coat: whether the price is for one coat on one piece, not for a piece.
        in_sets: whether so many are sold together at one price.
    """

    key: str
    of: str = "body"
    is_theirs: bool = False
    is_painted: bool = False
    is_coated: bool = True
    per_coat: bool = False
    in_sets: bool = False


LINE_KINDS = {
    one.key: one
    for one in (
        LineKind(MADE, is_painted=True),
        LineKind(REPAINT, is_theirs=True, is_painted=True),
        LineKind(CLEAR_ONLY, is_theirs=True, per_coat=True),
        LineKind(DETAIL, is_theirs=True),
        LineKind(STOCK, of="", is_coated=False),
        LineKind(FLOATS, of="float", is_coated=False, in_sets=True),
        LineKind(PARTS, of="", is_coated=False),
    )
}


@dataclass(frozen=True)
class LineTerms:
    """What counts of a line.

    Args:
        kind: its key in `LINE_KINDS`.
        quantity: pieces; sets where the kind is sold in sets.
        per_set: how many are in a set.
        clears: its own number of clear coats; None as the scheme has them.
        rate_minor: the price of one unit of its kind (`units`), in minor units.
        lump_minor: the price of all of it where that was agreed instead.
    """

    kind: str = MADE
    quantity: int = 1
    per_set: int = 1
    clears: int | None = None
    rate_minor: int | None = None
    lump_minor: int | None = None

    def __post_init__(self) -> None:
        require(self.kind in LINE_KINDS, "kind", self.kind, rule("one-of", listed=", ".join(LINE_KINDS)))
        finite_between("quantity", self.quantity, 1, MOST_PIECES)
        finite_between("per_set", self.per_set, 1, MOST_IN_SET)
        if self.clears is not None:
            finite_between("clears", self.clears, 0, MOST_CLEARS)
        if self.of.per_coat:
            finite_between("clears", self.clears or 0, 1, MOST_CLEARS)
        require(self.kind != STOCK or self.quantity == 1, "quantity", self.quantity, rule("there-is-one"))
        require(
            self.rate_minor is None or self.lump_minor is None, "price", self.lump_minor, rule("one-price")
        )

    @property
    def of(self) -> LineKind:
        """What is true of every line of its kind."""
        return LINE_KINDS[self.kind]

    @property
    def wanted(self) -> int:
        """How many pieces it asks for."""
        return self.quantity * (self.per_set if self.of.in_sets else 1)

    @property
    def units(self) -> int:
        """How many times its rate is paid: coats on pieces, sets, or pieces."""
        return self.quantity * ((self.clears or 1) if self.of.per_coat else 1)

    @property
    def price_minor(self) -> int | None:
        """What all of it costs, in minor units; None where no price was agreed."""
        return self.lump_minor if self.rate_minor is None else self.rate_minor * self.units


def total_minor(lines: Sequence[LineTerms]) -> int | None:
    """What the lines cost together, in minor units; None where the price of one is not agreed, or there is
    none.
    """
    prices = [one.price_minor for one in lines]
    return None if None in prices or not prices else sum(one for one in prices if one is not None)
