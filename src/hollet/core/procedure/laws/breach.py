"""A law of a sheet, a breach of it, and the worlds in which a sheet is looked at."""

import itertools
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, field
from typing import Any

from pydantic import BaseModel, ConfigDict

from hollet.core.procedure.facts import Condition, Known, applies
from hollet.core.procedure.precedence import in_order
from hollet.core.procedure.sheet import Sheet, Step

__all__ = [
    "Breach",
    "Found",
    "Law",
    "Path",
    "World",
    "all_conditions",
    "index_of",
    "place_of",
    "sentences",
    "words_of",
    "worlds",
]

Path = tuple[str | int, ...]
Found = tuple[Path, str]
"""Where a law is broken, and how."""
MOST_WORLDS = 4096
THINGS_NOT_THERE = ("no", "none")
"""Values of a fact that say that a thing is not on this vehicle."""


class Breach(BaseModel):
    """A law that a sheet breaks: where, how, and what would be right. `safety`: somebody could be
    hurt by it, so that the sheet is refused.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    law: str
    name: str
    field: str
    line: int | None = None
    words: str
    right: str
    safety: bool


@dataclass(frozen=True, slots=True)
class Law:
    """A law: its id and name, what would be right, whether a breach can hurt somebody, and how its
    breaches are found.
    """

    id: str
    name: str
    right: str
    find: Callable[[Sheet], Iterator[Found]] = field(repr=False)
    safety: bool = False


def index_of(sheet: Sheet) -> dict[str, int]:
    """Where each step is written in its sheet."""
    return {step.id: k for k, step in enumerate(sheet.step)}


def place_of(sheet: Sheet) -> dict[str, int]:
    """Where each step lies when its reasons are kept."""
    return {step.id: k for k, step in enumerate(in_order(sheet.step))}


def all_conditions(sheet: Sheet) -> Iterator[Condition]:
    """Every condition of a sheet, wherever it stands."""
    for step in sheet.step:
        yield from step.conditions()
        for part in step.parts:
            yield from part.when
    for table in (sheet.school, sheet.extra, sheet.agreement, sheet.variant, sheet.tie):
        for item in table:
            yield from item.when
    for school in sheet.school:
        for way in school.way:
            yield from way.needs


def words_of(step: Step) -> str:
    """What a step tells the mechanic to do."""
    return f"{step.title}. {step.do}"


def sentences(text: str) -> list[str]:
    """The clauses of a text, so that "never" speaks for its own clause alone."""
    parts = text.replace(";", ".").replace(":", ".").split(".")
    return [part.strip() for part in parts if part.strip()]


def _values(sheet: Sheet, condition: Condition) -> tuple[tuple[str, str], tuple[object, ...]]:
    """The subject of a condition, and what it can be."""
    if condition.fact is not None:
        fact = sheet.all_facts().get(condition.fact)
        if fact is not None and fact.value:
            return ("fact", condition.fact), fact.value
        years = (condition.since, condition.until)
        near = {str(y + d) for y in years if y is not None for d in (-1, 0, 1)}
        return ("fact", condition.fact), tuple(sorted(near))
    if condition.school is not None:
        school = sheet.find_school(condition.school)
        return ("way", condition.school), tuple(w.id for w in school.way) if school else ()
    if condition.extra is not None:
        return ("extra", condition.extra), (True, False)
    parts = (part for agreement in sheet.agreement for part in agreement.part)
    found = next((part for part in parts if part.id == condition.part), None)
    return ("part", condition.part or ""), found.option if found else ()


@dataclass(frozen=True, slots=True)
class World:
    """A vehicle and its choices, and in words what was chosen of what was asked about."""

    known: Known
    words: str

    def has(self, when: Iterable[Condition]) -> bool:
        """Whether a thing is there; what nobody knows leaves it in."""
        return applies(when, self.known).answer != "no"

    def does(self, step: Step) -> bool:
        """Whether a step is there."""
        return step.wanted(self.known).answer != "no"

    def lacks(self, when: Iterable[Condition]) -> bool:
        """Whether the vehicle's own facts say that a thing is not there: no air conditioning."""
        facts = (c.fact for c in when if c.fact is not None)
        return any(self.known.facts.get(fact) in THINGS_NOT_THERE for fact in facts)


def worlds(sheet: Sheet, conditions: Iterable[Condition]) -> Iterator[World]:
    """Every combination of what the conditions ask about: facts, ways, extras and parts."""
    subjects: dict[tuple[str, str], dict[Any, None]] = {}
    for condition in conditions:
        subject, values = _values(sheet, condition)
        subjects.setdefault(subject, {}).update(dict.fromkeys(values))
    rows = itertools.product(*(tuple(values) for values in subjects.values()))
    for row in itertools.islice(rows, MOST_WORLDS):
        said: dict[str, dict[str, Any]] = {"fact": {}, "way": {}, "extra": {}, "part": {}}
        for (table, name), value in zip(subjects, row, strict=True):
            said[table][name] = value
        ways = {school.id: school.pick for school in sheet.school} | said["way"]
        known = Known(said["fact"], ways, said["extra"], said["part"])
        yield World(known, ", ".join(_said(*pair) for pair in zip(subjects, row, strict=True)))


def _said(subject: tuple[str, str], value: Any) -> str:
    name = subject[1].replace("_", " ")
    return f"{'' if value else 'not '}{name}" if isinstance(value, bool) else f"{name} {value}"
