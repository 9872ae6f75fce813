"""Dates that were said, against the plan of evenings: met or not, while something can still be
moved.
"""

from collections.abc import Mapping, Sequence
from datetime import timedelta

from hollet.core.calendar.evenings import DAY, clock_minutes
from hollet.core.calendar.laying import minutes_words
from hollet.core.calendar.plan import Chance, Frame, Plan
from hollet.core.entries import Commitment
from hollet.core.saying import day_due
from hollet.screens.evening_views import DateRow

__all__ = ["date_rows"]


def date_rows(
    plan: Plan, frame: Frame, chances: Mapping[str, Chance], said: Sequence[Commitment]
) -> tuple[DateRow, ...]:
    """The dates of builds, the first first; what is no build's is only due and stands elsewhere."""
    return tuple(
        _row(plan, frame, chances, held)
        for held in said
        if held.build is not None and held.day >= frame.today
    )


def _at(frame: Frame, held: Commitment) -> int:
    """The moment of a date, in minutes from the first midnight; the end of its day without one."""
    days = (held.day - frame.today).days
    return days * DAY + (clock_minutes(held.time) if held.time else DAY)


def _day(frame: Frame, minute: int) -> str:
    return day_due(frame.today + timedelta(days=minute // DAY))


def _row(plan: Plan, frame: Frame, chances: Mapping[str, Chance], held: Commitment) -> DateRow:
    at = _at(frame, held)
    words, met = _bay(plan, frame, held, at) if held.bay else _end(plan, frame, chances, held, at)
    return DateRow(
        commitment=held.commitment, what=held.what, day=day_due(held.day), met=met, words=words
    )


def _end(
    plan: Plan, frame: Frame, chances: Mapping[str, Chance], held: Commitment, at: int
) -> tuple[str, bool]:
    """Whether the build is done by then, and how sure that is."""
    last = plan.last_of(held.build or "")
    if last is None:
        return "nothing of it is open", True
    chance = chances.get(held.build or "")
    planned = plan.end(last)
    one, five, nine = (chance.one, chance.five, chance.nine) if chance else (planned,) * 3
    if nine <= at:
        return f"met, 9 in 10 by {_day(frame, nine)}", True
    if five <= at:
        return f"met by the middle only: 9 in 10 not before {_day(frame, nine)}", True
    if one <= at:
        words = f"5 in 10 not before {_day(frame, five)}, 1 in 10 in time"
    else:
        words = f"cannot be met: 5 in 10 not before {_day(frame, five)}"
    return f"{words}. {_falls_out(plan, held, at)}", False


def _falls_out(plan: Plan, held: Commitment, at: int) -> str:
    """What could fall out: extras that were said yes to; never a reading, a wait, a recheck."""
    late = [t for t in plan.tasks.values() if t.build == held.build and plan.end(t.id) > at]
    minutes = sum(task.middle for task in late)
    extras: dict[str, int] = {}
    for task in plan.tasks.values():
        if task.build == held.build and task.optional:
            extras[task.optional] = extras.get(task.optional, 0) + task.middle
    over = f"{minutes_words(minutes)} of work lie after it"
    if not extras:
        return f"{over}; nothing of it may fall out: move the date, or ask for help"
    named = ", ".join(f"{thing} ({minutes_words(spent)})" for thing, spent in extras.items())
    return f"{over}; what may fall out: {named}"


def _bay(plan: Plan, frame: Frame, held: Commitment, at: int) -> tuple[str, bool]:
    """Whether the vehicle stands on its wheels again before the bay is given back."""
    lands = [t for t in plan.tasks.values() if t.build == held.build and t.lands]
    cost = f", then {held.an_hour:.2f} an hour" if held.an_hour is not None else ""
    if not lands:
        return f"no step sets it on its wheels any more: look whether it rolls off{cost}", True
    down = max(plan.end(task.id) for task in lands)
    if down <= at:
        return f"on its wheels by {_day(frame, down)}: it can be rolled off", True
    left = sum(
        task.middle
        for task in plan.tasks.values()
        if task.build == held.build and at < plan.end(task.id) <= down
    )
    hours = (down - at) / 60
    more = f", {hours * held.an_hour:.2f} more" if held.an_hour is not None else ""
    words = f"cannot roll off before {_day(frame, down)}: {minutes_words(left)} of work too late"
    return words + more, False
