"""The plan desk: what it shows of a plan, and the difference that a change would make, before it is
taken."""

from collections.abc import Mapping, Set

from hollet.core.book.windows import Chance, chances
from hollet.core.entries import BookState
from hollet.core.entries.status import SETTLED, StepStatus, selection_of, statuses
from hollet.core.procedure.closings import Gap, plan_gaps
from hollet.core.procedure.hunt import HuntItem, hunt_list
from hollet.core.procedure.late import hours_of, late_insertion
from hollet.core.procedure.outset import Outset, outset_of
from hollet.core.procedure.pieces import After, Role
from hollet.core.procedure.plan import Plan, Selection
from hollet.core.procedure.schools import agreement_state
from hollet.core.procedure.sheet import Step, is_danger
from hollet.core.procedure.words import STAGES
from hollet.core.view import View
from hollet.core.words import counted
from hollet.screens.plan_questions import (
    AgreementView,
    ExtraView,
    FactView,
    Gear,
    SchoolView,
    agreement_view,
    fact_views,
    school_view,
)

__all__ = ["PlanView", "clashes_of", "hunt_of", "plan_view", "settled_in"]


class ReasonView(View):
    """One "before": the other step, why, and its kind."""

    step: str
    number: str
    title: str
    because: str
    kind: str
    danger: bool = False
    origin: str = "sheet"


class PlanRow(View):
    """One step on the plan desk, with the steps it waits for and those that wait for it."""

    id: str
    number: str
    title: str
    short: str
    stage: str
    kind: str
    status: str
    status_words: str
    settled: bool
    after: tuple[ReasonView, ...]
    before: tuple[ReasonView, ...]
    chances: tuple[Chance, ...]
    hours: tuple[float, float] | None
    people: tuple[Role, ...]
    comes: str | None
    tools: tuple[str, ...]
    shown_because: str | None
    perhaps: str | None
    own: bool


class LeftOutView(View):
    """A step that is not in the plan, and why."""

    id: str
    number: str
    title: str
    because: str
    retired: bool


class PlanView(View):
    """The whole desk."""

    title: str
    version: int
    rows: tuple[PlanRow, ...]
    schools: tuple[SchoolView, ...]
    facts: tuple[FactView, ...]
    extras: tuple[ExtraView, ...]
    agreements: tuple[AgreementView, ...]
    left_out: tuple[LeftOutView, ...]
    gaps: tuple[Gap, ...]
    combined: tuple[str, ...]
    hunt: tuple[HuntItem, ...]
    hours: tuple[float, float]
    hours_left: tuple[float, float]
    without_hours: int
    reasons: int
    missing: int
    people: int
    stages: dict[str, str]
    outset: Outset


def settled_in(state: BookState) -> set[str]:
    return {step for step, status in statuses(state).items() if status.status in SETTLED}


def hunt_of(state: BookState, gear: Gear) -> tuple[HuntItem, ...]:
    """The hunt list of a build."""
    return hunt_list(selection_of(state), settled_in(state), gear.tools, gear.instruments)


def _rows(
    state: BookState, selection: Selection, known: Mapping[str, StepStatus]
) -> tuple[PlanRow, ...]:
    """The steps, each with what it waits for and what waits for it."""
    plan, whole = selection.plan, state.whole
    assert whole is not None
    before: dict[str, list[ReasonView]] = {}
    at = {step.id: step for step in plan.step}
    for step in plan.step:
        for link in step.after:
            before.setdefault(link.step, []).append(_reason(plan, step, link))
    return tuple(
        PlanRow(
            id=s.id,
            number=s.number,
            title=s.title,
            short=s.short or s.title,
            stage=s.stage,
            kind=s.kind,
            status=known[s.id].status,
            status_words=known[s.id].words,
            settled=known[s.id].status in SETTLED,
            after=tuple(_reason(plan, at[a.step], a) for a in s.after if a.step in at),
            before=tuple(before.get(s.id, ())),
            chances=chances(state, s),
            hours=s.hours,
            people=s.people,
            comes=whole.helpers.get(s.id),
            tools=s.tools,
            shown_because=selection.shown_because.get(s.id),
            perhaps=selection.perhaps.get(s.id),
            own=s.number[-1].isalpha(),
        )
        for s in plan.step
    )


def plan_view(state: BookState, gear: Gear) -> PlanView:
    """The desk of a build as it stands."""
    selection = selection_of(state)
    plan, whole = selection.plan, state.whole
    assert whole is not None
    known = statuses(state)
    settled = {step for step, status in known.items() if status.status in SETTLED}
    rows = _rows(state, selection, known)
    missing = sum(chance.state == "no step" for row in rows for chance in row.chances)
    numbers = {step.id: step.number for step in whole.step}
    return PlanView(
        title=_title(plan, missing),
        version=state.edits,
        rows=rows,
        schools=tuple(school_view(whole, school, settled, gear) for school in plan.school),
        facts=fact_views(whole, numbers),
        extras=tuple(
            ExtraView(extra=x, number=numbers.get(x.at, ""), wanted=plan.extras.get(x.id))
            for x in plan.extra
        ),
        agreements=tuple(agreement_view(a, plan, numbers) for a in plan.agreement),
        left_out=tuple(
            LeftOutView(
                id=x.step.id,
                number=x.step.number,
                title=x.step.title,
                because=x.because,
                retired=x.step.id in plan.retired,
            )
            for x in selection.left_out
        ),
        gaps=(*plan_gaps(plan), *_not_brought(plan)),
        combined=whole.combined,
        hunt=hunt_list(selection, settled, gear.tools, gear.instruments),
        hours=hours_of(list(plan.step)),
        hours_left=hours_of([s for s in plan.step if s.id not in settled]),
        without_hours=sum(s.hours is None for s in plan.step),
        reasons=sum(len(row.after) for row in rows),
        missing=missing,
        stages=STAGES,
        people=max((len(s.people) for s in plan.step), default=1) or 1,
        outset=outset_of(selection, settled),
    )


def _not_brought(plan: Plan) -> tuple[Gap, ...]:
    """Work that a wanted extra needs and no sheet of the plan brings."""
    here = {step.id for step in plan.step} | {step.title.casefold() for step in plan.step}
    numbers = {step.id: step.number for step in plan.step}
    return tuple(
        Gap(
            kind="not_brought",
            words=f"{extra.thing} needs: {pull.thing}. No sheet of this plan brings it, "
            "put the step in",
            step=extra.at,
            number=numbers.get(extra.at, ""),
            item=pull.step,
        )
        for extra in plan.extra
        if plan.extras.get(extra.id)
        for pull in extra.needs
        if not {pull.step, pull.thing.casefold()} & here
    )


def clashes_of(old: Plan, new: Plan, settled: Set[str]) -> tuple[str, ...]:
    """Parts that do not go together any more by the change, and what that costs: the step that it
    holds up, what waits behind it, what comes off again.
    """
    found = []
    for agreement in new.agreement:
        state = agreement_state(agreement, new.parts)
        step = new.find_step(agreement.step)
        if (
            state.state != "clash"
            or step is None
            or agreement_state(agreement, old.parts).state == "clash"
        ):
            continue
        late = late_insertion(new, step.id, settled)
        if step.id in settled:
            off = ", ".join(f"{s.number} {s.title}" for s, _ in late.off)
            cost = f"{step.number} {step.title} is done already" + (
                f", and comes off again with {off}: {late.hours[0]:g} to {late.hours[1]:g} h"
                if off
                else ""
            )
        else:
            behind = [s for s in new.step[new.step.index(step) :] if s.id not in settled]
            hours = hours_of(behind)
            cost = (
                f"it holds up {step.number} {step.title} and {counted(len(behind) - 1, 'step')} "
                f"behind it, {hours[0]:g} to {hours[1]:g} h of work"
            )
        found.append(f"{agreement.name}: {state.words}. {cost[0].upper()}{cost[1:]}")
    return tuple(found)


def _title(plan: Plan, missing: int) -> str:
    words = {0: "nothing missing", 1: "one last chance has no step"}.get(
        missing, f"{missing} last chances have no step"
    )
    return f"{counted(len(plan.step), 'step')}, {words}"


def _reason(plan: Plan, step: Step, link: After) -> ReasonView:
    return ReasonView(
        step=step.id,
        number=step.number,
        title=step.title,
        because=link.because,
        kind=link.kind,
        danger=is_danger(plan, link),
        origin="assumed" if link.assumed else link.origin,
    )
