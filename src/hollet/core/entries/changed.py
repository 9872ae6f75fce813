"""What is not as it left the works: parts changed or made at home, wires mended, what stands in for
good, what earlier hands did and stays.
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import Key, Own, Reason, Short, StepBody
from hollet.core.procedure.words import WIRE_STATES, WireState
from hollet.core.quantities.quantity import Measured

__all__ = ["Altered", "EarlierKept", "KeptSo", "WireMended"]


class Altered(StepBody):
    """A part that is not as it left the works, or made at home: what differs, how it is held, how
    the next person undoes it; `for_need` is the later part for which it was changed.
    """

    called: ClassVar = "altered"
    touches: ClassVar = True
    tells: ClassVar = True

    altered: Own
    what: Short
    differs: Short
    held: Short
    undo: Short
    for_need: Own | None = None
    for_name: Short | None = None

    def subject(self) -> Key:
        return Key("altered", self.altered)

    def line(self, title: str) -> str:
        later = f", for {self.for_name}" if self.for_name else ""
        held = f"Held by {self.held}; undone: {self.undo}"
        return f"changed: {self.what}, {self.differs}{later}. {held}"


class WireMended(StepBody):
    """A wire and how far it is mended: where, which, by what, what marks it, its sleeve, and how it
    was proven.
    """

    called: ClassVar = "wire mended"
    touches: ClassVar = True
    tells: ClassVar = True

    wire: Own
    place: Short
    which: Short
    how: Literal["crimped", "soldered", "new piece", "connector renewed"]
    marker: Annotated[str, Field(max_length=80)] = ""
    sleeve_inner: Measured | None = None
    sleeve_length: Measured | None = None
    state: WireState
    proof: Annotated[str, Field(max_length=200)] = ""

    def subject(self) -> Key:
        return Key("wire", self.wire)

    def line(self, title: str) -> str:
        proof = f" ({self.proof})" if self.proof else ""
        return f"wire {self.which}, {self.place}, {self.how}: {WIRE_STATES[self.state]}{proof}"


class KeptSo(StepBody):
    """What was left in place of something stays: what it may bear, and why it stays."""

    called: ClassVar = "kept so"
    tells: ClassVar = True

    item: str
    what: Short
    bears: Short
    why: Reason

    def subject(self) -> Key:
        return Key("open", self.item)

    def closed(self) -> tuple[str, ...]:
        return (self.item,)

    def line(self, title: str) -> str:
        return f"stays as it is: {self.what}, bears {self.bears}; {self.why}"


class EarlierKept(StepBody):
    """What an earlier hand did stays: how it is held, and why."""

    called: ClassVar = "earlier kept"
    tells: ClassVar = True

    part: Own
    face: Own
    what: Short
    held: Short
    why: Reason

    def subject(self) -> Key:
        return Key("earlier", f"{self.step}/{self.part}/{self.face}")

    def line(self, title: str) -> str:
        return f"stays as earlier hands left it: {self.what}, held by {self.held}; {self.why}"
