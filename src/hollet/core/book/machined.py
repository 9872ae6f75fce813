"""Work at a machine shop: where each part is, and whether it came back as it was ordered."""

import math
from collections.abc import Sequence
from datetime import date

from pydantic import computed_field

from hollet.core.entries import (
    BookState,
    Entry,
    MachineMeasured,
    MachineMoved,
    MachineOrdered,
)
from hollet.core.instruments import Instrument, single_reading_U
from hollet.core.limits import Judgement, judge
from hollet.core.saying import day_due
from hollet.core.steps.proof import in_doubt
from hollet.core.view import View

__all__ = ["MachineFacts", "machine_orders", "machine_work"]


class MachineFacts(View):
    """One piece of machine work: what was ordered, where the part is, what was measured before and
    after, each figure judged by the order.
    """

    work: str
    need: str
    part: str
    to_do: str
    asks: str
    finish: str
    unit: str
    dimension: str
    with_on: tuple[str, ...]
    supplier: str
    price: float | None
    step: str | None
    state: str
    promised: date | None
    before: tuple[str, ...]
    after: tuple[str, ...]
    judged: tuple[Judgement, ...]
    doubt: str | None
    seen: str
    seq: int

    @computed_field
    @property
    def to_measure(self) -> bool:
        """Whether it is back and not measured again."""
        return self.state == "back" and not (self.judged or self.seen)

    @computed_field
    @property
    def right(self) -> bool:
        """Whether it is back and every figure that was ordered is inside, a finish seen."""
        if self.state != "back" or self.doubt:
            return False
        sized = bool(self.judged) and all(j.verdict == "inside" for j in self.judged)
        return (sized or not self.asks) and (bool(self.seen) or not self.finish)

    @computed_field
    @property
    def live(self) -> bool:
        """Whether something is still to come of it."""
        return self.state != "off" and not self.right

    @computed_field
    @property
    def words(self) -> str:
        """Where it stands, in few words."""
        by = f", promised for {day_due(self.promised)}" if self.promised else ""
        if self.state == "ordered":
            return f"to be taken to {self.supplier}{by}"
        if self.state == "out":
            return f"at {self.supplier}{by}"
        if self.state == "off":
            return "order off"
        if self.doubt:
            return f"back, {self.doubt}: measure it again"
        bad = next((j for j in self.judged if j.verdict != "inside"), None)
        if bad is not None:
            return f"back, {bad.value_text} {bad.unit}: {bad.words}"
        if self.asks and not self.judged:
            return "back, not measured again"
        if self.finish and not self.seen:
            return "back, the finish is not looked at"
        return "back, as ordered"


def machine_orders(state: BookState, tools: Sequence[Instrument] = ()) -> tuple[MachineFacts, ...]:
    """All machine work, in the order in which it was ordered."""
    found = (machine_work(state, work, tools) for work, _ in state.names("machine"))
    return tuple(facts for facts in found if facts is not None)


def machine_work(
    state: BookState, work: str, tools: Sequence[Instrument] = ()
) -> MachineFacts | None:
    """One piece of machine work as it stands; only what was measured since it came back counts as
    measured after, each figure of it, and nothing measured with a tool of `tools` that was found
    wrong since. A figure that was typed wrong is struck.
    """
    placed = state.newest(MachineOrdered, "machine", work)
    if placed is None:
        return None
    body = placed.body
    moves = state.each(MachineMoved, "machine", work)
    last = moves[-1] if moves else None
    since = last.seq if last is not None and last.body.now == "back" else 0
    said = state.each(MachineMeasured, "machine", work)
    before = [e for e in said if e.body.when == "before"]
    after = [e for e in said if e.body.when == "after" and e.seq > since > 0]
    promised = next((m.body.promised for m in reversed(moves) if m.body.promised), None)
    doubts = [in_doubt(e, e.body.instrument, tools) for e in after if e.body.values]
    limit = body.limit
    return MachineFacts(
        work=work,
        need=body.need,
        part=body.part,
        to_do=body.to_do,
        asks=limit.words() if limit is not None else "",
        finish=body.finish,
        unit=limit.unit if limit is not None else "",
        dimension=limit.dimension if limit is not None else "",
        with_on=body.with_on,
        supplier=body.supplier,
        price=body.price,
        step=body.step,
        state=last.body.now if last is not None else "ordered",
        promised=promised,
        before=_figures(before),
        after=_figures(after),
        judged=tuple(judged for entry in after for judged in _judged(body, entry)),
        doubt=next((doubt for doubt in doubts if doubt), None),
        seen=next((e.body.seen for e in reversed(after) if e.body.seen), ""),
        seq=placed.seq,
    )


def _figures(said: list[Entry[MachineMeasured]]) -> tuple[str, ...]:
    return tuple(value.shown() for entry in said for value in entry.body.values)


def _judged(order: MachineOrdered, entry: Entry[MachineMeasured]) -> tuple[Judgement, ...]:
    """Each figure by the order, with the spread of the tool with which it was taken."""
    limit, tool = order.limit, entry.body.instrument
    if limit is None:
        return ()
    found = []
    for value in entry.body.values:
        raw = value.figure(limit.dimension)
        reads_high = tool.known_offset() if tool is not None else 0.0
        big_u = None
        if tool is not None and tool.reaches(raw):
            big_u = single_reading_U(tool, raw - reads_high)
        known = big_u if big_u is not None and math.isfinite(big_u) else None
        digits = len(value.value.partition(".")[2])
        found.append(judge(raw - reads_high, known, limit, digits=digits))
    return tuple(found)
