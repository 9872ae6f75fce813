"""Measuring in a build: readings, derived results, their verdicts, and which tool would
settle one.
"""

import re
from collections.abc import Iterable, Sequence
from fractions import Fraction
from math import hypot
from typing import Any

from pydantic import BaseModel, ConfigDict

from hollet.core.checking import standing
from hollet.core.entries import (
    BookState,
    Concession,
    Disposition,
    Done,
    Entry,
    Key,
    Line,
    PlanEdited,
    Reading,
)
from hollet.core.entries.status import plan_of
from hollet.core.errors import Refused
from hollet.core.instruments import (
    Instrument,
    Spread,
    combine,
    leaf_share,
    may_give,
    reading_share,
    single_reading_U,
)
from hollet.core.limits import Judgement, Limit, judge, judge_lower_end
from hollet.core.procedure.formulas import evaluate, sensitivities
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.results import ReadingSpec, ResultSpec
from hollet.core.procedure.sheet import Sheet, Step
from hollet.core.quantities.parse import Parsed, parse
from hollet.core.quantities.quantity import Quantity, decimal_text, exact, round9
from hollet.core.quantities.units import CANONICAL, find_unit
from hollet.core.slips import FitsCheck, fits_check, question, slip_check, slip_input
from hollet.core.states import state_conflict

__all__ = [
    "ReadingFacts",
    "ResultFacts",
    "SourceVerdict",
    "in_doubt",
    "latest",
    "odd_question",
    "pair_question",
    "read_leaves",
    "read_text",
    "reading_mean",
    "readings_of",
    "result_of",
    "results_of",
    "settling_tools",
    "specs_of",
    "tool_question",
    "tools_for",
]

FEW_LINES = 6
FIGURES = ("lo", "hi", "target")
NEARLY = 1e-3
LONG_MM = 10.0
FEWEST_SISTERS = 2
"""One other reading alone says nothing of how far such readings lie apart."""
PAIR = re.compile(
    r"^\s*(?P<goes>[\d.,]+\s*[a-zA-Zµ\"]*)\s*(?:/|-|\u2013|to|\s)\s*(?P<not>[\d.,]+\s*[a-zA-Zµ\"]*)\s*$"
)
"""Two feeler leaves as typed: the one that goes in, and the one that does not."""


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
    moves: str | None = None


class SourceVerdict(BaseModel):
    """How a result is judged by one of several sources of its limit, and whether that one is in
    force.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    source: str
    asks: str
    verdict: str
    side: str | None
    words: str
    in_force: bool


class ResultFacts(BaseModel):
    """One judged result, its concession or disposition, and what would settle it; `asks` is its
    limit in words, `advice` what its calculation says is next,
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
    turned: str | None = None
    sources: tuple[SourceVerdict, ...] = ()

    @property
    def open(self) -> bool:
        """Whether the result still needs something: not read, undecided, or outside and not
        conceded.
        """
        return self.judgement.verdict != "inside" and not self.conceded


def read_leaves(text: str, unit: str, dimension: str) -> tuple[str, Parsed, Parsed | None]:
    """The feeler leaf that goes in (as typed, and parsed), and the one that does not where it was
    typed too (`0.35 0.40`).
    """
    pair = PAIR.match(text)
    parts = [pair["goes"], pair["not"]] if pair else [text]
    if pair and pair["not"].strip(" .,0123456789") and not pair["goes"].strip(" .,0123456789"):
        parts[0] += pair["not"].strip(" .,0123456789")  # "14 16 thou": the unit holds for both
    found = [parse(part, dimension, unit) for part in parts]
    if any(p.kind != "single" or p.nominal is None for p in found):
        raise Refused(
            "bad_number",
            f"'{text}': type the leaf that goes in and the one that does not, such as 0.35 0.40",
            field="typed",
        )
    return parts[0].strip(), found[0], found[1] if len(found) > 1 else None


def read_text(
    text: str, tool: Instrument | None, unit: str, dimension: str
) -> tuple[Parsed, Quantity | None]:
    """Parse one typed repeat; on a gauge with a setting a value under half of it is a deviation.

    Returns
    -------
    (Parsed, Quantity or None)
        The value as typed, and the setting it was added to.
    """
    parsed = parse(text, dimension, unit)
    if parsed.kind != "single" or parsed.nominal is None:
        raise Refused(
            "bad_number", f"'{text}': a reading is one figure, such as 0.09 mm", field="typed"
        )
    if tool is not None and tool.setting is not None:
        setting = parse(tool.setting, tool.dimension, tool.unit)
        assert setting.nominal is not None
        if abs(parsed.nominal) < setting.nominal / 2:
            return parsed, Quantity(
                value=decimal_text(setting.nominal), unit=setting.unit or tool.unit
            )
    return parsed, None


def known_of_reading(spec: ReadingSpec, direct: Limit | None) -> tuple[Quantity | None, str]:
    """What is expected of a reading, and how closely: a diameter closely, what a limit judges by
    itself (a gap) roughly.
    """
    parsed = parse(spec.nominal)
    if not parsed.nominal:
        return None, "roughly"
    closely = direct is None and parsed.dimension == "length" and parsed.nominal >= LONG_MM
    return Quantity(
        value=decimal_text(parsed.nominal), unit=parsed.unit or "mm"
    ), "closely" if closely else "roughly"


def odd_question(
    state: BookState,
    step: Step,
    spec: ReadingSpec,
    text: str,
    unit: str,
    tool: Instrument,
    direct: Limit | None,
) -> str | None:
    """A question about a figure that is hardly possible here, or None: what it may have been meant
    as, compared with its tool, with what is
    expected, and with its sisters (the readings of the same kind at this step). Asked, never
    refused.
    """
    expected, known = known_of_reading(spec, direct)
    asked = slip_input(text, unit, tool, expected, known, _sisters(state, step, spec))
    found = slip_check(asked)
    if found.ask:
        return question(asked, found)
    most = direct.figure("hi") if direct is not None else None
    value = float(exact(found.read_as, tool.dimension, "typed"))
    if expected is None and direct is not None and most and value > 5 * most:
        return f"{text} {unit} is far over the limit of {direct.words()}. Is it right?"
    return None


def _sisters(state: BookState, step: Step, spec: ReadingSpec) -> tuple[float, ...]:
    """The readings of the same kind at a step: the same size asked for, other cylinders, depths and
    places.
    """
    found = []
    for other in step.readings():
        entry = (
            latest(state, other.id)
            if other.id != spec.id and (other.nominal, other.tool) == (spec.nominal, spec.tool)
            else None
        )
        if entry is not None and entry.body.instrument is not None:
            found.append(reading_mean(entry))
    return tuple(found) if len(found) >= FEWEST_SISTERS else ()


def pair_question(state: BookState, step: Step, reading: str, value: float) -> str | None:
    """A question where two sizes cannot go together: a piston that is not smaller than its bore,
    two depths the wrong way round.
    """
    for spec in step.results():
        pair = (
            (spec.minuend, spec.subtrahend)
            if spec.minuend
            else (spec.over[0], spec.less[0])
            if spec.how == "ends" and spec.less
            else (None, None)
        )
        limit = plan_of(state).find_limit(spec.limit)
        if reading not in pair or None in pair or limit is None or limit.dimension != "length":
            continue
        lo = limit.figure("lo")
        other = latest(state, str(pair[1] if pair[0] == reading else pair[0]))
        if other is None or other.body.instrument is None or (lo is not None and lo < 0):
            continue
        outer, inner = (
            (value, reading_mean(other)) if pair[0] == reading else (reading_mean(other), value)
        )
        if fits_check(
            FitsCheck(
                outer=Quantity(value=outer, unit="mm"), inner=Quantity(value=inner, unit="mm")
            )
        ).ask:
            return (
                f"{spec.name}: {decimal_text(round9(inner))} mm is not smaller than "
                f"{decimal_text(round9(outer))} mm, that it goes into. Is it right?"
            )
    return None


def tool_question(tool: Instrument) -> str | None:
    """A question about a tool that failed its check and was not put right."""
    stands = standing(tool)
    return (
        f"{tool.code}: {stands.words}. Read with it all the same?"
        if stands.sign == "outside"
        else None
    )


def _spread(entry: Entry[Reading]) -> Spread:
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


def tools_for(spec: ReadingSpec, tools: Sequence[Instrument]) -> tuple[str, ...]:
    """The tools of the shop that may give a reading, the best first: trusted, reaching it, of its
    kind, with the smallest uncertainty.
    """
    nominal = float(parse(spec.nominal).nominal or 0)
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
        "tools": tools_for(spec, tools),
        "hint": hint,
    }
    if entry is None:
        return ReadingFacts(**asked)
    body = entry.body
    value, moves = "", None
    if body.instrument is not None:
        value = _value_text(entry)
        typed = [float(str(q.value)) for q in body.values]
        tool_s = body.tool().figure("s")
        if len(typed) >= 2 and tool_s and max(typed) - min(typed) > 4 * tool_s:
            moves = "the repeats spread more than this tool usually does: does something move?"
    again = _asks_again(state, spec, entry)
    return ReadingFacts(
        **asked,
        entry=entry.id,
        typed=body.typed,
        value_text=value,
        unit=body.values[0].unit,
        taken_in=body.state,
        tool=body.tool().code if body.instrument else None,
        who=entry.who,
        moves=moves,
        ask_again=again,
    )


def _asks_again(state: BookState, spec: ReadingSpec, entry: Entry[Reading]) -> bool:
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


def results_of(
    state: BookState, step: BaseStep, tools: Sequence[Instrument] = ()
) -> tuple[ResultFacts, ...]:
    """All results of a step, judged by the limits as they stand now."""
    return tuple(result_of(state, step, spec, tools) for spec in step.results())


def result_of(
    state: BookState, step: BaseStep, spec: ResultSpec, tools: Sequence[Instrument] = ()
) -> ResultFacts:
    """One result with its verdict, its working and what holds about it; remembered by readings,
    limit and tools.
    """
    changed = [n for reading in specs_of(plan_of(state), spec) for n in reading.changed_by]
    made_of = [Key("reading", name) for name in spec.named()]
    about = Key("result", f"{step.id}/{spec.id}")
    fingerprint = (
        state.seen_at((about, *made_of, *(Key("step", name) for name in changed))),
        tuple((tool.id, tool.version) for tool in tools),
    )
    return state.remembered(
        ("result", step.id, spec.id), fingerprint, lambda: _result_of(state, step, spec, tools)
    )


def specs_of(plan: Sheet, spec: ResultSpec) -> list[ReadingSpec]:
    """The readings that a result is made of, as the sheet asks for them, in its order."""
    known = {reading.id: reading for step in plan.step for reading in step.readings()}
    return [known[name] for name in spec.named() if name in known]


def _result_of(
    state: BookState, step: BaseStep, spec: ResultSpec, tools: Sequence[Instrument]
) -> ResultFacts:
    plan: Sheet = plan_of(state)
    limit = plan.find_limit(spec.limit)
    assert limit is not None
    specs, entries = specs_of(plan, spec), {name: latest(state, name) for name in spec.named()}
    taken = {name: entry for name, entry in entries.items() if entry is not None}
    base: dict[str, Any] = {"id": spec.id, "name": spec.name, "limit": limit, "asks": limit.words()}
    if len(taken) < len(entries):
        return ResultFacts(**base, judgement=judge(None, None, limit))
    base |= {
        "readings": tuple(entry.id for entry in taken.values()),
        "warnings": _warnings(state, specs, taken),
    }
    try:
        means = {name: reading_mean(entry) for name, entry in taken.items()}
        value, formula, advice = evaluate(spec, means)
        if (
            len(taken) == 2
            and limit.dimension == "length"
            and "clearance" in limit.id
            and value <= 0
        ):
            raise Refused(
                "negative_clearance",
                "what goes in is not smaller than its bore: which of the two figures is wrong?",
            )
    except Refused as refusal:
        return ResultFacts(**base, judgement=judge(None, None, limit), refusal=refusal.message)
    try:
        spreads = {name: _spread(entry) for name, entry in taken.items()}
    except Refused as refusal:
        return _with_choices(
            state,
            step,
            spec,
            ResultFacts(**base, judgement=judge(value, None, limit), refusal=refusal.message),
        )
    base["warnings"] = (*base["warnings"], *_swapped(spec, specs, means, value, limit))
    counts = (
        _end_counts(spec, means, spreads, limit)
        if spec.how == "ends"
        else sensitivities(spec, means)
    )
    parts = [(c, spreads[name]) for name, c in counts.items()]
    judgement = _judged(
        spec,
        means,
        spreads,
        parts,
        value,
        limit,
        _working(parts, list(taken.values()), limit, formula),
        _digits(taken.values(), limit),
    )
    big_u = judgement.U or 0.0
    doubt = _doubt(
        [(counts.get(name, 1.0), spreads[name]) for name in taken], taken, tools
    )  # a doubted tool counts at either end
    sure = not (
        doubt
        or judgement.verdict == "too_close"
        or base["warnings"]
        or any(_asks_again(state, s, taken[s.id]) for s in specs)
    )  # nobody saws on a figure that is asked about
    base |= {"advice": advice if sure else None, "sources": _by_source(limit, value, big_u)}
    held = (
        f"tool in doubt: {doubt}"
        if doubt is not None
        else _not_proven(state, specs, taken, spreads, limit)
    )
    if held is not None:
        judgement = judgement.model_copy(
            update={
                "verdict": "too_close" if limit.given else judgement.verdict,
                "words": held,
                "needs": None,
            }
        )
    specs = [s for s in specs if s.id in counts]
    by = (
        settling_tools([s.tool for s in specs], parts, limit, tools, value)
        if judgement.verdict == "too_close" and len(specs) == len(parts)
        else ()
    )
    return _with_choices(state, step, spec, ResultFacts(**base, judgement=judgement, settled_by=by))


def _span(spec: ResultSpec, means: dict[str, float]) -> tuple[str, str]:
    """The smallest and the largest of the readings that are looked at from both ends."""
    return min(spec.over, key=lambda n: means[n]), max(spec.over, key=lambda n: means[n])


def _ends(
    spec: ResultSpec,
    means: dict[str, float],
    spreads: dict[str, Spread],
    limit: Limit,
    working: tuple[str, ...] = (),
    digits: int = 0,
) -> tuple[Judgement, Judgement]:
    """The smallest against the lower limit, and the largest against the upper one."""
    less = sum(means[name] for name in spec.less)
    ends = [
        (
            means[name] - less,
            combine([(1, spreads[name]), *((-1, spreads[other]) for other in spec.less)])[2],
        )
        for name in _span(spec, means)
    ]
    low, high = (
        judge(v, u, limit.model_copy(update={side: None}), working, digits)
        for (v, u), side in zip(ends, ("hi", "lo"), strict=True)
    )
    return low, high


def _urgency(judgement: Judgement) -> tuple[int, float]:
    order = ("outside", "too_close", "inside")
    return order.index(judgement.verdict) if judgement.verdict in order else len(order), _room(
        judgement
    )


def _end_counts(
    spec: ResultSpec, means: dict[str, float], spreads: dict[str, Spread], limit: Limit
) -> dict[str, float]:
    """How often each reading counts at the end that decides."""
    low, high = _ends(spec, means, spreads, limit)
    at = _span(spec, means)[
        0 if limit.hi is None or (limit.lo is not None and _urgency(low) < _urgency(high)) else 1
    ]
    return {at: 1.0} | dict.fromkeys(spec.less, -1.0)


def _judged(
    spec: ResultSpec,
    means: dict[str, float],
    spreads: dict[str, Spread],
    parts: Sequence[tuple[float, Spread]],
    value: float,
    limit: Limit,
    working: tuple[str, ...],
    digits: int,
) -> Judgement:
    """The verdict: on the value; on a lower end; or on both ends, the smallest against the lower
    limit and the largest against the upper one.
    """
    big_u = combine(parts)[2]
    if any(spread.bound for _, spread in parts):
        if len(parts) == 1:
            return judge_lower_end(value, big_u, limit, working, digits)
        return judge(value, big_u, limit, working, digits).model_copy(
            update={
                "verdict": "too_close",
                "words": "one leaf alone is the lower end of a gap",
                "needs": None,
            }
        )
    if spec.how != "ends":
        return judge(value, big_u, limit, working, digits)
    low, high = _ends(spec, means, spreads, limit, working, digits)
    if limit.lo is None or limit.hi is None:
        return high if limit.lo is None else low
    worse = min((low, high), key=_urgency)
    whole = judge(
        worse.value,
        worse.U,
        limit,
        (
            *working,
            (
                f"smallest {low.value_text} against the lower limit, largest {high.value_text} "
                "against the upper"
            ),
        ),
        digits,
    )
    return whole.model_copy(
        update={
            "verdict": worse.verdict,
            "side": worse.side,
            "words": worse.words,
            "needs": worse.needs,
        }
    )


def _room(judged: Judgement) -> float:
    """How far a value lies from the one limit that it was judged by."""
    edge = judged.lo if judged.lo is not None else judged.hi
    return abs((judged.value or 0.0) - (edge or 0.0))


def _digits(taken: Iterable[Entry[Reading]], limit: Limit) -> int:
    """How finely the figures were read: decimals of the tool's resolution, or as typed, in the unit
    of the limit.
    """
    unit = find_unit(limit.unit)
    most = 0
    for entry in taken:
        tool = entry.body.instrument
        if (
            tool is None
            or unit is None
            or unit.offset
            or find_unit(tool.unit) is None
            or tool.dimension != unit.dimension
        ):
            continue
        step = tool.figure("resolution") / float(unit.factor)
        read = next((k for k in range(7) if round9(step * 10**k) >= 1), 6) if step else 0
        same = all(q.unit == limit.unit for q in entry.body.values)
        typed = max(len(str(q.value).partition(".")[2]) for q in entry.body.values) if same else 0
        most = max(
            most, min(read, 4) if not same else min(max(typed, 0), read + 1) if typed else read
        )
    return most


def _not_proven(
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
        other = _disagrees(state, spec, entry, spread)
        if other is not None:
            return other
    return None


def _disagrees(
    state: BookState, spec: ReadingSpec, entry: Entry[Reading], spread: Spread
) -> str | None:
    """Two readings of one thing further apart than their uncertainty: a third decides.

    What was reworked or changed in between is another thing.
    """
    changed = max(
        (e.seq for name in spec.changed_by for e in state.each(Done, "step", name)),
        default=0,
    )
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
        before = _spread(live[0])
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


def _by_source(limit: Limit, value: float, big_u: float) -> tuple[SourceVerdict, ...]:
    """What each source would say, where more than one has spoken."""
    found = []
    for answer in limit.answers if len(limit.answers) > 1 else ():
        said = limit.as_said(answer)
        judged = judge(value, big_u, said)
        page = f", p. {answer.page}" if answer.page else ""
        found.append(
            SourceVerdict(
                source=f"{answer.source}{page}",
                asks=said.words(),
                verdict=judged.verdict,
                side=judged.side,
                words=judged.words,
                in_force=limit.in_force(answer),
            )
        )
    return tuple(found)


def _doubt(
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


def _warnings(
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


def _swapped(
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


def _working(
    parts: Sequence[tuple[float, Spread]],
    taken: Sequence[Entry[Reading]],
    limit: Limit,
    formula: tuple[str, ...],
) -> tuple[str, ...]:
    unit = CANONICAL[
        limit.dimension
    ]  # the figures below are canonical, whatever unit the limit is written in
    lines = []
    for entry in taken:
        body = entry.body
        tool = body.tool()
        line = f"{tool.code}: {', '.join(body.typed)}"
        if body.deviation_from:
            line += f" from the setting {body.deviation_from.value}"
        if body.no_go:
            line += f", not {', '.join(str(q.value) for q in body.no_go)}"
        if tool.figure("offset"):
            line += f", known offset {tool.offset} {tool.unit} taken off"
        if tool.set_with is not None and tool.set_with.figure("offset"):
            line += (
                f", and {tool.set_with.offset} {tool.set_with.unit} of {tool.set_with.code}, "
                "with which it was set"
            )
        lines.append(line)
    if len(lines) > FEW_LINES:
        tools = ", ".join(dict.fromkeys(entry.body.tool().code for entry in taken))
        lines = [f"{len(lines)} readings with {tools}"]
    lines += [
        line if line[-1:].isalpha() or len(taken) != 2 else f"{line} {unit}" for line in formula
    ]
    counted = [(c, spread) for c, spread in parts if c]
    for c, spread in counted[:FEW_LINES]:
        times = "" if abs(abs(c) - 1) < NEARLY else f"counts {abs(c):.3g} times: "
        lines.append(
            times
            + "   ".join(
                f"{share.name} {share.u:.4f}" for share in (*spread.own, *spread.setting) if share.u
            )
        )
    chains: dict[str, float] = {}
    for c, spread in counted:
        chains[spread.chain] = chains.get(spread.chain, 0.0) + c
    zero = counted[0][1].zero.u if counted else 0.0
    if len(counted) > 1 and len(chains) == 1 and abs(next(iter(chains.values()))) < NEARLY:
        lines.append(f"zero error {zero:.4f} is shared by all readings (one setting): it cancels")
        if counted[0][1].setting and len({spread.setting_chain for _, spread in counted}) == 1:
            lines.append("so does what the gauge was set with")
    elif any(spread.zero.u for _, spread in counted):
        lines.append(
            "   ".join(f"zero error {spread.zero.u:.4f}" for _, spread in counted[:FEW_LINES])
            + ": not shared, it counts"
        )
    u_c, k, big_u = combine(parts)
    lines.append(f"u = {u_c:.4f}, k = {k:.2f}, U = {big_u:.4f} {unit}")
    return tuple(lines)


def _with_choices(
    state: BookState, step: BaseStep, spec: ResultSpec, facts: ResultFacts
) -> ResultFacts:
    """Concession and disposition as they hold: a concession lapses when its reading or its limit
    changed.
    """
    about = f"{step.id}/{spec.id}"
    decided = state.newest(Disposition, "result", about)
    accepted = state.newest(Concession, "result", about)
    update: dict[str, object] = {"disposition": decided.body.choice if decided else None}
    if accepted is not None:
        words = accepted_words(accepted.body)
        if not _stands(accepted.body, facts):
            update["lapsed"] = f"{words} (lapsed: the reading or the limit has changed)"
        elif decided is None or decided.seq < accepted.seq:
            update |= {
                "conceded": facts.judgement.verdict != "inside",
                "concession": words,
                "licensed": bool(accepted.body.licensed),
            }
    edited = state.newest(PlanEdited, "turned", about)
    if (
        edited is not None
        and facts.readings
        and all(state.entries[name].seq < edited.seq for name in facts.readings)
    ):
        turn = next(t for t in edited.body.turned if (t.step, t.result) == (step.id, spec.id))
        update["turned"] = (
            f"{turn.was} became {turn.now} as {edited.who} changed the figure, "
            f"{edited.bench_time[:10]}"
        )
    return facts.model_copy(update=update)


def _stands(accepted: Concession, facts: ResultFacts) -> bool:
    """Whether a concession still holds: for the same readings, against the same figures."""
    limits = accepted.limit, facts.limit
    same = all(
        a == b for a, b in zip(*([x.figure(k) for k in FIGURES] for x in limits), strict=True)
    )
    return accepted.readings == facts.readings and same


def accepted_words(body: Concession) -> str:
    """A concession in words: by whom, why, for which use, looked at again when,
    inspected by whom.
    """
    more = (
        (f" For: {body.use}." if body.use else "")
        + (f" Looked at again {body.recheck}." if body.recheck else "")
        + (f" Licensed inspection: {body.licensed}." if body.licensed else "")
    )
    return f"accepted by {body.name}: {body.reason}{more}"


def settling_tools(
    kinds: Sequence[str],
    parts: Sequence[tuple[float, Spread]],
    limit: Limit,
    tools: Sequence[Instrument],
    value: float,
) -> tuple[str, ...]:
    """Which tools of the shop would bring a verdict at this value: one in place of one reading,
    else the best for each.

    Parameters
    ----------
    kinds : the kind of tool that each part asks for, in the order of `parts`.
    value : the result, canonical unit.
    """
    fitting = [
        [
            t
            for t in tools
            if not t.retired and t.kind == kind and t.s is not None and t.covers(spread.value)
        ]
        for kind, (_, spread) in zip(kinds, parts, strict=True)
    ]

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
    best = [
        min(listed, key=lambda t: single_reading_U(t, spread.value))
        for listed, (_, spread) in zip(fitting, parts, strict=True)
    ]
    for n in (1, 3):
        if decides(
            [
                (c, _as_if(tool, spread.value, n))
                for tool, (c, spread) in zip(best, parts, strict=True)
            ]
        ):
            codes = " and ".join(dict.fromkeys(tool.code for tool in best))
            return (codes + ("" if n == 1 else f", each read {n} times"),)
    return ()


def _as_if(tool: Instrument, value: float, n: int) -> Spread:
    """What `n` repeats with a tool would be worth if they gave `value`."""
    return reading_share(tool, [value + tool.known_offset()] * n)
