"""Heat by the runs of a build: how often it went up and came down again, and whether it can be hot
now. Rules of thumb, all of them.
"""

from collections.abc import Sequence
from datetime import datetime, timedelta

from hollet.core.entries import AttemptEnded, AttemptStarted, BookState, Entry, Samples

__all__ = [
    "COLD_C",
    "COLD_H",
    "FELT_HOT_C",
    "FIRED",
    "heat_cycles",
    "may_be_warm",
    "ran_hot",
    "runs_now",
]

FIRED = ("fire", "run_on", "gear", "drive")
"""The rungs on which an engine burns fuel."""
HOT_C, COLD_H = 70.0, 4.0
"""A heat cycle: up to this coolant, and then so many hours of standing."""
FELT_HOT_C = 60.0
"""What is looked at hot is at least as hot as this."""
COLD_C = 40.0
"""What is looked at cold is no warmer than a hand."""
STILL_HOT = timedelta(hours=1)
"""How long after a hot run a system can still be called hot without a reading."""
LONG_RUN_S = 600.0
"""How long it ran, where no coolant was read, before it can be called hot."""
WARMS_S = 120.0
"""So long a run warms an engine, where no coolant was read (rule of thumb)."""
CYCLE_RUN_S = 1200.0
"""How long it ran, where no coolant was read, before that counts as a heat: assumed."""


def runs_now(state: BookState) -> bool:
    """Whether an engine that fires is running now, by its attempts."""
    ended = {e.body.attempt for e in state.all(AttemptEnded)}
    return any(e.body.attempt not in ended for e in _fired(state))


def ran_hot(state: BookState, now: str) -> bool:
    """Whether a run of the last hour, or one that goes on, made it hot: by the last coolant that
    was read in it, or, where none was, by ten minutes of running.
    """
    at = datetime.fromisoformat(now)
    for begun in _fired(state):
        end = _end(state, begun)
        last = datetime.fromisoformat(end.time) if end else at
        if at - last > STILL_HOT:
            continue
        read = _coolants(state, begun)
        if read and read[-1] >= FELT_HOT_C:
            return True
        if not read and (last - datetime.fromisoformat(begun.time)).total_seconds() >= LONG_RUN_S:
            return True
    return False


def may_be_warm(state: BookState, now: str) -> bool:
    """Whether a run of the last hours may have left it warmer than a hand: by the warmest coolant
    that was read in it, or, where none was, by two minutes of running.
    """
    at = datetime.fromisoformat(now)
    for begun in _fired(state):
        end = _end(state, begun)
        last = datetime.fromisoformat(end.time) if end else at
        if at - last > timedelta(hours=COLD_H):
            continue
        read, ran = _coolants(state, begun), last - datetime.fromisoformat(begun.time)
        if max(read, default=0.0) > COLD_C or (not read and ran.total_seconds() >= WARMS_S):
            return True
    return False


def heat_cycles(state: BookState, since: str, now: str) -> int:
    """How often it ran hot since a moment, and stood long enough to be cold again: fired anew while
    it is still hot, it goes on with the same cycle.
    """
    began = sorted(_fired(state), key=lambda e: e.time)
    gone, hot = 0, False
    for k, begun in enumerate(began):
        end = _end(state, begun)
        if begun.time >= since:
            hot = hot or _heated(state, begun, end)
        if end is None:
            continue
        until = began[k + 1].time if k + 1 < len(began) else now
        stood = datetime.fromisoformat(until) - datetime.fromisoformat(end.time)
        if stood >= timedelta(hours=COLD_H):
            gone, hot = gone + hot, False
    return gone


def _heated(
    state: BookState, begun: Entry[AttemptStarted], end: Entry[AttemptEnded] | None
) -> bool:
    read = _coolants(state, begun)
    if read or end is None:
        return max(read, default=0.0) >= HOT_C
    return end.body.after_s >= CYCLE_RUN_S


def _fired(state: BookState) -> Sequence[Entry[AttemptStarted]]:
    return [e for e in state.all(AttemptStarted) if e.body.rung in FIRED]


def _end(state: BookState, begun: Entry[AttemptStarted]) -> Entry[AttemptEnded] | None:
    return next(iter(state.each(AttemptEnded, "run", begun.body.attempt)), None)


def _coolants(state: BookState, begun: Entry[AttemptStarted]) -> list[float]:
    """The coolant in °C as it was read in a run, in order."""
    lines = state.each(Samples, "run", begun.body.attempt)
    samples = sorted((s for e in lines for s in e.body.samples), key=lambda s: s.t)
    return [s.coolant.figure("temperature") for s in samples if s.coolant is not None]
