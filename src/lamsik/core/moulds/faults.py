"""Faults of castings: likely causes, remedies; how often each comes up per shot of a mould's version."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass


@dataclass(frozen=True)
class Fault:
    """A fault: what it looks like, what makes it, what helps."""

    name: str
    causes: str
    remedies: str


FAULTS: dict[str, Fault] = {
    "trapped air": Fault(
        "hole at a high point",
        "air had no way out of a local high point",
        "vent there, or tilt the mould so that the funnel is its highest",
    ),
    "pinholes": Fault(
        "fine holes in the skin",
        "stirred in air, damp, poured from low down in a gush",
        "warm the parts, stir slowly, pour a thin stream from high; brush the face first",
    ),
    "short": Fault(
        "not filled to the end",
        "too little mixed, set off too soon, a neck too narrow",
        "mix more, cool the parts, widen the neck, thin part first with the mould open",
    ),
    "flash": Fault(
        "thick seam",
        "halves not closed evenly, no boards, over-filled",
        "side boards and even bands; clean the parting; fill less",
    ),
    "shift": Fault(
        "halves off each other",
        "keys worn or too shallow, mould set askew",
        "deeper keys, boards on two sides; cut a new half when they are worn",
    ),
    "tacky": Fault(
        "stays soft or sticky",
        "ratio off, not mixed to the bottom, cold, a release that does not agree",
        "weigh again, scrape the cup and stir in a second one, warm it; test the release",
    ),
    "sink": Fault(
        "sunken side", "shrinkage the funnel did not feed", "a larger funnel, cooler pour, more filler"
    ),
    "voids": Fault(
        "large holes inside a foam",
        "too little charge, cream time past when it was closed",
        "more charge, faster closing, warm mould",
    ),
    "overflow": Fault(
        "foam forced out", "too much charge, lid not held", "less charge; clamp the lid; vent holes"
    ),
    "rise": Fault(
        "filler floated up",
        "thin resin, slow set, mould left standing",
        "thicker mix, turn the mould while it sets, less filler",
    ),
    "face": Fault(
        "same flaw in every casting",
        "the mould's own face is hurt",
        "trim every casting there, or mark the cavity dead and cast on without it",
    ),
    "torn": Fault(
        "torn edge of the mould",
        "thin silicone at an undercut, demoulded too soon",
        "more edge; wait for the full cure; split the mould there",
    ),
    "streaks": Fault(
        "streaks of colour",
        "pigment not stirred in, layers too hot or too cold",
        "premix the pigment into one part; pour layers hot on hot or gelled, not between",
    ),
    "burnt": Fault(
        "yellowed, smells sharp",
        "plastisol too hot or heated too often",
        "cooler, shorter; throw reclaimed away after its third heating; air the room at once",
    ),
}
"""Faults by key."""


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
    return (list(FAULTS).index(fault) if fault in FAULTS else len(FAULTS), fault)


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
