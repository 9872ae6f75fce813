"""The first start in a build: attempts, their deadlines, and what makes the screen say STOP.

Clock, burst, total and rest are counted here, from acknowledged samples and from the clock. Samples
are judged whole: the last oil pressure and
lamp count for 15 s; older is no reading, asked for 5 s, then STOP."""

from collections.abc import Iterator, Sequence
from datetime import datetime

from hollet.core.entries import (
    AttemptEnded,
    AttemptStarted,
    BookState,
    Entry,
    RunSample,
    RunTold,
    Samples,
)
from hollet.core.entries.status import plan_of
from hollet.core.limits import Limit
from hollet.core.procedure.kinds.run import RunStep
from hollet.core.procedure.plan import Plan
from hollet.core.quantities.quantity import round9
from hollet.core.run_sheet import NAMES, WORDS
from hollet.core.states import state_conflict
from hollet.core.steps.attempt import AttemptFacts, OpenFigure, ToldRow, TrackFacts
from hollet.core.steps.stop import deadlines_of, is_enough, oil_of, short_words, stop_of

__all__ = ["attempt_facts", "attempts_of"]

GRACE_S = 3.0
"""How much later than its second a sample may reach the server and still count at that second: a
press, a short word, the wire; assumed.
"""


TRACKS = (
    ("rpm", "Revs", "r/min", "speed", 1.0),
    ("oil", "Oil", "bar", "pressure", 0.01),
    ("coolant", "Coolant", "°C", "temperature", 1.0),
    ("timing", "Timing", "°", "angle", 1.0),
)


def attempts_of(state: BookState, step: RunStep) -> tuple[AttemptFacts, ...]:
    """All attempts of a step that are not struck, oldest first."""
    starts = state.each(AttemptStarted, "step", step.id)
    return tuple(attempt_facts(state, step, start.body.attempt) for start in starts)


def attempt_facts(state: BookState, step: RunStep, attempt: str) -> AttemptFacts:
    """One attempt with its deadlines, courses and reason to stop."""
    start = state.each(AttemptStarted, "run", attempt)[0]
    lines = state.each(Samples, "run", attempt)
    samples = sorted((s for e in lines for s in e.body.samples), key=lambda s: s.t)
    ends = state.each(AttemptEnded, "run", attempt)
    # a later one adds the cause and what was changed
    end, after = (ends[0], ends[-1]) if ends else (None, None)
    plan = plan_of(state)
    pressure, by = plan.find_limit(step.pressure), plan.find_limit(step.pressure_by)
    wanted = pressure.figure("lo") if pressure else None
    due = by.figure("hi") if by else None
    counted = _counted(start, lines)
    showed = next((s.t for s in counted if s.lamp_out or is_enough(s, wanted)), None)
    deadlines = deadlines_of(start, due, showed, pressure, counted)
    coolant = plan.find_limit(step.coolant)
    turned = _turned_s(start, end) if end else None
    told = state.each(RunTold, "run", attempt)
    heard = [(e.body.t or turned or 0.0, _stop_words(e.body)) for e in told if e.body.stops]
    stop, stop_at = stop_of(counted, deadlines, turned, coolant, wanted, due, heard)
    return AttemptFacts(
        id=attempt,
        number=start.body.number,
        step=step.id,
        rung=start.body.rung,
        started=start.time,
        who=start.who,
        isolated=start.body.isolated,
        expected=start.body.expected,
        limit_s=start.body.limit_s,
        gate=start.body.gate,
        gate_reasons=start.body.gate_reasons,
        deadlines=deadlines,
        tracks=_tracks(samples, pressure, due, coolant),
        stop=stop,
        stop_at=stop_at,
        ended=end is not None,
        after_s=turned,
        end_reason=end.body.reason if end else None,
        passed=stop is None and _passed(start, end, turned, step),
        said_passed=_passed(start, end, turned, step),
        cause=after.body.cause if after else None,
        change=after.body.change if after else None,
        lamp_out=any(s.lamp_out for s in samples),
        pressure_at=showed,
        expected_seen=stop is None and (pressure is None or showed is not None),
        asked=_asked(samples),
        last_s=samples[-1].t if samples else 0.0,
        least_s=_least_s(start, step),
        words=_timing_words(plan, step, samples),
        told=tuple(_told(told)),
    )


def _stop_words(told: RunTold) -> str:
    return f"{NAMES[told.about]}, {told.words()}: key off and look"


def _told(told: Sequence[Entry[RunTold]]) -> Iterator[ToldRow]:
    """The run sheet: the last word on each, and its choices."""
    for about, name in NAMES.items():
        last = next((e.body for e in reversed(told) if e.body.about == about), None)
        said = ToldRow(about=about, name=name, choices=WORDS[about])
        if last is not None:
            own = {"word": last.words(), "t": last.t, "stops": last.stops, "leads": last.leads}
            said = said.model_copy(update=own)
        yield said


def _passed(
    start: Entry[AttemptStarted],
    end: Entry[AttemptEnded] | None,
    turned: float | None,
    step: RunStep,
) -> bool:
    """Whether it was said to have passed, against no shut gate, and lasted as long as it has to."""
    if end is None or turned is None or start.body.gate == "shut":
        return False
    return end.body.passed and turned >= _least_s(start, step)


def _least_s(start: Entry[AttemptStarted], step: RunStep) -> float:
    """How long it has to last, in s; never longer than it may."""
    return min(float(step.least_s), start.body.limit_s)


def _counted(start: Entry[AttemptStarted], lines: Sequence[Entry[Samples]]) -> list[RunSample]:
    """The samples as they count for the deadlines: by when the server had them, with a grace for
    the press and the wire; a second that is said and lies before that is nobody's proof.
    """
    began = datetime.fromisoformat(start.time)
    found = []
    for entry in lines:
        had = (datetime.fromisoformat(entry.time) - began).total_seconds() - GRACE_S
        found += [s if s.t >= had else s.model_copy(update={"t": had}) for s in entry.body.samples]
    return sorted(found, key=lambda s: s.t)


def _turned_s(start: Entry[AttemptStarted], end: Entry[AttemptEnded]) -> float:
    """How long the key was on, in s: as said, and no shorter than both clocks had it, the server's
    and the bench's, less the grace.
    """
    clocks = [
        (datetime.fromisoformat(b) - datetime.fromisoformat(a)).total_seconds()
        for a, b in ((start.time, end.time), (start.bench_time, end.bench_time))
    ]
    return max(float(end.body.after_s), min(clocks) - GRACE_S)


def _asked(samples: Sequence[RunSample]) -> tuple[OpenFigure, ...]:
    """Figures asked about that no later figure of their kind has answered."""
    found = [
        OpenFigure(t=s.t, question=s.asked, typed=s.oil.typed or s.oil.value, key="oil")
        for k, s in enumerate(samples)
        if s.asked
        and s.oil is not None
        and not any(oil_of(later) is not None or later.lamp_out for later in samples[k + 1 :])
    ]
    return tuple(found[-1:])


def _timing_words(plan: Plan, step: RunStep, samples: Sequence[RunSample]) -> tuple[str, ...]:
    """Ignition timing judged by its band, and by its state: vacuum on or off."""
    limit = plan.find_limit(step.timing)
    said = next((s for s in reversed(samples) if s.timing is not None), None)
    if limit is None or said is None or said.timing is None:
        return ()
    value, lo, hi = said.timing.figure("angle"), limit.figure("lo"), limit.figure("hi")
    clash = state_conflict(said.timing_state, limit.condition)
    if clash:
        return (f"Timing {short_words(said.timing)}: {clash}",)
    if not limit.given:
        return (f"Timing {short_words(said.timing)}: its band is not given",)
    low, high = (
        lo is not None and round9(value) < round9(lo),
        hi is not None and round9(value) > round9(hi),
    )
    return (
        (
            f"Timing {short_words(said.timing)}: "
            f"{'too late' if low else 'too early' if high else 'inside'}, "
            f"{limit.words()}{f', {limit.condition}' if limit.condition else ''}"
        ),
    )


def _tracks(
    samples: list[RunSample], pressure: Limit | None, due: float | None, coolant: Limit | None
) -> tuple[TrackFacts, ...]:
    tracks = []
    for key, name, unit, dimension, scale in TRACKS:
        points = tuple(
            (s.t, round9(figure.figure(dimension) * scale))
            for s in samples
            if (figure := getattr(s, key)) is not None and not (key == "oil" and s.asked)
        )
        lo = hi = None
        if key == "oil" and pressure is not None and pressure.figure("lo") is not None:
            lo = round9((pressure.figure("lo") or 0.0) * scale)
        if key == "coolant" and coolant is not None:
            hi = coolant.figure("hi")
        verdict = "not_read"
        if points:
            t, value = points[-1]
            low = lo is not None and value < lo and t >= (due or 0.0)
            verdict = "outside" if low or (hi is not None and value > hi) else "inside"
        if points or lo is not None or hi is not None:
            tracks.append(
                TrackFacts(
                    key=key,
                    name=name,
                    unit=unit,
                    lo=lo,
                    hi=hi,
                    lo_from=due or 0.0,
                    samples=points,
                    verdict=verdict,
                )
            )
    return tuple(tracks)
