"""Faults of castings, and how often each comes up per shot of a mould's version; `words.faults` says what
helps.
"""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

FAULTS = (
    "trapped air",
    "pinholes",
    "short",
    "flash",
    "shift",
    "tacky",
    "sink",
    "voids",
    "overflow",
    "rise",
    "face",
    "torn",
    "streaks",
    "burnt",
)
"""What a casting may be tagged with, by key."""


@dataclass(frozen=True)
class Tally:
    """How often a fault came up: castings with it, shots looked at, share of castings."""

    key: str
    count: int
    shots: int
    share: float


def tallies(shots: Sequence[tuple[int, Sequence[Sequence[str]]]]) -> dict[int, tuple[Tally, ...]]:
    """Faults by version of the mould, the most frequent first, those of the same count in the table's order.

    Args:
        shots: of each shot its version and, for every casting in it, the faults that were tagged.
    """
    by_cavity = {}
    for version in sorted({version for version, _ in shots}):
        mine = [castings for at, castings in shots if at == version]
        cast = sum(len(castings) for castings in mine)
        counts = Counter(fault for castings in mine for faults in castings for fault in set(faults))
        rows = sorted(counts.items(), key=lambda row: (-row[1], _place(row[0])))
        by_cavity[version] = tuple(
            Tally(key, count, len(mine), count / cast if cast else 0.0) for key, count in rows
        )
    return by_cavity


def _place(fault: str) -> tuple[int, str]:
    """Where a fault stands in the table; one of a shop's own after it, by name."""
    return (FAULTS.index(fault) if fault in FAULTS else len(FAULTS), fault)


@dataclass(frozen=True)
class MasterUse:
    """A master's demouldings: expected, done, in words; `last` warns that the next may be the last."""

    expected: int | None
    done: int

    @property
    def last(self) -> bool:
        """Whether it is expected to give one more at most."""
        return self.expected is not None and self.expected - self.done <= 1

    @property
    def says(self) -> str:
        """What to do about it."""
        if self.expected is None:
            return f"{self.done} demouldings; how many it stands is not noted"
        left = self.expected - self.done
        if left <= 0:
            return (
                f"{self.done} demouldings of {self.expected} it was expected to stand: cast a durable copy"
                " from the mould and keep that as the master"
            )
        if left == 1:
            return (
                "it is expected to come out once more, perhaps hurt: cast a durable copy first, of a good"
                " casting"
            )
        return f"good for {left} more demouldings of {self.expected}"
