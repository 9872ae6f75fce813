"""What a planner asks for, checked and turned into changes of the plan. Nothing is changed here."""

import re
from collections.abc import Callable, Set
from typing import Any

from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.changes import (
    Change,
    ExtraChange,
    FactChange,
    HiddenChange,
    OrderChange,
    PartChange,
    PeopleChange,
    ReasonChange,
    RetiredChange,
    SchoolChange,
    StepIn,
    WayChange,
    apply,
)
from hollet.core.procedure.drafting_care import draft_care, draft_row, draft_this_first
from hollet.core.procedure.drafting_figures import (
    draft_answer,
    draft_count,
    draft_generic,
    draft_joint,
    draft_limit,
    draft_settle,
)
from hollet.core.procedure.kinds.check import CheckStep
from hollet.core.procedure.numbering import Numbering, new_id
from hollet.core.procedure.pieces import After
from hollet.core.procedure.plan import Plan, select
from hollet.core.procedure.planacts import (
    CareAct,
    ExtraAct,
    FactAct,
    HiddenAct,
    MoveAct,
    PartAct,
    PeopleAct,
    PutInAct,
    ReasonAct,
    RetireAct,
    RowAct,
    SchoolAct,
    ThisFirstAct,
    WayAct,
)
from hollet.core.procedure.precedence import contradiction, in_order
from hollet.core.procedure.schools import School, Way
from hollet.core.procedure.sheet import is_danger
from hollet.core.procedure.words import STAGE_RANK, STAGES, Rung, Stage

__all__ = ["draft"]


def draft(plan: Plan, act: Any, done: Set[str], who: str) -> tuple[Change, ...]:
    """The changes that an act makes of a whole plan.

    Parameters
    ----------
    done : ids of the steps already done

    Raises
    ------
    Refused
        `contradiction` with its chain, `way_begun`, `no_such_value`, `limits_reversed`,
        `bad_number`, `no_overlap`.
    Conflict
        The figure was edited since the version that was looked at.
    NotFound
        The step, fact, school, extra, part, limit or joint does not exist.
    """
    return DRAFT[act.act](plan, act, done, who)


def _fact(plan: Plan, act: FactAct, done: Set[str], who: str) -> tuple[Change, ...]:
    fact = plan.all_facts().get(act.fact)
    if fact is None:
        raise NotFound("fact", act.fact)
    if act.value is not None:
        if fact.value and act.value not in fact.value:
            raise Refused(
                "no_such_value",
                f"{fact.name} cannot be '{act.value}': {', '.join(fact.value)}",
                field="value",
            )
        if not fact.value and not re.fullmatch(r"(18[89]|19\d|20\d|21\d)\d", act.value):
            raise Refused(
                "no_such_value",
                f"{fact.name}: '{act.value}' is no year, such as 1991",
                field="value",
            )
    return (FactChange(fact=act.fact, before=plan.facts.get(act.fact), after=act.value),)


def _way(plan: Plan, act: WayAct, done: Set[str], who: str) -> tuple[Change, ...]:
    school = plan.find_school(act.school)
    if school is None:
        raise NotFound("school", act.school)
    if school.find(act.way) is None:
        raise Refused(
            "no_such_value",
            f"'{act.way}' is no way of this school: {', '.join(w.id for w in school.way)}",
            field="way",
        )
    in_force = plan.ways.get(school.id, school.pick)
    begun = next(
        (
            s
            for s in select(plan).plan.step
            if s.id in done and any(c.school == school.id for c in s.conditions())
        ),
        None,
    )
    if begun is not None and act.way != in_force:
        raise Refused(
            "way_begun",
            f"{begun.number} {begun.title} is done, and belongs to the way chosen: reopen it first",
            field="way",
        )
    return (WayChange(school=school.id, before=plan.ways.get(school.id), after=act.way),)


def _extra(plan: Plan, act: ExtraAct, done: Set[str], who: str) -> tuple[Change, ...]:
    if all(extra.id != act.extra for extra in plan.extra):
        raise NotFound("extra", act.extra)
    return (ExtraChange(extra=act.extra, before=plan.extras.get(act.extra), after=act.wanted),)


def _part(plan: Plan, act: PartAct, done: Set[str], who: str) -> tuple[Change, ...]:
    part = next((p for a in plan.agreement for p in a.part if p.id == act.part), None)
    if part is None:
        raise NotFound("part", act.part)
    if act.option is not None and act.option not in part.option:
        raise Refused(
            "no_such_value",
            f"{part.name} cannot be '{act.option}': {', '.join(part.option)}",
            field="option",
        )
    return (PartChange(part=act.part, before=plan.parts.get(act.part), after=act.option),)


def _step(plan: Plan, step_id: str) -> Any:
    step = plan.find_step(step_id)
    if step is None:
        raise NotFound("step", step_id)
    return step


def _put_in(plan: Plan, act: PutInAct, done: Set[str], who: str) -> tuple[Change, ...]:
    if act.behind is not None and _step(plan, act.behind).stage != act.stage:
        behind = _step(plan, act.behind)
        raise Refused(
            "bad_entry",
            f"{behind.number} is in {STAGES[behind.stage]}, the new step in {STAGES[act.stage]}",
            field="behind",
        )
    new = CheckStep(
        id=new_id(act.title, {step.id for step in plan.step}),
        stage=act.stage,
        kind="check",
        title=act.title,
        short=act.short or act.title[:24],
        do=act.do,
        hours=act.hours,
        mends=act.mends,
        blocks=act.blocks or _usual_rung(plan, act.stage),
        number=_put_in_number(plan, act),
        after=tuple(
            After(
                step=_step(plan, a.step).id,
                because=a.because,
                kind=a.kind,
                origin="said",
                said_by=who,
            )
            for a in act.after
        ),
    )
    changes: list[Change] = [StepIn(step=new, behind=act.behind)]
    for later in act.before:
        changes.append(
            ReasonChange(
                step=_step(plan, later.step).id,
                after=After(
                    step=new.id, because=later.because, kind=later.kind, origin="said", said_by=who
                ),
            )
        )
    return _kept_in_order(plan, changes)


def _hidden(plan: Plan, act: HiddenAct, done: Set[str], who: str) -> tuple[Change, ...]:
    step = _step(plan, act.step)
    thing = f"{act.thing.strip()} ({who})"
    if any(
        known.rpartition(" (")[0].casefold() == act.thing.strip().casefold()
        or known.casefold() == act.thing.strip().casefold()
        for known in step.hidden
    ):
        raise Refused("bad_entry", f"{step.number} names it already: {act.thing}", field="thing")
    return (HiddenChange(step=step.id, after=thing),)


def _usual_rung(plan: Plan, stage: Stage) -> Rung | None:
    """The rung that a step of a hand shuts where it says none."""
    at_work = STAGE_RANK["take_down"] <= STAGE_RANK[stage] <= STAGE_RANK["fit_in"]
    return "crank" if plan.first and at_work else None


def _care(plan: Plan, act: CareAct, done: Set[str], who: str) -> tuple[Change, ...]:
    return _kept_in_order(plan, list(draft_care(plan, act, done, who)))


def _row(plan: Plan, act: RowAct, done: Set[str], who: str) -> tuple[Change, ...]:
    return draft_row(plan, act, done)


def _this_first(plan: Plan, act: ThisFirstAct, done: Set[str], who: str) -> tuple[Change, ...]:
    return _kept_in_order(plan, list(draft_this_first(plan, act, done, who)))


def _school(plan: Plan, act: SchoolAct, done: Set[str], who: str) -> tuple[Change, ...]:
    if act.take >= len(act.way):
        raise NotFound("way", str(act.take))
    if len({way.name.casefold() for way in act.way}) < len(act.way):
        raise Refused("bad_entry", f"{act.question}: two of the ways have one name", field="way")
    ways = tuple(
        Way(
            id=f"way_{k}",
            name=way.name,
            does=way.does,
            hours=(0, 0),
            risks="not given",
            suits="not given",
            held_by=who,
        )
        for k, way in enumerate(act.way, 1)
    )
    school = School(
        id=new_id(act.question, {s.id for s in plan.school}),
        question=act.question,
        way=ways,
        pick=ways[act.take].id,
        because=act.because,
        own=who,
    )
    return SchoolChange(after=school), WayChange(school=school.id, after=school.pick)


def _people(plan: Plan, act: PeopleAct, done: Set[str], who: str) -> tuple[Change, ...]:
    step = _step(plan, act.step)
    if len(step.people) < 2:
        raise Refused("bad_entry", f"{step.number} {step.title} asks for nobody else", field="step")
    return (PeopleChange(step=step.id, before=plan.helpers.get(step.id), after=act.who),)


def _put_in_number(plan: Plan, act: PutInAct) -> str:
    """The number of the step before and a letter, such as 2.11a; first of a stage it is 2.00a."""
    numbering = Numbering(step.number or "" for step in plan.step)
    behind = plan.find_step(act.behind)
    return numbering.behind(behind.number or "") if behind else numbering.first(act.stage)


def _kept_in_order(plan: Plan, changes: list[Change]) -> tuple[Change, ...]:
    """The changes, and a new order where they need one; a contradiction is refused with
    its chain.
    """
    after = apply(plan, changes)
    found = contradiction(after.step)
    if found:
        names = {step.id: f"{step.number} {step.short or step.title}" for step in after.step}
        chain = " waits for ".join(names[step] for step in found.chain)
        raise Refused("contradiction", f"{chain}: {'; '.join(found.because)}", field="before")
    was = tuple(step.id for step in after.step)
    now = tuple(step.id for step in in_order(after.step))
    return tuple(changes) if was == now else (*changes, OrderChange(before=was, after=now))


def _move(plan: Plan, act: MoveAct, done: Set[str], who: str) -> tuple[Change, ...]:
    step = _step(plan, act.step)
    if act.behind is not None and _step(plan, act.behind).stage != step.stage:
        behind = _step(plan, act.behind)
        raise Refused(
            "bad_entry",
            f"{behind.number} is in {STAGES[behind.stage]}: a step stays in its stage, "
            f"{STAGES[step.stage]}",
            field="behind",
        )
    others = [s for s in plan.step if s.id != step.id]
    at = next((k + 1 for k, s in enumerate(others) if s.id == act.behind), None)
    if at is None:
        at = next((k for k, s in enumerate(others) if s.stage == step.stage), len(others))
    moved = [*others[:at], step, *others[at:]]
    place = {s.id: k for k, s in enumerate(moved)}
    for one in moved:
        for link in one.after:
            if (
                link.step in place
                and place[link.step] > place[one.id]
                and step.id in (one.id, link.step)
            ):
                other = _step(plan, link.step)
                raise Refused(
                    "contradiction",
                    f"{one.number} {one.title} waits for {other.number} {other.title}: "
                    f"{link.because}. "
                    "Take that reason away first, if it does not hold",
                    field="behind",
                )
    return (OrderChange(before=tuple(s.id for s in plan.step), after=tuple(s.id for s in moved)),)


def _retire(plan: Plan, act: RetireAct, done: Set[str], who: str) -> tuple[Change, ...]:
    step = _step(plan, act.step)
    if (step.id in plan.retired) != act.back:
        raise Refused(
            "bad_entry",
            f"{step.number} is {'in' if act.back else 'not in'} the plan already",
            field="step",
        )
    return (RetiredChange(step=step.id, after=not act.back),)


def _reason(plan: Plan, act: ReasonAct, done: Set[str], who: str) -> tuple[Change, ...]:
    step, other = _step(plan, act.step), _step(plan, act.waits_for)
    before = next((link for link in step.after if link.step == other.id), None)
    kept = before is not None and before.origin == "sheet" and is_danger(plan, before)
    if act.because is None:
        if before is None:
            raise NotFound("reason", f"{step.number} before {other.number}")
        if kept:
            raise Refused(
                "safety_kept",
                f"{step.number} waits for {other.number} for safety: {before.because}. A safety "
                "reason of the sheet stays; "
                "you may put a better one in its place",
                field="because",
            )
        return (ReasonChange(step=step.id, before=before),)
    after = After(step=other.id, because=act.because, kind=act.kind, origin="said", said_by=who)
    if before is not None and kept:
        if not is_danger(plan, after):
            raise Refused(
                "safety_kept",
                f"{step.number} waits for {other.number} for safety: {before.because}. A better "
                "reason must be one of safety too",
                field="kind",
            )
        after = before.model_copy(update={"because": act.because, "kind": act.kind, "said_by": who})
    return _kept_in_order(plan, [ReasonChange(step=step.id, before=before, after=after)])


DRAFT: dict[str, Callable[[Plan, Any, Set[str], str], tuple[Change, ...]]] = {
    "fact": _fact,
    "way": _way,
    "extra": _extra,
    "part": _part,
    "put_in": _put_in,
    "hidden": _hidden,
    "care": _care,
    "row": _row,
    "this_first": _this_first,
    "school": _school,
    "people": _people,
    "move": _move,
    "retire": _retire,
    "reason": _reason,
    "limit": draft_limit,
    "answer": draft_answer,
    "settle": draft_settle,
    "joint": draft_joint,
    "count": draft_count,
    "generic": draft_generic,
}
