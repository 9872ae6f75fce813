"""Shims of valves: how thick they are, that they were changed about; like parts matched."""

import re
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act, held, step_named, tool_of
from hollet.core.acts.hand import Hand
from hollet.core.acts.packs import measures_thickness
from hollet.core.book.passing import unsettled_before
from hollet.core.entries import BookState, PairsTaken, ShimsChanged, ShimsRead, StepBody
from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.packs import ShimmedValves
from hollet.core.procedure.sheet import Step
from hollet.core.quantities.parse import measured
from hollet.core.quantities.quantity import Measured
from hollet.core.steps.matching import pairs_by
from hollet.core.steps.reshuffling import moves_of

__all__ = ["PairsTakenAct", "ShimsChangedAct", "ShimsReadAct"]

THICKEST_MM = 25.0
FORM = "one thickness a valve, in their order, with a space between: 2.65 2.70 2.60"


def _valves(step: Step) -> ShimmedValves:
    found = step.shimmed()
    if found is None:
        raise NotFound("valve shims", step.id)
    return found


class ShimsReadAct(Act[ShimsRead], StepBody):
    """Thicknesses as typed in one line, in the order of the valves; spares, and the sizes that are
    sold: from, to, in steps.
    """

    body: ClassVar = ShimsRead
    kind: Literal["shims read"]
    typed: Annotated[str, Field(max_length=800)]
    spares: Annotated[str, Field(max_length=600)] = ""
    sizes: tuple[str, str, str]
    unit: Annotated[str, Field(min_length=1, max_length=8)] = "mm"
    instrument: Annotated[str, Field(max_length=64)] | None = None

    def accepted(self, state: BookState, hand: Hand) -> ShimsRead:
        valves = _valves(step_named(state, self.step))
        shims = self._figures(self.typed, "typed")
        if len(shims) != len(valves.lash):
            words = f"{len(shims)} shims for {len(valves.lash)} valves: {FORM}"
            raise Refused("count_mismatch", words, field="typed")
        first, last, step = (self._one(text, "sizes") for text in self.sizes)
        if last.figure("length") < first.figure("length"):
            words = "the sizes that are sold go from the thinner to the thicker one"
            raise Refused("bad_grid", words, field="sizes")
        tool = tool_of(hand, self.instrument) if self.instrument else None
        if tool is not None:
            measures_thickness(tool)
        return self.filled(
            shims=shims,
            spares=self._figures(self.spares, "spares"),
            sizes=(first, last, step),
            instrument=tool,
        )

    def _figures(self, text: str, field: str) -> tuple[Measured, ...]:
        return tuple(self._one(part, field) for part in re.split(r"[\s;]+|,(?=\s)", text) if part)

    def _one(self, text: str, field: str) -> Measured:
        found = measured(text, "length", self.unit, field)
        if not 0 < found.figure("length") <= THICKEST_MM:
            words = f"'{text}': a shim is thicker than nothing, and at most {THICKEST_MM:g} mm"
            raise Refused("bad_shim", words, field=field)
        return found


class PairsTakenAct(Act[PairsTaken], StepBody):
    """Which part goes into which, in the order of the bores: the readings of the parts."""

    body: ClassVar = PairsTaken
    kind: Literal["pairs taken"]
    inners: Annotated[tuple[Annotated[str, Field(max_length=60)], ...], Field(max_length=16)]

    def accepted(self, state: BookState, hand: Hand) -> PairsTaken:
        step = step_named(state, self.step)
        if step.matched() is None:
            raise NotFound("matching", step.id)
        waits = next(iter(unsettled_before(state, step, hand.now)), None)
        if waits is not None:
            raise held(step, waits, "step")
        return self.filled(pairs=pairs_by(state, step, self.inners))


class ShimsChangedAct(Act[ShimsChanged], StepBody):
    """Every shim is changed as the table says; each valve is read again."""

    body: ClassVar = ShimsChanged
    kind: Literal["shims changed"]

    def accepted(self, state: BookState, hand: Hand) -> ShimsChanged:
        step = step_named(state, self.step)
        _valves(step)
        waits = next(iter(unsettled_before(state, step, hand.now)), None)
        if waits is not None:
            raise held(step, waits, "step")
        moves = moves_of(state, step, hand.listed)
        if not moves:
            words = "no shim changes its place by the table"
            raise Refused("nothing_moves", words, field="step")
        return self.filled(moves=moves)
