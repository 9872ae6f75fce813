"""How a step comes to stand: begun, done, happened, not there, reopened, passed over, seen."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act, Passing, held, own_reason, step_named
from hollet.core.acts.hand import Hand
from hollet.core.book.boxes import kind_of_box, not_pressed
from hollet.core.book.complete import obstacles
from hollet.core.book.passing import Obstacle, unsettled_before
from hollet.core.entries import (
    BookState,
    Confirmed,
    Done,
    Happened,
    NotThere,
    Reopened,
    Said,
    Skipped,
    Started,
    StepBody,
    TrialSaid,
)
from hollet.core.entries.base import Reason
from hollet.core.entries.status import SETTLED, status_of, whole_of
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.procedure.kinds.check import Ask
from hollet.core.procedure.sheet import Step
from hollet.core.quantities.parse import measured
from hollet.core.quantities.quantity import Quantity
from hollet.core.slips import SlipCheck, question, slip_check

__all__ = [
    "ConfirmedAct",
    "DoneAct",
    "HappenedAct",
    "NotThereAct",
    "ReopenedAct",
    "SaidAct",
    "SkippedAct",
    "StartedAct",
    "TrialSaidAct",
]


def _still_open(state: BookState, step: Step, settled: tuple[str, ...] = SETTLED) -> None:
    """Refuse what was done already, so that a second press writes nothing."""
    if status_of(state, step).status in settled:
        words = f"{step.number} is already done: nothing was written"
        raise Conflict(words, reason_code="already_done")


class StartedAct(Act[Started], StepBody):
    """Work on a step begins; with a reason before what it waits for."""

    body: ClassVar = Started
    kind: Literal["started"]
    reason: Passing | None = None
    spoken: str | None = None

    def accepted(self, state: BookState, hand: Hand) -> Started:
        step = step_named(state, self.step)
        reason, spoken = own_reason(state, step, self.reason, self.spoken)
        passed: list[Obstacle] = []
        if reason is not None:
            found = obstacles(state, step, hand.listed, hand.now)
            passed = [o for o in found if o.code in ("danger", "must_wait")]
        for obstacle in passed:
            if obstacle.by != "reason":
                raise held(step, obstacle, "reason")
        return self.filled(reason=reason, passed=tuple(o.words for o in passed), spoken=spoken)


class DoneAct(Act[Done], StepBody):
    """A step is done; a reason is needed when it is done before what it waits for, or in another
    way.
    """

    body: ClassVar = Done
    kind: Literal["done"]
    reason: Passing | None = None
    spoken: str | None = None

    def accepted(self, state: BookState, hand: Hand) -> Done:
        step = step_named(state, self.step)
        _still_open(state, step, ("done", "not_there"))
        found = obstacles(state, step, hand.listed, hand.now)
        never = next((o for o in found if o.by != "reason"), None)
        if never is not None:
            raise held(step, never, "reason")
        said, spoken = own_reason(state, step, self.reason, self.spoken)
        if found and said is None:
            raise held(step, found[0], "reason")
        if found and all(o.code != "must_wait" for o in found):
            self._box(state, step, hand)
        begun = [e.body for e in state.each(Started, "step", step.id) if e.body.reason]
        # what was passed to begin was passed to be done
        reason = said or (begun[-1].reason if begun else None)
        passed = (*(o.words for o in found), *(words for body in begun for words in body.passed))
        return self.filled(
            reason=reason,
            passed=passed,
            spoken=spoken,
            opens=step.opens,
            closes=step.closes,
            carries=step.carries,
            releases=step.releases,
            joints=step.takes_out(),
        )

    def _box(self, state: BookState, step: Step, hand: Hand) -> None:
        """Done in another way: what stands for the step is seen and pressed now."""
        box = kind_of_box(state, step)
        if box is not None and not_pressed(state, step, box, hand.now):
            words = f"not confirmed: {box}"
            raise held(step, Obstacle(code="box", words=words, by="press", box=box), "reason")


class TrialSaidAct(Act[TrialSaid], StepBody):
    """What a dry fit has proved; where it does not fit or cannot be told, in words."""

    body: ClassVar = TrialSaid
    kind: Literal["trial said"]
    fits: Literal["yes", "no", "unclear"]
    words: Annotated[str, Field(max_length=300)] = ""

    def accepted(self, state: BookState, hand: Hand) -> TrialSaid:
        step = step_named(state, self.step)
        if step.trial is None:
            raise NotFound("trial", self.step)
        if status_of(state, step).status == "done":
            words = f"{step.number} is done: open it again, then say what the trial showed"
            raise Refused("already_done", words, field="fits")
        waits = next(iter(unsettled_before(state, step, hand.now)), None)
        if waits is not None and waits.by != "reason":
            raise held(step, waits, "fits")
        if self.fits != "yes" and not self.words.strip():
            words = "say what does not fit, or why it cannot be told"
            raise Refused("no_words", words, field="words")
        return self.filled(proves=step.trial.proves, words=self.words.strip())


class HappenedAct(Act[Happened], StepBody):
    """The step has happened although a danger before it was not dealt with."""

    body: ClassVar = Happened
    kind: Literal["happened"]

    def accepted(self, state: BookState, hand: Hand) -> Happened:
        step = step_named(state, self.step)
        _still_open(state, step)
        found = obstacles(state, step, hand.listed, hand.now)
        without = tuple(o.words for o in found if o.by != "reason")
        if not without:
            raise Refused(
                "nothing_live",
                f"{step.number}: nothing dangerous stands before it. Call it done, or give a "
                "reason",
                field="step",
            )
        return self.filled(
            without=without, opens=step.opens, carries=step.carries, releases=step.releases
        )


class SaidAct(Act[Said], StepBody):
    """A figure that the step asks for; `sure` answers the question about an unusual one."""

    body: ClassVar = Said
    kind: Literal["said"]
    figure: str
    typed: Annotated[str, Field(min_length=1, max_length=40)]
    sure: bool = False

    def accepted(self, state: BookState, hand: Hand) -> Said:
        asked = step_named(state, self.step).figures()
        ask = next((a for a in asked if a.id == self.figure), None)
        if ask is None:
            raise NotFound("figure", self.figure)
        value = measured(self.typed, ask.dimension, ask.unit, "typed")
        if value.figure(ask.dimension) <= 0:
            raise Refused(
                "bad_number",
                f"{ask.name}: '{self.typed}' must be more than nothing, such as 480 {ask.unit}",
                field="typed",
            )
        if ask.usual is not None and not self.sure:
            self._usual(ask, ask.usual)
        return self.filled(name=ask.name, value=value)

    def _usual(self, ask: Ask, usual: tuple[str, str]) -> None:
        """Ask about a figure that such a thing hardly has."""
        low, high = (measured(bound, ask.dimension, ask.unit, "typed") for bound in usual)
        span = [Quantity(value=bound.value, unit=bound.unit) for bound in (low, high)]
        check = SlipCheck(typed=self.typed, unit=ask.unit, tool_range=span)
        found = slip_check(check)
        if found.ask:
            raise Refused(
                "odd_figure",
                f"{ask.name}: {question(check, found)} As a rule it is {low.value} to "
                f"{high.value} {ask.unit}",
                field="typed",
            )


class NotThereAct(Act[NotThere], NotThere):
    """The thing is not on this vehicle: its name, and where it was looked for."""

    body: ClassVar = NotThere
    kind: Literal["not there"]
    looked: Passing

    def accepted(self, state: BookState, hand: Hand) -> NotThere:
        step = whole_of(state).find_step(self.step)
        if step is None:
            raise NotFound("step", self.step)
        _still_open(state, step, ("done", "not_there"))
        return self.filled()


class ReopenedAct(Act[Reopened], StepBody):
    """A step is reopened."""

    body: ClassVar = Reopened
    kind: Literal["reopened"]
    reason: Reason = "looked at again"

    def accepted(self, state: BookState, hand: Hand) -> Reopened:
        step = step_named(state, self.step)
        if status_of(state, step).status not in SETTLED:
            words = f"{step.number} is not done, so it cannot be reopened"
            raise Conflict(words, reason_code="not_done")
        return self.filled()


class SkippedAct(Act[Skipped], StepBody):
    """A step is passed over, or does not apply."""

    body: ClassVar = Skipped
    kind: Literal["skipped"]
    reason: Passing | None = None
    not_applicable: bool = False
    spoken: str | None = None

    def accepted(self, state: BookState, hand: Hand) -> Skipped:
        step = step_named(state, self.step)
        _still_open(state, step)
        reason, spoken = own_reason(state, step, self.reason, self.spoken)
        if reason is None:
            raise Refused(
                "no_reason",
                f"{step.number}: say why it is passed over, by a key or in words",
                field="reason",
            )
        return self.filled(reason=reason, spoken=spoken)


class ConfirmedAct(Act[Confirmed], Confirmed):
    """A precondition or level was seen."""

    body: ClassVar = Confirmed
    kind: Literal["confirmed"]

    def accepted(self, state: BookState, hand: Hand) -> Confirmed:
        step_named(state, self.step)
        return self.filled()
