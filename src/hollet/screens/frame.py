"""The frame round every bench: the strip, the last lines, and where the mechanic stopped."""

from datetime import datetime

from pydantic import computed_field

from hollet.core.book.around import around_now
from hollet.core.book.dangers import Danger, live_dangers
from hollet.core.book.ledger import left_open
from hollet.core.book.one_open import OpenItem
from hollet.core.book.passing import current_step, waiting_for
from hollet.core.book.secure import is_stopped
from hollet.core.book.supports import support_view
from hollet.core.entries import BookState, PlanEdited
from hollet.core.entries.status import SETTLED, StepStatus, plan_of, statuses
from hollet.core.procedure.sheet import Step
from hollet.core.procedure.words import RUNGS, STAGES
from hollet.core.steps.inspection import inspection_view
from hollet.core.steps.rows import half_words, rows_of
from hollet.core.steps.tighten import joint_facts, joint_in_hand
from hollet.core.view import View
from hollet.screens.sentences import LogLine, line_of

__all__ = ["BookView", "book_view"]


class StageRow(View):
    """One of the nine stages with its counts."""

    id: str
    name: str
    done: int
    total: int


class StepRow(View):
    """One step on the strip."""

    id: str
    number: str
    short: str
    title: str
    stage: str
    kind: str
    status: str
    waits: bool

    @computed_field
    @property
    def look(self) -> str:
        """How it is drawn on the strip: its status, or that it waits."""
        return "waits" if self.status == "open" and self.waits else self.status


class Resume(View):
    """Where the mechanic stopped, in one line, what hangs or is dangerous, and what is
    left loose. After a long gap `first` is what to look at before anything else: the battery, who
    changed the plan, what aged meanwhile.
    """

    title: str
    line: str
    hangs: str
    loose: str
    since: str
    first: tuple[str, ...]


class BookView(View):
    """The frame round every bench of a build."""

    stages: tuple[StageRow, ...]
    steps: tuple[StepRow, ...]
    current: str
    written: tuple[LogLine, ...]
    left_open: tuple[OpenItem, ...]
    resume: Resume | None
    head: int
    title: str
    carried: str
    carried_stays: bool
    dangers: tuple[Danger, ...]
    stopped: bool
    around: tuple[str, ...]
    rungs: dict[str, str]


def book_view(state: BookState, now: str) -> BookView:
    """The strip, the last lines and what is left open, at the moment `now` (UTC, ISO 8601)."""
    plan = plan_of(state)
    known = statuses(state)
    rows = tuple(
        StepRow(
            id=s.id,
            number=s.number,
            short=s.short or s.title,
            title=s.title,
            stage=s.stage,
            kind=s.kind,
            status=known[s.id].status,
            waits=known[s.id].status not in SETTLED and bool(waiting_for(state, s.id, now)),
        )
        for s in plan.step
    )
    stages = tuple(
        StageRow(
            id=stage,
            name=name,
            done=sum(r.stage == stage and r.status in SETTLED for r in rows),
            total=sum(r.stage == stage for r in rows),
        )
        for stage, name in STAGES.items()
    )
    support = support_view(state)
    newest = [e for i in state.order[-60:] if (e := state.entries[i]).body.strikes() is None][-3:]
    return BookView(
        stages=stages,
        steps=rows,
        current=current_step(state, now),
        written=tuple(line_of(state, e) for e in newest),
        left_open=left_open(state),
        resume=_resume(state, known, now),
        head=state.head,
        title=plan.title,
        carried=support.line if support.bodies else "",
        carried_stays=support.stays,
        dangers=live_dangers(state),
        stopped=is_stopped(state),
        around=around_now(state),
        rungs={id: name.lower() for id, name in RUNGS.items()} | {"nothing": "nothing"},
    )


def _resume(state: BookState, known: dict[str, StepStatus], now: str) -> Resume | None:
    last = state.last
    if last is None or state.head == len(state.all(PlanEdited)):
        return None  # nothing but the plan was ever written
    plan = plan_of(state)
    step = plan.find_step(current_step(state, now))
    assert step is not None
    title, line = _where(state, step, known)
    joint = joint_in_hand(state, step)
    if joint is not None:
        facts = joint_facts(state, joint)
        if facts.begun and facts.next_bolt and facts.next_stage:
            title = f"You stopped at bolt {facts.next_bolt}, stage {facts.next_stage}"
            done = [b.number for b in facts.bolts if b.stage >= facts.next_stage]
            whole = f"Bolts 1 to {done[-1]} have stage {facts.next_stage}. " if done else ""
            line = f"{whole}Bolt {facts.next_bolt} is not pulled in this stage."
    left = [item for item in left_open(state) if item.kind not in ("danger", "load")]
    half = half_words(rows_of(state))
    if half is not None:
        line = f"{half[0].upper()}{half[1:]}. {line}"
    loose = f"Left open: {'; '.join(item.what for item in left[:3])}" + (
        f" and {len(left) - 3} more." if len(left) > 3 else "."
    )
    return Resume(
        title=title,
        line=line,
        hangs=_hangs(state),
        loose=loose if left else "Nothing is left open.",
        since=last.time,
        first=_after_long(state, now),
    )


LONG_DAYS = 60
"""A gap after which nothing is taken as it was left; assumed."""
SHOWN = 4


def _after_long(state: BookState, now: str) -> tuple[str, ...]:
    """After a gap of two months without a hand at work: is the battery still off, who changed the
    plan since, what has aged.
    """
    plans = {e.id for e in state.all(PlanEdited)}
    past = state.struck.keys() | plans  # whoever edits the plan sits at a desk
    worked = next((e for e in state.since(0) if e.body.clocked and e.id not in past), None)
    if worked is None:
        return ()
    away = datetime.fromisoformat(now) - datetime.fromisoformat(worked.time)
    if away.days < LONG_DAYS:
        return ()
    off = [item.what for item in left_open(state) if item.blocks == "power_on"]
    said = [f"{away.days} days without a hand at work"]
    said.append(
        f"look whether it is still so: {off[0]}" if off else "no step took the battery off: look"
    )
    edits = [e for e in state.all(PlanEdited) if e.seq > worked.seq]
    said += [f"{e.who} changed the plan on {e.time[:10]}: {e.body.line('')}" for e in edits[-2:]]
    aged = inspection_view(state).suspects
    said += [f"aged meanwhile, {s.thing}: {s.because}" for s in aged[:SHOWN]]
    if len(aged) > SHOWN:
        said.append(f"and {len(aged) - SHOWN} more that aged")
    return tuple(said)


def _where(state: BookState, step: Step, known: dict[str, StepStatus]) -> tuple[str, str]:
    """The step begun, else the last one really done, and what comes next."""
    here = f"{step.number} {step.short or step.title}"
    if known[step.id].status == "begun":
        return f"You stopped at {here}", known[step.id].doubt or "This step is not done."
    done = [
        (state.entries[s.entry].seq, name)
        for name, s in known.items()
        if s.status == "done" and s.entry
    ]
    last = plan_of(state).find_step(max(done)[1]) if done else None
    if last is None:
        return f"Next is {here}", "Nothing is done yet."
    return f"Last done: {last.number} {last.short or last.title}", f"Next is {here}."


def _hangs(state: BookState) -> str:
    """What is dangerous to come back to: dangers that are live, loads that hang or of which nobody
    knows what carries them.
    """
    said = [f"{danger.title}: {danger.words}" for danger in live_dangers(state)]
    said += [
        f"{body.name}: {body.because}"
        for body in support_view(state).bodies
        if body.hangs or not body.known
    ]
    return ". ".join(said)
