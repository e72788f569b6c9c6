"""The shop's working days and hours: hands work within them, cures do not care."""

from dataclasses import dataclass
from datetime import date, datetime, time, timedelta

from lamsik.core.errors import Refused, require, rule
from lamsik.core.quantities import said, time_of_day

NAMES = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")
MOST_DAYS = 800


@dataclass(frozen=True)
class Workdays:
    """Weekdays worked (0 Monday), from and to on each, days the shop is closed. Times are local.

    `after_hours`: work that is due goes on at once, at night and on days off too.
    """

    days: tuple[int, ...] = (0, 1, 2, 3, 4)
    begins: time = time(9, 0)
    ends: time = time(17, 0)
    closed: tuple[date, ...] = ()
    after_hours: bool = False

    def __post_init__(self) -> None:
        require(
            bool(self.days) and all(0 <= day <= 6 for day in self.days),
            "days",
            list(self.days),
            rule("least-day"),
        )
        require(
            self.begins < self.ends,
            "hours",
            f"{time_of_day(self.begins)} to {time_of_day(self.ends)}",
            rule("work-end"),
        )

    def is_open(self, day: date) -> bool:
        """Whether the shop works that day."""
        return day.weekday() in self.days and day not in self.closed

    def begin(self, at: datetime, length: timedelta) -> datetime:
        """When work of this length that is due at `at` is begun."""
        return at if self.after_hours else self.fits(at, length)

    def fits(self, at: datetime, length: timedelta) -> datetime:
        """The first time from `at` at which work of this length fits into one working day.

        Raises:
            Refused: work longer than a day's hours, or no day open for over two years.
        """
        hours = datetime.combine(at.date(), self.ends) - datetime.combine(at.date(), self.begins)
        require(
            length <= hours,
            "minutes",
            said(length.total_seconds() / 60, "minutes", 0),
            rule("working-day", value=hours.total_seconds() / 3600),
        )
        day = at.date()
        for _ in range(MOST_DAYS):
            if self.is_open(day):
                opens, closes = (
                    datetime.combine(day, moment, at.tzinfo) for moment in (self.begins, self.ends)
                )
                start = max(opens, at)
                if start + length <= closes:
                    return start
            day += timedelta(days=1)
        raise Refused(
            "closed",
            f"{len(self.closed)} days",
            rule("day-open"),
        )
