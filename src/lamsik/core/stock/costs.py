"""What a piece costs, what it sells for, what the hour earns: exact in fractions of a minor unit, rounded
once.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property
from math import ceil, floor

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.quantities import said

MATERIALS, HOURS, TOOLS, PACKING = "materials", "hours", "tools", "packing"
SHIPPING, FEES, TAX = "shipping", "fees", "tax"
SHARES = (MATERIALS, HOURS, TOOLS, PACKING, SHIPPING, FEES, TAX)
"""Where the money goes, in the order a bar shows it."""
MOST_HOURS = 10_000.0


@dataclass(frozen=True)
class CostPart:
    """A part of what something costs: where the money goes, what it is, how much in minor units."""

    share: str
    name: str
    minor: Fraction


def material(name: str, amount: float, price_minor: int, of: float, loss: float = 0.0) -> CostPart:
    """What an amount costs out of a pack: a pack of n costs price ÷ n each.

    Args:
        name: what it is.
        amount: how much is taken, in the unit of `of`.
        price_minor: what `of` of it costs, in minor units.
        of: how much that is.
        loss: what is lost of it, of what is taken.

    Raises:
        Refused: a pack of nothing, an amount or a loss below nothing.
    """
    require(of > 0, "pack", of, rule("a-pack"))
    finite_between("amount", amount, 0.0, 1e9)
    finite_between("loss", loss, 0.0, 10.0)
    taken = Fraction(amount).limit_denominator(10**6) * (1 + Fraction(loss).limit_denominator(10**4))
    return CostPart(MATERIALS, name, taken * price_minor / Fraction(of).limit_denominator(10**6))


def shared(name: str, price_minor: int, uses: int) -> CostPart:
    """What one use of a tool or a mould costs: its price over what it is expected to do. Raises `Refused`
    for one that is used never.
    """
    require(uses >= 1, "uses", uses, rule("a-use"))
    return CostPart(TOOLS, name, Fraction(price_minor, uses))


@dataclass(frozen=True)
class Terms:
    """What is kept of a price: percent and fixed sum of who handles the payment, percent of tax on the net,
    a fixed duty on each piece. Sums in minor units.
    """

    fee_percent: float = 0.0
    fee_minor: int = 0
    tax_percent: float = 0.0
    duty_minor: int = 0

    def __post_init__(self) -> None:
        for name in ("fee_percent", "tax_percent"):
            finite_between(name, getattr(self, name), 0.0, 90.0, "%")
        for name in ("fee_minor", "duty_minor"):
            require(getattr(self, name) >= 0, name, getattr(self, name), rule("a-sum"))
        require(self.kept > 0, "fee_percent", self.fee_percent, rule("something-left"))

    @cached_property
    def kept(self) -> Fraction:
        """What is left of one minor unit of the price: `1 / (1 + tax) − fee`."""
        tax, fee = (
            Fraction(one).limit_denominator(10**4) / 100 for one in (self.tax_percent, self.fee_percent)
        )
        return 1 / (1 + tax) - fee

    def fees(self, price: Fraction) -> Fraction:
        """What handling the payment costs."""
        return Fraction(self.fee_percent).limit_denominator(10**4) / 100 * price + self.fee_minor

    def taxes(self, price: Fraction) -> Fraction:
        """What of a price is tax, and the duty."""
        tax = Fraction(self.tax_percent).limit_denominator(10**4) / 100
        return price - price / (1 + tax) + self.duty_minor


NO_TERMS = Terms()


@dataclass(frozen=True)
class Costing:
    """One piece: its parts but for the hours, how long hands are on it [h], what is kept of its price."""

    parts: tuple[CostPart, ...]
    hours: float
    terms: Terms = NO_TERMS

    def __post_init__(self) -> None:
        finite_between("hours", self.hours, 0.0, MOST_HOURS, "h")

    @cached_property
    def beside(self) -> Fraction:
        """What it costs beside the hands."""
        return sum((one.minor for one in self.parts), Fraction(0))

    @cached_property
    def _each(self) -> Fraction:
        return self.beside + self.terms.fee_minor + self.terms.duty_minor

    def left(self, sum_minor: int, count: int = 1) -> Fraction:
        """What is left for the hours of what `count` of it were sold for, in minor units.

        Notes: `sum · kept − count · (what it costs beside the hands + fixed fee + duty)`.
        """
        return self.terms.kept * sum_minor - self._each * count

    def hourly(self, price_minor: int) -> Fraction | None:
        """What the hour earns at a price, in minor units; None where no hands are on it."""
        hours = Fraction(self.hours).limit_denominator(10**6)
        return self.left(price_minor) / hours if hours else None

    def price(self, hourly_minor: int) -> int:
        """The least price at which the hour earns so much, in whole minor units: `hourly` the other way."""
        hours = Fraction(self.hours).limit_denominator(10**6)
        return ceil((hours * hourly_minor + self._each) / self.terms.kept)

    def goes(self, price_minor: int) -> dict[str, int]:
        """Where a price goes, in whole minor units that sum to it: what is left after all else is for the
        hours, less than nothing where it costs more than it sells for.
        """
        price = Fraction(price_minor)
        exact = {share: Fraction(0) for share in SHARES}
        for one in self.parts:
            exact[one.share] += one.minor
        exact[FEES] += self.terms.fees(price)
        exact[TAX] += self.terms.taxes(price)
        exact[HOURS] = price - sum(exact[share] for share in SHARES if share != HOURS)
        return dict(zip(SHARES, whole(list(exact.values())), strict=True))


def whole(parts: Sequence[Fraction]) -> list[int]:
    """Parts in whole minor units with the very sum of the parts, rounded: what is cut off goes to those that
    lost most (largest remainders).
    """
    floors = [floor(one) for one in parts]
    missing = round(sum(parts, Fraction(0))) - sum(floors)
    order = sorted(range(len(parts)), key=lambda n: (floors[n] - parts[n], n))
    for n in order[:missing]:
        floors[n] += 1
    return floors


@dataclass(frozen=True)
class ByLength:
    """What a family costs: a fixed part and one for each mm, in minor units."""

    fixed: Fraction
    per_mm: Fraction

    def at(self, length_mm: float) -> int:
        """What a size costs, in minor units; never below nothing."""
        return max(round(self.fixed + self.per_mm * Fraction(length_mm).limit_denominator(1000)), 0)


def by_length(one: tuple[float, int], other: tuple[float, int]) -> ByLength:
    """A fixed part and one by length from any two known sizes (length [mm], cost in minor units). Raises
    `Refused` for two of one length.
    """
    (a_mm, a), (b_mm, b) = one, other
    require(abs(a_mm - b_mm) > 1e-6, "length", said(a_mm, "length"), rule("two-lengths"))
    lengths = [Fraction(mm).limit_denominator(1000) for mm in (a_mm, b_mm)]
    per = Fraction(b - a) / (lengths[1] - lengths[0])
    return ByLength(a - per * lengths[0], per)


@dataclass(frozen=True)
class BreakEven:
    """When a tool has paid: after so many pieces, and the hours it frees on each [h]; `pieces` is None where
    it never does.
    """

    pieces: int | None
    saved_minor: Fraction
    freed_h: float

    def frees_h(self, pieces: float) -> float:
        """The hours it frees on so many pieces [h]."""
        return self.freed_h * pieces


def breaks_even(
    tool_minor: int, hand_h: float, tool_h: float, rate_minor: int, hand_minor: int = 0, with_minor: int = 0
) -> BreakEven:
    """Tool or hand: after how many pieces a mould, a jig or bought tooling has paid.

    Args:
        tool_minor: what the tool costs.
        hand_h, tool_h: hands on one piece without and with it [h].
        rate_minor: what an hour is worth.
        hand_minor, with_minor: what one piece takes in materials without and with it.

    Notes: `pieces = ⌈tool / ((hand − with) · rate + hand materials − its materials)⌉`.

    Raises:
        Refused: a time or a sum below nothing.
    """
    for name, hours in (("by hand", hand_h), ("with it", tool_h)):
        finite_between(name, hours, 0.0, MOST_HOURS, "h")
    require(tool_minor >= 0 and rate_minor >= 0, "sum", tool_minor, rule("a-sum"))
    freed = hand_h - tool_h
    saved = Fraction(freed).limit_denominator(10**6) * rate_minor + hand_minor - with_minor
    return BreakEven(ceil(tool_minor / saved) if saved > 0 else None, saved, freed)
