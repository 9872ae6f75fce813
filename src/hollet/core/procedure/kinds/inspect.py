"""A step in which parts are looked at, face by face."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.findings import Surface
from hollet.core.procedure.kinds.base import BaseStep
from hollet.core.procedure.words import Id, Part, Words
from hollet.core.safety import Safety

if TYPE_CHECKING:
    from hollet.core.procedure.sheet import Sheet

__all__ = ["Face", "InspectPart", "InspectStep"]


class Face(Part):
    """One face, side or position of a part that has to be looked at."""

    id: Id
    name: Annotated[str, Field(min_length=1, max_length=24)]
    on: Surface


class InspectPart(Part):
    """A part with its faces; where it stands among its like; what a new one costs and what being
    wrong about it would.

    `clearance` names the step and the result that were measured at the same position.
    `only_traced`: it is looked at only when debris may have reached it.
    """

    id: Id
    name: Words
    face: Annotated[tuple[Face, ...], Field(min_length=1, max_length=12)]
    group: Words | None = None
    position: Annotated[str, Field(max_length=24)] | None = None
    clearance: tuple[Id, Id] | None = None
    price: Annotated[float, Field(ge=0, le=1e6)] | None = None
    wrong: Annotated[float, Field(ge=0, le=1e6)] | None = None
    only_traced: bool = False
    safety: Safety | None = None


class InspectStep(BaseStep):
    """Parts looked at, face by face; along a debris trace if something broke up."""

    kind: Literal["inspect"]
    part: Annotated[tuple[InspectPart, ...], Field(max_length=60)] = ()
    trace: Id | None = None

    looked_at: ClassVar[bool] = True
    done_words: ClassVar[str] = "Looked at"

    def as_inspection(self) -> "InspectStep":
        return self

    def follows(self) -> str | None:
        return self.trace

    def also_of(self, other: BaseStep) -> dict[str, object]:
        more = other.as_inspection()
        parts = {part.id: part for part in (*(more.part if more else ()), *self.part)}
        return {"part": tuple(parts.values()), "trace": self.trace or other.follows()}

    def laws(self, sheet: "Sheet") -> Iterator[tuple[str, str]]:
        yield from super().laws(sheet)
        if self.trace is not None and sheet.find_trace(self.trace) is None:
            yield "trace", f"'{self.trace}' is no trace of this sheet"
        results = {(step.id, result.id) for step in sheet.step for result in step.results()}
        for part in self.part:
            if len({face.id for face in part.face}) < len(part.face):
                yield "part", f"'{part.id}' has two faces with one id"
            if part.clearance is not None and part.clearance not in results:
                step, result = part.clearance
                yield "part", f"'{part.id}': '{result}' is no result of the step '{step}'"
