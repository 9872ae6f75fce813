"""What an old build calls done and the rules of today do not: told once, when it is
opened again.
"""

from collections.abc import Sequence

from hollet.core.book.dangers import live_dangers
from hollet.core.book.open_items import open_items
from hollet.core.book.supports import support_view
from hollet.core.entries import BookState, Done
from hollet.core.entries.status import SETTLED, plan_of, statuses
from hollet.core.instruments import Instrument
from hollet.core.steps.inspection import open_parts
from hollet.core.steps.parts import STAYS_IN
from hollet.core.view import View

__all__ = ["TurnedView", "turned_of"]


class TurnedView(View):
    """One thing that was called done and does not stand: at which step, in words; without a step it
    is about the load.
    """

    step: str | None
    number: str
    words: str


def turned_of(state: BookState, tools: Sequence[Instrument]) -> tuple[TurnedView, ...]:
    """What turned in a build with lines of before an act kept what its reason passed; of a newer
    one nothing.

    Dangers passed by a reason, results, joints and parts of steps that are done and not proven
    good, and loads of which nobody said
    what carries them.
    """
    if all(entry.body.passed is not None for entry in state.all(Done)):
        return ()
    known = statuses(state)
    found = [
        TurnedView(step=d.step, number=d.number, words=f"{d.title}: {d.words}")
        for d in live_dangers(state)
    ]
    for item in open_items(state, tools):
        if (
            item.step is not None
            and item.step in known
            and known[item.step].status in SETTLED
            and item.kind in ("result", "joint", "missing")
        ):
            found.append(TurnedView(step=item.step, number=item.step_number, words=item.what))
    for step in plan_of(state).step:
        inspection = step.as_inspection()
        if inspection is not None and known[step.id].status in SETTLED:
            found += [
                TurnedView(step=step.id, number=step.number, words=words)
                for part, words in open_parts(state, inspection)
                if part.bad and part.choice in STAYS_IN
            ]
    found += [
        TurnedView(step=None, number="", words=f"{body.name}: nobody said what carries it")
        for body in support_view(state).bodies
        if not body.known
    ]
    return tuple(dict.fromkeys(found))
