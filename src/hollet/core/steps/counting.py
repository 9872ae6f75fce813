"""How many bolts a joint has: counted by somebody, or as many as its bag holds, or only usual."""

from typing import NamedTuple

from hollet.core.entries import Bagged, BookState
from hollet.core.entries.status import plan_of
from hollet.core.procedure.joints import Joint
from hollet.core.procedure.pieces import BagLine
from hollet.core.procedure.sheet import Step

__all__ = ["Count", "count_of"]

USUAL = "; that many is usual, nobody has counted them"


class Count(NamedTuple):
    """Whether the number is known, how many came off into bags, and what the joint says of it."""

    known: bool
    bagged: int | None
    words: str


def count_of(state: BookState, joint: Joint) -> Count:
    """What is known of the number of bolts of a joint.

    Somebody's own count stands. A sheet of one vehicle is believed as long as no bag holds another
    number; a sheet for any vehicle only says what is usual.
    """
    bagged, drawn = _bagged(state, joint), len(joint.layout.names())
    if joint.counted:
        return Count(True, bagged, "")
    if joint.counted is False:
        return Count(False, bagged, USUAL)
    if bagged in (None, drawn):
        return Count(True, bagged, "")
    return Count(False, bagged, f"; {bagged} came off into bags, {drawn} are drawn: count them")


def _bagged(state: BookState, joint: Joint) -> int | None:
    """The fasteners of a joint that went into bags; None while a step with some of them has bagged
    nothing, or where its lines do not tell which are the joint's.
    """
    found = [_of_step(state, step, joint) for step in plan_of(state).step if _has(step, joint)]
    return None if not found or None in found else sum(n for n in found if n is not None)


def _has(step: Step, joint: Joint) -> bool:
    return any(step.back_into(line) == joint.id for line in step.bag_specs())


def _of_step(state: BookState, step: Step, joint: Joint) -> int | None:
    lines = [line for e in state.each(Bagged, "step", step.id) for line in e.body.lines]
    if not lines:
        return None
    if all(step.back_into(spec) == joint.id for spec in step.bag_specs()):
        return sum(line.count for line in lines)
    own = {_kind(s) for s in step.bag_specs() if step.back_into(s) == joint.id}
    others = {_kind(s) for s in step.bag_specs() if step.back_into(s) != joint.id}
    told = {_kind(line) for line in lines}
    if own & others or not told <= own | others:
        return None
    return sum(line.count for line in lines if _kind(line) in own)


def _kind(line: BagLine) -> tuple[str, str]:
    return line.size.casefold(), line.length or ""
