"""A line struck."""

from typing import ClassVar, Literal

from hollet.core.acts.base import Act
from hollet.core.acts.hand import Hand
from hollet.core.entries import BookState, Strike
from hollet.core.errors import Conflict, NotFound, Refused

__all__ = ["StrikeAct"]


class StrikeAct(Act[Strike], Strike):
    """An entry is struck."""

    body: ClassVar = Strike
    kind: Literal["strike"]

    def accepted(self, state: BookState, hand: Hand) -> Strike:
        target = state.entries.get(self.entry)
        if target is None:
            raise NotFound("line", self.entry)
        if not target.body.strikable:
            words = f"line {target.seq} cannot be struck: it is edited back instead"
            raise Refused("not_strikable", words, field="entry")
        if self.entry in state.struck:
            raise Conflict(f"line {target.seq} is already struck", reason_code="already_struck")
        return self.filled()
