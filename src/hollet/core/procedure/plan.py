"""A build's plan: sheets combined, the vehicle's facts and the choices made, and what of it
applies, with the reason why.

The whole plan keeps every step that a sheet brings; `select` gives the steps that apply. Numbers
are given once to the
whole plan, so that a fact changed later renames nothing.
"""

from dataclasses import dataclass
from typing import Any

from pydantic import Field

from hollet.core.limits import Limit
from hollet.core.procedure.facts import Condition, Known, applies
from hollet.core.procedure.schools import Agreement, School
from hollet.core.procedure.sheet import Sheet, Step
from hollet.core.procedure.words import Id, Prose

__all__ = ["LeftOut", "Plan", "Selection", "known_of", "select"]


class Plan(Sheet):
    """Sheets combined, with the facts, choices and answers of one build; `retired` steps keep their
    id and number, `combined` tells what combining moved, `helpers` who comes to which step.
    """

    sheets: tuple[Id, ...] = ()
    facts: dict[str, str] = Field(default_factory=dict)
    ways: dict[str, str] = Field(default_factory=dict)
    extras: dict[str, bool] = Field(default_factory=dict)
    parts: dict[str, str] = Field(default_factory=dict)
    retired: tuple[Id, ...] = ()
    combined: tuple[Prose, ...] = ()
    helpers: dict[str, str] = Field(default_factory=dict)

    def asked_facts(self) -> dict[str, list[str]]:
        """The facts on which something of this plan depends, each with the ids of the steps it
        decides.
        """
        found: dict[str, list[str]] = {}
        for step in self.step:
            for condition in (*step.conditions(), *(c for part in step.parts for c in part.when)):
                if condition.fact:
                    found.setdefault(condition.fact, []).append(step.id)
        others: list[Condition] = [
            c
            for school in self.school
            for c in (*school.when, *(n for way in school.way for n in way.needs))
        ]
        others += [c for extra in self.extra for c in extra.when] + [
            c for agreement in self.agreement for c in agreement.when
        ]
        others += [c for variant in self.variant for c in variant.when]
        for condition in others:
            if condition.fact:
                found.setdefault(condition.fact, [])
        return found


@dataclass(frozen=True, slots=True)
class LeftOut:
    """A step that does not apply, and why."""

    step: Step
    because: str


@dataclass(frozen=True, slots=True)
class Selection:
    """What applies: the plan with those steps, what was left out, and steps kept though a fact is
    not known yet.
    """

    plan: Plan
    left_out: tuple[LeftOut, ...]
    perhaps: dict[str, str]
    shown_because: dict[str, str]


def known_of(plan: Plan) -> Known:
    """What is known in this plan; a school nobody chose yet counts as Hollet's pick."""
    names = {fact.id: fact.name for fact in plan.all_facts().values()}
    names |= {school.id: school.question for school in plan.school} | {
        extra.id: extra.thing for extra in plan.extra
    }
    names |= {f"{school.id}.{way.id}": way.name for school in plan.school for way in school.way}
    names |= {part.id: part.name for agreement in plan.agreement for part in agreement.part}
    ways = {school.id: plan.ways.get(school.id, school.pick) for school in plan.school}
    return Known(plan.facts, ways, plan.extras, plan.parts, names)


def select(plan: Plan) -> Selection:
    """The steps, limits, schools, extras and agreements that apply; unknown facts leave a step in,
    marked so.
    """
    known = known_of(plan)
    steps, out, perhaps, shown = [], [], {}, {}
    gone = set(plan.retired)
    pulled = {
        pull.step: extra.thing
        for extra in plan.extra
        if plan.extras.get(extra.id)
        for pull in extra.needs
    }
    for step in plan.step:
        if step.id in gone:
            out.append(LeftOut(step, "taken out of this plan"))
            continue
        found = step.wanted(known)
        if (
            found.answer != "yes"
            and step.id in pulled
            and applies(tuple(c for c in step.conditions() if c.fact), known).answer != "no"
        ):
            shown[step.id] = f"{pulled[step.id]} needs it"
        elif found.answer == "no":
            out.append(LeftOut(step, "; ".join(found.because)))
            continue
        elif found.answer == "unknown":
            perhaps[step.id] = "; ".join(found.because)
        elif found.because:
            shown[step.id] = "; ".join(found.because)
        if step.parts:
            kept = tuple(part for part in step.parts if applies(part.when, known).answer != "no")
            step = step if kept == step.parts else step.model_copy(update={"parts": kept})
        steps.append(step)

    def that_apply(items: tuple[Any, ...]) -> tuple[Any, ...]:
        return tuple(item for item in items if applies(item.when, known).answer != "no")

    schools: tuple[School, ...] = that_apply(plan.school)
    extras = tuple(
        x for x in that_apply(plan.extra) if not x.suspect or applies(x.when, known).answer == "yes"
    )
    agreements: tuple[Agreement, ...] = that_apply(plan.agreement)
    here = {step.id for step in steps}
    chosen = plan.model_copy(
        update={
            "step": tuple(steps),
            "limit": _variants(plan, known),
            "school": schools,
            "extra": tuple(extra for extra in extras if extra.at in here),
            "agreement": tuple(a for a in agreements if a.step in here),
        }
    )
    return Selection(chosen, tuple(out), perhaps, shown)


def _variants(plan: Plan, known: Known) -> tuple[Limit, ...]:
    if not plan.variant:
        return plan.limit
    found = []
    for limit in plan.limit:
        variant = next(
            (
                v
                for v in plan.variant
                if v.limit == limit.id and applies(v.when, known).answer == "yes"
            ),
            None,
        )
        if variant is not None and limit.own is None and not limit.settled:
            because = "; ".join(applies(variant.when, known).because)
            condition = f"{limit.condition}, {because}" if limit.condition else because
            limit = limit.with_figures(variant.lo, variant.hi, variant.target).model_copy(
                update={"source": variant.source, "condition": condition}
            )
        found.append(limit)
    return tuple(found)
