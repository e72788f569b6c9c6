"""Days that something is due as a calendar (iCalendar, RFC 5545)."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, date, datetime

from icalendar import Calendar, Event


@dataclass(frozen=True)
class DueDay:
    """Something that is due: a name of its own, the day, what it is, and when it was set (UTC)."""

    uid: str
    on: date
    says: str
    at: datetime


def calendar(shop: str, days: Iterable[DueDay]) -> bytes:
    """A calendar of whole days, one for each thing that is due."""
    whole = Calendar()
    whole.add("prodid", "-//Lamsik//due//EN")
    whole.add("version", "2.0")
    whole.add("x-wr-calname", shop)
    for one in days:
        event = Event()
        event.add("uid", one.uid)
        event.add("dtstamp", one.at.replace(tzinfo=UTC))
        event.add("dtstart", one.on)
        event.add("summary", one.says)
        whole.add_component(event)
    return bytes(whole.to_ical())
