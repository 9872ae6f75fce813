"""What the last stage of a joint waits for, and what is looked at again after it."""

from collections.abc import Sequence

from hollet.core.entries import BookState, Confirmed, Done, Skipped
from hollet.core.procedure.joints import Joint
from hollet.core.steps.looks import times_good

__all__ = ["condition_of", "newest_load", "recheck_due"]


def newest_load(state: BookState) -> tuple[int, int]:
    """How often what carries the vehicle changed, and with which line it did so last."""
    load = state.live("load")
    return len(load), load[-1].seq if load else 0


def condition_of(state: BookState, joint: Joint, steps: Sequence[str]) -> str | None:
    """What the last stage waits for and nobody has seen, or not since what carries the vehicle
    changed: a jack set again ends "weight on the wheels".
    """
    if joint.wait_for is None:
        return None
    seen = (e for step in steps for e in state.each(Confirmed, "step", step))
    pressed = max((e.seq for e in seen if e.body.what == joint.wait_for), default=0)
    return joint.wait_for if pressed <= newest_load(state)[-1] else None


def recheck_due(state: BookState, joint: Joint) -> bool:
    """Whether the step that looks at it again is still to come; of a safety joint no reason passes
    it over.
    """
    again = joint.recheck
    if again is None:
        return False
    rounds = sum(not when.trip for when in joint.again)
    if rounds and times_good(state, joint) >= rounds:
        return False
    if state.each(Done, "step", again):
        return rounds > 0
    return joint.safety is not None or not state.each(Skipped, "step", again)
