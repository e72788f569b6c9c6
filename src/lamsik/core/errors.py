"""The one way the core refuses what it was given."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import TypeVar

from lamsik.core.findings import Finding

MOST_SHOWN = 60


def brief(value: object) -> str:
    """A value from a file or a form as a person reads it, in one short line; empty for nothing.

    No bytes, no brackets and quotes of a program's own: of what is no text or number only what it is.
    """
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return f"{value:.6g}"
    if isinstance(value, bytes):
        value = value.decode("utf-8", "replace")
        if any(ord(sign) < 32 and sign not in "\r\n\t" or sign == "\ufffd" for sign in value):
            return "what is no text"
    if isinstance(value, list | tuple):
        plain = all(isinstance(one, str | int | float) for one in value)
        return brief(", ".join(map(brief, value[:12]))) if plain else f"{len(value)} of them"
    if not isinstance(value, str | int):
        return "what is of another kind"
    line = " ".join("".join(sign if sign.isprintable() else " " for sign in str(value)).split())
    return line if len(line) <= MOST_SHOWN else f"{line[: MOST_SHOWN - 1]}…"


@dataclass(frozen=True)
class Within:
    """A number from `low` to `high` in this unit is allowed."""

    low: float
    high: float
    unit: str = ""

    def __str__(self) -> str:
        """For a script."""
        return f"allowed is {self.low:g} to {self.high:g} {self.unit}".rstrip()


@dataclass(frozen=True)
class Named:
    """One of these names is allowed; `besides` is what goes without a name, such as `air`."""

    names: tuple[str, ...]
    besides: str = ""

    def __str__(self) -> str:
        """For a script."""
        first = f"{self.besides}, or " if self.besides else ""
        return f"{first}one of {', '.join(self.names) or 'none: there is none yet'}"


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
        return (
            f"{self.field}: got {self.shown}; {self.allowed}"
            if self.shown
            else f"{self.field}: {self.allowed}"
        )

    @property
    def shown(self) -> str:
        """What was given, as a person reads it; empty where nothing was."""
        return brief(self.given)


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
