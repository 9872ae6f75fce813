"""Schools (several accepted ways to do a thing), extras (while you are in there), and parts that
must agree.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Annotated

from pydantic import Field

from hollet.core.procedure.facts import Condition, Known, applies
from hollet.core.procedure.words import Hours, Id, Money, Part, Prose, Words

__all__ = [
    "Agreement",
    "AgreementState",
    "Cost",
    "Extra",
    "PartChoice",
    "Possible",
    "Pull",
    "School",
    "Way",
    "agreement_state",
    "possible",
]


class Way(Part):
    """One accepted way: what it needs and costs, what it risks, whom it suits, who
    holds with it.
    """

    id: Id
    name: Words
    does: Prose
    tools: tuple[Words, ...] = ()
    people: Annotated[int, Field(ge=1, le=6)] = 1
    hours: Hours
    money: Money = (0, 0)
    risks: Words
    suits: Words
    held_by: Words | None = None
    needs: tuple[Condition, ...] = ()
    sketch: Words | None = None


class School(Part):
    """A question on which practitioners differ, the ways, and which one Hollet picks and why."""

    id: Id
    question: Words
    way: Annotated[tuple[Way, ...], Field(min_length=2, max_length=4)]
    pick: Id
    because: Words
    when: tuple[Condition, ...] = ()
    own: Annotated[str, Field(max_length=12)] | None = None

    def find(self, way: str | None) -> Way | None:
        """The way with this id."""
        return next((w for w in self.way if w.id == way), None)


class Cost(Part):
    """Hours and money, each as a range."""

    hours: Hours = (0, 0)
    money: Money = (0, 0)


class Pull(Part):
    """A step, of this or another sheet, without which extra work cannot be done; what it is where
    no sheet brings it.
    """

    step: Id
    thing: Words


class Extra(Part):
    """Extra work that is cheap while access exists: at which step, the cost now, the cost of coming
    back for it. `suspect`: only where the facts of the vehicle make it so.
    """

    id: Id
    thing: Words
    at: Id
    because: Words
    now: Cost
    later: Cost
    needs: tuple[Pull, ...] = ()
    when: tuple[Condition, ...] = ()
    suspect: bool = False


class PartChoice(Part):
    """A part of which there are several kinds."""

    id: Id
    name: Words
    option: Annotated[tuple[Words, ...], Field(min_length=2, max_length=12)]


class Agreement(Part):
    """Parts whose kinds must agree: `allowed` lists the combinations, in the order of `part`; a
    clash blocks `step`.
    """

    id: Id
    name: Words
    step: Id
    part: Annotated[tuple[PartChoice, ...], Field(min_length=2, max_length=6)]
    allowed: Annotated[tuple[tuple[Words, ...], ...], Field(min_length=1, max_length=60)]
    because: Words
    when: tuple[Condition, ...] = ()


@dataclass(frozen=True, slots=True)
class Possible:
    """Whether a way can be gone here, and what forbids it."""

    answer: bool
    because: tuple[str, ...] = ()


def possible(way: Way, known: Known, lacking: Sequence[str]) -> Possible:
    """A way is not possible when a fact forbids it or a tool that it needs is `lacking` in the
    shop.
    """
    needs = applies(way.needs, known)
    if needs.answer == "no":
        return Possible(False, tuple(f"not for this vehicle, {words}" for words in needs.because))
    missing = [tool for tool in way.tools if tool.casefold() in {x.casefold() for x in lacking}]
    return Possible(not missing, tuple(f"not in this shop: {tool}" for tool in missing))


@dataclass(frozen=True, slots=True)
class AgreementState:
    """`agrees`, `open` (something is not known yet) or `clash`; the words name the parts and what
    would go together.
    """

    state: str
    words: str


def agreement_state(agreement: Agreement, parts: Mapping[str, str]) -> AgreementState:
    """Whether the parts as chosen go together.

    Incomplete answers clash as soon as no allowed combination is left.
    """
    said = [(choice, parts.get(choice.id)) for choice in agreement.part]
    left = [
        row
        for row in agreement.allowed
        if all(value in (None, item) for (_, value), item in zip(said, row, strict=True))
    ]
    if not left:
        have = ", ".join(f"{choice.name} {value}" for choice, value in said if value is not None)
        near = max(
            agreement.allowed,
            key=lambda row: sum(value == item for (_, value), item in zip(said, row, strict=True)),
        )
        goes = ", ".join(
            f"{choice.name} {item}" for (choice, _), item in zip(said, near, strict=True)
        )
        return AgreementState(
            "clash", f"{have} do not go together: {agreement.because}. What goes together: {goes}"
        )
    unknown = [choice.name for choice, value in said if value is None]
    if unknown:
        return AgreementState("open", f"not known yet: {', '.join(unknown)}")
    return AgreementState(
        "agrees", f"{', '.join(f'{choice.name} {value}' for choice, value in said)} go together"
    )
