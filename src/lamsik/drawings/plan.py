"""A plan over days: hands in working hours, cures across nights."""

from datetime import datetime, timedelta

from lamsik.core.castings.throughput import Plan
from lamsik.core.route.workdays import Workdays
from lamsik.drawings.ink import CARD, INK, MUTED, PALE, TIP, WATER
from lamsik.drawings.svg import Node, framed, label, node

MOST_DAYS = 21
DAY, ROW = 24.0, 26.0


def timeline(plan: Plan, days: Workdays) -> Node:
    """One row for each day, 0 to 24 h: working hours white, hands in orange, cures in blue; at most three
    weeks.
    """
    first = plan.events[0].start.replace(hour=0, minute=0, second=0, microsecond=0)
    last = max(event.ready for event in plan.events)
    count = min((last.date() - first.date()).days + 1, MOST_DAYS)
    rows: list[Node] = []
    for hour in (0, 6, 12, 18, 24):
        rows.append(label(f"{hour}", 90 + hour * DAY, -6, 11, fill=MUTED, text_anchor="middle"))
    for n in range(count):
        day, y = first + timedelta(days=n), n * ROW
        rows.append(node("rect", x=90, y=y, width=24 * DAY, height=ROW - 4, fill="#E9E4D6"))
        if days.is_open(day.date()):
            opens, closes = days.begins.hour + days.begins.minute / 60, days.ends.hour + days.ends.minute / 60
            rows.append(
                node("rect", x=90 + opens * DAY, y=y, width=(closes - opens) * DAY, height=ROW - 4, fill=CARD)
            )
        rows.append(
            label(
                f"{day:%a} {day.day} {day:%b}",
                82,
                y + 16,
                12,
                fill=INK if days.is_open(day.date()) else MUTED,
                text_anchor="end",
            )
        )
    for event in plan.events:
        rows += _bar(event.end, event.ready, first, count, PALE, WATER)
    for event in plan.events:
        rows += _bar(event.start, event.end, first, count, TIP, TIP)
    return framed(
        rows,
        0,
        -22,
        90 + 24 * DAY + 14,
        count * ROW + 26,
        "The plan, day by day: hands in orange, cures in blue",
    )


def _bar(start: datetime, end: datetime, first: datetime, count: int, fill: str, stroke: str) -> list[Node]:
    """A stretch of time as bars, cut at midnights."""
    rows = []
    for n in range(count):
        day = first + timedelta(days=n)
        a, b = max(start, day), min(end, day + timedelta(days=1))
        if a < b:
            x, wide = (a - day).total_seconds() / 3600 * DAY, max((b - a).total_seconds() / 3600 * DAY, 2.0)
            rows.append(
                node(
                    "rect",
                    x=90 + x,
                    y=n * ROW + 3,
                    width=wide,
                    height=ROW - 10,
                    fill=fill,
                    stroke=stroke,
                    stroke_width=1,
                )
            )
    return rows
