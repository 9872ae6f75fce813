"""Whether what opens a thing is here."""

from typing import ClassVar, Literal

from hollet.core.acts.base import Act
from hollet.core.acts.hand import Hand
from hollet.core.book.wants import need_id
from hollet.core.entries import BookState, OpenerSaid
from hollet.core.entries.openers import OpenerSaidSaid
from hollet.core.entries.status import plan_of
from hollet.core.errors import NotFound

__all__ = ["OpenerSaidAct"]


class OpenerSaidAct(Act[OpenerSaid], OpenerSaidSaid):
    """Here, missing, or not on this vehicle."""

    body: ClassVar = OpenerSaid
    kind: Literal["opener said"]

    def accepted(self, state: BookState, hand: Hand) -> OpenerSaid:
        asked = {name for step in plan_of(state).step for name in step.opened_with}
        if self.name not in asked:
            raise NotFound("opener", self.name)
        return self.filled(opener=need_id(self.name))
