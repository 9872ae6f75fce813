"""What a hand lays on, drives home, counts out and changes at a step; what may come off again."""

from collections.abc import Mapping, Sequence
from typing import Any

from hollet.core.book.care import counts_of, laid_of, seats_of, warms_of
from hollet.core.book.debts import debts_behind
from hollet.core.book.looked import looked_at
from hollet.core.book.ready import ready_to_lift
from hollet.core.book.sums import kept_sums
from hollet.core.entries import BookState, PartChanged
from hollet.core.entries.status import StepStatus, plan_of
from hollet.core.instruments import Instrument
from hollet.core.procedure.sheet import Step
from hollet.core.steps.lifting import lift_of
from hollet.core.steps.moving import moving_of
from hollet.core.steps.tighten import joint_facts, joint_in_hand
from hollet.core.view import View

__all__ = ["AgainRow", "ComesOff", "DepthTool", "again_at", "care_at", "comes_off"]


class AgainRow(View):
    """A part that may be changed alone, the steps read again then, and how often it was."""

    what: str
    steps: tuple[str, ...]
    times: int


class OffRow(View):
    """A step, done already, that may have to come off again."""

    step: str
    name: str


class ComesOff(View):
    """What may have to come off again for a part that goes in first: the joint begun in hand, and
    what was put on last.
    """

    begun: str | None
    steps: tuple[OffRow, ...]


class DepthTool(View):
    """A tool that reads a depth."""

    id: str
    code: str


MOST_OFF = 6


def comes_off(state: BookState, step: Step, known: Mapping[str, StepStatus]) -> ComesOff:
    """What was put on last, the newest first, and the joint that is begun."""
    joint = joint_in_hand(state, step)
    facts = joint_facts(state, joint) if joint is not None else None
    on = [
        s
        for s in plan_of(state).step
        if known[s.id].status == "done"
        and s.stage not in ("plan", "take_down", "inspect", "order")
        and (s.tightens() or s.closes or s.refits or s.parts)
    ]
    on.sort(key=lambda s: known[s.id].time, reverse=True)
    return ComesOff(
        begun=f"{facts.name}, {facts.progress}" if facts is not None and facts.begun else None,
        steps=tuple(OffRow(step=s.id, name=f"{s.number} {s.title}") for s in on[:MOST_OFF]),
    )


def care_at(state: BookState, step: Step, tools: Sequence[Instrument], now: str) -> dict[str, Any]:
    """What is laid on, driven home, counted out and looked at again, and the tools for a depth."""
    depths = [t for t in tools if not t.retired and t.kind in ("caliper", "depth gauge")]
    return {
        "lays": laid_of(state, step, now),
        "seats": seats_of(state, step),
        "warms": warms_of(state, step, now),
        "sums": kept_sums(state, step.id),
        "counts": counts_of(state, step),
        "behind": debts_behind(state, step, now),
        "looks": looked_at(state, step, tools, now),
        "lift": lift_of(state, step, now) if step.lifts else None,
        "ready": ready_to_lift(state, step, now),
        "moves_unit": step.moves is not None and len(step.people) > 1,
        "moving": moving_of(state, step, now) if step.moves is not None else None,
        "depth_tools": tuple(DepthTool(id=t.id, code=t.code) for t in depths if step.seats),
    }


def again_at(state: BookState, step: Step) -> tuple[AgainRow, ...]:
    """What is read again when one part alone is changed."""
    plan = plan_of(state)
    changed = [e.body.what for e in state.each(PartChanged, "step", step.id)]
    return tuple(
        AgainRow(
            what=again.what,
            steps=tuple(
                f"{found.number} {found.title}"
                for name in again.steps
                if (found := plan.find_step(name)) is not None
            ),
            times=changed.count(again.what),
        )
        for again in step.again
    )
