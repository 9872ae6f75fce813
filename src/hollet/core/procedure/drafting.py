"""What a planner asks for, checked and turned into changes of the plan. Nothing is changed here."""

import re
from collections.abc import Callable, Set
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field, StringConstraints

from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.limits import Limit, SourceAnswer
from hollet.core.procedure.changes import (
    Change,
    ExtraChange,
    FactChange,
    HiddenChange,
    JointChange,
    LimitChange,
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
from hollet.core.procedure.hunt import generic_for
from hollet.core.procedure.joints import Joint, TighteningStage
from hollet.core.procedure.kinds.check import CheckStep
from hollet.core.procedure.pieces import After
from hollet.core.procedure.plan import Plan, select
from hollet.core.procedure.precedence import contradiction, in_order
from hollet.core.procedure.schools import School, Way
from hollet.core.procedure.sheet import is_danger
from hollet.core.procedure.words import STAGE_RANK, STAGES, Hours, Id, Part, ReasonKind, Stage
from hollet.core.quantities.parse import parse

__all__ = ["PlanAct", "draft"]

Text = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
Said = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=400)]
"""Words that somebody typed: blanks are none."""
Figure = Annotated[str, Field(max_length=40)]


class PlanActBase(Part):
    """What a screen asks of a plan. `guarded`: it is refused where the plan moved on since; a
    figure has a version of its own.
    """

    guarded: ClassVar[bool] = True

    def kept(self) -> bool:
        """Whether it goes into the user's own copy of the sheet too."""
        return False

    def near(self) -> tuple[str, ...]:
        """The steps that it ties something to."""
        return ()


class FactAct(PlanActBase):
    """A fact is known, or is not known after all."""

    act: Literal["fact"]
    fact: Id
    value: Text | None = None


class WayAct(PlanActBase):
    """A way of a school is chosen."""

    act: Literal["way"]
    school: Id
    way: Id


class ExtraAct(PlanActBase):
    """Extra work is wanted, or not."""

    act: Literal["extra"]
    extra: Id
    wanted: bool


class PartAct(PlanActBase):
    """Which kind of a part it is."""

    act: Literal["part"]
    part: Id
    option: Text | None = None


class Before(Part):
    """A step that the new one must come before, and why."""

    step: Id
    because: Said
    kind: ReasonKind = "access closes"


class PutInAct(PlanActBase):
    """A forgotten step: behind which one, before which ones and why; `keep` puts it into the user's
    own copy of the sheet.
    """

    act: Literal["put_in"]
    title: Said
    do: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=2000)]
    stage: Stage
    short: Annotated[str, Field(max_length=24)] | None = None
    hours: Hours | None = None
    behind: Id | None = None
    before: tuple[Before, ...] = ()
    after: tuple[Before, ...] = ()
    keep: bool = False

    def kept(self) -> bool:
        return self.keep

    def near(self) -> tuple[str, ...]:
        return tuple(link.step for link in (*self.before, *self.after))


class HiddenAct(PlanActBase):
    """Something hidden at a step that the sheet does not know."""

    act: Literal["hidden"]
    step: Id
    thing: Annotated[str, StringConstraints(strip_whitespace=True, min_length=3, max_length=300)]


class OwnWay(Part):
    """A way as the mechanic knows it."""

    name: Text
    does: Said


class SchoolAct(PlanActBase):
    """A question with the ways that the mechanic knows; the one that is gone, and why."""

    act: Literal["school"]
    question: Text
    way: Annotated[tuple[OwnWay, ...], Field(min_length=2, max_length=4)]
    take: Annotated[int, Field(ge=0, le=3)]
    because: Said


class PeopleAct(PlanActBase):
    """Who comes to a step that needs more than one pair of hands; absent is "to be asked"."""

    act: Literal["people"]
    step: Id
    who: Text | None = None


class MoveAct(PlanActBase):
    """A step comes behind another, or first of its stage."""

    act: Literal["move"]
    step: Id
    behind: Id | None = None


class RetireAct(PlanActBase):
    """A step is taken out of the plan, or put back."""

    act: Literal["retire"]
    step: Id
    back: bool = False


class ReasonAct(PlanActBase):
    """A reason is given, changed, or taken away (`because` absent)."""

    act: Literal["reason"]
    step: Id
    waits_for: Id
    because: Said | None = None
    kind: ReasonKind = "access closes"


class LimitAct(PlanActBase):
    """The figures of a limit as edited; `own` marks the mechanic's own choice."""

    guarded: ClassVar[bool] = False

    act: Literal["limit"]
    limit: Id
    version: int
    lo: Figure | None = None
    hi: Figure | None = None
    target: Figure | None = None
    source: Annotated[str, Field(max_length=200)] | None = None
    page: Annotated[str, Field(max_length=40)] | None = None
    own: bool = False
    same_source: bool = False


class AnswerAct(PlanActBase):
    """What another source says of a limit; the one in force stays in force until
    somebody chooses.
    """

    guarded: ClassVar[bool] = False

    act: Literal["answer"]
    limit: Id
    version: int
    lo: Figure | None = None
    hi: Figure | None = None
    target: Figure | None = None
    source: Annotated[str, Field(min_length=1, max_length=200)]
    page: Annotated[str, Field(max_length=40)] | None = None


class SettleAct(PlanActBase):
    """One of the sources is taken (by its place), or the part where all agree."""

    guarded: ClassVar[bool] = False

    act: Literal["settle"]
    limit: Id
    version: int
    take: Annotated[int, Field(ge=0, le=20)] | Literal["both"]


class JointAct(PlanActBase):
    """Stages, tolerance and source of a joint."""

    guarded: ClassVar[bool] = False

    act: Literal["joint"]
    joint: Id
    version: int
    stage: Annotated[tuple[Figure, ...], Field(min_length=1, max_length=8)]
    tolerance: Figure | None = None
    source: Annotated[str, Field(max_length=200)] | None = None
    own: bool = False


class GenericAct(PlanActBase):
    """The one stage of a joint that is not given gets the generic torque of its thread and grade;
    it stays assumed.
    """

    guarded: ClassVar[bool] = False

    act: Literal["generic"]
    joint: Id
    version: int


PlanAct = Annotated[
    FactAct
    | WayAct
    | ExtraAct
    | PartAct
    | PutInAct
    | HiddenAct
    | SchoolAct
    | PeopleAct
    | MoveAct
    | RetireAct
    | ReasonAct
    | LimitAct
    | AnswerAct
    | SettleAct
    | JointAct
    | GenericAct,
    Field(discriminator="act"),
]


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
            if s.id in done and any(c.school == school.id for c in s.when)
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
        id=_new_id(act.title, {step.id for step in plan.step}),
        stage=act.stage,
        kind="check",
        title=act.title,
        short=act.short or act.title[:24],
        do=act.do,
        hours=act.hours,
        blocks="crank"
        if plan.first and STAGE_RANK["take_down"] <= STAGE_RANK[act.stage] <= STAGE_RANK["fit_in"]
        else None,
        number=_letter_number(plan, act),
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
        id=_new_id(act.question, {s.id for s in plan.school}),
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


def _new_id(title: str, taken: Set[str]) -> str:
    base = re.sub(r"[^a-z0-9]+", "_", title.lower()).strip("_")[:48] or "step"
    names = [base, *(f"{base}_{k}" for k in range(2, len(taken) + 3))]
    return str(next(name for name in names if name not in taken))


def _letter_number(plan: Plan, act: PutInAct) -> str:
    """The number of the step before and a letter, such as 2.11a; first of a stage it is 2.00a."""
    behind = plan.find_step(act.behind)
    base = re.sub(r"[a-z]+$", "", behind.number) if behind else f"{STAGE_RANK[act.stage] + 1}.00"
    used = {step.number for step in plan.step}
    letters = (
        *"abcdefghijklmnopqrstuvwxyz",
        *(a + b for a in "abcdefghijklmnopqrstuvwxyz" for b in "abcdefghijklmnopqrstuvwxyz"),
    )
    return str(next(base + letter for letter in letters if base + letter not in used))


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


def _limit_of(plan: Plan, act: LimitAct | AnswerAct | SettleAct) -> Limit:
    limit = plan.find_limit(act.limit)
    if limit is None:
        raise NotFound("limit", act.limit)
    if limit.version != act.version:
        raise Conflict(
            f"{limit.name} was edited by somebody else: {limit.words()} now", reason_code="moved_on"
        )
    return limit


def _checked(limit: Limit) -> Limit:
    for key in ("lo", "hi", "target"):
        limit.figure(key)
    lo, hi = limit.figure("lo"), limit.figure("hi")
    if lo is not None and hi is not None and lo > hi:
        raise Refused("limits_reversed", "the lower limit lies above the upper limit", field="lo")
    return limit


def _said(limit: Limit) -> SourceAnswer:
    return SourceAnswer(
        source=limit.source or limit.own or "no source",
        page=limit.page,
        lo=limit.lo,
        hi=limit.hi,
        target=limit.target,
    )


def _limit(plan: Plan, act: LimitAct, done: Set[str], who: str) -> tuple[Change, ...]:
    limit = _limit_of(plan, act)
    source = f"{who} decided" if act.own else act.source or None
    changed = (act.lo, act.hi, act.target) != (limit.lo, limit.hi, limit.target)
    _checked(limit.model_copy(update={"lo": act.lo, "hi": act.hi, "target": act.target}))
    if (
        changed
        and not act.own
        and not act.same_source
        and source is not None
        and limit.given
        and (source, act.page) == (limit.source, limit.page)
    ):
        raise Refused(
            "source_asked",
            f"{limit.name}: {limit.words()} was from {source}. Where does the new figure come "
            "from? Name its source, call it your own, "
            "or say that it stands so in the same place",
            field="source",
        )
    after = limit.model_copy(
        update={
            "lo": act.lo,
            "hi": act.hi,
            "target": act.target,
            "source": source,
            "page": act.page,
            "own": who if act.own else None,
            "settled": bool(limit.answers),
            "version": limit.version + 1,
        }
    )
    return (LimitChange(before=limit, after=_checked(after)),)


def _answer(plan: Plan, act: AnswerAct, done: Set[str], who: str) -> tuple[Change, ...]:
    limit = _limit_of(plan, act)
    said = SourceAnswer(source=act.source, page=act.page, lo=act.lo, hi=act.hi, target=act.target)
    _checked(limit.model_copy(update={"lo": act.lo, "hi": act.hi, "target": act.target}))
    if not limit.given and limit.target is None:
        update = {**said.model_dump(), "answers": (*limit.answers, said)}
    else:
        update = {"answers": (*(limit.answers or (_said(limit),)), said), "settled": False}
    return (
        LimitChange(
            before=limit, after=limit.model_copy(update={**update, "version": limit.version + 1})
        ),
    )


def _settle(plan: Plan, act: SettleAct, done: Set[str], who: str) -> tuple[Change, ...]:
    limit = _limit_of(plan, act)
    if act.take == "both":
        common = limit.common()
        if common is None:
            raise Refused(
                "no_overlap",
                "the sources leave no figure on which all agree: take one of them, or look further",
                field="take",
            )
        after = common.model_copy(
            update={
                "page": None,
                "source": " and ".join(dict.fromkeys(a.source for a in limit.answers)),
            }
        )
    else:
        if act.take >= len(limit.answers):
            raise NotFound("source", str(act.take))
        after = limit.model_copy(update=limit.answers[act.take].model_dump())
    return (
        LimitChange(
            before=limit,
            after=_checked(
                after.model_copy(
                    update={"settled": True, "own": None, "version": limit.version + 1}
                )
            ),
        ),
    )


def _joint_of(plan: Plan, act: JointAct | GenericAct) -> Joint:
    joint = plan.find_joint(act.joint)
    if joint is None:
        raise NotFound("joint", act.joint)
    if joint.version != act.version:
        raise Conflict(
            f"{joint.name} was edited by somebody else: look again", reason_code="moved_on"
        )
    return joint


def _generic(plan: Plan, act: GenericAct, done: Set[str], who: str) -> tuple[Change, ...]:
    joint = _joint_of(plan, act)
    fallback, words = generic_for(joint)
    if fallback is None:
        raise Refused(
            "no_generic",
            f"{joint.name}: "
            f"{words or 'thread and grade must be known, and only the last stage missing'}",
            field="joint",
        )
    stages = (*joint.stage[:-1], TighteningStage(torque=fallback))
    return (
        JointChange(
            before=joint,
            after=joint.model_copy(
                update={"stage": stages, "source": None, "own": None, "version": joint.version + 1}
            ),
        ),
    )


def _joint(plan: Plan, act: JointAct, done: Set[str], who: str) -> tuple[Change, ...]:
    joint = _joint_of(plan, act)
    if len(act.stage) != len(joint.stage) and any(
        stage.torque or stage.angle for stage in joint.stage
    ):
        raise Refused("bad_entry", f"{joint.name} has {len(joint.stage)} stages", field="stage")
    stages = tuple(_stage(text, k) for k, text in enumerate(act.stage, 1))
    if act.tolerance:
        parse(act.tolerance, "percent", "%")
    after = joint.model_copy(
        update={
            "stage": stages,
            "tolerance": act.tolerance or None,
            "version": joint.version + 1,
            "source": f"{who} decided" if act.own else act.source or None,
            "own": who if act.own else None,
        }
    )
    return (JointChange(before=joint, after=after),)


def _stage(text: str, number: int) -> TighteningStage:
    if not text.strip():
        return TighteningStage()
    angle = text.strip().lower().endswith(("deg", "°"))
    parsed = parse(text, "angle" if angle else "torque", None if angle else "N·m")
    if parsed.nominal is None or parsed.nominal <= 0:
        raise Refused(
            "bad_number",
            f"stage {number}: '{text}' must be one figure above zero, such as 50 Nm or 90 deg",
            field="stage",
        )
    bare = not re.search(r"[a-z°]", text, re.IGNORECASE)
    return (
        TighteningStage(angle=text.strip())
        if angle
        else TighteningStage(torque=f"{text.strip()} Nm" if bare else text.strip())
    )


DRAFT: dict[str, Callable[[Plan, Any, Set[str], str], tuple[Change, ...]]] = {
    "fact": _fact,
    "way": _way,
    "extra": _extra,
    "part": _part,
    "put_in": _put_in,
    "hidden": _hidden,
    "school": _school,
    "people": _people,
    "move": _move,
    "retire": _retire,
    "reason": _reason,
    "limit": _limit,
    "answer": _answer,
    "settle": _settle,
    "joint": _joint,
    "generic": _generic,
}
