"""What hangs and by what: every element between the load and the beam, with its marked limit."""

from datetime import date
from typing import Annotated, ClassVar, Literal

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.entries.base import Key, Share, Short, StepBody
from hollet.core.quantities.quantity import Measured

__all__ = ["LiftElement", "LiftSaid"]


class LiftElement(BaseModel):
    """One element: its marked limit (none where it bears no mark), the share of it that is left as
    it is used and why, whether it carries one leg or the whole, what was found on it, and until
    when its inspection holds (None: its tag says none).
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    name: Short
    limit: Measured | None = None
    left: Share = 1.0
    why: Annotated[str, Field(max_length=120)] = ""
    where: Literal["top", "leg"]
    found: Annotated[str, Field(max_length=200)] = ""
    inspected_until: date | None = None


class LiftSaid(StepBody):
    """The lift as it hangs: the mass (`heavy` its heavy end, where it is a range) and where that
    comes from, the legs with their length and how far the eyes stand apart, or the `angle` that was
    measured on the loaded sling; how high the hook has to go and how high it can.
    """

    called: ClassVar = "lift said"
    tells: ClassVar = True

    what: Short
    heavy: Measured
    light: Measured | None = None
    mass_from: Literal["weighed", "book", "estimate"]
    jerk: Share
    legs: Annotated[int, Field(ge=1, le=4)]
    leg: Measured | None = None
    apart: Measured | None = None
    angle: Measured | None = None
    hook: Measured | None = None
    reach: Measured | None = None
    elements: Annotated[tuple[LiftElement, ...], Field(max_length=20)]

    def subject(self) -> Key:
        return Key("lift", self.step)

    def line(self, title: str) -> str:
        legs = "1 leg" if self.legs == 1 else f"{self.legs} legs"
        by = ", ".join(element.name for element in self.elements)
        return f"{self.what}, {self.heavy.value} {self.heavy.unit}, on {legs}: {by}"
