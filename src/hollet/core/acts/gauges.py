"""Gauges that send, while an engine runs: their figures, whoever has a hand free or not."""

from collections.abc import Sequence
from datetime import datetime
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act, step_named
from hollet.core.acts.hand import Hand
from hollet.core.entries import (
    AttemptEnded,
    AttemptStarted,
    BookState,
    RunSample,
    Samples,
    StepBody,
)
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.instruments import Instrument
from hollet.core.quantities.parse import measured
from hollet.core.quantities.quantity import Measured
from hollet.core.sent import SentValue

__all__ = ["GAUGES", "GaugesReadAct"]

GAUGES: tuple[tuple[str, str, str], ...] = (
    ("oil", "pressure gauge", "pressure"),
    ("rpm", "rev counter", "speed"),
    ("coolant", "thermometer", "temperature"),
    ("timing", "timing light", "angle"),
)
"""What of a moment each kind of tool says, and what it measures."""
APART_S = 0.7
"""Nearer than this two screens ask for the same moment."""


class GaugesReadAct(Act[Samples], StepBody):
    """The moment as the gauges of the shop read it now; the second is the server's own. Of two
    tools of one kind nobody knows which hangs at the engine: neither counts.
    """

    body: ClassVar = Samples
    by_device: ClassVar = True
    kind: Literal["gauges read"]
    attempt: Annotated[str, Field(max_length=64)]

    def accepted(self, state: BookState, hand: Hand) -> Samples:
        step = step_named(state, self.step)
        start = next(iter(state.each(AttemptStarted, "run", self.attempt)), None)
        if start is None or start.body.step != step.id:
            raise NotFound("attempt", self.attempt)
        if state.each(AttemptEnded, "run", self.attempt):
            raise Conflict("the key of this attempt is off", reason_code="already_ended")
        figures, codes = _figures(hand)
        if not figures:
            words = "no gauge of the shop sends: switch it on, say under Tools which one it is"
            raise Refused("no_gauge", words, field="attempt")
        began = datetime.fromisoformat(start.time)
        t = max(0.0, (datetime.fromisoformat(hand.now) - began).total_seconds())
        before = [
            s.t for e in state.each(Samples, "run", self.attempt) for s in e.body.samples if s.sent
        ]
        if any(abs(t - at) < APART_S for at in before):
            raise Conflict("another screen has taken this moment", reason_code="taken")
        sample = RunSample(t=round(t, 1), sent=tuple(codes), **figures)
        return self.filled(samples=(sample,))


def _figures(hand: Hand) -> tuple[dict[str, Measured], list[str]]:
    """What the live gauges say, and their codes."""
    figures, codes = {}, []
    for name, kind, dimension in GAUGES:
        found = _live(hand, kind, dimension)
        if len(found) == 1:
            tool, value = found[0]
            text = f"{value.value.value} {value.value.unit}"
            figures[name] = measured(text, dimension, value.value.unit, name)
            codes.append(tool.code)
    return figures, codes


def _live(hand: Hand, kind: str, dimension: str) -> Sequence[tuple[Instrument, SentValue]]:
    tools = ((hand.tools.get(name), value) for name, value in hand.live.items())
    return [
        (tool, value)
        for tool, value in tools
        if tool is not None and tool.kind == kind and tool.dimension == dimension
    ]
