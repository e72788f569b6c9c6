"""What is short: what is agreed to be made takes more than there is."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple, Self

import numpy as np
from numpy.typing import NDArray

from lamsik.core.stock.kinds import FINEST


class Claim(NamedTuple):
    """What a line still takes of an item: the line, and how much of it."""

    line: int
    amount: float


@dataclass(frozen=True, eq=False)
class Claims:
    """What lines still take of an item, those that are due first in front.

    Args:
        lines: ids of lines, (n,), each once.
        amounts: how much each takes, (n,); nothing where it takes none.
    """

    lines: NDArray[np.int64]
    amounts: NDArray[np.float64]

    @classmethod
    def of(cls, *claims: tuple[int, float]) -> Self:
        """Of lines and amounts; more of the same line is put to what it takes already."""
        of: dict[int, float] = {}
        for line, amount in claims:
            of[line] = of.get(line, 0.0) + amount
        return cls(np.array(list(of), int), np.array(list(of.values()), float))

    def __len__(self) -> int:
        return int(np.count_nonzero(self.amounts))

    @cached_property
    def total(self) -> float:
        """How much all of them take."""
        return float(self.amounts.sum())

    def first(self, many: int) -> list[Claim]:
        """So many of those that take something, due first."""
        at = np.flatnonzero(self.amounts)[:many]
        return [Claim(int(self.lines[i]), float(self.amounts[i])) for i in at]

    def beyond(self, held: float) -> tuple[int, ...]:
        """The lines that there is not enough for, of so much: it goes to those in front."""
        is_over = np.cumsum(self.amounts) > held + FINEST
        return tuple(self.lines[is_over & (self.amounts > 0)].tolist())


NO_CLAIMS = Claims(np.zeros(0, int), np.zeros(0))


@dataclass(frozen=True)
class StockStand:
    """How an item stands.

    Args:
        held: what there is by the books.
        is_known: whether it was ever counted or bought; else nobody knows.
        claims: what lines take of it.
        minimum: how much there should be.
    """

    held: float
    is_known: bool
    claims: Claims = NO_CLAIMS
    minimum: float = 0.0

    @property
    def reserved(self) -> float:
        """What is promised to lines."""
        return self.claims.total

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
        return self.claims.beyond(self.held)


def packs(amount: float, pack: float) -> int:
    """How many packs hold an amount; of what is sold loose none."""
    return -int(-(amount - FINEST) // pack) if pack > 0 and amount > FINEST else 0


def would_do(lacks: float, others: Mapping[int, StockStand]) -> Sequence[int]:
    """Which of the stand-ins have enough that nobody waits for, the fullest first."""
    enough = [key for key, stand in others.items() if stand.free >= lacks - FINEST]
    return sorted(enough, key=lambda key: (-others[key].free, key))
