"""What is short: what is agreed to be made takes more than there is."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

from lamsik.core.stock.kinds import FINEST


@dataclass(frozen=True)
class Claim:
    """What a line still takes of an item: the line, and how much of it."""

    line: int
    amount: float


@dataclass(frozen=True)
class StockStand:
    """How an item stands.

    Args:
        held: what there is by the books.
        is_known: whether it was ever counted or bought; else nobody knows.
        claims: what lines take of it, those that are due first in front.
        minimum: how much there should be.
    """

    held: float
    is_known: bool
    claims: tuple[Claim, ...] = ()
    minimum: float = 0.0

    @cached_property
    def reserved(self) -> float:
        """What is promised to lines."""
        return sum(one.amount for one in self.claims)

    @property
    def free(self) -> float:
        """What nobody waits for; never below nothing."""
        return max(self.held - self.reserved, 0.0)

    @property
    def lacks(self) -> float:
        """What is missing for what is promised."""
        over = self.reserved - self.held
        return over if over > FINEST else 0.0

    @property
    def to_buy(self) -> float:
        """What is missing for what is promised, and for what there should be after that."""
        wanted = self.reserved + self.minimum - self.held
        return wanted if wanted > FINEST else 0.0

    @cached_property
    def stops(self) -> tuple[int, ...]:
        """The lines that there is not enough for: what there is goes to those in front."""
        left, stopped = self.held, dict[int, None]()
        for one in self.claims:
            left -= one.amount
            if left < -FINEST:
                stopped[one.line] = None
        return tuple(stopped)


def packs(amount: float, pack: float) -> int:
    """How many packs hold an amount; of what is sold loose none."""
    return -int(-(amount - FINEST) // pack) if pack > 0 and amount > FINEST else 0


def would_do(lacks: float, others: Mapping[int, StockStand]) -> Sequence[int]:
    """Which of the stand-ins have enough that nobody waits for, the fullest first."""
    enough = [key for key, stand in others.items() if stand.free >= lacks - FINEST]
    return sorted(enough, key=lambda key: (-others[key].free, key))
