"""What was laid on, how even a thing sits, how many covers came out."""

from typing import Annotated, ClassVar

from pydantic import Field

from hollet.core.entries.base import Key, Seconds, Short, StepBody
from hollet.core.instruments import Instrument
from hollet.core.quantities.quantity import Measured

__all__ = ["CountedOut", "LaidOn", "OutOfOven", "SeatRead"]


class LaidOn(StepBody):
    """Something was laid on now: what, and how long it may lie open."""

    called: ClassVar = "laid on"
    touches: ClassVar = True

    laid: str
    what: Short
    open_s: Seconds | None = None

    def line(self, title: str) -> str:
        within = f", closed within {self.open_s / 60:g} min" if self.open_s else ""
        return f"laid on: {self.what}{within}"


class SeatRead(StepBody):
    """Depths of a seated thing at several points round about, with one tool."""

    called: ClassVar = "seat read"
    looks: ClassVar = True

    seat: str
    what: Short
    depths: Annotated[tuple[Measured, ...], Field(min_length=3, max_length=8)]
    instrument: Instrument

    def line(self, title: str) -> str:
        depths = ", ".join(depth.shown() for depth in self.depths)
        return f"{self.what}, depths round about: {depths}, {self.instrument.code}"


class OutOfOven(StepBody):
    """A part comes out of the oven or the freezer: how hot it is, how hot it must still be as it
    goes on, and how long that is, by a stated rule.
    """

    called: ClassVar = "out of the oven"
    touches: ClassVar = True

    warm: str
    what: Short
    out: Measured
    needed: Measured
    room: Measured
    left_s: Seconds

    def line(self, title: str) -> str:
        return (
            f"out of the oven at {self.out.shown()}: {self.what}, on before {self.needed.shown()}, "
            f"about {self.left_s / 60:.1f} min"
        )


class CountedOut(StepBody):
    """How many covers, caps or rags came out of how many that went in."""

    called: ClassVar = "counted out"
    touches: ClassVar = True

    item: str
    what: Short
    out: Annotated[int, Field(ge=0, le=99)]
    of: Annotated[int, Field(ge=1, le=99)]

    def also(self) -> tuple[Key, ...]:
        return (Key("counted", self.item),)

    def line(self, title: str) -> str:
        return f"counted out: {self.out} of {self.of}, {self.what}"
