"""The end of a group: what is done after its last lock."""

from hollet.core.entries import BookState, Confirmed
from hollet.core.entries.status import plan_of
from hollet.core.procedure.kinds import BaseStep
from hollet.core.steps.tighten import joint_facts

__all__ = ["last_seen"]


def last_seen(state: BookState, step: BaseStep) -> bool:
    """Whether what comes last was looked at since the last lock."""
    group, plan = step.locks(), plan_of(state)
    if group is None or group.last is None:
        return True
    joints = (joint for name in step.tightens() if (joint := plan.find_joint(name)) is not None)
    bolts = (bolt.entry for joint in joints for bolt in joint_facts(state, joint).bolts)
    pulled = max((state.entries[entry].seq for entry in bolts if entry), default=0)
    presses = state.each(Confirmed, "step", step.id)
    return any(press.body.what == group.last and press.seq > pulled for press in presses)
