"""Where a shape comes from, and whether what is made from it may be sold: it travels with everything made
of it.
"""

from dataclasses import dataclass
from typing import Annotated

from annotated_types import MaxLen

from lamsik.core.errors import require, rule
from lamsik.core.limits import OneOf, held

OWN, LICENSED, DESCRIBED, NOT_FOR_SALE = "own", "licensed", "described", "not_for_sale"
SAYS = {
    OWN: "own shape",
    LICENSED: "licensed",
    DESCRIBED: "as described",
    NOT_FOR_SALE: "not for sale",
}
MOST_NOTE = 300


@dataclass(frozen=True)
class Source:
    """Own, licensed, as described or not for sale, with a note: whose, until when, on what terms."""

    kind: Annotated[str, OneOf(tuple(SAYS))] = OWN
    note: Annotated[str, MaxLen(300)] = ""

    def __post_init__(self) -> None:
        held(self, "source.")
        require(
            len(self.note) <= MOST_NOTE,
            "source.note",
            f"{len(self.note)} characters",
            rule("sources-150", most_note=MOST_NOTE),
        )

    @property
    def may_sell(self) -> bool:
        """Whether lines may be sold from it."""
        return self.kind != NOT_FOR_SALE

    def describe(self) -> str:
        """`licensed: drawn for the club, 2027` or `own shape`."""
        return f"{SAYS[self.kind]}: {self.note}" if self.note else SAYS[self.kind]
