"""Whether the build accepts what is written while inspecting: findings, faces added, traces,
decisions about parts, causes.
"""

from typing import Any

from hollet.core.book import edits as e
from hollet.core.book import entries as b
from hollet.core.book.beside import alike
from hollet.core.book.edits import is_thin
from hollet.core.book.fold import BookState
from hollet.core.book.hand import Hand
from hollet.core.book.inspection import REPLACED, STAYS_IN, find_part, inspection_facts
from hollet.core.book.status import plan_of
from hollet.core.book.takedown import step_named
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.findings import CODES
from hollet.core.procedure.sheet import InspectPart, InspectStep

__all__ = ["INSPECT"]


def _inspect_step(state: BookState, step_id: str) -> InspectStep:
    step = step_named(state, step_id)
    if not isinstance(step, InspectStep):
        raise NotFound("inspection step", step_id)
    return step


def _part(state: BookState, step: InspectStep, part_id: str) -> InspectPart:
    part = find_part(state, step, part_id)
    if part is None:
        raise NotFound("part", part_id)
    return part


def _finding(state: BookState, edit: e.FindingEdit, hand: Hand) -> b.Body:
    step = _inspect_step(state, edit.step)
    part = _part(state, step, edit.part)
    face = next((f for f in part.face if f.id == edit.face), None)
    if face is None:
        raise NotFound("face", edit.face)
    if edit.photo is not None and edit.photo not in state.photos:
        raise NotFound("photo", edit.photo)
    name = word = None
    grade = edit.grade
    if edit.code is None:
        grade = None
    else:
        code = CODES.get(edit.code)
        if code is None:
            raise NotFound("finding", edit.code)
        if grade is None:
            raise Refused(
                "no_grade",
                f"{code.name}: say how much, 1 {code.grades[0]}, 2 {code.grades[1]} or 3 "
                f"{code.grades[2]}",
                field="grade",
            )
        name, word = code.name, code.grades[grade - 1]
    return b.Finding(
        step=step.id,
        part=part.id,
        part_name=part.name,
        face=face.id,
        face_name=face.name,
        code=edit.code,
        code_name=name,
        grade=grade,
        grade_word=word,
        cleaning=edit.cleaning,
        confidence=edit.confidence,
        method=edit.method,
        words=edit.words,
        cause=edit.cause,
        photo=edit.photo,
    )


def _face_added(state: BookState, edit: e.FaceAddedEdit, hand: Hand) -> b.Body:
    step = _inspect_step(state, edit.step)
    part = find_part(state, step, edit.part)
    if part is not None and any(face.id == edit.face for face in part.face):
        raise Conflict(f"{part.name} has the face {edit.face_name} already", reason_code="id_used")
    if part is None and edit.safety is None:
        raise Refused(
            "safety_asked",
            f"{edit.part_name}: say whether steering, brakes, suspension, wheels, shafts, fuel "
            "or restraints hang on it, or none of them",
            field="safety",
        )
    safety = None if part is not None or edit.safety == "none" else edit.safety
    return b.FaceAdded(
        step=step.id,
        part=edit.part,
        part_name=part.name if part else edit.part_name,
        face=edit.face,
        face_name=edit.face_name,
        on=edit.on,
        safety=safety,
    )


def _traced(state: BookState, edit: e.TracedEdit, hand: Hand) -> b.Body:
    step = _inspect_step(state, edit.step)
    trace = plan_of(state).find_trace(step.trace)
    if trace is None:
        raise Refused(
            "no_trace", f"{step.number} has no way of oil or fluid to follow", field="step"
        )
    station = trace.find(edit.station)
    if edit.station is not None and station is None:
        raise NotFound("station", edit.station)
    return b.Traced(
        step=step.id,
        trace=trace.id,
        station=edit.station,
        station_name=station.name if station else None,
    )


def _part_decided(state: BookState, edit: e.PartDecidedEdit, hand: Hand) -> b.Body:
    step = _inspect_step(state, edit.step)
    part = _part(state, step, edit.part)
    facts = next((p for p in inspection_facts(state, step).parts if p.id == part.id), None)
    if facts is None:
        raise Refused(
            "not_traced",
            f"{part.name} is looked at only when something upstream broke up",
            field="part",
        )
    if facts.bad and edit.choice in STAYS_IN:
        if part.safety == "lifting":
            raise Refused(
                "never_conceded",
                f"{part.name}: lifting gear that is bad is never used again, it is replaced",
                field="choice",
            )
        if edit.name is None or is_thin(edit.reason):
            shut = f" It is {facts.stays_shut}." if facts.stays_shut else ""
            raise Refused(
                "concession_asked",
                f"{part.name} is bad: to use it again accept it in writing, with your name and "
                f"a reason of ten characters and two words.{shut}",
                field="name",
            )
    return b.PartDecided(
        step=step.id,
        part=part.id,
        part_name=part.name,
        choice=edit.choice,
        reason=edit.reason,
        price=edit.price,
        wrong=edit.wrong,
        seen=facts.seen,
        faces=len(facts.faces),
        name=edit.name,
        licensed=edit.licensed,
    )


def _part_right(state: BookState, edit: e.PartRightEdit, hand: Hand) -> b.Body:
    step = _inspect_step(state, edit.step)
    part = _part(state, step, edit.part)
    if not any(entry.kind == "part decided" for entry in state.live(f"part:{step.id}/{part.id}")):
        raise Refused("not_decided", f"{part.name}: decide first what happens to it", field="part")
    facts = next((p for p in inspection_facts(state, step).parts if p.id == part.id), None)
    if (
        facts is not None
        and facts.choice in REPLACED
        and not any(beside.entry for beside in facts.beside)
    ):
        raise Refused(
            "not_compared",
            f"{part.name}: lay the new one beside the old first, one feature at least",
            field="part",
        )
    return b.PartRight(step=step.id, part=part.id, part_name=part.name, how=edit.how)


def _laid_beside(state: BookState, edit: e.LaidBesideEdit, hand: Hand) -> b.Body:
    step = _inspect_step(state, edit.step)
    part = _part(state, step, edit.part)
    same = alike(edit.old, edit.new) or None if edit.same is None else edit.same
    if same is None:
        raise Refused(
            "not_alike",
            f"'{edit.old}' and '{edit.new}' do not read alike: say whether they are the same",
            field="same",
        )
    return b.LaidBeside(
        step=step.id,
        part=part.id,
        part_name=part.name,
        feature=edit.feature,
        old=edit.old,
        new=edit.new,
        same=same,
        why=None if same else edit.why,
    )


def _cause(state: BookState, edit: e.CauseEdit, hand: Hand) -> b.Body:
    if any(
        entry.kind == "cause" and entry.body.cause == edit.cause for entry in state.live("causes")
    ):
        raise Conflict(f"'{edit.what}' is in the cause file already", reason_code="id_used")
    return b.Cause(cause=edit.cause, what=edit.what, step=edit.step)


def _evidence(state: BookState, edit: e.EvidenceEdit, hand: Hand) -> b.Body:
    if not any(
        entry.kind == "cause" and entry.body.cause == edit.cause for entry in state.live("causes")
    ):
        raise NotFound("explanation", edit.cause)
    return b.Evidence(cause=edit.cause, sort=edit.sort, text=edit.text)


INSPECT: dict[str, Any] = {
    "finding": _finding,
    "face added": _face_added,
    "traced": _traced,
    "part decided": _part_decided,
    "part put right": _part_right,
    "laid beside": _laid_beside,
    "cause": _cause,
    "evidence": _evidence,
}
