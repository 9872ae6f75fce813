"""Ready to lift, computed: what is off and parted, what is on, how it hangs, what carries it before
and after, who stands where, what nobody reaches later.
"""

from collections.abc import Iterator, Sequence
from typing import Literal

from hollet.core.book.dangers import proven
from hollet.core.book.loads import BODIES, Support, counted_words, loads_now
from hollet.core.book.windows import chances
from hollet.core.entries import BookState, WatchSaid
from hollet.core.entries.status import SETTLED, plan_of, statuses
from hollet.core.procedure.sheet import Step
from hollet.core.procedure.ties import TIES_OF, untied_by
from hollet.core.procedure.words import TIES, Carried
from hollet.core.steps.lifting import lift_of, unit_of
from hollet.core.view import View

__all__ = ["Ready", "ReadyRow", "ready_to_lift"]

So = Literal["so", "not there", "not yet", "not known"]
OPEN = ("not yet", "not known")


class ReadyRow(View):
    """One thing that has to be so: of which group, how it stands and why; `step` is where it is
    done.
    """

    group: str
    what: str
    state: So
    why: str = ""
    step: str | None = None


class Ready(View):
    """All of it, what is not so first; `open` counts that."""

    title: str
    open: int
    rows: tuple[ReadyRow, ...]


def ready_to_lift(state: BookState, step: Step, now: str) -> Ready | None:
    """The list of a step that lifts by gear; None for any other, and once it is done. It holds
    nothing by itself: what it lists is what the step waits for, how it hangs and what carries it.
    """
    known = statuses(state)
    if not step.lifts or step.by_hand or known[step.id].status in SETTLED:
        return None
    rows = sorted(_rows(state, step, now), key=lambda row: row.state not in OPEN)
    left = sum(row.state in OPEN for row in rows)
    title = f"Ready to lift: {left} of {len(rows)} not so" if left else "Nothing said against it"
    return Ready(title=title, open=left, rows=tuple(rows))


def _rows(state: BookState, step: Step, now: str) -> Iterator[ReadyRow]:
    ties = list(_ties(state, step))
    yield from ties
    told = {row.step for row in ties}
    yield from (row for row in _waits(state, step) if row.step not in told)
    yield _hangs(state, step, now)
    yield from _carried(state, step)
    yield from _people(state, step)
    for chance in chances(state, step):
        so: So = "not yet" if chance.todo else "so"
        yield ReadyRow(
            group="nobody reaches it later", what=chance.thing, state=so, why=chance.said
        )


def _ties(state: BookState, step: Step) -> Iterator[ReadyRow]:
    """Each tie of the unit, where it leaves its vehicle: parted, or not on it."""
    if step.moves is None or not step.takes_off:
        return
    plan, known = plan_of(state), statuses(state)
    for kind in TIES_OF.get(step.moves, ()):
        parts = untied_by(plan, kind)
        if not parts:
            continue
        first = next((s for s in parts if not proven(state, s.id)), None)
        gone = all(known[s.id].status == "not_there" for s in parts)
        yield ReadyRow(
            group="parted",
            what=TIES[kind],
            state="not there" if gone else "so" if first is None else "not yet",
            why=f"{first.number} {first.title}" if first is not None and not gone else "",
            step=(first or parts[-1]).id,
        )


def _waits(state: BookState, step: Step) -> Iterator[ReadyRow]:
    """What the step waits for: off before it leaves, on before it goes in."""
    plan, known = plan_of(state), statuses(state)
    for link in step.after:
        other = plan.find_step(link.step)
        if other is None:
            continue
        status = known[other.id].status
        gone, so = status == "not_there", proven(state, other.id)
        passed = status in SETTLED and not so  # skipped: a reason is not the thing itself
        yield ReadyRow(
            group="off" if other.stage == "take_down" else "on, and seen",
            what=f"{other.number} {other.title}",
            state="not there" if gone else "so" if so else "not yet",
            why="passed over, not done" if passed else "" if so or gone else link.because,
            step=other.id,
        )


def _hangs(state: BookState, step: Step, now: str) -> ReadyRow:
    lift = lift_of(state, step, now)
    if lift is None:
        return ReadyRow(group="how it hangs", what="nobody has said it", state="not known")
    so: So = "not yet" if lift.stops else "so"
    return ReadyRow(group="how it hangs", what=lift.what, state=so, why=lift.title)


def _carried(state: BookState, step: Step) -> Iterator[ReadyRow]:
    """What carries the unit now, and what takes it over."""
    body = unit_of(step)
    now, after = loads_now(state), loads_now(state).after(step)
    held = now.under(body)
    if body in now.parted or body in now.said:
        yield _carrier("carries it now", body, held)
    takes = after.under(body)
    if step.carries or step.releases:
        yield _carrier("carries it then", body, takes)


def _carrier(group: str, body: Carried, held: Sequence[Support]) -> ReadyRow:
    fit = [s for s in held if s.fit]
    kinds = {s.kind for s in held}
    words = ", ".join(counted_words(k, sum(s.kind == k for s in held)) for k in sorted(kinds))
    what = f"{BODIES[body].lower()}: {words or 'nobody has said what'}"
    return ReadyRow(group=group, what=what, state="so" if fit else "not known")


def _people(state: BookState, step: Step) -> Iterator[ReadyRow]:
    if not step.people:
        return
    watch = state.newest(WatchSaid, "moving", step.id)
    placed = len(watch.body.watchers) if watch is not None else 0
    for k, role in enumerate(step.people):
        by = watch.body.watchers[k].who if watch is not None and k < placed else ""
        so: So = "so" if by or step.moves is None else "not yet"
        yield ReadyRow(group="people", what=f"{role.role}: {role.does}", state=so, why=by)
