"""The bench at which figures are read and judged."""

from collections.abc import Sequence
from typing import Literal

from hollet.core.checking import standing
from hollet.core.entries import BookState, Reading
from hollet.core.entries.status import plan_of
from hollet.core.instruments import Instrument, single_reading_U
from hollet.core.limits import Limit, rounded_up
from hollet.core.procedure.kinds.measure import MeasureStep
from hollet.core.steps.before_after import SettingRow, before_after
from hollet.core.steps.carriers import CarrierFacts, carrier_of
from hollet.core.steps.choosing import PackChoice, pack_choices
from hollet.core.steps.matching import MatchChoice, match_choice
from hollet.core.steps.packs import pack_put
from hollet.core.steps.readings import ReadingFacts, expected_figure, readings_of
from hollet.core.steps.reshuffling import ValveShims, valve_shims
from hollet.core.steps.results import ResultFacts, results_of
from hollet.core.view import View
from hollet.screens.benches.base import BenchBase

__all__ = ["MeasureBench", "ToolChoice", "measure_bench", "tool_choice"]


class ToolChoice(View):
    """A tool of the shop for a kind of reading, with what it can do here."""

    id: str
    code: str
    name: str
    kind: str
    unit: str
    dimension: str
    U_text: str
    setting: str | None
    words: str
    can: bool
    sends: bool


class KitTool(View):
    """A tool that measures the thickness of a shim."""

    id: str
    code: str


class MeasureBench(View):
    """Read it, judge it, decide. `large` is the result to show large: the one that the newest
    reading belongs to. `asked_state`: what the sheet asks
    for, said once a sitting with one press and never filled in as said."""

    kind: Literal["measure"] = "measure"
    base: BenchBase
    primary: str
    readings: tuple[ReadingFacts, ...]
    results: tuple[ResultFacts, ...]
    tools: tuple[ToolChoice, ...]
    next_reading: str | None
    large: str | None
    asked_state: str | None
    draw: str | None
    rework: str | None
    replace: str | None
    packs: tuple[PackChoice, ...]
    kit_tools: tuple[KitTool, ...]
    valve_shims: ValveShims | None
    match: MatchChoice | None
    carrier: CarrierFacts | None
    settings: tuple[SettingRow, ...]


def tool_choice(tool: Instrument, value: float, limit: Limit | None) -> ToolChoice:
    """What a tool can do near a value: its uncertainty there, and why it cannot, where
    it cannot.
    """
    words, u_text, can = "no usual repeatability: read three times", "", False
    if tool.s is not None:
        big_u = single_reading_U(tool, value)
        u_text, can, words = f"±{rounded_up(big_u)}", True, tool.name
        lo, hi = (limit.figure("lo"), limit.figure("hi")) if limit else (None, None)
        if lo is not None and hi is not None and 2 * big_u > hi - lo:
            words, can = "too wide: it can never prove inside", False
    if value and not tool.covers(value):
        words, can = f"range {tool.lo} to {tool.hi} {tool.unit}", False
    stands = standing(tool)
    if stands.sign == "outside":
        words, can = stands.words, False
    return ToolChoice(
        id=tool.id,
        code=tool.code,
        name=tool.name,
        kind=tool.kind,
        unit=tool.unit,
        dimension=tool.dimension,
        U_text=u_text,
        setting=tool.setting,
        words=words,
        can=can,
        sends=tool.device is not None,
    )


def measure_bench(
    state: BookState, step: MeasureStep, tools: Sequence[Instrument], base: BenchBase
) -> MeasureBench:
    readings = readings_of(state, step, tools)
    shop = {tool.id: tool for tool in tools}
    choices: dict[str, ToolChoice] = {}
    for spec, reading in zip(step.reading, readings, strict=True):
        nominal = expected_figure(plan_of(state), spec)
        for name in reading.tools:
            choices.setdefault(name, tool_choice(shop[name], nominal, None))
    results, packs = results_of(state, step, tools), pack_choices(state, step, tools)
    alone = {
        r.readings[0]: r.judgement for r in results if len(r.readings) == 1
    }  # a reading that is judged by itself shows its verdict on the drawing
    readings = tuple(
        r.model_copy(update={"verdict": alone[r.entry].verdict, "side": alone[r.entry].side})
        if r.entry in alone
        else r
        for r in readings
    )
    return MeasureBench(
        base=base,
        primary="They are in"
        if any(p.chooses and p.best for p in packs)
        else f"{step.short or step.title}: done",
        readings=readings,
        results=results,
        tools=tuple(choices.values()),
        next_reading=_next_reading(state, step, readings, packs),
        large=_largest(state, step, results),
        asked_state=_asked_state(step, results),
        draw=step.draw,
        rework=step.rework,
        replace=step.replace,
        packs=packs,
        kit_tools=_kit_tools(tools) if packs or step.valve_shims or step.carrier else (),
        valve_shims=valve_shims(state, step, tools),
        match=match_choice(state, step, tools),
        carrier=carrier_of(state, step, tools),
        settings=before_after(state, step, tools),
    )


def _kit_tools(tools: Sequence[Instrument]) -> tuple[KitTool, ...]:
    """Micrometers and calipers of the shop, the finest first."""
    fit = [t for t in tools if not t.retired and t.kind in ("micrometer", "caliper")]
    return tuple(
        KitTool(id=t.id, code=t.code)
        for t in sorted(fit, key=lambda t: (t.kind != "micrometer", t.code))
    )


def _next_reading(
    state: BookState,
    step: MeasureStep,
    readings: Sequence[ReadingFacts],
    packs: Sequence[PackChoice],
) -> str | None:
    """The first reading that is missing. One that is taken with a pack in is missing until that is
    in, and again once another one is.
    """
    for reading in readings:
        if reading.entry and reading.read_before_shim:
            return reading.id
        pack = next((p for p in step.packs() if p.check and p.check.reading == reading.id), None)
        if pack is None:
            if reading.entry is None:
                return reading.id
            continue
        put = pack_put(state, step.id, pack)
        chooses = next(p.chooses for p in packs if p.id == pack.id)
        read = state.newest(Reading, "reading", reading.id)
        if put is not None and not chooses and (read is None or read.seq < put.seq):
            return reading.id
    return None


def _largest(state: BookState, step: MeasureStep, results: Sequence[ResultFacts]) -> str | None:
    """The result that the newest reading of the step belongs to; one already read before one that
    still lacks a figure.
    """
    newest = state.newest(Reading, "step", step.id)
    own = [spec.id for spec in step.result if newest and newest.body.reading in spec.named()]
    read = {r.id for r in results if r.readings}
    return next((name for name in own if name in read), own[0] if own else None)


def _asked_state(step: MeasureStep, results: Sequence[ResultFacts]) -> str | None:
    """The state that the sheet asks for in this step, where it is one: that of its readings, else
    the condition of its limits. Whether a reading fits its limit is the verdict's to say.
    """
    asked = {r.state for r in step.reading if r.state} or {
        r.limit.condition for r in results if r.limit.condition
    }
    return asked.pop() if len(asked) == 1 else None
