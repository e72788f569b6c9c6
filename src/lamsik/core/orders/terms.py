"""What is taken off the sum of an order, and what is asked before work begins."""

from dataclasses import dataclass
from fractions import Fraction

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.money import read


@dataclass(frozen=True)
class Share:
    """A part of a sum: so many percent of it, or so many minor units, whichever was agreed."""

    percent: float | None = None
    minor: int | None = None

    def __post_init__(self) -> None:
        if self.percent is not None:
            finite_between("percent", self.percent, 0.0, 100.0, "%")
        require(self.percent is None or self.minor is None, "share", self.percent, rule("one-share"))
        require(self.minor is None or self.minor >= 0, "share", self.minor, rule("a-sum"))

    @property
    def is_any(self) -> bool:
        """Whether anything was agreed."""
        return self.percent is not None or self.minor is not None

    def of(self, total_minor: int) -> int:
        """How much it is of a sum, in whole minor units, halves to the even one; never more than the sum."""
        if self.minor is not None:
            return min(self.minor, total_minor)
        return round(total_minor * Fraction(self.percent or 0.0).limit_denominator(10**4) / 100)


NOTHING = Share()


def read_share(text: str, currency: str) -> Share:
    """A share as typed: `10 %` of the sum, or a sum as `12.50`; nothing where nothing is typed. Raises
    `Refused` where it is neither.
    """
    typed = text.strip()
    if not typed:
        return NOTHING
    if typed.endswith("%"):
        return Share(percent=float(read(typed[:-1], "EUR").minor) / 100.0)
    return Share(minor=read(typed.removesuffix(currency).strip(), currency).minor)


def less(lines_minor: int | None, discount: Share) -> int | None:
    """What lines cost with their discount taken off, in minor units; None where they have no sum yet."""
    return None if lines_minor is None else lines_minor - discount.of(lines_minor)


def deposit_open(deposit: Share, due_minor: int | None, paid_minor: int) -> int | None:
    """What of a deposit has not come yet, in minor units; None where none was asked, or there is no sum."""
    if not deposit.is_any or due_minor is None:
        return None
    return max(deposit.of(due_minor) - paid_minor, 0)
