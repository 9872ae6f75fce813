"""What the shop's calendar holds: evenings, who comes, what is promised for a day, what is around
tonight; and private words on suppliers (shop log only).
"""

from datetime import date
from typing import Annotated, ClassVar, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

from hollet.core.entries.base import Body, Key, Money, Own, Reason, Short

__all__ = [
    "Commitment",
    "EveningChanged",
    "EveningHours",
    "EveningsSet",
    "HelperKept",
    "NextTimeNoted",
    "SupplierNoted",
    "TonightSaid",
    "Visit",
]

Clock = Annotated[str, Field(pattern=r"^([01]\d|2[0-3]):[0-5]\d$")]
Answer = Literal["to be asked", "asked", "yes", "no", "dropped out"]
ANSWERS: tuple[Answer, ...] = ("to be asked", "asked", "yes", "no", "dropped out")
WEEK = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")


def _ends_later(start: str, end: str) -> None:
    if end <= start:
        raise ValueError("it must end after it begins, on the same day")


class EveningHours(BaseModel):
    """From when until when one works on a day of the week, 0 for Monday."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    day: Annotated[int, Field(ge=0, le=6)]
    start: Clock
    end: Clock

    @model_validator(mode="after")
    def _order(self) -> "EveningHours":
        _ends_later(self.start, self.end)
        return self


class EveningsSet(Body):
    """The evenings of a usual week."""

    called: ClassVar = "evenings set"

    hours: Annotated[tuple[EveningHours, ...], Field(max_length=14)]

    def subject(self) -> Key:
        return Key("calendar", "week")

    def line(self, title: str) -> str:
        said = ", ".join(f"{WEEK[h.day]} {h.start} to {h.end}" for h in self.hours)
        return f"evenings: {said or 'none'}"


class EveningChanged(Body):
    """One day that is not as usual: other hours, or closed, and why."""

    called: ClassVar = "evening changed"

    day: date
    start: Clock | None = None
    end: Clock | None = None
    because: Annotated[str, Field(max_length=120)] | None = None

    @model_validator(mode="after")
    def _order(self) -> "EveningChanged":
        if (self.start is None) != (self.end is None):
            raise ValueError("give both hours, or none for a closed day")
        if self.start is not None and self.end is not None:
            _ends_later(self.start, self.end)
        return self

    def subject(self) -> Key:
        return Key("calendar", self.day.isoformat())

    def line(self, title: str) -> str:
        hours = f"{self.start} to {self.end}" if self.start else "closed"
        return f"{self.day:%a %d %b}: {hours}" + (f", {self.because}" if self.because else "")


class HelperKept(Body):
    """Somebody who helps: initials or a name, and what that person can do."""

    called: ClassVar = "helper kept"

    helper: Own
    name: Annotated[str, Field(min_length=1, max_length=60)]
    can: Annotated[tuple[Short, ...], Field(max_length=12)] = ()
    gone: bool = False

    def subject(self) -> Key:
        return Key("helper", self.helper)

    def line(self, title: str) -> str:
        can = f", can {', '.join(self.can)}" if self.can else ""
        return f"helper {self.name}{can}" + (", no longer" if self.gone else "")


class Visit(Body):
    """When a helper comes: asked or not, and what the answer is."""

    called: ClassVar = "visit"

    visit: Own
    helper: Own
    name: Short
    day: date
    start: Clock
    end: Clock
    answer: Answer = "to be asked"
    because: Annotated[str, Field(max_length=120)] | None = None

    @model_validator(mode="after")
    def _order(self) -> "Visit":
        _ends_later(self.start, self.end)
        return self

    def subject(self) -> Key:
        return Key("visit", self.visit)

    def also(self) -> tuple[Key, ...]:
        return (Key("helper", self.helper),)

    def line(self, title: str) -> str:
        why = f": {self.because}" if self.because else ""
        return f"{self.name}, {self.day:%a %d %b} {self.start} to {self.end}: {self.answer}{why}"


class TonightSaid(Body):
    """What is so on one evening: from when until when, with whom, what is around."""

    called: ClassVar = "tonight"

    day: date
    start: Clock
    end: Clock
    people: Annotated[tuple[Short, ...], Field(max_length=6)] = ()
    dark: bool = False
    cold: bool = False
    damp: bool = False
    quiet_from: Clock | None = None

    @model_validator(mode="after")
    def _order(self) -> "TonightSaid":
        _ends_later(self.start, self.end)
        return self

    def subject(self) -> Key:
        return Key("calendar", f"tonight:{self.day.isoformat()}")

    def line(self, title: str) -> str:
        around = [
            w for w, so in (("dark", self.dark), ("cold", self.cold), ("damp", self.damp)) if so
        ]
        quiet = [f"quiet from {self.quiet_from}"] if self.quiet_from else []
        who = f"with {', '.join(self.people)}" if self.people else "alone"
        return ", ".join((f"tonight {self.start} to {self.end}", who, *around, *quiet))


class Commitment(Body):
    """Something dated: an event, a paint slot, a shop that closes; done or off. A bay or lift
    rented until then is named in `bay`, with what it costs an hour after that.
    """

    called: ClassVar = "commitment"

    commitment: Own
    what: Short
    day: date
    time: Clock | None = None
    build: Annotated[str, Field(max_length=64)] | None = None
    bay: Annotated[str, Field(max_length=60)] | None = None
    an_hour: Annotated[Money, Field(ge=0, le=1e5)] | None = None
    done: bool = False
    because: Annotated[str, Field(max_length=120)] | None = None

    def subject(self) -> Key:
        return Key("commitment", self.commitment)

    def line(self, title: str) -> str:
        time = f" {self.time}" if self.time else ""
        why = f": {self.because}" if self.because else ""
        bay = f", {self.bay} until then" if self.bay else ""
        hour = f", {self.an_hour:.2f} an hour" if self.an_hour is not None else ""
        done = ", done" if self.done else ""
        return f"{self.what}, {self.day:%a %d %b}{time}{bay}{hour}{done}{why}"


class SupplierNoted(Body):
    """A private word on a supplier; it comes up at the next order from there, and is never
    printed.
    """

    called: ClassVar = "supplier noted"
    never_late: ClassVar = True

    supplier: Short
    text: Reason

    def subject(self) -> Key:
        return Key("supplier", self.supplier.casefold())

    def line(self, title: str) -> str:
        return f"on {self.supplier}: {self.text}"


class NextTimeNoted(Body):
    """A word that stands before a step in every later build: what went wrong, what it cost in
    minutes, in which build.
    """

    called: ClassVar = "next time noted"
    never_late: ClassVar = True

    note: Own
    step: Annotated[str, Field(min_length=1, max_length=80)]
    title: Short
    text: Reason
    minutes: Annotated[int, Field(ge=0, le=6000)] = 0
    build: Annotated[str, Field(max_length=64)] | None = None
    build_name: Annotated[str, Field(max_length=200)] = ""
    gone: bool = False

    def subject(self) -> Key:
        return Key("next", self.note)

    def line(self, title: str) -> str:
        cost = f", it cost {self.minutes} min" if self.minutes else ""
        off = "no longer said " if self.gone else "next time, "
        return f"{off}before {self.title}: {self.text}{cost}"
