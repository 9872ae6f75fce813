"""What has been done: the status of each step, what it waits for, where the mechanic stands."""

from pydantic import BaseModel, ConfigDict

from hollet.core.book.entries import Entry
from hollet.core.book.fold import BookState
from hollet.core.procedure.plan import Plan, Selection
from hollet.core.procedure.precedence import Waiting, waits_for
from hollet.core.procedure.sheet import MeasureStep, Step

__all__ = ["SETTLED", "StepStatus", "current_step", "plan_of", "selection_of", "settled_steps", "status_of", "statuses", "waiting_for"]

SETTLED = ("done", "skipped", "not_applicable")


class StepStatus(BaseModel):
    """Status of one step: open, begun, done, skipped or not_applicable; who, when, and the reason given."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    status: str = "open"
    who: str = ""
    time: str = ""
    reason: str | None = None
    entry: str | None = None
    doubt: str | None = None


def plan_of(state: BookState) -> Plan:
    """The plan with the steps that apply; a build always has one, since its first entry carries it."""
    return selection_of(state).plan


def selection_of(state: BookState) -> Selection:
    """What of the whole plan applies, and why."""
    assert state.selection is not None, "a build without its first entry"
    return state.selection


def status_of(state: BookState, step: Step) -> StepStatus:
    """The last of done, reopened and skipped counts; a done measurement that lost a reading is begun again."""
    found, last = state.of_step(step.id), _last_word(state, step)
    if last is None or last.kind == "reopened":
        return StepStatus(status="begun") if any(e.kind != "note" for e in found) else StepStatus()
    word = "done" if last.kind == "done" else "not_applicable" if last.body.not_applicable else "skipped"
    doubt = None
    if word == "done" and last.body.reason is None and state.lost_done:
        doubt = _stood_on_struck(state).get(step.id)
        word = "begun" if doubt else word
    if word == "done" and last.body.reason is None and isinstance(step, MeasureStep):
        lost = [r.name for r in step.reading if not state.live(f"reading:{r.id}")]
        if lost:
            word, doubt = "begun", f"{lost[0]}: its line was struck, so this step counts as not done"
    return StepStatus(status=word, who=last.who, time=last.time, reason=last.body.reason, entry=last.id, doubt=doubt)


def _last_word(state: BookState, step: Step) -> Entry | None:
    return next((e for e in reversed(state.of_step(step.id)) if e.kind in ("done", "skipped", "reopened")), None)


def _stood_on_struck(state: BookState) -> dict[str, str]:
    """Done steps that stood on something struck since, with the words: their own bag, or a step that they waited for."""
    return state.remembered(("stood_on",), state.head, lambda: _find_stood_on(state))


def _find_stood_on(state: BookState) -> dict[str, str]:
    found: dict[str, str] = {}
    open_again: dict[str, Step] = {}
    for step in plan_of(state).step:
        last, lost = _last_word(state, step), state.lost_done.get(step.id, [])
        if last is None or last.kind == "reopened":
            if any(e.kind == "done" for e in lost):
                open_again[step.id] = step
            continue
        if last.kind != "done" or last.body.reason is not None:
            continue
        if any(e.kind == "bagged" for e in lost) and not any(e.kind == "bagged" for e in state.of_step(step.id)):
            found[step.id] = "the line of its bag was struck, so this step counts as not done"
        else:
            link = next((link for link in step.after if link.step in open_again), None)
            if link is None:
                continue
            other = open_again[link.step]
            found[step.id] = f"{other.number} {other.title} was struck or stood on what was, and this stood on it: {link.because}"
        open_again[step.id] = step
    return found


def statuses(state: BookState) -> dict[str, StepStatus]:
    """Status of every step of the plan, in its order."""
    return {step.id: status_of(state, step) for step in plan_of(state).step}


def settled_steps(all_statuses: dict[str, StepStatus]) -> set[str]:
    """Steps that nothing waits for any more."""
    return {step for step, status in all_statuses.items() if status.status in SETTLED}


def waiting_for(state: BookState, step_id: str, all_statuses: dict[str, StepStatus] | None = None) -> tuple[Waiting, ...]:
    """What the step still waits for, with the reasons."""
    return waits_for(plan_of(state), step_id, settled_steps(all_statuses or statuses(state)))


def current_step(state: BookState, all_statuses: dict[str, StepStatus]) -> str:
    """Where am I: the step last worked on if it is not settled, else the first open one that waits for nothing."""
    plan = plan_of(state)
    for entry_id in reversed(state.order[-200:]):
        entry = state.entries[entry_id]
        step = getattr(entry.body, "step", None)
        if step in all_statuses and entry_id not in state.struck:
            if all_statuses[step].status not in SETTLED:
                return str(step)
            break
    settled = settled_steps(all_statuses)
    for step in plan.step:
        if step.id not in settled and not waits_for(plan, step.id, settled):
            return step.id
    return plan.step[-1].id
