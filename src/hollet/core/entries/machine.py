"""Work that goes to a machine shop: what to which finish or size, with what bolted on, measured
before, out, back, and measured again.
"""

from datetime import date
from typing import Annotated, ClassVar, Literal

from pydantic import Field, model_validator

from hollet.core.entries.base import Body, Key, Own, Short
from hollet.core.entries.parts import Price, day_words
from hollet.core.instruments import Instrument
from hollet.core.limits import Limit
from hollet.core.quantities.quantity import Measured
from hollet.core.safety import Safety

__all__ = [
    "MachineMeasured",
    "MachineMeasuredSaid",
    "MachineMoved",
    "MachineOrdered",
]


class MachineOrdered(Body):
    """Work ordered on a part: `limit` is the size it comes back with, where it is one; `finish` in
    words; `with_on` what is bolted on while it is cut.
    """

    called: ClassVar = "machine ordered"
    clocked: ClassVar = False

    work: Own
    need: Own
    part: Short
    to_do: Short
    finish: Annotated[str, Field(max_length=200)] = ""
    limit: Limit | None = None
    with_on: Annotated[tuple[Short, ...], Field(max_length=8)] = ()
    supplier: Short
    price: Price | None = None
    step: str | None = None
    safety: Safety | None = None

    @model_validator(mode="after")
    def _asked(self) -> "MachineOrdered":
        if self.limit is None and not self.finish:
            raise ValueError("say the size or the finish with which it must come back")
        return self

    def subject(self) -> Key:
        return Key("machine", self.work)

    def also(self) -> tuple[Key, ...]:
        return (Key("need", self.need),)

    def line(self, title: str) -> str:
        to = f", back with {self.limit.words()}" if self.limit is not None else ""
        finish = f", {self.finish}" if self.finish else ""
        on = f", with {', '.join(self.with_on)} bolted on" if self.with_on else ""
        return f"{self.supplier}: {self.part}, {self.to_do}{to}{finish}{on}"


class MachineMoved(Body):
    """It went out, came back, or the order is off; until when it is promised."""

    called: ClassVar = "machine moved"
    clocked: ClassVar = False

    work: Own
    need: Own
    part: Short
    now: Literal["out", "back", "off"]
    promised: date | None = None
    because: Annotated[str, Field(max_length=300)] = ""

    def subject(self) -> Key:
        return Key("machine", self.work)

    def also(self) -> tuple[Key, ...]:
        return (Key("need", self.need),)

    def line(self, title: str) -> str:
        to = {"out": "at the machine shop", "back": "back, not measured yet", "off": "order off"}
        by = f", promised for {day_words(self.promised)}" if self.promised else ""
        return f"{self.part}: {to[self.now]}{by}" + (f": {self.because}" if self.because else "")


class MachineMeasuredSaid(Body):
    """Figures taken at a part before it went out or after it came back; or, of a finish, what was
    seen.
    """

    work: Own
    when: Literal["before", "after"]
    typed: Annotated[tuple[Short, ...], Field(max_length=24)] = ()
    unit: Annotated[str, Field(max_length=8)] | None = None
    seen: Annotated[str, Field(max_length=300)] = ""

    def subject(self) -> Key:
        return Key("machine", self.work)


class MachineMeasured(MachineMeasuredSaid):
    """The same with the figures as parsed and the tool as it was."""

    called: ClassVar = "machine measured"

    need: Own
    part: Short
    values: tuple[Measured, ...] = ()
    instrument: Instrument | None = None

    def also(self) -> tuple[Key, ...]:
        return (Key("need", self.need),)

    def line(self, title: str) -> str:
        figures = ", ".join(value.shown() for value in self.values)
        tool = f", {self.instrument.code}" if self.instrument is not None else ""
        said = "; ".join(text for text in (figures + tool if figures else "", self.seen) if text)
        return f"{self.part} {self.when} machining: {said}"
