"""What has been done: the status of each step.

What it waits for, and what may pass that: `passing`.
"""

from pydantic import BaseModel, ConfigDict

from hollet.core.book.entries import Entry
from hollet.core.book.fold import BookState
from hollet.core.procedure.plan import Plan, Selection
from hollet.core.procedure.sheet import MeasureStep, Step

__all__ = [
    "SETTLED",
    "StepStatus",
    "last_word",
    "plan_of",
    "selection_of",
    "settled_steps",
    "status_of",
    "statuses",
    "whole_of",
]

SETTLED = ("done", "skipped", "not_applicable", "not_there")
WORDS = ("done", "skipped", "reopened", "not there", "happened")
"""Kinds of entry of which the last one says how a step stands."""


class StepStatus(BaseModel):
    """Status of one step: open, begun, done, skipped, not_applicable or not_there; who, when, and
    the reason given.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    status: str = "open"
    who: str = ""
    time: str = ""
    reason: str | None = None
    entry: str | None = None
    doubt: str | None = None


def plan_of(state: BookState) -> Plan:
    """The plan with the steps that apply; a build always has one, since its first entry
    carries it.
    """
    return selection_of(state).plan


def whole_of(state: BookState) -> Plan:
    """The whole plan, steps that do not apply too."""
    assert state.whole is not None, "a build without its first entry"
    return state.whole


def selection_of(state: BookState) -> Selection:
    """What of the whole plan applies, and why."""
    assert state.selection is not None, "a build without its first entry"
    return state.selection


def status_of(state: BookState, step: Step) -> StepStatus:
    """The last of done, reopened and skipped counts; a done measurement that lost a reading is
    begun again.
    """
    found, last = state.of_step(step.id), last_word(state, step.id)
    if last is None or last.kind == "reopened":
        return StepStatus(status="begun") if any(e.kind != "note" for e in found) else StepStatus()
    if last.kind == "happened":
        return StepStatus(
            status="begun",
            who=last.who,
            time=last.time,
            entry=last.id,
            doubt=f"it has happened without: {'; '.join(last.body.without)}",
        )
    if last.kind == "not there":
        return StepStatus(
            status="not_there",
            who=last.who,
            time=last.time,
            entry=last.id,
            reason=f"{last.body.thing}: not there, {last.body.looked}",
        )
    word = (
        "done"
        if last.kind == "done"
        else "not_applicable"
        if last.body.not_applicable
        else "skipped"
    )
    doubt = None
    if word == "done" and last.body.reason is None and state.lost_done:
        doubt = _stood_on_struck(state).get(step.id)
        word = "begun" if doubt else word
    if word == "done" and last.body.reason is None and isinstance(step, MeasureStep):
        lost = [r.name for r in step.reading if not state.live(f"reading:{r.id}")]
        if lost:
            word, doubt = (
                "begun",
                f"{lost[0]}: its line was struck, so this step counts as not done",
            )
    return StepStatus(
        status=word,
        who=last.who,
        time=last.time,
        reason=last.body.reason,
        entry=last.id,
        doubt=doubt,
    )


def last_word(state: BookState, step: str) -> Entry | None:
    """The entry that says how a step stands."""
    return next((e for e in reversed(state.of_step(step)) if e.kind in WORDS), None)


def _stood_on_struck(state: BookState) -> dict[str, str]:
    """Done steps that stood on something struck since, with the words: their own bag, or a step
    that they waited for.
    """
    return state.remembered(("stood_on",), state.head, lambda: _find_stood_on(state))


def _find_stood_on(state: BookState) -> dict[str, str]:
    found: dict[str, str] = {}
    open_again: dict[str, Step] = {}
    for step in plan_of(state).step:
        last, lost = last_word(state, step.id), state.lost_done.get(step.id, [])
        if last is None or last.kind in ("reopened", "happened"):
            if any(e.kind == "done" for e in lost):
                open_again[step.id] = step
            continue
        if last.kind != "done" or last.body.reason is not None:
            continue
        if any(e.kind == "bagged" for e in lost) and not any(
            e.kind == "bagged" for e in state.of_step(step.id)
        ):
            found[step.id] = "the line of its bag was struck, so this step counts as not done"
        else:
            link = next((link for link in step.after if link.step in open_again), None)
            if link is None:
                continue
            other = open_again[link.step]
            found[step.id] = (
                f"{other.number} {other.title} was struck or stood on what was, and this stood "
                f"on it: {link.because}"
            )
        open_again[step.id] = step
    return found


def statuses(state: BookState) -> dict[str, StepStatus]:
    """Status of every step of the plan, in its order."""
    return {step.id: status_of(state, step) for step in plan_of(state).step}


def settled_steps(all_statuses: dict[str, StepStatus]) -> set[str]:
    """Steps that nothing waits for any more."""
    return {step for step, status in all_statuses.items() if status.status in SETTLED}
