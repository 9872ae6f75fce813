"""What a hand says of work at a machine shop: ordered, out, back, measured before and after."""

import re
from datetime import date
from fractions import Fraction
from typing import Annotated, ClassVar, Literal

from pydantic import Field, StringConstraints

from hollet.core.acts.base import Act, step_named, tool_of
from hollet.core.acts.hand import Hand
from hollet.core.book.machined import MachineFacts, machine_orders, machine_work
from hollet.core.entries import BookState, Key, MachineMeasured, MachineMoved, MachineOrdered
from hollet.core.entries.base import Own, Short
from hollet.core.entries.machine import MachineMeasuredSaid
from hollet.core.entries.parts import Price
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.limits import Limit
from hollet.core.quantities.parse import measured, parse
from hollet.core.quantities.quantity import Measured, decimal_text
from hollet.core.quantities.units import Unit, from_canonical
from hollet.core.safety import Safety
from hollet.core.saying import read_day

__all__ = ["MachineMeasuredAct", "MachineMovedAct", "MachineOrderedAct"]

Day = Annotated[str, Field(min_length=1, max_length=40)]
Named = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
LEAVES = ("feeler", "gauge strip")
"""Tools that say which leaf goes in and which does not, and no figure by themselves."""
SIZE_FORM = "write the size with its range and unit, such as 84.500 to 84.515 mm"


def _work(state: BookState, work: str) -> MachineFacts:
    found = machine_work(state, work)
    if found is None:
        raise NotFound("machine work", work)
    return found


def _size(text: str, name: str, source: str | None) -> Limit:
    """The size that was ordered, as a limit; refused (`bad_size`) where it has no range."""
    side = re.fullmatch(r"\s*(at most|at least|up to)\s+(.+)", text, re.IGNORECASE)
    try:
        found = parse(side[2] if side is not None else text)
    except Refused as refusal:
        words = f"'{text}': {SIZE_FORM}"
        raise Refused("bad_size", words, field="size") from refusal
    unit = found.shown
    low, high = found.lo, found.hi
    if side is not None and found.kind == "single":
        low, high = (
            (found.nominal, None) if side[1].casefold() == "at least" else (None, found.nominal)
        )
    if low == 0:
        low = None  # nothing is flatter than flat: no tool proves a figure above nothing
    if unit is None or found.dimension is None or (low is None and high is None):
        raise Refused("bad_size", f"'{text}' has no range: {SIZE_FORM}", field="size")
    return Limit(
        id="machined",
        name=name,
        dimension=found.dimension,
        unit=unit.name,
        lo=_shown(low, unit, text),
        hi=_shown(high, unit, text),
        source=source,
    )


def _shown(value: Fraction | None, unit: Unit, text: str) -> str | None:
    """A figure of the size as finely as the finest one was typed, and never coarser than it is."""
    if value is None:
        return None
    typed = max((len(found) for found in re.findall(r"\d[.,](\d+)", text)), default=0)
    plain = decimal_text(from_canonical(value, unit))
    return decimal_text(from_canonical(value, unit), max(typed, len(plain.partition(".")[2])))


class MachineOrderedAct(Act[MachineOrdered]):
    """Work ordered on a part; `size` as typed, with what it is a size of and who says so."""

    body: ClassVar = MachineOrdered
    kind: Literal["machine ordered"]
    work: Own
    part: Named
    to_do: Named
    size: Annotated[str, Field(max_length=60)] = ""
    size_of: Annotated[str, Field(max_length=80)] = ""
    source: Annotated[str, Field(max_length=120)] = ""
    finish: Annotated[str, Field(max_length=200)] = ""
    with_on: Annotated[tuple[Named, ...], Field(max_length=8)] = ()
    supplier: Named
    price: Price | None = None
    step: str | None = None
    safety: Safety | Literal["none"] | None = None

    def concerns(self) -> Key:
        return Key("machine", self.work)

    def accepted(self, state: BookState, hand: Hand) -> MachineOrdered:
        if any(work.work == self.work for work in machine_orders(state)):
            raise Conflict("this work is written already", reason_code="id_used")
        if self.step is not None:
            step_named(state, self.step)
        if self.safety is None:
            words = f"{self.part}: is it a part of steering, brakes, wheels, fuel? say it once"
            raise Refused("safety_asked", words, field="safety")
        if self.safety == "lifting":
            words = f"{self.part}: lifting gear is never bent, welded or cut back, it is replaced"
            raise Refused("never_conceded", words, field="safety")
        size, finish = self.size.strip(), self.finish.strip()
        if not size and not finish:
            words = "say the size or the finish with which it must come back"
            raise Refused("nothing_ordered", words, field="size")
        name, source = self.size_of.strip() or self.to_do, self.source.strip() or None
        return MachineOrdered(
            work=self.work,
            need=f"work_{self.work}"[:60],
            part=self.part,
            to_do=self.to_do,
            finish=finish,
            limit=_size(size, name, source) if size else None,
            with_on=self.with_on,
            supplier=self.supplier,
            price=self.price,
            step=self.step,
            safety=None if self.safety == "none" else self.safety,
        )


class MachineMovedAct(Act[MachineMoved]):
    """It went out, it is back, or the order is off."""

    body: ClassVar = MachineMoved
    kind: Literal["machine moved"]
    work: Own
    now: Literal["out", "back", "off"]
    promised: Day | None = None
    because: Annotated[str, Field(max_length=300)] = ""

    def concerns(self) -> Key:
        return Key("machine", self.work)

    def accepted(self, state: BookState, hand: Hand) -> MachineMoved:
        work = _work(state, self.work)
        if work.state == "off":
            raise Conflict(f"{work.part}: this order is off", reason_code="cancelled")
        if self.now == "back" and work.state != "out":
            words = f"{work.part}: it did not go out yet"
            raise Refused("not_out", words, field="now")
        return MachineMoved(
            work=work.work,
            need=work.need,
            part=work.part,
            now=self.now,
            promised=_promised(self.promised, hand.today),
            because=self.because.strip(),
        )


def _promised(text: str | None, today: date) -> date | None:
    return read_day(text, today, "promised") if text and text.strip() else None


class MachineMeasuredAct(Act[MachineMeasured], MachineMeasuredSaid):
    """Figures taken before it goes out, or after it came back; or the finish that was seen."""

    body: ClassVar = MachineMeasured
    kind: Literal["machine measured"]
    typed: Annotated[tuple[Short, ...], Field(max_length=24)] = ()
    instrument: Annotated[str, Field(max_length=64)] | None = None

    def accepted(self, state: BookState, hand: Hand) -> MachineMeasured:
        work = _work(state, self.work)
        if self.when == "after" and work.state != "back":
            words = f"{work.part} is not back: what is measured now is how it went out"
            raise Refused("not_back", words, field="when")
        if self.when == "before" and work.state != "ordered":
            words = f"{work.part} is out or back: measured before is over"
            raise Refused("not_here", words, field="when")
        values = self._values(work)
        seen = self.seen.strip()
        if not values and not seen:
            raise Refused("bad_number", "type a figure, or what was seen", field="typed")
        tool = tool_of(hand, self.instrument) if self.instrument else None
        if values and tool is None:
            raise Refused("no_tool", "with which tool was it measured?", field="instrument")
        wrong = tool is not None and (tool.dimension != work.dimension or tool.kind in LEAVES)
        if values and tool is not None and wrong:
            words = f"{tool.code} gives no figure of its own for a {work.dimension}"
            raise Refused("wrong_tool", words, field="instrument")
        return self.filled(
            need=work.need,
            part=work.part,
            values=values,
            instrument=tool if values else None,
            seen=seen,
        )

    def _values(self, work: MachineFacts) -> tuple[Measured, ...]:
        """The figures in the unit of the order, or in the one typed."""
        texts = [text for text in self.typed if text.strip()]
        if texts and not work.dimension:
            words = f"{work.part}: no size was ordered, say what was seen of the finish"
            raise Refused("no_size", words, field="typed")
        unit = self.unit or work.unit
        return tuple(measured(text, work.dimension, unit, "typed") for text in texts)
