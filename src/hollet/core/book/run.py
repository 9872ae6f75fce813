"""The first start in a build: attempts, their deadlines, and what makes the screen say STOP."""

from pydantic import BaseModel, ConfigDict

from hollet.core.book.entries import Entry, RunSample
from hollet.core.book.fold import BookState
from hollet.core.book.status import plan_of
from hollet.core.limits import Limit
from hollet.core.procedure.sheet import RunStep
from hollet.core.quantities.quantity import decimal_text, round9

__all__ = ["AttemptFacts", "Deadline", "TrackFacts", "attempt_facts", "attempts_of", "cranked_s"]

TRACKS = (("rpm", "Revs", "r/min", 1.0), ("oil_kpa", "Oil", "bar", 0.01), ("coolant_c", "Coolant", "°C", 1.0),
          ("timing_deg", "Timing", "°", 1.0))  # fmt: skip


class Deadline(BaseModel):
    """By `at_s` something must have been entered, else STOP with `reason`. Silence is never a pass."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    at_s: float
    kind: str
    reason: str
    what: str
    met: bool = False


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


def attempts_of(state: BookState, step: RunStep) -> tuple[AttemptFacts, ...]:
    """All attempts of a step that are not struck, oldest first."""
    return tuple(attempt_facts(state, step, attempt) for attempt in state.runs.get(step.id, []))


def attempt_facts(state: BookState, step: RunStep, attempt: str) -> AttemptFacts:
    """One attempt with its deadlines, courses and reason to stop."""
    entries = state.live(f"run:{attempt}")
    start = next(e for e in entries if e.kind == "attempt started")
    samples = sorted((s for e in entries if e.kind == "samples" for s in e.body.samples), key=lambda s: s.t)
    ends = [e for e in entries if e.kind == "attempt ended"]
    end, after = (ends[0], ends[-1]) if ends else (None, None)  # a later one adds the cause and what was changed
    plan = plan_of(state)
    pressure, by = plan.find_limit(step.pressure), plan.find_limit(step.pressure_by)
    wanted = pressure.figure("lo") if pressure else None
    due = by.figure("hi") if by else None
    showed = next((s.t for s in samples if s.lamp_out or _enough(s, wanted)), None)
    deadlines = _deadlines(start, due, showed, pressure)
    coolant = plan.find_limit(step.coolant)
    stop, stop_at = _stop(samples, deadlines, end, coolant, wanted, due)
    return AttemptFacts(
        id=attempt, number=start.body.number, step=step.id, rung=start.body.rung, started=start.time, who=start.who,
        isolated=start.body.isolated, expected=start.body.expected, limit_s=start.body.limit_s, gate=start.body.gate,
        gate_reasons=start.body.gate_reasons, deadlines=deadlines, tracks=_tracks(samples, pressure, due, coolant),
        stop=stop, stop_at=stop_at, ended=end is not None, after_s=end.body.after_s if end else None,
        end_reason=end.body.reason if end else None, passed=bool(end and end.body.passed and start.body.gate != "shut"),
        cause=after.body.cause if after else None, change=after.body.change if after else None,
        lamp_out=any(s.lamp_out for s in samples), pressure_at=showed,
        expected_seen=stop is None and (pressure is None or showed is not None),
    )  # fmt: skip


def _enough(sample: RunSample, wanted_kpa: float | None) -> bool:
    return wanted_kpa is not None and sample.oil_kpa is not None and round9(sample.oil_kpa) >= round9(wanted_kpa)


def _deadlines(start: Entry, due: float | None, showed: float | None, pressure: Limit | None) -> tuple[Deadline, ...]:
    found = []
    if due is not None:
        asked = f" of {pressure.lo} {pressure.unit}" if pressure and pressure.lo else ""
        met = showed is not None and round9(showed) <= round9(due)
        found.append(Deadline(at_s=due, kind="pressure", what=f"oil pressure{asked} or lamp out", met=met,
                              reason=f"No oil pressure entered by {decimal_text(due)} s: key off"))  # fmt: skip
    limit = start.body.limit_s
    found.append(Deadline(at_s=limit, kind="end", what="end of the time allowed", reason=f"The time allowed, {_clock(limit)}, is over: key off"))
    return tuple(sorted(found, key=lambda d: d.at_s))


def _clock(seconds: float) -> str:
    return f"{decimal_text(seconds)} s" if seconds < 90 else f"{decimal_text(seconds / 60, 0 if seconds % 60 == 0 else 1)} min"


def _stop(samples: list[RunSample], deadlines: tuple[Deadline, ...], end: Entry | None, coolant: Limit | None,
          wanted: float | None, due: float | None) -> tuple[str | None, float | None]:  # fmt: skip
    """The first reason to stop among what was entered, and its moment."""
    hottest = coolant.figure("hi") if coolant else None
    found: list[tuple[float, str]] = []
    for s in samples:
        if s.seen == "fuel leak":
            found.append((s.t, "Fuel leak: key off, no spark, extinguisher at hand"))
        if s.seen == "leak":
            found.append((s.t, "Leak seen: key off and look"))
        if s.seen in ("noise", "smoke", "glow"):
            found.append((s.t, f"{s.seen.capitalize()}: key off and look"))
        if coolant is not None and hottest is not None and s.coolant_c is not None and round9(s.coolant_c) > round9(hottest):
            found.append((s.t, f"Coolant {decimal_text(s.coolant_c)} °C, limit {coolant.hi} {coolant.unit}: key off"))
        late = due is not None and round9(s.t) > round9(due)
        if late and wanted is not None and s.oil_kpa is not None and round9(s.oil_kpa) < round9(wanted):
            found.append((s.t, f"Oil pressure {decimal_text(s.oil_kpa / 100, 1)} bar, asked {decimal_text(wanted / 100, 1)}: key off"))
    if end is not None:
        found += [(d.at_s, d.reason) for d in deadlines if not d.met and d.at_s < end.body.after_s]
    if not found:
        return None, None
    at, reason = min(found)
    return reason, at


def _tracks(samples: list[RunSample], pressure: Limit | None, due: float | None, coolant: Limit | None) -> tuple[TrackFacts, ...]:
    tracks = []
    for key, name, unit, scale in TRACKS:
        points = tuple((s.t, round9(getattr(s, key) * scale)) for s in samples if getattr(s, key) is not None)
        lo = hi = None
        if key == "oil_kpa" and pressure is not None and pressure.figure("lo") is not None:
            lo = round9((pressure.figure("lo") or 0.0) * scale)
        if key == "coolant_c" and coolant is not None:
            hi = coolant.figure("hi")
        verdict = "not_read"
        if points:
            t, value = points[-1]
            low = lo is not None and value < lo and t > (due or 0.0)
            verdict = "outside" if low or (hi is not None and value > hi) else "inside"
        if points or lo is not None or hi is not None:
            tracks.append(TrackFacts(key=key, name=name, unit=unit, lo=lo, hi=hi, lo_from=due or 0.0, samples=points, verdict=verdict))
    return tuple(tracks)


def cranked_s(attempts: tuple[AttemptFacts, ...]) -> float:
    """Seconds of cranking so far without oil pressure."""
    total = 0.0
    for attempt in attempts:
        total = 0.0 if attempt.pressure_at is not None else total + (attempt.after_s or 0.0)
    return total
