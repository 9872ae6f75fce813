"""What was tried on stuck parts."""

from datetime import datetime

from hollet.core.entries import BookState, Done, Tried
from hollet.core.entries.status import last_as
from hollet.core.procedure.sheet import Step
from hollet.core.procedure.stuck import Try

__all__ = ["tries_of"]


def tries_of(
    state: BookState, step: Step, part: str, now: datetime | None = None
) -> tuple[Try, ...]:
    """What was done to a stuck part, oldest first; with how long ago each was, where the moment is
    given. A soak counts wherever this part was soaked: at another step by its name, or in the
    soak evening that the sheet gives this step.
    """
    named = part.casefold()
    evening = last_as(state, step.stuck.soak, Done) if step.stuck and step.stuck.soak else None
    found = []
    if evening is not None:
        age = _ago(evening.time, now) if now is not None else 0.0
        found.append(Try(rung="soak", minutes=age, ago_minutes=age))
    for entry in state.all(Tried):
        body = entry.body
        if body.part.casefold() != named or (body.step != step.id and body.rung != "soak"):
            continue
        found.append(
            Try(
                rung=body.rung,
                minutes=body.time.figure("time") / 60,
                came=body.came,
                ago_minutes=_ago(entry.time, now) if now is not None else 0.0,
                near=body.near,
                cleaner=body.cleaner,
            )
        )
    return tuple(found)


def _ago(time: str, now: datetime) -> float:
    return max(0.0, (now - datetime.fromisoformat(time)).total_seconds() / 60)
