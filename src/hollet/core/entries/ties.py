"""What tied a unit to its vehicle, line by line: where it is tucked, how its end is known, its
proof once it is back; and what one walk round finds.
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import Body, Key, Own, Short, StepBody

__all__ = ["Swept", "SweptSaid", "TieProven", "TieProvenSaid", "TieTold", "TieToldSaid"]

TieHow = Literal["pulled", "seen", "measured"]
Told = Annotated[str, Field(max_length=160)]


class TieToldSaid(Body):
    """Of one line: where it is tucked, its label, what it may be taken for, what it goes under or
    over, and whether it is reached only while its unit hangs; what is not said stays as it was.
    """

    item: Own
    tucked: Told = ""
    label: Told = ""
    alike: Told = ""
    route: Told = ""
    hangs: bool | None = None

    def subject(self) -> Key:
        return Key("tie", self.item)


class TieTold(TieToldSaid):
    """The same with its name."""

    called: ClassVar = "tie told"
    never_late: ClassVar = True
    begins: ClassVar = False
    tells: ClassVar = True

    what: Short

    def line(self, title: str) -> str:
        told = (
            ("tucked ", self.tucked),
            ("label ", self.label),
            ("looks like ", self.alike),
            ("led ", self.route),
        )
        said = [word + text for word, text in told if text]
        if self.hangs is not None:
            only = "reached only while its unit hangs"
            said.append(only if self.hangs else "reached also once its unit sits")
        return f"{self.what}: " + ", ".join(said)


class TieProvenSaid(Body):
    """A line that is back was pulled, seen or measured: right or not, and what was seen."""

    item: Own
    how: TieHow
    right: bool = True
    words: Told = ""

    def subject(self) -> Key:
        return Key("tie", self.item)


class TieProven(TieProvenSaid):
    """The same with its name."""

    called: ClassVar = "tie proven"
    never_late: ClassVar = True
    begins: ClassVar = False
    touches: ClassVar = True

    what: Short

    def line(self, title: str) -> str:
        found = "right" if self.right else "not right"
        return f"{self.what}: {self.how}, {found}" + (f", {self.words}" if self.words else "")


class SweptSaid(StepBody):
    """Things at one place of the walk, as they were found: right, wrong, or not on this vehicle."""

    things: Annotated[tuple[Own, ...], Field(min_length=1, max_length=24)]
    found: Literal["right", "wrong", "not there"]
    words: Told = ""


class Swept(SweptSaid):
    """The same with the place and the names."""

    called: ClassVar = "swept"
    never_late: ClassVar = True
    is_ground: ClassVar = True

    at_place: Short
    names: Annotated[tuple[Short, ...], Field(min_length=1, max_length=24)]

    def also(self) -> tuple[Key, ...]:
        return tuple(Key("swept", f"{self.step}/{thing}") for thing in self.things)

    def line(self, title: str) -> str:
        found = {"right": "as it should be", "wrong": "NOT right", "not there": "not there"}
        said = f", {self.words}" if self.words else ""
        return f"{self.at_place}: {', '.join(self.names)}: {found[self.found]}{said}"
