"""The evenings there are: the usual week, days that are not as usual, who comes when.

Minutes are counted from midnight of the first day, as the clock on the wall shows them; an hour
that a change of the clock adds or takes lies at night.
"""

from collections.abc import Sequence
from datetime import date, timedelta

from pydantic import computed_field

from hollet.core.entries import (
    BookState,
    Commitment,
    EveningChanged,
    EveningHours,
    EveningsSet,
    HelperKept,
    TonightSaid,
    Visit,
)
from hollet.core.saying import day_due
from hollet.core.view import View

__all__ = [
    "Evening",
    "HelperView",
    "Tonight",
    "VisitView",
    "clock_minutes",
    "clock_words",
    "commitments",
    "evenings",
    "helpers",
    "tonight",
    "visits",
    "week",
]

USUAL = tuple(
    EveningHours(day=day, start=start, end=end)
    for day, start, end in (
        *((k, "19:00", "21:00") for k in range(5)),
        (5, "09:00", "13:00"),
    )
)
"""What is laid out while nobody said which evenings he has: assumed, and said so."""
DAY = 24 * 60
COMES = ("yes",)
PERHAPS = ("to be asked", "asked")


class Evening(View):
    """A stretch of one day in which one works: from and until in minutes from the first midnight;
    why it is not as usual.
    """

    day: date
    start: int
    end: int
    because: str | None = None
    usual: bool = True


class VisitView(View):
    """When a helper is there; `comes`: said yes; `perhaps`: not asked, or not answered."""

    id: str
    helper: str
    name: str
    day: date
    start: int
    end: int
    answer: str
    because: str | None
    comes: bool
    perhaps: bool

    @computed_field
    @property
    def words(self) -> str:
        """When that is, as it is said."""
        return f"{day_due(self.day)}, {clock_words(self.start)} to {clock_words(self.end)}"


class HelperView(View):
    """Somebody who helps, and what that person can do."""

    id: str
    name: str
    can: tuple[str, ...]


class Tonight(View):
    """What is so on one evening; `said`: somebody said it today. Minutes of the day."""

    day: date
    start: int
    end: int
    people: tuple[str, ...]
    dark: bool
    cold: bool
    damp: bool
    quiet_from: int | None
    said: bool


def clock_minutes(text: str) -> int:
    """`19:30` in minutes of the day.

    Examples
    --------
    >>> clock_minutes("19:30")
    1170
    """
    hours, minutes = text.split(":")
    return int(hours) * 60 + int(minutes)


def clock_words(minutes: int) -> str:
    """Minutes of a day as a clock shows them.

    Examples
    --------
    >>> clock_words(1170), clock_words(1440 + 65)
    ('19:30', '01:05')
    """
    return f"{minutes // 60 % 24:02d}:{minutes % 60:02d}"


def week(state: BookState) -> tuple[tuple[EveningHours, ...], bool]:
    """The evenings of a usual week, and whether anybody said so."""
    said = state.newest(EveningsSet, "calendar", "week")
    return (said.body.hours, True) if said is not None else (USUAL, False)


def evenings(state: BookState, first: date, days: int) -> tuple[Evening, ...]:
    """The evenings of so many days from `first` on, in order."""
    hours, _ = week(state)
    found = []
    for k in range(days):
        day = first + timedelta(days=k)
        changed = state.newest(EveningChanged, "calendar", day.isoformat())
        if changed is None:
            found += [
                Evening(
                    day=day,
                    start=k * DAY + clock_minutes(h.start),
                    end=k * DAY + clock_minutes(h.end),
                )
                for h in sorted(hours, key=lambda h: h.start)
                if h.day == day.weekday()
            ]
        elif changed.body.start is not None and changed.body.end is not None:
            found.append(
                Evening(
                    day=day,
                    start=k * DAY + clock_minutes(changed.body.start),
                    end=k * DAY + clock_minutes(changed.body.end),
                    because=changed.body.because,
                    usual=False,
                )
            )
    return tuple(found)


def closed_because(state: BookState, day: date) -> str | None:
    """Why nobody works on a day, where somebody said so."""
    changed = state.newest(EveningChanged, "calendar", day.isoformat())
    if changed is None or changed.body.start is not None:
        return None
    return changed.body.because or "closed"


def helpers(state: BookState) -> tuple[HelperView, ...]:
    """All who help."""
    found = (state.newest(HelperKept, "helper", name) for name, _ in state.names("helper"))
    return tuple(
        HelperView(id=e.body.helper, name=e.body.name, can=e.body.can)
        for e in found
        if e is not None and not e.body.gone
    )


def visits(state: BookState, first: date, days: int) -> tuple[VisitView, ...]:
    """Who comes, or may come, in so many days from `first` on."""
    gone = {helper.id for helper in helpers(state)}
    found = []
    for name, _ in state.names("visit"):
        entry = state.newest(Visit, "visit", name)
        if entry is None or entry.body.helper not in gone:
            continue
        body, k = entry.body, (entry.body.day - first).days
        if not 0 <= k < days:
            continue
        found.append(
            VisitView(
                id=name,
                helper=body.helper,
                name=body.name,
                day=body.day,
                start=k * DAY + clock_minutes(body.start),
                end=k * DAY + clock_minutes(body.end),
                answer=body.answer,
                because=body.because,
                comes=body.answer in COMES,
                perhaps=body.answer in PERHAPS,
            )
        )
    return tuple(sorted(found, key=lambda v: (v.start, v.helper)))


def commitments(state: BookState) -> tuple[Commitment, ...]:
    """All that is dated and not done, the first first."""
    found = (state.newest(Commitment, "commitment", n) for n, _ in state.names("commitment"))
    return tuple(
        sorted((e.body for e in found if e is not None and not e.body.done), key=lambda c: c.day)
    )


def tonight(state: BookState, day: date, minute: int) -> Tonight | None:
    """What is so on this evening: as said today, else the hours of the day that are left at
    `minute` and nobody with him; None where it is closed or over.
    """
    said = state.newest(TonightSaid, "calendar", f"tonight:{day.isoformat()}")
    if said is not None and clock_minutes(said.body.end) <= minute:
        return None
    if said is not None:
        body = said.body
        return Tonight(
            day=day,
            start=clock_minutes(body.start),
            end=clock_minutes(body.end),
            people=body.people,
            dark=body.dark,
            cold=body.cold,
            damp=body.damp,
            quiet_from=clock_minutes(body.quiet_from) if body.quiet_from else None,
            said=True,
        )
    coming = next((e for e in evenings(state, day, 1) if e.end > minute), None)
    if coming is None:
        return None
    there = [v.name for v in visits(state, day, 1) if v.comes]
    return Tonight(
        day=day,
        start=coming.start,
        end=coming.end,
        people=tuple(dict.fromkeys(there)),
        dark=False,
        cold=False,
        damp=False,
        quiet_from=None,
        said=False,
    )


def overlapping(spans: Sequence[Evening], start: int, end: int) -> bool:
    """Whether some evening holds part of this stretch."""
    return any(span.start < end and start < span.end for span in spans)
