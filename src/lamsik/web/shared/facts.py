"""A number beside a drawing, with how it came about."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Fact:
    """A number beside the drawing: what it is, its value with unit, how it came about."""

    key: str
    label: str
    value: str
    how: str
    estimate: bool = False


def signed(value: float, digits: int = 2) -> str:
    """A number with its sign, a true minus, and no sign on zero."""
    text = f"{value:+.{digits}f}"
    return text.removeprefix("-").removeprefix("+") if float(text) == 0 else text.replace("-", "−")
