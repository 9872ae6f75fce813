"""The plan desk: what it shows of a plan, and the difference that a change would make, before it is
taken."""

from collections.abc import Mapping, Set

from pydantic import computed_field

from hollet.core.book.windows import Chance, chances
from hollet.core.entries import BookState
from hollet.core.entries.status import SETTLED, selection_of, statuses
from hollet.core.procedure.closings import Gap, plan_gaps
from hollet.core.procedure.hunt import HuntItem, hunt_list
from hollet.core.procedure.late import hours_of, late_insertion
from hollet.core.procedure.pieces import After, Role
from hollet.core.procedure.plan import Plan, known_of
from hollet.core.procedure.schools import Agreement, Extra, School, agreement_state, possible
from hollet.core.procedure.sheet import Step, is_danger
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["Gear", "PlanView", "clashes_of", "hunt_of", "plan_view", "settled_in"]


class Gear(View):
    """What the shop has: tool names (casefold) with their state, and the kinds of its measuring
    tools.
    """

    tools: Mapping[str, str] = {}
    instruments: frozenset[str] = frozenset()

    def lacking(self) -> tuple[str, ...]:
        """Tools known to be missing, broken or lent."""
        return tuple(
            name for name, state in self.tools.items() if state in ("missing", "broken", "lent")
        )


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


class WayView(View):
    """One way of a school, and whether it can be gone here."""

    id: str
    name: str
    does: str
    tools: tuple[str, ...]
    people: int
    hours: tuple[float, float]
    money: tuple[float, float]
    risks: str
    suits: str
    held_by: str | None
    sketch: str | None
    possible: bool
    because: tuple[str, ...]
    steps: int


class SchoolView(View):
    """One school: `chosen` by somebody, or only `in_force` as Hollet's pick; `fixed` says what was
    begun.
    """

    id: str
    question: str
    ways: tuple[WayView, ...]
    pick: str
    because: str
    chosen: str | None
    in_force: str
    fixed: str | None


class FactView(View):
    """One fact that decides something here."""

    id: str
    name: str
    values: tuple[str, ...]
    value: str | None
    decides: tuple[str, ...]


class ExtraView(View):
    """While you are in there: the cost now, the cost later, and the answer."""

    extra: Extra
    number: str
    wanted: bool | None


class AgreementView(View):
    """Parts that must agree, with what is known of each."""

    agreement: Agreement
    number: str
    options: dict[str, str]
    state: str
    words: str

    @computed_field
    @property
    def agrees(self) -> bool:
        """Whether the parts as chosen go together."""
        return self.state == "agrees"

    @computed_field
    @property
    def clashes(self) -> bool:
        """Whether they do not, whatever else is answered."""
        return self.state == "clash"


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


def settled_in(state: BookState) -> set[str]:
    return {step for step, status in statuses(state).items() if status.status in SETTLED}


def hunt_of(state: BookState, gear: Gear) -> tuple[HuntItem, ...]:
    """The hunt list of a build."""
    return hunt_list(selection_of(state), settled_in(state), gear.tools, gear.instruments)


def plan_view(state: BookState, gear: Gear) -> PlanView:
    """The desk of a build as it stands."""
    selection = selection_of(state)
    plan, whole = selection.plan, state.whole
    assert whole is not None
    known = statuses(state)
    settled = {step for step, status in known.items() if status.status in SETTLED}
    sheet_steps = {step.id for step in plan.step if not step.number[-1].isalpha()}
    before: dict[str, list[ReasonView]] = {}
    at = {step.id: step for step in plan.step}
    for step in plan.step:
        for link in step.after:
            before.setdefault(link.step, []).append(_reason(plan, step, link))
    rows = tuple(
        PlanRow(
            id=s.id,
            number=s.number,
            title=s.title,
            short=s.short or s.title,
            stage=s.stage,
            kind=s.kind,
            status=known[s.id].status,
            status_words=known[s.id].words,
            settled=s.id in settled,
            after=tuple(_reason(plan, at[a.step], a) for a in s.after if a.step in at),
            before=tuple(before.get(s.id, ())),
            chances=chances(state, s),
            hours=s.hours,
            people=s.people,
            comes=whole.helpers.get(s.id),
            tools=s.tools,
            shown_because=selection.shown_because.get(s.id),
            perhaps=selection.perhaps.get(s.id),
            own=s.id not in sheet_steps,
        )
        for s in plan.step
    )
    missing = sum(chance.state == "no step" for row in rows for chance in row.chances)
    numbers = {step.id: step.number for step in whole.step}
    return PlanView(
        title=_title(plan, missing),
        version=state.edits,
        rows=rows,
        schools=tuple(_school(whole, school, settled, gear) for school in plan.school),
        facts=_facts(whole, numbers),
        extras=tuple(
            ExtraView(extra=x, number=numbers.get(x.at, ""), wanted=plan.extras.get(x.id))
            for x in plan.extra
        ),
        agreements=tuple(_agreement(a, plan, numbers) for a in plan.agreement),
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
        people=max((len(s.people) for s in plan.step), default=1) or 1,
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


def _school(whole: Plan, school: School, settled: Set[str], gear: Gear) -> SchoolView:
    known = known_of(whole)
    ways = []
    for way in school.way:
        found = possible(way, known, gear.lacking())
        count = sum(
            any(c.school == school.id and way.id in c.one_of for c in step.when)
            for step in whole.step
        )
        ways.append(
            WayView(
                possible=found.answer,
                because=found.because,
                steps=count,
                **way.model_dump(exclude={"needs"}),
            )
        )
    in_force = whole.ways.get(school.id, school.pick)
    begun = next(
        (
            s
            for s in whole.step
            if s.id in settled
            and any(c.school == school.id and in_force in c.one_of for c in s.when)
        ),
        None,
    )
    return SchoolView(
        id=school.id,
        question=school.question,
        ways=tuple(ways),
        pick=school.pick,
        because=school.because,
        chosen=whole.ways.get(school.id),
        in_force=in_force,
        fixed=f"{begun.number} {begun.title}" if begun else None,
    )


def _facts(whole: Plan, numbers: Mapping[str, str]) -> tuple[FactView, ...]:
    known = whole.all_facts()
    return tuple(
        FactView(
            id=fact,
            name=known[fact].name,
            values=known[fact].value,
            value=whole.facts.get(fact),
            decides=tuple(numbers[s] for s in steps),
        )
        for fact, steps in whole.asked_facts().items()
        if fact in known
    )


def _agreement(agreement: Agreement, plan: Plan, numbers: Mapping[str, str]) -> AgreementView:
    found = agreement_state(agreement, plan.parts)
    options = {part.id: plan.parts[part.id] for part in agreement.part if part.id in plan.parts}
    return AgreementView(
        agreement=agreement,
        number=numbers.get(agreement.step, ""),
        options=options,
        state=found.state,
        words=found.words,
    )
