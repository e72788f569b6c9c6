"""What a customer lends: never stock, its place is known, it goes back with everything it came with."""

from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.core.errors import finite_between, require, rule

KINDS = ("bait", "hooks", "rings", "eyes", "reference bait", "stencil", "other")
GENUINE = ("", "genuine", "in doubt", "not genuine")
"""What a check of it came to; empty where nobody looked."""
MOST_ROWS, MOST_COUNT = 40, 500


@dataclass(frozen=True)
class BagRow:
    """Hardware that was taken off and lies in the item's bag.

    Args:
        what: which it is.
        count: how many were taken off.
        back: how many are on it again.
        instead: what took the place of those that are not, as the customer was told.
    """

    what: str
    count: int
    back: int = 0
    instead: str = ""

    def __post_init__(self) -> None:
        require(bool(self.what.strip()), "what", self.what, rule("what-was-taken-off"))
        require(len(self.what) <= 120, "what", self.what[:40], rule("at-most-characters", most=120))
        require(len(self.instead) <= 200, "instead", self.instead[:40], rule("at-most-characters", most=200))
        finite_between("count", self.count, 1, MOST_COUNT)
        finite_between("back", self.back, 0, self.count)

    @property
    def is_matched(self) -> bool:
        """Whether all is on it again, or it was said what is not."""
        return self.back == self.count or bool(self.instead.strip())


def short(bag: Sequence[BagRow]) -> tuple[BagRow, ...]:
    """What of a bag is not on the item again, and of which nothing was said."""
    return tuple(row for row in bag if not row.is_matched)


def may_go_back(bag: Sequence[BagRow]) -> None:
    """Raises `Refused` while something that was taken off is neither refitted nor said to be short."""
    missing = short(bag)
    require(not missing, "bag", missing[0].what if missing else "", rule("refit-first", count=len(missing)))


def checked(rows: Sequence[BagRow]) -> tuple[BagRow, ...]:
    """A bag that can be. Raises `Refused` for too many rows, or one thing twice."""
    require(len(rows) <= MOST_ROWS, "bag", len(rows), rule("just-rows", most=MOST_ROWS))
    names = [row.what.strip().casefold() for row in rows]
    require(len(set(names)) == len(names), "bag", names[-1] if names else "", rule("once-in-a-bag"))
    return tuple(rows)
