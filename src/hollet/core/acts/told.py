"""Words, pictures and voices to the log."""

from typing import Annotated, ClassVar, Literal

from pydantic import StringConstraints

from hollet.core.acts.base import Act, step_named
from hollet.core.acts.hand import Hand
from hollet.core.book.units import LEAST_STAMPED, stamped
from hollet.core.calendar.clock import pauses
from hollet.core.entries import (
    AttemptStarted,
    BookState,
    Clip,
    Note,
    PauseSaid,
    Photo,
    Pin,
    Pinned,
    Spoken,
    UnitNamed,
    Worded,
)
from hollet.core.entries.status import plan_of
from hollet.core.entries.told import PauseCause, UnitSort
from hollet.core.errors import NotFound, Refused
from hollet.core.steps.inspection import find_part

__all__ = [
    "ClipAct",
    "NoteAct",
    "PauseSaidAct",
    "PhotoAct",
    "PinnedAct",
    "SpokenAct",
    "UnitNamedAct",
    "WordedAct",
]


class NoteAct(Act[Note], Note):
    """Words to the log."""

    body: ClassVar = Note
    kind: Literal["note"]

    def accepted(self, state: BookState, hand: Hand) -> Note:
        return self.filled()


class PauseSaidAct(Act[PauseSaid]):
    """What a gap between two lines was."""

    body: ClassVar = PauseSaid
    kind: Literal["pause said"]
    after: Annotated[str, StringConstraints(max_length=64)]
    cause: PauseCause

    def accepted(self, state: BookState, hand: Hand) -> PauseSaid:
        line = state.entries.get(self.after)
        step = plan_of(state).find_step(line.body.at()) if line is not None else None
        found = pauses(state, step) if step is not None else ()
        gap = next((p for p in found if p.after == self.after), None)
        if gap is None:
            raise NotFound("pause", self.after)
        return PauseSaid(
            before=gap.before, after=gap.after, cause=self.cause, minutes=round(gap.minutes)
        )


class UnitNamedAct(Act[UnitNamed]):
    """The number stamped on a unit of this build."""

    body: ClassVar = UnitNamed
    kind: Literal["unit named"]
    sort: UnitSort
    number: Annotated[str, StringConstraints(max_length=40)]

    def accepted(self, state: BookState, hand: Hand) -> UnitNamed:
        number = " ".join(self.number.split())
        if len(stamped(number)) < LEAST_STAMPED:
            words = f"'{number}': the number as it is stamped, three letters or digits and more"
            raise Refused("bad_entry", words, field="number")
        return UnitNamed(sort=self.sort, number=number)


class SpokenAct(Act[Spoken], Spoken):
    """A spoken note; the recording is on the server already."""

    body: ClassVar = Spoken
    kind: Literal["spoken"]

    def files(self) -> tuple[tuple[str, str], ...]:
        return (("sounds", self.sound),)

    def accepted(self, state: BookState, hand: Hand) -> Spoken:
        if self.step is not None:
            step_named(state, self.step)
        return self.filled()


class WordedAct(Act[Worded], Worded):
    """What a spoken note says, in words."""

    body: ClassVar = Worded
    kind: Literal["worded"]
    text: Annotated[str, StringConstraints(strip_whitespace=True, min_length=3, max_length=4000)]

    def accepted(self, state: BookState, hand: Hand) -> Worded:
        if all(note.id != self.spoken for note in state.all(Spoken)):
            raise NotFound("spoken note", self.spoken)
        return self.filled()


class PhotoAct(Act[Photo], Photo):
    """A photo that is stored already, with its pins."""

    body: ClassVar = Photo
    kind: Literal["photo"]

    def files(self) -> tuple[tuple[str, str], ...]:
        return (("photos", self.photo),)

    def accepted(self, state: BookState, hand: Hand) -> Photo:
        if self.step is not None:
            step_named(state, self.step)
        _numbered_once(self.pins)
        return self.filled()


class ClipAct(Act[Clip], Clip):
    """A clip that is stored already, of a step, of a part that is looked at there, or of a run."""

    body: ClassVar = Clip
    kind: Literal["clip"]

    def files(self) -> tuple[tuple[str, str], ...]:
        return (("clips", self.clip),)

    def accepted(self, state: BookState, hand: Hand) -> Clip:
        if self.step is not None:
            looked_at = step_named(state, self.step).as_inspection()
            if self.part is not None and (
                looked_at is None or find_part(state, looked_at, self.part) is None
            ):
                raise NotFound("part", self.part)
        if self.attempt and all(e.body.attempt != self.attempt for e in state.all(AttemptStarted)):
            raise NotFound("attempt", self.attempt)
        if self.at_s is not None and not self.attempt:
            words = "a second is one of a run: say of which attempt"
            raise Refused("no_attempt", words, field="attempt")
        return self.filled()


class PinnedAct(Act[Pinned], Pinned):
    """The pins of a photo."""

    body: ClassVar = Pinned
    kind: Literal["pinned"]

    def files(self) -> tuple[tuple[str, str], ...]:
        return (("photos", self.photo),)

    def accepted(self, state: BookState, hand: Hand) -> Pinned:
        if not state.each(Photo, "photo", self.photo):
            raise NotFound("photo", self.photo)
        _numbered_once(self.pins)
        return self.filled()


def _numbered_once(pins: tuple[Pin, ...]) -> None:
    numbers = [pin.n for pin in pins]
    if len(set(numbers)) < len(numbers):
        raise Refused("twice", "two pins have the same number: give each its own", field="pins")
