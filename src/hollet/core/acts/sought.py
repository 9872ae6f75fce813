"""What a hand says of small things: put by, looked for, found or given up."""

from datetime import datetime
from typing import Annotated, ClassVar, Literal

from pydantic import Field, StringConstraints

from hollet.core.acts.base import Act, step_named
from hollet.core.acts.hand import Hand
from hollet.core.book.sought import kept_places, open_search
from hollet.core.book.wants import need_id
from hollet.core.entries import BookState, Key, PutBy, SearchBegun, SearchEnded
from hollet.core.entries.base import Own
from hollet.core.entries.sought import PutBySaid, SearchBegunSaid, SearchEndedSaid
from hollet.core.errors import Conflict, NotFound, Refused

__all__ = ["PutByAct", "SearchBegunAct", "SearchEndedAct"]

Named = Annotated[str, StringConstraints(strip_whitespace=True, min_length=2, max_length=200)]


def _at(state: BookState, step: str | None) -> None:
    if step is not None:
        step_named(state, step)


class PutByAct(Act[PutBy], PutBySaid):
    """Where a thing lies."""

    body: ClassVar = PutBy
    kind: Literal["put by"]
    what: Named
    where: Named

    def accepted(self, state: BookState, hand: Hand) -> PutBy:
        _at(state, self.step)
        return self.filled(thing=need_id(self.what))


class SearchBegunAct(Act[SearchBegun], SearchBegunSaid):
    """Something is looked for; where it was put by counts as seen last."""

    body: ClassVar = SearchBegun
    kind: Literal["search begun"]
    what: Named
    limit_min: Annotated[int, Field(ge=1, le=240, strict=True)] = 20
    count: Annotated[int, Field(ge=1, le=999, strict=True)] = 1

    def concerns(self) -> Key:
        return Key("thing", need_id(self.what))

    def accepted(self, state: BookState, hand: Hand) -> SearchBegun:
        _at(state, self.step)
        thing = need_id(self.what)
        if open_search(state, thing, hand.now) is not None:
            raise Conflict(f"{self.what} is looked for already", reason_code="begun")
        known = next((kept.where for kept in kept_places(state) if kept.thing == thing), "")
        return self.filled(thing=thing, last_seen=self.last_seen.strip() or known)


class SearchEndedAct(Act[SearchEnded], SearchEndedSaid):
    """Found, or given up."""

    body: ClassVar = SearchEnded
    kind: Literal["search ended"]
    thing: Own

    def concerns(self) -> Key:
        return Key("thing", self.thing)

    def accepted(self, state: BookState, hand: Hand) -> SearchEnded:
        search = open_search(state, self.thing, hand.now)
        if search is None:
            raise NotFound("search", self.thing)
        if self.where is not None and not self.where.strip():
            raise Refused("bad_entry", "where was it found?", field="where")
        spent = datetime.fromisoformat(hand.now) - datetime.fromisoformat(search.since)
        return self.filled(
            what=search.what,
            step=self.step or search.step,
            minutes=min(600, max(0, round(spent.total_seconds() / 60))),
        )
