"""iCalendar (RFC 5545) out: what is planned and what comes due, for any calendar program."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from icalendar import Calendar, Event

__all__ = ["CalendarEntry", "calendar_text"]


@dataclass(frozen=True, slots=True)
class CalendarEntry:
    """One thing in a calendar: from and until by the clock of the shop, or a whole day: then
    `start` is a date and `end` none. `uid` stays the same while it is the same thing.
    """

    uid: str
    title: str
    start: datetime | date
    end: datetime | None
    words: str = ""


def calendar_text(entries: Iterable[CalendarEntry], name: str, stamp: datetime) -> bytes:
    """All of them as one calendar; `stamp` is when it was made."""
    calendar = Calendar()
    calendar.add("prodid", "-//Hollet//Evenings//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    for entry in entries:
        event = Event()
        event.add("uid", f"{entry.uid}@hollet")
        event.add("dtstamp", stamp)
        event.add("summary", entry.title)
        event.add("dtstart", entry.start)
        event.add("dtend", entry.end or entry.start + timedelta(days=1))
        if entry.words:
            event.add("description", entry.words)
        calendar.add_component(event)
    return bytes(calendar.to_ical())
