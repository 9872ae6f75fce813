"""Acts on figures as changes: limits with their sources, and the stages of joints."""

import re
from collections.abc import Set

from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.limits import Limit, SourceAnswer
from hollet.core.procedure.changes import Change, JointChange, LimitChange
from hollet.core.procedure.hunt import generic_for
from hollet.core.procedure.joints import FEELS, READ_OFF, Joint, TighteningStage, stage_range
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.planacts import (
    AnswerAct,
    CountAct,
    GenericAct,
    JointAct,
    LimitAct,
    SettleAct,
)
from hollet.core.quantities.parse import parse

__all__ = [
    "draft_answer",
    "draft_count",
    "draft_generic",
    "draft_joint",
    "draft_limit",
    "draft_settle",
]


def _limit_of(plan: Plan, act: LimitAct | AnswerAct | SettleAct) -> Limit:
    limit = plan.find_limit(act.limit)
    if limit is None:
        raise NotFound("limit", act.limit)
    if limit.version != act.version:
        raise Conflict(
            f"{limit.name} was edited by somebody else: {limit.words()} now", reason_code="moved_on"
        )
    return limit


def _said(limit: Limit) -> SourceAnswer:
    return SourceAnswer(
        source=limit.source or limit.own or "no source",
        page=limit.page,
        lo=limit.lo,
        hi=limit.hi,
        target=limit.target,
    )


def draft_limit(plan: Plan, act: LimitAct, done: Set[str], who: str) -> tuple[Change, ...]:
    limit = _limit_of(plan, act)
    source = f"{who} decided" if act.own else act.source or None
    typed = limit.with_figures(act.lo, act.hi, act.target)
    if (
        typed != limit
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
    after = typed.model_copy(
        update={
            "source": source,
            "page": act.page,
            "own": who if act.own else None,
            "settled": bool(limit.answers),
            "version": limit.version + 1,
        }
    )
    return (LimitChange(before=limit, after=after),)


def draft_answer(plan: Plan, act: AnswerAct, done: Set[str], who: str) -> tuple[Change, ...]:
    limit = _limit_of(plan, act)
    typed = limit.with_figures(act.lo, act.hi, act.target)
    said = SourceAnswer(
        source=act.source, page=act.page, lo=typed.lo, hi=typed.hi, target=typed.target
    )
    if not limit.given and limit.target is None:
        update = {**said.model_dump(), "answers": (*limit.answers, said)}
    else:
        update = {"answers": (*(limit.answers or (_said(limit),)), said), "settled": False}
    return (
        LimitChange(
            before=limit, after=limit.model_copy(update={**update, "version": limit.version + 1})
        ),
    )


def draft_settle(plan: Plan, act: SettleAct, done: Set[str], who: str) -> tuple[Change, ...]:
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
            after=after.model_copy(
                update={"settled": True, "own": None, "version": limit.version + 1}
            ),
        ),
    )


def _joint_of(plan: Plan, act: JointAct | CountAct | GenericAct) -> Joint:
    joint = plan.find_joint(act.joint)
    if joint is None:
        raise NotFound("joint", act.joint)
    if joint.version != act.version:
        raise Conflict(
            f"{joint.name} was edited by somebody else: look again", reason_code="moved_on"
        )
    return joint


def draft_generic(plan: Plan, act: GenericAct, done: Set[str], who: str) -> tuple[Change, ...]:
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


def draft_joint(plan: Plan, act: JointAct, done: Set[str], who: str) -> tuple[Change, ...]:
    joint = _joint_of(plan, act)
    if len(act.stage) != len(joint.stage) and any(stage.given() for stage in joint.stage):
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


def draft_count(plan: Plan, act: CountAct, done: Set[str], who: str) -> tuple[Change, ...]:
    joint = _joint_of(plan, act)
    after, drawn = joint.drawn_for(act.bolts), len(joint.layout.names())
    if act.bolts != drawn and not act.sure:
        raise Refused(
            "count_asked",
            f"{joint.name}: {drawn} are drawn, and {act.bolts} was typed. Count once more; another "
            "number begins the joint anew",
            field="bolts",
        )
    return (JointChange(before=joint, after=after),)


def _stage(text: str, number: int) -> TighteningStage:
    clean = " ".join(text.split())
    if not clean:
        return TighteningStage()
    feel = next((word for word in FEELS if word == clean.lower()), None)
    if feel is not None:
        return TighteningStage(feel=feel)
    if clean.lower().startswith("till ") and len(clean) > len("till ") + 3:
        return TighteningStage(till=clean[len("till ") :])
    for kind, words in READ_OFF.items():
        if clean.lower().startswith(words):
            stage = TighteningStage.model_validate({kind: clean[len(words) :].strip() or "-"})
            stage_range(stage)
            return stage
    angle = text.strip().lower().endswith(("deg", "°"))
    parsed = parse(text, "angle" if angle else "torque", None if angle else "N·m")
    if parsed.nominal is None or parsed.nominal <= 0:
        raise Refused(
            "bad_number",
            f"stage {number}: '{text}' must be one figure above zero, such as 50 Nm or 90 deg; or "
            f"longer by 0.16 mm, turns at 1 to 2 Nm; {', '.join(FEELS)}, or till what is seen",
            field="stage",
        )
    bare = not re.search(r"[a-z°]", text, re.IGNORECASE)
    return (
        TighteningStage(angle=text.strip())
        if angle
        else TighteningStage(torque=f"{text.strip()} Nm" if bare else text.strip())
    )
