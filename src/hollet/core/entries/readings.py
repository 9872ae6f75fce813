"""Figures read, and what is decided about one outside."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import Key, Short, StepBody
from hollet.core.entries.sent import Sent
from hollet.core.errors import Refused
from hollet.core.instruments import Instrument
from hollet.core.limits import Limit
from hollet.core.procedure.joints import LookWhen
from hollet.core.quantities.quantity import Quantity, decimal_text

__all__ = ["Concession", "Disposition", "Reading"]


class Reading(StepBody):
    """Repeats of one reading as typed, the values as parsed, and the tool as it was; of feeler
    leaves `values` go in and `no_go` do not. `missed`: what had been changed under it after it was
    read and before it arrived. `sent`: its tool said so itself. `tabled`: it came in a table, which
    does not say at what hour it was read.
    """

    called: ClassVar = "reading"
    is_ground: ClassVar = True
    never_late: ClassVar = True

    reading: str
    typed: Annotated[tuple[Short, ...], Field(min_length=1, max_length=50)]
    unit: str
    values: tuple[Quantity, ...]
    no_go: tuple[Quantity, ...] = ()
    deviation_from: Quantity | None = None
    instrument: Instrument | None = None
    state: str | None = None
    datum: str | None = None
    sure: bool = False
    missed: Annotated[str, Field(max_length=240)] = ""
    sent: Annotated[tuple[Sent, ...], Field(max_length=50)] = ()
    tabled: bool = False

    def subject(self) -> Key:
        return Key("reading", self.reading)

    def tool(self) -> Instrument:
        """The tool it was read with; refused (`no_instrument_data`) where none was named."""
        if self.instrument is None:
            raise Refused(
                "no_instrument_data", "no tool was named for this reading", field="instrument"
            )
        return self.instrument

    def titled(self) -> Key:
        return Key("reading", self.reading)

    def line(self, title: str) -> str:
        typed, tool = ", ".join(self.typed), self.instrument.code if self.instrument else "no tool"
        how = "sent" if self.sent else "in a table" if self.tabled else "typed"
        plus = f" from {self.deviation_from.value}" if self.deviation_from else ""
        pairs = zip(self.typed, self.values, strict=True)
        if all(_plain(text, str(q.value)) for text, q in pairs):
            return f"{title}: {how} {typed} {self.values[0].unit}{plus}, {tool}"
        values = ", ".join(_shown(q, self.instrument) for q in self.values)
        return f"{title}: {how} {typed}, {values}{plus}, {tool}"


def _plain(typed: str, value: str) -> bool:
    """Whether a bare figure was typed in the canonical unit, so that repeating it says nothing."""
    return typed.strip().rstrip("0") == value.rstrip("0") or typed.strip() == value


def _shown(figure: Quantity, tool: Instrument | None) -> str:
    """A figure as finely as its tool reads, and never a tail of digits."""
    text = str(figure.value)
    if len(text.partition(".")[2]) <= 5:
        return f"{text} {figure.unit}"
    places = len(str(tool.resolution).partition(".")[2]) if tool is not None else 0
    return f"{decimal_text(float(text), max(places, 4))} {figure.unit}"


class Concession(StepBody):
    """A value outside its limit accepted in writing; holds for these readings, this limit and their
    values. `recheck` is when it is looked at again as typed, `recheck_when` as it was read (lines
    of before have none).
    """

    called: ClassVar = "concession"

    result: str
    readings: tuple[str, ...]
    value: str
    limit: Limit
    reason: Annotated[str, Field(min_length=10, max_length=1000)]
    name: Short
    use: Annotated[str, Field(max_length=200)] | None = None
    licensed: Annotated[str, Field(max_length=200)] | None = None
    recheck: Annotated[str, Field(max_length=80)] | None = None
    recheck_when: LookWhen | None = None

    def subject(self) -> Key:
        return Key("result", f"{self.step}/{self.result}")

    def line(self, title: str) -> str:
        return (
            f"accepted in writing: {self.limit.name} {self.value} {self.limit.unit}, "
            f"limit {self.limit.words()}. “{self.reason}” {self.name}"
            + (f", for {self.use}" if self.use else "")
            + (f", looked at again {self.recheck}" if self.recheck else "")
            + (f", licensed inspection {self.licensed}" if self.licensed else "")
        )


class Disposition(StepBody):
    """What happens about a result outside: measure again, rework or replace."""

    called: ClassVar = "disposition"

    result: str
    choice: Literal["measure_again", "rework", "replace"]
    note: str | None = None

    def subject(self) -> Key:
        return Key("result", f"{self.step}/{self.result}")

    def line(self, title: str) -> str:
        note = f", {self.note}" if self.note else ""
        return f"{title}, {self.result}: {self.choice.replace('_', ' ')}{note}"
