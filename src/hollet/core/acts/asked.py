"""What a hand asks somebody, and the answer that comes."""

from typing import Annotated, ClassVar, Literal

from pydantic import StringConstraints

from hollet.core.acts.base import Act
from hollet.core.acts.hand import Hand
from hollet.core.book.asking import questions, subject_of
from hollet.core.entries import BookState, Key, Photo, QuestionAnswered, QuestionAsked
from hollet.core.entries.asked import QuestionAnsweredSaid, QuestionAskedSaid
from hollet.core.errors import Conflict, NotFound

__all__ = ["QuestionAnsweredAct", "QuestionAskedAct"]

Words = Annotated[str, StringConstraints(strip_whitespace=True, min_length=3, max_length=1000)]
Named = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]


class QuestionAskedAct(Act[QuestionAsked], QuestionAskedSaid):
    """One question; the facts go along as they stand now."""

    body: ClassVar = QuestionAsked
    kind: Literal["question asked"]
    ask: Words

    def concerns(self) -> Key:
        return Key("question", self.question)

    def accepted(self, state: BookState, hand: Hand) -> QuestionAsked:
        if any(q.question == self.question for q in questions(state)):
            raise Conflict("this question is written already", reason_code="id_used")
        lost = next((p for p in self.photos if not state.each(Photo, "photo", p)), None)
        if lost is not None:
            raise NotFound("photo", lost)
        found = subject_of(state, self.sort, self.about, hand.listed)
        return self.filled(title=found.title, step=found.step, facts=found.facts[:60])


class QuestionAnsweredAct(Act[QuestionAnswered], QuestionAnsweredSaid):
    """An answer; it settles nothing by itself."""

    body: ClassVar = QuestionAnswered
    kind: Literal["question answered"]
    name: Named
    text: Words

    def accepted(self, state: BookState, hand: Hand) -> QuestionAnswered:
        asked = next((q for q in questions(state) if q.question == self.question), None)
        if asked is None:
            raise NotFound("question", self.question)
        return self.filled(title=asked.title)
