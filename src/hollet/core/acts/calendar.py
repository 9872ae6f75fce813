"""What a hand says of the shop's calendar: evenings, helpers, visits, tonight, commitments."""

from datetime import date
from itertools import pairwise
from typing import TYPE_CHECKING, Annotated, Any, ClassVar, Literal, TypeVar, Union

from pydantic import Field, StringConstraints

from hollet.core.acts.base import Act
from hollet.core.acts.hand import Hand
from hollet.core.acts.stock import NextTimeAct, SpareKeptAct, SpareMovedAct
from hollet.core.entries import (
    Body,
    BookState,
    Commitment,
    EveningChanged,
    EveningsSet,
    HelperKept,
    SupplierNoted,
    TonightSaid,
    Visit,
)
from hollet.core.entries.base import Own
from hollet.core.entries.calendar import Answer, Clock
from hollet.core.entries.parts import Price
from hollet.core.errors import NotFound, Refused
from hollet.core.saying import read_day

__all__ = [
    "AnyShopAct",
    "CommitmentAct",
    "EveningChangedAct",
    "EveningsSetAct",
    "HelperAct",
    "SupplierNotedAct",
    "TonightAct",
    "VisitAct",
]

Day = Annotated[str, Field(min_length=1, max_length=40)]
Named = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60)]
"""A few words: blanks alone are none."""


class EveningsSetAct(Act[EveningsSet], EveningsSet):
    """The evenings of a usual week; two of one day do not lie over each other."""

    body: ClassVar = EveningsSet
    kind: Literal["evenings set"]

    def accepted(self, state: BookState, hand: Hand) -> EveningsSet:
        spans = sorted((h.day, h.start, h.end) for h in self.hours)
        for (day, _, end), (other, start, _) in pairwise(spans):
            if day == other and start < end:
                raise Refused("bad_entry", "two evenings of one day overlap", field="hours")
        return self.filled()


class EveningChangedAct(Act[EveningChanged]):
    """One day with other hours, or closed; no hours and nothing said is as usual again."""

    body: ClassVar = EveningChanged
    kind: Literal["evening changed"]
    day: Day
    start: Clock | None = None
    end: Clock | None = None
    because: Annotated[str, Field(max_length=120)] | None = None

    def accepted(self, state: BookState, hand: Hand) -> EveningChanged:
        return _checked(
            EveningChanged,
            day=read_day(self.day, hand.today, "day"),
            start=self.start,
            end=self.end,
            because=self.because,
        )


class HelperAct(Act[HelperKept], HelperKept):
    """Somebody who helps."""

    body: ClassVar = HelperKept
    kind: Literal["helper kept"]
    name: Named

    def accepted(self, state: BookState, hand: Hand) -> HelperKept:
        return self.filled()


class VisitAct(Act[Visit]):
    """When a helper comes, and what the answer is."""

    body: ClassVar = Visit
    kind: Literal["visit"]
    visit: Own
    helper: Own
    day: Day
    start: Clock
    end: Clock
    answer: Answer = "to be asked"
    because: Annotated[str, Field(max_length=120)] | None = None

    def accepted(self, state: BookState, hand: Hand) -> Visit:
        known = state.newest(HelperKept, "helper", self.helper)
        if known is None:
            raise NotFound("helper", self.helper)
        return _checked(
            Visit,
            visit=self.visit,
            helper=self.helper,
            name=known.body.name,
            day=read_day(self.day, hand.today, "day"),
            start=self.start,
            end=self.end,
            answer=self.answer,
            because=self.because,
        )


class TonightAct(Act[TonightSaid]):
    """What is so tonight."""

    body: ClassVar = TonightSaid
    kind: Literal["tonight"]
    start: Clock
    end: Clock
    people: Annotated[tuple[Named, ...], Field(max_length=6)] = ()
    dark: bool = False
    cold: bool = False
    damp: bool = False
    quiet_from: Clock | None = None

    def accepted(self, state: BookState, hand: Hand) -> TonightSaid:
        own = self.model_dump(exclude={"kind", "people"})
        people = {name.casefold(): name for name in self.people}  # nobody stands there twice
        return _checked(TonightSaid, day=hand.today, people=tuple(people.values()), **own)


class CommitmentAct(Act[Commitment]):
    """Something dated."""

    body: ClassVar = Commitment
    kind: Literal["commitment"]
    commitment: Own
    what: Named
    day: Day
    time: Clock | None = None
    build: Annotated[str, Field(max_length=64)] | None = None
    bay: Named | None = None
    an_hour: Price | None = None
    done: bool = False
    because: Annotated[str, Field(max_length=120)] | None = None

    def accepted(self, state: BookState, hand: Hand) -> Commitment:
        own = self.model_dump(exclude={"kind", "day"})
        day = read_day(self.day, hand.today, "day", past=self.done)
        return Commitment(day=day, **own)


class SupplierNotedAct(Act[SupplierNoted], SupplierNoted):
    """A private word on a supplier."""

    body: ClassVar = SupplierNoted
    kind: Literal["supplier noted"]
    supplier: Named

    def accepted(self, state: BookState, hand: Hand) -> SupplierNoted:
        return self.filled()


B = TypeVar("B", bound=Body)


def _checked(body: type[B], *, day: date, **facts: Any) -> B:
    """The body, where its hours are in order; refused with the field where they are not."""
    start, end = facts.get("start"), facts.get("end")
    if (start is None) != (end is None):
        raise Refused("bad_entry", "give both hours, or none for a closed day", field="end")
    if start is not None and end is not None and end <= start:
        words = f"it ends at {end}, and that is not after {start}"
        raise Refused("bad_entry", words, field="end")
    return body.model_validate({"day": day, **facts})


SHOP_ACTS: tuple[type[Act[Any]], ...] = (
    EveningsSetAct,
    EveningChangedAct,
    HelperAct,
    VisitAct,
    TonightAct,
    CommitmentAct,
    SupplierNotedAct,
    SpareKeptAct,
    SpareMovedAct,
    NextTimeAct,
)

if TYPE_CHECKING:
    AnyShopAct = Act[Any]
else:
    AnyShopAct = Annotated[Union[SHOP_ACTS], Field(discriminator="kind")]  # noqa: UP007
