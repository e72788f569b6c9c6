"""The one way the core refuses what it was given."""

import re
from collections.abc import Mapping
from typing import TypeVar

MOST_SHOWN = 60
UNIT = re.compile(r"_(mm|um|g_cm3|g|ml|deg|c|h|min|cm_s|percent)$")
"""The unit at the end of a field's name, which is no part of what it is called."""


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


class Refused(ValueError):
    """Input that cannot be used: names the field, what was given and what is allowed.

    The parts are kept apart so that a form can put the message beside its field
    and a script can print it in one line.
    """

    def __init__(self, field: str, given: object, allowed: str) -> None:
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

    @property
    def beside(self) -> str:
        """What stands beside the field: what was given and what is allowed; where nothing was given only
        that.
        """
        allowed = f"{self.allowed[0].upper()}{self.allowed[1:]}." if self.allowed else ""
        return f"{self.shown} cannot be used: {self.allowed}." if self.shown else allowed

    @property
    def says(self) -> str:
        """The same where the field is not in sight: with its name."""
        name = UNIT.sub("", self.field).replace("_", " ").replace(".", " ")
        given = f"{self.shown}; " if self.shown else ""
        return f"{name[:1].upper()}{name[1:]}: {given}{self.allowed}." if name else self.beside


def require(condition: bool, field: str, given: object, allowed: str) -> None:
    """Raise `Refused` unless the condition holds."""
    if not condition:
        raise Refused(field, given, allowed)


def finite_between(field: str, value: object, low: float, high: float, unit: str = "") -> float:
    """The value as a float if it is a finite number within [low, high].

    Raises:
        Refused: not a number (booleans and text included), not finite, or out of range.
    """
    allowed = f"allowed is {low:g} to {high:g} {unit}".rstrip()
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
        raise Refused(field, name[:60], f"one of {', '.join(known) or 'none: there is none yet'}")
    return known[name]
