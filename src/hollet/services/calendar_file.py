"""The plan of evenings, who comes and what comes due, as an iCalendar file."""

from collections.abc import Iterator
from datetime import UTC, datetime, timedelta

from hollet.core.errors import Refused
from hollet.exchange.ical import CalendarEntry, calendar_text
from hollet.screens.evening_views import EveningsPlan
from hollet.screens.tonight import TonightView
from hollet.services.evenings import evenings_of
from hollet.services.shop import shop_facts
from hollet.services.tonight import tonight
from hollet.services.workshop import Workshop

__all__ = ["calendar_file"]

PATIENCE_S = 30.0


def calendar_file(workshop: Workshop) -> bytes:
    """The whole calendar; waits for a plan that is being laid.

    Raises
    ------
    Refused
        `no_plan`, with the reason why nothing could be laid.
    """
    found = evenings_of(workshop, wait=PATIENCE_S)
    if found.plan is None:
        raise Refused("no_plan", found.problem or "the evenings are being laid: ask again")
    entries = [*_work(workshop, found.plan), *_around(workshop, tonight(workshop))]
    return calendar_text(entries, shop_facts(workshop).name, workshop.clock())


def _midnight(workshop: Workshop) -> datetime:
    return workshop.local().replace(hour=0, minute=0, second=0, microsecond=0)


def _utc(midnight: datetime, wall: datetime) -> datetime:
    """What the clock on the wall shows, in UTC: then no reader needs to know the shop's zone."""
    return wall.replace(tzinfo=midnight.tzinfo).astimezone(UTC)


def _work(workshop: Workshop, plan: EveningsPlan) -> Iterator[CalendarEntry]:
    midnight = _midnight(workshop)
    starts = {}
    for evening in plan.evenings:
        day = midnight.replace(tzinfo=None) + timedelta(minutes=int(evening.key))
        for slug in evening.slugs:
            start = day + timedelta(minutes=slug.start)
            end = day + timedelta(minutes=slug.end)
            starts[slug.id] = (start, end)
            yield CalendarEntry(
                uid=f"work-{slug.build}-{slug.steps[0].step}",
                title=f"{slug.vehicle}: {slug.name}",
                start=_utc(midnight, start),
                end=_utc(midnight, end),
                words="; ".join(f"{s.number} {s.name}, {s.range}" for s in slug.steps),
            )
    for run in plan.runs:
        begin, until = starts[run.from_slug][1], starts[run.to_slug][0]
        yield CalendarEntry(
            uid=f"runs-{run.from_slug}-{run.to_slug}",
            title=f"runs by itself: {run.words}",
            start=_utc(midnight, begin),
            end=_utc(midnight, until),
        )


def _around(workshop: Workshop, view: TonightView) -> Iterator[CalendarEntry]:
    midnight = _midnight(workshop)
    for visit in view.visits:
        if not (visit.comes or visit.perhaps):
            continue
        day = midnight.replace(tzinfo=None)
        start = day + timedelta(minutes=visit.start)
        yield CalendarEntry(
            uid=f"visit-{visit.id}",
            title=f"{visit.name}: {visit.answer}",
            start=_utc(midnight, start),
            end=_utc(midnight, day + timedelta(minutes=visit.end)),
        )
    for row in view.due:
        if row.due.days is not None:
            yield CalendarEntry(
                uid=f"due-{row.due.id}",
                title=f"{row.due.what}, {row.due.does}",
                start=midnight.date() + timedelta(days=row.due.days),
                end=None,
                words=row.name,
            )
