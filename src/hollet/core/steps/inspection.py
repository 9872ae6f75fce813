"""Inspecting in a build: which faces were seen and how, what follows for each part, where debris
may have gone.

A verdict stays provisional until every face of its part was seen; a changed one leaves the earlier
visible.
"""

from collections.abc import Sequence

from hollet.core.ageing import Suspect, suspects
from hollet.core.entries import (
    BookState,
    Cause,
    Entry,
    Evidence,
    FaceAdded,
    Finding,
    Key,
    Line,
    PartDecided,
    PartRight,
    Traced,
)
from hollet.core.entries.status import plan_of
from hollet.core.findings import CLEANING, CODES, DISPOSITIONS, Surface
from hollet.core.instruments import Instrument
from hollet.core.limits import Judgement
from hollet.core.procedure.kinds.inspect import Face, InspectPart, InspectStep
from hollet.core.procedure.tracing import Flow, Station, Trace, downstream
from hollet.core.steps.beside import BesideFacts, besides, differing
from hollet.core.steps.measure import result_of
from hollet.core.view import View

__all__ = [
    "REPLACED",
    "STAYS_IN",
    "CauseFacts",
    "Exposure",
    "FaceFacts",
    "InspectionFacts",
    "InspectionView",
    "PartFacts",
    "PositionTable",
    "Seen",
    "TraceFacts",
    "explanations",
    "find_part",
    "inspection_facts",
    "inspection_view",
    "open_parts",
    "unfinished",
    "unseen_safety",
]

UNSETTLED = ("undecided", "deeper")
GOES_OUT = ("replace", "replace_open", "other_use")
REPLACED = ("replace", "replace_open")
STAYS_IN = ("reuse", "watch")
"""Choices by which a part is used again: with a bad finding on it a concession.

One that is cleaned is looked at again, and decided then.
"""
TO_DO = {
    "replace": "to be replaced",
    "replace_open": "to be replaced while it is open",
    "rework": "to be reworked",
    "clean": "to be cleaned and looked at again",
    "other_use": "kept for another use: another one has to go in",
}
FEW = 4


class Seen(View):
    """One look at a face, or one decision, in words."""

    entry: str
    words: str
    who: str
    time: str
    photo: str | None = None


class FaceFacts(View):
    """A face: not_seen, good, again (dirty, unsure or light) or bad; what holds now, and what was
    said before.
    """

    id: str
    name: str
    on: Surface
    state: str
    words: str
    code: str | None = None
    grade: int | None = None
    now: tuple[Seen, ...] = ()
    earlier: tuple[Seen, ...] = ()
    own: bool = False


class PartFacts(View):
    """A part with its faces, where it lies on the trace, and what was decided about it.

    `bad`: a bad finding stands on it; `conceded`: used again all the same, in writing; `barred`:
    safety-critical, and its rung stays shut
    until it is replaced or inspected by somebody licensed. `asks_name`: deciding to use it again is
    a concession and asks for a name.
    """

    id: str
    name: str
    mark: str
    faces: tuple[FaceFacts, ...]
    seen: int
    reached: str | None
    wipe: str | None
    choice: str | None
    choice_words: str
    reason: str
    provisional: bool
    since: str | None
    needs: bool
    to_do: str | None
    right: str | None
    decided: tuple[Seen, ...]
    price: float | None
    new_costs: float | None
    wrong: float | None
    group: str | None
    position: str | None
    beside: tuple[BesideFacts, ...] = ()
    safety: str | None = None
    bad: bool = False
    conceded: bool = False
    barred: bool = False
    asks_name: bool = False
    stays_shut: str | None = None


class TraceFacts(View):
    """The drawing of a trace: stations with their marks, flows followed or not yet, what failed."""

    id: str
    name: str
    carries: str
    outline: tuple[tuple[tuple[float, float], ...], ...]
    stations: tuple[Station, ...]
    marks: dict[str, str]
    seen: dict[str, bool]
    flows: tuple[Flow, ...]
    reached: tuple[str, ...]
    failed: str | None
    words: str


class InspectionFacts(View):
    """All of one inspection step."""

    step: str
    parts: tuple[PartFacts, ...]
    seen: int
    total: int
    trace: TraceFacts | None
    next_part: str | None
    next_face: str | None


class PositionRow(View):
    """One position of a group: its findings by face, the worst grade, the clearance
    measured there.
    """

    position: str
    part: str
    faces: tuple[FaceFacts, ...]
    grade: int
    clearance: Judgement | None
    clearance_name: str


class PositionTable(View):
    """Like parts side by side, with what the pattern does and does not say."""

    group: str
    rows: tuple[PositionRow, ...]
    says: tuple[str, ...]


class Exposure(View):
    """Money: decided already, the worst that may come for what is open, and what it costs if what
    is reused is not good.
    """

    decided: float
    worst_open: float
    if_wrong: float
    open_parts: int
    without_price: tuple[str, ...]


class EvidenceFacts(View):
    """One piece of evidence."""

    entry: str
    sort: str
    text: str
    who: str


class CauseFacts(View):
    """An explanation with all that speaks for and against it, and a warning where it proves
    nothing.
    """

    id: str
    what: str
    step: str | None
    evidence: tuple[EvidenceFacts, ...]
    settled: bool
    doubt: str | None


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
        _part(state, step, part, mark_of.get(part.id, ""), came.get(part.id), sheet_faces)
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


def _part(
    state: BookState,
    step: InspectStep,
    part: InspectPart,
    mark: str,
    came: str | None,
    sheet_faces: set[tuple[str, str]],
) -> PartFacts:
    faces = tuple(
        _face(state, step, part, face, (part.id, face.id) not in sheet_faces) for face in part.face
    )
    seen = sum(face.state != "not_seen" for face in faces)
    last = state.newest(PartDecided, "part", f"{step.id}/{part.id}")
    mended = [
        e
        for e in state.each(PartRight, "part", f"{step.id}/{part.id}")
        if last is not None and e.seq > last.seq
    ]
    looks = [e for face in part.face for e in _looks(state, step, part, face)]
    later = (
        [
            e
            for e in looks
            if last is not None
            and e.seq > max((last.seq, *(m.seq for m in mended)))
            and e.body.code is not None
        ]
        if last
        else []
    )
    later = [] if last is not None and last.body.choice in GOES_OUT else later
    since = (
        f"seen since it was decided: {_look_words(later[-1])}, {later[-1].body.face_name}"
        if later
        else None
    )
    not_good = any(face.state in ("bad", "again") for face in faces)
    bad = any(face.state == "bad" for face in faces)
    choice = last.body.choice if last else None
    laid = besides(state, step.id, part) if choice in REPLACED else ()
    gone = (
        choice in REPLACED
        and bool(mended)
        and any(b.entry for b in laid)
        and differing(laid) is None
    )
    reworked = choice == "rework" and bool(mended)
    conceded = (
        bad and choice in STAYS_IN and last is not None and bool(last.body.name) and not since
    )
    licensed = conceded and last is not None and bool(last.body.licensed)
    barred = bad and part.safety is not None and not gone and not licensed
    good_again = (
        choice == "clean"
        and seen == len(faces)
        and not not_good
        and any(e.seq > last.seq for e in looks)
        if last
        else False
    )
    wipe = None
    if (
        came
        and seen == len(faces)
        and faces
        and not not_good
        and all(_dirty(state, step, part, face) for face in part.face)
    ):
        wipe = f"good, and {came}: wash it and look again"
    return PartFacts(
        id=part.id,
        name=part.name,
        mark=mark,
        faces=faces,
        seen=seen,
        reached=came,
        wipe=wipe,
        choice=choice,
        choice_words=DISPOSITIONS[choice] if choice else "",
        reason=last.body.reason if last else "",
        provisional=last is not None and seen < len(faces),
        since=since,
        needs=seen == len(faces)
        and not_good
        and not (mended and not since)
        and (choice is None or choice in UNSETTLED or since is not None),
        to_do=TO_DO.get(choice or ""),
        right=_right(choice, mended, bad, laid)
        or ("looked at again clean, and good" if good_again else None),
        decided=tuple(
            _seen(e, f"{DISPOSITIONS[e.body.choice]}: {e.body.reason}")
            for e in state.each(PartDecided, "part", f"{step.id}/{part.id}")
        ),
        price=_price(part, last),
        new_costs=part.price,
        wrong=last.body.wrong if last and last.body.wrong is not None else part.wrong,
        group=part.group,
        position=part.position,
        beside=laid,
        safety=part.safety,
        bad=bad,
        conceded=conceded,
        barred=barred,
        asks_name=bad and not reworked,
        stays_shut=_stays_shut(part) if bad and part.safety else None,
    )


def _right(
    choice: str | None, mended: Sequence[Entry[PartRight]], bad: bool, laid: Sequence[BesideFacts]
) -> str | None:
    """What was done about a decision, where it is really done: a new part only when it was laid
    beside the old, a cleaned one only when nothing bad is left.
    """
    if (
        not mended
        or (choice == "clean" and bad)
        or (choice in REPLACED and not any(b.entry for b in laid))
    ):
        return None
    return str(mended[-1].body.how)


def _stays_shut(part: InspectPart) -> str:
    rung = (
        "fuel on"
        if part.safety == "fuel"
        else "ready to lift"
        if part.safety == "lifting"
        else "drive"
    )
    return (
        f"safety-critical: {rung} stays shut until it is replaced, or inspected by somebody "
        "licensed"
    )


def _looks(
    state: BookState, step: InspectStep, part: InspectPart, face: Face
) -> list[Entry[Finding]]:
    return state.each(Finding, "face", f"{step.id}/{part.id}/{face.id}")


def _price(part: InspectPart, decided: Entry[PartDecided] | None) -> float | None:
    """What was said when it was decided; else what a new one costs, unless the old one stays."""
    if decided is None or decided.body.choice in (*REPLACED, *UNSETTLED):
        return part.price if decided is None or decided.body.price is None else decided.body.price
    return decided.body.price


def _dirty(state: BookState, step: InspectStep, part: InspectPart, face: Face) -> bool:
    looks = _looks(state, step, part, face)
    return bool(looks) and max(CLEANING.index(e.body.cleaning) for e in looks) < CLEANING.index(
        "washed"
    )


def _seen(entry: Line, words: str) -> Seen:
    return Seen(
        entry=entry.id,
        words=words,
        who=entry.who,
        time=entry.time,
        photo=entry.body.shown_photo(),
    )


def _look_words(entry: Entry[Finding]) -> str:
    """One look in words: dents, several, washed, sure."""
    body = entry.body
    found = f"{body.code_name}, {body.grade_word}" if body.code else "nothing found"
    more = [
        body.cleaning,
        body.method if body.method != "eye" else None,
        body.confidence if body.confidence != "sure" else None,
        body.words,
        f"perhaps from {body.cause}" if body.cause else None,
    ]
    return ", ".join([found, *(text for text in more if text)])


def _face(
    state: BookState, step: InspectStep, part: InspectPart, face: Face, own: bool
) -> FaceFacts:
    """What holds of a face: its cleanest looks since the last of them that found nothing, and
    damage seen after that in whatever state.
    """
    looks = _looks(state, step, part, face)
    struck = state.struck_of(Finding, "face", f"{step.id}/{part.id}/{face.id}")
    if not looks:
        return FaceFacts(
            id=face.id, name=face.name, on=face.on, state="not_seen", words="not seen", own=own
        )
    cleanest = max(CLEANING.index(e.body.cleaning) for e in looks)
    clean = [e for e in looks if CLEANING.index(e.body.cleaning) == cleanest]
    cleared = [e for e in clean if e.body.code is None][-1:]
    since = cleared[0].seq if cleared else clean[0].seq - 1
    now = [e for e in looks if e.seq > since and e.body.code is not None] or cleared
    unsure, dirty = (
        all(e.body.confidence == "unsure" for e in now),
        CLEANING[cleanest] == "as it came",
    )
    worst = max(now, key=lambda e: (e.body.grade or 0, e.seq))
    grade = worst.body.grade
    lost = next((e for e in struck if e.body.code is not None and e.seq > looks[-1].seq), None)
    if grade is None:
        state_word, words = (
            ("again", "nothing found yet, but it was dirty" if dirty else "nothing found, unsure")
            if dirty or unsure
            else ("good", "nothing found")
        )
    else:
        bad = [
            e
            for e in now
            if e.body.confidence != "unsure"
            and e.body.code is not None
            and CODES[e.body.code].bad(e.body.grade or 0, part.safety is not None)
        ]
        state_word = "bad" if bad else "again"
        words = "; ".join(f"{e.body.code_name}, {e.body.grade_word}" for e in now)
    if lost is not None and state_word != "bad":
        state_word, words = (
            "again",
            f"{words}; a finding here was struck ({_look_words(lost)}): look again",
        )
    return FaceFacts(
        id=face.id,
        name=face.name,
        on=face.on,
        state=state_word,
        words=words,
        code=worst.body.code,
        grade=grade,
        own=own,
        now=tuple(_seen(e, _look_words(e)) for e in now),
        earlier=tuple(_seen(e, _look_words(e)) for e in looks if e not in now),
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
                        f"{part.name}: {_bad_words(part)}, and {part.choice_words}: accept it in "
                        "writing, or replace it"
                    ),
                )
            )
        elif part.barred and part.conceded:
            found.append((part, f"{part.name}: {_bad_words(part)}, used again; {part.stays_shut}"))
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


def _bad_words(part: PartFacts) -> str:
    return "; ".join(f"{face.name} {face.words}" for face in part.faces if face.state == "bad")


def inspection_view(state: BookState, tools: Sequence[Instrument] = ()) -> InspectionView:
    """The findings desk: every inspection, like parts side by side, money, explanations, what is
    suspect for its age.
    """
    plan = plan_of(state)
    steps = [looked for step in plan.step if (looked := step.as_inspection()) is not None]
    found = tuple(inspection_facts(state, step) for step in steps)
    causes = _causes(state)
    spec = {part.id: part for step in steps for part in step.part}
    parts = [part for facts in found for part in facts.parts]
    return InspectionView(
        steps=found,
        seen=sum(facts.seen for facts in found),
        total=sum(facts.total for facts in found),
        parts=len(parts),
        to_decide=sum(part.needs for part in parts),
        titles={step.id: f"{step.number} {step.title}" for step in steps},
        tables=_tables(state, found, spec, causes, tools),
        exposure=_exposure(found),
        causes=causes,
        suspects=suspects(plan.facts),
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


def _tables(
    state: BookState,
    found: Sequence[InspectionFacts],
    spec: dict[str, InspectPart],
    causes: Sequence[CauseFacts],
    tools: Sequence[Instrument],
) -> tuple[PositionTable, ...]:
    groups: dict[str, list[PositionRow]] = {}
    told: dict[str, list[CauseFacts]] = {}
    for step, part in ((facts.step, p) for facts in found for p in facts.parts):
        if part.group is None:
            continue
        told[part.group] = [cause for cause in causes if cause.step in (None, step)]
        judgement, name = _clearance(state, spec[part.id], tools)
        groups.setdefault(part.group, []).append(
            PositionRow(
                position=part.position or part.name,
                part=part.name,
                faces=part.faces,
                grade=max((f.grade or 0 for f in part.faces), default=0),
                clearance=judgement,
                clearance_name=name,
            )
        )
    return tuple(
        PositionTable(group=group, rows=tuple(rows), says=_says(rows, told[group]))
        for group, rows in groups.items()
    )


def _clearance(
    state: BookState, part: InspectPart, tools: Sequence[Instrument]
) -> tuple[Judgement | None, str]:
    step = plan_of(state).find_step(part.clearance[0]) if part.clearance else None
    if part.clearance is None or step is None:
        return None, ""
    result = next((r for r in step.results() if r.id == part.clearance[1]), None)
    return (result_of(state, step, result, tools).judgement, result.name) if result else (None, "")


def _says(rows: Sequence[PositionRow], causes: Sequence[CauseFacts]) -> tuple[str, ...]:
    """What the pattern of like parts supports, and mostly what it does not."""
    said = []
    unseen = sum(any(f.state == "not_seen" for f in row.faces) for row in rows)
    if unseen:
        said.append(f"{unseen} of {len(rows)} are not wholly seen: no pattern yet")
    worst = max((row.grade for row in rows), default=0)
    bad = [row for row in rows if row.grade == worst] if worst else []
    read = [row for row in rows if row.clearance is not None and row.clearance.value is not None]
    if bad and len(bad) < len(rows) and len(read) >= 2 and not unseen:
        tight = min(read, key=lambda row: row.clearance.value or 0.0)  # type: ignore[union-attr]
        loose = max(read, key=lambda row: row.clearance.value or 0.0)  # type: ignore[union-attr]
        apart = (loose.clearance.value or 0.0) - (tight.clearance.value or 0.0)  # type: ignore[union-attr]
        big_u = max(row.clearance.U or 0.0 for row in read)  # type: ignore[union-attr]
        names = ", ".join(row.position for row in bad)
        if apart <= 2 * big_u:
            said.append(
                "their clearances differ by no more than the tools can tell: clearance explains "
                "nothing here"
            )
        elif len(bad) == 1 and bad[0] is tight:
            said.append(f"the worst one ({names}) is the tightest: clearance may be the reason")
        elif len(bad) == 1 and bad[0] is loose:
            said.append(
                f"the worst one ({names}) is the loosest: reason or result, clearance alone "
                "does not tell"
            )
        else:
            said.append(
                f"the worst ({names}) is neither the tightest ({tight.position}) nor the "
                f"loosest ({loose.position}): clearance does not explain it"
            )
    elif bad and len(bad) == len(rows) and len(rows) > 1 and not unseen:
        said.append(
            "all of them alike: look for what they share, oil and filter, not for the one place"
        )
    if bad and len(rows) < FEW:
        said.append(f"{len(rows)} samples prove little")
    doubts = [cause.doubt for cause in causes if cause.doubt]
    return (*said, *doubts[:1]) if bad else tuple(said)


def explanations(state: BookState) -> tuple[str, ...]:
    """What may have caused it all, as the cause file has it so far."""
    return tuple(entry.body.what for entry in state.each(Cause, "causes"))


def _causes(state: BookState) -> tuple[CauseFacts, ...]:
    found = []
    for cause in state.each(Cause, "causes"):
        evidence = tuple(
            EvidenceFacts(entry=e.id, sort=e.body.sort, text=e.body.text, who=e.who)
            for e in state.each(Evidence, "causes")
            if e.body.cause == cause.body.cause
        )
        varied = [e.text for e in evidence if e.sort == "varied"]
        changed = [e.text for e in evidence if e.sort == "changed"]
        doubt = None
        if varied and changed:
            doubt = (
                f"{len(varied) + len(changed)} things were changed at once "
                f"({'; '.join([*varied, *changed])[:160]}): what happened tells of none of them "
                "alone"
            )
        elif len(varied) > 1:
            doubt = f"{len(varied)} things were varied at once: change one at a time"
        found.append(
            CauseFacts(
                id=cause.body.cause,
                what=cause.body.what,
                step=cause.body.step,
                evidence=evidence,
                settled=any(e.sort == "settled" for e in evidence),
                doubt=doubt,
            )
        )
    return tuple(found)
