"""Faults of castings, and how often each comes up per shot of a mould's version; `words.faults` says what
helps.
"""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

from lamsik.core.findings import Finding, finding

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
    def says(self) -> Finding:
        """What to do about it."""
        if self.expected is None:
            return finding("demouldings-not-limited", done=self.done)
        left = self.expected - self.done
        if left <= 0:
            return finding("master-worn-out", done=self.done, expected=self.expected)
        if left == 1:
            return finding("master-comes-out-once")
        return finding("demouldings-left", left=left, expected=self.expected)
