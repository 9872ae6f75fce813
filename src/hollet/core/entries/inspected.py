"""What was seen on parts, what was decided about them, and what may have done it."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import (
    AtStep,
    Body,
    Key,
    Money,
    Own,
    PhotoHash,
    Reason,
    Short,
    StepBody,
)
from hollet.core.findings import DISPOSITIONS, Cleaning, Confidence, Method, Surface
from hollet.core.findings import Disposition as PartChoice
from hollet.core.quantities.differing import laid_words
from hollet.core.safety import Safety

__all__ = [
    "Cause",
    "Evidence",
    "FaceAdded",
    "FaceAddedSaid",
    "Finding",
    "FindingSaid",
    "LaidBeside",
    "LaidBesideSaid",
    "PartDecided",
    "PartDecidedSaid",
    "PartRight",
    "PartRightSaid",
    "Traced",
    "TracedSaid",
]


class FindingSaid(StepBody):
    """What a hand says of a face; without a code, nothing was found there."""

    part: Own
    face: Own
    code: Own | None = None
    grade: Annotated[int, Field(ge=1, le=3)] | None = None
    cleaning: Cleaning = "wiped"
    confidence: Confidence = "sure"
    method: Method = "eye"
    words: Annotated[str, Field(max_length=400)] | None = None
    cause: Annotated[str, Field(max_length=200)] | None = None
    photo: PhotoHash | None = None

    def subject(self) -> Key:
        return Key("face", f"{self.step}/{self.part}/{self.face}")


class Finding(FindingSaid):
    """What was seen on one face: a coded term with its grade, or nothing; how clean it was, how
    sure, by which sense.
    """

    called: ClassVar = "finding"
    tells: ClassVar = True
    looks: ClassVar = True
    never_late: ClassVar = True

    part_name: Short
    face_name: Short
    code_name: Short | None = None
    grade_word: Short | None = None

    def shown_photo(self) -> str | None:
        return self.photo

    def line(self, title: str) -> str:
        found = f"{self.code_name}, {self.grade_word}" if self.code else "nothing found"
        perhaps = f"perhaps from {self.cause}" if self.cause else None
        unsure = self.confidence if self.confidence != "sure" else None
        more = ", ".join(text for text in (self.cleaning, unsure, self.words, perhaps) if text)
        return f"{self.part_name}, {self.face_name}: {found} ({more})"


class FaceAddedSaid(StepBody):
    """Another face to look at; a part that is not there yet is named."""

    part: Own
    part_name: Short
    face: Own
    face_name: Annotated[str, Field(min_length=1, max_length=24)]
    on: Surface

    def subject(self) -> Key:
        return Key("matrix", self.step)


class FaceAdded(FaceAddedSaid):
    """A face that no sheet names has to be looked at, on a part of the sheet or on another."""

    called: ClassVar = "face added"
    never_late: ClassVar = True

    safety: Safety | None = None

    def line(self, title: str) -> str:
        return f"to be looked at as well: {self.part_name}, {self.face_name}"


class TracedSaid(StepBody):
    """What failed, on the trace of a step; nothing takes the trace back."""

    station: Own | None = None

    def subject(self) -> Key:
        return Key("trace", self.step)


class Traced(TracedSaid):
    """Something broke up at this station of the trace; without a station, the trace is
    taken back.
    """

    called: ClassVar = "traced"

    trace: Own
    station_name: Short | None = None

    def line(self, title: str) -> str:
        if not self.station:
            return "trace taken back"
        return f"broke up: {self.station_name}; everything downstream is looked at"


class PartDecidedSaid(StepBody):
    """What a hand decides about a part, and why."""

    part: Own
    choice: PartChoice
    reason: Reason
    price: Annotated[Money, Field(ge=0, le=1e6)] | None = None
    wrong: Annotated[Money, Field(ge=0, le=1e6)] | None = None
    name: Short | None = None
    licensed: Annotated[str, Field(max_length=200)] | None = None

    def subject(self) -> Key:
        return Key("part", f"{self.step}/{self.part}")


class PartDecided(PartDecidedSaid):
    """What happens to a part: the choice, why, what it costs, and what it costs if that is wrong;
    used again though bad, by whom and who inspected it.
    """

    called: ClassVar = "part decided"

    part_name: Short
    seen: Annotated[int, Field(ge=0)] = 0
    faces: Annotated[int, Field(ge=0)] = 0

    def line(self, title: str) -> str:
        whole = self.seen >= self.faces
        seen = "" if whole else f", provisional: {self.seen} of {self.faces} faces seen"
        costs = (("costs", self.price), ("if wrong", self.wrong))
        money = ", ".join(f"{words} {figure:g}" for words, figure in costs if figure is not None)
        choice = f"{self.part_name}: {DISPOSITIONS[self.choice]}, {self.reason}"
        return choice + (f" ({money})" if money else "") + seen


class PartRightSaid(StepBody):
    """How what was decided about a part was done."""

    part: Own
    how: Reason

    def subject(self) -> Key:
        return Key("part", f"{self.step}/{self.part}")


class PartRight(PartRightSaid):
    """What was decided about a part is done: a new one is here and compared, it is reworked, or
    clean.
    """

    called: ClassVar = "part put right"

    part_name: Short

    def line(self, title: str) -> str:
        return f"{self.part_name} put right: {self.how}"


class LaidBesideSaid(StepBody):
    """One feature, old against new, as typed."""

    part: Own
    feature: Annotated[str, Field(min_length=2, max_length=60)]
    old: Annotated[str, Field(min_length=1, max_length=80)]
    new: Annotated[str, Field(min_length=1, max_length=80)]
    why: Reason | None = None

    def subject(self) -> Key:
        return Key("part", f"{self.step}/{self.part}")


class LaidBeside(LaidBesideSaid):
    """One feature of the new part laid beside the old, each as typed: the same or not, and why a
    difference will do.
    """

    called: ClassVar = "laid beside"

    part_name: Short
    same: bool

    def line(self, title: str) -> str:
        words = laid_words(self.old, self.new, self.same, self.why)
        return f"{self.part_name}, {self.feature}: {words}"


class Cause(AtStep):
    """An explanation of what was found; it competes with others until something settles it."""

    called: ClassVar = "cause"
    never_late: ClassVar = True

    cause: Own
    what: Short

    def subject(self) -> Key:
        return Key("causes")

    def line(self, title: str) -> str:
        return f"it may have been: {self.what}"


class Evidence(Body):
    """What speaks for or against an explanation, what was varied or changed with it, what the maker
    says, what would settle it.
    """

    called: ClassVar = "evidence"
    never_late: ClassVar = True

    cause: Own
    sort: Literal["for", "against", "varied", "changed", "maker", "would settle", "settled"]
    text: Annotated[str, Field(min_length=3, max_length=600)]

    def subject(self) -> Key:
        return Key("causes")

    def line(self, title: str) -> str:
        return f"{self.sort}: {self.text}"
