"""A unit on its way in or out: who watches what, each move after it was made, what each watcher
says, what touches.
"""

from typing import Annotated, ClassVar

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.entries.base import Key, Short, StepBody
from hollet.core.procedure.words import MoveWay
from hollet.core.quantities.quantity import Measured

__all__ = ["ClearSaid", "HalfSaid", "Touched", "UnitMoved", "WatchSaid", "Watcher"]


class Watcher(BaseModel):
    """Somebody by initials, and the one point that is watched."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    who: Annotated[str, Field(min_length=1, max_length=12)]
    point: Short


class WatchSaid(StepBody):
    """Who watches what, who gives the word, how far it still has to go (negative: the other way),
    and the least gap allowed. It begins the moves anew.
    """

    called: ClassVar = "watch said"
    tells: ClassVar = True

    watchers: Annotated[tuple[Watcher, ...], Field(min_length=1, max_length=8)]
    word: Annotated[str, Field(min_length=1, max_length=12)]
    down: Measured | None = None
    along: Measured | None = None
    side: Measured | None = None
    nose: Measured | None = None
    least: Measured | None = None

    def subject(self) -> Key:
        return Key("moving", self.step)

    def line(self, title: str) -> str:
        who = "; ".join(f"{w.who} watches {w.point}" for w in self.watchers)
        return f"{title}: {who}; {self.word} gives the word"


class UnitMoved(StepBody):
    """One move, told after it was made; `clear`: stopped, and all clear by the one who gives the
    word.
    """

    called: ClassVar = "unit moved"
    never_late: ClassVar = True

    way: MoveWay
    by: Measured | None = None
    clear: bool = False
    against: str = ""

    def subject(self) -> Key:
        return Key("moving", self.step)

    def line(self, title: str) -> str:
        by = f" {self.by.value}" if self.by is not None else ""
        clear = ". Stopped, all clear" if self.clear else ""
        against = f", though {self.against}" if self.against else ""
        return f"{self.way}{by}{against}{clear}"


class ClearSaid(StepBody):
    """What one watcher says after a move: clear, or how wide a gap is, between what, and which way
    widens it.
    """

    called: ClassVar = "clear said"
    never_late: ClassVar = True

    watcher: Annotated[str, Field(min_length=1, max_length=12)]
    gap: Measured | None = None
    between: Annotated[str, Field(max_length=120)] = ""
    widens: MoveWay | None = None

    def subject(self) -> Key:
        return Key("moving", self.step)

    def line(self, title: str) -> str:
        if self.gap is None:
            return f"{self.watcher}: clear"
        between = f", {self.between}" if self.between else ""
        return f"{self.watcher}: {self.gap.value} {self.gap.unit}{between}"


class HalfSaid(StepBody):
    """It is stopped short on purpose: what for, and what holds it so that hands may go in. The next
    move ends it.
    """

    called: ClassVar = "half said"
    never_late: ClassVar = True
    tells: ClassVar = True

    why: Short
    held: Short

    def subject(self) -> Key:
        return Key("moving", self.step)

    def line(self, title: str) -> str:
        return f"half in, on purpose: {self.why}; held by {self.held}"


class Touched(StepBody):
    """It touches: who saw it, and where."""

    called: ClassVar = "touched"
    never_late: ClassVar = True
    tells: ClassVar = True

    watcher: Annotated[str, Field(min_length=1, max_length=12)]
    where: Annotated[str, Field(max_length=120)] = ""

    def subject(self) -> Key:
        return Key("moving", self.step)

    def line(self, title: str) -> str:
        return f"it touches, {self.watcher}" + (f": {self.where}" if self.where else "")
