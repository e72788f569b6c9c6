"""A number beside a drawing, with how it came about."""

from dataclasses import dataclass, field

from lamsik.words.handbook import meaning


@dataclass(frozen=True)
class Fact:
    """A number beside the drawing: what it is, its value with unit, how it came about."""

    key: str
    label: str
    value: str
    how: str
    estimate: bool = False
    means: str = field(init=False)
    """What the word of its label means."""

    def __post_init__(self) -> None:
        object.__setattr__(self, "means", meaning(self.label))


def signed(value: float, digits: int = 2) -> str:
    """A number with its sign, a true minus, and no sign on zero."""
    text = f"{value:+.{digits}f}"
    return text.removeprefix("-").removeprefix("+") if float(text) == 0 else text.replace("-", "−")
