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
    found = state.of_step(step.id)
    last: Entry | None = next((e for e in reversed(found) if e.kind in ("done", "skipped", "reopened")), None)
    if last is None or last.kind == "reopened":
        return StepStatus(status="begun") if any(e.kind != "note" for e in found) else StepStatus()
    word = "done" if last.kind == "done" else "not_applicable" if last.body.not_applicable else "skipped"
    doubt = None
    if word == "done" and last.body.reason is None and isinstance(step, MeasureStep):
        lost = [r.name for r in step.reading if not state.live(f"reading:{r.id}")]
        if lost:
            word, doubt = "begun", f"{lost[0]}: its line was struck, so this step counts as not done"
    return StepStatus(status=word, who=last.who, time=last.time, reason=last.body.reason, entry=last.id, doubt=doubt)


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
