"""A year in figures: what was sold by month, what the hour earned, summed from single sales."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import date
from fractions import Fraction
from math import fsum


@dataclass(frozen=True)
class Sale:
    """A line that went out, or some alike that went out in one month.

    Args:
        on: the day.
        order, body, scheme, kind: what it was of, by name.
        pieces: how many.
        minor: what it sold for, all of it, in minor units.
        left: what of that was left for the hours, in minor units.
        hours: hands on all of it [h].
        lines: how many lines it is of.
    """

    on: date
    order: str
    body: str
    scheme: str
    kind: str
    pieces: int
    minor: int
    left: Fraction
    hours: float
    lines: int = 1


@dataclass(frozen=True)
class Earned:
    """What sales of one sort came to: pieces, sum, what the hour earned (None where no hands were on it)."""

    name: str
    pieces: int
    minor: int
    hourly: Fraction | None


def by(sales: Sequence[Sale], sort: Callable[[Sale], str]) -> list[Earned]:
    """Sales of each sort, the one that earned most first."""
    sorts: dict[str, list[Sale]] = {}
    for one in sales:
        sorts.setdefault(sort(one), []).append(one)
    rows = [_earned(name, of_sort) for name, of_sort in sorts.items()]
    return sorted(rows, key=lambda row: (-row.minor, row.name))


def _earned(name: str, sales: Sequence[Sale]) -> Earned:
    hours = Fraction(fsum(one.hours for one in sales)).limit_denominator(10**6)
    left = _total([one.left for one in sales])
    return Earned(
        name,
        sum(one.pieces for one in sales),
        sum(one.minor for one in sales),
        left / hours if hours else None,
    )


def _total(parts: Sequence[Fraction]) -> Fraction:
    """Their sum, to the last digit: first of those with the same denominator, which are most."""
    of: dict[int, int] = {}
    for one in parts:
        of[one.denominator] = of.get(one.denominator, 0) + one.numerator
    return sum((Fraction(number, below) for below, number in of.items()), Fraction(0))


def by_month(sales: Sequence[Sale]) -> tuple[int, ...]:
    """What was sold in each of the twelve months, in minor units."""
    return tuple(sum(one.minor for one in sales if one.on.month == month) for month in range(1, 13))
