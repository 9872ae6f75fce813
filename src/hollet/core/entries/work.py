"""How a step stands: begun, done, happened, said, not there, reopened, passed over, seen."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import Key, Reason, Short, Stands, StepBody
from hollet.core.procedure.pieces import Carry, Opens, Release
from hollet.core.quantities.quantity import Measured

__all__ = [
    "Confirmed",
    "Done",
    "Happened",
    "NotThere",
    "Reopened",
    "Said",
    "Skipped",
    "Started",
    "TrialSaid",
]


class Started(StepBody):
    """Work on the step began; `reason` when before what it waits for, `passed` names that."""

    called: ClassVar = "started"

    reason: Reason | None = None
    passed: Annotated[tuple[Annotated[str, Field(max_length=800)], ...], Field(max_length=60)] = ()
    spoken: str | None = None

    def line(self, title: str) -> str:
        return f"began: {title}"


class Done(StepBody):
    """The step is done; with what it opened, closed, carries and lets go, and the joints it took
    out (`joint` in lines of when it could be one alone). `reason` when out of order or done in
    another way.

    `passed` names what the reason passed, in words; lines of before it was kept have none.
    """

    called: ClassVar = "done"
    touches: ClassVar = True
    says: ClassVar = True

    reason: Reason | None = None
    passed: (
        Annotated[tuple[Annotated[str, Field(max_length=800)], ...], Field(max_length=60)] | None
    ) = None
    spoken: str | None = None
    joint: str | None = None
    joints: tuple[str, ...] = ()
    opens: tuple[Opens, ...] = ()
    closes: tuple[str, ...] = ()
    carries: tuple[Carry, ...] = ()
    releases: tuple[Release, ...] = ()

    def subjects(self) -> tuple[Key, ...]:
        named = (*((self.joint,) if self.joint else ()), *self.joints)
        return (*super().subjects(), *(Key("joint", joint) for joint in named))

    def also(self) -> tuple[Key, ...]:
        items = (*(item.id for item in self.opens), *self.closes)
        return tuple(Key("open", item) for item in items)

    def closed(self) -> tuple[str, ...]:
        return self.closes

    def opened(self) -> tuple[Opens, ...]:
        return self.opens

    def carried(self) -> tuple[Carry, ...]:
        return self.carries

    def released(self) -> tuple[Release, ...]:
        return self.releases

    def stands(self) -> Stands:
        return Stands("done", self.reason)

    def line(self, title: str) -> str:
        return f"done: {title}" + (f" (out of order: {self.reason})" if self.reason else "")


class Happened(StepBody):
    """The step has happened already although a danger was not dealt with: a fact and no pass.

    `without` names what was not so, in words.
    """

    called: ClassVar = "happened"
    touches: ClassVar = True
    never_late: ClassVar = True
    says: ClassVar = True

    without: Annotated[
        tuple[Annotated[str, Field(min_length=1, max_length=600)], ...],
        Field(min_length=1, max_length=20),
    ]
    opens: tuple[Opens, ...] = ()
    carries: tuple[Carry, ...] = ()
    releases: tuple[Release, ...] = ()

    def also(self) -> tuple[Key, ...]:
        return tuple(Key("open", item.id) for item in self.opens)

    def opened(self) -> tuple[Opens, ...]:
        return self.opens

    def carried(self) -> tuple[Carry, ...]:
        return self.carries

    def released(self) -> tuple[Release, ...]:
        return self.releases

    def stands(self) -> Stands:
        return Stands("begun", doubt=f"it has happened without: {'; '.join(self.without)}")

    def line(self, title: str) -> str:
        return f"has happened: {title}, without: {'; '.join(self.without)}"


class TrialSaid(StepBody):
    """What a dry fit has proved: it fits, it does not, or it cannot be told; in words."""

    called: ClassVar = "trial said"
    touches: ClassVar = True
    tells: ClassVar = True

    fits: Literal["yes", "no", "unclear"]
    proves: Short
    words: Annotated[str, Field(max_length=300)] = ""

    def line(self, title: str) -> str:
        told = {"yes": "it fits", "no": "it does not fit", "unclear": "it cannot be told"}
        more = f": {self.words}" if self.words else ""
        return f"on trial, {title}: {told[self.fits]}{more}"


class Said(StepBody):
    """A figure that the step asks for, as typed, with its value and unit."""

    called: ClassVar = "said"
    tells: ClassVar = True

    figure: str
    name: Short
    value: Measured

    def subject(self) -> Key:
        return Key("said", self.figure)

    def line(self, title: str) -> str:
        return f"{self.name}: {self.value.value} {self.value.unit}"


class NotThere(StepBody):
    """The thing a step is about is not on this vehicle: its name, and where it was looked for."""

    called: ClassVar = "not there"
    says: ClassVar = True

    thing: Short
    looked: Reason

    def stands(self) -> Stands:
        return Stands("not_there", f"{self.thing}: not there, {self.looked}")

    def line(self, title: str) -> str:
        return f"not there: {self.thing}; {self.looked}"


class Reopened(StepBody):
    """The step counts as not done again."""

    called: ClassVar = "reopened"
    touches: ClassVar = True
    says: ClassVar = True

    reason: Reason

    def line(self, title: str) -> str:
        return f"reopened: {title}, {self.reason}"


class Skipped(StepBody):
    """The step is passed over, or does not apply here."""

    called: ClassVar = "skipped"
    says: ClassVar = True

    reason: Reason
    not_applicable: bool = False
    spoken: str | None = None

    def stands(self) -> Stands:
        return Stands("not_applicable" if self.not_applicable else "skipped", self.reason)

    def line(self, title: str) -> str:
        return f"{'not applicable' if self.not_applicable else 'skipped'}: {title}, {self.reason}"


class Confirmed(StepBody):
    """A precondition or a level, seen and pressed."""

    called: ClassVar = "confirmed"

    what: Short

    def line(self, title: str) -> str:
        return f"seen: {self.what}"
