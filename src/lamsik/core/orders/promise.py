"""When an order can be ready: the work already promised, its own hands within working hours, and the coats
and cures that no hands shorten.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from lamsik.core.errors import Refused, rule
from lamsik.core.route.steps import Step
from lamsik.core.route.workdays import MOST_DAYS, Workdays

MIN_IN_H = 60.0


@dataclass(frozen=True)
class Ready:
    """When all of it is ready, and what that is made of.

    Args:
        at: the moment.
        before_min: hands on what was promised before [min].
        hands_min: hands on this [min].
        waits_h: coats and cures of the line that waits longest [h].
    """

    at: datetime
    before_min: float
    hands_min: float
    waits_h: float


def ready(
    lines: Sequence[tuple[Sequence[Step], int]], before_min: float, days: Workdays, start: datetime
) -> Ready:
    """When the last piece of the lines is ready.

    Args:
        lines: the steps of a line's route and how many pieces go along it, together.
        before_min: hands on what was promised before; it comes first [min].
        days: when hands work.
        start: from when on.

    Notes: each line's pieces are done together, step by step; hands work on other lines while one waits.
        So it is ready when the line that takes longest by itself is, and not before all hands are done.
    """
    begun = worked(days, start, before_min)
    hands = sum(_hands_min(step, count) for route, count in lines for step in route)
    ends = [_along(route, count, days, begun) for route, count in lines]
    waits = [sum(step.wait_h for step in route) for route, _ in lines]
    last = max([worked(days, begun, hands), *ends])
    return Ready(last, before_min, hands, max(waits, default=0.0))


def _hands_min(step: Step, count: int) -> float:
    return step.setup_min + step.each_min * count if count else 0.0


def _along(route: Sequence[Step], count: int, days: Workdays, at: datetime) -> datetime:
    for step in route:
        at = worked(days, at, _hands_min(step, count)) + timedelta(hours=step.wait_h)
    return at


def worked(days: Workdays, at: datetime, minutes: float) -> datetime:
    """The moment at which so much work that begins at `at` is done, within the shop's hours.

    Raises:
        Refused: it takes over two years.
    """
    left = timedelta(minutes=minutes)
    if left <= timedelta(0):
        return at
    if days.after_hours:
        return at + left
    day = at.date()
    for _ in range(MOST_DAYS):
        if days.is_open(day):
            opens, closes = (datetime.combine(day, moment, at.tzinfo) for moment in (days.begins, days.ends))
            begins = max(opens, at)
            if begins < closes:
                if left <= closes - begins:
                    return begins + left
                left -= closes - begins
        day += timedelta(days=1)
    raise Refused("hours", minutes / MIN_IN_H, rule("too-much-promised"))
