"""Questions to somebody: what a question is about with its facts as they stand, and the answers."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from hollet.core.book.needs import need_named, state_words
from hollet.core.book.orders import orders, slip_words
from hollet.core.entries import (
    BookState,
    Cause,
    Evidence,
    Finding,
    QuestionAnswered,
    QuestionAsked,
    Reading,
)
from hollet.core.entries.status import plan_of, statuses, whole_of
from hollet.core.errors import NotFound
from hollet.core.instruments import Instrument
from hollet.core.limits import Limit
from hollet.core.steps.results import results_of
from hollet.core.view import View

__all__ = ["AnswerFacts", "QuestionFacts", "Subject", "answers_on", "questions", "subject_of"]

TOLD = 8
"""So many of the last lines at the step go along as what was tried."""


class AnswerFacts(View):
    """An answer: by whom, how far that person is trusted in this."""

    entry: str
    name: str
    trust: str
    text: str
    time: str


class QuestionFacts(View):
    """A question as it was asked, and what was answered."""

    question: str
    sort: str
    about: str
    title: str
    ask: str
    to: str
    tried: str
    facts: tuple[str, ...]
    photos: tuple[str, ...]
    step: str | None
    who: str
    time: str
    answers: tuple[AnswerFacts, ...]


@dataclass(frozen=True, slots=True)
class Subject:
    """What a question is about: its name, the step it belongs to, and the facts."""

    title: str
    step: str | None
    facts: tuple[str, ...]


def subject_of(
    state: BookState, sort: str, about: str, tools: Sequence[Instrument] = ()
) -> Subject:
    """The thing by its sort and name, with the facts that go along; raises NotFound."""
    found = READ[sort](state, about, tools)
    if found is None:
        raise NotFound(sort, about)
    step = plan_of(state).find_step(found.step)
    told = []
    if step is not None:
        said = [e for e in state.of_step(step.id) if e.id not in state.struck]
        told = [f"{e.time[:10]}: {e.body.line(step.title)}" for e in said[-TOLD:]]
    vehicle = _vehicle(state)
    return Subject(found.title, found.step, (*found.facts, *told, *vehicle))


def _vehicle(state: BookState) -> tuple[str, ...]:
    """What is known of the vehicle, by the names of its facts."""
    plan = whole_of(state)
    names = plan.all_facts()
    return tuple(
        f"{names[fact].name if fact in names else fact}: {value}"
        for fact, value in plan.facts.items()
    )


def _step(state: BookState, about: str, tools: Sequence[Instrument]) -> Subject | None:
    step = plan_of(state).find_step(about)
    if step is None:
        return None
    status = statuses(state)[step.id]
    facts = [f"step {step.number} {step.title}: {status.status.replace('_', ' ')}", step.do]
    return Subject(f"{step.number} {step.title}", step.id, tuple(facts))


def _result(state: BookState, about: str, tools: Sequence[Instrument]) -> Subject | None:
    """A judged figure, by `step/result`: value, verdict, limit with source, readings with tool and
    state.
    """
    name, _, result_id = about.partition("/")
    step = plan_of(state).find_step(name)
    found = results_of(state, step, tools) if step is not None else ()
    result = next((r for r in found if r.id == result_id), None)
    if step is None or result is None:
        return None
    judged = result.judgement
    value = f"{judged.value_text} {judged.unit}".strip() or "no value"
    spread = f" ± {judged.U_text} {judged.unit}" if judged.U_text else ""
    said = [f"{result.name}: {value}{spread}, {judged.words}", _limit_words(result.limit)]
    read = [e.body.line(step.title) for e in state.each(Reading, "step", step.id)]
    return Subject(result.name, step.id, (*said, *read, *judged.working))


def _limit_words(limit: Limit) -> str:
    """A limit with its condition and its source, as it is in force."""
    state = f", {limit.condition}" if limit.condition else ""
    page = f", {limit.page}" if limit.page else ""
    source = f"{limit.source}{page}" if limit.source else "assumed, no source"
    return f"limit: {limit.name} {limit.words()}{state} ({source})"


def _limit(state: BookState, about: str, tools: Sequence[Instrument]) -> Subject | None:
    """A figure of the limit book, with what each source says of it."""
    limit = plan_of(state).find_limit(about)
    if limit is None:
        return None
    others = tuple(f"{a.source} says {limit.as_said(a).words()}" for a in limit.answers)
    return Subject(limit.name, None, (_limit_words(limit), *others))


def _finding(state: BookState, about: str, tools: Sequence[Instrument]) -> Subject | None:
    """What was seen on a face, by its line."""
    entry = next((e for e in state.all(Finding) if e.id == about), None)
    if entry is None:
        return None
    line = entry.body.line("")
    return Subject(line[:200], entry.body.step, (f"{line}, seen by {entry.who}",))


def _fault(state: BookState, about: str, tools: Sequence[Instrument]) -> Subject | None:
    """An explanation, with all that speaks for and against it."""
    cause = next((e for e in state.each(Cause, "causes") if e.body.cause == about), None)
    if cause is None:
        return None
    told = [e for e in state.each(Evidence, "causes") if e.body.cause == about]
    facts = tuple(e.body.line(cause.body.what) for e in told)
    return Subject(cause.body.what, cause.body.step, facts)


def _order(state: BookState, about: str, tools: Sequence[Instrument]) -> Subject | None:
    order = next((o for o in orders(state) if o.id == about), None)
    if order is None:
        return None
    parts = tuple(f"{part.count} × {part.name}" for part in order.parts)
    slipped = (slip_words(order),) if order.slips else ()
    return Subject(f"{order.supplier}, {order.state}", None, (*parts, *slipped))


def _part(state: BookState, about: str, tools: Sequence[Instrument]) -> Subject | None:
    need = need_named(state, about)
    if need is None:
        return None
    said = [f"{f.feature}: {f.words}" for f in need.arrival.features if f.words]
    first = need.first.step if need.first is not None else None
    return Subject(need.name, first, (state_words(need, orders(state)), *said))


READ: dict[str, Callable[[BookState, str, Sequence[Instrument]], Subject | None]] = {
    "step": _step,
    "result": _result,
    "limit": _limit,
    "finding": _finding,
    "fault": _fault,
    "order": _order,
    "part": _part,
}


def questions(state: BookState) -> tuple[QuestionFacts, ...]:
    """All questions, the newest first, each with its answers."""
    found = []
    for name, _ in state.names("question"):
        asked = state.newest(QuestionAsked, "question", name)
        if asked is None:
            continue
        body = asked.body
        answers = state.each(QuestionAnswered, "question", name)
        found.append(
            QuestionFacts(
                question=name,
                sort=body.sort,
                about=body.about,
                title=body.title,
                ask=body.ask,
                to=body.to,
                tried=body.tried,
                facts=body.facts,
                photos=body.photos,
                step=body.step,
                who=asked.who,
                time=asked.time,
                answers=tuple(
                    AnswerFacts(
                        entry=e.id,
                        name=e.body.name,
                        trust=e.body.trust,
                        text=e.body.text,
                        time=e.time,
                    )
                    for e in answers
                ),
            )
        )
    return tuple(sorted(found, key=lambda q: q.time, reverse=True))


def answers_on(state: BookState, sort: str, about: str) -> tuple[AnswerFacts, ...]:
    """What was answered to questions about one thing."""
    return tuple(
        answer
        for question in questions(state)
        if (question.sort, question.about) == (sort, about)
        for answer in question.answers
    )
