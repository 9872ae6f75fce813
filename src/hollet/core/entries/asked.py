"""What a mechanic asks somebody, with the facts that went along, and what was answered."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import Body, Key, Own, PhotoHash, Reason, Short

__all__ = [
    "QuestionAnswered",
    "QuestionAnsweredSaid",
    "QuestionAsked",
    "QuestionAskedSaid",
]

AboutSort = Literal["step", "finding", "result", "limit", "fault", "order", "part"]
Trust = Literal["heard somewhere", "knows the work", "has done this one", "has the book open"]
TRUSTS: tuple[Trust, ...] = (
    "heard somewhere",
    "knows the work",
    "has done this one",
    "has the book open",
)


class QuestionAskedSaid(Body):
    """One question about one thing, to whom, what was tried, and the photos that go along."""

    question: Own
    sort: AboutSort
    about: Annotated[str, Field(max_length=160)]
    ask: Reason
    to: Annotated[str, Field(max_length=120)] = ""
    tried: Annotated[str, Field(max_length=1000)] = ""
    photos: Annotated[tuple[PhotoHash, ...], Field(max_length=12)] = ()

    def subject(self) -> Key:
        return Key("question", self.question)


class QuestionAsked(QuestionAskedSaid):
    """The same with the name of the thing and the facts as they stood when it was asked."""

    called: ClassVar = "question asked"
    clocked: ClassVar = False

    title: Short
    facts: Annotated[tuple[str, ...], Field(max_length=60)]
    step: str | None = None

    def line(self, title: str) -> str:
        to = f" {self.to}" if self.to else " somebody"
        return f"asked{to} about {self.title}: {self.ask}"


class QuestionAnsweredSaid(Body):
    """An answer: by whom, and how far that person is trusted in this."""

    question: Own
    name: Short
    trust: Trust
    text: Reason

    def subject(self) -> Key:
        return Key("question", self.question)


class QuestionAnswered(QuestionAnsweredSaid):
    """The same; it settles nothing by itself."""

    called: ClassVar = "question answered"
    clocked: ClassVar = False
    never_late: ClassVar = True

    title: Short

    def line(self, title: str) -> str:
        return f"{self.name}, who {self.trust}, on {self.title}: {self.text}"
