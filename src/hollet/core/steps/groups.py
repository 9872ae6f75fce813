"""Loose, adjust, lock: how far a group has come, where it may stand, and which locks count.

A lock counts only if everything was in by hand first and the place was found after that: what was
tightened earlier held the thing that was to move. When the place is looked for again, every lock is
open again.
"""

from collections.abc import Iterable, Sequence
from typing import NamedTuple

from hollet.core.entries import BookState, Done, Entry, Fastener
from hollet.core.entries.status import last_as, plan_of, status_of, whole_of
from hollet.core.procedure.groups import Group
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.sheet import Sheet

__all__ = ["Place", "group_with", "place_of", "room", "too_early"]


FOUND = ("done", "not_there")
"""A step of the place that was skipped has found nothing."""
LOOSE_WORDS = ("as found", "out", "left out on purpose", "by hand", "loosened again")


Lane = tuple[float, float | None, float | None, float, int]


class Place(NamedTuple):
    """Where a group stands: which of its steps are still to be done, and since which line a lock
    counts (none while one of them is open).
    """

    missing: tuple[BaseStep, ...]
    since: int | None


def group_with(plan: Sheet, joint: str) -> Group | None:
    """The group that a joint is locked in."""
    return plan.derived("groups", plan.step, _groups).get(joint)


def _groups(steps: Sequence[BaseStep]) -> dict[str, Group]:
    return {
        joint: group
        for step in steps
        if (group := step.locks()) is not None
        for joint in step.tightens()
    }


def place_of(state: BookState, group: Group) -> Place:
    """How far its place is found: every step of it done, in the order of the log. One that was
    taken out of the plan by hand has found nothing; one that this vehicle has not is not asked for.
    """
    plan, whole = plan_of(state), whole_of(state)
    names = (group.hand, *group.set_by)
    named = [step for name in names if (step := plan.find_step(name))]
    gone = [step for n in names if n in whole.retired and (step := whole.find_step(n))]
    missing = (*gone, *(s for s in named if status_of(state, s).status not in FOUND))
    if missing:
        return Place(missing, None)
    seqs = [entry.seq for s in named if (entry := last_as(state, s.id, Done)) is not None]
    return Place((), max(seqs, default=0))


def too_early(state: BookState, group: Group | None, entry: Entry[Fastener] | None) -> bool:
    """Whether a bolt was tightened before the place of its group was found, or before it was looked
    for again.
    """
    if group is None or entry is None or entry.body.tightness in LOOSE_WORDS:
        return False
    since = place_of(state, group).since
    return since is None or entry.seq < since


def room(
    lanes: Iterable[Lane],
) -> tuple[float | None, float | None]:
    """How far the adjuster may go from where it stands now: the least and the most that keeps all
    lanes inside, guarded by their uncertainty; None where nothing bounds it.

    Parameters
    ----------
    lanes : iterable of (value, lo, hi, U, way)
        Lengths in mm; `way` is 1 where the value grows with the adjuster, -1 where it shrinks.

    Examples
    --------
    >>> room([(20.0, 18.0, None, 0.5, 1), (12.0, 10.0, None, 0.5, -1)])
    (-1.5, 1.5)
    """
    least: float | None = None
    most: float | None = None
    for value, lo, hi, big_u, way in lanes:
        down = None if lo is None else lo + big_u - value
        up = None if hi is None else hi - big_u - value
        low, high = (down, up) if way == 1 else (_minus(up), _minus(down))
        least = low if least is None else least if low is None else max(least, low)
        most = high if most is None else most if high is None else min(most, high)
    return least, most


def _minus(value: float | None) -> float | None:
    return None if value is None else -value
