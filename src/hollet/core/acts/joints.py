"""What is said of a joint as a whole: how its bolts are known to be right, how its nuts sit, how
its threads are.
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act, step_named
from hollet.core.acts.bolts import joint_of
from hollet.core.acts.hand import Hand
from hollet.core.entries import BookState, SeatingSaid, SignSaid, StepBody, ThreadsSaid
from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.words import Seating, Sign, ThreadState

__all__ = ["SeatingSaidAct", "SignSaidAct", "ThreadsSaidAct"]


class SignSaidAct(Act[SignSaid], StepBody):
    """Said once a joint; by whom it is seen, or with which arm, in words."""

    body: ClassVar = SignSaid
    kind: Literal["sign said"]
    sign: Sign
    words: Annotated[str, Field(max_length=120)] = ""
    joint: Annotated[str, Field(max_length=60)] | None = None

    def accepted(self, state: BookState, hand: Hand) -> SignSaid:
        joint, _ = joint_of(state, step_named(state, self.step), self.joint)
        if self.sign in ("seen", "felt") and len(self.words.strip()) < 2:
            asks = "who saw it" if self.sign == "seen" else "which arm, and how long it is"
            raise Refused("no_words", f"{joint.name}: say {asks}", field="words")
        if self.sign == "seen" and self.words.strip().casefold() == hand.who.strip().casefold():
            words = f"{joint.name}: {hand.who} pulls, so somebody else sees it. Say who"
            raise Refused("second_person", words, field="words")
        return SignSaid(
            step=self.step,
            joint=joint.id,
            name=joint.name,
            sign=self.sign,
            words=self.words.strip(),
        )


class SeatingSaidAct(Act[SeatingSaid], StepBody):
    """Looked at with a nut in one hand and the wheel's hole before the eye."""

    body: ClassVar = SeatingSaid
    kind: Literal["seating said"]
    nut: Seating
    wheel: Seating
    centred: Literal["nuts", "hub"]

    def accepted(self, state: BookState, hand: Hand) -> SeatingSaid:
        joint, _ = joint_of(state, step_named(state, self.step))
        return self.filled(joint=joint.id, name=joint.name)


class ThreadsSaidAct(Act[ThreadsSaid], StepBody):
    """Looked at before the first bolt goes in, or when one does not run as it should."""

    body: ClassVar = ThreadsSaid
    kind: Literal["threads said"]
    threads: ThreadState
    bolt: Annotated[int, Field(ge=1, le=200)] | None = None
    joint: Annotated[str, Field(max_length=60)] | None = None

    def accepted(self, state: BookState, hand: Hand) -> ThreadsSaid:
        joint, facts = joint_of(state, step_named(state, self.step), self.joint)
        if self.bolt is not None and self.bolt > len(facts.bolts):
            raise NotFound("bolt", str(self.bolt))
        return self.filled(joint=joint.id, name=joint.name)
