"""What is left open by hand, and what is undone."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act, step_named
from hollet.core.acts.hand import Hand
from hollet.core.book.ledger import left_open, opened_by_hand, opened_item
from hollet.core.book.loads import held_up_by
from hollet.core.entries import BookState, Key, LeftOpen, StepBody, Undone
from hollet.core.entries.base import Short
from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.pieces import Carry, OpenSort, Release
from hollet.core.procedure.placing import RANK
from hollet.core.procedure.words import RUNGS, Carried, Rung

__all__ = ["LeftOpenAct", "UndoneAct"]


class LeftOpenAct(Act[LeftOpen], StepBody):
    """Something left open by hand."""

    body: ClassVar = LeftOpen
    kind: Literal["left open"]
    item: str
    what: Short
    blocks: Rung = "crank"
    undo: Short = "undo it"
    sort: OpenSort = "other"
    where: Short | None = None
    closes_at: str | None = None
    count: Annotated[int, Field(ge=1, le=99, strict=True)] = 1
    if_left: Short | None = None

    def accepted(self, state: BookState, hand: Hand) -> LeftOpen:
        step_named(state, self.step)
        if self.closes_at is not None:
            step_named(state, self.closes_at)
        self._no_less(state)
        return self.filled()

    def _no_less(self, state: BookState) -> None:
        """Refuse to say again, as fewer or as shutting less, what is open still: that undoes it."""
        was = next((item for item in left_open(state) if item.id == self.item), None)
        if was is None:
            return
        if self.count < was.count:
            words = f"{was.what}: {was.count} went in. Count out what came out, do not say it anew"
            raise Refused("count_mismatch", words, field="count")
        if RANK[self.blocks] > RANK[was.blocks]:
            words = f"{was.what}: it shuts {RUNGS[was.blocks].lower()}. Undo it, or strike its line"
            raise Refused("weaker", words, field="blocks")


class UndoneAct(Act[Undone]):
    """What was left open is undone; where it held something up, what carries that now."""

    body: ClassVar = Undone
    kind: Literal["undone"]
    item: str
    note: str | None = None
    now_on: Carry | None = None
    out: Annotated[int, Field(ge=0, le=99, strict=True)] | None = None

    def concerns(self) -> Key:
        return Key("step")

    def accepted(self, state: BookState, hand: Hand) -> Undone:
        if not state.live("open", self.item):
            raise NotFound("open item", self.item)
        bodies = self._held_up(state)
        on = (self.now_on,) if self.now_on is not None else ()
        self._said(state, bodies)
        self._counted(state)
        return self.filled(carries=on, releases=tuple(Release(body=carry.body) for carry in on))

    def _counted(self, state: BookState) -> None:
        """Refuse to take as out what was not counted out."""
        item = next((item for item in left_open(state) if item.id == self.item), None)
        if item is None or not item.counted_out or item.count == 1 or self.out == item.count:
            return
        left = "count them out" if self.out is None else f"{self.out} came out"
        words = f"{item.what}: {item.count} went in, {left}"
        raise Refused("count_mismatch", words, field="out")

    def _held_up(self, state: BookState) -> tuple[Carried, ...]:
        """The bodies that what is undone holds up."""
        opener = state.live("open", self.item)[-1].body
        step = opener.at()
        by_step = step is not None and opened_by_hand(state, self.item) is None and opener.opened()
        return held_up_by(state, step) if by_step and step is not None else ()

    def _said(self, state: BookState, bodies: tuple[Carried, ...]) -> None:
        """Refuse where nobody says what carries that now."""
        opener = state.live("open", self.item)[-1].body
        closed = self.item in opener.closed()
        item = None if closed else opened_item(state, self.item)
        blocked = item is not None and item.sort == "block"
        what = item.what if item is not None else self.item
        if self.now_on is None and (bodies or blocked):
            thing = f"the {bodies[0]}" if bodies else "it"
            words = f"{what}: say what carries {thing} now"
            raise Refused("carried_by_what", words, field="now_on")
        if bodies and self.now_on is not None and self.now_on.body not in bodies:
            words = f"{what}: say what carries the {bodies[0]} now, not the {self.now_on.body}"
            raise Refused("carried_by_what", words, field="now_on")
