"""Whether a vehicle has been driven, or was hot and is cold again, by the facts that stand."""

from datetime import datetime, timedelta

from hollet.core.entries import AttemptEnded, AttemptStarted, BookState, OdometerSaid, TrialDriven
from hollet.core.procedure.kinds import BaseStep
from hollet.core.steps.heat import COLD_H, FIRED, heat_cycles

__all__ = ["NOT_COLD", "NOT_DRIVEN", "not_yet"]

NOT_DRIVEN = "nothing says that it was driven: no drive, no trial, no odometer before and after"
NOT_COLD = "no run has made it hot and left it to stand: it is looked at cold, after one heat cycle"


def not_yet(state: BookState, step: BaseStep, now: str) -> str | None:
    """Why what is looked at after a drive, or cold after a heat cycle, cannot be looked at yet;
    None where the log bears it out. `now` is UTC.
    """
    if step.vehicle == "driven":
        return None if state.all(TrialDriven) or _drove(state) or _farther(state) else NOT_DRIVEN
    if step.vehicle != "cold":
        return None
    stood = _stood(state, now)
    if stood is not None and stood < timedelta(hours=COLD_H):
        left = timedelta(hours=COLD_H) - stood
        return f"it ran a short while ago: cold in about {left.total_seconds() / 3600:.1f} h"
    return None if heat_cycles(state, "", now) else NOT_COLD


def _drove(state: BookState) -> bool:
    ended = {e.body.attempt for e in state.all(AttemptEnded)}
    return any(
        e.body.rung == "drive" and e.body.attempt in ended for e in state.all(AttemptStarted)
    )


def _farther(state: BookState) -> bool:
    said = state.each(OdometerSaid, "vehicle", "odometer")
    read = [e.body.value.figure("distance") for e in said]
    return bool(read) and read[-1] > min(read)


def _stood(state: BookState, now: str) -> timedelta | None:
    """How long ago it ran last; nothing where it is running, None where it never ran."""
    fired = {e.body.attempt for e in state.all(AttemptStarted) if e.body.rung in FIRED}
    ends = {e.body.attempt: e.time for e in state.all(AttemptEnded)}
    if not fired:
        return None
    if fired - set(ends):
        return timedelta()
    last = max(ends[attempt] for attempt in fired)
    return datetime.fromisoformat(now) - datetime.fromisoformat(last)
