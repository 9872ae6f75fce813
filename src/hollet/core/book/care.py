"""What is laid on and how long it may still lie open, what is home in its seat, what is counted
out again.
"""

from datetime import timedelta
from math import sqrt

from hollet.core.book.boxes import moment
from hollet.core.book.ledger import left_open
from hollet.core.book.passing import Obstacle, reason_keys
from hollet.core.entries import (
    BookState,
    Confirmed,
    CountedOut,
    LaidOn,
    OutOfOven,
    Reopened,
    SeatRead,
)
from hollet.core.entries.status import SETTLED, plan_of, status_of
from hollet.core.instruments import single_reading_U
from hollet.core.limits import Judgement, Limit, judge
from hollet.core.procedure.care import LAID_KINDS, SEAT_KINDS, LaidKind, Seat, SeatKind
from hollet.core.procedure.sheet import Step
from hollet.core.view import View

__all__ = [
    "CountFacts",
    "LaidFacts",
    "SeatFacts",
    "WarmFacts",
    "counts_of",
    "laid_of",
    "seats_of",
    "uncared",
    "warms_of",
]


class LaidFacts(View):
    """Something that is laid on: whether it is, by whom, and until when (UTC) it may lie open;
    `over`: that is past, and nobody has said that it was closed in time.
    """

    id: str
    kind: LaidKind
    name: str
    what: str
    where: str
    how_much: str | None
    too_much: str | None
    open_words: str | None
    on: bool
    who: str
    since: str | None
    until: str | None
    over: bool
    box: str | None


class WarmFacts(View):
    """Something that goes on hot or cold: whether it is out, and until when (UTC) it still goes on
    by the stated rule; `late`: that is past.
    """

    id: str
    what: str
    by: str
    most: str
    never: str
    out: str | None
    needed: str | None
    until: str | None
    late: bool
    box: str
    on: bool


class SeatFacts(View):
    """Something that is driven home: its way round and its seat, as pressed; the depths round about
    and what they say.
    """

    id: str
    kind: SeatKind
    name: str
    what: str
    way: str
    home: str
    driver: str | None
    start: str | None
    way_box: str
    home_box: str
    way_seen: bool
    home_seen: bool
    limit: Limit | None
    depths: str | None
    judgement: Judgement | None


class CountFacts(View):
    """Covers that the step takes out: how many went in, how many were counted out."""

    item: str
    what: str
    count: int
    out: int | None


def _since(state: BookState, step: str) -> int:
    again = state.newest(Reopened, "step", step)
    return again.seq if again is not None else 0


def laid_of(state: BookState, step: Step, now: str) -> tuple[LaidFacts, ...]:
    """What is laid on at a step."""
    since, presses = _since(state, step.id), state.each(Confirmed, "step", step.id)
    settled = status_of(state, step).status in SETTLED

    found = []
    for laid in step.lays:
        own = [e for e in state.each(LaidOn, "step", step.id) if e.body.laid == laid.id]
        last = own[-1] if own and own[-1].seq > since else None
        until, over, box = None, False, None
        if last is not None and last.body.open_s:
            end = moment(last.time) + timedelta(seconds=last.body.open_s)
            until, box = end.isoformat(), f"{laid.what}: closed and drawn to the end in time"
            closed = any(e.body.what == box and e.seq > last.seq for e in presses)
            over = not settled and not closed and moment(now) > end
        assumed = "" if laid.source else ", a rule of thumb: its label goes first"
        found.append(
            LaidFacts(
                id=laid.id,
                kind=laid.kind,
                name=LAID_KINDS[laid.kind],
                what=laid.what,
                where=laid.where,
                how_much=laid.how_much,
                too_much=laid.too_much,
                open_words=f"closed within {laid.open}{assumed}" if laid.open else None,
                on=last is not None,
                who=last.who if last else "",
                since=last.time if last else None,
                until=until,
                over=over,
                box=box,
            )
        )
    return tuple(found)


def warms_of(state: BookState, step: Step, now: str) -> tuple[WarmFacts, ...]:
    """What goes on hot or cold at a step."""
    since, presses = _since(state, step.id), state.each(Confirmed, "step", step.id)
    settled, found = status_of(state, step).status in SETTLED, []
    for warm in step.warms:
        own = [e for e in state.each(OutOfOven, "step", step.id) if e.body.warm == warm.id]
        last = own[-1] if own and own[-1].seq > since else None
        box = f"{warm.what}: home, and held till it grips"
        pressed = max((e.seq for e in presses if e.body.what == box and e.seq > since), default=0)
        on, until = pressed > (last.seq if last is not None else 0), None
        if last is not None:
            until = moment(last.time) + timedelta(seconds=last.body.left_s)
        late = until is not None and not on and not settled and moment(now) > until
        found.append(
            WarmFacts(
                id=warm.id,
                what=warm.what,
                by=warm.by,
                most=warm.most,
                never=warm.never,
                out=last.body.out.shown() if last is not None else None,
                needed=last.body.needed.shown() if last is not None else None,
                until=until.isoformat() if until is not None and not on else None,
                late=late,
                box=box,
                on=on,
            )
        )
    return tuple(found)


def seats_of(state: BookState, step: Step) -> tuple[SeatFacts, ...]:
    """What is driven home at a step."""
    since = _since(state, step.id)
    presses = {e.body.what for e in state.each(Confirmed, "step", step.id) if e.seq > since}
    return tuple(_seat(state, step, seat, presses, since) for seat in step.seats)


def _seat(state: BookState, step: Step, seat: Seat, presses: set[str], since: int) -> SeatFacts:
    limit = plan_of(state).find_limit(seat.even) if seat.even is not None else None
    own = [e for e in state.each(SeatRead, "step", step.id) if e.body.seat == seat.id]
    read = own[-1].body if own and own[-1].seq > since else None
    way_box, home_box = seat.boxes()
    return SeatFacts(
        id=seat.id,
        kind=seat.kind,
        name=SEAT_KINDS[seat.kind],
        what=seat.what,
        way=seat.way,
        home=seat.home,
        driver=seat.driver,
        start=seat.start,
        way_box=way_box,
        home_box=home_box,
        way_seen=way_box in presses,
        home_seen=home_box in presses,
        limit=limit,
        depths=", ".join(d.shown() for d in read.depths) if read is not None else None,
        judgement=_even(read, limit) if read is not None and limit is not None else None,
    )


def _even(read: SeatRead, limit: Limit) -> Judgement:
    """How far the depths differ, largest less smallest: both with the spread of the tool."""
    depths = [depth.figure("length") for depth in read.depths]
    apart, tool = max(depths) - min(depths), read.instrument
    spread = sqrt(2) * single_reading_U(tool, max(depths)) if tool.s is not None else None
    return judge(apart, spread, limit)


def counts_of(state: BookState, step: Step) -> tuple[CountFacts, ...]:
    """What the step takes out again that went in by number."""
    found = []
    for item in left_open(state):
        if item.id in step.closes and item.counted_out and item.count > 1:
            opened = max(e.seq for e in state.live("open", item.id) if e.body.opened())
            counts = state.each(CountedOut, "counted", item.id)
            last = counts[-1] if counts and counts[-1].seq > opened else None
            out = last.body.out if last is not None else None
            found.append(CountFacts(item=item.id, what=item.what, count=item.count, out=out))
    return tuple(found)


def uncared(state: BookState, step: Step, now: str) -> list[Obstacle]:
    """What the step still asks for of all this."""
    found = [o for laid in laid_of(state, step, now) if (o := _laid_lacks(laid)) is not None]
    found += [
        Obstacle(code="seat", words=f"not seen: {warm.box}", by="press", box=warm.box)
        for warm in warms_of(state, step, now)
        if not warm.on
    ]
    found += [o for seat in seats_of(state, step) for o in _seat_lacks(seat)]
    for count in counts_of(state, step):
        if count.out is None:
            words = f"count them out: {count.what}, {count.count} went in"
            found.append(Obstacle(code="count", words=words, by="nothing"))
        elif count.out < count.count:
            words = f"{count.count - count.out} of {count.count} still in: {count.what}"
            found.append(Obstacle(code="count", words=words, by="nothing"))
    return found


def _laid_lacks(laid: LaidFacts) -> Obstacle | None:
    if laid.over:
        words = f"it has skinned, off with it and laid anew: {laid.what}"
        return Obstacle(code="laid", words=words, by="press", box=laid.box)
    if laid.on:
        return None
    words = f"not on yet: {laid.what}, {laid.where}"
    return Obstacle(code="laid", words=words, by="reason", keys=reason_keys("unfinished"))


def _seat_lacks(seat: SeatFacts) -> list[Obstacle]:
    found = []
    for seen, box in ((seat.way_seen, seat.way_box), (seat.home_seen, seat.home_box)):
        if not seen:
            found.append(Obstacle(code="seat", words=f"not seen: {box}", by="press", box=box))
    keys = reason_keys("unfinished")
    if seat.limit is not None and seat.judgement is None:
        words = f"{seat.what}: its depth is not read round about"
        found.append(Obstacle(code="seat", words=words, by="reason", keys=keys))
    elif seat.judgement is not None and seat.judgement.verdict == "outside":
        words = f"{seat.what}: its depths differ too much, {seat.judgement.words}"
        found.append(Obstacle(code="seat", words=words, by="nothing"))
    elif seat.judgement is not None and seat.judgement.verdict != "inside":
        words = f"{seat.what}: its depths, {seat.judgement.words}"
        found.append(Obstacle(code="seat", words=words, by="reason", keys=keys))
    return found
