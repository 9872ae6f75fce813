"""A fault followed up: the symptom, each test with its answer, what stopped it, the cause."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import AtStep, Key, Short

__all__ = ["CauseFound", "FaultStopSeen", "FaultTested", "SymptomSaid"]


class SymptomSaid(AtStep):
    """Something is wrong: which symptom, in whose words, and whether the vehicle may stand so
    (parked) or was stopped.
    """

    called: ClassVar = "symptom said"
    tells: ClassVar = True

    fault: Annotated[str, Field(min_length=8, max_length=64)]
    symptom: Annotated[str, Field(max_length=60)]
    name: Short
    words: Annotated[str, Field(max_length=300)] = ""
    attempt: str | None = None

    def subject(self) -> Key:
        return Key("fault", self.fault)

    def line(self, title: str) -> str:
        return f"wrong: {self.name}" + (f", {self.words}" if self.words else "")


class FaultTested(AtStep):
    """One test of a fault: what was done, the answer, the figure where one was read, and what was
    seen before.
    """

    called: ClassVar = "fault tested"
    tells: ClassVar = True

    fault: Annotated[str, Field(min_length=8, max_length=64)]
    test: Annotated[str, Field(max_length=60)]
    do: Annotated[str, Field(max_length=400)]
    answer: Annotated[int, Field(ge=0, le=40)]
    words: Annotated[str, Field(max_length=300)]
    figure: Annotated[str, Field(max_length=60)] = ""
    seen: tuple[Annotated[str, Field(max_length=200)], ...] = ()

    def subject(self) -> Key:
        return Key("fault", self.fault)

    def line(self, title: str) -> str:
        figure = f" ({self.figure})" if self.figure else ""
        return f"tested, {self.do[:60]}: {self.words}{figure}"


class FaultStopSeen(AtStep):
    """What stops it at once was seen: it stands until the cause is found and mended."""

    called: ClassVar = "fault stop"
    never_late: ClassVar = True

    fault: Annotated[str, Field(min_length=8, max_length=64)]
    when: Annotated[str, Field(max_length=300)]
    then: Annotated[str, Field(max_length=400)]

    def subject(self) -> Key:
        return Key("fault", self.fault)

    def line(self, title: str) -> str:
        return f"stopped: {self.when}. {self.then}"


class CauseFound(AtStep):
    """What it was, how that was proven, and what was done; `how`: mended and looked at, or it is
    another symptom, or it was none.
    """

    called: ClassVar = "cause found"
    touches: ClassVar = True
    tells: ClassVar = True

    fault: Annotated[str, Field(min_length=8, max_length=64)]
    cause: Annotated[str, Field(max_length=60)] = ""
    what: Annotated[str, Field(max_length=400)]
    done: Annotated[str, Field(max_length=400)]
    how: Literal["mended", "other", "none"] = "mended"

    def subject(self) -> Key:
        return Key("fault", self.fault)

    def line(self, title: str) -> str:
        if self.how == "mended":
            return f"it was: {self.what}; {self.done}"
        return f"{'something else' if self.how == 'other' else 'nothing'}: {self.what}; {self.done}"
