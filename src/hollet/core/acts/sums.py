"""A sum of the bench kept at a step."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act, step_named
from hollet.core.acts.hand import Hand
from hollet.core.book.sums import reckoned
from hollet.core.entries import BookState, StepBody, SumKept
from hollet.core.entries.base import Own

__all__ = ["SumKeptAct"]

Text = Annotated[str, Field(max_length=600)]


class SumKeptAct(Act[SumKept], StepBody):
    """Figures as typed, or taken from the build by name; the sum is reckoned as it is kept."""

    body: ClassVar = SumKept
    kind: Literal["sum kept"]
    sum: Own
    calc: Annotated[str, Field(max_length=60)]
    typed: Annotated[dict[str, Text], Field(max_length=40)]
    taken: Annotated[dict[str, Text], Field(max_length=40, default_factory=dict)]

    def accepted(self, state: BookState, hand: Hand) -> SumKept:
        step_named(state, self.step)
        found = reckoned(state, self.calc, self.typed, self.taken)
        return self.filled(
            title=found.title, inputs=found.inputs, answers=found.answers, working=found.working
        )
