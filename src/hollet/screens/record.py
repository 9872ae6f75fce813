"""The record of a build, computed from its log: what is open, what was fitted, every figure first
and last, what was accepted, what is looked at again and when; for the shop, and for the owner
without the notes.
"""

from collections.abc import Iterator, Sequence

from hollet.core.book.again import Again, again_of
from hollet.core.book.changed import altered
from hollet.core.book.complaints import complaints_of, snags_of
from hollet.core.book.concessions import concessions
from hollet.core.book.faults import faults_of
from hollet.core.book.gates import gate_answers
from hollet.core.book.leaks import leak_places
from hollet.core.book.orders import orders
from hollet.core.book.units import units_of
from hollet.core.entries import BookState, Note
from hollet.core.entries.status import SETTLED, plan_of, status_of
from hollet.core.instruments import Instrument
from hollet.core.procedure.sheet import Step
from hollet.core.quantities.quantity import decimal_text, round9
from hollet.core.steps.creeping import creeps_of
from hollet.core.steps.firsts import first_result
from hollet.core.steps.looks import odometer
from hollet.core.steps.readings import latest, reading_mean
from hollet.core.steps.results import ResultFacts, results_of
from hollet.core.steps.tighten import joint_facts
from hollet.core.view import View
from hollet.core.words import counted
from hollet.screens.sentences import line_of

__all__ = ["RecordRow", "RecordSection", "RecordView", "record_view"]

MOST_OPEN = 12


class RecordRow(View):
    """One line: what, more about it, and its figure or state."""

    what: str
    small: str
    right: str


class RecordSection(View):
    """Lines under one head; `none` is said where there are none."""

    title: str
    rows: tuple[RecordRow, ...]
    none: str


class RecordView(View):
    """The record: how the build stands, and its sections."""

    title: str
    settled: bool
    about: str
    sections: tuple[RecordSection, ...]


def record_view(
    state: BookState, tools: Sequence[Instrument], now: str, *, owner: bool = False
) -> RecordView:
    """Everything that the next one has to know. `owner`: without notes and superseded lines."""
    open_rows = tuple(_open(state, tools))
    moving = [c for c in creeps_of(state, tools) if c.word != "rests"]
    due = again_of(state, now)
    settled = not open_rows and not moving and not any(row.due for row in due)
    sections = [
        RecordSection(title="Open", rows=open_rows, none="nothing is open"),
        *_sections(state, tools, due),
        *(() if owner else _private(state)),
    ]
    return RecordView(
        title="Settled" if settled else _not_settled(open_rows, len(moving), due),
        settled=settled,
        about=_about(state),
        sections=tuple(sections),
    )


def _sections(
    state: BookState, tools: Sequence[Instrument], due: Sequence[Again]
) -> Iterator[RecordSection]:
    """What everybody has to know who comes after."""
    said: tuple[tuple[str, Iterator[RecordRow], str], ...] = (
        ("Complaint, and the same trial", _complaints(state), "no complaint was written"),
        ("Units by their stamped numbers", _units(state), "no number was read off"),
        ("Parts fitted", _parts(state), "no part of the plan is fitted yet"),
        ("Figures, first and last", _figures(state, tools), "none measured"),
        ("Joints", _joints(state), "none tightened"),
        ("Accepted in writing", _accepted(state), "nothing"),
        ("Not as it left the works", _altered(state), "nothing was altered"),
        ("Leaks and faults", _leaks_and_faults(state), "none was seen"),
        ("Looked at again", _again(due), "nothing is due"),
    )
    for title, rows, none in said:
        yield RecordSection(title=title, rows=tuple(rows), none=none)


def _private(state: BookState) -> Iterator[RecordSection]:
    """What stays in the shop: notes, and lines that were struck."""
    yield RecordSection(title="Notes", rows=tuple(_notes(state)), none="no note was written")
    struck = tuple(_struck(state))
    yield RecordSection(title="Struck, and why", rows=struck, none="no line was struck")


def _accepted(state: BookState) -> Iterator[RecordRow]:
    for said in concessions(state):
        yield RecordRow(what=said.what, small=said.word or "", right=said.by)


def _altered(state: BookState) -> Iterator[RecordRow]:
    for part in altered(state):
        what = f"{part.what}: {part.differs}"
        yield RecordRow(what=what, small=f"comes off: {part.undo}", right=part.who)


def _again(due: Sequence[Again]) -> Iterator[RecordRow]:
    for row in due:
        small = f"{row.how}. {row.trend}".removesuffix(". ")
        right = "due now" if row.due else row.left or row.when
        yield RecordRow(what=row.what, small=small, right=right)


def _not_settled(open_rows: Sequence[RecordRow], moving: int, due: Sequence[Again]) -> str:
    parts = [
        f"{len(open_rows)} open" if open_rows else "",
        f"{counted(moving, 'figure', 'figures')} not at rest" if moving else "",
        f"{len(due)} to look at again" if due else "",
    ]
    return "Not settled: " + ", ".join(part for part in parts if part)


def _about(state: BookState) -> str:
    """Who worked on it, from when to when, and what the odometer reads."""
    entries = list(state.lines())
    people = list(dict.fromkeys(entry.who for entry in entries if entry.who))
    reads = odometer(state)
    days = f"{entries[0].time[:10]} to {entries[-1].time[:10]}" if entries else ""
    km = f", {decimal_text(reads, 0)} km" if reads is not None else ""
    return f"{', '.join(people)}, {days}{km}"


def _open(state: BookState, tools: Sequence[Instrument]) -> Iterator[RecordRow]:
    for gate in gate_answers(state, tools):
        for item in gate.first:
            yield RecordRow(
                what=item.what,
                small=item.note or item.undo or "",
                right=f"shuts {gate.name.lower()}",
            )
    for complaint in complaints_of(state):
        if not complaint.answered:
            yield RecordRow(what=complaint.words, small=complaint.waits, right="complaint")
    for snag in snags_of(state):
        matters = ", ".join(snag.matters)
        yield RecordRow(
            what=snag.what, small=f"matters for {matters}" if matters else "", right="snag"
        )
    left = [s for s in plan_of(state).step if status_of(state, s).status not in SETTLED]
    if left:
        numbers = ", ".join(step.number for step in left[:MOST_OPEN])
        more = f" and {len(left) - MOST_OPEN} more" if len(left) > MOST_OPEN else ""
        words = f"{counted(len(left), 'step is', 'steps are')} not done"
        yield RecordRow(what=words, small=numbers + more, right="")


def _done(state: BookState, step: Step) -> bool:
    return status_of(state, step).status == "done"


def _units(state: BookState) -> Iterator[RecordRow]:
    for unit in units_of(state):
        yield RecordRow(what=unit.sort, small=f"{unit.who}, {unit.day}", right=unit.number)


def _parts(state: BookState) -> Iterator[RecordRow]:
    """What the steps that are done asked for, and from whom it came where an order says so."""
    from_whom = {
        part.name.casefold(): order.supplier
        for order in orders(state)
        if order.state != "cancelled"
        for part in order.parts
    }
    for step in plan_of(state).step:
        if not step.parts or not _done(state, step):
            continue
        when = status_of(state, step).time[:10]
        for part in step.parts:
            count = f"{part.count} × " if part.count > 1 else ""
            yield RecordRow(
                what=f"{count}{part.name}",
                small=f"{step.number} {step.title}, {when}",
                right=from_whom.get(part.name.casefold(), ""),
            )


def _figures(state: BookState, tools: Sequence[Instrument]) -> Iterator[RecordRow]:
    """Every result that was measured, with the first figure where one was taken before."""
    for step in plan_of(state).step:
        before = {s.id: s.first or s.found for s in step.readings() if s.first or s.found}
        specs = {spec.id: spec for spec in step.results()}
        for result in results_of(state, step, tools):
            judged = result.judgement
            if judged.value is None:
                continue
            again = first_result(state, specs[result.id], tools)
            first = (
                f"{again.facts.judgement.value_text} → "
                if again is not None and again.same is not None
                else _first(state, before, result)
            )
            yield RecordRow(
                what=result.name,
                small=f"{step.number} {step.title}: {judged.words}, {result.limit.words()}"
                + (", accepted in writing" if result.conceded else "")
                + (", assumed" if judged.assumed else ""),
                right=f"{first}{judged.value_text} {judged.unit}",
            )


def _first(state: BookState, before: dict[str, str | None], result: ResultFacts) -> str:
    """The first figure and an arrow, of a result that is one reading alone."""
    if len(result.readings) != 1:
        return ""
    last = state.entries.get(result.readings[0])
    named = before.get(getattr(last.body, "reading", "")) if last is not None else None
    found = latest(state, named) if named else None
    if found is None or found.body.instrument is None or last is None or found.seq > last.seq:
        return ""
    return f"{decimal_text(round9(reading_mean(found)))} → "


def _joints(state: BookState) -> Iterator[RecordRow]:
    for joint in plan_of(state).joint:
        facts = joint_facts(state, joint)
        if not facts.begun:
            continue
        asked = ", ".join(stage.asked() for stage in joint.stage)
        source = joint.source or "assumed"
        yield RecordRow(
            what=f"{joint.name}, {len(facts.bolts)}",
            small=f"{asked}; {source}" + (f"; {facts.wrench.code}" if facts.wrench else ""),
            right="final" if facts.final else facts.progress,
        )


def _complaints(state: BookState) -> Iterator[RecordRow]:
    for complaint in complaints_of(state):
        when = ", ".join(complaint.conditions)
        yield RecordRow(
            what=complaint.words,
            small="; ".join((when, *complaint.trials)).removeprefix("; "),
            right="gone" if complaint.answered else "not answered",
        )


def _leaks_and_faults(state: BookState) -> Iterator[RecordRow]:
    for place in leak_places(state):
        yield RecordRow(what=place.name, small=place.sort, right=place.state)
    for fault in faults_of(state, ()):
        yield RecordRow(
            what=fault.name,
            small=fault.ended or fault.words,
            right="" if fault.ended else "not found yet",
        )


def _notes(state: BookState) -> Iterator[RecordRow]:
    for entry in state.all(Note):
        yield RecordRow(what=entry.body.text, small="", right=f"{entry.time[:10]} {entry.who}")


def _struck(state: BookState) -> Iterator[RecordRow]:
    """Superseded lines stay readable, with the reason."""
    for name, strike in state.struck.items():
        line = line_of(state, state.entries[name])
        reason = getattr(strike.body, "reason", "")
        yield RecordRow(what=line.text, small=reason, right=f"{strike.time[:10]} {strike.who}")
