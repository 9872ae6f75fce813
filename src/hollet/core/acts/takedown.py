"""What is written while things come off and go back: bags, removals, captures, settings, tries."""

from datetime import datetime
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act, step_named
from hollet.core.acts.hand import Hand
from hollet.core.book.bags import bag_contents, check_taken
from hollet.core.book.captures import within
from hollet.core.book.removals import find_removal
from hollet.core.book.settings import disturbed, find_setting
from hollet.core.book.tries import ladder_of
from hollet.core.entries import (
    Bagged,
    BookState,
    Captured,
    Compared,
    Disturbed,
    Guarded,
    Removed,
    Replaced,
    SetAnew,
    Tried,
    Unbagged,
)
from hollet.core.entries.base import Short
from hollet.core.entries.status import plan_of
from hollet.core.entries.takedown import CapturedSaid, ComparedSaid, DisturbedSaid, TriedSaid
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.procedure.fasteners import tidy_line
from hollet.core.procedure.pieces import BagLine, Capture, CaptureKind
from hollet.core.procedure.stuck import StuckFacts, StuckRung
from hollet.core.quantities.parse import measured, parse
from hollet.core.quantities.quantity import Quantity, decimal_text

__all__ = [
    "BaggedAct",
    "CapturedAct",
    "ComparedAct",
    "DisturbedAct",
    "GuardedAct",
    "RemovedAct",
    "ReplacedAct",
    "SetAnewAct",
    "TriedAct",
    "UnbaggedAct",
]

JUST_BEFORE = 40
"""Among so many of the last lines the same thing taken off twice is asked about."""


def _free_bag(state: BookState, bag: int, owner: str) -> None:
    content = next((c for c in bag_contents(state) if c.bag == bag), None)
    if content is not None and content.owner != owner and content.left:
        whose = f"{content.number} {content.what}".strip()
        raise Refused(
            "bag_taken",
            f"bag {bag} holds the fasteners of {whose}: take the next number",
            field="bag",
        )


class BaggedAct(Act[Bagged], Bagged):
    """Fasteners into a bag."""

    body: ClassVar = Bagged
    kind: Literal["bagged"]
    lines: Annotated[tuple[BagLine, ...], Field(min_length=1, max_length=40)]
    place: Short | None = None

    def accepted(self, state: BookState, hand: Hand) -> Bagged:
        step = step_named(state, self.step)
        _free_bag(state, self.bag, step.id)
        return self.filled(lines=tuple(map(tidy_line, self.lines)))


class RemovedAct(Act[Removed], Removed):
    """Something came off that no step names; `sure` when it is meant although the same was logged
    just before.
    """

    body: ClassVar = Removed
    kind: Literal["removed"]
    lines: Annotated[tuple[BagLine, ...], Field(max_length=40)] = ()
    place: Short | None = None
    sure: bool = False

    def accepted(self, state: BookState, hand: Hand) -> Removed:
        if self.step is not None:
            step_named(state, self.step)
        if state.live("removal", self.removal):
            words = f"{self.what} is logged already: strike that line to write it anew"
            raise Conflict(words, reason_code="id_used")
        self._bag(state)
        if not self.sure:
            self._not_twice(state)
        return self.filled(lines=tuple(map(tidy_line, self.lines)))

    def _bag(self, state: BookState) -> None:
        if self.lines and self.bag is None:
            raise Refused("bad_entry", "say into which bag the fasteners go", field="bag")
        if self.bag is None:
            return
        if not self.lines:
            words = f"say what goes into bag {self.bag}, such as 4 m8x25"
            raise Refused("bad_entry", words, field="lines")
        _free_bag(state, self.bag, self.removal)

    def _not_twice(self, state: BookState) -> None:
        recent = {entry.id for entry in state.last_lines(JUST_BEFORE)}
        for twin in reversed(state.all(Removed)):
            if twin.id in recent and twin.body.what.casefold() == self.what.casefold():
                where = f", bag {twin.body.bag}" if twin.body.bag else ""
                raise Refused(
                    "logged_already",
                    f"{twin.body.what} was logged by {twin.who}{where}: if it is another one, "
                    "write it all the same",
                    field="what",
                )


class UnbaggedAct(Act[Unbagged], Unbagged):
    """Fasteners out of a bag: fitted, left out for new ones, or lost."""

    body: ClassVar = Unbagged
    kind: Literal["unbagged"]

    def accepted(self, state: BookState, hand: Hand) -> Unbagged:
        step_named(state, self.step)
        check_taken(state, self.bag, self.lines)
        return self.filled()


class ReplacedAct(Act[Replaced], Replaced):
    """Lost fasteners replaced."""

    body: ClassVar = Replaced
    kind: Literal["replaced"]

    def accepted(self, state: BookState, hand: Hand) -> Replaced:
        content = next((c for c in bag_contents(state) if c.bag == self.bag), None)
        missing = content.missing if content else 0
        if content is None or self.count > missing:
            words = f"of bag {self.bag} {missing} are lost, not {self.count}"
            raise Refused("not_in_bag", words, field="count")
        return self.filled()


def _length(text: str | None) -> Quantity | None:
    if text is None:
        return None
    parsed = parse(text, "length", "mm")
    if parsed.kind != "single" or parsed.nominal is None:
        raise Refused("bad_number", f"'{text}': type one length, such as 61.5 mm", field="typed")
    return Quantity(value=decimal_text(parsed.nominal), unit="mm")


class CapturedAct(Act[Captured], CapturedSaid):
    """The state as found, at a step or of a removal."""

    body: ClassVar = Captured
    kind: Literal["captured"]
    what: Short | None = None
    capture_kind: CaptureKind | None = None

    def files(self) -> tuple[tuple[str, str], ...]:
        return (("photos", self.photo),) if self.photo else ()

    def accepted(self, state: BookState, hand: Hand) -> Captured:
        spec = self._asked(state)
        kind, what = (spec.kind, spec.what) if spec else (self.capture_kind, self.what)
        if kind is None or not what:
            words = "say what is kept and of which kind it is"
            raise Refused("bad_entry", words, field="what")
        self._enough(kind)
        value = _length(self.typed) if kind == "length" else None
        return self.filled(what=what, capture_kind=kind, value=value)

    def _asked(self, state: BookState) -> Capture | None:
        """What the sheet asks to keep, or None for what is kept by hand."""
        if self.step is not None:
            asked = step_named(state, self.step).capture
            return next((spec for spec in asked if spec.id == self.capture), None)
        if self.removal is None or find_removal(state, self.removal) is None:
            words = "say at which step, or of which removal, this was found so"
            raise Refused("bad_entry", words, field="step")
        return None

    def _enough(self, kind: CaptureKind) -> None:
        """What each kind cannot do without; a mark is a photo's business only if nobody can put it
        in words.
        """
        marked = (self.strokes is not None or self.factory) and bool(self.place)
        wants: dict[CaptureKind, tuple[bool, str, str]] = {
            "photo": (self.photo is not None, "photo", "take the photo first"),
            "wires": (
                bool(self.wires),
                "wires",
                "name each terminal and the colour of its wire",
            ),
            "mark": (marked, "strokes", "count the strokes, two or more, and say where they are"),
            "index": (bool(self.words), "words", "say how it stands, such as long side up"),
            "length": (bool(self.typed), "typed", "type the length, such as 61.5 mm"),
            "reading": (bool(self.typed or self.words), "typed", "type what was read"),
            "straight_ahead": (bool(self.place), "place", "say where the mark is"),
        }
        met, field, words = wants[kind]
        if not met:
            raise Refused("not_kept", words, field=field)
        if kind == "mark" and self.strokes == 1 and not self.factory:
            words = "one stroke cannot be told from a scratch: make two or more"
            raise Refused("one_stroke", words, field="strokes")
        self._wires_apart()

    def _wires_apart(self) -> None:
        terminals = {wire.terminal.casefold() for wire in self.wires}
        if len(terminals) < len(self.wires) and any(not wire.note for wire in self.wires):
            raise Refused(
                "twice",
                "a terminal is named twice: put both wires on one line, or say in the note which "
                "is which",
                field="wires",
            )


class ComparedAct(Act[Compared], ComparedSaid):
    """A capture looked at again; `same` may be left out where strokes or a length say it."""

    body: ClassVar = Compared
    kind: Literal["compared"]
    same: bool | None = None

    def accepted(self, state: BookState, hand: Hand) -> Compared:
        step_named(state, self.step)
        made = state.newest(Captured, "capture", self.capture)
        if made is None:
            raise NotFound("capture", self.capture)
        value = _length(self.typed) if made.body.value is not None else None
        asked = (c for s in plan_of(state).step for c in s.capture if c.id == self.capture)
        same = self._same(made.body, value, next(asked, None))
        return self.filled(same=same, value=value)

    def _same(self, kept: Captured, value: Quantity | None, spec: Capture | None) -> bool:
        """Whether it is as found: what the hand saw as different stays so; else strokes and lengths
        say it themselves.

        A length that differs, and of which no sheet says how far it may, counts as the same only
        with words that say why.
        """
        if self.same is False:
            return False
        if self.strokes is not None and kept.strokes is not None:
            return self.strokes == kept.strokes
        if value is not None and self.typed and kept.typed:
            agrees = within(spec.within if spec else None, kept.typed, self.typed)
            said = bool(self.same and self.words)
            return agrees if agrees is not None else value == kept.value or said
        if self.same is None:
            words = "say whether it is the same as it was found"
            raise Refused("bad_entry", words, field="same")
        return self.same


class GuardedAct(Act[Guarded], Guarded):
    """A setting that must not be loosened, found by hand."""

    body: ClassVar = Guarded
    kind: Literal["guarded"]

    def accepted(self, state: BookState, hand: Hand) -> Guarded:
        step_named(state, self.step)
        if find_setting(state, self.setting) is not None:
            raise Conflict("this setting is guarded already", reason_code="id_used")
        return self.filled()


class DisturbedAct(Act[Disturbed], DisturbedSaid):
    """A setting was loosened after all."""

    body: ClassVar = Disturbed
    kind: Literal["disturbed"]

    def accepted(self, state: BookState, hand: Hand) -> Disturbed:
        step_named(state, self.step)
        setting = find_setting(state, self.setting)
        if setting is None:
            raise NotFound("setting", self.setting)
        return self.filled(what=setting.what, holds=setting.holds, blocks=setting.blocks)


class SetAnewAct(Act[SetAnew], SetAnew):
    """A disturbed setting is set again."""

    body: ClassVar = SetAnew
    kind: Literal["set anew"]

    def accepted(self, state: BookState, hand: Hand) -> SetAnew:
        if disturbed(state, self.setting) is None:
            raise Conflict("this setting is not disturbed", reason_code="not_disturbed")
        step_named(state, self.step)
        return self.filled()


class TriedAct(Act[Tried], TriedSaid):
    """One try on a stuck part."""

    body: ClassVar = Tried
    kind: Literal["tried"]
    rung: StuckRung
    time: Annotated[str, Field(min_length=1, max_length=40)]

    def accepted(self, state: BookState, hand: Hand) -> Tried:
        step = step_named(state, self.step)
        facts = StuckFacts(near=self.near, cleaner=self.cleaner, wiped=self.wiped, nut=self.nut)
        ladder = ladder_of(state, step, self.part, facts, datetime.fromisoformat(hand.now))
        rung = next(r for r in ladder if r.id == self.rung)
        if rung.state == "refused":
            raise Refused("not_here", f"{rung.name}: {rung.words}", field="rung")
        return self.filled(time=measured(self.time, "time", "min", "time"))
