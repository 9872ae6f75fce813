"""What was tried on stuck parts, and what may be tried next."""

import re
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

AROUND: tuple[Near, ...] = ("fuel", "battery", "airbag")
"""What is near one part of a step is near the others."""


def ladder_of(
    state: BookState, step: Step, part: str, facts: StuckFacts, now: datetime
) -> tuple[StuckView, ...]:
    """The ladder for a stuck part at a step: by what is said now, by all that was done and said of
    it, and by what the step itself opens.
    """
    here = all_said(_around(state, step, now), facts)
    return stuck_ladder(state.lore.stuck, tries_of(state, step, part, now), here)


def said_of(state: BookState, step: Step, part: str, now: datetime) -> StuckFacts:
    """What was said of it before, and what the step opens: nobody has to say it again."""
    return all_said((*_around(state, step, now), *tries_of(state, step, part, now)), StuckFacts())


def _around(state: BookState, step: Step, now: datetime) -> tuple[Try, ...]:
    """What holds for every part of a step, whatever it is called: what burns or goes off near one
    of them, and chlorine that was sprayed there. Fuel is near where the step opens what held it:
    drained leaves vapour.
    """
    kinds = {fluid.id: fluid.kind for fluid in plan_of(state).fluid}
    opened = any(kinds.get(name) == "fuel" for name in step.holds)
    found = [Try(rung="", minutes=0, near=("fuel",))] if opened else []
    for entry in state.each(Tried, "step", step.id):
        near = tuple(n for n in entry.body.near if n in AROUND)
        cleaner = entry.body.cleaner if entry.body.cleaner == "with chlorine" else "none"
        found.append(
            Try(rung="", minutes=0, ago_minutes=_ago(entry.time, now), near=near, cleaner=cleaner)
        )
    return tuple(found)


def _named(part: str) -> str:
    """A part by its name, however it is spaced or capitalised."""
    return re.sub(r"[\W_]+", "", part).casefold()


def tries_of(state: BookState, step: Step, part: str, now: datetime) -> tuple[Try, ...]:
    """What was done to a stuck part, oldest first, with how long ago. A soak counts wherever this
    part was soaked: at another step by its name, or in the soak evening that the sheet gives this
    step, and opening that evening again takes no oil off.
    """
    named = _named(part)
    soak = step.stuck.soak if step.stuck else None
    evenings = state.each(Done, "step", soak) if soak else []
    found = [
        Try(rung="soak", minutes=_ago(e.time, now), ago_minutes=_ago(e.time, now))
        for e in evenings[-1:]
    ]
    for entry in state.all(Tried):
        body = entry.body
        if _named(body.part) != named or (body.step != step.id and body.rung != "soak"):
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
