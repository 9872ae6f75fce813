"""A sum of the bench that is kept with the build, with its figures by name."""

from typing import Annotated, ClassVar

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.entries.base import Key, Own, Short, StepBody

__all__ = ["SumAnswer", "SumInput", "SumKept"]

Line = Annotated[str, Field(max_length=600)]


class SumInput(BaseModel):
    """One figure of a sum as it was typed, or as the `source` gave it: a reading, a size of the
    vehicle, a figure that was said.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    field: Short
    label: Short
    typed: Line
    source: Annotated[str, Field(max_length=120)] | None = None
    source_name: Annotated[str, Field(max_length=200)] | None = None


class SumAnswer(BaseModel):
    """One answer of a sum, in words."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    name: Short
    text: Line


class SumKept(StepBody):
    """A sum with what went in, what came out and its working."""

    called: ClassVar = "sum kept"
    tells: ClassVar = True

    sum: Own
    calc: Short
    title: Short
    inputs: Annotated[tuple[SumInput, ...], Field(max_length=40)]
    answers: Annotated[tuple[SumAnswer, ...], Field(max_length=40)]
    working: Annotated[tuple[Line, ...], Field(max_length=60)] = ()

    def subject(self) -> Key:
        return Key("sum", self.sum)

    def line(self, title: str) -> str:
        told = ", ".join(f"{answer.name} {answer.text}" for answer in self.answers[:3])
        return f"reckoned: {self.title}: {told}"
