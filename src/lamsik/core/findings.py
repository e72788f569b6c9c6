"""What the core finds, by name and with its values; `words` makes the sentence."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Finding:
    """Something that is so: the name of its sentence, and the values that it holds, in stored units.

    A value may be a finding itself, or a row of them.
    """

    name: str
    values: tuple[tuple[str, object], ...] = ()

    def __str__(self) -> str:
        """For a script."""
        held = ", ".join(f"{name} {value}" for name, value in self.values)
        return f"{self.name.replace('-', ' ')}{f' ({held})' if held else ''}"


@dataclass(frozen=True)
class Grams:
    """A mass [g] with the decimals that its scale shows."""

    value: float
    digits: int


@dataclass(frozen=True)
class Known:
    """A figure and its one-sigma uncertainty, in the unit it is stored in: it is said as sure as it is."""

    value: float
    sd: float


def finding(name: str, /, **values: object) -> Finding:
    """The finding of this name with its values."""
    return Finding(name, tuple(values.items()))
