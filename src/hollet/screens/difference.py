"""What a change of the plan would do, before it is written; and the words for it."""

from collections.abc import Sequence, Set

from hollet.core.entries import BookState
from hollet.core.entries.status import selection_of
from hollet.core.procedure.changes import Change, apply
from hollet.core.procedure.editing import Names
from hollet.core.procedure.hunt import hunt_list
from hollet.core.procedure.late import hours_of, late_insertion
from hollet.core.procedure.plan import Plan, known_of, select
from hollet.core.procedure.sheet import Step, is_danger
from hollet.core.view import View
from hollet.screens.plan_questions import Gear
from hollet.screens.plandesk import clashes_of, settled_in

__all__ = ["Difference", "change_words", "difference"]


class LateView(View):
    """What a late step meets: what comes off again, what it is too late for, and the hours."""

    off: tuple[str, ...]
    too_late: tuple[str, ...]
    hours: tuple[float, float]
    without_hours: tuple[str, ...]


class Difference(View):
    """What a change would do; `not_there` are the steps that others wait for as for a danger and
    that it takes out: said not to be on this vehicle.
    """

    what: str
    steps_in: tuple[str, ...]
    steps_out: tuple[str, ...]
    standing: tuple[str, ...]
    not_there: tuple[str, ...]
    moved: tuple[str, ...]
    figures: tuple[str, ...]
    hours_before: tuple[float, float]
    hours_after: tuple[float, float]
    hunt_before: int
    hunt_after: int
    late: LateView | None
    clashes: tuple[str, ...]


def difference(state: BookState, changes: Sequence[Change], gear: Gear) -> Difference:
    """What the changes would do to the plan that applies; nothing is changed."""
    whole = state.whole
    assert whole is not None
    old, new_whole = selection_of(state), apply(whole, changes)
    new = select(new_whole)
    settled = settled_in(state)
    was, now = {s.id: s for s in old.plan.step}, {s.id: s for s in new.plan.step}
    out = [s for s in old.plan.step if s.id not in now]
    why = {left.step.id: left.because for left in new.left_out}
    put_in = next((step.id for change in changes if (step := change.put_in())), None)
    return Difference(
        what=change_words(whole, changes),
        steps_in=tuple(f"{s.number} {s.title}" for s in new.plan.step if s.id not in was),
        steps_out=tuple(f"{s.number} {s.title}: {why.get(s.id, '')}" for s in out),
        standing=tuple(f"{s.number} {s.title}" for s in out if state.of_step(s.id)),
        not_there=_not_there(new.plan, new_whole, out),
        moved=_moved(changes, old.plan),
        figures=_figures(old.plan, new.plan),
        hours_before=hours_of(list(old.plan.step)),
        hours_after=hours_of(list(new.plan.step)),
        hunt_before=len(hunt_list(old, settled, gear.tools, gear.instruments)),
        hunt_after=len(hunt_list(new, settled, gear.tools, gear.instruments)),
        late=_late(new.plan, put_in, settled) if put_in else None,
        clashes=clashes_of(old.plan, new.plan, settled),
    )


def _not_there(plan: Plan, whole: Plan, out: Sequence[Step]) -> tuple[str, ...]:
    """Safety steps that go, with what still waits for them.

    One taken out by hand satisfies nothing: what waits for it stays held.
    """
    found = []
    for step in out:
        waits = [
            f"{s.number} {s.title}"
            for s in plan.step
            for link in s.after
            if link.step == step.id and is_danger(whole, link)
        ]
        if waits:
            held = (
                "stay held until it is said not to be there"
                if step.id in whole.retired
                else "wait for it no more: it is said not to be on this vehicle"
            )
            found.append(f"{step.number} {step.title}: {', '.join(waits)} {held}")
    return tuple(found)


def _late(plan: Plan, step: str, settled: Set[str]) -> LateView:
    found = late_insertion(plan, step, settled)
    return LateView(
        off=tuple(f"{s.number} {s.title}: {because}" for s, because in found.off),
        too_late=tuple(f"{s.number} {s.title}: {because}" for s, because in found.too_late),
        hours=found.hours,
        without_hours=found.without_hours,
    )


def _moved(changes: Sequence[Change], plan: Plan) -> tuple[str, ...]:
    orders = [order for change in changes if (order := change.order()) is not None]
    if not orders:
        return ()
    here = {step.id: step for step in plan.step}
    was = [s for s in orders[-1][0] if s in here]
    now = [s for s in orders[-1][1] if s in here]
    return tuple(
        f"{here[step].number} {here[step].title}"
        for k, step in enumerate(now)
        if was.index(step) != k
    )[:20]


def _figures(old: Plan, new: Plan) -> tuple[str, ...]:
    before = {limit.id: limit for limit in old.limit}
    return tuple(
        f"{limit.name}: {before[limit.id].words()} becomes {limit.words()}"
        for limit in new.limit
        if limit.id in before and limit.words() != before[limit.id].words()
    )


def change_words(plan: Plan, changes: Sequence[Change]) -> str:
    """What the changes are, in one line for the log."""
    steps = {step.id: f"{step.number} {step.short or step.title}" for step in plan.step}
    names = Names(steps, dict(known_of(plan).names))
    told = [change for change in changes if change.order() is None] or changes
    said = [change.words(names) for change in told]
    return "; ".join(dict.fromkeys(words for words in said if words))[:200]
