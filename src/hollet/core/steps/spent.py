"""Fasteners for one use: which of them had it."""

from collections.abc import Sequence

from hollet.core.entries import Entry, Fastener
from hollet.core.procedure.joints import Joint
from hollet.core.steps.bolt import LOOSE

__all__ = ["spent"]


def spent(joint: Joint, acts: Sequence[Entry[Fastener]], out: int) -> bool:
    """Whether a bolt for one use had its last stage, and is loose or out again with no fresh one in
    its place; `out` is the line with which the joint came out, 0 where it did not.
    """
    used = _spent(joint, [a for a in acts if a.seq < out], used=False)
    return _spent(joint, [a for a in acts if a.seq > out], used=used, stays=True)


def _spent(
    joint: Joint, acts: Sequence[Entry[Fastener]], *, used: bool, stays: bool = False
) -> bool:
    drawn = False
    for act in acts:
        if act.body.act == "fresh":
            drawn = used = False
        elif act.body.stage == len(joint.stage):
            drawn = True
        elif act.body.tightness in LOOSE and drawn:
            used = True
    return used or (drawn and not stays)
