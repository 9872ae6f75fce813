"""Changes of a plan. A change carries what was before and what is after; applying one never
refuses.

What a screen asks for becomes changes in `drafting`; a plan edit in the log is a list of them.
"""

from collections.abc import Iterable, Mapping, Set
from typing import Annotated, Literal, TypeVar

from pydantic import Field

from hollet.core.limits import Limit
from hollet.core.procedure.care import Laid, Seat
from hollet.core.procedure.editing import Edit, Names, at_step
from hollet.core.procedure.joints import Joint
from hollet.core.procedure.pieces import After
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.provisional import Orient, Trial
from hollet.core.procedure.rows import Row
from hollet.core.procedure.schools import School
from hollet.core.procedure.sheet import Step
from hollet.core.procedure.words import STAGE_RANK, Id, Words

V = TypeVar("V")

__all__ = [
    "CareChange",
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
    "RowIn",
    "SchoolChange",
    "StepIn",
    "WayChange",
    "apply",
]


class LimitChange(Edit):
    """A figure; `before` is absent for a new one."""

    op: Literal["limit"] = "limit"
    before: Limit | None = None
    after: Limit

    def applied(self, plan: Plan) -> Plan:
        after = self.after
        limits = tuple(after if limit.id == after.id else limit for limit in plan.limit)
        new = plan.find_limit(after.id) is None
        return plan.model_copy(update={"limit": (*limits, after) if new else limits})

    def words(self, names: Names) -> str:
        before = f"{self.before.words()} became " if self.before else ""
        return f"{self.after.name}: {before}{self.after.words()}"


class JointChange(Edit):
    """The stages, tolerance or source of a joint, or how many bolts it has."""

    op: Literal["joint"] = "joint"
    before: Joint
    after: Joint

    def applied(self, plan: Plan) -> Plan:
        joints = tuple(self.after if joint.id == self.after.id else joint for joint in plan.joint)
        return plan.model_copy(update={"joint": joints})

    def redrawn(self) -> str | None:
        return self.after.id if self.before.layout != self.after.layout else None

    def words(self, names: Names) -> str:
        was, now = len(self.before.layout.names()), len(self.after.layout.names())
        if was != now or self.before.counted != self.after.counted:
            instead = f", not {was}" if was != now else ""
            return f"{self.after.name}: {now} bolts counted{instead}"
        asked = ", ".join(s.asked() for s in self.after.stage)
        return f"{self.after.name}: {asked}" + ("" if self.after.source else ", assumed")


class FactChange(Edit):
    """A fact of the vehicle; absent is "not known"."""

    op: Literal["fact"] = "fact"
    fact: Id
    before: str | None = None
    after: str | None = None

    def applied(self, plan: Plan) -> Plan:
        return plan.model_copy(update={"facts": _with(plan.facts, self.fact, self.after)})

    def words(self, names: Names) -> str:
        return f"{names.of(self.fact)}: {self.after or 'not known'}"


class WayChange(Edit):
    """The way chosen of a school."""

    op: Literal["way"] = "way"
    school: Id
    before: str | None = None
    after: str | None = None

    def applied(self, plan: Plan) -> Plan:
        return plan.model_copy(update={"ways": _with(plan.ways, self.school, self.after)})

    def words(self, names: Names) -> str:
        way = names.others.get(f"{self.school}.{self.after}", self.after)
        return f"{names.of(self.school)} {way}"


class ExtraChange(Edit):
    """Extra work wanted or not."""

    op: Literal["extra"] = "extra"
    extra: Id
    before: bool | None = None
    after: bool | None = None

    def applied(self, plan: Plan) -> Plan:
        return plan.model_copy(update={"extras": _with(plan.extras, self.extra, self.after)})

    def words(self, names: Names) -> str:
        return f"while it is open, {names.of(self.extra)}: {'yes' if self.after else 'no'}"


class PartChange(Edit):
    """Which kind of a part it is."""

    op: Literal["part"] = "part"
    part: Id
    before: str | None = None
    after: str | None = None

    def applied(self, plan: Plan) -> Plan:
        return plan.model_copy(update={"parts": _with(plan.parts, self.part, self.after)})

    def words(self, names: Names) -> str:
        return f"{names.of(self.part)}: {self.after or 'not known'}"


class StepIn(Edit):
    """A step put in, behind another or first of its stage."""

    op: Literal["step_in"] = "step_in"
    step: Step
    behind: Id | None = None

    def put_in(self) -> Step:
        return self.step

    def at(self) -> str:
        return self.step.id

    def behind_step(self) -> str | None:
        return self.behind

    def for_sheet(self, steps: Set[str]) -> "StepIn":
        links = tuple(link for link in self.step.after if link.step in steps)
        bare = self.step.model_copy(update={"number": "", "after": links})
        return self.model_copy(update={"step": bare})

    def applied(self, plan: Plan) -> Plan:
        if plan.find_step(self.step.id) is not None:
            return plan
        rank, steps = STAGE_RANK[self.step.stage], list(enumerate(plan.step))
        first = next((k for k, step in steps if STAGE_RANK[step.stage] >= rank), len(steps))
        at = next((k + 1 for k, step in steps if step.id == self.behind), first)
        return plan.model_copy(update={"step": (*plan.step[:at], self.step, *plan.step[at:])})

    def words(self, names: Names) -> str:
        return f"put in: {self.step.number} {self.step.title}"


class HiddenChange(Edit):
    """Something hidden at a step, known now; `after` absent takes it away."""

    op: Literal["hidden"] = "hidden"
    step: Id
    before: Words | None = None
    after: Words | None = None

    def at(self) -> str:
        return self.step

    def applied(self, plan: Plan) -> Plan:
        return at_step(plan, self.step, self._hidden)

    def _hidden(self, step: Step) -> dict[str, object]:
        others = tuple(thing for thing in step.hidden if thing not in (self.before, self.after))
        return {"hidden": others if self.after is None else (*others, self.after)}

    def words(self, names: Names) -> str:
        if not self.after:
            return f"not hidden there: {self.before}"
        return f"hidden at {names.step(self.step)}: {self.after}"


class CareChange(Edit):
    """What a hand says of a step: something points one way, is laid on, is driven home, or is a dry
    fit.
    """

    op: Literal["care"] = "care"
    step: Id
    orient: Orient | None = None
    laid: Laid | None = None
    seat: Seat | None = None
    trial: Trial | None = None

    def at(self) -> str:
        return self.step

    def applied(self, plan: Plan) -> Plan:
        return at_step(plan, self.step, self._cared)

    def _cared(self, step: Step) -> dict[str, object]:
        more: dict[str, object] = {}
        if self.orient is not None:
            more["orient"] = (*step.orient, self.orient)
        if self.laid is not None:
            more["lays"] = (*step.lays, self.laid)
        if self.seat is not None:
            more["seats"] = (*step.seats, self.seat)
        if self.trial is not None:
            more["trial"] = self.trial
        return more

    def words(self, names: Names) -> str:
        said = [
            self.orient.how if self.orient else None,
            f"{self.laid.what}, {self.laid.where}" if self.laid else None,
            " and ".join(self.seat.boxes()) if self.seat else None,
            f"on trial, proves {self.trial.proves}" if self.trial else None,
        ]
        return f"at {names.step(self.step)}: {'; '.join(text for text in said if text)}"


class RowIn(Edit):
    """One more part that moves from the old unit to the new."""

    op: Literal["row"] = "row"
    row: Row

    def at(self) -> str:
        return self.row.on_at

    def applied(self, plan: Plan) -> Plan:
        if any(row.id == self.row.id for row in plan.row):
            return plan
        return plan.model_copy(update={"row": (*plan.row, self.row)})

    def words(self, names: Names) -> str:
        return f"a row more: {self.row.part}, final at {names.step(self.row.on_at)}"


class SchoolChange(Edit):
    """A question on which the mechanic knows several ways."""

    op: Literal["school"] = "school"
    after: School

    def applied(self, plan: Plan) -> Plan:
        others = (school for school in plan.school if school.id != self.after.id)
        return plan.model_copy(update={"school": (*others, self.after)})

    def words(self, names: Names) -> str:
        return f"ways known: {self.after.question} {', '.join(way.name for way in self.after.way)}"


class PeopleChange(Edit):
    """Who comes to a step that needs more than one; absent is "to be asked"."""

    op: Literal["people"] = "people"
    step: Id
    before: Words | None = None
    after: Words | None = None

    def at(self) -> str:
        return self.step

    def applied(self, plan: Plan) -> Plan:
        return plan.model_copy(update={"helpers": _with(plan.helpers, self.step, self.after)})

    def words(self, names: Names) -> str:
        comes = f"{self.after} comes" if self.after else "people to be asked"
        return f"{names.step(self.step)}: {comes}"


class RetiredChange(Edit):
    """A step taken out of the plan, or put back."""

    op: Literal["retired"] = "retired"
    step: Id
    after: bool

    def at(self) -> str:
        return self.step

    def applied(self, plan: Plan) -> Plan:
        others = tuple(step for step in plan.retired if step != self.step)
        return plan.model_copy(update={"retired": (*others, self.step) if self.after else others})

    def words(self, names: Names) -> str:
        return f"{'taken out' if self.after else 'put back'}: {names.step(self.step)}"


class ReasonChange(Edit):
    """A reason of a step: new, changed or taken away."""

    op: Literal["reason"] = "reason"
    step: Id
    before: After | None = None
    after: After | None = None

    def at(self) -> str:
        return self.step

    def applied(self, plan: Plan) -> Plan:
        return at_step(plan, self.step, self._after)

    def _after(self, step: Step) -> dict[str, object]:
        named = self.after or self.before
        others = tuple(link for link in step.after if named is None or link.step != named.step)
        return {"after": others if self.after is None else (*others, self.after)}

    def words(self, names: Names) -> str:
        link = self.after or self.before
        other = names.steps.get(link.step, "") if link else ""
        if self.after is None:
            return f"{names.step(self.step)} no longer waits for {other}"
        return f"{names.step(self.step)} waits for {other}: {self.after.because}" if other else ""


class OrderChange(Edit):
    """The order of all steps, as it was and is."""

    op: Literal["order"] = "order"
    before: tuple[Id, ...]
    after: tuple[Id, ...]

    def order(self) -> tuple[tuple[str, ...], tuple[str, ...]]:
        return self.before, self.after

    def applied(self, plan: Plan) -> Plan:
        place = {step: k for k, step in enumerate(self.after)}
        listed = sorted(plan.step, key=lambda step: place.get(step.id, len(place)))
        return plan.model_copy(update={"step": tuple(listed)})

    def words(self, names: Names) -> str:
        moved = [step for a, step in zip(self.before, self.after, strict=False) if a != step]
        return f"order changed: {names.step(moved[0])}" if moved else ""


Change = Annotated[
    LimitChange
    | JointChange
    | FactChange
    | WayChange
    | ExtraChange
    | PartChange
    | StepIn
    | HiddenChange
    | CareChange
    | RowIn
    | SchoolChange
    | PeopleChange
    | RetiredChange
    | ReasonChange
    | OrderChange,
    Field(discriminator="op"),
]


def apply(plan: Plan, changes: Iterable[Edit]) -> Plan:
    """The plan after the changes; a change about something that is not there changes nothing."""
    for change in changes:
        plan = change.applied(plan)
    return plan


def _with(known: Mapping[str, V], key: str, value: V | None) -> dict[str, V]:
    others = {k: v for k, v in known.items() if k != key}
    return others if value is None else {**others, key: value}
