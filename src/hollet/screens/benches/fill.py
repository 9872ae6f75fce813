"""The bench at which a fluid goes in."""

from collections.abc import Sequence
from typing import Literal

from hollet.core.book.gates import dry_run_decision
from hollet.core.entries import BookState, Confirmed, Reading
from hollet.core.entries.status import plan_of
from hollet.core.errors import Refused
from hollet.core.instruments import Instrument, combine, reading_share
from hollet.core.limits import Judgement, Limit, judge
from hollet.core.procedure.kinds.fill import FillStep
from hollet.core.quantities.quantity import exact
from hollet.core.view import View
from hollet.screens.benches.base import BenchBase
from hollet.screens.benches.measure import ToolChoice, tool_choice

__all__ = ["FillBench", "fill_bench"]


class FillBench(View):
    """A fluid, its amount and its level."""

    kind: Literal["fill"] = "fill"
    base: BenchBase
    primary: str
    fluid: str
    amount: Limit
    judgement: Judgement
    typed: tuple[str, ...]
    level: str
    level_seen: bool
    tools: tuple[ToolChoice, ...]
    coolant: bool
    dry_run_s: float | None


def fill_bench(
    state: BookState, step: FillStep, tools: Sequence[Instrument], base: BenchBase
) -> FillBench:
    limit = plan_of(state).find_limit(step.amount)
    assert limit is not None
    read = state.newest(Reading, "reading", step.id)
    judgement = judge(None, None, limit)
    if read is not None:
        tool = read.body.tool()
        typed = [float(exact(q, tool.dimension, "values")) for q in read.body.values]
        try:
            spread = reading_share(tool, typed)
            judgement = judge(spread.value, combine([(1, spread)])[2], limit)
        except Refused:
            judgement = judge(sum(typed) / len(typed), None, limit)
    seen = any(e.body.what == step.level for e in state.each(Confirmed, "step", step.id))
    expected = limit.figure("target") or limit.figure("hi") or 0.0
    return FillBench(
        base=base,
        primary=f"{step.fluid}: in and level",
        fluid=step.fluid,
        amount=limit,
        judgement=judgement,
        typed=read.body.typed if read else (),
        level=step.level,
        level_seen=seen,
        coolant=step.coolant,
        tools=tuple(
            tool_choice(tool, expected, limit)
            for tool in tools
            if tool.kind == "jug" and not tool.retired
        ),
        dry_run_s=dry_run_decision(state) if step.coolant else None,
    )
