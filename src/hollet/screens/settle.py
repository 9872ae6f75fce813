"""Settle: what creeps and what rests, every figure measured again beside its first, what the
vehicle is fit to, what is due.
"""

from collections.abc import Iterator, Sequence

from hollet.core.book.again import Again, again_of
from hollet.core.book.complaints import ComplaintFacts, SnagFacts, complaints_of, snags_of
from hollet.core.book.fit_to import FitCell, fit_to
from hollet.core.entries import BookState, Entry, Reading
from hollet.core.entries.status import plan_of
from hollet.core.instruments import Instrument
from hollet.core.limits import Judgement
from hollet.core.procedure.results import ReadingSpec, ResultSpec
from hollet.core.procedure.sheet import Step
from hollet.core.quantities.quantity import decimal_text, round9
from hollet.core.steps.creeping import CreepFacts, creeps_of, other_state, read_since
from hollet.core.steps.firsts import first_result
from hollet.core.steps.looks import looks_of
from hollet.core.steps.readings import latest, reading_mean
from hollet.core.steps.results import ResultFacts, result_of, results_of
from hollet.core.view import View

__all__ = ["SettleView", "settle_view"]

MOST_DUE = 6


class AgainFigure(View):
    """One figure: first, now, its bar where it was read in the same state, and how it stands;
    `repeated`: it is measured again after it has run, not only beside what was found.
    """

    id: str
    name: str
    about: str
    step: str
    first: str
    now: str
    first_value: float | None
    bar: Judgement | None
    word: str
    detail: str
    repeated: bool


class SettleView(View):
    """The title, the tracks, the table, what it is fit to, what is due and goes first."""

    title: str
    creeps: tuple[CreepFacts, ...]
    figures: tuple[AgainFigure, ...]
    fit: tuple[FitCell, ...]
    due: tuple[Again, ...]
    next: Again | None
    complaints: tuple[ComplaintFacts, ...]
    snags: tuple[SnagFacts, ...]


def settle_view(state: BookState, tools: Sequence[Instrument], now: str) -> SettleView:
    """All of it, of one build."""
    creeps, due = creeps_of(state, tools), again_of(state, now)
    return SettleView(
        title=_title(creeps, due),
        creeps=tuple(c for c in creeps if len(c.points) > 0),
        figures=tuple(
            sorted(
                _figures(state, tools, creeps, now),
                key=lambda f: (not (f.repeated and f.first), not f.repeated),
            )
        ),
        fit=fit_to(state, tools, now),
        due=due[:MOST_DUE],
        next=next((row for row in due if row.due), None),
        complaints=complaints_of(state),
        snags=snags_of(state),
    )


def _title(creeps: Sequence[CreepFacts], due: Sequence[Again]) -> str:
    moving = [c for c in creeps if c.word in ("creeps", "jumped")]
    first = f"{moving[0].name} {moving[0].word}" if moving else ""
    now = next((row for row in due if row.due), None)
    parts = [part for part in (first, f"due: {now.what}" if now else "") if part]
    if parts:
        return ", ".join(parts)
    if any(c.word != "rests" for c in creeps):
        return "Not measured again yet"
    return "Everything measured again rests" if creeps else "Nothing is due"


def _figures(
    state: BookState, tools: Sequence[Instrument], creeps: Sequence[CreepFacts], now: str
) -> Iterator[AgainFigure]:
    by_reading = {c.reading: c for c in creeps}
    for step in plan_of(state).step:
        repeats = [spec for spec in step.results() if spec.first is not None]
        within = {name for spec in repeats for name in spec.named()}
        pairs = [
            (s, s.first or s.found)
            for s in step.readings()
            if (s.first or s.found) and s.id not in within
        ]
        alone = {r.readings[0]: r for r in results_of(state, step, tools) if len(r.readings) == 1}
        for spec, before in pairs:
            first, last = latest(state, before or ""), latest(state, spec.id)
            if first is None or first.body.instrument is None:
                continue
            result = alone.get(last.id) if last is not None else None
            creep = by_reading.get(spec.id)
            yield _figure(step, spec, first, read_since(first, last), result, creep)
        yield from _repeated(state, step, repeats, tools)
    for joint in plan_of(state).joint:
        looks = looks_of(state, joint, now)
        recheck = plan_of(state).find_step(joint.recheck)
        if looks is None or recheck is None:
            continue
        yield AgainFigure(
            id=f"joint:{joint.id}",
            name=joint.name,
            about="by wrench or mark",
            step=recheck.id,
            first="",
            now=looks.rows[-1].words if looks.rows else "",
            first_value=None,
            bar=None,
            word="due" if looks.due else "not due",
            detail=looks.trend or looks.words,
            repeated=True,
        )


def _figure(
    step: Step,
    spec: ReadingSpec,
    first: Entry[Reading],
    last: Entry[Reading] | None,
    result: ResultFacts | None,
    creep: CreepFacts | None,
) -> AgainFigure:
    was = round9(reading_mean(first))
    read = last is not None and last.body.instrument is not None
    now = round9(reading_mean(last)) if last is not None and read else None
    same = last is not None and not other_state(first, last)
    return AgainFigure(
        id=spec.id,
        name=spec.name,
        about=spec.state or step.title,
        step=step.id,
        first=decimal_text(was),
        now=decimal_text(now) if now is not None else "",
        first_value=was,
        bar=result.judgement if result is not None and same and now is not None else None,
        word=_word(creep, was, now, same=same),
        detail=creep.detail if creep is not None else f"at {step.number}",
        repeated=creep is not None,
    )


def _repeated(
    state: BookState, step: Step, specs: Sequence[ResultSpec], tools: Sequence[Instrument]
) -> Iterator[AgainFigure]:
    """Results that repeat another, such as a toe, which is no reading alone."""
    for spec in specs:
        first = first_result(state, spec, tools)
        if first is None:
            continue
        result, was = result_of(state, step, spec, tools), first.facts.judgement
        now = result.judgement.value if first.same is not None else None
        same = first.same is True
        assert was.value is not None
        yield AgainFigure(
            id=f"result:{spec.id}",
            name=spec.name,
            about=next((s.state for s in step.readings() if s.state), step.title),
            step=step.id,
            first=was.value_text,
            now=result.judgement.value_text if now is not None else "",
            first_value=was.value,
            bar=result.judgement if same and now is not None else None,
            word=_word(None, round9(was.value), now, same=same),
            detail=f"at {step.number}",
            repeated=True,
        )


def _word(creep: CreepFacts | None, was: float, now: float | None, *, same: bool) -> str:
    """How it stands beside its first figure."""
    if now is None:
        return "not read yet"
    if not same:
        return "other state"
    if creep is not None:
        return creep.word
    moved = decimal_text(abs(round9(now - was)))
    return "as it was" if now == was else f"{moved} {'more' if now > was else 'less'}"
