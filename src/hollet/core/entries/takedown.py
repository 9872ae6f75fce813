"""What comes off and goes back: bags, removals, what is kept as found, settings, tries."""

from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import (
    AtStep,
    BagMove,
    BagNumber,
    Body,
    Key,
    Own,
    PhotoHash,
    Reason,
    Short,
    StepBody,
    measured_once,
)
from hollet.core.procedure.fasteners import fastener_words
from hollet.core.procedure.pieces import BagLine, CaptureKind
from hollet.core.procedure.stuck import NEAR, Cleaner, Near, Nut, StuckRung
from hollet.core.procedure.words import ReasonKind, Rung
from hollet.core.quantities.quantity import Measured, Quantity

__all__ = [
    "Bagged",
    "Captured",
    "CapturedSaid",
    "Compared",
    "ComparedSaid",
    "Disturbed",
    "DisturbedSaid",
    "Guarded",
    "Removed",
    "Replaced",
    "SetAnew",
    "Tried",
    "TriedSaid",
    "Unbagged",
    "Wire",
]


def _lines(lines: tuple[BagLine, ...]) -> str:
    return ", ".join(fastener_words(line) for line in lines)


class Bagged(StepBody):
    """Fasteners of a step into a numbered bag, and where the part lies."""

    called: ClassVar = "bagged"

    bag: BagNumber
    lines: tuple[BagLine, ...]
    place: str | None = None

    def also(self) -> tuple[Key, ...]:
        return (Key("bag", str(self.bag)),)

    def bag_move(self) -> BagMove:
        return BagMove(self.step, self.lines, place=self.place)

    def line(self, title: str) -> str:
        lies = f"; part lies {self.place}" if self.place else ""
        return f"bag {self.bag}: {_lines(self.lines)}{lies}"


class Removed(AtStep):
    """Something that came off and that no step of the plan names; `because` is why it had to be off
    before what came next.
    """

    called: ClassVar = "removed"
    touches: ClassVar = True
    never_late: ClassVar = True

    removal: Own
    what: Short
    bag: BagNumber | None = None
    lines: tuple[BagLine, ...] = ()
    place: str | None = None
    on_stand: bool = False
    because: Short | None = None
    reason_kind: ReasonKind | None = None

    def subject(self) -> Key:
        return Key("removal", self.removal)

    def also(self) -> tuple[Key, ...]:
        return (Key("bag", str(self.bag)),) if self.bag is not None else ()

    def bag_move(self) -> BagMove:
        return BagMove(self.removal, self.lines, self.what, self.place)

    def line(self, title: str) -> str:
        into = f", bag {self.bag}: {_lines(self.lines)}" if self.bag else ""
        lies = f", lies {self.place}" if self.place else ""
        because = f". Off first because {self.because}" if self.because else ""
        return f"off: {self.what}{into}{lies}{because}"


OUT = {"fitted": "out of", "new": "new ones instead of", "lost": "lost from"}


class Unbagged(StepBody):
    """Fasteners out of a bag: fitted again, left out for `new` ones in their place, or found to be
    missing (`lost`).
    """

    called: ClassVar = "unbagged"
    touches: ClassVar = True

    bag: BagNumber
    lines: Annotated[tuple[BagLine, ...], Field(min_length=1, max_length=60)]
    how: Literal["fitted", "new", "lost"] = "fitted"

    def subject(self) -> Key:
        return Key("bag", str(self.bag))

    def bag_move(self) -> BagMove:
        return BagMove(self.step, self.lines, how=self.how)

    def line(self, title: str) -> str:
        return f"{OUT[self.how]} bag {self.bag}: {_lines(self.lines)}"


class Replaced(Body):
    """Fasteners lost from a bag, replaced by as many of the same size and grade."""

    called: ClassVar = "replaced"

    bag: BagNumber
    count: Annotated[int, Field(ge=1, le=500)]
    by: Short

    def subject(self) -> Key:
        return Key("replaced", str(self.bag))

    def line(self, title: str) -> str:
        return f"{self.count} lost from bag {self.bag} replaced: {self.by}"


class Wire(Body):
    """One wire at one terminal, by its colours."""

    terminal: Annotated[str, Field(min_length=1, max_length=40)]
    colour: Annotated[str, Field(min_length=1, max_length=40)]
    note: Annotated[str, Field(max_length=80)] | None = None


class CapturedSaid(AtStep):
    """The state as found, at a step or of a removal."""

    capture: Own
    removal: Own | None = None
    words: Annotated[str, Field(max_length=400)] | None = None
    wires: Annotated[tuple[Wire, ...], Field(max_length=60)] = ()
    strokes: Annotated[int, Field(ge=1, le=20)] | None = None
    factory: bool = False
    place: Short | None = None
    typed: Short | None = None
    photo: PhotoHash | None = None

    def subject(self) -> Key:
        return Key("capture", self.capture)


class Captured(CapturedSaid):
    """The state as found, kept before it is disturbed, at a step or of a removal: what the kind
    asks for, and a photo.
    """

    called: ClassVar = "captured"
    tells: ClassVar = True

    what: Short
    capture_kind: CaptureKind
    value: Quantity | None = None

    def shown_photo(self) -> str | None:
        return self.photo

    def line(self, title: str) -> str:
        wires = "; ".join(f"{w.terminal}: {w.colour}" for w in self.wires)
        factory = "factory mark" if self.factory else ""
        strokes = f"{self.strokes} strokes" if self.strokes else factory
        facts = ", ".join(t for t in (strokes, self.place, self.typed, wires, self.words) if t)
        return f"kept as found: {self.what}" + (f", {facts}" if facts else "")


class ComparedSaid(StepBody):
    """What a second look at a capture shows."""

    capture: Own
    words: Annotated[str, Field(max_length=400)] | None = None
    strokes: Annotated[int, Field(ge=0, le=20)] | None = None
    typed: Short | None = None

    def subject(self) -> Key:
        return Key("capture", self.capture)


class Compared(ComparedSaid):
    """A capture looked at again at refit: the same or not, with what was seen."""

    called: ClassVar = "compared"

    same: bool
    value: Quantity | None = None

    def line(self, title: str) -> str:
        strokes = f"{self.strokes} strokes in line" if self.strokes is not None else None
        seen = ", ".join(text for text in (strokes, self.typed, self.words) if text)
        return ("as found" if self.same else "not as found") + (f": {seen}" if seen else "")


class Guarded(StepBody):
    """A setting found by hand that must not be loosened: what it is, what it holds, where to part
    things instead.
    """

    called: ClassVar = "guarded"

    setting: Own
    what: Short
    holds: Short
    part_at: Short
    blocks: Rung = "drive"

    def subject(self) -> Key:
        return Key("setting", self.setting)

    def line(self, title: str) -> str:
        return f"not to be loosened: {self.what}, it holds {self.holds}; part it at {self.part_at}"


class DisturbedSaid(StepBody):
    """Which setting was loosened, and why."""

    setting: Own
    reason: Reason

    def subject(self) -> Key:
        return Key("setting", self.setting)


class Disturbed(DisturbedSaid):
    """A setting that was to be kept was loosened after all."""

    called: ClassVar = "disturbed"
    tells: ClassVar = True

    what: Short
    holds: Short
    blocks: Rung

    def line(self, title: str) -> str:
        return f"loosened all the same: {self.what}, {self.holds} is lost. {self.reason}"


class SetAnew(StepBody):
    """A setting that was disturbed is set again."""

    called: ClassVar = "set anew"

    setting: Own
    how: Reason

    def subject(self) -> Key:
        return Key("setting", self.setting)

    def line(self, title: str) -> str:
        return f"set anew: {self.how}"


class TriedSaid(StepBody):
    """One try on something stuck."""

    part: Short
    came: bool = False
    near: Annotated[tuple[Near, ...], Field(max_length=len(NEAR))] = ()
    cleaner: Cleaner = "none"
    wiped: bool = False
    nut: Nut | None = None
    harmed: Short | None = None


class Tried(TriedSaid):
    """One try on something stuck: the rung of the ladder, how long, whether it came. A nut left
    half on was a rung once; it is a condition of two others now.
    """

    called: ClassVar = "tried"
    tells: ClassVar = True
    version: ClassVar = 3

    rung: StuckRung | Literal["partial_nut"]
    time: Measured

    def line(self, title: str) -> str:
        came = "came" if self.came else "did not come"
        rung, time = self.rung.replace("_", " "), f"{self.time.value} {self.time.unit}"
        return f"{self.part}: {rung}, {time}, {came}" + (
            f", harmed: {self.harmed}" if self.harmed else ""
        )

    @classmethod
    def lift(cls, version: int, body: dict[str, Any]) -> dict[str, Any]:
        """Of a cleaner that was on it before its kind was asked, nobody knows the kind."""
        kept = {key: value for key, value in body.items() if key not in ("minutes", "cleaned")}
        time = measured_once(body["minutes"], "min") if version < 2 else body["time"]
        cleaner = "nobody knows" if body.get("cleaned") else "none"
        return kept | {"time": time, "cleaner": cleaner}
