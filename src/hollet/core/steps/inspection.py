"""Inspecting in a build: which faces were seen and how, what follows for each part, where debris
may have gone.

A verdict stays provisional until every face of its part was seen; a changed one leaves the earlier
visible."""

from collections.abc import Sequence

from hollet.core.ageing import Suspect, suspects
from hollet.core.entries import BookState, FaceAdded, Key, Traced
from hollet.core.entries.status import plan_of
from hollet.core.instruments import Instrument
from hollet.core.procedure.kinds.inspect import Face, InspectPart, InspectStep
from hollet.core.procedure.tracing import Trace, downstream
from hollet.core.steps.beside import differing
from hollet.core.steps.causes import CauseFacts, cause_file
from hollet.core.steps.parts import (
    STAYS_IN,
    TO_DO,
    UNSETTLED,
    InspectionFacts,
    PartFacts,
    TraceFacts,
    bad_words,
    part_facts,
)
from hollet.core.steps.positions import PositionTable, position_tables
from hollet.core.view import View

__all__ = [
    "Exposure",
    "InspectionView",
    "find_part",
    "inspection_facts",
    "inspection_view",
    "open_parts",
    "unfinished",
    "unseen_safety",
]


class Exposure(View):
    """Money: decided already, the worst that may come for what is open, and what it costs if what
    is reused is not good.
    """

    decided: float
    worst_open: float
    if_wrong: float
    open_parts: int
    without_price: tuple[str, ...]


class InspectionView(View):
    """The findings desk of a build."""

    steps: tuple[InspectionFacts, ...]
    seen: int
    total: int
    parts: int
    to_decide: int
    titles: dict[str, str]
    tables: tuple[PositionTable, ...]
    exposure: Exposure
    causes: tuple[CauseFacts, ...]
    suspects: tuple[Suspect, ...]
    facts: dict[str, str]


def _parts(state: BookState, step: InspectStep) -> tuple[InspectPart, ...]:
    """The parts of the sheet, and what was added by hand: faces to them, or other parts."""
    parts = {part.id: part for part in step.part}
    for entry in state.each(FaceAdded, "matrix", step.id):
        body = entry.body
        face = Face(id=body.face, name=body.face_name, on=body.on)
        known = parts.get(body.part)
        if known is None:
            parts[body.part] = InspectPart(
                id=body.part, name=body.part_name, face=(face,), safety=body.safety
            )
        elif all(f.id != body.face for f in known.face):
            parts[body.part] = known.model_copy(update={"face": (*known.face, face)})
    return tuple(parts.values())


def find_part(state: BookState, step: InspectStep, part_id: str) -> InspectPart | None:
    """A part of the matrix, of the sheet or added by hand."""
    return next((part for part in _parts(state, step) if part.id == part_id), None)


def failed_station(state: BookState, step: InspectStep) -> str | None:
    """The station of the trace at which something broke up, or None."""
    said = state.newest(Traced, "trace", step.id)
    return said.body.station if said else None


def inspection_facts(state: BookState, step: InspectStep) -> InspectionFacts:
    """Faces, parts and trace of a step; remembered until something is written at it, or at a step
    with a trace.
    """
    written = tuple(state.seen.get(Key("step", s.id), 0) for s in (step, *_with_trace(state)))
    return state.remembered(("inspection", step.id), written, lambda: _facts(state, step))


def _with_trace(state: BookState) -> tuple[InspectStep, ...]:
    looked = (step.as_inspection() for step in plan_of(state).step)
    return tuple(step for step in looked if step is not None and step.trace is not None)


def _reached(state: BookState, step: InspectStep) -> tuple[dict[str, str], dict[str, str]]:
    """Marks of the stations, F for what failed and numbers downstream; and in words what came to
    which part, in whatever step it is looked at.
    """
    trace, failed = plan_of(state).find_trace(step.trace), failed_station(state, step)
    marks: dict[str, str] = {}
    came: dict[str, str] = {}
    if trace is not None and failed is not None:
        marks[failed] = "F"
        for item in downstream(trace, failed):
            marks[item.station] = str(item.n)
            station = trace.find(item.station)
            if station is not None and station.part is not None:
                came[station.part] = f"{trace.carries} came this way" + (
                    f", past {' and '.join(item.filters)}" if item.filters else ""
                )
    return marks, came


def _facts(state: BookState, step: InspectStep) -> InspectionFacts:
    trace, failed = plan_of(state).find_trace(step.trace), failed_station(state, step)
    marks, came = _reached(state, step)
    for other in _with_trace(state):
        if other.id != step.id:
            came = _reached(state, other)[1] | came
    mark_of = {
        s.part: marks[s.id] for s in (trace.station if trace else ()) if s.part and s.id in marks
    }
    shown = [p for p in _parts(state, step) if not p.only_traced or p.id in mark_of or p.id in came]
    if mark_of:
        shown.sort(key=lambda p: 0 if mark_of.get(p.id) == "F" else int(mark_of.get(p.id, 10_000)))
    sheet_faces = {(part.id, face.id) for part in step.part for face in part.face}
    parts = tuple(
        part_facts(state, step, part, mark_of.get(part.id, ""), came.get(part.id), sheet_faces)
        for part in shown
    )
    faces = [(part, face) for part in parts for face in part.faces]
    first = next(((p.id, f.id) for p, f in faces if f.state == "not_seen"), (None, None))
    seen = sum(face.state != "not_seen" for _, face in faces)
    return InspectionFacts(
        step=step.id,
        parts=parts,
        seen=seen,
        total=len(faces),
        next_part=first[0],
        next_face=first[1],
        trace=_trace(trace, failed, marks, parts) if trace else None,
    )


def _trace(
    trace: Trace, failed: str | None, marks: dict[str, str], parts: Sequence[PartFacts]
) -> TraceFacts:
    whole = {part.id: part.seen == len(part.faces) for part in parts}
    seen = {s.id: whole.get(s.part or "", False) for s in trace.station}
    reached = tuple(marks) if failed else ()
    station = trace.find(failed)
    words = (
        f"{trace.carries} from {station.name}: {len(reached) - 1} places downstream"
        if station
        else f"{trace.name}: press what failed"
    )
    return TraceFacts(
        id=trace.id,
        name=trace.name,
        carries=trace.carries,
        outline=trace.outline,
        stations=trace.station,
        marks=marks,
        seen=seen,
        flows=trace.flow,
        reached=reached,
        failed=failed,
        words=words[0].upper() + words[1:],
    )


def unfinished(state: BookState, step: InspectStep) -> str | None:
    """What keeps an inspection from being done: the first face not seen, the first part found bad
    and not decided.
    """
    facts = inspection_facts(state, step)
    if facts.seen < facts.total:
        part = next(p for p in facts.parts if p.id == facts.next_part)
        face = next(f for f in part.faces if f.id == facts.next_face)
        return (
            f"{facts.total - facts.seen} of {facts.total} faces not seen, first {part.name}, "
            f"{face.name}"
        )
    undecided = next((p for p in facts.parts if p.needs), None)
    if undecided is not None:
        return (
            f"{undecided.name}: "
            f"{undecided.since or undecided.choice_words or 'found, and nothing is decided'}"
        )
    wipe = next((p for p in facts.parts if p.wipe), None)
    return f"{wipe.name}: {wipe.wipe}" if wipe else None


def unseen_safety(state: BookState, step: InspectStep) -> tuple[tuple[PartFacts, str], ...]:
    """The safety-critical parts of an inspection that was passed over: nobody knows how
    they are.
    """
    return tuple(
        (
            part.model_copy(update={"barred": True}),
            f"{part.name}: not looked at, and it is safety-critical",
        )
        for part in inspection_facts(state, step).parts
        if part.safety
    )


def open_parts(state: BookState, step: InspectStep) -> tuple[tuple[PartFacts, str], ...]:
    """Parts found bad and not decided, used again without a word for it, or safety-critical;
    decided and not done yet; new ones that differ, in words.
    """
    found = []
    for part in inspection_facts(state, step).parts:
        if part.bad and part.choice in STAYS_IN and not part.conceded and not part.since:
            found.append(
                (
                    part,
                    (
                        f"{part.name}: {bad_words(part)}, and {part.choice_words}: accept it in "
                        "writing, or replace it"
                    ),
                )
            )
        elif part.barred and part.conceded:
            found.append((part, f"{part.name}: {bad_words(part)}, used again; {part.stays_shut}"))
        elif part.needs:
            found.append(
                (
                    part,
                    (
                        f"{part.name}: "
                        f"{part.since or part.choice_words or 'found, and nothing is decided'}"
                    ),
                )
            )
        elif part.to_do and part.right is None:
            found.append((part, f"{part.name}: {part.to_do}"))
        elif unlike := differing(part.beside):
            found.append((part, f"{part.name}, {unlike.feature}: {unlike.words}"))
    return tuple(found)


def inspection_view(state: BookState, tools: Sequence[Instrument] = ()) -> InspectionView:
    """The findings desk: every inspection, like parts side by side, money, explanations, what is
    suspect for its age.
    """
    plan = plan_of(state)
    steps = [looked for step in plan.step if (looked := step.as_inspection()) is not None]
    found = tuple(inspection_facts(state, step) for step in steps)
    causes = cause_file(state)
    spec = {part.id: part for step in steps for part in step.part}
    parts = [part for facts in found for part in facts.parts]
    return InspectionView(
        steps=found,
        seen=sum(facts.seen for facts in found),
        total=sum(facts.total for facts in found),
        parts=len(parts),
        to_decide=sum(part.needs for part in parts),
        titles={step.id: f"{step.number} {step.title}" for step in steps},
        tables=position_tables(state, found, spec, causes, tools),
        exposure=_exposure(found),
        causes=causes,
        suspects=suspects(state.lore.ageing, plan.facts),
        facts={name: plan.facts.get(name, "") for name in ("standing", "history", "fuel_spirit")},
    )


def _exposure(found: Sequence[InspectionFacts]) -> Exposure:
    decided = worst = wrong = 0.0
    open_count, bare = 0, []
    for part in (p for facts in found for p in facts.parts):
        settled = (
            part.choice is not None
            and part.choice not in UNSETTLED
            and not part.provisional
            and part.since is None
        )
        if settled and part.choice in TO_DO:
            decided += part.price or 0
        elif settled:
            wrong += part.wrong or 0
        elif part.choice is not None or part.needs or part.seen < len(part.faces):
            open_count += 1
            worst += max(part.price or 0, part.wrong or 0)
            if part.price is None and part.wrong is None:
                bare.append(part.name)
    return Exposure(
        decided=decided,
        worst_open=worst,
        if_wrong=wrong,
        open_parts=open_count,
        without_price=tuple(bare),
    )
