"""A fault followed up: the symptom, a test and its answer, what stops it, the cause."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act, is_thin
from hollet.core.acts.hand import Hand
from hollet.core.book.faults import FaultFacts, fault_of
from hollet.core.book.gates import gate_answers
from hollet.core.entries import BookState, CauseFound, FaultStopSeen, FaultTested, Key, SymptomSaid
from hollet.core.entries.base import AtStep
from hollet.core.errors import Conflict, NotFound, Refused

__all__ = ["CauseFoundAct", "FaultStopAct", "FaultTestedAct", "SymptomSaidAct"]

FaultId = Annotated[str, Field(min_length=8, max_length=64)]


def _facts(state: BookState, fault: str, hand: Hand) -> FaultFacts:
    """The fault that is followed up; raises NotFound, or Conflict where its cause is found."""
    shut = [gate.rung for gate in gate_answers(state, hand.listed) if gate.shut]
    found = fault_of(state, fault, shut)
    if found is None:
        raise NotFound("fault", fault)
    if found.ended:
        raise Conflict("its cause is found: say it anew where it came back", reason_code="ended")
    return found


class SymptomSaidAct(Act[SymptomSaid], AtStep):
    """Something is wrong. Always written."""

    body: ClassVar = SymptomSaid
    kind: Literal["symptom said"]
    fault: FaultId
    symptom: Annotated[str, Field(max_length=60)]
    words: Annotated[str, Field(max_length=300)] = ""
    attempt: str | None = None

    def concerns(self) -> Key:
        return Key("fault", self.fault)

    def accepted(self, state: BookState, hand: Hand) -> SymptomSaid:
        tree = state.lore.symptom_of(self.symptom)
        if tree is None:
            raise NotFound("symptom", self.symptom)
        if state.live("fault", self.fault):
            raise Conflict("this fault was said already", reason_code="said_already")
        return self.filled(name=tree.name, words=self.words.strip())


class FaultTestedAct(Act[FaultTested], AtStep):
    """A test with the number of its answer, the figure where one was read, and everything that was
    seen before.
    """

    body: ClassVar = FaultTested
    kind: Literal["fault tested"]
    fault: FaultId
    test: Annotated[str, Field(max_length=60)]
    answer: Annotated[int, Field(ge=0, le=40)]
    figure: Annotated[str, Field(max_length=60)] = ""
    seen: tuple[Annotated[str, Field(max_length=200)], ...] = ()

    def concerns(self) -> Key:
        return Key("fault", self.fault)

    def accepted(self, state: BookState, hand: Hand) -> FaultTested:
        facts = _facts(state, self.fault, hand)
        test = next((t for t in facts.tests if t.id == self.test), None)
        if test is None or self.answer >= len(test.answers):
            raise NotFound("test", self.test)
        if test.held:
            raise Refused("test_held", test.held, field="test")
        missing = next((need for need in test.before if need not in self.seen), None)
        if missing is not None:
            raise Refused("not_seen", f"not seen now: {missing}", field="seen")
        if test.reading and not any(c.isdigit() for c in self.figure):
            words = "it is a reading: type what was read, with its unit"
            raise Refused("no_figure", words, field="figure")
        return self.filled(do=test.do, words=test.answers[self.answer], figure=self.figure.strip())


class FaultStopAct(Act[FaultStopSeen], AtStep):
    """What stops it at once was seen: which, by its number."""

    body: ClassVar = FaultStopSeen
    kind: Literal["fault stop"]
    fault: FaultId
    stop: Annotated[int, Field(ge=0, le=20)]

    def concerns(self) -> Key:
        return Key("fault", self.fault)

    def accepted(self, state: BookState, hand: Hand) -> FaultStopSeen:
        facts = _facts(state, self.fault, hand)
        if self.stop >= len(facts.stops):
            raise NotFound("stop", str(self.stop))
        found = facts.stops[self.stop]
        return FaultStopSeen(step=self.step, fault=self.fault, when=found.when, then=found.then)


class CauseFoundAct(Act[CauseFound], AtStep):
    """What it was, by the name of a cause that is left or in words, and what was done about it."""

    body: ClassVar = CauseFound
    kind: Literal["cause found"]
    fault: FaultId
    cause: Annotated[str, Field(max_length=60)] = ""
    what: Annotated[str, Field(max_length=400)] = ""
    done: Annotated[str, Field(max_length=400)]
    how: Literal["mended", "other", "none"]

    def concerns(self) -> Key:
        return Key("fault", self.fault)

    def accepted(self, state: BookState, hand: Hand) -> CauseFound:
        facts = _facts(state, self.fault, hand)
        tree = state.lore.symptom_of(facts.symptom)
        named = next((c for c in (tree.cause if tree else ()) if c.id == self.cause), None)
        if self.cause and named is None:
            raise NotFound("cause", self.cause)
        what = named.what if named is not None else self.what.strip()
        if not what:
            raise Refused("no_words", "say what it was", field="what")
        if facts.stopped and (self.how != "mended" or (named is None and is_thin(what))):
            words = f"it was stopped, {facts.stopped[0].when}: only the cause, mended, ends that"
            raise Refused("stopped", words, field="how")
        if is_thin(self.done):
            words = "say what was done and how it was looked at, in ten characters or more"
            raise Refused("reason_thin", words, field="done")
        return self.filled(what=what, done=self.done.strip())
