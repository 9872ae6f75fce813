"""Readings of a build: as typed, in force, with the tools that may give them."""

from collections.abc import Sequence
from datetime import datetime
from fractions import Fraction
from typing import Any

from pydantic import BaseModel, ConfigDict, computed_field

from hollet.core.checking import standing
from hollet.core.entries import BookState, Entry, Reading, ShimsChanged
from hollet.core.entries.status import outdated_since, plan_of
from hollet.core.instruments import (
    Instrument,
    Spread,
    leaf_share,
    may_give,
    reading_share,
    single_reading_U,
)
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.results import ReadingSpec
from hollet.core.procedure.sheet import Sheet
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import decimal_text, exact, round9

__all__ = [
    "ReadingFacts",
    "asks_again",
    "latest",
    "missed_ground",
    "reading_mean",
    "readings_of",
    "shim_changed",
    "spread_of",
    "tools_for",
]


class ReadingFacts(BaseModel):
    """One reading as it stands: typed text, value in the canonical unit, tool and spread.

    `tools` are the ids of the shop's tools that may give it, the best first; `hint` says how such a
    tool is typed.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    id: str
    name: str
    place: str | None
    tool_kind: str
    at: tuple[str, ...] = ()
    state: str | None = None
    datum: str | None = None
    taken_in: str | None = None
    ask_again: bool = False
    verdict: str | None = None
    side: str | None = None
    tools: tuple[str, ...] = ()
    hint: str | None = None
    entry: str | None = None
    typed: tuple[str, ...] = ()
    value_text: str = ""
    unit: str = ""
    tool: str | None = None
    who: str = ""
    day: str = ""
    read_before_shim: bool = False
    moves: str | None = None

    @computed_field
    @property
    def by_leaves(self) -> bool:
        """Whether it is read with two leaves: one that goes in, one that does not."""
        return self.tool_kind == "feeler"


def spread_of(entry: Entry[Reading]) -> Spread:
    body = entry.body
    if body.tool().kind == "feeler":
        return leaf_share(body.tool(), *_leaves(entry))
    base = (
        float(exact(body.deviation_from, body.tool().dimension, "setting"))
        if body.deviation_from
        else 0.0
    )
    typed = [float(exact(q, body.tool().dimension, "values")) + base for q in body.values]
    return reading_share(body.tool(), typed)


def _leaves(entry: Entry[Reading]) -> tuple[float, float | None]:
    """The thickest leaf that went in, and the thinnest that did not, of all that were tried."""
    body = entry.body
    goes = max(float(exact(q, body.tool().dimension, "values")) for q in body.values)
    nots = [float(exact(q, body.tool().dimension, "no_go")) for q in body.no_go]
    return goes, min(nots) if nots else None


def latest(state: BookState, reading: str) -> Entry[Reading] | None:
    """The reading in force: the newest that is not struck."""
    return state.newest(Reading, "reading", reading)


def expected_of(plan: Sheet, spec: ReadingSpec) -> str | None:
    """What a reading is expected to be about, such as `84 mm`: the size that the limit book gives,
    or what the sheet says; None where nobody knows.
    """
    limit = plan.find_limit(spec.size)
    return limit.size if limit is not None else spec.nominal


def expected_figure(plan: Sheet, spec: ReadingSpec) -> float:
    """The same in its canonical unit; 0 where nobody knows."""
    text = expected_of(plan, spec)
    return float(parse(text).nominal or 0) if text else 0.0


def tools_for(plan: Sheet, spec: ReadingSpec, tools: Sequence[Instrument]) -> tuple[str, ...]:
    """The tools of the shop that may give a reading, the best first: trusted, reaching it, of its
    kind, with the smallest uncertainty.
    """
    nominal = expected_figure(plan, spec)
    fit = [tool for tool in tools if not tool.retired and may_give(spec.tool, tool.kind)]

    def rank(tool: Instrument) -> tuple[bool, bool, bool, float, str]:
        reaches = tool.covers(nominal) if nominal else True
        return (
            standing(tool).sign == "outside",
            not reaches,
            tool.kind != spec.tool,
            single_reading_U(tool, nominal),
            tool.code,
        )

    return tuple(tool.id for tool in sorted(fit, key=rank))


def readings_of(
    state: BookState, step: BaseStep, tools: Sequence[Instrument] = ()
) -> tuple[ReadingFacts, ...]:
    """All readings of a step, taken or not, with the tools that may give them."""
    return tuple(_reading(state, spec, tools) for spec in step.readings())


def _reading(state: BookState, spec: ReadingSpec, tools: Sequence[Instrument]) -> ReadingFacts:
    entry = latest(state, spec.id)
    hint = (
        "two leaves: 0.35 0.40, the one that goes in and the one that does not"
        if spec.tool == "feeler"
        else None
    )
    asked: dict[str, Any] = {
        "id": spec.id,
        "name": spec.name,
        "place": spec.place,
        "tool_kind": spec.tool,
        "at": spec.at,
        "state": spec.state,
        "datum": spec.datum,
        "tools": tools_for(plan_of(state), spec, tools),
        "hint": hint,
    }
    if entry is None:
        return ReadingFacts(**asked)
    body = entry.body
    value, moves = "", None
    if body.instrument is not None:
        value = _value_text(entry)
        read = [float(exact(q, body.tool().dimension, "values")) for q in body.values]
        tool_s = body.tool().figure("s")
        if tool_s and round9(max(read) - min(read)) > round9(4 * tool_s):
            moves = "the repeats spread more than this tool usually does: does something move?"
    again = asks_again(state, spec, entry)
    return ReadingFacts(
        **asked,
        entry=entry.id,
        typed=body.typed,
        value_text=value,
        unit=body.values[0].unit,
        taken_in=body.state,
        tool=body.tool().code if body.instrument else None,
        who=entry.who,
        day=entry.bench_time[:10],
        read_before_shim=entry.seq < shim_changed(state, body.step, spec.id),
        moves=moves,
        ask_again=again,
    )


def shim_changed(state: BookState, step: str, reading: str) -> int:
    """The line with which the shim behind a reading was changed last, or after which nothing read
    at its step counts; 0 where there is none.
    """
    changes = state.each(ShimsChanged, "step", step)
    moved = (e.seq for e in changes for m in e.body.moves if m.reading == reading)
    since = outdated_since(state, step)
    return max((*moved, since.seq if since is not None else 0))


def missed_ground(state: BookState, step: str, seen: int, told: str) -> str:
    """What was changed under the readings of a step after somebody read there (`told`, ISO 8601),
    and before that arrived: words, or nothing. Told at once, whoever reads has seen it.
    """
    lines = [e for e in state.live("ground", step) if e.seq > seen]
    if not lines or not told:
        return ""
    newest = lines[-1]
    was = datetime.fromisoformat(told)
    return newest.body.outdated() if datetime.fromisoformat(newest.bench_time) > was else ""


def asks_again(state: BookState, spec: ReadingSpec, entry: Entry[Reading]) -> bool:
    return spec.twice and len(entry.body.typed) < 2 and len(state.live("reading", spec.id)) < 2


def _value_text(entry: Entry[Reading]) -> str:
    body = entry.body
    values = [exact(q, body.tool().dimension, "values") for q in body.values]
    base = (
        exact(body.deviation_from, body.tool().dimension, "setting") if body.deviation_from else 0
    )
    mean = sum(values, start=0 * values[0]) / len(values) + base
    if body.no_go:
        return (
            f"{decimal_text(max(values))} to "
            f"{decimal_text(min(exact(q, body.tool().dimension, 'no_go') for q in body.no_go))}"
        )
    offset = Fraction(str(round9(body.tool().known_offset())))
    places = len(body.tool().resolution.partition(".")[2])
    exact_text = decimal_text(mean - offset)
    typed = len(exact_text.partition(".")[2])
    return decimal_text(
        mean - offset, places + 1 if len(values) > 1 else max(places, min(typed, places + 1))
    )


def reading_mean(entry: Entry[Reading]) -> float:
    """The corrected mean of a reading in the canonical unit of its tool."""
    body = entry.body
    base = (
        float(exact(body.deviation_from, body.tool().dimension, "setting"))
        if body.deviation_from
        else 0.0
    )
    if body.tool().kind == "feeler":
        goes, does_not = _leaves(entry)
        return goes if does_not is None else (goes + does_not) / 2
    typed = [float(exact(q, body.tool().dimension, "values")) for q in body.values]
    return sum(typed) / len(typed) + base - float(body.tool().known_offset())
