"""What is proven, and what is live because it was passed without being dealt with."""

from collections.abc import Callable

from hollet.core.book.boxes import box_of, link_box, live_words, not_pressed, seen_box, seen_since
from hollet.core.entries import BookState, Done, Entry, Happened, Line, NotThere
from hollet.core.entries.status import last_as, plan_of, status_of, statuses, whole_of
from hollet.core.procedure.pieces import After
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.sheet import Step, is_danger
from hollet.core.view import View

__all__ = ["Danger", "live_dangers", "proven", "target_of"]


class Danger(View):
    """A danger that is live: something was done or happened, and what should have come before it
    was not so. Ends by a later fact.
    """

    step: str
    number: str
    title: str
    words: str
    box: str
    blocks: str
    since: str
    who: str
    clear_at: str


def proven(state: BookState, step_id: str) -> bool:
    """Whether facts that stand now prove a step: done and its own dangers dealt with, or the thing
    not there.
    """
    return _proofs(state).get(step_id, False)


def _proofs(state: BookState) -> dict[str, bool]:
    return state.remembered(("proofs",), state.head, lambda: _find_proofs(state))


def _find_proofs(state: BookState) -> dict[str, bool]:
    whole, standing = whole_of(state), statuses(state)
    known: dict[str, bool] = {}
    waited = _waited_for(state)

    def proof(step_id: str) -> bool:
        if step_id not in known:
            known[step_id] = False  # a circle proves nothing
            step = whole.find_step(step_id)
            known[step_id] = step is not None and holds(step)
        return known[step_id]

    def holds(step: Step) -> bool:
        if last_as(state, step.id, NotThere) is not None:
            return True
        done = last_as(state, step.id, Done)
        now = standing.get(step.id) or status_of(state, step)
        if done is None or now.status != "done":
            return False
        box = _asked_box(step, done, step.id in waited)
        return not _unguarded(state, whole, step, done, box, proof)

    for step in whole.step:
        proof(step.id)
    return known


def _waited_for(state: BookState) -> frozenset[str]:
    """The steps that something waits for because of a danger."""
    return frozenset(link.step for links in _danger_links(state).values() for link in links)


def _danger_links(state: BookState) -> dict[str, tuple[After, ...]]:
    """What each step waits for because of a danger."""
    whole = whole_of(state)

    def made() -> dict[str, tuple[After, ...]]:
        found = {s.id: tuple(a for a in s.after if is_danger(whole, a)) for s in whole.step}
        return {name: links for name, links in found.items() if links}

    return state.remembered(("danger links",), 0, made)


def _asked_box(step: Step, done: Entry[Done] | None, waited: bool) -> str | None:
    """The box that a step needs: its own, or what is seen where it was done in another way."""
    other_way = waited and done is not None and done.body.reason and done.body.passed != ()
    return box_of(step) or (seen_box(step) if other_way else None)


def _unguarded(
    state: BookState,
    whole: Plan,
    step: Step,
    last: Line,
    box: str | None,
    proof: Callable[[str], bool | None],
) -> list[tuple[str, str, str]]:
    """What a done or happened step passed and nothing has ended since, as (what is live, the box
    that ends it, where it is cleared).
    """
    found = []
    if (
        box is not None
        and not_pressed(state, step, box, last.time, last.seq)
        and not seen_since(state, step.id, box, last.seq)
    ):
        found.append((f"not seen: {box}", box, step.id))
    for link in _danger_links(state).get(step.id, ()):
        target = target_of(state, whole, link)
        if target is None or proof(link.step):
            continue
        ends = link_box(link, target)
        if not seen_since(state, step.id, ends, last.seq):
            found.append((live_words(link, target), ends, target.id))
    return found


def target_of(state: BookState, whole: Plan, link: After) -> Step | None:
    """The step that a link waits for: one of the plan, or one taken out by hand; what a fact or way
    leaves out is said not to be there.
    """
    here = plan_of(state).find_step(link.step)
    return (
        here
        if here is not None
        else whole.find_step(link.step)
        if link.step in whole.retired
        else None
    )


def live_dangers(state: BookState) -> tuple[Danger, ...]:
    """Every danger that was passed and is live: named in header and gate until it is ended, or what
    was done is back as it was.
    """
    return state.remembered(("dangers",), state.head, lambda: _find_dangers(state))


def _find_dangers(state: BookState) -> tuple[Danger, ...]:
    from hollet.core.book.removals import back_steps  # removals ask for statuses, as this room does

    plan, whole, proofs = plan_of(state), whole_of(state), _proofs(state)
    waited = _waited_for(state)
    found = []
    for step in plan.step:
        done = last_as(state, step.id, Done)
        last: Line | None = done or last_as(state, step.id, Happened)
        if last is None:
            continue
        back = back_steps(plan, step)
        if back and all(_done_after(state, name, last.seq) for name in back):
            continue
        asked = _asked_box(step, done, step.id in waited)
        for words, box, clear in _unguarded(state, whole, step, last, asked, proofs.get):
            found.append(
                Danger(
                    step=step.id,
                    number=step.number,
                    title=step.title,
                    words=words,
                    box=box,
                    blocks="power_on",
                    since=last.time,
                    who=last.who,
                    clear_at=clear,
                )
            )
    return tuple(found)


def _done_after(state: BookState, step_id: str, seq: int) -> bool:
    done = last_as(state, step_id, Done)
    return done is not None and done.seq > seq
