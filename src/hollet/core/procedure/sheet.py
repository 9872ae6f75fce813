"""A procedure sheet: steps in order with reasons, limits, joints and cautions. A build's plan grows
from it (see `plan`).

How a sheet is read and checked: `read`, `laws`.
"""

from collections.abc import Callable
from datetime import date
from typing import Annotated, Any, Protocol, TypeVar, cast

from pydantic import Field, field_validator

from hollet.core.limits import Limit
from hollet.core.procedure.facts import FACTS, Condition, Fact
from hollet.core.procedure.joints import Joint
from hollet.core.procedure.kinds import BaseStep, Step
from hollet.core.procedure.numbering import numbered
from hollet.core.procedure.pieces import After, Fluid, Setting, Tie
from hollet.core.procedure.rows import Row
from hollet.core.procedure.schools import Agreement, Extra, School
from hollet.core.procedure.tracing import Trace
from hollet.core.procedure.words import DANGERS, Id, Part, Prose, Rung, Words

__all__ = ["Learnt", "Sheet", "Step", "Variant", "blocks_of", "is_danger"]


class _Named(Protocol):
    @property
    def id(self) -> str: ...


S = TypeVar("S")
T = TypeVar("T")
P = TypeVar("P", bound=_Named)


class Variant(Part):
    """Other figures for a limit where its conditions hold."""

    limit: Id
    when: Annotated[tuple[Condition, ...], Field(min_length=1)]
    lo: str | None = None
    hi: str | None = None
    target: str | None = None
    source: Words | None = None


class Learnt(Part):
    """What a build found, kept in its owner's own copy of the sheet: who, when, in which build."""

    what: Words
    who: Annotated[str, Field(min_length=1, max_length=40)]
    on: date
    build: Words


class Sheet(Part):
    """The whole sheet; `first` is the first rung that it is about, *crank* where it
    does not say.

    `any_vehicle`: it is written for no vehicle in particular, so its counts, sizes and hidden
    things are assumed until somebody counts them.
    """

    id: Id
    title: Words
    version: Annotated[int, Field(ge=1)] = 1
    about: Prose
    source: Words | None = None
    look_in: tuple[Words, ...] = ()
    first: Rung | None = None
    any_vehicle: bool = False
    option: tuple[Fact, ...] = ()
    school: tuple[School, ...] = ()
    extra: tuple[Extra, ...] = ()
    agreement: tuple[Agreement, ...] = ()
    limit: tuple[Limit, ...] = ()
    variant: tuple[Variant, ...] = ()
    joint: tuple[Joint, ...] = ()
    setting: tuple[Setting, ...] = ()
    fluid: tuple[Fluid, ...] = ()
    trace: tuple[Trace, ...] = ()
    tie: tuple[Tie, ...] = ()
    row: tuple[Row, ...] = ()
    learnt: tuple[Learnt, ...] = ()
    step: Annotated[tuple[Step, ...], Field(min_length=1, max_length=600)]

    @field_validator("step", mode="after")
    @classmethod
    def _number(cls, steps: tuple[Any, ...]) -> tuple[Any, ...]:
        return numbered(steps)

    def derived(self, name: str, source: S, make: Callable[[S], T]) -> T:
        """Something made of one part of this sheet, kept as long as that part is the same object:
        a copy with other steps makes its own.
        """
        known = self.__dict__.get(f"_{name}")
        if known is not None and known[0] is source:
            return cast(T, known[1])
        made = make(source)
        self.__dict__[f"_{name}"] = (source, made)
        return made

    def find_step(self, step_id: str | None) -> Step | None:
        """The step with this id."""
        return self.derived("step", self.step, _by_id).get(step_id or "")

    def find_limit(self, limit_id: str | None) -> Limit | None:
        """The limit with this id."""
        return self.derived("limit", self.limit, _by_id).get(limit_id or "")

    def find_joint(self, joint_id: str | None) -> Joint | None:
        """The joint with this id."""
        return self.derived("joint", self.joint, _by_id).get(joint_id or "")

    def find_fluid(self, fluid_id: str | None) -> Fluid | None:
        """The fluid with this id."""
        return self.derived("fluid", self.fluid, _by_id).get(fluid_id or "")

    def find_trace(self, trace_id: str | None) -> Trace | None:
        """The debris trace with this id."""
        return self.derived("trace", self.trace, _by_id).get(trace_id or "")

    def find_school(self, school_id: str | None) -> School | None:
        """The school with this id."""
        return self.derived("school", self.school, _by_id).get(school_id or "")

    def all_facts(self) -> dict[str, Fact]:
        """The common facts and this sheet's own options, by id."""
        return FACTS | {fact.id: fact for fact in self.option}


def _by_id(parts: tuple[P, ...]) -> dict[str, P]:
    """Parts by their ids, the first of each."""
    return {part.id: part for part in reversed(parts)}


def is_danger(sheet: Sheet, link: After) -> bool:
    """Whether a link guards against harm to people: its kind says so, or what would spill is fuel
    or brake fluid.
    """
    if link.kind in DANGERS:
        return not link.assumed
    drains = sheet.find_step(link.step) if link.kind == "spill" else None
    return drains is not None and any(
        fluid.kind in ("fuel", "brake") for fluid in sheet.fluid if fluid.id in drains.drains
    )


def blocks_of(plan: Sheet, step: BaseStep) -> str:
    """The first rung that a step of this plan blocks while it is not done."""
    return step.blocked(plan.first)
