"""A figure measured again after it has run, beside the first one: how it crept, and whether it has
come to rest.
"""

from collections.abc import Sequence
from datetime import datetime, timedelta
from itertools import pairwise

from hollet.core.entries import BookState, Entry, Reading
from hollet.core.entries.status import plan_of
from hollet.core.instruments import Instrument
from hollet.core.limits import Limit
from hollet.core.measuring.suspension import Settled, settled
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.results import ReadingSpec
from hollet.core.quantities.quantity import decimal_text, round9
from hollet.core.quantities.units import CANONICAL
from hollet.core.steps.looks import odometer
from hollet.core.steps.proof import in_doubt
from hollet.core.steps.readings import latest, reading_mean
from hollet.core.view import View

__all__ = ["CreepFacts", "CreepPoint", "creeping", "creeps_of", "other_state", "read_since"]

SITTING = timedelta(hours=6)
"""Readings nearer than this are one look at it: the last of them counts (rule of thumb)."""
FOUND = {"rests": "inside", "creeps": "too_close", "jumped": "outside"}


class CreepPoint(View):
    """One reading of the row: the distance that the odometer showed then (km), the days since the
    first, and the figure in its canonical unit.
    """

    entry: str
    km: float | None
    days: float
    value: float
    when: str


class CreepFacts(View):
    """One figure from its first reading on. `word` says how it stands (rests, creeps, jumped, not
    yet, other state, not known), `detail` why; `lo`, `hi`, `aim` are its limits.
    """

    reading: str
    name: str
    step: str
    unit: str
    points: tuple[CreepPoint, ...]
    word: str
    verdict: str
    detail: str
    lo: float | None
    hi: float | None
    aim: float | None
    within: float | None


def creeps_of(state: BookState, tools: Sequence[Instrument] = ()) -> tuple[CreepFacts, ...]:
    """Every figure of the plan that is repeated until it rests, in the plan's order."""
    return tuple(f for step in plan_of(state).step for f in creeping(state, step, tools))


def creeping(
    state: BookState, step: BaseStep, tools: Sequence[Instrument] = ()
) -> tuple[CreepFacts, ...]:
    """Those of one step."""
    specs = (spec for spec in step.readings() if spec.rests is not None)
    return tuple(_facts(state, step, spec, tools) for spec in specs)


def _facts(
    state: BookState, step: BaseStep, spec: ReadingSpec, tools: Sequence[Instrument]
) -> CreepFacts:
    plan = plan_of(state)
    first = latest(state, spec.first or "")
    row = [e for e in _sittings(state, spec.id) if first is None or e.seq > first.seq]
    series = [e for e in (first, *row) if e is not None and e.body.instrument is not None]
    rest, own = plan.find_limit(spec.rests), _own_limit(state, step, spec)
    within = _within(rest)
    points = _points(state, series)
    word, detail = _word(series, points, within, first)
    doubts = (in_doubt(e, e.body.instrument, tools) for e in series[-2:])
    doubt = next(filter(None, doubts), None)
    if doubt is not None and word in FOUND:
        word, detail = "not known", f"tool in doubt: {doubt}"
    dimension = own.dimension if own is not None else "length"
    return CreepFacts(
        reading=spec.id,
        name=spec.name.removesuffix(", again"),
        step=step.id,
        unit=CANONICAL[dimension],
        points=points,
        word=word,
        verdict=FOUND.get(word, "not_read"),
        detail=detail,
        lo=own.figure("lo") if own is not None else None,
        hi=own.figure("hi") if own is not None else None,
        aim=own.figure("target") if own is not None else None,
        within=within,
    )


def _within(rest: Limit | None) -> float | None:
    """How far a step may still go once it rests; None where nobody has said."""
    ends = [rest.figure("lo"), rest.figure("hi")] if rest is not None else []
    known = [abs(end) for end in ends if end is not None]
    return min(known) if known else None


def _own_limit(state: BookState, step: BaseStep, spec: ReadingSpec) -> Limit | None:
    """The limit that the figure itself is judged by, where one is."""
    results = getattr(step, "result", ())
    named = next((r.limit for r in results if r.reading == spec.id), None)
    return plan_of(state).find_limit(named)


def _sittings(state: BookState, reading: str) -> list[Entry[Reading]]:
    """Its readings, the last of each sitting."""
    found: list[Entry[Reading]] = []
    for entry in state.each(Reading, "reading", reading):
        if found and _time(entry) - _time(found[-1]) < SITTING:
            found.pop()
        found.append(entry)
    return found


def _time(entry: Entry[Reading]) -> datetime:
    return datetime.fromisoformat(entry.time)


def _points(state: BookState, series: list[Entry[Reading]]) -> tuple[CreepPoint, ...]:
    start = _time(series[0]) if series else None
    return tuple(
        CreepPoint(
            entry=entry.id,
            km=odometer(state, entry.time),
            days=round((_time(entry) - start).total_seconds() / 86400, 1) if start else 0.0,
            value=round9(reading_mean(entry)),
            when=entry.time,
        )
        for entry in series
    )


def _word(
    series: list[Entry[Reading]],
    points: tuple[CreepPoint, ...],
    within: float | None,
    first: Entry[Reading] | None,
) -> tuple[str, str]:
    """How it stands, and why."""
    if first is None:
        return "not yet", "there is no first reading to compare"
    if len(points) < 2:
        return "not yet", "read it again after it has run"
    odd = next((e for e in series[1:] if other_state(first, e)), None)
    if odd is not None:
        return (
            "other state",
            f"read {odd.body.state or 'in no state said'}, first {first.body.state}",
        )
    if within is None:
        return "not known", "how little it may still move is not given"
    values = [point.value for point in points]
    step = values[-1] - values[-2]
    since = _since(points)
    told = f"{_signed(step)} {since}, rests within {decimal_text(within)}"
    if not _settled(values, within):
        before = len(values) > 2 and _settled(values[:-1], within)
        return ("jumped" if before else "creeps"), told
    gone, earlier = _gone(points[-2], points[-1]), [_gone(a, b) for a, b in pairwise(points[:-1])]
    if gone is None:
        return "not known", f"{_signed(step)}: nobody read the odometer in between"
    if earlier and earlier[-1] is not None and round9(gone) < round9(earlier[-1]):
        return "not known", f"{told}, over a shorter way than the step before"
    return "rests", told


def read_since(first: Entry[Reading], later: Entry[Reading] | None) -> Entry[Reading] | None:
    """The later reading, where it was read after the first: what was set anew has its first again,
    and was not measured again since.
    """
    return later if later is not None and later.seq > first.seq else None


def other_state(first: Entry[Reading], later: Entry[Reading]) -> bool:
    """Whether it was read in another state than the first time, or in none that was said."""
    states = [" ".join((e.body.state or "").casefold().split()) for e in (first, later)]
    return states[0] != states[1]


def _settled(values: list[float], within: float) -> bool:
    """As the reference has it: with the one before it within the tolerance, and none leaves it."""
    given = {"value": values, "unit": "mm"}, {"value": within, "unit": "mm"}
    made = {"heights": given[0], "tolerance": given[1], "quiet_steps": 1}
    found = settled(Settled.model_validate(made))
    return found.settled


def _gone(a: CreepPoint, b: CreepPoint) -> float | None:
    """The distance between two readings, in km; None where nobody read the odometer."""
    if a.km is None or b.km is None or b.km <= a.km:
        return None
    return b.km - a.km


def _since(points: tuple[CreepPoint, ...]) -> str:
    gone = _gone(points[-2], points[-1])
    if gone is not None:
        return f"in {decimal_text(gone, 0)} km"
    return f"in {decimal_text(points[-1].days - points[-2].days, 0)} days"


def _signed(step: float) -> str:
    sign = "−" if step < 0 else "+" if step > 0 else ""
    return f"{sign}{decimal_text(abs(round9(step)))}"
