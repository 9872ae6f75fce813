"""The first start in a build: attempts, their deadlines, and what makes the screen say STOP.

Clock, burst, total and rest are counted here, from acknowledged samples and from the clock. Samples
are judged whole: the last oil pressure and
lamp count for 15 s; older is no reading, asked for 5 s, then STOP.
"""

from collections.abc import Sequence
from datetime import datetime
from itertools import pairwise

from pydantic import BaseModel, ConfigDict

from hollet.core.entries import AttemptEnded, AttemptStarted, BookState, Entry, RunSample, Samples
from hollet.core.entries.status import plan_of
from hollet.core.limits import Limit
from hollet.core.procedure.kinds.run import RunStep
from hollet.core.procedure.plan import Plan
from hollet.core.quantities.quantity import Measured, decimal_text, round9
from hollet.core.running import STALE_S, Seen, oil_state
from hollet.core.states import state_conflict

__all__ = [
    "ASKED_S",
    "AttemptFacts",
    "Deadline",
    "OpenFigure",
    "RestFacts",
    "TrackFacts",
    "attempt_facts",
    "attempts_of",
    "burst_limit",
    "cranked_s",
    "isolated_again",
    "rest_of",
]

ASKED_S = 5.0
"""How long a figure that is too old is asked for before it is a stop."""
GRACE_S = 3.0
"""How much later than its second a sample may reach the server and still count at that second: a
press, a short word, the wire; assumed.
"""
REST_S = 30.0
"""Rest of the starter between two bursts where the sheet gives none: twice a usual
burst, assumed.
"""
FRESH_S = 300.0
"""How long what was isolated may be named in one press; after that thing by thing."""
TRACKS = (
    ("rpm", "Revs", "r/min", "speed", 1.0),
    ("oil", "Oil", "bar", "pressure", 0.01),
    ("coolant", "Coolant", "°C", "temperature", 1.0),
    ("timing", "Timing", "°", "angle", 1.0),
)


class Deadline(BaseModel):
    """By `at_s` something must have been entered, else STOP with `reason`; from `asked_from` it is
    asked for. Silence is never a pass.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    at_s: float
    asked_from: float | None = None
    kind: str
    reason: str
    what: str
    met: bool = False


class OpenFigure(BaseModel):
    """A figure that was kept and is asked about: it counts for nothing until it is written again
    with its unit, or as typed.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    t: float
    question: str
    typed: str
    key: str


class RestFacts(BaseModel):
    """The rest of the starter: how long it is to be (assumed or given), and since when it rests."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    rest_s: float
    assumed: bool
    since: str


class TrackFacts(BaseModel):
    """One measured course: samples as [t, value] in the unit shown, with its limits."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    key: str
    name: str
    unit: str
    lo: float | None = None
    hi: float | None = None
    lo_from: float = 0.0
    samples: tuple[tuple[float, float], ...] = ()
    verdict: str = "not_read"


class AttemptFacts(BaseModel):
    """One attempt as it stands; `stop` is the first reason to turn the key back."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    id: str
    number: int
    step: str
    rung: str
    started: str
    who: str
    isolated: tuple[str, ...]
    expected: str
    limit_s: float
    gate: str
    gate_reasons: tuple[str, ...]
    deadlines: tuple[Deadline, ...]
    tracks: tuple[TrackFacts, ...]
    stop: str | None = None
    stop_at: float | None = None
    ended: bool = False
    after_s: float | None = None
    end_reason: str | None = None
    passed: bool = False
    cause: str | None = None
    change: str | None = None
    lamp_out: bool = False
    pressure_at: float | None = None
    expected_seen: bool = False
    last_s: float = 0.0
    asked: tuple[OpenFigure, ...] = ()
    words: tuple[str, ...] = ()


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
    showed = next((s.t for s in counted if s.lamp_out or _enough(s, wanted)), None)
    deadlines = _deadlines(start, due, showed, pressure, counted)
    coolant = plan.find_limit(step.coolant)
    turned = _turned_s(start, end) if end else None
    stop, stop_at = _stop(counted, deadlines, turned, coolant, wanted, due)
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
        passed=bool(end and end.body.passed and start.body.gate != "shut"),
        cause=after.body.cause if after else None,
        change=after.body.change if after else None,
        lamp_out=any(s.lamp_out for s in samples),
        pressure_at=showed,
        expected_seen=stop is None and (pressure is None or showed is not None),
        asked=_asked(samples),
        last_s=samples[-1].t if samples else 0.0,
        words=_timing_words(plan, step, samples),
    )


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


def _oil(sample: RunSample) -> float | None:
    """Oil pressure in kPa as it counts: one that is asked about counts for nothing."""
    return (
        sample.oil.figure("pressure") if sample.oil is not None and sample.asked is None else None
    )


def _enough(sample: RunSample, wanted_kpa: float | None) -> bool:
    oil = _oil(sample)
    return (
        wanted_kpa is not None and oil is not None and oil > 0 and round9(oil) >= round9(wanted_kpa)
    )


def _asked(samples: Sequence[RunSample]) -> tuple[OpenFigure, ...]:
    """Figures asked about that no later figure of their kind has answered."""
    found = [
        OpenFigure(t=s.t, question=s.asked, typed=s.oil.typed or s.oil.value, key="oil")
        for k, s in enumerate(samples)
        if s.asked
        and s.oil is not None
        and not any(_oil(later) is not None or later.lamp_out for later in samples[k + 1 :])
    ]
    return tuple(found[-1:])


def _deadlines(
    start: Entry[AttemptStarted],
    due: float | None,
    showed: float | None,
    pressure: Limit | None,
    samples: Sequence[RunSample],
) -> tuple[Deadline, ...]:
    found = []
    if due is not None:
        asked = f" of {pressure.lo} {pressure.unit}" if pressure and pressure.lo else ""
        met = showed is not None and round9(showed) <= round9(due)
        found.append(
            Deadline(
                at_s=due,
                kind="pressure",
                what=f"oil pressure{asked} or lamp out",
                met=met,
                reason=f"No oil pressure{asked} entered by {decimal_text(due)} s: key off",
            )
        )
        read = [s.t for s in samples if _oil(s) is not None or s.lamp_out]
        if met and read:
            old = max(max(read), due) + STALE_S
            found.append(
                Deadline(
                    at_s=old + ASKED_S,
                    asked_from=old,
                    kind="reading",
                    what="oil pressure, read again",
                    reason="No reading of the oil pressure for "
                    f"{decimal_text(STALE_S + ASKED_S)} s: key off",
                )
            )
    limit = start.body.limit_s
    found.append(
        Deadline(
            at_s=limit,
            kind="end",
            what="end of the time allowed",
            reason=f"The time allowed, {_clock(limit)}, is over: key off",
        )
    )
    return tuple(sorted(found, key=lambda d: d.at_s))


def _clock(seconds: float) -> str:
    return (
        f"{decimal_text(seconds, 0 if seconds == int(seconds) else 1)} s"
        if seconds < 90
        else f"{decimal_text(seconds / 60, 0 if seconds % 60 == 0 else 1)} min"
    )


SEEN_WORDS = {
    "fire": "Fire: key off, people away, extinguisher at the foot of it",
    "fuel leak": "Fuel leak: key off, no spark, extinguisher at hand",
    "leak": "Leak seen: key off and look",
}


def _stop(
    samples: list[RunSample],
    deadlines: tuple[Deadline, ...],
    turned: float | None,
    coolant: Limit | None,
    wanted: float | None,
    due: float | None,
) -> tuple[str | None, float | None]:
    """The first reason to stop among what was entered, and its moment; whole samples are judged,
    and a deadline that passed stays passed.
    """
    hottest = coolant.figure("hi") if coolant else None
    found: list[tuple[float, str]] = []
    seen = Seen()
    for s in samples:
        seen = seen.with_(
            s.t, s.rpm.figure("speed") if s.rpm is not None else None, _oil(s), s.lamp_out
        )
        if s.seen is not None:
            found.append((s.t, SEEN_WORDS.get(s.seen, f"{s.seen.capitalize()}: key off and look")))
        hot = s.coolant.figure("temperature") if s.coolant is not None else None
        if (
            coolant is not None
            and hottest is not None
            and hot is not None
            and round9(hot) > round9(hottest)
        ):
            found.append(
                (s.t, f"Coolant {_short(s.coolant)}, limit {coolant.hi} {coolant.unit}: key off")
            )
        if due is not None and wanted is not None and round9(s.t) >= round9(due):
            state = oil_state(seen, s.t, lambda _: wanted, STALE_S)
            if state == "no_pressure" and seen.oil is not None:
                found.append(
                    (
                        s.t,
                        (
                            f"Oil pressure {decimal_text(seen.oil / 100, 1)} bar, asked "
                            f"{decimal_text(wanted / 100, 1)}: key off"
                        ),
                    )
                )
    until = turned if turned is not None else max((s.t for s in samples), default=0.0)
    # what had to be shown by then is missing at that very second; the time allowed may be used to
    # its end
    found += [
        (d.at_s, d.reason)
        for d in deadlines
        if not d.met
        and (
            round9(d.at_s) < round9(until) or (d.kind != "end" and round9(d.at_s) == round9(until))
        )
    ]
    if turned is not None or samples:
        found += _gaps(samples, due, until)
    if not found:
        return None, None
    at, reason = min(
        found, key=lambda f: f[0]
    )  # what was seen or read comes before what is missing
    return reason, at


def _gaps(samples: Sequence[RunSample], due: float | None, until: float) -> list[tuple[float, str]]:
    """Stretches in which nobody read the oil pressure for too long, once it had to be there."""
    read = sorted(s.t for s in samples if _oil(s) is not None or s.lamp_out)
    if due is None or not read:
        return []
    most = STALE_S + ASKED_S
    marks = [max(due, read[0]), *(t for t in read if t > due), until]
    return [
        (a + most, f"No reading of the oil pressure for {decimal_text(most)} s: key off")
        for a, b in pairwise(marks)
        if round9(b - a) > most
    ]


def _short(figure: Measured | None) -> str:
    return "" if figure is None else f"{figure.value} {figure.unit}"


def _timing_words(plan: Plan, step: RunStep, samples: Sequence[RunSample]) -> tuple[str, ...]:
    """Ignition timing judged by its band, and by its state: vacuum on or off."""
    limit = plan.find_limit(step.timing)
    said = next((s for s in reversed(samples) if s.timing is not None), None)
    if limit is None or said is None or said.timing is None:
        return ()
    value, lo, hi = said.timing.figure("angle"), limit.figure("lo"), limit.figure("hi")
    clash = state_conflict(said.timing_state, limit.condition)
    if clash:
        return (f"Timing {_short(said.timing)}: {clash}",)
    if not limit.given:
        return (f"Timing {_short(said.timing)}: its band is not given",)
    low, high = (
        lo is not None and round9(value) < round9(lo),
        hi is not None and round9(value) > round9(hi),
    )
    return (
        (
            f"Timing {_short(said.timing)}: "
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


def burst_limit(seconds: float, most: float | None, attempts: Sequence[AttemptFacts]) -> float:
    """How long an attempt may last: its own limit, and what is left of all cranking without
    pressure; STOP comes then, not at the next start.
    """
    left = (most - cranked_s(attempts)) if most is not None else seconds
    return min(seconds, left) if left > 0 else seconds


def rest_of(state: BookState, step: RunStep, now: str) -> tuple[RestFacts, float] | None:
    """The rest of the starter after the last burst, and how much of it is left in s; None where it
    is over, or nothing was cranked.
    """
    if step.rung != "crank":
        return None
    last = state.newest(AttemptEnded, "step", step.id)
    if last is None:
        return None
    limit = plan_of(state).find_limit(step.rest)
    given = limit.figure("lo") or limit.figure("target") if limit is not None else None
    rest = given if given is not None else REST_S
    left = rest - (datetime.fromisoformat(now) - datetime.fromisoformat(last.time)).total_seconds()
    return (
        (RestFacts(rest_s=rest, assumed=given is None, since=last.time), left) if left > 0 else None
    )


def isolated_again(state: BookState, step: RunStep, now: str) -> tuple[bool, str]:
    """Whether what is isolated may be named in one press, and who named it last: not when something
    was touched since, nor after five minutes.
    """
    last = state.newest(AttemptStarted, "step", step.id)
    if last is None:
        return False, ""
    newest = (state.entries[i] for i in state.order[-200:])
    touched = any(entry.body.touches and entry.seq > last.seq for entry in newest)
    fresh = (
        datetime.fromisoformat(now) - datetime.fromisoformat(last.time)
    ).total_seconds() <= FRESH_S
    return fresh and not touched, last.who


def cranked_s(attempts: Sequence[AttemptFacts]) -> float:
    """Seconds of cranking so far without oil pressure."""
    total = 0.0
    for attempt in attempts:
        total = 0.0 if attempt.pressure_at is not None else total + (attempt.after_s or 0.0)
    return total
