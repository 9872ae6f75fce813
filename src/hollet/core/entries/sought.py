"""Small things that get lost: where one was put by, a search with its limit, what came of it."""

from typing import Annotated, ClassVar

from pydantic import Field

from hollet.core.entries.base import AtStep, Key, Own, Short
from hollet.core.entries.parts import Pieces

__all__ = ["PutBy", "PutBySaid", "SearchBegun", "SearchBegunSaid", "SearchEnded", "SearchEndedSaid"]


class PutBySaid(AtStep):
    """Where a thing lies, said at the moment of putting it there."""

    what: Short
    where: Short


class PutBy(PutBySaid):
    """The same; `thing` is its name as a key."""

    called: ClassVar = "put by"
    clocked: ClassVar = False
    begins: ClassVar = False
    never_late: ClassVar = True

    thing: Own

    def subject(self) -> Key:
        return Key("thing", self.thing)

    def line(self, title: str) -> str:
        return f"{self.what} lies {self.where}"


class SearchBegunSaid(AtStep):
    """Something is looked for: where it was seen last, for how long one looks before a new one is
    ordered, and how many of it.
    """

    what: Short
    last_seen: Annotated[str, Field(max_length=200)] = ""
    limit_min: Annotated[int, Field(ge=1, le=240)] = 20
    count: Pieces = 1


class SearchBegun(SearchBegunSaid):
    """The same; `thing` is its name as a key."""

    called: ClassVar = "search begun"
    clocked: ClassVar = False
    begins: ClassVar = False

    thing: Own

    def subject(self) -> Key:
        return Key("thing", self.thing)

    def line(self, title: str) -> str:
        seen = f", last seen {self.last_seen}" if self.last_seen else ""
        return f"looking for {self.what}{seen}: {self.limit_min} min, then a new one"


class SearchEndedSaid(AtStep):
    """Found, and where; or given up: with what instead and at which risk, and whether a new one is
    wanted.
    """

    thing: Own
    where: Annotated[str, Field(min_length=1, max_length=200)] | None = None
    instead: Annotated[str, Field(max_length=200)] | None = None
    reorder: bool = True


class SearchEnded(SearchEndedSaid):
    """The same with the thing by its name, and how long it took."""

    called: ClassVar = "search ended"
    clocked: ClassVar = False
    begins: ClassVar = False

    what: Short
    minutes: Annotated[int, Field(ge=0, le=600)]

    def subject(self) -> Key:
        return Key("thing", self.thing)

    def also(self) -> tuple[Key, ...]:
        """Given up and wanted anew, it is a part that is known to be missing."""
        return (Key("need", self.thing),) if self.reorder and not self.where else ()

    def line(self, title: str) -> str:
        if self.where:
            return f"{self.what} found after {self.minutes} min: {self.where}"
        instead = f", instead of it {self.instead}" if self.instead else ""
        anew = ", a new one is wanted" if self.reorder else ""
        return f"{self.what} given up after {self.minutes} min{instead}{anew}"
