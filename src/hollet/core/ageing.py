"""What is suspect for its age alone: long standing, an unknown history, the kind of fuel.

Even when it looks good. What is reached by the work in hand is offered with it.
"""

from collections.abc import Iterable, Mapping, Sequence
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.procedure.facts import Condition, Known, applies
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.schools import Cost, Extra
from hollet.core.procedure.words import Id

__all__ = ["AgeRule", "Suspect", "suspects", "with_offers"]


class Suspect(BaseModel):
    """A kind of part that is not to be trusted for looking good, the reason, and what to do about
    it.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    thing: str
    because: str
    do: str


class Offer(BaseModel):
    """Where a suspect thing is reached by the work in hand: the steps, the first that is there; its
    cost now, and the cost of coming back for it.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    at: Annotated[tuple[Id, ...], Field(min_length=1)]
    now: Cost
    later: Cost


class AgeRule(Suspect):
    """The facts that make a thing suspect, and where it is offered."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    when: Annotated[tuple[Condition, ...], Field(min_length=1)]
    offer: Offer | None = None


def suspects(rules: Iterable[AgeRule], facts: Mapping[str, str]) -> tuple[Suspect, ...]:
    """What the facts make suspect; nothing is suspect for a fact that nobody gave."""
    known = Known(facts=facts)
    return tuple(
        Suspect(thing=rule.thing, because=rule.because, do=rule.do)
        for rule in rules
        if applies(rule.when, known).answer == "yes"
    )


def with_offers(plan: Plan, rules: Sequence[AgeRule]) -> Plan:
    """The plan with what age makes suspect among its extras, each at the first of its steps that
    the plan has; they show only once the facts say so.
    """
    here = {step.id for step in plan.step}
    found = []
    for number, rule in enumerate(rules, start=1):
        at = next((step for step in rule.offer.at if step in here), None) if rule.offer else None
        if rule.offer is None or at is None:
            continue
        found.append(
            Extra(
                id=f"age_{number}",
                thing=rule.thing,
                at=at,
                because=f"suspect for its age: {rule.because}",
                now=rule.offer.now,
                later=rule.offer.later,
                when=rule.when,
                suspect=True,
            )
        )
    known = {extra.id for extra in plan.extra}
    fresh = tuple(extra for extra in found if extra.id not in known)
    return plan.model_copy(update={"extra": (*plan.extra, *fresh)})
