"""What the paste on the teeth of a gear has shown, which packs its carrier lies between, and which
part was changed.
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act, held, step_named, tool_of
from hollet.core.acts.hand import Hand
from hollet.core.acts.packs import measures_thickness
from hollet.core.book.passing import unsettled_before
from hollet.core.entries import BookState, CarrierSet, PartChanged, PatternSeen, StepBody
from hollet.core.entries.base import PhotoHash
from hollet.core.entries.status import status_of
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.instruments import Instrument
from hollet.core.measuring.pinion import ContactPattern, contact_pattern
from hollet.core.quantities.parse import measured
from hollet.core.quantities.quantity import Measured, Quantity, round9
from hollet.core.steps.carriers import carrier_of, packs_of
from hollet.core.steps.pattern import PATTERN_WORDS
from hollet.core.steps.readings import missed_ground

__all__ = ["CarrierSetAct", "PartChangedAct", "PatternSeenAct"]


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
        missed = missed_ground(state, self.step, hand.seen, hand.told)
        if missed:
            words = f"not written: {missed}. Look again"
            raise Conflict(words, reason_code="moved_on")
        sides = {"drive_side": self.drive_side, "coast_side": self.coast_side}
        found = contact_pattern(ContactPattern.model_validate(sides))
        return self.filled(action=found.action, words=PATTERN_WORDS[found.action])

    def files(self) -> tuple[tuple[str, str], ...]:
        return (("photos", self.photo),) if self.photo else ()


THICKEST_MM = 25.0
LARGE_MOVE_MM = 0.5
"""A pack that changes by more is asked about: no backlash is set in such a step."""


class CarrierSetAct(Act[CarrierSet], StepBody):
    """Both packs as they lie in now. `as_read`: the backlash on the page was read with these in, so
    that it stands; only the first packs of a carrier can have been.
    """

    body: ClassVar = CarrierSet
    kind: Literal["carrier set"]
    near: Annotated[str, Field(min_length=1, max_length=30)]
    far: Annotated[str, Field(min_length=1, max_length=30)]
    unit: Annotated[str, Field(min_length=1, max_length=8)] = "mm"
    instrument: Annotated[str, Field(max_length=64)] | None = None
    as_read: bool = False
    sure: bool = False

    def accepted(self, state: BookState, hand: Hand) -> CarrierSet:
        step = step_named(state, self.step)
        carrier = step.carrier_set()
        if carrier is None:
            raise NotFound("carrier", self.step)
        waits = next(iter(unsettled_before(state, step, hand.now)), None)
        if waits is not None:
            raise held(step, waits, "near")
        tool = tool_of(hand, self.instrument) if self.instrument else None
        if tool is not None:
            measures_thickness(tool)
        near, far = (
            _thickness(text, self.unit, field, tool)
            for text, field in ((self.near, "near"), (self.far, "far"))
        )
        before = packs_of(state, step.id)
        if before is not None and self.as_read:
            words = "other packs lay in before: the backlash is read again with these in"
            raise Refused("read_before", words, field="as_read")
        if before is not None and (near, far) == (_mm(before.body.near), _mm(before.body.far)):
            raise Refused("nothing_new", "these packs lie in already", field="near")
        if before is not None and not self.sure:
            _asked(self.near, near, _mm(before.body.near), "near")
            _asked(self.far, far, _mm(before.body.far), "far")
        facts = carrier_of(state, step, hand.listed)
        assert facts is not None
        first_and_read = before is None and self.as_read
        again = () if first_and_read else (self.step, *carrier.again)
        lash = facts.lash if facts.ready or before is None else None
        return self.filled(
            near_name=carrier.near,
            far_name=carrier.far,
            near=measured(self.near, "length", self.unit, "near"),
            far=measured(self.far, "length", self.unit, "far"),
            instrument=tool,
            before=Quantity(value=lash, unit="mm") if lash is not None else None,
            again=again,
        )


def _mm(pack: Measured) -> float:
    return round9(pack.figure("length"))


def _asked(text: str, now: float, before: float, field: str) -> None:
    """Ask about a pack that is far from the one before it."""
    if abs(now - before) > LARGE_MOVE_MM:
        words = f"{text}: {abs(now - before):.2f} mm from {before:.2f} before it, is that right?"
        raise Refused("odd_figure", words, field=field)


def _thickness(text: str, unit: str, field: str, tool: Instrument | None) -> float:
    """A pack in mm; refused where none is so thick, or the tool cannot have shown it."""
    value = _mm(measured(text, "length", unit, field))
    if not 0 < value <= THICKEST_MM:
        words = f"'{text}': a pack of shims is more than nothing and at most {THICKEST_MM:g} mm"
        raise Refused("bad_number", words, field=field)
    if tool is not None and not tool.covers(value):
        words = f"{text}: {tool.code} gives {tool.lo} to {tool.hi} {tool.unit}"
        raise Refused("out_of_range", words, field=field)
    return value


class PartChangedAct(Act[PartChanged], StepBody):
    """A part that the sheet names was changed: what was read with the old one is read again."""

    body: ClassVar = PartChanged
    kind: Literal["part changed"]
    what: Annotated[str, Field(min_length=1, max_length=200)]

    def accepted(self, state: BookState, hand: Hand) -> PartChanged:
        step = step_named(state, self.step)
        found = next((again for again in step.again if again.what == self.what), None)
        if found is None:
            raise NotFound("part", self.what)
        return self.filled(again=found.steps)
