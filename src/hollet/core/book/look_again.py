"""What was closed, inspected or cleaned in the dark, in dust or in blown sand: looked at again by
day, or it stays on the list.
"""

from hollet.core.entries import BookState, Confirmed, Line, Surroundings
from hollet.core.entries.status import plan_of
from hollet.core.lore import Around
from hollet.core.procedure.sheet import Step
from hollet.core.view import View

__all__ = ["BY_DAY", "LookAgain", "looks_due"]

BY_DAY = "Looked at again by day"
"""The box that takes a step off the list."""
SPOILT: dict[frozenset[Around], str] = {
    frozenset({"dark"}): "in the dark",
    frozenset({"dust", "wind"}): "in blown sand",
    frozenset({"dust"}): "in dust",
}


class LookAgain(View):
    """One step to look at again: what was done there, and in what it was done."""

    step: str
    number: str
    words: str
    since: str
    who: str


def looks_due(state: BookState) -> tuple[LookAgain, ...]:
    """The steps to look at again by day, oldest first."""
    return state.remembered(("looks_due",), state.head, lambda: _looks(state))


def _looks(state: BookState) -> tuple[LookAgain, ...]:
    if not state.live("surroundings"):
        return ()
    found: dict[str, LookAgain] = {}
    plan = plan_of(state)
    looked = {e.id for e in state.all(Confirmed) if e.body.what == BY_DAY}
    for entry in state.of_kinds(lambda kind: kind is Confirmed or kind.looks or kind.says):
        step = plan.find_step(entry.body.at())
        if step is None:
            continue
        if entry.id in looked:
            if not _spoilt(state, entry):
                found.pop(step.id, None)
            continue
        did = _did(step, entry)
        how = _spoilt(state, entry) if did else None
        if did and how:
            found.setdefault(
                step.id,
                LookAgain(
                    step=step.id,
                    number=step.number,
                    words=f"{step.title}: {did} {how}",
                    since=entry.time,
                    who=entry.who,
                ),
            )
    return tuple(found.values())


def _did(step: Step, entry: Line) -> str | None:
    done = entry.body.stands().status == "done"
    if entry.body.looks or (done and step.looked_at):
        return "looked at"
    if not done:
        return None
    return "closed" if step.closes_up else "cleaned" if step.stage == "prepare" else None


def _spoilt(state: BookState, entry: Line) -> str | None:
    """What it was like around the bench when a line was written, where that spoils looking or
    closing.
    """
    around = next(
        (
            set(e.body.around)
            for e in reversed(state.each(Surroundings, "surroundings"))
            if e.seq < entry.seq
        ),
        set(),
    )
    return next((words for needed, words in SPOILT.items() if needed <= around), None)
