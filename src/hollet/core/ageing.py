"""What is suspect for its age alone: long standing, an unknown history, the kind of fuel.

Even when it looks good.
"""

from collections.abc import Iterable, Mapping

from pydantic import BaseModel, ConfigDict

__all__ = ["AgeRule", "Suspect", "suspects"]


class Suspect(BaseModel):
    """A kind of part that is not to be trusted for looking good, the reason, and what to do about
    it.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    thing: str
    because: str
    do: str


class AgeRule(Suspect):
    """The answers to a fact that make a thing suspect."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    fact: str
    values: tuple[str, ...]


def suspects(rules: Iterable[AgeRule], facts: Mapping[str, str]) -> tuple[Suspect, ...]:
    """What the facts make suspect; nothing is suspect for a fact that nobody gave."""
    return tuple(
        Suspect(thing=rule.thing, because=rule.because, do=rule.do)
        for rule in rules
        if facts.get(rule.fact) in rule.values
    )
