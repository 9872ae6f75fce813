"""What has been done: the status of each step.

What it waits for, and what may pass that: `passing`.
"""

from collections.abc import Iterator
from typing import TypeVar

from pydantic import BaseModel, ConfigDict, computed_field

from hollet.core.entries import (
    Bagged,
    Body,
    BookState,
    Done,
    Entry,
    Key,
    Line,
    Reopened,
    TrialSaid,
)
from hollet.core.procedure.pieces import After
from hollet.core.procedure.plan import Plan, Selection
from hollet.core.procedure.sheet import Step

__all__ = [
    "SETTLED",
    "StepStatus",
    "last_as",
    "last_word",
    "outdated_since",
    "told_on_struck",
    "plan_of",
    "selection_of",
    "settled_steps",
    "status_of",
    "statuses",
    "whole_of",
]

B = TypeVar("B", bound=Body)
SETTLED = ("done", "skipped", "not_applicable", "not_there")


STATUS_WORDS = {
    "open": "to do",
    "begun": "begun",
    "done": "done",
    "skipped": "skipped",
    "not_applicable": "not applicable",
    "not_there": "said not to be there",
}


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

    @computed_field
    @property
    def words(self) -> str:
        """How it stands, as a mechanic says it."""
        return STATUS_WORDS[self.status]


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
    last = last_word(state, step.id)
    if last is None or last == state.newest(Reopened, "step", step.id):
        begun = any(e.body.begins for e in state.of_step(step.id))
        return StepStatus(status="begun") if begun else StepStatus()
    word, reason, doubt = last.body.stands()
    if word == "done" and reason is None:
        lost = _stood_on_struck(state).get(step.id) or _lost_reading(state, step)
        word, doubt = ("begun", lost) if lost else (word, doubt)
    if word == "done":
        since = outdated_since(state, step.id)
        if since is not None and since.seq > last.seq:
            word, doubt = "begun", f"{since.body.outdated()}: read or look again"
        again = _time_anew(state, step, last) if reason is None else None
        word, doubt = ("begun", again) if again else (word, doubt)
    return StepStatus(
        status=word, who=last.who, time=last.time, reason=reason, entry=last.id, doubt=doubt
    )


def outdated_since(state: BookState, step: str) -> Line | None:
    """The newest line after which what was read or seen at a step counts no longer."""
    lines = state.live("outdated", step)
    return lines[-1] if lines else None


def told_on_struck(state: BookState, step: str, told: Line) -> str | None:
    """Why something read or seen at a step proves nothing: a change under it was struck afterwards,
    so that nobody knows what lay there.
    """
    for kind in state.lost.values():
        for ground in kind.get(Key("ground", step), []):
            strike = state.struck.get(ground.id)
            if strike is not None and ground.seq < told.seq < strike.seq:
                return "read after a change that was struck since"
    return None


def _time_anew(state: BookState, step: Step, done: Line) -> str | None:
    """What it waited for till it cured or was cold, open again or done once more since."""
    for link in step.after:
        other = last_word(state, link.step) if _runs_anew(link) else None
        if other is not None and other.seq > done.seq:
            return f"its time begins anew: {link.because}"
    return None


def _lost_reading(state: BookState, step: Step) -> str | None:
    """A reading that the step was done with, and whose line was struck since."""
    lost = [r.name for r in step.readings() if not state.live("reading", r.id)]
    return f"{lost[0]}: its line was struck, so this step counts as not done" if lost else None


def last_word(state: BookState, step: str) -> Line | None:
    """The entry that says how a step stands."""
    return next((e for e in reversed(state.of_step(step)) if e.body.says), None)


def last_as(state: BookState, step: str, kind: type[B]) -> Entry[B] | None:
    """The entry that says how a step stands, where it is one of this kind."""
    newest = state.newest(kind, "step", step)
    return newest if newest is not None and newest == last_word(state, step) else None


def _stood_on_struck(state: BookState) -> dict[str, str]:
    """Done steps that stood on something struck since, with the words: their own bag, or a step
    that they waited for.
    """
    if not state.struck:
        return {}
    return state.remembered(("stood_on",), state.head, lambda: _find_stood_on(state))


def _find_stood_on(state: BookState) -> dict[str, str]:
    found: dict[str, str] = {}
    open_again: dict[str, Step] = {}
    for step in plan_of(state).step:
        last = last_word(state, step.id)
        if last is None or last.body.stands().status == "begun":
            if state.struck_of(Done, "step", step.id):
                open_again[step.id] = step
            continue
        done = last_as(state, step.id, Done)
        if done is None or done.body.reason is not None:
            continue
        if state.struck_of(Bagged, "step", step.id) and not state.each(Bagged, "step", step.id):
            found[step.id] = "the line of its bag was struck, so this step counts as not done"
        elif _trial_struck(state, step):
            found[step.id] = "what it had proved was struck, so this step counts as not done"
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


def _trial_struck(state: BookState, step: Step) -> bool:
    """Whether a dry fit has no word left that it fits."""
    said = state.newest(TrialSaid, "step", step.id)
    return step.trial is not None and (said is None or said.body.fits != "yes")


def statuses(state: BookState) -> dict[str, StepStatus]:
    """Status of every step of the plan, in its order."""
    return state.remembered(("statuses",), state.head, lambda: _statuses(state))


def _statuses(state: BookState) -> dict[str, StepStatus]:
    """Every status anew after a strike; else only of the steps that the lines since the last call
    are about, and of those that stood on what was struck, then or now.
    """
    stood, struck = _stood_on_struck(state), len(state.struck)
    known = state.memo.get(("last statuses",))
    found: dict[str, StepStatus] = {}
    steps = plan_of(state).step
    if known is not None and known[0] == struck and known[1] is state.plan:
        head, before, found = known[2][0], known[2][1], dict(known[2][2])
        touched = {name for line in state.since(head) for name in _steps_of(line)}
        touched |= {*stood, *before}
        touched |= {s.id for s in steps if touched & _timed_by(s)}
        steps = tuple(step for step in steps if step.id in touched)
    found.update({step.id: status_of(state, step) for step in steps})
    state.memo[("last statuses",)] = (struck, state.plan, (state.head, stood, found))
    return found


def _timed_by(step: Step) -> set[str]:
    return {link.step for link in step.after if _runs_anew(link)}


def _runs_anew(link: After) -> bool:
    """Whether its time begins anew with the other step; what has soaked and come off does not."""
    return link.kind == "drying" and link.how in ("cures", "cools")


def _steps_of(line: Line) -> Iterator[str]:
    keys = line.body.keys()
    return (key.name for key in keys if key.place in ("step", "outdated"))


def settled_steps(state: BookState) -> set[str]:
    """Steps that nothing waits for any more."""
    return state.remembered(
        ("settled",),
        state.head,
        lambda: {step for step, known in statuses(state).items() if known.status in SETTLED},
    )
