"""How many castings by when: cavities alive, the mould's cycle, hands by day and cures by night; the day
each half can be poured.
"""

from dataclasses import dataclass
from datetime import datetime, timedelta
from math import ceil

from lamsik.core.errors import finite_between, require, rule
from lamsik.core.route.workdays import Workdays

MOST_SHOTS = 600
POUR, SHOT, DEMOULD = "pour", "shot", "demould"


@dataclass(frozen=True)
class Cycle:
    """One shot: hands before it cures and after [min], unattended cure [h], good castings expected of every
    alive cavity.

    `worth` is how many whole cavities they count as: one that has to be trimmed yields less. None: all alike.
    """

    before_min: float
    cure_h: float
    after_min: float
    cavities: int
    yield_share: float = 0.95
    worth: float | None = None

    def __post_init__(self) -> None:
        finite_between("before_min", self.before_min, 0.5, 480.0, "min")
        finite_between("after_min", self.after_min, 0.0, 480.0, "min")
        finite_between("cure_h", self.cure_h, 0.0, 500.0, "h")
        finite_between("yield_share", self.yield_share, 0.05, 1.0)
        if self.worth is not None:
            finite_between("worth", self.worth, 0.0, float(self.cavities))
            require(
                self.worth > 0.05,
                "cavities",
                self.cavities,
                rule("those-left"),
            )
        require(self.cavities >= 1, "cavities", self.cavities, rule("cavity-alive"))

    @property
    def good(self) -> float:
        """Good castings of one shot."""
        return (self.cavities if self.worth is None else self.worth) * self.yield_share


@dataclass(frozen=True)
class Making:
    """Making the mould: hands for each half [min], cure of each half [h]."""

    halves: int
    hands_min: float
    cure_h: float


@dataclass(frozen=True)
class Event:
    """Something to do: what, to which shot or half (0: the purge, the whole mould), when hands begin and end,
    until when it then cures; castings that are good by then.
    """

    does: str
    number: int
    start: datetime
    end: datetime
    ready: datetime
    good: int


@dataclass(frozen=True)
class Plan:
    """Events in order; how many are good by the date, and when the wanted number is reached."""

    events: tuple[Event, ...]
    wanted: int
    by_date: int
    reached: datetime | None

    @property
    def shots(self) -> int:
        """Shots that count, the purge left out."""
        return sum(1 for event in self.events if event.does == SHOT and event.number)


def shots_needed(wanted: int, cycle: Cycle) -> int:
    """Shots for so many good castings."""
    return ceil(wanted / cycle.good - 1e-9)


def _made(events: list[Event], making: Making, start: datetime, days: Workdays) -> datetime:
    """The mould is poured, a half at a time: when the last has cured."""
    at = start
    for n in range(making.halves):
        half = n + 1 if making.halves > 1 else 0
        at = _hands(events, (POUR, half), at, making.hands_min, making.cure_h, days, 0)
    return at


def plan(
    wanted: int,
    by: datetime,
    start: datetime,
    cycle: Cycle,
    days: Workdays,
    making: Making | None = None,
    purge: bool = False,
) -> Plan:
    """The castings planned from `start`.

    Hands work within workdays; cures cross nights and days off. A half of a mould waits for the next working
    day once the other has cured, unless the shop works `after_hours`. The first shot of a new mould is a
    purge and does not count.
    """
    finite_between("wanted", wanted, 1, 5000, "castings")
    events: list[Event] = []
    at = _made(events, making, start, days) if making else start
    good, number, reached, by_date = 0.0, 0, None, 0
    need = shots_needed(wanted, cycle) + (1 if purge else 0)
    require(need <= MOST_SHOTS, "wanted", wanted, rule("shots-plan", need=need, most_shots=MOST_SHOTS))
    for n in range(need):
        first = purge and n == 0
        number += 0 if first else 1
        at = _hands(
            events,
            (SHOT, 0 if first else number),
            at,
            cycle.before_min,
            cycle.cure_h,
            days,
            0,
        )
        gained = 0.0 if first else cycle.good
        good += gained
        count = min(int(good + 1e-9), wanted) if n < need - 1 else wanted
        at = _hands(
            events,
            (DEMOULD, 0 if first else number),
            at,
            max(cycle.after_min, 0.1),
            0.0,
            days,
            count,
        )
        if at <= by:
            by_date = count
        if count >= wanted and reached is None:
            reached = at
    return Plan(tuple(events), wanted, by_date, reached)


def _hands(
    events: list[Event],
    what: tuple[str, int],
    at: datetime,
    minutes: float,
    cure_h: float,
    days: Workdays,
    good: int,
) -> datetime:
    """Put hands-on work at the next time it fits; gives back when it has cured."""
    start = days.begin(at, timedelta(minutes=minutes))
    end = start + timedelta(minutes=minutes)
    ready = end + timedelta(hours=cure_h)
    events.append(Event(*what, start, end, ready, good))
    return ready
