"""What is written while parts are looked at: findings, faces, traces, decisions, causes."""

from typing import ClassVar, Literal

from hollet.core.acts.base import Act, is_thin, step_named
from hollet.core.acts.hand import Hand
from hollet.core.entries import (
    BookState,
    Cause,
    Evidence,
    FaceAdded,
    Finding,
    LaidBeside,
    PartDecided,
    PartRight,
    Photo,
    Traced,
)
from hollet.core.entries.inspected import (
    FaceAddedSaid,
    FindingSaid,
    LaidBesideSaid,
    PartDecidedSaid,
    PartRightSaid,
    TracedSaid,
)
from hollet.core.entries.status import plan_of
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.lore import Lore
from hollet.core.procedure.kinds.inspect import InspectPart, InspectStep
from hollet.core.quantities.differing import alike
from hollet.core.safety import Safety
from hollet.core.steps.inspection import find_part, inspection_facts
from hollet.core.steps.parts import REPLACED, STAYS_IN, PartFacts

__all__ = [
    "CauseAct",
    "EvidenceAct",
    "FaceAddedAct",
    "FindingAct",
    "LaidBesideAct",
    "PartDecidedAct",
    "PartRightAct",
    "TracedAct",
]


def _looked_at(state: BookState, step_id: str) -> InspectStep:
    step = step_named(state, step_id).as_inspection()
    if step is None:
        raise NotFound("inspection step", step_id)
    return step


def _part(state: BookState, step: InspectStep, part_id: str) -> InspectPart:
    part = find_part(state, step, part_id)
    if part is None:
        raise NotFound("part", part_id)
    return part


def _facts(state: BookState, step: InspectStep, part: InspectPart) -> PartFacts | None:
    return next((p for p in inspection_facts(state, step).parts if p.id == part.id), None)


class FindingAct(Act[Finding], FindingSaid):
    """What was seen on a face; without a code, nothing was found there."""

    body: ClassVar = Finding
    kind: Literal["finding"]

    def files(self) -> tuple[tuple[str, str], ...]:
        return (("photos", self.photo),) if self.photo else ()

    def accepted(self, state: BookState, hand: Hand) -> Finding:
        step = _looked_at(state, self.step)
        part = _part(state, step, self.part)
        face = next((f for f in part.face if f.id == self.face), None)
        if face is None:
            raise NotFound("face", self.face)
        if self.photo is not None and not state.each(Photo, "photo", self.photo):
            raise NotFound("photo", self.photo)
        name, word = self._coded(state.lore)
        return self.filled(
            part_name=part.name,
            face_name=face.name,
            grade=self.grade if self.code is not None else None,
            code_name=name,
            grade_word=word,
        )

    def _coded(self, lore: Lore) -> tuple[str | None, str | None]:
        """The term and its grade in words."""
        if self.code is None:
            return None, None
        code = lore.code(self.code)
        if code is None:
            raise NotFound("finding", self.code)
        if self.grade is None:
            grades = code.grades
            raise Refused(
                "no_grade",
                f"{code.name}: say how much, 1 {grades[0]}, 2 {grades[1]} or 3 {grades[2]}",
                field="grade",
            )
        return code.name, code.grades[self.grade - 1]


class FaceAddedAct(Act[FaceAdded], FaceAddedSaid):
    """Another face to look at; a part that is not there yet is named."""

    body: ClassVar = FaceAdded
    kind: Literal["face added"]
    safety: Safety | Literal["none"] | None = None

    def accepted(self, state: BookState, hand: Hand) -> FaceAdded:
        part = find_part(state, _looked_at(state, self.step), self.part)
        if part is None:
            return self._on_new_part()
        if any(face.id == self.face for face in part.face):
            words = f"{part.name} has the face {self.face_name} already"
            raise Conflict(words, reason_code="id_used")
        return self.filled(part_name=part.name, safety=None)

    def _on_new_part(self) -> FaceAdded:
        if self.safety is None:
            raise Refused(
                "safety_asked",
                f"{self.part_name}: say whether steering, brakes, suspension, wheels, shafts, "
                "fuel or restraints hang on it, or none of them",
                field="safety",
            )
        return self.filled(safety=None if self.safety == "none" else self.safety)


class TracedAct(Act[Traced], TracedSaid):
    """What failed, on the trace of this step; nothing takes the trace back."""

    body: ClassVar = Traced
    kind: Literal["traced"]

    def accepted(self, state: BookState, hand: Hand) -> Traced:
        step = _looked_at(state, self.step)
        trace = plan_of(state).find_trace(step.follows())
        if trace is None:
            words = f"{step.number} has no way of oil or fluid to follow"
            raise Refused("no_trace", words, field="step")
        station = trace.find(self.station)
        if self.station is not None and station is None:
            raise NotFound("station", self.station)
        return self.filled(trace=trace.id, station_name=station.name if station else None)


class PartDecidedAct(Act[PartDecided], PartDecidedSaid):
    """What happens to a part, and why."""

    body: ClassVar = PartDecided
    kind: Literal["part decided"]

    def accepted(self, state: BookState, hand: Hand) -> PartDecided:
        step = _looked_at(state, self.step)
        part = _part(state, step, self.part)
        facts = _facts(state, step, part)
        if facts is None:
            raise Refused(
                "not_traced",
                f"{part.name} is looked at only when something upstream broke up",
                field="part",
            )
        if facts.bad and self.choice in STAYS_IN:
            self._conceded(part, facts)
        return self.filled(part_name=part.name, seen=facts.seen, faces=len(facts.faces))

    def _conceded(self, part: InspectPart, facts: PartFacts) -> None:
        """A bad part that stays in is accepted in writing, or not at all."""
        if part.safety == "lifting":
            words = f"{part.name}: lifting gear that is bad is never used again, it is replaced"
            raise Refused("never_conceded", words, field="choice")
        if self.name is None or is_thin(self.reason):
            shut = f" It is {facts.stays_shut}." if facts.stays_shut else ""
            raise Refused(
                "concession_asked",
                f"{part.name} is bad: to use it again accept it in writing, with your name and "
                f"a reason of ten characters and two words.{shut}",
                field="name",
            )


class PartRightAct(Act[PartRight], PartRightSaid):
    """What was decided about a part is done."""

    body: ClassVar = PartRight
    kind: Literal["part put right"]

    def accepted(self, state: BookState, hand: Hand) -> PartRight:
        step = _looked_at(state, self.step)
        part = _part(state, step, self.part)
        if not state.each(PartDecided, "part", f"{step.id}/{part.id}"):
            words = f"{part.name}: decide first what happens to it"
            raise Refused("not_decided", words, field="part")
        facts = _facts(state, step, part)
        replaced = facts is not None and facts.choice in REPLACED
        if facts is not None and replaced and not any(beside.entry for beside in facts.beside):
            words = f"{part.name}: lay the new one beside the old first, one feature at least"
            raise Refused("not_compared", words, field="part")
        return self.filled(part_name=part.name)


class LaidBesideAct(Act[LaidBeside], LaidBesideSaid):
    """One feature, old against new; what reads alike is the same by itself, a difference may be
    said to do, with the reason.
    """

    body: ClassVar = LaidBeside
    kind: Literal["laid beside"]
    same: bool | None = None

    def accepted(self, state: BookState, hand: Hand) -> LaidBeside:
        part = _part(state, _looked_at(state, self.step), self.part)
        same = self.same if self.same is not None else alike(self.old, self.new) or None
        if same is None:
            words = (
                f"'{self.old}' and '{self.new}' do not read alike: say whether they are the same"
            )
            raise Refused("not_alike", words, field="same")
        return self.filled(part_name=part.name, same=same, why=None if same else self.why)


def _known_cause(state: BookState, cause: str) -> bool:
    return any(entry.body.cause == cause for entry in state.each(Cause, "causes"))


class CauseAct(Act[Cause], Cause):
    """An explanation."""

    body: ClassVar = Cause
    kind: Literal["cause"]

    def accepted(self, state: BookState, hand: Hand) -> Cause:
        if _known_cause(state, self.cause):
            words = f"'{self.what}' is in the cause file already"
            raise Conflict(words, reason_code="id_used")
        return self.filled()


class EvidenceAct(Act[Evidence], Evidence):
    """Something for or against an explanation."""

    body: ClassVar = Evidence
    kind: Literal["evidence"]

    def accepted(self, state: BookState, hand: Hand) -> Evidence:
        if not _known_cause(state, self.cause):
            raise NotFound("explanation", self.cause)
        return self.filled()
