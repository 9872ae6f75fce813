"""The starter: how long it may turn, what it turned already, and its rest."""

from collections.abc import Sequence
from datetime import datetime

from pydantic import BaseModel, ConfigDict

from hollet.core.entries import AttemptEnded, AttemptStarted, BookState
from hollet.core.entries.status import plan_of
from hollet.core.procedure.kinds.run import RunStep
from hollet.core.steps.attempt import AttemptFacts

__all__ = ["RestFacts", "burst_limit", "cranked_s", "isolated_again", "rest_of"]

REST_S = 30.0
"""Rest of the starter between two bursts where the sheet gives none: twice a usual
burst, assumed.
"""


FRESH_S = 300.0
"""How long what was isolated may be named in one press; after that thing by thing."""


class RestFacts(BaseModel):
    """The rest of the starter: how long it is to be (assumed or given), and since when it rests."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    rest_s: float
    assumed: bool
    since: str


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
