"""What is looked at again after it has run: the odometer, and bolts found as they were or moved."""

from typing import Annotated, ClassVar

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.entries.base import Body, Key, Short, StepBody
from hollet.core.instruments import Instrument
from hollet.core.quantities.quantity import Measured, Quantity

__all__ = ["LookedAgain", "MovedBolt", "OdometerSaid"]


class OdometerSaid(Body):
    """What the odometer reads: distances count from it."""

    called: ClassVar = "odometer said"

    value: Measured

    def subject(self) -> Key:
        return Key("vehicle", "odometer")

    def line(self, title: str) -> str:
        return f"odometer: {self.value.shown()}"


class MovedBolt(BaseModel):
    """A bolt that was not as it had been set: at which torque it moved, where that was read."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    bolt: Annotated[int, Field(ge=1, le=200)]
    found: Measured | None = None


class LookedAgain(StepBody):
    """A joint looked at again: all its bolts held at `asked`, but those that moved, which are set
    again. Without a wrench only their marks were looked at.
    """

    called: ClassVar = "looked again"
    never_late: ClassVar = True
    touches: ClassVar = True
    is_ground: ClassVar = True

    joint: Short
    name: Annotated[str, Field(max_length=120)]
    bolts: Annotated[int, Field(ge=1, le=200)]
    asked: Quantity | None = None
    moved: Annotated[tuple[MovedBolt, ...], Field(max_length=200)] = ()
    wrench: Instrument | None = None
    words: Annotated[str, Field(max_length=300)] = ""

    def subject(self) -> Key:
        return Key("joint", self.joint)

    def line(self, title: str) -> str:
        how = f"{self.wrench.code}" if self.wrench is not None else "by their marks"
        told = f", {self.words}" if self.words else ""
        if not self.moved:
            return f"{self.name} looked at again, {how}: all {self.bolts} held{told}"
        moved = ", ".join(
            f"bolt {m.bolt}" + (f" at {m.found.value} {m.found.unit}" if m.found else "")
            for m in self.moved
        )
        return f"{self.name} looked at again, {how}: moved: {moved}{told}"
