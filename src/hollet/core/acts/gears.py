"""What the paste on the teeth of a gear has shown."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act, held, step_named
from hollet.core.acts.hand import Hand
from hollet.core.book.passing import unsettled_before
from hollet.core.entries import BookState, PatternSeen, StepBody
from hollet.core.entries.base import PhotoHash
from hollet.core.entries.status import status_of
from hollet.core.errors import NotFound, Refused
from hollet.core.measuring.pinion import ContactPattern, contact_pattern
from hollet.core.steps.pattern import PATTERN_WORDS

__all__ = ["PatternSeenAct"]


class PatternSeenAct(Act[PatternSeen], StepBody):
    """Where it was worn off on each side: centre, face, flank, heel, toe, or two of them."""

    body: ClassVar = PatternSeen
    kind: Literal["pattern seen"]
    drive_side: Annotated[str, Field(max_length=20)]
    coast_side: Annotated[str, Field(max_length=20)]
    photo: PhotoHash | None = None

    def accepted(self, state: BookState, hand: Hand) -> PatternSeen:
        step = step_named(state, self.step)
        if not step.shows_pattern():
            raise NotFound("pattern", self.step)
        if status_of(state, step).status == "done":
            words = f"{step.number} is done: open it again, then say where it bears now"
            raise Refused("already_done", words, field="step")
        waits = next(iter(unsettled_before(state, step, hand.now)), None)
        if waits is not None:
            raise held(step, waits, "step")
        sides = {"drive_side": self.drive_side, "coast_side": self.coast_side}
        found = contact_pattern(ContactPattern.model_validate(sides))
        return self.filled(action=found.action, words=PATTERN_WORDS[found.action])

    def files(self) -> tuple[tuple[str, str], ...]:
        return (("photos", self.photo),) if self.photo else ()
