"""The order of the plan where no reason says it: nothing is lifted in while something of it is
still being built up, no rung is climbed while a step that shuts it is open, nothing settles before.
"""

from collections.abc import Iterable

from hollet.core.procedure.plan import Plan
from hollet.core.procedure.sheet import Step, blocks_of
from hollet.core.procedure.words import RUNGS

__all__ = ["first_by_stage"]

BENCH = ("prepare", "build_up")
LADDER = list(RUNGS)


def first_by_stage(plan: Plan, step: Step, still: Iterable[Step]) -> tuple[Step, ...]:
    """The open steps that come before this one by their stage or by the ladder alone; never one
    that itself waits for it.
    """
    run = step.as_run()
    if run is not None:
        rung = LADDER.index(run.rung)
        found = (o for o in still if o.as_run() is None and _shuts(plan, o, rung))
    elif step.stage == "settle":
        found = (o for o in still if o.stage != "settle")
    elif step.lifts and step.stage == "fit_in":
        found = (o for o in still if o.stage in BENCH)
    else:
        return ()
    return tuple(o for o in found if o.id != step.id and not _waits(plan, o, step.id, set()))


def _shuts(plan: Plan, other: Step, rung: int) -> bool:
    blocked = blocks_of(plan, other)
    return blocked in LADDER and LADDER.index(blocked) <= rung


def _waits(plan: Plan, step: Step, target: str, seen: set[str]) -> bool:
    """Whether a step waits for the target, through others too."""
    if step.id in seen:
        return False
    seen.add(step.id)
    for link in step.after:
        before = plan.find_step(link.step)
        if link.step == target or (before is not None and _waits(plan, before, target, seen)):
            return True
    return False
