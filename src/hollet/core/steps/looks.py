"""When a joint is looked at again, by distance, day or heat, whichever comes first; and what was
found each time beside what was set.
"""

from collections.abc import Sequence
from datetime import datetime, timedelta

from pydantic import computed_field

from hollet.core.entries import (
    BookState,
    Entry,
    Fastener,
    LookedAgain,
    OdometerSaid,
)
from hollet.core.procedure.joints import Joint, LookWhen
from hollet.core.quantities.quantity import decimal_text, exact
from hollet.core.steps.heat import heat_cycles
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["FoundRow", "LookFacts", "due_by", "looks_of", "odometer", "times_good"]

EARLY = 0.5
"""A look counts from half of the way on (rule of thumb: 50 to 100 km for 80)."""


class FoundRow(View):
    """One time that it was looked at: when, at which distance, and what had moved."""

    when: str
    km: str
    words: str
    moved: int


class LookFacts(View):
    """How it stands with looking again. `times` are done of `of`; the next is due or not, `words`
    say by what, `share` how much of the way there is gone (1 or more: due).
    """

    times: int
    of: int
    due: bool
    words: str
    left: str
    share: float
    assumed: bool
    rows: tuple[FoundRow, ...]
    trend: str

    @computed_field
    @property
    def over(self) -> bool:
        """Whether it was looked at as often as it had to be."""
        return self.times >= self.of


def odometer(state: BookState, until: str = "") -> float | None:
    """The last reading of the odometer, in km; the last one up to a moment (UTC)."""
    said = state.each(OdometerSaid, "vehicle", "odometer")
    known = [e for e in said if not until or e.time <= until]
    return known[-1].body.value.figure("distance") if known else None


def _counted(state: BookState, joint: Joint) -> tuple[list[Entry[LookedAgain]], str]:
    """The looks that count as one of its times, since its bolts were pulled last: all held, and at
    least half of the way there was gone; and since when the next one counts (UTC). Twice within a
    minute is once, and a distance that nobody read is none.
    """
    acts = [e for e in state.each(Fastener, "joint", joint.id) if e.body.stage]
    looks = [e for e in state.each(LookedAgain, "joint", joint.id) if acts and e.seq > acts[-1].seq]
    found: list[Entry[LookedAgain]] = []
    base = acts[-1].time if acts else ""
    for look in looks:
        when = next(iter(joint.again[len(found) :]), None)
        if when is None or look.body.moved:
            base = look.time
        elif _gone(state, when, base, look.time) >= EARLY:
            found.append(look)
            base = look.time
    return found, base


def _gone(state: BookState, when: LookWhen, base: str, at: str) -> float:
    """The share of the way to a time that was gone at a moment, as far as it is known."""
    ways = [1.0] if when.trip else []
    then, reads = odometer(state, base), odometer(state, at)
    if when.km is not None and then is not None and reads is not None:
        ways.append((reads - then) / when.km)
    days = _by_day(when.days, base, at)
    heat = _by_heat(state, when.cycles, base, at)
    return max([*ways, *(way[0] for way in (days, heat) if way is not None)], default=0.0)


def times_good(state: BookState, joint: Joint) -> int:
    """How often it was looked at, in its time, and all its bolts were as they had been set."""
    return len(_counted(state, joint)[0])


def looks_of(state: BookState, joint: Joint, now: str) -> LookFacts | None:
    """All of it; None for a joint whose sheet does not say when, and that nobody looked at."""
    looks = state.each(LookedAgain, "joint", joint.id)
    acts = [e for e in state.each(Fastener, "joint", joint.id) if e.body.stage]
    if not acts or not (joint.again or looks):
        return None
    counted_looks, base = _counted(state, joint)
    place, good = len(counted_looks), {look.id for look in counted_looks}
    when = next(iter(joint.again[place:]), joint.again[-1] if _each_trip(joint) else None)
    due, words, left, share = due_by(state, when, base, now)
    return LookFacts(
        times=place,
        of=sum(not when.trip for when in joint.again),
        due=due,
        words=words,
        left=left,
        share=share,
        assumed=when is not None and when.source is None,
        rows=tuple(_row(state, look, look.id in good) for look in looks),
        trend=_trend(looks),
    )


def _each_trip(joint: Joint) -> bool:
    """Whether its last time is before each trip, for ever."""
    return bool(joint.again) and joint.again[-1].trip


def due_by(
    state: BookState, when: LookWhen | None, base: str, now: str, *, strict: bool = True
) -> tuple[bool, str, str, float]:
    """Whether it is due, in words, what is left, and the share that is gone, since `base` (UTC).
    `strict`: a distance that nobody knows is due; else it counts from the first time it was read.
    """
    if when is None:
        return False, "it was looked at as often as it had to be", "", 1.0
    ways = [
        way
        for way in (
            _by_distance(state, when.km, base, strict),
            _by_day(when.days, base, now),
            _by_heat(state, when.cycles, base, now),
        )
        if way is not None
    ]
    if when.trip:
        ways.append((1.0, "before each trip", "each trip"))
    share, words, left = max(ways, key=lambda way: way[0])
    every = ", or ".join(said for _, said, _ in ways)
    return share >= 1, every if share < 1 else words, "now" if share >= 1 else left, share


def _by_distance(
    state: BookState, km: int | None, base: str, strict: bool
) -> tuple[float, str, str] | None:
    if km is None:
        return None
    then, reads = odometer(state, base), odometer(state)
    if reads is None:
        words = f"after {km} km, and the odometer was never read"
        return (1.0, f"{words}: read it, and look", "now") if strict else (0.0, words, f"{km} km")
    if then is None and strict:
        words = f"after {km} km, and the odometer was not read when it was tightened: look now"
        return 1.0, words, "now"
    begin = then if then is not None else _first_read(state)
    gone = reads - begin
    if gone < 0:
        words = f"after {km} km, and the odometer reads less than it did then: look now"
        return 1.0, words, "now"
    since = "" if then is not None else ", counted from the first time it was read"
    return gone / km, f"at {decimal_text(begin + km, 0)} km{since}", _left(km - gone)


def _left(km: float) -> str:
    return f"{decimal_text(max(km, 0.0), 0)} km"


def _first_read(state: BookState) -> float:
    return state.each(OdometerSaid, "vehicle", "odometer")[0].body.value.figure("distance")


def _by_day(days: int | None, base: str, now: str) -> tuple[float, str, str] | None:
    if days is None:
        return None
    begun, today = datetime.fromisoformat(base), datetime.fromisoformat(now)
    gone = (today - begun) / timedelta(days=1)
    until = (begun + timedelta(days=days)).date()
    left = max(0, (until - today.date()).days)
    return gone / days, f"by {until.isoformat()}", counted(left, "day")


def _by_heat(
    state: BookState, cycles: int | None, base: str, now: str
) -> tuple[float, str, str] | None:
    if cycles is None:
        return None
    gone = heat_cycles(state, base, now)
    left = counted(max(0, cycles - gone), "heat cycle")
    return gone / cycles, f"after {counted(cycles, 'heat cycle')}, {gone} gone", left


def _row(state: BookState, look: Entry[LookedAgain], good: bool) -> FoundRow:
    km = odometer(state, look.time)
    body = look.body
    early = "" if good else ", before its time: it is looked at once more"
    held = f"all held{early}"
    if body.moved:
        held = f"{len(body.moved)} of {body.bolts} moved"
    found = [_lost(body, m.found.figure("torque")) for m in body.moved if m.found is not None]
    worst = f", lost {decimal_text(max(found), 0)} N·m at most" if found else ""
    return FoundRow(
        when=look.time[:10],
        km=f"{decimal_text(km, 0)} km" if km is not None else "",
        words=held + worst,
        moved=len(body.moved),
    )


def _lost(body: LookedAgain, found: float) -> float:
    asked = body.asked
    return float(exact(asked, "torque", "asked")) - found if asked is not None else 0.0


def _trend(looks: Sequence[Entry[LookedAgain]]) -> str:
    """Bolts that moved more than once: a bolt that moves again is not a bolt that settles."""
    times: dict[int, int] = {}
    for look in looks:
        for moved in look.body.moved:
            times[moved.bolt] = times.get(moved.bolt, 0) + 1
    again = [str(bolt) for bolt, count in sorted(times.items()) if count > 1]
    if not again:
        return ""
    which = "Bolt" if len(again) == 1 else "Bolts"
    return f"{which} {', '.join(again)} moved each time: look at thread, seat and stretch"
