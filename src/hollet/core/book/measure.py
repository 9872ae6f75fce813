"""Measuring in a build: readings, derived results, their verdicts, and which tool would settle one."""

from collections.abc import Sequence
from math import log
from typing import Any

from pydantic import BaseModel, ConfigDict

from hollet.core.book.entries import Entry
from hollet.core.book.fold import BookState
from hollet.core.book.status import plan_of
from hollet.core.errors import Refused
from hollet.core.instruments import Instrument, Spread, combine, reading_share, single_reading_U
from hollet.core.limits import Judgement, Limit, judge
from hollet.core.measuring.formulas import evaluate, sensitivities
from hollet.core.procedure.sheet import MeasureStep, ReadingSpec, ResultSpec, Sheet
from hollet.core.quantities.parse import Parsed, parse
from hollet.core.quantities.quantity import Quantity, decimal_text, exact
from hollet.core.quantities.units import CANONICAL

__all__ = ["ReadingFacts", "ResultFacts", "SourceVerdict", "odd_question", "in_doubt", "read_text", "reading_mean", "readings_of", "result_of", "results_of", "settling_tools", "specs_of"]

FEW_LINES = 6
NEARLY = 1e-3
LONG_MM = 10.0
SLIPS = ((10.0, "a decimal place too low"), (0.1, "a decimal place too high"), (1 / 25.4, "mm taken for inches"), (25.4, "inches taken for mm"),
         (1 / 1000, "thousandths typed as wholes"))  # fmt: skip
"""By what a figure is off when it was slipped, and how that comes about."""


class ReadingFacts(BaseModel):
    """One reading as it stands: typed text, value in the canonical unit, tool and spread."""

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
    entry: str | None = None
    typed: tuple[str, ...] = ()
    value_text: str = ""
    unit: str = ""
    tool: str | None = None
    who: str = ""
    moves: str | None = None


class SourceVerdict(BaseModel):
    """How a result is judged by one of several sources of its limit, and whether that one is in force."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    source: str
    asks: str
    verdict: str
    side: str | None
    words: str
    in_force: bool


class ResultFacts(BaseModel):
    """One judged result, its concession or disposition, and what would settle it; `asks` is its limit in words, `advice` what its calculation says is next,
    held back while a reading of it is asked about."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    id: str
    name: str
    limit: Limit
    judgement: Judgement
    readings: tuple[str, ...] = ()
    conceded: bool = False
    licensed: bool = False
    concession: str | None = None
    lapsed: str | None = None
    disposition: str | None = None
    settled_by: tuple[str, ...] = ()
    refusal: str | None = None
    warnings: tuple[str, ...] = ()
    asks: str = ""
    advice: str | None = None
    sources: tuple[SourceVerdict, ...] = ()

    @property
    def open(self) -> bool:
        """Whether the result still needs something: not read, undecided, or outside and not conceded."""
        return self.judgement.verdict != "inside" and not self.conceded


def read_text(text: str, tool: Instrument | None, unit: str, dimension: str) -> tuple[Parsed, Quantity | None]:
    """Parse one typed repeat; on a gauge with a setting a value under half of it is a deviation.

    Returns
    -------
    (Parsed, Quantity or None)
        The value as typed, and the setting it was added to.
    """
    parsed = parse(text, dimension, unit)
    if parsed.kind != "single" or parsed.nominal is None:
        raise Refused("bad_number", f"'{text}': a reading is one figure, such as 0.09 mm", field="typed")
    if tool is not None and tool.setting is not None:
        setting = parse(tool.setting, tool.dimension, tool.unit)
        assert setting.nominal is not None
        if abs(parsed.nominal) < setting.nominal / 2:
            return parsed, Quantity(value=decimal_text(setting.nominal), unit=setting.unit or tool.unit)
    return parsed, None


def odd_question(spec: ReadingSpec, value: float, tool: Instrument | None, direct: Limit | None = None) -> str | None:
    """A question about a figure that is hardly possible here, or None. Asked, never refused.

    A figure judged directly by a limit (a gap) is odd beyond 0.4 to 2.5 times what is expected, or five times the upper
    limit where nothing is expected; one that goes into a difference (a diameter) beyond 5 %. The slip that comes nearest to what is
    expected is named: a decimal place, inch for millimetre, thousandths for wholes.
    """
    parsed = parse(spec.nominal)
    nominal = float(parsed.nominal or 0)
    text, expected = f"{value:.6g} {parsed.unit}", f"{nominal:.6g} {parsed.unit}"
    if nominal == 0:
        most = direct.figure("hi") if direct else None
        return f"{text} is far over the limit of {direct.words()}. Is it right?" if direct and most and value > 5 * most else None
    low, high = (0.95, 1.05) if direct is None and parsed.dimension == "length" and nominal >= LONG_MM else (0.4, 2.5)
    if tool is not None and not tool.covers(value):
        text += f", outside the range of {tool.code}"
    elif low * nominal <= value <= high * nominal:
        return None
    near = {slip: abs(log(value * factor / nominal)) for factor, slip in SLIPS if value * nominal > 0}
    slip = min(near, key=lambda words: near[words], default=None)
    if slip is not None and near[slip] <= log(1.05 if high < 2 else high):  # a diameter is known closely, a gap is not
        return f"{text}? Expected is about {expected}: {slip}?"
    return f"{text}? Expected is about {expected}. Is it right?"


def _spread(entry: Entry) -> Spread:
    body = entry.body
    if body.instrument is None:
        raise Refused("no_instrument_data", "no tool was named for this reading", field="instrument")
    base = float(exact(body.deviation_from, body.instrument.dimension, "setting")) if body.deviation_from else 0.0
    typed = [float(exact(q, body.instrument.dimension, "values")) + base for q in body.values]
    return reading_share(body.instrument, typed)


def latest(state: BookState, reading: str) -> Entry | None:
    """The reading in force: the newest that is not struck."""
    found = state.live(f"reading:{reading}")
    return found[-1] if found else None


def readings_of(state: BookState, step: MeasureStep) -> tuple[ReadingFacts, ...]:
    """All readings of a step, taken or not."""
    return tuple(_reading(state, spec) for spec in step.reading)


def _reading(state: BookState, spec: ReadingSpec) -> ReadingFacts:
    entry = latest(state, spec.id)
    asked: dict[str, Any] = {"id": spec.id, "name": spec.name, "place": spec.place, "tool_kind": spec.tool, "at": spec.at, "state": spec.state, "datum": spec.datum}
    if entry is None:
        return ReadingFacts(**asked)
    body = entry.body
    value, moves = "", None
    if body.instrument is not None:
        value = _value_text(entry)
        typed = [float(str(q.value)) for q in body.values]
        tool_s = body.instrument.figure("s")
        if len(typed) >= 2 and tool_s and max(typed) - min(typed) > 4 * tool_s:
            moves = "the repeats spread more than this tool usually does: does something move?"
    again = _asks_again(state, spec, entry)
    return ReadingFacts(**asked, entry=entry.id, typed=body.typed, value_text=value, unit=body.values[0].unit, taken_in=body.state,
                        tool=body.instrument.code if body.instrument else None, who=entry.who, moves=moves, ask_again=again)  # fmt: skip


def _asks_again(state: BookState, spec: ReadingSpec, entry: Entry) -> bool:
    return spec.twice and len(entry.body.typed) < 2 and len(state.live(f"reading:{spec.id}")) < 2


def _value_text(entry: Entry) -> str:
    body = entry.body
    values = [exact(q, body.instrument.dimension, "values") for q in body.values]
    base = exact(body.deviation_from, body.instrument.dimension, "setting") if body.deviation_from else 0
    mean = sum(values, start=0 * values[0]) / len(values) + base
    offset = parse(body.instrument.offset, body.instrument.dimension, body.instrument.unit).nominal or 0
    places = len(body.instrument.resolution.partition(".")[2])
    exact_text = decimal_text(mean - offset)
    typed = len(exact_text.partition(".")[2])
    return decimal_text(mean - offset, places + 1 if len(values) > 1 else max(places, min(typed, places + 1)))


def results_of(state: BookState, step: MeasureStep, tools: Sequence[Instrument] = ()) -> tuple[ResultFacts, ...]:
    """All results of a step, judged by the limits as they stand now."""
    return tuple(result_of(state, step, spec, tools) for spec in step.result)


def result_of(state: BookState, step: MeasureStep, spec: ResultSpec, tools: Sequence[Instrument] = ()) -> ResultFacts:
    """One result with its verdict, its working and what holds about it; remembered by readings, limit and tools."""
    subjects = [f"result:{step.id}/{spec.id}", *(f"reading:{name}" for name in spec.named())]
    changed = tuple(state.seen.get(f"step:{name}", 0) for reading in specs_of(plan_of(state), spec) for name in reading.changed_by)
    fingerprint = (tuple(state.seen.get(subject, 0) for subject in subjects), changed, tuple((tool.id, tool.version) for tool in tools))
    return state.remembered(("result", step.id, spec.id), fingerprint, lambda: _result_of(state, step, spec, tools))


def specs_of(plan: Sheet, spec: ResultSpec) -> list[ReadingSpec]:
    """The readings that a result is made of, as the sheet asks for them, in its order."""
    known = {r.id: r for s in plan.step if isinstance(s, MeasureStep) for r in s.reading}
    return [known[name] for name in spec.named() if name in known]


def _result_of(state: BookState, step: MeasureStep, spec: ResultSpec, tools: Sequence[Instrument]) -> ResultFacts:
    plan: Sheet = plan_of(state)
    limit = plan.find_limit(spec.limit)
    assert limit is not None
    specs, entries = specs_of(plan, spec), {name: latest(state, name) for name in spec.named()}
    taken = {name: entry for name, entry in entries.items() if entry is not None}
    base: dict[str, Any] = {"id": spec.id, "name": spec.name, "limit": limit, "asks": limit.words()}
    if len(taken) < len(entries):
        return ResultFacts(**base, judgement=judge(None, None, limit))
    base |= {"readings": tuple(entry.id for entry in taken.values()), "warnings": _warnings(state, specs, taken)}
    try:
        means = {name: reading_mean(entry) for name, entry in taken.items()}
        value, formula, advice = evaluate(spec, means)
        if len(taken) == 2 and limit.dimension == "length" and "clearance" in limit.id and value <= 0:
            raise Refused("negative_clearance", "what goes in is not smaller than its bore: which of the two figures is wrong?")
    except Refused as refusal:
        return ResultFacts(**base, judgement=judge(None, None, limit), refusal=refusal.message)
    try:
        spreads = {name: _spread(entry) for name, entry in taken.items()}
    except Refused as refusal:
        return _with_choices(state, step, spec, ResultFacts(**base, judgement=judge(value, None, limit), refusal=refusal.message))
    base["warnings"] = (*base["warnings"], *_swapped(spec, specs, means, value, limit))
    parts = [(c, spreads[name]) for name, c in sensitivities(spec, means).items()]
    big_u = combine(parts)[2]
    judgement = judge(value, big_u, limit, _working(parts, list(taken.values()), limit, formula))
    doubt = _doubt(parts, taken, tools)
    sure = not (doubt or base["warnings"] or any(_asks_again(state, s, taken[s.id]) for s in specs))  # nobody saws on a figure that is asked about
    base |= {"advice": advice if sure else None, "sources": _by_source(limit, value, big_u)}
    if doubt is not None and judgement.verdict in ("inside", "outside"):
        judgement = judgement.model_copy(update={"verdict": "too_close", "words": f"tool in doubt: {doubt}", "needs": None})
    by = settling_tools([s.tool for s in specs], parts, limit, tools, value) if judgement.verdict == "too_close" and len(specs) == len(parts) else ()
    return _with_choices(state, step, spec, ResultFacts(**base, judgement=judgement, settled_by=by))


def _by_source(limit: Limit, value: float, big_u: float) -> tuple[SourceVerdict, ...]:
    """What each source would say, where more than one has spoken."""
    found = []
    for answer in limit.answers if len(limit.answers) > 1 else ():
        said = limit.as_said(answer)
        judged = judge(value, big_u, said)
        page = f", p. {answer.page}" if answer.page else ""
        found.append(SourceVerdict(source=f"{answer.source}{page}", asks=said.words(), verdict=judged.verdict, side=judged.side, words=judged.words,
                                   in_force=limit.in_force(answer)))  # fmt: skip
    return tuple(found)


def _doubt(parts: Sequence[tuple[float, Spread]], taken: dict[str, Entry], tools: Sequence[Instrument]) -> str | None:
    """Why a result cannot be trusted: a tool that counts in it failed its check, or the one that a gauge was set with, unless that cancels."""
    settings: dict[str, float] = {}
    for c, spread in parts:
        settings[spread.setting_chain] = settings.get(spread.setting_chain, 0.0) + c
    for (c, spread), entry in zip(parts, taken.values(), strict=True):
        words = in_doubt(entry, entry.body.instrument, tools) if abs(c) > NEARLY else None
        if words is None and spread.setting and abs(settings[spread.setting_chain]) > NEARLY:
            words = in_doubt(entry, entry.body.instrument.set_with, tools)
        if words is not None:
            return words
    return None


def in_doubt(entry: Entry, tool: Instrument | None, tools: Sequence[Instrument]) -> str | None:
    """Whether a tool failed a check after this reading and was last good before it, in words."""
    now = next((t for t in tools if tool is not None and t.id == tool.id), None)
    for doubt in now.doubts if now is not None else ():
        if doubt.since <= entry.time <= doubt.until:
            return f"{now.code if now else ''} was {doubt.words} at its check"
    return None


def _warnings(state: BookState, specs: Sequence[ReadingSpec], taken: dict[str, Entry]) -> tuple[str, ...]:
    """Readings of one sum in different states, and readings older than a change of what they were taken of."""
    found, plan = [], plan_of(state)
    for spec in specs:
        for name in spec.changed_by:
            changed = [e for e in state.of_step(name) if e.kind == "done" and e.seq > taken[spec.id].seq]
            step = plan.find_step(name)
            if changed and step is not None:
                found.append(f"{spec.name} was read on {taken[spec.id].bench_time[:10]}, before {step.number} {step.title}: read it again")
    states = {entry.body.state for entry in taken.values() if entry.body.state}
    as_asked = all(taken[spec.id].body.state in (None, spec.state) for spec in specs)  # two depths may well be asked for in two states
    if len(states) > 1 and not as_asked:
        found.append(f"its readings were taken in different states: {'; '.join(sorted(states))}")
    days = {entry.bench_time[:10] for entry in taken.values()}
    if len(days) > 1 and found:
        found.append(f"they are from different days: {', '.join(sorted(days))}")
    return tuple(found)


def _swapped(spec: ResultSpec, specs: Sequence[ReadingSpec], means: dict[str, float], value: float, limit: Limit) -> tuple[str, ...]:
    """A question when two readings give less than nothing, and would not the other way round."""
    if len(means) != 2 or limit.dimension != "length" or value >= 0:
        return ()
    first, second = means
    try:
        other = evaluate(spec, {first: means[second], second: means[first]}).value
    except Refused:
        return ()
    return (f"less than nothing: are {specs[0].name} and {specs[1].name} swapped?",) if other > 0 else ()


def reading_mean(entry: Entry) -> float:
    """The corrected mean of a reading in the canonical unit of its tool."""
    body = entry.body
    if body.instrument is None:
        raise Refused("no_instrument_data", "no tool was named for this reading", field="instrument")
    base = float(exact(body.deviation_from, body.instrument.dimension, "setting")) if body.deviation_from else 0.0
    typed = [float(exact(q, body.instrument.dimension, "values")) for q in body.values]
    return sum(typed) / len(typed) + base - float(body.instrument.figure("offset"))


def _working(parts: Sequence[tuple[float, Spread]], taken: Sequence[Entry], limit: Limit, formula: tuple[str, ...]) -> tuple[str, ...]:
    unit = CANONICAL[limit.dimension]  # the figures below are canonical, whatever unit the limit is written in
    lines = []
    for entry in taken:
        body = entry.body
        tool = body.instrument
        line = f"{tool.code}: {', '.join(body.typed)}"
        if body.deviation_from:
            line += f" from the setting {body.deviation_from.value}"
        if tool.figure("offset"):
            line += f", known offset {tool.offset} {tool.unit} taken off"
        lines.append(line)
    if len(lines) > FEW_LINES:
        tools = ", ".join(dict.fromkeys(entry.body.instrument.code for entry in taken))
        lines = [f"{len(lines)} readings with {tools}"]
    lines += [line if line[-1:].isalpha() or len(taken) != 2 else f"{line} {unit}" for line in formula]
    counted = [(c, spread) for c, spread in parts if c]
    for c, spread in counted[:FEW_LINES]:
        times = "" if abs(abs(c) - 1) < NEARLY else f"counts {abs(c):.3g} times: "
        lines.append(times + "   ".join(f"{share.name} {share.u:.4f}" for share in (*spread.own, *spread.setting) if share.u))
    chains: dict[str, float] = {}
    for c, spread in counted:
        chains[spread.chain] = chains.get(spread.chain, 0.0) + c
    zero = counted[0][1].zero.u if counted else 0.0
    if len(counted) > 1 and len(chains) == 1 and abs(next(iter(chains.values()))) < NEARLY:
        lines.append(f"zero error {zero:.4f} is shared by all readings (one setting): it cancels")
        if counted[0][1].setting and len({spread.setting_chain for _, spread in counted}) == 1:
            lines.append("so does what the gauge was set with")
    elif any(spread.zero.u for _, spread in counted):
        lines.append("   ".join(f"zero error {spread.zero.u:.4f}" for _, spread in counted[:FEW_LINES]) + ": not shared, it counts")
    u_c, k, big_u = combine(parts)
    lines.append(f"u = {u_c:.4f}, k = {k:.2f}, U = {big_u:.4f} {unit}")
    return tuple(lines)


def _with_choices(state: BookState, step: MeasureStep, spec: ResultSpec, facts: ResultFacts) -> ResultFacts:
    """Concession and disposition as they hold: a concession lapses when its reading or its limit changed."""
    update: dict[str, object] = {}
    for entry in state.live(f"result:{step.id}/{spec.id}"):
        if entry.kind == "disposition":
            update |= {"disposition": entry.body.choice, "conceded": False, "concession": None}
        elif entry.kind == "concession":
            holds = entry.body.readings == facts.readings and _same_limit(entry.body.limit, facts.limit)
            words = accepted_words(entry.body)
            if holds:
                update |= {"conceded": facts.judgement.verdict != "inside", "concession": words, "lapsed": None,
                           "licensed": bool(entry.body.licensed)}
            else:
                update |= {"conceded": False, "lapsed": f"{words} (lapsed: the reading or the limit has changed)"}
    return facts.model_copy(update=update)


def accepted_words(body: Any) -> str:
    """A concession in words: by whom, why, for which use, looked at again when, inspected by whom."""
    more = (f" For: {body.use}." if body.use else "") + (f" Looked at again {body.recheck}." if body.recheck else "") + (f" Licensed inspection: {body.licensed}." if body.licensed else "")
    return f"accepted by {body.name}: {body.reason}{more}"


def _same_limit(a: Limit, b: Limit) -> bool:
    return all(a.figure(key) == b.figure(key) for key in ("lo", "hi", "target"))


def settling_tools(
    kinds: Sequence[str], parts: Sequence[tuple[float, Spread]], limit: Limit, tools: Sequence[Instrument], value: float
) -> tuple[str, ...]:
    """Which tools of the shop would bring a verdict at this value: one in place of one reading, else the best for each.

    Parameters
    ----------
    kinds : the kind of tool that each part asks for, in the order of `parts`.
    value : the result, canonical unit.
    """
    fitting = [[t for t in tools if not t.retired and t.kind == kind and t.s is not None and t.covers(spread.value)]
               for kind, (_, spread) in zip(kinds, parts, strict=True)]  # fmt: skip

    def decides(trial: Sequence[tuple[float, Spread]]) -> bool:
        return judge(value, combine(trial)[2], limit).verdict in ("inside", "outside")

    found = []
    for index, (c, spread) in enumerate(parts[:FEW_LINES]):
        for tool in fitting[index]:
            for n in (1, 3):
                trial = [*parts[:index], (c, _as_if(tool, spread.value, n)), *parts[index + 1 :]]
                if decides(trial):
                    found.append(tool.code if n == 1 else f"{tool.code}, read {n} times")
                    break
    if found or len(parts) == 1 or not all(fitting):
        return tuple(dict.fromkeys(found))
    best = [min(listed, key=lambda t: single_reading_U(t, spread.value)) for listed, (_, spread) in zip(fitting, parts, strict=True)]
    for n in (1, 3):
        if decides([(c, _as_if(tool, spread.value, n)) for tool, (c, spread) in zip(best, parts, strict=True)]):
            codes = " and ".join(dict.fromkeys(tool.code for tool in best))
            return (codes + ("" if n == 1 else f", each read {n} times"),)
    return ()


def _as_if(tool: Instrument, value: float, n: int) -> Spread:
    """What `n` repeats with a tool would be worth if they gave `value`."""
    return reading_share(tool, [value + tool.figure("offset")] * n)
