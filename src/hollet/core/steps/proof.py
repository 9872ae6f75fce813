"""What keeps a result from proving anything: reach, state, another reading, a doubted tool."""

from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta
from math import hypot

from hollet.core.entries import (
    BookState,
    Disposition,
    Done,
    Entry,
    Line,
    Reading,
)
from hollet.core.entries.status import outdated_since, plan_of, told_on_struck
from hollet.core.errors import Refused
from hollet.core.instruments import Instrument, Spread, combine
from hollet.core.limits import Limit
from hollet.core.procedure.formulas import evaluate
from hollet.core.procedure.results import ReadingSpec, ResultSpec
from hollet.core.quantities.quantity import decimal_text, round9
from hollet.core.quantities.units import CANONICAL
from hollet.core.states import state_conflict
from hollet.core.steps.readings import shim_changed, spread_of

__all__ = [
    "NEARLY",
    "apart_in_time",
    "doubt_of",
    "in_doubt",
    "maybe_swapped",
    "not_proven",
    "warnings_of",
]

NEARLY = 1e-3
AT_ONCE = timedelta(minutes=15)
"""So near each other, readings are of one moment: a few bursts with their rests (rule of thumb)."""


def not_proven(
    state: BookState,
    specs: Sequence[ReadingSpec],
    taken: dict[str, Entry[Reading]],
    spreads: dict[str, Spread],
    limit: Limit,
) -> str | None:
    """What keeps a figure from proving anything: out of its tool's reach, in another state than its
    limit holds for, or against another reading of the same.
    """
    for spec in specs:
        entry, spread = taken[spec.id], spreads[spec.id]
        tool = entry.body.tool()
        raw = spread.value + tool.known_offset()
        if not tool.reaches(raw) and tool.kind != "feeler":
            return f"outside the range of {tool.code}: no verdict"
        clash = state_conflict(entry.body.state, spec.state) or state_conflict(
            entry.body.state, limit.condition
        )
        if clash is not None:
            return clash
        if entry.body.missed:
            return f"{entry.body.missed}: read it again"
        since = outdated_since(state, entry.body.step)
        if since is not None and entry.seq < since.seq:
            return f"{since.body.outdated()}: read it again"
        struck = told_on_struck(state, entry.body.step, entry)
        if struck is not None:
            return f"{struck}: read it again"
        if entry.seq < shim_changed(state, entry.body.step, spec.id):
            return "read before its shim was changed: read it again"
        other = _disagrees(state, spec, entry, spread)
        if other is not None:
            return other
    return None


def apart_in_time(spec: ResultSpec, taken: Mapping[str, Entry[Reading]]) -> str | None:
    """Why readings that hold together only at one moment do not: they are of two."""
    if not spec.at_once:
        return None
    if any(entry.body.tabled for entry in taken.values()):
        return "a table does not say when each was read: read them together, here"
    times = [datetime.fromisoformat(entry.bench_time) for entry in taken.values()]
    if max(times) - min(times) <= AT_ONCE:
        return None
    return "its readings are not of one moment: read them together"


def _disagrees(
    state: BookState, spec: ReadingSpec, entry: Entry[Reading], spread: Spread
) -> str | None:
    """Two readings of one thing further apart than their uncertainty: a third decides.

    What was reworked or changed in between is another thing.
    """
    named = (e.seq for name in spec.changed_by for e in state.each(Done, "step", name))
    changed = max((*named, shim_changed(state, entry.body.step, spec.id)), default=0)
    reworked = max(
        (
            e.seq
            for e in state.each(Disposition, "step", entry.body.step)
            if e.body.choice != "measure_again" and e.seq < entry.seq
        ),
        default=0,
    )
    live = [
        e
        for e in state.each(Reading, "reading", spec.id)
        if e.seq > max(changed, reworked) and e.body.instrument is not None
    ]
    if len(live) != 2 or live[-1].id != entry.id:
        return None
    try:
        before = spread_of(live[0])
    except Refused:
        return None
    apart = abs(spread.value - before.value)
    if (
        before.bound
        or spread.bound
        or round9(apart) <= round9(hypot(combine([(1, spread)])[2], combine([(1, before)])[2]))
    ):
        return None
    return (
        f"{spec.name}: two readings are {decimal_text(round9(apart), 4)} "
        f"{CANONICAL[entry.body.tool().dimension]} apart, more than the tools are: a third "
        "decides"
    )


def doubt_of(
    parts: Sequence[tuple[float, Spread]],
    taken: dict[str, Entry[Reading]],
    tools: Sequence[Instrument],
) -> str | None:
    """Why a result cannot be trusted: a tool that counts in it failed its check, or the one that a
    gauge was set with, unless that cancels.
    """
    settings: dict[str, float] = {}
    for c, spread in parts:
        settings[spread.setting_chain] = settings.get(spread.setting_chain, 0.0) + c
    for (c, spread), entry in zip(parts, taken.values(), strict=True):
        words = in_doubt(entry, entry.body.instrument, tools) if abs(c) > NEARLY else None
        if words is None and spread.setting and abs(settings[spread.setting_chain]) > NEARLY:
            words = in_doubt(entry, entry.body.tool().set_with, tools)
        if words is not None:
            return words
    return None


def in_doubt(entry: Line, tool: Instrument | None, tools: Sequence[Instrument]) -> str | None:
    """Whether a tool failed a check after this reading and was last good before it, in words."""
    now = next((t for t in tools if tool is not None and t.id == tool.id), None)
    for doubt in now.doubts if now is not None else ():
        if doubt.since <= entry.time <= doubt.until:
            return f"{now.code if now else ''} was {doubt.words} at its check"
    return None


def warnings_of(
    state: BookState, specs: Sequence[ReadingSpec], taken: dict[str, Entry[Reading]]
) -> tuple[str, ...]:
    """Readings of one sum in different states, and readings older than a change of what they were
    taken of.
    """
    found, plan = [], plan_of(state)
    for spec in specs:
        for name in spec.changed_by:
            changed = [e for e in state.each(Done, "step", name) if e.seq > taken[spec.id].seq]
            step = plan.find_step(name)
            if changed and step is not None:
                found.append(
                    f"{spec.name} was read on {taken[spec.id].bench_time[:10]}, before "
                    f"{step.number} {step.title}: read it again"
                )
    states = {
        said for spec in specs if (said := taken[spec.id].body.state or spec.state)
    }  # what nobody said is compared as it was asked for
    as_asked = all(
        taken[spec.id].body.state in (None, spec.state) for spec in specs
    )  # two depths may well be asked for in two states
    if len(states) > 1 and not as_asked:
        found.append(f"its readings were taken in different states: {'; '.join(sorted(states))}")
    days = {entry.bench_time[:10] for entry in taken.values()}
    if len(days) > 1 and found:
        found.append(f"they are from different days: {', '.join(sorted(days))}")
    return tuple(found)


def maybe_swapped(
    spec: ResultSpec,
    specs: Sequence[ReadingSpec],
    means: dict[str, float],
    value: float,
    limit: Limit,
) -> tuple[str, ...]:
    """A question when two readings give less than nothing, and would not the other way round."""
    if len(means) != 2 or limit.dimension != "length" or value >= 0:
        return ()
    first, second = means
    try:
        other = evaluate(spec, {first: means[second], second: means[first]}).value
    except Refused:
        return ()
    return (
        (f"less than nothing: are {specs[0].name} and {specs[1].name} swapped?",)
        if other > 0
        else ()
    )
