"""A complaint, its trial again; a snag, and that it is put right."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act
from hollet.core.acts.hand import Hand
from hollet.core.book.complaints import complaints_of, snags_of
from hollet.core.entries import (
    BookState,
    ComplaintSaid,
    Key,
    SnagCleared,
    SnagSaid,
    TrialDriven,
)
from hollet.core.entries.base import AtStep
from hollet.core.errors import Conflict, NotFound, Refused

__all__ = ["ComplaintSaidAct", "SnagClearedAct", "SnagSaidAct", "TrialDrivenAct"]


class ComplaintSaidAct(Act[ComplaintSaid], ComplaintSaid):
    """What was wrong, and when."""

    body: ClassVar = ComplaintSaid
    kind: Literal["complaint said"]

    def concerns(self) -> Key:
        return Key("complaint", self.complaint)

    def accepted(self, state: BookState, hand: Hand) -> ComplaintSaid:
        if len(self.words.split()) < 2:
            words = "say what is wrong in two words or more, such as pulls left"
            raise Refused("no_words", words, field="words")
        return self.filled(words=" ".join(self.words.split()), speed=self.speed.strip())


class TrialDrivenAct(Act[TrialDriven], AtStep):
    """The trial once more: what was found, and which of its conditions it had."""

    body: ClassVar = TrialDriven
    kind: Literal["trial driven"]
    complaint: Annotated[str, Field(min_length=8, max_length=64)]
    found: Literal["gone", "less", "the same", "worse", "something else"]
    under: tuple[Annotated[str, Field(max_length=60)], ...] = ()
    words: Annotated[str, Field(max_length=400)] = ""

    def concerns(self) -> Key:
        return Key("complaint", self.complaint)

    def accepted(self, state: BookState, hand: Hand) -> TrialDriven:
        known = next((c for c in complaints_of(state) if c.id == self.complaint), None)
        if known is None:
            raise NotFound("complaint", self.complaint)
        same = set(known.conditions) <= set(self.under)
        return self.filled(same=same, words=self.words.strip())


class SnagSaidAct(Act[SnagSaid], SnagSaid):
    """Something small is left."""

    body: ClassVar = SnagSaid
    kind: Literal["snag said"]

    def concerns(self) -> Key:
        return Key("snag", self.snag)

    def accepted(self, state: BookState, hand: Hand) -> SnagSaid:
        return self.filled(what=" ".join(self.what.split()))


class SnagClearedAct(Act[SnagCleared], AtStep):
    """It is put right."""

    body: ClassVar = SnagCleared
    kind: Literal["snag cleared"]
    snag: Annotated[str, Field(min_length=8, max_length=64)]
    done: Annotated[str, Field(max_length=300)] = ""

    def concerns(self) -> Key:
        return Key("snag", self.snag)

    def accepted(self, state: BookState, hand: Hand) -> SnagCleared:
        left = next((s for s in snags_of(state) if s.id == self.snag), None)
        if left is None:
            if state.live("snag", self.snag):
                raise Conflict("this snag is cleared already", reason_code="already_cleared")
            raise NotFound("snag", self.snag)
        return self.filled(what=left.what[:120], done=self.done.strip())
