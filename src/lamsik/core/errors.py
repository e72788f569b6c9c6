"""The one way the core refuses what it was given."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import TypeVar

from lamsik.core.findings import Finding


@dataclass(frozen=True)
class Within:
    """A number from `low` to `high` in this unit is allowed."""

    low: float
    high: float
    unit: str = ""


@dataclass(frozen=True)
class Named:
    """One of these names is allowed; `besides` is what goes without a name, such as `air`."""

    names: tuple[str, ...]
    besides: str = ""


class Rule(Finding):
    """What is allowed by the name of its rule, with the values that its sentence holds; `words` says it."""


Allowed = str | Within | Named | Finding


def rule(name: str, **values: object) -> Rule:
    """The rule of this name with its values."""
    return Rule(name, tuple(values.items()))


def named(known: Iterable[str], besides: str = "") -> Named:
    """One of these is allowed."""
    return Named(tuple(known), besides)


class Refused(ValueError):
    """Input that cannot be used: names the field, what was given and what is allowed.

    The parts are kept apart so that `words` can say them beside a field or in a line of their own, in the
    shop's unit.
    """

    def __init__(self, field: str, given: object, allowed: Allowed) -> None:
        self.field = field
        self.given = given
        self.allowed = allowed
        super().__init__(field, given, allowed)

    def __str__(self) -> str:
        """In one line, for a script; put together only when it is asked for: searches are refused by the
        thousand.
        """
        return f"{self.field}: {self.given!r}; {self.allowed}"


def require(condition: bool, field: str, given: object, allowed: Allowed) -> None:
    """Raise `Refused` unless the condition holds."""
    if not condition:
        raise Refused(field, given, allowed)


def finite_between(field: str, value: object, low: float, high: float, unit: str = "") -> float:
    """The value as a float if it is a finite number within [low, high].

    Raises:
        Refused: not a number (booleans and text included), not finite, or out of range.
    """
    allowed = Within(low, high, unit)
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise Refused(field, value, allowed)
    try:
        number = float(value)
    except OverflowError:  # a whole number of hundreds of digits
        raise Refused(field, None, allowed) from None
    if not low <= number <= high:  # also refuses nan
        raise Refused(field, value, allowed)
    return number


T = TypeVar("T")


def one_of(field: str, name: str, known: Mapping[str, T]) -> T:
    """What is known under a name.

    Raises:
        Refused: nothing is; what is known is said.
    """
    if name not in known:
        raise Refused(field, name[:60], named(known))
    return known[name]
