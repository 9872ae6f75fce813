"""The Shop in the evening: what can be done until when, why the rest cannot, what comes due, and
each vehicle with what it waits for and what it costs.
"""

from collections.abc import Sequence
from datetime import date

from pydantic import computed_field

from hollet.core.book.due import Due, due_of
from hollet.core.book.openers import Opener, openers
from hollet.core.book.orders import orders, slip_words
from hollet.core.calendar.evenings import (
    Evening,
    HelperView,
    Tonight,
    VisitView,
    clock_words,
    evenings,
    helpers,
    visits,
    week,
)
from hollet.core.calendar.laying import Slug, laid_tonight, minutes_words
from hollet.core.calendar.offers import NotNow, Offer, Offers
from hollet.core.entries import BookState
from hollet.core.entries.calendar import ANSWERS, WEEK
from hollet.core.saying import day_due
from hollet.core.view import View
from hollet.screens.comes_due import DueRow, GearSaid, ToolRow, due_rows, tool_rows
from hollet.screens.costs import Money, money_of

__all__ = [
    "BuildOffers",
    "TonightView",
    "build_offers",
    "tonight_view",
    "waits_of",
]


class BuildOffers(View):
    """What one build offers, with what it waits for and costs."""

    build: str
    name: str
    offers: Offers
    waits: str
    money: Money
    due: tuple[Due, ...]
    openers: tuple[Opener, ...]


class OpenerRow(View):
    """What opens something, of which nobody said yet whether it is here."""

    build: str
    name: str
    opener: Opener


class OfferRow(View):
    """One thing that can be done now, and of which build."""

    row: int
    build: str
    name: str
    offer: Offer
    range: str
    reason: str

    @computed_field
    @property
    def about(self) -> str:
        """Its step, what it frees, where it can be stopped."""
        step = f"{self.offer.number}. " if self.offer.number else ""
        freed = (
            f"frees {self.offer.frees_first}" if self.offer.frees_first else "frees nothing more"
        )
        parts = [freed, self.offer.stops, self.offer.held_back]
        said = ". ".join(part[0].upper() + part[1:] for part in parts if part)
        return f"{step}{said}"


class NotNowRow(View):
    """What is not possible tonight, and of which build."""

    build: str
    name: str
    what: NotNow


class VehicleRow(View):
    """One build in the evening: what it waits for, and what it costs."""

    build: str
    waits: str
    sure: float
    worst: float
    bare: int


class WeekDay(View):
    """One stretch of the usual week."""

    day: int
    name: str
    start: str
    end: str


class TonightView(View):
    """The whole page; `evening` is none where it is closed or over."""

    title: str
    evening: Tonight | None
    start: str
    end: str
    quiet: str
    conditions: tuple[str, ...]
    slugs: tuple[Slug, ...]
    first: OfferRow | None
    others: tuple[OfferRow, ...]
    more: int
    cannot: tuple[NotNowRow, ...]
    cannot_more: int
    due: tuple[DueRow, ...]
    tools: tuple[ToolRow, ...]
    openers: tuple[OpenerRow, ...]
    vehicles: tuple[VehicleRow, ...]
    helpers: tuple[HelperView, ...]
    visits: tuple[VisitView, ...]
    answers: tuple[str, ...]
    week: tuple[WeekDay, ...]
    week_said: bool
    minute: int
    day: str


OTHERS, CANNOT = 3, 4


def waits_of(state: BookState, today: date) -> str:
    """What a build waits for: what is on order, each with its day, and how it slipped."""
    said = []
    for order in orders(state):
        if not order.live:
            continue
        what = ", ".join(part.name for part in order.parts if part.to_come)
        day = day_due(order.promised) if order.promised is not None else order.state
        slipped = slip_words(order)
        said.append(f"{what} {day}" + (f" ({slipped})" if slipped else ""))
    return "; ".join(said)


def _range(offer: Offer) -> str:
    if offer.quick is None or offer.slow is None:
        return "no hours given"
    if offer.slow < 60:
        return f"{offer.quick} to {offer.slow} min"
    return f"{minutes_words(offer.quick)} to {minutes_words(offer.slow)}"


def _rows(found: Sequence[BuildOffers]) -> list[OfferRow]:
    """All offers in the order of worth: what frees most, what comes due, what fills the evening."""
    every = [(group, offer) for group in found for offer in group.offers.can]
    every.sort(
        key=lambda pair: (
            bool(pair[1].held_back),
            -pair[1].frees,
            pair[1].due_days if pair[1].due_days is not None else 999,
            -(pair[1].middle or 0),
        )
    )
    best = max((offer.frees for _, offer in every), default=0.0)
    return [
        OfferRow(
            row=k,
            build=group.build,
            name=group.name,
            offer=offer,
            range=_range(offer),
            reason="nothing frees more" if offer.frees == best and best else "it fits",
        )
        for k, (group, offer) in enumerate(every, start=1)
    ]


def _conditions(evening: Tonight) -> tuple[str, ...]:
    who = f"with {' and '.join(evening.people)}" if evening.people else "alone"
    around = [w for w, so in (("cold", evening.cold), ("damp", evening.damp)) if so]
    return (
        who if evening.said or evening.people else f"{who}?",
        "dark" if evening.dark else "light",
        " and ".join(around) or "dry and warm",
        f"quiet from {clock_words(evening.quiet_from)}" if evening.quiet_from else "noise allowed",
    )


def tonight_view(
    shop: BookState,
    found: Sequence[BuildOffers],
    gear: Sequence[GearSaid],
    evening: Tonight | None,
    today: date,
    minute: int,
) -> TonightView:
    """The page on a day at a minute."""
    rows = _rows(found)
    slugs = laid_tonight([row.offer for row in rows], evening, minute) if evening else ()
    cannot = [
        NotNowRow(build=group.build, name=group.name, what=what)
        for group in found
        for what in group.offers.cannot
    ]
    cannot.sort(key=lambda row: (not row.what.danger, not row.what.half_way, -row.what.frees))
    dangers = sum(row.what.danger or row.what.half_way for row in cannot)
    shown = max(CANNOT, dangers)
    hours, said = week(shop)
    return TonightView(
        title=_title(evening, _coming(shop, today), slugs, rows),
        evening=evening,
        start=clock_words(evening.start) if evening else "",
        end=clock_words(evening.end) if evening else "",
        quiet=clock_words(evening.quiet_from) if evening and evening.quiet_from else "",
        conditions=_conditions(evening) if evening else (),
        slugs=slugs,
        first=rows[0] if rows else None,
        others=tuple(rows[1 : 1 + OTHERS]),
        more=max(0, len(rows) - 1 - OTHERS),
        cannot=tuple(cannot[:shown]),
        cannot_more=len(cannot) - min(shown, len(cannot)),
        due=due_rows(
            shop,
            [DueRow(build=g.build, name=g.name, due=due) for g in found for due in g.due],
            gear,
            today,
        ),
        tools=tool_rows(
            [r.offer for r in rows if r.row in {slug.row for slug in slugs}]
            or [r.offer for r in rows[:1]],
            gear,
        ),
        openers=tuple(
            OpenerRow(build=group.build, name=group.name, opener=opener)
            for group in found
            for opener in group.openers
            if not opener.answer
        ),
        vehicles=tuple(
            VehicleRow(
                build=group.build,
                waits=group.waits,
                sure=group.money.sure,
                worst=group.money.worst,
                bare=len(group.money.bare),
            )
            for group in found
        ),
        helpers=helpers(shop),
        visits=visits(shop, today, 60),
        answers=ANSWERS,
        week=tuple(WeekDay(day=h.day, name=WEEK[h.day], start=h.start, end=h.end) for h in hours),
        week_said=said,
        minute=minute,
        day=day_due(today),
    )


def _coming(shop: BookState, today: date) -> Evening | None:
    """The next evening after today, within three weeks."""
    return next((e for e in evenings(shop, today, 21) if e.day > today), None)


def _title(
    evening: Tonight | None,
    coming: Evening | None,
    slugs: Sequence[Slug],
    rows: Sequence[OfferRow],
) -> str:
    if evening is None and coming is None:
        return "No evening is set: what is possible all the same"
    if evening is None:
        assert coming is not None
        return f"Nothing more today; next {day_due(coming.day)}, {clock_words(coming.start)}"
    if not rows:
        return f"Tonight, until {clock_words(evening.end)}: nothing is possible"
    worked = sum(slug.end - slug.start for slug in slugs)
    return f"Tonight, until {clock_words(evening.end)}: {minutes_words(worked)} is possible"


def build_offers(
    state: BookState, *, build: str, name: str, offers: Offers, today: date, sold: float = 0.0
) -> BuildOffers:
    """One build with what it offers, waits for and costs."""
    return BuildOffers(
        build=build,
        name=name,
        offers=offers,
        waits=waits_of(state, today),
        money=money_of(state, sold),
        due=due_of(state, today),
        openers=openers(state),
    )
