"""What a fastener brings with it from before its joint came out: its one use, or that it broke."""

from collections.abc import Sequence

from hollet.core.entries import Entry, Fastener
from hollet.core.procedure.joints import Joint
from hollet.core.steps.bolt import LOOSE, BoltFacts, is_out

__all__ = ["with_past"]


def with_past(
    joint: Joint, facts: BoltFacts, acts: Sequence[Entry[Fastener]], out: int
) -> BoltFacts:
    """How a bolt stands with all that it ever went through; `out` is the line with which the joint
    came out, 0 where it did not.
    """
    told: dict[str, object] = {}
    if _broke(joint, acts, out):
        told = {"broken": True, "over": True}
    elif joint.one_use and _is_spent(joint, acts, out):
        told = {"used": True}
    if not told:
        return facts
    todo = "fresh" if facts.tightness == "out" else "out"
    return facts.model_copy(update={**told, "todo": todo, "final": False})


def _broke(joint: Joint, acts: Sequence[Entry[Fastener]], out: int) -> bool:
    """Whether it yielded, stripped or bottomed before the joint came out, and is no fresh one."""
    broken = False
    for act in acts:
        broken = act.body.act != "fresh" and (broken or (act.seq < out and is_out(joint, act.body)))
    return broken


def _is_spent(joint: Joint, acts: Sequence[Entry[Fastener]], out: int) -> bool:
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
