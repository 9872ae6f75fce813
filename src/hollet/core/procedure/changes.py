"""Changes of a plan. A change carries what was before and what is after; applying one never
refuses.

What a screen asks for becomes changes in `drafting`; a plan edit in the log is a list of them.
"""

from collections.abc import Iterable
from typing import Annotated, Literal

from pydantic import Field

from hollet.core.limits import Limit
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.schools import School
from hollet.core.procedure.sheet import After, Joint, Step
from hollet.core.procedure.words import STAGE_RANK, Id, Part, Words

__all__ = [
    "Change",
    "ExtraChange",
    "FactChange",
    "HiddenChange",
    "JointChange",
    "LimitChange",
    "OrderChange",
    "PartChange",
    "PeopleChange",
    "ReasonChange",
    "RetiredChange",
    "SchoolChange",
    "StepIn",
    "WayChange",
    "apply",
]


class LimitChange(Part):
    """A figure; `before` is absent for a new one."""

    op: Literal["limit"] = "limit"
    before: Limit | None = None
    after: Limit


class JointChange(Part):
    """The stages, tolerance or source of a joint."""

    op: Literal["joint"] = "joint"
    before: Joint
    after: Joint


class FactChange(Part):
    """A fact of the vehicle; absent is "not known"."""

    op: Literal["fact"] = "fact"
    fact: Id
    before: str | None = None
    after: str | None = None


class WayChange(Part):
    """The way chosen of a school."""

    op: Literal["way"] = "way"
    school: Id
    before: str | None = None
    after: str | None = None


class ExtraChange(Part):
    """Extra work wanted or not."""

    op: Literal["extra"] = "extra"
    extra: Id
    before: bool | None = None
    after: bool | None = None


class PartChange(Part):
    """Which kind of a part it is."""

    op: Literal["part"] = "part"
    part: Id
    before: str | None = None
    after: str | None = None


class StepIn(Part):
    """A step put in, behind another or first of its stage."""

    op: Literal["step_in"] = "step_in"
    step: Step
    behind: Id | None = None


class HiddenChange(Part):
    """Something hidden at a step, known now; `after` absent takes it away."""

    op: Literal["hidden"] = "hidden"
    step: Id
    before: Words | None = None
    after: Words | None = None


class SchoolChange(Part):
    """A question on which the mechanic knows several ways."""

    op: Literal["school"] = "school"
    after: School


class PeopleChange(Part):
    """Who comes to a step that needs more than one; absent is "to be asked"."""

    op: Literal["people"] = "people"
    step: Id
    before: Words | None = None
    after: Words | None = None


class RetiredChange(Part):
    """A step taken out of the plan, or put back."""

    op: Literal["retired"] = "retired"
    step: Id
    after: bool


class ReasonChange(Part):
    """A reason of a step: new, changed or taken away."""

    op: Literal["reason"] = "reason"
    step: Id
    before: After | None = None
    after: After | None = None


class OrderChange(Part):
    """The order of all steps, as it was and is."""

    op: Literal["order"] = "order"
    before: tuple[Id, ...]
    after: tuple[Id, ...]


Change = Annotated[
    LimitChange
    | JointChange
    | FactChange
    | WayChange
    | ExtraChange
    | PartChange
    | StepIn
    | HiddenChange
    | SchoolChange
    | PeopleChange
    | RetiredChange
    | ReasonChange
    | OrderChange,
    Field(discriminator="op"),
]


def apply(plan: Plan, changes: Iterable[Change]) -> Plan:
    """The plan after the changes; a change about something that is not there changes nothing."""
    for change in changes:
        plan = _apply(plan, change)
    return plan


def _apply(plan: Plan, change: Change) -> Plan:
    if isinstance(change, LimitChange):
        limits = tuple(
            change.after if limit.id == change.after.id else limit for limit in plan.limit
        )
        new = plan.find_limit(change.after.id) is None
        return plan.model_copy(update={"limit": (*limits, change.after) if new else limits})
    if isinstance(change, JointChange):
        return plan.model_copy(
            update={
                "joint": tuple(change.after if j.id == change.after.id else j for j in plan.joint)
            }
        )
    if isinstance(change, FactChange):
        return plan.model_copy(update={"facts": _with(plan.facts, change.fact, change.after)})
    if isinstance(change, WayChange):
        return plan.model_copy(update={"ways": _with(plan.ways, change.school, change.after)})
    if isinstance(change, ExtraChange):
        kept = {key: value for key, value in plan.extras.items() if key != change.extra}
        return plan.model_copy(
            update={
                "extras": kept if change.after is None else {**kept, change.extra: change.after}
            }
        )
    if isinstance(change, PartChange):
        return plan.model_copy(update={"parts": _with(plan.parts, change.part, change.after)})
    if isinstance(change, StepIn):
        return _step_in(plan, change)
    if isinstance(change, HiddenChange):
        return plan.model_copy(
            update={
                "step": tuple(_hidden(s, change) if s.id == change.step else s for s in plan.step)
            }
        )
    if isinstance(change, SchoolChange):
        return plan.model_copy(
            update={"school": (*(s for s in plan.school if s.id != change.after.id), change.after)}
        )
    if isinstance(change, PeopleChange):
        return plan.model_copy(update={"helpers": _with(plan.helpers, change.step, change.after)})
    if isinstance(change, RetiredChange):
        others = tuple(step for step in plan.retired if step != change.step)
        return plan.model_copy(
            update={"retired": (*others, change.step) if change.after else others}
        )
    if isinstance(change, ReasonChange):
        return plan.model_copy(
            update={
                "step": tuple(_reason(s, change) if s.id == change.step else s for s in plan.step)
            }
        )
    place = {step: k for k, step in enumerate(change.after)}
    listed = sorted(plan.step, key=lambda step: place.get(step.id, len(place)))
    return plan.model_copy(update={"step": tuple(listed)})


def _with(known: dict[str, str], key: str, value: str | None) -> dict[str, str]:
    others = {k: v for k, v in known.items() if k != key}
    return others if value is None else {**others, key: value}


def _step_in(plan: Plan, change: StepIn) -> Plan:
    if plan.find_step(change.step.id) is not None:
        return plan
    first = next(
        (
            k
            for k, step in enumerate(plan.step)
            if STAGE_RANK[step.stage] >= STAGE_RANK[change.step.stage]
        ),
        len(plan.step),
    )
    at = next((k + 1 for k, step in enumerate(plan.step) if step.id == change.behind), first)
    return plan.model_copy(update={"step": (*plan.step[:at], change.step, *plan.step[at:])})


def _hidden(step: Step, change: HiddenChange) -> Step:
    others = tuple(thing for thing in step.hidden if thing not in (change.before, change.after))
    return step.model_copy(
        update={"hidden": others if change.after is None else (*others, change.after)}
    )


def _reason(step: Step, change: ReasonChange) -> Step:
    named = change.after or change.before
    others = tuple(link for link in step.after if named is None or link.step != named.step)
    return step.model_copy(
        update={"after": others if change.after is None else (*others, change.after)}
    )
