"""What opens things: asked before the first evening, and missed only at the step that needs it."""

from hollet.core.book.wants import need_id
from hollet.core.entries import BookState, OpenerSaid
from hollet.core.entries.status import SETTLED, plan_of, statuses
from hollet.core.procedure.sheet import Step
from hollet.core.view import View

__all__ = ["Opener", "missing_opener", "openers"]


class Opener(View):
    """One thing that opens another: what was said of it, and the first step that needs it."""

    opener: str
    name: str
    answer: str
    where: str
    step: str
    number: str
    title: str


def openers(state: BookState) -> tuple[Opener, ...]:
    """All that the open steps ask for, in the order of the plan, each once."""
    known = statuses(state)
    found: dict[str, Opener] = {}
    for step in plan_of(state).step:
        if known[step.id].status in SETTLED:
            continue
        for name in step.opened_with:
            key = need_id(name)
            said = state.newest(OpenerSaid, "opener", key)
            found.setdefault(
                key,
                Opener(
                    opener=key,
                    name=name,
                    answer=said.body.answer if said is not None else "",
                    where=said.body.where if said is not None else "",
                    step=step.id,
                    number=step.number,
                    title=step.short or step.title,
                ),
            )
    return tuple(found.values())


def missing_opener(state: BookState, step: Step) -> str | None:
    """The first thing that opens what the step is at, and of which somebody said that it is
    missing.
    """
    for name in step.opened_with:
        said = state.newest(OpenerSaid, "opener", need_id(name))
        if said is not None and said.body.answer == "missing":
            return name
    return None
