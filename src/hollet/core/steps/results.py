"""Results of a build: their verdicts, and what was decided about them."""

from collections.abc import Mapping, Sequence
from typing import Any

from pydantic import BaseModel, ConfigDict, computed_field

from hollet.core.entries import BookState, Concession, Disposition, Key, PlanEdited
from hollet.core.entries.status import plan_of
from hollet.core.errors import Refused
from hollet.core.instruments import Instrument, Spread
from hollet.core.limits import Judgement, Limit, judge
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.results import ReadingSpec, ResultSpec
from hollet.core.procedure.sheet import Sheet
from hollet.core.safety import SAFETY_NAMES, shut_words
from hollet.core.steps.judging import (
    FIGURES,
    SourceVerdict,
    by_source,
    check_clearance,
)
from hollet.core.steps.links import cleaned_since, links_told, seen_through
from hollet.core.steps.packs import Lying, lying, pack_put
from hollet.core.steps.pairs import not_paired, paired
from hollet.core.steps.proof import apart_in_time, doubt_of, maybe_swapped, not_proven, warnings_of
from hollet.core.steps.readings import asks_again, latest
from hollet.core.steps.settling import settling_tools
from hollet.core.steps.summing import summed

__all__ = ["ResultFacts", "judged_pair", "result_of", "result_with", "results_of", "specs_of"]


class ResultFacts(BaseModel):
    """One judged result, its concession or disposition, and what would settle it; `asks` is its
    limit in words, `advice` what its calculation says is next,
    held back while a reading of it is asked about. `bare` is how it stands without the shims of its
    pack; `chooses`: which lie in it is still to be said. `held` is what keeps its figure from
    proving anything, whatever it is."""

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
    bare: Judgement | None = None
    chooses: bool = False
    held: str | None = None
    sources: tuple[SourceVerdict, ...] = ()

    @computed_field
    @property
    def asks_decision(self) -> bool:
        """Whether it was read and is not inside: somebody says what becomes of it."""
        return self.judgement.verdict in ("outside", "too_close") and not self.chooses

    @computed_field
    @property
    def judged(self) -> bool:
        """Whether it was read and has a verdict."""
        return self.judgement.verdict != "not_read"

    @computed_field
    @property
    def may_concede(self) -> bool:
        """Whether it may be accepted in writing: worn lifting gear is replaced, whatever the
        reason.
        """
        return self.limit.safety != "lifting"

    @computed_field
    @property
    def stays_shut(self) -> str | None:
        """What stays shut although it is accepted, in words."""
        safety = self.limit.safety
        return (
            None if safety is None else f"{SAFETY_NAMES.get(safety, safety)}: {shut_words(safety)}"
        )

    @computed_field
    @property
    def open(self) -> bool:
        """Whether the result still needs something: not read, undecided, or outside and not
        conceded.
        """
        return self.judgement.verdict != "inside" and not self.conceded


def results_of(
    state: BookState, step: BaseStep, tools: Sequence[Instrument] = ()
) -> tuple[ResultFacts, ...]:
    """All results of a step, judged by the limits as they stand now."""
    specs = step.results()
    found = tuple(result_of(state, step, spec, tools) for spec in specs)
    verdicts = {facts.id: facts.judgement for facts in found}
    told = (links_told(specs, spec, verdicts) for spec in specs)
    return tuple(
        facts if words is None or facts.held else facts.model_copy(update={"advice": words})
        for facts, words in zip(found, told, strict=True)
    )


def result_of(
    state: BookState, step: BaseStep, spec: ResultSpec, tools: Sequence[Instrument] = ()
) -> ResultFacts:
    """One result with its verdict, its working and what holds about it; remembered by readings,
    limit and tools.
    """
    spec = paired(state, step, spec)
    changed = [n for reading in specs_of(plan_of(state), spec) for n in reading.changed_by]
    pack = step.pack_in(spec.id)
    checked = (pack.check.reading,) if pack is not None and pack.check is not None else ()
    made_of = [Key("reading", name) for name in (*spec.named(), *checked)]
    about = Key("result", f"{step.id}/{spec.id}")
    fingerprint = (
        state.seen_at(
            (
                about,
                Key("outdated", step.id),
                Key("ground", step.id),
                *made_of,
                *seen_through(step, spec),
                *(Key("step", name) for name in changed),
            )
        ),
        tuple((tool.id, tool.version) for tool in tools),
    )
    return state.remembered(
        ("result", step.id, spec.id), fingerprint, lambda: _result_of(state, step, spec, tools)
    )


def specs_of(plan: Sheet, spec: ResultSpec) -> list[ReadingSpec]:
    """The readings that a result is made of, as the sheet asks for them, in its order."""
    known = plan.derived("readings", plan.step, _reading_specs)
    return [known[name] for name in spec.named() if name in known]


def sizes_of(plan: Sheet, spec: ResultSpec) -> dict[str, Limit]:
    """The sizes of the vehicle that a result is made of, by the ids of their limits."""
    found = {name: plan.find_limit(name) for name in spec.sizes()}
    return {name: limit for name, limit in found.items() if limit is not None}


def _reading_specs(steps: tuple[BaseStep, ...]) -> dict[str, ReadingSpec]:
    return {reading.id: reading for step in steps for reading in step.readings()}


def result_with(
    state: BookState,
    step: BaseStep,
    spec: ResultSpec,
    tools: Sequence[Instrument],
    shims: Lying,
) -> ResultFacts:
    """One result as it would be with these shims in."""
    return _result_of(state, step, spec, tools, shims)


def judged_pair(
    state: BookState, step: BaseStep, spec: ResultSpec, inner: str, tools: Sequence[Instrument]
) -> Judgement | None:
    """How a part would do in what a result is about; None where one of both is not read."""
    free = step.model_copy(update={"pairs": None})
    facts = _result_of(state, free, spec.with_inner(inner), tools)
    return facts.judgement if facts.readings and facts.judgement.value is not None else None


def _result_of(
    state: BookState,
    step: BaseStep,
    spec: ResultSpec,
    tools: Sequence[Instrument],
    shims: Lying | None = None,
) -> ResultFacts:
    plan: Sheet = plan_of(state)
    limit = plan.find_limit(spec.limit)
    assert limit is not None
    specs, sizes = specs_of(plan, spec), sizes_of(plan, spec)
    entries = {name: latest(state, name) for name in spec.named()}
    taken = {name: entry for name, entry in entries.items() if entry is not None}
    base: dict[str, Any] = {"id": spec.id, "name": spec.name, "limit": limit, "asks": limit.words()}
    if len(taken) < len(entries):
        return ResultFacts(**base, judgement=judge(None, None, limit))
    base["readings"] = tuple(entry.id for entry in taken.values())
    base["warnings"] = warnings_of(state, specs, taken)
    try:
        made = summed(spec, limit, taken, sizes)
        check_clearance(limit, len(taken), made.value)
    except Refused as refusal:
        return ResultFacts(**base, judgement=judge(None, None, limit), refusal=refusal.message)
    if made.refusal is not None:
        not_known = judge(made.value, None, limit)
        facts = ResultFacts(**base, judgement=not_known, refusal=made.refusal)
        return _with_choices(state, step, spec, facts)
    swapped = maybe_swapped(spec, specs, made.means, made.value, limit)
    base["warnings"] = (*base["warnings"], *swapped)
    parts, value, counts, spreads = made.parts, made.value, made.counts, made.spreads
    judgement, inside = made.judged(parts, value, made.working), None
    if step.pack_in(spec.id) is not None:
        base["bare"] = judgement
        inside = shims or _lying(state, step, spec, judgement, base["readings"], tools)
        base["chooses"] = inside.chooses
        parts, value, judgement = made.with_shims(inside)
    sources = by_source(limit, value, judgement.U or 0.0)
    # a doubted tool counts at either end, and where its figure is what gives another its meaning
    shares = {name: 1.0 if spec.at_once else counts.get(name, 1.0) for name in taken}
    doubt = doubt_of([(shares[name], spreads[name]) for name in taken], taken, tools)
    asked = any(asks_again(state, s, taken[s.id]) for s in specs)
    sure = not (doubt or judgement.verdict == "too_close" or base["warnings"] or asked)
    unpaired = not_paired(state, step, spec.id, base["readings"])
    base["chooses"] = base.get("chooses", False) or unpaired is not None
    held = (
        (f"tool in doubt: {doubt}" if doubt else None)
        or not_proven(state, specs, taken, spreads, limit)
        or cleaned_since(state, step, spec, taken)
        or apart_in_time(spec, taken)
        or unpaired
        or (inside.held if inside is not None else None)
    )
    base["held"] = held
    judgement = _held(judgement, held, limit)
    facts = ResultFacts(
        **base,
        judgement=judgement,
        advice=made.advice if sure else None,  # nobody saws on a figure that is asked about
        sources=sources,
        settled_by=_settled_by(specs, counts, parts, limit, tools, value, judgement),
    )
    return _with_choices(state, step, spec, facts)


def _held(judgement: Judgement, words: str | None, limit: Limit) -> Judgement:
    """A verdict that is held proves nothing, whatever its figure."""
    if words is None:
        return judgement
    verdict = "too_close" if limit.given else judgement.verdict
    return judgement.model_copy(update={"verdict": verdict, "words": words, "needs": None})


def _lying(
    state: BookState,
    step: BaseStep,
    spec: ResultSpec,
    bare: Judgement,
    readings: Sequence[str],
    tools: Sequence[Instrument],
) -> Lying:
    """The shims that lie in it by the log."""
    pack = step.pack_in(spec.id)
    assert pack is not None
    small = bare.verdict == "outside" and bare.side == "low"
    return lying(state, step.id, pack, readings, small, tools)


def _settled_by(
    specs: Sequence[ReadingSpec],
    counts: Mapping[str, float],
    parts: Sequence[tuple[float, Spread]],
    limit: Limit,
    tools: Sequence[Instrument],
    value: float,
    judgement: Judgement,
) -> tuple[str, ...]:
    """The tools of the shop that would decide it; none where a reading is not one of the step's."""
    own = [spec.tool for spec in specs if spec.id in counts]
    if judgement.verdict != "too_close" or len(own) != len(parts):
        return ()
    return settling_tools(own, list(parts), limit, tools, value)


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
        if not _stands(accepted.body, facts) or _packed_since(state, step, spec, accepted.seq):
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


def _packed_since(state: BookState, step: BaseStep, spec: ResultSpec, seq: int) -> bool:
    """Whether other shims went in since: what was accepted was another gap."""
    pack = step.pack_in(spec.id)
    put = pack_put(state, step.id, pack) if pack is not None else None
    return put is not None and put.seq > seq


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
