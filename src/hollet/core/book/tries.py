"""What was tried on stuck parts, and what may be tried next."""

from datetime import datetime

from hollet.core.entries import BookState, Done, Tried
from hollet.core.entries.status import plan_of
from hollet.core.procedure.sheet import Step
from hollet.core.procedure.stuck import (
    Near,
    StuckFacts,
    StuckView,
    Try,
    all_said,
    stuck_ladder,
)

__all__ = ["ladder_of", "said_of", "tries_of"]


def ladder_of(
    state: BookState, step: Step, part: str, facts: StuckFacts, now: datetime
) -> tuple[StuckView, ...]:
    """The ladder for a stuck part at a step: by what is said now, by all that was done and said of
    it, and by what the step itself opens.
    """
    here = facts.model_copy(update={"near": (*facts.near, *_opened(state, step))})
    return stuck_ladder(state.lore.stuck, tries_of(state, step, part, now), here)


def said_of(state: BookState, step: Step, part: str, now: datetime) -> StuckFacts:
    """What was said of it before, and what the step opens: nobody has to say it again."""
    return all_said(tries_of(state, step, part, now), StuckFacts(near=_opened(state, step)))


def _opened(state: BookState, step: Step) -> tuple[Near, ...]:
    """Fuel is near where the step opens what held it: drained leaves vapour."""
    kinds = {fluid.id: fluid.kind for fluid in plan_of(state).fluid}
    return ("fuel",) if any(kinds.get(name) == "fuel" for name in step.holds) else ()


def tries_of(state: BookState, step: Step, part: str, now: datetime) -> tuple[Try, ...]:
    """What was done to a stuck part, oldest first, with how long ago. A soak counts wherever this
    part was soaked: at another step by its name, or in the soak evening that the sheet gives this
    step, and opening that evening again takes no oil off.
    """
    named = part.casefold()
    soak = step.stuck.soak if step.stuck else None
    evenings = state.each(Done, "step", soak) if soak else []
    found = [
        Try(rung="soak", minutes=_ago(e.time, now), ago_minutes=_ago(e.time, now))
        for e in evenings[-1:]
    ]
    for entry in state.all(Tried):
        body = entry.body
        if body.part.casefold() != named or (body.step != step.id and body.rung != "soak"):
            continue
        found.append(
            Try(
                rung=body.rung,
                minutes=body.time.figure("time") / 60,
                came=body.came,
                ago_minutes=_ago(entry.time, now),
                near=body.near,
                cleaner=body.cleaner,
            )
        )
    return tuple(found)


def _ago(time: str, now: datetime) -> float:
    return max(0.0, (now - datetime.fromisoformat(time)).total_seconds() / 60)
