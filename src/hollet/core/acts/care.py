"""What was laid on, how even a thing sits, how many covers came out."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act, held, step_named, tool_of
from hollet.core.acts.hand import Hand
from hollet.core.book.ledger import left_open
from hollet.core.book.passing import unsettled_before
from hollet.core.checking import standing
from hollet.core.entries import BookState, CountedOut, LaidOn, OutOfOven, SeatRead, StepBody
from hollet.core.entries.status import SETTLED, status_of
from hollet.core.errors import NotFound, Refused
from hollet.core.fitting.heating import HeatLeft, heat_left
from hollet.core.instruments import Instrument
from hollet.core.procedure.care import Warm
from hollet.core.procedure.sheet import Step
from hollet.core.quantities.parse import measured
from hollet.core.quantities.quantity import Measured, Quantity, canonical

__all__ = ["CountedOutAct", "LaidOnAct", "OutOfOvenAct", "SeatReadAct"]

FEWEST_DEPTHS = 3
FORM = "three to eight depths round about with a space between, such as 4.20 4.25 4.20 4.20"


def _in_hand(state: BookState, step: Step, hand: Hand, field: str) -> None:
    """Refuse what is written at a step that is done, or that waits."""
    if status_of(state, step).status in SETTLED:
        words = f"{step.number} is done: open it again first"
        raise Refused("already_done", words, field=field)
    waits = next(iter(unsettled_before(state, step, hand.now)), None)
    if waits is not None and waits.by != "reason":
        raise held(step, waits, field)


class LaidOnAct(Act[LaidOn], StepBody):
    """It is on now; once more where it skinned and was laid anew."""

    body: ClassVar = LaidOn
    kind: Literal["laid on"]
    laid: Annotated[str, Field(max_length=60)]

    def accepted(self, state: BookState, hand: Hand) -> LaidOn:
        step = step_named(state, self.step)
        laid = next((laid for laid in step.lays if laid.id == self.laid), None)
        if laid is None:
            raise NotFound("what is laid on", self.laid)
        _in_hand(state, step, hand, "laid")
        return self.filled(what=laid.what, open_s=laid.open_s())


class OutOfOvenAct(Act[OutOfOven], StepBody):
    """It comes out now: how hot it is by a probe or a stick that melts, and how hot it must still
    be as it goes on, by the sum.
    """

    body: ClassVar = OutOfOven
    kind: Literal["out of the oven"]
    warm: Annotated[str, Field(max_length=60)]
    out: Annotated[str, Field(min_length=1, max_length=20)]
    needed: Annotated[str, Field(min_length=1, max_length=20)]
    room: Annotated[str, Field(min_length=1, max_length=20)] = "20"

    def accepted(self, state: BookState, hand: Hand) -> OutOfOven:
        step = step_named(state, self.step)
        warm = next((warm for warm in step.warms if warm.id == self.warm), None)
        if warm is None:
            raise NotFound("what is warmed", self.warm)
        _in_hand(state, step, hand, "warm")
        out, needed, room = (
            measured(getattr(self, name), "temperature", "°C", name)
            for name in ("out", "needed", "room")
        )
        self._not_over(warm, out)
        found = heat_left(
            HeatLeft(
                temperature_out=_degrees(out),
                temperature_needed=_degrees(needed),
                room_temperature=_degrees(room),
                wall=Quantity(value=warm.wall_mm(), unit="mm"),
            )
        )
        left = canonical(found.time_left, "time", "out")
        return self.filled(what=warm.what, out=out, needed=needed, room=room, left_s=left)

    def _not_over(self, warm: Warm, out: Measured) -> None:
        """Refuse what is hotter, or colder, than the part may become: it is spoilt."""
        most, at = warm.most_c(), out.figure("temperature")
        if most is not None and (at > most if warm.by == "oven" else at < most):
            words = (
                f"{warm.what} at {out.shown()}: {warm.most} is the most it may become. What was "
                "past that is looked at, or another one goes in"
            )
            raise Refused("too_hot", words, field="out")


def _degrees(at: Measured) -> Quantity:
    return Quantity(value=at.figure("temperature"), unit="°C")


class SeatReadAct(Act[SeatRead], StepBody):
    """Depths in one line as they were read, one after the other round about."""

    body: ClassVar = SeatRead
    kind: Literal["seat read"]
    seat: Annotated[str, Field(max_length=60)]
    typed: Annotated[str, Field(min_length=1, max_length=200)]
    unit: Annotated[str, Field(min_length=1, max_length=8)] = "mm"
    instrument: Annotated[str, Field(max_length=64)]

    def accepted(self, state: BookState, hand: Hand) -> SeatRead:
        step = step_named(state, self.step)
        seat = next((seat for seat in step.seats if seat.id == self.seat), None)
        if seat is None:
            raise NotFound("what is seated", self.seat)
        _in_hand(state, step, hand, "typed")
        tool = tool_of(hand, self.instrument)
        if tool.dimension != "length":
            words = f"{tool.code} reads no depth: a caliper or a depth gauge does"
            raise Refused("wrong_tool", words, field="instrument")
        stands = standing(tool)
        if stands.sign == "outside":
            raise Refused("tool_unfit", f"{tool.code}: {stands.words}", field="instrument")
        texts = self.typed.split()
        if len(texts) < FEWEST_DEPTHS:
            raise Refused("too_few", f"'{self.typed}': {FORM}", field="typed")
        return self.filled(
            what=seat.what,
            depths=tuple(_depth(text, self.unit, tool) for text in texts[:8]),
            instrument=tool,
        )


def _depth(text: str, unit: str, tool: Instrument) -> Measured:
    depth = measured(text, "length", unit, "typed")
    if not tool.covers(depth.figure("length")):
        words = f"{text}: {tool.code} gives {tool.lo} to {tool.hi} {tool.unit}"
        raise Refused("out_of_range", words, field="typed")
    return depth


class CountedOutAct(Act[CountedOut], StepBody):
    """How many came out. Fewer than went in is a fact too: it is still in there."""

    body: ClassVar = CountedOut
    kind: Literal["counted out"]
    item: Annotated[str, Field(max_length=60)]
    out: Annotated[int, Field(ge=0, le=99, strict=True)]

    def accepted(self, state: BookState, hand: Hand) -> CountedOut:
        step_named(state, self.step)
        item = next((item for item in left_open(state) if item.id == self.item), None)
        if item is None:
            raise NotFound("open item", self.item)
        if self.out > item.count:
            words = f"{item.what}: {item.count} went in. Where does the other come from?"
            raise Refused("count_mismatch", words, field="out")
        return self.filled(what=item.what, of=item.count)
