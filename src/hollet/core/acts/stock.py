"""What a hand says of the box: put in, taken for a job, sold; and what stands before a step next
time.
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field, StringConstraints

from hollet.core.acts.base import Act
from hollet.core.acts.hand import Hand
from hollet.core.book.box import IN_THE_BOX, TAKEN, spares
from hollet.core.book.wants import need_id
from hollet.core.entries import BookState, NextTimeNoted, SpareKept, SpareMoved
from hollet.core.entries.base import Own
from hollet.core.entries.parts import Price
from hollet.core.entries.stock import SpareNow
from hollet.core.errors import Conflict, NotFound, Refused

__all__ = ["NextTimeAct", "SpareKeptAct", "SpareMovedAct"]

Named = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
Pieces = Annotated[int, Field(ge=1, le=999, strict=True)]


class SpareKeptAct(Act[SpareKept], SpareKept):
    """Something goes into the box, or is described anew."""

    body: ClassVar = SpareKept
    kind: Literal["spare kept"]
    name: Named
    condition: Named
    count: Pieces = 1

    def accepted(self, state: BookState, hand: Hand) -> SpareKept:
        known = next((s for s in spares(state) if s.spare == self.spare), None)
        if known is not None and need_id(known.name) != need_id(self.name):
            words = f"this is {known.name}: put {self.name} in by itself"
            raise Conflict(words, reason_code="id_used")
        gone = known.count - known.left if known is not None else 0
        if self.count < gone:
            words = f"{self.name}: {gone} of it left the box already"
            raise Refused("not_here", words, field="count")
        return self.filled()


class SpareMovedAct(Act[SpareMoved]):
    """So many pieces leave the box, or come back; `build_name` is how the job is called now."""

    body: ClassVar = SpareMoved
    kind: Literal["spare moved"]
    spare: Own
    count: Pieces
    now: SpareNow
    build: Annotated[str, Field(max_length=64)] | None = None
    build_name: Annotated[str, Field(max_length=200)] = ""
    need: Own | None = None
    money: Price | None = None

    def accepted(self, state: BookState, hand: Hand) -> SpareMoved:
        known = next((s for s in spares(state) if s.spare == self.spare), None)
        if known is None:
            raise NotFound("spare", self.spare)
        back = self.now == IN_THE_BOX
        most = known.count - known.left if back else known.left
        if self.count > most:
            words = f"{known.name}: {most} {'left the box' if back else 'lie in the box'}"
            raise Refused("not_here", words, field="count")
        if self.now == TAKEN and self.build is None:
            raise Refused("bad_entry", "for which job is it taken?", field="build")
        if self.now == "sold" and self.money is None:
            raise Refused("no_price", "how much was it sold for?", field="money")
        return self.filled(name=known.name)


class NextTimeAct(Act[NextTimeNoted], NextTimeNoted):
    """A word that stands before a step in every later build."""

    body: ClassVar = NextTimeNoted
    kind: Literal["next time noted"]
    text: Annotated[str, StringConstraints(strip_whitespace=True, min_length=3, max_length=400)]

    def accepted(self, state: BookState, hand: Hand) -> NextTimeNoted:
        return self.filled()
