"""What a build may cost: the budget, the owner's word, a way chosen among several, what was paid,
and what is bought ahead in case it is needed.
"""

from datetime import date
from typing import Annotated, ClassVar, Literal

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.entries.base import Body, Key, Money, Own, Share, Short
from hollet.core.entries.parts import Pieces, Price, day_words
from hollet.core.words import counted

__all__ = [
    "BudgetSet",
    "OwnerSaid",
    "OwnerSaidSaid",
    "Paid",
    "ReserveWeighed",
    "ReserveWeighedSaid",
    "WayOption",
    "WayWeighed",
]

How = Literal[
    "do it",
    "send it out",
    "buy it ready",
    "buy the tool",
    "borrow it",
    "rent it",
    "pay somebody",
]
Chance = Literal["hardly", "perhaps", "likely"]
WordSort = Literal["standard", "extra", "concession", "sold", "paid", "paid back"]
WORD_SORTS: tuple[WordSort, ...] = ("standard", "extra", "concession", "sold", "paid", "paid back")


class BudgetSet(Body):
    """What the build may cost, and by whose word."""

    called: ClassVar = "budget set"
    clocked: ClassVar = False

    money: Price
    name: Short

    def subject(self) -> Key:
        return Key("money", "budget")

    def line(self, title: str) -> str:
        return f"budget {self.money:.2f}, said by {self.name}"


class OwnerSaidSaid(Body):
    """A word of the owner of the vehicle: the standard promised, an extra, a concession, what is
    sold, paid, or paid back; to which line it answers.
    """

    word: Own
    sort: WordSort
    what: Short
    price: Price | None = None
    name: Short
    how: Annotated[str, Field(min_length=1, max_length=120)]
    about: Annotated[str, Field(max_length=64)] | None = None

    def subject(self) -> Key:
        return Key("money", f"word:{self.word}")


class OwnerSaid(OwnerSaidSaid):
    """The same on its day."""

    called: ClassVar = "owner said"
    clocked: ClassVar = False
    never_late: ClassVar = True

    day: date

    def line(self, title: str) -> str:
        price = f", {self.price:.2f}" if self.price is not None else ""
        when = f"{self.name} said {self.how} on {day_words(self.day)}"
        return f"{when}, {self.sort}: {self.what}{price}"


class WayOption(BaseModel):
    """One way to a piece of work or a tool: how, price, days, what speaks for or against."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)
    how: How
    price: Price | None = None
    days: Annotated[int, Field(ge=0, le=400)] | None = None
    because: Annotated[str, Field(max_length=200)] = ""

    def words(self) -> str:
        """How, what it costs and how long it takes."""
        price = f", {self.price:.2f}" if self.price is not None else ", no price yet"
        days = f", {counted(self.days, 'day')}" if self.days is not None else ""
        return f"{self.how}{price}{days}"


class WayWeighed(Body):
    """Ways to the same end side by side, the one taken and why, and what an outside shop must
    answer first; `ordered`: its price stands among the orders, and is not counted twice.
    """

    called: ClassVar = "way weighed"
    clocked: ClassVar = False

    way: Own
    what: Short
    options: Annotated[tuple[WayOption, ...], Field(min_length=2, max_length=7)]
    chosen: Annotated[int, Field(ge=0, le=6)] | None = None
    because: Annotated[str, Field(max_length=300)] = ""
    questions: Annotated[tuple[Short, ...], Field(max_length=8)] = ()
    ordered: bool = False

    def subject(self) -> Key:
        return Key("money", f"way:{self.way}")

    def line(self, title: str) -> str:
        if self.chosen is None:
            return f"{self.what}: {'; '.join(o.words() for o in self.options)}: not decided"
        taken = self.options[self.chosen]
        others = ", ".join(o.how for k, o in enumerate(self.options) if k != self.chosen)
        ordered = "; ordered now" if self.ordered else ""
        return f"{self.what}: {taken.words()}, not {others}: {self.because}{ordered}"


class Paid(Body):
    """Money that went to a supplier."""

    called: ClassVar = "paid"
    clocked: ClassVar = False
    never_late: ClassVar = True

    order: Own
    supplier: Short = "supplier"
    money: Price

    def subject(self) -> Key:
        return Key("money", f"paid:{self.order}")

    def also(self) -> tuple[Key, ...]:
        return (Key("order", self.order),)

    def line(self, title: str) -> str:
        return f"paid to {self.supplier}: {self.money:.2f}"


class ReserveWeighedSaid(Body):
    """A part that may be needed: what it costs now, how long one waits for it then, what a day of
    waiting is worth, and how likely it is: one of three keys, or a limit with the figure beyond
    which it is needed.
    """

    name: Short
    count: Pieces = 1
    price: Price
    wait_days: Annotated[int, Field(ge=0, le=400)]
    a_day: Price
    chance: Chance | None = None
    limit: Annotated[str, Field(max_length=120)] | None = None
    beyond: Annotated[str, Field(max_length=40)] | None = None
    step: str | None = None


class ReserveWeighed(ReserveWeighedSaid):
    """The same with its sum: what it costs now, what it costs later on average, and what was
    decided.
    """

    called: ClassVar = "reserve weighed"
    clocked: ClassVar = False

    need: Own
    likely: Share
    later: Money
    working: Annotated[tuple[str, ...], Field(max_length=8)]
    buy: bool

    def subject(self) -> Key:
        return Key("money", f"reserve:{self.need}")

    def also(self) -> tuple[Key, ...]:
        return (Key("need", self.need),) if self.buy else ()

    def line(self, title: str) -> str:
        done = "bought ahead" if self.buy else "not bought ahead"
        return (
            f"{self.count} × {self.name}: {self.price * self.count:.2f} now, "
            f"{self.later:.2f} later on average: {done}"
        )
