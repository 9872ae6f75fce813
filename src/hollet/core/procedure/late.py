"""A forgotten step put in late: what was done already and stands on the way, and what it costs to
take that off again.
"""

from collections.abc import Set
from dataclasses import dataclass

from hollet.core.procedure.sheet import Sheet, Step

__all__ = ["OFF_AGAIN", "Late", "hours_of", "late_insertion"]

OFF_AGAIN = (
    "access closes",
    "contamination",
    "load needed",
    "drying",
)  # undoing the later step gives the chance back
"""Kinds of reason that taking off mends; a setting lost, a danger passed or a spill cannot be taken
off again.
"""


@dataclass(frozen=True, slots=True)
class Late:
    """What a late step meets.

    `off` are done steps that have to come off again, last on first off, each with the reason that
    leads to it; `too_late` are
    done steps before which it should have come for a reason that taking off does not mend; `hours`
    is the range for
    taking off and doing again, `without_hours` the steps that the sheet gives no hours for.
    """

    off: tuple[tuple[Step, str], ...]
    too_late: tuple[tuple[Step, str], ...]
    hours: tuple[float, float]
    without_hours: tuple[str, ...]


def late_insertion(plan: Sheet, step_id: str, done: Set[str]) -> Late:
    """Which done steps stand on the way of `step_id`, following the reasons from it to what comes
    after.

    A done step has to come off when it waits for the late one, or for another that has to come off,
    for a reason that taking
    off mends (`OFF_AGAIN`). Nothing that is not done is ever named.
    """
    followers: dict[str, list[tuple[Step, str, str]]] = {}
    for step in plan.step:
        for link in step.after:
            followers.setdefault(link.step, []).append((step, link.kind, link.because))
    off: dict[str, tuple[Step, str]] = {}
    pending = [step_id]
    while pending:
        here = pending.pop()
        for step, kind, because in followers.get(here, []):
            if kind in OFF_AGAIN and step.id in done and step.id not in off and step.id != step_id:
                off[step.id] = (step, because)
                pending.append(step.id)
    direct = followers.get(step_id, [])
    too_late = tuple(
        (step, because)
        for step, kind, because in direct
        if kind not in OFF_AGAIN and step.id in done
    )
    place = {step.id: k for k, step in enumerate(plan.step)}
    listed = tuple(sorted(off.values(), key=lambda found: -place[found[0].id]))
    lo, hi = hours_of([step for step, _ in listed])
    without = tuple(step.number for step, _ in listed if step.hours is None)
    return Late(listed, too_late, (2 * lo, 2 * hi), without)


def hours_of(steps: list[Step]) -> tuple[float, float]:
    """The hours of some steps together, as a range in h; steps without hours count nothing."""
    given = [step.hours for step in steps if step.hours is not None]
    return round(sum(lo for lo, _ in given), 2), round(sum(hi for _, hi in given), 2)
