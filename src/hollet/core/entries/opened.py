"""What is left open by hand, and what was left open and is no more."""

from typing import Annotated, ClassVar

from pydantic import Field

from hollet.core.entries.base import Body, Key, Short, StepBody
from hollet.core.procedure.pieces import Carry, Opens, OpenSort, Release
from hollet.core.procedure.words import KIND_WORDS, Rung

__all__ = ["LeftOpen", "Undone"]


class LeftOpen(StepBody):
    """A temporary state left by hand: a word, the rung it blocks, what undoes it."""

    called: ClassVar = "left open"
    tells: ClassVar = True
    touches: ClassVar = True
    never_late: ClassVar = True

    item: str
    what: Short
    blocks: Rung
    undo: Short
    open_for: Rung | None = None
    sort: OpenSort = "other"
    where: Short | None = None
    closes_at: str | None = None
    count: Annotated[int, Field(ge=1, le=99)] = 1
    if_left: Short | None = None

    def subject(self) -> Key:
        return Key("open", self.item)

    def opened(self) -> tuple[Opens, ...]:
        return (
            Opens.model_construct(
                id=self.item,
                what=self.what,
                blocks=self.blocks,
                undo=self.undo,
                open_for=self.open_for,
                sort=self.sort,
                where=self.where,
                count=self.count,
                if_left=self.if_left,
            ),
        )

    def line(self, title: str) -> str:
        many = f"{self.count} × " if self.count > 1 else ""
        return f"left open: {many}{self.what}" + (f", {self.where}" if self.where else "")


class Undone(Body):
    """A temporary state is gone; where it held something up, what carries that now."""

    called: ClassVar = "undone"
    touches: ClassVar = True

    item: str
    note: str | None = None
    carries: tuple[Carry, ...] = ()
    releases: tuple[Release, ...] = ()

    def subject(self) -> Key:
        return Key("open", self.item)

    def titled(self) -> Key:
        return self.subject()

    def closed(self) -> tuple[str, ...]:
        return (self.item,)

    def carried(self) -> tuple[Carry, ...]:
        return self.carries

    def released(self) -> tuple[Release, ...]:
        return self.releases

    def line(self, title: str) -> str:
        note = f", {self.note}" if self.note else ""
        now_on = f", now on {KIND_WORDS[self.carries[0].by]}" if self.carries else ""
        return f"undone: {title}{note}{now_on}"
